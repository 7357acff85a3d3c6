using System.Text.RegularExpressions;

namespace ZestyPocket.Core.Words;

/// <summary>The words of a quote: what was said, and who said it.</summary>
/// <param name="Said">With its quotation marks; the beginning of the words.</param>
/// <param name="Who">What stands after them; empty when nothing does.</param>
public readonly record struct QuoteWords(string Said, string Who)
{
    private const int LongestWho = 60;

    /// <summary>
    /// Parts words such as <c>“It is resting.” Otto</c> after the last closing mark. Without marks all of it was said.
    /// </summary>
    public static QuoteWords Of(string words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var close = words.AsSpan().TrimEnd().LastIndexOfAny("”»");
        if (close < 0)
        {
            return new(words, string.Empty);
        }

        var who = words[(close + 1)..].Trim().TrimStart('–', '—', '-', ',').Trim();
        return who.Length is 0 or > LongestWho || who.Contains('\n', StringComparison.Ordinal)
            ? new(words, string.Empty)
            : new(words[..(close + 1)], who);
    }
}

/// <summary>A short row of a card: what it is, and how much.</summary>
/// <param name="Name">At the left.</param>
/// <param name="Value">At the right; empty for a row of one piece.</param>
public readonly partial record struct CardRow(string Name, string Value)
{
    /// <summary>It says how many of something there are.</summary>
    public bool Counts { get; init; }

    /// <summary>It is a beginning to be finished, finished or not.</summary>
    public bool Prompt { get; init; }

    /// <summary>
    /// Reads a line: <c>Otto, 64</c>, <c>1,240 pictures</c>, <c>High: the weir</c>, <c>From Wickerby</c>,
    /// <c>15 h 33 min of daylight</c>, <c>Sun 05:12 to 20:45</c>.
    /// </summary>
    public static CardRow Of(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        var text = line.Trim();
        if (Begun().Match(text) is { Success: true } begun)
        {
            return new(begun.Groups[1].Value, begun.Groups[2].Value.Trim()) { Prompt = true };
        }

        if (NumberThenName().Match(text) is { Success: true } counted)
        {
            return new(counted.Groups[2].Value.Trim(), counted.Groups[1].Value) { Counts = true };
        }

        foreach (
            var (form, name, value) in new[]
            {
                (Colon(), 1, 2),
                (NameThenNumber(), 1, 2),
                (Weather(), 1, 2),
                (Sun(), 1, 2),
                (AmountOf(), 2, 1),
                (FromTo(), 1, 2),
            }
        )
        {
            if (form.Match(text) is { Success: true } match)
            {
                return new(match.Groups[name].Value.Trim(), match.Groups[value].Value.Trim());
            }
        }

        return new(text, string.Empty);
    }

    [GeneratedRegex(@"^([^:\t]{1,40})(?::\s|\t)\s*(.+)$")]
    private static partial Regex Colon();

    [GeneratedRegex(@"^(.+),\s+([0-9][0-9,.\u2009]*)$")]
    private static partial Regex NameThenNumber();

    [GeneratedRegex(@"^([0-9][0-9,.\u2009]*)\s+(\p{L}{2}[^0-9]*)$")]
    private static partial Regex NumberThenName();

    [GeneratedRegex(@"^(.+),\s+(−?[0-9].*°C)$")]
    private static partial Regex Weather();

    [GeneratedRegex(@"^(Sun)\s+([0-9].*)$")]
    private static partial Regex Sun();

    [GeneratedRegex(@"^([0-9][^:]*)\s+of\s+(\p{L}+)$")]
    private static partial Regex AmountOf();

    [GeneratedRegex(
        @"^(reading|wearing|listening to|eating|drinking|watching|making|thinking of|grateful for|looking forward to)"
            + @"(?:\s+(.*))?$"
    )]
    private static partial Regex Begun();

    [GeneratedRegex(@"^(From|To|At)\s+(.+)$")]
    private static partial Regex FromTo();
}
