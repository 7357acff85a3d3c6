using System.Globalization;
using System.Text.RegularExpressions;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Server.Shared;
using Calendar = Ical.Net.Calendar;
using Period = NodaTime.Period;

namespace ZestyPocket.Server.Dates;

/// <summary>What a calendar file holds between two days.</summary>
/// <param name="Days">Its events, repeating ones day by day.</param>
/// <param name="Passed">Events that were passed over, each with the reason.</param>
public sealed record CalendarDays(IReadOnlyList<DayEvent> Days, IReadOnlyList<string> Passed);

/// <summary>
/// Reads iCalendar. Source: RFC 5545. A rule that repeats for ever, or would take longer to work out than anybody
/// waits, is looked at before it is worked out; one odd event never holds up the others.
/// </summary>
public static partial class CalendarFile
{
    /// <summary>Most repetitions that are counted through for one event: every day for 500 years has fewer.</summary>
    public const int MostRepetitions = 200_000;

    /// <summary>Most days that events of one file take in the album.</summary>
    public const int MostDays = 20_000;

    /// <summary>
    /// A rule that finds no day in so many periods never will: a 29 February has 2,921 days to the next.
    /// </summary>
    private const int LongestWithoutMatch = 4_000;

    /// <summary>
    /// The events between two days, each by the clock of its own zone. Throws <see cref="RuleException"/> for a file
    /// that is no calendar or is over a limit.
    /// </summary>
    public static CalendarDays Read(string file, LocalDate first, LocalDate last, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(file);
        var reading = new ForeignReading("This calendar", cancel);
        var events = EventStart().Count(file);
        if (events > ForeignReading.MostEvents)
        {
            throw reading.Refuse($"has {events:N0} events; {ForeignReading.MostEvents:N0} at most can be read");
        }

        var (days, passed) = (new List<DayEvent>(), new List<string>());
        foreach (
            var item in Parse(file).Events.Where(e => e.Start is not null && !string.IsNullOrWhiteSpace(e.Summary))
        )
        {
            reading.Check();
            if (Trouble(item, last) is { } trouble)
            {
                passed.Add($"{Short(item.Summary!.Trim(), 80)}: {trouble}");
                continue;
            }

            try
            {
                days.AddRange(Days(item, first, last, reading));
            }
            catch (Exception odd)
                when (odd
                        is ArgumentException
                            or InvalidOperationException
                            or EvaluationException
                            or OverflowException
                            or FormatException
                )
            {
                // The library throws whatever it stumbles over; the other events are no worse for it.
                passed.Add($"{Short(item.Summary!.Trim(), 80)}: its dates cannot be worked out");
            }

            if (days.Count > MostDays)
            {
                throw reading.Refuse($"has events on more than {MostDays:N0} days");
            }
        }

        return new CalendarDays(days, passed);
    }

    private static Calendar Parse(string file)
    {
        try
        {
            if (
                file.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase)
                && Calendar.Load(WithKnownZones(file)) is { } calendar
            )
            {
                return calendar;
            }
        }
        catch (Exception broken) when (broken is not OutOfMemoryException)
        {
            // The parser throws whatever it stumbles over; the refusal below is the answer.
        }

        throw new RuleException(
            "This is not a calendar file, or it is damaged. Export the calendar as .ics again. Nothing was changed."
        );
    }

    /// <summary>
    /// Zones that only the file itself describes are dropped from its times: a note takes the hour that the event's own
    /// clock shows, which is what is written there.
    /// </summary>
    private static string WithKnownZones(string file) =>
        ZoneName()
            .Replace(
                Folded().Replace(file, string.Empty),
                zone =>
                    DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone.Groups["name"].Value) is null
                        ? string.Empty
                        : zone.Value
            );

    /// <summary>Why an event is passed over without working out its days; null when it can be.</summary>
    private static string? Trouble(CalendarEvent item, LocalDate last)
    {
        if (item.Start!.Year is < 1800 or > 2200)
        {
            return $"it begins in the year {item.Start.Year}; 1800 to 2200 can be read";
        }

        if (item.Properties.ContainsKey("EXRULE"))
        {
            return "it has an exception rule (EXRULE), which the standard gave up; export it with exception dates";
        }

        if (item.Properties.AllOf("RRULE").Count() > 1)
        {
            return "it repeats by more than one rule, which the standard gave up; export it as several events";
        }

        return item.RecurrenceRule is not { } rule ? null
            : rule.Frequency is FrequencyType.Secondly or FrequencyType.Minutely or FrequencyType.Hourly
                ? "it repeats more than once a day, which no note of a day can show"
            : Repetitions(rule, item.Start, last) > MostRepetitions ? $"it repeats more than {MostRepetitions:N0} times"
            : null;
    }

    /// <summary>
    /// About how often a rule comes between an event's begin and a day: its periods, times what each is spread to.
    /// </summary>
    private static double Repetitions(RecurrenceRule rule, CalDateTime start, LocalDate last)
    {
        var days = Math.Max(0, Period.DaysBetween(new LocalDate(start.Year, start.Month, start.Day), last));
        var perPeriod = rule.Frequency switch
        {
            FrequencyType.Weekly => 7,
            FrequencyType.Monthly => 28,
            FrequencyType.Yearly => 365,
            _ => 1,
        };
        var spread =
            rule.ByDay.Count + rule.ByMonthDay.Count + rule.ByYearDay.Count + rule.ByWeekNo.Count > 0 ? perPeriod : 1;
        return ((double)days / perPeriod / Math.Max(1, rule.Interval) + 1)
            * spread
            * Math.Max(1, rule.ByHour.Count)
            * Math.Max(1, rule.ByMinute.Count)
            * Math.Max(1, rule.BySecond.Count);
    }

    private static IEnumerable<DayEvent> Days(
        CalendarEvent item,
        LocalDate first,
        LocalDate last,
        ForeignReading reading
    )
    {
        var options = new EvaluationOptions { MaxUnmatchedIncrementsLimit = LongestWithoutMatch };
        // An event that began before and lasts counts from the first day on.
        foreach (var occurrence in item.GetOccurrences(new CalDateTime(first.Year, first.Month, first.Day), options))
        {
            reading.Check();
            var start = occurrence.Period.StartTime;
            var day = new LocalDate(start.Year, start.Month, start.Day);
            if (day > last)
            {
                yield break;
            }

            if (day >= first)
            {
                var place = string.IsNullOrWhiteSpace(item.Location) ? string.Empty : $", {item.Location.Trim()}";
                yield return new DayEvent(
                    day,
                    start.HasTime ? new LocalTime(start.Hour, start.Minute) : null,
                    Short(item.Summary!.Trim() + place, 500),
                    Short($"{item.Uid}/{day.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}", 400)
                );
            }
        }
    }

    /// <summary>Without signs that no note can hold, and never cut between the two halves of one character.</summary>
    private static string Short(string text, int most)
    {
        var clean = text.Any(c => char.IsControl(c) && c != '\n')
            ? string.Concat(text.Where(c => !char.IsControl(c) || c == '\n'))
            : text;
        return clean.Length <= most ? clean : clean[..(char.IsHighSurrogate(clean[most - 1]) ? most - 1 : most)];
    }

    [GeneratedRegex("^BEGIN:VEVENT", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex EventStart();

    /// <summary>A line that goes on in the next one. Source: RFC 5545, 3.1.</summary>
    [GeneratedRegex(@"\r?\n[ \t]")]
    private static partial Regex Folded();

    [GeneratedRegex(";TZID=\"?(?<name>[^\":;\r\n]{1,200})\"?", RegexOptions.IgnoreCase)]
    private static partial Regex ZoneName();
}
