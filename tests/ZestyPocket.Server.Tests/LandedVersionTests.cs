using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NetVips;
using Npgsql;
using ZestyPocket.Server.Demo;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Albums made by every landed version of the program open with nothing changed. The databases were made by running
/// those versions (tests/Landed).
/// </summary>
public sealed class LandedVersionTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Landed");

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public static TheoryData<string> Dumps =>
        [.. Directory.GetFiles(Folder, "*.sql.gz").Select(f => Path.GetFileName(f)!).Order(StringComparer.Ordinal)];

    [Theory]
    [MemberData(nameof(Dumps))]
    public async Task Every_unit_opens_with_its_pieces_and_framings_and_its_last_edit_can_be_undone(string dump)
    {
        var connection = await TestDatabase.RestoreAsync(Path.Combine(Folder, dump));
        var before = await ContentsAsync(connection);
        await using var host = TestHost.On(connection);
        (await ContentsAsync(connection)).Values.ShouldAllBe(c => c["version"]!.GetValue<int>() == 2);
        var (framed, placed, undone) = (0, 0, false);
        foreach (var summary in await host.GetAsync<List<AlbumSummary>>("/api/albums"))
        {
            var album = await host.GetAsync<AlbumView>($"/api/albums/{summary.Id}");
            album.Units.ShouldNotBeEmpty();
            foreach (var unitId in album.Units.Select(u => u.Id))
            {
                var unit = await host.OpenAsync(unitId);
                var pieces = unit.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece).OfType<PieceView>().ToList();
                var old = before[unitId];
                pieces.Count.ShouldBe(old["placements"]!.AsArray().Count, unit.Title);
                placed += pieces.Count;
                foreach (var (print, framing) in Framings(old))
                {
                    if (pieces.Find(p => p.Id == print) is { Framing: { } now })
                    {
                        (now.CenterX, now.CenterY, now.Zoom).ShouldBe(framing, unit.Title);
                        framed++;
                    }
                }

                unit.LooseCards.Count.ShouldBe(InTheTray(old), unit.Title);
                if (!undone && unit.Undo is not null && pieces.Count > 0)
                {
                    await host.StepAsync(await host.StepAsync(unit, "undo"), "redo");
                    JsonNode
                        .DeepEquals(Plain((await ContentsAsync(connection))[unitId]), Plain(old))
                        .ShouldBeTrue(unit.Title);
                    undone = true;
                }
            }
        }

        (undone, framed > 20, placed > 40).ShouldBe(
            (true, true, true),
            $"{framed} of {placed} pieces are framed prints"
        );
    }

    [Fact]
    public async Task What_the_version_before_has_printed_is_known_and_not_due_again()
    {
        var connection = await TestDatabase.RestoreAsync(Path.Combine(Folder, "6.sql.gz"));
        var job = Guid.CreateVersion7();
        await using (var open = new NpgsqlConnection(connection))
        {
            await open.OpenAsync(Cancel);
            await using var print = new NpgsqlCommand(
                """
                INSERT INTO "PrintJobs" ("Id", "AlbumId", "KeeperId", "RequestKey", "UnitIds", "PaperKey", "MarginEmu",
                    "GapEmu", "State", "CancelAsked", "PagesDone", "PagesTotal", "MadeAt")
                SELECT $1, "AlbumId", '00000000-0000-7000-8000-000000000001', 'before', ARRAY["Id"], 'letter',
                    228600, 0, 'Done', false, 3, 3, now()
                FROM "Units" WHERE jsonb_array_length("Content"->'placements') > 5 LIMIT 1;
                """,
                open
            )
            {
                Parameters = { new() { Value = job } },
            };
            (await print.ExecuteNonQueryAsync(Cancel)).ShouldBe(1);
            await using var pieces = new NpgsqlCommand(
                """
                INSERT INTO "PrintedPieces" ("PieceId", "AlbumId", "UnitId", "JobId", "Number", "CutWidth", "CutHeight",
                    "PrintedAt")
                SELECT DISTINCT (p->>'id')::uuid, u."AlbumId", u."Id", j."Id", 'W1 L1', 1, 1, now()
                FROM "PrintJobs" j JOIN "Units" u ON u."Id" = j."UnitIds"[1],
                    jsonb_array_elements(u."Content"->'pieces') p;
                """,
                open
            );
            (await pieces.ExecuteNonQueryAsync(Cancel)).ShouldBeGreaterThan(5);
        }

        await using var host = TestHost.On(connection);
        var state = (await host.GetAsync<JsonNode>($"/api/print-jobs/{job}"))["state"]!.GetValue<string>();
        state.ShouldBe("done");
        await using var scope = host.Services.CreateAsyncScope();
        var kept = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .PrintJobs.SingleAsync(j => j.Id == job, Cancel);
        (kept.Choice, kept.PieceIds.Count).ShouldBe((Core.Printing.PrintChoice.All, 0));
        var plan = await host.PostAsync<Printing.PrintPlanView>(
            "/api/print-plans",
            new Printing.PrintRequest("p", kept.UnitIds, "letter", "1/4 in", "0", false, Core.Printing.PrintChoice.Due)
        );
        (plan.Pieces, plan.Standing.Count > 5).ShouldBe((0, true));
    }

    /// <summary>As the version before painted it: 20 spreads of the demo, pixel by pixel.</summary>
    [Fact]
    [Trait("Duration", "Long")]
    public async Task The_demo_of_the_version_before_looks_as_it_did_pixel_by_pixel()
    {
        var connection = await TestDatabase.RestoreAsync(Path.Combine(Folder, "6.sql.gz"));
        await using var host = TestHost.On(connection);
        var all = Directory.GetFiles(Path.Combine(Folder, "spreads"), "*.png").Order(StringComparer.Ordinal).ToList();
        all.Count.ShouldBe(20);
        // Painting the originals again is most of the work: a fifth of the spreads, of every demo album some.
        List<string> expected = [.. all.Where((_, i) => i % Thorough.Of(1, 5) == 0)];
        var contents = await ContentsAsync(connection);
        await PaintOriginalsAsync(
            host,
            string.Concat(
                expected.Select(f => contents[Guid.Parse(Path.GetFileNameWithoutExtension(f))].ToJsonString())
            )
        );
        foreach (var file in expected)
        {
            var unit = Path.GetFileNameWithoutExtension(file);
            var png = await host.Client.GetByteArrayAsync(
                new Uri($"/api/units/{unit}/spread.png", UriKind.Relative),
                Cancel
            );
            using var painted = Image.NewFromBuffer(png);
            using var small = painted.Flatten(background: [255.0]).Shrink(8, 8).Cast(Enums.BandFormat.Uchar);
            using var was = Image.NewFromFile(file);
            (small.Width, small.Height).ShouldBe((was.Width, was.Height), unit);
            // Processors may round the last bit of a colour differently.
            using var difference = (small - was).Abs();
            difference.Max().ShouldBeLessThanOrEqualTo(2, unit);
        }
    }

    /// <summary>The same snapshots give the same files, so that the vault of that version can be made again.</summary>
    /// <param name="shown">What the units hold: only the pictures that are named there are painted.</param>
    private static async Task PaintOriginalsAsync(TestHost host, string shown)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var all = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .Photos.Select(p => new
            {
                p.Id,
                p.Sha256,
                p.FileName,
            })
            .ToListAsync(Cancel);
        var wanted = all.FindAll(p => shown.Contains(p.Id.ToString(), StringComparison.Ordinal));
        var names = wanted.Select(p => p.FileName).ToHashSet();
        var missing = new ConcurrentDictionary<string, bool>(
            wanted.Select(p => p.Sha256).Distinct().Select(sha => KeyValuePair.Create(sha.ToString(), true))
        );
        var vault = scope.ServiceProvider.GetRequiredService<IPhotoVault>();
        await Parallel.ForEachAsync(
            LandedShots.All().Where(s => names.Contains(s.FileName)),
            new ParallelOptions { MaxDegreeOfParallelism = 2, CancellationToken = Cancel },
            async (shot, cancel) =>
            {
                var bytes = DemoPictures.Jpeg(shot);
                if (missing.TryRemove(Convert.ToHexStringLower(SHA256.HashData(bytes)), out _))
                {
                    using var stream = new MemoryStream(bytes);
                    using var arrived = await vault.ReceiveAsync(stream, bytes.Length, cancel);
                    arrived.Keep();
                }
            }
        );
        missing.Keys.ShouldBeEmpty(
            "the demo paints other pictures now: make a new dump and spreads of the version before"
        );
    }

    private static async Task<Dictionary<Guid, JsonNode>> ContentsAsync(string connection)
    {
        await using var open = new NpgsqlConnection(connection);
        await open.OpenAsync(Cancel);
        await using var command = new NpgsqlCommand("""SELECT "Id", "Content" FROM "Units" """, open);
        await using var reader = await command.ExecuteReaderAsync(Cancel);
        var contents = new Dictionary<Guid, JsonNode>();
        while (await reader.ReadAsync(Cancel))
        {
            contents[reader.GetGuid(0)] = JsonNode.Parse(reader.GetString(1))!;
        }

        return contents;
    }

    private static IEnumerable<(Guid Print, (double, double, double) Framing)> Framings(JsonNode content) =>
        content["pieces"]!
            .AsArray()
            .Where(p => p!["piece"]!.GetValue<string>() == "photoPrint")
            .Select(p =>
                (
                    p!["id"]!.GetValue<Guid>(),
                    (
                        p["framing"]!["centerX"]!.GetValue<double>(),
                        p["framing"]!["centerY"]!.GetValue<double>(),
                        p["framing"]!["zoom"]!.GetValue<double>()
                    )
                )
            );

    private static int InTheTray(JsonNode content)
    {
        var lying = content["placements"]!.AsArray().Select(p => p!["pieceId"]!.GetValue<Guid>()).ToHashSet();
        return content["pieces"]!
            .AsArray()
            .Count(p =>
                p!["piece"]!.GetValue<string>() != "photoPrint"
                && !lying.Contains(p["id"]!.GetValue<Guid>())
                && p["inEnvelope"]?.GetValue<bool>() != true
            );
    }

    /// <summary>A content of whatever version as this one writes it.</summary>
    private static JsonNode Plain(JsonNode content) =>
        JsonNode.Parse(StoredDocuments.Content.Write(StoredDocuments.Content.Read(content.ToJsonString())))!;
}
