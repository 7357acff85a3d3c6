using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Title cards of styles that have a <see cref="CardPlan"/>: a small line, a large one, and a line at the foot.
/// </summary>
internal static class PlannedTitle
{
    private const double LargestLabelPt = 15;

    /// <summary>Numerals have no descenders: about how high they are, in ems.</summary>
    private const double NumeralEm = 0.72;

    public static CardFace Of(string over, string large, string foot, CardStyle style, Size cut, ITextShaper shaper)
    {
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var body = CardComposer.Column(style, width, height);
        var parts = style.Plan!.Title switch
        {
            TitlePlan.InWords => InWords(over, large, foot, style, body, shaper),
            TitlePlan.RunningOff => RunningOff(over, large, foot, style, body, cut, shaper),
            TitlePlan.OverScene => AtTop(over, large, foot, style, body, 0.46, shaper),
            TitlePlan.ByHand => AtTop(over, large, foot, style, body, 0.6, shaper),
            _ => Stacked(over, large, foot, style, body, shaper),
        };
        var dress = CardComposer.Dress(style, width, height);
        return dress with
        {
            Shapes = [.. Scene(style, width, height, body)],
            Numerals = parts.Numerals,
            Runs = parts.Runs,
            Rules = [.. dress.Rules, .. parts.Rules],
            Fit = parts.Fit,
        };
    }

    private sealed record Parts(ImmutableArray<TypeRun> Runs, FitOutcome Fit)
    {
        public ImmutableArray<TypeRun> Numerals { get; init; } = [];

        public ImmutableArray<InkLine> Rules { get; init; } = [];
    }

    private static IEnumerable<InkShape> Scene(CardStyle style, double width, double height, TypeArea body)
    {
        var free = body with
        {
            Y = height * 0.56,
            Height = Math.Max(0, (height * 0.44) - (height - body.Y - body.Height)),
        };
        return style.Plan!.Title switch
        {
            TitlePlan.InWords => [Ornaments.Frame(style, width, height)],
            TitlePlan.OverScene => Ornaments.Harbour(style, width, height, new(free, Over: false)),
            TitlePlan.OnSquares => Ornaments.Squares(style, width, height),
            TitlePlan.ByHand when free.Height >= 30 => [Ornaments.Stem(style, free)],
            TitlePlan.OverSegment => Ornaments.Segment(style, width, height, free),
            _ => [],
        };
    }

    /// <summary>Label, number in words, a rule with a disc, span: all centred.</summary>
    private static Parts InWords(
        string over,
        string large,
        string foot,
        CardStyle style,
        TypeArea body,
        ITextShaper shaper
    )
    {
        var words = NumberWords.InFull(large) ?? large;
        var span = Line(foot, Typeface.BookSerif, 13, body, 0.2, shaper);
        var label = PlannedCard.Tracked(over.ToLowerInvariant(), style.Plan!.Label, 12, style.Ink, body.Width, shaper);
        var number = Copyfit.Fit(words, body.Width * 0.92, body.Height * 0.34, style.Type, shaper);
        var middle = body.Y + (body.Height * 0.46);
        var metrics = shaper.Metrics(style.Type.Face);
        var baseline = middle - ((number.Lines.Length - 1) * number.LeadingPt);
        var runs = Centred(number, style.Type.Face, style.Ink, body, baseline).ToList();
        if (label is { } l)
        {
            var y = Math.Max(body.Y + l.Run.SizePt, baseline - (metrics.Ascent * number.SizePt * 0.8) - 6);
            runs.Add(l.Run with { X = body.X + ((body.Width - l.Width) / 2), Baseline = y });
        }

        var rule = middle + (body.Height * 0.13);
        var half = Math.Min(46, body.Width * 0.3);
        var centre = body.X + (body.Width / 2);
        runs.AddRange(Centred(span, Typeface.BookSerif, style.Ink, body, rule + (body.Height * 0.14)));
        return new([.. runs], span)
        {
            Rules =
            [
                new InkLine(centre - half, rule, centre - 6, rule, 0.8, style.Accent),
                new InkLine(centre + 6, rule, centre + half, rule, 0.8, style.Accent),
                new InkLine(centre - 2, rule, centre + 2, rule, 4, style.Accent),
            ],
        };
    }

    /// <summary>Label and span at the top; numerals as wide as the card that run off its foot.</summary>
    private static Parts RunningOff(
        string over,
        string large,
        string foot,
        CardStyle style,
        TypeArea body,
        Size cut,
        ITextShaper shaper
    )
    {
        var label = PlannedCard.Tracked(
            over,
            style.Plan!.Label,
            Math.Min(22, body.Height * 0.14),
            style.Ink,
            body.Width,
            shaper
        );
        var labelSize = label?.Run.SizePt ?? 0;
        var top = body.Y + (labelSize * 0.8);
        var span = Copyfit.Fit(
            foot,
            body.Width,
            Math.Max(8, body.Height * 0.2),
            new TypeRange(style.Plan.Label, 6, Math.Max(6, Math.Min(13, labelSize * 0.62)), 1.15),
            shaper
        );
        var runs = new List<TypeRun>();
        if (label is { } l)
        {
            runs.Add(l.Run with { X = body.X, Baseline = top });
        }

        runs.AddRange(At(span, style.Plan.Label, style.Ink, body.X, top + 3));
        var end = top + 3 + (span.Lines.Length * span.LeadingPt) + 4;
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var em = shaper.Shape(style.Type.Face, large).Ends[^1];
        var size = Math.Min((height - end) / (NumeralEm * 0.94), width * 1.4 / em);
        return new([.. runs], span)
        {
            Numerals =
            [
                new TypeRun(
                    style.Type.Face,
                    size,
                    -size * 0.05,
                    height + (size * NumeralEm * 0.06),
                    large,
                    CardComposer.Readable(style.Accent, style.Paper, style.Ink)
                ),
            ],
        };
    }

    /// <summary>The title as large as the upper part holds, the span under it.</summary>
    private static Parts AtTop(
        string over,
        string large,
        string foot,
        CardStyle style,
        TypeArea body,
        double share,
        ITextShaper shaper
    )
    {
        var title = large.Any(char.IsLetter) ? large : $"{over[..1]}{over[1..].ToLowerInvariant()} {large}";
        var room = body.Height * share;
        var span = Line(foot, style.Plan!.Label, 12, body, share * 0.42, shaper);
        var set = Copyfit.Fit(
            title,
            body.Width,
            Math.Max(8, room - Used(span, style.Plan.Label, shaper) - 4),
            style.Type,
            shaper
        );
        var runs = At(set, style.Type.Face, style.Ink, body.X, body.Y).ToList();
        var y = body.Y + Used(set, style.Type.Face, shaper) + 4;
        runs.AddRange(At(span, style.Plan.Label, style.Ink, body.X, y));
        return new([.. runs], span);
    }

    /// <summary>Label, numerals, span under a rule.</summary>
    private static Parts Stacked(
        string over,
        string large,
        string foot,
        CardStyle style,
        TypeArea body,
        ITextShaper shaper
    )
    {
        var ink = CardComposer.Readable(style.Accent, style.Paper, style.Ink);
        var label = Line(over, style.Plan!.Label, LargestLabelPt, body, 0.14, shaper);
        var span = Line(foot, style.Plan.Label, 11, body, 0.22, shaper);
        var (head, tail) = (Used(label, style.Plan.Label, shaper), Used(span, style.Plan.Label, shaper));
        var room = Math.Max(8, body.Height - head - tail - 14);
        var number = Copyfit.Fit(large, body.Width * 0.92, room, style.Type, shaper);
        var runs = At(label, style.Plan.Label, style.Ink, body.X, body.Y).ToList();
        runs.AddRange(At(number, style.Type.Face, ink, body.X, body.Y + head));
        var y = body.Y + body.Height - tail;
        runs.AddRange(At(span, style.Plan.Label, style.Ink, body.X, y));
        return new([.. runs], span)
        {
            Rules = [new InkLine(body.X, y - 4, body.X + (body.Width * 0.5), y - 4, 0.8, style.Accent)],
        };
    }

    /// <summary>
    /// A label or a span of dates. A date is not parted: the second line of a span begins with its second date, where
    /// the type need not be the smallest for it.
    /// </summary>
    private static FitOutcome Line(
        string text,
        Typeface face,
        double largestPt,
        TypeArea body,
        double share,
        ITextShaper shaper
    )
    {
        const char noBreak = '\u00A0';
        var type = new TypeRange(face, 6, largestPt, 1.25);
        var whole = text.Replace(' ', noBreak).Replace($"–{noBreak}", "– ", StringComparison.Ordinal);
        var fit = Copyfit.Fit(whole, body.Width, body.Height * share, type, shaper);
        return fit.Fits && fit.SizePt > type.SmallestPt
            ? fit with
            {
                Lines = [.. fit.Lines.Select(l => l with { Text = l.Text.Replace(noBreak, ' ') })],
            }
            : Copyfit.Fit(text, body.Width, body.Height * share, type, shaper);
    }

    private static double Used(FitOutcome fit, Typeface face, ITextShaper shaper)
    {
        var metrics = shaper.Metrics(face);
        return fit.Lines.Length == 0
            ? 0
            : ((metrics.Ascent + metrics.Descent) * fit.SizePt) + ((fit.Lines.Length - 1) * fit.LeadingPt);
    }

    /// <summary>Lines at the left from a height on.</summary>
    private static IEnumerable<TypeRun> At(FitOutcome fit, Typeface face, Rgb ink, double x, double y) =>
        fit.Lines.Select(l => TypeRun.Of(l, face, fit.SizePt, ink) with { X = x + l.X, Baseline = y + l.Baseline });

    /// <summary>Lines in the middle of the body, the first one on a baseline.</summary>
    private static IEnumerable<TypeRun> Centred(
        FitOutcome fit,
        Typeface face,
        Rgb ink,
        TypeArea body,
        double baseline
    ) =>
        fit.Lines.Select(
            (l, i) =>
                TypeRun.Of(l, face, fit.SizePt, ink) with
                {
                    X = body.X + ((body.Width - l.Width) / 2),
                    Baseline = baseline + (i * fit.LeadingPt),
                }
        );
}
