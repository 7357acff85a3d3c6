using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A stop on the way.</summary>
public readonly record struct TrackStop(GeoPoint Place, Duration Lasted);

/// <summary>A stretch of a recorded way between two long rests.</summary>
/// <param name="Day">Of the album; null in a way without times.</param>
/// <param name="Leaves">By the clock of the place.</param>
/// <param name="Moving">Without the stops; null in a way without times.</param>
/// <param name="Gaps">Stretches where the track was lost: straight lines.</param>
/// <param name="Dropped">Points that no traveller could have been at.</param>
public sealed record TrackLeg(
    LocalDate? Day,
    LocalTime? Leaves,
    LocalTime? Arrives,
    Distance Length,
    Duration? Moving,
    double? ClimbMetres,
    int Gaps,
    int Dropped,
    ImmutableArray<TrackStop> Stops,
    ImmutableArray<TrackPoint> Way
)
{
    public GeoPoint Start => Way[0].Place;

    public GeoPoint End => Way[^1].Place;

    /// <summary>
    /// By what, as the speed says: a walk stays under 7 km/h, a bicycle under 30, trains and cars under 300. Common
    /// practice; a boat is as slow as a walk or a bicycle, so it is never guessed.
    /// </summary>
    public TravelMode GuessMode() =>
        Moving is not { TotalHours: > 0 } moving
            ? TravelMode.Foot
            : (Length.Kilometres / moving.TotalHours) switch
            {
                < 7 => TravelMode.Foot,
                < 30 => TravelMode.Bicycle,
                < 300 => TravelMode.Car,
                _ => TravelMode.Plane,
            };
}

/// <summary>
/// Makes legs of recorded points. A rest of three quarters of an hour ends a leg, and so does the end of the album's
/// day; a rest of five minutes within 60 m is a stop; a hole of more than five minutes in which the traveller came more
/// than 300 m further is a gap. Common practice with receivers that wander by some metres.
/// </summary>
public static class TrackReading
{
    /// <summary>More is no leg but a file that something else wrote.</summary>
    public const int MostPoints = 500_000;

    private static readonly Duration Rest = Duration.FromMinutes(45);
    private static readonly Duration Stop = Duration.FromMinutes(5);
    private static readonly Duration Hole = Duration.FromMinutes(5);
    private static readonly Distance StopRadius = new(60);
    private static readonly Distance HoleLength = new(300);

    /// <summary>Steps that are shorter are the receiver's wandering, not the traveller's way.</summary>
    private static readonly Distance Step = new(5);

    /// <summary>Nothing a keeper travels in is faster, in metres a second: 1,260 km/h.</summary>
    private const double Fastest = 350;

    /// <summary>Ups and downs that are smaller are the receiver's.</summary>
    private const double SmallestClimbMetres = 8;

    /// <summary>Reads stretches of points. Times sort what has them; what has none stays in its order.</summary>
    /// <param name="stretches">Every recorded stretch, of one file or several.</param>
    public static ImmutableArray<TrackLeg> Read(
        IReadOnlyList<IReadOnlyList<TrackPoint>> stretches,
        AlbumCalendar calendar
    )
    {
        ArgumentNullException.ThrowIfNull(stretches);
        ArgumentNullException.ThrowIfNull(calendar);
        var travel = calendar.Travel;
        var timed = stretches
            .SelectMany(s => s)
            .Where(p => p.At is not null && IsPlace(p.Place))
            .OrderBy(p => p.At)
            .DistinctBy(p => p.At)
            .ToList();
        var legs = Parts(WithoutLeaps(timed, out var dropped), travel, calendar.CutOff)
            .Select((part, i) => Timed(part, travel, calendar.CutOff, i == 0 ? dropped : 0))
            .OfType<TrackLeg>()
            .ToList();
        var drawn = stretches
            .Select(s => s.Where(p => p.At is null && IsPlace(p.Place)).ToList())
            .Where(s => s.Count > 1)
            .Select(Drawn);
        return [.. legs, .. drawn];
    }

    private static bool IsPlace(GeoPoint p) =>
        p.Latitude is >= -90 and <= 90 && p.Longitude is >= -180 and <= 360 && p is not { Latitude: 0, Longitude: 0 };

    /// <summary>Leaves out points that lie where nobody could have come to in the time.</summary>
    private static List<TrackPoint> WithoutLeaps(List<TrackPoint> points, out int dropped)
    {
        var kept = new List<TrackPoint>(points.Count);
        dropped = 0;
        for (var i = 0; i < points.Count; i++)
        {
            var next = i + 1 < points.Count ? points[i + 1] : (TrackPoint?)null;
            // The first point has nothing before it: it is judged by the two after it.
            var before = kept.Count > 0 ? kept[^1] : (TrackPoint?)null;
            var isLeap = before is { } b
                ? Speed(b, points[i]) > Fastest && (next is not { } n || Speed(b, n) <= Fastest)
                : next is { } second
                    && Speed(points[i], second) > Fastest
                    && i + 2 < points.Count
                    && Speed(second, points[i + 2]) <= Fastest;
            if (isLeap)
            {
                dropped++;
            }
            else
            {
                kept.Add(points[i]);
            }
        }

        return kept;

        static double Speed(TrackPoint a, TrackPoint b) =>
            Geodesic.OnSphere(a.Place, b.Place).Metres / Math.Max(1, (b.At!.Value - a.At!.Value).TotalSeconds);
    }

    private static IEnumerable<List<TrackPoint>> Parts(List<TrackPoint> points, TravelDays travel, LocalTime cutOff)
    {
        var part = new List<TrackPoint>();
        // Where the traveller has stayed near since, to see a rest also in a track that goes on through it.
        var anchor = 0;
        foreach (var point in points)
        {
            if (part.Count > 0)
            {
                var rested = RestedSince(part, ref anchor, point);
                if (rested is { } from || DayOf(part[^1]) != DayOf(point))
                {
                    var end = rested ?? part.Count - 1;
                    yield return part.GetRange(0, end + 1);
                    part = [part[^1]];
                    anchor = 0;
                    if (point.At - part[0].At > Rest)
                    {
                        // Back after hours somewhere else: how one came there is not known.
                        part.Clear();
                    }
                }
            }

            part.Add(point);
        }

        yield return part;

        LocalDate DayOf(TrackPoint p) =>
            AlbumDay.Of(p.At!.Value.InZone(travel.ZoneAt(p.At!.Value)).LocalDateTime, cutOff);
    }

    /// <summary>The point at which a rest began that ends now; null while there is none.</summary>
    private static int? RestedSince(List<TrackPoint> part, ref int anchor, TrackPoint point)
    {
        while (
            anchor < part.Count
            && part[anchor].At is { } at
            && Geodesic.OnSphere(part[anchor].Place, part[^1].Place) > StopRadius
            && at < part[^1].At
        )
        {
            anchor++;
        }

        var leaves = Geodesic.OnSphere(part[anchor].Place, point.Place) > StopRadius;
        var lasted = part[^1].At - part[anchor].At;
        var away = point.At - part[^1].At;
        return away > Rest ? part.Count - 1
            : leaves && lasted > Rest ? anchor
            : null;
    }

    private static TrackLeg? Timed(List<TrackPoint> points, TravelDays travel, LocalTime cutOff, int dropped)
    {
        if (points.Count < 2)
        {
            return null;
        }

        var (stops, isMoving) = StopsOf(points);
        var (length, gaps) = LengthOf(points, isMoving);
        if (length < StopRadius)
        {
            return null;
        }

        var moving = Duration.Zero;
        for (var i = 1; i < points.Count; i++)
        {
            moving += isMoving[i] ? points[i].At!.Value - points[i - 1].At!.Value : Duration.Zero;
        }

        var (first, last) = (LocalOf(points[0]), LocalOf(points[^1]));
        return new TrackLeg(
            AlbumDay.Of(first, cutOff),
            Minute(first),
            Minute(last),
            length,
            moving,
            Climb(points),
            gaps,
            dropped,
            stops,
            TrackPath.Simplify(points, TrackPath.Tolerance, TrackPath.MostPoints)
        );

        LocalDateTime LocalOf(TrackPoint p) => p.At!.Value.InZone(travel.ZoneAt(p.At!.Value)).LocalDateTime;

        static LocalTime Minute(LocalDateTime at) => new(at.Hour, at.Minute);
    }

    private static TrackLeg Drawn(List<TrackPoint> points) =>
        new(
            null,
            null,
            null,
            Geodesic.Along(points.Select(p => p.Place)),
            null,
            Climb(points),
            0,
            0,
            [],
            TrackPath.Simplify(points, TrackPath.Tolerance, TrackPath.MostPoints)
        );

    /// <summary>
    /// Rests of five minutes within 60 m, and for each point whether the traveller came to it moving.
    /// </summary>
    private static (ImmutableArray<TrackStop> Stops, bool[] IsMoving) StopsOf(List<TrackPoint> points)
    {
        var stops = ImmutableArray.CreateBuilder<TrackStop>();
        var moving = Enumerable.Repeat(true, points.Count).ToArray();
        for (var from = 0; from < points.Count; )
        {
            var to = from;
            while (to + 1 < points.Count && Geodesic.OnSphere(points[from].Place, points[to + 1].Place) <= StopRadius)
            {
                to++;
            }

            var lasted = points[to].At!.Value - points[from].At!.Value;
            if (lasted < Stop)
            {
                from++;
                continue;
            }

            Array.Fill(moving, false, from + 1, to - from);
            // Where a leg begins and ends one does not stop on the way.
            if (from > 0 && to < points.Count - 1)
            {
                stops.Add(new TrackStop(points[(from + to) / 2].Place, lasted));
            }

            from = to + 1;
        }

        return (stops.ToImmutable(), moving);
    }

    private static (Distance Length, int Gaps) LengthOf(List<TrackPoint> points, bool[] isMoving)
    {
        var (length, gaps, last) = (Distance.None, 0, points[0]);
        for (var i = 1; i < points.Count; i++)
        {
            var step = Geodesic.Between(last.Place, points[i].Place);
            var away = points[i].At!.Value - points[i - 1].At!.Value;
            if (away > Hole && step > HoleLength)
            {
                gaps++;
            }

            if (!isMoving[i])
            {
                // A rest may wander, but it leads from where it began to where it ended.
                continue;
            }

            if (step >= Step || i == points.Count - 1)
            {
                length += step;
                last = points[i];
            }
        }

        return (length, gaps);
    }

    /// <summary>
    /// Metres up. Each height is the median of five, so that one bad fix counts for nothing; then only rises of more
    /// than a threshold count. Null when fewer than half the points have a height.
    /// </summary>
    private static double? Climb(List<TrackPoint> points)
    {
        var heights = points.Select(p => p.ElevationMetres).OfType<double>().Where(double.IsFinite).ToList();
        if (heights.Count < 2 || heights.Count * 2 < points.Count)
        {
            return null;
        }

        var (up, low, high) = (0.0, double.NaN, double.NaN);
        for (var i = 0; i < heights.Count; i++)
        {
            var from = Math.Max(0, i - 2);
            var near = heights.GetRange(from, Math.Min(heights.Count, i + 3) - from).Order().ToList();
            var height = near[near.Count / 2];
            if (double.IsNaN(low))
            {
                (low, high) = (height, height);
            }
            else if (height > high)
            {
                high = height;
            }
            else if (high - height >= SmallestClimbMetres)
            {
                up += high - low >= SmallestClimbMetres ? high - low : 0;
                (low, high) = (height, height);
            }
            else if (height < low)
            {
                (low, high) = (height, height);
            }
        }

        return up + (high - low >= SmallestClimbMetres ? high - low : 0);
    }
}
