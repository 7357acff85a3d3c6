using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>The stash: what is there, what goes with a week, what to buy.</summary>
public static class StashEndpoints
{
    public static void MapStash(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Keeping");
        MapReading(group);
        MapEdits(group);
        MapIntake(group);
    }

    private static void MapReading(RouteGroupBuilder group)
    {
        group
            .MapGet(
                "/stash",
                (
                    [FromQuery] string? text,
                    [FromQuery] string? kind,
                    [FromQuery] string? kit,
                    StashReader reader,
                    CancellationToken cancel
                ) => reader.ReadAsync(text, KindOf(kind), kit, cancel)
            )
            .WithName("getStash")
            .WithProblems();
        group
            .MapGet(
                "/units/{id:guid}/stash",
                (Guid id, UnitStashReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel)
            )
            .WithName("getUnitStash")
            .WithProblems();
        group
            .MapGet(
                "/albums/{id:guid}/use-it-up",
                (Guid id, UnitStashReader reader, CancellationToken cancel) => reader.ProposeAsync(id, cancel)
            )
            .WithName("getUseItUp")
            .WithProblems();
        group
            .MapGet(
                "/albums/{id:guid}/shopping-list",
                (Guid id, ShoppingReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel)
            )
            .WithName("getShoppingList")
            .WithProblems();
        group
            .MapGet(
                "/stash/{id:guid}/picture",
                async (
                    Guid id,
                    HttpResponse response,
                    StashReader reader,
                    StashPhotos photos,
                    CancellationToken cancel
                ) =>
                {
                    var item = (await reader.StashAsync(cancel)).Items.FirstOrDefault(i => i.Id == id);
                    var picture = await photos.PictureAsync(item ?? throw new MissingException("That item"), cancel);
                    // Its address carries the revision of the item.
                    response.Headers.CacheControl = "private, max-age=31536000, immutable";
                    return Results.File(picture, "image/jpeg");
                }
            )
            .WithName("getStashPicture")
            .Produces(StatusCodes.Status200OK, contentType: "image/jpeg")
            .WithProblems();
    }

    private static void MapEdits(RouteGroupBuilder group)
    {
        group
            .MapPost(
                "/stash/edits",
                (StashEdit edit, StashEditor editor, CancellationToken cancel) => editor.ApplyAsync(edit, [], cancel)
            )
            .WithName("editStash")
            .WithProblems();
        group
            .MapPost(
                "/stash/steps/{id:guid}/undo",
                (Guid id, StashEditor editor, CancellationToken cancel) => editor.TurnAsync(id, undo: true, cancel)
            )
            .WithName("undoStash")
            .WithProblems();
        group
            .MapPost(
                "/stash/steps/{id:guid}/redo",
                (Guid id, StashEditor editor, CancellationToken cancel) => editor.TurnAsync(id, undo: false, cancel)
            )
            .WithName("redoStash")
            .WithProblems();
    }

    private static void MapIntake(RouteGroupBuilder group)
    {
        group
            .MapPost(
                "/stash/photo",
                (
                    [FromQuery(Name = "name")] string file,
                    HttpRequest request,
                    StashPhotos photos,
                    CancellationToken cancel
                ) => photos.FindAsync(file, request.Body, cancel)
            )
            .WithName("findOnPhoto")
            .RequireRateLimiting(RateLimits.Uploads)
            .Accepts<string>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(StashPhotos.Largest + (1 << 20)))
            .WithProblems();
        group
            .MapPost(
                "/stash/file",
                async (
                    [FromQuery(Name = "name")] string file,
                    HttpRequest request,
                    StashEditor editor,
                    CancellationToken cancel
                ) =>
                {
                    var bytes = await WholeBody.ReadAsync(request, file, StashFile.Largest, cancel);
                    var read = StashFile.Read(file, bytes, cancel);
                    if (read.Entries.Count > AddToStash.MostAtOnce)
                    {
                        throw new RuleException(
                            $"{file} has {read.Entries.Count:N0} items, and {AddToStash.MostAtOnce} are taken at once. "
                                + "Nothing was taken: split it."
                        );
                    }

                    return await editor.ApplyAsync(new AddToStash([.. read.Entries]), read.Passed, cancel);
                }
            )
            .WithName("importStash")
            .RequireRateLimiting(RateLimits.Uploads)
            .Accepts<string>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(StashFile.Largest + (1 << 20)))
            .WithProblems();
        group
            .MapGet(
                "/stash.csv",
                async (StashReader reader, CancellationToken cancel) =>
                    Results.File(
                        StashFile.Write((await reader.StashAsync(cancel)).Present),
                        "text/csv; charset=utf-8",
                        "zesty-pocket-stash.csv"
                    )
            )
            .WithName("exportStash")
            .Produces(StatusCodes.Status200OK, contentType: "text/csv")
            .WithProblems();
    }

    private static StashKind? KindOf(string? kind) =>
        string.IsNullOrEmpty(kind) ? null
        : Enum.TryParse<StashKind>(kind, ignoreCase: true, out var known) && Enum.IsDefined(known) ? known
        : throw new RuleException($"“{kind}” is no kind of item.");
}
