using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Printing;

/// <summary>A piece that should be printed.</summary>
/// <param name="PieceId">Which piece.</param>
/// <param name="Number">Its <see cref="PieceNumber"/>.</param>
/// <param name="Cut">Its cut size, upright as it lies in the pocket.</param>
/// <param name="Stock">What it is printed on.</param>
/// <param name="Part">Which part of a piece that is cut of several, from 0.</param>
public sealed record DuePiece(Guid PieceId, string Number, Size Cut, Stock Stock, int Part = 0)
{
    /// <summary>What is printed on its back; null for nothing. It has the same cut and stock.</summary>
    public DueBack? Back { get; init; }

    /// <summary>
    /// It is printed onto a card that is taped to a carrier sheet, over the outline that a first pass prints there.
    /// </summary>
    public bool OnCarrier { get; init; }

    /// <summary>Where it is folded and punched.</summary>
    public PaperMarks Marks { get; init; } = PaperMarks.None;

    /// <summary>The week or day it belongs to; none for what is the album's, such as its spine strip.</summary>
    public Guid UnitId { get; init; }
}

/// <summary>The back of a piece.</summary>
/// <param name="UpsideDown">It stands head down behind the front, as on a piece that is lifted at its head.</param>
public sealed record DueBack(Guid PieceId, string Number, bool UpsideDown);

/// <summary>How the keeper's printer is loaded and set.</summary>
/// <param name="Paper">The sheet.</param>
/// <param name="Margin">The edge the printer cannot reach, the same on all sides: 0 to 1 in.</param>
/// <param name="Gap">Waste between neighbouring pieces, 0 to 1 in; 0 shares every cut.</param>
public sealed record PrinterSetup(Paper Paper, Length Margin, Length Gap)
{
    /// <summary>What the sheets make up for; <see cref="PrinterFault.None"/> for a printer that prints true.</summary>
    public PrinterFault MakesUpFor { get; init; } = PrinterFault.None;

    public SheetOptions Options { get; init; } = SheetOptions.Usual;

    /// <summary>What else than the loaded paper can be printed on.</summary>
    public ImmutableArray<SheetOnHand> OnHand { get; init; } = [];

    /// <summary>How far this printer sets the second side from where it should lie.</summary>
    public (Length Right, Length Down) BackOffset { get; init; }

    /// <summary>The free part of a sheet that was printed on before; null for a new sheet.</summary>
    public Rect? Free { get; init; }

    /// <summary>
    /// Height of the strip at the foot of each sheet's printable part that carries the check rule.
    /// Low enough that every sheet count of the trade still holds: A4 with 5 mm margins leaves 7.6 mm under five 3x4.
    /// </summary>
    public static Length CheckStrip => Length.FromMillimetres(7);

    /// <summary>
    /// The check strip of this paper; none on photo paper too narrow for a rule of 100 mm and its words, where two 3x4
    /// fill a 4x6 exactly. Arithmetic.
    /// </summary>
    public Length Strip =>
        Free is null && Paper.Size.Width - (2 * Margin) >= Length.FromMillimetres(140) ? CheckStrip : Length.Zero;

    /// <summary>The printable part above the check strip, or what is free of it.</summary>
    public Rect Usable =>
        Free ?? new(Margin, Margin, Paper.Size.Width - (2 * Margin), Paper.Size.Height - (2 * Margin) - Strip);

    /// <summary>Where pieces can be cut: with a bleed they keep away from the edge of the printable part.</summary>
    public Rect ForPieces =>
        new(
            Usable.X + Options.Bleed,
            Usable.Y + Options.Bleed,
            Usable.Width - (2 * Options.Bleed),
            Usable.Height - (2 * Options.Bleed)
        );

    /// <summary>Room for one part of a piece that is larger than the paper: words stand under it.</summary>
    public Size ForParts => new(ForPieces.Width, ForPieces.Height - Length.FromMillimetres(14));

    /// <summary>Pieces that bleed keep their bleeds apart.</summary>
    public Length GapBetween => Length.Max(Gap, 2 * Options.Bleed);

    /// <summary>Refuses margins and gaps no printer has.</summary>
    public PrinterSetup Checked()
    {
        var inch = Length.FromInches(1);
        Options.Check();
        return Margin < Length.Zero || Margin > inch || Gap < Length.Zero || Gap > inch
            ? throw new MeasureException("Margins and gaps must be between 0 and 1 in (25.4 mm).")
            : this;
    }
}

/// <summary>What of the placed pieces is printed.</summary>
public enum PrintChoice
{
    /// <summary>Everything, printed before or not.</summary>
    All,

    /// <summary>What was never printed, or has changed since.</summary>
    Due,

    /// <summary>The pieces that were chosen.</summary>
    Chosen,
}

/// <summary>How a piece stands to what was printed of it.</summary>
public enum PrintStanding
{
    NeverPrinted,

    /// <summary>It was printed and looks otherwise now, or is cut or printed on something else.</summary>
    Changed,
    Printed,

    /// <summary>It was lost, smudged or cut wrong.</summary>
    Spoilt,
}

/// <summary>Why a printed piece is printed again.</summary>
public enum Spoilt
{
    Lost,
    Smudged,
    Miscut,
}

/// <summary>Which side of its paper a planned sheet is.</summary>
public enum SheetSide
{
    /// <summary>Its paper is printed on one side.</summary>
    Only,
    Front,
    Back,

    /// <summary>The back of a sheet that is printed on one side, with the number of every piece.</summary>
    Numbers,
}

/// <summary>
/// One planned sheet. Piece places are measured from the sheet's top left corner, on the side that is printed.
/// </summary>
public sealed record PlannedSheet(
    Stock Stock,
    ImmutableArray<PlannedPiece> Pieces,
    ImmutableArray<Rect> Offcuts,
    ImmutableArray<CutLine> Cuts,
    SheetSide Side = SheetSide.Only
)
{
    /// <summary>How it is set up, where that is not the loaded paper.</summary>
    public PrinterSetup? Other { get; init; }

    /// <summary>The sheet or offcut of another print that it is.</summary>
    public Guid? LeftoverId { get; init; }

    /// <summary>The numbers of its pieces, behind each of them.</summary>
    public PlannedSheet NumbersBehind(Size paper) =>
        this with
        {
            Side = SheetSide.Numbers,
            Cuts = [],
            Pieces =
            [
                .. Pieces.Select(p =>
                    p with
                    {
                        Bounds = p.Bounds with { X = paper.Width - p.Bounds.Right },
                        Quarters = (4 - p.Quarters) % 4,
                    }
                ),
            ],
        };

    /// <summary>
    /// The back of this sheet: the paper is turned over around its long axis, so every back lies as far from the right
    /// edge as its front lies from the left one. Arithmetic.
    /// </summary>
    public PlannedSheet BackOf(Size paper) =>
        this with
        {
            Side = SheetSide.Back,
            Cuts = [],
            Pieces =
            [
                .. Pieces
                    .Where(p => p.Due.Back is not null)
                    .Select(p => new PlannedPiece(
                        p.Due with
                        {
                            PieceId = p.Due.Back!.PieceId,
                            Number = p.Due.Back.Number,
                            Part = 0,
                            Back = null,
                        },
                        p.Bounds with
                        {
                            X = paper.Width - p.Bounds.Right,
                        },
                        // Seen from behind, a turn to the right is one to the left.
                        (4 - p.Quarters + (p.Due.Back.UpsideDown ? 2 : 0)) % 4
                    )),
            ],
        };
}

/// <summary>A piece on a planned sheet.</summary>
/// <param name="Quarters">By how many quarter turns to the right it is turned, 0 to 3.</param>
public readonly record struct PlannedPiece(DuePiece Due, Rect Bounds, int Quarters);

/// <summary>
/// All sheets of a print run, photo paper first; those that are printed on both sides come last, each followed by its
/// back. Pieces that no sheet can hold have a page of their own.
/// </summary>
public sealed record PrintPlan(
    PrinterSetup Setup,
    ImmutableArray<PlannedSheet> Sheets,
    ImmutableArray<DuePiece> TooLarge
)
{
    /// <summary>Sheets that bought cards are taped to, so that their words are printed onto them.</summary>
    public ImmutableArray<PlannedSheet> Carriers { get; init; } = [];

    /// <summary>Pieces that are larger than the paper, in parts that are joined.</summary>
    public ImmutableArray<PlannedTile> Tiles { get; init; } = [];

    /// <summary>No other sheets for these pieces cost less.</summary>
    public bool IsProved { get; init; }

    /// <summary>How a sheet is set up.</summary>
    public PrinterSetup SetupOf(PlannedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return sheet.Other ?? Setup;
    }

    /// <summary>Sheets of paper that go through the printer, each side counted once.</summary>
    public int SheetsOfPaper => Sheets.Count(s => s.Side is SheetSide.Only or SheetSide.Front);

    /// <summary>
    /// The pieces all of whose parts are printed on one stock: one that has a mat on another is not printed in half.
    /// </summary>
    public static IReadOnlyList<DuePiece> WhollyOn(IReadOnlyList<DuePiece> due, Stock stock)
    {
        ArgumentNullException.ThrowIfNull(due);
        var others = due.Where(d => d.Stock != stock || d.OnCarrier).Select(d => d.PieceId).ToHashSet();
        return [.. due.Where(d => !others.Contains(d.PieceId))];
    }

    /// <summary>Packs the pieces by stock.</summary>
    /// <param name="covering">Chooses sheets exactly; null for rules alone.</param>
    public static PrintPlan For(
        IReadOnlyList<DuePiece> due,
        PrinterSetup setup,
        ISheetCovering? covering = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(setup);
        return new PrintPlanning(setup.Checked(), covering, cancel).Of(due);
    }
}

/// <summary>The number on a piece that tells page and pocket.</summary>
public static class PieceNumber
{
    /// <summary>
    /// Such as <c>W19 L5</c> (week 19) or <c>D3 R1</c> (day 3): left page, fifth pocket in reading order. The left page
    /// of a spread is the back of a leaf. From the second spread of a unit on its number stands before the letter:
    /// <c>D3 2L5</c>.
    /// </summary>
    public static string For(string unitCode, LeafSide side, int spread, int pocketInReadingOrder) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{unitCode} {(spread > 1 ? spread : string.Empty)}"
                + $"{(side == LeafSide.Back ? 'L' : 'R')}{pocketInReadingOrder}"
        );
}
