using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Dates;

/// <summary>A camera of an album: what it took, what is known of its clock, and whether that is doubted.</summary>
/// <param name="Camera">Its name; empty for files that name none.</param>
/// <param name="Photos">Pictures with a recorded time.</param>
/// <param name="WithZone">Of these, with a zone in the file.</param>
/// <param name="Span">From when to when, as corrected.</param>
/// <param name="CorrectionSeconds">Added to every recorded time.</param>
/// <param name="CorrectionWords">The same in words; null when nothing is corrected.</param>
/// <param name="LeftOnZone">The zone its clock stayed on; null when it showed local time.</param>
/// <param name="Doubt">Why its clock is doubted; null when it is not.</param>
/// <param name="DoubtRemedy">What one click would do about it; null when only the keeper can know.</param>
public sealed record CameraView(
    string Camera,
    int Photos,
    int WithZone,
    string Span,
    long CorrectionSeconds,
    string? CorrectionWords,
    string? LeftOnZone,
    string? Doubt,
    string? DoubtRemedy
);

public sealed record CamerasView(int Revision, string HomeZone, IReadOnlyList<CameraView> Cameras);

/// <summary>Cameras and their clocks.</summary>
public static class CameraEndpoints
{
    public static void MapCameras(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}/cameras").WithTags("Dates");

        group
            .MapGet(
                "",
                async (Guid id, AlbumReader albums, ZestyContext db, CancellationToken cancel) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var calendar = album.ReadCalendar();
                    var pictures = await AlbumEditor.RecordedTimesAsync(db, id, cancel);
                    var doubts = ClockSuspicion.Find(pictures, calendar).ToDictionary(d => d.Camera);
                    var clock = new AlbumClock(calendar);
                    return new CamerasView(
                        album.Revision,
                        calendar.HomeZone,
                        [
                            .. pictures
                                .GroupBy(p => p.Camera ?? string.Empty)
                                .OrderByDescending(g => g.Count())
                                .ThenBy(g => g.Key, StringComparer.Ordinal)
                                .Select(g =>
                                {
                                    var known = calendar.ClockOf(g.Key);
                                    var doubt = doubts.GetValueOrDefault(g.Key);
                                    var days = g.Select(p => clock.CaptureOf(p)!.Local.Date).ToList();
                                    return new CameraView(
                                        g.Key,
                                        g.Count(),
                                        g.Count(p => p.OffsetMinutes is not null),
                                        SpanLabel.Of(days.Min(), days.Max(), calendar.Style.Order),
                                        known.CorrectionSeconds,
                                        known.Words,
                                        known.LeftOnZone,
                                        doubt?.Reason,
                                        doubt?.Proposed is { } proposed ? known.RemedyTo(proposed) : null
                                    );
                                }),
                        ]
                    );
                }
            )
            .WithName("listCameras")
            .WithProblems();
    }
}
