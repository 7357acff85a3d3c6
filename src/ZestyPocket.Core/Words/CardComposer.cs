using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Sets a card of a given cut size in a style: words, rules, bands and patterns.</summary>
public static class CardComposer
{
    private const double BandPt = 10;

    /// <summary>A typed journaling card.</summary>
    public static CardFace Journaling(string words, CardStyle style, Size cut, ITextShaper shaper)
    {
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var column = Column(style, width, height);
        var fit = Copyfit.Fit(words, column.Width, column.Height, style.Type, shaper);
        var firstBaseline = column.Y + (shaper.Metrics(style.Type.Face).Ascent * fit.SizePt);
        var runs = fit.Lines
            .Select((line, i) => new TypeRun(
                style.Type.Face, fit.SizePt, column.X, firstBaseline + (i * fit.LeadingPt), line.Text, style.Ink))
            .Where(run => run.Text.Length > 0);
        var rules = style.Dress == CardDress.Ruled
            ? Enumerable.Range(0, fit.LinesThatFit).Select(i => Rule(i))
            : [];
        var dress = Dress(style, width, height);
        return dress with { Runs = [.. runs], Rules = [.. dress.Rules, .. rules], Fit = fit };

        InkLine Rule(int line)
        {
            var y = firstBaseline + (line * fit.LeadingPt) + (fit.SizePt * 0.22);
            return new InkLine(column.X, y, column.X + column.Width, y, 0.5, style.Accent);
        }
    }

    /// <summary>
    /// The title card of a unit: the number large, the span under it, both computed from its dates, never typed.
    /// </summary>
    public static CardFace UnitTitle(UnitDates unit, DateStyle dates, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(unit);
        ArgumentNullException.ThrowIfNull(shaper);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var column = Column(style, width, height);
        var span = unit.Name is null ? unit.Span(dates) : $"{unit.Name} · {unit.Span(dates)}";
        var (over, large) = unit.Kind switch
        {
            UnitKind.Week => (unit.IsMerged ? "WEEKS" : "WEEK", unit.Numbers),
            UnitKind.Hour => ("AT", (unit with { Name = null }).Title(dates)),
            _ => (unit.IsMerged ? "DAYS" : "DAY", unit.Numbers),
        };

        var kicker = new TypeRange(Typeface.SansStrong, 6, 13, 1.1);
        var kickerFit = Copyfit.Fit(over, column.Width, column.Height * 0.16, kicker, shaper);
        var spanFit = Copyfit.Fit(span, column.Width, column.Height * 0.26, new(Typeface.Sans, 6, 16, 1.25), shaper);
        var numberRoom = column.Height - (Used(kickerFit, kicker.Face) + Used(spanFit, Typeface.Sans)) - 6;
        var numberFit = Copyfit.Fit(large, column.Width, Math.Max(8, numberRoom), style.Type, shaper);

        var runs = ImmutableArray.CreateBuilder<TypeRun>();
        var y = column.Y;
        Put(kickerFit, kicker.Face, style.Accent);
        Put(numberFit, style.Type.Face, style.Ink);
        y = column.Y + column.Height - Used(spanFit, Typeface.Sans);
        Put(spanFit, Typeface.Sans, style.Ink);

        return Dress(style, width, height) with { Runs = runs.ToImmutable(), Fit = spanFit };

        double Used(FitOutcome fit, Typeface face)
        {
            var metrics = shaper.Metrics(face);
            return fit.Lines.Length == 0
                ? 0
                : ((metrics.Ascent + metrics.Descent) * fit.SizePt) + ((fit.Lines.Length - 1) * fit.LeadingPt);
        }

        void Put(FitOutcome fit, Typeface face, Rgb ink)
        {
            var baseline = y + (shaper.Metrics(face).Ascent * fit.SizePt);
            foreach (var line in fit.Lines)
            {
                runs.Add(new TypeRun(face, fit.SizePt, column.X, baseline, line.Text, ink));
                baseline += fit.LeadingPt;
            }

            y += Used(fit, face);
        }
    }

    /// <summary>A filler card: a pattern that covers the whole card.</summary>
    public static CardFace Filler(CardStyle style, Size cut) => Dress(style, cut.Width.Points, cut.Height.Points);

    /// <summary>What stands for a keepsake on the screen and on the drawn page: it goes in itself and is never printed.</summary>
    public static CardFace KeepsakeNote(string name, Size cut, ITextShaper shaper)
    {
        var style = BuiltInCardStyles.Find("plain-sans", CardKind.Journaling);
        return Journaling(name, style with { Dress = CardDress.Frame }, cut, shaper);
    }

    private readonly record struct ColumnBox(double X, double Y, double Width, double Height);

    private static ColumnBox Column(CardStyle style, double width, double height)
    {
        ArgumentNullException.ThrowIfNull(style);
        // Twelve 2x2 pockets leave little room: a margin never takes more than an eighth of the card each side.
        var margin = Math.Min(style.Margin.Points, Math.Min(width, height) / 8);
        var left = style.Dress == CardDress.EdgeBand ? margin + BandPt : margin;
        var top = style.Dress == CardDress.TopBand ? margin + BandPt : margin;
        return new ColumnBox(left, top, width - left - margin, height - top - margin);
    }

    private static CardFace Dress(CardStyle style, double width, double height)
    {
        var boxes = ImmutableArray.CreateBuilder<InkBox>();
        var rules = ImmutableArray.CreateBuilder<InkLine>();
        var discs = ImmutableArray.CreateBuilder<InkDisc>();
        switch (style.Dress)
        {
            case CardDress.EdgeBand:
                boxes.Add(new InkBox(0, 0, BandPt, height, style.Accent));
                break;
            case CardDress.TopBand:
                boxes.Add(new InkBox(0, 0, width, BandPt, style.Accent));
                break;
            case CardDress.Frame:
                var inset = Math.Min(style.Margin.Points, Math.Min(width, height) / 8) * 0.55;
                foreach (var (x1, y1, x2, y2) in new[]
                {
                    (inset, inset, width - inset, inset),
                    (inset, height - inset, width - inset, height - inset),
                    (inset, inset, inset, height - inset),
                    (width - inset, inset, width - inset, height - inset),
                })
                {
                    rules.Add(new InkLine(x1, y1, x2, y2, 0.75, style.Accent));
                }

                break;
            case CardDress.Dots:
                for (var (y, row) = (9.0, 0); y < height + 9; y += 15.6, row++)
                {
                    for (var x = row % 2 == 0 ? 9.0 : 18.0; x < width + 9; x += 18)
                    {
                        discs.Add(new InkDisc(x, y, 3, 0, style.Accent));
                    }
                }

                break;
            case CardDress.Stripes:
                for (var x = -height; x < width; x += 18)
                {
                    rules.Add(new InkLine(x, height + 9, x + height + 18, -9, 6, style.Accent));
                }

                break;
            case CardDress.Segments:
                for (var (y, row) = (0.0, 0); y < height + 36; y += 36, row++)
                {
                    for (var x = row % 2 == 0 ? 0.0 : 36.0; x < width + 36; x += 72)
                    {
                        discs.Add(new InkDisc(x, y, 33, 1.5, style.Accent));
                        discs.Add(new InkDisc(x, y, 22, 1.5, style.Accent));
                        discs.Add(new InkDisc(x, y, 11, 1.5, style.Accent));
                    }
                }

                break;
            default:
                break;
        }

        return new CardFace(width, height, style.Paper, boxes.ToImmutable(), rules.ToImmutable(), discs.ToImmutable(), [], null);
    }
}
