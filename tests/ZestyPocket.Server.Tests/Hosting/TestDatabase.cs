using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>
/// Databases on the PostgreSQL that ./test started (its address is in ZESTY_TEST_DATABASE). One template is migrated;
/// each host gets a copy.
/// </summary>
public static class TestDatabase
{
    private static readonly SemaphoreSlim Turn = new(1);
    private static readonly string Run = Guid.NewGuid().ToString("N")[..8];
    private static bool _migrated;

    private static string Base =>
        Environment.GetEnvironmentVariable("ZESTY_TEST_DATABASE")
        ?? throw new InvalidOperationException(
            "ZESTY_TEST_DATABASE is not set: run the tests with ./test, or see docs/architecture.md."
        );

    public static async Task<string> CreateAsync()
    {
        await Turn.WaitAsync();
        try
        {
            var template = $"template_{Run}";
            if (!_migrated)
            {
                await Database.MigrateAsync(For(template, pooling: false), CancellationToken.None);
                _migrated = true;
            }

            var name = $"test_{Guid.NewGuid():N}";
            await using var connection = new NpgsqlConnection(For("postgres", pooling: false));
            await connection.OpenAsync();
            await using var create = new NpgsqlCommand(
                $"CREATE DATABASE {name} TEMPLATE {template} STRATEGY file_copy",
                connection
            );
            await create.ExecuteNonQueryAsync();
            return For(name, pooling: true);
        }
        finally
        {
            Turn.Release();
        }
    }

    /// <summary>
    /// Closes what is still open to a database that is never asked again: idle connections of many tests would use up
    /// what the server has.
    /// </summary>
    public static void Leave(string connectionString)
    {
        using var last = new NpgsqlConnection(connectionString);
        NpgsqlConnection.ClearPool(last);
    }

    /// <summary>Takes every row out of a database, except what the migrations put there.</summary>
    public static async Task EmptyAsync(string connectionString)
    {
        const string Truncate = """
            DO $$
            DECLARE every text;
            BEGIN
                SELECT string_agg(format('%I.%I', schemaname, tablename), ', ') INTO every FROM pg_tables
                WHERE schemaname = 'public' AND tablename NOT IN ('__EFMigrationsHistory', 'Keepers');
                EXECUTE 'TRUNCATE ' || every || ' RESTART IDENTITY CASCADE';
                DELETE FROM hangfire.job;
                DELETE FROM hangfire.jobqueue;
            END $$
            """;
        await using var connection = new NpgsqlConnection(connectionString);
        await connection.OpenAsync();
        await using var empty = new NpgsqlCommand(Truncate, connection);
        await empty.ExecuteNonQueryAsync();
    }

    /// <summary>
    /// A database as an older version of the program left it: migrated up to the named migration, with the rows that
    /// the SQL makes.
    /// </summary>
    public static async Task<string> CreateOldAsync(string migration, string sql)
    {
        var name = $"test_{Guid.NewGuid():N}";
        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, For(name, pooling: false));
        await using var db = new ZestyContext(builder.Options);
        await db.Database.GetService<IMigrator>().MigrateAsync(migration);
        await using var connection = new NpgsqlConnection(For(name, pooling: false));
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
        return For(name, pooling: true);
    }

    /// <summary>A database as a landed version left it, from its dump.</summary>
    public static async Task<string> RestoreAsync(string dump)
    {
        var name = $"test_{Guid.NewGuid():N}";
        await using (var connection = new NpgsqlConnection(For("postgres", pooling: false)))
        {
            await connection.OpenAsync();
            await using var create = new NpgsqlCommand($"CREATE DATABASE {name}", connection);
            await create.ExecuteNonQueryAsync();
        }

        var target = new NpgsqlConnectionStringBuilder(Base);
        var start = new ProcessStartInfo("psql", ["-q", "-v", "ON_ERROR_STOP=1", "-o", "/dev/null"])
        {
            RedirectStandardInput = true,
            RedirectStandardError = true,
            Environment =
            {
                ["PGHOST"] = target.Host,
                ["PGPORT"] = target.Port.ToString(CultureInfo.InvariantCulture),
                ["PGUSER"] = target.Username,
                ["PGPASSWORD"] = target.Password,
                ["PGDATABASE"] = name,
            },
        };
        using var psql = Process.Start(start)!;
        var complaints = psql.StandardError.ReadToEndAsync();
        await using (var sql = new GZipStream(File.OpenRead(dump), CompressionMode.Decompress))
        {
            await sql.CopyToAsync(psql.StandardInput.BaseStream);
        }

        psql.StandardInput.Close();
        await psql.WaitForExitAsync();
        psql.ExitCode.ShouldBe(0, await complaints);
        return For(name, pooling: true);
    }

    private static string For(string database, bool pooling) =>
        new NpgsqlConnectionStringBuilder(Base)
        {
            Database = database,
            Pooling = pooling,
            MaxPoolSize = 20,
        }.ConnectionString;
}
