using System.Text.Json;
using CsCheck;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Travel;

public sealed class GeodesicTests
{
    private static readonly Gen<GeoPoint> Places = Gen.Select(
        Gen.Double[-90, 90],
        Gen.Double[-180, 180],
        (lat, lon) => new GeoPoint(lat, lon)
    );

    private sealed record Oracle(double[] Metres, double[][][] Points);

    /// <summary>
    /// Vincenty's own test line (c) on the International ellipsoid is not for WGS 84; this one is the national mapping
    /// agency of Australia's worked example, Flinders Peak to Buninyong, on GRS 80, which differs from WGS 84 by less
    /// than a tenth of a millimetre: 54,972.271 m (Geocentric Datum of Australia Technical Manual, chapter 4; from
    /// memory).
    /// </summary>
    [Fact]
    public void Flinders_Peak_lies_54972_271_metres_from_Buninyong()
    {
        var flinders = new GeoPoint(-(37 + (57 / 60.0) + (3.72030 / 3600)), 144 + (25 / 60.0) + (29.52440 / 3600));
        var buninyong = new GeoPoint(-(37 + (39 / 60.0) + (10.15610 / 3600)), 143 + (55 / 60.0) + (35.38390 / 3600));
        Geodesic.Between(flinders, buninyong).Metres.ShouldBe(54_972.271, 0.001);
    }

    /// <summary>A quarter of a meridian of WGS 84 is 10,001,965.729 m (common practice, handbook value).</summary>
    [Fact]
    public void From_the_equator_to_the_pole_it_is_a_quarter_of_a_meridian() =>
        Geodesic.Between(new GeoPoint(0, 12), new GeoPoint(90, 100)).Metres.ShouldBe(10_001_965.729, 0.001);

    /// <summary>
    /// The package geographiclib-geodesic 2.2 (C. Karney's algorithms, accurate to nanometres): to ten metres between
    /// nearly opposite places, to a millimetre between all others. Projections against d3-geo 3.1.
    /// </summary>
    [Fact]
    public async Task Ways_and_projections_are_those_of_other_libraries()
    {
        var dice = new Random(17);
        GeoPoint Any() => new(Math.Asin((2 * dice.NextDouble()) - 1) * 180 / Math.PI, (360 * dice.NextDouble()) - 180);
        var pairs = Enumerable
            .Range(0, 3_000)
            .Select(i =>
            {
                var a = Any();
                return i % 3 == 0 ? (a, Any())
                    : i % 3 == 1
                        ? (
                            a,
                            new GeoPoint(
                                Math.Clamp(a.Latitude + dice.NextDouble(), -90, 90),
                                a.Longitude + dice.NextDouble()
                            )
                        )
                    // Nearly opposite, where the series fails.
                    : (a, new GeoPoint(-a.Latitude + (dice.NextDouble() * 0.4), a.Longitude + 180 + dice.NextDouble()));
            })
            .ToList();
        var maps = Enumerable
            .Range(0, 40)
            .Select(i =>
                (
                    Middle: i % 4 == 0 ? (GeoPoint?)null : Any(),
                    Places: Enumerable.Range(0, 50).Select(_ => Any()).ToList()
                )
            )
            .ToList();
        var answer = JsonSerializer.Deserialize<Oracle>(
            await Node.RunAsync(
                "ZestyPocket.Core.Tests/Travel/travel-oracle.mjs",
                JsonSerializer.Serialize(
                    new
                    {
                        pairs = pairs.Select(p =>
                            new[] { p.Item1.Latitude, p.Item1.Longitude, p.Item2.Latitude, p.Item2.Longitude }
                        ),
                        maps = maps.Select(m => new
                        {
                            middle = m.Middle is { } c ? new[] { c.Latitude, c.Longitude } : null,
                            places = m.Places.Select(p => new[] { p.Latitude, p.Longitude }),
                        }),
                    }
                )
            ),
            JsonSerializerOptions.Web
        )!;
        var exact = 0;
        for (var i = 0; i < pairs.Count; i++)
        {
            var (ours, theirs) = (Geodesic.Between(pairs[i].Item1, pairs[i].Item2).Metres, answer.Metres[i]);
            Math.Abs(ours - theirs).ShouldBeLessThan(10, $"{pairs[i]}");
            exact += Math.Abs(ours - theirs) < 0.001 ? 1 : 0;
        }

        exact.ShouldBeGreaterThanOrEqualTo(2_000);
        foreach (var (map, theirs) in maps.Zip(answer.Points))
        {
            MapProjection projection = map.Middle is { } middle ? new RegionProjection(middle) : new WorldProjection(0);
            foreach (var (place, point) in map.Places.Zip(theirs))
            {
                var ours = projection.Project(place);
                ours.East.ShouldBe(point[0], 1e-6, $"{place} around {map.Middle}");
                ours.North.ShouldBe(-point[1], 1e-6, $"{place} around {map.Middle}");
            }
        }
    }

    /// <summary>
    /// Snyder's numerical example for the Lambert azimuthal equal-area projection (USGS Professional Paper 1395, page
    /// 332): a sphere of radius 3 around 40° N, 100° W; 20° S, 100° E lies at x −4.2339303, y 4.0257775.
    /// </summary>
    [Fact]
    public void Snyders_example_comes_out()
    {
        var point = new RegionProjection(new GeoPoint(40, -100)).Project(new GeoPoint(-20, 100));
        (3 * point.East).ShouldBe(-4.2339303, 1e-7);
        (3 * point.North).ShouldBe(4.0257775, 1e-7);
    }

    [Fact]
    public void A_way_there_is_as_long_as_the_way_back_and_no_detour_is_shorter() =>
        Gen.Select(Places, Places, Places)
            .Sample(
                (a, b, c) =>
                {
                    var straight = Geodesic.Between(a, b).Metres;
                    return Math.Abs(straight - Geodesic.Between(b, a).Metres) < 0.01
                        && straight <= 1.002 * (Geodesic.Between(a, c) + Geodesic.Between(c, b)).Metres + 0.01;
                },
                iter: 2_000
            );

    /// <summary>
    /// Between opposite places the shortest way leads over a pole: half a meridian, 20,003,931.459 m (twice the quarter
    /// above; geographiclib-geodesic 2.2 says the same).
    /// </summary>
    [Theory]
    [InlineData(0, 0)]
    [InlineData(0, -7e-15)]
    [InlineData(36.5, 12)]
    [InlineData(90, 0)]
    public void To_the_place_exactly_opposite_it_is_half_a_meridian(double latitude, double longitude) =>
        Geodesic
            .Between(new GeoPoint(latitude, longitude), new GeoPoint(-latitude, longitude - 180))
            .Metres.ShouldBe(20_003_931.459, 0.01);

    [Fact]
    public void No_way_at_all_is_nought_long_also_at_a_pole_and_across_the_date_line()
    {
        Geodesic.Between(new GeoPoint(90, 0), new GeoPoint(90, 120)).Metres.ShouldBe(0, 1e-6);
        Geodesic.Between(new GeoPoint(10, 180), new GeoPoint(10, -180)).Metres.ShouldBe(0, 1e-6);
        Geodesic.Between(new GeoPoint(0, 179.5), new GeoPoint(0, -179.5)).Metres.ShouldBe(111_319.491, 0.01);
    }
}
