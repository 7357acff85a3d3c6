using System.Buffers.Binary;
using System.Diagnostics;
using System.Globalization;
using System.Text;
using NetVips;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests.Fuzzing;

/// <summary>
/// Real files of every kind with bits turned, lengths and sizes altered, parts cut off, doubled and exchanged, are
/// added to an album. Each is taken or refused in words; the server and its readers never hold more than 600 MB.
/// </summary>
public sealed class DecoderFuzzTests
{
    private const long MostMemory = 600_000_000;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Altered_files_of_every_kind_are_taken_or_refused_within_600_MB()
    {
        await using var machine = await Machine.StartAsync();
        var album = await machine.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest("Fuzz", new(2026, 5, 4), 4, ["9x12-nine-3x4"], MeasureSystem.Inches)
        );
        var seeds = Seeds();
        var (peak, done) = (0L, new CancellationTokenSource());
        var watch = Task.Run(
            async () =>
            {
                while (!done.IsCancellationRequested)
                {
                    peak = Math.Max(peak, MemoryOf(machine.ServerId));
                    await Task.Delay(20, CancellationToken.None);
                }
            },
            Cancel
        );
        var (added, refused) = (0, 0);
        var files = Thorough.Of(2_000, 120);
        for (var i = 0; i < files; i++)
        {
            var dice = new Random(i);
            var (name, seed) = seeds[i % seeds.Count];
            var outcome = await machine.AddAsync(album.Id, $"{i}-{name}", Altered(seed, dice));
            added += outcome.Status == ImportStatus.Added ? 1 : 0;
            refused += outcome.Status == ImportStatus.Refused ? 1 : 0;
            outcome.Detail.ShouldNotBeNullOrWhiteSpace($"{i} {name}");
            outcome.Detail.ShouldNotContain("Exception", Case.Insensitive, $"{i} {name}");
        }

        await done.CancelAsync();
        await watch;
        // Both happen often, or nothing was tried.
        added.ShouldBeGreaterThan(files / 20);
        refused.ShouldBeGreaterThan(files / 20);
        peak.ShouldBeInRange(50_000_000, MostMemory);
        TestContext.Current.TestOutputHelper?.WriteLine($"{added} added, {refused} refused, {peak / 1e6:0} MB at most");
        (await machine.AddAsync(album.Id, "good.jpg", seeds[0].Bytes)).Status.ShouldNotBe(ImportStatus.Refused);
    }

    private static byte[] Altered(byte[] seed, Random dice)
    {
        var bytes = (byte[])seed.Clone();
        var ways = dice.Next(1, 4);
        for (var way = 0; way < ways && bytes.Length > 64; way++)
        {
            // Heads hold the lengths and sizes: they are hit as often as the rest.
            var at = dice.Next(2) == 0 ? dice.Next(Math.Min(600, bytes.Length - 8)) : dice.Next(bytes.Length - 8);
            switch (dice.Next(7))
            {
                case 0:
                    bytes[at] ^= (byte)(1 << dice.Next(8));
                    break;
                case 1:
                    BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(at), (ushort)dice.Next(0xFFFF));
                    break;
                case 2:
                    BinaryPrimitives.WriteUInt32BigEndian(
                        bytes.AsSpan(at),
                        dice.Next(3) switch
                        {
                            0 => uint.MaxValue,
                            1 => 0x7FFFFFFF,
                            _ => (uint)dice.Next(),
                        }
                    );
                    break;
                case 3:
                    bytes = bytes[..dice.Next(32, bytes.Length)];
                    break;
                case 4:
                    var part = bytes.AsSpan(at, Math.Min(dice.Next(4, 4_000), bytes.Length - at)).ToArray();
                    bytes = [.. bytes[..at], .. part, .. bytes[at..]];
                    break;
                case 5:
                    dice.NextBytes(bytes.AsSpan(at, Math.Min(dice.Next(1, 64), bytes.Length - at)));
                    break;
                default:
                    // As wide and high as the kind can say.
                    BinaryPrimitives.WriteUInt16LittleEndian(bytes.AsSpan(at), 0x3FFF);
                    break;
            }
        }

        return bytes;
    }

    private static List<(string Name, byte[] Bytes)> Seeds()
    {
        var jpeg = Pictures.Jpeg(900, 600, colourful: true);
        var folder = Directory.CreateTempSubdirectory("zesty-seeds-").FullName;
        try
        {
            var plain = Path.Combine(folder, "plain.jpg");
            File.WriteAllBytes(plain, jpeg);
            Run(
                "exiftool",
                "-q",
                "-overwrite_original",
                "-XMP:CreateDate=2026:05:06 10:00:00",
                "-IPTC:DateCreated=2026:05:06",
                "-GPSLatitude=48.1",
                "-GPSLatitudeRef=N",
                "-GPSLongitude=11.5",
                "-GPSLongitudeRef=E",
                plain
            );
            using var image = Image.NewFromFile(plain);
            string At(string ending) => Path.Combine(folder, ending);
            image.Jpegsave(At("passes.jpg"), interlace: true);
            image.Pngsave(At("plain.png"));
            image.Pngsave(At("passes.png"), interlace: true);
            image.Webpsave(At("plain.webp"));
            image.Heifsave(At("plain.avif"), compression: Enums.ForeignHeifCompression.Av1);
            image.Tiffsave(At("plain.tif"), compression: Enums.ForeignTiffCompression.Lzw);
            image.Tiffsave(At("tiles.tif"), compression: Enums.ForeignTiffCompression.Deflate, tile: true);
            image.Gifsave(At("plain.gif"));
            Run("heif-enc", "-q", "90", "-o", At("plain.heic"), At("plain.png"));
            using (var file = File.Create(At("plain.pdf")))
            using (var document = SKDocument.CreatePdf(file))
            using (var photo = SKImage.FromEncodedData(jpeg))
            {
                document.BeginPage(400, 300).DrawImage(photo, SKRect.Create(0, 0, 400, 300), new SKSamplingOptions());
                document.EndPage();
            }

            List<string> names =
            [
                "plain.jpg",
                "passes.jpg",
                "plain.png",
                "passes.png",
                "plain.webp",
                "plain.avif",
                "plain.tif",
                "tiles.tif",
                "plain.gif",
                "plain.heic",
                "plain.pdf",
            ];
            return
            [
                .. names.Select(n => (n, File.ReadAllBytes(At(n)))),
                ("film.mp4", Films.Moving("creation_time=2026-05-06T10:00:00Z")),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static void Run(string program, params string[] arguments)
    {
        using var process = Process.Start(program, arguments)!;
        process.WaitForExit();
        process.ExitCode.ShouldBe(0, program);
    }

    /// <summary>Resident memory of a process and all that it started, in bytes. Source: proc(5).</summary>
    private static long MemoryOf(int root)
    {
        var all = Directory
            .GetDirectories("/proc")
            .Select(d => int.TryParse(Path.GetFileName(d), CultureInfo.InvariantCulture, out var id) ? id : 0)
            .Where(id => id > 0)
            .Select(id => (Id: id, Status: StatusOf(id)))
            .Where(p => p.Status.Count > 0)
            .ToList();
        var family = new HashSet<int> { root };
        while (all.Any(p => family.Contains(p.Status["PPid"]) && family.Add(p.Id)))
        {
            // Until nobody comes in any more.
        }

        return all.Where(p => family.Contains(p.Id)).Sum(p => p.Status.GetValueOrDefault("VmRSS") * 1024L);
    }

    private static Dictionary<string, int> StatusOf(int id)
    {
        try
        {
            return File.ReadLines($"/proc/{id}/status", Encoding.UTF8)
                .Select(l => l.Split(':', StringSplitOptions.TrimEntries))
                .Where(p => p is ["PPid" or "VmRSS", _])
                .ToDictionary(p => p[0], p => int.Parse(p[1].Split(' ')[0], CultureInfo.InvariantCulture));
        }
        catch (IOException)
        {
            // Gone meanwhile.
            return [];
        }
    }
}
