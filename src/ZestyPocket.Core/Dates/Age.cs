using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>How old somebody is on a day.</summary>
public static class Age
{
    /// <summary>
    /// The printed age: weeks up to 12 weeks, months under two years, else years; null before the birth. Somebody born
    /// on 29 February is a year older on 1 March of a common year. Common practice.
    /// </summary>
    public static string? On(LocalDate born, LocalDate day)
    {
        if (day < born)
        {
            return null;
        }

        var days = Period.DaysBetween(born, day);
        var months = Months(born, day);
        return (days, months) switch
        {
            (0, _) => "born today",
            (< 7, _) => $"{days} {(days == 1 ? "day" : "days")}",
            (< 84, _) => $"{days / 7} {(days < 14 ? "week" : "weeks")}",
            (_, < 24) => $"{months} months",
            _ => $"{Years(born, day)}",
        };
    }

    /// <summary>Whole years.</summary>
    public static int Years(LocalDate born, LocalDate day) =>
        day.Year - born.Year - ((day.Month, day.Day).CompareTo((born.Month, born.Day)) < 0 ? 1 : 0);

    private static int Months(LocalDate born, LocalDate day) =>
        ((day.Year - born.Year) * 12) + day.Month - born.Month - (day.Day < born.Day ? 1 : 0);
}
