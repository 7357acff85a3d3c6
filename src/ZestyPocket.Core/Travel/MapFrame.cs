using System.Collections.Immutable;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A box on a card, in points from its top left corner.</summary>
public readonly record struct MapBox(double X, double Y, double Width, double Height)
{
    public double Right => X + Width;

    public double Bottom => Y + Height;

    public bool Meets(MapBox other) => X < other.Right && other.X < Right && Y < other.Bottom && other.Y < Bottom;

    public bool Holds(MapBox other) => other.X >= X && other.Right <= Right && other.Y >= Y && other.Bottom <= Bottom;

    public bool Holds(double x, double y) => x >= X && x <= Right && y >= Y && y <= Bottom;

    public MapBox Grown(double by) => new(X - by, Y - by, Width + (2 * by), Height + (2 * by));
}

/// <summary>A point of a card, in points from its top left corner.</summary>
public readonly record struct CardPoint(double X, double Y);

/// <summary>A map in a box: which projection, how large, what lies where.</summary>
public sealed class MapFrame
{
    /// <summary>A map shows at least so much: nearer there is nothing on the outline.</summary>
    private static readonly Distance Narrowest = Distance.FromKilometres(5);

    /// <summary>Free all around the way, as a part of it.</summary>
    private const double Air = 0.16;

    private readonly double _left;
    private readonly double _top;

    private MapFrame(MapProjection projection, MapBox box, double scale, MapPoint middle)
    {
        (Projection, Box, PointsInRadius) = (projection, box, scale);
        (_left, _top) = (
            box.X + (box.Width / 2) - (middle.East * scale),
            box.Y + (box.Height / 2) + (middle.North * scale)
        );
        var farthest = new[] { (box.X, box.Y), (box.Right, box.Y), (box.X, box.Bottom), (box.Right, box.Bottom) }.Max(
            c => Math.Sqrt(Math.Pow((c.Item1 - _left) / scale, 2) + Math.Pow((_top - c.Item2) / scale, 2))
        );
        SeenDegrees = 2 * Math.Asin(Math.Min(1, farthest / 2)) * 180 / Math.PI;
    }

    public MapProjection Projection { get; }

    public MapBox Box { get; }

    /// <summary>How many points a radius of the Earth is, near the middle.</summary>
    public double PointsInRadius { get; }

    public bool IsWorld => Projection is WorldProjection;

    /// <summary>Nothing in the box lies farther from the middle of the projection, in degrees.</summary>
    public double SeenDegrees { get; }

    /// <summary>The frame that shows some places as large as they go, north up.</summary>
    public static MapFrame For(IReadOnlyCollection<GeoPoint> places, MapBox box)
    {
        var projection = MapProjection.For(places);
        var shown =
            projection is WorldProjection
                ?
                [
                    WorldProjection.At(0, -180),
                    WorldProjection.At(0, 180),
                    WorldProjection.At(90, 0),
                    WorldProjection.At(-90, 0),
                ]
                : places.Select(projection.Project).ToList();
        var (west, east) = (shown.Min(p => p.East), shown.Max(p => p.East));
        var (south, north) = (shown.Min(p => p.North), shown.Max(p => p.North));
        var air = projection is WorldProjection ? 1 : 1 + (2 * Air);
        var least = Narrowest.Metres / Geodesic.MeanRadius;
        var scale = Math.Min(
            box.Width / Math.Max(least, (east - west) * air),
            box.Height / Math.Max(least, (north - south) * air)
        );
        return new MapFrame(projection, box, scale, new MapPoint((west + east) / 2, (south + north) / 2));
    }

    public CardPoint At(GeoPoint place) => At(Projection.Project(place));

    public CardPoint At(MapPoint point) =>
        new(_left + (point.East * PointsInRadius), _top - (point.North * PointsInRadius));

    /// <summary>What of the box is globe: all of it, or the outline of a map of the world.</summary>
    public ImmutableArray<CardPoint> Globe() =>
        IsWorld
            ?
            [
                .. Enumerable.Range(-30, 61).Select(i => At(WorldProjection.At(3 * i, 180))),
                .. Enumerable.Range(-30, 61).Select(i => At(WorldProjection.At(-3 * i, -180))),
            ]
            : [new(Box.X, Box.Y), new(Box.Right, Box.Y), new(Box.Right, Box.Bottom), new(Box.X, Box.Bottom)];

    /// <summary>
    /// A way as lines inside the box; between points that lie far apart it follows the shortest way over the globe.
    /// </summary>
    public ImmutableArray<ImmutableArray<CardPoint>> Line(IEnumerable<GeoPoint> way)
    {
        ArgumentNullException.ThrowIfNull(way);
        var lines = ImmutableArray.CreateBuilder<ImmutableArray<CardPoint>>();
        var line = new List<CardPoint>();
        (GeoPoint Place, CardPoint At)? last = null;
        foreach (var place in way.Pairwise(Bow))
        {
            var at = At(place);
            if (last is { } before)
            {
                // On a map of the world a way over its edge goes on at the other.
                var jumps = IsWorld && Math.Abs(at.X - before.At.X) > Box.Width / 2;
                if (jumps || MapClip.Cut(Box, before.At, at) is not { } cut)
                {
                    Break();
                }
                else
                {
                    if (line.Count == 0 || line[^1] != cut.From)
                    {
                        Break();
                        line.Add(cut.From);
                    }

                    line.Add(cut.To);
                }
            }

            last = (place, at);
        }

        Break();
        return lines.ToImmutable();

        void Break()
        {
            if (line.Count > 1)
            {
                lines.Add([.. line]);
            }

            line.Clear();
        }
    }

    /// <summary>
    /// A round length (1, 2 or 5 of the unit and its tens) for a scale bar that fits, with the points it is long.
    /// </summary>
    /// <returns>How many units, and how long in points.</returns>
    public (double Units, double Points) ScaleBar(Distance unit, double longestPt)
    {
        var perUnit = unit.Metres / Geodesic.MeanRadius * PointsInRadius;
        var most = longestPt / perUnit;
        var ten = Math.Pow(10, Math.Floor(Math.Log10(most)));
        var units =
            ten
            * (
                most >= 5 * ten ? 5
                : most >= 2 * ten ? 2
                : 1
            );
        return (units, units * perUnit);
    }

    /// <summary>Places between two that lie more than a degree apart, on the great circle.</summary>
    private static IEnumerable<GeoPoint> Bow(GeoPoint from, GeoPoint to)
    {
        var degrees = MapProjection.DegreesBetween(from, to);
        var steps = (int)Math.Ceiling(degrees);
        if (degrees is <= 1 or >= 179.9)
        {
            return [to];
        }

        var (a, b, whole) = (MapProjection.Vector(from), MapProjection.Vector(to), Geodesic.Radians(degrees));
        return Enumerable
            .Range(1, steps)
            .Select(i =>
            {
                var part = (double)i / steps;
                var (p, q) = (Math.Sin((1 - part) * whole) / Math.Sin(whole), Math.Sin(part * whole) / Math.Sin(whole));
                var (x, y, z) = ((p * a.X) + (q * b.X), (p * a.Y) + (q * b.Y), (p * a.Z) + (q * b.Z));
                return i == steps
                    ? to
                    : new GeoPoint(
                        Math.Atan2(z, Math.Sqrt((x * x) + (y * y))) * 180 / Math.PI,
                        Math.Atan2(y, x) * 180 / Math.PI
                    );
            });
    }
}

/// <summary>Cuts lines and areas at the edges of a box.</summary>
public static class MapClip
{
    /// <summary>The first place, then for each pair what leads from one to the next.</summary>
    internal static IEnumerable<GeoPoint> Pairwise(
        this IEnumerable<GeoPoint> way,
        Func<GeoPoint, GeoPoint, IEnumerable<GeoPoint>> between
    )
    {
        GeoPoint? last = null;
        foreach (var place in way)
        {
            if (last is { } before)
            {
                foreach (var step in between(before, place))
                {
                    yield return step;
                }
            }
            else
            {
                yield return place;
            }

            last = place;
        }
    }

    /// <summary>
    /// The part of a stretch inside the box; null when none is. Source: Y.-D. Liang and B. A. Barsky, "A new
    /// concept and method for line clipping", ACM Transactions on Graphics 3 (1984).
    /// </summary>
    public static (CardPoint From, CardPoint To)? Cut(MapBox box, CardPoint a, CardPoint b)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var (from, to) = (0.0, 1.0);
        foreach (
            var (p, q) in new[]
            {
                (-dx, a.X - box.X),
                (dx, box.Right - a.X),
                (-dy, a.Y - box.Y),
                (dy, box.Bottom - a.Y),
            }
        )
        {
            if (p == 0)
            {
                if (q < 0)
                {
                    return null;
                }

                continue;
            }

            var r = q / p;
            (from, to) = p < 0 ? (Math.Max(from, r), to) : (from, Math.Min(to, r));
            if (from > to)
            {
                return null;
            }
        }

        return (from == 0 ? a : On(from), to == 1 ? b : On(to));

        CardPoint On(double part) => new(a.X + (part * dx), a.Y + (part * dy));
    }

    /// <summary>
    /// The part of an area inside the box. Source: I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping",
    /// Communications of the ACM 17 (1974).
    /// </summary>
    public static List<CardPoint> Cut(MapBox box, List<CardPoint> ring)
    {
        var left = Half(ring, p => p.X - box.X);
        var right = Half(left, p => box.Right - p.X);
        var top = Half(right, p => p.Y - box.Y);
        return Half(top, p => box.Bottom - p.Y);
    }

    /// <summary>The part of an area where a linear measure is not below nought.</summary>
    public static List<CardPoint> Half(List<CardPoint> ring, Func<CardPoint, double> inside)
    {
        ArgumentNullException.ThrowIfNull(ring);
        ArgumentNullException.ThrowIfNull(inside);
        var kept = new List<CardPoint>(ring.Count);
        for (var i = 0; i < ring.Count; i++)
        {
            var (before, now) = (ring[(i + ring.Count - 1) % ring.Count], ring[i]);
            var (was, isIn) = (inside(before), inside(now));
            if (was >= 0 != isIn >= 0)
            {
                var part = was / (was - isIn);
                kept.Add(new CardPoint(before.X + (part * (now.X - before.X)), before.Y + (part * (now.Y - before.Y))));
            }

            if (isIn >= 0)
            {
                kept.Add(now);
            }
        }

        return kept;
    }
}
