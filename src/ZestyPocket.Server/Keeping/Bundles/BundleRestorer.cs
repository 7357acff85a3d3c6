using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>What came back from a bundle.</summary>
/// <param name="Lines">What did not come back or came back otherwise; empty when everything is as it was.</param>
public sealed record Restored(IReadOnlyList<BundleAlbum> Albums, int Originals, IReadOnlyList<string> Lines);

/// <summary>
/// Puts the albums of a bundle into the shelf of a keeper, as new albums with keys of their own. Of a damaged bundle
/// everything that is whole comes back, and the rest is reported. A bundle is a foreign file even if this program wrote
/// it: each row is read back as the program will read it, and each album opened, before anything is committed.
/// </summary>
public sealed partial class BundleRestorer(
    ZestyContext db,
    IPhotoVault vault,
    VaultSweeper sweeper,
    BundleJudge judge,
    UploadQuota quota,
    AlbumReader albums,
    UnitOpener opener,
    UnitReader units,
    ILogger<BundleRestorer> log
)
{
    /// <param name="keeperId">Whose albums they will be.</param>
    /// <param name="progress">Files done.</param>
    /// <param name="beforeCommit">What it notes on tracked rows is saved with the albums or not at all.</param>
    public async Task<Restored> RestoreAsync(
        string path,
        Guid keeperId,
        Action<int> progress,
        Action<Restored>? beforeCommit,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(progress);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await VaultLock.ShareAllAsync(db, cancel);
        var reading = new BundleReading(db, vault, judge, quota, keeperId);
        try
        {
            var restored = await ReadAsync(path, reading, progress, cancel);
            await OpenAllAsync(restored, keeperId, cancel);
            beforeCommit?.Invoke(restored);
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
            LogRestored(log, restored.Albums.Count, restored.Originals, restored.Lines.Count);
            return restored;
        }
        catch
        {
            await transaction.RollbackAsync(CancellationToken.None);
            foreach (var row in db.ChangeTracker.Entries().Where(e => e.Entity is not Restore).ToList())
            {
                row.State = EntityState.Detached;
            }

            // Originals lie outside the transaction: those that nothing names now go with it.
            await sweeper.RemoveUnnamedAsync(reading.Kept, CancellationToken.None);
            throw;
        }
    }

    /// <summary>
    /// Restores a bundle on trial: every row goes into the database and is taken out again. Gives what would not come
    /// back; throws <see cref="RuleException"/> when nothing would.
    /// </summary>
    public async Task<IReadOnlyList<string>> TryAsync(string path, Guid keeperId, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var tried = await ReadAsync(
            path,
            new BundleReading(db, vault, judge, quota, keeperId, onTrial: true),
            _ => { },
            cancel
        );
        await OpenAllAsync(tried, keeperId, cancel);
        await transaction.RollbackAsync(cancel);
        foreach (var row in db.ChangeTracker.Entries().Where(e => e.Entity is not Backup).ToList())
        {
            row.State = EntityState.Detached;
        }

        return tried.Lines;
    }

    private async Task<Restored> ReadAsync(
        string path,
        BundleReading reading,
        Action<int> progress,
        CancellationToken cancel
    )
    {
        var done = 0;
        foreach (var file in BundleReader.Files(path, reading.Report.Add))
        {
            cancel.ThrowIfCancellationRequested();
            try
            {
                await reading.TakeAsync(file, cancel);
            }
            catch (InvalidDataException)
            {
                reading.Report.Add($"{file.Name} is damaged: what could be read of it was taken.");
            }

            progress(++done);
        }

        await DocumentUpgrade.RunAsync(db, reading.AlbumIds, cancel);
        return await reading.FinishAsync(cancel);
    }

    /// <summary>Opens every album and week as its screen will: what cannot be opened does not come in.</summary>
    private async Task OpenAllAsync(Restored restored, Guid keeperId, CancellationToken cancel)
    {
        using var forKeeper = KeeperScope.Of(keeperId);
        foreach (var album in restored.Albums)
        {
            try
            {
                await albums.ViewAsync(album.Id, cancel);
                foreach (var open in await opener.OpenAlbumAsync(album.Id, cancel))
                {
                    cancel.ThrowIfCancellationRequested();
                    await units.ViewAsync(open, cancel);
                }
            }
            catch (Exception unreadable) when (unreadable is not (OperationCanceledException or OutOfMemoryException))
            {
                if (Outage.Of(unreadable) is not null)
                {
                    throw;
                }

                LogUnreadable(log, unreadable);
                throw new RuleException(
                    $"“{album.Name}” in this bundle cannot be opened: it is damaged, or another program wrote it. "
                        + "Nothing was restored."
                );
            }
        }
    }

    [LoggerMessage(
        Level = LogLevel.Information,
        Message = "Restored {Albums} albums, {Originals} originals, {Lines} lines"
    )]
    private static partial void LogRestored(ILogger log, int albums, int originals, int lines);

    [LoggerMessage(Level = LogLevel.Warning, Message = "An album of a bundle could not be opened")]
    private static partial void LogUnreadable(ILogger log, Exception exception);
}
