using NodaTime;
using NodaTime.Calendars;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// A week of an album: its number, the year the number counts in, and its seven days.
/// Weeks follow ISO 8601: Monday first, and week 1 holds the year's first Thursday.
/// </summary>
/// <param name="Year">The week-numbering year, which may differ from the calendar year at its edges.</param>
/// <param name="Number">1 to 53.</param>
/// <param name="First">Monday.</param>
public readonly record struct Week(int Year, int Number, LocalDate First)
{
    public LocalDate Last => First.PlusDays(6);

    public Week Next => Holding(First.PlusWeeks(1));

    /// <summary>The ISO week that holds a day.</summary>
    public static Week Holding(LocalDate day)
    {
        var rule = WeekYearRules.Iso;
        var year = rule.GetWeekYear(day);
        var number = rule.GetWeekOfWeekYear(day);
        return new Week(year, number, rule.GetLocalDate(year, number, IsoDayOfWeek.Monday));
    }

    /// <summary>How many ISO weeks a week-numbering year has: 52 or 53.</summary>
    public static int CountIn(int year) => WeekYearRules.Iso.GetWeeksInWeekYear(year);

    /// <summary>
    /// The weeks from the one that holds <paramref name="firstDay"/>, as many as asked for (1 to 530).
    /// </summary>
    public static IReadOnlyList<Week> Run(LocalDate firstDay, int count)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(count);
        var weeks = new List<Week>(count);
        for (var week = Holding(firstDay); weeks.Count < count; week = week.Next)
        {
            weeks.Add(week);
        }

        return weeks;
    }
}
