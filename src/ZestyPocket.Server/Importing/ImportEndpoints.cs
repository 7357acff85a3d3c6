using System.Globalization;
using CsvHelper;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>How far an import is.</summary>
public sealed record ImportView(
    Guid Id,
    Guid AlbumId,
    ImportState State,
    ImportSource Source,
    Instant MadeAt,
    int Files,
    int Waiting,
    int Added,
    int AlreadyHere,
    int Refused,
    int Cancelled,
    IReadOnlyList<ImportLine> RefusedLines
);

/// <summary>One file's line.</summary>
public sealed record ImportLine(string FileName, ImportStatus Status, string Detail, Guid? PhotoId);

/// <summary>What waits on the phone.</summary>
public sealed record OutboxView(int Files, long Bytes);

public static class ImportEndpoints
{
    public const int MostFiles = 20_000;

    public static void MapImporting(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Importing");

        // One file, looked at while the sender waits: for scripts. The desk sends whole imports.
        group
            .MapPost(
                "/albums/{albumId:guid}/photos",
                async (
                    Guid albumId,
                    [FromQuery] string name,
                    HttpRequest request,
                    AlbumReader albums,
                    IPhotoVault vault,
                    PhotoImport import,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    using var arrived = await vault.ReceiveAsync(request.Body, PictureIntake.LargestFile, cancel);
                    return await import.TakeAsync(albumId, name, arrived, null, null, cancel);
                }
            )
            .WithName("addPhoto")
            .RequireRateLimiting(RateLimits.Uploads)
            .Accepts<byte[]>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(PictureIntake.LargestFile + (1 << 20)))
            .WithProblems();

        group
            .MapPost(
                "/albums/{albumId:guid}/imports",
                async (
                    Guid albumId,
                    ZestyContext db,
                    AlbumReader albums,
                    ICurrentKeeper keeper,
                    IClock clock,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    // An import whose sender went away is closed when the next one begins.
                    var old = clock.GetCurrentInstant() - Duration.FromHours(1);
                    await db
                        .Imports.Where(b => b.AlbumId == albumId && b.State == ImportState.Receiving && b.MadeAt < old)
                        .ExecuteUpdateAsync(set => set.SetProperty(b => b.State, ImportState.Working), cancel);
                    var batch = Batch(albumId, keeper.Id, ImportSource.Files, clock);
                    db.Imports.Add(batch);
                    await db.SaveChangesAsync(cancel);
                    return await ViewAsync(db, batch.Id, cancel);
                }
            )
            .WithName("beginImport")
            .WithProblems();

        group
            .MapPost(
                "/imports/{id:guid}/files",
                async (
                    Guid id,
                    [FromQuery] string name,
                    [FromQuery] string key,
                    [FromQuery] string? modified,
                    HttpRequest request,
                    ZestyContext db,
                    ICurrentKeeper keeper,
                    IPhotoVault vault,
                    ImportNudges queue,
                    CancellationToken cancel
                ) =>
                {
                    var batch = await RequireAsync(db, keeper, id, cancel);
                    if (key.Length is 0 or > 60)
                    {
                        throw new RuleException("A file needs a key of 1 to 60 characters.");
                    }

                    if (
                        await db
                            .ImportFiles.AsNoTracking()
                            .SingleOrDefaultAsync(f => f.BatchId == id && f.Key == key, cancel) is
                        { } known
                    )
                    {
                        return Line(known);
                    }

                    if (batch.State != ImportState.Receiving || batch.CancelAsked)
                    {
                        throw new RuleException(
                            "This import was closed or stopped. Begin another one for the rest of the files."
                        );
                    }

                    if (await db.ImportFiles.CountAsync(f => f.BatchId == id, cancel) >= MostFiles)
                    {
                        throw new RuleException(
                            $"One import takes {MostFiles:N0} files at most. Begin another one for the rest."
                        );
                    }

                    var most =
                        name.EndsWith(".zip", StringComparison.OrdinalIgnoreCase) ? ZipBundle.LargestZip
                        : VideoFiles.HasEnding(name) ? VideoFiles.LargestFile
                        : PictureIntake.LargestFile;
                    using var arrived = await vault.ReceiveAsync(request.Body, most, cancel);
                    return Line(
                        await AddAsync(db, vault, queue, batch.Id, key, name, arrived, Moment(modified), cancel)
                    );
                }
            )
            .WithName("sendFile")
            .RequireRateLimiting(RateLimits.Uploads)
            .Accepts<byte[]>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(ZipBundle.LargestZip + (1 << 20)))
            .WithProblems();

        group
            .MapPost(
                "/imports/{id:guid}/close",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, ImportNudges queue, CancellationToken cancel) =>
                {
                    await RequireAsync(db, keeper, id, cancel);
                    await db
                        .Imports.Where(b => b.Id == id && b.State == ImportState.Receiving)
                        .ExecuteUpdateAsync(set => set.SetProperty(b => b.State, ImportState.Working), cancel);
                    queue.Nudge(id);
                    return await ViewAsync(db, id, cancel);
                }
            )
            .WithName("closeImport")
            .WithProblems();

        group
            .MapPost(
                "/imports/{id:guid}/cancel",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, ImportNudges queue, CancellationToken cancel) =>
                {
                    await RequireAsync(db, keeper, id, cancel);
                    await db
                        .Imports.Where(b => b.Id == id)
                        .ExecuteUpdateAsync(set => set.SetProperty(b => b.CancelAsked, true), cancel);
                    queue.Nudge(id);
                    return await ViewAsync(db, id, cancel);
                }
            )
            .WithName("cancelImport")
            .WithProblems();

        group
            .MapGet(
                "/imports/{id:guid}",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                {
                    await RequireAsync(db, keeper, id, cancel);
                    return await ViewAsync(db, id, cancel);
                }
            )
            .WithName("getImport")
            .WithProblems();

        group
            .MapGet(
                "/albums/{albumId:guid}/imports",
                async (Guid albumId, ZestyContext db, AlbumReader albums, CancellationToken cancel) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    var ids = await db
                        .Imports.Where(b => b.AlbumId == albumId)
                        .OrderByDescending(b => b.MadeAt)
                        .Select(b => b.Id)
                        .Take(10)
                        .ToListAsync(cancel);
                    var views = new List<ImportView>();
                    foreach (var id in ids)
                    {
                        views.Add(await ViewAsync(db, id, cancel));
                    }

                    return views;
                }
            )
            .WithName("listImports")
            .WithProblems();

        group
            .MapGet(
                "/imports/{id:guid}/outcomes.csv",
                async (Guid id, ZestyContext db, ICurrentKeeper keeper, CancellationToken cancel) =>
                {
                    await RequireAsync(db, keeper, id, cancel);
                    var lines = await db
                        .ImportFiles.AsNoTracking()
                        .Where(f => f.BatchId == id)
                        .OrderBy(f => f.Sequence)
                        .ToListAsync(cancel);
                    return Results.File(Csv(lines), "text/csv; charset=utf-8", "import-outcomes.csv");
                }
            )
            .WithName("getImportOutcomes")
            .Produces(StatusCodes.Status200OK, contentType: "text/csv")
            .WithProblems();

        group
            .MapGet(
                "/outbox",
                (IPhoneOutbox outbox) =>
                {
                    var files = outbox.List();
                    return new OutboxView(files.Count, files.Sum(f => f.Bytes));
                }
            )
            .WithName("getOutbox");

        group
            .MapPost(
                "/albums/{albumId:guid}/imports/outbox",
                async (
                    Guid albumId,
                    ZestyContext db,
                    AlbumReader albums,
                    ICurrentKeeper keeper,
                    IClock clock,
                    IPhotoVault vault,
                    IPhoneOutbox outbox,
                    ImportNudges queue,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    var files = outbox.List().Take(MostFiles).ToList();
                    if (files.Count == 0)
                    {
                        throw new RuleException(
                            "Nothing waits in the phone outbox just now. Try again when the phone has sent something."
                        );
                    }

                    var batch = Batch(albumId, keeper.Id, ImportSource.Outbox, clock);
                    db.Imports.Add(batch);
                    await db.SaveChangesAsync(cancel);
                    foreach (var (file, i) in files.Select((f, i) => (f, i)))
                    {
                        await using var content = outbox.Open(file.Name);
                        using var arrived = await vault.ReceiveAsync(content, ZipBundle.LargestZip, cancel);
                        await AddAsync(
                            db,
                            vault,
                            queue,
                            batch.Id,
                            i.ToString(CultureInfo.InvariantCulture),
                            file.Name,
                            arrived,
                            file.Modified,
                            cancel
                        );
                        // Only now that the program has it safe.
                        outbox.Remove(file.Name);
                    }

                    await db
                        .Imports.Where(b => b.Id == batch.Id)
                        .ExecuteUpdateAsync(set => set.SetProperty(b => b.State, ImportState.Working), cancel);
                    queue.Nudge(batch.Id);
                    return await ViewAsync(db, batch.Id, cancel);
                }
            )
            .WithName("fetchOutbox")
            .WithProblems();
    }

    private static ImportBatch Batch(Guid albumId, Guid keeperId, ImportSource source, IClock clock) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            KeeperId = keeperId,
            Source = source,
            MadeAt = clock.GetCurrentInstant(),
        };

    /// <summary>
    /// The file is set aside before the row that names it is committed, so that there is never a row without its file.
    /// </summary>
    private static async Task<ImportFile> AddAsync(
        ZestyContext db,
        IPhotoVault vault,
        ImportNudges queue,
        Guid batchId,
        string key,
        string name,
        IArrivedFile arrived,
        LocalDateTime? modified,
        CancellationToken cancel
    )
    {
        var line = new ImportFile
        {
            Id = Guid.CreateVersion7(),
            BatchId = batchId,
            Key = key,
            FileName = PhotoImport.CleanName(name),
            Sha256 = arrived.Original.Sha256,
            Bytes = arrived.Original.Bytes,
            Modified = modified,
            FolderDay = FolderDate.Read(name),
        };
        arrived.Park(line.Id);
        db.ImportFiles.Add(line);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Sent twice at once under one key: the other one counts.
            db.Entry(line).State = EntityState.Detached;
            vault.DropParked(line.Id);
            return await db.ImportFiles.AsNoTracking().SingleAsync(f => f.BatchId == batchId && f.Key == key, cancel);
        }

        queue.Nudge(batchId);
        return line;
    }

    private static async Task<ImportBatch> RequireAsync(
        ZestyContext db,
        ICurrentKeeper keeper,
        Guid id,
        CancellationToken cancel
    ) =>
        await db.Imports.AsNoTracking().SingleOrDefaultAsync(b => b.Id == id && b.KeeperId == keeper.Id, cancel)
        ?? throw new MissingException("The import");

    private static async Task<ImportView> ViewAsync(ZestyContext db, Guid id, CancellationToken cancel)
    {
        var batch = await db.Imports.AsNoTracking().SingleAsync(b => b.Id == id, cancel);
        var counts = await db
            .ImportFiles.Where(f => f.BatchId == id)
            .GroupBy(f => f.Status)
            .Select(g => new { Status = g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Status, g => g.Count, cancel);
        var refused = await db
            .ImportFiles.AsNoTracking()
            .Where(f => f.BatchId == id && f.Status == ImportStatus.Refused)
            .OrderBy(f => f.Sequence)
            .Take(200)
            .ToListAsync(cancel);
        return new ImportView(
            id,
            batch.AlbumId,
            batch.State,
            batch.Source,
            batch.MadeAt,
            counts.Where(c => c.Key != ImportStatus.Opened).Sum(c => c.Value),
            Count(ImportStatus.Waiting),
            Count(ImportStatus.Added),
            Count(ImportStatus.AlreadyHere),
            Count(ImportStatus.Refused),
            Count(ImportStatus.Cancelled),
            refused.ConvertAll(Line)
        );

        int Count(ImportStatus status) => counts.GetValueOrDefault(status);
    }

    private static ImportLine Line(ImportFile file) => new(file.FileName, file.Status, file.Detail, file.PhotoId);

    private static LocalDateTime? Moment(string? text) =>
        text is not null
        && LocalDateTimePattern.ExtendedIso.Parse(text)
            is { Success: true, Value: { Year: >= 1800 and <= 2200 } moment }
            ? moment
            : null;

    private static byte[] Csv(List<ImportFile> lines)
    {
        using var memory = new MemoryStream();
        var options = CsvWriterOptions.Default with { Injection = CsvInjection.Escape, WriteByteOrderMark = true };
        using (var csv = CsvWriter.Create(memory, options, true))
        {
            Record(csv, "file", "outcome", "detail");
            foreach (var line in lines)
            {
                Record(csv, line.FileName, Words(line.Status), line.Detail);
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

    private static string Words(ImportStatus status) =>
        status switch
        {
            ImportStatus.AlreadyHere => "already here",
            _ => status.ToString().ToLowerInvariant(),
        };
}
