using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Counting;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Server.Counting;

/// <summary>Queues the jobs of searches for pages.</summary>
public sealed class PageSearchNudges(IBackgroundJobClient jobs) : JobNudges(jobs)
{
    /// <summary>Asks for a job for every search that is not finished.</summary>
    public async Task NudgeOpenAsync(ZestyContext db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var open = await db
            .PageSearches.AsNoTracking()
            .Where(s => s.State == PageSearchState.Waiting || s.State == PageSearchState.Running)
            .OrderBy(s => s.MadeAt)
            .Select(s => s.Id)
            .ToListAsync(cancel);
        open.ForEach(Nudge);
    }

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

/// <summary>
/// Makes one search for pages. Made again after a crash it begins anew; a finished one is left alone.
/// </summary>
public sealed partial class PageSearchRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PageChooser chooser,
    PageSearchNudges queue,
    IConfiguration configuration,
    IClock clock,
    ILogger<PageSearchRunner> log
)
{
    private static readonly TimeSpan LookAgainAfter = TimeSpan.FromMilliseconds(200);

    /// <summary>Answers are for the keeper who asked; older ones are thrown away with the next search.</summary>
    private static readonly Duration KeptFor = Duration.FromDays(1);

    /// <summary>What fails is told at once; what was broken off is queued again by the recovery.</summary>
    [AutomaticRetry(Attempts = 0, OnAttemptsExceeded = AttemptsExceededAction.Delete)]
    public async Task RunAsync(Guid searchId, CancellationToken cancel)
    {
        queue.Began(searchId);
        try
        {
            await using var turn = await ServerLock.TryTakeAsync(configuration, $"search {searchId}", cancel);
            if (turn is not null)
            {
                await RunAsync(await db.PageSearches.SingleAsync(s => s.Id == searchId, cancel), cancel);
            }
        }
        finally
        {
            queue.Release(searchId);
        }
    }

    private async Task RunAsync(PageSearch search, CancellationToken cancel)
    {
        if (search.State is not (PageSearchState.Waiting or PageSearchState.Running))
        {
            return;
        }

        if (search.CancelAsked)
        {
            await EndAsync(search, PageSearchState.Cancelled, null);
            return;
        }

        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        try
        {
            search.State = PageSearchState.Running;
            await db.SaveChangesAsync(cancel);
            var progress = (Done: 0, Total: 0);
            var searching = chooser.ChooseAsync(
                search.AlbumId,
                RequestOf(search),
                (done, total) => progress = (done, total),
                stop.Token
            );
            await WatchAsync(search.Id, searching, () => progress, stop);
            search.Answer = StoredDocuments.PageChoices.Write(new PageChoices([.. await searching]));
            await EndAsync(search, PageSearchState.Done, null);
        }
        catch (RuleException rule)
        {
            await EndAsync(search, PageSearchState.Failed, rule.Message);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            await EndAsync(search, PageSearchState.Cancelled, null);
        }
        catch (Exception broken) when (broken is not OperationCanceledException && Outage.Of(broken) is null)
        {
            LogFailed(search.Id, broken);
            await EndAsync(
                search,
                PageSearchState.Failed,
                "The search for pages broke off. Your album is untouched; ask again, and look into the log if it "
                    + "stays so."
            );
        }
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

    private async Task EndAsync(PageSearch search, PageSearchState state, string? problem)
    {
        var now = clock.GetCurrentInstant();
        (search.State, search.Problem, search.EndedAt) = (state, problem, now);
        await db.SaveChangesAsync(CancellationToken.None);
        var old = now - KeptFor;
        await db
            .PageSearches.Where(s => s.AlbumId == search.AlbumId && s.EndedAt < old)
            .ExecuteDeleteAsync(CancellationToken.None);
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Search {SearchId} for pages failed")]
    private partial void LogFailed(Guid searchId, Exception exception);
}
