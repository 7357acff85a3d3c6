using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Tests.Fuzzing;

/// <summary>
/// Bundles that somebody rewrote: every column of every table, values within documents, references into another
/// keeper's album, hashes, versions, sizes, rows twice or gone, cut off. Nothing of the other keeper is read, written
/// or removed, no start fails, and no page stays 500.
/// </summary>
public sealed class BundleFuzzTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static readonly string[] Pages =
    [
        "",
        "/overview",
        "/calendar",
        "/cameras",
        "/findings",
        "/leaves",
        "/photos",
        "/stories",
        "/words",
        "/formulas",
        "/thickness",
        "/costs",
        "/pace",
        "/year",
        "/inserted-albums",
        "/keepsakes",
        "/pages",
        "/trip",
        "/comments",
        "/videos",
    ];

    private static readonly string[] UnitPages = ["", "/count", "/reasons", "/balance", "/spread.png", "/stash"];

    [Fact]
    public async Task Whatever_somebody_writes_into_a_bundle_harms_nobody_and_leaves_no_page_that_fails()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var bundle = await ReadAsync(await BundleTests.WriteAsync(host, album.Id));
        var victim = await VictimAsync(host, await BundleTests.WriteAsync(host, album.Id));
        var before = await StateAsync(host, victim);
        var dice = new Random(32);
        var (came, refused) = (0, 0);
        for (var i = 0; i < Thorough.Of(2_000, 40); i++)
        {
            var path = Path.Combine(host.DataFolder, $"fuzz{i}.zip");
            var said = await WriteAsync(path, bundle, dice, before.Keys);
            try
            {
                foreach (var back in (await BundleTests.RestoreAsync(host, path)).Albums)
                {
                    came++;
                    await OpenAllAsync(host, back.Id, $"{i}: {said}");
                    (
                        await host.Client.PostAsync(
                            new Uri($"/api/albums/{back.Id}/put-away", UriKind.Relative),
                            null,
                            Cancel
                        )
                    ).EnsureSuccessStatusCode();
                }
            }
            catch (RuleException nothing)
            {
                refused++;
                nothing.Message.ShouldContain("Nothing was restored", Case.Sensitive, $"{i}: {said}");
            }
            finally
            {
                File.Delete(path);
            }

            (await host.Client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).EnsureSuccessStatusCode();
        }

        (await StateAsync(host, victim)).Rows.ShouldBe(before.Rows);
        await host.RestartAsync();
        (await host.Client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).EnsureSuccessStatusCode();
        came.ShouldBeGreaterThan(0);
        refused.ShouldBeGreaterThan(0);
    }

    private static async Task<AlbumView> AlbumAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync("6x8-four-3x4", "6x8-6x4-two-3x4");
        for (var i = 0; i < 3; i++)
        {
            await host.AddAsync(album.Id, $"bild {i}.jpg", Pictures.Jpeg(300 + i, 220, $"2026:05:0{4 + i} 10:00:00"));
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        unit = await host.EditAsync(unit, new AddCard(CardKind.Journaling, "Rain all day.") { Revision = 0 });
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        await host.StepAsync(unit, "undo");
        await host.EditStoriesAsync(
            album.Id,
            new Core.Words.Edits.NewStory("It rained.", "Rain", [new NodaTime.LocalDate(2026, 5, 5)])
        );
        return await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
    }

    /// <summary>The same album, on the shelf of somebody else.</summary>
    private static async Task<Guid> VictimAsync(TestHost host, string bundle)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var other = new Keeper { Id = Guid.CreateVersion7(), Name = "Ben" };
        db.Keepers.Add(other);
        await db.SaveChangesAsync(Cancel);
        var restored = await scope
            .ServiceProvider.GetRequiredService<BundleRestorer>()
            .RestoreAsync(bundle, other.Id, _ => { }, null, Cancel);
        return restored.Albums.Single().Id;
    }

    /// <summary>Every row of an album, and the keys in them.</summary>
    private static async Task<(string Rows, List<string> Keys)> StateAsync(TestHost host, Guid album)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        await db.Database.OpenConnectionAsync(Cancel);
        var (rows, keys) = (new StringBuilder(), new List<string> { album.ToString() });
        foreach (var table in BundleFormat.Tables.Where(t => !t.OfKeeper))
        {
            await using var ask = ((NpgsqlConnection)db.Database.GetDbConnection()).CreateCommand();
            ask.CommandText =
                $"SELECT to_jsonb(t)::text, t.\"{table.Key}\" FROM \"{table.Name}\" t WHERE {table.Where} "
                + $"ORDER BY {table.OrderBy}";
            ask.Parameters.AddWithValue("albums", new[] { album });
            await using var reader = await ask.ExecuteReaderAsync(Cancel);
            while (await reader.ReadAsync(Cancel))
            {
                rows.AppendLine(reader.GetString(0));
                keys.Add(reader.GetGuid(1).ToString());
            }
        }

        return (rows.ToString(), keys);
    }

    private static async Task<List<(string Name, byte[] Content)>> ReadAsync(string path)
    {
        var files = new List<(string, byte[])>();
        await using var zip = await ZipFile.OpenReadAsync(path, Cancel);
        foreach (var entry in zip.Entries.Where(e => e.FullName != BundleFormat.Manifest))
        {
            using var content = new MemoryStream();
            await using var stream = await entry.OpenAsync(Cancel);
            await stream.CopyToAsync(content, Cancel);
            files.Add((entry.FullName, content.ToArray()));
        }

        return files;
    }

    /// <summary>Writes the bundle with one to three changes and a manifest that is right; says what changed.</summary>
    private static async Task<string> WriteAsync(
        string path,
        List<(string Name, byte[] Content)> bundle,
        Random dice,
        List<string> foreign
    )
    {
        var files = bundle.ToDictionary(f => f.Name, f => f.Content);
        var said = new List<string>();
        for (var changes = dice.Next(1, 4); changes > 0; changes--)
        {
            var tables = files.Keys.Where(n => n.EndsWith(".jsonl", StringComparison.Ordinal)).ToList();
            var name = tables[dice.Next(tables.Count)];
            var rows = Encoding.UTF8.GetString(files[name]).Split('\n', StringSplitOptions.RemoveEmptyEntries).ToList();
            if (rows.Count > 0)
            {
                said.Add($"{name} {Change(rows, dice, foreign)}");
                files[name] = Encoding.UTF8.GetBytes(string.Concat(rows.Select(r => r + "\n")));
            }
        }

        await using (var zip = await ZipFile.OpenAsync(path, ZipArchiveMode.Create, Cancel))
        {
            var manifest = new StringBuilder();
            foreach (var (name, _) in bundle)
            {
                await using var to = await zip.CreateEntry(name).OpenAsync(Cancel);
                await to.WriteAsync(files[name], Cancel);
                manifest.Append(
                    CultureInfo.InvariantCulture,
                    $"{Convert.ToHexStringLower(SHA256.HashData(files[name]))}  {name}\n"
                );
            }

            await using var last = await zip.CreateEntry(BundleFormat.Manifest).OpenAsync(Cancel);
            await last.WriteAsync(Encoding.UTF8.GetBytes(manifest.ToString()), Cancel);
        }

        if (dice.Next(12) == 0)
        {
            var length = new FileInfo(path).Length;
            await using var cut = File.OpenWrite(path);
            cut.SetLength(dice.NextInt64(length / 2, length));
            said.Add("cut off");
        }

        return string.Join("; ", said);
    }

    private static string Change(List<string> rows, Random dice, List<string> foreign)
    {
        var at = dice.Next(rows.Count);
        switch (dice.Next(12))
        {
            case 0:
                rows.RemoveAt(at);
                return "lost a row";
            case 1:
                rows.Add(rows[at]);
                return "has a row twice";
            case 2:
                rows[at] = rows[at][..dice.Next(rows[at].Length)];
                return "has half a row";
        }

        var row = JsonNode.Parse(rows[at])!.AsObject();
        var (holder, name) = Somewhere(row, dice);
        var value = Value(holder[name], dice, foreign);
        holder[name] = value;
        rows[at] = row.ToJsonString();
        return $"{name} = {value?.ToJsonString() ?? "null"}"[
            ..Math.Min(120, $"{name} = {value?.ToJsonString()}".Length)
        ];
    }

    /// <summary>A column, or a member of a document in one, as deep as it goes.</summary>
    private static (JsonObject Holder, string Name) Somewhere(JsonObject row, Random dice)
    {
        while (true)
        {
            var name = row.ElementAt(dice.Next(row.Count)).Key;
            var inner = row[name] switch
            {
                JsonObject { Count: > 0 } one => one,
                JsonArray { Count: > 0 } list => list[dice.Next(list.Count)] as JsonObject,
                _ => null,
            };
            if (inner is not { Count: > 0 } || dice.Next(4) == 0)
            {
                return (row, name);
            }

            row = inner;
        }
    }

    private static JsonNode? Value(JsonNode? now, Random dice, List<string> foreign) =>
        dice.Next(22) switch
        {
            0 => null,
            1 => -1,
            2 => int.MaxValue,
            3 => JsonNode.Parse("1e400"),
            4 => "NaN",
            5 => "infinity",
            6 => "",
            7 => "Nope",
            8 => "17",
            9 => foreign[dice.Next(foreign.Count)],
            10 => foreign[dice.Next(foreign.Count)].ToUpperInvariant(),
            11 => foreign[dice.Next(foreign.Count)].Replace("-", "", StringComparison.Ordinal),
            12 => new JsonArray(foreign[dice.Next(foreign.Count)]),
            13 => "/etc/passwd".PadLeft(64, '/'),
            14 => new string('a', 64),
            15 => new string('x', 100_000),
            16 => new JsonObject { ["version"] = "abc" },
            17 => new JsonObject { ["version"] = 99 },
            18 => new JsonArray((JsonNode?)null),
            19 => "0001-01-01",
            20 => true,
            _ => now is JsonValue number && number.TryGetValue<long>(out var n) ? n * 1_000_003 : "{}",
        };

    private static async Task OpenAllAsync(TestHost host, Guid album, string said)
    {
        var view = await host.GetAsync<AlbumView>($"/api/albums/{album}");
        var addresses = Pages
            .Select(p => $"/api/albums/{album}{p}")
            .Concat(view.Units.Take(2).SelectMany(u => UnitPages.Select(p => $"/api/units/{u.Id}{p}")))
            .ToList();
        foreach (var address in addresses)
        {
            using var answer = await host.Client.GetAsync(new Uri(address, UriKind.Relative), Cancel);
            ((int)answer.StatusCode).ShouldBeLessThan(500, $"{address} after {said}");
        }

        foreach (var unit in view.Units.Take(2))
        {
            foreach (var step in new[] { "redo", "undo" })
            {
                using var answer = await host.Client.PostAsync(
                    new Uri($"/api/units/{unit.Id}/{step}", UriKind.Relative),
                    TestHost.Written(new RevisionRequest((await host.OpenAsync(unit.Id)).Revision)),
                    Cancel
                );
                ((int)answer.StatusCode).ShouldBeLessThan(500, $"{step} after {said}");
            }
        }
    }
}
