using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>What came back from a bundle.</summary>
/// <param name="Lines">What did not come back or came back otherwise; empty when everything is as it was.</param>
public sealed record Restored(IReadOnlyList<BundleAlbum> Albums, int Originals, IReadOnlyList<string> Lines);

/// <summary>
/// Puts the albums of a bundle back: as they were where they are not, beside them where they are. Of a damaged bundle
/// everything that is whole comes back, and the rest is reported.
/// </summary>
public sealed partial class BundleRestorer(ZestyContext db, IPhotoVault vault, ILogger<BundleRestorer> log)
{
    private const long MostBytes = 8L << 30;

    /// <summary>So many rows are put back with one question.</summary>
    private const int Batch = 200;

    /// <param name="keeperId">Whose albums they will be.</param>
    /// <param name="progress">Files done.</param>
    /// <param name="beforeCommit">What it notes on tracked rows is saved with the albums or not at all.</param>
    public async Task<Restored> RestoreAsync(
        string path,
        Guid keeperId,
        Action<int> progress,
        Action<Restored>? beforeCommit,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(progress);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var restored = await ReadAsync(path, new Run(db, vault, keeperId), progress, cancel);
        beforeCommit?.Invoke(restored);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        await DocumentUpgrade.RunAsync(db, cancel);
        LogRestored(log, restored.Albums.Count, restored.Originals, restored.Lines.Count);
        return restored;
    }

    /// <summary>
    /// Restores a bundle on trial: every row goes into the database and is taken out again. Gives what would not come
    /// back; throws <see cref="RuleException"/> when nothing would.
    /// </summary>
    public async Task<IReadOnlyList<string>> TryAsync(string path, Guid keeperId, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var tried = await ReadAsync(path, new Run(db, vault, keeperId, onTrial: true), _ => { }, cancel);
        await transaction.RollbackAsync(cancel);
        return tried.Lines;
    }

    private static async Task<Restored> ReadAsync(string path, Run run, Action<int> progress, CancellationToken cancel)
    {
        var done = 0;
        foreach (var file in BundleReader.Files(path, run.Lines.Add))
        {
            cancel.ThrowIfCancellationRequested();
            try
            {
                await run.TakeAsync(file, cancel);
            }
            catch (InvalidDataException)
            {
                run.Lines.Add($"{file.Name} is damaged: what could be read of it was taken.");
            }

            progress(++done);
        }

        return await run.FinishAsync(cancel);
    }

    [LoggerMessage(
        Level = LogLevel.Information,
        Message = "Restored {Albums} albums, {Originals} originals, {Lines} lines"
    )]
    private static partial void LogRestored(ILogger log, int albums, int originals, int lines);

    /// <summary>One bundle on its way in.</summary>
    private sealed partial class Run(ZestyContext db, IPhotoVault vault, Guid keeperId, bool onTrial = false)
    {
        private readonly Dictionary<string, HashSet<Guid>> _ids = BundleFormat.Tables.ToDictionary(
            t => t.Name,
            _ => new HashSet<Guid>()
        );
        private readonly Dictionary<string, string> _hashes = [];
        private readonly HashSet<string> _originals = [];
        private BundleAbout? _about;

        /// <summary>Null when everything keeps its keys; else what new keys are made of.</summary>
        private Guid? _beside;
        private bool _lostRows;
        private bool _hasManifest;

        public List<string> Lines { get; } = [];

        private NpgsqlConnection Connection => (NpgsqlConnection)db.Database.GetDbConnection();

        public async Task TakeAsync(BundleFile file, CancellationToken cancel)
        {
            using var content = file.Open();
            if (file.Name == BundleFormat.Manifest)
            {
                await CompareAsync(content, cancel);
                return;
            }

            if (file.Name.StartsWith(BundleFormat.Originals, StringComparison.Ordinal))
            {
                await KeepAsync(file.Name[BundleFormat.Originals.Length..], content, cancel);
                return;
            }

            using var hash = SHA256.Create();
            await using (var hashing = new CryptoStream(content, hash, CryptoStreamMode.Read))
            {
                if (file.Name == BundleFormat.About)
                {
                    await BeginAsync(hashing, cancel);
                }
                else if (BundleFormat.Tables.FirstOrDefault(t => t.File == file.Name) is { } table)
                {
                    await RowsAsync(table, hashing, cancel);
                }
                else
                {
                    Lines.Add($"{file.Name} is no part of a bundle and was left alone.");
                }

                await hashing.CopyToAsync(Stream.Null, cancel);
            }

            _hashes[file.Name] = Convert.ToHexStringLower(hash.Hash!);
        }

        private async Task BeginAsync(Stream content, CancellationToken cancel)
        {
            BundleAbout? about;
            try
            {
                about = await JsonSerializer.DeserializeAsync<BundleAbout>(content, BundleWriter.Json, cancel);
            }
            catch (JsonException)
            {
                Lines.Add($"{BundleFormat.About} is damaged; the tables were read all the same.");
                return;
            }

            if (about is not { Format: BundleFormat.Name })
            {
                throw NoBundle();
            }

            var known = (await db.Database.GetAppliedMigrationsAsync(cancel)).ToList();
            if (about.Version > BundleFormat.Version || !known.Contains(about.Schema))
            {
                throw new RuleException(
                    "This bundle was written by a later version of Zesty Pocket. Nothing was restored."
                );
            }

            _about = about;
        }

        private static RuleException NoBundle() =>
            new("This file is no bundle of Zesty Pocket, or nothing of it can be read. Nothing was restored.");

        // ---- rows ---------------------------------------------------------------------------------------------

        private async Task RowsAsync(BundleTable table, Stream content, CancellationToken cancel)
        {
            var columns = await ColumnsAsync(table, cancel);
            using var lines = new StreamReader(content, Encoding.UTF8, leaveOpen: true);
            var batch = new List<string>();
            try
            {
                while (await lines.ReadLineAsync(cancel) is { } line)
                {
                    if (await RowOfAsync(table, line, cancel) is { } row)
                    {
                        batch.Add(row);
                    }

                    if (batch.Count == Batch)
                    {
                        await PutAsync(table, columns, batch, cancel);
                    }
                }
            }
            catch (InvalidDataException)
            {
                _lostRows = true;
                Lines.Add($"{table.File} is damaged: the rows before that place were taken.");
            }

            await PutAsync(table, columns, batch, cancel);
        }

        /// <summary>The columns that are written; those that the database numbers itself are not.</summary>
        private async Task<HashSet<string>> ColumnsAsync(BundleTable table, CancellationToken cancel)
        {
            await using var ask = Connection.CreateCommand();
            ask.CommandText =
                "SELECT column_name FROM information_schema.columns WHERE table_schema = current_schema() "
                + "AND table_name = @table AND is_identity = 'NO'";
            ask.Parameters.AddWithValue("table", table.Name);
            var columns = new HashSet<string>();
            await using var reader = await ask.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
            {
                columns.Add(reader.GetString(0));
            }

            return columns;
        }

        /// <summary>A row as it is put back; null for one that cannot be.</summary>
        private async Task<string?> RowOfAsync(BundleTable table, string line, CancellationToken cancel)
        {
            JsonObject? row;
            try
            {
                row = JsonNode.Parse(line) as JsonObject;
            }
            catch (JsonException)
            {
                row = null;
            }

            if (row is null)
            {
                _lostRows = true;
                Lines.Add($"A row of {table.File} cannot be read.");
                return null;
            }

            if (table.Name == "Albums" && _ids["Albums"].Count == 0)
            {
                await DecideAsync(row, cancel);
            }

            if (_beside is not null && !table.OfKeeper)
            {
                row = (JsonObject)JsonNode.Parse(Keys().Replace(line, m => Other(m.Value)))!;
            }

            return Adapt(table, row) ? row.ToJsonString() : null;
        }

        /// <summary>Where one of the albums is already, all of them come beside it, under keys of their own.</summary>
        private async Task DecideAsync(JsonObject album, CancellationToken cancel)
        {
            var ids = (_about?.Albums.Select(a => a.Id) ?? []).Append(IdOf(album, "Id") ?? Guid.Empty).ToList();
            if (await db.Albums.IgnoreQueryFilters().AnyAsync(a => ids.Contains(a.Id), cancel))
            {
                _beside = Guid.CreateVersion7();
            }
        }

        private string Other(string key)
        {
            Span<byte> hash = stackalloc byte[32];
            SHA256.HashData(Encoding.UTF8.GetBytes($"{_beside} {key.ToLowerInvariant()}"), hash);
            return new Guid(hash[..16]).ToString();
        }

        private bool Adapt(BundleTable table, JsonObject row)
        {
            if (row.ContainsKey("KeeperId"))
            {
                row["KeeperId"] = keeperId.ToString();
            }

            if (table.Name == "StashItems")
            {
                // Edits of the stash stay where they were made.
                row["HeadStepId"] = null;
            }

            if (table.Name == "Albums")
            {
                row["PutAwayAt"] = null;
                if (_beside is not null)
                {
                    (row["Demo"], row["Name"]) = ("None", Named(row["Name"]?.GetValue<string>() ?? "Album"));
                }
            }

            foreach (var (column, parent) in Parents(table.Name))
            {
                if (IdOf(row, column) is { } id && !_ids[parent].Contains(id))
                {
                    _lostRows = true;
                    if (
                        column is not ("UnitId" or "FrontUnitId" or "BackUnitId")
                        || table.Name is not ("Photos" or "Leaves")
                    )
                    {
                        Lines.Add($"A row of {table.File} belongs to something that is lost, and was left out.");
                        return false;
                    }

                    row[column] = null;
                    Lines.Add(
                        table.Name == "Photos"
                            ? $"The week or day of {row["FileName"]} is lost: it lies with the photos without a date."
                            : "A page lost its week or day, and is empty."
                    );
                }
            }

            if (IdOf(row, row.ContainsKey("Id") ? "Id" : "PieceId") is { } own)
            {
                _ids[table.Name].Add(own);
            }

            return true;
        }

        private static string Named(string name) => $"{(name.Length > 90 ? name[..90] : name)} (restored)";

        private static (string Column, string Parent)[] Parents(string table) =>
            table switch
            {
                "Designs" or "StashItems" or "Albums" => [],
                "Leaves" =>
                [
                    ("AlbumId", "Albums"),
                    ("ProtectorId", "Protectors"),
                    ("FrontUnitId", "Units"),
                    ("BackUnitId", "Units"),
                ],
                "Photos" => [("AlbumId", "Albums"), ("UnitId", "Units")],
                "EditChange" => [("EditId", "Edits")],
                _ => [("AlbumId", "Albums")],
            };

        private static Guid? IdOf(JsonObject row, string column) =>
            row[column] is JsonValue value && value.TryGetValue<string>(out var text) && Guid.TryParse(text, out var id)
                ? id
                : null;

        private async Task PutAsync(
            BundleTable table,
            HashSet<string> columns,
            List<string> rows,
            CancellationToken cancel
        )
        {
            if (rows.Count == 0)
            {
                return;
            }

            if (!await TryPutAsync(table, columns, rows, cancel))
            {
                foreach (var row in rows)
                {
                    if (!await TryPutAsync(table, columns, [row], cancel))
                    {
                        _lostRows = true;
                        Lines.Add($"A row of {table.File} does not fit into the database and was left out.");
                    }
                }
            }

            rows.Clear();
        }

        private async Task<bool> TryPutAsync(
            BundleTable table,
            HashSet<string> columns,
            List<string> rows,
            CancellationToken cancel
        )
        {
            var named = JsonNode.Parse(rows[0])!.AsObject().Select(c => c.Key).Where(columns.Contains);
            var list = string.Join(", ", named.Select(c => $"\"{c}\""));
            var transaction = db.Database.CurrentTransaction!;
            await transaction.CreateSavepointAsync("rows", cancel);
            await using var put = Connection.CreateCommand();
            // What is no column of this version was written by a damaged file: it is not looked at.
            put.CommandText =
                $"INSERT INTO \"{table.Name}\" ({list}) SELECT {list} FROM "
                + $"jsonb_populate_recordset(NULL::\"{table.Name}\", @rows::jsonb)"
                + (table.OfKeeper ? " ON CONFLICT DO NOTHING" : "");
            put.Parameters.AddWithValue("rows", $"[{string.Join(',', rows)}]");
            try
            {
                await put.ExecuteNonQueryAsync(cancel);
                await transaction.ReleaseSavepointAsync("rows", cancel);
                return true;
            }
            catch (PostgresException refused) when (refused.SqlState[..2] is "22" or "23")
            {
                await transaction.RollbackToSavepointAsync("rows", cancel);
                return false;
            }
        }

        // ---- originals ----------------------------------------------------------------------------------------

        private async Task KeepAsync(string sha, Stream content, CancellationToken cancel)
        {
            if (onTrial)
            {
                var read = Convert.ToHexStringLower(await SHA256.HashDataAsync(content, cancel));
                if (read != sha || !File.Exists(vault.PathOf(sha)))
                {
                    Lines.Add($"The original {sha[..Math.Min(12, sha.Length)]}… is damaged.");
                    return;
                }

                _originals.Add(sha);
                return;
            }

            using var arrived = await vault.ReceiveAsync(content, MostBytes, cancel);
            if (arrived.Original.Sha256 != sha)
            {
                Lines.Add($"The original {sha[..Math.Min(12, sha.Length)]}… is damaged and was not taken.");
                return;
            }

            arrived.Keep();
            _originals.Add(sha);
        }

        private async Task CompareAsync(Stream content, CancellationToken cancel)
        {
            _hasManifest = true;
            using var lines = new StreamReader(content);
            while (await lines.ReadLineAsync(cancel) is { Length: > 66 } line)
            {
                var (sha, name) = (line[..64], line[66..]);
                if (name.StartsWith(BundleFormat.Originals, StringComparison.Ordinal))
                {
                    continue;
                }

                if (!_hashes.TryGetValue(name, out var read))
                {
                    _lostRows = true;
                    Lines.Add($"{name} is missing.");
                }
                else if (read != sha)
                {
                    _lostRows = true;
                    Lines.Add($"{name} is not as it was written.");
                }
            }
        }

        // ---- the end ------------------------------------------------------------------------------------------

        public async Task<Restored> FinishAsync(CancellationToken cancel)
        {
            var albums = _ids["Albums"];
            if (albums.Count == 0)
            {
                throw NoBundle();
            }

            if (!_hasManifest)
            {
                _lostRows = true;
                Lines.Add("The manifest is missing: nobody can say whether this is everything.");
            }

            await StashWithoutOriginalsAsync(cancel);
            var lost = await WithoutOriginalsAsync([.. albums], cancel);
            if (lost > 0)
            {
                Lines.Add(
                    $"{NumberWords.Counted(lost, "picture")} came without an original and could not be restored."
                );
            }

            if (_lostRows || lost > 0)
            {
                await ForgetHistoryAsync([.. albums], cancel);
                Lines.Add("The history of edits was left out, since undoing could not bring back what is lost.");
            }

            return new Restored(
                await db
                    .Albums.AsNoTracking()
                    .Where(a => albums.Contains(a.Id))
                    .OrderBy(a => a.MadeAt)
                    .Select(a => new BundleAlbum(a.Id, a.Name))
                    .ToListAsync(cancel),
                _originals.Count,
                [.. Lines.Distinct()]
            );
        }

        /// <summary>Items of the stash whose photo is not in the bundle come back without a picture.</summary>
        private async Task StashWithoutOriginalsAsync(CancellationToken cancel)
        {
            var rows = await db.StashItems.Where(i => i.KeeperId == keeperId).ToListAsync(cancel);
            var came = _ids["StashItems"];
            var owned = rows.Where(r => !came.Contains(r.Id)).Select(r => r.Read().Picture?.Sha256).ToHashSet();
            foreach (var row in rows.Where(r => came.Contains(r.Id)))
            {
                var item = row.Read();
                if (
                    item.Picture is { } picture
                    && (
                        !(_originals.Contains(picture.Sha256) || owned.Contains(picture.Sha256))
                        || !File.Exists(vault.PathOf(picture.Sha256))
                    )
                )
                {
                    row.Write(item with { Picture = null });
                    Lines.Add($"“{item.Name}” in the stash came without its picture.");
                }
            }

            await db.SaveChangesAsync(cancel);
        }

        /// <summary>Pictures without an original leave the album, and what shows them leaves its pocket.</summary>
        private async Task<int> WithoutOriginalsAsync(List<Guid> albums, CancellationToken cancel)
        {
            var photos = await db
                .Photos.Where(p => albums.Contains(p.AlbumId))
                .Select(p => new { p.Id, p.Sha256 })
                .ToListAsync(cancel);
            // A hash alone gives nobody a picture: its original is in the bundle, or the keeper has it already.
            var owned = await db
                .Photos.Where(p => !albums.Contains(p.AlbumId))
                .Join(db.Albums.Where(a => a.KeeperId == keeperId), p => p.AlbumId, a => a.Id, (p, _) => p.Sha256)
                .Distinct()
                .ToHashSetAsync(cancel);
            var gone = photos
                .Where(p =>
                    !(_originals.Contains(p.Sha256) || owned.Contains(p.Sha256)) || !File.Exists(vault.PathOf(p.Sha256))
                )
                .Select(p => p.Id)
                .ToHashSet();
            if (gone.Count == 0)
            {
                return 0;
            }

            foreach (var unit in await db.Units.Where(u => albums.Contains(u.AlbumId)).ToListAsync(cancel))
            {
                unit.Write(unit.Read().WithoutPrintsOf(gone));
            }

            await db.SaveChangesAsync(cancel);
            await db.Photos.Where(p => gone.Contains(p.Id)).ExecuteDeleteAsync(cancel);
            return gone.Count;
        }

        private async Task ForgetHistoryAsync(List<Guid> albums, CancellationToken cancel)
        {
            await db.Edits.Where(e => albums.Contains(e.AlbumId)).ExecuteDeleteAsync(cancel);
            foreach (var table in new[] { "Protectors", "Units", "Leaves", "Photos", "Stories" })
            {
                await using var forget = Connection.CreateCommand();
                forget.CommandText = $"UPDATE \"{table}\" SET \"HeadEditId\" = NULL WHERE \"AlbumId\" = ANY(@albums)";
                forget.Parameters.AddWithValue("albums", albums.ToArray());
                await forget.ExecuteNonQueryAsync(cancel);
            }

            await db
                .Albums.Where(a => albums.Contains(a.Id))
                .ExecuteUpdateAsync(set => set.SetProperty(a => a.HeadEditId, (Guid?)null), cancel);
        }

        [GeneratedRegex("[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}")]
        private static partial Regex Keys();
    }
}
