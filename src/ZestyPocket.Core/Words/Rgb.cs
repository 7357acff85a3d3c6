using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>An sRGB colour of paper or ink.</summary>
public readonly record struct Rgb(byte R, byte G, byte B)
{
    /// <summary>Reads <c>#rrggbb</c>.</summary>
    public static Rgb Hex(string hex)
    {
        ArgumentNullException.ThrowIfNull(hex);
        var number = int.Parse(hex.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture);
        return new Rgb((byte)(number >> 16), (byte)(number >> 8), (byte)number);
    }

    /// <summary>
    /// Contrast ratio of two colours, 1 to 21. Source: WCAG 2.2, definitions of contrast ratio and relative luminance.
    /// </summary>
    public static double Contrast(Rgb a, Rgb b)
    {
        var (high, low) = (Math.Max(a.Luminance, b.Luminance), Math.Min(a.Luminance, b.Luminance));
        return (high + 0.05) / (low + 0.05);
    }

    private double Luminance => (0.2126 * Linear(R)) + (0.7152 * Linear(G)) + (0.0722 * Linear(B));

    private static double Linear(byte channel)
    {
        var c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
    }
}
