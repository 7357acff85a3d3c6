using NetVips;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Printing;

/// <summary>
/// Reads what a printer did from a scan of its test sheet: the paper lies straight on a darker ground, so that its
/// edges give the scale of the scan.
/// </summary>
public static class ScanReader
{
    /// <summary>Darker is ink; the scanner's ground is lighter than that and darker than paper.</summary>
    private const int Dark = 90;

    /// <summary>Around the place of a square it is looked for so far each way, in millimetres.</summary>
    private const double Around = 22;

    /// <summary>Only what is dark over this much, in millimetres, is a square and no line or word.</summary>
    private const double Solid = 2.0;

    static ScanReader() => PhotoEngine.Start();

    /// <summary>Throws <see cref="RuleException"/> when there is no test sheet to be seen.</summary>
    public static PrinterFault Read(byte[] scan, Size paper)
    {
        ArgumentNullException.ThrowIfNull(scan);
        using var image = Grey(scan);
        var (pixels, width, height) = (image.WriteToMemory<byte>(), image.Width, image.Height);
        var (left, top, right, bottom) = PaperIn(pixels, width, height);
        var (perMmX, perMmY) = (
            (right - left) / (double)paper.Width.Millimetres,
            (bottom - top) / (double)paper.Height.Millimetres
        );
        if (perMmX < 2 || perMmY < 2 || Math.Abs((perMmX / perMmY) - 1) > 0.02)
        {
            throw NotSeen();
        }

        var found = TestSheet
            .Squares.Select(s =>
                Middle(
                    pixels,
                    width,
                    height,
                    left + ((double)s.X.Millimetres * perMmX),
                    top + ((double)s.Y.Millimetres * perMmY),
                    perMmX,
                    perMmY
                )
            )
            .Select(p => (X: (p.X - left) / perMmX, Y: (p.Y - top) / perMmY))
            .ToList();
        var across = ((found[1].X - found[0].X) + (found[2].X - found[3].X)) / 2;
        var down = ((found[3].Y - found[0].Y) + (found[2].Y - found[1].Y)) / 2;
        return PrinterFault.Of(
            Mm(across),
            Mm(down),
            Mm((found[0].X + found[3].X) / 2),
            Mm((found[0].Y + found[1].Y) / 2)
        );
    }

    private static Image Grey(byte[] scan)
    {
        try
        {
            using var loaded = Image.NewFromBuffer(scan);
            if ((long)loaded.Width * loaded.Height > PictureIntake.MostPixels)
            {
                throw new RuleException("The scan has too many pixels. Scan the test sheet at 150 to 300 dpi.");
            }

            using var grey = loaded.Colourspace(Enums.Interpretation.Bw);
            using var one = grey.ExtractBand(0);
            return one.Cast(Enums.BandFormat.Uchar).CopyMemory();
        }
        catch (VipsException)
        {
            throw NotSeen();
        }
    }

    /// <summary>
    /// The edges of the paper, to a part of a pixel: a pixel on the edge is as light as the share of it that is paper.
    /// </summary>
    private static (double Left, double Top, double Right, double Bottom) PaperIn(byte[] pixels, int width, int height)
    {
        var (columns, rows) = (new double[width], new double[height]);
        // The outer quarters of the picture have the ground in them: the profile is taken in the middle.
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var light = pixels[(y * width) + x];
                columns[x] += y > height / 4 && y < 3 * height / 4 ? light : 0;
                rows[y] += x > width / 4 && x < 3 * width / 4 ? light : 0;
            }
        }

        var (left, right) = Ends(columns);
        var (top, bottom) = Ends(rows);
        return (left, top, right, bottom);

        static (double First, double Last) Ends(double[] light)
        {
            var (ground, paper) = ((light[0] + light[^1]) / 2, light.Max());
            var full = ground + (0.9 * (paper - ground));
            var (first, last) = (Array.FindIndex(light, l => l >= full), Array.FindLastIndex(light, l => l >= full));
            if (first < 1 || last > light.Length - 2 || last - first < 100 || ground > 0.85 * paper)
            {
                throw NotSeen();
            }

            return (first - Share(light[first - 1]), last + 1 + Share(light[last + 1]));

            double Share(double edge) => Math.Clamp((edge - ground) / (paper - ground), 0, 1);
        }
    }

    private static (double X, double Y) Middle(
        byte[] pixels,
        int width,
        int height,
        double atX,
        double atY,
        double perMmX,
        double perMmY
    )
    {
        var (x0, x1) = ((int)Math.Max(0, atX - (Around * perMmX)), (int)Math.Min(width - 1, atX + (Around * perMmX)));
        var (y0, y1) = ((int)Math.Max(0, atY - (Around * perMmY)), (int)Math.Min(height - 1, atY + (Around * perMmY)));
        var (boxX, boxY) = ((int)(Solid * perMmX), (int)(Solid * perMmY));
        double sumX = 0,
            sumY = 0,
            count = 0;
        for (var y = y0; y + boxY <= y1; y++)
        {
            for (var x = x0; x + boxX <= x1; x++)
            {
                if (IsSolid(x, y))
                {
                    sumX += x + (boxX / 2.0);
                    sumY += y + (boxY / 2.0);
                    count++;
                }
            }
        }

        if (count == 0)
        {
            throw NotSeen();
        }

        // Roughly there; the middle between its edges is exact to a part of a pixel.
        var (roughX, roughY) = (sumX / count, sumY / count);
        return (
            Between(x => Darkness(x, roughY, perMmY, across: true), roughX, perMmX),
            Between(y => Darkness(y, roughX, perMmX, across: false), roughY, perMmY)
        );

        // How dark a column (or row) of the square is, above and below the lines that cross in its middle.
        double Darkness(int at, double other, double perMm, bool across)
        {
            double dark = 0;
            var lines = 0;
            foreach (var side in new[] { -1, 1 })
            {
                for (var mm = 0.8; mm <= 2.2; mm += 0.1)
                {
                    var beside = (int)Math.Round(other + (side * mm * perMm));
                    var (x, y) = across ? (at, beside) : (beside, at);
                    dark += x < 0 || y < 0 || x >= width || y >= height ? 0 : 255 - pixels[(y * width) + x];
                    lines++;
                }
            }

            return dark / lines;
        }

        // Its corners and its middle are dark: a square has many such places, a line or a word none.
        bool IsSolid(int x, int y) =>
            IsDark(x, y)
            && IsDark(x + boxX - 1, y)
            && IsDark(x, y + boxY - 1)
            && IsDark(x + boxX - 1, y + boxY - 1)
            && IsDark(x + (boxX / 3), y + (boxY / 3))
            && IsDark(x + (boxX / 2), y)
            && IsDark(x, y + (boxY / 2));

        bool IsDark(int x, int y) => pixels[(y * width) + x] < Dark;
    }

    /// <summary>The middle between the two places where it gets half as dark as it is.</summary>
    private static double Between(Func<int, double> darkness, double rough, double perMm)
    {
        var (from, to) = ((int)(rough - (4.5 * perMm)), (int)(rough + (4.5 * perMm)));
        var dark = Enumerable.Range(from, to - from + 1).Select(darkness).ToList();
        var half = dark.Max() / 2;
        var (first, last) = (dark.FindIndex(d => d >= half), dark.FindLastIndex(d => d >= half));
        if (first < 1 || last > dark.Count - 2)
        {
            throw NotSeen();
        }

        var left = first - ((dark[first] - half) / Math.Max(1, dark[first] - dark[first - 1]));
        var right = last + ((dark[last] - half) / Math.Max(1, dark[last] - dark[last + 1]));
        // A pixel's middle lies half a pixel from its edge.
        return from + ((left + right) / 2) + 0.5;
    }

    private static Length Mm(double millimetres) => Length.FromMillimetres((decimal)Math.Round(millimetres, 4));

    private static RuleException NotSeen() =>
        new(
            "There is no test sheet to be seen in this scan. Nothing was kept: lay the whole sheet straight on a dark "
                + "ground, its first square at the top left, and scan it at 150 to 300 dpi."
        );
}
