using Hangfire;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Queues the jobs of prints.</summary>
public sealed class PrintNudges(IBackgroundJobClient jobs) : AskedJobNudges<PrintJob>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<PrintJobRunner>(JobQueues.Prints, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Queues the drawing of lab orders.</summary>
public sealed class LabNudges(IBackgroundJobClient jobs) : AskedJobNudges<LabOrder>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<LabOrderRunner>(JobQueues.Prints, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Takes up prints that were left behind, and throws away sheets that were half written.</summary>
public sealed class PrintRecovery(
    IServiceScopeFactory scopes,
    PrintNudges queue,
    LabNudges labQueue,
    ZestySettings settings,
    ILogger<PrintRecovery> log
) : JobRecovery(scopes, settings, log)
{
    protected override async Task NudgeAsync(ZestyContext db, CancellationToken cancel)
    {
        await queue.NudgeOpenAsync(db, cancel);
        await labQueue.NudgeOpenAsync(db, cancel);
    }

    /// <summary>
    /// A file that is being written has a longer name than a finished one; one that did not grow for minutes is a
    /// leftover.
    /// </summary>
    protected override void Sweep()
    {
        var folder = new DirectoryInfo(Settings.Prints);
        if (!folder.Exists)
        {
            return;
        }

        foreach (
            var half in folder
                .EnumerateFiles()
                // Not by a pattern: *.pdf.* matches what ends with .pdf too.
                .Where(f =>
                    f.Extension is not (".pdf" or ".zip" or ".html")
                    && f.LastWriteTimeUtc < DateTime.UtcNow - TimeSpan.FromMinutes(2)
                )
        )
        {
            half.Delete();
        }
    }
}
