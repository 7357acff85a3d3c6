using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Tape;

/// <summary>An edit of a unit on the tape, made on the revision the keeper was looking at.</summary>
public sealed record TapeRequest(int Revision);

public sealed record LeaveOutRequest(int Revision, bool LeftOut);

public sealed record RenameUnitRequest(int Revision, string Name);

public sealed record GrowRequest(int Count, bool AtEnd);

/// <summary>Make, merge, split, leave out, rename.</summary>
public static class TapeEndpoints
{
    public static void MapTape(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Tape");
        group
            .MapPost(
                "/units/{id:guid}/merge",
                (Guid id, TapeRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.MergeAsync(id, request.Revision, cancel)
            )
            .WithName("mergeUnit")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/split",
                (Guid id, TapeRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.SplitAsync(id, request.Revision, cancel)
            )
            .WithName("splitUnit")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/leave-out",
                (Guid id, LeaveOutRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.LeaveOutAsync(id, request.Revision, request.LeftOut, cancel)
            )
            .WithName("leaveUnitOut")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/name",
                (Guid id, RenameUnitRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.RenameAsync(id, request.Revision, request.Name, cancel)
            )
            .WithName("renameUnit")
            .WithProblems();
        group
            .MapPost(
                "/albums/{id:guid}/grow",
                (Guid id, GrowRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.GrowAsync(id, request.Count, request.AtEnd, cancel)
            )
            .WithName("growAlbum")
            .WithProblems();
    }
}
