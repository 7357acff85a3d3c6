using System.Globalization;

namespace ZestyPocket.Core.Measures;

/// <summary>
/// An exact length, held as a whole number of EMU (English Metric Units): 914,400 to the inch, 36,000 to the
/// millimetre, 12,700 to the point, so that 1/32 in, millimetres and points are all exact.
/// Source: ECMA-376 (Office Open XML), DrawingML; 1 in = 25.4 mm exactly.
/// </summary>
/// <param name="Emu">The length in EMU; may be negative (an offset).</param>
public readonly record struct Length(long Emu) : IComparable<Length>
{
    public const long EmuPerInch = 914_400;
    public const long EmuPerMillimetre = 36_000;
    public const long EmuPerPoint = 12_700;

    public static Length Zero => default;

    /// <summary>Inches to the nearest EMU; exact for every multiple of 1/32 in.</summary>
    public static Length FromInches(decimal inches) => Rounded(inches * EmuPerInch);

    /// <summary>A vulgar fraction of an inch, such as 5/8.</summary>
    public static Length FromInches(int numerator, int denominator) =>
        Rounded((decimal)numerator / denominator * EmuPerInch);

    /// <summary>Millimetres to the nearest EMU; exact to 1/1000 mm and finer.</summary>
    public static Length FromMillimetres(decimal millimetres) => Rounded(millimetres * EmuPerMillimetre);

    /// <summary>Printer's points (1/72 in) to the nearest EMU.</summary>
    public static Length FromPoints(decimal points) => Rounded(points * EmuPerPoint);

    public decimal Inches => (decimal)Emu / EmuPerInch;

    public decimal Millimetres => (decimal)Emu / EmuPerMillimetre;

    /// <summary>The length in points as a drawing surface takes it.</summary>
    public double Points => (double)Emu / EmuPerPoint;

    public static Length operator +(Length a, Length b) => new(a.Emu + b.Emu);

    public static Length operator -(Length a, Length b) => new(a.Emu - b.Emu);

    public static Length operator -(Length a) => new(-a.Emu);

    public static Length operator *(Length a, int n) => new(a.Emu * n);

    public static Length operator *(int n, Length a) => new(a.Emu * n);

    /// <summary>Half, a third and so on, rounded towards zero to a whole EMU (28 millionths of a millimetre).</summary>
    public static Length operator /(Length a, int n) => new(a.Emu / n);

    /// <summary>How many times the other fits into this one; the other is not nothing.</summary>
    public double RatioTo(Length other) => (double)Emu / other.Emu;

    /// <summary>So many times as long, to the nearest EMU.</summary>
    public Length Times(double factor) => Rounded((decimal)(Emu * factor));

    public static Length Abs(Length length) => new(Math.Abs(length.Emu));

    public static bool operator <(Length a, Length b) => a.Emu < b.Emu;

    public static bool operator >(Length a, Length b) => a.Emu > b.Emu;

    public static bool operator <=(Length a, Length b) => a.Emu <= b.Emu;

    public static bool operator >=(Length a, Length b) => a.Emu >= b.Emu;

    public static Length Min(Length a, Length b) => a <= b ? a : b;

    public static Length Max(Length a, Length b) => a >= b ? a : b;

    public int CompareTo(Length other) => Emu.CompareTo(other.Emu);

    public override string ToString() => MeasureText.Show(this, MeasureSystem.Inches);

    private static Length Rounded(decimal emu)
    {
        if (Math.Abs(emu) > long.MaxValue / 4m)
        {
            throw new MeasureException(
                $"{emu.ToString("0", CultureInfo.InvariantCulture)} EMU is not a length that fits on any page."
            );
        }

        return new Length((long)Math.Round(emu, MidpointRounding.AwayFromZero));
    }
}
