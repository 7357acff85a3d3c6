using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

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
                        await albums.StretchAsync(albumId, from, count, PageChooser.MostUnits, cancel),
                        cancel
                    )
            )
            .WithName("countUnits")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/pages/choose",
                (Guid albumId, ChoosePagesRequest request, PageChooser chooser, CancellationToken cancel) =>
                    chooser.ChooseAsync(albumId, request, cancel)
            )
            .WithName("choosePages")
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
