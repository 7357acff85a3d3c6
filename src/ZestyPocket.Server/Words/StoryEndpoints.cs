using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
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
            .MapPost(
                "/units/{id:guid}/room",
                (Guid id, RoomRequest request, StoryReader reader, CancellationToken cancel) =>
                    reader.RoomAsync(id, request.Words, request.StyleKey, cancel)
            )
            .WithName("askRoom")
            .WithProblems();
    }
}
