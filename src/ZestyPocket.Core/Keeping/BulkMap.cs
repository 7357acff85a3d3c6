using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping;

/// <summary>Something of a thickness that lies on a leaf, measured from its ring edge and its top.</summary>
public readonly record struct ThickSpot(Rect Bounds, Length Thickness);

/// <summary>A leaf in a closed album: its own thickness all over, and what lies in it where.</summary>
/// <param name="Size">Outer size.</param>
public sealed record ThickLeaf(Size Size, Length Leaf, IReadOnlyList<ThickSpot> Spots);

/// <summary>
/// How thick a closed album is at each place: leaves lie on each other with their ring edges and tops together, and
/// thick things add up where they lie over each other. The album is as thick as its thickest place. Arithmetic.
/// </summary>
public sealed class BulkMap
{
    /// <summary>The side of a cell: finer than any pocket, coarser than what shifts in one.</summary>
    public static Length Cell => Length.FromInches(1, 4);

    private readonly long[] _cells;

    /// <param name="size">Of the largest leaf.</param>
    public BulkMap(Size size)
    {
        (Columns, Rows) = (Whole(size.Width), Whole(size.Height));
        _cells = new long[Columns * Rows];
    }

    public int Columns { get; }

    public int Rows { get; }

    /// <summary>How thick the album is.</summary>
    public Length Thickest => new(_cells.Length == 0 ? 0 : _cells.Max());

    /// <summary>How thick it is at a cell: columns from the ring edge, rows from the top.</summary>
    public Length At(int column, int row) => new(_cells[(row * Columns) + column]);

    /// <summary>Lays one more leaf onto the others.</summary>
    public void Add(ThickLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        Add(new Rect(Length.Zero, Length.Zero, leaf.Size), leaf.Leaf);
        foreach (var spot in leaf.Spots)
        {
            Add(spot.Bounds, spot.Thickness);
        }
    }

    /// <summary>How thick one leaf is by itself.</summary>
    public static Length Of(ThickLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        var alone = new BulkMap(leaf.Size);
        alone.Add(leaf);
        return alone.Thickest;
    }

    /// <summary>A cell counts when its middle lies under the thing.</summary>
    private void Add(Rect bounds, Length thickness)
    {
        if (thickness == Length.Zero)
        {
            return;
        }

        var half = Cell / 2;
        for (var row = 0; row < Rows; row++)
        {
            var y = half + (row * Cell);
            if (y < bounds.Y || y >= bounds.Bottom)
            {
                continue;
            }

            for (var column = 0; column < Columns; column++)
            {
                var x = half + (column * Cell);
                if (x >= bounds.X && x < bounds.Right)
                {
                    _cells[(row * Columns) + column] += thickness.Emu;
                }
            }
        }
    }

    private static int Whole(Length length) => (int)((length.Emu + Cell.Emu - 1) / Cell.Emu);
}
