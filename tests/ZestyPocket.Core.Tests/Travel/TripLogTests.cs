using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Tests.Binder;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Travel.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Travel;

public sealed class TripLogTests
{
    private static readonly LocalDate Day = new(2026, 6, 6);

    private static WriteLeg Leg(string from, string to, TravelMode mode, string? length, Money? price = null) =>
        new(null, Day, from, to, mode, "09:30", "11:00", length, [], price, ["Otto"]) { Revision = 0 };

    private static TripLog Log(params AlbumEdit[] edits) => Desks.Days(9).After(edits).Trip;

    /// <summary>By hand: 12.4 + 3.1 km by boat and 850 m on foot are 16.35 km.</summary>
    [Fact]
    public void Totals_are_the_sums_of_the_legs()
    {
        var log = Log(
            Leg("Lock 3", "Basin", TravelMode.Boat, "12.4 km"),
            Leg("Basin", "Mill", TravelMode.Boat, "3,1 km"),
            Leg("Mill", "Church", TravelMode.Foot, "850 m"),
            Leg("Church", "Bakery", TravelMode.Foot, null)
        );
        var totals = TripTotals.Of(log, Day, Day);
        totals.Length.Kilometres.ShouldBe(16.35, 1e-9);
        totals
            .ByMode.Select(m => (m.Mode, Math.Round(m.Length.Kilometres, 3), m.Legs, m.AtLeast))
            .ShouldBe([(TravelMode.Foot, 0.85, 2, true), (TravelMode.Boat, 15.5, 2, false)]);
        totals.Lines(MeasureSystem.Millimetres, "EUR").ShouldBe(["at least 850 m on foot", "15.5 km by boat"]);
        totals.Companions.ShouldBe(["Otto"]);
        TripTotals.Of(log, Day.PlusDays(1), Day.PlusDays(9)).Length.ShouldBe(Distance.None);
    }

    /// <summary>
    /// By hand at 1 GBP = 1.17 EUR: 12.50 + 8.00 × 1.17 + 3.33 = 25.19 EUR; 900 JPY have no rate and are in no sum.
    /// </summary>
    [Fact]
    public void Money_is_summed_in_the_home_currency_and_what_has_no_rate_is_named()
    {
        var log = Log(
            Leg("Lock 3", "Basin", TravelMode.Boat, null, new Money(12.50m, "eur")),
            new WriteExpense(null, Day, ExpenseKind.Food, new Money(8, "GBP"), "Pies") { Revision = 0 },
            new WriteExpense(null, Day, ExpenseKind.Food, new Money(3.33m, "EUR"), "") { Revision = 0 },
            new WriteExpense(null, Day.PlusDays(1), ExpenseKind.Things, new Money(900, "JPY"), "") { Revision = 0 },
            new SetRates("EUR", [new CurrencyRate("GBP", 1.17m)]) { Revision = 0 }
        );
        var money = TripTotals.Of(log, Day, Day.PlusDays(1)).Money;
        money.Total.ShouldBe(25.19m);
        money.WithoutRate.ShouldBe([new Money(900, "JPY")]);
        TripTotals.Of(log, ExpenseKind.Food).Total.ShouldBe(12.69m);
        TripTotals.Of(log, ExpenseKind.Travel).Total.ShouldBe(12.50m);
    }

    [Theory]
    [InlineData("12.5 km", 12_500)]
    [InlineData("1,250 km", 1_250_000)]
    [InlineData("12,5 km", 12_500)]
    [InlineData("800 m", 800)]
    [InlineData("7 mi", 11_265.408)]
    [InlineData("3", 3_000)]
    public void Distances_are_read_as_keepers_write_them(string written, double metres) =>
        DistanceText.Parse(written, MeasureSystem.Millimetres).Metres.ShouldBe(metres, 0.001);

    [Theory]
    [InlineData("far")]
    [InlineData("-3 km")]
    [InlineData("3 parsecs")]
    [InlineData("1.2.3 km")]
    public void What_is_no_distance_is_refused(string written) =>
        Should.Throw<RuleException>(() => DistanceText.Parse(written, MeasureSystem.Millimetres));

    [Fact]
    public void A_leg_keeps_its_track_when_its_names_are_corrected_and_its_length_to_the_metre()
    {
        var way = TrackPath.Write([
            new TrackPoint(new GeoPoint(47.10, 2.90), null, null),
            new TrackPoint(new GeoPoint(47.26, 3.14), null, null),
        ]);
        var track = new TripLeg
        {
            Id = Guid.Empty,
            Day = Day,
            From = "Lock",
            To = "Basin",
            Mode = TravelMode.Boat,
            Length = new Distance(25_432.1),
            Source = LegSource.Track,
            Path = way,
            ClimbMetres = 31,
            Gaps = 2,
        };
        var desk = Desks.Days(9).After(new AddLegs([track]));
        var id = desk.Trip.Legs[0].Id;
        WriteLeg Write(string? length) =>
            new(id, Day, "Old lock", "Basin", TravelMode.Boat, null, null, length, ["Mill"], null, []) { Revision = 0 };

        var named = desk.After(Write("25.4 km")).Trip.Legs[0];
        (named.From, named.Length, named.Source, named.Path, named.Gaps).ShouldBe(
            ("Old lock", new Distance(25_432.1), LegSource.Track, way, 2)
        );
        var typed = desk.After(Write("30 km")).Trip.Legs[0];
        (typed.Length, typed.Source).ShouldBe((Distance.FromKilometres(30), LegSource.Typed));
        // Emptied, it is measured along its way again.
        var measured = desk.After(Write(null)).Trip.Legs[0];
        measured.Length!.Value.Kilometres.ShouldBe(25.4, 0.3);
        measured.Source.ShouldBe(LegSource.Track);
    }

    [Fact]
    public void A_track_that_comes_twice_counts_once()
    {
        var leg = new TripLeg
        {
            Id = Guid.Empty,
            Day = Day,
            From = "A",
            To = "B",
            Mode = TravelMode.Foot,
            Path = "P_p~iF~ps|U_ulLnnqC",
        };
        var desk = Desks.Days(9).After(new AddLegs([leg]));
        desk.Refused(new AddLegs([leg])).ShouldContain("already");
        desk.After(new AddLegs([leg, leg with { Day = Day.PlusDays(1) }])).Trip.Legs.Length.ShouldBe(2);
    }

    [Fact]
    public void What_makes_no_sense_is_refused_and_nothing_changes()
    {
        var desk = Desks.Days(9);
        desk.Refused(Leg(" ", "Basin", TravelMode.Boat, null)).ShouldContain("write both");
        desk.Refused(Leg("A", "B", TravelMode.Boat, "50,000 km")).ShouldContain("45,000");
        desk.Refused(Leg("A", "B", TravelMode.Boat, null, new Money(-1, "EUR"))).ShouldContain("sum");
        desk.Refused(Leg("A", "B", TravelMode.Boat, null, new Money(1, "Euro"))).ShouldContain("three letters");
        desk.Refused(new RemoveLeg(Guid.NewGuid()) { Revision = 0 }).ShouldContain("any more");
        desk.Refused(new NoteWeather([new NotedWeather(Day, 30, 20, "Sunny")]) { Revision = 0 }).ShouldContain("°C");
        desk.Refused(
                new AddLegs([
                    new TripLeg
                    {
                        Id = Guid.Empty,
                        Day = Day,
                        From = "A",
                        To = "B",
                        Mode = TravelMode.Foot,
                        Path = "what?",
                    },
                ])
            )
            .ShouldContain("cannot be read");
        desk.Refused(new SetRates("EUR", [new CurrencyRate("GBP", 1), new CurrencyRate("gbp", 2)]) { Revision = 0 })
            .ShouldContain("one rate");
    }

    [Fact]
    public void A_picture_without_a_position_lies_where_the_track_was_at_its_moment()
    {
        var nine = Instant.FromUtc(2026, 6, 6, 9, 0);
        var log = TripLog.Empty with
        {
            Legs =
            [
                new TripLeg
                {
                    Id = Guid.NewGuid(),
                    Day = Day,
                    From = "A",
                    To = "B",
                    Mode = TravelMode.Boat,
                    Length = Distance.FromKilometres(22),
                    Path = TrackPath.Write([
                        new TrackPoint(new GeoPoint(47.0, 3.0), null, nine),
                        new TrackPoint(new GeoPoint(47.2, 3.0), null, nine + Duration.FromHours(2)),
                    ]),
                },
            ],
        };
        var ways = new TripWays(log);
        ways.PlaceAt(nine + Duration.FromMinutes(30))!.Value.Latitude.ShouldBe(47.05, 1e-4);
        ways.PlaceAt(nine - Duration.FromMinutes(5))!.Value.Latitude.ShouldBe(47.0, 1e-4);
        ways.PlaceAt(nine - Duration.FromMinutes(15)).ShouldBeNull();
        var map = ways.MapOf(
            Day,
            Day,
            [new SeenAt(Day, nine + Duration.FromHours(1), null), new SeenAt(Day, null, null)],
            MeasureSystem.Millimetres
        );
        map.Stops.ShouldHaveSingleItem().Latitude.ShouldBe(47.1, 1e-4);
        map.Named.Select(n => n.Name).ShouldBe(["A", "B"]);
        map.Words.ShouldBe("22 km by boat");
    }
}
