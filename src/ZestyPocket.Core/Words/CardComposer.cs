using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Sets a card of a given cut size in a style: words, rules, bands and patterns.</summary>
public static class CardComposer
{
    private const double BandPt = 10;

    /// <summary>Between a picture on a card and the words around it.</summary>
    private const double PictureGapPt = 7;

    /// <summary>How far a rule lies under the baseline, in ems: the letters stand on it, whatever their face.</summary>
    public const double RuleUnderEm = 0.12;

    /// <summary>Gap between columns.</summary>
    private const double ColumnGapPt = 12;

    /// <summary>A column narrower than this holds too few words a line. Common practice.</summary>
    private const double NarrowestColumnPt = 144;

    /// <summary>How words come out on a card, without drawing it.</summary>
    public static FitOutcome Fit(string words, CardStyle style, Size cut, ITextShaper shaper, bool heading = false)
    {
        ArgumentNullException.ThrowIfNull(style);
        return style.Plan is null
            ? Copyfit.Fit(words, Areas(style, cut, heading), style.Type, shaper)
            : PlannedCard.Fit(words, style, cut, shaper, heading);
    }

    /// <summary>
    /// Where a style has room for words on a card of a size: one area a column, around what its dress and its zones
    /// keep free, under its heading when it has one.
    /// </summary>
    public static ImmutableArray<TypeArea> Areas(CardStyle style, Size cut, bool heading = false)
    {
        ArgumentNullException.ThrowIfNull(style);
        if (style.Plan is not null)
        {
            return Around(style, cut, PlannedCard.Area(style, cut, heading), heading);
        }

        var column = Column(style, cut.Width.Points, cut.Height.Points);
        if (heading)
        {
            var head = HeadingHeight(column);
            column = column with { Y = column.Y + head, Height = Math.Max(0, column.Height - head) };
        }

        return Around(style, cut, column, heading);
    }

    /// <summary>A column around what the style keeps free, in as many columns as the style has.</summary>
    internal static ImmutableArray<TypeArea> Around(CardStyle style, Size cut, TypeArea column, bool heading)
    {
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var obstacles = ImmutableArray.CreateBuilder<Obstacle>();
        switch (style.Dress)
        {
            case CardDress.RisingDisc:
                obstacles.Add(new DiscInTheWay(width / 2, height, RisingRadius(width, height) + 6));
                break;
            case CardDress.CornerTag:
                obstacles.Add(new BoxInTheWay(0, 0, Tag(width, height).Width + 8, Tag(width, height).Height + 6));
                break;
            default:
                break;
        }

        if (Opening(style, cut, heading) is not { } picture)
        {
            // Nothing in the way.
        }
        else if (style.Plan is not null && style.Zones.Picture is PicturePlace.Left or PicturePlace.Right)
        {
            var left = style.Zones.Picture == PicturePlace.Left ? picture.Width + PictureGapPt : 0;
            column = column with
            {
                X = column.X + left,
                Width = Math.Max(0, column.Width - picture.Width - PictureGapPt),
            };
        }
        else
        {
            obstacles.Add(
                new BoxInTheWay(
                    picture.X - PictureGapPt,
                    picture.Y - PictureGapPt,
                    picture.Width + (2 * PictureGapPt),
                    picture.Height + PictureGapPt
                )
            );
        }

        column = column with { Obstacles = obstacles.ToImmutable() };
        var columns = Math.Clamp(
            (int)((column.Width + ColumnGapPt) / (NarrowestColumnPt + ColumnGapPt)),
            1,
            style.Columns
        );
        return column.Columns(columns, ColumnGapPt);
    }

    /// <summary>Where a style has its picture on a card of a size; null when it has none.</summary>
    public static CardOpening? Opening(CardStyle style, Size cut, bool heading = false)
    {
        ArgumentNullException.ThrowIfNull(style);
        if (style.Zones.Picture == PicturePlace.None)
        {
            return null;
        }

        var column = style.Plan is null
            ? Column(style, cut.Width.Points, cut.Height.Points)
            : PlannedCard.Area(style, cut, heading);
        var head = heading && style.Plan is null ? HeadingHeight(column) : 0;
        var (width, height) = (
            column.Width * style.Zones.PictureShare,
            // On composed cards the words stand beside the picture, not around it.
            (column.Height - head)
                * (style.Plan is not null && style.Zones.Picture != PicturePlace.Top ? 1 : style.Zones.PictureShare)
        );
        return style.Zones.Picture switch
        {
            PicturePlace.Top => new CardOpening(column.X, column.Y + head, column.Width, height),
            PicturePlace.Right => new CardOpening(column.X + column.Width - width, column.Y + head, width, height),
            _ => new CardOpening(column.X, column.Y + head, width, height),
        };
    }

    /// <summary>
    /// A card of typed or computed words, with a heading when its kind has one, and with a date or hour where the style
    /// has a place for it.
    /// </summary>
    public static CardFace Journaling(
        string words,
        CardStyle style,
        Size cut,
        ITextShaper shaper,
        string? heading = null,
        string? mark = null
    )
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(shaper);
        if (style.Plan is not null)
        {
            return PlannedCard.Words(words, style, cut, shaper, heading, mark);
        }

        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var fit = Fit(words, style, cut, shaper, heading is not null);
        var runs = fit
            .Lines.Where(line => line.Text.Length > 0)
            .Select(line => TypeRun.Of(line, style.Type.Face, fit.SizePt, style.Ink));
        var rules = style.Ruled ? fit.Slots.Select(s => RuleUnder(s, fit.SizePt, style.Accent)) : [];
        var dress = Dress(style, width, height);
        return dress with
        {
            Boxes = IsTagged(mark, style, width)
                ? dress.Boxes.Add(new InkBox(0, 0, Tag(width, height).Width, Tag(width, height).Height, style.Accent))
                : dress.Boxes,
            Runs = [.. Heading(), .. Mark(mark, style, cut, fit, shaper), .. runs],
            Rules = [.. dress.Rules, .. rules],
            Fit = fit,
            Opening = Opening(style, cut, heading is not null),
        };

        IEnumerable<TypeRun> Heading()
        {
            if (heading is null)
            {
                return [];
            }

            var column = Column(style, width, height);
            var head = new TypeArea(column.X, column.Y, column.Width, HeadingHeight(column));
            var set = Copyfit.Fit(
                heading.ToUpperInvariant(),
                [head],
                new TypeRange(Typeface.SansStrong, 5, 9, 1),
                shaper
            );
            var ink = Readable(style.Accent, style.Paper, style.Ink);
            return set.Lines.Select(l => TypeRun.Of(l, Typeface.SansStrong, set.SizePt, ink));
        }
    }

    /// <summary>The line that words stand on, at their place.</summary>
    internal static InkLine RuleUnder(LineSlot slot, double sizePt, Rgb ink)
    {
        var y = slot.Baseline + (sizePt * RuleUnderEm);
        return new InkLine(slot.X, y, slot.X + slot.Width, y, 0.5, ink);
    }

    /// <summary>
    /// A card to be written by hand: its heading and dress, lines at the hand's pitch, no words. The fit says how many
    /// words it holds in that hand; its size is 0.
    /// </summary>
    public static CardFace ByHand(
        string words,
        CardStyle style,
        Size cut,
        HandCapacity hand,
        ITextShaper shaper,
        string? heading = null,
        string? mark = null
    )
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(hand);
        var empty = Journaling(string.Empty, style with { Ruled = false }, cut, shaper, heading, mark);
        var slots = HandSlots(style, cut, hand, heading is not null);
        var holds = HandHolds(slots, hand);
        var count = Copyfit.CountWords(words);
        // A pale ink of the paper's own tone: lines to write on, not to look at.
        var ink =
            Rgb.Contrast(style.Accent, style.Paper) < 2
                ? style.Accent
                : new Rgb(
                    (byte)((style.Ink.R + (2 * style.Paper.R)) / 3),
                    (byte)((style.Ink.G + (2 * style.Paper.G)) / 3),
                    (byte)((style.Ink.B + (2 * style.Paper.B)) / 3)
                );
        return empty with
        {
            Rules =
            [
                .. empty.Rules,
                .. slots.Select(s => new InkLine(s.X, s.Baseline, s.X + s.Width, s.Baseline, 0.5, ink)),
            ],
            Fit = new FitOutcome(
                0,
                hand.LinePitch.Points,
                [],
                slots,
                count,
                Math.Max(0, count - holds),
                words?.Length ?? 0
            ),
        };
    }

    /// <summary>How many lines a card of a style has for a hand, and how many words they hold.</summary>
    public static (int Lines, int Words) HandRoom(CardStyle style, Size cut, HandCapacity hand, bool heading = false)
    {
        var slots = HandSlots(style, cut, hand, heading);
        return (slots.Length, HandHolds(slots, hand));
    }

    private static int HandHolds(ImmutableArray<LineSlot> slots, HandCapacity hand) =>
        (int)Math.Floor(slots.Sum(s => s.Width) / 72 * hand.WordsPerInch);

    /// <summary>The lines that a hand writes on: none shorter than half an inch.</summary>
    private static ImmutableArray<LineSlot> HandSlots(CardStyle style, Size cut, HandCapacity hand, bool heading)
    {
        ArgumentNullException.ThrowIfNull(hand);
        return
        [
            .. Areas(style, cut, heading)
                .SelectMany(
                    (area, a) =>
                        Enumerable
                            .Range(1, (int)(area.Height / hand.LinePitch.Points))
                            .Select(i =>
                            {
                                var line = area.Y + (i * hand.LinePitch.Points);
                                var (x, width) = area.Slot(line - hand.LinePitch.Points, line);
                                return new LineSlot(x, line, width, a);
                            })
                )
                .Where(s => s.Width >= 36),
        ];
    }

    /// <summary>
    /// The date or hour, where the style has a place for it: past the indent, in the band, or on the tag.
    /// </summary>
    private static IEnumerable<TypeRun> Mark(
        string? mark,
        CardStyle style,
        Size cut,
        FitOutcome fit,
        ITextShaper shaper
    )
    {
        if (string.IsNullOrWhiteSpace(mark))
        {
            return [];
        }

        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var (inset, zones) = (Inset(style, width, height), style.Zones);
        TypeArea place;
        var paper = style.Paper;
        if (IndentPt(style, width) is > 0 and var indent)
        {
            var column = Column(style, width, height);
            var first = fit.Slots.IsEmpty ? column.Y + 12 : fit.Slots[0].Baseline;
            var beside = Copyfit.Fit(mark, indent - 4, 40, new TypeRange(Typeface.SansStrong, 5, 11, 1.1), shaper);
            var besideInk = Readable(style.Accent, paper, style.Ink);
            return beside.Lines.Select(
                (l, i) =>
                    TypeRun.Of(l, Typeface.SansStrong, beside.SizePt, besideInk) with
                    {
                        X = column.X - indent,
                        Baseline = first + (i * beside.LeadingPt),
                    }
            );
        }

        if (zones.Band != BandPlace.None && zones.BandPrinted)
        {
            var band = BandPtOf(style, height);
            place = new TypeArea(
                inset,
                zones.Band == BandPlace.Head ? inset * 0.7 : height - (inset * 0.7) - band,
                width - (2 * inset),
                band
            );
        }
        else if (IsTagged(mark, style, width))
        {
            var tag = Tag(width, height);
            place = new TypeArea(5, 3, tag.Width - 8, tag.Height - 5);
            paper = style.Accent;
        }
        else
        {
            return [];
        }

        var set = Copyfit.Fit(mark, [place], new TypeRange(Typeface.SansStrong, 5, 12, 1.1), shaper);
        var ink =
            style.Dress == CardDress.CornerTag && paper == style.Accent
                ? Rgb.Contrast(style.Paper, paper) >= Rgb.Contrast(style.Ink, paper)
                    ? style.Paper
                    : style.Ink
                : Readable(style.Accent, paper, style.Ink);
        return set.Lines.Select(l => TypeRun.Of(l, Typeface.SansStrong, set.SizePt, ink));
    }

    /// <summary>A tag is there for a date or hour; a card without one has none.</summary>
    private static bool IsTagged(string? mark, CardStyle style, double width) =>
        style.Dress == CardDress.CornerTag
        && !string.IsNullOrWhiteSpace(mark)
        && IndentPt(style, width) <= 0
        && (style.Zones.Band == BandPlace.None || !style.Zones.BandPrinted);

    /// <summary>The accent is a colour for areas; as ink it may be too pale.</summary>
    internal static Rgb Readable(Rgb accent, Rgb paper, Rgb otherwise) =>
        Rgb.Contrast(accent, paper) >= PhotoWords.ReadableContrast ? accent : otherwise;

    /// <summary>
    /// Distance of words from the cut: a margin never takes more than an eighth of the card each side, and clears the
    /// border.
    /// </summary>
    private static double Inset(CardStyle style, double width, double height) =>
        Math.Max(Math.Min(style.Margin.Points, Math.Min(width, height) / 8), style.BorderPt + 4);

    private static double BandPtOf(CardStyle style, double height) =>
        style.Zones.Band == BandPlace.None ? 0 : Math.Min(style.Zones.BandHeight.Points, height / 4);

    private static double IndentPt(CardStyle style, double width) => Math.Min(style.Zones.Indent.Points, width / 3);

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

    /// <summary>The title card of one day: weekday, number, month and year, computed, never typed.</summary>
    public static CardFace DayTitle(LocalDate day, CardStyle style, Size cut, ITextShaper shaper) =>
        Title(
            day.ToString("dddd", CultureInfo.InvariantCulture).ToUpperInvariant(),
            day.Day.ToString(CultureInfo.InvariantCulture),
            day.ToString("MMMM uuuu", CultureInfo.InvariantCulture),
            style,
            cut,
            shaper
        );

    /// <summary>A title card: a small line over a large one, and a line at the foot.</summary>
    public static CardFace Title(string over, string large, string foot, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(shaper);
        if (style.Plan is not null)
        {
            return PlannedTitle.Of(over, large, foot, style, cut, shaper);
        }

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

        return Dress(style, width, height) with
        {
            Runs = runs.ToImmutable(),
            Fit = spanFit,
        };

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
                runs.Add(TypeRun.Of(line, face, fit.SizePt, ink) with { X = column.X + line.X, Baseline = baseline });
                baseline += fit.LeadingPt;
            }

            y += Used(fit, face);
        }
    }

    /// <summary>A filler card: a pattern that covers the whole card.</summary>
    public static CardFace Filler(CardStyle style, Size cut, int seed = FillerPatterns.FirstSeed)
    {
        ArgumentNullException.ThrowIfNull(style);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var dress = Dress(style, width, height);
        return style.PatternKey is { } pattern
            ? dress with
            {
                Shapes = FillerPatterns.Of(pattern, style, width, height, seed),
            }
            : dress;
    }

    /// <summary>
    /// What stands for a keepsake on the screen and on the drawn page: it goes in itself and is never printed.
    /// </summary>
    public static CardFace KeepsakeNote(string name, Size cut, ITextShaper shaper)
    {
        var style = BuiltInCardStyles.Plain;
        return Journaling(name, style with { Dress = CardDress.Frame }, cut, shaper);
    }

    internal static TypeArea Column(CardStyle style, double width, double height)
    {
        ArgumentNullException.ThrowIfNull(style);
        // Twelve 2x2 pockets leave little room.
        var inset = Inset(style, width, height);
        var band = BandPtOf(style, height);
        var left = inset + (style.Dress == CardDress.EdgeBand ? BandPt : 0) + IndentPt(style, width);
        var top =
            inset + (style.Dress == CardDress.TopBand ? BandPt : 0) + (style.Zones.Band == BandPlace.Head ? band : 0);
        var foot = inset + (style.Zones.Band == BandPlace.Foot ? band : 0);
        return new TypeArea(left, top, Math.Max(0, width - left - inset), Math.Max(0, height - top - foot));
    }

    internal static CardFace Dress(CardStyle style, double width, double height)
    {
        var boxes = ImmutableArray.CreateBuilder<InkBox>();
        var rules = ImmutableArray.CreateBuilder<InkLine>();
        var discs = ImmutableArray.CreateBuilder<InkDisc>();
        var inset = Inset(style, width, height);
        switch (style.Dress)
        {
            case CardDress.EdgeBand:
                boxes.Add(new InkBox(0, 0, BandPt, height, style.Accent));
                break;
            case CardDress.TopBand:
                boxes.Add(new InkBox(0, 0, width, BandPt, style.Accent));
                break;
            case CardDress.Frame:
                var frame = inset * 0.55;
                foreach (
                    var (x1, y1, x2, y2) in new[]
                    {
                        (frame, frame, width - frame, frame),
                        (frame, height - frame, width - frame, height - frame),
                        (frame, frame, frame, height - frame),
                        (width - frame, frame, width - frame, height - frame),
                    }
                )
                {
                    rules.Add(new InkLine(x1, y1, x2, y2, 0.75, style.Accent));
                }

                break;
            case CardDress.RisingDisc:
                discs.Add(new InkDisc(width / 2, height, RisingRadius(width, height), 0, style.Accent));
                break;
            case CardDress.HeadAndFoot:
                var edge = inset;
                rules.Add(new InkLine(edge, edge * 0.6, width - edge, edge * 0.6, 1.25, style.Accent));
                rules.Add(
                    new InkLine(edge, height - (edge * 0.6), width - edge, height - (edge * 0.6), 1.25, style.Accent)
                );
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

        if (style.Zones.Band != BandPlace.None)
        {
            var y =
                style.Zones.Band == BandPlace.Head
                    ? inset + BandPtOf(style, height) - 5
                    : height - inset - BandPtOf(style, height) + 5;
            rules.Add(new InkLine(inset, y, width - inset, y, 0.75, style.Accent));
        }

        return new CardFace(
            width,
            height,
            style.Paper,
            boxes.ToImmutable(),
            rules.ToImmutable(),
            discs.ToImmutable(),
            [],
            null
        )
        {
            Corner = Math.Min(style.Corner.Points, Math.Min(width, height) / 4),
            Border = style.BorderPt > 0 ? new CardBorder(style.BorderPt, style.Accent) : null,
        };
    }
}
