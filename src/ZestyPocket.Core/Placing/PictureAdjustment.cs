using System.Collections.Immutable;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// How a print differs from its picture: turned level, lighter or darker, without colour. The original stays as it is.
/// </summary>
/// <param name="Straighten">Degrees clockwise, -15 to 15; the corners that come up empty are cropped away.</param>
/// <param name="Lighter">How much lighter on the whole, in CIE L*, -12 to 12.</param>
public sealed record PictureAdjustment(double Straighten = 0, double Lighter = 0, bool BlackAndWhite = false)
{
    public const double MostDegrees = 15;

    /// <summary>More than this is seen as another picture. A choice of this program.</summary>
    public const double MostLighter = 12;

    public static PictureAdjustment None { get; } = new();

    internal bool IsNone => this == None;

    /// <summary>Throws <see cref="RuleException"/> when a value is out of its range.</summary>
    public PictureAdjustment Checked()
    {
        if (!(Math.Abs(Straighten) <= MostDegrees))
        {
            throw new RuleException(
                $"A picture is straightened by at most {MostDegrees} degrees either way. Nothing was changed."
            );
        }

        return !(Math.Abs(Lighter) <= MostLighter)
            ? throw new RuleException(
                $"A picture is made lighter or darker by at most {MostLighter} steps. Nothing was changed."
            )
            : this with
            {
                Straighten = Math.Round(Straighten, 1),
                Lighter = Math.Round(Lighter, 1),
            };
    }

    /// <summary>
    /// What to raise L* (as a share of 100) to, so that black stays black, white stays white, and the mean of the
    /// picture becomes lighter by about <see cref="Lighter"/>.
    /// </summary>
    /// <param name="tone">Mean L* of the picture.</param>
    public double Gamma(double tone)
    {
        var mean = Math.Clamp(tone, 5, 95);
        return Lighter == 0 ? 1 : Math.Log(Math.Clamp(mean + Lighter, 2, 98) / 100) / Math.Log(mean / 100);
    }

    /// <summary>The picture as it will be printed, for whatever weighs its tone and colours.</summary>
    public DeskPhoto On(DeskPhoto photo)
    {
        ArgumentNullException.ThrowIfNull(photo);
        var gamma = Gamma(photo.Tone);
        return IsNone
            ? photo
            : photo with
            {
                Tone = Math.Clamp(photo.Tone + Lighter, 0, 100),
                Palette = [.. photo.Palette.Select(Adjusted)],
                Colourfulness = BlackAndWhite ? 0 : photo.Colourfulness,
            };

        PaletteColour Adjusted(PaletteColour colour)
        {
            var lab = colour.Lab;
            var light = 100 * Math.Pow(Math.Clamp(lab.L, 0, 100) / 100, gamma);
            var (r, g, b) = new LabColour(light, BlackAndWhite ? 0 : lab.A, BlackAndWhite ? 0 : lab.B).ToSrgb();
            return new PaletteColour(r, g, b, colour.Share);
        }
    }
}

/// <summary>
/// Brings the light of pictures that lie together nearer to each other: half-way to their middle, never by much, and
/// pictures that are dark or light by nature are left alone. Common practice; the numbers are this program's choice.
/// </summary>
public static class MatchedLight
{
    /// <summary>A picture is moved by at most so many steps of L*.</summary>
    public const double Most = 6;

    /// <summary>Nobody sees less.</summary>
    public const double Unseen = 4;

    /// <summary>A picture so far from the others is meant to be dark or light: a night, snow.</summary>
    public const double ByNature = 30;

    /// <summary>How much lighter each picture is to be, in the order given; 0 for one that is left alone.</summary>
    /// <param name="tones">Mean L* of the originals.</param>
    public static ImmutableArray<double> Of(IReadOnlyList<double> tones)
    {
        ArgumentNullException.ThrowIfNull(tones);
        if (tones.Count < 2)
        {
            return [.. tones.Select(_ => 0.0)];
        }

        var ordered = tones.Order().ToList();
        var middle = (ordered[(ordered.Count - 1) / 2] + ordered[ordered.Count / 2]) / 2;
        return
        [
            .. tones.Select(tone =>
                Math.Abs(middle - tone) is > ByNature or < Unseen
                    ? 0
                    : Math.Round(Math.Clamp((middle - tone) / 2, -Most, Most), 1)
            ),
        ];
    }
}
