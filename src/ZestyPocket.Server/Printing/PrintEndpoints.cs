using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
using ZestyPocket.Core;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
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
                    run.View(
                        await run.PrepareAsync(
                            request.UnitIds,
                            await run.SetupAsync(request.Asked, cancel),
                            request.Wanted,
                            cancel
                        ),
                        cancel
                    )
            )
            .WithName("planPrint")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/sheets/{number:int}",
                async (Guid id, int number, [AsParameters] SheetQuery query, PrintRun run, CancellationToken cancel) =>
                {
                    var (prepared, sheet) = await SheetOf(id, number, query, run, cancel);
                    var size = prepared.Plan.SetupOf(sheet).Paper.Size;
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
            .MapGet(
                "/units/{id:guid}/sheets/{number:int}/outlines.svg",
                async (Guid id, int number, [AsParameters] SheetQuery query, PrintRun run, CancellationToken cancel) =>
                {
                    var (prepared, sheet) = await SheetOf(id, number, query, run, cancel);
                    var svg = CutOutlines.Svg(
                        sheet,
                        prepared.Plan.SetupOf(sheet).Paper.Size,
                        due => prepared.Faces[(due.PieceId, due.Part)]
                    );
                    return Results.File(
                        System.Text.Encoding.UTF8.GetBytes(svg),
                        "image/svg+xml",
                        string.Create(CultureInfo.InvariantCulture, $"outlines-sheet-{number}.svg")
                    );
                }
            )
            .WithName("getOutlines")
            .Produces(StatusCodes.Status200OK, contentType: "image/svg+xml")
            .WithProblems();

        group
            .MapPost(
                "/print-jobs",
                async (PrintRequest request, PrintJobs prints, CancellationToken cancel) =>
                    PrintJobView.Of(await prints.StartAsync(request, cancel))
            )
            .WithName("startPrint")
            .WithProblems();

        group
            .MapGet(
                "/print-jobs/{id:guid}",
                async (Guid id, AskedJobs<PrintJob> jobs, CancellationToken cancel) =>
                    PrintJobView.Of(await jobs.RequireAsync(id, PrintJobs.What, cancel))
            )
            .WithName("getPrintJob")
            .WithProblems();

        group
            .MapPost(
                "/print-jobs/{id:guid}/cancel",
                async (Guid id, AskedJobs<PrintJob> jobs, CancellationToken cancel) =>
                    PrintJobView.Of(await jobs.CancelAsync(id, PrintJobs.What, cancel))
            )
            .WithName("cancelPrint")
            .WithProblems();

        group
            .MapGet(
                "/print-jobs/{id:guid}/file",
                async (
                    Guid id,
                    AskedJobs<PrintJob> jobs,
                    ZestySettings settings,
                    IMadeFiles files,
                    CancellationToken cancel
                ) =>
                {
                    var job = await jobs.RequireAsync(id, PrintJobs.What, cancel);
                    return
                        job.State == JobState.Done
                        && await files.FetchAsync(PrintJobRunner.PathOf(settings, id), cancel) is { } path
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
            .ForReaders()
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/cover.png",
                async (Guid id, SpreadPages spreads, CancellationToken cancel) =>
                {
                    var file = Path.GetFullPath(await spreads.PngAsync(id, SpreadPages.CoverPixelsPerInch, cancel));
                    // The name of the file is the hash of what is on it: asked again it is sent when it has changed.
                    var tag = new EntityTagHeaderValue($"\"{Path.GetFileNameWithoutExtension(file)}\"");
                    return Results.File(file, "image/png", entityTag: tag);
                }
            )
            .WithName("getSpreadCover")
            .ForReaders()
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();

        group
            .MapGet(
                "/albums/{id:guid}/inserts.pdf",
                async (
                    Guid id,
                    [FromQuery] string? paper,
                    [FromQuery] string? margin,
                    AlbumReader albums,
                    InsertPages inserts,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var leaves = await db
                        .Leaves.AsNoTracking()
                        .Where(l => l.AlbumId == id)
                        .OrderBy(l => l.Ordinal)
                        .ToListAsync(cancel);
                    var tabs = leaves.Select(l => l.ReadAlterations().Tab?.Words).OfType<string>();
                    var units = await db
                        .Units.AsNoTracking()
                        .Where(u => u.AlbumId == id)
                        .OrderBy(u => u.Ordinal)
                        .Select(u => u.Id)
                        .ToListAsync(cancel);
                    var volumes = album.ReadKeeping().VolumesOf(units).DefaultIfEmpty(1).Max();
                    return Results.File(
                        await inserts.PdfAsync(
                            album,
                            volumes,
                            tabs,
                            PrintRun.Setup(paper ?? "", margin ?? "", "0"),
                            cancel
                        ),
                        "application/pdf",
                        "binder.pdf"
                    );
                }
            )
            .WithName("getInsertsPdf")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/spread.pdf",
                async (Guid id, SpreadPages spreads, CancellationToken cancel) =>
                    Results.File(await spreads.PdfAsync(id, cancel), "application/pdf", "spread.pdf")
            )
            .WithName("getSpreadPdf")
            .ForReaders()
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();
    }

    private static async Task<(PreparedRun Run, PlannedSheet Sheet)> SheetOf(
        Guid unitId,
        int number,
        SheetQuery query,
        PrintRun run,
        CancellationToken cancel
    )
    {
        var setup = await run.SetupAsync(query.Asked, cancel);
        var prepared = await run.PrepareAsync([unitId], setup, query.Wanted, cancel);
        return number < 1 || number > prepared.Plan.Sheets.Length
            ? throw new MissingException("The sheet")
            : (prepared, prepared.Plan.Sheets[number - 1]);
    }
}
