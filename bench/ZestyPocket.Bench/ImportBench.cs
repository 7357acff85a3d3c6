using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Demo;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Bench;

/// <summary>
/// Importing 200 twelve-megapixel JPEGs with everything an import does (hash, copy to the vault, checks, metadata,
/// thumbnail, focus, tone, palette, sharpness, likeness, row) against Debian's vipsthumbnail making the same thumbnails
/// of the same files. CPU seconds, median of three rounds taken in turns; with the warm-up and one more round a
/// thousand files go through one process, whose peak memory is told. The files are painted by another process.
/// </summary>
internal static class ImportBench
{
    private const int Files = 200;
    private const int Rounds = 4;

    public static async Task RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("zesty-bench-").FullName;
        try
        {
            var self =
                Environment.ProcessPath
                ?? throw new InvalidOperationException("The bench does not know its own program.");
            Cpu.OfProgram(self, ["paint", folder]);
            var paths = Directory.GetFiles(folder, "*.jpg").Order(StringComparer.Ordinal).ToList();
            var server =
                Environment.GetEnvironmentVariable("ZESTY_TEST_DATABASE")
                ?? throw new InvalidOperationException("Run with ./bench/run.");
            var connection = new NpgsqlConnectionStringBuilder(server)
            {
                Database = $"bench_{Guid.NewGuid():N}",
            }.ConnectionString;
            await Database.MigrateAsync(connection, CancellationToken.None);

            // One unmeasured round warms files, code and connections up.
            await OursAsync(connection, folder, paths, "warm");
            var (ours, theirs, wall) = (new List<double>(), new List<double>(), new List<double>());
            for (var round = 0; round < Rounds; round++)
            {
                theirs.Add(
                    Cpu.OfProgram(
                        "vipsthumbnail",
                        [
                            "--vips-concurrency=1",
                            "-s",
                            "512",
                            "-o",
                            Path.Combine(folder, "their-%s.jpg[Q=84,strip]"),
                            .. paths,
                        ]
                    )
                );
                var (before, watch) = (Cpu.Now().Own, Stopwatch.StartNew());
                await OursAsync(connection, folder, paths, $"round{round}");
                ours.Add(Cpu.Now().Own - before);
                wall.Add(watch.Elapsed.TotalSeconds);
            }

            var peak = File.ReadAllLines("/proc/self/status")
                .First(l => l.StartsWith("VmHWM", StringComparison.Ordinal))
                .Split(':')[1]
                .Trim();
            Console.WriteLine(
                $"import   {Files} files of 12 MP: ours {Cpu.Median(ours):0.00} s CPU ({Cpu.Median(wall):0.0} s "
                    + $"wall), vipsthumbnail {Cpu.Median(theirs):0.00} s CPU, ratio "
                    + $"{Cpu.Median(ours) / Cpu.Median(theirs):0.00} (target 2.0 at most), peak memory over "
                    + $"{Files * (Rounds + 1)} files {peak} (target 400 MB at most)"
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    public static void Paint(string folder)
    {
        for (var i = 0; i < Files; i++)
        {
            File.WriteAllBytes(Path.Combine(folder, $"{i:000}.jpg"), Picture(i));
        }
    }

    /// <summary>A JPEG of twelve megapixels, each number another one.</summary>
    public static byte[] Picture(int number)
    {
        var scenes = Enum.GetValues<Scene>();
        var taken = new LocalDateTime(2026, 5, 4 + (number % 7), 9, number % 60);
        return DemoPictures.Jpeg(
            new DemoShot(
                $"{number}.jpg",
                scenes[number % scenes.Length],
                number,
                4000,
                3000,
                taken,
                "Bench B1",
                60,
                51,
                -2
            )
        );
    }

    private static async Task OursAsync(string connection, string folder, List<string> paths, string round)
    {
        var settings = new ZestySettings { DataFolder = Path.Combine(folder, round) };
        var vault = new FolderVault(settings.Vault);
        using var bench = new PaintingBench();
        var cache = new PictureCache(settings, vault, bench, ReaderPool.Shared);
        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, connection);
        Album album;
        await using (var db = new ZestyContext(builder.Options))
        {
            album = AlbumMaking.Rows(
                new NewAlbum(
                    "Bench",
                    new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = new LocalDate(2026, 5, 4) },
                    1,
                    2,
                    [Protector.Unmeasured(BuiltInDesigns.All[0])],
                    MeasureSystem.Inches
                ),
                Keeper.LocalId,
                SystemClock.Instance.GetCurrentInstant()
            );
            db.Albums.Add(album);
            await db.SaveChangesAsync();
        }

        await Parallel.ForEachAsync(
            paths,
            new ParallelOptions { MaxDegreeOfParallelism = 2 },
            async (path, cancel) =>
            {
                await using var db = new ZestyContext(builder.Options);
                await using var file = File.OpenRead(path);
                using var arrived = await vault.ReceiveAsync(file, file.Length, cancel);
                var quota = new UploadQuota(db, new ZestySettings());
                var outcome = await new PhotoImport(
                    db,
                    cache,
                    SystemClock.Instance,
                    new VideoIntake(db, SystemClock.Instance, quota),
                    ReaderPool.Shared,
                    quota
                ).TakeAsync(album.Id, Path.GetFileName(path), arrived, null, null, cancel);
                if (outcome.Status != ImportStatus.Added)
                {
                    throw new InvalidOperationException(outcome.Detail);
                }
            }
        );
    }
}
