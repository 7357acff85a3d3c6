namespace ZestyPocket.Core.Photos;

/// <summary>A colour in CIE L*a*b* under D65.</summary>
/// <param name="L">Lightness, 0 black to 100 white.</param>
/// <param name="A">Green (negative) to red.</param>
/// <param name="B">Blue (negative) to yellow.</param>
public readonly record struct LabColour(double L, double A, double B)
{
    // White of sRGB (IEC 61966-2-1), D65, two-degree observer.
    private const double WhiteX = 0.95047;
    private const double WhiteZ = 1.08883;

    /// <summary>How far from grey.</summary>
    public double Chroma => Math.Sqrt((A * A) + (B * B));

    /// <summary>The angle of its hue, 0 to 360: 0 red, 90 yellow, 180 green, 270 blue.</summary>
    public double HueDegrees => ((Math.Atan2(B, A) * 180 / Math.PI) + 360) % 360;

    /// <summary>From eight-bit sRGB. Source: IEC 61966-2-1 for sRGB, CIE 15 for L*a*b*.</summary>
    public static LabColour OfSrgb(byte red, byte green, byte blue)
    {
        var (r, g, b) = (Linear(red), Linear(green), Linear(blue));
        var x = ((0.4124564 * r) + (0.3575761 * g) + (0.1804375 * b)) / WhiteX;
        var y = (0.2126729 * r) + (0.7151522 * g) + (0.0721750 * b);
        var z = ((0.0193339 * r) + (0.1191920 * g) + (0.9503041 * b)) / WhiteZ;
        var (fx, fy, fz) = (Curve(x), Curve(y), Curve(z));
        return new LabColour((116 * fy) - 16, 500 * (fx - fy), 200 * (fy - fz));

        static double Curve(double t) => t > 216.0 / 24389 ? Math.Cbrt(t) : ((24389.0 / 27 * t) + 16) / 116;
    }

    /// <summary>Back to eight-bit sRGB, clipped to what the screen can show.</summary>
    public (byte Red, byte Green, byte Blue) ToSrgb()
    {
        var fy = (L + 16) / 116;
        var (x, y, z) = (WhiteX * Back(fy + (A / 500)), Back(fy), WhiteZ * Back(fy - (B / 200)));
        return (
            Byte((3.2404542 * x) - (1.5371385 * y) - (0.4985314 * z)),
            Byte((-0.9692660 * x) + (1.8760108 * y) + (0.0415560 * z)),
            Byte((0.0556434 * x) - (0.2040259 * y) + (1.0572252 * z))
        );

        static double Back(double t) => t * t * t > 216.0 / 24389 ? t * t * t : ((116 * t) - 16) * 27 / 24389;
        static byte Byte(double linear)
        {
            var v = linear <= 0.0031308 ? 12.92 * linear : (1.055 * Math.Pow(linear, 1 / 2.4)) - 0.055;
            return (byte)Math.Clamp((int)Math.Round(v * 255), 0, 255);
        }
    }

    /// <summary>
    /// CIEDE2000 colour difference with all weights 1: under 1 hardly seen, 2 to 3 seen side by side, over 10 another
    /// colour. Source: Sharma, Wu and Dalal, Color Research and Application 30 (2005), 21–30, whose 34 pairs test it.
    /// </summary>
    public double DifferenceTo(LabColour other)
    {
        var (c1, c2) = (Math.Sqrt((A * A) + (B * B)), Math.Sqrt((other.A * other.A) + (other.B * other.B)));
        var mean7 = Math.Pow((c1 + c2) / 2, 7);
        var g = 0.5 * (1 - Math.Sqrt(mean7 / (mean7 + Math.Pow(25, 7))));
        var (a1, a2) = ((1 + g) * A, (1 + g) * other.A);
        var (cp1, cp2) = (Math.Sqrt((a1 * a1) + (B * B)), Math.Sqrt((a2 * a2) + (other.B * other.B)));
        var (h1, h2) = (Hue(a1, B), Hue(a2, other.B));

        var grey = cp1 * cp2 == 0;
        var dh = grey
            ? 0
            : (h2 - h1) switch
            {
                > 180 => h2 - h1 - 360,
                < -180 => h2 - h1 + 360,
                var d => d,
            };
        var (dl, dc) = (other.L - L, cp2 - cp1);
        var dhue = 2 * Math.Sqrt(cp1 * cp2) * Math.Sin(Radians(dh / 2));

        var (l, c) = ((L + other.L) / 2, (cp1 + cp2) / 2);
        var h =
            grey ? h1 + h2
            : Math.Abs(h1 - h2) <= 180 ? (h1 + h2) / 2
            : h1 + h2 < 360 ? (h1 + h2 + 360) / 2
            : (h1 + h2 - 360) / 2;
        var t = 1 - (0.17 * Cos(h - 30)) + (0.24 * Cos(2 * h)) + (0.32 * Cos((3 * h) + 6)) - (0.20 * Cos((4 * h) - 63));
        var (l50, c7) = ((l - 50) * (l - 50), Math.Pow(c, 7));
        var sl = 1 + (0.015 * l50 / Math.Sqrt(20 + l50));
        var (sc, sh) = (1 + (0.045 * c), 1 + (0.015 * c * t));
        var turn =
            -2
            * Math.Sqrt(c7 / (c7 + Math.Pow(25, 7)))
            * Math.Sin(Radians(60 * Math.Exp(-Math.Pow((h - 275) / 25, 2))));
        var (tl, tc, th) = (dl / sl, dc / sc, dhue / sh);
        return Math.Sqrt((tl * tl) + (tc * tc) + (th * th) + (turn * tc * th));

        static double Hue(double a, double b) =>
            a == 0 && b == 0 ? 0 : ((Math.Atan2(b, a) * 180 / Math.PI) + 360) % 360;
        static double Radians(double degrees) => degrees * Math.PI / 180;
        static double Cos(double degrees) => Math.Cos(Radians(degrees));
    }

    private static readonly double[] LinearOf =
    [
        .. Enumerable
            .Range(0, 256)
            .Select(i =>
            {
                var v = i / 255.0;
                return v <= 0.04045 ? v / 12.92 : Math.Pow((v + 0.055) / 1.055, 2.4);
            }),
    ];

    private static double Linear(byte value) => LinearOf[value];
}
