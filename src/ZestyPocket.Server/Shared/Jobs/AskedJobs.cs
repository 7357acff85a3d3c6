using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>Queues the jobs of one kind of work that is asked for by key.</summary>
public abstract class AskedJobNudges<TJob>(IBackgroundJobClient jobs) : JobNudges(jobs)
    where TJob : AskedJob
{
    /// <summary>Asks for a job for everything that is not finished.</summary>
    public async Task NudgeOpenAsync(ZestyContext db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var open = await db.Set<TJob>()
            .AsNoTracking()
            .Where(j => j.State == JobState.Waiting || j.State == JobState.Running)
            .OrderBy(j => j.MadeAt)
            .Select(j => j.Id)
            .ToListAsync(cancel);
        open.ForEach(Nudge);
    }
}

/// <summary>Starts, finds and cancels work that is asked for by key.</summary>
public sealed class AskedJobs<TJob>(ZestyContext db, ICurrentKeeper keeper, AskedJobNudges<TJob> queue, IClock clock)
    where TJob : AskedJob
{
    /// <summary>
    /// Asked several times with the same key, as after a lost answer, it is one job: nothing is done twice by accident.
    /// </summary>
    /// <param name="make">Checks what is asked for and makes the row; called when the key is new.</param>
    public async Task<TJob> StartAsync(string key, Func<Task<TJob>> make, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(key);
        ArgumentNullException.ThrowIfNull(make);
        if (key.Length is 0 or > AskedJob.LongestKey)
        {
            throw new RuleException($"A request has a key of 1 to {AskedJob.LongestKey} characters. Nothing was done.");
        }

        if (await FindAsync(key, cancel) is { } known)
        {
            return known;
        }

        var job = await make();
        (job.Id, job.KeeperId, job.MadeAt) = (Guid.CreateVersion7(), keeper.Id, clock.GetCurrentInstant());
        db.Add(job);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Asked several times at once under one key: the first one counts.
            return (await FindAsync(key, cancel))!;
        }

        // When the program ends between the two, the recovery finds the row waiting.
        queue.Nudge(job.Id);
        return job;
    }

    /// <summary>The job that was asked for under a key; null for a key that is new.</summary>
    public Task<TJob?> KnownAsync(string key, CancellationToken cancel) => FindAsync(key, cancel);

    /// <param name="what">For a refusal that names it, such as <c>The print job</c>.</param>
    public async Task<TJob> RequireAsync(Guid id, string what, CancellationToken cancel) =>
        await Mine.SingleOrDefaultAsync(j => j.Id == id, cancel) ?? throw new MissingException(what);

    public async Task<TJob> CancelAsync(Guid id, string what, CancellationToken cancel)
    {
        await db.Set<TJob>()
            .Where(j => j.Id == id && j.KeeperId == keeper.Id)
            .ExecuteUpdateAsync(set => set.SetProperty(j => j.CancelAsked, true), cancel);
        return await RequireAsync(id, what, cancel);
    }

    private IQueryable<TJob> Mine => db.Set<TJob>().AsNoTracking().Where(j => j.KeeperId == keeper.Id);

    private Task<TJob?> FindAsync(string key, CancellationToken cancel) =>
        Mine.SingleOrDefaultAsync(j => j.RequestKey == key, cancel);
}

/// <summary>
/// Does one piece of work that was asked for, and notes how it ended. Done again after a crash it begins anew; a
/// finished one is left alone.
/// </summary>
public abstract partial class AskedJobRunner<TJob>(
    ZestyContext db,
    AskedJobNudges<TJob> queue,
    IConfiguration configuration,
    IClock clock,
    ILogger log
)
    where TJob : AskedJob
{
    protected ZestyContext Db { get; } = db;

    protected IClock Clock { get; } = clock;

    /// <summary>What cannot be done beside each other, over all servers, has the same name.</summary>
    protected abstract string TurnOf(TJob job);

    /// <summary>What the work needs with the album: whoever may do less by then finds it gone.</summary>
    protected virtual AlbumRole Needs => AlbumRole.Editor;

    /// <summary>The work itself; the row is tracked.</summary>
    protected abstract Task WorkAsync(TJob job, CancellationToken cancel);

    /// <summary>What could not be done, such as <c>the sheets could not be drawn</c>.</summary>
    protected abstract string Failure { get; }

    /// <summary>What fails is told at once; what was broken off is queued again by the recovery.</summary>
    [AutomaticRetry(Attempts = 0, OnAttemptsExceeded = AttemptsExceededAction.Delete)]
    public async Task RunAsync(Guid jobId, CancellationToken cancel)
    {
        var had = false;
        queue.Began(jobId);
        try
        {
            var asked = await Db.Set<TJob>().AsNoTracking().SingleAsync(j => j.Id == jobId, cancel);
            await using var turn = await ServerLock.TryTakeAsync(configuration, TurnOf(asked), cancel);
            had = turn is not null;
            if (had)
            {
                using var forKeeper = KeeperScope.Of(asked.KeeperId, Needs);
                await RunAsync(await Db.Set<TJob>().SingleAsync(j => j.Id == jobId, cancel), cancel);
            }
        }
        finally
        {
            queue.Release(jobId);
        }

        // Others may have found the turn taken.
        if (had)
        {
            await queue.NudgeOpenAsync(Db, cancel);
        }
    }

    private async Task RunAsync(TJob job, CancellationToken cancel)
    {
        if (job.State is not (JobState.Waiting or JobState.Running))
        {
            return;
        }

        try
        {
            if (job.CancelAsked)
            {
                await EndAsync(job, JobState.Cancelled, null);
                return;
            }

            await WorkAsync(job, cancel);
            await DoneAsync(job, cancel);
        }
        catch (Exception refused) when (refused is RuleException or MissingException)
        {
            await EndAsync(job, JobState.Failed, refused.Message);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            await EndAsync(job, JobState.Cancelled, null);
        }
        catch (Exception broken)
            when (broken is not OperationCanceledException && Outage.Of(broken) is { Title: var title })
        {
            // Without a database nothing could be noted: the job stays open and is taken up again.
            LogAway(log, title);
            if (!Outage.Of(broken)!.IsDatabase)
            {
                await EndAsync(
                    job,
                    JobState.Failed,
                    $"{title}: {Failure}. Your album is untouched; mend that and try again."
                );
            }
        }
        catch (Exception broken) when (broken is not OperationCanceledException)
        {
            LogFailed(log, job.Id, broken);
            await EndAsync(
                job,
                JobState.Failed,
                $"{char.ToUpperInvariant(Failure[0])}{Failure[1..]}. Your album is untouched; try again, and look into "
                    + "the log if it stays so."
            );
        }
    }

    /// <summary>
    /// What is noted with the end of the work, in one transaction with it: all of it or nothing, also when the server
    /// dies. A <see cref="RuleException"/> fails the job; it must be thrown before anything is tracked.
    /// </summary>
    protected virtual Task NoteAsync(TJob job, CancellationToken cancel) => Task.CompletedTask;

    /// <summary>After the work failed or was cancelled: what it worked on may go.</summary>
    protected virtual Task GaveUpAsync(TJob job) => Task.CompletedTask;

    private async Task DoneAsync(TJob job, CancellationToken cancel)
    {
        await using var transaction = await Db.Database.BeginTransactionAsync(cancel);
        await NoteAsync(job, cancel);
        await EndAsync(job, JobState.Done, null);
        await transaction.CommitAsync(CancellationToken.None);
    }

    private async Task EndAsync(TJob job, JobState state, string? problem)
    {
        (job.State, job.Problem, job.EndedAt) = (state, problem, Clock.GetCurrentInstant());
        await Db.SaveChangesAsync(CancellationToken.None);
        if (state is JobState.Failed or JobState.Cancelled)
        {
            await GaveUpAsync(job);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "A job was broken off: {Reason}")]
    private static partial void LogAway(ILogger log, string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "Job {JobId} failed")]
    private static partial void LogFailed(ILogger log, Guid jobId, Exception exception);
}
