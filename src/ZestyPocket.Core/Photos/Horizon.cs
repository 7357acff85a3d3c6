namespace ZestyPocket.Core.Photos;

/// <summary>Finds the line where sky meets land or water, so that a crop can lay it on a third.</summary>
public static class Horizon
{
    /// <summary>So many grey levels of 255 the one side must be lighter. A choice of this program.</summary>
    private const double Step = 14;

    /// <summary>In such a share of the columns the same side must be the lighter. A choice of this program.</summary>
    private const double Across = 0.85;

    /// <summary>
    /// How far down the horizon lies, 0 to 1 of the height; null when no level line divides the picture. It is the row
    /// where a band above differs most from a band below, in nearly every column and in the same direction.
    /// </summary>
    /// <param name="grey">Upright picture, a byte for each pixel, row by row.</param>
    public static double? Of(ReadOnlySpan<byte> grey, int width, int height)
    {
        var band = Math.Max(2, height / 20);
        if (width < 8 || height < 4 * band)
        {
            return null;
        }

        var sums = ColumnSums(grey, width, height);
        (double Difference, int Row)? best = null;
        for (var row = band; row <= height - band; row++)
        {
            var (lighterAbove, lighterBelow, whole) = (0, 0, 0.0);
            for (var column = 0; column < width; column++)
            {
                var above = (sums[(row * width) + column] - sums[((row - band) * width) + column]) / (double)band;
                var below = (sums[((row + band) * width) + column] - sums[(row * width) + column]) / (double)band;
                whole += above - below;
                lighterAbove += above - below >= Step / 2 ? 1 : 0;
                lighterBelow += below - above >= Step / 2 ? 1 : 0;
            }

            var difference = Math.Abs(whole) / width;
            var agree = Math.Max(lighterAbove, lighterBelow) >= Across * width;
            if (agree && difference >= Step && difference > (best?.Difference ?? 0))
            {
                best = (difference, row);
            }
        }

        return best is { } found ? found.Row / (double)height : null;
    }

    /// <summary>Sums of each column from the top down to each row; one row more than the picture.</summary>
    private static int[] ColumnSums(ReadOnlySpan<byte> grey, int width, int height)
    {
        var sums = new int[width * (height + 1)];
        for (var i = 0; i < width * height; i++)
        {
            sums[i + width] = sums[i] + grey[i];
        }

        return sums;
    }
}
