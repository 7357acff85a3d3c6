namespace ZestyPocket.Core.Pages;

/// <summary>How a unit takes its pages.</summary>
public enum PageSchool
{
    /// <summary>Facing pages: the back of one leaf and the front of the next.</summary>
    Spread,

    /// <summary>The two faces of one leaf: the front first, then turned.</summary>
    Leaf,
}

/// <summary>One face of one leaf.</summary>
public readonly record struct FaceOfLeaf(Guid LeafId, LeafSide Side);

/// <summary>
/// How leaves in their order make spreads and how units take their faces. When the album lies open the reader sees on
/// the left the back of one leaf and on the right the front of the next.
/// </summary>
public static class Binding
{
    /// <summary>
    /// The faces of a binder's leaves in reading order: back, front, back, front, the last front included, the end
    /// page's back not. In the spread school it begins with the back of the first leaf, whose front is the title page;
    /// in the leaf school the first leaf is the title's alone, and it begins with the front of the second.
    /// </summary>
    public static IEnumerable<FaceOfLeaf> ReadingOrder(
        IReadOnlyList<Guid> leaves,
        PageSchool school = PageSchool.Spread
    )
    {
        ArgumentNullException.ThrowIfNull(leaves);
        for (var k = school == PageSchool.Spread ? 0 : 1; k < leaves.Count; k++)
        {
            if (k > 0)
            {
                yield return new FaceOfLeaf(leaves[k], LeafSide.Front);
            }

            yield return new FaceOfLeaf(leaves[k], LeafSide.Back);
        }
    }

    /// <summary>
    /// Which spread each of a unit's faces in reading order lies on, from 1: a back opens a new one at the left, a
    /// front lies at the right of the one that is open.
    /// </summary>
    public static IReadOnlyList<int> SpreadsOf(IReadOnlyList<LeafSide> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        var spread = 0;
        return [.. faces.Select((side, i) => i == 0 || side == LeafSide.Back ? ++spread : spread)];
    }

    /// <summary>How many leaves carry that many faces after the title page.</summary>
    public static int LeavesFor(int faces, PageSchool school = PageSchool.Spread) =>
        faces == 0 ? 0 : ((school == PageSchool.Spread ? faces : faces + 1) / 2) + 1;

    /// <summary>
    /// Where each unit begins in the reading order, and how many faces there are up to the last one. A unit that begins
    /// a volume begins a new leaf, after a title page as the first volume has one: what is left of the leaf before it
    /// stays empty.
    /// </summary>
    /// <param name="startsVolume">Units that begin a further volume, by index; the first unit does so anyway.</param>
    public static (IReadOnlyList<int> Starts, int Faces) Laid(
        IReadOnlyList<int> facesOfUnit,
        IReadOnlySet<int> startsVolume,
        PageSchool school = PageSchool.Spread
    )
    {
        ArgumentNullException.ThrowIfNull(facesOfUnit);
        ArgumentNullException.ThrowIfNull(startsVolume);
        var (at, starts) = (0, new List<int>());
        foreach (var (count, k) in facesOfUnit.Select((c, k) => (c, k)))
        {
            if (k > 0 && startsVolume.Contains(k))
            {
                // Facing pages begin with a back, the leaf school with a front; the title page is the face or the leaf
                // before it.
                at += school == PageSchool.Spread ? 2 - (at % 2) : 2 + (at % 2);
            }

            starts.Add(at);
            at += count;
        }

        return (starts, at);
    }

    /// <summary>
    /// Hands the faces out in reading order: unit k takes <paramref name="facesOfUnit"/>[k] of them. Facing pages are
    /// two faces a unit: the back of one leaf and the front of the next.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<FaceOfLeaf>> Chain(
        IReadOnlyList<Guid> leaves,
        IReadOnlyList<int> facesOfUnit,
        PageSchool school = PageSchool.Spread,
        IReadOnlySet<int>? startsVolume = null
    )
    {
        var faces = ReadingOrder(leaves, school).ToList();
        var (starts, taken) = Laid(facesOfUnit, startsVolume ?? new HashSet<int>(), school);
        return taken <= faces.Count
            ? [.. starts.Zip(facesOfUnit, faces.GetRange)]
            : throw new ArgumentException("There are fewer faces than the units take.", nameof(leaves));
    }
}
