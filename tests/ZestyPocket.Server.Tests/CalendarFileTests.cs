using System.Text.Json;
using NodaTime;
using ZestyPocket.Server.Gathering;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// iCalendar, written here and read back by another library than the one that wrote it: ical.js, which follows RFC 5545
/// strictly; and the grammar of its lines (RFC 5545, 3.1).
/// </summary>
public sealed class CalendarFileTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 4, 1, 12, 0);

    [Fact]
    public async Task The_weekly_sit_down_is_read_by_another_library_as_it_was_meant()
    {
        // The first Sunday from Wednesday 6 May is the 10th.
        var text = EventCalendar.SitDown("Our year, in Marrowick; all of it", new LocalDate(2026, 5, 6), IsoDayOfWeek.Sunday, new LocalTime(19, 30), 90, "Europe/London", 4, Now);
        Lines(text);
        var events = await ReadAsync(text);
        var sitDown = events.ShouldHaveSingleItem();
        sitDown.Summary.ShouldBe("Album evening: Our year, in Marrowick; all of it");
        sitDown.Zone.ShouldBe("Europe/London");
        sitDown.Minutes.ShouldBe(90);
        sitDown.Alarms.ShouldBe(1);
        sitDown.Starts.ShouldBe(["2026-05-10T19:30:00", "2026-05-17T19:30:00", "2026-05-24T19:30:00", "2026-05-31T19:30:00"]);
    }

    [Fact]
    public async Task A_documented_day_has_a_reminder_for_each_waking_hour_also_past_midnight()
    {
        var text = EventCalendar.Hours("A Saturday", new LocalDate(2026, 5, 2), [7, 8, 23, 24], "Etc/UTC", Now);
        Lines(text);
        var events = await ReadAsync(text);
        events.SelectMany(e => e.Starts).ShouldBe(["2026-05-02T07:00:00Z", "2026-05-02T08:00:00Z", "2026-05-02T23:00:00Z", "2026-05-03T00:00:00Z"], ignoreOrder: true);
        events.Select(e => e.Uid).Distinct().Count().ShouldBe(4);
    }

    [Fact]
    public void What_was_written_is_read_back_here_day_by_day()
    {
        var text = EventCalendar.SitDown("x", new LocalDate(2026, 5, 6), IsoDayOfWeek.Sunday, new LocalTime(19, 30), 60, "Europe/London", 10, Now);
        EventCalendar.Read(text, new LocalDate(2026, 5, 1), new LocalDate(2026, 5, 31)).Select(e => (e.Day.Day, e.Time)).ShouldBe(
            [(10, new LocalTime(19, 30)), (17, new LocalTime(19, 30)), (24, new LocalTime(19, 30)), (31, new LocalTime(19, 30))]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("Dear diary")]
    [InlineData("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:yesterday\nSUMMARY:x\nEND:VEVENT\nEND:VCALENDAR")]
    [InlineData("BEGIN:VCALENDAR\nEND:VEVENT")]
    public void A_file_that_is_no_calendar_is_refused_and_an_event_without_a_day_is_passed_over(string text)
    {
        try
        {
            EventCalendar.Read(text, new LocalDate(2026, 1, 1), new LocalDate(2026, 12, 31)).ShouldBeEmpty();
        }
        catch (Core.RuleException refused)
        {
            refused.Message.ShouldContain("Nothing was changed");
        }
    }

    [Fact]
    public void An_event_every_second_for_ever_is_bounded()
    {
        const string text = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20260101T000000\r\nRRULE:FREQ=SECONDLY\r\nSUMMARY:tick\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        EventCalendar.Read(text, new LocalDate(2026, 1, 1), new LocalDate(2030, 1, 1)).Count.ShouldBe(5_000);
    }

    /// <summary>CRLF ends every line, and no line is longer than 75 octets.</summary>
    private static void Lines(string text)
    {
        text.EndsWith("\r\n", StringComparison.Ordinal).ShouldBeTrue();
        text.Replace("\r\n", string.Empty, StringComparison.Ordinal).IndexOfAny(['\r', '\n']).ShouldBe(-1);
        text.Split("\r\n").ShouldAllBe(line => System.Text.Encoding.UTF8.GetByteCount(line) <= 75);
    }

    private sealed record ReadEvent(string Uid, string Summary, string Zone, int Minutes, int Alarms, string[] Starts);

    private static async Task<List<ReadEvent>> ReadAsync(string text) =>
        JsonSerializer.Deserialize<List<ReadEvent>>(await Hosting.Node.RunAsync("read-ics.mjs", text), JsonSerializerOptions.Web)!;
}
