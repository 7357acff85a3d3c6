using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Tests.Dates;

public sealed class AlbumCalendarTests
{
    private static readonly AlbumCalendar Weekly = new()
    {
        Kind = AlbumKind.Weekly,
        FirstDay = new LocalDate(2026, 1, 1),
    };

    [Fact]
    public void Days_merge_keep_their_numbers_and_come_apart_again()
    {
        var trip = new AlbumCalendar
        {
            Kind = AlbumKind.Trip,
            FirstDay = new LocalDate(2026, 6, 6),
            HomeZone = "Europe/London",
        };
        var days = trip.FirstUnits(12);
        var merged = days[9].MergedWith(days[10]);
        merged.Title(DateStyle.Default).ShouldBe("Days 10–11");
        merged.Span(DateStyle.Default).ShouldBe("15–16 June 2026");
        merged.Holds(new AlbumMoment(new LocalDate(2026, 6, 16), 0, 600)).ShouldBeTrue();
        merged.Holds(new AlbumMoment(new LocalDate(2026, 6, 17), 0, 600)).ShouldBeFalse();
        trip.Parts(merged).ShouldBe([days[9], days[10]]);
    }

    [Fact]
    public void Only_neighbours_merge()
    {
        var weeks = Weekly.FirstUnits(4);
        Should.Throw<RuleException>(() => weeks[0].MergedWith(weeks[2]));
        weeks[0].MergedWith(weeks[1]).Title(DateStyle.Default).ShouldBe("Weeks 1–2");
        weeks[0].MergedWith(weeks[1]).MergedWith(weeks[2]).Weight.ShouldBe(3);
    }

    [Fact]
    public void A_date_lived_twice_is_two_units_and_each_picture_finds_its_own()
    {
        var trip = new AlbumCalendar
        {
            Kind = AlbumKind.Trip,
            FirstDay = new LocalDate(2026, 6, 11),
            HomeZone = "Asia/Tokyo",
            Stays =
            [
                new("Tokyo", "Asia/Tokyo", new(2026, 6, 11, 8, 0), new(2026, 6, 12, 20, 0)),
                new("Honolulu", "Pacific/Honolulu", new(2026, 6, 12, 8, 0)),
            ],
        };
        var days = trip.FirstUnits(4);
        days.Select(d => d.Span(DateStyle.Default))
            .ShouldBe(["11 June 2026", "12 June 2026", "12 June 2026, again", "13 June 2026"]);
        days[1].Holds(new AlbumMoment(new LocalDate(2026, 6, 12), 0, null)).ShouldBeTrue();
        days[2].Holds(new AlbumMoment(new LocalDate(2026, 6, 12), 0, null)).ShouldBeFalse();
        days[2].Holds(new AlbumMoment(new LocalDate(2026, 6, 12), 1, null)).ShouldBeTrue();
    }

    [Fact]
    public void The_hours_of_a_day_follow_the_waking_window_also_past_midnight()
    {
        new WakingWindow(new LocalTime(6, 30), new LocalTime(1, 0)).Hours.ShouldBe(Enumerable.Range(7, 19));
        var day = new AlbumCalendar
        {
            Kind = AlbumKind.DocumentedDay,
            FirstDay = new LocalDate(2026, 5, 2),
            Waking = new(new(7, 0), new(22, 0)),
            Style = new(DateOrder.DayMonth, HourClock.Twelve),
        };
        var hours = day.FirstUnits(99);
        hours.Length.ShouldBe(16);
        hours[0].Title(day.Style).ShouldBe("7 a.m.");
        hours[^1].Title(day.Style).ShouldBe("10 p.m.");
        hours[0].Code.ShouldBe("H07");
        day.Beyond(hours, atEnd: true)!.FirstNumber.ShouldBe(23);
        day.Beyond(hours, atEnd: false)!.FirstNumber.ShouldBe(6);
    }

    [Theory]
    [InlineData(13 * 60 + 29, 13)]
    [InlineData(13 * 60 + 30, 14)]
    [InlineData(14 * 60, 14)]
    [InlineData(14 * 60 + 29, 14)]
    public void A_picture_belongs_to_the_hour_nearest_to_it_within_thirty_minutes(int minute, int hour) =>
        HourSlots.Of(minute).ShouldBe(hour);

    [Fact]
    public void Each_hour_is_offered_its_nearest_picture_and_gaps_are_listed()
    {
        var offers = HourSlots.Propose<string>(
            [9, 10, 11],
            [("ten to nine", 530), ("five past nine", 545), ("half past ten", 630)]
        );
        offers.Select(o => o.Nearest).ShouldBe(["five past nine", null, "half past ten"]);
    }

    [Fact]
    public void A_countdown_numbers_its_days_from_one()
    {
        var countdown = new AlbumCalendar { Kind = AlbumKind.Countdown, FirstDay = new LocalDate(2026, 11, 27) };
        var days = countdown.FirstUnits(10);
        days[4].Title(DateStyle.Default).ShouldBe("Day 5");
        days[4].Span(DateStyle.Default).ShouldBe("1 December 2026");
        countdown.Beyond(days, atEnd: true)!.FirstNumber.ShouldBe(11);
        countdown.Beyond(days, atEnd: false).ShouldBeNull();
    }

    [Fact]
    public void Changing_the_week_scheme_keeps_neighbours_neighbours_and_merged_weeks_merged()
    {
        var weeks = Weekly.FirstUnits(53).ToList();
        weeks[10] = weeks[10].MergedWith(weeks[11]);
        weeks.RemoveAt(11);
        foreach (var scheme in Enum.GetValues<WeekScheme>())
        {
            var to = Weekly with { Scheme = scheme };
            var moved = weeks.ConvertAll(to.Redated);
            foreach (var (a, b) in moved.Zip(moved.Skip(1)))
            {
                b.First.ShouldBe(a.Last.PlusDays(1));
            }

            moved[10].Weight.ShouldBe(2);
            moved.ConvertAll(Weekly.Redated).ShouldBe(weeks, "and back again is where it was");
        }
    }

    [Fact]
    public void A_units_own_name_stands_in_place_of_its_number()
    {
        var week = Weekly.FirstUnits(1)[0] with { Name = "The great flood" };
        week.Title(DateStyle.Default).ShouldBe("The great flood");
        week.Code.ShouldBe("W1");
    }

    [Fact]
    public void A_calendar_with_an_impossible_part_is_refused()
    {
        Should.Throw<RuleException>(() => (Weekly with { HomeZone = "Nowhere" }).Checked());
        Should.Throw<RuleException>(() => (Weekly with { CutOff = new LocalTime(9, 0) }).Checked());
        Should.Throw<RuleException>(() => (Weekly with { FirstDay = new LocalDate(1200, 1, 1) }).Checked());
        Weekly.Checked().ShouldBe(Weekly);
    }
}
