using CsCheck;
using NodaTime;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>The month on a card.</summary>
public sealed class CalendarCardTests
{
    private static readonly CardStyle Style = BuiltInCardStyles.All.Single(s => s.Key == "almanac-rows");

    private static CardFace Draw(
        YearMonth month,
        IsoDayOfWeek first,
        Size cut,
        params (int Day, string Words)[] events
    ) =>
        CalendarCard.Draw(
            new MonthOfCard(
                month,
                first,
                new HashSet<LocalDate> { month.OnDayOfMonth(5) },
                events.ToDictionary(e => month.OnDayOfMonth(e.Day), e => e.Words)
            ),
            Style,
            cut,
            EvenShaper.Only
        );

    [Theory]
    // Facts of the calendar: February 2026 begins on a Sunday and has 28 days; May 2026 begins on a Friday.
    [InlineData(2026, 2, IsoDayOfWeek.Sunday, 4)]
    [InlineData(2026, 2, IsoDayOfWeek.Monday, 5)]
    [InlineData(2026, 5, IsoDayOfWeek.Monday, 5)]
    [InlineData(2026, 8, IsoDayOfWeek.Monday, 6)]
    public void A_month_takes_four_to_six_rows(int year, int month, IsoDayOfWeek first, int rows) =>
        CalendarCard.Rows(new YearMonth(year, month), first).Length.ShouldBe(rows);

    [Fact]
    public void Every_day_of_a_month_stands_once_in_the_column_of_its_weekday()
    {
        Gen.Select(Gen.Int[1950, 2090], Gen.Int[1, 12], Gen.Int[1, 7], Gen.Int[2, 9], Gen.Int[2, 12])
            .Sample(
                (year, number, weekday, w, h) =>
                {
                    var (month, first) = (new YearMonth(year, number), (IsoDayOfWeek)weekday);
                    var cut = Size.FromInches(w, h);
                    var face = Draw(month, first, cut);
                    var days = face
                        .Runs.Where(r => r.Text.Length <= 2 && int.TryParse(r.Text, out _))
                        .GroupBy(r => int.Parse(r.Text, System.Globalization.CultureInfo.InvariantCulture))
                        .ToDictionary(g => g.Key, g => g.Single());
                    var last = month.OnDayOfMonth(1).PlusMonths(1).PlusDays(-1).Day;
                    days.Keys.Order().ShouldBe(Enumerable.Range(1, last));
                    foreach (var day in days.Values)
                    {
                        day.X.ShouldBeInRange(0, face.Width);
                        day.Baseline.ShouldBeInRange(0, face.Height);
                    }

                    // A week later is under it, a day later to its right unless a row begins.
                    var middle = (TypeRun r) => r.X + (r.Text.Length * 0.25 * r.SizePt);
                    middle(days[8]).ShouldBe(middle(days[1]), 1);
                    days[8].Baseline.ShouldBeGreaterThan(days[1].Baseline);
                    var begins = month.OnDayOfMonth(2).DayOfWeek == first;
                    (middle(days[2]) > middle(days[1])).ShouldBe(!begins);
                },
                iter: 1_000
            );
    }

    [Fact]
    public void A_note_is_a_dot_in_a_pocket_and_words_on_a_page()
    {
        var month = new YearMonth(2026, 5);
        var pocket = Draw(month, IsoDayOfWeek.Monday, Size.FromInches(3, 4), (14, "Nan is eighty"));
        pocket.Runs.ShouldNotContain(r => r.Text.Contains("Nan", StringComparison.Ordinal));
        pocket.Discs.Length.ShouldBe(2);
        var page = Draw(month, IsoDayOfWeek.Monday, Size.FromInches(9, 12), (14, "Nan is eighty"));
        page.Runs.ShouldContain(r => r.Text.Contains("Nan", StringComparison.Ordinal));
        page.Discs.Length.ShouldBe(1);
    }
}
