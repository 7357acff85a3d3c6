using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Binder;

/// <summary>The binder leaf by leaf.</summary>
public static class BinderEndpoints
{
    public static void MapBinder(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Binder");
        group
            .MapGet(
                "/albums/{albumId:guid}/leaves",
                (Guid albumId, BinderReader reader, CancellationToken cancel) => reader.LeavesAsync(albumId, cancel)
            )
            .WithName("listLeaves")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/leaves/{leafId:guid}",
                (Guid albumId, Guid leafId, BinderReader reader, CancellationToken cancel) =>
                    reader.LeafAsync(albumId, leafId, cancel)
            )
            .WithName("getLeaf")
            .WithProblems();
    }
}
