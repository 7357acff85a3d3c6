using System.Globalization;
using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// The printed span of days. Inside a month the month is printed once, across months twice, across years both
/// years are printed. Common practice.
/// </summary>
public static class SpanLabel
{
    /// <summary>Such as <c>17–23 February 2020</c>, <c>27 February – 5 March 2023</c>, <c>29 December 2025 – 4 January 2026</c>.</summary>
    public static string Of(LocalDate first, LocalDate last)
    {
        if (first == last)
        {
            return $"{first.Day} {Month(first)} {first.Year}";
        }

        if (first.Year != last.Year)
        {
            return $"{first.Day} {Month(first)} {first.Year} – {last.Day} {Month(last)} {last.Year}";
        }

        return first.Month == last.Month
            ? $"{first.Day}–{last.Day} {Month(first)} {first.Year}"
            : $"{first.Day} {Month(first)} – {last.Day} {Month(last)} {first.Year}";
    }

    /// <summary>Such as <c>Thu 20 Feb</c>.</summary>
    public static string Day(LocalDate day) => day.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    private static string Month(LocalDate day) => day.ToString("MMMM", CultureInfo.InvariantCulture);
}
