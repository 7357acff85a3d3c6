using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Travel;

public sealed class TrackTests
{
    private static readonly AlbumCalendar Calendar = new()
    {
        Kind = AlbumKind.Trip,
        FirstDay = new LocalDate(2026, 6, 6),
    };

    private static readonly Instant Nine = Instant.FromUtc(2026, 6, 6, 9, 0);

    /// <summary>A degree of latitude at the equator is 110.574 km (WGS 84, handbook value).</summary>
    private const double MetresInDegree = 110_574;

    private static TrackPoint At(double metresNorth, double seconds, double? height = null) =>
        new(new GeoPoint(metresNorth / MetresInDegree, 3), height, Nine + Duration.FromSeconds(seconds));

    private static IEnumerable<TrackPoint> Walk(
        double from,
        double to,
        double begin,
        double metresASecond,
        double every = 10
    )
    {
        var seconds = Math.Abs(to - from) / metresASecond;
        for (var t = 0.0; t <= seconds; t += every)
        {
            yield return At(from + (Math.Sign(to - from) * metresASecond * t), begin + t);
        }
    }

    [Fact]
    public void Six_kilometres_with_a_ten_minute_stop_are_one_leg_of_six_kilometres()
    {
        var walk = Walk(0, 3_000, 0, 1.5)
            // A receiver that lies on a bench wanders by some metres.
            .Concat(Enumerable.Range(1, 60).Select(i => At(3_000 + (8 * Math.Sin(i)), 2_000 + (i * 10))))
            .Concat(Walk(3_000, 6_000, 2_610, 1.5))
            .ToList();
        var leg = TrackReading.Read([walk], Calendar).ShouldHaveSingleItem();
        leg.Length.Kilometres.ShouldBe(6.0, 0.06);
        leg.Stops.ShouldHaveSingleItem().Lasted.TotalMinutes.ShouldBe(10, 1.5);
        leg.Moving!.Value.TotalMinutes.ShouldBe(6_000 / 1.5 / 60, 2);
        leg.GuessMode().ShouldBe(TravelMode.Foot);
        (leg.Day, leg.Leaves).ShouldBe((new LocalDate(2026, 6, 6), new LocalTime(9, 0)));
    }

    [Fact]
    public void A_rest_of_an_hour_and_the_end_of_the_day_part_the_way_into_legs()
    {
        var morning = Walk(0, 2_000, 0, 2);
        var afternoon = Walk(2_000, 4_000, 5_000, 2);
        var nextDay = Walk(4_000, 5_000, 86_400, 2);
        var legs = TrackReading.Read(
            [
                [.. morning, .. afternoon, .. nextDay],
            ],
            Calendar
        );
        legs.Select(l => Math.Round(l.Length.Kilometres, 1)).ShouldBe([2.0, 2.0, 1.0]);
        legs.Select(l => l.Day)
            .ShouldBe([new LocalDate(2026, 6, 6), new LocalDate(2026, 6, 6), new LocalDate(2026, 6, 7)]);
    }

    [Fact]
    public void A_rest_is_seen_also_when_the_receiver_goes_on_recording_through_it()
    {
        var rest = Enumerable.Range(1, 400).Select(i => At(2_000 + (10 * Math.Sin(i)), 1_000 + (i * 10)));
        var legs = TrackReading.Read(
            [
                [.. Walk(0, 2_000, 0, 2), .. rest, .. Walk(2_000, 4_000, 5_010, 2)],
            ],
            Calendar
        );
        legs.Length.ShouldBe(2);
        legs.Sum(l => l.Length.Kilometres).ShouldBe(4, 0.15);
    }

    [Fact]
    public void A_tunnel_is_a_gap_and_its_straight_line_counts()
    {
        var leg = TrackReading
            .Read(
                [
                    [.. Walk(0, 5_000, 0, 20), .. Walk(15_000, 20_000, 750, 20)],
                ],
                Calendar
            )
            .ShouldHaveSingleItem();
        (leg.Gaps, leg.Dropped).ShouldBe((1, 0));
        leg.Length.Kilometres.ShouldBe(20, 0.05);
    }

    [Fact]
    public void A_point_on_another_continent_is_left_out()
    {
        var walk = Walk(0, 1_000, 0, 2).ToList();
        walk[20] = walk[20] with { Place = new GeoPoint(40, -70) };
        walk[0] = walk[0] with { Place = new GeoPoint(-50, 120) };
        var leg = TrackReading.Read([walk], Calendar).ShouldHaveSingleItem();
        (leg.Dropped, Math.Round(leg.Length.Kilometres, 1)).ShouldBe((2, 1.0));
    }

    /// <summary>Two hills of 100 m with a receiver that is off by up to 3 m: 200 m up, by hand.</summary>
    [Fact]
    public void Climbs_are_the_hills_and_not_the_noise()
    {
        var dice = new Random(5);
        var walk = Enumerable
            .Range(0, 400)
            .Select(i =>
                At(i * 15, i * 10, (100 * Math.Abs(Math.Sin(i * Math.PI / 200))) + (6 * dice.NextDouble()) - 3)
            );
        var leg = TrackReading
            .Read(
                [
                    [.. walk],
                ],
                Calendar
            )
            .ShouldHaveSingleItem();
        leg.ClimbMetres!.Value.ShouldBe(200, 12);
    }

    [Fact]
    public void Files_that_overlap_or_come_in_any_order_give_the_same_legs()
    {
        List<TrackPoint> walk = [.. Walk(0, 4_000, 0, 2)];
        var whole = TrackReading.Read([walk], Calendar);
        var parts = TrackReading.Read([walk[100..], walk[..150]], Calendar);
        parts.Select(l => TrackPath.Write(l.Way)).ShouldBe(whole.Select(l => TrackPath.Write(l.Way)));
    }

    [Fact]
    public void Nothing_one_point_and_nobody_moving_are_no_legs()
    {
        TrackReading.Read([], Calendar).ShouldBeEmpty();
        TrackReading
            .Read(
                [
                    [At(0, 0)],
                ],
                Calendar
            )
            .ShouldBeEmpty();
        TrackReading
            .Read(
                [
                    [At(0, 0), At(4, 600), At(1, 1_200)],
                ],
                Calendar
            )
            .ShouldBeEmpty();
        TrackReading
            .Read(
                [
                    [new TrackPoint(new GeoPoint(double.NaN, 400), null, Nine)],
                ],
                Calendar
            )
            .ShouldBeEmpty();
    }

    private static readonly Gen<TrackPoint[]> Ways = Gen.Select(
            Gen.Double[-0.002, 0.002],
            Gen.Double[-0.002, 0.002],
            Gen.Int[5, 60]
        )
        .Array[2, 120]
        .Select(steps =>
        {
            var (lat, lon, seconds) = (47.0, 3.0, 0);
            return steps
                .Select(s =>
                {
                    (lat, lon, seconds) = (lat + s.Item1, lon + s.Item2, seconds + s.Item3);
                    return new TrackPoint(new GeoPoint(lat, lon), null, Nine + Duration.FromSeconds(seconds));
                })
                .ToArray();
        });

    /// <summary>Hausdorff distance: no recorded point lies farther from the kept way than the tolerance.</summary>
    [Fact]
    public void A_simplified_way_stays_within_its_tolerance_at_every_moment() =>
        Ways.Sample(
            way =>
            {
                var kept = TrackPath.Simplify(way, new Distance(25), 1_000);
                kept[0].ShouldBe(way[0]);
                kept[^1].ShouldBe(way[^1]);
                return way.All(p =>
                    TrackPath.PlaceAt(kept, p.At!.Value) is { } at && Geodesic.Between(at, p.Place).Metres < 25.5
                );
            },
            iter: 300
        );

    [Fact]
    public void A_long_way_keeps_no_more_points_than_it_may()
    {
        var dice = new Random(3);
        var way = Enumerable.Range(0, 5_000).Select(i => At(dice.NextDouble() * 3_000, i)).ToList();
        TrackPath
            .Simplify(way, TrackPath.Tolerance, TrackPath.MostPoints)
            .Length.ShouldBeInRange(2, TrackPath.MostPoints);
    }

    [Fact]
    public void A_way_comes_back_from_its_text_to_a_metre_and_a_second() =>
        Ways.Sample(
            way =>
            {
                var back = TrackPath.Read(TrackPath.Write(way));
                return back.Length == way.Length
                    && back.Zip(way)
                        .All(p =>
                            Geodesic.Between(p.First.Place, p.Second.Place).Metres < 1 && p.First.At == p.Second.At
                        );
            },
            iter: 200
        );

    [Fact]
    public void Text_that_is_no_way_is_refused_and_never_hangs() =>
        Gen.String.Sample(text =>
        {
            try
            {
                TrackPath.Read(text);
            }
            catch (RuleException)
            {
                // As it should be.
            }
        });

    /// <summary>
    /// The example of the algorithm's own description: 38.5,-120.2 40.7,-120.95 43.252,-126.453 is
    /// <c>_p~iF~ps|U_ulLnnqC_mqNvxq`@</c> (encoded polyline algorithm format, worked example; from memory).
    /// </summary>
    [Fact]
    public void The_published_example_of_the_text_comes_out() =>
        TrackPath
            .Write([
                new TrackPoint(new GeoPoint(38.5, -120.2), null, null),
                new TrackPoint(new GeoPoint(40.7, -120.95), null, null),
                new TrackPoint(new GeoPoint(43.252, -126.453), null, null),
            ])
            .ShouldBe("P_p~iF~ps|U_ulLnnqC_mqNvxq`@");
}
