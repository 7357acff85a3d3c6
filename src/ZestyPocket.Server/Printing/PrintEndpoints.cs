using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Drawing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Planning, looking at and printing sheets, and the spread as a page.</summary>
public static class PrintEndpoints
{
    public static void MapPrinting(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Printing");

        group
            .MapPost(
                "/print-plans",
                async (PrintRequest request, PrintRun run, CancellationToken cancel) =>
                    PrintRun.View(
                        await run.PrepareAsync(
                            request.UnitIds,
                            PrintRun.Setup(request.PaperKey, request.Margin, request.Gap),
                            cancel
                        )
                    )
            )
            .WithName("planPrint")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/sheets/{number:int}",
                async (
                    Guid id,
                    int number,
                    [FromQuery] string paper,
                    [FromQuery] string margin,
                    [FromQuery] string gap,
                    PrintRun run,
                    CancellationToken cancel
                ) =>
                {
                    var prepared = await run.PrepareAsync([id], PrintRun.Setup(paper, margin, gap), cancel);
                    if (number < 1 || number > prepared.Plan.Sheets.Length)
                    {
                        throw new MissingException("The sheet");
                    }

                    var size = prepared.Plan.Setup.Paper.Size;
                    var png = Raster.Png(
                        size.Width.Points,
                        size.Height.Points,
                        96,
                        canvas => run.DrawSheet(canvas, prepared, number - 1, 96, cancel)
                    );
                    return Results.File(png, "image/png");
                }
            )
            .WithName("getSheet")
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();

        group
            .MapPost(
                "/print-jobs",
                async (
                    PrintRequest request,
                    ZestyContext db,
                    AlbumReader albums,
                    ICurrentKeeper keeper,
                    PrintNudges queue,
                    IClock clock,
                    CancellationToken cancel
                ) =>
                {
                    var setup = PrintRun.Setup(request.PaperKey, request.Margin, request.Gap);
                    if (request.RequestKey.Length is 0 or > 100 || request.UnitIds.Count is 0 or > PrintRun.MostUnits)
                    {
                        throw new RuleException($"Choose 1 to {PrintRun.MostUnits} weeks or days to print at once.");
                    }

                    // Asked twice with the same key, as after a lost answer, it is one job: nothing is printed twice by
                    // accident.
                    if (
                        await db
                            .PrintJobs.AsNoTracking()
                            .SingleOrDefaultAsync(
                                j => j.KeeperId == keeper.Id && j.RequestKey == request.RequestKey,
                                cancel
                            ) is
                        { } known
                    )
                    {
                        return PrintJobView.Of(known);
                    }

                    var unitIds = request.UnitIds.Distinct().ToList();
                    var albumIds = await db
                        .Units.Where(u => unitIds.Contains(u.Id))
                        .Select(u => u.AlbumId)
                        .Distinct()
                        .ToListAsync(cancel);
                    if (albumIds.Count != 1)
                    {
                        throw new RuleException("What is printed together must be of one album.");
                    }

                    await albums.RequireAsync(albumIds[0], cancel);
                    var job = new PrintJob
                    {
                        Id = Guid.CreateVersion7(),
                        AlbumId = albumIds[0],
                        KeeperId = keeper.Id,
                        RequestKey = request.RequestKey,
                        UnitIds = unitIds,
                        PaperKey = setup.Paper.Key,
                        MarginEmu = setup.Margin.Emu,
                        GapEmu = setup.Gap.Emu,
                        DespiteDoubts = request.DespiteDoubts,
                        MadeAt = clock.GetCurrentInstant(),
                    };
                    db.PrintJobs.Add(job);
                    try
                    {
                        await db.SaveChangesAsync(cancel);
                    }
                    catch (DbUpdateException twice)
                        when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation }
                        )
                    {
                        // Asked several times at once under one key: the first one counts.
                        return PrintJobView.Of(
                            await db
                                .PrintJobs.AsNoTracking()
                                .SingleAsync(j => j.KeeperId == keeper.Id && j.RequestKey == request.RequestKey, cancel)
                        );
                    }

                    // When the program ends between the two, the recovery finds the row waiting.
                    queue.Nudge(job.Id);
                    return PrintJobView.Of(job);
                }
            )
            .WithName("startPrint")
            .WithProblems();

        group
            .MapGet(
                "/print-jobs/{id:guid}",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                    PrintJobView.Of(await RequireAsync(db, keeper, id, cancel))
            )
            .WithName("getPrintJob")
            .WithProblems();

        group
            .MapPost(
                "/print-jobs/{id:guid}/cancel",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                {
                    var job = await RequireAsync(db, keeper, id, cancel);
                    await db
                        .PrintJobs.Where(j => j.Id == id)
                        .ExecuteUpdateAsync(set => set.SetProperty(j => j.CancelAsked, true), cancel);
                    return PrintJobView.Of(job);
                }
            )
            .WithName("cancelPrint")
            .WithProblems();

        group
            .MapGet(
                "/print-jobs/{id:guid}/file",
                async (
                    Guid id,
                    ZestyContext db,
                    ICurrentKeeper keeper,
                    ZestySettings settings,
                    CancellationToken cancel
                ) =>
                {
                    var job = await RequireAsync(db, keeper, id, cancel);
                    var path = PrintJobRunner.PathOf(settings, id);
                    return job.State == PrintJobState.Done && File.Exists(path)
                        ? Results.File(Path.GetFullPath(path), "application/pdf", "zesty-pocket-sheets.pdf")
                        : throw new RuleException(
                            "The sheets are not drawn yet. Wait until the print job is done, or print again."
                        );
                }
            )
            .WithName("getPrintFile")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/spread.png",
                async (Guid id, SpreadPages spreads, CancellationToken cancel) =>
                    Results.File(Path.GetFullPath(await spreads.PngAsync(id, 150, cancel)), "image/png", "spread.png")
            )
            .WithName("getSpreadPng")
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/spread.pdf",
                async (Guid id, SpreadPages spreads, CancellationToken cancel) =>
                    Results.File(await spreads.PdfAsync(id, cancel), "application/pdf", "spread.pdf")
            )
            .WithName("getSpreadPdf")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();
    }

    private static async Task<PrintJob> RequireAsync(
        ZestyContext db,
        ICurrentKeeper keeper,
        Guid id,
        CancellationToken cancel
    ) =>
        await db.PrintJobs.AsNoTracking().SingleOrDefaultAsync(j => j.Id == id && j.KeeperId == keeper.Id, cancel)
        ?? throw new MissingException("The print job");
}
