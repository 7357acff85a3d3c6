using System.Buffers;
using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>An sRGB colour of paper or ink.</summary>
public readonly record struct Rgb(byte R, byte G, byte B)
{
    private static readonly SearchValues<char> HexDigits = SearchValues.Create("0123456789abcdefABCDEF");

    /// <summary>Reads <c>#rrggbb</c>.</summary>
    public static Rgb Hex(string hex)
    {
        ArgumentNullException.ThrowIfNull(hex);
        var number = int.Parse(hex.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture);
        return new Rgb((byte)(number >> 16), (byte)(number >> 8), (byte)number);
    }

    /// <summary>Reads a colour that somebody chose. Throws <see cref="RuleException"/> when it is none.</summary>
    public static Rgb Read(string text) =>
        text is { Length: 7 } && text[0] == '#' && text.AsSpan(1).IndexOfAnyExcept(HexDigits) < 0
            ? Hex(text)
            : throw new RuleException($"“{text}” is not a colour. Write it as #2b2622. Nothing was changed.");

    /// <summary>As <c>#rrggbb</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"#{R:x2}{G:x2}{B:x2}");

    /// <summary>
    /// Contrast ratio of two colours, 1 to 21. Source: WCAG 2.2, definitions of contrast ratio and relative luminance.
    /// </summary>
    public static double Contrast(Rgb a, Rgb b)
    {
        var (high, low) = (Math.Max(a.Luminance, b.Luminance), Math.Min(a.Luminance, b.Luminance));
        return (high + 0.05) / (low + 0.05);
    }

    /// <summary>Relative luminance, 0 to 1. Source: WCAG 2.2.</summary>
    public double Luminance => (0.2126 * Linear(R)) + (0.7152 * Linear(G)) + (0.0722 * Linear(B));

    private static double Linear(byte channel)
    {
        var c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
    }
}
