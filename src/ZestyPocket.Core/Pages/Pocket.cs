using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>
/// One pocket of a page design as seen on the front of the leaf.
/// </summary>
/// <param name="Key">
/// The pocket's place in the split, such as <c>2.1</c> for row 2, first cell. Both faces of a leaf use the same key
/// for the same pocket, and a split elsewhere on the page does not change it.
/// </param>
/// <param name="Bounds">Where it lies in the page body, nominal size, front face.</param>
public sealed record Pocket(string Key, Rect Bounds)
{
    /// <summary>The size the trade calls the pocket by.</summary>
    public Size Nominal => Bounds.Size;

    /// <summary>
    /// The room inside, where it follows from a measured pocket that was altered; null for every other pocket.
    /// </summary>
    public Size? Clear { get; init; }
}
