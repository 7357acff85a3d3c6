using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Words;

/// <summary>Weather of a day at a place.</summary>
/// <param name="LowCelsius">Lowest temperature.</param>
/// <param name="HighCelsius">Highest temperature.</param>
/// <param name="Sky">In a word or two.</param>
public sealed record DayWeather(int LowCelsius, int HighCelsius, string Sky);

/// <summary>What is counted for a card of numbers.</summary>
public readonly record struct AlbumNumbers(int Days, int People, int Places, int Pictures, int Words);

/// <summary>Somebody who was there.</summary>
/// <param name="Age">On that day, in words or figures; null when nobody knows the day of birth.</param>
public readonly record struct PersonOnDay(string Name, string? Age);

/// <summary>The words of cards that nobody types: they follow from dates, people, stays and counts.</summary>
public static class ComputedCards
{
    /// <summary>The line printed at the head of a card of a kind; null when it has none.</summary>
    public static string? Heading(CardKind kind) =>
        kind switch
        {
            CardKind.Overheard => "Overheard",
            CardKind.Prompts => "Today I am",
            CardKind.HighsAndLows => "Highs and lows",
            CardKind.Incident => "What went wrong",
            CardKind.Why => "Why this album",
            CardKind.Facts => "The day",
            CardKind.FromTo => "From and to",
            CardKind.Map => "The way",
            CardKind.People => "Who was there",
            CardKind.Numbers => "In numbers",
            _ => null,
        };

    /// <summary>Whether a card's words are computed: what is typed on it is not used.</summary>
    public static bool IsComputed(CardKind kind) =>
        kind
            is CardKind.WeekTitle
                or CardKind.DayTitle
                or CardKind.Countdown
                or CardKind.Facts
                or CardKind.FromTo
                or CardKind.Map
                or CardKind.People
                or CardKind.Numbers
                or CardKind.Calendar
                or CardKind.Divider
                or CardKind.Legend;

    /// <summary>What a new card of a kind starts with, for the keeper to finish.</summary>
    public static string Beginning(CardKind kind) =>
        kind switch
        {
            CardKind.Prompts => "reading \nwearing \nlistening to \neating \nthinking of ",
            CardKind.HighsAndLows => "High: \nLow: ",
            _ => string.Empty,
        };

    /// <summary>
    /// What a card prints where its style has a place for a date or an hour: its own day, else the hour or day of its
    /// unit, else nothing, since a week is no day.
    /// </summary>
    public static string? Mark(UnitDates unit, LocalDate? day, DateStyle style)
    {
        ArgumentNullException.ThrowIfNull(unit);
        return unit.Kind == UnitKind.Hour ? (unit with { Name = null }).Title(style)
            : day is { } own ? SpanLabel.Day(own, style.Order)
            : unit.First == unit.Last ? SpanLabel.Day(unit.First, style.Order)
            : null;
    }

    /// <summary>Everybody with the age on a day; who is not born yet is not there.</summary>
    public static IReadOnlyList<PersonOnDay> PeopleOn(IEnumerable<AlbumPerson> people, LocalDate day)
    {
        ArgumentNullException.ThrowIfNull(people);
        return
        [
            .. people
                .Where(p => p.Born is null || p.Born <= day)
                .Select(p => new PersonOnDay(p.Name, p.Born is { } born ? $"{Age.On(born, day)}" : null)),
        ];
    }

    /// <summary>Everybody with the age on a day, a line for each.</summary>
    public static string People(IEnumerable<AlbumPerson> people, LocalDate day) =>
        string.Join('\n', PeopleOn(people, day).Select(p => p.Age is null ? p.Name : $"{p.Name}, {p.Age}"));

    /// <summary>What a divider before a day says: its number, its date, and where from and where to.</summary>
    public static (string Over, string Large, string Foot) Divider(
        UnitDates unit,
        LocalDate day,
        AlbumCalendar calendar
    )
    {
        ArgumentNullException.ThrowIfNull(unit);
        ArgumentNullException.ThrowIfNull(calendar);
        var way = FromTo(calendar, day, day).Replace("\nTo ", " to ", StringComparison.Ordinal);
        var date = SpanLabel.Day(day, calendar.Style.Order);
        return unit.Kind is UnitKind.TravelDay or UnitKind.NumberedDay
            ? (
                "DAY",
                (unit.FirstNumber + Period.DaysBetween(unit.First, day)).ToString(CultureInfo.InvariantCulture),
                $"{date} · {way}"
            )
            : (
                day.ToString("dddd", CultureInfo.InvariantCulture).ToUpperInvariant(),
                day.Day.ToString(CultureInfo.InvariantCulture),
                $"{day.ToString("MMMM uuuu", CultureInfo.InvariantCulture)} · {way}"
            );
    }

    /// <summary>Counts with their nouns, then further lines; what is nought is left away.</summary>
    public static string Numbers(AlbumNumbers numbers, IEnumerable<string>? further = null) =>
        string.Join(
            '\n',
            new[]
            {
                Count(numbers.Days, "day", "days"),
                Count(numbers.People, "person", "people"),
                Count(numbers.Places, "place", "places"),
                Count(numbers.Pictures, "picture", "pictures"),
                Count(numbers.Words, "word", "words"),
            }
                .OfType<string>()
                .Concat(further ?? [])
        );

    /// <summary>
    /// Where a stretch of days begins and ends: the stay before it, or home, and the last one in it. One line when
    /// nobody moved.
    /// </summary>
    public static string FromTo(AlbumCalendar calendar, LocalDate first, LocalDate last)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var until = calendar.Stays.Where(s => s.From.Date <= last).ToList();
        var before = until.LastOrDefault(s => s.From.Date < first)?.Place ?? "home";
        var to =
            until.Count == 0 ? "home"
            : until[^1].Until is { } left && left.Date <= last && until.Count == calendar.Stays.Length ? "home"
            : until[^1].Place;
        return before == to ? $"At {to}" : $"From {before}\nTo {to}";
    }

    /// <summary>Daylight, in the album's clock, and weather; whatever is not known is left away.</summary>
    public static string Facts(SunTimes? sun, DateTimeZone zone, DateStyle style, DayWeather? weather)
    {
        ArgumentNullException.ThrowIfNull(zone);
        var lines = new List<string>();
        if (weather is not null)
        {
            lines.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{weather.Sky}, {Degrees(weather.LowCelsius)} to {Degrees(weather.HighCelsius)} °C"
                )
            );
        }

        switch (sun)
        {
            case { Rise: { } rise, Set: { } set }:
                lines.Add($"Sun {Clock(rise)} to {Clock(set)}");
                var minutes = (int)Math.Round(sun.Daylight.TotalMinutes);
                lines.Add(
                    string.Create(CultureInfo.InvariantCulture, $"{minutes / 60} h {minutes % 60:00} min of daylight")
                );
                break;
            case { Rise: null, Daylight: var all }:
                lines.Add(all > Duration.Zero ? "The sun does not set" : "The sun does not rise");
                break;
            default:
                break;
        }

        return string.Join('\n', lines);

        string Clock(Instant at) => SpanLabel.Time((at + Duration.FromSeconds(30)).InZone(zone).TimeOfDay, style.Clock);
    }

    /// <summary>
    /// Small line, large line and foot of a countdown card: days until a date, the day itself, days since.
    /// </summary>
    public static (string Over, string Large, string Foot) Countdown(
        LocalDate day,
        LocalDate target,
        string name,
        DateStyle style
    )
    {
        var days = Period.DaysBetween(day, target);
        var foot = string.IsNullOrWhiteSpace(name) ? SpanLabel.Of(target, target, style.Order) : name.Trim();
        return days switch
        {
            0 => ("TODAY", "0", foot),
            > 0 => (days == 1 ? "DAY UNTIL" : "DAYS UNTIL", days.ToString(CultureInfo.InvariantCulture), foot),
            _ => (days == -1 ? "DAY SINCE" : "DAYS SINCE", (-days).ToString(CultureInfo.InvariantCulture), foot),
        };
    }

    private static string Degrees(int celsius) =>
        celsius < 0
            ? string.Create(CultureInfo.InvariantCulture, $"−{-celsius}")
            : celsius.ToString(CultureInfo.InvariantCulture);

    private static string? Count(int number, string one, string many) =>
        number == 0 ? null : string.Create(CultureInfo.InvariantCulture, $"{number:N0} {(number == 1 ? one : many)}");
}
