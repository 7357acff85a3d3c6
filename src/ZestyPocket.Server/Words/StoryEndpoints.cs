using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>Words whose room is asked for while they are written.</summary>
public sealed record RoomRequest(string Words, string? StyleKey = null);

/// <summary>Stories: written, brought along, parted, joined, set on cards.</summary>
public static class StoryEndpoints
{
    public static void MapStories(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Words");

        group
            .MapGet(
                "/albums/{albumId:guid}/stories",
                (Guid albumId, [FromQuery] Guid? unitId, StoryReader reader, CancellationToken cancel) =>
                    reader.ListAsync(albumId, unitId, cancel)
            )
            .WithName("listStories")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/stories",
                (Guid albumId, NewStoryRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.MakeAsync(albumId, request, cancel)
            )
            .WithName("makeStory")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/stories/file",
                async (
                    Guid albumId,
                    [FromQuery] string name,
                    HttpRequest request,
                    AlbumReader albums,
                    StoryEditor editor,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    using var content = new MemoryStream();
                    var buffer = new byte[1 << 16];
                    int read;
                    while ((read = await request.Body.ReadAsync(buffer, cancel)) > 0)
                    {
                        content.Write(buffer, 0, read);
                        if (content.Length > ForeignReading.LargestStoryFile)
                        {
                            throw new RuleException(
                                $"{name} is larger than {ForeignReading.LargestStoryFile >> 20} MB. Nothing was "
                                    + "taken: split it."
                            );
                        }
                    }

                    return await editor.ArriveAsync(
                        albumId,
                        StoryFiles.Read(name, content.ToArray(), album.ReadCalendar().CutOff, cancel),
                        cancel
                    );
                }
            )
            .WithName("importStories")
            .Accepts<string>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(ForeignReading.LargestStoryFile + (1 << 20)))
            .WithProblems();

        group
            .MapPut(
                "/stories/{id:guid}",
                (Guid id, WriteStoryRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.WriteAsync(id, request, cancel)
            )
            .WithName("writeStory")
            .WithProblems();
        group
            .MapPost(
                "/stories/{id:guid}/split",
                (Guid id, SplitStoryRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.SplitAsync(id, request, cancel)
            )
            .WithName("splitStory")
            .WithProblems();
        group
            .MapPost(
                "/stories/{id:guid}/merge",
                (Guid id, MergeStoryRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.MergeAsync(id, request, cancel)
            )
            .WithName("mergeStory")
            .WithProblems();
        group
            .MapPost(
                "/stories/{id:guid}/swap",
                (Guid id, SwapStoriesRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.SwapAsync(id, request, cancel)
            )
            .WithName("swapStories")
            .WithProblems();
        group
            .MapDelete(
                "/stories/{id:guid}",
                (Guid id, [FromQuery] int revision, StoryEditor editor, CancellationToken cancel) =>
                    editor.ThrowAwayAsync(id, revision, cancel)
            )
            .WithName("throwStoryAway")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/room",
                (Guid id, RoomRequest request, StoryReader reader, CancellationToken cancel) =>
                    reader.RoomAsync(id, request.Words, request.StyleKey, cancel)
            )
            .WithName("askRoom")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/pieces/{pieceId:guid}/flow",
                (Guid id, Guid pieceId, RevisionRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.FlowOnAsync(id, pieceId, request.Revision, cancel)
            )
            .WithName("flowOn")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/stories/{storyId:guid}/cards",
                (Guid id, Guid storyId, SetStoryRequest request, StoryEditor editor, CancellationToken cancel) =>
                    editor.SetAsync(id, storyId, request, cancel)
            )
            .WithName("setStory")
            .WithProblems();
    }
}
