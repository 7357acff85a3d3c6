using NetVips;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>What is printed of a picture that was straightened, lightened or made black and white.</summary>
public sealed class AdjustedCropTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-adjusted-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData(6)]
    [InlineData(-9)]
    public void A_horizon_that_falls_off_is_level_after_it_is_straightened(double degrees)
    {
        // Sky over sea, the horizon turned against the clock by as much as it is to be turned back.
        var (width, height) = (900, 600);
        var slope = -Math.Tan(degrees * Math.PI / 180);
        var path = Save(width, height, (x, y) => y < 300 + ((x - 450) * slope) ? (byte)230 : (byte)40);
        var crop = Crop.For(new PixelSize(width, height), Size.FromInches(6, 4), Framing.Middle).Turned(degrees);
        var target = PrintCrop.Target(crop, Size.FromInches(6, 4), 100);
        using var print = Image.NewFromBuffer(PrintCrop.Jpeg(path, new PixelSize(width, height), crop, target));
        (print.Width, print.Height).ShouldBe((600, 400));
        var edge = HorizonAt(print, 20);
        ((double)edge).ShouldBe(200, 3);
        ((double)HorizonAt(print, 580)).ShouldBe(edge, 3);
        // No corner came up empty.
        foreach (var (x, y, light) in new[] { (2, 2, 230), (597, 2, 230), (2, 397, 40), (597, 397, 40) })
        {
            print.Getpoint(x, y)[0].ShouldBe(light, 12, $"{x}, {y}");
        }

        // As it was, it falls off.
        var plain = crop with
        {
            Degrees = 0,
        };
        using var before = Image.NewFromBuffer(PrintCrop.Jpeg(path, new PixelSize(width, height), plain, target));
        Math.Abs(HorizonAt(before, 20) - HorizonAt(before, 580)).ShouldBeGreaterThan(40);
    }

    [Fact]
    public void A_black_and_white_print_has_no_colour_and_the_light_of_the_picture()
    {
        var path = SaveColours();
        var (pixels, crop, target) = (new PixelSize(300, 200), new Crop(0, 0, 300, 200), new PixelSize(300, 200));
        using var print = Image.NewFromBuffer(PrintCrop.Jpeg(path, pixels, crop, target, null, new FaceTones(true, 1)));
        for (var x = 30; x < 300; x += 60)
        {
            var p = print.Getpoint(x, 100);
            // One band, or three that are the same.
            p.Max().ShouldBe(p.Min(), 2);
            using var original = Image.NewFromFile(path);
            var o = original.Getpoint(x, 100);
            var lightness = LabColour.OfSrgb((byte)o[0], (byte)o[1], (byte)o[2]).L;
            LabColour.OfSrgb((byte)p[0], (byte)p[0], (byte)p[0]).L.ShouldBe(lightness, 2.5);
        }
    }

    [Fact]
    public void A_lightened_print_is_lighter_by_as_much_as_was_asked_for_and_keeps_its_colours()
    {
        var path = SaveColours();
        var (pixels, crop, target) = (new PixelSize(300, 200), new Crop(0, 0, 300, 200), new PixelSize(300, 200));
        var before = PictureJudging.Colours(Rgb(PrintCrop.Jpeg(path, pixels, crop, target)));
        var gamma = new PictureAdjustment(Lighter: 6).Gamma(before.Tone);
        var after = PictureJudging.Colours(
            Rgb(PrintCrop.Jpeg(path, pixels, crop, target, null, new FaceTones(false, gamma)))
        );
        (after.Tone - before.Tone).ShouldBe(6, 1.5);
        after.Palette.Max(c => c.Lab.Chroma).ShouldBeGreaterThan(before.Palette.Max(c => c.Lab.Chroma) * 0.8);
    }

    private static byte[] Rgb(byte[] jpeg)
    {
        using var image = Image.NewFromBuffer(jpeg);
        return image.WriteToMemory<byte>();
    }

    private static int HorizonAt(Image print, int x)
    {
        for (var y = 0; y < print.Height; y++)
        {
            if (print.Getpoint(x, y)[0] < 135)
            {
                return y;
            }
        }

        return -1;
    }

    private string Save(int width, int height, Func<int, int, byte> light)
    {
        var bytes = new byte[3 * width * height];
        for (var i = 0; i < width * height; i++)
        {
            bytes.AsSpan(3 * i, 3).Fill(light(i % width, i / width));
        }

        return Write(bytes, width, height);
    }

    private string SaveColours()
    {
        (byte, byte, byte)[] stripes = [(190, 60, 50), (60, 130, 70), (60, 80, 180), (200, 170, 60), (120, 120, 120)];
        var bytes = new byte[3 * 300 * 200];
        for (var i = 0; i < 300 * 200; i++)
        {
            (bytes[3 * i], bytes[(3 * i) + 1], bytes[(3 * i) + 2]) = stripes[i % 300 / 60];
        }

        return Write(bytes, 300, 200);
    }

    private string Write(byte[] bytes, int width, int height)
    {
        var path = Path.Combine(_folder, $"{Guid.NewGuid():N}.png");
        using var image = Image.NewFromMemory(bytes, width, height, 3, Enums.BandFormat.Uchar);
        using var srgb = image.Copy(interpretation: Enums.Interpretation.Srgb);
        srgb.WriteToFile(path);
        return path;
    }
}
