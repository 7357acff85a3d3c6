using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>
/// How a page body is welded into pockets: rectangles that tile it without gap or overlap.
/// Named by what it holds, never after a maker.
/// </summary>
public sealed record PageDesign(string Key, string Name, Size Body, ImmutableArray<Pocket> Pockets)
{
    /// <summary>
    /// What the back holds where it is not the front mirrored, such as the two panels of a fold-out; as the front would
    /// show them. Null for every page of pockets.
    /// </summary>
    public ImmutableArray<Pocket>? OfBack { get; init; }

    /// <summary>Builds a design from its notation, see <see cref="DesignNotation"/>.</summary>
    public static PageDesign FromNotation(string key, string name, string notation)
    {
        var (body, pockets) = DesignNotation.Parse(notation);
        return new PageDesign(key, name, body, pockets);
    }

    /// <summary>
    /// The pockets of one face in reading order: row by row from the top, left to right as that face shows them.
    /// The back of a leaf shows the columns mirrored.
    /// </summary>
    public IReadOnlyList<Pocket> Face(LeafSide side) =>
        [
            .. On(side)
                .Select(p => side == LeafSide.Front ? p : p with { Bounds = p.Bounds.MirroredIn(Body.Width) })
                .OrderBy(p => p.Bounds.Y)
                .ThenBy(p => p.Bounds.X),
        ];

    /// <summary>A pocket by its key, on one face; null when that face has none of that name.</summary>
    public Pocket? Find(LeafSide side, string key) => On(side).FirstOrDefault(p => p.Key == key);

    /// <summary>Pockets on both faces of a leaf.</summary>
    public int OnBothFaces => Pockets.Length + (OfBack ?? Pockets).Length;

    private ImmutableArray<Pocket> On(LeafSide side) => side == LeafSide.Back && OfBack is { } back ? back : Pockets;
}
