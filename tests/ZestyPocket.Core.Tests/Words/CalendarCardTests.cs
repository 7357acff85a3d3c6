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
            CalendarOfCard.OfMonth(
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
        CalendarOfCard
            .OfMonth(new YearMonth(year, month), first, new HashSet<LocalDate>(), new Dictionary<LocalDate, string>())
            .Weeks.Length.ShouldBe(rows);

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

    private static readonly LocalDate Monday = new(2026, 5, 4);

    private static CalendarOfCard Week(LocalDate day, params LocalDate[] pictured) =>
        CalendarOfCard.OfWeek(
            day,
            IsoDayOfWeek.Monday,
            "4 - 10 May",
            new HashSet<LocalDate>(),
            new Dictionary<LocalDate, string> { [Monday.PlusDays(3)] = "Choir" }
        ) with
        {
            Pictures = pictured.ToHashSet(),
        };

    [Theory]
    [InlineData(3, 4)]
    [InlineData(6, 8)]
    [InlineData(6, 4)]
    [InlineData(12, 12)]
    public void A_week_shows_its_seven_days_whatever_day_it_is_asked_for(int wide, int high)
    {
        for (var i = 0; i < 7; i++)
        {
            var week = Week(Monday.PlusDays(i));
            week.Days.ShouldBe(Enumerable.Range(0, 7).Select(Monday.PlusDays));
            var face = CalendarCard.Draw(week, Style, Size.FromInches(wide, high), EvenShaper.Only);
            face.Runs.Select(r => r.Text)
                .Where(t => int.TryParse(t, out _))
                .ShouldBe(["4", "5", "6", "7", "8", "9", "10"]);
        }
    }

    [Fact]
    public void A_week_on_an_upright_card_goes_down_and_across_on_a_landscape_one()
    {
        var upright = CalendarCard.Draw(Week(Monday), Style, Size.FromInches(3, 4), EvenShaper.Only);
        var landscape = CalendarCard.Draw(Week(Monday), Style, Size.FromInches(6, 4), EvenShaper.Only);
        Figures(upright).Zip(Figures(upright).Skip(1)).ShouldAllBe(p => p.Second.Baseline > p.First.Baseline);
        Figures(landscape).Zip(Figures(landscape).Skip(1)).ShouldAllBe(p => p.Second.X > p.First.X);
        upright.Runs.ShouldContain(r => r.Text == "Choir");

        static IEnumerable<TypeRun> Figures(CardFace face) => face.Runs.Where(r => int.TryParse(r.Text, out _));
    }

    [Fact]
    public void Small_pictures_lie_inside_the_card_and_apart_from_each_other_and_from_the_figures()
    {
        Gen.Select(Gen.Int[1950, 2090], Gen.Int[1, 12], Gen.Int[3, 12], Gen.Int[3, 12], Gen.Bool, Gen.Int[0, 127])
            .Sample(
                (year, number, wide, high, week, which) =>
                {
                    var month = new YearMonth(year, number);
                    var none = new HashSet<LocalDate>();
                    var noted = new Dictionary<LocalDate, string> { [month.OnDayOfMonth(3)] = "Choir in the hall" };
                    var shown = week
                        ? CalendarOfCard.OfWeek(month.OnDayOfMonth(4), IsoDayOfWeek.Sunday, "Week", none, noted)
                        : CalendarOfCard.OfMonth(month, IsoDayOfWeek.Sunday, none, noted);
                    var days = shown.Days.Where((_, i) => (which >> (i % 7)) % 2 == 1).ToHashSet();
                    var cut = Size.FromInches(wide, high);
                    var face = CalendarCard.Draw(shown with { Pictures = days }, Style, cut, EvenShaper.Only);
                    face.SmallOpenings.Select(o => o.Place).ShouldBe(days.Order().Select(CalendarCard.PlaceOf));
                    var places = face.SmallOpenings.Select(o => o.At).ToList();
                    foreach (var at in places)
                    {
                        at.X.ShouldBeGreaterThanOrEqualTo(0);
                        (at.X + at.Width).ShouldBeLessThanOrEqualTo(face.Width);
                        (at.Y + at.Height).ShouldBeLessThanOrEqualTo(face.Height);
                        foreach (var figure in face.Runs.Where(r => int.TryParse(r.Text, out _)))
                        {
                            var (x, y) = (figure.X + (figure.SizePt * 0.2), figure.Baseline - 0.5);
                            (x > at.X && x < at.X + at.Width && y > at.Y && y < at.Y + at.Height).ShouldBeFalse();
                        }
                    }

                    for (var i = 0; i < places.Count; i++)
                    {
                        places.Skip(i + 1).All(o => Apart(places[i], o)).ShouldBeTrue();
                    }
                },
                iter: 500
            );

        static bool Apart(CardOpening a, CardOpening b) =>
            a.X + a.Width <= b.X || b.X + b.Width <= a.X || a.Y + a.Height <= b.Y || b.Y + b.Height <= a.Y;
    }
}
