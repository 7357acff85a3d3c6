using System.Xml;
using NetTopologySuite.IO;
using NodaTime;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Travel;

/// <summary>Recorded stretches of one means of travel.</summary>
/// <param name="Mode">As the file names it; null when it does not.</param>
public sealed record RecordedStretches(TravelMode? Mode, IReadOnlyList<IReadOnlyList<TrackPoint>> Stretches);

/// <summary>
/// Reads GPX 1.1 (topografix.com/GPX/1/1): tracks with their segments, and routes as ways without times.
/// </summary>
public static class TrackFiles
{
    private static readonly (string Part, TravelMode Mode)[] Kinds =
    [
        ("walk", TravelMode.Foot),
        ("hik", TravelMode.Foot),
        ("run", TravelMode.Foot),
        ("foot", TravelMode.Foot),
        ("cycl", TravelMode.Bicycle),
        ("bik", TravelMode.Bicycle),
        ("boat", TravelMode.Boat),
        ("sail", TravelMode.Boat),
        ("canoe", TravelMode.Boat),
        ("kayak", TravelMode.Boat),
        ("ferry", TravelMode.Boat),
        ("rail", TravelMode.Train),
        ("train", TravelMode.Train),
        ("tram", TravelMode.Train),
        ("car", TravelMode.Car),
        ("driv", TravelMode.Car),
        ("bus", TravelMode.Car),
        ("plane", TravelMode.Plane),
        ("fly", TravelMode.Plane),
        ("flight", TravelMode.Plane),
    ];

    /// <summary>Throws <see cref="Core.RuleException"/> for a file that is no GPX or has no way in it.</summary>
    public static IReadOnlyList<RecordedStretches> Read(string name, byte[] bytes, CancellationToken cancel)
    {
        var reading = new ForeignReading(name, cancel);
        GpxFile file;
        try
        {
            using var stream = new MemoryStream(bytes);
            using var xml = XmlReader.Create(
                stream,
                new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null }
            );
            file = GpxFile.ReadFrom(
                xml,
                new GpxReaderSettings
                {
                    TimeZoneInfo = TimeZoneInfo.Utc,
                    DefaultCreatorIfMissing = "unknown",
                    IgnoreVersionAttribute = true,
                    IgnoreBadDateTime = true,
                    BuildWebLinksForVeryLongUriValues = true,
                    IgnoreUnexpectedChildrenOfTopLevelElement = true,
                }
            );
        }
        // The reader lets whatever a broken file causes come through.
        catch (Exception e)
            when (e
                    is XmlException
                        or FormatException
                        or ArgumentException
                        or InvalidOperationException
                        or OverflowException
            )
        {
            throw reading.Refuse($"is no GPX file that can be read ({FirstLine(e.Message)})");
        }

        var points = 0;
        var tracks = file
            .Tracks.Select(t => (t.Classification, Stretches: t.Segments.Select(s => s.Waypoints.AsEnumerable())))
            .Concat(
                file.Routes.Select(r => (r.Classification, Stretches: Enumerable.Repeat(r.Waypoints.AsEnumerable(), 1)))
            )
            .Select(t => (Mode: ModeOf(t.Classification), Stretches: t.Stretches.Select(Points).ToList()))
            .ToList();
        var read = tracks
            .GroupBy(t => t.Mode)
            .Select(g => new RecordedStretches(g.Key, [.. g.SelectMany(t => t.Stretches)]))
            .Where(g => g.Stretches.Any(s => s.Count > 1))
            .ToList();
        return read.Count > 0
            ? read
            : throw reading.Refuse(
                file.Waypoints.Count > 0 ? "has single points but no track or route" : "has no track or route"
            );

        IReadOnlyList<TrackPoint> Points(IEnumerable<GpxWaypoint> stretch) => [.. stretch.Select(Point)];

        TrackPoint Point(GpxWaypoint p)
        {
            if (++points > ForeignReading.MostTrackPoints)
            {
                throw reading.Refuse($"has more than {ForeignReading.MostTrackPoints:N0} points: split it");
            }

            if (points % 1_000 == 0)
            {
                reading.Check();
            }

            return new TrackPoint(
                new GeoPoint(p.Latitude, p.Longitude),
                p.ElevationInMeters,
                p.TimestampUtc is { } at ? Instant.FromDateTimeUtc(DateTime.SpecifyKind(at, DateTimeKind.Utc)) : null
            );
        }
    }

    private static TravelMode? ModeOf(string? kind) =>
        kind is null
            ? null
            : Kinds
                .Where(k => kind.Contains(k.Part, StringComparison.OrdinalIgnoreCase))
                .Select(k => (TravelMode?)k.Mode)
                .FirstOrDefault();

    private static string FirstLine(string message) => message.Split('\n', 2)[0].TrimEnd('.', '\r');
}
