using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Albums;

/// <summary>The shelf: making, opening, naming, measuring and putting away albums.</summary>
public static class AlbumEndpoints
{
    public static void MapAlbums(this IEndpointRouteBuilder api)
    {
        var albums = api.MapGroup("/albums").WithTags("Albums");

        albums
            .MapGet("", (AlbumReader reader, CancellationToken cancel) => reader.ShelfAsync(cancel))
            .WithName("listAlbums");

        albums
            .MapGet(
                "/{id:guid}",
                (Guid id, AlbumReader reader, CancellationToken cancel) => reader.ViewAsync(id, cancel)
            )
            .WithName("getAlbum")
            .WithProblems();

        albums
            .MapPost(
                "",
                async (
                    MakeAlbumRequest request,
                    ZestyContext db,
                    DesignShelf shelf,
                    ICurrentKeeper keeper,
                    IClock clock,
                    AlbumReader reader,
                    CancellationToken cancel
                ) =>
                {
                    await shelf.LoadAsync(cancel);
                    var designs = request
                        .DesignKeys.Distinct()
                        .Select(key =>
                            shelf.Find(key)
                            ?? throw new RuleException($"There is no page design “{key}”. Nothing was made.")
                        )
                        .ToList();
                    var calendar = new AlbumCalendar
                    {
                        Kind = request.Kind,
                        FirstDay = request.FirstDay,
                        Scheme = request.Scheme,
                        HomeZone = request.HomeZone ?? "Etc/UTC",
                        Style = new DateStyle(request.DateOrder, request.Clock),
                        Waking = new WakingWindow(
                            request.WakingFrom ?? WakingWindow.Default.From,
                            request.WakingUntil ?? WakingWindow.Default.Until
                        ),
                    };
                    var faces = request.FacesPerUnit ?? (request.Kind is AlbumKind.Weekly or AlbumKind.Trip ? 2 : 1);
                    var album = AlbumMaking.Make(
                        request.Name,
                        calendar,
                        request.Units,
                        faces,
                        designs,
                        request.Measures,
                        keeper.Id,
                        clock.GetCurrentInstant(),
                        request.School,
                        shelf.AsProtector
                    );
                    db.Albums.Add(album);
                    await db.SaveChangesAsync(cancel);
                    return await reader.ViewAsync(album.Id, cancel);
                }
            )
            .WithName("makeAlbum")
            .WithProblems();

        albums
            .MapPut(
                "/{id:guid}/name",
                async (
                    Guid id,
                    RenameAlbumRequest request,
                    ZestyContext db,
                    AlbumReader reader,
                    History history,
                    ICurrentKeeper keeper,
                    CancellationToken cancel
                ) =>
                {
                    var album = await reader.RequireAsync(id, cancel);
                    if (string.IsNullOrWhiteSpace(request.Name) || request.Name.Length > 200)
                    {
                        throw new RuleException(
                            $"An album needs a name of at most 200 characters. It is still called “{album.Name}”."
                        );
                    }

                    history.Touch([album]);
                    album.Name = PlainWords.Name(request.Name);
                    await SaveForAllWeeksAsync(
                        db,
                        history,
                        album,
                        keeper.Id,
                        $"Named the album “{album.Name}”",
                        cancel
                    );
                    return await reader.ViewAsync(id, cancel);
                }
            )
            .WithName("renameAlbum")
            .WithProblems();

        albums
            .MapPost(
                "/{id:guid}/put-away",
                async (Guid id, ZestyContext db, AlbumReader reader, IClock clock, CancellationToken cancel) =>
                {
                    var album = await reader.RequireAsync(id, cancel);
                    album.PutAwayAt = clock.GetCurrentInstant();
                    await db.SaveChangesAsync(cancel);
                    return Results.NoContent();
                }
            )
            .WithName("putAlbumAway")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();

        albums
            .MapPost(
                "/{id:guid}/bring-back",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                {
                    var album =
                        await db.Albums.SingleOrDefaultAsync(a => a.Id == id && a.KeeperId == keeper.Id, cancel)
                        ?? throw new MissingException("The album");
                    album.PutAwayAt = null;
                    await db.SaveChangesAsync(cancel);
                    return Results.NoContent();
                }
            )
            .WithName("bringAlbumBack")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();

        albums
            .MapPut(
                "/{id:guid}/protectors/{protectorId:guid}",
                (
                    Guid id,
                    Guid protectorId,
                    MeasureProtectorRequest request,
                    ProtectorMeasuring measuring,
                    CancellationToken cancel
                ) => measuring.MeasureAsync(id, protectorId, request, cancel)
            )
            .WithName("measureProtector")
            .WithProblems();

        api.MapGet("/hole-patterns", () => HolePattern.Known.Select(h => h.Name).ToList())
            .WithTags("Albums")
            .WithName("listHolePatterns");
    }

    /// <summary>What holds for the whole album can be undone from any of its weeks.</summary>
    private static async Task SaveForAllWeeksAsync(
        ZestyContext db,
        History history,
        Album album,
        Guid keeperId,
        string summary,
        CancellationToken cancel
    )
    {
        var units = await db.Units.Where(u => u.AlbumId == album.Id).Select(u => u.Id).ToListAsync(cancel);
        await history.SaveAsync(album.Id, keeperId, summary, units, cancel);
    }
}
