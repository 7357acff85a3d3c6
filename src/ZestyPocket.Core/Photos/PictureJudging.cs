using System.Collections.Immutable;
using System.Numerics;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Photos;

/// <summary>A rectangle on a picture in fractions of its width and height, 0 to 1.</summary>
public readonly record struct PictureBox(double X, double Y, double Width, double Height)
{
    public const int MostBoxes = 40;

    public double Right => X + Width;

    public double Bottom => Y + Height;

    /// <summary>
    /// The box cut to the picture. Throws <see cref="RuleException"/> for a box without area inside it.
    /// </summary>
    public PictureBox Checked()
    {
        var (left, top) = (Math.Clamp(X, 0, 1), Math.Clamp(Y, 0, 1));
        var (right, bottom) = (Math.Clamp(Right, 0, 1), Math.Clamp(Bottom, 0, 1));
        return double.IsFinite(X + Y + Width + Height) && right - left > 0.002 && bottom - top > 0.002
            ? new PictureBox(left, top, right - left, bottom - top)
            : throw new RuleException(
                "That box lies outside the picture or has no area. Nothing was changed: draw it again."
            );
    }
}

/// <summary>A colour of a picture with the share of the picture that is near it, 0 to 1.</summary>
public readonly record struct PaletteColour(byte Red, byte Green, byte Blue, double Share)
{
    public string Hex => $"#{Red:x2}{Green:x2}{Blue:x2}";

    public LabColour Lab => LabColour.OfSrgb(Red, Green, Blue);
}

/// <summary>What a picture looks like in numbers.</summary>
/// <param name="FocusX">Where the eye goes, 0 left to 1 right.</param>
/// <param name="FocusY">0 top to 1 bottom.</param>
/// <param name="Tone">Mean CIE L*, 0 black to 100 white.</param>
/// <param name="Palette">Up to five colours, the largest share first.</param>
/// <param name="Sharpness">
/// Variance of the Laplacian of an 800-pixel grey picture; compares pictures of one scene only.
/// </param>
/// <param name="Likeness">64 bits that near-duplicates share, see <see cref="PictureJudging.Likeness"/>.</param>
public sealed record PictureJudgement(
    double FocusX,
    double FocusY,
    double Tone,
    ImmutableArray<PaletteColour> Palette,
    double Sharpness,
    ulong Likeness
)
{
    /// <summary>See <see cref="PictureJudging.Colourfulness(ReadOnlySpan{byte})"/>.</summary>
    public double Colourfulness { get; init; }
}

/// <summary>Measures taken of small pictures: tone, palette, sharpness, likeness.</summary>
public static class PictureJudging
{
    public const int PaletteSize = 5;

    /// <summary>Mean CIE L* and the palette of pixels given as red, green, blue bytes.</summary>
    public static (double Tone, ImmutableArray<PaletteColour> Palette) Colours(ReadOnlySpan<byte> rgb)
    {
        if (rgb.Length < 3 || rgb.Length % 3 != 0)
        {
            throw new ArgumentException("Whole pixels of three bytes are needed.", nameof(rgb));
        }

        var pixels = new LabColour[rgb.Length / 3];
        double sum = 0;
        for (var i = 0; i < pixels.Length; i++)
        {
            pixels[i] = LabColour.OfSrgb(rgb[3 * i], rgb[(3 * i) + 1], rgb[(3 * i) + 2]);
            sum += pixels[i].L;
        }

        return (sum / pixels.Length, Palette(pixels));
    }

    /// <summary>
    /// How colourful a picture looks: 0 not at all, 15 slightly, 33 moderately, 45 averagely, 59 quite, 82 highly, 109
    /// extremely. Source: Hasler and Süsstrunk, Measuring colourfulness in natural images, Proc. SPIE 5007 (2003),
    /// metric 3 and its table of words (both from memory).
    /// </summary>
    /// <param name="rgb">Pixels as red, green, blue bytes.</param>
    public static double Colourfulness(ReadOnlySpan<byte> rgb)
    {
        if (rgb.Length < 3 || rgb.Length % 3 != 0)
        {
            throw new ArgumentException("Whole pixels of three bytes are needed.", nameof(rgb));
        }

        var spread = new OpponentSpread();
        for (var i = 0; i < rgb.Length; i += 3)
        {
            spread.Add(rgb[i], rgb[i + 1], rgb[i + 2], 1);
        }

        return spread.Colourfulness;
    }

    /// <summary>The same of a few colours with their shares.</summary>
    public static double Colourfulness(IEnumerable<PaletteColour> palette)
    {
        ArgumentNullException.ThrowIfNull(palette);
        var spread = new OpponentSpread();
        foreach (var colour in palette)
        {
            spread.Add(colour.Red, colour.Green, colour.Blue, colour.Share);
        }

        return spread.Colourfulness;
    }

    /// <summary>Mean and variance of red against green and of yellow against blue.</summary>
    private struct OpponentSpread
    {
        private double _weight;
        private double _rg;
        private double _yb;
        private double _rgSquares;
        private double _ybSquares;

        public void Add(byte red, byte green, byte blue, double weight)
        {
            var (rg, yb) = (red - green, ((red + green) / 2.0) - blue);
            _weight += weight;
            _rg += weight * rg;
            _yb += weight * yb;
            _rgSquares += weight * rg * rg;
            _ybSquares += weight * yb * yb;
        }

        public readonly double Colourfulness
        {
            get
            {
                if (_weight <= 0)
                {
                    return 0;
                }

                var (rg, yb) = (_rg / _weight, _yb / _weight);
                var variance = (_rgSquares / _weight) - (rg * rg) + (_ybSquares / _weight) - (yb * yb);
                return Math.Sqrt(Math.Max(0, variance)) + (0.3 * Math.Sqrt((rg * rg) + (yb * yb)));
            }
        }
    }

    /// <summary>
    /// The palette by k-means in L*a*b*, started from the pixels farthest from each other, so that the same picture
    /// always gives the same colours (Lloyd 1982; farthest-point start, Gonzalez 1985).
    /// </summary>
    private static ImmutableArray<PaletteColour> Palette(LabColour[] pixels)
    {
        var centres = new List<LabColour> { Mean(pixels) };
        while (centres.Count < PaletteSize)
        {
            var (farthest, distance) = (default(LabColour), 0.0);
            foreach (var pixel in pixels)
            {
                var nearest = double.MaxValue;
                foreach (var centre in centres)
                {
                    nearest = Math.Min(nearest, Squared(pixel, centre));
                }

                if (nearest > distance)
                {
                    (farthest, distance) = (pixel, nearest);
                }
            }

            // Nothing in the picture is further than a just noticeable difference from what is there already.
            if (distance < 2.3 * 2.3)
            {
                break;
            }

            centres.Add(farthest);
        }

        var counts = new int[centres.Count];
        for (var round = 0; round < 12; round++)
        {
            var sums = new (double L, double A, double B)[centres.Count];
            Array.Clear(counts);
            foreach (var pixel in pixels)
            {
                var (best, distance) = (0, double.MaxValue);
                for (var c = 0; c < centres.Count; c++)
                {
                    var d = Squared(pixel, centres[c]);
                    if (d < distance)
                    {
                        (best, distance) = (c, d);
                    }
                }

                counts[best]++;
                sums[best] = (sums[best].L + pixel.L, sums[best].A + pixel.A, sums[best].B + pixel.B);
            }

            for (var c = 0; c < centres.Count; c++)
            {
                if (counts[c] > 0)
                {
                    centres[c] = new LabColour(sums[c].L / counts[c], sums[c].A / counts[c], sums[c].B / counts[c]);
                }
            }
        }

        return
        [
            .. centres
                .Select((c, i) => (Colour: c.ToSrgb(), Share: (double)counts[i] / pixels.Length))
                .Where(c => c.Share > 0)
                .OrderByDescending(c => c.Share)
                .Select(c => new PaletteColour(c.Colour.Red, c.Colour.Green, c.Colour.Blue, Math.Round(c.Share, 4))),
        ];
    }

    private static LabColour Mean(LabColour[] pixels)
    {
        double l = 0,
            a = 0,
            b = 0;
        foreach (var pixel in pixels)
        {
            (l, a, b) = (l + pixel.L, a + pixel.A, b + pixel.B);
        }

        return new LabColour(l / pixels.Length, a / pixels.Length, b / pixels.Length);
    }

    private static double Squared(LabColour a, LabColour b)
    {
        var (l, x, y) = (a.L - b.L, a.A - b.A, a.B - b.B);
        return (l * l) + (x * x) + (y * y);
    }

    /// <summary>
    /// Variance of the Laplacian of a grey picture: the more fine detail, the larger. Only pictures of one scene can
    /// be compared by it. Source: Pech-Pacheco et al., ICPR 2000 (from memory).
    /// </summary>
    public static double Sharpness(ReadOnlySpan<byte> grey, int width, int height)
    {
        if (grey.Length != width * height || width < 3 || height < 3)
        {
            throw new ArgumentException("A grey picture of at least 3 x 3 pixels is needed.", nameof(grey));
        }

        double sum = 0,
            squares = 0;
        for (var y = 1; y < height - 1; y++)
        {
            var row = y * width;
            for (var x = 1; x < width - 1; x++)
            {
                var i = row + x;
                var laplacian = (4 * grey[i]) - grey[i - 1] - grey[i + 1] - grey[i - width] - grey[i + width];
                sum += laplacian;
                squares += (double)laplacian * laplacian;
            }
        }

        var count = (double)(width - 2) * (height - 2);
        var mean = sum / count;
        return (squares / count) - (mean * mean);
    }

    /// <summary>
    /// A difference hash: one bit for each pair of neighbours in a grey picture of 9 x 8, set where the left one is
    /// lighter. Pictures of one scene differ in few bits. Common practice.
    /// </summary>
    public static ulong Likeness(ReadOnlySpan<byte> grey9x8)
    {
        if (grey9x8.Length != 72)
        {
            throw new ArgumentException("A grey picture of 9 x 8 pixels is needed.", nameof(grey9x8));
        }

        ulong bits = 0;
        for (var y = 0; y < 8; y++)
        {
            for (var x = 0; x < 8; x++)
            {
                bits = (bits << 1) | (grey9x8[(y * 9) + x] > grey9x8[(y * 9) + x + 1] ? 1UL : 0);
            }
        }

        return bits;
    }

    /// <summary>Bits in which two likenesses differ, 0 to 64.</summary>
    public static int Unlikeness(ulong a, ulong b) => BitOperations.PopCount(a ^ b);

    /// <summary>The largest print at 300 ppi, uncropped. Arithmetic.</summary>
    public static Size LargestPrint(PixelSize pixels) =>
        new(
            new Length((long)pixels.Width * Length.FromInches(1).Emu / Resolution.PrintPixelsPerInch),
            new Length((long)pixels.Height * Length.FromInches(1).Emu / Resolution.PrintPixelsPerInch)
        );

    /// <summary>Whether a picture fills a pocket of this size, turned as needed, at 300 ppi after the crop.</summary>
    public static bool Fills(PixelSize pixels, Size print)
    {
        var turned = pixels.IsLandscape == print.Proportion > 1 ? print : new Size(print.Height, print.Width);
        return Crop.For(pixels, turned, Framing.Middle).PixelsPerInch(turned) >= Resolution.PrintPixelsPerInch - 0.5;
    }
}
