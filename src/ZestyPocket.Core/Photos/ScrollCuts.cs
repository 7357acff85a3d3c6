using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Photos;

/// <summary>A part of a tall picture, as shares of its height from the top.</summary>
public readonly record struct PicturePart(double Top, double Bottom)
{
    public double Height => Bottom - Top;
}

/// <summary>
/// Cuts a tall picture (a long conversation, an article) into parts that fit pockets at their full width, along rows in
/// which little happens, so that no line of words is cut through.
/// </summary>
public static class ScrollCuts
{
    /// <summary>Most parts of a picture.</summary>
    public const int MostParts = 40;

    /// <summary>A part is at least this share of what a pocket holds, but for the last.</summary>
    private const double LeastShare = 0.35;

    /// <summary>How many parts a picture has at least in pockets of a size.</summary>
    public static int Fewest(PixelSize picture, Size pocket) =>
        (int)Math.Ceiling((picture.Height / RowsOf(picture, pocket)) - 1e-9);

    /// <summary>
    /// The parts, fewest first and then the quietest cuts; exact, by dynamic programming over the rows. Throws
    /// <see cref="RuleException"/> when there would be more than <see cref="MostParts"/>.
    /// </summary>
    /// <param name="picture">Pixels of the upright picture.</param>
    /// <param name="pocket">What each part is cut to.</param>
    /// <param name="busy">How much happens in each row from the top, 0 for nothing; any number of rows.</param>
    public static ImmutableArray<PicturePart> Of(PixelSize picture, Size pocket, IReadOnlyList<double> busy)
    {
        ArgumentNullException.ThrowIfNull(busy);
        var fewest = Fewest(picture, pocket);
        if (fewest > MostParts)
        {
            throw new RuleException(
                $"That would be {fewest} parts, and {MostParts} are the most. Nothing was changed: cut the picture, "
                    + "or take larger pockets."
            );
        }

        var rows = busy.Count;
        if (fewest <= 1 || rows < 2)
        {
            return [new PicturePart(0, 1)];
        }

        // In rows of the measure; a cut lies over the row it is named by.
        var longest = Math.Max(1, (int)Math.Floor(RowsOf(picture, pocket) * rows / picture.Height));
        var shortest = Math.Max(1, (int)(longest * LeastShare));
        // Cost of the best cuts of the rows so far, for each number of parts: one more than the fewest may be quieter,
        // but a part more costs a pocket, so only the fewest that can be are looked at.
        var parts = (rows + longest - 1) / longest;
        var best = new double[parts + 1, rows + 1];
        var from = new int[parts + 1, rows + 1];
        for (var p = 0; p <= parts; p++)
        {
            for (var r = 0; r <= rows; r++)
            {
                best[p, r] = double.PositiveInfinity;
            }
        }

        best[0, 0] = 0;
        for (var p = 1; p <= parts; p++)
        {
            for (var end = 1; end <= rows; end++)
            {
                if (p == parts ? end != rows : end == rows)
                {
                    continue;
                }

                var least = p == parts ? 1 : shortest;
                var cost = end == rows ? 0 : busy[end] + busy[end - 1];
                for (var start = Math.Max(0, end - longest); start <= end - least; start++)
                {
                    if (best[p - 1, start] + cost < best[p, end])
                    {
                        (best[p, end], from[p, end]) = (best[p - 1, start] + cost, start);
                    }
                }
            }
        }

        var cuts = new Stack<int>();
        cuts.Push(rows);
        for (var (p, end) = (parts, rows); p > 0; p--)
        {
            end = from[p, end];
            cuts.Push(end);
        }

        return
        [
            .. cuts.Zip(cuts.Skip(1)).Select(c => new PicturePart((double)c.First / rows, (double)c.Second / rows)),
        ];
    }

    /// <summary>Rows of pixels that a pocket holds when the picture is as wide as the pocket.</summary>
    private static double RowsOf(PixelSize picture, Size pocket) => picture.Width / pocket.Proportion;
}
