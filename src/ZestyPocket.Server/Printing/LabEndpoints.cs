using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Ordering at a lab.</summary>
public static class LabEndpoints
{
    public static void MapLab(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Printing");
        group
            .MapPost(
                "/lab-orders",
                async (LabRequest request, LabOrders orders, CancellationToken cancel) =>
                    LabOrderView.Of(await orders.StartAsync(request, cancel))
            )
            .WithName("orderAtLab")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/lab-orders",
                async (Guid albumId, AlbumReader albums, LabOrders orders, CancellationToken cancel) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    return (await orders.ListAsync(album.Id, cancel)).Select(LabOrderView.Of).ToList();
                }
            )
            .WithName("listLabOrders")
            .WithProblems();
        group
            .MapGet(
                "/lab-orders/{id:guid}",
                async (Guid id, AskedJobs<LabOrder> jobs, CancellationToken cancel) =>
                    LabOrderView.Of(await jobs.RequireAsync(id, LabOrders.What, cancel))
            )
            .WithName("getLabOrder")
            .WithProblems();
        group
            .MapPost(
                "/lab-orders/{id:guid}/cancel",
                async (Guid id, AskedJobs<LabOrder> jobs, CancellationToken cancel) =>
                    LabOrderView.Of(await jobs.CancelAsync(id, LabOrders.What, cancel))
            )
            .WithName("cancelLabOrder")
            .WithProblems();
        group
            .MapPost(
                "/lab-orders/{id:guid}/step",
                async (Guid id, LabStep step, LabOrders orders, CancellationToken cancel) =>
                    LabOrderView.Of(await orders.StepAsync(id, step, cancel))
            )
            .WithName("stepLabOrder")
            .WithProblems();
        group
            .MapPost(
                "/lab-orders/{id:guid}/price",
                async (Guid id, LabPrice paid, LabOrders orders, CancellationToken cancel) =>
                    LabOrderView.Of(await orders.PriceAsync(id, paid.Price, cancel))
            )
            .WithName("priceLabOrder")
            .WithProblems();
        group
            .MapPost(
                "/lab-orders/{id:guid}/stand-in",
                async (Guid id, LabOrders orders, CancellationToken cancel) =>
                    LabOrderView.Of(await orders.StandInAsync(id, cancel))
            )
            .WithName("standInLab")
            .WithProblems();
        group
            .MapGet(
                "/lab-orders/{id:guid}/file",
                async (
                    Guid id,
                    AskedJobs<LabOrder> jobs,
                    ZestySettings settings,
                    IMadeFiles files,
                    CancellationToken cancel
                ) =>
                {
                    var order = await jobs.RequireAsync(id, LabOrders.What, cancel);
                    return
                        order.State == JobState.Done
                        && await files.FetchAsync(LabOrderRunner.PathOf(settings, id), cancel) is { } path
                        ? Results.File(Path.GetFullPath(path), "application/zip", "lab-order.zip")
                        : throw new RuleException("The files are not drawn yet. Wait until they are, or order again.");
                }
            )
            .WithName("getLabFiles")
            .Produces(StatusCodes.Status200OK, contentType: "application/zip")
            .WithProblems();
    }
}
