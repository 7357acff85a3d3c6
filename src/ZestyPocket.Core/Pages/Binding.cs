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
    /// Hands the faces out in reading order: unit k takes <paramref name="facesOfUnit"/>[k] of them. Facing pages are
    /// two faces a unit: the back of one leaf and the front of the next.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<FaceOfLeaf>> Chain(
        IReadOnlyList<Guid> leaves,
        IReadOnlyList<int> facesOfUnit,
        PageSchool school = PageSchool.Spread
    )
    {
        ArgumentNullException.ThrowIfNull(facesOfUnit);
        var faces = ReadingOrder(leaves, school).ToList();
        if (facesOfUnit.Sum() > faces.Count)
        {
            throw new ArgumentException("There are fewer faces than the units take.", nameof(leaves));
        }

        var (at, units) = (0, new List<IReadOnlyList<FaceOfLeaf>>());
        foreach (var count in facesOfUnit)
        {
            units.Add(faces.GetRange(at, count));
            at += count;
        }

        return units;
    }
}
