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
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
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

    private async Task<BundleAbout> AboutAsync(IReadOnlyList<Guid> albumIds, int originals, CancellationToken cancel)
    {
        var albums = await db
            .Albums.AsNoTracking()
            .Where(a => albumIds.Contains(a.Id))
            .OrderBy(a => a.MadeAt)
            .Select(a => new BundleAlbum(a.Id, a.Name))
            .ToListAsync(cancel);
        var schema = (await db.Database.GetAppliedMigrationsAsync(cancel)).Last();
        return new BundleAbout(
            BundleFormat.Name,
            BundleFormat.Version,
            schema,
            clock.GetCurrentInstant(),
            albums,
            originals
        );
    }

    private async Task<List<(string Sha256, string FileName)>> OriginalsAsync(
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
            .Select(i => i.Read())
            .Where(i => i.Picture is not null)
            .Select(i => new { i.Picture!.Sha256, FileName = i.Name });
        return
        [
            .. photos
                .Concat(videos)
                .Concat(stash)
                .DistinctBy(o => o.Sha256)
                .OrderBy(o => o.Sha256, StringComparer.Ordinal)
                .Select(o => (o.Sha256, o.FileName)),
        ];
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
            $"SELECT to_jsonb(t)::text FROM \"{table.Name}\" t WHERE {table.Where} ORDER BY {table.OrderBy}";
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
