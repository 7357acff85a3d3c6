using System.Globalization;

namespace ZestyPocket.Core.Measures;

/// <summary>Small numbers as words, for sentences.</summary>
public static class NumberWords
{
    private static readonly string[] Small =
    [
        "no",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
        "sixteen",
        "seventeen",
        "eighteen",
        "nineteen",
    ];

    private static readonly string[] Tens =
    [
        "",
        "",
        "twenty",
        "thirty",
        "forty",
        "fifty",
        "sixty",
        "seventy",
        "eighty",
        "ninety",
    ];

    /// <summary>In sentences numbers are words up to here. Common practice.</summary>
    private const int LargestInSentences = 12;

    /// <summary>From no to twelve in words, everything else in figures.</summary>
    public static string Of(int count) =>
        count is >= 0 and <= LargestInSentences ? Small[count] : count.ToString(CultureInfo.InvariantCulture);

    /// <summary>A number from 0 to 999 in figures, or to nineteen in words; null for anything else.</summary>
    public static int? Read(ReadOnlySpan<char> text)
    {
        for (var n = 0; n < Small.Length; n++)
        {
            if (text.Equals(Small[n], StringComparison.OrdinalIgnoreCase))
            {
                return n;
            }
        }

        return
            text.Length is > 0 and <= 3
            && int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var figures)
            ? figures
            : null;
    }

    /// <summary>
    /// A number from 1 to 99 written out, such as <c>nineteen</c> or <c>forty-two</c>, for titles; null for anything
    /// else.
    /// </summary>
    public static string? InFull(string digits) =>
        !int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number) || number is < 1 or > 99
            ? null
        : number < Small.Length ? Small[number]
        : number % 10 == 0 ? Tens[number / 10]
        : $"{Tens[number / 10]}-{Small[number % 10]}";

    /// <summary>
    /// A number with its thing, such as <c>1 line</c> or <c>1,200 lines</c>; the plural adds an s unless it is given.
    /// </summary>
    public static string Counted(int count, string one, string? many = null) =>
        $"{count.ToString("N0", CultureInfo.InvariantCulture)} {(count == 1 ? one : many ?? one + "s")}";

    /// <summary>Such as <c>one, two and three</c>.</summary>
    public static string Listed(IReadOnlyList<string> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        return items.Count <= 1 ? string.Concat(items) : $"{string.Join(", ", items.SkipLast(1))} and {items[^1]}";
    }

    /// <summary>The same with a small number in words, such as <c>two cards</c>.</summary>
    public static string CountedInWords(int count, string one) => $"{Of(count)} {(count == 1 ? one : one + "s")}";
}
