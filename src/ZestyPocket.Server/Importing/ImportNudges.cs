using Hangfire;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>Queues the jobs of imports.</summary>
public sealed class ImportNudges(IBackgroundJobClient jobs) : JobNudges(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<ImportJob>(JobQueues.Imports, job => job.RunAsync(id, CancellationToken.None));
}

/// <summary>Takes up imports that were left behind, and throws away received files that no row names.</summary>
public sealed class ImportRecovery(
    IServiceScopeFactory scopes,
    ImportNudges queue,
    ZestySettings settings,
    IPhotoVault vault,
    ILogger<ImportRecovery> log
) : JobRecovery(scopes, settings, log)
{
    private IReadOnlyList<Guid> _leftovers = [];

    /// <summary>Imports that have something to do now.</summary>
    internal static IQueryable<ImportBatch> Unfinished(ZestyContext db) =>
        db
            .Imports.AsNoTracking()
            .Where(b =>
                b.State == ImportState.Working
                || (
                    b.State == ImportState.Receiving
                    && (b.CancelAsked || b.Files.Any(f => f.Status == ImportStatus.Waiting))
                )
            );

    protected override void Sweep()
    {
        // A crash leaves files behind that no row names yet; younger ones may be another server's, still arriving.
        var yesterday = DateTime.UtcNow.AddDays(-1);
        vault.SweepArriving(yesterday);
        _leftovers = vault.ParkedBefore(yesterday);
    }

    protected override async Task NudgeAsync(ZestyContext db, CancellationToken cancel)
    {
        (await Unfinished(db).Select(b => b.Id).ToListAsync(cancel)).ForEach(queue.Nudge);
        var named = await db.ImportFiles.Where(f => _leftovers.Contains(f.Id)).Select(f => f.Id).ToListAsync(cancel);
        foreach (var left in _leftovers.Except(named))
        {
            vault.DropParked(left);
        }

        _leftovers = [];
    }
}
