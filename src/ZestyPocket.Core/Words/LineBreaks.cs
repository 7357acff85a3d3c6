using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Where a line may end: after blanks, after hyphens and dashes between letters, and between ideographs. A first,
/// small part of the Unicode line breaking rules (UAX #14); the characters named here behave as that standard says.
/// </summary>
public static class LineBreaks
{
    /// <summary>Positions (1 … length) at which the next line may start, ascending; the end is always one.</summary>
    public static IReadOnlyList<int> Opportunities(string paragraph)
    {
        ArgumentNullException.ThrowIfNull(paragraph);
        var breaks = new List<int>();
        for (var i = 1; i < paragraph.Length; i++)
        {
            if (MayBreak(paragraph, i))
            {
                breaks.Add(i);
            }
        }

        breaks.Add(paragraph.Length);
        return breaks;
    }

    private static bool MayBreak(string text, int at)
    {
        var (before, after) = (text[at - 1], text[at]);
        if (char.IsLowSurrogate(after) || IsBlank(after) || IsMark(after))
        {
            return false;
        }

        return before switch
        {
            _ when IsBlank(before) => true,
            '\u200B' => true,
            '-' or '\u2010' => at >= 2 && char.IsLetter(text[at - 2]) && char.IsLetter(after),
            '\u2014' => !char.IsPunctuation(after),
            _ => IsIdeograph(before) && IsIdeograph(after),
        };
    }

    private static bool IsBlank(char c) => c is ' ' or '\t';

    private static bool IsMark(char c) => char.GetUnicodeCategory(c)
        is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark or UnicodeCategory.EnclosingMark;

    private static bool IsIdeograph(char c) => c is (>= '\u3040' and <= '\u30FF') or (>= '\u3400' and <= '\u9FFF');
}
