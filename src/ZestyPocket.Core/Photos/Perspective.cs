namespace ZestyPocket.Core.Photos;

/// <summary>A point of a picture, as shares of its width and height.</summary>
public readonly record struct PicturePoint(double X, double Y);

/// <summary>The four corners of a card or sheet in a photo of it, as they are named when it lies readable.</summary>
public sealed record CardCorners(
    PicturePoint TopLeft,
    PicturePoint TopRight,
    PicturePoint BottomRight,
    PicturePoint BottomLeft
)
{
    /// <summary>The whole picture.</summary>
    public static CardCorners Whole { get; } = new(new(0, 0), new(1, 0), new(1, 1), new(0, 1));

    public IReadOnlyList<PicturePoint> All => [TopLeft, TopRight, BottomRight, BottomLeft];

    /// <summary>Throws <see cref="RuleException"/> when these are not the corners of one card.</summary>
    public CardCorners Checked()
    {
        var all = All;
        if (all.Any(p => !(p.X is >= -0.2 and <= 1.2 && p.Y is >= -0.2 and <= 1.2)))
        {
            throw new RuleException("The corners of a card lie in its picture. Nothing was changed.");
        }

        for (var i = 0; i < 4; i++)
        {
            var (a, b, c) = (all[i], all[(i + 1) % 4], all[(i + 2) % 4]);
            // Every corner turns to the right, and none is nearly straight.
            if (((b.X - a.X) * (c.Y - b.Y)) - ((b.Y - a.Y) * (c.X - b.X)) < 0.002)
            {
                throw new RuleException(
                    "Put the four corners onto the card in their order: top left, top right, bottom right, bottom "
                        + "left. Nothing was changed."
                );
            }
        }

        return this;
    }
}

/// <summary>
/// A plane seen in perspective: nine numbers that take points of one plane to points of another. Source: Hartley and
/// Zisserman, Multiple View Geometry, direct linear transformation (from memory).
/// </summary>
/// <param name="M">Row by row; the last one is 1.</param>
public sealed record Homography(IReadOnlyList<double> M)
{
    public (double X, double Y) Map(double x, double y)
    {
        var w = (M[6] * x) + (M[7] * y) + M[8];
        return (((M[0] * x) + (M[1] * y) + M[2]) / w, ((M[3] * x) + (M[4] * y) + M[5]) / w);
    }

    /// <summary>
    /// The one that takes four points to four others. Throws <see cref="RuleException"/> when three of them lie on a
    /// line.
    /// </summary>
    public static Homography Of(IReadOnlyList<(double X, double Y)> from, IReadOnlyList<(double X, double Y)> to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        var rows = new double[8, 9];
        for (var i = 0; i < 4; i++)
        {
            var ((x, y), (u, v)) = (from[i], to[i]);
            double[] across = [x, y, 1, 0, 0, 0, -u * x, -u * y, u];
            double[] down = [0, 0, 0, x, y, 1, -v * x, -v * y, v];
            for (var j = 0; j < 9; j++)
            {
                (rows[2 * i, j], rows[(2 * i) + 1, j]) = (across[j], down[j]);
            }
        }

        return new Homography([.. Solve(rows), 1]);
    }

    /// <summary>Gauss elimination with the largest pivot.</summary>
    private static double[] Solve(double[,] rows)
    {
        const int n = 8;
        for (var column = 0; column < n; column++)
        {
            var pivot = Enumerable.Range(column, n - column).MaxBy(r => Math.Abs(rows[r, column]));
            if (Math.Abs(rows[pivot, column]) < 1e-12)
            {
                throw new RuleException("Three corners lie on one line. Nothing was changed: move one of them.");
            }

            for (var j = 0; j <= n; j++)
            {
                (rows[column, j], rows[pivot, j]) = (rows[pivot, j], rows[column, j]);
            }

            for (var r = 0; r < n; r++)
            {
                if (r == column)
                {
                    continue;
                }

                var share = rows[r, column] / rows[column, column];
                for (var j = column; j <= n; j++)
                {
                    rows[r, j] -= share * rows[column, j];
                }
            }
        }

        return [.. Enumerable.Range(0, n).Select(i => rows[i, n] / rows[i, i])];
    }
}
