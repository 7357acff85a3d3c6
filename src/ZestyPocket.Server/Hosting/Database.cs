using Microsoft.EntityFrameworkCore;
using Npgsql;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Hosting;

/// <summary>Brings the database up to date before anything is served.</summary>
public static class Database
{
    /// <summary>"zesty" on a telephone keypad; any number does as long as all servers use the same.</summary>
    private const long MigrationLock = 93789;

    /// <summary>Applies migrations, one server at a time when several start together.</summary>
    public static async Task MigrateAsync(string connectionString, CancellationToken cancel)
    {
        // The lock lives as long as its connection, so this one must not come from a pool.
        var unpooled = new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false }.ConnectionString;
        // Taken in the database that always exists: ours may have to be made first.
        await using var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(unpooled) { Database = "postgres" }.ConnectionString);
        await connection.OpenAsync(cancel);
        await using (var take = new NpgsqlCommand($"SELECT pg_advisory_lock({MigrationLock})", connection))
        {
            await take.ExecuteNonQueryAsync(cancel);
        }

        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, unpooled);
        await using var db = new ZestyContext(builder.Options);
        await db.Database.MigrateAsync(cancel);
    }
}
