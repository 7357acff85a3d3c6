using Microsoft.EntityFrameworkCore;
using Npgsql;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Server.Hosting;

/// <summary>Brings the database up to date before anything is served.</summary>
public static class Database
{
    /// <summary>"zesty" on a telephone keypad; any number does as long as all servers use the same.</summary>
    private const long MigrationLock = 93789;

    /// <summary>
    /// How long a database may take to come up, such as one that was killed and goes through its log.
    /// </summary>
    private static readonly TimeSpan ComesUpWithin = TimeSpan.FromSeconds(60);

    /// <summary>
    /// Most connections of one server's pool where the connection string says nothing: two servers and their jobs have
    /// room within the hundred that PostgreSQL allows unless told otherwise (max_connections). Who comes beyond that
    /// waits for a moment instead of being refused by the database.
    /// </summary>
    public const int Connections = 30;

    /// <summary>The connection string with a bound of its pool.</summary>
    public static string WithBoundedPool(string connectionString)
    {
        var asked = new NpgsqlConnectionStringBuilder(connectionString);
        if (!asked.ShouldSerialize("Maximum Pool Size"))
        {
            asked.MaxPoolSize = Connections;
        }

        return asked.ConnectionString;
    }

    /// <summary>
    /// Applies migrations and brings documents up to date, one server at a time when several start together.
    /// </summary>
    public static async Task MigrateAsync(string connectionString, CancellationToken cancel)
    {
        // The lock lives as long as its connection, so this one must not come from a pool.
        var unpooled = new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString;
        // Taken in the database that always exists: ours may have to be made first.
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(unpooled) { Database = "postgres" }.ConnectionString
        );
        await OpenAsync(connection, cancel);
        await using (var take = new NpgsqlCommand($"SELECT pg_advisory_lock({MigrationLock})", connection))
        {
            await take.ExecuteNonQueryAsync(cancel);
        }

        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, unpooled);
        await using var db = new ZestyContext(builder.Options);
        await db.Database.MigrateAsync(cancel);
        foreach (var damaged in (await DocumentUpgrade.RunAsync(db, cancel)).Unreadable)
        {
            // Whoever opens it is told too; everything else opens.
            Serilog.Log.Error(
                "{Column} of row {Row} in {Table} cannot be read and was left as it is: {Why}",
                damaged.Column,
                damaged.RowId,
                damaged.Table,
                damaged.Why
            );
        }
    }

    private static async Task OpenAsync(NpgsqlConnection connection, CancellationToken cancel)
    {
        var began = System.Diagnostics.Stopwatch.GetTimestamp();
        while (true)
        {
            try
            {
                await connection.OpenAsync(cancel);
                return;
            }
            catch (NpgsqlException away)
                when (Outage.Of(away) is { IsDatabase: true }
                    && System.Diagnostics.Stopwatch.GetElapsedTime(began) < ComesUpWithin
                )
            {
                await Task.Delay(250, cancel);
            }
        }
    }
}
