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
    ];

    /// <summary>From no to twelve in words, everything else in figures.</summary>
    public static string Of(int count) =>
        count >= 0 && count < Small.Length ? Small[count] : count.ToString(CultureInfo.InvariantCulture);

    /// <summary>
    /// A number with its thing, such as <c>1 line</c> or <c>1,200 lines</c>; the plural adds an s unless it is given.
    /// </summary>
    public static string Counted(int count, string one, string? many = null) =>
        $"{count.ToString("N0", CultureInfo.InvariantCulture)} {(count == 1 ? one : many ?? one + "s")}";

    /// <summary>The same with a small number in words, such as <c>two cards</c>.</summary>
    public static string CountedInWords(int count, string one) => $"{Of(count)} {(count == 1 ? one : one + "s")}";
}
