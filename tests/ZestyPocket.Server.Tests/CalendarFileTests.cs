using System.Text.Json;
using NodaTime;
using ZestyPocket.Server.Dates;

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
        var text = EventCalendar.SitDown(
            "Our year, in Marrowick; all of it",
            new LocalDate(2026, 5, 6),
            IsoDayOfWeek.Sunday,
            new LocalTime(19, 30),
            90,
            "Europe/London",
            4,
            Now
        );
        Lines(text);
        var events = await ReadAsync(text);
        var sitDown = events.ShouldHaveSingleItem();
        sitDown.Summary.ShouldBe("Album evening: Our year, in Marrowick; all of it");
        sitDown.Zone.ShouldBe("Europe/London");
        sitDown.Minutes.ShouldBe(90);
        sitDown.Alarms.ShouldBe(1);
        sitDown.Starts.ShouldBe([
            "2026-05-10T19:30:00",
            "2026-05-17T19:30:00",
            "2026-05-24T19:30:00",
            "2026-05-31T19:30:00",
        ]);
    }

    [Fact]
    public async Task A_documented_day_has_a_reminder_for_each_waking_hour_also_past_midnight()
    {
        var text = EventCalendar.Hours("A Saturday", new LocalDate(2026, 5, 2), [7, 8, 23, 24], "Etc/UTC", Now);
        Lines(text);
        var events = await ReadAsync(text);
        events
            .SelectMany(e => e.Starts)
            .ShouldBe(
                ["2026-05-02T07:00:00Z", "2026-05-02T08:00:00Z", "2026-05-02T23:00:00Z", "2026-05-03T00:00:00Z"],
                ignoreOrder: true
            );
        events.Select(e => e.Uid).Distinct().Count().ShouldBe(4);
    }

    [Fact]
    public void What_was_written_is_read_back_here_day_by_day()
    {
        var text = EventCalendar.SitDown(
            "x",
            new LocalDate(2026, 5, 6),
            IsoDayOfWeek.Sunday,
            new LocalTime(19, 30),
            60,
            "Europe/London",
            10,
            Now
        );
        CalendarFile
            .Read(text, new LocalDate(2026, 5, 1), new LocalDate(2026, 5, 31), TestContext.Current.CancellationToken)
            .Days.Select(e => (e.Day.Day, e.Time))
            .ShouldBe([
                (10, new LocalTime(19, 30)),
                (17, new LocalTime(19, 30)),
                (24, new LocalTime(19, 30)),
                (31, new LocalTime(19, 30)),
            ]);
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
            CalendarFile
                .Read(
                    text,
                    new LocalDate(2026, 1, 1),
                    new LocalDate(2026, 12, 31),
                    TestContext.Current.CancellationToken
                )
                .Days.ShouldBeEmpty();
        }
        catch (Core.RuleException refused)
        {
            refused.Message.ShouldContain("Nothing was changed");
        }
    }

    [Theory]
    [InlineData("DTSTART:20260101T000000", "RRULE:FREQ=SECONDLY", "more than once a day")]
    [InlineData("DTSTART:00010101T000000", "RRULE:FREQ=SECONDLY", "in the year 1")]
    [InlineData("DTSTART:19700101T000000", "RRULE:FREQ=MINUTELY", "more than once a day")]
    [InlineData(
        "DTSTART:19700101T000000",
        "RRULE:FREQ=DAILY;BYHOUR=1,2,3,4,5,6;BYMINUTE=1,2,3,4,5,6;BYSECOND=1,2,3",
        "more than 200,000 times"
    )]
    [InlineData("DTSTART:99990101T000000", "RRULE:FREQ=DAILY", "in the year 9999")]
    [InlineData("DTSTART:20260101T000000", "RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", "cannot be worked out")]
    [InlineData("DTSTART:20260101T000000", "RRULE:FREQ=DAILY;INTERVAL=2147483647", "cannot be worked out")]
    [InlineData("DTSTART:20260101T000000", "RRULE:FREQ=DAILY\r\nEXRULE:FREQ=WEEKLY", "EXRULE")]
    public void A_rule_that_never_ends_or_never_comes_is_passed_over_with_its_reason_and_the_next_event_is_taken(
        string start,
        string rule,
        string reason
    )
    {
        var text = Calendar(
            $"BEGIN:VEVENT\r\nUID:1\r\n{start}\r\n{rule}\r\nSUMMARY:tick\r\nEND:VEVENT\r\n"
                + "BEGIN:VEVENT\r\nUID:2\r\nDTSTART;VALUE=DATE:20260201\r\nSUMMARY:Dentist\r\nEND:VEVENT\r\n"
        );
        var watch = System.Diagnostics.Stopwatch.StartNew();
        var read = CalendarFile.Read(
            text,
            new LocalDate(2026, 1, 1),
            new LocalDate(2026, 12, 31),
            TestContext.Current.CancellationToken
        );
        watch.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(5));
        read.Passed.ShouldHaveSingleItem().ShouldContain(reason);
        read.Days.ShouldContain(d => d.Text == "Dentist" && d.Day == new LocalDate(2026, 2, 1));
    }

    [Fact]
    public void A_count_of_two_thousand_million_days_gives_the_days_of_the_album()
    {
        var text = Calendar(
            "BEGIN:VEVENT\r\nUID:1\r\nDTSTART:19700101T080000\r\nRRULE:FREQ=DAILY;COUNT=2147483647\r\n"
                + "SUMMARY:Walk\r\nEND:VEVENT\r\n"
        );
        CalendarFile
            .Read(text, new LocalDate(2026, 1, 1), new LocalDate(2026, 12, 31), TestContext.Current.CancellationToken)
            .Days.Count.ShouldBe(365);
    }

    [Fact]
    public void A_zone_that_only_the_file_describes_keeps_its_own_hour()
    {
        var text = Calendar(
            "BEGIN:VTIMEZONE\r\nTZID:Our "
                + "house\r\nBEGIN:STANDARD\r\nDTSTART:19700101T000000\r\nTZOFFSETFROM:+0130\r\n"
                + "TZOFFSETTO:+0130\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\n"
                + "BEGIN:VEVENT\r\nUID:1\r\nDTSTART;TZID=Our house:20260504T101500\r\nDTEND;TZID=Our "
                + "house:20260504T111500\r\nRRULE:FREQ=DAILY;COUNT=3\r\nEXDATE;TZID=Our "
                + "house:20260505T101500\r\nSUMMARY:Choir\r\nEND:VEVENT\r\n"
        );
        CalendarFile
            .Read(text, new LocalDate(2026, 1, 1), new LocalDate(2026, 12, 31), TestContext.Current.CancellationToken)
            .Days.Select(d => (d.Day.Day, d.Time))
            .ShouldBe([(4, new LocalTime(10, 15)), (6, new LocalTime(10, 15))]);
    }

    [Fact]
    public void Twenty_thousand_events_are_refused_by_the_limit_that_is_stated()
    {
        var text = Calendar(
            string.Concat(
                Enumerable
                    .Range(0, 20_000)
                    .Select(i =>
                        $"BEGIN:VEVENT\r\nUID:{i}\r\nDTSTART;VALUE=DATE:20260201\r\nSUMMARY:x\r\nEND:VEVENT\r\n"
                    )
            )
        );
        Should
            .Throw<Core.RuleException>(() =>
                CalendarFile.Read(
                    text,
                    new LocalDate(2026, 1, 1),
                    new LocalDate(2026, 12, 31),
                    TestContext.Current.CancellationToken
                )
            )
            .Message.ShouldContain("5,000 at most");
    }

    private static string Calendar(string events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n{events}END:VCALENDAR\r\n";

    /// <summary>CRLF ends every line, and no line is longer than 75 octets.</summary>
    private static void Lines(string text)
    {
        text.EndsWith("\r\n", StringComparison.Ordinal).ShouldBeTrue();
        text.Replace("\r\n", string.Empty, StringComparison.Ordinal).IndexOfAny(['\r', '\n']).ShouldBe(-1);
        text.Split("\r\n").ShouldAllBe(line => System.Text.Encoding.UTF8.GetByteCount(line) <= 75);
    }

    private sealed record ReadEvent(string Uid, string Summary, string Zone, int Minutes, int Alarms, string[] Starts);

    private static async Task<List<ReadEvent>> ReadAsync(string text) =>
        JsonSerializer.Deserialize<List<ReadEvent>>(
            await Node.RunAsync("ZestyPocket.Server.Tests/read-ics.mjs", text),
            JsonSerializerOptions.Web
        )!;
}
