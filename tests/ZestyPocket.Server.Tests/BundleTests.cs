using System.Globalization;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>A bundle gives back the album it was written from, and of a damaged one everything that is whole.</summary>
public sealed partial class BundleTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<AlbumView> AlbumAsync(TestHost host, int pictures = 9)
    {
        var album = await host.MakeAlbumAsync("6x8-four-3x4", "6x8-6x4-two-3x4");
        for (var i = 0; i < pictures; i++)
        {
            var taken = $"2026:05:{4 + (i % 14):00} 1{i % 10}:00:00";
            await host.AddAsync(album.Id, $"bild {i} ñ.jpg", Pictures.Jpeg(500 + i, 420, taken, colourful: true));
        }

        foreach (var week in album.Units.Take(2))
        {
            var unit = await host.OpenAsync(week.Id);
            unit = await host.EditAsync(
                unit,
                new AddCard(CardKind.Journaling, "Rain – all day: “home”. 雨") { Revision = 0 }
            );
            await host.EditAsync(unit, new FillSpread { Revision = 0 });
        }

        // As a start of the program leaves it: every document of the present version.
        await using var scope = host.Services.CreateAsyncScope();
        await DocumentUpgrade.RunAsync(scope.ServiceProvider.GetRequiredService<ZestyContext>(), Cancel);
        return await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
    }

    /// <summary>Each album that comes in has keys of its own; everything else of a row stays as it was.</summary>
    private static List<string> WithoutKeys(List<string> rows) =>
        [.. rows.Select(r => Key().Replace(r, "key")).Order(StringComparer.Ordinal)];

    [GeneratedRegex("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")]
    private static partial Regex Key();

    /// <summary>Says which row differs, not all of them.</summary>
    private static void ShouldBeAlike(List<string> rows, List<string> expected)
    {
        rows.Except(expected).Select(r => r[..Math.Min(300, r.Length)]).FirstOrDefault().ShouldBeNull();
        rows.Count.ShouldBe(expected.Count);
    }

    internal static async Task<string> WriteAsync(TestHost host, params Guid[] albums)
    {
        var path = Path.Combine(host.DataFolder, $"{Guid.NewGuid():N}.zip");
        await using var scope = host.Services.CreateAsyncScope();
        var report = await scope
            .ServiceProvider.GetRequiredService<BundleWriter>()
            .WriteAsync(path, albums, (_, _) => { }, Cancel);
        report.ShouldBeEmpty();
        return path;
    }

    internal static async Task<Restored> RestoreAsync(TestHost host, string path)
    {
        await using var scope = host.Services.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<BundleRestorer>()
            .RestoreAsync(path, Keeper.LocalId, _ => { }, null, Cancel);
    }

    /// <summary>Everything that is stored of an album, without what the database counts itself.</summary>
    private static async Task<List<string>> RowsAsync(TestHost host, Guid album)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        await db.Database.OpenConnectionAsync(Cancel);
        var connection = (NpgsqlConnection)db.Database.GetDbConnection();
        var rows = new List<string>();
        foreach (var table in BundleFormat.Tables.Where(t => t.Name != "Designs"))
        {
            await using var ask = connection.CreateCommand();
            ask.CommandText =
                $"SELECT (to_jsonb(t) - 'Sequence')::text FROM \"{table.Name}\" t WHERE {table.Where} "
                + $"ORDER BY {table.OrderBy}";
            ask.Parameters.AddWithValue("albums", new[] { album });
            await using var reader = await ask.ExecuteReaderAsync(Cancel);
            while (await reader.ReadAsync(Cancel))
            {
                rows.Add($"{table.Name} {reader.GetString(0)}");
            }
        }

        return rows;
    }

    internal static async Task<List<string>> PaintedAsync(TestHost host, AlbumView album)
    {
        var painted = new List<string>();
        foreach (var page in await host.GetAsync<List<AlbumPage>>($"/api/albums/{album.Id}/pages"))
        {
            var png = await host.Client.GetByteArrayAsync(new Uri($"{page.Picture}48", UriKind.Relative), Cancel);
            painted.Add(Convert.ToHexString(SHA256.HashData(png)));
        }

        return painted;
    }

    [Fact]
    public async Task A_bundle_restores_the_same_album_on_another_machine_row_by_row_and_pixel_by_pixel()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var (rows, painted) = (await RowsAsync(host, album.Id), await PaintedAsync(host, album));
        var bundle = await WriteAsync(host, album.Id);

        await using var other = await TestHost.StartAsync();
        var restored = await RestoreAsync(other, bundle);
        restored.Lines.ShouldBeEmpty();
        restored.Originals.ShouldBe(9);
        var back = await other.GetAsync<AlbumView>($"/api/albums/{restored.Albums.ShouldHaveSingleItem().Id}");
        (back.Id == album.Id, back.Name).ShouldBe((false, album.Name));
        ShouldBeAlike(WithoutKeys(await RowsAsync(other, back.Id)), WithoutKeys(rows));
        (await PaintedAsync(other, back)).ShouldBe(painted);
        // Its last edit can be undone there as here.
        (await other.StepAsync(await other.OpenAsync(back.Units[0].Id), "undo"))
            .Faces.SelectMany(f => f.Pockets)
            .ShouldAllBe(p => p.Piece == null);
    }

    [Fact]
    public async Task Beside_the_old_one_it_is_an_album_of_its_own_that_looks_the_same()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var (rows, painted) = (await RowsAsync(host, album.Id), await PaintedAsync(host, album));
        var bundle = await WriteAsync(host, album.Id);
        var restored = await RestoreAsync(host, bundle);
        restored.Lines.ShouldBeEmpty();
        var copy = restored.Albums.ShouldHaveSingleItem();
        (copy.Id == album.Id, copy.Name).ShouldBe((false, "Test year (restored)"));
        // The old one was not touched, and nothing of the new one points to it.
        ShouldBeAlike(await RowsAsync(host, album.Id), rows);
        var own = await RowsAsync(host, copy.Id);
        own.Count.ShouldBe(rows.Count);
        own.ShouldAllBe(r => !r.Contains(album.Id.ToString(), StringComparison.Ordinal));
        var view = await host.GetAsync<AlbumView>($"/api/albums/{copy.Id}");
        (await PaintedAsync(host, view)).ShouldBe(painted);
        await host.EditAsync(
            await host.OpenAsync(view.Units[0].Id),
            new AddCard(CardKind.Journaling, "Only here") { Revision = 0 }
        );
        ShouldBeAlike(await RowsAsync(host, album.Id), rows);
    }

    [Fact]
    public async Task The_manifest_is_what_sha256sum_checks_and_originals_are_the_bytes_that_came_in()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 3);
        var folder = Directory.CreateTempSubdirectory("zesty-bundle-");
        try
        {
            await ZipFile.ExtractToDirectoryAsync(await WriteAsync(host, album.Id), folder.FullName, Cancel);
            using var check = System.Diagnostics.Process.Start(
                new System.Diagnostics.ProcessStartInfo("sha256sum", ["-c", "--quiet", BundleFormat.Manifest])
                {
                    WorkingDirectory = folder.FullName,
                }
            )!;
            await check.WaitForExitAsync(Cancel);
            check.ExitCode.ShouldBe(0);
            var vault = host.Services.GetRequiredService<IPhotoVault>();
            foreach (var original in Directory.GetFiles(Path.Combine(folder.FullName, "originals")))
            {
                (await File.ReadAllBytesAsync(original, Cancel)).ShouldBe(
                    await File.ReadAllBytesAsync(vault.PathOf(ContentHash.Parse(Path.GetFileName(original))), Cancel)
                );
            }

            Directory.GetFiles(Path.Combine(folder.FullName, "originals")).Length.ShouldBe(3);
            JsonNode.Parse(await File.ReadAllTextAsync(Path.Combine(folder.FullName, "bundle.json"), Cancel))![
                "format"
            ]!
                .GetValue<string>()
                .ShouldBe("zesty-pocket-bundle");
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    [Fact]
    public async Task A_hash_alone_gives_nobody_a_picture_that_the_vault_holds_for_somebody_else()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 3);
        var path = await WriteAsync(host, album.Id);
        string taken;
        await using (var zip = await ZipFile.OpenAsync(path, ZipArchiveMode.Update, Cancel))
        {
            var original = zip.Entries.First(e => e.FullName.StartsWith("originals/", StringComparison.Ordinal));
            taken = original.FullName["originals/".Length..];
            original.Delete();
        }

        await using var other = await TestHost.StartAsync();
        // Somebody else's picture lies in the vault there, under the same hash.
        await using (
            var content = File.OpenRead(
                host.Services.GetRequiredService<IPhotoVault>().PathOf(ContentHash.Parse(taken))
            )
        )
        {
            using var arrived = await other
                .Services.GetRequiredService<IPhotoVault>()
                .ReceiveAsync(content, long.MaxValue / 2, Cancel);
            arrived.Keep();
        }

        var back = await RestoreAsync(other, path);
        back.Lines.ShouldContain(l => l.StartsWith("1 picture came without an original"));
        var restored = await other.GetAsync<AlbumView>($"/api/albums/{back.Albums.Single().Id}");
        restored.Units.Sum(u => u.Photos).ShouldBe(2);
    }

    /// <summary>Cut off, with flipped bits, without files: a report each time, and what was whole is whole.</summary>
    [Fact]
    [Trait("Duration", "Long")]
    public async Task Of_a_damaged_bundle_everything_that_is_whole_comes_back_and_the_rest_is_reported()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var whole = await File.ReadAllBytesAsync(await WriteAsync(host, album.Id), Cancel);
        var rows = (await RowsAsync(host, album.Id)).Count;
        await using var other = await TestHost.StartAsync();
        var dice = new Random(17);
        var (came, refused) = (0, 0);
        for (var i = 0; i < Thorough.Of(200, 12); i++)
        {
            var path = Path.Combine(other.DataFolder, "damaged.zip");
            await File.WriteAllBytesAsync(path, Damaged(whole, i % 3, dice), Cancel);
            try
            {
                var restored = await RestoreAsync(other, path);
                came++;
                if (restored.Lines.Count == 0)
                {
                    // It hit nothing that matters, or an original that had come before: then all is there.
                    (await RowsAsync(other, restored.Albums.Single().Id)).Count.ShouldBe(rows, $"damage {i}");
                }

                foreach (var back in restored.Albums)
                {
                    // Every picture that is there has its original as it was, and every week opens.
                    var view = await other.GetAsync<AlbumView>($"/api/albums/{back.Id}");
                    foreach (var week in view.Units)
                    {
                        foreach (var photo in (await other.OpenAsync(week.Id)).Photos)
                        {
                            var bytes = await other.Client.GetByteArrayAsync(
                                new Uri($"{photo.Picture}64", UriKind.Relative),
                                Cancel
                            );
                            bytes.Length.ShouldBeGreaterThan(100);
                        }
                    }
                }
            }
            catch (RuleException nothing)
            {
                refused++;
                nothing.Message.ShouldContain("Nothing was restored");
            }

            foreach (
                var sha in Directory.GetFiles(Path.Combine(other.DataFolder, "vault"), "*", SearchOption.AllDirectories)
            )
            {
                if (Path.GetFileName(sha).Length == 64)
                {
                    Convert
                        .ToHexStringLower(SHA256.HashData(await File.ReadAllBytesAsync(sha, Cancel)))
                        .ShouldBe(Path.GetFileName(sha));
                }
            }
        }

        came.ShouldBeGreaterThan(refused);
    }

    private static byte[] Damaged(byte[] whole, int how, Random dice)
    {
        switch (how)
        {
            case 0:
                return whole[..dice.Next(whole.Length / 4, whole.Length)];
            case 1:
                var flipped = (byte[])whole.Clone();
                for (var n = 0; n < 3; n++)
                {
                    flipped[dice.Next(flipped.Length)] ^= (byte)(1 << dice.Next(8));
                }

                return flipped;
            default:
                using (var memory = new MemoryStream())
                {
                    memory.Write(whole);
                    using (var zip = new ZipArchive(memory, ZipArchiveMode.Update, leaveOpen: true))
                    {
                        var entries = zip.Entries.Where(e => e.FullName != "tables/Albums.jsonl").ToList();
                        for (var n = 0; n <= dice.Next(4); n++)
                        {
                            var at = dice.Next(entries.Count);
                            entries[at].Delete();
                            entries.RemoveAt(at);
                        }
                    }

                    return memory.ToArray();
                }
        }
    }

    /// <summary>The same bundle with other contents of its files; null leaves a file out.</summary>
    private static async Task<string> RewrittenAsync(string bundle, Func<string, string, string?> rewrite)
    {
        var path = Path.Combine(Path.GetDirectoryName(bundle)!, $"{Guid.NewGuid():N}.zip");
        await using var from = await ZipFile.OpenReadAsync(bundle, Cancel);
        await using var to = await ZipFile.OpenAsync(path, ZipArchiveMode.Create, Cancel);
        var manifest = new StringBuilder();
        foreach (var entry in from.Entries.Where(e => e.FullName != BundleFormat.Manifest))
        {
            using var content = new MemoryStream();
            await using (var stream = await entry.OpenAsync(Cancel))
            {
                await stream.CopyToAsync(content, Cancel);
            }

            var bytes = content.ToArray();
            if (!entry.FullName.StartsWith(BundleFormat.Originals, StringComparison.Ordinal))
            {
                if (rewrite(entry.FullName, Encoding.UTF8.GetString(bytes)) is not { } text)
                {
                    continue;
                }

                bytes = Encoding.UTF8.GetBytes(text);
            }
            else if (rewrite(entry.FullName, string.Empty) is null)
            {
                continue;
            }

            await using var written = await to.CreateEntry(entry.FullName).OpenAsync(Cancel);
            await written.WriteAsync(bytes, Cancel);
            manifest.Append(
                CultureInfo.InvariantCulture,
                $"{Convert.ToHexStringLower(SHA256.HashData(bytes))}  {entry.FullName}\n"
            );
        }

        await using var last = await to.CreateEntry(BundleFormat.Manifest).OpenAsync(Cancel);
        await last.WriteAsync(Encoding.UTF8.GetBytes(manifest.ToString()), Cancel);
        return path;
    }

    [Fact]
    public async Task A_bundle_of_an_earlier_version_comes_back_whole_and_what_it_lacks_has_its_default()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var painted = await PaintedAsync(host, album);
        var lacking = new Regex(", \"People\": \\[[^]]*\\]|\"People\": \\[[^]]*\\], ");
        var old = await RewrittenAsync(
            await WriteAsync(host, album.Id),
            (name, text) =>
                name switch
                {
                    "tables/StashItems.jsonl" => null,
                    "bundle.json" => new Regex("\"schema\": \"[^\"]*\"").Replace(
                        text,
                        "\"schema\": \"20261127192625_TripLog\""
                    ),
                    "tables/Photos.jsonl" => lacking.Replace(text, string.Empty),
                    _ => text,
                }
        );
        await using var other = await TestHost.StartAsync();
        var restored = await RestoreAsync(other, old);
        restored.Lines.ShouldBeEmpty();
        var back = await other.GetAsync<AlbumView>($"/api/albums/{restored.Albums.Single().Id}");
        (await PaintedAsync(other, back)).ShouldBe(painted);
    }

    [Fact]
    public async Task The_stash_goes_along_with_the_photos_of_its_items_and_one_that_is_there_stays()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 1);
        using var photo = new ByteArrayContent(Pictures.Cards());
        photo.Headers.ContentType = new("application/octet-stream");
        var sent = await host.Client.PostAsync(
            new Uri("/api/stash/photo?name=cards.png", UriKind.Relative),
            photo,
            Cancel
        );
        var found = (await sent.Content.ReadFromJsonAsync<FoundOnPhoto>(TestHost.Json, Cancel))!;
        var entries = found.Items.Select((f, i) => f.Entry with { Name = $"Card {i}" });
        await host.PostAsync<StashAnswer>("/api/stash/edits", new AddToStash([.. entries], found.Upload));
        var bundle = await WriteAsync(host, album.Id);

        await using var other = await TestHost.StartAsync();
        (await RestoreAsync(other, bundle)).Lines.ShouldBeEmpty();
        var there = await other.GetAsync<StashView>("/api/stash");
        there
            .Items.Select(i => i.Entry)
            .ShouldBe((await host.GetAsync<StashView>("/api/stash")).Items.Select(i => i.Entry));
        (await other.Client.GetByteArrayAsync(new Uri(there.Items[0].Picture!, UriKind.Relative), Cancel)).ShouldBe(
            await host.Client.GetByteArrayAsync(
                new Uri((await host.GetAsync<StashView>("/api/stash")).Items[0].Picture!, UriKind.Relative),
                Cancel
            )
        );

        // Restored beside it nothing of the stash is doubled, and without its photo an item has no picture.
        (await RestoreAsync(other, bundle)).Lines.ShouldBeEmpty();
        (await other.GetAsync<StashView>("/api/stash")).Total.ShouldBe(3);
        var sha = found.Items[0].Entry.Picture!.Sha256;
        await using var third = await TestHost.StartAsync();
        var without = await RewrittenAsync(
            bundle,
            (name, text) => name.EndsWith(sha.ToString(), StringComparison.Ordinal) ? null : text
        );
        (await RestoreAsync(third, without)).Lines.Count(l => l.Contains("without its picture")).ShouldBe(3);
        (await third.GetAsync<StashView>("/api/stash")).Items.ShouldAllBe(i => i.Picture == null);
    }

    /// <summary>A bundle that was rewritten by hand, put into the shelf of this machine's keeper.</summary>
    private static async Task<Restored> AttackAsync(
        TestHost host,
        string bundle,
        string table,
        Func<JsonObject, JsonObject> change
    ) =>
        await RestoreAsync(
            host,
            await RewrittenAsync(
                bundle,
                (name, text) =>
                    name != $"tables/{table}.jsonl"
                        ? text
                        : string.Concat(
                            text.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                                .Select(l => change(JsonNode.Parse(l)!.AsObject()).ToJsonString() + "\n")
                        )
            )
        );

    [Fact]
    public async Task A_hash_in_a_bundle_that_is_a_path_reads_and_removes_no_file_outside_the_vault()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 2);
        var bundle = await WriteAsync(host, album.Id);
        var foreign = Path.Combine(host.DataFolder, "not yours");
        await File.WriteAllTextAsync(foreign, "a password", Cancel);
        foreach (
            var hash in new[]
            {
                Path.GetFullPath(foreign).PadLeft(64, '/')[^64..],
                "/etc/passwd".PadLeft(64, '/'),
                "../",
            }
        )
        {
            var restored = await AttackAsync(
                host,
                bundle,
                "Photos",
                row =>
                {
                    row["Sha256"] = hash;
                    return row;
                }
            );
            restored.Lines.ShouldContain(l => l.Contains("Photos", StringComparison.Ordinal));
            var back = restored.Albums.Single().Id;
            (await host.GetAsync<AlbumView>($"/api/albums/{back}")).Units.Sum(u => u.Photos).ShouldBe(0);
            using var again = ZipFile.OpenRead(await WriteAsync(host, back));
            again.Entries.ShouldNotContain(e => e.FullName.StartsWith("originals/", StringComparison.Ordinal));
        }

        (await File.ReadAllTextAsync(foreign, Cancel)).ShouldBe("a password");
    }

    [Fact]
    public async Task History_in_a_bundle_that_names_a_week_of_somebody_else_changes_nothing_there()
    {
        await using var host = await TestHost.StartAsync();
        var mine = await AlbumAsync(host, pictures: 2);
        var victim = (await RestoreAsync(host, await WriteAsync(host, mine.Id))).Albums.Single().Id;
        var theirs = await host.GetAsync<AlbumView>($"/api/albums/{victim}");
        var before = await RowsAsync(host, victim);
        var restored = await AttackAsync(
            host,
            await WriteAsync(host, mine.Id),
            "EditChange",
            row =>
            {
                (row["SubjectId"], row["Subject"]) = (theirs.Units[0].Id.ToString(), "Unit");
                return row;
            }
        );
        restored.Lines.ShouldContain(l => l.Contains("history of edits was left out", StringComparison.Ordinal));
        var back = await host.GetAsync<AlbumView>($"/api/albums/{restored.Albums.Single().Id}");
        foreach (var step in new[] { "undo", "redo" })
        {
            await host.RefusedAsync(
                422,
                HttpMethod.Post,
                $"/api/units/{back.Units[0].Id}/{step}",
                new { revision = (await host.OpenAsync(back.Units[0].Id)).Revision }
            );
        }

        ShouldBeAlike(await RowsAsync(host, victim), before);
    }

    /// <summary>Each was committed once and stopped the shelf, or every start.</summary>
    [Theory]
    [InlineData("Albums", "Words", "{\"version\":\"abc\"}")]
    [InlineData("Albums", "Calendar", "{\"version\":1e400}")]
    [InlineData("Albums", "School", "\"Nope\"")]
    [InlineData("Albums", "School", "\"17\"")]
    [InlineData("Albums", "BodyWidth", "-1")]
    [InlineData("Protectors", "DesignKey", "\"no such design\"")]
    [InlineData("Protectors", "Form", "{\"version\":\"abc\"}")]
    [InlineData("Units", "Content", "{\"version\":2,\"pieces\":[null]}")]
    [InlineData("Units", "Kind", "\"Nope\"")]
    [InlineData("Units", "FirstDay", "\"infinity\"")]
    [InlineData("Leaves", "Form", "[]")]
    [InlineData("Photos", "FocusX", "\"NaN\"")]
    [InlineData("Photos", "Width", "0")]
    [InlineData("Photos", "Palette", "{\"version\":\"abc\"}")]
    [InlineData("Stories", "Days", "[\"-infinity\"]")]
    [InlineData("Stories", "Hour", "99")]
    public async Task A_value_in_a_bundle_that_no_version_wrote_stops_nobody(string table, string column, string value)
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 2);
        await host.EditStoriesAsync(
            album.Id,
            new Core.Words.Edits.NewStory("Rain.", "Tea", [new NodaTime.LocalDate(2026, 5, 6)])
        );
        try
        {
            await AttackAsync(
                host,
                await WriteAsync(host, album.Id),
                table,
                row =>
                {
                    row[column] = JsonNode.Parse(value);
                    return row;
                }
            );
        }
        catch (RuleException refused)
        {
            refused.Message.ShouldContain("Nothing was restored");
        }

        await host.RestartAsync();
        foreach (var shown in await host.GetAsync<List<AlbumSummary>>("/api/albums"))
        {
            var view = await host.GetAsync<AlbumView>($"/api/albums/{shown.Id}");
            foreach (var unit in view.Units)
            {
                await host.OpenAsync(unit.Id);
            }
        }
    }

    [Fact]
    public async Task An_album_that_is_bound_in_goes_along_with_its_pages_and_what_others_said_keeps_their_name()
    {
        await using var host = await TestHost.StartAsync();
        var year = await AlbumAsync(host, pictures: 2);
        var trip = await host.MakeAlbumAsync("6x8-four-3x4");
        await host.EditAlbumAsync(
            year.Id,
            new Core.Keeping.Edits.InsertAlbum(trip.Id, year.Units[0].Id) { Revision = TestHost.Latest }
        );
        List<Guid> all;
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            var ben = new Keeper { Id = Guid.CreateVersion7(), Name = "Ben" };
            db.Keepers.Add(ben);
            db.Comments.Add(
                new Storage.Sharing.Comment
                {
                    Id = Guid.CreateVersion7(),
                    AlbumId = year.Id,
                    UnitId = year.Units[0].Id,
                    KeeperId = ben.Id,
                    Words = "The dog is missing.",
                    MadeAt = NodaTime.Instant.FromUtc(2026, 5, 6, 8, 0),
                }
            );
            await db.SaveChangesAsync(Cancel);
            all = await scope.ServiceProvider.GetRequiredService<BundleWriter>().WithInsertsAsync([year.Id], Cancel);
        }

        all.ShouldBe([year.Id, trip.Id]);
        var bundle = await WriteAsync(host, [.. all]);
        var names = new List<string>();
        for (var round = 0; round < 2; round++)
        {
            var restored = await RestoreAsync(host, bundle);
            restored.Lines.ShouldBeEmpty();
            names.AddRange(restored.Albums.Select(a => a.Name));
            var (back, bound) = (restored.Albums[0].Id, restored.Albums[1].Id);
            var inserts = await host.GetAsync<InsertsView>($"/api/albums/{back}/inserted-albums");
            inserts.Inserts.Single().AlbumId.ShouldBe(bound);
            await using var scope = host.Services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            var (pages, pieces) = await BundleWriter.CountsAsync(db, back, Cancel);
            (pages, pieces).ShouldBe(await BundleWriter.CountsAsync(db, year.Id, Cancel));
            var said = await db.Comments.SingleAsync(c => c.AlbumId == back, Cancel);
            (said.Words, said.KeeperId).ShouldBe(("Ben: The dog is missing.", Keeper.LocalId));
        }

        names.Distinct().Count().ShouldBe(4, "names tell them apart");
    }

    [Fact]
    public async Task Pages_that_a_bundle_lost_are_counted()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 2);
        var lost = await RewrittenAsync(
            await WriteAsync(host, album.Id),
            (name, text) =>
                name == "tables/Leaves.jsonl" ? text[(text.IndexOf('\n', StringComparison.Ordinal) + 1)..] : text
        );
        (await RestoreAsync(host, lost)).Lines.ShouldContain(l =>
            l.Contains("had 10 pages", StringComparison.Ordinal) && l.Contains("; 8 and", StringComparison.Ordinal)
        );
    }

    /// <summary>As a damaged disk, or a version from before restores were judged, has left it.</summary>
    [Theory]
    [InlineData("UPDATE \"Albums\" SET \"Words\" = '{\"version\":\"abc\"}' WHERE \"Id\" = ")]
    [InlineData("UPDATE \"Albums\" SET \"Calendar\" = '[]' WHERE \"Id\" = ")]
    [InlineData("UPDATE \"Albums\" SET \"School\" = 'Nope' WHERE \"Id\" = ")]
    [InlineData("UPDATE \"Albums\" SET \"Measures\" = '' WHERE \"Id\" = ")]
    [InlineData("UPDATE \"Protectors\" SET \"Form\" = '{\"version\":\"abc\"}' WHERE \"AlbumId\" = ")]
    [InlineData("UPDATE \"Photos\" SET \"Palette\" = '{\"version\":1e999}' WHERE \"AlbumId\" = ")]
    [InlineData("UPDATE \"Units\" SET \"Content\" = '{\"version\":\"abc\"}' WHERE \"AlbumId\" = ")]
    public async Task An_album_that_cannot_be_read_is_set_aside_and_everything_else_opens(string damage)
    {
        await using var host = await TestHost.StartAsync();
        var whole = await AlbumAsync(host, pictures: 1);
        var damaged = (await RestoreAsync(host, await WriteAsync(host, whole.Id))).Albums.Single().Id;
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            await db.Database.OpenConnectionAsync(Cancel);
            await using var spoil = ((NpgsqlConnection)db.Database.GetDbConnection()).CreateCommand();
            spoil.CommandText = $"{damage}@id";
            spoil.Parameters.AddWithValue("id", damaged);
            (await spoil.ExecuteNonQueryAsync(Cancel)).ShouldBeGreaterThan(0);
        }

        await host.RestartAsync();
        var shelf = await host.GetAsync<List<AlbumSummary>>("/api/albums");
        shelf.Select(a => a.Id).ShouldBe([whole.Id, damaged], ignoreOrder: true);
        shelf.Single(a => a.Id == whole.Id).Problem.ShouldBeNull();
        await host.OpenAsync((await host.GetAsync<AlbumView>($"/api/albums/{whole.Id}")).Units[0].Id);

        // What is there of it can be taken out as it is, and it can be put away.
        var path = Path.Combine(host.DataFolder, "as it is.zip");
        await using (var scope = host.Services.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<BundleWriter>()
                .WriteAsync(path, [damaged], (_, _) => { }, Cancel);
        }

        using (var zip = ZipFile.OpenRead(path))
        {
            zip.Entries.ShouldContain(e => e.FullName.StartsWith("originals/", StringComparison.Ordinal));
        }

        foreach (var step in new[] { "put-away", "bring-back", "put-away" })
        {
            (
                await host.Client.PostAsync(new Uri($"/api/albums/{damaged}/{step}", UriKind.Relative), null, Cancel)
            ).StatusCode.ShouldBe(System.Net.HttpStatusCode.NoContent);
        }

        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Single().Id.ShouldBe(whole.Id);
    }

    [Fact]
    public async Task An_original_that_no_row_names_is_not_kept_and_a_refused_bundle_leaves_none()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 2);
        var bundle = await WriteAsync(host, album.Id);
        await using var other = await TestHost.StartAsync();
        await AttackAsync(other, bundle, "Units", row => row);
        Originals().ShouldBe(2);
        var nothing = await RewrittenAsync(bundle, (name, text) => name == "tables/Photos.jsonl" ? "" : text);
        (await RestoreAsync(other, nothing)).Lines.ShouldContain(l => l.Contains("belongs to nothing"));
        Originals().ShouldBe(2);

        await using var third = await TestHost.StartAsync();
        await Should.ThrowAsync<RuleException>(() =>
            AttackAsync(
                third,
                bundle,
                "Albums",
                row =>
                {
                    row["Calendar"] = new JsonObject { ["version"] = "abc" };
                    return row;
                }
            )
        );
        Directory
            .GetFiles(Path.Combine(third.DataFolder, "vault"), "*", SearchOption.AllDirectories)
            .ShouldBeEmpty("nothing of a refused bundle stays");

        int Originals() =>
            Directory
                .GetFiles(Path.Combine(other.DataFolder, "vault"), "*", SearchOption.AllDirectories)
                .Count(f => Path.GetFileName(f).Length == 64);
    }

    [Fact]
    public async Task What_is_no_bundle_or_a_later_one_is_refused_and_nothing_is_restored()
    {
        await using var host = await TestHost.StartAsync();
        var path = Path.Combine(host.DataFolder, "other.zip");
        foreach (var bytes in new[] { [], "no zip"u8.ToArray(), Pictures.Jpeg(200, 100) })
        {
            await File.WriteAllBytesAsync(path, bytes, Cancel);
            (await Should.ThrowAsync<RuleException>(() => RestoreAsync(host, path))).Message.ShouldContain("no bundle");
        }

        var album = await AlbumAsync(host, pictures: 1);
        var later = await WriteAsync(host, album.Id);
        await using (var zip = await ZipFile.OpenAsync(later, ZipArchiveMode.Update, Cancel))
        {
            var about = zip.GetEntry("bundle.json")!;
            using var reader = new StreamReader(await about.OpenAsync(Cancel));
            var text = (await reader.ReadToEndAsync(Cancel)).Replace(
                "\"version\": 1",
                "\"version\": 2",
                StringComparison.Ordinal
            );
            reader.Close();
            about.Delete();
            await using var to = new StreamWriter(await zip.CreateEntry("bundle.json").OpenAsync(Cancel));
            await to.WriteAsync(text);
        }

        var albums = (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Count;
        // Rewritten it comes last in the file; its word counts all the same.
        (await Should.ThrowAsync<RuleException>(() => RestoreAsync(host, later))).Message.ShouldContain(
            "later version"
        );
        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Count.ShouldBe(albums);
    }

    [Fact]
    public async Task A_backup_is_one_job_for_a_key_can_be_taken_up_in_the_middle_and_is_restored_from_its_file()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await AlbumAsync(host);
        var six = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ => host.PostAsync<BackupView>("/api/backups", new BackupRequest("one", [album.Id])))
        );
        six.Select(b => b.Id).Distinct().ShouldHaveSingleItem();
        var done = await UntilAsync(
            () => host.GetAsync<BackupView>($"/api/backups/{six[0].Id}"),
            b => b.State is not (JobState.Waiting or JobState.Running)
        );
        (done.State, done.Problem, done.FilesDone).ShouldBe((JobState.Done, null, done.FilesTotal));
        var url = new Uri($"/api/backups/{done.Id}/file", UriKind.Relative);
        var bytes = await host.Client.GetByteArrayAsync(url, Cancel);
        bytes.Length.ShouldBe((int)done.Bytes);
        using var rest = new HttpRequestMessage(HttpMethod.Get, url);
        rest.Headers.Range = new(1000, null);
        var part = await host.Client.SendAsync(rest, Cancel);
        ((int)part.StatusCode).ShouldBe(206);
        (await part.Content.ReadAsByteArrayAsync(Cancel)).ShouldBe(bytes[1000..]);

        using var body = new ByteArrayContent(bytes);
        body.Headers.ContentType = new("application/octet-stream");
        var sent = await host.Client.PostAsync(
            new Uri("/api/restores?requestKey=back", UriKind.Relative),
            body,
            Cancel
        );
        sent.EnsureSuccessStatusCode();
        var asked = (await sent.Content.ReadFromJsonAsync<RestoreView>(TestHost.Json, Cancel))!;
        var restored = await UntilAsync(
            () => host.GetAsync<RestoreView>($"/api/restores/{asked.Id}"),
            r => r.State is not (JobState.Waiting or JobState.Running)
        );
        (restored.State, restored.Report.Count, restored.AlbumIds.Count).ShouldBe((JobState.Done, 0, 1));
        await host.RefusedAsync(404, HttpMethod.Post, "/api/backups", new BackupRequest("two", [Guid.NewGuid()]));
        (
            await host.Client.DeleteAsync(new Uri($"/api/backups/{done.Id}", UriKind.Relative), Cancel)
        ).EnsureSuccessStatusCode();
        ((int)(await host.Client.GetAsync(url, Cancel)).StatusCode).ShouldBe(404);
    }

    [Fact]
    public async Task A_bundle_is_restored_on_trial_and_leaves_nothing_behind()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host, pictures: 3);
        var rows = await RowsAsync(host, album.Id);
        var path = await WriteAsync(host, album.Id);
        (await TryAsync(path)).ShouldBeEmpty();
        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Count.ShouldBe(1);
        ShouldBeAlike(await RowsAsync(host, album.Id), rows);
        var bytes = await File.ReadAllBytesAsync(path, Cancel);
        await File.WriteAllBytesAsync(path, bytes[..(bytes.Length / 2)], Cancel);
        (await TryAsync(path)).ShouldNotBeEmpty();

        async Task<IReadOnlyList<string>> TryAsync(string bundle)
        {
            await using var scope = host.Services.CreateAsyncScope();
            return await scope
                .ServiceProvider.GetRequiredService<BundleRestorer>()
                .TryAsync(bundle, Keeper.LocalId, Cancel);
        }
    }

    [Fact]
    public async Task Everything_is_backed_up_by_itself_once_a_day_and_only_the_newest_are_kept()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        await AlbumAsync(host, pictures: 2);
        var url = "/api/backup-schedule";
        (await host.GetAsync<BackupScheduleView>(url)).EveryDays.ShouldBeNull();
        await host.RefusedAsync(422, HttpMethod.Put, url, new SetBackupSchedule(0, 5));
        (
            await host.Client.PutAsJsonAsync(url, new SetBackupSchedule(1, 2), TestHost.Json, Cancel)
        ).EnsureSuccessStatusCode();
        var first = await UntilAsync(
            () => host.GetAsync<List<BackupView>>("/api/backups"),
            list => list.Count == 1 && list[0].State == JobState.Done
        );
        first[0].Report.ShouldBeEmpty();
        // As if four days had gone by: each time one more is due, and two are kept.
        for (var day = 1; day <= 3; day++)
        {
            await using (var scope = host.Services.CreateAsyncScope())
            {
                var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
                foreach (var backup in await db.Backups.ToListAsync(Cancel))
                {
                    backup.MadeAt -= NodaTime.Duration.FromDays(1);
                    backup.RequestKey = $"{backup.Id} {day}";
                }

                await db.SaveChangesAsync(Cancel);
            }

            var most = Math.Min(2, day + 1);
            await UntilAsync(
                () => host.GetAsync<List<BackupView>>("/api/backups"),
                list =>
                    list.Count == most
                    && list.TrueForAll(b => b.State == JobState.Done)
                    && list[0].MadeAt - list[1].MadeAt > NodaTime.Duration.FromHours(20)
            );
            Directory.GetFiles(Path.Combine(host.DataFolder, "backups"), "*.zip").Length.ShouldBe(most);
        }

        (
            await host.Client.PutAsJsonAsync(url, new SetBackupSchedule(null, 5), TestHost.Json, Cancel)
        ).EnsureSuccessStatusCode();
    }

    private static async Task<T> UntilAsync<T>(Func<Task<T>> ask, Func<T, bool> enough)
    {
        while (true)
        {
            var now = await ask();
            if (enough(now))
            {
                return now;
            }

            await Task.Delay(50, Cancel);
        }
    }
}
