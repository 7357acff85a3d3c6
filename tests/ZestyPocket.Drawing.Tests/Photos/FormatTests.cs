using System.Diagnostics;
using NetVips;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// Kinds of file that phones, scanners and friends send. HEIC files are written by libheif's own encoder and tagged by
/// exiftool, so that what is read was written by somebody else.
/// </summary>
public sealed class FormatTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-formats-").FullName;

    public FormatTests() => PhotoEngine.Start();

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData("jpg", PictureFormat.Jpeg)]
    [InlineData("png", PictureFormat.Png)]
    [InlineData("webp", PictureFormat.WebP)]
    [InlineData("avif", PictureFormat.Avif)]
    [InlineData("heic", PictureFormat.Heic)]
    [InlineData("tif", PictureFormat.Tiff)]
    [InlineData("gif", PictureFormat.Gif)]
    [InlineData("pdf", PictureFormat.Pdf)]
    public void Every_promised_kind_becomes_an_upright_picture_with_a_red_corner(string ending, PictureFormat format)
    {
        var path = Make(ending);
        PictureIntake.Accept(path).ShouldBe(format);
        var readable = Readable(path, format);
        var facts = PictureIntake.Inspect(path, format, readable);
        if (format != PictureFormat.Pdf)
        {
            facts.Pixels.ShouldBe(new PixelSize(400, 300));
        }

        var (thumbnail, judgement) = PictureIntake.Judge(readable);
        RedCorner(thumbnail).ShouldBe((0, 0));
        judgement.Tone.ShouldBeGreaterThan(80);
        judgement.Palette.ShouldContain(c => c.Red > 180 && c.Green < 90 && c.Blue < 90);
        (judgement.FocusX, judgement.FocusY).ShouldSatisfyAllConditions(
            f => f.FocusX.ShouldBeInRange(0, 1),
            f => f.FocusY.ShouldBeInRange(0, 1)
        );
        RedCorner(
                PrintCrop.Jpeg(
                    readable,
                    facts.Pixels,
                    new Crop(0, 0, facts.Pixels.Width, facts.Pixels.Height),
                    facts.Pixels
                )
            )
            .ShouldBe((0, 0));
    }

    [Fact]
    public void A_phones_HEIC_brings_its_time_zone_camera_and_place_south_and_west()
    {
        var path = Make("heic");
        Exiftool(
            path,
            "-DateTimeOriginal=2026:06:07 18:30:05",
            "-OffsetTimeOriginal=+12:00",
            "-Make=Kestrel",
            "-Model=P4",
            "-GPSLatitude=41.25",
            "-GPSLatitudeRef=S",
            "-GPSLongitude=173.5",
            "-GPSLongitudeRef=W"
        );
        var facts = PictureIntake.Inspect(path, PictureFormat.Heic, Readable(path, PictureFormat.Heic));
        facts.Recorded.ShouldBe(new LocalDateTime(2026, 6, 7, 18, 30, 5));
        facts.OffsetMinutes.ShouldBe(720);
        facts.Camera.ShouldBe("Kestrel P4");
        facts.Latitude!.Value.ShouldBe(-41.25, 0.0001);
        facts.Longitude!.Value.ShouldBe(-173.5, 0.0001);
    }

    [Fact]
    public void In_a_HEIC_the_rotation_box_rules_and_contrary_EXIF_does_not_turn_it_twice()
    {
        var path = Make("heic");
        Exiftool(path, "-n", "-Orientation=6");
        var facts = PictureIntake.Inspect(path, PictureFormat.Heic, Readable(path, PictureFormat.Heic));
        facts.Pixels.ShouldBe(new PixelSize(400, 300));
        // A quarter turn anticlockwise (irot 1): the red corner goes from the top left to the bottom left.
        var turned = Path.Combine(_folder, "turned.heic");
        File.WriteAllBytes(turned, HeicBoxes.WithRotation(File.ReadAllBytes(path), quarterTurns: 1));
        var readable = Readable(turned, PictureFormat.Heic);
        PictureIntake.Inspect(turned, PictureFormat.Heic, readable).Pixels.ShouldBe(new PixelSize(300, 400));
        RedCorner(PictureIntake.Thumbnail(readable, 512)).ShouldBe((0, 1));
    }

    [Theory]
    [InlineData("avif")]
    [InlineData("webp")]
    [InlineData("png")]
    [InlineData("tif")]
    public void Time_and_zone_are_found_in_every_kind_that_can_carry_them(string ending)
    {
        var path = Make(ending);
        Exiftool(path, "-EXIF:DateTimeOriginal=2026:06:07 09:10:11", "-EXIF:OffsetTimeOriginal=-07:00");
        var facts = PictureIntake.Inspect(path);
        facts.Recorded.ShouldBe(new LocalDateTime(2026, 6, 7, 9, 10, 11));
        facts.OffsetMinutes.ShouldBe(-420);
    }

    [Fact]
    public void The_part_of_a_second_that_a_camera_writes_apart_belongs_to_its_time()
    {
        var path = Make("jpg");
        Exiftool(path, "-EXIF:DateTimeOriginal=2026:06:07 09:10:11", "-EXIF:SubSecTimeOriginal=042");
        PictureIntake.Inspect(path).Recorded.ShouldBe(new LocalDateTime(2026, 6, 7, 9, 10, 11).PlusMilliseconds(42));
    }

    [Theory]
    [InlineData("+25:00")]
    [InlineData("garbage")]
    [InlineData("   :  ")]
    [InlineData("-13:30")]
    public void An_absurd_offset_is_no_offset_and_the_time_stands(string offset)
    {
        var path = Make("jpg");
        Exiftool(path, "-DateTimeOriginal=2026:06:07 09:10:11", "-OffsetTimeOriginal=" + offset);
        var facts = PictureIntake.Inspect(path);
        (facts.Recorded, facts.OffsetMinutes).ShouldBe((new LocalDateTime(2026, 6, 7, 9, 10, 11), null));
    }

    [Theory]
    [InlineData("film.mp4", "a film")]
    [InlineData("film.mov", "a film")]
    [InlineData("film.avi", "a film")]
    [InlineData("film.mkv", "a film")]
    [InlineData("raw.nef", "raw file")]
    [InlineData("bundle.zip", "zip inside a zip")]
    [InlineData("drawing.svg", "not a JPEG")]
    [InlineData("broken.heic", "HEIC picture is damaged")]
    [InlineData("broken.pdf", "PDF")]
    public void What_cannot_become_a_picture_is_refused_politely_and_by_name(string name, string reason)
    {
        var path = Path.Combine(_folder, name);
        File.WriteAllBytes(
            path,
            name switch
            {
                "film.mp4" => [0, 0, 0, 24, .. "ftypisom"u8, 0, 0, 2, 0, .. "isomiso2"u8, .. new byte[100]],
                "film.mov" => [0, 0, 0, 20, .. "ftypqt  "u8, 0, 0, 2, 0, .. "qt  "u8, .. new byte[100]],
                "film.avi" => [.. "RIFF"u8, 0, 0, 1, 0, .. "AVI LIST"u8, .. new byte[100]],
                "film.mkv" => [0x1A, 0x45, 0xDF, 0xA3, .. new byte[100]],
                "raw.nef" => [0x49, 0x49, 0x2A, 0, 8, 0, 0, 0, .. new byte[100]],
                "bundle.zip" => [0x50, 0x4B, 3, 4, .. new byte[100]],
                "drawing.svg" => [.. "<svg xmlns='http://www.w3.org/2000/svg'/>"u8],
                "broken.heic" => [0, 0, 0, 24, .. "ftypheic"u8, 0, 0, 0, 0, .. "mif1heic"u8, .. new byte[300]],
                _ => [.. "%PDF-1.7\nnothing of the kind"u8],
            }
        );
        Should
            .Throw<PictureRefusedException>(() =>
            {
                var format = PictureIntake.Accept(path, name);
                PictureIntake.Inspect(path, format, Readable(path, format));
            })
            .Message.ShouldContain(reason);
    }

    [Fact]
    public void A_page_of_a_PDF_can_be_chosen_and_one_that_is_not_there_is_refused()
    {
        var path = Make("pdf");
        WorkingCopies
            .Make(path, PictureFormat.Pdf, 2, Path.Combine(_folder, "two.jpg"), WorkingCopies.LongestTime)
            .ShouldBe(2);
        using var two = Image.NewFromFile(Path.Combine(_folder, "two.jpg"));
        (two.Width, two.Height).ShouldBe((2550, 1275), "8.5 x 4.25 in at 300 ppi");
        Should
            .Throw<PictureRefusedException>(() =>
                WorkingCopies.Make(
                    path,
                    PictureFormat.Pdf,
                    3,
                    Path.Combine(_folder, "three.jpg"),
                    WorkingCopies.LongestTime
                )
            )
            .Message.ShouldContain("2 pages");
    }

    [Fact]
    public void What_a_box_covers_is_in_no_picture_that_leaves_the_program()
    {
        var path = Make("jpg");
        PictureBox[] covers = [new(0, 0, 0.4, 0.4)];
        RedPixels(PictureIntake.Thumbnail(path, 400)).ShouldBeGreaterThan(1000);
        RedPixels(PictureIntake.Thumbnail(path, 400, covers)).ShouldBe(0);
        var pixels = new PixelSize(400, 300);
        RedPixels(PrintCrop.Jpeg(path, pixels, new Crop(0, 0, 400, 300), pixels, covers)).ShouldBe(0);
        // A crop that begins inside the covered part.
        RedPixels(PrintCrop.Jpeg(path, pixels, new Crop(40, 30, 200, 150), new PixelSize(200, 150), covers))
            .ShouldBe(0);
    }

    [Fact]
    public void The_eye_goes_to_the_bright_thing_and_to_the_middle_where_there_is_none()
    {
        var path = Path.Combine(_folder, "spot.png");
        using var grey = (Image.Black(600, 400, bands: 3) + 110)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        grey.Pngsave(path);
        var flat = PictureIntake.Judge(path).Judgement;
        (flat.FocusX, flat.FocusY).ShouldBe((0.5, 0.5));
        using var spot = grey.Mutate(m => m.DrawCircle([250, 120, 20], 480, 120, 30, fill: true));
        spot.Pngsave(path);
        var seen = PictureIntake.Judge(path).Judgement;
        seen.FocusX.ShouldBeInRange(0.7, 0.9);
        seen.FocusY.ShouldBeInRange(0.2, 0.4);
    }

    private static string Readable(string path, PictureFormat format)
    {
        if (!format.NeedsWorkingCopy())
        {
            return path;
        }

        WorkingCopies.Make(path, format, 1, path + ".copy.jpg", WorkingCopies.LongestTime);
        return path + ".copy.jpg";
    }

    /// <summary>A white picture of 400 x 300 with a red top left corner, in any kind.</summary>
    private string Make(string ending)
    {
        var path = Path.Combine(_folder, "picture." + ending);
        using var white = (Image.Black(400, 300, bands: 3) + 255)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        using var marked = white.Mutate(m => m.DrawRect([220, 30, 30], 0, 0, 120, 90, fill: true));
        switch (ending)
        {
            case "heic":
                var png = Path.Combine(_folder, "for-heic.png");
                marked.Pngsave(png);
                Run("heif-enc", "-q", "90", "-o", path, png);
                break;
            case "avif":
                marked.Heifsave(path, compression: Enums.ForeignHeifCompression.Av1, q: 80);
                break;
            case "pdf":
                using (var file = File.Create(path))
                using (var document = SkiaSharp.SKDocument.CreatePdf(file))
                {
                    foreach (var height in new[] { 792, 306 })
                    {
                        using var canvas = document.BeginPage(612, height);
                        using var paint = new SkiaSharp.SKPaint { Color = new SkiaSharp.SKColor(220, 30, 30) };
                        canvas.DrawRect(0, 0, 180, 200, paint);
                        document.EndPage();
                    }
                }

                break;
            default:
                marked.WriteToFile(path);
                break;
        }

        return path;
    }

    private static void Exiftool(string path, params string[] tags) =>
        Run("exiftool", ["-q", "-m", "-overwrite_original", .. tags, path]);

    private static void Run(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
        )!;
        var errors = process.StandardError.ReadToEnd();
        process.WaitForExit();
        process.ExitCode.ShouldBe(0, errors);
    }

    private static (int X, int Y) RedCorner(byte[] jpeg)
    {
        using var image = Image.NewFromBuffer(jpeg);
        var (right, bottom) = (image.Width - 8, image.Height - 8);
        foreach (var (x, y) in new[] { (0, 0), (1, 0), (0, 1), (1, 1) })
        {
            var pixel = image.Getpoint(x == 0 ? 8 : right, y == 0 ? 8 : bottom);
            if (pixel[0] > 150 && pixel[1] < 110)
            {
                return (x, y);
            }
        }

        return (-1, -1);
    }

    private static int RedPixels(byte[] jpeg)
    {
        using var image = Image.NewFromBuffer(jpeg);
        using var red = (image[0] > 150) & (image[1] < 100) & (image[2] < 100);
        return (int)Math.Round(red.Avg() / 255 * image.Width * image.Height);
    }
}
