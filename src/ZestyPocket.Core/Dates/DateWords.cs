using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// Reads a day as people write it: <c>14 May</c>, <c>May 14, 2026</c>, <c>14.5.</c>, <c>2026-05-14</c>.
/// </summary>
public static partial class DateWords
{
    /// <summary>Months are known by their first three letters.</summary>
    private const int MonthLetters = 3;

    private static readonly string[] Months =
    [
        .. CultureInfo.InvariantCulture.DateTimeFormat.MonthNames.Take(12).Select(m => m.ToLowerInvariant()),
    ];

    /// <summary>
    /// The days from <paramref name="first"/> to <paramref name="last"/> that the words may mean, in order: one of each
    /// year when they name none. Empty when they are no date or name a day outside.
    /// </summary>
    /// <param name="order">Which of two numbers such as 5/4 is the month.</param>
    public static ImmutableArray<LocalDate> Read(string words, DateOrder order, LocalDate first, LocalDate last)
    {
        ArgumentNullException.ThrowIfNull(words);
        return Parts(words.Trim().ToLowerInvariant(), order) is not var (year, month, day)
            ? []
            :
            [
                .. Years(year, first, last)
                    .Where(y =>
                        month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(y, month)
                    )
                    .Select(y => new LocalDate(y, month, day))
                    .Where(d => d >= first && d <= last),
            ];
    }

    private static IEnumerable<int> Years(int? year, LocalDate first, LocalDate last) =>
        year is { } y
            ? y >= first.Year && y <= last.Year
                ? [y]
                : []
            : Enumerable.Range(first.Year, Math.Max(0, last.Year - first.Year + 1));

    private static (int? Year, int Month, int Day)? Parts(string words, DateOrder order)
    {
        if (YearFirst().Match(words) is { Success: true } iso)
        {
            return (Number(iso, "year"), Number(iso, "month")!.Value, Number(iso, "day")!.Value);
        }

        if (TwoNumbers().Match(words) is { Success: true } two)
        {
            var (a, b) = (Number(two, "a")!.Value, Number(two, "b")!.Value);
            // Dots put the day first wherever they are used; strokes follow the album.
            var monthFirst = two.Groups["sign"].Value == "/" && order == DateOrder.MonthDay;
            return (Number(two, "year"), monthFirst ? a : b, monthFirst ? b : a);
        }

        var match = DayThenMonth().Match(words) is { Success: true } d ? d : MonthThenDay().Match(words);
        return match.Success && MonthOf(match.Groups["name"].Value) is { } month
            ? (Number(match, "year"), month, Number(match, "day")!.Value)
            : null;
    }

    private static int? MonthOf(string name)
    {
        var at =
            name.Length < MonthLetters
                ? -1
                : Array.FindIndex(Months, m => m.StartsWith(name, StringComparison.Ordinal));
        return at < 0 ? null : at + 1;
    }

    private static int? Number(Match match, string group) =>
        match.Groups[group] is { Success: true } g ? int.Parse(g.ValueSpan, CultureInfo.InvariantCulture) : null;

    [GeneratedRegex(@"^(?<year>[0-9]{4})-(?<month>[0-9]{1,2})-(?<day>[0-9]{1,2})$")]
    private static partial Regex YearFirst();

    [GeneratedRegex(@"^(?<a>[0-9]{1,2})\s*(?<sign>[./])\s*(?<b>[0-9]{1,2})(?:\s*[./]\s*(?<year>[0-9]{4})?)?$")]
    private static partial Regex TwoNumbers();

    [GeneratedRegex(
        @"^(?<day>[0-9]{1,2})(?:st|nd|rd|th)?\.?\s*(?:of\s+)?(?<name>[a-z]+)\.?,?(?:\s+(?<year>[0-9]{4}))?$"
    )]
    private static partial Regex DayThenMonth();

    [GeneratedRegex(@"^(?<name>[a-z]+)\.?\s*(?<day>[0-9]{1,2})(?:st|nd|rd|th)?(?:,?\s+(?<year>[0-9]{4}))?$")]
    private static partial Regex MonthThenDay();
}
