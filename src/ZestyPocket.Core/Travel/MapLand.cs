using System.Collections.Immutable;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>
/// The land inside a map's box as areas to be filled, and lines of the outline. Areas turn as their rings do, so that
/// lakes stay free when they are filled by winding.
/// </summary>
public static class MapLand
{
    /// <summary>Points of an outline that fall nearer together are one, in points.</summary>
    private const double Finest = 0.35;

    /// <summary>Islands and stretches that are smaller are left away, in points.</summary>
    private const double SmallestIsland = 0.8;

    /// <summary>Beyond the box a run is known by its ends; a little more than the box counts as in it.</summary>
    private const double MarginDegrees = 1;

    public static ImmutableArray<ImmutableArray<CardPoint>> Areas(MapFrame frame, MapOutline outline)
    {
        ArgumentNullException.ThrowIfNull(frame);
        ArgumentNullException.ThrowIfNull(outline);
        var areas = ImmutableArray.CreateBuilder<ImmutableArray<CardPoint>>();
        foreach (var ring in outline.Land)
        {
            foreach (var area in frame.IsWorld ? WorldRings(frame, ring) : RegionRings(frame, ring))
            {
                var cut = Thin(MapClip.Cut(frame.Box, area));
                if (cut.Length > 2)
                {
                    areas.Add(cut);
                }
            }
        }

        return areas.ToImmutable();
    }

    /// <summary>Coasts, borders or rivers as lines inside the box.</summary>
    public static ImmutableArray<ImmutableArray<CardPoint>> Lines(MapFrame frame, IEnumerable<OutlineLine> lines)
    {
        ArgumentNullException.ThrowIfNull(frame);
        ArgumentNullException.ThrowIfNull(lines);
        var seen = ImmutableArray.CreateBuilder<ImmutableArray<CardPoint>>();
        foreach (var line in lines.Where(l => !IsSpeck(frame, l)))
        {
            foreach (var stretch in Stretches(frame, line))
            {
                seen.AddRange(frame.Line(Coarse(frame, stretch)).Select(l => Thin([.. l])).Where(l => l.Length > 1));
            }
        }

        return seen.ToImmutable();
    }

    /// <summary>What of a line lies near the box; each stretch begins with the last point before it.</summary>
    private static IEnumerable<List<GeoPoint>> Stretches(MapFrame frame, OutlineLine line)
    {
        var stretch = new List<GeoPoint>();
        GeoPoint? last = null;
        foreach (var run in line.Runs)
        {
            if (IsSeen(frame, run))
            {
                if (stretch.Count == 0 && last is { } before)
                {
                    stretch.Add(before);
                }

                stretch.AddRange(run.Points);
            }
            else if (stretch.Count > 0)
            {
                stretch.Add(run.Points[0]);
                yield return stretch;
                stretch = [];
            }

            last = run.Points[^1];
        }

        if (stretch.Count > 0)
        {
            yield return stretch;
        }
    }

    private static bool IsSeen(MapFrame frame, OutlineRun run) =>
        frame.IsWorld
        || MapProjection.DegreesBetween(frame.Projection.Middle, run.Middle)
            <= frame.SeenDegrees + run.Degrees + MarginDegrees;

    /// <summary>So small that it would be less than a dot.</summary>
    private static bool IsSpeck(MapFrame frame, OutlineLine line) =>
        line.Runs.Length == 1 && 2 * Geodesic.Radians(line.Runs[0].Degrees) * frame.PointsInRadius < SmallestIsland;

    /// <summary>On a map of the world most points of a coast fall together before they are projected.</summary>
    private static IEnumerable<GeoPoint> Coarse(MapFrame frame, IEnumerable<GeoPoint> points)
    {
        var least = Finest / frame.PointsInRadius * 180 / Math.PI;
        GeoPoint? kept = null;
        GeoPoint? left = null;
        foreach (var point in points)
        {
            left = point;
            if (
                kept is not { } last
                || Math.Abs(point.Latitude - last.Latitude) >= least
                || Math.Abs(Math.IEEERemainder(point.Longitude - last.Longitude, 360))
                    * Math.Cos(Geodesic.Radians(point.Latitude))
                    >= least
            )
            {
                yield return point;
                kept = point;
                left = null;
            }
        }

        if (left is { } end)
        {
            yield return end;
        }
    }

    private static IEnumerable<List<CardPoint>> RegionRings(MapFrame frame, OutlineLine ring)
    {
        if (ring.Runs.Length == 1 && (!IsSeen(frame, ring.Runs[0]) || IsSpeck(frame, ring)))
        {
            // A small island far away, or too small to be seen.
            yield break;
        }

        var plane = new List<MapPoint>();
        foreach (var run in ring.Runs)
        {
            IEnumerable<GeoPoint> shown = IsSeen(frame, run)
                ? Coarse(frame, run.Points)
                : [run.Points[0], run.Points[^1]];
            foreach (var point in shown.Select(frame.Projection.Project))
            {
                if (plane.Count > 0)
                {
                    plane.AddRange(AroundTheEdge(plane[^1], point));
                }

                plane.Add(point);
            }
        }

        yield return [.. plane.Select(frame.At)];
        // A ring that goes against the clock around the middle has its land outside: the rest of the globe.
        if (Turns(plane) > Math.PI)
        {
            yield return
            [
                .. Enumerable
                    .Range(0, 72)
                    .Select(i => -i * Math.Tau / 72)
                    .Select(a => frame.At(Edge(RegionProjection.Edge * 1.01, a))),
            ];
        }
    }

    /// <summary>
    /// Points between two that lie on the far side of the globe: a straight line between them would cross the map.
    /// </summary>
    private static IEnumerable<MapPoint> AroundTheEdge(MapPoint from, MapPoint to)
    {
        var (r1, r2) = (Radius(from), Radius(to));
        var (a1, turn) = (Angle(from), Math.IEEERemainder(Angle(to) - Angle(from), Math.Tau));
        var steps = (int)(Math.Abs(turn) / (Math.PI / 12));
        return r1 < 1 || r2 < 1
            ? []
            : Enumerable
                .Range(1, steps)
                .Select(i => (double)i / (steps + 1))
                .Select(part => Edge(r1 + ((r2 - r1) * part), a1 + (turn * part)));
    }

    private static double Turns(List<MapPoint> plane)
    {
        var turned = 0.0;
        for (var i = 0; i < plane.Count; i++)
        {
            turned += Math.IEEERemainder(Angle(plane[i]) - Angle(plane[(i + plane.Count - 1) % plane.Count]), Math.Tau);
        }

        return turned;
    }

    private static double Radius(MapPoint p) => Math.Sqrt((p.East * p.East) + (p.North * p.North));

    private static double Angle(MapPoint p) => Math.Atan2(p.North, p.East);

    private static MapPoint Edge(double radius, double angle) =>
        new(radius * Math.Cos(angle), radius * Math.Sin(angle));

    /// <summary>A ring three times, a turn of the globe apart, each cut at the edges of the map.</summary>
    private static IEnumerable<List<CardPoint>> WorldRings(MapFrame frame, OutlineLine ring)
    {
        if (IsSpeck(frame, ring))
        {
            yield break;
        }

        var flat = new List<CardPoint>();
        var east = double.NaN;
        foreach (var point in Coarse(frame, ring.Points))
        {
            var here = point.Longitude - frame.Projection.Middle.Longitude;
            east = double.IsNaN(east) ? Math.IEEERemainder(here, 360) : east + Math.IEEERemainder(here - east, 360);
            flat.Add(new CardPoint(east, point.Latitude));
        }

        if (flat.Count < 4)
        {
            yield break;
        }

        if (Math.Abs(flat[^1].X - flat[0].X) > 180)
        {
            // It goes around a pole, which is land.
            var pole = flat.Average(p => p.Y) > 0 ? 90.0 : -90.0;
            var (begin, end) = (flat[0].X, flat[^1].X);
            flat.Add(new CardPoint(end, pole));
            flat.Add(new CardPoint(begin, pole));
        }

        foreach (var turn in new[] { -360, 0, 360 })
        {
            var moved = flat.ConvertAll(p => p with { X = p.X + turn });
            var cut = MapClip.Half(MapClip.Half(moved, p => p.X + 180), p => 180 - p.X);
            if (cut.Count > 2)
            {
                yield return [.. AlongEdges(cut).Select(p => frame.At(WorldProjection.At(p.Y, p.X)))];
            }
        }
    }

    /// <summary>The edges of the map are bowed: a stretch along one has points every three degrees.</summary>
    private static IEnumerable<CardPoint> AlongEdges(List<CardPoint> ring)
    {
        for (var i = 0; i < ring.Count; i++)
        {
            var (from, to) = (ring[(i + ring.Count - 1) % ring.Count], ring[i]);
            var steps =
                Math.Abs(from.X - to.X) < 1e-9 && Math.Abs(to.X) > 179.999 ? (int)(Math.Abs(to.Y - from.Y) / 3) : 0;
            for (var step = 1; step <= steps; step++)
            {
                yield return new CardPoint(to.X, from.Y + ((to.Y - from.Y) * step / (steps + 1)));
            }

            yield return to;
        }
    }

    private static ImmutableArray<CardPoint> Thin(List<CardPoint> points)
    {
        var kept = ImmutableArray.CreateBuilder<CardPoint>();
        for (var i = 0; i < points.Count; i++)
        {
            if (
                kept.Count == 0
                || i == points.Count - 1
                || Math.Abs(points[i].X - kept[^1].X) + Math.Abs(points[i].Y - kept[^1].Y) >= Finest
            )
            {
                kept.Add(points[i]);
            }
        }

        return kept.ToImmutable();
    }
}
