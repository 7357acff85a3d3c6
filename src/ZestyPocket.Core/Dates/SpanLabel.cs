using System.Globalization;
using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// Printed dates. Inside a month the month is printed once, across months twice, across years both years are printed.
/// Common practice.
/// </summary>
public static class SpanLabel
{
    /// <summary>
    /// Such as <c>17–23 February 2020</c>, <c>27 February – 5 March 2023</c>, <c>29 December 2025 – 4 January 2026</c>;
    /// month first: <c>February 17–23, 2020</c>, <c>February 27 – March 5, 2023</c>, <c>December 29, 2025 – January 4,
    /// 2026</c>.
    /// </summary>
    public static string Of(LocalDate first, LocalDate last, DateOrder order = DateOrder.DayMonth)
    {
        var monthFirst = order == DateOrder.MonthDay;
        if (first == last)
        {
            return WithYear(first);
        }

        if (first.Year != last.Year)
        {
            return $"{WithYear(first)} – {WithYear(last)}";
        }

        if (first.Month != last.Month)
        {
            return monthFirst
                ? $"{NoYear(first)} – {NoYear(last)}, {last.Year}"
                : $"{NoYear(first)} – {NoYear(last)} {last.Year}";
        }

        return monthFirst
            ? $"{Month(first)} {first.Day}–{last.Day}, {first.Year}"
            : $"{first.Day}–{last.Day} {Month(first)} {first.Year}";

        string NoYear(LocalDate day) => monthFirst ? $"{Month(day)} {day.Day}" : $"{day.Day} {Month(day)}";
        string WithYear(LocalDate day) => monthFirst ? $"{NoYear(day)}, {day.Year}" : $"{NoYear(day)} {day.Year}";
    }

    /// <summary>Such as <c>Thu 20 Feb</c>, month first <c>Thu Feb 20</c>.</summary>
    public static string Day(LocalDate day, DateOrder order = DateOrder.DayMonth) =>
        day.ToString(order == DateOrder.MonthDay ? "ddd MMM d" : "ddd d MMM", CultureInfo.InvariantCulture);

    /// <summary>Such as <c>Sunday</c>.</summary>
    public static string Weekday(LocalDate day) => day.DayOfWeek.ToString();

    /// <summary>
    /// An hour of a documented day, such as <c>07:00</c> or <c>7 a.m.</c>; hours from 24 on are the small hours of the
    /// same night. Noon is 12 p.m. and midnight 12 a.m., as is common practice.
    /// </summary>
    public static string Hour(int hour, HourClock clock)
    {
        var h = ((hour % 24) + 24) % 24;
        return clock == HourClock.TwentyFour
            ? string.Create(CultureInfo.InvariantCulture, $"{h:00}:00")
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{(h % 12 == 0 ? 12 : h % 12)} {(h < 12 ? "a.m." : "p.m.")}"
            );
    }

    /// <summary>A time of day, such as <c>19:05</c> or <c>7:05 p.m.</c></summary>
    public static string Time(LocalTime time, HourClock clock) =>
        clock == HourClock.TwentyFour
            ? time.ToString("HH:mm", CultureInfo.InvariantCulture)
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{(time.Hour % 12 == 0 ? 12 : time.Hour % 12)}:{time.Minute:00} {(time.Hour < 12 ? "a.m." : "p.m.")}"
            );

    private static string Month(LocalDate day) => day.ToString("MMMM", CultureInfo.InvariantCulture);
}
