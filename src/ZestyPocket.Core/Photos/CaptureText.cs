using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>A moment as a file's metadata states it.</summary>
/// <param name="Local">The camera's own clock.</param>
/// <param name="OffsetMinutes">East of UTC, when it is stated with the time.</param>
public sealed record StatedTime(LocalDateTime Local, int? OffsetMinutes);

/// <summary>
/// Reads times, zones and positions as cameras and programs write them into files. Exif says <c>yyyy:MM:dd HH:mm:ss</c>
/// (source: Exif 2.32, 4.6.5); scanners, phones and editors also write strokes, dots, colons between date and time, ISO
/// 8601, fractions and zones (common practice). Day before month is read only with dots, where nothing else is meant.
/// </summary>
public static partial class CaptureText
{
    private const int LongestText = 64;

    /// <summary>
    /// The year of the oldest photograph that is kept (from memory); earlier ones are slips of a clock.
    /// </summary>
    private const int FirstYear = 1826;

    private const int LastYear = 2199;

    /// <summary>A time, or null when the text is none, such as <c>0000:00:00 00:00:00</c>.</summary>
    public static StatedTime? Time(string? text)
    {
        if (Match(TimePattern(), text) is not { } match)
        {
            return null;
        }

        var (year, month, day) = (Number("y"), Number("m"), Number("d"));
        var (hour, minute, second) = (Number("h"), Number("n"), match.Groups["s"].Success ? Number("s") : 0);
        if (
            year is < FirstYear or > LastYear
            || month is < 1 or > 12
            || day < 1
            || day > CalendarSystem.Iso.GetDaysInMonth(year, month)
            || hour > 23
            || minute > 59
            || second > 59
        )
        {
            return null;
        }

        var local = new LocalDateTime(year, month, day, hour, minute, second).Plus(Fraction(match.Groups["f"].Value));
        return new StatedTime(local, Offset(match.Groups["zone"].Value));

        int Number(string group) => int.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture);
    }

    /// <summary>
    /// A part of a second by its digits behind the point, such as <c>25</c> for a quarter (source: Exif 2.32,
    /// SubSecTime), to the millisecond; none when it is no number.
    /// </summary>
    public static Period Fraction(string? digits)
    {
        var clean = Trimmed(digits);
        return clean is { Length: > 0 and <= 9 } && clean.All(char.IsAsciiDigit)
            ? Period.FromMilliseconds(int.Parse(clean.PadRight(3, '0')[..3], CultureInfo.InvariantCulture))
            : Period.Zero;
    }

    /// <summary>
    /// A zone such as <c>+02:00</c>, <c>-0330</c> or <c>Z</c>, in minutes east of UTC; null when it is none.
    /// </summary>
    public static int? Offset(string? text)
    {
        if (Trimmed(text) is "Z" or "z")
        {
            return 0;
        }

        if (Match(OffsetPattern(), text) is not { } match)
        {
            return null;
        }

        var minutes =
            (int.Parse(match.Groups["h"].ValueSpan, CultureInfo.InvariantCulture) * 60)
            + (match.Groups["n"].Success ? int.Parse(match.Groups["n"].ValueSpan, CultureInfo.InvariantCulture) : 0);
        var signed = match.Groups["sign"].Value == "-" ? -minutes : minutes;
        // The world's zones run from -12:00 to +14:00.
        return signed is >= -12 * 60 and <= 14 * 60 ? signed : null;
    }

    /// <summary>
    /// One side of a position in degrees: a number, or degrees, minutes and perhaps seconds with a letter, as XMP
    /// (<c>48,12.5N</c>) and people (<c>48° 12' 30" N</c>) write it. Null when it is none or beyond
    /// <paramref name="most"/>.
    /// </summary>
    public static double? Degrees(string? text, string? direction, double most)
    {
        if (Match(DegreesPattern(), text) is not { } match)
        {
            return null;
        }

        var letter = match.Groups["letter"].Success ? match.Groups["letter"].Value : Trimmed(direction) ?? string.Empty;
        var value = Number("d") + (Number("m") / 60) + (Number("s") / 3600);
        var negative = match.Groups["sign"].Value == "-" || letter is ['S' or 's' or 'W' or 'w', ..];
        return value <= most
            ? negative
                ? -value
                : value
            : null;

        double Number(string group) =>
            match.Groups[group].Success ? double.Parse(match.Groups[group].ValueSpan, CultureInfo.InvariantCulture) : 0;
    }

    /// <summary>Texts of files end with zeros and blanks as often as not.</summary>
    private static string? Trimmed(string? text) => text?.Trim().Trim('\0').Trim();

    private static Match? Match(Regex pattern, string? text) =>
        Trimmed(text) is { Length: > 0 and <= LongestText } trimmed && pattern.Match(trimmed) is { Success: true } match
            ? match
            : null;

    [GeneratedRegex(
        @"^(?:(?<y>[0-9]{4})(?<sep>[:/. -])(?<m>[0-9]{1,2})\k<sep>(?<d>[0-9]{1,2})"
            + @"|(?<d>[0-9]{1,2})\.(?<m>[0-9]{1,2})\.(?<y>[0-9]{4}))"
            + @"(?:[ T]{1,2}|:)(?<h>[0-9]{1,2})[:.](?<n>[0-9]{2})(?:[:.](?<s>[0-9]{2}))?(?:[.,:](?<f>[0-9]{1,9}))?"
            + @"\s?(?<zone>[Zz]|[+-][0-9]{2}:?[0-9]{2})?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex TimePattern();

    [GeneratedRegex(
        @"^(?:UTC|GMT)?(?<sign>[+-])(?<h>[0-9]{1,2})(?::?(?<n>[0-5][0-9]))?(?::[0-9]{2})?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex OffsetPattern();

    [GeneratedRegex(
        @"^(?<sign>[+-])?(?<d>[0-9]{1,3}(?:\.[0-9]{1,12})?)"
            + @"(?:(?:\s*(?:°|deg|,|\s)\s*)(?<m>[0-9]{1,2}(?:\.[0-9]{1,12})?)"
            + @"(?:(?:\s*(?:'|′|,|\s)\s*)(?<s>[0-9]{1,2}(?:\.[0-9]{1,12})?))?)?"
            + @"\s*(?:""|″|'|′|°)?\s*(?<letter>[NSEWnsew])?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex DegreesPattern();
}
