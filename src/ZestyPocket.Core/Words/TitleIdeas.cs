using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Words;

/// <summary>Titles that a part of an album could have, from its dates and places.</summary>
public static class TitleIdeas
{
    /// <summary>From the most telling to the shortest, without repeats.</summary>
    public static IReadOnlyList<string> Of(UnitDates unit, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(unit);
        ArgumentNullException.ThrowIfNull(calendar);
        List<string?> ideas =
        [
            unit.Name,
            .. calendar
                .Stays.Where(s => s.From.Date <= unit.Last && (s.Until is not { } until || until.Date >= unit.First))
                .Select(s => s.Place),
            unit.Title(calendar.Style),
            unit.Span(calendar.Style),
            Month(unit.First, "MMMM uuuu"),
            Month(unit.First, "MMMM"),
            Month(unit.First, "MMM"),
            unit.Numbers,
            unit.First == unit.Last ? unit.First.DayOfWeek.ToString() : null,
        ];
        return [.. ideas.OfType<string>().Where(t => t.Trim().Length > 0).Distinct()];
    }

    private static string Month(LocalDate day, string pattern) => day.ToString(pattern, CultureInfo.InvariantCulture);
}
