using NodaTime;
using NodaTime.Calendars;

namespace ZestyPocket.Core.Dates;

/// <summary>How an album counts its weeks.</summary>
public enum WeekScheme
{
    /// <summary>ISO 8601: Monday first, week 1 holds the year's first Thursday.</summary>
    Iso,

    /// <summary>Sunday first, 1 January is always in week 1. Common practice.</summary>
    SundayFirst,

    /// <summary>Counted from the album's own first day, whatever weekday it is. Common practice.</summary>
    FromFirstDay,
}

/// <summary>A week of an album: its number, the year the number counts in, and its seven days.</summary>
/// <param name="Year">The week-numbering year, which may differ from the calendar year at its edges.</param>
/// <param name="Number">From 1; up to 53, or beyond when weeks are counted from the album's first day.</param>
/// <param name="First">The first of its seven days.</param>
public readonly record struct Week(int Year, int Number, LocalDate First)
{
    public LocalDate Last => First.PlusDays(6);
}

/// <summary>A way of counting weeks, complete with the day it starts from.</summary>
/// <param name="Scheme">The scheme.</param>
/// <param name="AlbumFirstDay">
/// Where <see cref="WeekScheme.FromFirstDay"/> counts from; the others do not use it.
/// </param>
public sealed record WeekCalendar(WeekScheme Scheme, LocalDate AlbumFirstDay)
{
    private static readonly IWeekYearRule SundayRule = WeekYearRules.ForMinDaysInFirstWeek(1, IsoDayOfWeek.Sunday);

    public static WeekCalendar Iso { get; } = new(WeekScheme.Iso, default);

    /// <summary>
    /// The week that holds a day. Counted from the album's first day, days before it fall into weeks 0, −1 and so on.
    /// </summary>
    public Week Holding(LocalDate day)
    {
        if (Scheme == WeekScheme.FromFirstDay)
        {
            var days = Period.DaysBetween(AlbumFirstDay, day);
            var weeks = (int)Math.Floor(days / 7.0);
            return new Week(AlbumFirstDay.Year, weeks + 1, AlbumFirstDay.PlusDays(7 * weeks));
        }

        var (rule, start) =
            Scheme == WeekScheme.Iso ? (WeekYearRules.Iso, IsoDayOfWeek.Monday) : (SundayRule, IsoDayOfWeek.Sunday);
        // Week 1 of a Sunday year may begin in December before, so the day itself says where its week begins.
        var first = day.PlusDays(-((((int)day.DayOfWeek - (int)start) + 7) % 7));
        return new Week(rule.GetWeekYear(day), rule.GetWeekOfWeekYear(day), first);
    }

    /// <summary>The weeks from the one that holds <paramref name="firstDay"/>, as many as asked for.</summary>
    public IReadOnlyList<Week> Run(LocalDate firstDay, int count)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(count);
        var first = Holding(firstDay).First;
        return [.. Enumerable.Range(0, count).Select(i => Holding(first.PlusWeeks(i)))];
    }

    /// <summary>How many ISO weeks a week-numbering year has: 52 or 53.</summary>
    public static int IsoWeeksIn(int year) => WeekYearRules.Iso.GetWeeksInWeekYear(year);
}
