using Hangfire;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Queues the jobs of prints.</summary>
public sealed class PrintNudges(IBackgroundJobClient jobs) : JobNudges(jobs)
{
    /// <summary>Asks for a job for every print that is not finished.</summary>
    public async Task NudgeOpenAsync(ZestyContext db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var open = await db.PrintJobs.AsNoTracking().Where(j => j.State == PrintJobState.Waiting || j.State == PrintJobState.Running)
            .OrderBy(j => j.MadeAt).Select(j => j.Id).ToListAsync(cancel);
        open.ForEach(Nudge);
    }

    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<PrintJobRunner>(JobQueues.Prints, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>
/// Takes up prints that a crash, a restart or a lost database left behind: at the start, and every few seconds after.
/// Sheets that were half written are swept at the start.
/// </summary>
public sealed partial class PrintRecovery(IServiceScopeFactory scopes, PrintNudges queue, ZestySettings settings, PictureCache pictures, ILogger<PrintRecovery> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!settings.RunJobs)
        {
            return;
        }

        Sweep();
        using var timer = new PeriodicTimer(Every);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await queue.NudgeOpenAsync(scope.ServiceProvider.GetRequiredService<ZestyContext>(), stoppingToken);
            }
            catch (Exception away) when (away is not OperationCanceledException)
            {
                // The database is away; the next round asks again.
                LogAway(away.Message);
            }
        }
        while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>A file that is being written has a longer name than a finished one; one that did not grow for minutes is a leftover.</summary>
    private void Sweep()
    {
        pictures.SweepPainted(DateTime.UtcNow - TimeSpan.FromDays(30));
        var folder = new DirectoryInfo(settings.Prints);
        if (!folder.Exists)
        {
            return;
        }

        foreach (var half in folder.EnumerateFiles("*.pdf.*").Where(f => f.LastWriteTimeUtc < DateTime.UtcNow - TimeSpan.FromMinutes(2)))
        {
            half.Delete();
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Open prints cannot be looked up just now: {Reason}")]
    private partial void LogAway(string reason);
}
