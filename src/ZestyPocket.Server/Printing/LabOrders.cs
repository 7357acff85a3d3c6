using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>A piece on a print of a lab, as it was drawn.</summary>
public sealed record LabOrderPiece(
    Guid PieceId,
    Guid UnitId,
    string Number,
    long CutWidthEmu,
    long CutHeightEmu,
    string? Recipe
);

/// <summary>A file of an order.</summary>
/// <param name="Size">Such as <c>4x6</c>, in inches.</param>
/// <param name="Sha256">Of the file.</param>
/// <param name="Missing">It did not come.</param>
public sealed record LabOrderPrint(
    string FileName,
    string Size,
    string Sha256,
    IReadOnlyList<LabOrderPiece> Pieces,
    bool Missing = false
);

/// <summary>What is ordered.</summary>
public sealed record LabRequest(
    string RequestKey,
    IReadOnlyList<Guid> UnitIds,
    PrintChoice Choice = PrintChoice.Due,
    IReadOnlyList<Guid>? PieceIds = null,
    Guid? Repeats = null
);

/// <summary>An order, and how far it is.</summary>
public sealed record LabOrderView(
    Guid Id,
    Guid AlbumId,
    JobState State,
    string? Problem,
    int PagesDone,
    int PagesTotal,
    LabState At,
    string Words,
    IReadOnlyList<LabOrderPrint> Prints,
    Guid? Repeats,
    Instant MadeAt
)
{
    public static LabOrderView Of(LabOrder order)
    {
        ArgumentNullException.ThrowIfNull(order);
        var prints = LabOrders.PrintsOf(order);
        var missing = prints.Count(p => p.Missing);
        var words = order.At switch
        {
            LabState.Ready => "Ready: not sent yet.",
            LabState.Sent => "Sent to the lab.",
            LabState.Printed => "The lab has printed it.",
            LabState.Posted => "It is in the post.",
            _ => missing == 0
                ? "Everything has come."
                : $"It has come, and {NumberWords.Counted(missing, "print is", "prints are")} missing.",
        };
        return new LabOrderView(
            order.Id,
            order.AlbumId,
            order.State,
            order.Problem,
            order.PagesDone,
            order.PagesTotal,
            order.At,
            words,
            prints,
            order.Repeats,
            order.MadeAt
        );
    }
}

/// <summary>A step of an order, with the files that did not come when it arrived.</summary>
public sealed record LabStep(LabState To, IReadOnlyList<string>? Missing = null);

/// <summary>Orders at a lab, and the lab that stands in for one.</summary>
public sealed class LabOrders(
    ZestyContext db,
    AlbumReader albums,
    ICurrentKeeper keeper,
    AskedJobs<LabOrder> jobs,
    IClock clock
)
{
    public const string What = "The lab order";

    private const int MostPieces = 2_000;

    public static IReadOnlyList<LabOrderPrint> PrintsOf(LabOrder order)
    {
        ArgumentNullException.ThrowIfNull(order);
        return JsonSerializer.Deserialize<List<LabOrderPrint>>(order.Prints, JsonSerializerOptions.Web) ?? [];
    }

    public Task<LabOrder> StartAsync(LabRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        return jobs.StartAsync(request.RequestKey, () => MakeAsync(request, cancel), cancel);
    }

    public async Task<IReadOnlyList<LabOrder>> ListAsync(Guid albumId, CancellationToken cancel) =>
        await db
            .LabOrders.AsNoTracking()
            .Where(o => o.KeeperId == keeper.Id && o.AlbumId == albumId)
            .OrderByDescending(o => o.MadeAt)
            .Take(100)
            .ToListAsync(cancel);

    /// <summary>
    /// Takes an order one step on. When it arrives, what came counts as printed as it was drawn; what is missing stays
    /// due. A step back or over another is a <see cref="RuleException"/>; the same step twice changes nothing.
    /// </summary>
    public async Task<LabOrder> StepAsync(Guid id, LabStep step, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(step);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // Two windows taking one step at once take it one after the other.
        await db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock(hashtextextended({id.ToString()}, 11))",
            cancel
        );
        var order =
            await db.LabOrders.SingleOrDefaultAsync(o => o.Id == id && o.KeeperId == keeper.Id, cancel)
            ?? throw new MissingException(What);
        if (order.At == step.To)
        {
            return order;
        }

        if (order.State != JobState.Done)
        {
            throw new RuleException("The files of this order are not drawn yet. Nothing was changed: wait for them.");
        }

        if (step.To != order.At + 1)
        {
            throw new RuleException(
                "An order is sent, printed, posted and arrives, in this order. Nothing was changed."
            );
        }

        order.At = step.To;
        order.SentAt ??= clock.GetCurrentInstant();
        if (step.To == LabState.Arrived)
        {
            var lost = (step.Missing ?? []).ToHashSet(StringComparer.Ordinal);
            var prints = PrintsOf(order).Select(p => p with { Missing = lost.Contains(p.FileName) }).ToList();
            order.Prints = JsonSerializer.Serialize(prints, JsonSerializerOptions.Web);
            await NoteAsync(order, [.. prints.Where(p => !p.Missing).SelectMany(p => p.Pieces)], cancel);
        }

        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            throw new RuleException(
                "A print noted the same pieces at the same moment. Nothing was changed: take this step again."
            );
        }

        await transaction.CommitAsync(cancel);
        return order;
    }

    /// <summary>
    /// The lab that stands in for one takes an order a step on. Of a first order with several prints it loses the
    /// second, so that there is something to order again.
    /// </summary>
    public async Task<LabOrder> StandInAsync(Guid id, CancellationToken cancel)
    {
        var order = await jobs.RequireAsync(id, What, cancel);
        var prints = PrintsOf(order);
        return order.At == LabState.Arrived
            ? order
            : await StepAsync(
                id,
                new LabStep(
                    order.At + 1,
                    order.At + 1 == LabState.Arrived && order.Repeats is null && prints.Count > 1
                        ? [prints[1].FileName]
                        : []
                ),
                cancel
            );
    }

    private async Task<LabOrder> MakeAsync(LabRequest request, CancellationToken cancel)
    {
        var (unitIds, pieceIds, choice) = (request.UnitIds, request.PieceIds ?? [], request.Choice);
        if (request.Repeats is { } repeats)
        {
            var lost = PrintsOf(await jobs.RequireAsync(repeats, What, cancel)).Where(p => p.Missing).ToList();
            if (lost.Count == 0)
            {
                throw new RuleException("Nothing of that order is missing. Nothing was ordered.");
            }

            (unitIds, pieceIds, choice) = (
                [.. lost.SelectMany(p => p.Pieces).Select(p => p.UnitId)],
                [.. lost.SelectMany(p => p.Pieces).Select(p => p.PieceId)],
                PrintChoice.Chosen
            );
        }

        unitIds = [.. unitIds.Distinct()];
        if (unitIds.Count is 0 or > PrintRun.MostUnits)
        {
            throw new RuleException($"Choose 1 to {PrintRun.MostUnits} weeks or days to order at once.");
        }

        var albumIds = await db
            .Units.Where(u => unitIds.Contains(u.Id))
            .Select(u => u.AlbumId)
            .Distinct()
            .ToListAsync(cancel);
        return albumIds.Count != 1
            ? throw new RuleException("What is ordered together must be of one album.")
            : new LabOrder
            {
                AlbumId = (await albums.RequireAsync(albumIds[0], cancel)).Id,
                RequestKey = request.RequestKey,
                UnitIds = [.. unitIds],
                Choice = choice,
                PieceIds = [.. pieceIds.Distinct().Take(MostPieces)],
                Repeats = request.Repeats,
            };
    }

    /// <summary>What has come was printed as it was drawn.</summary>
    private async Task NoteAsync(LabOrder order, List<LabOrderPiece> pieces, CancellationToken cancel)
    {
        var ids = pieces.ConvertAll(p => p.PieceId);
        var known = await db
            .PrintedPieces.Where(p => ids.Contains(p.PieceId))
            .ToDictionaryAsync(p => p.PieceId, cancel);
        foreach (var piece in pieces.DistinctBy(p => p.PieceId))
        {
            if (!known.TryGetValue(piece.PieceId, out var row))
            {
                db.PrintedPieces.Add(
                    row = new PrintedPiece
                    {
                        PieceId = piece.PieceId,
                        AlbumId = order.AlbumId,
                        Number = piece.Number,
                    }
                );
            }

            (row.UnitId, row.JobId, row.Number, row.PrintedAt, row.Spoilt) = (
                piece.UnitId,
                order.Id,
                piece.Number,
                clock.GetCurrentInstant(),
                null
            );
            (row.CutWidth, row.CutHeight, row.Recipe) = (
                new Length(piece.CutWidthEmu),
                new Length(piece.CutHeightEmu),
                piece.Recipe
            );
        }
    }
}

/// <summary>Draws the files of a lab order into one ZIP: JPEGs, <c>order.csv</c> and <c>order.json</c>.</summary>
public sealed class LabOrderRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PrintRun run,
    ISheetCovering covering,
    PiecePainter painter,
    LabNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    ILogger<LabOrderRunner> log
) : AskedJobRunner<LabOrder>(db, queue, configuration, clock, log)
{
    public static string PathOf(ZestySettings settings, Guid orderId)
    {
        ArgumentNullException.ThrowIfNull(settings);
        return Path.Combine(settings.Prints, $"{orderId:N}.zip");
    }

    protected override string Failure => "the files for the lab could not be drawn";

    protected override string TurnOf(LabOrder job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"print {job.AlbumId}";
    }

    protected override async Task WorkAsync(LabOrder job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var prepared = await run.PrepareAsync(
            job.UnitIds,
            PrintRun.Setup(Paper.Letter.Key, "0", "0"),
            new WantedPieces(job.Choice, job.PieceIds),
            cancel
        );
        var pieces = prepared.Due.Where(p => p.Stock == Stock.PhotoPaper && !p.OnCarrier).ToList();
        if (pieces.Count == 0)
        {
            throw new RuleException(
                "There are no pictures on photo paper to order here: they are printed as they are, or on other paper."
            );
        }

        var prints = LabPrints.Of(pieces, p => prepared.UnitNames[prepared.UnitOf[p.PieceId]], covering, cancel);
        (job.State, job.PagesDone, job.PagesTotal, job.Problem) = (JobState.Running, 0, prints.Length, null);
        await Db.SaveChangesAsync(cancel);

        Directory.CreateDirectory(settings.Prints);
        var path = PathOf(settings, job.Id);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        try
        {
            var done = await WriteAsync(temporary, job, prepared, prints, cancel);
            File.Move(temporary, path, overwrite: true);
            (job.Prints, job.PagesDone) = (JsonSerializer.Serialize(done, JsonSerializerOptions.Web), prints.Length);
        }
        finally
        {
            File.Delete(temporary);
        }
    }

    private async Task<List<LabOrderPrint>> WriteAsync(
        string path,
        LabOrder job,
        PreparedRun prepared,
        IReadOnlyList<LabPrint> prints,
        CancellationToken cancel
    )
    {
        var lab = new LabPainter(painter);
        var done = new List<LabOrderPrint>();
        await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite);
        using var zip = new ZipArchive(file, ZipArchiveMode.Create);
        foreach (var print in prints)
        {
            await using (var watch = await contexts.CreateDbContextAsync(cancel))
            {
                await watch
                    .LabOrders.Where(o => o.Id == job.Id)
                    .ExecuteUpdateAsync(set => set.SetProperty(o => o.PagesDone, done.Count), cancel);
                if (await watch.LabOrders.AnyAsync(o => o.Id == job.Id && o.CancelAsked, cancel))
                {
                    throw new OperationCanceledException();
                }
            }

            var jpeg = lab.Jpeg(print, due => prepared.Faces[(due.PieceId, due.Part)], cancel);
            await WriteEntryAsync(zip, print.FileName, jpeg, cancel);
            done.Add(
                new LabOrderPrint(
                    print.FileName,
                    SizeName(print.Paper),
                    Convert.ToHexStringLower(SHA256.HashData(jpeg)),
                    [
                        .. print.Pieces.Select(p => new LabOrderPiece(
                            p.Due.PieceId,
                            prepared.UnitOf[p.Due.PieceId],
                            p.Due.Number,
                            p.Due.Cut.Width.Emu,
                            p.Due.Cut.Height.Emu,
                            prepared.Recipes.GetValueOrDefault(p.Due.PieceId)
                        )),
                    ]
                )
            );
        }

        await WriteEntryAsync(zip, "order.csv", Csv(done), cancel);
        await WriteEntryAsync(zip, "order.json", Json(job, done), cancel);
        return done;
    }

    private static async Task WriteEntryAsync(ZipArchive zip, string name, byte[] bytes, CancellationToken cancel)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.NoCompression);
        // The same order gives the same file.
        entry.LastWriteTime = new DateTimeOffset(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);
        await using var stream = await entry.OpenAsync(cancel);
        await stream.WriteAsync(bytes, cancel);
    }

    private static string SizeName(Size paper) =>
        string.Create(CultureInfo.InvariantCulture, $"{paper.Width.Inches:0.##}x{paper.Height.Inches:0.##}");

    private static byte[] Csv(List<LabOrderPrint> prints)
    {
        using var memory = new MemoryStream();
        var options = CsvWriterOptions.Default with { Injection = CsvInjection.Escape, WriteByteOrderMark = true };
        using (var csv = CsvWriter.Create(memory, options, true))
        {
            Record(csv, "file", "size_in", "copies", "pieces", "sha256");
            foreach (var print in prints)
            {
                Record(
                    csv,
                    print.FileName,
                    print.Size,
                    "1",
                    string.Join("; ", print.Pieces.Select(p => p.Number)),
                    print.Sha256
                );
            }
        }

        return memory.ToArray();
    }

    private static void Record(CsvWriter csv, params string[] fields)
    {
        foreach (var field in fields)
        {
            csv.WriteField(field);
        }

        csv.EndRecord();
    }

    private static byte[] Json(LabOrder job, List<LabOrderPrint> prints) =>
        JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                format = "zesty-pocket-lab-order",
                version = 1,
                order = job.Id,
                enlargement = LabPrints.Enlargement,
                prints = prints.Select(p => new
                {
                    file = p.FileName,
                    sizeInches = p.Size,
                    copies = 1,
                    pieces = p.Pieces.Select(x => x.Number),
                    sha256 = p.Sha256,
                }),
            },
            JsonSerializerOptions.Web
        );
}

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
                "/lab-orders/{id:guid}/stand-in",
                async (Guid id, LabOrders orders, CancellationToken cancel) =>
                    LabOrderView.Of(await orders.StandInAsync(id, cancel))
            )
            .WithName("standInLab")
            .WithProblems();
        group
            .MapGet(
                "/lab-orders/{id:guid}/file",
                async (Guid id, AskedJobs<LabOrder> jobs, ZestySettings settings, CancellationToken cancel) =>
                {
                    var order = await jobs.RequireAsync(id, LabOrders.What, cancel);
                    var path = LabOrderRunner.PathOf(settings, id);
                    return order.State == JobState.Done && File.Exists(path)
                        ? Results.File(Path.GetFullPath(path), "application/zip", "lab-order.zip")
                        : throw new RuleException("The files are not drawn yet. Wait until they are, or order again.");
                }
            )
            .WithName("getLabFiles")
            .Produces(StatusCodes.Status200OK, contentType: "application/zip")
            .WithProblems();
    }
}
