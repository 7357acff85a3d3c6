using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>
/// One bundle on its way in, file by file, inside a transaction. Every row gets new keys, is read back as the program
/// will read it, and names only rows of the same bundle; an original is taken only when a row names it.
/// </summary>
internal sealed class BundleReading(
    ZestyContext db,
    IPhotoVault vault,
    BundleJudge judge,
    UploadQuota quota,
    Guid keeperId,
    bool onTrial = false
)
{
    /// <summary>So many rows are put back with one question.</summary>
    private const int Batch = 200;

    /// <summary>Longest row in bytes: an edit over a whole album holds it twice.</summary>
    private const int LongestRow = 32 << 20;

    /// <summary>Largest table in bytes: a long history of a large album.</summary>
    private const long LargestTable = 4L << 30;

    private const int LargestAbout = 1 << 20;

    /// <summary>Fits a line for each of a million originals.</summary>
    private const long LargestManifest = 200L << 20;

    private readonly BundleKeys _keys = new();
    private readonly Dictionary<string, HashSet<Guid>> _ids = BundleFormat.Tables.ToDictionary(
        t => t.Name,
        _ => new HashSet<Guid>()
    );
    private readonly Dictionary<string, string> _hashes = [];

    /// <summary>What rows name, with the most bytes it may have.</summary>
    private readonly Dictionary<ContentHash, long> _named = [];
    private readonly Dictionary<ContentHash, long> _originals = [];

    /// <summary>What items show that the keeper has already: no more is needed of it.</summary>
    private readonly HashSet<string> _passedOver = [];
    private BundleAbout? _about;
    private bool _lostRows;
    private bool _hasManifest;
    private long _bytes;
    private long? _room;

    public BundleReport Report { get; } = new();

    /// <summary>The originals that were put into the vault.</summary>
    public IReadOnlyCollection<ContentHash> Kept => _kept;

    private readonly HashSet<ContentHash> _kept = [];

    public IReadOnlyCollection<Guid> AlbumIds => _ids["Albums"];

    private NpgsqlConnection Connection => (NpgsqlConnection)db.Database.GetDbConnection();

    public async Task TakeAsync(BundleFile file, CancellationToken cancel)
    {
        await using var content = file.Open();
        if (file.Name == BundleFormat.Manifest)
        {
            await CompareAsync(new BoundedStream(content, LargestManifest), cancel);
            return;
        }

        if (file.Name.StartsWith(BundleFormat.Originals, StringComparison.Ordinal))
        {
            await KeepAsync(file.Name[BundleFormat.Originals.Length..], content, cancel);
            return;
        }

        using var hash = SHA256.Create();
        await using (
            var hashing = new CryptoStream(new BoundedStream(content, LargestTable), hash, CryptoStreamMode.Read)
        )
        {
            if (file.Name == BundleFormat.About)
            {
                await BeginAsync(hashing, cancel);
            }
            else if (BundleFormat.Tables.FirstOrDefault(t => t.File == file.Name) is { } table)
            {
                await RowsAsync(table, hashing, cancel);
                await JudgeAsync(table, cancel);
            }
            else
            {
                Report.Add($"{Shown(file.Name)} is no part of a bundle and was left alone.");
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
            about = await JsonSerializer.DeserializeAsync<BundleAbout>(
                new BoundedStream(content, LargestAbout),
                BundleWriter.Json,
                cancel
            );
        }
        catch (Exception damaged) when (damaged is JsonException or NotSupportedException)
        {
            Report.Add($"{BundleFormat.About} is damaged; the tables were read all the same.");
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
        var batch = new List<JsonObject>();
        try
        {
            await foreach (var line in BoundedLines.OfAsync(content, LongestRow, cancel))
            {
                if (await RowOfAsync(table, columns, line, cancel) is { } row)
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
            Report.Add($"{table.File} is damaged: the rows before that place were taken.");
        }

        await PutAsync(table, columns, batch, cancel);
    }

    /// <summary>The columns that are written, with their kinds; not those that the database numbers itself.</summary>
    private async Task<Dictionary<string, string>> ColumnsAsync(BundleTable table, CancellationToken cancel)
    {
        await using var ask = Connection.CreateCommand();
        ask.CommandText =
            "SELECT column_name, udt_name FROM information_schema.columns WHERE table_schema = current_schema() "
            + "AND table_name = @table AND is_identity = 'NO'";
        ask.Parameters.AddWithValue("table", table.Name);
        var columns = new Dictionary<string, string>();
        await using var reader = await ask.ExecuteReaderAsync(cancel);
        while (await reader.ReadAsync(cancel))
        {
            columns[reader.GetString(0)] = reader.GetString(1);
        }

        return columns;
    }

    /// <summary>A row as it is put back; null for one that cannot be, or that the keeper has already.</summary>
    private async Task<JsonObject?> RowOfAsync(
        BundleTable table,
        Dictionary<string, string> columns,
        string line,
        CancellationToken cancel
    )
    {
        JsonObject? row;
        try
        {
            row = JsonNode.Parse(line) as JsonObject;
            _ = row?.Count;
        }
        catch (Exception broken) when (broken is JsonException or ArgumentException)
        {
            row = null;
        }

        if (row is null || IdOf(row, table.Key) is not { } inFile)
        {
            _lostRows = true;
            Report.Add($"A row of {table.File} cannot be read.");
            return null;
        }

        if (table.OfKeeper && !await IsNewToKeeperAsync(table, inFile, cancel))
        {
            if (TextOf(((row["Item"] as JsonObject)?["picture"] as JsonObject)?["sha256"]) is { } picture)
            {
                _passedOver.Add(picture);
            }

            return null;
        }

        if (!WithNewKeys(row, columns))
        {
            _lostRows = true;
            Report.Add($"A row of {table.File} has a key that is none, and was left out.");
            return null;
        }

        return await AdaptAsync(table, row, cancel) ? row : null;
    }

    /// <summary>
    /// What belongs to the keeper comes once: under its own key where the keeper has it already, else under one that
    /// is the same for each bundle it comes with.
    /// </summary>
    private async Task<bool> IsNewToKeeperAsync(BundleTable table, Guid inFile, CancellationToken cancel)
    {
        var own = BundleKeys.Of(keeperId, inFile);
        var has =
            table.Name == "Designs"
                ? await db
                    .Designs.Where(d => d.KeeperId == keeperId && (d.Id == inFile || d.Id == own))
                    .Select(d => (Guid?)d.Id)
                    .FirstOrDefaultAsync(cancel)
                : await db
                    .StashItems.Where(i => i.KeeperId == keeperId && (i.Id == inFile || i.Id == own))
                    .Select(i => (Guid?)i.Id)
                    .FirstOrDefaultAsync(cancel);
        _keys.Let(inFile, has ?? own);
        return has is null;
    }

    /// <summary>Gives every key of a row a new one; false when a column of keys holds none.</summary>
    private bool WithNewKeys(JsonObject row, Dictionary<string, string> columns)
    {
        foreach (var (name, kind) in columns)
        {
            if (row[name] is not { } value)
            {
                continue;
            }

            switch (kind)
            {
                case "uuid" when KeyOf(value) is { } key:
                    row[name] = _keys.Of(key).ToString();
                    break;
                case "_uuid" when value is JsonArray keys && keys.All(k => KeyOf(k) is not null):
                    row[name] = new JsonArray([.. keys.Select(k => (JsonNode)_keys.Of(KeyOf(k)!.Value).ToString())]);
                    break;
                case "jsonb":
                    row[name] = _keys.In(value);
                    break;
                case "uuid" or "_uuid":
                    return false;
            }
        }

        return true;
    }

    /// <summary>The database would read keys in more ways than one.</summary>
    private static Guid? KeyOf(JsonNode? value) =>
        value is JsonValue text && text.TryGetValue<string>(out var key) && Guid.TryParseExact(key, "D", out var id)
            ? id
            : null;

    private static Guid? IdOf(JsonObject row, string column) => KeyOf(row[column]);

    private async Task<bool> AdaptAsync(BundleTable table, JsonObject row, CancellationToken cancel)
    {
        var author = row["Author"];
        if (row.ContainsKey("KeeperId"))
        {
            row["KeeperId"] = keeperId.ToString();
        }

        switch (table.Name)
        {
            case "StashItems":
                // Edits of the stash stay where they were made.
                row["HeadStepId"] = null;
                break;
            case "Albums":
                (row["PutAwayAt"], row["Demo"]) = (null, nameof(DemoState.None));
                row["Name"] = await FreeNameAsync(TextOf(row["Name"]) ?? "Album", cancel);
                break;
            case "Protectors" when TextOf(row["DesignKey"]) is { } design:
                row["DesignKey"] = DesignKeyOf(design);
                break;
            case "Comments" when TextOf(author) is { } name && TextOf(row["Words"]) is { } words:
                var mine = await db.Keepers.Where(k => k.Id == keeperId).Select(k => k.Name).SingleAsync(cancel);
                row["Words"] = name == mine ? words : $"{name}: {words}";
                break;
        }

        foreach (var (column, parent) in Parents(table.Name))
        {
            if (IdOf(row, column) is { } id && !_ids[parent].Contains(id))
            {
                _lostRows = true;
                if (!MayBeWithout(table, column))
                {
                    Report.Add($"A row of {table.File} belongs to something that is lost, and was left out.");
                    return false;
                }

                row[column] = null;
                Report.Add(
                    table.Name == "Photos"
                        ? $"The week or day of {TextOf(row["FileName"])} is lost: it lies with those without a date."
                        : "A page lost its week or day, and is empty."
                );
            }
        }

        if (table.Name == "EditChange" && !IsOfTheBundle(row))
        {
            _lostRows = true;
            return false;
        }

        if (_ids[table.Name].Add(IdOf(row, table.Key)!.Value))
        {
            return true;
        }

        _lostRows = true;
        Report.Add($"A row of {table.File} is there twice.");
        return false;
    }

    /// <summary>An edit changed rows that came with it; one that names others can never be undone or redone.</summary>
    private bool IsOfTheBundle(JsonObject change) =>
        Enum.TryParse<Storage.Editing.EditSubject>(TextOf(change["Subject"]), out var subject)
        && IdOf(change, "SubjectId") is { } id
        && _ids[
            subject switch
            {
                Storage.Editing.EditSubject.Unit => "Units",
                Storage.Editing.EditSubject.Leaf => "Leaves",
                Storage.Editing.EditSubject.Album => "Albums",
                Storage.Editing.EditSubject.Protector => "Protectors",
                Storage.Editing.EditSubject.Story => "Stories",
                _ => "Photos",
            }
        ]
            .Contains(id);

    private static string? TextOf(JsonNode? value) =>
        value is JsonValue text && text.TryGetValue<string>(out var words) ? words : null;

    private string DesignKeyOf(string inFile)
    {
        const string own = "own-";
        return
            inFile.StartsWith(own, StringComparison.Ordinal)
            && Guid.TryParseExact(inFile[own.Length..], "N", out var id)
            ? KeeperDesign.KeyOf(_keys.Of(id))
            : inFile;
    }

    /// <summary>Its own name where the shelf has none like it; else one that tells them apart.</summary>
    private async Task<string> FreeNameAsync(string name, CancellationToken cancel)
    {
        _names ??= await db
            .Albums.Where(a => a.KeeperId == keeperId && a.PutAwayAt == null)
            .Select(a => a.Name)
            .ToHashSetAsync(cancel);
        var shortened = name.Length > 90 ? name[..(char.IsHighSurrogate(name[89]) ? 89 : 90)] : name;
        var free = new[] { name, $"{shortened} (restored)" }
            .Concat(Enumerable.Range(2, _names.Count + 1).Select(n => $"{shortened} (restored {n})"))
            .First(n => !_names.Contains(n));
        _names.Add(free);
        return free;
    }

    /// <summary>Names of albums on the shelf, those of this bundle included; read when the first is needed.</summary>
    private HashSet<string>? _names;

    private static bool MayBeWithout(BundleTable table, string column) =>
        column is "UnitId" or "FrontUnitId" or "BackUnitId"
        && table.Name is "Photos" or "Leaves"
        && column is not ("AlbumId" or "ProtectorId");

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
            "Photos" or "PrintedPieces" or "PieceTicks" or "Comments" => [("AlbumId", "Albums"), ("UnitId", "Units")],
            "EditChange" => [("EditId", "Edits")],
            _ => [("AlbumId", "Albums")],
        };

    private async Task PutAsync(
        BundleTable table,
        Dictionary<string, string> columns,
        List<JsonObject> rows,
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
                    _ids[table.Name].Remove(IdOf(row, table.Key)!.Value);
                    Report.Add($"A row of {table.File} does not fit into the database and was left out.");
                }
            }
        }

        rows.Clear();
    }

    private async Task<bool> TryPutAsync(
        BundleTable table,
        Dictionary<string, string> columns,
        List<JsonObject> rows,
        CancellationToken cancel
    )
    {
        // Names that are no column of this version are passed over.
        var named = rows.SelectMany(r => r.Select(c => c.Key)).Distinct().Where(columns.ContainsKey);
        var list = string.Join(", ", named.Select(c => $"\"{c}\""));
        var transaction = db.Database.CurrentTransaction!;
        await transaction.CreateSavepointAsync("rows", cancel);
        await using var put = Connection.CreateCommand();
        put.CommandText =
            $"INSERT INTO \"{table.Name}\" ({list}) SELECT {list} FROM "
            + $"jsonb_populate_recordset(NULL::\"{table.Name}\", @rows::jsonb)";
        put.Parameters.AddWithValue("rows", $"[{string.Join(',', rows.Select(r => r.ToJsonString()))}]");
        try
        {
            await put.ExecuteNonQueryAsync(cancel);
            await transaction.ReleaseSavepointAsync("rows", cancel);
            return true;
        }
        catch (PostgresException refused) when (refused.SqlState[..2] is "22" or "23" or "54")
        {
            await transaction.RollbackToSavepointAsync("rows", cancel);
            return false;
        }
    }

    /// <summary>Rows that the program could not read are taken out again.</summary>
    private async Task JudgeAsync(BundleTable table, CancellationToken cancel)
    {
        var unreadable = await judge.UnreadableAsync(table, _ids[table.Name], cancel);
        if (unreadable.Count > 0)
        {
            _lostRows = true;
            await using var remove = Connection.CreateCommand();
            remove.CommandText = $"DELETE FROM \"{table.Name}\" WHERE \"{table.Key}\" = ANY(@ids)";
            remove.Parameters.AddWithValue("ids", unreadable.Select(u => u.Id).ToArray());
            await remove.ExecuteNonQueryAsync(cancel);
            foreach (var (id, why) in unreadable)
            {
                _ids[table.Name].Remove(id);
                Report.Add($"A row of {table.File} cannot be read and was left out: {Shown(why)}");
            }
        }

        await NameOriginalsAsync(table.Name, cancel);
    }

    private static string Shown(string text) => text.Length <= 200 ? text : text[..200] + "…";

    // ---- originals ----------------------------------------------------------------------------------------

    private async Task NameOriginalsAsync(string table, CancellationToken cancel)
    {
        var ids = _ids[table];
        var named = table switch
        {
            "Photos" => await db.Photos.Where(p => ids.Contains(p.Id)).Select(p => p.Sha256).ToListAsync(cancel),
            "Videos" => await db.Videos.Where(v => ids.Contains(v.Id)).Select(v => v.Sha256).ToListAsync(cancel),
            "StashItems" => (await db.StashItems.AsNoTracking().Where(i => ids.Contains(i.Id)).ToListAsync(cancel))
                .Select(i => i.Read().Picture?.Sha256)
                .OfType<ContentHash>()
                .ToList(),
            _ => [],
        };
        var most = table == "Videos" ? VideoFiles.LargestFile : PictureIntake.LargestFile;
        foreach (var sha in named)
        {
            _named[sha] = Math.Max(most, _named.GetValueOrDefault(sha));
        }
    }

    private async Task KeepAsync(string name, Stream content, CancellationToken cancel)
    {
        if (!ContentHash.TryParse(name, out var sha))
        {
            Report.Add($"{Shown(name)} is no original of a bundle and was left alone.");
            return;
        }

        if (!_named.TryGetValue(sha, out var most) || _originals.ContainsKey(sha))
        {
            if (!_passedOver.Contains(name))
            {
                Report.Add($"The original {sha.Beginning}… belongs to nothing in this bundle and was left alone.");
            }

            return;
        }

        var bounded = new BoundedStream(content, most);
        if (onTrial)
        {
            if (
                ContentHash.Of(await SHA256.HashDataAsync(bounded, cancel)) != sha
                || new FileInfo(vault.PathOf(sha)) is not { Exists: true, Length: var length }
            )
            {
                Report.Add($"The original {sha.Beginning}… is damaged.");
                return;
            }

            _originals[sha] = length;
            return;
        }

        using var arrived = await vault.ReceiveAsync(bounded, most, cancel);
        if (arrived.Original.Sha256 != sha)
        {
            Report.Add($"The original {sha.Beginning}… is damaged and was not taken.");
            return;
        }

        _room ??= await quota.RoomAsync(keeperId, cancel);
        _bytes += arrived.Original.Bytes;
        if (_bytes > _room)
        {
            throw new RuleException(
                "This bundle holds more than there is room for in your albums. Nothing was restored: make room, or ask "
                    + "whoever runs the program for more."
            );
        }

        // What was here before stays when this bundle is refused.
        if (!File.Exists(vault.PathOf(sha)))
        {
            _kept.Add(sha);
        }

        arrived.Keep();
        _originals[sha] = arrived.Original.Bytes;
    }

    private async Task CompareAsync(Stream content, CancellationToken cancel)
    {
        _hasManifest = true;
        await foreach (var line in BoundedLines.OfAsync(content, 1_000, cancel))
        {
            if (line.Length <= 66)
            {
                break;
            }

            var (sha, name) = (line[..64], line[66..]);
            if (name.StartsWith(BundleFormat.Originals, StringComparison.Ordinal))
            {
                continue;
            }

            if (!_hashes.TryGetValue(name, out var read))
            {
                _lostRows = true;
                Report.Add($"{Shown(name)} is missing.");
            }
            else if (read != sha)
            {
                _lostRows = true;
                Report.Add($"{name} is not as it was written.");
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
            Report.Add("The manifest is missing: nobody can say whether this is everything.");
        }

        await RequireWholeAsync(albums, cancel);
        await MendStashAsync(cancel);
        await MendUnitsAsync([.. albums], cancel);
        var lost = await WithoutOriginalsAsync([.. albums], cancel);
        if (lost > 0)
        {
            Report.Add($"{NumberWords.Counted(lost, "picture")} came without an original and could not be restored.");
        }

        if (_lostRows || lost > 0)
        {
            await ForgetHistoryAsync([.. albums], cancel);
            Report.Add("The history of edits was left out, since undoing could not bring back what is lost.");
        }

        await CompareCountsAsync(cancel);
        return new Restored(
            await db
                .Albums.AsNoTracking()
                .Where(a => albums.Contains(a.Id))
                .OrderBy(a => a.MadeAt)
                .Select(a => new BundleAlbum(a.Id, a.Name))
                .ToListAsync(cancel),
            _originals.Count,
            Report.Lines
        );
    }

    /// <summary>An album has a week or day and a page protector at least: without them it is none.</summary>
    private async Task RequireWholeAsync(HashSet<Guid> albums, CancellationToken cancel)
    {
        var broken = await db
            .Albums.Where(a => albums.Contains(a.Id) && (!a.Units.Any() || !a.Protectors.Any(p => !p.Gone)))
            .Select(a => a.Name)
            .FirstOrDefaultAsync(cancel);
        if (broken is not null)
        {
            throw new RuleException(
                $"Of “{Shown(broken)}” in this bundle every week or every page protector is lost. Nothing was restored."
            );
        }
    }

    /// <summary>What is counted beside a content follows from it, whatever the row says.</summary>
    private async Task MendUnitsAsync(List<Guid> albums, CancellationToken cancel)
    {
        foreach (
            var unit in await db.Units.IgnoreQueryFilters().Where(u => albums.Contains(u.AlbumId)).ToListAsync(cancel)
        )
        {
            unit.Write(unit.Read());
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Every page and every piece of the album that was written is there again, or it is said.</summary>
    private async Task CompareCountsAsync(CancellationToken cancel)
    {
        foreach (var was in _about?.Albums ?? [])
        {
            if (was is not { Pages: { } pagesThen, Pieces: { } piecesThen })
            {
                continue;
            }

            var (pages, pieces) = await BundleWriter.CountsAsync(db, _keys.Of(was.Id), cancel);
            if (pages != pagesThen || pieces != piecesThen)
            {
                Report.Add(
                    $"“{Shown(was.Name)}” had {NumberWords.Counted(pagesThen, "page")} and "
                        + $"{NumberWords.Counted(piecesThen, "piece")} in pockets; {pages} and {pieces} came back."
                );
            }
        }
    }

    /// <summary>
    /// Items of the stash whose photo is not in the bundle come back without a picture, and what weeks of other albums
    /// had set aside is free again.
    /// </summary>
    private async Task MendStashAsync(CancellationToken cancel)
    {
        var rows = await db.StashItems.Where(i => i.KeeperId == keeperId).ToListAsync(cancel);
        var came = _ids["StashItems"];
        var owned = rows.Where(r => !came.Contains(r.Id)).Select(r => r.Read().Picture?.Sha256).ToHashSet();
        foreach (var row in rows.Where(r => came.Contains(r.Id)))
        {
            var item = row.Read();
            var mended = item with { Claims = [.. item.Claims.Where(c => _ids["Units"].Contains(c.UnitId))] };
            if (
                item.Picture is { } picture
                && (
                    !(_originals.ContainsKey(picture.Sha256) || owned.Contains(picture.Sha256))
                    || !File.Exists(vault.PathOf(picture.Sha256))
                )
            )
            {
                mended = mended with { Picture = null };
                Report.Add($"“{item.Name}” in the stash came without its picture.");
            }

            if (mended.Picture != item.Picture || mended.Claims.Length != item.Claims.Length)
            {
                row.Write(mended);
            }
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// Pictures and videos without an original leave the album, and what shows them leaves its pocket. What an original
    /// really is counts, not what its row says of it.
    /// </summary>
    private async Task<int> WithoutOriginalsAsync(List<Guid> albums, CancellationToken cancel)
    {
        var photos = await db
            .Photos.Where(p => albums.Contains(p.AlbumId))
            .Select(p => new
            {
                p.Id,
                p.Sha256,
                p.FileName,
                p.Format,
                p.Bytes,
            })
            .ToListAsync(cancel);
        // A hash alone gives nobody a picture: its original is in the bundle, or the keeper has it already.
        var mine = db.Albums.Where(a => a.KeeperId == keeperId && !albums.Contains(a.Id)).Select(a => a.Id);
        var owned = (
            await db.Photos.Where(p => mine.Contains(p.AlbumId)).Select(p => p.Sha256).Distinct().ToListAsync(cancel)
        )
            .Concat(await db.Videos.Where(v => mine.Contains(v.AlbumId)).Select(v => v.Sha256).ToListAsync(cancel))
            .ToHashSet();
        var gone = photos
            .Where(p =>
                !(_originals.ContainsKey(p.Sha256) || owned.Contains(p.Sha256))
                || !IsWhatItSays(vault.PathOf(p.Sha256), p.FileName, p.Format, p.Bytes)
            )
            .Select(p => p.Id)
            .ToHashSet();
        await RemoveVideosAsync(albums, owned, cancel);
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

    private async Task RemoveVideosAsync(List<Guid> albums, HashSet<ContentHash> owned, CancellationToken cancel)
    {
        var videos = await db.Videos.Where(v => albums.Contains(v.AlbumId)).ToListAsync(cancel);
        foreach (
            var video in videos.Where(v =>
                !(_originals.ContainsKey(v.Sha256) || owned.Contains(v.Sha256))
                || new FileInfo(vault.PathOf(v.Sha256)) is not { Exists: true, Length: var length }
                || length != v.Bytes
                || !VideoFiles.Is(vault.PathOf(v.Sha256))
            )
        )
        {
            // One that was not kept was only there to take frames from.
            if (video.Kept)
            {
                Report.Add($"The video {video.FileName} came without its file and could not be restored.");
            }

            db.Videos.Remove(video);
        }

        await db.SaveChangesAsync(cancel);
    }

    private static bool IsWhatItSays(string path, string fileName, string format, long bytes)
    {
        try
        {
            return new FileInfo(path) is { Exists: true, Length: var length }
                && length == bytes
                && PictureIntake.Accept(path, fileName).ToString() == format;
        }
        catch (PictureRefusedException)
        {
            return false;
        }
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
}
