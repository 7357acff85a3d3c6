using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;

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
            .MapPost(
                "/albums/{albumId:guid}/pages",
                async (
                    Guid albumId,
                    TakePagesRequest request,
                    AlbumReader albums,
                    LeafEditor editor,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    return await editor.TakeAsync(request, cancel);
                }
            )
            .WithName("takePages")
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/leaves",
                (Guid id, AddLeafRequest request, LeafEditor editor, CancellationToken cancel) =>
                    editor.AddAsync(id, request, cancel)
            )
            .WithName("addLeaf")
            .WithProblems();
        group
            .MapDelete(
                "/units/{id:guid}/leaves/{leafId:guid}",
                (
                    Guid id,
                    Guid leafId,
                    [FromQuery] int revision,
                    [FromQuery] bool? preview,
                    LeafEditor editor,
                    CancellationToken cancel
                ) => editor.RemoveAsync(id, revision, leafId, preview == true, cancel)
            )
            .WithName("removeLeaf")
            .WithProblems();
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
        group
            .MapPost(
                "/albums/{albumId:guid}/leaves/{leafId:guid}/move",
                (Guid albumId, Guid leafId, MoveLeafRequest request, LeafEditor editor, CancellationToken cancel) =>
                    editor.MoveAsync(albumId, leafId, request, cancel)
            )
            .WithName("moveLeaf")
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/school",
                (Guid albumId, ChangeSchoolRequest request, LeafEditor editor, CancellationToken cancel) =>
                    editor.SchoolAsync(albumId, request, cancel)
            )
            .WithName("changeSchool")
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/leaves/{leafId:guid}/form",
                (Guid albumId, Guid leafId, FormLeafRequest request, LeafEditor editor, CancellationToken cancel) =>
                    editor.FormAsync(albumId, leafId, request, cancel)
            )
            .WithName("formLeaf")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/protectors",
                (Guid albumId, MakeRequest request, LeafMakes makes, CancellationToken cancel) =>
                    makes.UseAsync(albumId, request, cancel)
            )
            .WithName("useDesign")
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/protectors/{protectorId:guid}",
                (Guid albumId, Guid protectorId, LeafMakes makes, CancellationToken cancel) =>
                    makes.GiveUpAsync(albumId, protectorId, cancel)
            )
            .WithName("giveDesignUp")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas",
                (Guid albumId, FormulaEditor formulas, CancellationToken cancel) => formulas.ListAsync(albumId, cancel)
            )
            .WithName("listFormulas")
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/formulas",
                (Guid albumId, FormulaRequest request, FormulaEditor formulas, CancellationToken cancel) =>
                    formulas.KeepAsync(albumId, request, cancel)
            )
            .WithName("keepFormula")
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/formulas/{formulaId:guid}",
                (Guid albumId, Guid formulaId, FormulaEditor formulas, CancellationToken cancel) =>
                    formulas.DropAsync(albumId, formulaId, cancel)
            )
            .WithName("dropFormula")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas/learn",
                (Guid albumId, [FromQuery] Guid unitId, FormulaEditor formulas, CancellationToken cancel) =>
                    formulas.LearnAsync(albumId, unitId, cancel)
            )
            .WithName("learnFormula")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/formulas/{formulaId:guid}/apply",
                (
                    Guid albumId,
                    Guid formulaId,
                    ApplyFormulaRequest request,
                    FormulaEditor formulas,
                    LeafEditor leaves,
                    CancellationToken cancel
                ) => formulas.ApplyAsync(albumId, formulaId, request, leaves, cancel)
            )
            .WithName("applyFormula")
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/formulas/stand",
                (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    FormulaEditor formulas,
                    CancellationToken cancel
                ) => formulas.StandAsync(albumId, from, count, cancel)
            )
            .WithName("standOfFormulas")
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/protectors/{protectorId:guid}/stock",
                async (
                    Guid albumId,
                    Guid protectorId,
                    StockRequest request,
                    AlbumReader albums,
                    History history,
                    ICurrentKeeper keeper,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    var row =
                        album.Protectors.SingleOrDefault(p => p.Id == protectorId)
                        ?? throw new MissingException("The protector");
                    if (request.Stock is < 0 or > 100_000)
                    {
                        throw new RuleException(
                            "A stock is 0 to 100,000 leaves, or left empty when it never runs out. Nothing was changed."
                        );
                    }

                    history.Touch([row]);
                    row.Stock = request.Stock;
                    var units = await db.Units.Where(u => u.AlbumId == albumId).Select(u => u.Id).ToListAsync(cancel);
                    var name = row.ToProtector().Design.Name;
                    var done = request.Stock is { } owned ? $"Own {owned} of {name}" : $"Never run out of {name}";
                    return new LeavesAnswer(done, await history.SaveAsync(albumId, keeper.Id, done, units, cancel), []);
                }
            )
            .WithName("setStock")
            .WithProblems();
    }
}
