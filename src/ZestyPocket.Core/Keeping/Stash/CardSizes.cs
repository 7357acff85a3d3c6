using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>Tells the sizes of things that were photographed together, none of them measured.</summary>
public static class CardSizes
{
    /// <summary>
    /// What cards and papers come in, in inches, and how common each is: the cost of a rarer one. Common practice, from
    /// memory.
    /// </summary>
    private static readonly (decimal Short, decimal Long, double Rare)[] Usual =
    [
        (3, 4, 0),
        (4, 6, 0.002),
        (2, 2, 0.01),
        (2, 3, 0.012),
        (3, 3, 0.012),
        (4, 4, 0.01),
        (6, 6, 0.01),
        (6, 8, 0.008),
        (5, 7, 0.015),
        (4, 8, 0.015),
        (4, 12, 0.02),
        (6, 12, 0.012),
        (8.5m, 11, 0.012),
        (12, 12, 0.006),
    ];

    /// <summary>A side may be measured off by so much before another size is meant, as a natural logarithm.</summary>
    private const double Off = 0.06;

    /// <summary>
    /// The sizes that make most sense together: on one photo all have the same scale, so that the one scale is taken at
    /// which they are nearest to usual sizes. Null for a thing that is near none.
    /// </summary>
    /// <param name="pixels">Width and height of each as the photo shows it, in any unit.</param>
    public static ImmutableArray<Size?> Of(IReadOnlyList<(double Width, double Height)> pixels)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        if (pixels.Any(p => !(p.Width > 0 && p.Height > 0)))
        {
            throw new ArgumentException("Every thing has a width and a height.", nameof(pixels));
        }

        var scales = pixels.SelectMany(p =>
            Usual.Select(u => Math.Sqrt((double)(u.Short * u.Long) / (p.Width * p.Height)))
        );
        var best = scales
            .Select(s => (Scale: s, Cost: pixels.Sum(p => Nearest(p, s).Cost)))
            .OrderBy(s => s.Cost)
            .ThenBy(s => s.Scale)
            .FirstOrDefault();
        return [.. pixels.Select(p => SizeAt(p, best.Scale))];
    }

    private static Size? SizeAt((double Width, double Height) pixels, double scale)
    {
        var (usual, _, off) = Nearest(pixels, scale);
        return off > Off ? null
            : pixels.Width <= pixels.Height ? Size.FromInches(usual.Short, usual.Long)
            : Size.FromInches(usual.Long, usual.Short);
    }

    private static ((decimal Short, decimal Long) Usual, double Cost, double Off) Nearest(
        (double Width, double Height) pixels,
        double scale
    )
    {
        var (narrow, wide) = (
            scale * Math.Min(pixels.Width, pixels.Height),
            scale * Math.Max(pixels.Width, pixels.Height)
        );
        return Usual
            .Select(u =>
            {
                var (s, l) = (Math.Log(narrow / (double)u.Short), Math.Log(wide / (double)u.Long));
                // One that is near none must not pull the scale of the others.
                var cost = Math.Min((s * s) + (l * l), 4 * Off * Off);
                return ((u.Short, u.Long), cost + u.Rare * Off, Math.Max(Math.Abs(s), Math.Abs(l)));
            })
            .MinBy(u => u.Item2);
    }
}
