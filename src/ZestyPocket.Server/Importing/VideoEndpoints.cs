using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>A video that pictures are taken from; positions are milliseconds from its beginning.</summary>
/// <param name="Started">When it was begun, in words; null when the file does not say.</param>
/// <param name="Proposed">Frames that are sharp and differ from each other.</param>
/// <param name="Taken">Frames that were taken.</param>
/// <param name="Kept">The video itself is kept with the album.</param>
/// <param name="GoesOn">The day it goes by itself, in words; null when it stays.</param>
public sealed record VideoView(
    Guid Id,
    string FileName,
    long Bytes,
    int Width,
    int Height,
    long Milliseconds,
    double FramesPerSecond,
    string? Started,
    string? Camera,
    IReadOnlyList<long> Proposed,
    IReadOnlyList<long> Taken,
    bool Kept,
    string? GoesOn
);

/// <summary>Frames to be taken, as positions in milliseconds.</summary>
public sealed record TakeFramesRequest(IReadOnlyList<long> Positions);

public sealed record KeepVideoRequest(bool Keep);

/// <summary>Videos: their frames, taking pictures from them, and letting them go.</summary>
public static class VideoEndpoints
{
    /// <summary>Most frames that are taken at once.</summary>
    private const int MostAtOnce = 24;

    public static void MapVideos(this IEndpointRouteBuilder api)
    {
        ArgumentNullException.ThrowIfNull(api);
        var group = api.MapGroup("").WithTags("Importing");

        group
            .MapGet(
                "/albums/{albumId:guid}/videos",
                async (
                    Guid albumId,
                    AlbumReader albums,
                    ZestyContext db,
                    ZestySettings settings,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    var rows = await db
                        .Videos.AsNoTracking()
                        .Where(v => v.AlbumId == albumId)
                        .OrderBy(v => v.AddedAt)
                        .ThenBy(v => v.Id)
                        .ToListAsync(cancel);
                    return rows.Select(v => View(v, album, settings)).ToList();
                }
            )
            .WithName("listVideos")
            .WithProblems();

        group
            .MapGet(
                "/videos/{id:guid}/frame",
                async (
                    Guid id,
                    [FromQuery] long at,
                    [FromQuery] int? side,
                    ZestyContext db,
                    AlbumReader albums,
                    IPhotoVault vault,
                    PictureCache pictures,
                    HttpContext http,
                    CancellationToken cancel
                ) =>
                {
                    var (video, _) = await RequireAsync(id, db, albums, cancel);
                    var (position, longest) = (Within(video, at), Math.Clamp(side ?? 640, 160, 1920));
                    var path = await pictures.PaintedAsync(
                        $"frame {video.Sha256} {position} {longest}",
                        () => FrameOf(vault.PathOf(video.Sha256), position, longest),
                        cancel
                    );
                    http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
                    return Results.File(Path.GetFullPath(path), "image/jpeg");
                }
            )
            .WithName("getVideoFrame")
            .Produces(StatusCodes.Status200OK, contentType: "image/jpeg")
            .WithProblems();

        group
            .MapPost(
                "/videos/{id:guid}/frames",
                async (
                    Guid id,
                    TakeFramesRequest request,
                    ZestyContext db,
                    AlbumReader albums,
                    IPhotoVault vault,
                    PhotoImport import,
                    CancellationToken cancel
                ) =>
                {
                    var (video, album) = await RequireAsync(id, db, albums, cancel);
                    if (request.Positions.Count is 0 or > MostAtOnce)
                    {
                        throw new RuleException($"Choose 1 to {MostAtOnce} frames. Nothing was taken.");
                    }

                    var outcomes = new List<ImportOutcome>();
                    foreach (var at in request.Positions.Select(p => Within(video, p)).Distinct().Order())
                    {
                        outcomes.Add(await TakeFrameAsync(video, album, at, vault, import, cancel));
                        var taken = video.Taken.Append(at).Distinct().Order().ToArray();
                        video.Taken = taken;
                        await db
                            .Videos.Where(v => v.Id == id)
                            .ExecuteUpdateAsync(set => set.SetProperty(v => v.Taken, taken), cancel);
                    }

                    return outcomes;
                }
            )
            .WithName("takeFrames")
            .WithProblems();

        group
            .MapPost(
                "/videos/{id:guid}/keep",
                async (
                    Guid id,
                    KeepVideoRequest request,
                    ZestyContext db,
                    AlbumReader albums,
                    ZestySettings settings,
                    CancellationToken cancel
                ) =>
                {
                    var (video, album) = await RequireAsync(id, db, albums, cancel);
                    await db
                        .Videos.Where(v => v.Id == id)
                        .ExecuteUpdateAsync(set => set.SetProperty(v => v.Kept, request.Keep), cancel);
                    video.Kept = request.Keep;
                    return View(video, album, settings);
                }
            )
            .WithName("keepVideo")
            .WithProblems();

        group
            .MapDelete(
                "/videos/{id:guid}",
                async (Guid id, ZestyContext db, AlbumReader albums, VaultSweeper sweeper, CancellationToken cancel) =>
                {
                    var (video, _) = await RequireAsync(id, db, albums, cancel);
                    await db.Videos.Where(v => v.Id == id).ExecuteDeleteAsync(cancel);
                    // The row first: a crash in between leaves a file too many, which is swept later.
                    await sweeper.RemoveUnnamedAsync([video.Sha256], cancel);
                    return Results.NoContent();
                }
            )
            .WithName("deleteVideo")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
    }

    /// <summary>A frame becomes a file with its own time and goes the way of all pictures.</summary>
    private static async Task<ImportOutcome> TakeFrameAsync(
        Video video,
        Album album,
        long at,
        IPhotoVault vault,
        PhotoImport import,
        CancellationToken cancel
    )
    {
        var still = Path.GetTempFileName();
        try
        {
            var taken = TakenAt(video, album.ReadCalendar(), at);
            await Task.Run(() => VideoFiles.Still(vault.PathOf(video.Sha256), at, taken, video.Camera, still), cancel);
            await using var content = File.OpenRead(still);
            using var arrived = await vault.ReceiveAsync(content, PictureIntake.LargestFile, cancel);
            return await import.TakeAsync(
                album.Id,
                VideoFrames.NameOf(video.FileName, at),
                arrived,
                modified: null,
                line: null,
                cancel
            );
        }
        catch (PictureRefusedException refused)
        {
            throw new RuleException($"{refused.Message} The frames taken before it are in the album.");
        }
        catch (FileNotFoundException)
        {
            // It was removed while this was asked.
            throw new MissingException("That video");
        }
        finally
        {
            File.Delete(still);
        }
    }

    /// <summary>
    /// When a frame was: the start and the position. A start that is known as an instant only is told by the clocks of
    /// where the traveller was.
    /// </summary>
    private static VideoStart TakenAt(Video video, AlbumCalendar calendar, long at)
    {
        if (video.Started is { } local)
        {
            return new VideoStart(local.PlusMilliseconds(at), video.OffsetMinutes, null);
        }

        if (video.StartedAt is not { } start)
        {
            return new VideoStart(null, null, null);
        }

        var instant = start + Duration.FromMilliseconds(at);
        var there = instant.InZone(calendar.Travel.ZoneAt(instant));
        return new VideoStart(there.LocalDateTime, there.Offset.Seconds / 60, instant);
    }

    private static byte[] FrameOf(string path, long at, int side)
    {
        var target = Path.GetTempFileName();
        try
        {
            VideoFiles.Frame(path, at, side, target);
            return File.ReadAllBytes(target);
        }
        catch (PictureRefusedException refused)
        {
            throw new RuleException(refused.Message);
        }
        catch (FileNotFoundException)
        {
            // It was removed while this was asked.
            throw new MissingException("That video");
        }
        finally
        {
            File.Delete(target);
        }
    }

    private static long Within(Video video, long at) => Math.Clamp(at, 0, Math.Max(0, video.Milliseconds - 1));

    private static async Task<(Video Video, Album Album)> RequireAsync(
        Guid id,
        ZestyContext db,
        AlbumReader albums,
        CancellationToken cancel
    )
    {
        var video =
            await db.Videos.AsNoTracking().SingleOrDefaultAsync(v => v.Id == id, cancel)
            ?? throw new MissingException("That video");
        return (video, await albums.RequireAsync(video.AlbumId, cancel));
    }

    private static VideoView View(Video v, Album album, ZestySettings settings)
    {
        var style = album.ReadCalendar().Style;
        var begun = TakenAt(v, album.ReadCalendar(), 0).Local;
        return new VideoView(
            v.Id,
            v.FileName,
            v.Bytes,
            v.Width,
            v.Height,
            v.Milliseconds,
            v.FramesPerSecond,
            begun is { } at
                ? $"{SpanLabel.Day(at.Date, style.Order)} {at.Year}, {SpanLabel.Time(at.TimeOfDay, style.Clock)}"
                : null,
            v.Camera,
            v.Proposed,
            v.Taken,
            v.Kept,
            v.Kept || settings.VideosKeptDays is not { } days ? null : DayOf(v.AddedAt + Duration.FromDays(days), style)
        );

        static string DayOf(Instant at, DateStyle style) =>
            $"{SpanLabel.Day(at.InUtc().Date, style.Order)} {at.InUtc().Year}";
    }
}
