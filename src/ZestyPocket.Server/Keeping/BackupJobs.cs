using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Keeping;

/// <summary>Queues the writing of bundles.</summary>
public sealed class BackupNudges(IBackgroundJobClient jobs) : AskedJobNudges<Backup>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<BackupRunner>(JobQueues.Searches, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Queues the reading of bundles.</summary>
public sealed class RestoreNudges(IBackgroundJobClient jobs) : AskedJobNudges<Restore>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<RestoreRunner>(JobQueues.Searches, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Takes up backups that were left behind, and throws away bundles that were half written.</summary>
public sealed class BackupRecovery(
    IServiceScopeFactory scopes,
    BackupNudges backups,
    RestoreNudges restores,
    BookNudges books,
    ZestySettings settings,
    ILogger<BackupRecovery> log
) : JobRecovery(scopes, settings, log)
{
    protected override async Task NudgeAsync(ZestyContext db, CancellationToken cancel)
    {
        await backups.NudgeOpenAsync(db, cancel);
        await restores.NudgeOpenAsync(db, cancel);
        await books.NudgeOpenAsync(db, cancel);
    }

    protected override void Sweep()
    {
        var folder = new DirectoryInfo(Settings.Backups);
        if (!folder.Exists)
        {
            return;
        }

        foreach (
            var half in folder
                .EnumerateFiles()
                .Where(f => f.Extension != ".zip" && f.LastWriteTimeUtc < DateTime.UtcNow - TimeSpan.FromMinutes(10))
        )
        {
            half.Delete();
        }
    }
}

/// <summary>Writes a bundle.</summary>
public sealed class BackupRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    BundleWriter writer,
    BackupNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    ILogger<BackupRunner> log
) : AskedJobRunner<Backup>(db, queue, configuration, clock, log)
{
    protected override string Failure => "the bundle could not be written";

    protected override string TurnOf(Backup job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"backup {job.KeeperId}";
    }

    protected override async Task WorkAsync(Backup job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var albums = await Db
            .Albums.AsNoTracking()
            .Where(a => a.KeeperId == job.KeeperId && (job.AlbumIds.Count == 0 || job.AlbumIds.Contains(a.Id)))
            .Select(a => a.Id)
            .ToListAsync(cancel);
        if (albums.Count == 0)
        {
            throw new RuleException("There is no album to back up.");
        }

        job.State = Storage.Jobs.JobState.Running;
        await Db.SaveChangesAsync(cancel);
        Directory.CreateDirectory(settings.Backups);
        var path = Path.Combine(settings.Backups, job.FileName);
        using var watch = new JobWatch<Backup>(contexts, job.Id, cancel);
        job.Report =
        [
            .. await writer.WriteAsync(
                path,
                albums,
                (done, total) =>
                    watch.Tell(set => set.SetProperty(b => b.FilesDone, done).SetProperty(b => b.FilesTotal, total)),
                watch.Token
            ),
        ];
        (job.Bytes, job.FilesDone) = (new FileInfo(path).Length, job.FilesTotal);
    }
}

/// <summary>Reads a bundle back.</summary>
public sealed class RestoreRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    BundleRestorer restorer,
    RestoreNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    ILogger<RestoreRunner> log
) : AskedJobRunner<Restore>(db, queue, configuration, clock, log)
{
    protected override string Failure => "the bundle could not be restored";

    protected override string TurnOf(Restore job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"restore {job.KeeperId}";
    }

    protected override async Task WorkAsync(Restore job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var path = Path.Combine(settings.Backups, job.FileName);
        if (!File.Exists(path))
        {
            throw new RuleException("That bundle is not in the folder of backups any more. Nothing was restored.");
        }

        using var watch = new JobWatch<Restore>(contexts, job.Id, cancel);
        await restorer.RestoreAsync(
            path,
            job.KeeperId,
            done => watch.Tell(set => set.SetProperty(r => r.FilesDone, done)),
            restored =>
            {
                // In one transaction with the albums: a crash after it restores nothing a second time.
                (job.AlbumIds, job.Report) = ([.. restored.Albums.Select(a => a.Id)], [.. restored.Lines]);
                job.State = Storage.Jobs.JobState.Done;
            },
            watch.Token
        );
    }
}
