using System.Globalization;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Server.Gathering;

/// <summary>An event of a calendar file on one day.</summary>
/// <param name="Source">Its UID with the date, the same each time the file is read.</param>
public sealed record CalendarEventDay(LocalDate Day, LocalTime? Time, string Text, string Source);

/// <summary>iCalendar in and out. Source: RFC 5545.</summary>
public static class EventCalendar
{
    public const int LargestFile = 5 << 20;

    private const int MostEvents = 5_000;

    /// <summary>
    /// The weekly sit-down: one repeating event, in the home zone, from the first such weekday at or after a day, with
    /// an alarm at its beginning.
    /// </summary>
    public static string SitDown(string album, LocalDate from, IsoDayOfWeek weekday, LocalTime time, int minutes, string zone, int weeks, Instant now)
    {
        var first = from.DayOfWeek == weekday ? from : from.Next(weekday);
        var sitDown = new CalendarEvent
        {
            Uid = $"sit-down-{first:uuuuMMdd}-{Key(album)}@zesty-pocket",
            Summary = $"Album evening: {album}",
            Description = "Gather the week's pictures, tell its stories, lay out the spread.",
            Start = Zoned(first.At(time), zone),
            Duration = Ical.Net.DataTypes.Duration.FromMinutes(minutes),
            DtStamp = Stamp(now),
            RecurrenceRule = new RecurrenceRule(FrequencyType.Weekly, 1) { Count = weeks },
        };
        sitDown.Alarms.Add(Alarm(sitDown.Summary));
        return Text([sitDown], zone);
    }

    /// <summary>One reminder an hour on a documented day, within the waking hours.</summary>
    public static string Hours(string album, LocalDate day, IEnumerable<int> hours, string zone, Instant now) => Text(
        hours.Select(hour =>
        {
            var at = day.AtMidnight().PlusHours(hour);
            var reminder = new CalendarEvent
            {
                Uid = $"hour-{at.ToString("uuuuMMdd'T'HHmm", CultureInfo.InvariantCulture)}-{Key(album)}@zesty-pocket",
                Summary = $"One picture and a few words: {SpanLabel.Hour(hour, HourClock.TwentyFour)}",
                Description = album,
                Start = Zoned(at, zone),
                Duration = Ical.Net.DataTypes.Duration.FromMinutes(5),
                DtStamp = Stamp(now),
            };
            reminder.Alarms.Add(Alarm(reminder.Summary));
            return reminder;
        }),
        zone);

    /// <summary>
    /// The events of a calendar file between two days, repeating ones day by day, each by the clock of its own zone.
    /// Throws <see cref="RuleException"/> for a file that is no calendar.
    /// </summary>
    public static IReadOnlyList<CalendarEventDay> Read(string file, LocalDate first, LocalDate last)
    {
        ArgumentNullException.ThrowIfNull(file);
        Ical.Net.Calendar? calendar;
        try
        {
            calendar = file.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase) ? Ical.Net.Calendar.Load(file) : null;
        }
        catch (Exception broken) when (broken is not OutOfMemoryException)
        {
            // The parser throws whatever it stumbles over.
            calendar = null;
        }

        if (calendar is null)
        {
            throw new RuleException("This is not a calendar file, or it is damaged. Export the calendar as .ics again. Nothing was changed.");
        }

        var days = new List<CalendarEventDay>();
        var (from, until) = (new CalDateTime(first.Year, first.Month, first.Day), last.PlusDays(1));
        foreach (var item in calendar.Events.Where(e => e.Start is not null && !string.IsNullOrWhiteSpace(e.Summary)))
        {
            // An event that began before and lasts counts from the first day on.
            foreach (var occurrence in item.GetOccurrences(from))
            {
                var start = occurrence.Period.StartTime;
                var day = new LocalDate(start.Year, start.Month, start.Day);
                if (day >= until || days.Count >= MostEvents)
                {
                    break;
                }

                if (day < first)
                {
                    continue;
                }

                var place = string.IsNullOrWhiteSpace(item.Location) ? string.Empty : $", {item.Location.Trim()}";
                var text = item.Summary!.Trim() + place;
                days.Add(new CalendarEventDay(
                    day,
                    start.HasTime ? new LocalTime(start.Hour, start.Minute) : null,
                    text.Length > 500 ? text[..500] : text,
                    $"{item.Uid}/{day.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}"));
            }
        }

        return days;
    }

    private static string Text(IEnumerable<CalendarEvent> events, string zone)
    {
        var calendar = new Ical.Net.Calendar { ProductId = "-//Zesty Pocket//Reminders//EN" };
        foreach (var item in events)
        {
            calendar.Events.Add(item);
        }

        if (zone != "Etc/UTC")
        {
            calendar.AddTimeZone(new VTimeZone(zone));
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("A calendar came out empty.");
    }

    private static CalDateTime Zoned(LocalDateTime local, string zone) => new(local.ToDateTimeUnspecified(), zone == "Etc/UTC" ? "UTC" : zone);

    private static CalDateTime Stamp(Instant now) => new(now.ToDateTimeUtc(), "UTC");

    private static Alarm Alarm(string words) => new()
    {
        Action = AlarmAction.Display,
        Description = words,
        Trigger = new Trigger(Ical.Net.DataTypes.Duration.FromMinutes(0)),
    };

    private static string Key(string album) => Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(album)))[..8];
}
