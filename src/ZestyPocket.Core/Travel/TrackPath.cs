using System.Collections.Immutable;
using System.Text;
using NodaTime;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A point of a recorded way.</summary>
/// <param name="ElevationMetres">Above the sea; null when the file does not say.</param>
/// <param name="At">When; null in a way that was drawn.</param>
public readonly record struct TrackPoint(GeoPoint Place, double? ElevationMetres, Instant? At);

/// <summary>
/// The way of a leg as it is kept: as few points as hold it to a few metres, with their times. It is written as text:
/// differences of hundred-thousandths of a degree and of seconds, in signs of the encoded polyline algorithm (common
/// practice for ways in web formats).
/// </summary>
public static class TrackPath
{
    /// <summary>As many points as a leg keeps at most.</summary>
    public const int MostPoints = 400;

    /// <summary>A kept way leaves the recorded one by no more, unless that takes too many points.</summary>
    public static readonly Distance Tolerance = new(8);

    private const double Unit = 1e5;

    /// <summary>
    /// The fewest points of a way that hold it to the tolerance, in space and, where it has times, at each moment
    /// (Douglas and Peucker 1973; with synchronous distance as Meratnia and de By 2004). The tolerance doubles until
    /// there are few enough.
    /// </summary>
    public static ImmutableArray<TrackPoint> Simplify(IReadOnlyList<TrackPoint> way, Distance tolerance, int most)
    {
        ArgumentNullException.ThrowIfNull(way);
        if (way.Count <= 2)
        {
            return [.. way];
        }

        for (var metres = tolerance.Metres; ; metres *= 2)
        {
            var kept = Kept(way, metres);
            if (kept.Count <= Math.Max(2, most))
            {
                return [.. kept.Select(i => way[i])];
            }
        }
    }

    /// <summary>The way as text. Times, where every point has one, are kept to the second.</summary>
    public static string Write(IReadOnlyList<TrackPoint> way)
    {
        ArgumentNullException.ThrowIfNull(way);
        var text = new StringBuilder();
        var timed = way.Count > 0 && way.All(p => p.At is not null);
        text.Append(timed ? 'T' : 'P');
        var (lat, lon, second) = (0L, 0L, 0L);
        foreach (var point in way)
        {
            var (y, x) = (Steps(point.Place.Latitude), Steps(point.Place.Longitude));
            Append(text, y - lat);
            Append(text, x - lon);
            (lat, lon) = (y, x);
            if (timed)
            {
                var at = point.At!.Value.ToUnixTimeSeconds();
                Append(text, at - second);
                second = at;
            }
        }

        return text.ToString();
    }

    /// <summary>Reads what <see cref="Write"/> wrote. Throws <see cref="RuleException"/> for any other text.</summary>
    public static ImmutableArray<TrackPoint> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length == 0)
        {
            return [];
        }

        var timed = text[0] switch
        {
            'T' => true,
            'P' => false,
            _ => throw Unreadable(),
        };
        var points = ImmutableArray.CreateBuilder<TrackPoint>();
        var (lat, lon, second) = (0L, 0L, 0L);
        for (var at = 1; at < text.Length; )
        {
            lat += Next(text, ref at);
            lon += Next(text, ref at);
            second += timed ? Next(text, ref at) : 0;
            if (Math.Abs(lat) > 90 * Unit || Math.Abs(lon) > 360 * Unit || Math.Abs(second) > 100_000_000_000)
            {
                throw Unreadable();
            }

            points.Add(
                new TrackPoint(
                    new GeoPoint(lat / Unit, lon / Unit),
                    null,
                    timed ? Instant.FromUnixTimeSeconds(second) : null
                )
            );
        }

        return points.ToImmutable();
    }

    /// <summary>
    /// Where a timed way was at a moment, in a straight line between two points; null before it, after it and in a way
    /// without times.
    /// </summary>
    public static GeoPoint? PlaceAt(IReadOnlyList<TrackPoint> way, Instant at)
    {
        ArgumentNullException.ThrowIfNull(way);
        for (var i = 1; i < way.Count; i++)
        {
            if (way[i - 1].At is { } before && way[i].At is { } after && before <= at && at <= after)
            {
                var whole = (after - before).TotalSeconds;
                return Between(way[i - 1].Place, way[i].Place, whole > 0 ? (at - before).TotalSeconds / whole : 0);
            }
        }

        return null;
    }

    private static GeoPoint Between(GeoPoint a, GeoPoint b, double part)
    {
        var east = Math.IEEERemainder(b.Longitude - a.Longitude, 360);
        return new GeoPoint(
            a.Latitude + ((b.Latitude - a.Latitude) * part),
            Math.IEEERemainder(a.Longitude + (east * part), 360)
        );
    }

    private static List<int> Kept(IReadOnlyList<TrackPoint> way, double metres)
    {
        var keep = new bool[way.Count];
        (keep[0], keep[^1]) = (true, true);
        var open = new Stack<(int From, int To)>();
        open.Push((0, way.Count - 1));
        while (open.TryPop(out var part))
        {
            var (farthest, worst) = (-1, metres);
            for (var i = part.From + 1; i < part.To; i++)
            {
                var off = Off(way[part.From], way[part.To], way[i]);
                if (off > worst)
                {
                    (farthest, worst) = (i, off);
                }
            }

            if (farthest >= 0)
            {
                keep[farthest] = true;
                open.Push((part.From, farthest));
                open.Push((farthest, part.To));
            }
        }

        return [.. Enumerable.Range(0, way.Count).Where(i => keep[i])];
    }

    /// <summary>
    /// How far a point lies off a straight stretch, in metres; at its own moment where there are times.
    /// </summary>
    private static double Off(TrackPoint from, TrackPoint to, TrackPoint point)
    {
        // A stretch is short beside the Earth: on a plane with a degree of longitude as long as it is there.
        var scale = Math.Cos(Geodesic.Radians(point.Place.Latitude));
        var (bx, by) = Flat(from.Place, to.Place, scale);
        var (px, py) = Flat(from.Place, point.Place, scale);
        double part;
        if (from.At is { } start && to.At is { } end && point.At is { } at && end > start)
        {
            part = (at - start).TotalSeconds / (end - start).TotalSeconds;
        }
        else
        {
            var length = (bx * bx) + (by * by);
            part = length > 0 ? Math.Clamp(((px * bx) + (py * by)) / length, 0, 1) : 0;
        }

        return Math.Sqrt(Math.Pow(px - (part * bx), 2) + Math.Pow(py - (part * by), 2));
    }

    private static (double X, double Y) Flat(GeoPoint origin, GeoPoint point, double scale)
    {
        const double MetresInDegree = Geodesic.MeanRadius * Math.PI / 180;
        return (
            Math.IEEERemainder(point.Longitude - origin.Longitude, 360) * scale * MetresInDegree,
            (point.Latitude - origin.Latitude) * MetresInDegree
        );
    }

    private static long Steps(double degrees) => (long)Math.Round(degrees * Unit);

    private static void Append(StringBuilder text, long number)
    {
        var left = (ulong)((number << 1) ^ (number >> 63));
        for (; left >= 0x20; left >>= 5)
        {
            text.Append((char)((0x20 | (left & 0x1f)) + 63));
        }

        text.Append((char)(left + 63));
    }

    private static long Next(string text, ref int at)
    {
        ulong number = 0;
        for (var shift = 0; ; shift += 5)
        {
            if (at >= text.Length || shift > 60 || text[at] is < '?' or > '~')
            {
                throw Unreadable();
            }

            var part = (ulong)(text[at++] - 63);
            number |= (part & 0x1f) << shift;
            if (part < 0x20)
            {
                return (long)(number >> 1) ^ -(long)(number & 1);
            }
        }
    }

    private static RuleException Unreadable() => new("The way of a leg cannot be read. Nothing was changed.");
}
