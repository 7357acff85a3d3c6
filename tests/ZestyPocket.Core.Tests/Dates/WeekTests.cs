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
            var week = Week.Holding(LocalDate.FromDateTime(day));
            if (week.Year != ISOWeek.GetYear(day) || week.Number != ISOWeek.GetWeekOfYear(day)
                || week.First.ToDateTimeUnspecified() != ISOWeek.ToDateTime(week.Year, week.Number, DayOfWeek.Monday))
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
            var week = Week.Holding(first.PlusDays(day));
            (week.Year, week.Number, week.First).ShouldBe((weekYear, number, first));
            week.Last.ShouldBe(first.PlusDays(6));
        }
    }

    [Fact]
    public void The_year_2026_has_53_weeks() => Week.CountIn(2026).ShouldBe(53);

    [Fact]
    public void A_run_of_weeks_has_no_gap_and_no_overlap()
    {
        Gen.Select(Gen.Int[0, 150_000], Gen.Int[1, 120]).Sample((days, count) =>
        {
            var start = new LocalDate(1850, 1, 1).PlusDays(days);
            var weeks = Week.Run(start, count);
            weeks.Count.ShouldBe(count);
            (weeks[0].First <= start && start <= weeks[0].Last).ShouldBeTrue();
            foreach (var (a, b) in weeks.Zip(weeks.Skip(1)))
            {
                b.First.ShouldBe(a.Last.PlusDays(1));
            }
        });
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
    public void A_picture_at_twenty_to_one_belongs_to_the_evening_before()
    {
        AlbumDay.Of(new LocalDateTime(2026, 5, 10, 0, 40), AlbumDay.DefaultCutOff).ShouldBe(new LocalDate(2026, 5, 9));
        AlbumDay.Of(new LocalDateTime(2026, 5, 10, 3, 0), AlbumDay.DefaultCutOff).ShouldBe(new LocalDate(2026, 5, 10));
        AlbumDay.Of(new LocalDateTime(2026, 1, 1, 2, 59, 59), AlbumDay.DefaultCutOff).ShouldBe(new LocalDate(2025, 12, 31));
    }

    private static LocalDate Iso(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;
}
