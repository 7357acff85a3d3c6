using System.Collections.Immutable;
using System.Drawing;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>Colours in words: read as people write them, and named as people say them.</summary>
public static class ColourWords
{
    /// <summary>Under this a colour has no hue to speak of. A choice of this program.</summary>
    public const double GreyChroma = 10;

    /// <summary>
    /// Up to five colours, each alike: a hash with six digits, or a name of the CSS colours (W3C, CSS Color Module
    /// Level 4, named colours). Throws <see cref="RuleException"/> for a name that is not known.
    /// </summary>
    public static ImmutableArray<PaletteColour> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var colours = text.Split([',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(One)
            .Distinct()
            .ToList();
        return colours.Count <= PictureJudging.PaletteSize
            ? [.. colours.Select(c => new PaletteColour(c.R, c.G, c.B, Math.Round(1.0 / colours.Count, 4)))]
            : throw new RuleException(
                $"An item has at most {PictureJudging.PaletteSize} colours: leave the small ones away. Nothing was "
                    + "changed."
            );
    }

    /// <summary>What people call it, such as <c>dark teal</c>.</summary>
    public static string NameOf(PaletteColour colour)
    {
        var lab = colour.Lab;
        if (lab.Chroma < GreyChroma)
        {
            return lab.L switch
            {
                > 92 => "white",
                > 70 => "light grey",
                > 40 => "grey",
                > 18 => "dark grey",
                _ => "black",
            };
        }

        var hue = lab.HueDegrees switch
        {
            < 15 or >= 345 => lab.L > 65 ? "pink" : "red",
            < 45 => lab.L > 72 ? "peach" : "red",
            < 72 => lab.L < 50 ? "brown" : "orange",
            < 100 => lab.L < 55 ? "brown" : "yellow",
            < 165 => "green",
            < 225 => "teal",
            < 312 => "blue",
            _ => "purple",
        };
        return hue is "brown" or "peach" or "pink" ? hue
            : lab.L > 78 ? $"light {hue}"
            : lab.L < 32 ? $"dark {hue}"
            : hue;
    }

    private static Rgb One(string word)
    {
        if (word.StartsWith('#'))
        {
            return Rgb.Read(word.ToLowerInvariant());
        }

        var named = Color.FromName(word.Replace(" ", "", StringComparison.Ordinal));
        return named is { IsKnownColor: true, IsSystemColor: false, A: 255 }
            ? new Rgb(named.R, named.G, named.B)
            : throw new RuleException(
                $"“{word}” is no colour that is known. Write a common name, such as teal, or #2f8f83. Nothing was "
                    + "changed."
            );
    }
}
