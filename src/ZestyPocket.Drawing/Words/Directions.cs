using System.Collections.Immutable;
using Icu;

namespace ZestyPocket.Drawing.Words;

/// <summary>
/// Which parts of a text run from right to left. Source: UAX #9, by the ICU library; the paragraph's own direction is
/// that of its first strong letter (rules P2 and P3), left to right when it has none.
/// </summary>
public static class Directions
{
    /// <summary>ICU's code for "by the first strong letter, else left to right".</summary>
    private const byte ByFirstLetter = 0xFE;

    /// <summary>
    /// The level of each UTF-16 unit, default when all are 0; and whether the paragraph begins at the right.
    /// </summary>
    public static (ImmutableArray<byte> Levels, bool RightToLeft) LevelsOf(string paragraph)
    {
        ArgumentNullException.ThrowIfNull(paragraph);
        if (!MayTurn(paragraph))
        {
            return (default, false);
        }

        using var bidi = new BiDi();
        bidi.SetPara(paragraph, ByFirstLetter, null);
        var levels = bidi.GetLevels().ToImmutableArray();
        return levels.All(l => l == 0) ? (default, false) : (levels, bidi.GetParaLevel() % 2 == 1);
    }

    /// <summary>Parts of a line from left to right as they are seen. Source: UAX #9, rule L2.</summary>
    public static IReadOnlyList<T> InVisualOrder<T>(IReadOnlyList<T> parts, Func<T, byte> levelOf)
    {
        ArgumentNullException.ThrowIfNull(parts);
        ArgumentNullException.ThrowIfNull(levelOf);
        var odd = parts.Select(levelOf).Where(l => l % 2 == 1).ToList();
        if (odd.Count == 0)
        {
            return parts;
        }

        var order = parts.ToArray();
        var (highest, lowestOdd) = (parts.Max(levelOf), odd.Min());
        for (int level = highest; level >= lowestOdd; level--)
        {
            for (var start = 0; start < order.Length; start++)
            {
                var end = start;
                while (end < order.Length && levelOf(order[end]) >= level)
                {
                    end++;
                }

                Array.Reverse(order, start, end - start);
                start = Math.Max(start, end - 1);
            }
        }

        return order;
    }

    /// <summary>
    /// Whether a text has any letter or sign that could run from right to left: Hebrew to Arabic and its neighbours,
    /// their presentation forms, scripts of the supplementary planes, and the signs that set a direction.
    /// </summary>
    private static bool MayTurn(string text) =>
        text.AsSpan().IndexOfAnyInRange('\u0590', '\u08FF') >= 0
        || text.AsSpan().IndexOfAnyInRange('\uFB1D', '\uFDFF') >= 0
        || text.AsSpan().IndexOfAnyInRange('\uFE70', '\uFEFC') >= 0
        || text.AsSpan().IndexOfAnyInRange('\u200E', '\u200F') >= 0
        || text.AsSpan().IndexOfAnyInRange('\u202A', '\u202E') >= 0
        || text.AsSpan().IndexOfAnyInRange('\u2066', '\u2069') >= 0
        || text.AsSpan().IndexOfAnyInRange('\uD800', '\uDBFF') >= 0;
}
