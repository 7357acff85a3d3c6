namespace ZestyPocket.Core.Pages;

/// <summary>One face of one leaf.</summary>
public readonly record struct FaceOfLeaf(Guid LeafId, LeafSide Side);

/// <summary>
/// What the reader sees when the album lies open: on the left the back of one leaf, on the right the front of the
/// next. Either may be missing at the album's ends.
/// </summary>
public readonly record struct Spread(FaceOfLeaf? Left, FaceOfLeaf? Right);

/// <summary>How leaves in their order make spreads and how units take their faces.</summary>
public static class Binding
{
    /// <summary>
    /// The spreads of an album in reading order: n leaves make n + 1, the first without a left page and the last
    /// without a right one.
    /// </summary>
    public static IReadOnlyList<Spread> Spreads(IReadOnlyList<Guid> leaves)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        var spreads = new List<Spread>(leaves.Count + 1);
        for (var i = 0; i <= leaves.Count; i++)
        {
            spreads.Add(new Spread(
                i == 0 ? null : new FaceOfLeaf(leaves[i - 1], LeafSide.Back),
                i == leaves.Count ? null : new FaceOfLeaf(leaves[i], LeafSide.Front)));
        }

        return spreads;
    }

    /// <summary>
    /// Spread school: a week takes facing pages, so unit k (from 0) has the back of leaf k and the front of leaf
    /// k + 1; n units need n + 1 leaves, whose first front and last back belong to nobody (title and end page).
    /// </summary>
    public static int LeavesForFacingPages(int units) => units == 0 ? 0 : units + 1;
}
