using System.Net.Sockets;
using Microsoft.AspNetCore.Mvc;
using Npgsql;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// What the program stands on is missing for now: the database, room on the disk, the right to write. Says which, and
/// that what was saved is kept.
/// </summary>
public sealed record Outage(string Title, string Detail)
{
    /// <summary>How soon a sender may ask again.</summary>
    public const int RetryAfterSeconds = 5;

    /// <summary>Linux error numbers: no space left, quota exceeded, read-only file system. Source: errno(3).</summary>
    private const int NoSpace = 28;

    private const int QuotaExceeded = 122;

    private const int ReadOnlyFileSystem = 30;

    private static readonly Outage NoDatabase = new(
        "The database does not answer",
        "Everything saved before is kept; this request changed nothing. Try again in a few seconds; if it stays so, "
            + "stop ./start and start it again."
    );

    private static readonly Outage DiskFull = new(
        "The disk is full",
        "Everything saved before is kept; this request changed nothing. Make room on the disk of the data folder "
            + "and try again."
    );

    private static readonly Outage ReadOnly = new(
        "The data folder cannot be written to",
        "Everything saved before is kept; this request changed nothing. Make the data folder writable again and try "
            + "again."
    );

    /// <summary>Whether it is the database that is away, so that nothing can be noted there either.</summary>
    public bool IsDatabase => this == NoDatabase;

    public ProblemDetails Problem =>
        new()
        {
            Status = StatusCodes.Status503ServiceUnavailable,
            Title = Title,
            Detail = Detail,
        };

    /// <summary>The outage behind an exception; null when it is something else.</summary>
    public static Outage? Of(Exception? exception)
    {
        for (var at = exception; at is not null; at = at.InnerException)
        {
            var outage = at switch
            {
                // Class 53 is "insufficient resources", 57P "operator intervention", 08 "connection". Source:
                // PostgreSQL, Appendix A.
                PostgresException { SqlState: "53100" } => DiskFull,
                PostgresException { SqlState: "25006" } => ReadOnly,
                PostgresException { SqlState: var state }
                    when state.StartsWith("53", StringComparison.Ordinal)
                        || state.StartsWith("57P", StringComparison.Ordinal)
                        || state.StartsWith("08", StringComparison.Ordinal) => NoDatabase,
                PostgresException => null,
                NpgsqlException or SocketException => NoDatabase,
                UnauthorizedAccessException => ReadOnly,
                IOException io => ErrorNumber(io) switch
                {
                    NoSpace or QuotaExceeded => DiskFull,
                    ReadOnlyFileSystem => ReadOnly,
                    _ => null,
                },
                _ => null,
            };
            if (outage is not null || at is PostgresException)
            {
                return outage;
            }
        }

        return null;
    }

    /// <summary>.NET keeps the system's error number in the lower half of HResult.</summary>
    private static int ErrorNumber(IOException io) => io.HResult & 0xFFFF;
}
