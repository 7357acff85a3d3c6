using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Printing;

/// <summary>A hole to punch: its middle, from the top left corner of the piece, and how wide it is.</summary>
public readonly record struct PunchHole(Length X, Length Y, Length Diameter);

/// <summary>Where a piece is folded and punched, measured on the piece itself as it is printed.</summary>
/// <param name="Folds">From its left edge; each fold runs from head to foot.</param>
public sealed record PaperMarks(ImmutableArray<Length> Folds, ImmutableArray<PunchHole> Holes)
{
    public static PaperMarks None { get; } = new([], []);

    /// <summary>The flat sheet of a sleeve around a front of a size.</summary>
    public static PaperMarks OfSleeve(Size front)
    {
        var (first, second) = SleeveSheet.Folds(front);
        return new PaperMarks([first, second], []);
    }

    /// <summary>
    /// What lies in the middle of a pocket: a piece in a plastic pocket is neither folded nor punched; one on a page of
    /// paper is where the page is, when the fold or the whole hole falls on it. Arithmetic.
    /// </summary>
    public static PaperMarks On(UnitFace face, Pocket pocket, Size cut)
    {
        ArgumentNullException.ThrowIfNull(face);
        ArgumentNullException.ThrowIfNull(pocket);
        var (page, side) = (face.Protector, face.Side);
        if (page.Form.Kind is not (LeafKind.Sheet or LeafKind.FoldOut))
        {
            return None;
        }

        var (bodyX, bodyY) = page.BodyOrigin(side);
        var x = bodyX + pocket.Bounds.X + ((pocket.Bounds.Width - cut.Width) / 2);
        var y = bodyY + pocket.Bounds.Y + ((pocket.Bounds.Height - cut.Height) / 2);
        var folds = page.MarksOn(side, face.Alterations).Where(m => m.Kind == MarkKind.Fold).Select(m => m.X1 - x);
        var diameter = page.Form.Holes?.Diameter ?? Length.Zero;
        var holes = page.HolesOn(side).Select(h => new PunchHole(h.X - x, h.Y - y, diameter));
        return new PaperMarks(
            [.. folds.Where(f => f > Length.Zero && f < cut.Width)],
            [.. holes.Where(h => IsWithin(h.X, cut.Width, diameter) && IsWithin(h.Y, cut.Height, diameter))]
        );

        static bool IsWithin(Length at, Length whole, Length wide) =>
            at - (wide / 2) >= Length.Zero && at + (wide / 2) <= whole;
    }

    /// <summary>The marks in exact words, equal for equal marks.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{string.Join(' ', Folds.Select(f => f.Emu))}/"
                + $"{string.Join(' ', Holes.Select(h => $"{h.X.Emu},{h.Y.Emu},{h.Diameter.Emu}"))}"
        );
}
