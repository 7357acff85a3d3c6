using System.Collections.Immutable;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Colours that the cards of a unit take from its pictures: every card keeps how light its paper, ink and accent are
/// and takes the hues. So all cards of a spread have one tint, and dark cards stay dark.
/// </summary>
/// <param name="Main">Hue of paper and ink.</param>
/// <param name="Accent">Hue of what stands out.</param>
public sealed record CardTint(Rgb Main, Rgb Accent)
{
    /// <summary>Least contrast of ink on paper. Source: WCAG 2.2, success criterion 1.4.3.</summary>
    public const double LeastContrast = 4.5;

    /// <summary>An accent differs from its paper by at least this much (CIEDE2000), or it would not be seen.</summary>
    public const double AccentApart = 15;

    /// <summary>Less chroma than this in all of a palette is grey to the eye.</summary>
    private const double GreyChroma = 7;

    /// <summary>More chroma than this is a colour of its own, not the tone of a paper or an ink.</summary>
    private const double StrongChroma = 28;

    private const double PaperChroma = 11;

    private const double InkChroma = 20;

    private const double AccentChroma = 58;

    /// <summary>The picture it was taken from; null when it was taken from all.</summary>
    public Guid? PhotoId { get; init; }

    /// <summary>The tint of a palette; null when its pictures are grey.</summary>
    public static CardTint? From(ImmutableArray<PaletteColour> palette)
    {
        var coloured = palette.Where(c => c.Lab.Chroma >= GreyChroma).ToList();
        if (coloured.Count == 0)
        {
            return null;
        }

        // What stands out is strong, neither nearly black nor nearly white, and a small share of it is enough.
        var accent = coloured.MaxBy(c => c.Lab.Chroma * Math.Pow(c.Share, 0.25) * (c.Lab.L is > 25 and < 88 ? 1 : 0.4));
        var main = coloured
            .Where(c => c.Lab.DifferenceTo(accent.Lab) >= AccentApart)
            .OrderByDescending(c => c.Share)
            .Select(c => (PaletteColour?)c)
            .FirstOrDefault();
        return new CardTint(Ink(main ?? accent), Ink(accent));

        static Rgb Ink(PaletteColour colour) => new(colour.Red, colour.Green, colour.Blue);
    }

    /// <summary>
    /// A style in these colours. Ink on paper has a contrast of at least <see cref="LeastContrast"/>, an accent differs
    /// from the paper by at least <see cref="AccentApart"/>.
    /// </summary>
    public CardStyle On(CardStyle style)
    {
        ArgumentNullException.ThrowIfNull(style);
        var paper = Turned(Lab(style.Paper), PaperChroma);
        var ink = WithContrast(Turned(Lab(style.Ink), InkChroma), paper);
        var accent = Apart(Turned(Lab(style.Accent), AccentChroma, accent: true), paper);
        return style with { Paper = Shown(paper), Ink = Shown(ink), Accent = Shown(accent) };
    }

    /// <summary>A colour as light as it was, in the hue of the pictures.</summary>
    private LabColour Turned(LabColour own, double most, bool accent = false)
    {
        var strong = accent || own.Chroma > StrongChroma;
        var hue = Lab(strong ? Accent : Main);
        if (hue.Chroma < 1)
        {
            return own with { A = 0, B = 0 };
        }

        var chroma = strong ? Math.Clamp(hue.Chroma, 18, AccentChroma) : Math.Min(most, hue.Chroma * 0.5);
        return InGamut(own.L, hue.A / hue.Chroma, hue.B / hue.Chroma, chroma);
    }

    /// <summary>The strongest colour of a hue and lightness that sRGB can show, up to a chroma.</summary>
    private static LabColour InGamut(double lightness, double a, double b, double chroma)
    {
        for (var c = chroma; c > 0; c -= 1)
        {
            var colour = new LabColour(lightness, a * c, b * c);
            if (Lab(Shown(colour)).DifferenceTo(colour) < 1)
            {
                return colour;
            }
        }

        return new LabColour(lightness, 0, 0);
    }

    private static LabColour WithContrast(LabColour ink, LabColour paper)
    {
        var under = Shown(paper);
        var darker = under.Luminance > 0.18;
        for (var l = ink.L; l is >= 0 and <= 100; l += darker ? -1 : 1)
        {
            var tried = ink.Chroma < 1 ? new(l, 0, 0) : InGamut(l, ink.A / ink.Chroma, ink.B / ink.Chroma, ink.Chroma);
            if (Rgb.Contrast(Shown(tried), under) >= LeastContrast)
            {
                return tried;
            }
        }

        return new LabColour(darker ? 0 : 100, 0, 0);
    }

    private static LabColour Apart(LabColour accent, LabColour paper)
    {
        var step = paper.L > 50 ? -2 : 2;
        for (var l = accent.L; l is > 2 and < 98; l += step)
        {
            var tried = InGamut(l, accent.A / accent.Chroma, accent.B / accent.Chroma, accent.Chroma);
            if (Lab(Shown(tried)).DifferenceTo(Lab(Shown(paper))) >= AccentApart)
            {
                return tried;
            }
        }

        return new LabColour(paper.L > 50 ? 20 : 85, 0, 0);
    }

    private static LabColour Lab(Rgb colour) => LabColour.OfSrgb(colour.R, colour.G, colour.B);

    private static Rgb Shown(LabColour colour)
    {
        var (r, g, b) = colour.ToSrgb();
        return new Rgb(r, g, b);
    }
}
