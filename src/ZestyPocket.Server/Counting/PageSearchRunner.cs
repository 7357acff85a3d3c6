using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Counting;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Counting;

/// <summary>Queues the jobs of searches for pages.</summary>
public sealed class PageSearchNudges(IBackgroundJobClient jobs) : AskedJobNudges<PageSearch>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<PageSearchRunner>(JobQueues.Searches, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Takes up searches that were left behind.</summary>
public sealed class PageSearchRecovery(
    IServiceScopeFactory scopes,
    PageSearchNudges queue,
    ZestySettings settings,
    ILogger<PageSearchRecovery> log
) : JobRecovery(scopes, settings, log)
{
    protected override Task NudgeAsync(ZestyContext db, CancellationToken cancel) => queue.NudgeOpenAsync(db, cancel);

    /// <summary>A search leaves nothing but its row.</summary>
    protected override void Sweep() { }
}

/// <summary>Makes one search for pages.</summary>
public sealed class PageSearchRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PageChooser chooser,
    PageSearchNudges queue,
    IConfiguration configuration,
    IClock clock,
    ILogger<PageSearchRunner> log
) : AskedJobRunner<PageSearch>(db, queue, configuration, clock, log)
{
    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromMilliseconds(200);

    /// <summary>Answers are for the keeper who asked; older ones are thrown away with the next search.</summary>
    private static readonly Duration KeptFor = Duration.FromDays(1);

    protected override string Failure => "the search for pages broke off";

    protected override string TurnOf(PageSearch job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"search {job.Id}";
    }

    protected override async Task WorkAsync(PageSearch job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        job.State = JobState.Running;
        await Db.SaveChangesAsync(cancel);
        var progress = (Done: 0, Total: 0);
        var searching = chooser.ChooseAsync(
            job.AlbumId,
            RequestOf(job),
            (done, total) => progress = (done, total),
            stop.Token
        );
        await WatchAsync(job.Id, searching, () => progress, stop);
        job.Answer = StoredDocuments.PageChoices.Write(new PageChoices([.. await searching]));
        (job.WaysDone, job.WaysTotal) = progress;
        var old = Clock.GetCurrentInstant() - KeptFor;
        await Db.PageSearches.Where(s => s.AlbumId == job.AlbumId && s.EndedAt < old).ExecuteDeleteAsync(cancel);
    }

    /// <summary>Tells how far the search is and looks whether the keeper cancelled, until it is done.</summary>
    private async Task WatchAsync(
        Guid id,
        Task searching,
        Func<(int Done, int Total)> progress,
        CancellationTokenSource stop
    )
    {
        while (await Task.WhenAny(searching, Task.Delay(LookAgainAfter, CancellationToken.None)) != searching)
        {
            await using var watch = await contexts.CreateDbContextAsync(CancellationToken.None);
            var (done, total) = progress();
            var mine = watch.PageSearches.Where(s => s.Id == id);
            await mine.ExecuteUpdateAsync(
                set => set.SetProperty(s => s.WaysDone, done).SetProperty(s => s.WaysTotal, total),
                CancellationToken.None
            );
            if (await mine.AnyAsync(s => s.CancelAsked, CancellationToken.None))
            {
                await stop.CancelAsync();
            }
        }
    }

    private static ChoosePagesRequest RequestOf(PageSearch search) =>
        new(
            search.FromUnitId,
            search.Count,
            search.Weights is [var leaf, var empty, var crop, var change, var alter]
                ? new WeightsView(leaf, empty, crop, change, alter)
                : null
        );
}
