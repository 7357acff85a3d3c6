using System.Collections.Immutable;
using System.Text.RegularExpressions;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Words;

/// <summary>Kinds of thing that spoil a printed card.</summary>
public enum WordFindingKind
{
    /// <summary>Two blank lines in a row.</summary>
    BlankLines,

    /// <summary>Two blanks in a row inside a line.</summary>
    DoubleSpace,

    /// <summary>A weekday that is not one of the days of its pictures.</summary>
    WrongWeekday,

    /// <summary>A date that is not one of the days of its pictures.</summary>
    WrongDate,

    /// <summary>A weekday and a date side by side that do not belong together.</summary>
    WeekdayOfDate,

    /// <summary>A name that differs by a letter from one the album knows.</summary>
    NameSpeltTwoWays,

    /// <summary>Words that the card has no room for.</summary>
    CutOff,

    /// <summary>Ink with too little contrast to its paper.</summary>
    FaintInk,

    /// <summary>A word that the dictionary does not know.</summary>
    Spelling,
}

/// <summary>Something to look at before printing, with its place.</summary>
/// <param name="Kind">What.</param>
/// <param name="Start">Where in the words it begins.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Found">The words themselves.</param>
/// <param name="Says">What is wrong, in words.</param>
/// <param name="Mend">What to put there instead; null when only the keeper can know.</param>
public sealed record WordFinding(WordFindingKind Kind, int Start, int Length, string Found, string Says, string? Mend);

/// <summary>
/// Reads words against the days and the names they belong to. Common practice of looking over before printing.
/// </summary>
public static partial class WordChecks
{
    private static readonly string[] Weekdays =
    [
        "Monday",
        "Tuesday",
        "Wednesday",
        "Thursday",
        "Friday",
        "Saturday",
        "Sunday",
    ];

    private static readonly string[] Months =
    [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ];

    /// <summary>
    /// The days that the words of a card are about: those of its story, whose words flow over several cards; else its
    /// own day; else all of its week or day. A weekday that is none of them is worth a look [practice].
    /// </summary>
    /// <param name="story">The days of its story; empty when it has none, or tells of a theme.</param>
    public static IReadOnlyList<LocalDate> DaysOf(
        LocalDate? card,
        IReadOnlyList<LocalDate> story,
        LocalDate first,
        LocalDate last
    )
    {
        ArgumentNullException.ThrowIfNull(story);
        return story.Count > 0 ? [.. story.Order()]
            : card is { } day ? [day]
            : [.. Enumerable.Range(0, Period.DaysBetween(first, last) + 1).Select(first.PlusDays)];
    }

    /// <summary>Doubled blanks, weekdays and dates against the days, and names against those the album knows.</summary>
    public static ImmutableArray<WordFinding> Of(
        string words,
        IReadOnlyList<LocalDate> days,
        IReadOnlyList<string> names,
        DateOrder order = DateOrder.DayMonth
    )
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(names);
        return [.. Blanks(words).Concat(Dates(words, days, order)).Concat(Names(words, names)).OrderBy(f => f.Start)];
    }

    /// <summary>
    /// Whether a word is written in Latin letters only (Basic Latin to Latin Extended-B and Latin Extended Additional):
    /// an English dictionary has nothing to say about others.
    /// </summary>
    public static bool IsLatin(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        return word.All(c => !char.IsLetter(c) || c is < '\u0250' or (>= '\u1E00' and <= '\u1EFF'));
    }

    /// <summary>
    /// The words with a finding mended. Throws <see cref="RuleException"/> when the words have changed since.
    /// </summary>
    public static string Mended(string words, WordFinding finding)
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(finding);
        return
            finding.Mend is not null
            && finding.Start + finding.Length <= words.Length
            && words.Substring(finding.Start, finding.Length) == finding.Found
            ? string.Concat(words.AsSpan(0, finding.Start), finding.Mend, words.AsSpan(finding.Start + finding.Length))
            : throw new RuleException(
                "The words have changed since they were looked over. Nothing was changed: look again."
            );
    }

    private static IEnumerable<WordFinding> Blanks(string words)
    {
        foreach (Match match in BlankLines().Matches(words))
        {
            yield return new WordFinding(
                WordFindingKind.BlankLines,
                match.Index,
                match.Length,
                match.Value,
                "Two blank lines in a row.",
                "\n\n"
            );
        }

        foreach (Match match in DoubleSpaces().Matches(words))
        {
            yield return new WordFinding(
                WordFindingKind.DoubleSpace,
                match.Index,
                match.Length,
                match.Value,
                "Two spaces in a row.",
                " "
            );
        }
    }

    private static IEnumerable<WordFinding> Dates(string words, IReadOnlyList<LocalDate> days, DateOrder order)
    {
        if (days.Count == 0)
        {
            yield break;
        }

        var dated = DayAndMonth().Matches(words);
        foreach (
            var match in WeekdayWord()
                .Matches(words)
                .Where(w => !dated.Any(d => d.Index <= w.Index && w.Index < d.Index + d.Length))
        )
        {
            var weekday = (IsoDayOfWeek)(Array.IndexOf(Weekdays, match.Value) + 1);
            // “The Saturday before”, “next Monday” speak of other days than the pictures'.
            if (!days.Any(d => d.DayOfWeek == weekday) && !OtherDay().IsMatch(JustBefore(words, match.Index)))
            {
                yield return new WordFinding(
                    WordFindingKind.WrongWeekday,
                    match.Index,
                    match.Length,
                    match.Value,
                    $"{match.Value} is none of its days: {Named(days, order)}.",
                    days.Count == 1 ? days[0].DayOfWeek.ToString() : null
                );
            }
        }

        foreach (Match match in dated)
        {
            var month = Array.FindIndex(Months, m => m == match.Groups["month"].Value) + 1;
            var day = int.Parse(match.Groups["day"].Value, System.Globalization.CultureInfo.InvariantCulture);
            var year = match.Groups["year"] is { Success: true } y
                ? int.Parse(y.Value, System.Globalization.CultureInfo.InvariantCulture)
                : days[0].Year;
            if (day < 1 || day > CalendarSystem.Iso.GetDaysInMonth(year, month))
            {
                yield return new WordFinding(
                    WordFindingKind.WrongDate,
                    match.Index,
                    match.Length,
                    match.Value,
                    $"There is no {match.Value}.",
                    null
                );
                continue;
            }

            var date = new LocalDate(year, month, day);
            if (match.Groups["weekday"] is { Success: true } weekday && date.DayOfWeek.ToString() != weekday.Value)
            {
                yield return new WordFinding(
                    WordFindingKind.WeekdayOfDate,
                    weekday.Index,
                    weekday.Length,
                    weekday.Value,
                    $"{Plain(date, order)} {year} is a {date.DayOfWeek}.",
                    date.DayOfWeek.ToString()
                );
            }
            else if (!days.Contains(date))
            {
                yield return new WordFinding(
                    WordFindingKind.WrongDate,
                    match.Index,
                    match.Length,
                    match.Value,
                    $"{Plain(date, order)} is none of its days: {Named(days, order)}.",
                    null
                );
            }
        }
    }

    private static IEnumerable<WordFinding> Names(string words, IReadOnlyList<string> names)
    {
        // A possessive is the same name.
        var known = names.SelectMany(n => n.Split(' ')).Where(n => n.Length >= 4).Distinct().ToList();
        foreach (Match match in CapitalWord().Matches(words))
        {
            if (known.Contains(match.Value) || Weekdays.Contains(match.Value) || Months.Contains(match.Value))
            {
                continue;
            }

            var near = known.Where(n => OneLetterApart(n, match.Value)).ToList();
            if (near.Count == 1)
            {
                yield return new WordFinding(
                    WordFindingKind.NameSpeltTwoWays,
                    match.Index,
                    match.Length,
                    match.Value,
                    $"Elsewhere the album spells it {near[0]}.",
                    near[0]
                );
            }
        }
    }

    /// <summary>Whether two words differ by one letter changed, added, left out, or two neighbours swapped.</summary>
    internal static bool OneLetterApart(string a, string b)
    {
        if (a == b || Math.Abs(a.Length - b.Length) > 1)
        {
            return false;
        }

        var from = 0;
        while (from < a.Length && from < b.Length && a[from] == b[from])
        {
            from++;
        }

        var (endA, endB) = (a.Length, b.Length);
        while (endA > from && endB > from && a[endA - 1] == b[endB - 1])
        {
            (endA, endB) = (endA - 1, endB - 1);
        }

        var (restA, restB) = (endA - from, endB - from);
        return (restA <= 1 && restB <= 1)
            || (restA == 2 && restB == 2 && a[from] == b[from + 1] && a[from + 1] == b[from]);
    }

    private static string Plain(LocalDate date, DateOrder order) =>
        order == DateOrder.MonthDay ? $"{Months[date.Month - 1]} {date.Day}" : $"{date.Day} {Months[date.Month - 1]}";

    /// <summary>Days in the album's order of day and month; single ones as long as there are few.</summary>
    private static string Named(IReadOnlyList<LocalDate> days, DateOrder order) =>
        days.Count == 1 ? SpanLabel.Day(days[0], order)
        : Period.DaysBetween(days[0], days[^1]) == days.Count - 1
            ? $"{SpanLabel.Day(days[0], order)} to {SpanLabel.Day(days[^1], order)}"
        : string.Join(", ", days.Select(d => SpanLabel.Day(d, order)));

    [GeneratedRegex(@"\n(?:[ \t]*\n){2,}")]
    private static partial Regex BlankLines();

    [GeneratedRegex(@"(?<=\S) {2,}(?=\S)")]
    private static partial Regex DoubleSpaces();

    [GeneratedRegex(@"\b(Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday)\b")]
    private static partial Regex WeekdayWord();

    /// <summary>The few words before a place: more would be read again for each weekday of a long text.</summary>
    private static ReadOnlySpan<char> JustBefore(string words, int at) =>
        words.AsSpan(Math.Max(0, at - 30), Math.Min(at, 30));

    [GeneratedRegex(@"\b(next|last|every|each|the following|the other|a)\s+$", RegexOptions.IgnoreCase)]
    private static partial Regex OtherDay();

    private const string MonthNames =
        "January|February|March|April|May|June|July|August|September|October|November|December";

    [GeneratedRegex(
        @"(?:\b(?<weekday>Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday),?\s+(?:the\s+)?)?"
            + @"(?:\b(?<day>[0-9]{1,2})(?:st|nd|rd|th)?\s+(?:of\s+)?(?<month>"
            + MonthNames
            + @")|\b(?<month>"
            + MonthNames
            + @")\s+(?<day>[0-9]{1,2})(?:st|nd|rd|th)?\b)(?:,?\s+(?<year>(?:19|20)[0-9]{2})\b)?"
    )]
    private static partial Regex DayAndMonth();

    [GeneratedRegex(@"\b\p{Lu}\p{Ll}{3,}\b")]
    private static partial Regex CapitalWord();
}
