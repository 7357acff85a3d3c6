using Hangfire;
using Hangfire.Storage;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Extensions;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Household;

/// <summary>A server that works on jobs.</summary>
public sealed record WorkerView(string Name, IReadOnlyList<string> Queues, int Workers, Instant? HeardAt);

/// <summary>A queue of jobs.</summary>
public sealed record QueueView(string Name, long Waiting, long Running);

/// <summary>A job that failed.</summary>
public sealed record FailedJobView(string What, string? Problem, Instant? At);

/// <summary>Somebody who was not let in, by where it came from.</summary>
public sealed record RefusedSignInView(string From, string What, int Times, Instant LastAt);

/// <summary>How the program is, for whoever runs it.</summary>
/// <param name="DiskFree">Bytes left where the data folder is.</param>
/// <param name="Originals">Bytes of originals that albums name, in all.</param>
/// <param name="RefusedSignIns">Of the last day, the most frequent first.</param>
public sealed record OperationsView(
    IReadOnlyList<WorkerView> Workers,
    IReadOnlyList<QueueView> Queues,
    long Done,
    long Failed,
    IReadOnlyList<FailedJobView> LastFailed,
    long DiskFree,
    long DiskSize,
    long Originals,
    long Database,
    int Accounts,
    int Albums,
    IReadOnlyList<RefusedSignInView> RefusedSignIns
);

/// <summary>What whoever runs the program looks at. It names no album, no picture and no words.</summary>
public sealed class Operations(
    ZestyContext db,
    JobStorage jobs,
    ZestySettings settings,
    ICurrentKeeper keeper,
    IClock clock
)
{
    private const int MostShown = 20;

    public async Task<OperationsView> LookAsync(CancellationToken cancel)
    {
        await RequireOperatorAsync(cancel);
        var monitor = jobs.GetMonitoringApi();
        var counts = monitor.GetStatistics();
        var disk = new DriveInfo(Path.GetFullPath(settings.DataFolder));
        var yesterday = clock.GetCurrentInstant() - Duration.FromDays(1);
        return new OperationsView(
            [
                .. monitor
                    .Servers()
                    .OrderBy(s => s.Name)
                    .Select(s => new WorkerView(s.Name, [.. s.Queues], s.WorkersCount, At(s.Heartbeat))),
            ],
            [.. JobQueues.All.Select(q => new QueueView(q, monitor.EnqueuedCount(q), monitor.FetchedCount(q)))],
            counts.Succeeded,
            counts.Failed,
            LastFailed(monitor),
            disk.AvailableFreeSpace,
            disk.TotalSize,
            await db.Photos.SumAsync(p => (long?)p.Bytes, cancel) ?? 0,
            await db
                .Database.SqlQuery<long>($"SELECT pg_database_size(current_database()) AS \"Value\"")
                .SingleAsync(cancel),
            await db.Users.CountAsync(cancel),
            await db.Albums.CountAsync(cancel),
            await db
                .SignIns.AsNoTracking()
                .Where(s => !s.Succeeded && s.At > yesterday)
                .GroupBy(s => new { s.From, s.What })
                .OrderByDescending(g => g.Count())
                .Take(MostShown)
                .Select(g => new RefusedSignInView(g.Key.From, g.Key.What, g.Count(), g.Max(s => s.At)))
                .ToListAsync(cancel)
        );
    }

    /// <summary>The first account, or whoever the configuration names.</summary>
    private async Task RequireOperatorAsync(CancellationToken cancel)
    {
        var name = await db.Keepers.Where(k => k.Id == keeper.Id).Select(k => k.Name).SingleAsync(cancel);
        if (!settings.IsOperator(keeper.Id, name))
        {
            throw new NotAllowedException("This page is for whoever runs the program. Ask the first account.");
        }
    }

    private static List<FailedJobView> LastFailed(IMonitoringApi monitor) =>
        [
            .. monitor
                .FailedJobs(0, MostShown)
                .Select(j => new FailedJobView(
                    j.Value.Job?.Type.Name ?? "unknown",
                    j.Value.ExceptionType,
                    At(j.Value.FailedAt)
                )),
        ];

    private static Instant? At(DateTime? utc) =>
        utc is { } at ? DateTime.SpecifyKind(at, DateTimeKind.Utc).ToInstant() : null;
}
