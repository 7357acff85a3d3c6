using NetVips;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// What cameras and scanners write, brought to an upright sRGB picture. Orientation values as in the Exif standard
/// (CIPA DC-008), tag 0x0112.
/// </summary>
public sealed class PictureColourTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-colour-").FullName;

    public PictureColourTests() => PhotoEngine.Start();

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData(1, 0, 0)]
    [InlineData(2, 1, 0)]
    [InlineData(3, 1, 1)]
    [InlineData(4, 0, 1)]
    [InlineData(5, 0, 0)]
    [InlineData(6, 1, 0)]
    [InlineData(7, 1, 1)]
    [InlineData(8, 0, 1)]
    public void A_picture_is_upright_whatever_way_the_camera_was_held(int orientation, int redX, int redY)
    {
        // The stored picture is white with a red top left corner; where that corner ends up is what the standard says.
        var path = Path.Combine(_folder, $"{orientation}.jpg");
        using var white = (Image.Black(300, 200, bands: 3) + 255)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        using var marked = white.Mutate(m =>
        {
            m.DrawRect([255, 0, 0], 0, 0, 100, 80, fill: true);
            m.Set(GValue.GIntType, "orientation", orientation);
        });
        marked.Jpegsave(path, q: 95);

        var facts = PictureIntake.Inspect(path);
        facts.Pixels.ShouldBe(orientation >= 5 ? new PixelSize(200, 300) : new PixelSize(300, 200));
        RedCorner(PictureIntake.Thumbnail(path, 512)).ShouldBe((redX, redY));
        var whole = new Crop(0, 0, facts.Pixels.Width, facts.Pixels.Height);
        RedCorner(PrintCrop.Jpeg(path, facts.Pixels, whole, facts.Pixels)).ShouldBe((redX, redY));
    }

    [Theory]
    [InlineData("p3")]
    [InlineData("cmyk")]
    [InlineData("16 bit")]
    [InlineData("grey")]
    [InlineData("alpha")]
    [InlineData("progressive")]
    public void Every_kind_of_colour_becomes_plain_srgb(string kind)
    {
        var path = Path.Combine(_folder, "picture");
        using var colour = (Image.Black(400, 300, bands: 3) + new double[] { 200, 60, 40 })
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        switch (kind)
        {
            case "p3":
                using (var wide = colour.IccTransform("p3", inputProfile: "srgb"))
                {
                    wide.Jpegsave(path, q: 98);
                }

                break;
            case "cmyk":
                using (var inks = colour.IccTransform("cmyk", inputProfile: "srgb"))
                {
                    inks.Jpegsave(path, q: 98);
                }

                break;
            case "16 bit":
                (colour.Cast(Enums.BandFormat.Ushort) * 257)
                    .Cast(Enums.BandFormat.Ushort)
                    .Copy(interpretation: Enums.Interpretation.Rgb16)
                    .Pngsave(path);
                break;
            case "grey":
                colour[0].Copy(interpretation: Enums.Interpretation.Bw).Jpegsave(path, q: 98);
                break;
            case "alpha":
                colour.Bandjoin(255).Pngsave(path);
                break;
            default:
                colour.Jpegsave(path, q: 98, interlace: true);
                break;
        }

        var facts = PictureIntake.Inspect(path);
        foreach (
            var jpeg in new[]
            {
                PictureIntake.Thumbnail(path, 512),
                PrintCrop.Jpeg(path, facts.Pixels, new Crop(0, 0, 400, 300), new PixelSize(200, 150)),
            }
        )
        {
            using var back = Image.NewFromBuffer(jpeg);
            (back.Bands, back.Interpretation, back.Format).ShouldBe(
                (3, Enums.Interpretation.Srgb, Enums.BandFormat.Uchar)
            );
            back.Contains("icc-profile-data").ShouldBeFalse();
            var pixel = back.Getpoint(back.Width / 2, back.Height / 2);
            double[] expected = kind == "grey" ? [200, 200, 200] : [200, 60, 40];
            for (var band = 0; band < 3; band++)
            {
                pixel[band].ShouldBe(expected[band], kind == "cmyk" ? 24 : 4, $"{kind}, band {band}");
            }
        }
    }

    [Fact]
    public void A_print_crop_holds_only_what_is_kept()
    {
        var path = Path.Combine(_folder, "halves.jpg");
        using var left = (Image.Black(1000, 1000, bands: 3) + new double[] { 250, 0, 0 }).Cast(Enums.BandFormat.Uchar);
        using var right = (Image.Black(1000, 1000, bands: 3) + new double[] { 0, 0, 250 }).Cast(Enums.BandFormat.Uchar);
        using var both = left.Join(right, Enums.Direction.Horizontal).Copy(interpretation: Enums.Interpretation.Srgb);
        both.Jpegsave(path, q: 98);
        using var kept = Image.NewFromBuffer(
            PrintCrop.Jpeg(path, new PixelSize(2000, 1000), new Crop(1200, 100, 600, 800), new PixelSize(450, 600))
        );
        (kept.Width, kept.Height).ShouldBe((450, 600));
        kept[2].Avg().ShouldBe(250, 3);
        kept[0].Max().ShouldBeLessThan(20);
    }

    [Fact]
    public void A_print_crop_has_three_hundred_pixels_to_the_inch_or_all_there_are()
    {
        var print = Core.Measures.Size.FromInches(3, 4);
        var rich = Crop.For(new PixelSize(3000, 4000), print, Framing.Middle);
        PrintCrop.Target(rich, print, 300).ShouldBe(new PixelSize(900, 1200));
        var poor = Crop.For(new PixelSize(300, 400), print, Framing.Middle);
        PrintCrop.Target(poor, print, 300).ShouldBe(new PixelSize(300, 400));
    }

    /// <summary>Zone and position from the file; a position of nought and nought is none.</summary>
    [Theory]
    [InlineData("+09:00", 540)]
    [InlineData("-03:30", -210)]
    [InlineData("Z", 0)]
    [InlineData("+99:00", null)]
    [InlineData("somewhere", null)]
    public void The_zone_is_taken_from_the_file_when_it_makes_sense(string written, int? minutes)
    {
        var path = Path.Combine(_folder, "zone.jpg");
        using var plain = Image.Black(64, 64, bands: 3).Copy(interpretation: Enums.Interpretation.Srgb);
        using var tagged = plain.Mutate(m =>
        {
            m.Set(GValue.GStrType, "exif-ifd2-DateTimeOriginal", "2026:05:05 12:34:56");
            m.Set(GValue.GStrType, "exif-ifd2-OffsetTimeOriginal", written);
            m.Set(GValue.GStrType, "exif-ifd3-GPSLatitudeRef", "S");
            m.Set(GValue.GStrType, "exif-ifd3-GPSLatitude", "33/1 30/1 0/1");
            m.Set(GValue.GStrType, "exif-ifd3-GPSLongitudeRef", "W");
            m.Set(GValue.GStrType, "exif-ifd3-GPSLongitude", "70/1 15/1 0/1");
        });
        tagged.Jpegsave(path);
        var facts = PictureIntake.Inspect(path);
        facts.Recorded.ShouldBe(new NodaTime.LocalDateTime(2026, 5, 5, 12, 34, 56));
        facts.OffsetMinutes.ShouldBe(minutes);
        (facts.Latitude!.Value, facts.Longitude!.Value).ShouldBe((-33.5, -70.25));
    }

    private static (int X, int Y) RedCorner(byte[] jpeg)
    {
        using var image = Image.NewFromBuffer(jpeg);
        foreach (var (x, y) in new[] { (0, 0), (1, 0), (0, 1), (1, 1) })
        {
            var pixel = image.Getpoint(x == 0 ? 10 : image.Width - 11, y == 0 ? 10 : image.Height - 11);
            if (pixel[0] > 200 && pixel[1] < 80)
            {
                return (x, y);
            }
        }

        return (-1, -1);
    }
}
