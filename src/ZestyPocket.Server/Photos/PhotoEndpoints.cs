using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

/// <summary>A photo as the screen shows it.</summary>
public sealed record PhotoView(
    Guid Id,
    int Revision,
    string FileName,
    int Width,
    int Height,
    LocalDate? Day,
    string? DayLabel,
    string? Time,
    string? Camera,
    Guid? UnitId,
    bool LeftOut)
{
    public static PhotoView Of(Photo photo)
    {
        ArgumentNullException.ThrowIfNull(photo);
        return new PhotoView(
            photo.Id,
            photo.Revision,
            photo.FileName,
            photo.Width,
            photo.Height,
            photo.Day,
            photo.Day is { } day ? SpanLabel.Day(day) : null,
            photo.Recorded?.ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture),
            photo.Camera,
            photo.UnitId,
            photo.LeftOut);
    }
}

/// <summary>Puts a photo on a day of the album (null: takes its day away), or leaves it out, or takes it back.</summary>
public sealed record MovePhotoRequest(int Revision, LocalDate? Day, bool LeftOut);

public static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Photos");

        group.MapPost("/albums/{albumId:guid}/photos", async (
            Guid albumId, [FromQuery] string name, HttpRequest request, AlbumReader albums, PhotoImport import, CancellationToken cancel) =>
        {
            var album = await albums.RequireAsync(albumId, cancel);
            return await import.ImportAsync(album, name, request.Body, cancel);
        })
            .WithName("addPhoto")
            .Accepts<byte[]>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(PictureIntake.LargestFile + (1 << 20)))
            .WithProblems();

        // Photos that no week holds: without a date, outside the album's weeks, or left out.
        group.MapGet("/albums/{albumId:guid}/photos/waiting", async (
            Guid albumId, AlbumReader albums, ZestyContext db, CancellationToken cancel) =>
        {
            await albums.RequireAsync(albumId, cancel);
            var photos = await db.Photos.AsNoTracking()
                .Where(p => p.AlbumId == albumId && (p.UnitId == null || p.LeftOut))
                .OrderBy(p => p.Day).ThenBy(p => p.Recorded).ThenBy(p => p.FileName).Take(2_000).ToListAsync(cancel);
            return photos.ConvertAll(PhotoView.Of);
        }).WithName("listWaitingPhotos").WithProblems();

        group.MapGet("/photos/{id:guid}/picture", async (
            Guid id, [FromQuery] int side, AlbumReader albums, ZestyContext db, PictureCache cache, HttpContext http, CancellationToken cancel) =>
        {
            var photo = await RequireAsync(db, albums, id, cancel);
            var path = cache.Picture(photo.Sha256, Math.Clamp(side, 1, PictureCache.Sides[^1]));
            http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Results.File(Path.GetFullPath(path), "image/jpeg");
        }).WithName("getPicture").Produces(StatusCodes.Status200OK, contentType: "image/jpeg").WithProblems();

        group.MapPut("/photos/{id:guid}/day", async (
            Guid id,
            MovePhotoRequest request,
            AlbumReader albums,
            ZestyContext db,
            History history,
            ICurrentKeeper keeper,
            CancellationToken cancel) =>
        {
            var photo = await RequireAsync(db, albums, id, cancel);
            var target = request.Day is { } day && !request.LeftOut
                ? await db.Units.FirstOrDefaultAsync(u => u.AlbumId == photo.AlbumId && u.FirstDay <= day && u.LastDay >= day, cancel)
                : null;
            var source = photo.UnitId is { } unitId ? await db.Units.SingleAsync(u => u.Id == unitId, cancel) : null;
            var summary = (request.LeftOut, request.Day) switch
            {
                (true, _) => $"Left {photo.FileName} out of the album",
                (_, null) => $"Took the day of {photo.FileName} away",
                (_, { } d) => $"Put {photo.FileName} on {SpanLabel.Day(d)}",
            };
            await history.RequireAsync(photo, request.Revision, summary, cancel);

            List<AlbumUnit> units = [.. new[] { source, target }.OfType<AlbumUnit>().DistinctBy(u => u.Id)];
            history.Touch([photo, .. units]);
            if (source is not null && source.Id != target?.Id)
            {
                // A photo that leaves the week also leaves its pockets there.
                var content = source.Read();
                foreach (var print in content.Pieces.OfType<Core.Placing.PhotoPrint>().Where(p => p.PhotoId == id).ToList())
                {
                    content = content.Discard(print.Id);
                }

                source.Write(content);
            }

            var dayBefore = photo.Day;
            (photo.Day, photo.LeftOut, photo.UnitId) = (request.Day ?? (request.LeftOut ? photo.Day : null), request.LeftOut, target?.Id);
            photo.DaySetByKeeper |= !request.LeftOut && request.Day != dayBefore;
            await history.SaveAsync(photo.AlbumId, keeper.Id, summary, units.Select(u => u.Id), cancel);
            return PhotoView.Of(photo);
        }).WithName("movePhoto").WithProblems();
    }

    private static async Task<Photo> RequireAsync(ZestyContext db, AlbumReader albums, Guid id, CancellationToken cancel) =>
        await db.Photos.SingleOrDefaultAsync(p => p.Id == id && albums.Mine.Any(a => a.Id == p.AlbumId), cancel)
        ?? throw new MissingException("The photo");
}
