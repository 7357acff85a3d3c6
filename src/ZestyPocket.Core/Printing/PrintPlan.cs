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
public sealed record DuePiece(Guid PieceId, string Number, Size Cut, Stock Stock, int Part = 0);

/// <summary>How the keeper's printer is loaded and set.</summary>
/// <param name="Paper">The sheet.</param>
/// <param name="Margin">The edge the printer cannot reach, the same on all sides: 0 to 1 in.</param>
/// <param name="Gap">Waste between neighbouring pieces, 0 to 1 in; 0 shares every cut.</param>
public sealed record PrinterSetup(Paper Paper, Length Margin, Length Gap)
{
    /// <summary>
    /// Height of the strip at the foot of each sheet's printable part that carries the check rule.
    /// Low enough that every sheet count of the trade still holds: A4 with 5 mm margins leaves 7.6 mm under five 3x4.
    /// </summary>
    public static Length CheckStrip => Length.FromMillimetres(7);

    /// <summary>The printable part above the check strip.</summary>
    public Rect Usable =>
        new(Margin, Margin, Paper.Size.Width - (2 * Margin), Paper.Size.Height - (2 * Margin) - CheckStrip);

    /// <summary>Refuses margins and gaps no printer has.</summary>
    public PrinterSetup Checked()
    {
        var inch = Length.FromInches(1);
        return Margin < Length.Zero || Margin > inch || Gap < Length.Zero || Gap > inch
            ? throw new MeasureException("Margins and gaps must be between 0 and 1 in (25.4 mm).")
            : this;
    }
}

/// <summary>One planned sheet. Piece places are measured from the sheet's top left corner.</summary>
public sealed record PlannedSheet(
    Stock Stock,
    ImmutableArray<PlannedPiece> Pieces,
    ImmutableArray<Rect> Offcuts,
    ImmutableArray<CutLine> Cuts
);

/// <summary>A piece on a planned sheet.</summary>
public readonly record struct PlannedPiece(DuePiece Due, Rect Bounds, bool Turned);

/// <summary>
/// All sheets of a print run, photo paper first, and the pieces no sheet can hold: each of these has a page of its own.
/// </summary>
public sealed record PrintPlan(
    PrinterSetup Setup,
    ImmutableArray<PlannedSheet> Sheets,
    ImmutableArray<DuePiece> TooLarge
)
{
    /// <summary>Packs the pieces by stock.</summary>
    public static PrintPlan For(IReadOnlyList<DuePiece> due, PrinterSetup setup, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(setup);
        var usable = setup.Checked().Usable;
        var sheets = ImmutableArray.CreateBuilder<PlannedSheet>();
        var tooLarge = due.Where(d => !SheetPacking.CanHold(usable.Size, new SheetPiece(0, d.Cut, true)))
            .ToImmutableArray();

        foreach (var stock in Enum.GetValues<Stock>())
        {
            var pieces = due.Where(d => d.Stock == stock && !tooLarge.Contains(d)).ToArray();
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
                sheets.Add(
                    new PlannedSheet(
                        stock,
                        [
                            .. sheet.Pieces.Select(p => new PlannedPiece(
                                pieces[p.Index],
                                p.Bounds.Moved(usable.X, usable.Y),
                                p.Turned
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
                        ]
                    )
                );
            }
        }

        return new PrintPlan(setup, sheets.ToImmutable(), tooLarge);
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
