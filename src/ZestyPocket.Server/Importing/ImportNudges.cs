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

/// <summary>
/// Takes up imports that a crash, a restart or a lost database left behind: at the start, and every few seconds after.
/// </summary>
public sealed partial class ImportRecovery(IServiceScopeFactory scopes, ImportNudges queue, ZestySettings settings, IPhotoVault vault, ILogger<ImportRecovery> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!settings.RunJobs)
        {
            return;
        }

        // A crash leaves files behind that no row names yet; younger ones may be another server's, still arriving.
        var yesterday = DateTime.UtcNow.AddDays(-1);
        vault.SweepArriving(yesterday);
        var leftovers = vault.ParkedBefore(yesterday);
        using var timer = new PeriodicTimer(Every);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
                var open = await Unfinished(db).Select(b => b.Id).ToListAsync(stoppingToken);
                open.ForEach(queue.Nudge);
                foreach (var left in leftovers.Except(await db.ImportFiles.Where(f => leftovers.Contains(f.Id)).Select(f => f.Id).ToListAsync(stoppingToken)))
                {
                    vault.DropParked(left);
                }

                leftovers = [];
            }
            catch (Exception away) when (away is not OperationCanceledException)
            {
                // The database is away; the next round asks again.
                LogAway(away.Message);
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Imports that have something to do now.</summary>
    internal static IQueryable<ImportBatch> Unfinished(ZestyContext db) => db.Imports.AsNoTracking().Where(
        b => b.State == ImportState.Working
            || (b.State == ImportState.Receiving && (b.CancelAsked || b.Files.Any(f => f.Status == ImportStatus.Waiting))));

    [LoggerMessage(Level = LogLevel.Warning, Message = "Open imports cannot be looked up just now: {Reason}")]
    private partial void LogAway(string reason);
}
