using System.Collections.Immutable;

namespace ZestyPocket.Core.Photos;

/// <summary>What pictures that lie together are made of.</summary>
public static class Palettes
{
    /// <summary>
    /// Two colours of a palette differ by at least this much by CIEDE2000 (<see cref="LabColour.DifferenceTo"/>):
    /// another colour to everybody's eye.
    /// </summary>
    public const double Apart = 12;

    /// <summary>
    /// One palette of several pictures, each counted alike: up to <see cref="PictureJudging.PaletteSize"/> colours, the
    /// largest share first. The same pictures in any order give the same palette.
    /// </summary>
    public static ImmutableArray<PaletteColour> Together(IEnumerable<ImmutableArray<PaletteColour>> palettes)
    {
        ArgumentNullException.ThrowIfNull(palettes);
        var all = palettes
            .SelectMany(p => p)
            .OrderByDescending(c => c.Share * (1 + (c.Lab.Chroma / StrongSeenBefore)))
            .ThenBy(c => c.Hex, StringComparer.Ordinal)
            .ToList();
        var centres = new List<PaletteColour>();
        foreach (var colour in all)
        {
            if (
                centres.Count < PictureJudging.PaletteSize
                && centres.TrueForAll(c => c.Lab.DifferenceTo(colour.Lab) >= Apart)
            )
            {
                centres.Add(colour);
            }
        }

        var total = all.Sum(c => c.Share);
        return
        [
            .. all.GroupBy(c => centres.MinBy(o => o.Lab.DifferenceTo(c.Lab)))
                .Select(g => g.Key with { Share = Math.Round(g.Select(c => c.Share).Order().Sum() / total, 4) })
                .OrderByDescending(c => c.Share)
                .ThenBy(c => c.Hex, StringComparer.Ordinal),
        ];
    }

    /// <summary>A little of a strong colour is seen before much of a grey one. A choice of this program.</summary>
    private const double StrongSeenBefore = 25;
}
