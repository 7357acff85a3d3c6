using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Binder;

/// <summary>What an edit means for pages and pieces, in words.</summary>
public static class BinderChanges
{
    /// <summary>
    /// Unit by unit: which pages have changed sides or leaves, what lies opposite of something else now, and how many
    /// pieces went to the tray. Empty when nothing moved.
    /// </summary>
    public static ImmutableArray<string> Between(RingBinder before, RingBinder after, DateStyle style)
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        var says = ImmutableArray.CreateBuilder<string>();
        var tray = before.Units.Sum(Placed) - after.Units.Sum(Placed);
        if (tray > 0)
        {
            says.Add(ToTheTray(tray));
        }

        var numbers = after.Leaves.Select((l, i) => (l.Id, Number: i + 1)).ToDictionary(l => l.Id, l => l.Number);
        var (wasFacing, facing) = (Facing(before), Facing(after));
        var (wasOn, isOn) = (before.Faces(), after.Faces());
        foreach (var unit in after.Units)
        {
            var (old, fresh) = (wasOn.GetValueOrDefault(unit.Id, []), isOn[unit.Id]);
            var title = unit.Dates.Title(style);
            var moved = old.Where(f => !fresh.Contains(f)).Zip(fresh.Where(f => !old.Contains(f))).ToList();
            var turned = moved.Count(m => m.First.Side != m.Second.Side);
            if (turned > 0)
            {
                says.Add(
                    $"{title}: what lay on {NumberWords.Of(turned)} {(turned == 1 ? "page" : "pages")} changes from "
                        + "one side of the spread to the other"
                );
            }

            says.AddRange(
                moved
                    .Where(m => m.First.Side == m.Second.Side)
                    .Select(m =>
                        $"{title}: what lay on {Page(m.First)} of its leaf lies on {Page(m.Second)} of leaf "
                        + $"{numbers[m.Second.LeafId]}"
                    )
            );

            // Only pages that are there before and after can lie opposite of something else.
            says.AddRange(
                old.Intersect(fresh)
                    .Where(f =>
                        Placed(unit) > 0
                        && wasFacing.TryGetValue(f, out var opposite)
                        && facing.TryGetValue(f, out var other)
                        && other != opposite
                    )
                    .Select(f =>
                        $"{title}: opposite of {Page(f)} of leaf {numbers[f.LeafId]} lies {Page(facing[f])} of "
                        + $"leaf {numbers[facing[f].LeafId]} now"
                    )
            );
        }

        return says.ToImmutable();
    }

    /// <summary>Such as <c>3 pieces go to the tray</c>.</summary>
    public static string ToTheTray(int pieces) => $"{pieces} {(pieces == 1 ? "piece goes" : "pieces go")} to the tray";

    /// <summary>The units whose pages are others now.</summary>
    public static IEnumerable<Guid> Touched(RingBinder before, RingBinder after)
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        var (was, now) = (before.Faces(), after.Faces());
        return after.Units.Select(u => u.Id).Where(id => !was.GetValueOrDefault(id, []).SequenceEqual(now[id]));
    }

    internal static int Placed(BoundUnit unit) => unit.Content.Placements.Length;

    /// <summary>Which page lies opposite of which when the album is open.</summary>
    private static Dictionary<FaceOfLeaf, FaceOfLeaf> Facing(RingBinder binder)
    {
        var facing = new Dictionary<FaceOfLeaf, FaceOfLeaf>();
        foreach (var (left, right) in binder.Leaves.Zip(binder.Leaves.Skip(1)))
        {
            var (back, front) = (new FaceOfLeaf(left.Id, LeafSide.Back), new FaceOfLeaf(right.Id, LeafSide.Front));
            (facing[back], facing[front]) = (front, back);
        }

        return facing;
    }

    private static string Page(FaceOfLeaf face) => face.Side == LeafSide.Front ? "the front" : "the back";
}
