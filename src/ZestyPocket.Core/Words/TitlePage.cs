using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>A title page for an album or a volume: its name large, its numbers below, a band of its colours.</summary>
public static class TitlePage
{
    /// <summary>How much of the page the name takes, from the top.</summary>
    private const double NameShare = 0.62;

    /// <summary>What the numbers are set in at most.</summary>
    private static readonly TypeRange Numbers = new(Typeface.Sans, 8, 24, 1.45);

    /// <param name="years">Such as <c>2026</c>; stands under the name.</param>
    /// <param name="lines">What it came to, a line each; may be empty.</param>
    /// <param name="colours">Of its pictures with their shares, the largest first; may be empty.</param>
    public static CardFace Of(
        string name,
        string years,
        IReadOnlyList<string> lines,
        IReadOnlyList<(Rgb Colour, double Share)> colours,
        CardStyle style,
        Size size,
        ITextShaper shaper
    )
    {
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(colours);
        ArgumentNullException.ThrowIfNull(style);
        var (width, height) = (size.Width.Points, size.Height.Points);
        var nameHeight = Math.Round(height * NameShare, 3);
        var title = CardComposer.Title(
            string.Empty,
            name,
            years,
            style,
            new Size(size.Width, Length.FromPoints((decimal)nameHeight)),
            shaper
        );
        var margin = width * 0.08;
        var band = colours.Count == 0 ? 0 : height * 0.035;
        var bandAt = height - margin - band;
        var room = bandAt - nameHeight - (margin / 2);
        var fit = Copyfit.Fit(string.Join('\n', lines), width - (2 * margin), room, Numbers, shaper);
        var total = colours.Sum(c => c.Share);
        var boxes = ImmutableArray.CreateBuilder<InkBox>();
        var x = margin;
        foreach (var (colour, share) in colours)
        {
            var wide = (width - (2 * margin)) * (total > 0 ? share / total : 1.0 / colours.Count);
            boxes.Add(new InkBox(x, bandAt, wide, band, colour));
            x += wide;
        }

        return title with
        {
            Height = height,
            Boxes = [.. title.Boxes, .. boxes],
            Runs =
            [
                .. title.Runs,
                .. fit.Lines.Select(l =>
                    TypeRun.Of(
                        l with
                        {
                            X = l.X + margin,
                            Baseline = l.Baseline + nameHeight,
                        },
                        Numbers.Face,
                        fit.SizePt,
                        style.Ink
                    )
                ),
            ],
            Fit = fit,
        };
    }
}
