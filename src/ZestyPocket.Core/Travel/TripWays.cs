using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A picture in time and, where it knows, in place.</summary>
/// <param name="At">Null when no clock says.</param>
public readonly record struct SeenAt(LocalDate? Day, Instant? At, GeoPoint? Place);

/// <summary>The ways of a trip log with their points, read once.</summary>
public sealed class TripWays
{
    /// <summary>A picture taken so shortly before or after a track lies at its end.</summary>
    private static readonly Duration Near = Duration.FromMinutes(10);

    private readonly ImmutableArray<(TripLeg Leg, ImmutableArray<TrackPoint> Way)> _legs;

    public TripWays(TripLog log)
    {
        ArgumentNullException.ThrowIfNull(log);
        Log = log;
        _legs = [.. log.Legs.Select(l => (l, TrackPath.Read(l.Path)))];
    }

    public TripLog Log { get; }

    /// <summary>Where the traveller was at a moment, as a track of any leg says; null when none does.</summary>
    public GeoPoint? PlaceAt(Instant at)
    {
        (Duration Away, GeoPoint Place)? near = null;
        foreach (var (_, way) in _legs)
        {
            if (way.Length == 0 || way[0].At is not { } first || way[^1].At is not { } last)
            {
                continue;
            }

            if (first <= at && at <= last)
            {
                return TrackPath.PlaceAt(way, at);
            }

            var (away, end) = at < first ? (first - at, way[0]) : (at - last, way[^1]);
            if (away <= Near && (near is null || away < near.Value.Away))
            {
                near = (away, end.Place);
            }
        }

        return near?.Place;
    }

    /// <summary>
    /// The map of some days: their legs with a known way, the pictures, and the names of where the legs begin and end.
    /// Days without such a leg go from picture to picture.
    /// </summary>
    public TripMap MapOf(LocalDate first, LocalDate last, IEnumerable<SeenAt> pictures, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        var legs = _legs.Where(l => l.Leg.Day >= first && l.Leg.Day <= last).ToList();
        var drawn = legs.FindAll(l => l.Way.Length > 1);
        var tracked = drawn.Select(l => l.Leg.Day).ToHashSet();
        var seen = pictures
            .Select(p => (p.Day, Place: p.Place ?? (p.At is { } at ? PlaceAt(at) : null)))
            .Where(p => p.Place is not null)
            .Select(p => (p.Day, Place: p.Place!.Value))
            .ToList();
        var loose = seen.FindAll(p => p.Day is not { } day || !tracked.Contains(day)).ConvertAll(p => p.Place);
        ImmutableArray<MapWay> ways =
        [
            .. drawn.Select(l => new MapWay([.. l.Way.Select(p => p.Place)], l.Leg.Source == LegSource.Pictures)),
            .. loose.Count > 1 ? [new MapWay([.. loose], true)] : Array.Empty<MapWay>(),
        ];
        var named = drawn
            .SelectMany(l => new[] { (l.Leg.From, l.Way[0].Place), (l.Leg.To, l.Way[^1].Place) })
            .Where(n => !NamedPlace.IsNear(n.Item1))
            .DistinctBy(n => n.Item1)
            .ToImmutableArray();
        var totals = TripTotals.Of(Log, first, last);
        var words =
            totals.Length > Distance.None
                ? string.Join(
                    " · ",
                    totals.ByMode.Where(m => m.Length > Distance.None).Select(m => WordsOf(m, measures))
                )
            : ways.IsEmpty ? (seen.Count == 0 ? "No picture says where it was taken." : "In one place")
            : $"At least {DistanceText.Show(SumOf(ways), measures)}";
        return new TripMap(ways, [.. seen.Select(p => p.Place).Distinct()], named, words);
    }

    /// <summary>The middle of where a day's pictures and ways were; null when nothing says.</summary>
    public GeoPoint? MiddleOf(LocalDate day, IEnumerable<SeenAt> pictures) =>
        MiddleOfAll(pictures.Where(p => p.Day == day))
        ?? Middle(_legs.Where(l => l.Leg.Day == day).SelectMany(l => l.Way).Select(p => p.Place));

    /// <summary>The middle of where pictures were taken, so that one stray position does not move it.</summary>
    public GeoPoint? MiddleOfAll(IEnumerable<SeenAt> pictures) =>
        Middle(pictures.Select(p => p.Place ?? (p.At is { } at ? PlaceAt(at) : null)).OfType<GeoPoint>());

    private static Distance SumOf(IEnumerable<MapWay> ways) =>
        ways.Aggregate(Distance.None, (sum, w) => sum + Geodesic.Along(w.Points));

    private static GeoPoint? Middle(IEnumerable<GeoPoint> all)
    {
        var places = all.ToList();
        return places.Count == 0
            ? null
            : new GeoPoint(
                places.Select(p => p.Latitude).Order().ElementAt(places.Count / 2),
                places.Select(p => p.Longitude).Order().ElementAt(places.Count / 2)
            );
    }

    private static string WordsOf(ModeTotal mode, MeasureSystem measures) =>
        $"{(mode.AtLeast ? "at least " : "")}{DistanceText.Show(mode.Length, measures)} {DistanceText.By(mode.Mode)}";
}
