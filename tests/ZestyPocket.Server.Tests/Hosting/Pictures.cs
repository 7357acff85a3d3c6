using NetVips;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>Small picture files made for the tests.</summary>
public static class Pictures
{
    public static byte[] Jpeg(
        int width = 600,
        int height = 400,
        string? taken = "2026:05:05 12:00:00",
        int shade = 90,
        int orientation = 1,
        string? offset = null,
        string model = "T1",
        string make = "Testmaker",
        bool colourful = false
    )
    {
        PhotoEngine.Start();
        // From red at the left to blue at the right, greener to the foot, so that no part is like another; or one grey.
        using var xy = Image.Xyz(width, height);
        using var right = xy[0] * (230.0 / width);
        using var pixels = colourful
            ? (230 - right).Bandjoin(xy[1] * (140.0 / height), right)
            : Image.Black(width, height, bands: 3) + shade;
        using var plain = pixels.Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        using var tagged = plain.Mutate(m =>
        {
            if (taken is not null)
            {
                m.Set(GValue.GStrType, "exif-ifd2-DateTimeOriginal", taken);
            }

            if (offset is not null)
            {
                m.Set(GValue.GStrType, "exif-ifd2-OffsetTimeOriginal", offset);
            }

            m.Set(GValue.GStrType, "exif-ifd0-Make", make);
            m.Set(GValue.GStrType, "exif-ifd0-Model", model);
            m.Set(GValue.GIntType, "orientation", orientation);
        });
        return tagged.JpegsaveBuffer(q: 80);
    }

    /// <summary>Noise, about three bytes a pixel: it does not get smaller.</summary>
    public static byte[] NoisePng(int width, int height, int seed)
    {
        PhotoEngine.Start();
        using var grey = Image.Gaussnoise(width, height, sigma: 60, mean: 128, seed: seed);
        using var other = Image.Gaussnoise(width, height, sigma: 60, mean: 128, seed: seed + 1_000);
        using var third = Image.Gaussnoise(width, height, sigma: 60, mean: 128, seed: seed + 2_000);
        using var pixels = grey.Bandjoin(other, third)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        return pixels.PngsaveBuffer();
    }

    public static byte[] Png(int width, int height)
    {
        PhotoEngine.Start();
        using var plain = (Image.Black(width, height, bands: 3) + 120)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        return plain.PngsaveBuffer();
    }

    /// <summary>Plain and light above, a chequer of black and white below.</summary>
    public static byte[] HalfQuiet(int width, int height)
    {
        PhotoEngine.Start();
        using var xy = Image.Xyz(width, height);
        using var chequer = ((xy[0] / 9).Floor() + (xy[1] / 9).Floor()) % 2;
        using var shades = (xy[1] < height / 2).Ifthenelse(220, chequer * 255).Cast(Enums.BandFormat.Uchar);
        using var colours = shades.Bandjoin(shades, shades).Copy(interpretation: Enums.Interpretation.Srgb);
        return colours.PngsaveBuffer();
    }

    /// <summary>A 3x4, a 6x4 and a 4x4 on a dark table, a hundred pixels an inch: red, teal and yellow.</summary>
    public static byte[] Cards()
    {
        PhotoEngine.Start();
        using var table = (Image.Black(1_600, 1_000, bands: 3) + new double[] { 40, 44, 48 }).Cast(
            Enums.BandFormat.Uchar
        );
        using var cards = table.Mutate(m =>
        {
            m.DrawRect([200, 40, 30], 100, 100, 300, 400, fill: true);
            m.DrawRect([20, 140, 130], 600, 120, 600, 400, fill: true);
            m.DrawRect([240, 220, 120], 300, 560, 400, 400, fill: true);
        });
        using var colours = cards.Copy(interpretation: Enums.Interpretation.Srgb);
        return colours.JpegsaveBuffer(q: 90);
    }
}
