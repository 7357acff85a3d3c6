using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>What a line on a face marks.</summary>
public enum MarkKind
{
    /// <summary>A seam that was added.</summary>
    Seam,

    /// <summary>An edge where the page was cut down.</summary>
    Cut,

    /// <summary>Where a fold-out folds.</summary>
    Fold,
}

/// <summary>A line on a face, from the outer top left corner of that face.</summary>
public readonly record struct LeafMark(MarkKind Kind, Length X1, Length Y1, Length X2, Length Y2);

/// <summary>
/// What alterations make of a leaf. Both faces change at once, because pockets are named alike on both. Common
/// practice; sizes are arithmetic.
/// </summary>
public static class Alterations
{
    /// <summary>A pocket narrower than this holds nothing that could be looked at.</summary>
    public static Length Narrowest => Length.FromInches(3, 4);

    /// <summary>How wide a seam is that is fused with a heat tool. Common practice.</summary>
    public static Length SeamWidth => Length.FromInches(1, 16);

    /// <summary>
    /// The protector with its seams and its cut. Throws <see cref="RuleException"/> when a seam or cut is impossible;
    /// nothing is changed then.
    /// </summary>
    public static Protector Altered(this Protector protector, LeafAlterations alterations)
    {
        ArgumentNullException.ThrowIfNull(protector);
        ArgumentNullException.ThrowIfNull(alterations);
        if (!alterations.IsAltered)
        {
            return protector;
        }

        if (protector.Form.Kind != LeafKind.Pockets)
        {
            throw new RuleException("Only a page of pockets can be fused or cut down. Nothing was changed.");
        }

        var pockets = alterations.Fuses.Aggregate(protector.Design.Pockets, (now, fuse) => Part(protector, now, fuse));
        var (outer, body) = (protector.Outer, protector.Design.Body);
        if (alterations.Cut is { } cut)
        {
            var by = cut.Keeps == CutKeeps.Columns ? body.Width - cut.Size : body.Height - cut.Size;
            if (
                !CutsOf(protector.Design with { Pockets = pockets }, cut.Keeps, protector.Form.Rings).Contains(cut.Size)
            )
            {
                throw new RuleException(
                    "A page is cut down along a seam that goes right across it, and something of it stays. Nothing "
                        + "was changed."
                );
            }

            var keeps =
                protector.Form.Rings == RingSide.Right && cut.Keeps == CutKeeps.Columns
                    ? new Rect(by, Length.Zero, cut.Size, body.Height)
                    : new Rect(
                        Length.Zero,
                        Length.Zero,
                        cut.Keeps == CutKeeps.Columns ? cut.Size : body.Width,
                        cut.Keeps == CutKeeps.Rows ? cut.Size : body.Height
                    );
            pockets =
            [
                .. pockets
                    .Where(p => keeps.Contains(p.Bounds))
                    .Select(p => p with { Bounds = p.Bounds.Moved(-keeps.X, Length.Zero) }),
            ];
            (body, outer) =
                cut.Keeps == CutKeeps.Columns
                    ? (new Size(cut.Size, body.Height), new Size(outer.Width - by, outer.Height))
                    : (new Size(body.Width, cut.Size), new Size(outer.Width, outer.Height - by));
        }

        var name = alterations.Cut is null ? protector.Design.Name : $"{protector.Design.Name}, cut down to {body}";
        if (!alterations.Fuses.IsEmpty)
        {
            name +=
                alterations.Fuses.Length == 1 ? ", one pocket fused" : $", {alterations.Fuses.Length} pockets fused";
        }

        return protector with
        {
            Outer = outer,
            Design = protector.Design with { Name = name, Body = body, Pockets = pockets },
        };
    }

    /// <summary>How much of a page can be kept when it is cut down: the seams that go right across.</summary>
    public static ImmutableArray<Length> CutsOf(PageDesign design, CutKeeps keeps, RingSide rings = RingSide.Left)
    {
        ArgumentNullException.ThrowIfNull(design);
        var columns = keeps == CutKeeps.Columns;
        var fromRight = columns && rings == RingSide.Right;
        var whole = columns ? design.Body.Width : design.Body.Height;
        var spans = design
            .Pockets.Select(p =>
                columns
                    ? fromRight
                        ? (From: whole - p.Bounds.Right, To: whole - p.Bounds.X)
                        : (From: p.Bounds.X, To: p.Bounds.Right)
                    : (From: p.Bounds.Y, To: p.Bounds.Bottom)
            )
            .ToList();
        return
        [
            .. spans
                .Select(s => s.To)
                .Distinct()
                .Where(at => at < whole && spans.TrueForAll(s => s.To <= at || s.From >= at))
                .Order(),
        ];
    }

    /// <summary>
    /// The seam that people make: through the middle of the longer side. A 6x4 becomes two 3x4, a square two upright
    /// halves.
    /// </summary>
    public static Fuse InHalf(Pocket pocket)
    {
        ArgumentNullException.ThrowIfNull(pocket);
        var upright = pocket.Nominal.Width >= pocket.Nominal.Height;
        return new Fuse(pocket.Key, upright, (upright ? pocket.Nominal.Width : pocket.Nominal.Height) / 2);
    }

    /// <summary>The lines to show on a face: added seams, the cut edge, the fold.</summary>
    public static IEnumerable<LeafMark> MarksOn(this Protector altered, LeafSide side, LeafAlterations alterations)
    {
        ArgumentNullException.ThrowIfNull(altered);
        ArgumentNullException.ThrowIfNull(alterations);
        var (x, y) = altered.BodyOrigin(side);
        var body = altered.Design.Body;
        var face = altered.Design.Face(side);
        foreach (var fuse in alterations.Fuses)
        {
            // The first half ends at the seam as the front shows it; a half may have been parted again or cut away.
            var halves = face.Where(p => p.Key.StartsWith(fuse.PocketKey + "a", StringComparison.Ordinal)).ToList();
            if (halves.Count == 0)
            {
                continue;
            }

            var around = new Rect(
                halves.Min(h => h.Bounds.X),
                halves.Min(h => h.Bounds.Y),
                halves.Max(h => h.Bounds.Right) - halves.Min(h => h.Bounds.X),
                halves.Max(h => h.Bounds.Bottom) - halves.Min(h => h.Bounds.Y)
            );
            var at = side == LeafSide.Front ? around.Right : around.X;
            yield return fuse.Upright
                ? new LeafMark(MarkKind.Seam, x + at, y + around.Y, x + at, y + around.Bottom)
                : new LeafMark(MarkKind.Seam, x + around.X, y + around.Bottom, x + around.Right, y + around.Bottom);
        }

        if (alterations.Cut is { Keeps: CutKeeps.Columns })
        {
            var edge = altered.RingStripX(side) == Length.Zero ? altered.Outer.Width : Length.Zero;
            yield return new LeafMark(MarkKind.Cut, edge, Length.Zero, edge, altered.Outer.Height);
        }
        else if (alterations.Cut is { Keeps: CutKeeps.Rows })
        {
            yield return new LeafMark(
                MarkKind.Cut,
                Length.Zero,
                altered.Outer.Height,
                altered.Outer.Width,
                altered.Outer.Height
            );
        }

        if (altered.Form is { Kind: LeafKind.FoldOut, Fold: { } fold })
        {
            var at = altered.RingStripX(side) == Length.Zero ? fold : body.Width - fold;
            yield return new LeafMark(MarkKind.Fold, at, Length.Zero, at, body.Height);
        }
    }

    private static ImmutableArray<Pocket> Part(Protector protector, ImmutableArray<Pocket> pockets, Fuse fuse)
    {
        var pocket =
            pockets.FirstOrDefault(p => p.Key == fuse.PocketKey)
            ?? throw new RuleException("The pocket that was to be fused is not on this page. Nothing was changed.");
        var (x, y, width, height) = (pocket.Bounds.X, pocket.Bounds.Y, pocket.Bounds.Width, pocket.Bounds.Height);
        var whole = fuse.Upright ? width : height;
        if (fuse.At < Narrowest || whole - fuse.At < Narrowest)
        {
            throw new RuleException(
                $"A seam leaves pockets of at least {Narrowest} on both sides; {pocket.Nominal} split {fuse.At} in "
                    + "does not. Nothing was changed."
            );
        }

        var (first, second) = fuse.Upright
            ? (new Rect(x, y, fuse.At, height), new Rect(x + fuse.At, y, width - fuse.At, height))
            : (new Rect(x, y, width, fuse.At), new Rect(x, y + fuse.At, width, height - fuse.At));
        var index = pockets.IndexOf(pocket);
        return pockets
            .SetItem(
                index,
                new Pocket(pocket.Key + "a", first) { Clear = ClearOf(protector, pocket, fuse.Upright, fuse.At) }
            )
            .Insert(
                index + 1,
                new Pocket(pocket.Key + "b", second)
                {
                    Clear = ClearOf(protector, pocket, fuse.Upright, whole - fuse.At),
                }
            );
    }

    /// <summary>
    /// The room in a half of a measured pocket: what the welds took from the whole is taken from each of its sides that
    /// the half keeps, and half a seam at the side where it was parted. Null where nobody measured. Common practice,
    /// arithmetic.
    /// </summary>
    private static Size? ClearOf(Protector protector, Pocket pocket, bool upright, Length part)
    {
        if (
            protector.ClearSize(pocket) is var clear
            && clear == pocket.Nominal
            && pocket.Clear is null
            && !protector.ClearSizes.ContainsKey(pocket.Nominal)
        )
        {
            return null;
        }

        var taken = upright ? pocket.Nominal.Width - clear.Width : pocket.Nominal.Height - clear.Height;
        var left = part - (taken / 2) - (SeamWidth / 2);
        return upright ? new Size(left, clear.Height) : new Size(clear.Width, left);
    }
}
