using System.Globalization;
using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Tests.Dates;

/// <summary>ISO 8601 weeks, checked against .NET's <see cref="ISOWeek"/> and known weeks (arithmetic).</summary>
public sealed class WeekTests
{
    [Fact]
    public void Weeks_agree_with_the_reference_library_for_every_day_of_four_centuries()
    {
        for (var day = new DateTime(1800, 1, 1); day.Year < 2200; day = day.AddDays(1))
        {
            var week = WeekCalendar.Iso.Holding(LocalDate.FromDateTime(day));
            if (
                week.Year != ISOWeek.GetYear(day)
                || week.Number != ISOWeek.GetWeekOfYear(day)
                || week.First.ToDateTimeUnspecified() != ISOWeek.ToDateTime(week.Year, week.Number, DayOfWeek.Monday)
            )
            {
                throw new ShouldAssertException($"{day:yyyy-MM-dd} came out as {week}");
            }
        }
    }

    [Theory]
    [InlineData(2020, 2, 17, 2020, 8)]
    [InlineData(2020, 6, 1, 2020, 23)]
    [InlineData(2020, 8, 24, 2020, 35)]
    [InlineData(2021, 1, 4, 2021, 1)]
    [InlineData(2023, 2, 27, 2023, 9)]
    [InlineData(2023, 7, 31, 2023, 31)]
    public void Known_weeks_have_their_numbers(int year, int month, int monday, int weekYear, int number)
    {
        var first = new LocalDate(year, month, monday);
        foreach (var day in Enumerable.Range(0, 7))
        {
            var week = WeekCalendar.Iso.Holding(first.PlusDays(day));
            (week.Year, week.Number, week.First).ShouldBe((weekYear, number, first));
            week.Last.ShouldBe(first.PlusDays(6));
        }
    }

    [Fact]
    public void The_year_2026_has_53_weeks() => WeekCalendar.IsoWeeksIn(2026).ShouldBe(53);

    [Fact]
    public void A_run_of_weeks_has_no_gap_and_no_overlap()
    {
        Gen.Select(Gen.Int[0, 150_000], Gen.Int[1, 120])
            .Sample(
                (days, count) =>
                {
                    var start = new LocalDate(1850, 1, 1).PlusDays(days);
                    var weeks = WeekCalendar.Iso.Run(start, count);
                    weeks.Count.ShouldBe(count);
                    (weeks[0].First <= start && start <= weeks[0].Last).ShouldBeTrue();
                    foreach (var (a, b) in weeks.Zip(weeks.Skip(1)))
                    {
                        b.First.ShouldBe(a.Last.PlusDays(1));
                    }
                }
            );
    }

    [Theory]
    [InlineData("2020-02-17", "2020-02-23", "17–23 February 2020")]
    [InlineData("2023-02-27", "2023-03-05", "27 February – 5 March 2023")]
    [InlineData("2025-12-29", "2026-01-04", "29 December 2025 – 4 January 2026")]
    [InlineData("2026-05-05", "2026-05-05", "5 May 2026")]
    public void A_span_prints_month_and_year_no_more_often_than_needed(string first, string last, string label)
    {
        SpanLabel.Of(Iso(first), Iso(last)).ShouldBe(label);
    }

    [Fact]
    public void Sunday_weeks_agree_with_the_reference_library_and_the_first_of_January_is_always_in_week_1()
    {
        // .NET numbers by the calendar year and leaves a rest at its end; that rest is week 1 of the next year here.
        var reference = new GregorianCalendar();
        var sundays = new WeekCalendar(WeekScheme.SundayFirst, default);
        for (var day = new DateTime(1990, 1, 1); day.Year < 2090; day = day.AddDays(1))
        {
            var week = sundays.Holding(LocalDate.FromDateTime(day));
            week.First.DayOfWeek.ShouldBe(IsoDayOfWeek.Sunday);
            (week.First <= LocalDate.FromDateTime(day) && LocalDate.FromDateTime(day) <= week.Last).ShouldBeTrue();
            if (week.Last.Year == day.Year)
            {
                (week.Year, week.Number).ShouldBe(
                    (day.Year, reference.GetWeekOfYear(day, CalendarWeekRule.FirstDay, DayOfWeek.Sunday))
                );
            }
            else
            {
                (week.Year, week.Number).ShouldBe((day.Year + 1, 1));
            }
        }
    }

    [Fact]
    public void Weeks_from_the_albums_own_day_start_on_its_weekday_and_count_on_over_the_year()
    {
        var wednesday = new LocalDate(2026, 1, 14);
        var weeks = new WeekCalendar(WeekScheme.FromFirstDay, wednesday);
        weeks.Holding(wednesday).ShouldBe(new Week(2026, 1, wednesday));
        weeks.Holding(wednesday.PlusDays(6)).Number.ShouldBe(1);
        weeks.Holding(wednesday.PlusDays(7)).ShouldBe(new Week(2026, 2, wednesday.PlusDays(7)));
        weeks.Holding(new LocalDate(2027, 1, 20)).Number.ShouldBe(54);
        weeks.Holding(wednesday.PlusDays(-1)).Number.ShouldBe(0);
    }

    [Fact]
    public void Under_every_scheme_a_week_is_seven_days_that_all_name_the_same_week()
    {
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 100_000], Gen.Int[0, 100_000])
            .Sample(
                (scheme, start, days) =>
                {
                    var calendar = new WeekCalendar((WeekScheme)scheme, new LocalDate(1900, 1, 1).PlusDays(start));
                    var week = calendar.Holding(new LocalDate(1900, 1, 1).PlusDays(days));
                    for (var d = week.First; d <= week.Last; d = d.PlusDays(1))
                    {
                        calendar.Holding(d).ShouldBe(week);
                    }

                    calendar.Holding(week.Last.PlusDays(1)).First.ShouldBe(week.Last.PlusDays(1));
                }
            );
    }

    [Theory]
    [InlineData("2020-02-17", "2020-02-23", "February 17–23, 2020")]
    [InlineData("2023-02-27", "2023-03-05", "February 27 – March 5, 2023")]
    [InlineData("2025-12-29", "2026-01-04", "December 29, 2025 – January 4, 2026")]
    [InlineData("2026-05-05", "2026-05-05", "May 5, 2026")]
    public void With_the_month_first_a_span_reads_so(string first, string last, string label) =>
        SpanLabel.Of(Iso(first), Iso(last), DateOrder.MonthDay).ShouldBe(label);

    [Theory]
    [InlineData(0, "00:00", "12 a.m.")]
    [InlineData(7, "07:00", "7 a.m.")]
    [InlineData(12, "12:00", "12 p.m.")]
    [InlineData(19, "19:00", "7 p.m.")]
    [InlineData(25, "01:00", "1 a.m.")]
    public void Hours_read_by_either_clock(int hour, string twentyFour, string twelve)
    {
        SpanLabel.Hour(hour, HourClock.TwentyFour).ShouldBe(twentyFour);
        SpanLabel.Hour(hour, HourClock.Twelve).ShouldBe(twelve);
    }

    [Fact]
    public void A_picture_at_twenty_to_one_belongs_to_the_evening_before()
    {
        AlbumDay.Of(new LocalDateTime(2026, 5, 10, 0, 40), AlbumDay.DefaultCutOff).ShouldBe(new LocalDate(2026, 5, 9));
        AlbumDay.Of(new LocalDateTime(2026, 5, 10, 3, 0), AlbumDay.DefaultCutOff).ShouldBe(new LocalDate(2026, 5, 10));
        AlbumDay
            .Of(new LocalDateTime(2026, 1, 1, 2, 59, 59), AlbumDay.DefaultCutOff)
            .ShouldBe(new LocalDate(2025, 12, 31));
    }

    private static LocalDate Iso(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;
}
