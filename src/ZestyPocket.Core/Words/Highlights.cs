namespace ZestyPocket.Core.Words;

/// <summary>Marks words on a card as with a broad pen: a box of the accent's tint behind them.</summary>
internal static class Highlights
{
    /// <summary>How far the pen goes over the words at their sides, in ems.</summary>
    private const double SideEm = 0.12;

    public static IEnumerable<InkBox> Of(string words, FitOutcome fit, CardStyle style, ITextShaper shaper)
    {
        if (style.Highlight is not { Length: > 0 } marked || !fit.Fits)
        {
            yield break;
        }

        var ink = Pen(style);
        var metrics = shaper.Metrics(style.Type.Face);
        for (
            var at = words.IndexOf(marked, StringComparison.OrdinalIgnoreCase);
            at >= 0;
            at = words.IndexOf(marked, at + marked.Length, StringComparison.OrdinalIgnoreCase)
        )
        {
            foreach (var line in fit.Lines)
            {
                var (from, until) = (
                    Math.Max(0, at - line.Start),
                    Math.Min(line.Text.Length, at + marked.Length - line.Start)
                );
                if (from >= until || until <= 0)
                {
                    continue;
                }

                var ends = shaper.Shape(style.Type.Face, line.Text).Ends;
                var (left, right) = (ends[from], ends[until]);
                yield return new InkBox(
                    line.X + ((left - SideEm) * fit.SizePt),
                    line.Baseline - (metrics.Ascent * fit.SizePt * 0.82),
                    (right - left + (2 * SideEm)) * fit.SizePt,
                    (metrics.Ascent * 0.82 + metrics.Descent * 0.8) * fit.SizePt,
                    ink
                );
            }
        }
    }

    /// <summary>As much of the accent as leaves the words readable (WCAG 2.2, 1.4.3).</summary>
    private static Rgb Pen(CardStyle style)
    {
        for (var share = 0.6; share > 0.1; share -= 0.1)
        {
            var pen = Ornaments.Mix(style.Accent, style.Paper, share);
            if (Rgb.Contrast(style.Ink, pen) >= CardTint.LeastContrast)
            {
                return pen;
            }
        }

        return Ornaments.Mix(style.Accent, style.Paper, 0.1);
    }
}
