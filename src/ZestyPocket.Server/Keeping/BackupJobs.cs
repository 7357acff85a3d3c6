using System.Globalization;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
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
    IClock clock,
    ILogger<BackupRecovery> log
) : JobRecovery(scopes, settings, log)
{
    protected override async Task NudgeAsync(ZestyContext db, CancellationToken cancel)
    {
        await MakeDueAsync(db, cancel);
        await backups.NudgeOpenAsync(db, cancel);
        await restores.NudgeOpenAsync(db, cancel);
        await books.NudgeOpenAsync(db, cancel);
    }

    /// <summary>A keeper whose last scheduled backup is old enough gets one; over all servers one a day.</summary>
    private async Task MakeDueAsync(ZestyContext db, CancellationToken cancel)
    {
        var now = clock.GetCurrentInstant();
        var keepers = await db.Keepers.AsNoTracking().Where(k => k.BackupEveryDays != null).ToListAsync(cancel);
        foreach (var keeper in keepers)
        {
            var last = await db
                .Backups.Where(b => b.KeeperId == keeper.Id && b.Scheduled)
                .MaxAsync(b => (Instant?)b.MadeAt, cancel);
            if (!keeper.Rhythm().IsDue(last, now) || !await db.Albums.AnyAsync(a => a.KeeperId == keeper.Id, cancel))
            {
                continue;
            }

            var day = now.InUtc().Date.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
            db.Backups.Add(
                new Backup
                {
                    Id = Guid.CreateVersion7(),
                    KeeperId = keeper.Id,
                    RequestKey = $"scheduled {day}",
                    FileName = $"{day}-scheduled-{Guid.NewGuid().ToString("N")[..6]}.zip",
                    Scheduled = true,
                    MadeAt = now,
                }
            );
            try
            {
                await db.SaveChangesAsync(cancel);
            }
            catch (DbUpdateException twice)
                when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
            {
                // Another server was first.
                db.ChangeTracker.Clear();
            }
        }
    }

    protected override void Sweep()
    {
        var folder = new DirectoryInfo(Settings.Backups);
        if (!folder.Exists)
        {
            return;
        }

        foreach (var half in folder.EnumerateFiles().Where(f => f.LastWriteTimeUtc < DateTime.UtcNow - MostAgeOf(f)))
        {
            half.Delete();
        }
    }

    /// <summary>A bundle that was sent stays for a day at most; one that was written stays.</summary>
    private static TimeSpan MostAgeOf(FileInfo file) =>
        file.Extension != ".zip" ? TimeSpan.FromMinutes(10)
        : file.Name.StartsWith(Backups.Arrived, StringComparison.Ordinal) ? TimeSpan.FromDays(1)
        : TimeSpan.FromDays(36_500);
}

/// <summary>Writes a bundle.</summary>
public sealed class BackupRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    BundleWriter writer,
    BundleRestorer restorer,
    BackupNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IMadeFiles files,
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

        job.State = JobState.Running;
        await Db.SaveChangesAsync(cancel);
        albums = await writer.WithInsertsAsync(albums, cancel);
        await RequireRoomAsync(job, albums, cancel);
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
        job.Report.AddRange(await TriedAsync(path, job.KeeperId, watch.Token));
        await files.ShareAsync(path, watch.Token);
        (job.Bytes, job.FilesDone) = (new FileInfo(path).Length, job.FilesTotal);
    }

    /// <summary>Originals are not packed further: a bundle is about as large as they are.</summary>
    private async Task RequireRoomAsync(Backup job, List<Guid> albums, CancellationToken cancel)
    {
        if (settings.BundlesMegabytes is not { } most)
        {
            return;
        }

        const long Megabyte = 1_000_000;
        var used =
            await Db
                .Backups.Where(b => b.KeeperId == job.KeeperId && b.State == JobState.Done)
                .SumAsync(b => (long?)b.Bytes, cancel)
            ?? 0;
        var photos = Db.Photos.Where(p => albums.Contains(p.AlbumId)).Select(p => new { p.Sha256, p.Bytes });
        var videos = Db.Videos.Where(v => albums.Contains(v.AlbumId)).Select(v => new { v.Sha256, v.Bytes });
        var needed = await photos.Union(videos).SumAsync(o => (long?)o.Bytes, cancel) ?? 0;
        if (used + needed > most * Megabyte)
        {
            throw new RuleException(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Your bundles take {used / Megabyte:N0} of {most:N0} MB, and this one has {needed / Megabyte:N0} "
                        + $"MB of pictures. Nothing was written: delete a bundle that you have a copy of, then back up "
                        + $"again."
                )
            );
        }
    }

    /// <summary>
    /// What cannot be restored is no backup: it is tried before it is called one. The bundle of a damaged album stays
    /// all the same, as the only way to take out what there is.
    /// </summary>
    private async Task<IReadOnlyList<string>> TriedAsync(string path, Guid keeperId, CancellationToken cancel)
    {
        try
        {
            return await restorer.TryAsync(path, keeperId, cancel);
        }
        catch (RuleException refused)
        {
            return
            [
                $"This bundle holds everything as it is, but could not be restored: {refused.Message} Keep an earlier "
                    + "one.",
            ];
        }
    }

    /// <summary>Of scheduled bundles only the newest are kept.</summary>
    protected override async Task NoteAsync(Backup job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        if (!job.Scheduled)
        {
            return;
        }

        var keeper = await Db.Keepers.AsNoTracking().SingleAsync(k => k.Id == job.KeeperId, cancel);
        var whole = await Db
            .Backups.Where(b =>
                b.KeeperId == job.KeeperId && b.Scheduled && (b.State == JobState.Done || b.Id == job.Id)
            )
            .ToListAsync(cancel);
        var old = keeper.Rhythm().TooMany(whole.Select(b => (b.Id, b.MadeAt))).ToHashSet();
        foreach (var backup in whole.Where(b => old.Contains(b.Id)))
        {
            await files.RemoveAsync(Path.Combine(settings.Backups, backup.FileName), cancel);
            Db.Backups.Remove(backup);
        }
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
    IMadeFiles files,
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
        if (await files.FetchAsync(path, cancel) is null)
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
                job.State = JobState.Done;
            },
            watch.Token
        );
    }

    /// <summary>A bundle that was sent has done its work.</summary>
    protected override Task NoteAsync(Restore job, CancellationToken cancel) => RemoveSentAsync(job, cancel);

    /// <summary>One that was refused is not kept either.</summary>
    protected override Task GaveUpAsync(Restore job) => RemoveSentAsync(job, CancellationToken.None);

    private async Task RemoveSentAsync(Restore job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        if (job.FileName.StartsWith(Backups.Arrived, StringComparison.Ordinal))
        {
            await files.RemoveAsync(Path.Combine(settings.Backups, job.FileName), cancel);
        }
    }
}
