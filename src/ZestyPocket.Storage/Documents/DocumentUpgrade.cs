using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;

namespace ZestyPocket.Storage.Documents;

/// <summary>
/// Brings the documents of earlier versions to the present one, once, so that they need not be brought there whenever
/// they are read. Revisions stay: nothing a keeper sees has changed. What edits remember stays as it was written.
/// </summary>
public static class DocumentUpgrade
{
    /// <summary>So many rows are read and written at once.</summary>
    private const int Batch = 500;

    private static readonly (string Table, string Column, int Version, Func<string, string> Again)[] Columns =
    [
        Of("Albums", "Calendar", StoredDocuments.Calendar),
        Of("Albums", "Words", StoredDocuments.Words),
        Of("Albums", "Formulas", StoredDocuments.Formulas),
        Of("Albums", "Keeping", StoredDocuments.Keeping),
        Of("Albums", "Trip", StoredDocuments.Trip),
        Of("Units", "Content", StoredDocuments.Content),
        Of("Leaves", "Form", StoredDocuments.LeafAlterations),
        Of("Protectors", "Form", StoredDocuments.ProtectorForm),
        Of("Protectors", "ClearSizes", StoredDocuments.ClearSizes),
        Of("Photos", "KeepBoxes", StoredDocuments.Boxes),
        Of("Photos", "CoverBoxes", StoredDocuments.Boxes),
        Of("Photos", "Palette", StoredDocuments.Palette),
    ];

    /// <summary>
    /// Gives how many documents were brought up to date. A document that cannot be read stays as it is: whoever opens
    /// it is told.
    /// </summary>
    public static async Task<int> RunAsync(ZestyContext db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        await db.Database.OpenConnectionAsync(cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        var done = 0;
        foreach (var (table, column, version, again) in Columns)
        {
            for (var after = Guid.Empty; ; )
            {
                var rows = await OldAsync(connection, table, column, version, after, cancel);
                if (rows.Count == 0)
                {
                    break;
                }

                done += await WriteAsync(connection, table, column, rows, again, cancel);
                after = rows[^1].Id;
            }
        }

        return done;
    }

    private static (string Table, string Column, int Version, Func<string, string> Again) Of<T>(
        string table,
        string column,
        StoredDocument<T> document
    )
        where T : notnull => (table, column, document.Version, json => document.Write(document.Read(json)));

    private static async Task<List<(Guid Id, string Json)>> OldAsync(
        NpgsqlConnection connection,
        string table,
        string column,
        int version,
        Guid after,
        CancellationToken cancel
    )
    {
        // An empty object is what a row begins with, of whatever version.
        await using var select = new NpgsqlCommand(
            $$"""
            SELECT "Id", "{{column}}"::text FROM "{{table}}" WHERE "Id" > @after AND "{{column}}" <> '{}'::jsonb
                AND (jsonb_typeof("{{column}}") = 'array' OR coalesce(("{{column}}"->>'version')::int, 1) < @version)
                ORDER BY "Id" LIMIT {{Batch}}
            """,
            connection
        )
        {
            Parameters = { new("after", after), new("version", version) },
        };
        await using var reader = await select.ExecuteReaderAsync(cancel);
        var rows = new List<(Guid, string)>();
        while (await reader.ReadAsync(cancel))
        {
            rows.Add((reader.GetGuid(0), reader.GetString(1)));
        }

        return rows;
    }

    private static async Task<int> WriteAsync(
        NpgsqlConnection connection,
        string table,
        string column,
        List<(Guid Id, string Json)> rows,
        Func<string, string> again,
        CancellationToken cancel
    )
    {
        var (ids, was, now) = (new List<Guid>(), new List<string>(), new List<string>());
        foreach (var (id, json) in rows)
        {
            try
            {
                now.Add(again(json));
                ids.Add(id);
                was.Add(json);
            }
            catch (StoredDocumentException)
            {
                // Stays as it is.
            }
        }

        // Another server may be at work on the same rows: only what is still as it was read.
        await using var update = new NpgsqlCommand(
            $"""
            UPDATE "{table}" t SET "{column}" = n.now FROM unnest(@ids, @was, @now) AS n(id, was, now)
                WHERE t."Id" = n.id AND t."{column}" = n.was
            """,
            connection
        )
        {
            Parameters =
            {
                new("ids", NpgsqlDbType.Array | NpgsqlDbType.Uuid) { Value = ids },
                new("was", NpgsqlDbType.Array | NpgsqlDbType.Jsonb) { Value = was },
                new("now", NpgsqlDbType.Array | NpgsqlDbType.Jsonb) { Value = now },
            },
        };
        return await update.ExecuteNonQueryAsync(cancel);
    }
}
