using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Sets a card of a given cut size in a style: words, rules, bands and patterns.</summary>
public static class CardComposer
{
    private const double BandPt = 10;

    /// <summary>Gap between columns.</summary>
    private const double ColumnGapPt = 12;

    /// <summary>A column narrower than this holds too few words a line. Common practice.</summary>
    private const double NarrowestColumnPt = 144;

    /// <summary>How words come out on a card, without drawing it.</summary>
    public static FitOutcome Fit(string words, CardStyle style, Size cut, ITextShaper shaper, bool heading = false) =>
        Copyfit.Fit(words, Areas(style, cut, heading), style.Type, shaper);

    /// <summary>
    /// Where a style has room for words on a card of a size: one area a column, around what its dress puts in the way,
    /// under its heading when it has one.
    /// </summary>
    public static ImmutableArray<TypeArea> Areas(CardStyle style, Size cut, bool heading = false)
    {
        ArgumentNullException.ThrowIfNull(style);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var column = Column(style, width, height);
        if (heading)
        {
            var head = HeadingHeight(column);
            column = column with { Y = column.Y + head, Height = Math.Max(0, column.Height - head) };
        }

        Obstacle? inTheWay = style.Dress switch
        {
            CardDress.RisingDisc => new DiscInTheWay(width / 2, height, RisingRadius(width, height) + 6),
            CardDress.CornerTag => new BoxInTheWay(0, 0, Tag(width, height).Width + 8, Tag(width, height).Height + 6),
            _ => null,
        };
        if (inTheWay is not null)
        {
            column = column with { Obstacles = [inTheWay] };
        }

        var columns = Math.Clamp((int)((column.Width + ColumnGapPt) / (NarrowestColumnPt + ColumnGapPt)), 1, style.Columns);
        return column.Columns(columns, ColumnGapPt);
    }

    /// <summary>A card of typed or computed words, with a heading when its kind has one.</summary>
    public static CardFace Journaling(string words, CardStyle style, Size cut, ITextShaper shaper, string? heading = null)
    {
        ArgumentNullException.ThrowIfNull(shaper);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var fit = Fit(words, style, cut, shaper, heading is not null);
        var runs = fit.Lines
            .Where(line => line.Text.Length > 0)
            .Select(line => new TypeRun(style.Type.Face, fit.SizePt, line.X, line.Baseline, line.Text, style.Ink));
        var rules = style.Dress == CardDress.Ruled ? fit.Slots.Select(Rule) : [];
        var dress = Dress(style, width, height);
        return dress with { Runs = [.. Heading(), .. runs], Rules = [.. dress.Rules, .. rules], Fit = fit };

        InkLine Rule(LineSlot slot)
        {
            var y = slot.Baseline + (fit.SizePt * 0.22);
            return new InkLine(slot.X, y, slot.X + slot.Width, y, 0.5, style.Accent);
        }

        IEnumerable<TypeRun> Heading()
        {
            if (heading is null)
            {
                return [];
            }

            var column = Column(style, width, height);
            var head = new TypeArea(column.X, column.Y, column.Width, HeadingHeight(column));
            var set = Copyfit.Fit(heading.ToUpperInvariant(), [head], new TypeRange(Typeface.SansStrong, 5, 9, 1), shaper);
            // The accent is a colour for areas; as ink it may be too pale.
            var ink = Rgb.Contrast(style.Accent, style.Paper) >= 4.5 ? style.Accent : style.Ink;
            return set.Lines.Select(l => new TypeRun(Typeface.SansStrong, set.SizePt, l.X, l.Baseline, l.Text, ink));
        }
    }

    /// <summary>
    /// A card to be written by hand: its heading and dress, lines at the hand's pitch, no words. The fit says how many
    /// words it holds in that hand; its size is 0.
    /// </summary>
    public static CardFace ByHand(string words, CardStyle style, Size cut, HandCapacity hand, ITextShaper shaper, string? heading = null)
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(hand);
        var empty = Journaling(string.Empty, style with { Dress = style.Dress == CardDress.Ruled ? CardDress.Plain : style.Dress }, cut, shaper, heading);
        var slots = Areas(style, cut, heading is not null).SelectMany((area, a) => Enumerable.Range(1, (int)(area.Height / hand.LinePitch.Points)).Select(i =>
        {
            var line = area.Y + (i * hand.LinePitch.Points);
            var (x, width) = area.Slot(line - hand.LinePitch.Points, line);
            return new LineSlot(x, line, width, a);
        })).Where(s => s.Width >= 36).ToImmutableArray();
        var holds = (int)Math.Floor(slots.Sum(s => s.Width) / 72 * hand.WordsPerInch);
        var count = Copyfit.CountWords(words);
        // A pale ink of the paper's own tone: lines to write on, not to look at.
        var ink = Rgb.Contrast(style.Accent, style.Paper) < 3 ? style.Accent : new Rgb((byte)((style.Ink.R + (2 * style.Paper.R)) / 3), (byte)((style.Ink.G + (2 * style.Paper.G)) / 3), (byte)((style.Ink.B + (2 * style.Paper.B)) / 3));
        return empty with
        {
            Rules = [.. empty.Rules, .. slots.Select(s => new InkLine(s.X, s.Baseline, s.X + s.Width, s.Baseline, 0.5, ink))],
            Fit = new FitOutcome(0, hand.LinePitch.Points, [], slots, count, Math.Max(0, count - holds), words?.Length ?? 0),
        };
    }

    private static double HeadingHeight(TypeArea column) => Math.Min(18, column.Height / 4);

    private static double RisingRadius(double width, double height) => Math.Min(width, height) * 0.3;

    private static (double Width, double Height) Tag(double width, double height) =>
        (Math.Min(58, width / 3), Math.Min(26, height / 5));

    /// <summary>
    /// The title card of a unit: the number large, the span under it, both computed from its dates, never typed.
    /// </summary>
    public static CardFace UnitTitle(UnitDates unit, DateStyle dates, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(unit);
        var span = unit.Name is null ? unit.Span(dates) : $"{unit.Name} · {unit.Span(dates)}";
        var (over, large) = unit.Kind switch
        {
            UnitKind.Week => (unit.IsMerged ? "WEEKS" : "WEEK", unit.Numbers),
            UnitKind.Hour => ("AT", (unit with { Name = null }).Title(dates)),
            _ => (unit.IsMerged ? "DAYS" : "DAY", unit.Numbers),
        };
        return Title(over, large, span, style, cut, shaper);
    }

    /// <summary>A title card: a small line over a large one, and a line at the foot.</summary>
    public static CardFace Title(string over, string large, string foot, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(shaper);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var column = Column(style, width, height);

        var kicker = new TypeRange(Typeface.SansStrong, 6, 13, 1.1);
        var kickerFit = Copyfit.Fit(over, column.Width, column.Height * 0.16, kicker, shaper);
        var spanFit = Copyfit.Fit(foot, column.Width, column.Height * 0.26, new(Typeface.Sans, 6, 16, 1.25), shaper);
        var numberRoom = column.Height - (Used(kickerFit, kicker.Face) + Used(spanFit, Typeface.Sans)) - 6;
        var numberFit = Copyfit.Fit(large, column.Width, Math.Max(8, numberRoom), style.Type, shaper);

        var runs = ImmutableArray.CreateBuilder<TypeRun>();
        var y = column.Y;
        Put(kickerFit, kicker.Face, Rgb.Contrast(style.Accent, style.Paper) >= 3 ? style.Accent : style.Ink);
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

    private static TypeArea Column(CardStyle style, double width, double height)
    {
        ArgumentNullException.ThrowIfNull(style);
        // Twelve 2x2 pockets leave little room: a margin never takes more than an eighth of the card each side.
        var margin = Math.Min(style.Margin.Points, Math.Min(width, height) / 8);
        var left = style.Dress == CardDress.EdgeBand ? margin + BandPt : margin;
        var top = style.Dress == CardDress.TopBand ? margin + BandPt : margin;
        return new TypeArea(left, top, width - left - margin, height - top - margin);
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
            case CardDress.RisingDisc:
                discs.Add(new InkDisc(width / 2, height, RisingRadius(width, height), 0, style.Accent));
                break;
            case CardDress.HeadAndFoot:
                var edge = Math.Min(style.Margin.Points, Math.Min(width, height) / 8);
                rules.Add(new InkLine(edge, edge * 0.6, width - edge, edge * 0.6, 1.25, style.Accent));
                rules.Add(new InkLine(edge, height - (edge * 0.6), width - edge, height - (edge * 0.6), 1.25, style.Accent));
                break;
            case CardDress.CornerTag:
                boxes.Add(new InkBox(0, 0, Tag(width, height).Width, Tag(width, height).Height, style.Accent));
                break;
            case CardDress.Crosses:
                for (var y = 10.0; y < height + 10; y += 20)
                {
                    for (var x = 10.0; x < width + 10; x += 20)
                    {
                        rules.Add(new InkLine(x - 3, y, x + 3, y, 0.75, style.Accent));
                        rules.Add(new InkLine(x, y - 3, x, y + 3, 0.75, style.Accent));
                    }
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
