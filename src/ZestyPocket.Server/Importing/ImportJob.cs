using System.Data.Common;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>
/// Works through the files of an import. Each file's photo and its line are committed together, so the job can be
/// killed at any moment and run again: what is done stays done, the rest waits.
/// </summary>
public sealed partial class ImportJob(
    IServiceScopeFactory scopes,
    ZestyContext db,
    IPhotoVault vault,
    ImportNudges queue,
    LookalikeGroups lookalikes,
    IConfiguration configuration,
    IClock clock,
    ILogger<ImportJob> log
)
{
    private static readonly TimeSpan LookForCancel = TimeSpan.FromMilliseconds(300);

    private bool _waitsForLane;

    /// <summary>So many files are worked on before another album's import has its turn.</summary>
    private const int FilesATurn = 12;

    /// <summary>
    /// Files that take long are worked on one at a time over the whole program, so that a worker is always left.
    /// </summary>
    private static readonly SemaphoreSlim SlowLane = new(1);

    /// <summary>A lost database is waited for by the recovery as well; these are the job's own tries.</summary>
    [AutomaticRetry(Attempts = 3, DelaysInSeconds = [1, 2, 5], OnAttemptsExceeded = AttemptsExceededAction.Delete)]
    public async Task RunAsync(Guid batchId, CancellationToken cancel)
    {
        queue.Began(batchId);
        try
        {
            // One job at a time works on an import, over all servers. Whoever finds it taken leaves: the recovery asks
            // again.
            await using var turn = await ServerLock.TryTakeAsync(configuration, batchId.ToString(), cancel);
            if (turn is null)
            {
                return;
            }

            while (await StepAsync(batchId, cancel) && !await OthersWaitAsync(batchId, cancel)) { }
        }
        finally
        {
            queue.Release(batchId);
        }

        // The turn is over, or a file came in between the last look and now: at the end of the queue again.
        if (!_waitsForLane && await ImportRecovery.Unfinished(db).AnyAsync(b => b.Id == batchId, cancel))
        {
            queue.Nudge(batchId);
        }
    }

    private Task<bool> OthersWaitAsync(Guid batchId, CancellationToken cancel) =>
        ImportRecovery.Unfinished(db).AnyAsync(b => b.Id != batchId, cancel);

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
            await db
                .ImportFiles.Where(f => f.BatchId == batchId && f.Status == ImportStatus.Waiting)
                .ExecuteUpdateAsync(
                    set =>
                        set.SetProperty(f => f.Status, ImportStatus.Cancelled)
                            .SetProperty(
                                f => f.Detail,
                                "Stopped before it was looked at. Add it again if you want it."
                            ),
                    cancel
                );
            await EndAsync(batch, ImportState.Cancelled, cancel);
            return false;
        }

        var waiting = await db
            .ImportFiles.AsNoTracking()
            .Where(f => f.BatchId == batchId && f.Status == ImportStatus.Waiting)
            .OrderBy(f => f.SetAside)
            .ThenBy(f => f.Sequence)
            .Select(f => new { f.Id, f.SetAside })
            .Take(FilesATurn)
            .ToListAsync(cancel);
        if (waiting.Count == 0)
        {
            if (batch.State == ImportState.Working)
            {
                await EndAsync(batch, ImportState.Done, cancel);
            }

            return false;
        }

        var slow = waiting[0].SetAside;
        if (slow && !await SlowLane.WaitAsync(TimeSpan.Zero, cancel))
        {
            _waitsForLane = true;
            return false;
        }

        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var watch = WatchAsync(batchId, stop);
        try
        {
            await Parallel.ForEachAsync(
                slow ? waiting.Take(1) : waiting.Where(f => !f.SetAside),
                new ParallelOptions
                {
                    MaxDegreeOfParallelism = Environment.ProcessorCount,
                    CancellationToken = stop.Token,
                },
                async (file, token) => await TakeAsync(batch.AlbumId, file.Id, token)
            );
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            // The keeper asked to stop; the next step sees to it.
        }
        finally
        {
            await stop.CancelAsync();
            await watch;
            if (slow)
            {
                SlowLane.Release();
            }
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

    private async Task TakeAsync(Guid albumId, Guid fileId, CancellationToken cancel)
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
            await scope
                .ServiceProvider.GetRequiredService<PhotoImport>()
                .TakeAsync(albumId, line.FileName, arrived, line.Modified, line, cancel);
        }
        catch (PictureTakesLongException) when (!line.SetAside)
        {
            line.SetAside = true;
            await own.SaveChangesAsync(cancel);
        }
        catch (PictureRefusedException refused)
        {
            await RefuseAsync(own, line, refused.Message, cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            // Another server finished this very file; its line is the true one.
        }
        catch (Exception unforeseen)
            when (unforeseen
                    is not (
                        OperationCanceledException
                        or IOException
                        or DbException
                        or DbUpdateException
                        or InvalidOperationException { InnerException: DbException }
                        or TypeInitializationException
                    )
            )
        {
            // One file that the program cannot cope with must not hold up the others. A lost database or a full disk
            // is no fault of the file: the job ends there and is taken up again.
            LogUnforeseen(line.FileName, unforeseen);
            own.ChangeTracker.Clear();
            line = await own.ImportFiles.SingleAsync(f => f.Id == fileId, cancel);
            await RefuseAsync(
                own,
                line,
                "The program could not cope with this file; what happened is in its log. The file is not in the album.",
                cancel
            );
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
        own.ImportFiles.AddRange(
            entries.Select(e => new ImportFile
            {
                Id = Guid.CreateVersion7(),
                BatchId = line.BatchId,
                Key = $"{line.Key}/{e.Index}",
                FileName = PhotoImport.CleanName(e.Name),
                ZipFileId = line.Id,
                ZipEntry = e.Index,
                Modified = e.Modified,
                FolderDay = FolderDate.Read(e.Name),
            })
        );
        (line.Status, line.Detail) = (
            ImportStatus.Opened,
            $"Opened: {entries.Count} {(entries.Count == 1 ? "file" : "files")} inside."
        );
        await own.SaveChangesAsync(cancel);
    }

    private async Task<IArrivedFile> UnpackAsync(ZestyContext own, ImportFile line, Guid zip, CancellationToken cancel)
    {
        var unpacked = await own.ImportFiles.Where(f => f.ZipFileId == zip).SumAsync(f => f.Bytes, cancel);
        if (unpacked > ZipBundle.MostUnpacked)
        {
            throw new PictureRefusedException(
                $"The zip unpacks to more than {ZipBundle.MostUnpacked >> 30} GB. Add the rest in a zip of its own."
            );
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
        foreach (
            var file in await db.ImportFiles.Where(f => f.BatchId == batch.Id).Select(f => f.Id).ToListAsync(cancel)
        )
        {
            vault.DropParked(file);
        }
    }

    [LoggerMessage(
        Level = LogLevel.Warning,
        Message = "Whether an import is to stop cannot be looked up just now: {Reason}"
    )]
    private partial void LogAway(string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "A file could not be imported: {FileName}")]
    private partial void LogUnforeseen(string fileName, Exception exception);

    [LoggerMessage(Level = LogLevel.Error, Message = "A received file is gone: {FileName}")]
    private partial void LogLost(string fileName, Exception exception);
}
