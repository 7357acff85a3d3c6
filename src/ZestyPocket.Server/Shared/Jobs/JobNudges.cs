using System.Collections.Concurrent;
using System.Diagnostics;
using Hangfire;
using Npgsql;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// The queues of work that takes longer than a request. Each has workers of its own, so that none waits for another.
/// </summary>
public static class JobQueues
{
    public const string Imports = "imports";

    public const string Prints = "prints";

    public const string Searches = "searches";

    public static IReadOnlyList<string> All { get; } = [Imports, Prints, Searches];

    public const int WorkersEach = 2;
}

/// <summary>
/// Sees to it that an unfinished piece of work has a job, and that this server does not queue a second one.
/// </summary>
public abstract class JobNudges(IBackgroundJobClient jobs)
{
    /// <summary>
    /// A job that has not begun after this time may have been lost with the database that took it: it is queued again.
    /// Twice is no harm, since a job looks whether there is something to do and whether somebody is at it.
    /// </summary>
    private static readonly TimeSpan LostAfter = TimeSpan.FromSeconds(20);

    private readonly ConcurrentDictionary<Guid, (long Since, bool Running)> _queued = new();

    /// <summary>Asks for the job of a row unless this server has one queued lately or running.</summary>
    public void Nudge(Guid id)
    {
        var now = Stopwatch.GetTimestamp();
        var known = _queued.TryGetValue(id, out var entry);
        if (
            known && (entry.Running || Stopwatch.GetElapsedTime(entry.Since, now) < LostAfter)
            || !(known ? _queued.TryUpdate(id, (now, false), entry) : _queued.TryAdd(id, (now, false)))
        )
        {
            return;
        }

        try
        {
            Enqueue(jobs, id);
        }
        catch
        {
            _queued.TryRemove(id, out _);
            throw;
        }
    }

    /// <summary>The job has begun.</summary>
    public void Began(Guid id) => _queued[id] = (Stopwatch.GetTimestamp(), true);

    /// <summary>The job has ended or is about to look for the last time.</summary>
    public void Release(Guid id) => _queued.TryRemove(id, out _);

    protected abstract void Enqueue(IBackgroundJobClient jobs, Guid id);
}

/// <summary>
/// A lock over all servers that ends with its connection, so that a killed server's is free at once.
/// </summary>
public sealed class ServerLock : IAsyncDisposable
{
    private readonly NpgsqlConnection _connection;

    private ServerLock(NpgsqlConnection connection) => _connection = connection;

    /// <summary>Takes the lock of a name; null when somebody else has it.</summary>
    public static Task<ServerLock?> TryTakeAsync(IConfiguration configuration, string name, CancellationToken cancel) =>
        TakeAsync(configuration, "pg_try_advisory_lock", name, cancel);

    /// <summary>Takes the lock of a name together with others who share it; null when somebody has it alone.</summary>
    public static Task<ServerLock?> TryShareAsync(
        IConfiguration configuration,
        string name,
        CancellationToken cancel
    ) => TakeAsync(configuration, "pg_try_advisory_lock_shared", name, cancel);

    private static async Task<ServerLock?> TakeAsync(
        IConfiguration configuration,
        string function,
        string name,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(configuration);
        var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(configuration.GetConnectionString("Zesty"))
            {
                Pooling = false,
            }.ConnectionString
        );
        try
        {
            await connection.OpenAsync(cancel);
            await using var take = new NpgsqlCommand($"SELECT {function}(hashtextextended(@name, 0))", connection);
            take.Parameters.AddWithValue("name", name);
            if (await take.ExecuteScalarAsync(cancel) is true)
            {
                return new ServerLock(connection);
            }

            await connection.DisposeAsync();
            return null;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    public ValueTask DisposeAsync() => _connection.DisposeAsync();
}
