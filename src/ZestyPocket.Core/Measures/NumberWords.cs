using System.Globalization;

namespace ZestyPocket.Core.Measures;

/// <summary>Small numbers as words, for sentences.</summary>
public static class NumberWords
{
    private static readonly string[] Small = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];

    /// <summary>From no to twelve in words, everything else in figures.</summary>
    public static string Of(int count) => count >= 0 && count < Small.Length ? Small[count] : count.ToString(CultureInfo.InvariantCulture);
}
