namespace ZestyPocket.Core.Pages;

/// <summary>One face of one leaf.</summary>
public readonly record struct FaceOfLeaf(Guid LeafId, LeafSide Side);

/// <summary>
/// How leaves in their order make spreads and how units take their faces. When the album lies open the reader sees on
/// the left the back of one leaf and on the right the front of the next.
/// </summary>
public static class Binding
{
    /// <summary>
    /// The faces of a binder's leaves in reading order, from the back of the first leaf on (its front is the title
    /// page): back, front, back, front, the last front included, the end page's back not.
    /// </summary>
    public static IEnumerable<FaceOfLeaf> ReadingOrder(IReadOnlyList<Guid> leaves)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        for (var k = 0; k < leaves.Count; k++)
        {
            if (k > 0)
            {
                yield return new FaceOfLeaf(leaves[k], LeafSide.Front);
            }

            yield return new FaceOfLeaf(leaves[k], LeafSide.Back);
        }
    }

    /// <summary>
    /// Which spread each of a unit's faces in reading order lies on, from 1: a back opens a new one at the left, a front
    /// lies at the right of the one that is open.
    /// </summary>
    public static IReadOnlyList<int> SpreadsOf(IReadOnlyList<LeafSide> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        var spread = 0;
        return [.. faces.Select((side, i) => i == 0 || side == LeafSide.Back ? ++spread : spread)];
    }

    /// <summary>How many leaves carry that many faces after the title page.</summary>
    public static int LeavesFor(int faces) => faces == 0 ? 0 : (faces / 2) + 1;

    /// <summary>
    /// Hands the faces out in reading order: unit k takes <paramref name="facesOfUnit"/>[k] of them. Facing pages are
    /// two faces a unit: the back of one leaf and the front of the next.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<FaceOfLeaf>> Chain(IReadOnlyList<Guid> leaves, IReadOnlyList<int> facesOfUnit)
    {
        ArgumentNullException.ThrowIfNull(facesOfUnit);
        var faces = ReadingOrder(leaves).ToList();
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
