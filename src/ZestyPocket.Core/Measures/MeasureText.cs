using System.Globalization;
using System.Text.RegularExpressions;

namespace ZestyPocket.Core.Measures;

/// <summary>Which system an album shows its measures in.</summary>
public enum MeasureSystem
{
    Inches,
    Millimetres,
}

/// <summary>
/// Reads and writes lengths and sizes as people write them: <c>3x4</c>, <c>4 x 6 in</c>, <c>2 1/2 x 8</c>,
/// <c>6.75x8.25</c>, <c>10x15 cm</c>, <c>101.6 mm</c>. A number without a unit is inches, unless the other side
/// of the size names one. Common practice.
/// </summary>
public static partial class MeasureText
{
    /// <summary>No album page, sheet or pocket is larger than this; larger numbers are slips of the pen.</summary>
    private static readonly Length Largest = Length.FromInches(100);

    /// <summary>Longest text of one length, in characters; what people write has a quarter of that.</summary>
    public const int LongestText = 60;

    [GeneratedRegex(
        """^(?:(?<whole>[0-9]{1,6})[\s-]+)?(?<num>[0-9]{1,6}(?:[.,][0-9]{1,9})?)(?:\s*/\s*(?<den>[0-9]{1,4}))?"""
            + """\s*(?<unit>in(?:ch(?:es)?)?|"|″|mm|cm|pt)?\.?$""",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex LengthPattern();

    [GeneratedRegex(@"^\s*0+([.,]0*)?\s*(mm|cm|in\.?|"")?\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex NothingPattern();

    /// <summary>Reads one length. Throws <see cref="MeasureException"/> with the reason when it is none.</summary>
    public static Length ParseLength(string text) => ParseSide(text, null);

    /// <summary>Reads a length that may be nothing: not written, or 0 with or without a unit.</summary>
    public static Length ParseLengthOrNone(string? text) =>
        string.IsNullOrWhiteSpace(text) || NothingPattern().IsMatch(text) ? Length.Zero : ParseLength(text);

    /// <summary>
    /// Reads a size, width first. Throws <see cref="MeasureException"/> with the reason when it is none.
    /// </summary>
    public static Size ParseSize(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var sides = text.Split(['x', 'X', '×'], StringSplitOptions.TrimEntries);
        if (sides.Length != 2)
        {
            throw new MeasureException($"“{Clip(text)}” is not a size: write width x height, such as 3x4 or 10x15 cm.");
        }

        var unit = UnitOf(sides[1]) ?? UnitOf(sides[0]);
        return new Size(ParseSide(sides[0], unit), ParseSide(sides[1], unit));
    }

    /// <summary>
    /// Shows a length in the album's system: inches as a mixed fraction to 1/16 where exact, else to three
    /// decimals; millimetres to two.
    /// </summary>
    public static string Show(Length length, MeasureSystem system) =>
        system == MeasureSystem.Millimetres ? $"{Decimals(length.Millimetres, 2)} mm" : $"{InchNumber(length)} in";

    /// <summary>Shows a size with its unit once, such as <c>2 1/2 × 8 in</c>.</summary>
    public static string Show(Size size, MeasureSystem system) =>
        system == MeasureSystem.Millimetres
            ? $"{Decimals(size.Width.Millimetres, 1)} × {Decimals(size.Height.Millimetres, 1)} mm"
            : $"{InchNumber(size.Width)} × {InchNumber(size.Height)} in";

    /// <summary>Shows a length so that reading it back gives the very same one, for fields that people edit.</summary>
    public static string Exact(Length length, MeasureSystem system) =>
        system == MeasureSystem.Millimetres ? $"{Decimals(length.Millimetres, 5)} mm" : $"{InchNumber(length, 7)} in";

    /// <summary>Shows a size so that reading it back gives the very same one.</summary>
    public static string Exact(Size size, MeasureSystem system) =>
        system == MeasureSystem.Millimetres
            ? $"{Decimals(size.Width.Millimetres, 5)} × {Decimals(size.Height.Millimetres, 5)} mm"
            : $"{InchNumber(size.Width, 7)} × {InchNumber(size.Height, 7)} in";

    /// <summary>The trade's short name in inches, such as 6x4.</summary>
    public static string ShortName(Size size) => $"{InchNumber(size.Width)}x{InchNumber(size.Height)}";

    private static Length ParseSide(string text, string? unitOfOther)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (Match(text) is not { } match)
        {
            throw new MeasureException(
                $"“{Clip(text)}” is not a length: write a number with in, mm or cm, such as 2 1/2 in or 101.6 mm."
            );
        }

        var number = decimal.Parse(match.Groups["num"].Value.Replace(',', '.'), CultureInfo.InvariantCulture);
        if (match.Groups["den"].Success)
        {
            var denominator = int.Parse(match.Groups["den"].Value, CultureInfo.InvariantCulture);
            if (denominator == 0)
            {
                throw new MeasureException($"“{Clip(text)}” divides by nothing.");
            }

            number /= denominator;
        }
        else if (match.Groups["whole"].Success)
        {
            throw new MeasureException(
                $"“{Clip(text)}” has two numbers: write a fraction such as 2 1/2, or one number."
            );
        }

        if (match.Groups["whole"].Success)
        {
            number += int.Parse(match.Groups["whole"].Value, CultureInfo.InvariantCulture);
        }

        var length = (UnitOf(text) ?? unitOfOther ?? "in") switch
        {
            "mm" => Length.FromMillimetres(number),
            "cm" => Length.FromMillimetres(number * 10),
            "pt" => Length.FromPoints(number),
            _ => Length.FromInches(number),
        };

        if (length <= Length.Zero)
        {
            throw new MeasureException($"“{Clip(text)}” is nothing: a length must be more than zero.");
        }

        return length > Largest
            ? throw new MeasureException($"“{Clip(text)}” is larger than any album page (100 in at most).")
            : length;
    }

    /// <summary>The parts of a length; blanks around it do not count, and a text that is too long is none.</summary>
    private static Match? Match(string text)
    {
        var trimmed = text.Trim();
        return trimmed.Length <= LongestText && LengthPattern().Match(trimmed) is { Success: true } match
            ? match
            : null;
    }

    private static string? UnitOf(string text)
    {
        if (Match(text) is not { } match || !match.Groups["unit"].Success)
        {
            return null;
        }

        var unit = match.Groups["unit"].Value.ToUpperInvariant();
        return unit switch
        {
            "MM" => "mm",
            "CM" => "cm",
            "PT" => "pt",
            _ => "in",
        };
    }

    private static string InchNumber(Length length, int places = 3)
    {
        const long sixteenth = Length.EmuPerInch / 16;
        if (length.Emu % sixteenth != 0)
        {
            return Decimals(length.Inches, places);
        }

        var sixteenths = Math.Abs(length.Emu / sixteenth);
        var sign = length.Emu < 0 ? "-" : string.Empty;
        var (whole, rest) = (sixteenths / 16, sixteenths % 16);
        if (rest == 0)
        {
            return sign + whole.ToString(CultureInfo.InvariantCulture);
        }

        var denominator = 16L;
        while (rest % 2 == 0)
        {
            (rest, denominator) = (rest / 2, denominator / 2);
        }

        return whole == 0 ? $"{sign}{rest}/{denominator}" : $"{sign}{whole} {rest}/{denominator}";
    }

    private static string Decimals(decimal value, int places) =>
        Math.Round(value, places).ToString("0." + new string('#', places), CultureInfo.InvariantCulture);

    private static string Clip(string text) => text.Length <= 40 ? text.Trim() : text[..40].Trim() + "…";
}
