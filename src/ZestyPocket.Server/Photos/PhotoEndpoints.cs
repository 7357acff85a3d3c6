using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

public static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Photos");

        group
            .MapGet(
                "/albums/{albumId:guid}/photos",
                async (
                    Guid albumId,
                    [AsParameters] PhotoFilter filter,
                    AlbumReader albums,
                    PhotoListing listing,
                    CancellationToken cancel
                ) => await listing.PageAsync(await albums.RequireAsync(albumId, cancel), filter, cancel)
            )
            .WithName("listPhotos")
            .WithProblems();

        group
            .MapGet(
                "/albums/{albumId:guid}/photos/count",
                async (
                    Guid albumId,
                    [AsParameters] PhotoFilter filter,
                    AlbumReader albums,
                    PhotoListing listing,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    return new PhotoCount(await listing.CountAsync(albumId, filter, cancel));
                }
            )
            .WithName("countPhotos")
            .WithProblems();

        group
            .MapPost(
                "/albums/{albumId:guid}/photos/edits",
                (Guid albumId, PhotoEditRequest request, PhotoEditor editor, CancellationToken cancel) =>
                    editor.ApplyAsync(albumId, request, cancel)
            )
            .WithName("editPhotos")
            .WithProblems();

        group
            .MapGet(
                "/photos/{id:guid}",
                async (Guid id, AlbumReader albums, ZestyContext db, PictureCache cache, CancellationToken cancel) =>
                {
                    var photo = await RequireAsync(db, albums, id, cancel);
                    var album = await albums.RequireAsync(photo.AlbumId, cancel);
                    var alike = photo.GroupId is { } shared
                        ? await db
                            .Photos.AsNoTracking()
                            .Where(p => p.AlbumId == photo.AlbumId && p.GroupId == shared)
                            .OrderBy(p => p.SortAt)
                            .ThenBy(p => p.Id)
                            .Take(60)
                            .ToListAsync(cancel)
                        : [];
                    var small = await cache.PictureAsync(PhotoView.RefOf(photo), PictureCache.Sides[0], cancel);
                    return PhotoDetail.Of(photo, alike, album.ReadCalendar().Style, album.Measures) with
                    {
                        Horizon = PictureIntake.HorizonOf(small),
                    };
                }
            )
            .WithName("getPhoto")
            .WithProblems();

        // Uncovered is for drawing the covers only; nothing else of the program asks for it.
        group
            .MapGet(
                "/photos/{id:guid}/picture",
                async (
                    Guid id,
                    [FromQuery] int side,
                    [FromQuery] bool? uncovered,
                    AlbumReader albums,
                    ZestyContext db,
                    PictureCache cache,
                    HttpContext http,
                    CancellationToken cancel
                ) =>
                {
                    var photo = await RequireAsync(db, albums, id, cancel);
                    var picture = PhotoView.RefOf(photo);
                    var path = await cache.PictureAsync(
                        uncovered == true ? picture with { Covers = [] } : picture,
                        Math.Clamp(side, 1, PictureCache.Sides[^1]),
                        cancel
                    );
                    // The address changes with what is shown; one without a version is asked again.
                    http.Response.Headers.CacheControl =
                        http.Request.Query["v"] == PictureCache.Version(picture) && uncovered != true
                            ? "private, max-age=31536000, immutable"
                            : "private, no-cache";
                    return Results.File(Path.GetFullPath(path), "image/jpeg");
                }
            )
            .WithName("getPicture")
            .Produces(StatusCodes.Status200OK, contentType: "image/jpeg")
            .WithProblems();
    }

    private static async Task<Photo> RequireAsync(
        ZestyContext db,
        AlbumReader albums,
        Guid id,
        CancellationToken cancel
    ) =>
        await db
            .Photos.AsNoTracking()
            .SingleOrDefaultAsync(p => p.Id == id && albums.Mine.Any(a => a.Id == p.AlbumId), cancel)
        ?? throw new MissingException("The photo");
}

public sealed record PhotoCount(int Photos);
