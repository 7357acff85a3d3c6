namespace ZestyPocket.Core.Pages;

/// <summary>One face of one leaf.</summary>
public readonly record struct FaceOfLeaf(Guid LeafId, LeafSide Side);

/// <summary>
/// What the reader sees when the album lies open: on the left the back of one leaf, on the right the front of the
/// next.
/// </summary>
public readonly record struct Spread(FaceOfLeaf Left, FaceOfLeaf Right);

/// <summary>How leaves in their order make spreads and how units take their faces.</summary>
public static class Binding
{
    /// <summary>
    /// Spread school: a week takes facing pages, so unit k (from 0) has the back of leaf k and the front of leaf
    /// k + 1; n units need n + 1 leaves, whose first front and last back belong to nobody (title and end page).
    /// </summary>
    public static int LeavesForFacingPages(int units) => units == 0 ? 0 : units + 1;

    /// <summary>The spread of unit <paramref name="unit"/> (from 0) when a week takes facing pages.</summary>
    public static Spread FacingPages(IReadOnlyList<Guid> leaves, int unit)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        return new Spread(new FaceOfLeaf(leaves[unit], LeafSide.Back), new FaceOfLeaf(leaves[unit + 1], LeafSide.Front));
    }
}
