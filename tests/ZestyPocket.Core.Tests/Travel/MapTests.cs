using System.Collections.Immutable;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Travel;

public sealed class MapTests
{
    private static readonly MapBox Box = new(10, 20, 300, 200);

    [Fact]
    public void Everything_of_a_way_lies_inside_its_map_also_at_a_pole_and_across_the_date_line()
    {
        GeoPoint[][] ways =
        [
            [new(78.2, 15.6), new(89.9, 0), new(71.3, -156.8)],
            [new(-36.85, 174.76), new(-17.5, -149.6)],
            [new(51.5, -0.1), new(35.7, 139.7), new(-33.9, 151.2), new(37.8, -122.4)],
            [new(47.1, 2.9)],
        ];
        foreach (var way in ways)
        {
            var frame = MapFrame.For(way, Box);
            foreach (var at in way.Select(frame.At))
            {
                Box.Holds(at.X, at.Y).ShouldBeTrue($"{at} in {frame.Projection}");
            }
        }

        MapFrame.For(ways[0], Box).IsWorld.ShouldBeFalse();
        MapFrame.For(ways[1], Box).IsWorld.ShouldBeFalse();
        MapFrame.For(ways[2], Box).IsWorld.ShouldBeTrue();
    }

    /// <summary>True to area: a square degree anywhere on a region's map covers what it covers on the globe.</summary>
    [Theory]
    [InlineData(0, 0)]
    [InlineData(55, 12)]
    [InlineData(89, 40)]
    public void A_map_is_true_to_area(double lat, double lon)
    {
        var projection = new RegionProjection(new GeoPoint(50, 10));
        var corners = new[] { (lat, lon), (lat, lon + 1), (lat + 1, lon + 1), (lat + 1, lon) }
            .Select(c => projection.Project(new GeoPoint(c.Item1, c.Item2)))
            .ToList();
        var area = 0.0;
        for (var i = 0; i < 4; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % 4]);
            area += ((a.East * b.North) - (b.East * a.North)) / 2;
        }

        var globe = Math.PI / 180 * (Math.Sin((lat + 1) * Math.PI / 180) - Math.Sin(lat * Math.PI / 180));
        Math.Abs(area).ShouldBe(globe, 0.01 * globe);
    }

    /// <summary>
    /// Land and sea of the world, by places everybody knows (facts of geography): what is filled where they lie.
    /// </summary>
    [Theory]
    [InlineData("Madrid and the Bay of Biscay", 40.4, -3.7, 45.5, -5.0)]
    [InlineData("Nairobi and the Indian Ocean", -1.3, 36.8, -4.0, 45.0)]
    [InlineData("the South Pole and the Southern Ocean", -89.0, 0.0, -62.0, -30.0)]
    [InlineData("Greenland and the Arctic Ocean", 72.0, -40.0, 86.0, 0.0)]
    [InlineData("Fiji's largest island and the sea east of it", -17.8, 178.0, -17.8, -177.0)]
    [InlineData("Tashkent and the Caspian Sea", 41.3, 69.3, 42.0, 50.5)]
    public void Land_is_land_and_sea_is_sea(string what, double landLat, double landLon, double seaLat, double seaLon)
    {
        var (land, sea) = (new GeoPoint(landLat, landLon), new GeoPoint(seaLat, seaLon));
        GeoPoint[][] maps =
        [
            [land, sea],
            [land, sea, new(60, 100), new(-40, -60), new(50, -120)],
        ];
        foreach (var map in maps)
        {
            var frame = MapFrame.For(map, Box);
            var areas = MapLand.Areas(frame, MapOutline.World);
            Winding(areas, frame.At(land)).ShouldNotBe(0, $"land of {what}, world: {frame.IsWorld}");
            Winding(areas, frame.At(sea)).ShouldBe(0, $"sea of {what}, world: {frame.IsWorld}");
        }
    }

    /// <summary>
    /// In the middle of an ocean opposite a continent, the map is sea; in the middle of a continent, land.
    /// </summary>
    [Fact]
    public void A_map_without_a_coast_is_all_sea_or_all_land()
    {
        foreach (
            var (place, isLand) in new[]
            {
                (new GeoPoint(-30, -120), false),
                (new GeoPoint(62, 98), true),
                (new GeoPoint(0, -150), false),
                (new GeoPoint(-80, 60), true),
            }
        )
        {
            var frame = MapFrame.For([place], Box);
            var areas = MapLand.Areas(frame, MapOutline.World);
            (Winding(areas, new CardPoint(60, 60)) != 0).ShouldBe(isLand, $"{place}");
            (Winding(areas, new CardPoint(250, 180)) != 0).ShouldBe(isLand, $"{place}");
        }
    }

    [Fact]
    public void The_nearest_place_is_named_and_none_in_the_middle_of_the_sea()
    {
        MapOutline
            .World.Nearest(new GeoPoint(47.18, 3.02), Distance.FromKilometres(15))!
            .Name.ShouldBe("La Charité-sur-Loire");
        MapOutline.World.Nearest(new GeoPoint(-30, -120), Distance.FromKilometres(15)).ShouldBeNull();
        MapOutline.World.Places.Length.ShouldBeGreaterThan(50_000);
        MapOutline.World.Rivers.Sum(r => r.Length).ShouldBeGreaterThan(3_000);
    }

    [Fact]
    public void On_five_hundred_random_maps_no_name_lies_over_another_a_mark_or_the_edge()
    {
        var dice = new Random(11);
        var placed = 0;
        for (var map = 0; map < 500; map++)
        {
            CardPoint Any() => new(10 + (300 * dice.NextDouble()), 20 + (200 * dice.NextDouble()));
            var wanted = Enumerable
                .Range(0, dice.Next(0, 60))
                .Select(i => new WantedLabel($"Place {i}", Any(), i % 4 == 0 ? 3 : 1, dice.Next(8, 90), 9, i % 4 == 0))
                .ToList();
            var marks = wanted.ConvertAll(w => new MapBox(w.At.X - 2, w.At.Y - 2, 4, 4));
            ImmutableArray<CardPoint> way = [Any(), Any(), Any()];
            var labels = MapLabels.Place(wanted, marks, [way], Box, 40);
            placed += labels.Length;
            for (var i = 0; i < labels.Length; i++)
            {
                Box.Holds(labels[i].Box).ShouldBeTrue();
                marks.Exists(m => m.Meets(labels[i].Box)).ShouldBeFalse();
                labels.Skip(i + 1).Any(o => o.Box.Meets(labels[i].Box)).ShouldBeFalse();
                (labels[i].Label.Must || !MapLabels.Crosses(way, labels[i].Box)).ShouldBeTrue();
            }
        }

        placed.ShouldBeGreaterThan(3_000);
    }

    [Fact]
    public void A_scale_bar_is_a_round_length_and_as_long_as_it_says()
    {
        var (west, east) = (new GeoPoint(47, 2.5), new GeoPoint(47, 3.5));
        var frame = MapFrame.For([west, east], Box);
        var (units, points) = frame.ScaleBar(Distance.FromKilometres(1), 100);
        (units is 1 or 2 or 5 or 10 or 20 or 50).ShouldBeTrue();
        points.ShouldBeInRange(40, 100);
        var apart = frame.At(east).X - frame.At(west).X;
        (apart / points * units).ShouldBe(Geodesic.Between(west, east).Kilometres, 0.3);
    }

    [Fact]
    public void A_way_of_a_thousand_kilometres_bows_with_the_globe()
    {
        var frame = MapFrame.For([new(60, -40), new(60, 40)], Box);
        var line = frame.Line([new(60, -40), new(60, 40)]).ShouldHaveSingleItem();
        line.Length.ShouldBeGreaterThan(20);
        // North of the straight line: up on the map.
        line[line.Length / 2].Y.ShouldBeLessThanOrEqualTo(line[0].Y);
    }

    private static int Winding(ImmutableArray<ImmutableArray<CardPoint>> areas, CardPoint at)
    {
        var winding = 0;
        foreach (var ring in areas)
        {
            for (var i = 0; i < ring.Length; i++)
            {
                var (a, b) = (ring[i], ring[(i + 1) % ring.Length]);
                var side = ((b.X - a.X) * (at.Y - a.Y)) - ((at.X - a.X) * (b.Y - a.Y));
                winding += a.Y <= at.Y ? (b.Y > at.Y && side > 0 ? 1 : 0) : (b.Y <= at.Y && side < 0 ? -1 : 0);
            }
        }

        return winding;
    }
}
