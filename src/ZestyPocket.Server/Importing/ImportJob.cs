using System.Data.Common;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Photos;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>
/// Works through the files of an import. Each file's photo and its line are committed together, so the job can be
/// killed at any moment and run again: what is done stays done, the rest waits.
/// </summary>
public sealed partial class ImportJob(
    IServiceScopeFactory scopes, ZestyContext db, IPhotoVault vault, ImportNudges queue, LookalikeGroups lookalikes, IConfiguration configuration, IClock clock, ILogger<ImportJob> log)
{
    private static readonly TimeSpan LookForCancel = TimeSpan.FromMilliseconds(300);

    /// <summary>A lost database is waited for by the recovery as well; these are the job's own tries.</summary>
    [AutomaticRetry(Attempts = 3, DelaysInSeconds = [1, 2, 5], OnAttemptsExceeded = AttemptsExceededAction.Delete)]
    public async Task RunAsync(Guid batchId, CancellationToken cancel)
    {
        try
        {
            await using var turn = await TakeTurnAsync(batchId, cancel);
            while (await StepAsync(batchId, cancel))
            {
            }
        }
        finally
        {
            queue.Release(batchId);
        }

        // A file that came in between the last look and now would have found the job still queued.
        if (await db.Imports.AnyAsync(b => b.Id == batchId && (b.State == ImportState.Receiving || b.State == ImportState.Working)
            && (b.State == ImportState.Working || b.CancelAsked || b.Files.Any(f => f.Status == ImportStatus.Waiting)), cancel))
        {
            queue.Nudge(batchId);
        }
    }

    /// <summary>One job at a time works on an import, over all servers: a lock that ends with its connection.</summary>
    private async Task<NpgsqlConnection> TakeTurnAsync(Guid batchId, CancellationToken cancel)
    {
        var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(configuration.GetConnectionString("Zesty")) { Pooling = false }.ConnectionString);
        try
        {
            await connection.OpenAsync(cancel);
            await using var take = new NpgsqlCommand("SELECT pg_advisory_lock(hashtextextended(@batch, 0))", connection) { CommandTimeout = 0 };
            take.Parameters.AddWithValue("batch", batchId.ToString());
            await take.ExecuteNonQueryAsync(cancel);
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    /// <summary>Works on some files; false when there is nothing more to do for now.</summary>
    private async Task<bool> StepAsync(Guid batchId, CancellationToken cancel)
    {
        db.ChangeTracker.Clear();
        var batch = await db.Imports.SingleOrDefaultAsync(b => b.Id == batchId, cancel);
        if (batch is null or { State: ImportState.Done or ImportState.Cancelled })
        {
            return false;
        }

        if (batch.CancelAsked)
        {
            await db.ImportFiles.Where(f => f.BatchId == batchId && f.Status == ImportStatus.Waiting).ExecuteUpdateAsync(
                set => set.SetProperty(f => f.Status, ImportStatus.Cancelled).SetProperty(f => f.Detail, "Stopped before it was looked at. Add it again if you want it."), cancel);
            await EndAsync(batch, ImportState.Cancelled, cancel);
            return false;
        }

        var waiting = await db.ImportFiles.AsNoTracking().Where(f => f.BatchId == batchId && f.Status == ImportStatus.Waiting)
            .OrderBy(f => f.Sequence).Select(f => f.Id).Take(100).ToListAsync(cancel);
        if (waiting.Count == 0)
        {
            if (batch.State == ImportState.Working)
            {
                await EndAsync(batch, ImportState.Done, cancel);
            }

            return false;
        }

        var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == batch.AlbumId, cancel);
        var days = await AlbumDays.ReadAsync(db, album, cancel);
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var watch = WatchAsync(batchId, stop);
        try
        {
            await Parallel.ForEachAsync(
                waiting,
                new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = stop.Token },
                async (file, token) => await TakeAsync(batch.AlbumId, file, days, token));
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            // The keeper asked to stop; the next step sees to it.
        }
        finally
        {
            await stop.CancelAsync();
            await watch;
        }

        return true;
    }

    private async Task WatchAsync(Guid batchId, CancellationTokenSource stop)
    {
        try
        {
            while (true)
            {
                await Task.Delay(LookForCancel, stop.Token);
                await using var scope = scopes.CreateAsyncScope();
                var asked = scope.ServiceProvider.GetRequiredService<ZestyContext>();
                if (await asked.Imports.AnyAsync(b => b.Id == batchId && b.CancelAsked, stop.Token))
                {
                    await stop.CancelAsync();
                }
            }
        }
        catch (OperationCanceledException)
        {
            // The step is over.
        }
        catch (Exception away) when (away is NpgsqlException or InvalidOperationException)
        {
            // The files themselves will meet the same trouble and say so.
            LogAway(away.Message);
        }
    }

    private async Task TakeAsync(Guid albumId, Guid fileId, AlbumDays days, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var own = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var line = await own.ImportFiles.SingleAsync(f => f.Id == fileId, cancel);
        if (line.Status != ImportStatus.Waiting)
        {
            return;
        }

        try
        {
            if (line.ZipFileId is null && ZipBundle.Is(vault.PathOfParked(line.Id)))
            {
                await OpenZipAsync(own, line, cancel);
                return;
            }

            using var arrived = line.ZipFileId is { } zip ? await UnpackAsync(own, line, zip, cancel) : TakeUp(line);
            await scope.ServiceProvider.GetRequiredService<PhotoImport>().TakeAsync(albumId, days, line.FileName, arrived, line.Modified, line, cancel);
        }
        catch (PictureRefusedException refused)
        {
            await RefuseAsync(own, line, refused.Message, cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            // Another server finished this very file; its line is the true one.
        }
        catch (Exception unforeseen) when (unforeseen is not (OperationCanceledException or IOException or DbException or DbUpdateException or InvalidOperationException { InnerException: DbException } or TypeInitializationException))
        {
            // One file that the program cannot cope with must not hold up the others. A lost database or a full disk
            // is no fault of the file: the job ends there and is taken up again.
            LogUnforeseen(line.FileName, unforeseen);
            own.ChangeTracker.Clear();
            line = await own.ImportFiles.SingleAsync(f => f.Id == fileId, cancel);
            await RefuseAsync(own, line, "The program could not cope with this file; what happened is in its log. The file is not in the album.", cancel);
        }
    }

    private IArrivedFile TakeUp(ImportFile line)
    {
        try
        {
            return vault.TakeUp(line.Id, new StoredOriginal(line.Sha256!, line.Bytes));
        }
        catch (FileNotFoundException lost)
        {
            LogLost(line.FileName, lost);
            throw new PictureRefusedException("The file was received but is not on the disk any more. Add it again.");
        }
    }

    private static async Task RefuseAsync(ZestyContext own, ImportFile line, string reason, CancellationToken cancel)
    {
        (line.Status, line.Detail) = (ImportStatus.Refused, reason);
        await own.SaveChangesAsync(cancel);
    }

    /// <summary>Gives every file in a zip a line of its own; the zip itself is read in place.</summary>
    private async Task OpenZipAsync(ZestyContext own, ImportFile line, CancellationToken cancel)
    {
        var entries = ZipBundle.List(vault.PathOfParked(line.Id));
        own.ImportFiles.AddRange(entries.Select(e => new ImportFile
        {
            Id = Guid.CreateVersion7(),
            BatchId = line.BatchId,
            Key = $"{line.Key}/{e.Index}",
            FileName = PhotoImport.CleanName(e.Name),
            ZipFileId = line.Id,
            ZipEntry = e.Index,
            Modified = e.Modified,
        }));
        (line.Status, line.Detail) = (ImportStatus.Opened, $"Opened: {entries.Count} {(entries.Count == 1 ? "file" : "files")} inside.");
        await own.SaveChangesAsync(cancel);
    }

    private async Task<IArrivedFile> UnpackAsync(ZestyContext own, ImportFile line, Guid zip, CancellationToken cancel)
    {
        var unpacked = await own.ImportFiles.Where(f => f.ZipFileId == zip).SumAsync(f => f.Bytes, cancel);
        if (unpacked > ZipBundle.MostUnpacked)
        {
            throw new PictureRefusedException($"The zip unpacks to more than {ZipBundle.MostUnpacked >> 30} GB. Add the rest in a zip of its own.");
        }

        var arrived = await ZipBundle.UnpackAsync(vault, vault.PathOfParked(zip), line.ZipEntry!.Value, cancel);
        (line.Sha256, line.Bytes) = (arrived.Original.Sha256, arrived.Original.Bytes);
        return arrived;
    }

    private async Task EndAsync(ImportBatch batch, ImportState state, CancellationToken cancel)
    {
        await lookalikes.GroupAsync(batch.AlbumId, cancel);
        (batch.State, batch.EndedAt) = (state, clock.GetCurrentInstant());
        await db.SaveChangesAsync(cancel);
        // Refused and unpacked files, and what a crash left behind; kept ones have moved into the vault.
        foreach (var file in await db.ImportFiles.Where(f => f.BatchId == batch.Id).Select(f => f.Id).ToListAsync(cancel))
        {
            vault.DropParked(file);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Whether an import is to stop cannot be looked up just now: {Reason}")]
    private partial void LogAway(string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "A file could not be imported: {FileName}")]
    private partial void LogUnforeseen(string fileName, Exception exception);

    [LoggerMessage(Level = LogLevel.Error, Message = "A received file is gone: {FileName}")]
    private partial void LogLost(string fileName, Exception exception);
}
