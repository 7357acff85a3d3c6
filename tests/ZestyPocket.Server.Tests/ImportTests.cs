using System.Diagnostics;
using System.IO.Compression;
using NodaTime;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

public sealed class ImportTests
{
    [Fact]
    public async Task The_cameras_own_time_decides_the_week_and_the_day()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();

        var noon = await host.AddAsync(album.Id, "noon.jpg", Pictures.Jpeg(taken: "2026:05:05 12:00:00"));
        noon.UnitId.ShouldBe(album.Units[0].Id);
        noon.Detail.ShouldBe("Tue 5 May, Week 19");

        var late = await host.AddAsync(album.Id, "late.jpg", Pictures.Jpeg(taken: "2026:05:11 00:40:00", shade: 91));
        late.UnitId.ShouldBe(album.Units[0].Id, "00:40 on Monday belongs to the Sunday before");

        var week = await host.OpenAsync(album.Units[0].Id);
        week.Photos.Select(p => p.Day).ShouldBe([new LocalDate(2026, 5, 5), new LocalDate(2026, 5, 10)]);
        week.Photos[0].Camera.ShouldBe("Testmaker T1");
    }

    [Fact]
    public async Task The_same_file_twice_is_one_photo()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var bytes = Pictures.Jpeg();
        var first = await host.AddAsync(album.Id, "a.jpg", bytes);
        var second = await host.AddAsync(album.Id, "copy of a.jpg", bytes);
        (second.Status, second.PhotoId).ShouldBe((ImportStatus.AlreadyHere, first.PhotoId));
        second.Detail.ShouldContain("a.jpg");
        (await host.OpenAsync(album.Units[0].Id)).Photos.Count.ShouldBe(1);
    }

    [Fact]
    public async Task The_same_file_sent_by_two_windows_at_once_is_one_photo()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var bytes = Pictures.Jpeg();
        var outcomes = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(i => host.AddAsync(album.Id, $"{i}.jpg", bytes))
        );
        outcomes.Count(o => o.Status == ImportStatus.Added).ShouldBe(1);
        outcomes.Select(o => o.PhotoId).Distinct().Count().ShouldBe(1);
    }

    [Fact]
    public async Task A_turned_photo_counts_as_it_is_looked_at()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "turned.jpg", Pictures.Jpeg(600, 400, orientation: 6));
        var photo = (await host.OpenAsync(album.Units[0].Id)).Photos.Single();
        (photo.Width, photo.Height).ShouldBe((400, 600));
    }

    public static TheoryData<string, string> BadFiles =>
        new()
        {
            { "empty", "empty" },
            { "truncated", "breaks off" },
            { "text", "whatever its name says" },
            { "script in svg", "whatever its name says" },
            { "half a header", "header" },
            { "huge png", "million" },
            { "tiny", "too small" },
        };

    [Theory]
    [MemberData(nameof(BadFiles))]
    public async Task A_bad_file_is_refused_with_its_reason_and_leaves_nothing_behind(string kind, string reason)
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var outcome = await host.AddAsync(album.Id, "bad.jpg", Bad(kind));
        outcome.Status.ShouldBe(ImportStatus.Refused);
        outcome.Detail.ShouldContain(reason);
        Directory.GetFiles(Path.Combine(host.DataFolder, "vault"), "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("0000:00:00 00:00:00")]
    [InlineData("2026:13:45 99:00:00")]
    [InlineData("yesterday")]
    [InlineData(null)]
    public async Task A_photo_without_a_usable_time_waits_and_lands_on_no_wrong_day(string? taken)
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var outcome = await host.AddAsync(album.Id, "undated.jpg", Pictures.Jpeg(taken: taken));
        (outcome.Status, outcome.UnitId).ShouldBe((ImportStatus.Added, null));
        var waiting = await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?scope=noDate");
        waiting.Photos.Single().Day.ShouldBeNull();
    }

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Two_hundred_files_with_three_bad_ones_all_have_an_outcome_and_memory_stays_bounded()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var files = Enumerable
            .Range(0, 200)
            .Select(i =>
                i switch
                {
                    17 => Bad("truncated"),
                    90 => Bad("huge png"),
                    150 => Bad("text"),
                    _ => Pictures.Jpeg(
                        1200,
                        900,
                        $"2026:05:{4 + (i % 7):00} 10:{i % 60:00}:{i / 60:00}",
                        shade: i % 200
                    ),
                }
            )
            .ToList();

        var before = Environment.WorkingSet;
        var peak = before;
        var outcomes = new ImportOutcome[files.Count];
        await Parallel.ForEachAsync(
            Enumerable.Range(0, files.Count),
            new ParallelOptions { MaxDegreeOfParallelism = 8 },
            async (i, _) =>
            {
                outcomes[i] = await host.AddAsync(album.Id, $"{i}.jpg", files[i]);
                var now = Environment.WorkingSet;
                InterlockedMax(ref peak, now);
            }
        );

        outcomes.Count(o => o.Status == ImportStatus.Added).ShouldBe(197);
        outcomes
            .Where(o => o.Status == ImportStatus.Refused)
            .Select(o => o.FileName)
            .Order()
            .ShouldBe(["150.jpg", "17.jpg", "90.jpg"]);
        (await host.OpenAsync(album.Units[0].Id)).Photos.Count.ShouldBe(197);
        ((peak - before) / 1048576).ShouldBeLessThan(500);

        static void InterlockedMax(ref long target, long value)
        {
            long seen;
            while (
                value > (seen = Interlocked.Read(ref target))
                && Interlocked.CompareExchange(ref target, value, seen) != seen
            ) { }
        }
    }

    [Fact]
    public async Task A_folder_path_or_a_strange_name_is_only_a_name()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        (await host.AddAsync(album.Id, "../../etc/夏 \u0007passwd.jpg", Pictures.Jpeg(shade: 1))).FileName.ShouldBe(
            "夏 passwd.jpg"
        );
        (await host.AddAsync(album.Id, "..\\..\\", Pictures.Jpeg(shade: 2))).FileName.ShouldBe("unnamed");
        (await host.AddAsync(album.Id, new string('x', 400), Pictures.Jpeg(shade: 3))).FileName.Length.ShouldBe(255);
    }

    [Fact]
    public async Task A_served_picture_carries_no_metadata()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var outcome = await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg());
        var picture = await host.Client.GetByteArrayAsync(
            $"/api/photos/{outcome.PhotoId}/picture?side=512",
            TestContext.Current.CancellationToken
        );
        System.Text.Encoding.Latin1.GetString(picture).ShouldNotContain("Testmaker");
    }

    /// <summary>
    /// A PNG that is small as a file and 50,000 pixels each way: its header is true, its rows are all zero.
    /// </summary>
    private static byte[] HugePng()
    {
        using var file = new MemoryStream();
        file.Write([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]);
        Chunk("IHDR", [0, 0, 0xC3, 0x50, 0, 0, 0xC3, 0x50, 1, 0, 0, 0, 0]);
        using var rows = new MemoryStream();
        using (var zlib = new ZLibStream(rows, CompressionLevel.Fastest, leaveOpen: true))
        {
            var row = new byte[6251];
            for (var i = 0; i < 50_000; i++)
            {
                zlib.Write(row);
            }
        }

        Chunk("IDAT", rows.ToArray());
        Chunk("IEND", []);
        return file.ToArray();

        void Chunk(string type, byte[] data)
        {
            Span<byte> number = stackalloc byte[4];
            System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(number, data.Length);
            file.Write(number);
            byte[] body = [.. System.Text.Encoding.ASCII.GetBytes(type), .. data];
            file.Write(body);
            System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(number, Crc(body));
            file.Write(number);
        }

        static uint Crc(byte[] bytes)
        {
            var crc = 0xFFFFFFFFu;
            foreach (var b in bytes)
            {
                crc ^= b;
                for (var k = 0; k < 8; k++)
                {
                    crc = (crc & 1) != 0 ? (crc >> 1) ^ 0xEDB88320u : crc >> 1;
                }
            }

            return ~crc;
        }
    }

    private static byte[] Bad(string kind) =>
        kind switch
        {
            "empty" => [],
            "truncated" => Pictures.Jpeg(2000, 1500)[..4000],
            "text" => "Dear diary, this is not a picture."u8.ToArray(),
            "script in svg" =>
                """<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>"""u8.ToArray(),
            "half a header" => Pictures.Jpeg()[..20],
            "huge png" => HugePng(),
            "tiny" => Pictures.Png(4, 4),
            _ => throw new UnreachableException(),
        };
}
