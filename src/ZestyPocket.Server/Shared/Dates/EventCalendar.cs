using System.Globalization;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Server.Shared;

/// <summary>Reminders as iCalendar. Source: RFC 5545.</summary>
public static class EventCalendar
{
    /// <summary>
    /// The weekly sit-down: one repeating event, in the home zone, from the first such weekday at or after a day, with
    /// an alarm at its beginning.
    /// </summary>
    public static string SitDown(
        string album,
        LocalDate from,
        IsoDayOfWeek weekday,
        LocalTime time,
        int minutes,
        string zone,
        int weeks,
        Instant now
    )
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
    public static string Hours(string album, LocalDate day, IEnumerable<int> hours, string zone, Instant now) =>
        Text(
            hours.Select(hour =>
            {
                var at = day.AtMidnight().PlusHours(hour);
                var reminder = new CalendarEvent
                {
                    Uid =
                        $"hour-{at.ToString("uuuuMMdd'T'HHmm", CultureInfo.InvariantCulture)}"
                        + $"-{Key(album)}@zesty-pocket",
                    Summary = $"One picture and a few words: {SpanLabel.Hour(hour, HourClock.TwentyFour)}",
                    Description = album,
                    Start = Zoned(at, zone),
                    Duration = Ical.Net.DataTypes.Duration.FromMinutes(5),
                    DtStamp = Stamp(now),
                };
                reminder.Alarms.Add(Alarm(reminder.Summary));
                return reminder;
            }),
            zone
        );

    /// <summary>Evenings at the album, each with what it is for.</summary>
    public static string Evenings(
        string album,
        IEnumerable<(LocalDate Day, int Minutes, string Words)> evenings,
        LocalTime time,
        string zone,
        Instant now
    ) =>
        Text(
            evenings.Select(evening =>
            {
                var sitting = new CalendarEvent
                {
                    Uid = $"evening-{evening.Day:uuuuMMdd}-{Key(album)}@zesty-pocket",
                    Summary = $"Album evening: {album}",
                    Description = evening.Words,
                    Start = Zoned(evening.Day.At(time), zone),
                    Duration = Ical.Net.DataTypes.Duration.FromMinutes(evening.Minutes),
                    DtStamp = Stamp(now),
                };
                sitting.Alarms.Add(Alarm(sitting.Summary));
                return sitting;
            }),
            zone
        );

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

        return new CalendarSerializer().SerializeToString(calendar)
            ?? throw new InvalidOperationException("A calendar came out empty.");
    }

    private static CalDateTime Zoned(LocalDateTime local, string zone) =>
        new(local.ToDateTimeUnspecified(), zone == "Etc/UTC" ? "UTC" : zone);

    private static CalDateTime Stamp(Instant now) => new(now.ToDateTimeUtc(), "UTC");

    private static Alarm Alarm(string words) =>
        new()
        {
            Action = AlarmAction.Display,
            Description = words,
            Trigger = new Trigger(Ical.Net.DataTypes.Duration.FromMinutes(0)),
        };

    private static string Key(string album) =>
        Convert.ToHexStringLower(
            System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(album))
        )[..8];
}
