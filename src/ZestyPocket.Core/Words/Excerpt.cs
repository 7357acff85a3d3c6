using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>A short stretch of a text around words that were looked for.</summary>
public static class Excerpt
{
    private const string More = "…";

    /// <summary>
    /// At most <paramref name="longest"/> characters on one line, whole words where they fit, with the first place of
    /// <paramref name="found"/> in it, capitals or not; the beginning when the text does not have it. What is left out
    /// before and after is marked by an ellipsis, which is not counted.
    /// </summary>
    public static string Around(string text, string found, int longest)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(found);
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(longest);
        var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (line.Length <= longest)
        {
            return line;
        }

        var sought = string.Join(' ', found.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        var at = sought.Length == 0 ? 0 : Math.Max(0, line.IndexOf(sought, StringComparison.OrdinalIgnoreCase));
        var spare = Math.Max(0, longest - sought.Length) / 2;
        var from = WordStart(line, Math.Clamp(at - spare, 0, line.Length - longest), at);
        var until = WordEnd(line, Math.Min(line.Length, from + longest), Math.Min(line.Length, at + sought.Length));
        return $"{(from > 0 ? More : "")}{line[from..until].Trim()}{(until < line.Length ? More : "")}";
    }

    /// <summary>The first word that begins at or after a place, but not past <paramref name="last"/>.</summary>
    private static int WordStart(string line, int place, int last)
    {
        var blank = place == 0 ? -1 : line.IndexOf(' ', place - 1);
        var start =
            place == 0 ? 0
            : blank >= 0 && blank < last ? blank + 1
            : place;
        return Whole(line, start);
    }

    /// <summary>
    /// The end of the last word that ends at or before a place, but not before <paramref name="first"/>.
    /// </summary>
    private static int WordEnd(string line, int place, int first)
    {
        if (place >= line.Length || line[place] == ' ')
        {
            return place;
        }

        var blank = line.LastIndexOf(' ', place - 1);
        return Whole(line, blank > first ? blank : place);
    }

    /// <summary>No letter is parted from its marks.</summary>
    private static int Whole(string line, int place)
    {
        while (
            place > 0
            && place < line.Length
            && (
                char.IsLowSurrogate(line[place])
                || CharUnicodeInfo.GetUnicodeCategory(line[place])
                    is UnicodeCategory.NonSpacingMark
                        or UnicodeCategory.EnclosingMark
            )
        )
        {
            place--;
        }

        return place;
    }
}
