using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Tape;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Gathering;

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

/// <summary>
/// One way to set a camera's clock right, on the album's revision: what the doubt proposes, a correction in seconds, a
/// zone its clock stayed on, two pictures of one moment, or the true time of one picture.
/// </summary>
public sealed record CorrectCameraRequest(
    int Revision,
    string Camera,
    bool? AcceptDoubt = null,
    long? CorrectionSeconds = null,
    string? LeftOnZone = null,
    Guid? WrongPhotoId = null,
    Guid? RightPhotoId = null,
    string? TrueTime = null
);

/// <summary>Cameras and their clocks.</summary>
public static class CameraEndpoints
{
    /// <summary>More than a year is no clock error.</summary>
    private const long MostSeconds = 400L * 86_400;

    public static void MapCameras(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}/cameras").WithTags("Gathering");

        group
            .MapGet(
                "",
                async (Guid id, AlbumReader albums, ZestyContext db, CancellationToken cancel) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var calendar = album.ReadCalendar();
                    var pictures = await RecordedAsync(db, id, cancel);
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
                                        Words(known),
                                        known.LeftOnZone,
                                        doubt?.Reason,
                                        doubt?.Proposed is { } proposed ? Remedy(known, proposed) : null
                                    );
                                }),
                        ]
                    );
                }
            )
            .WithName("listCameras")
            .WithProblems();

        group
            .MapPut(
                "",
                async (
                    Guid id,
                    CorrectCameraRequest request,
                    AlbumReader albums,
                    ZestyContext db,
                    TapeEditor tape,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var calendar = album.ReadCalendar();
                    var clock = await ClockAsync(db, album, calendar, request, cancel);
                    var done = clock.IsPlain
                        ? $"Took the correction of {Name(request.Camera)} back"
                        : $"Set the clock of {Name(request.Camera)}: {Words(clock)}";
                    return await tape.CountAnewAsync(
                        id,
                        request.Revision,
                        c =>
                            c with
                            {
                                Cameras =
                                [
                                    .. c
                                        .Cameras.Where(k => k.Camera != clock.Camera)
                                        .Append(clock)
                                        .Where(k => !k.IsPlain),
                                ],
                            },
                        done,
                        cancel
                    );
                }
            )
            .WithName("correctCamera")
            .WithProblems();
    }

    private static async Task<CameraClock> ClockAsync(
        ZestyContext db,
        Album album,
        AlbumCalendar calendar,
        CorrectCameraRequest request,
        CancellationToken cancel
    )
    {
        var known = calendar.ClockOf(request.Camera);
        if (request.AcceptDoubt == true)
        {
            return ClockSuspicion
                    .Find(await RecordedAsync(db, album.Id, cancel), calendar)
                    .FirstOrDefault(d => d.Camera == request.Camera)
                    ?.Proposed
                ?? throw new RuleException(
                    $"The clock of {Name(request.Camera)} is not doubted any more. Nothing was changed."
                );
        }

        if (request.LeftOnZone is { } zone)
        {
            return known with { LeftOnZone = zone.Length == 0 ? null : Zones.Find(zone).Id };
        }

        if (request.WrongPhotoId is { } wrongId && request.RightPhotoId is { } rightId)
        {
            var (wrong, right) = (
                await PhotoAsync(db, album.Id, wrongId, cancel),
                await PhotoAsync(db, album.Id, rightId, cancel)
            );
            if (wrong.Camera == right.Camera)
            {
                throw new RuleException(
                    "Both pictures are of one camera: they cannot correct each other. Choose one of another camera. "
                        + "Nothing was changed."
                );
            }

            return known with
            {
                LeftOnZone = null,
                CorrectionSeconds = PhotoTime.CorrectionFromPair(Recorded(wrong), right.Taken ?? Recorded(right)),
            };
        }

        if (request.WrongPhotoId is { } oneId && request.TrueTime is { } text)
        {
            var truth = LocalDateTimePattern.ExtendedIso.Parse(text.Length == 16 ? text + ":00" : text)
                is { Success: true, Value: var moment }
                ? moment
                : throw new RuleException(
                    $"“{text}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was changed."
                );
            return known with
            {
                LeftOnZone = null,
                CorrectionSeconds = PhotoTime.CorrectionFromPair(
                    Recorded(await PhotoAsync(db, album.Id, oneId, cancel)),
                    truth
                ),
            };
        }

        return request.CorrectionSeconds is { } seconds && Math.Abs(seconds) <= MostSeconds
            ? known with
            {
                CorrectionSeconds = seconds,
            }
            : throw new RuleException("A correction lies between nothing and a year. Nothing was changed.");
    }

    private static async Task<List<RecordedTime>> RecordedAsync(
        ZestyContext db,
        Guid albumId,
        CancellationToken cancel
    ) =>
        (
            await db
                .Photos.Where(p => p.AlbumId == albumId && p.Recorded != null && p.TimeSource == TimeSource.File)
                .Select(p => new
                {
                    p.Recorded,
                    p.OffsetMinutes,
                    p.Camera,
                })
                .ToListAsync(cancel)
        ).ConvertAll(p => new RecordedTime(p.Recorded, p.OffsetMinutes, p.Camera));

    private static async Task<Photo> PhotoAsync(ZestyContext db, Guid albumId, Guid id, CancellationToken cancel) =>
        await db.Photos.AsNoTracking().SingleOrDefaultAsync(p => p.AlbumId == albumId && p.Id == id, cancel)
        ?? throw new MissingException("The photo");

    private static LocalDateTime Recorded(Photo photo) =>
        photo.Recorded
        ?? throw new RuleException(
            $"{photo.FileName} has no recorded time, so it cannot tell anything about a clock. Choose another "
                + "picture. Nothing was changed."
        );

    /// <summary>What one click would do, as an order.</summary>
    private static string Remedy(CameraClock known, CameraClock proposed) =>
        proposed.LeftOnZone is { } zone && known.LeftOnZone != zone
            ? $"Read its clock as {zone} time"
            : $"Set it {Words(Between(known, proposed))}";

    private static CameraClock Between(CameraClock known, CameraClock proposed) =>
        known with
        {
            CorrectionSeconds = proposed.CorrectionSeconds - known.CorrectionSeconds,
            LeftOnZone = null,
        };

    private static string Name(string camera) => camera.Length == 0 ? "files without a camera's name" : camera;

    private static string? Words(CameraClock clock)
    {
        if (clock.IsPlain)
        {
            return null;
        }

        var (seconds, parts) = (Math.Abs(clock.CorrectionSeconds), new List<string>());
        foreach (var (unit, size) in new[] { ("day", 86_400L), ("hour", 3_600L), ("minute", 60L), ("second", 1L) })
        {
            var count = seconds / size;
            seconds %= size;
            if (count > 0)
            {
                parts.Add($"{count} {unit}{(count == 1 ? string.Empty : "s")}");
            }
        }

        var shift =
            parts.Count == 0
                ? null
                : $"{string.Join(' ', parts)} {(clock.CorrectionSeconds > 0 ? "later" : "earlier")}";
        return clock.LeftOnZone is null ? shift
            : shift is null ? $"stayed on {clock.LeftOnZone}"
            : $"stayed on {clock.LeftOnZone}, {shift}";
    }
}
