using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;

namespace ZestyPocket.Storage.Documents;

/// <summary>A document that no version of the program can have written.</summary>
/// <param name="RowId">The row it stands in.</param>
/// <param name="Why">For whoever runs the program.</param>
public sealed record UnreadableDocument(string Table, string Column, Guid RowId, string Why);

/// <summary>What became of the documents of earlier versions.</summary>
/// <param name="Done">How many were brought to the present version.</param>
public sealed record UpgradedDocuments(int Done, IReadOnlyList<UnreadableDocument> Unreadable);

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
    /// Gives how many documents were brought up to date, and which could not be read: they stay as they are, and
    /// whoever opens them is told.
    /// </summary>
    public static Task<UpgradedDocuments> RunAsync(ZestyContext db, CancellationToken cancel) =>
        RunAsync(db, null, cancel);

    /// <param name="albums">Only what belongs to these; null for everything.</param>
    public static async Task<UpgradedDocuments> RunAsync(
        ZestyContext db,
        IReadOnlyCollection<Guid>? albums,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        await db.Database.OpenConnectionAsync(cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        var done = 0;
        var unreadable = new List<UnreadableDocument>();
        foreach (var (table, column, version, again) in Columns)
        {
            for (var after = Guid.Empty; ; )
            {
                var rows = await OldAsync(connection, table, column, version, after, albums, cancel);
                if (rows.Count == 0)
                {
                    break;
                }

                done += await WriteAsync(connection, table, column, rows, again, unreadable, cancel);
                after = rows[^1].Id;
            }
        }

        return new UpgradedDocuments(done, unreadable);
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
        IReadOnlyCollection<Guid>? albums,
        CancellationToken cancel
    )
    {
        var among = table == "Albums" ? "Id" : "AlbumId";
        // An empty object is what a row begins with, of whatever version. Compared as JSON, where whatever is no number
        // is smaller or larger than all of them: a version that is none stops nobody.
        await using var select = new NpgsqlCommand(
            $$"""
            SELECT "Id", "{{column}}"::text FROM "{{table}}" WHERE "Id" > @after
                AND (@albums IS NULL OR "{{among}}" = ANY(@albums)) AND "{{column}}" <> '{}'::jsonb
                AND (jsonb_typeof("{{column}}") = 'array' OR "{{column}}"->'version' IS NULL
                    OR jsonb_typeof("{{column}}"->'version') <> 'number'
                    OR "{{column}}"->'version' < to_jsonb(@version))
                ORDER BY "Id" LIMIT {{Batch}}
            """,
            connection
        )
        {
            Parameters =
            {
                new("after", after),
                new("version", version),
                new("albums", NpgsqlDbType.Array | NpgsqlDbType.Uuid)
                {
                    Value = (object?)albums?.ToArray() ?? DBNull.Value,
                },
            },
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
        List<UnreadableDocument> unreadable,
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
            catch (StoredDocumentException damaged)
            {
                unreadable.Add(new UnreadableDocument(table, column, id, damaged.InnerException?.Message ?? ""));
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
