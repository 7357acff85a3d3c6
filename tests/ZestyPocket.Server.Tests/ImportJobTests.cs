using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>Imports as jobs: zips, the phone, hostile files, cancelling, and going on after a restart.</summary>
public sealed class ImportJobTests
{
    private static readonly int Many = Thorough.Of(1_000, 120);

    [Fact]
    public async Task Every_file_of_an_import_ends_with_one_line_and_the_lines_can_be_saved()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        await SendAsync(host, batch, "0", "good.jpg", Pictures.Jpeg(shade: 1));
        await SendAsync(host, batch, "1", "again.jpg", Pictures.Jpeg(shade: 1));
        await SendAsync(
            host,
            batch,
            "2",
            "film.mp4",
            [0, 0, 0, 24, .. "ftypisom"u8, 0, 0, 2, 0, .. "isomiso2"u8, .. new byte[100]]
        );
        await SendAsync(host, batch, "3", "=cmd|' /C calc'!A0.jpg", [.. "no picture"u8]);
        // Sent again after a lost answer, under the same key: the same file.
        await SendAsync(host, batch, "0", "good.jpg", Pictures.Jpeg(shade: 1));
        var done = await DoneAsync(host, batch);
        (done.Files, done.Added, done.AlreadyHere, done.Refused).ShouldBe((4, 1, 1, 2));
        done.RefusedLines.Select(l => l.FileName).ShouldBe(["film.mp4", "C calc'!A0.jpg"], ignoreOrder: true);
        done.RefusedLines.Single(l => l.FileName == "film.mp4").Detail.ShouldContain("The video is damaged");

        var csv = await host.Client.GetStringAsync(
            $"/api/imports/{batch}/outcomes.csv",
            TestContext.Current.CancellationToken
        );
        csv.TrimStart('\uFEFF').Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(5, csv);
        csv.ShouldContain("already here");
        Directory.GetFiles(Path.Combine(host.DataFolder, "vault", "parked")).ShouldBeEmpty();
        Directory.GetFiles(Path.Combine(host.DataFolder, "vault", "arriving")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_zip_is_opened_and_its_climbing_names_are_only_names()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var zip = Zip(
            ("trip/one.jpg", Pictures.Jpeg(shade: 1)),
            ("../../../../etc/two.jpg", Pictures.Jpeg(shade: 2)),
            ("C:\\windows\\three.jpg", Pictures.Jpeg(shade: 3)),
            ("__MACOSX/trip/._one.jpg", [1, 2, 3]),
            ("trip/.DS_Store", [1]),
            ("trip/readme.txt", [.. "Hello"u8]),
            ("inner.zip", Zip(("x.jpg", Pictures.Jpeg(shade: 4))))
        );
        var batch = await BeginAsync(host, album);
        await SendAsync(host, batch, "0", "trip.zip", zip);
        var done = await DoneAsync(host, batch);
        (done.Files, done.Added, done.Refused).ShouldBe((5, 3, 2));
        (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos"))
            .Photos.Select(p => p.FileName)
            .Order()
            .ShouldBe(["one.jpg", "three.jpg", "two.jpg"]);
        done.RefusedLines.Single(l => l.FileName == "inner.zip").Detail.ShouldContain("zip inside a zip");
        var outside = Directory.GetFiles(host.DataFolder, "*.jpg", SearchOption.AllDirectories);
        outside.ShouldAllBe(
            f => f.Contains("cache", StringComparison.Ordinal),
            "nothing is written where a zip points"
        );
    }

    [Fact]
    public async Task Zip_bombs_are_bounded_in_files_in_bytes_and_in_their_directory()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        // A file of 300 MB of nothing that packs into 300 kB.
        await SendAsync(
            host,
            batch,
            "0",
            "large.zip",
            Zip(("zeros.jpg", new byte[300 << 20]), ("fine.jpg", Pictures.Jpeg(shade: 9)))
        );
        // Six thousand files.
        await SendAsync(
            host,
            batch,
            "1",
            "many.zip",
            Zip([.. Enumerable.Range(0, 6_000).Select(i => ($"{i}.jpg", new byte[] { 1 }))])
        );
        // An end record that lies about a small directory.
        var lying = Zip([.. Enumerable.Range(0, 40).Select(i => ($"{i}.jpg", new byte[] { 1 }))]);
        lying[^12] = 2;
        lying[^14] = 2;
        await SendAsync(host, batch, "2", "lying.zip", lying);
        await SendAsync(host, batch, "3", "half.zip", Zip(("a.jpg", Pictures.Jpeg(shade: 8)))[..200]);
        var before = Environment.WorkingSet;
        var done = await DoneAsync(host, batch);
        done.Added.ShouldBe(1, "the sound file beside the bomb");
        var reasons = done.RefusedLines.ToDictionary(l => l.FileName, l => l.Detail);
        reasons["zeros.jpg"].ShouldContain("at most");
        reasons["many.zip"].ShouldContain("more than 5,000 files");
        reasons["half.zip"].ShouldContain("damaged");
        ((Environment.WorkingSet - before) >> 20).ShouldBeLessThan(400);
        Directory.GetFiles(Path.Combine(host.DataFolder, "vault", "arriving")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Names_of_every_script_and_of_255_bytes_come_through()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        string[] names =
        [
            "夏の日.jpg",
            "لقطة.jpg",
            "Łódź ñandú.jpg",
            "снимок.jpg",
            "family 👩‍👩‍👧.jpg",
            "a\u0301.jpg",
            "‮gpj.exe.jpg",
            new string('é', 127) + "1",
        ];
        Encoding.UTF8.GetByteCount(names[^1]).ShouldBe(255);
        var batch = await BeginAsync(host, album);
        for (var i = 0; i < names.Length; i++)
        {
            await SendAsync(host, batch, $"{i}", names[i], Pictures.Jpeg(shade: 10 + i));
        }

        (await DoneAsync(host, batch)).Added.ShouldBe(names.Length);
        (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos"))
            .Photos.Select(p => p.FileName)
            // Accents are one character with their letter, and a sign that turns the direction is shown.
            .ShouldBe(names.Select(n => n.Normalize().Replace('\u202E', '␣')), ignoreOrder: true);
    }

    [Fact]
    public async Task What_waits_on_the_phone_is_fetched_and_leaves_the_phone_only_when_it_is_safe()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var outbox = Directory.CreateDirectory(Path.Combine(host.DataFolder, "outbox")).FullName;
        for (var i = 0; i < 3; i++)
        {
            var path = Path.Combine(outbox, $"snap{i}.jpg");
            await File.WriteAllBytesAsync(path, Pictures.Jpeg(shade: 40 + i), TestContext.Current.CancellationToken);
            File.SetLastWriteTimeUtc(path, DateTime.UtcNow.AddMinutes(-1));
        }

        // One that is still being written is left alone.
        await File.WriteAllBytesAsync(
            Path.Combine(outbox, "growing.jpg"),
            [1, 2],
            TestContext.Current.CancellationToken
        );
        (await host.GetAsync<OutboxView>("/api/outbox")).Files.ShouldBe(3);
        var view = await host.PostAsync<ImportView>($"/api/albums/{album.Id}/imports/outbox", new { });
        view.Source.ShouldBe(ImportSource.Outbox);
        (await DoneAsync(host, view.Id)).Added.ShouldBe(3);
        Directory.GetFiles(outbox).Select(Path.GetFileName).ShouldBe(["growing.jpg"]);
    }

    [Fact]
    public async Task A_burst_is_grouped_when_the_import_ends_and_the_sharpest_suggested()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        foreach (var (blur, i) in new[] { 4.0, 0, 2.0 }.Select((b, i) => (b, i)))
        {
            var shot = new Demo.DemoShot(
                $"burst{i}.jpg",
                Demo.Scene.Kite,
                5,
                1600,
                1200,
                new NodaTime.LocalDateTime(2026, 5, 5, 12, 0, i),
                "Kestrel P4",
                60,
                51,
                -2,
                blur
            );
            await SendAsync(host, batch, $"{i}", shot.FileName, Demo.DemoPictures.Jpeg(shot));
        }

        await SendAsync(host, batch, "9", "other.jpg", Pictures.Jpeg(shade: 77));
        await DoneAsync(host, batch);
        var alike = (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?lookalikes=true")).Photos;
        alike.Select(p => p.FileName).ShouldBe(["burst0.jpg", "burst1.jpg", "burst2.jpg"]);
        alike.Single(p => p.SuggestedBest).FileName.ShouldBe("burst1.jpg");
        (await host.GetAsync<PhotoDetail>($"/api/photos/{alike[0].Id}")).Lookalikes.Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_stopped_import_keeps_what_it_has_and_names_what_it_did_not_look_at()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        await SendAsync(
            host,
            batch,
            "0",
            "all.zip",
            Zip([.. Enumerable.Range(0, 120).Select(i => ($"{i}.jpg", Pictures.Jpeg(1600, 1200, shade: i)))])
        );
        await UntilAsync(async () => (await host.GetAsync<ImportView>($"/api/imports/{batch}")).Added >= 3);
        await host.PostAsync<ImportView>($"/api/imports/{batch}/cancel", new { });
        var ended = await UntilAsync(async () =>
            await host.GetAsync<ImportView>($"/api/imports/{batch}") is { State: ImportState.Cancelled } view
                ? view
                : null
        );
        ended.Cancelled.ShouldBeGreaterThan(0);
        (ended.Added + ended.Cancelled).ShouldBe(120);
        (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?take=500")).Photos.Count.ShouldBe(ended.Added);
        using var late = new ByteArrayContent([1]);
        late.Headers.ContentType = new("application/octet-stream");
        var refused = await host.Client.PostAsync(
            $"/api/imports/{batch}/files?name=late.jpg&key=9",
            late,
            TestContext.Current.CancellationToken
        );
        ((int)refused.StatusCode).ShouldBe(422);
        (await refused.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain(
            "closed or stopped"
        );
    }

    [Fact]
    public async Task A_server_that_stops_in_the_middle_goes_on_after_its_restart()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        for (var i = 0; i < 40; i++)
        {
            await SendAsync(host, batch, $"{i}", $"{i}.jpg", Pictures.Jpeg(1200, 900, shade: i));
        }

        await host.PostAsync<ImportView>($"/api/imports/{batch}/close", new { });
        await host.RestartAsync();
        var done = await UntilAsync(async () =>
            await host.GetAsync<ImportView>($"/api/imports/{batch}") is { State: ImportState.Done } view ? view : null
        );
        (done.Files, done.Added).ShouldBe((40, 40));
    }

    [Trait("Duration", "Long")]
    [Fact]
    public async Task A_folder_of_many_files_goes_through()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        // Small pictures: what is tested is the many, not the large.
        await Parallel.ForEachAsync(
            Enumerable.Range(0, Many),
            new ParallelOptions { MaxDegreeOfParallelism = 4 },
            async (i, _) =>
                await SendAsync(
                    host,
                    batch,
                    $"{i}",
                    $"{i:0000}.jpg",
                    Pictures.Jpeg(40 + (i % 50), 30 + (i / 50), shade: i % 200)
                )
        );
        var done = await DoneAsync(host, batch);
        (done.Files, done.Added + done.AlreadyHere, done.Refused).ShouldBe((Many, Many, 0));
        done.Added.ShouldBe(Many);
    }

    [Fact]
    public async Task Pictures_without_a_date_get_the_day_their_folders_are_named_for_also_in_a_zip()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var batch = await BeginAsync(host, album);
        await SendAsync(host, batch, "1", "Pictures/2026/05/06/a.jpg", Pictures.Jpeg(410, 300, taken: null));
        await SendAsync(host, batch, "2", "Pictures/loose/b.jpg", Pictures.Jpeg(420, 300, taken: null));
        // What the picture itself says counts more.
        await SendAsync(host, batch, "3", "2026-05-07/c.jpg", Pictures.Jpeg(430, 300, "2026:05:05 12:00:00"));
        await SendAsync(
            host,
            batch,
            "4",
            "all.zip",
            Zip(("2026-05-08 Mill/d.jpg", Pictures.Jpeg(440, 300, taken: null)), ("half.jpg", [0xff, 0xd8]))
        );
        var done = await DoneAsync(host, batch);
        (done.Added, done.Refused).ShouldBe((4, 1));
        var all = await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos");
        all.Photos.ToDictionary(p => p.FileName, p => p.Day?.Day)
            .ShouldBe(
                new Dictionary<string, int?>
                {
                    ["c.jpg"] = 5,
                    ["a.jpg"] = 6,
                    ["d.jpg"] = 8,
                    ["b.jpg"] = null,
                },
                true
            );
    }

    internal static async Task<Guid> BeginAsync(TestHost host, AlbumView album) =>
        (await host.PostAsync<ImportView>($"/api/albums/{album.Id}/imports", new { })).Id;

    internal static async Task SendAsync(TestHost host, Guid batch, string key, string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        var response = await host.Client.PostAsync(
            $"/api/imports/{batch}/files?key={key}&name={Uri.EscapeDataString(name)}&modified=2026-05-01T10:00:00",
            content
        );
        response.IsSuccessStatusCode.ShouldBeTrue(await response.Content.ReadAsStringAsync());
        (await response.Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("fileName")
            .GetString()
            .ShouldNotBeNullOrEmpty();
    }

    internal static async Task<ImportView> DoneAsync(TestHost host, Guid batch)
    {
        await host.PostAsync<ImportView>($"/api/imports/{batch}/close", new { });
        return await UntilAsync(async () =>
            await host.GetAsync<ImportView>($"/api/imports/{batch}") is { State: ImportState.Done } view ? view : null
        );
    }

    /// <summary>Asks until there is an answer; a minute is far more than any of these takes.</summary>
    private static async Task<T> UntilAsync<T>(Func<Task<T?>> ask)
        where T : class
    {
        for (var tries = 0; tries < 6_000; tries++)
        {
            if (await ask() is { } answer)
            {
                return answer;
            }

            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        throw new ShouldAssertException("What was waited for did not happen.");
    }

    private static Task<string> UntilAsync(Func<Task<bool>> ask) => UntilAsync(async () => await ask() ? "yes" : null);

    private static byte[] Zip(params (string Name, byte[] Bytes)[] files)
    {
        using var memory = new MemoryStream();
        using (var zip = new ZipArchive(memory, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, bytes) in files)
            {
                using var entry = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                entry.Write(bytes);
            }
        }

        return memory.ToArray();
    }
}
