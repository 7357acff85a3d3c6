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

    /// <summary>
    /// Height of the strip at the foot of each sheet's printable part that carries the check rule.
    /// Low enough that every sheet count of the trade still holds: A4 with 5 mm margins leaves 7.6 mm under five 3x4.
    /// </summary>
    public static Length CheckStrip => Length.FromMillimetres(7);

    /// <summary>
    /// The check strip of this paper; none on photo paper too narrow for a rule of 100 mm and its words, where two 3x4
    /// fill a 4x6 exactly. Arithmetic.
    /// </summary>
    public Length Strip => Paper.Size.Width - (2 * Margin) >= Length.FromMillimetres(140) ? CheckStrip : Length.Zero;

    /// <summary>The printable part above the check strip.</summary>
    public Rect Usable =>
        new(Margin, Margin, Paper.Size.Width - (2 * Margin), Paper.Size.Height - (2 * Margin) - Strip);

    /// <summary>Refuses margins and gaps no printer has.</summary>
    public PrinterSetup Checked()
    {
        var inch = Length.FromInches(1);
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
}

/// <summary>Which side of its paper a planned sheet is.</summary>
public enum SheetSide
{
    /// <summary>Its paper is printed on one side.</summary>
    Only,
    Front,
    Back,
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
    /// <summary>What is printed onto bought cards, each on a carrier sheet of its own.</summary>
    public ImmutableArray<DuePiece> Carriers { get; init; } = [];

    /// <summary>Packs the pieces by stock.</summary>
    public static PrintPlan For(IReadOnlyList<DuePiece> due, PrinterSetup setup, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(setup);
        var usable = setup.Checked().Usable;
        var sheets = ImmutableArray.CreateBuilder<PlannedSheet>();
        var carriers = due.Where(d => d.OnCarrier).ToImmutableArray();
        due = [.. due.Where(d => !d.OnCarrier)];
        var tooLarge = due.Where(d => !SheetPacking.CanHold(usable.Size, new SheetPiece(0, d.Cut, true)))
            .ToImmutableArray();

        foreach (
            var (stock, both) in Enum.GetValues<Stock>()
                .Select(stock => (stock, false))
                .Concat(Enum.GetValues<Stock>().Select(stock => (stock, true)))
        )
        {
            var pieces = due.Where(d => d.Stock == stock && d.Back is not null == both && !tooLarge.Contains(d))
                .ToArray();
            var packed = SheetPacking.Pack(
                [.. pieces.Select((d, i) => new SheetPiece(i, d.Cut, MayTurn: true))],
                usable.Size,
                setup.Gap,
                seed: 1,
                cancel
            );
            foreach (var sheet in packed)
            {
                var inner =
                    GuillotineCuts.Of(usable.Size, sheet.Pieces)
                    ?? throw new InvalidOperationException("The packing cannot be cut edge to edge.");
                // An edge of paper needs no cut: only a printer without margins reaches it.
                var cuts = (
                    setup.Margin > Length.Zero ? GuillotineCuts.AlongTheEdge(usable.Size, sheet.Pieces) : []
                ).Concat(inner);
                var planned = new PlannedSheet(
                    stock,
                    [
                        .. sheet.Pieces.Select(p => new PlannedPiece(
                            pieces[p.Index],
                            p.Bounds.Moved(usable.X, usable.Y),
                            p.Turned ? 1 : 0
                        )),
                    ],
                    [.. sheet.Offcuts.Select(o => o.Moved(usable.X, usable.Y))],
                    [
                        .. cuts.Select(c => new CutLine(
                            c.X1 + usable.X,
                            c.Y1 + usable.Y,
                            c.X2 + usable.X,
                            c.Y2 + usable.Y
                        )),
                    ],
                    both ? SheetSide.Front : SheetSide.Only
                );
                sheets.Add(planned);
                if (both)
                {
                    sheets.Add(planned.BackOf(setup.Paper.Size));
                }
            }
        }

        var backs = tooLarge
            .Where(d => d.Back is not null)
            .Select(d => d with { PieceId = d.Back!.PieceId, Number = d.Back.Number, Part = 0, Back = null });
        return new PrintPlan(setup, sheets.ToImmutable(), [.. tooLarge, .. backs]) { Carriers = carriers };
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
