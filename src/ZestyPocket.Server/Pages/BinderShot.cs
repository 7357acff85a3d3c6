using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Server.Pages;

/// <summary>How the leaves lay before something is done to them, to say what changes sides.</summary>
public sealed class BinderShot
{
    private readonly Dictionary<Guid, List<FaceOfLeaf>> _faces;
    private readonly Dictionary<Guid, int> _placed;
    private readonly Dictionary<FaceOfLeaf, FaceOfLeaf> _facing;
    private readonly List<Guid> _leaves;

    private BinderShot(Binder binder)
    {
        _faces = binder.Faces.ToDictionary(f => f.Key, f => f.Value.ToList());
        _placed = binder.Units.ToDictionary(u => u.Id, u => u.PiecesPlaced);
        _leaves = binder.Leaves.ConvertAll(l => l.Id);
        _facing = Facing(_leaves);
    }

    public static BinderShot Of(Binder binder)
    {
        ArgumentNullException.ThrowIfNull(binder);
        return new BinderShot(binder);
    }

    /// <summary>Whether a unit's pages are others now.</summary>
    public bool Touches(Guid unitId, Binder now)
    {
        ArgumentNullException.ThrowIfNull(now);
        return !_faces.GetValueOrDefault(unitId, []).SequenceEqual(now.Faces.GetValueOrDefault(unitId, []));
    }

    /// <summary>
    /// In words, part by part: which pages have changed sides or leaves, what lies opposite of something else now, and
    /// how many pieces went to the tray.
    /// </summary>
    public IReadOnlyList<string> ChangesTo(Binder now)
    {
        ArgumentNullException.ThrowIfNull(now);
        var says = new List<string>();
        var tray = _placed.Values.Sum() - now.Units.Sum(u => u.PiecesPlaced);
        if (tray > 0)
        {
            says.Add($"{tray} {(tray == 1 ? "piece goes" : "pieces go")} to the tray");
        }

        var numbers = now.Leaves.Select((l, i) => (l.Id, Number: i + 1)).ToDictionary(l => l.Id, l => l.Number);
        var facing = Facing(now.Leaves.ConvertAll(l => l.Id));
        foreach (var unit in now.Units)
        {
            var (old, fresh) = (_faces.GetValueOrDefault(unit.Id, []), now.Faces.GetValueOrDefault(unit.Id, []));
            var title = unit.ReadDates().Title(now.Calendar.Style);
            var moved = old.Where(f => !fresh.Contains(f)).Zip(fresh.Where(f => !old.Contains(f))).ToList();
            var turned = moved.Count(m => m.First.Side != m.Second.Side);
            if (turned > 0)
            {
                says.Add(
                    $"{title}: what lay on {NumberWords.Of(turned)} {(turned == 1 ? "page" : "pages")} changes from "
                        + "one side of the spread to the other"
                );
            }

            foreach (
                var (was, becomes) in moved.Where(m =>
                    m.First.Side == m.Second.Side && numbers.ContainsKey(m.Second.LeafId)
                )
            )
            {
                says.Add(
                    $"{title}: what lay on {Page(was)} of its leaf lies on {Page(becomes)} of leaf "
                        + $"{numbers[becomes.LeafId]}"
                );
            }

            // Only pages that are there before and after can lie opposite of something else.
            foreach (
                var face in old.Intersect(fresh)
                    .Where(f =>
                        unit.PiecesPlaced > 0
                        && _facing.TryGetValue(f, out var opposite)
                        && facing.TryGetValue(f, out var other)
                        && other != opposite
                    )
            )
            {
                says.Add(
                    $"{title}: opposite of {Page(face)} of leaf {numbers[face.LeafId]} lies {Page(facing[face])} of "
                        + $"leaf {numbers[facing[face].LeafId]} now"
                );
            }
        }

        return says;
    }

    /// <summary>Which page lies opposite of which when the album is open.</summary>
    private static Dictionary<FaceOfLeaf, FaceOfLeaf> Facing(List<Guid> leaves)
    {
        var facing = new Dictionary<FaceOfLeaf, FaceOfLeaf>();
        foreach (var (left, right) in leaves.Zip(leaves.Skip(1)))
        {
            var (back, front) = (new FaceOfLeaf(left, LeafSide.Back), new FaceOfLeaf(right, LeafSide.Front));
            (facing[back], facing[front]) = (front, back);
        }

        return facing;
    }

    private static string Page(FaceOfLeaf face) => face.Side == LeafSide.Front ? "the front" : "the back";
}
