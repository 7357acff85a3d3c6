using CsCheck;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Tests.Dates;

/// <summary>
/// Days of a traveller over zones and the date line. Offsets are the tz database's (through NodaTime): Tokyo +9,
/// Honolulu −10, Los Angeles −7 in June, Sydney +10, Auckland +12 in June, London +1 in June.
/// </summary>
public sealed class TravelDaysTests
{
    private static readonly LocalTime CutOff = new(3, 0);

    [Fact]
    public void Without_stays_the_days_are_the_calendars()
    {
        var days = new TravelDays(new LocalDate(2026, 6, 6), [], "Europe/London", CutOff).Take(9);
        days.Select(d => d.Number).ShouldBe(Enumerable.Range(1, 9));
        days[^1].Date.ShouldBe(new LocalDate(2026, 6, 14));
        days.ShouldAllBe(d => d.Occurrence == 0);
    }

    [Fact]
    public void Flying_east_over_the_date_line_lives_one_date_twice()
    {
        // Leaves Tokyo on the evening of the 12th and lands in Honolulu on the morning of the 12th.
        var travel = Trip(
            "2026-06-10",
            ("Tokyo", "Asia/Tokyo", "2026-06-10T09:00", "2026-06-12T20:00"),
            ("Honolulu", "Pacific/Honolulu", "2026-06-12T08:00", null)
        );
        travel
            .Take(6)
            .Select(d => (d.Number, d.Date.Day, d.Occurrence))
            .ShouldBe([(1, 10, 0), (2, 11, 0), (3, 12, 0), (4, 12, 1), (5, 13, 0), (6, 14, 0)]);
    }

    [Fact]
    public void Flying_east_without_a_known_departure_gives_the_same_days()
    {
        var travel = Trip(
            "2026-06-10",
            ("Tokyo", "Asia/Tokyo", "2026-06-10T09:00", null),
            ("Honolulu", "Pacific/Honolulu", "2026-06-12T08:00", null)
        );
        travel.Take(5).Select(d => (d.Date.Day, d.Occurrence)).ShouldBe([(10, 0), (11, 0), (12, 0), (12, 1), (13, 0)]);
    }

    [Fact]
    public void Flying_west_over_the_date_line_loses_a_date()
    {
        // Leaves Los Angeles late on the 12th and lands in Sydney on the morning of the 14th: there was no 13th.
        var travel = Trip(
            "2026-06-11",
            ("Los Angeles", "America/Los_Angeles", "2026-06-11T10:00", "2026-06-12T22:30"),
            ("Sydney", "Australia/Sydney", "2026-06-14T06:30", null)
        );
        travel.Take(4).Select(d => (d.Number, d.Date.Day)).ShouldBe([(1, 11), (2, 12), (3, 14), (4, 15)]);
    }

    [Fact]
    public void There_and_back_again_over_the_date_line()
    {
        var travel = Trip(
            "2026-06-11",
            ("Los Angeles", "America/Los_Angeles", "2026-06-11T10:00", "2026-06-11T22:30"),
            ("Auckland", "Pacific/Auckland", "2026-06-13T05:30", "2026-06-16T19:00"),
            ("Los Angeles", "America/Los_Angeles", "2026-06-16T12:00", null)
        );
        travel
            .Take(7)
            .Select(d => (d.Date.Day, d.Occurrence))
            .ShouldBe([(11, 0), (13, 0), (14, 0), (15, 0), (16, 0), (16, 1), (17, 0)]);

        // A picture of the first 16th, in Auckland, and one of the second, in Los Angeles.
        Moment(travel, "2026-06-16T11:00", "Pacific/Auckland").ShouldBe((16, 0));
        Moment(travel, "2026-06-16T15:00", "America/Los_Angeles").ShouldBe((16, 1));
        Moment(travel, "2026-06-17T09:00", "America/Los_Angeles").ShouldBe((17, 0));
    }

    [Fact]
    public void A_flight_within_the_day_to_another_zone_stays_one_day()
    {
        var travel = Trip(
            "2026-06-11",
            ("London", "Europe/London", "2026-06-11T08:00", "2026-06-13T10:00"),
            ("New York", "America/New_York", "2026-06-13T13:00", null)
        );
        travel.Take(5).Select(d => (d.Date.Day, d.Occurrence)).ShouldBe([(11, 0), (12, 0), (13, 0), (14, 0), (15, 0)]);
    }

    [Fact]
    public void Samoa_itself_crossed_the_date_line_and_had_no_30_December_2011()
    {
        // tz database, Pacific/Apia: the islands went from 29 to 31 December 2011.
        var zone = Zones.Find("Pacific/Apia");
        var before = Zones.At(new LocalDateTime(2011, 12, 29, 23, 59, 59), zone);
        (before + Duration.FromSeconds(1)).InZone(zone).Date.ShouldBe(new LocalDate(2011, 12, 31));
    }

    [Fact]
    public void The_zone_of_a_wall_clock_is_that_of_the_stay()
    {
        var travel = Trip(
            "2026-06-10",
            ("Tokyo", "Asia/Tokyo", "2026-06-10T09:00", null),
            ("London", "Europe/London", "2026-06-14T18:00", null)
        );
        travel.ZoneOf(new LocalDateTime(2026, 6, 9, 12, 0)).Id.ShouldBe("Etc/UTC");
        travel.ZoneOf(new LocalDateTime(2026, 6, 11, 12, 0)).Id.ShouldBe("Asia/Tokyo");
        travel.ZoneOf(new LocalDateTime(2026, 6, 15, 12, 0)).Id.ShouldBe("Europe/London");
        travel.ZoneAt(Instant.FromUtc(2026, 6, 14, 16, 0)).Id.ShouldBe("Asia/Tokyo");
        travel.ZoneAt(Instant.FromUtc(2026, 6, 14, 17, 0)).Id.ShouldBe("Europe/London");
    }

    [Fact]
    public void A_stay_that_ends_before_it_begins_is_refused_with_its_name() =>
        Should
            .Throw<RuleException>(() =>
                Trip("2026-06-10", ("Tokyo", "Asia/Tokyo", "2026-06-10T09:00", "2026-06-09T09:00"))
            )
            .Message.ShouldContain("Tokyo");

    [Fact]
    public void An_unknown_zone_is_refused() =>
        Should.Throw<RuleException>(() => Zones.Find("Europe/Atlantis")).Message.ShouldContain("Europe/Atlantis");

    [Fact]
    public void Numbers_have_no_gap_and_no_date_is_lived_a_third_time_whatever_the_stays()
    {
        string[] zones =
        [
            "Asia/Tokyo",
            "Pacific/Honolulu",
            "Europe/London",
            "Pacific/Auckland",
            "America/Los_Angeles",
            "Pacific/Apia",
            "Pacific/Kiritimati",
        ];
        Gen.Select(Gen.Int[0, zones.Length - 1], Gen.Int[12, 120])
            .Array[0, 6]
            .Sample(legs =>
            {
                var at = Instant.FromUtc(2026, 6, 1, 3, 0);
                var stays = new List<Stay>();
                foreach (var (zone, hours) in legs)
                {
                    stays.Add(
                        new Stay($"Stay {stays.Count}", zones[zone], at.InZone(Zones.Find(zones[zone])).LocalDateTime)
                    );
                    at += Duration.FromHours(hours);
                }

                var days = new TravelDays(new LocalDate(2026, 6, 1), stays, "Europe/London", CutOff).Take(40);
                days.Select(d => d.Number).ShouldBe(Enumerable.Range(1, 40));
                days.ShouldAllBe(d => d.Occurrence <= 1);
            });
    }

    private static (int Day, int Occurrence) Moment(TravelDays travel, string local, string zone)
    {
        var time = LocalDateTimePattern.GeneralIso.Parse(local + ":00").Value;
        var moment = travel.MomentOf(time, Zones.At(time, Zones.Find(zone)));
        return (moment.Day.Day, moment.Occurrence);
    }

    private static TravelDays Trip(
        string first,
        params (string Place, string Zone, string From, string? Until)[] stays
    ) =>
        new(
            LocalDatePattern.Iso.Parse(first).Value,
            [.. stays.Select(s => new Stay(s.Place, s.Zone, Time(s.From), s.Until is null ? null : Time(s.Until)))],
            "Etc/UTC",
            CutOff
        );

    private static LocalDateTime Time(string text) => LocalDateTimePattern.GeneralIso.Parse(text + ":00").Value;
}
