using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core.Words.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>Words whose room is asked for while they are written.</summary>
public sealed record RoomRequest(string Words, string? StyleKey = null);

/// <summary>Stories: written, brought along, set on cards.</summary>
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
                "/albums/{albumId:guid}/stories/edits",
                (Guid albumId, StoryEdit edit, StoryEditor editor, CancellationToken cancel) =>
                    editor.ApplyAsync(albumId, edit, cancel)
            )
            .WithName("editStories")
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
                    var content = await WholeBody.ReadAsync(request, name, ForeignReading.LargestStoryFile, cancel);
                    return await editor.ArriveAsync(
                        albumId,
                        StoryFiles.Read(name, content, album.ReadCalendar().CutOff, cancel),
                        cancel
                    );
                }
            )
            .WithName("importStories")
            .Accepts<string>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(ForeignReading.LargestStoryFile + (1 << 20)))
            .WithProblems();

        group
            .MapPost(
                "/units/{id:guid}/room",
                (Guid id, RoomRequest request, StoryReader reader, CancellationToken cancel) =>
                    reader.RoomAsync(id, request.Words, request.StyleKey, cancel)
            )
            .WithName("askRoom")
            .WithProblems();
    }
}
