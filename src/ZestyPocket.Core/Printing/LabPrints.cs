using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>One file for a lab.</summary>
/// <param name="FileName">Such as <c>2026-W14_03_4x6.jpg</c>: in this order they belong.</param>
/// <param name="Paper">The size of the print.</param>
/// <param name="Pieces">What lies on it; places are measured on the finished print.</param>
/// <param name="Cuts">Where it is cut at home.</param>
public sealed record LabPrint(
    string FileName,
    Size Paper,
    ImmutableArray<PlannedPiece> Pieces,
    ImmutableArray<CutLine> Cuts
);

/// <summary>
/// Puts pieces on the sizes that labs print: small ones share a 4x6, each larger one has the smallest size that holds
/// it. Sizes are common practice.
/// </summary>
public static class LabPrints
{
    /// <summary>
    /// Labs print a little larger than the paper, so that no white edge is left: what is drawn is so much smaller.
    /// From memory; common practice.
    /// </summary>
    public const double Enlargement = 1.02;

    /// <summary>Dots of each inch of the print.</summary>
    public const int PixelsPerInch = 300;

    /// <summary>In the order of their area.</summary>
    public static ImmutableArray<Size> Sizes { get; } =
    [
        Size.FromInches(4, 6),
        Size.FromInches(5, 7),
        Size.FromInches(6, 8),
        Size.FromInches(8, 10),
        Size.FromInches(8, 12),
        Size.FromInches(12, 12),
        Size.FromInches(12, 18),
    ];

    /// <summary>
    /// The files for these pieces, unit by unit in their order. A piece that no size holds is a
    /// <see cref="RuleException"/>.
    /// </summary>
    /// <param name="pieces">Only what is on photo paper is for a lab.</param>
    /// <param name="unitName">Such as <c>2026-W14</c> for a piece.</param>
    public static ImmutableArray<LabPrint> Of(
        IReadOnlyList<DuePiece> pieces,
        Func<DuePiece, string> unitName,
        ISheetCovering? covering = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(pieces);
        ArgumentNullException.ThrowIfNull(unitName);
        return
        [
            .. pieces
                .GroupBy(unitName)
                .SelectMany(unit =>
                    Small([.. unit.Where(p => Holds(Sizes[0], p.Cut))], covering, cancel)
                        .Concat(unit.Where(p => !Holds(Sizes[0], p.Cut)).Select(Alone))
                        .Select((print, i) => Named(print.Paper, print.Pieces, unit.Key, i + 1))
                ),
        ];
    }

    private static LabPrint Named(Size paper, ImmutableArray<PlannedPiece> pieces, string unit, int number)
    {
        var centred = Centred(pieces, paper);
        return new LabPrint(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{unit}_{number:00}_{paper.Width.Inches:0.##}x{paper.Height.Inches:0.##}.jpg"
            ),
            paper,
            centred,
            [.. GuillotineCuts.Of(paper, [.. centred.Select((p, i) => new PackedPiece(i, p.Bounds, false))])!]
        );
    }

    private static IEnumerable<(Size Paper, ImmutableArray<PlannedPiece> Pieces)> Small(
        List<DuePiece> pieces,
        ISheetCovering? covering,
        CancellationToken cancel
    ) =>
        SheetFilling
            .Fill(
                [.. pieces.Select((p, i) => new SheetPiece(i, p.Cut, MayTurn: true))],
                [new SheetKind(Sizes[0], 1)],
                Length.Zero,
                covering,
                cancel: cancel
            )
            .Sheets.Select(sheet =>
                (
                    Sizes[0],
                    sheet
                        .Pieces.Select(p => new PlannedPiece(pieces[p.Index], p.Bounds, p.Turned ? 1 : 0))
                        .ToImmutableArray()
                )
            );

    private static (Size Paper, ImmutableArray<PlannedPiece> Pieces) Alone(DuePiece piece)
    {
        foreach (var size in Sizes.Where(s => Holds(s, piece.Cut)))
        {
            var upright = piece.Cut.FitsIn(size);
            var bounds = new Rect(Length.Zero, Length.Zero, upright ? piece.Cut : piece.Cut.Turned);
            return (size, [new PlannedPiece(piece, bounds, upright ? 0 : 1)]);
        }

        throw new RuleException(
            $"{piece.Number} ({piece.Cut}) is larger than a lab prints. Nothing was ordered: leave it out, or print "
                + "it in parts."
        );
    }

    private static bool Holds(Size paper, Size cut) => cut.FitsIn(paper) || cut.Turned.FitsIn(paper);

    /// <summary>What is cut off lies evenly on all sides.</summary>
    private static ImmutableArray<PlannedPiece> Centred(ImmutableArray<PlannedPiece> pieces, Size paper)
    {
        var (right, bottom) = (pieces.Max(p => p.Bounds.Right), pieces.Max(p => p.Bounds.Bottom));
        var (dx, dy) = ((paper.Width - right) / 2, (paper.Height - bottom) / 2);
        return [.. pieces.Select(p => p with { Bounds = p.Bounds.Moved(dx, dy) })];
    }
}
