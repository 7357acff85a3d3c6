using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>A picture that is wanted in pockets of one nominal size only.</summary>
public readonly record struct SizeWish(Guid PhotoId, Length Width, Length Height)
{
    public Size Size => new(Width, Height);
}

/// <summary>A cell of a collage: a picture, or words, or the ground.</summary>
/// <param name="Key">Its place in the layout's split.</param>
/// <param name="PhotoId">The picture in it; null for a cell of words.</param>
/// <param name="Framing">How the picture is framed there.</param>
/// <param name="Words">The words in it; empty for a cell of ground.</param>
public sealed record CollageCell(string Key, Guid? PhotoId, Framing Framing, string Words);

/// <summary>
/// Several small pictures in one print, with gutters between; any cell may hold words. Six 2x2 fill a 4x6 exactly, five
/// pictures and one of words. Common practice, arithmetic.
/// </summary>
/// <param name="Id">Its key.</param>
/// <param name="Layout">
/// The cells in the notation of <see cref="DesignNotation"/>; its body is the size it is made for.
/// </param>
/// <param name="Cells">What is in them; a cell that is not named here is ground.</param>
/// <param name="Gutter">Between neighbouring cells; none at the edges.</param>
/// <param name="Ground">The colour between them.</param>
public sealed record Collage(Guid Id, string Layout, ImmutableArray<CollageCell> Cells, Length Gutter, Rgb Ground)
    : Piece(Id)
{
    public const int FewestCells = 2;

    public const int MostCells = 9;

    /// <summary>Longest words of one cell, in characters.</summary>
    public const int LongestWords = 1_000;

    /// <summary>1/16 in, common practice; editable.</summary>
    public static Length UsualGutter => Length.FromInches(1, 16);

    /// <summary>Its pictures.</summary>
    public IEnumerable<Guid> Photos => Cells.Select(c => c.PhotoId).OfType<Guid>();

    /// <summary>The size it is made for.</summary>
    public Size Body => DesignNotation.Parse(Layout).Body;

    public CollageCell? Cell(string key) => Cells.FirstOrDefault(c => c.Key == key);

    /// <summary>
    /// Where the cells lie in a print of a cut size, in the order of the layout: the layout is stretched to the print,
    /// and each cell gives up half a gutter on its inner sides.
    /// </summary>
    public ImmutableArray<(string Key, Rect Bounds)> CellsIn(Size cut) => CellsOf(Layout, cut, Gutter);

    public static ImmutableArray<(string Key, Rect Bounds)> CellsOf(string layout, Size cut, Length gutter)
    {
        var (body, cells) = DesignNotation.Parse(layout);
        var half = gutter / 2;
        return
        [
            .. cells.Select(cell =>
            {
                var (left, top) = (
                    Scaled(cell.Bounds.X, cut.Width, body.Width),
                    Scaled(cell.Bounds.Y, cut.Height, body.Height)
                );
                var (right, bottom) = (
                    Scaled(cell.Bounds.Right, cut.Width, body.Width),
                    Scaled(cell.Bounds.Bottom, cut.Height, body.Height)
                );
                left += cell.Bounds.X > Length.Zero ? half : Length.Zero;
                top += cell.Bounds.Y > Length.Zero ? half : Length.Zero;
                right -= cell.Bounds.Right < body.Width ? half : Length.Zero;
                bottom -= cell.Bounds.Bottom < body.Height ? half : Length.Zero;
                return (cell.Key, new Rect(left, top, right - left, bottom - top));
            }),
        ];

        static Length Scaled(Length at, Length to, Length from) => new((long)((Int128)at.Emu * to.Emu / from.Emu));
    }

    /// <summary>The same without some pictures; their cells are ground.</summary>
    public Collage Without(IReadOnlySet<Guid> photoIds) =>
        this with
        {
            Cells =
            [
                .. Cells.Select(c => c.PhotoId is { } id && photoIds.Contains(id) ? c with { PhotoId = null } : c),
            ],
        };

    /// <summary>Throws <see cref="RuleException"/> for a collage that cannot be made.</summary>
    public Collage Checked()
    {
        var (_, cells) = DesignNotation.Parse(Layout);
        if (cells.Length is < FewestCells or > MostCells)
        {
            throw new RuleException(
                $"A collage has {FewestCells} to {MostCells} cells; this one has {cells.Length}. Nothing was changed."
            );
        }

        if (Gutter < Length.Zero || Gutter > Length.FromInches(1, 2))
        {
            throw new RuleException("The gutter of a collage is 0 to 1/2 in. Nothing was changed.");
        }

        if (Cells.Any(c => c.Words.Length > LongestWords))
        {
            throw new RuleException(
                $"A cell of a collage holds at most {LongestWords:N0} characters. Nothing was changed: write them "
                    + "on a card."
            );
        }

        var photos = Photos.ToList();
        if (
            photos.Distinct().Count() != photos.Count
            || Cells.Select(c => c.Key).Distinct().Count() != Cells.Length
            || Cells.Any(c => cells.All(p => p.Key != c.Key))
        )
        {
            throw new RuleException(
                "Every cell of a collage is one of its layout and every picture lies in it once. Nothing was changed."
            );
        }

        return CellsIn(Body)
            .Any(c => c.Bounds.Width < Length.FromInches(1, 4) || c.Bounds.Height < Length.FromInches(1, 4))
            ? throw new RuleException(
                "The cells would be narrower than 1/4 in: take a smaller gutter or fewer cells. Nothing was changed."
            )
            : this;
    }
}

/// <summary>Layouts of collages: rows or columns of equal cells.</summary>
public static class CollageLayouts
{
    /// <summary>
    /// The layouts of so many cells in a print of a size, the simplest first: every way to share the cells over at most
    /// four rows or columns of at most four.
    /// </summary>
    public static ImmutableArray<string> For(Size size, int cells)
    {
        if (cells is < Collage.FewestCells or > Collage.MostCells)
        {
            throw new RuleException(
                $"A collage has {Collage.FewestCells} to {Collage.MostCells} cells. Nothing was changed."
            );
        }

        var layouts = new List<string>();
        foreach (var shares in Shares(cells, 4, 4).OrderBy(s => s.Count).ThenBy(s => s.Max() - s.Min()))
        {
            layouts.Add(DesignTiling.Write(Rects(size, shares, columns: false)));
            layouts.Add(DesignTiling.Write(Rects(size, shares, columns: true)));
        }

        return [.. layouts.Distinct()];
    }

    /// <summary>
    /// The layout in which these pictures lose least, exactly, and the cell of each picture. With
    /// <paramref name="wordCells"/> further cells for words, which take what the pictures leave.
    /// </summary>
    public static (string Layout, ImmutableArray<string> CellOfPicture, double Loss) Best(
        Size size,
        IReadOnlyList<PixelSize> pictures,
        int wordCells,
        Length gutter
    )
    {
        ArgumentNullException.ThrowIfNull(pictures);
        (string, ImmutableArray<string>, double)? best = null;
        foreach (var layout in For(size, pictures.Count + wordCells))
        {
            var cells = Collage.CellsOf(layout, size, gutter);
            var cost = new long[pictures.Count, cells.Length];
            for (var i = 0; i < pictures.Count; i++)
            {
                for (var j = 0; j < cells.Length; j++)
                {
                    // Time in reading order decides between cells that lose the same.
                    cost[i, j] =
                        (long)
                            Math.Round(
                                1_000_000
                                    * Crop.For(pictures[i], cells[j].Bounds.Size, Framing.Middle).LossOf(pictures[i])
                            ) + Math.Abs(i - j);
                }
            }

            var columns = Assignment.Solve(cost);
            var loss = columns
                .Select((j, i) => Crop.For(pictures[i], cells[j].Bounds.Size, Framing.Middle).LossOf(pictures[i]))
                .Sum();
            if (best is not { } so || loss < so.Item3 - 1e-9)
            {
                best = (layout, [.. columns.Select(j => cells[j].Key)], loss);
            }
        }

        return best!.Value;
    }

    private static IEnumerable<List<int>> Shares(int cells, int most, int rows)
    {
        if (cells == 0)
        {
            yield return [];
        }

        if (rows == 0)
        {
            yield break;
        }

        for (var first = 1; first <= Math.Min(most, cells); first++)
        {
            foreach (var rest in Shares(cells - first, most, rows - 1))
            {
                yield return [first, .. rest];
            }
        }
    }

    private static List<Rect> Rects(Size size, List<int> shares, bool columns)
    {
        var rects = new List<Rect>();
        var (along, across) = columns ? (size.Width, size.Height) : (size.Height, size.Width);
        for (var r = 0; r < shares.Count; r++)
        {
            var (from, to) = (Cut(along, r, shares.Count), Cut(along, r + 1, shares.Count));
            for (var c = 0; c < shares[r]; c++)
            {
                var (start, end) = (Cut(across, c, shares[r]), Cut(across, c + 1, shares[r]));
                rects.Add(
                    columns
                        ? new Rect(from, start, to - from, end - start)
                        : new Rect(start, from, end - start, to - from)
                );
            }
        }

        return rects;

        static Length Cut(Length whole, int i, int of) => new(whole.Emu * i / of);
    }
}
