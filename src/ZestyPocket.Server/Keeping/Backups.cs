using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Keeping;

/// <summary>Starts backups and restores, and knows the bundles in their folder.</summary>
public sealed class Backups(
    ZestyContext db,
    ICurrentKeeper keeper,
    AskedJobs<Backup> backups,
    AskedJobs<Restore> restores,
    BundleRestorer restorer,
    UploadQuota quota,
    ZestySettings settings,
    IMadeFiles files,
    IClock clock
)
{
    public const string What = "That backup";

    public const string WhatRestore = "That restore";

    /// <summary>The largest bundle that is sent to be restored.</summary>
    public const long LargestBundle = 200L << 30;

    /// <summary>Rows and history take room beside the originals.</summary>
    private const long SmallestBound = 100L << 20;

    /// <summary>How the name of a bundle begins that was sent to be restored.</summary>
    public const string Arrived = "arrived-";

    private const int MostAlbums = 500;

    public Task<Backup> StartAsync(string key, IReadOnlyList<Guid>? albumIds, CancellationToken cancel) =>
        backups.StartAsync(
            key,
            async () =>
            {
                var ids = (albumIds ?? []).Distinct().ToList();
                var names = await db
                    .Albums.AsNoTracking()
                    .Where(a => a.KeeperId == keeper.Id && ids.Contains(a.Id))
                    .Select(a => a.Name)
                    .ToListAsync(cancel);
                if (names.Count < ids.Count || ids.Count > MostAlbums)
                {
                    throw new MissingException("That album");
                }

                return new Backup
                {
                    RequestKey = key,
                    AlbumIds = ids,
                    FileName = FileName(names.Count == 1 ? names[0] : "all-albums"),
                };
            },
            cancel
        );

    public async Task<BackupScheduleView> ScheduleAsync(CancellationToken cancel)
    {
        var now = await db.Keepers.AsNoTracking().SingleAsync(k => k.Id == keeper.Id, cancel);
        // Where a server keeps its files is nobody's business but of whoever runs it.
        var folder =
            settings.SignIn == SignInMode.None
                ? Path.GetFullPath(settings.Backups)
                : Path.GetFileName(settings.Backups);
        return new BackupScheduleView(now.BackupEveryDays, now.BackupsKept, folder);
    }

    public async Task<BackupScheduleView> ScheduleAsync(BackupRhythm rhythm, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(rhythm);
        rhythm.Checked();
        await db
            .Keepers.Where(k => k.Id == keeper.Id)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(k => k.BackupEveryDays, rhythm.EveryDays)
                        .SetProperty(k => k.BackupsKept, rhythm.Kept),
                cancel
            );
        return await ScheduleAsync(cancel);
    }

    /// <summary>The newest first.</summary>
    public Task<List<Backup>> ListAsync(CancellationToken cancel) =>
        db
            .Backups.AsNoTracking()
            .Where(b => b.KeeperId == keeper.Id)
            .OrderByDescending(b => b.MadeAt)
            .Take(100)
            .ToListAsync(cancel);

    /// <summary>The path of a bundle that is whole; refuses in words else.</summary>
    public async Task<string> PathAsync(Guid id, CancellationToken cancel)
    {
        var backup = await backups.RequireAsync(id, What, cancel);
        return
            backup.State == JobState.Done
            && await files.FetchAsync(Path.Combine(settings.Backups, backup.FileName), cancel) is { } path
            ? Path.GetFullPath(path)
            : throw new RuleException(
                "That bundle is not written yet, or not in the folder of backups any more. Back up again."
            );
    }

    public async Task DeleteAsync(Guid id, CancellationToken cancel)
    {
        var backup = await backups.RequireAsync(id, What, cancel);
        if (backup.State is JobState.Waiting or JobState.Running)
        {
            throw new RuleException("This backup is being written. Cancel it first.");
        }

        await files.RemoveAsync(Path.Combine(settings.Backups, backup.FileName), cancel);
        await db.Backups.Where(b => b.Id == id).ExecuteDeleteAsync(cancel);
    }

    public async Task<Restore> RestoreAsync(Guid backupId, string key, CancellationToken cancel)
    {
        var path = await PathAsync(backupId, cancel);
        return await StartRestoreAsync(key, Path.GetFileName(path), cancel);
    }

    /// <summary>Takes a bundle in that is sent, and starts to restore it.</summary>
    public async Task<Restore> RestoreAsync(Stream bundle, string key, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(bundle);
        // A key that is known is the same restore: nothing is read or kept a second time.
        if (await restores.KnownAsync(key, cancel) is { } known)
        {
            return known;
        }

        Directory.CreateDirectory(settings.Backups);
        var name = $"{Arrived}{Guid.NewGuid():N}.zip";
        var temporary = Path.Combine(settings.Backups, $"{name}.part");
        try
        {
            await using (var file = new FileStream(temporary, FileMode.CreateNew, FileAccess.Write))
            {
                await CopyAsync(bundle, file, cancel);
            }

            File.Move(temporary, Path.Combine(settings.Backups, name));
            // Another server may be the one that restores it.
            await files.ShareAsync(Path.Combine(settings.Backups, name), cancel);
        }
        finally
        {
            File.Delete(temporary);
        }

        return await StartRestoreAsync(key, name, cancel);
    }

    /// <summary>
    /// Counted while it arrives: no more than a keeper has room for, with something for rows and history.
    /// </summary>
    private async Task CopyAsync(Stream from, FileStream to, CancellationToken cancel)
    {
        var most = await quota.RoomAsync(keeper.Id, cancel) is { } room ? room + SmallestBound : LargestBundle;
        var buffer = new byte[1 << 17];
        for (int read; (read = await from.ReadAsync(buffer, cancel)) > 0; )
        {
            if (to.Length + read > most)
            {
                throw new RuleException(
                    "This bundle holds more than there is room for in your albums. Nothing was kept: make room, or "
                        + "ask whoever runs the program for more."
                );
            }

            await to.WriteAsync(buffer.AsMemory(0, read), cancel);
        }
    }

    /// <summary>Restores a bundle from the command line; gives 0 when something came back, else 1.</summary>
    public async Task<int> RestoreFromTerminalAsync(string path, Action<string> say, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(say);
        if (!File.Exists(path))
        {
            say($"There is no file {path}. Nothing was restored.");
            return 1;
        }

        try
        {
            var restored = await restorer.RestoreAsync(path, keeper.Id, _ => { }, null, cancel);
            foreach (var album in restored.Albums)
            {
                say($"Restored “{album.Name}”.");
            }

            foreach (var line in restored.Lines)
            {
                say(line);
            }

            return 0;
        }
        catch (RuleException refused)
        {
            say(refused.Message);
            return 1;
        }
    }

    private Task<Restore> StartRestoreAsync(string key, string fileName, CancellationToken cancel) =>
        restores.StartAsync(key, () => Task.FromResult(new Restore { RequestKey = key, FileName = fileName }), cancel);

    /// <summary>Such as <c>2026-05-04-193000-our-year-1a2b3c.zip</c>: safe on every system.</summary>
    private string FileName(string album)
    {
        var now = clock.GetCurrentInstant().ToDateTimeUtc();
        var safe = new string([
            .. album.Take(60).Select(c => char.IsAsciiLetterOrDigit(c) ? char.ToLowerInvariant(c) : '-'),
        ]);
        var name = safe.Trim('-').Replace("--", "-", StringComparison.Ordinal);
        return string.Create(
                CultureInfo.InvariantCulture,
                $"{now:yyyy-MM-dd-HHmmss}-{(name.Length == 0 ? "album" : name)}-{Guid.NewGuid():N}"
            )[..^26] + ".zip";
    }
}
