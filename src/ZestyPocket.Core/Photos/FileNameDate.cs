using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>A date that a file carries in its name.</summary>
/// <param name="Day">The date.</param>
/// <param name="Time">The time of day, when the name has one.</param>
public sealed record NamedDate(LocalDate Day, LocalTime? Time);

/// <summary>
/// Reads dates out of common file names: year, month and day in that order, with or without separators, perhaps
/// followed by a time (four digits alone are a running number, not a time). Orders that can be read in two ways
/// (05062026) are left alone. Common practice.
/// </summary>
public static partial class FileNameDate
{
    /// <summary>Longest name that is looked at, from its end: more than file systems allow.</summary>
    private const int Longest = 255;

    public static NamedDate? Read(string fileName)
    {
        ArgumentNullException.ThrowIfNull(fileName);
        // Bounded by its length, never by a clock: on a busy machine a date is the same date.
        var name = fileName.Length > Longest ? fileName[^Longest..] : fileName;
        foreach (Match match in Pattern().Matches(name))
        {
            var (year, month, day) = (Number(match, "y"), Number(match, "m"), Number(match, "d"));
            if (month is < 1 or > 12 || day < 1 || day > CalendarSystem.Iso.GetDaysInMonth(year, month))
            {
                continue;
            }

            LocalTime? time = match.Groups["h"].Success
                ? new LocalTime(
                    Number(match, "h"),
                    Number(match, "n"),
                    match.Groups["s"].Success ? Number(match, "s") : 0
                )
                : null;
            return new NamedDate(new LocalDate(year, month, day), time);
        }

        return null;
    }

    private static int Number(Match match, string group) =>
        int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(
        @"(?<![0-9])(?<y>(?:19|20)[0-9]{2})(?<sep>[-_. ]?)(?<m>[01][0-9])\k<sep>(?<d>[0-3][0-9])"
            + @"(?:(?:[-_. T]|\s+at\s+|, )*"
            + @"(?:(?<h>[01][0-9]|2[0-3])[-_.:h]?(?<n>[0-5][0-9])[-_.:m]?(?<s>[0-5][0-9])(?:[0-9]{3})?"
            + @"|(?<h>[01][0-9]|2[0-3])[-_.:h](?<n>[0-5][0-9])))?(?![0-9])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Pattern();
}
