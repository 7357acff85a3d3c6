using System.Data;
using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>Writes albums into a bundle, streamed, and reads it once more to see that it is whole.</summary>
public sealed class BundleWriter(ZestyContext db, IPhotoVault vault, IClock clock)
{
    internal static JsonSerializerOptions Json { get; } =
        new JsonSerializerOptions(JsonSerializerDefaults.Web) { WriteIndented = true }.ConfigureForNodaTime(
            DateTimeZoneProviders.Tzdb
        );

    /// <param name="path">Of the zip; it is there when this returns, and not before.</param>
    /// <param name="progress">Files done, of how many.</param>
    /// <returns>A line for everything that could not be taken along.</returns>
    public async Task<IReadOnlyList<string>> WriteAsync(
        string path,
        IReadOnlyList<Guid> albumIds,
        Action<int, int> progress,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(progress);
        List<string> missing = [];
        await WholeFile.WriteAsync(
            path,
            async temporary =>
            {
                await using (var file = new FileStream(temporary, FileMode.CreateNew, FileAccess.ReadWrite))
                {
                    missing = await WriteAsync(file, albumIds, progress, cancel);
                    file.Flush(flushToDisk: true);
                }

                await CheckAsync(temporary, cancel);
            }
        );
        return missing;
    }

    /// <summary>Albums with those that are bound into them, and into those.</summary>
    public async Task<List<Guid>> WithInsertsAsync(IReadOnlyList<Guid> albumIds, CancellationToken cancel)
    {
        var all = albumIds.ToList();
        for (var at = 0; at < all.Count; at++)
        {
            var id = all[at];
            var album = await db
                .Albums.AsNoTracking()
                .Where(a => a.Id == id)
                .Select(a => new { a.KeeperId, a.Keeping })
                .SingleAsync(cancel);
            var inserted = InsertsOf(album.Keeping).Except(all).ToList();
            all.AddRange(
                await db
                    .Albums.Where(a => a.KeeperId == album.KeeperId && inserted.Contains(a.Id))
                    .OrderBy(a => a.MadeAt)
                    .Select(a => a.Id)
                    .ToListAsync(cancel)
            );
        }

        return all;
    }

    private static IEnumerable<Guid> InsertsOf(string keeping)
    {
        try
        {
            return StoredDocuments.Keeping.Read(keeping).Inserts.Select(i => i.AlbumId);
        }
        catch (StoredDocumentException)
        {
            // A damaged album is written as it is.
            return [];
        }
    }

    private async Task<List<string>> WriteAsync(
        FileStream file,
        IReadOnlyList<Guid> albumIds,
        Action<int, int> progress,
        CancellationToken cancel
    )
    {
        // All tables as they were at one moment, whatever is edited meanwhile.
        await using var snapshot = await db.Database.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        using var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true);
        var (manifest, missing) = (new StringBuilder(), new List<string>());
        var originals = await OriginalsAsync(albumIds, cancel);
        var total = originals.Count + BundleFormat.Tables.Count;
        await NameWhatStaysAsync(albumIds, missing, cancel);
        var about = JsonSerializer.SerializeToUtf8Bytes(await AboutAsync(albumIds, originals.Count, cancel), Json);
        await AddAsync(BundleFormat.About, CompressionLevel.Optimal, to => to.WriteAsync(about, cancel).AsTask());
        var done = 0;
        foreach (var table in BundleFormat.Tables)
        {
            await AddAsync(
                table.File,
                CompressionLevel.Optimal,
                to => RowsAsync(connection, table, albumIds, to, cancel)
            );
            progress(++done, total);
        }

        foreach (var (sha, name) in originals)
        {
            cancel.ThrowIfCancellationRequested();
            if (File.Exists(vault.PathOf(sha)))
            {
                await AddAsync(
                    BundleFormat.Originals + sha,
                    CompressionLevel.NoCompression,
                    async to =>
                    {
                        await using var from = File.OpenRead(vault.PathOf(sha));
                        await from.CopyToAsync(to, cancel);
                    }
                );
            }
            else
            {
                missing.Add($"The original of {name} is not in the vault and could not be taken along.");
            }

            progress(++done, total);
        }

        var entry = zip.CreateEntry(BundleFormat.Manifest, CompressionLevel.Optimal);
        await using (var to = await entry.OpenAsync(cancel))
        {
            await to.WriteAsync(Encoding.UTF8.GetBytes(manifest.ToString()), cancel);
        }

        return missing;

        async Task AddAsync(string name, CompressionLevel level, Func<Stream, Task> write)
        {
            await using var to = await zip.CreateEntry(name, level).OpenAsync(cancel);
            using var hash = SHA256.Create();
            await using (var hashing = new CryptoStream(to, hash, CryptoStreamMode.Write, leaveOpen: true))
            {
                await write(hashing);
            }

            manifest.Append(CultureInfo.InvariantCulture, $"{Convert.ToHexStringLower(hash.Hash!)}  {name}\n");
        }
    }

    /// <summary>People and links belong to this place, not to the album.</summary>
    private async Task NameWhatStaysAsync(IReadOnlyList<Guid> albumIds, List<string> missing, CancellationToken cancel)
    {
        var people = await db.Shares.Where(s => albumIds.Contains(s.AlbumId)).CountAsync(cancel);
        if (people > 0)
        {
            missing.Add(
                $"{NumberWords.Counted(people, "share")} with others stay here: after a restore, invite them again."
            );
        }
    }

    private async Task<BundleAbout> AboutAsync(IReadOnlyList<Guid> albumIds, int originals, CancellationToken cancel)
    {
        var albums = await db
            .Albums.AsNoTracking()
            .Where(a => albumIds.Contains(a.Id))
            .OrderBy(a => a.MadeAt)
            .Select(a => new { a.Id, a.Name })
            .ToListAsync(cancel);
        var counted = new List<BundleAlbum>();
        foreach (var album in albums)
        {
            var (pages, pieces) = await CountsAsync(db, album.Id, cancel);
            counted.Add(new BundleAlbum(album.Id, album.Name, pages, pieces));
        }

        var schema = (await db.Database.GetAppliedMigrationsAsync(cancel)).Last();
        return new BundleAbout(
            BundleFormat.Name,
            BundleFormat.Version,
            schema,
            clock.GetCurrentInstant(),
            counted,
            originals
        );
    }

    /// <summary>Pages of an album, and pieces in their pockets: what a restore is held against.</summary>
    public static async Task<(int Pages, int Pieces)> CountsAsync(
        ZestyContext db,
        Guid albumId,
        CancellationToken cancel
    ) =>
        (
            2 * await db.Leaves.CountAsync(l => l.AlbumId == albumId, cancel),
            await db.Units.Where(u => u.AlbumId == albumId).SumAsync(u => u.PiecesPlaced, cancel)
        );

    private async Task<List<(ContentHash Sha256, string FileName)>> OriginalsAsync(
        IReadOnlyList<Guid> albumIds,
        CancellationToken cancel
    )
    {
        var photos = await db
            .Photos.AsNoTracking()
            .Where(p => albumIds.Contains(p.AlbumId))
            .Select(p => new { p.Sha256, p.FileName })
            .ToListAsync(cancel);
        var videos = await db
            .Videos.AsNoTracking()
            .Where(v => albumIds.Contains(v.AlbumId) && v.Kept)
            .Select(v => new { v.Sha256, v.FileName })
            .ToListAsync(cancel);
        var keepers = db.Albums.Where(a => albumIds.Contains(a.Id)).Select(a => a.KeeperId);
        var stash = (await db.StashItems.AsNoTracking().Where(i => keepers.Contains(i.KeeperId)).ToListAsync(cancel))
            .Select(Readable)
            .OfType<StashItem>()
            .Where(i => i.Picture is not null)
            .Select(i => new { i.Picture!.Sha256, FileName = i.Name });
        return
        [
            .. photos
                .Concat(videos)
                .Concat(stash)
                .DistinctBy(o => o.Sha256)
                .OrderBy(o => o.Sha256.ToString(), StringComparer.Ordinal)
                .Select(o => (o.Sha256, o.FileName)),
        ];
    }

    /// <summary>A damaged item goes along as it is; which picture it had nobody can say.</summary>
    private static StashItem? Readable(StashedItem row)
    {
        try
        {
            return row.Read();
        }
        catch (StoredDocumentException)
        {
            return null;
        }
    }

    private static async Task RowsAsync(
        NpgsqlConnection connection,
        BundleTable table,
        IReadOnlyList<Guid> albumIds,
        Stream to,
        CancellationToken cancel
    )
    {
        await using var rows = connection.CreateCommand();
        rows.CommandText =
            $"SELECT ({table.Row})::text FROM \"{table.Name}\" t WHERE {table.Where} ORDER BY {table.OrderBy}";
        rows.Parameters.AddWithValue("albums", albumIds.ToArray());
        await using var reader = await rows.ExecuteReaderAsync(cancel);
        while (await reader.ReadAsync(cancel))
        {
            await to.WriteAsync(Encoding.UTF8.GetBytes(reader.GetString(0)), cancel);
            to.WriteByte((byte)'\n');
        }
    }

    /// <summary>Reads everything back from the disk and compares it with the manifest.</summary>
    private static async Task CheckAsync(string path, CancellationToken cancel)
    {
        await using var zip = await ZipFile.OpenReadAsync(path, cancel);
        var manifest = zip.GetEntry(BundleFormat.Manifest) ?? throw Damaged(BundleFormat.Manifest);
        using var lines = new StreamReader(await manifest.OpenAsync(cancel));
        while (await lines.ReadLineAsync(cancel) is { } line)
        {
            var (sha, name) = (line[..64], line[66..]);
            var entry = zip.GetEntry(name) ?? throw Damaged(name);
            await using var content = await entry.OpenAsync(cancel);
            if (Convert.ToHexStringLower(await SHA256.HashDataAsync(content, cancel)) != sha)
            {
                throw Damaged(name);
            }
        }

        static RuleException Damaged(string name) =>
            new(
                $"The bundle was written, but {name} could not be read back as it was. Look at the disk and try again."
            );
    }
}
