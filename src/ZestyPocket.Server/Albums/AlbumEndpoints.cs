using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Albums;

/// <summary>The shelf: making, opening, editing and putting away albums.</summary>
public static class AlbumEndpoints
{
    public static void MapAlbums(this IEndpointRouteBuilder api)
    {
        var albums = api.MapGroup("/albums").WithTags("Albums");

        albums
            .MapGet("", (AlbumReader reader, CancellationToken cancel) => reader.ShelfAsync(cancel))
            .WithName("listAlbums")
            .ForReaders();

        albums
            .MapGet(
                "/{id:guid}",
                (Guid id, AlbumReader reader, CancellationToken cancel) => reader.ViewAsync(id, cancel)
            )
            .WithName("getAlbum")
            .ForReaders()
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
                    var like = request.CardsOfAlbumId is { } other ? await reader.RequireAsync(other, cancel) : null;
                    var album = AlbumMaking.Rows(
                        new NewAlbum(
                            request.Name,
                            calendar,
                            request.Units,
                            faces,
                            [.. designs.Select(shelf.AsProtector)],
                            request.Measures,
                            request.School
                        )
                        {
                            CardsOf = like?.ReadWords(),
                        },
                        keeper.Id,
                        clock.GetCurrentInstant()
                    );
                    db.Albums.Add(album);
                    await db.SaveChangesAsync(cancel);
                    return await reader.ViewAsync(album.Id, cancel);
                }
            )
            .WithName("makeAlbum")
            .WithProblems();

        albums
            .MapPost(
                "/{id:guid}/next",
                (Guid id, NextAlbumRequest request, NextAlbumMaking making, CancellationToken cancel) =>
                    making.MakeAsync(id, request.Name, cancel)
            )
            .WithName("makeNextAlbum")
            .WithProblems();

        // Everything a keeper does to tape, leaves, protectors, calendar, formulas and words.
        albums
            .MapPost(
                "/{id:guid}/edits",
                (Guid id, AlbumEdit edit, [FromQuery] bool? preview, AlbumEditor editor, CancellationToken cancel) =>
                    editor.ApplyAsync(id, edit, preview == true, cancel)
            )
            .WithName("editAlbum")
            .WithProblems();

        albums
            .MapPost(
                "/{id:guid}/put-away",
                async (Guid id, AlbumReader reader, IClock clock, CancellationToken cancel) =>
                {
                    // Without reading it: an album that cannot be read can be put away all the same.
                    var now = clock.GetCurrentInstant();
                    var done = await reader
                        .Mine.Where(a => a.Id == id)
                        .ExecuteUpdateAsync(set => set.SetProperty(a => a.PutAwayAt, now), cancel);
                    return done == 1 ? Results.NoContent() : throw new MissingException("The album");
                }
            )
            .WithName("putAlbumAway")
            .ForTheOwner()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();

        albums
            .MapPost(
                "/{id:guid}/bring-back",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                {
                    var done = await db
                        .Albums.Where(a => a.Id == id && a.KeeperId == keeper.Id)
                        .ExecuteUpdateAsync(set => set.SetProperty(a => a.PutAwayAt, (Instant?)null), cancel);
                    return done == 1 ? Results.NoContent() : throw new MissingException("The album");
                }
            )
            .WithName("bringAlbumBack")
            .ForTheOwner()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();

        api.MapGet("/hole-patterns", () => HolePattern.Known.Select(h => h.Name).ToList())
            .WithTags("Albums")
            .WithName("listHolePatterns");
    }
}
