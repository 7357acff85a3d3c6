using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>The way as the pictures show it.</summary>
public sealed class SketchMapTests
{
    private static readonly Gen<GeoPoint> Anywhere = Gen.Select(
        Gen.Double[-89, 89],
        Gen.Double[-180, 180],
        (lat, lon) => new GeoPoint(lat, lon)
    );

    [Fact]
    public void A_degree_of_a_great_circle_is_sixty_nautical_miles_within_their_rounding()
    {
        // A nautical mile is 1.852 km by definition (Monaco 1929) and was meant as a minute of arc: 111.12 km to the
        // degree.
        SketchMap.Kilometres(new(0, 0), new(1, 0)).ShouldBe(111.12, 0.15);
        SketchMap.Kilometres(new(0, 0), new(0, 1)).ShouldBe(111.12, 0.15);
        // Half around the globe, whatever the way: pi times the IUGG mean radius.
        SketchMap.Kilometres(new(0, 0), new(0, 180)).ShouldBe(Math.PI * 6371.0088, 1e-6);
        SketchMap.Kilometres(new(60, 0), new(60, 1)).ShouldBe(111.195 / 2, 0.01);
    }

    [Fact]
    public void Distances_are_the_same_both_ways_and_no_detour_is_shorter()
    {
        Gen.Select(Anywhere, Anywhere, Anywhere)
            .Sample(
                (a, b, c) =>
                {
                    SketchMap.Kilometres(a, b).ShouldBe(SketchMap.Kilometres(b, a), 1e-6);
                    (SketchMap.Kilometres(a, c) + SketchMap.Kilometres(c, b)).ShouldBeGreaterThanOrEqualTo(
                        SketchMap.Kilometres(a, b) - 1e-6
                    );
                }
            );
    }

    [Fact]
    public void Every_point_lies_on_its_card_with_north_up()
    {
        Gen.Select(
                Gen.Double[-60, 60],
                Gen.Double[-180, 180],
                Gen.Select(Gen.Double[-2, 2], Gen.Double[-2, 2]).Array[2, 12]
            )
            .Sample(
                (lat, lon, offsets) =>
                {
                    var points = offsets.Select(o => new GeoPoint(lat + o.Item1, Wrapped(lon + o.Item2))).ToList();
                    var placed = SketchMap.Fit(points, 10, 20, 100, 50);
                    placed.ShouldAllBe(p =>
                        p.X >= 10 - 1e-6 && p.X <= 110 + 1e-6 && p.Y >= 20 - 1e-6 && p.Y <= 70 + 1e-6
                    );
                    for (var i = 1; i < points.Count; i++)
                    {
                        if (Math.Abs(offsets[i].Item1 - offsets[0].Item1) > 1e-5)
                        {
                            (placed[i].Y < placed[0].Y).ShouldBe(offsets[i].Item1 > offsets[0].Item1);
                        }

                        if (Math.Abs(offsets[i].Item2 - offsets[0].Item2) > 1e-5)
                        {
                            (placed[i].X > placed[0].X).ShouldBe(
                                offsets[i].Item2 > offsets[0].Item2,
                                "also over the date line"
                            );
                        }
                    }
                }
            );

        static double Wrapped(double longitude) =>
            longitude > 180 ? longitude - 360
            : longitude < -180 ? longitude + 360
            : longitude;
    }

    [Fact]
    public void No_place_one_place_and_a_walk_are_told_apart()
    {
        var style = BuiltInCardStyles.Find("peel-rows", CardKind.Map);
        Text(SketchMap.Card([], style, Size.FromInches(3, 4), EvenShaper.Only, "The way", null))
            .ShouldContain("No picture says where");
        Text(SketchMap.Card([new(52, 0), new(52, 0)], style, Size.FromInches(3, 4), EvenShaper.Only, "The way", null))
            .ShouldContain("In one place");
        var walk = SketchMap.Card(
            [new(52, 0), new(52.1, 0), new(52, 0)],
            style,
            Size.FromInches(3, 4),
            EvenShaper.Only,
            "The way",
            null
        );
        Text(walk).ShouldContain("At least 22 km");
        walk.Rules.Count(r => r.Thickness == 1.25 && r.X1 == r.X2).ShouldBe(2, "there and back");
        SketchMap.Words([new(52, 0), new(52.01, 0)]).ShouldBe("At least 1.1 km");
        SketchMap.Words([]).ShouldBeNull();

        static string Text(CardFace face) => string.Join(' ', face.Runs.Select(r => r.Text));
    }
}
