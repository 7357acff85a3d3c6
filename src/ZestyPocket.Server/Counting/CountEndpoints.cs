using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core.Counting;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Counting;

namespace ZestyPocket.Server.Counting;

/// <summary>The sum of pieces against pockets, the choice of pages, and leaves that come and go.</summary>
public static class CountEndpoints
{
    public static void MapCounting(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Counting");
        group
            .MapGet(
                "/units/{id:guid}/count",
                (Guid id, CountReader reader, CancellationToken cancel) => reader.CountAsync(id, cancel)
            )
            .WithName("countUnit")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/count",
                async (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    AlbumReader albums,
                    CountReader reader,
                    CancellationToken cancel
                ) =>
                    await reader.CountAsync(
                        await albums.StretchAsync(albumId, from, count, PageChoosing.MostUnits, cancel),
                        cancel
                    )
            )
            .WithName("countUnits")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/pages/searches",
                (Guid albumId, PageSearchRequest request, PageSearches searches, CancellationToken cancel) =>
                    searches.StartAsync(albumId, request, cancel)
            )
            .WithName("searchPages")
            .WithProblems();
        group
            .MapGet(
                "/page-searches/{id:guid}",
                async (Guid id, AskedJobs<PageSearch> jobs, CancellationToken cancel) =>
                    PageSearchView.Of(await jobs.RequireAsync(id, PageSearches.What, cancel))
            )
            .WithName("getPageSearch")
            .WithProblems();
        group
            .MapPost(
                "/page-searches/{id:guid}/cancel",
                async (Guid id, AskedJobs<PageSearch> jobs, CancellationToken cancel) =>
                    PageSearchView.Of(await jobs.CancelAsync(id, PageSearches.What, cancel))
            )
            .WithName("cancelPageSearch")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas",
                (Guid albumId, FormulaReader formulas, CancellationToken cancel) => formulas.ListAsync(albumId, cancel)
            )
            .WithName("listFormulas")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas/learn",
                (Guid albumId, [FromQuery] Guid unitId, FormulaReader formulas, CancellationToken cancel) =>
                    formulas.LearnAsync(albumId, unitId, cancel)
            )
            .WithName("learnFormula")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas/stand",
                (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    FormulaReader formulas,
                    CancellationToken cancel
                ) => formulas.StandAsync(albumId, from, count, cancel)
            )
            .WithName("standOfFormulas")
            .WithProblems();
    }
}
