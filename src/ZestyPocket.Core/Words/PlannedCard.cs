using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Composes cards of styles that have a <see cref="CardPlan"/>: the largest type that fits, lines of even length, the
/// words where the plan has them, and its ornament in the room they leave.
/// </summary>
internal static class PlannedCard
{
    /// <summary>Labels and running heads, in points.</summary>
    private const double LabelPt = 9;

    private const double SmallestLabelPt = 6;

    /// <summary>Space after each capital of a label, in ems. Common practice: 5 to 15 hundredths.</summary>
    private const double LabelTracking = 0.08;

    /// <summary>Type larger than this is set as a title is: lines of one length, the last one too.</summary>
    internal const double DisplayPt = 15;

    /// <summary>Where the words of a card may stand.</summary>
    public static TypeArea Area(CardStyle style, Size cut, bool heading)
    {
        var body = Body(style, cut);
        var head = HeadHeight(style, body, heading);
        return body with
        {
            Y = body.Y + head,
            Height = Math.Max(0, body.Height - head - FootHeight(style, body)),
            MeasureEm = style.Plan!.MeasureEm,
            LeadingByMeasure = true,
        };
    }

    /// <summary>How words come out; the same lines are printed.</summary>
    public static FitOutcome Fit(string words, CardStyle style, Size cut, ITextShaper shaper, bool heading)
    {
        if (style.Role == StyleRole.Rows && PlannedRows.Of(words, style, Area(style, cut, heading), shaper) is { } rows)
        {
            return rows.Fit;
        }

        style = ForSize(style, cut);
        var said = style.Role == StyleRole.Quote ? QuoteWords.Of(words).Said : words;
        var area = Area(style, cut, heading);
        var areas = CardComposer.Around(style, cut, area, heading);
        var fit = Copyfit.Fit(said, areas, style.Type, shaper);
        if (said.Length < words.Length && fit.Fits)
        {
            fit = fit with { Words = Copyfit.CountWords(words), CutAt = words.Length };
        }
        else if (said.Length < words.Length)
        {
            fit = fit with
            {
                Words = Copyfit.CountWords(words),
                WordsOver = Copyfit.CountWords(words.AsSpan(fit.CutAt)),
            };
        }

        fit = Shaped(said, fit, style, areas, shaper);
        return Hang(
            Placed(WithDropCapital(said, fit, style, areas, shaper), style, areas, shaper),
            style,
            areas,
            shaper
        );
    }

    /// <summary>
    /// Lines of even length. Display type gives way a little, down to two thirds of the largest size that fits,
    /// where its lines get a better shape by it: fewer that hold one word, and all near to one length.
    /// </summary>
    private static FitOutcome Shaped(
        string words,
        FitOutcome fit,
        CardStyle style,
        ImmutableArray<TypeArea> areas,
        ITextShaper shaper
    )
    {
        var display = fit.SizePt > DisplayPt;
        var best = LineBalance.Improve(words, fit, style.Type, shaper, style.Role == StyleRole.Quote || display);
        if (!display || !fit.Fits || fit.Lines.Length < 2)
        {
            return best;
        }

        var cost = Shapelessness(best);
        var least = Math.Max(Math.Max(DisplayPt, style.Type.SmallestPt), fit.SizePt * 0.66);
        for (var size = Smaller(fit.SizePt); size >= least; size = Smaller(size))
        {
            var type = style.Type with { SmallestPt = size, LargestPt = size };
            var other = Copyfit.Fit(words, areas, type, shaper);
            if (!other.Fits)
            {
                continue;
            }

            other = LineBalance.Improve(words, other, type, shaper, even: true) with { CutAt = fit.CutAt };
            var otherCost = Shapelessness(other) + (SmallerCosts * (1 - (size / fit.SizePt)));
            if (otherCost < cost - 1e-9)
            {
                (best, cost) = (other, otherCost);
            }
        }

        return best;

        static double Smaller(double size) => Math.Floor(size * 0.96 / TypeRange.StepPt) * TypeRange.StepPt;
    }

    /// <summary>What it costs to give up all of the size, against the shape of the lines.</summary>
    private const double SmallerCosts = 0.5;

    private const double SingleWordCosts = 0.4;

    private static double Shapelessness(FitOutcome fit)
    {
        var longest = fit.Lines.Max(l => l.Width);
        return fit.Lines.Length < 2 || longest <= 0
            ? 0
            : fit.Lines.Sum(l =>
                ((1 - (l.Width / longest)) * (1 - (l.Width / longest)))
                + (Copyfit.CountWords(l.Text) == 1 ? SingleWordCosts : 0)
            ) / fit.Lines.Length;
    }

    /// <summary>
    /// Display type as large as suits the card: on a small one a few words are not shouted, on a large one not lost. In
    /// points for each inch of its shorter side; a choice of this program.
    /// </summary>
    internal static CardStyle ForSize(CardStyle style, Size cut)
    {
        var inches = Math.Min(cut.Width.Points, cut.Height.Points) / 72;
        var largest = inches * (style.Role == StyleRole.Quote ? 14 : 10.5);
        return largest >= style.Type.LargestPt
            ? style
            : style with
            {
                Type = style.Type with { LargestPt = Math.Max(style.Type.SmallestPt, largest) },
            };
    }

    public static CardFace Words(
        string words,
        CardStyle style,
        Size cut,
        ITextShaper shaper,
        string? heading,
        string? mark
    )
    {
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var fit = Fit(words, style, cut, shaper, heading is not null);
        var body = Body(style, cut);
        var runs = new List<TypeRun>(Head(style, body, heading, mark, shaper));
        var rules = new List<InkLine>(HeadRules(style, body, heading));
        var shapes = new List<InkShape>(
            Ornaments.Of(style, width, height, RoomLeft(fit, style, cut, heading is not null, shaper))
        );
        if (
            style.Role == StyleRole.Rows
            && PlannedRows.Of(words, style, Area(style, cut, heading is not null), shaper) is { } rows
        )
        {
            runs.AddRange(rows.Runs);
            rules.AddRange(rows.Rules);
            shapes.AddRange(rows.Shapes);
        }
        else
        {
            runs.AddRange(
                fit.Lines.Where(l => l.Text.Length > 0)
                    .Select(l => TypeRun.Of(l, style.Type.Face, fit.SizePt, style.Ink))
            );
            runs.AddRange(Capital(words, fit, style, shaper));
            rules.AddRange(
                style.Ruled ? fit.Slots.Select(s => CardComposer.RuleUnder(s, fit.SizePt, style.Accent)) : []
            );
        }

        if (style.Role == StyleRole.Quote && QuoteWords.Of(words) is { Who.Length: > 0 } quote)
        {
            runs.AddRange(Foot(quote.Who, style, body, shaper));
        }

        var dress = CardComposer.Dress(style, width, height);
        return dress with
        {
            Boxes = [.. dress.Boxes, .. Highlights.Of(words, fit, style, shaper)],
            Shapes = [.. shapes],
            Numerals = [.. QuoteMark(style, body, fit, shaper)],
            Runs = [.. runs],
            Rules = [.. dress.Rules, .. rules],
            Fit = fit,
            Opening = CardComposer.Opening(style, cut, heading is not null),
        };
    }

    private static TypeArea Body(CardStyle style, Size cut) =>
        CardComposer.Column(style, cut.Width.Points, cut.Height.Points);

    private static double HeadHeight(CardStyle style, TypeArea body, bool heading) =>
        style.Plan!.Head switch
        {
            HeadPlan.RunningHead => Math.Min(24, body.Height * 0.2),
            HeadPlan.Label => Math.Min(heading && style.Role == StyleRole.Rows ? 40 : 20, body.Height * 0.22),
            _ => heading && style.Role != StyleRole.Quote ? Math.Min(44, body.Height * 0.24) : 0,
        };

    /// <summary>Who said a quote stands at its foot.</summary>
    private static double FootHeight(CardStyle style, TypeArea body) =>
        style.Role == StyleRole.Quote ? Math.Min(20, body.Height * 0.16) : 0;

    /// <summary>Heading and mark over the words.</summary>
    private static IEnumerable<TypeRun> Head(
        CardStyle style,
        TypeArea body,
        string? heading,
        string? mark,
        ITextShaper shaper
    )
    {
        var plan = style.Plan!;
        var height = HeadHeight(style, body, heading is not null);
        var ink = CardComposer.Readable(style.Accent, style.Paper, style.Ink);
        if (height <= 0)
        {
            yield break;
        }

        if (plan.Head == HeadPlan.Heading || (plan.Head == HeadPlan.Label && height > 20 && heading is not null))
        {
            var set = Copyfit.Fit(
                heading!,
                body.Width,
                height - 4,
                new TypeRange(plan.Large, SmallestLabelPt, 24, 1.05),
                shaper
            );
            foreach (var line in set.Lines)
            {
                yield return TypeRun.Of(line, plan.Large, set.SizePt, style.Ink) with
                {
                    X = body.X + line.X,
                    Baseline = body.Y + line.Baseline,
                };
            }

            yield break;
        }

        var half = (body.Width / 2) - 4;
        var size = Math.Min(LabelPt, height - 4);
        var baseline = body.Y + (shaper.Metrics(plan.Label).Ascent * size);
        var (left, right) =
            plan.Head == HeadPlan.RunningHead ? (heading, mark) : (heading ?? mark, heading is null ? null : mark);
        if (Tracked(left, plan.Label, size, ink, right is null ? body.Width : half, shaper) is { } first)
        {
            yield return first.Run with
            {
                X = body.X,
                Baseline = baseline,
            };
        }

        if (Tracked(right, plan.Label, size, ink, left is null ? body.Width : half, shaper) is { } second)
        {
            yield return second.Run with
            {
                X = body.X + body.Width - second.Width,
                Baseline = baseline,
            };
        }
    }

    private static IEnumerable<InkLine> HeadRules(CardStyle style, TypeArea body, string? heading)
    {
        if (
            style.Plan!.Head == HeadPlan.RunningHead
            && HeadHeight(style, body, heading is not null) is > 12 and var high
        )
        {
            var y = body.Y + high - 8;
            yield return new InkLine(body.X, y, body.X + body.Width, y, 0.6, style.Accent);
        }
    }

    private static IEnumerable<TypeRun> Foot(string who, CardStyle style, TypeArea body, ITextShaper shaper)
    {
        var ink = CardComposer.Readable(style.Accent, style.Paper, style.Ink);
        var size = Math.Min(LabelPt + 1.5, FootHeight(style, body) - 2);
        if (size >= SmallestLabelPt && Tracked(who, style.Plan!.Label, size, ink, body.Width, shaper) is { } run)
        {
            var descent = shaper.Metrics(style.Plan.Label).Descent * run.Run.SizePt;
            yield return run.Run with
            {
                X = body.X,
                Baseline = body.Y + body.Height - descent,
            };
        }
    }

    /// <summary>A label of one line in a width, in smaller type where it must be; null when it cannot be had.</summary>
    internal static (TypeRun Run, double Width)? Tracked(
        string? text,
        Typeface face,
        double sizePt,
        Rgb ink,
        double room,
        ITextShaper shaper
    )
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var one = text.ReplaceLineEndings(" ").Trim();
        // Scripts whose letters join are not spaced out.
        var tracking =
            one.All(c => c < 0x0250) && face is Typeface.Condensed or Typeface.BookSmallCapitals ? LabelTracking : 0;
        var shown = face == Typeface.Condensed ? one.ToUpperInvariant() : one;
        var em = shaper.Shape(face, shown).Ends[^1] + (tracking * shown.Length);
        var size = Math.Min(sizePt, room / em);
        return size < SmallestLabelPt - 1
            ? null
            : (new TypeRun(face, size, 0, 0, shown, ink) { Tracking = tracking }, em * size);
    }

    /// <summary>Moves lines and their places down to where the plan has them.</summary>
    private static FitOutcome Placed(
        FitOutcome fit,
        CardStyle style,
        ImmutableArray<TypeArea> areas,
        ITextShaper shaper
    )
    {
        if (!fit.Fits || fit.Lines.IsEmpty || areas.Length != 1 || !areas[0].Obstacles.IsEmpty)
        {
            return fit;
        }

        var descent = shaper.Metrics(style.Type.Face).Descent * fit.SizePt;
        var free = areas[0].Y + areas[0].Height - fit.Lines[^1].Baseline - descent;
        var down =
            Math.Max(0, free)
            * style.Plan!.Place switch
            {
                // On ruled cards words begin on the first rule.
                _ when style.Ruled => 0,
                WordsPlace.Foot => 1,
                WordsPlace.Centred => 0.45,
                WordsPlace.Third => 1 / 3.0,
                _ => 0,
            };
        return fit with
        {
            Lines = [.. fit.Lines.Select(l => l with { Baseline = l.Baseline + down })],
            Slots = [.. fit.Slots.Select(s => s with { Baseline = s.Baseline + down })],
        };
    }

    /// <summary>
    /// An opening quotation mark hangs before the edge of the words, so that the letters stand in one line. Common
    /// practice. Centred lines of a quote are centred.
    /// </summary>
    private static FitOutcome Hang(FitOutcome fit, CardStyle style, ImmutableArray<TypeArea> areas, ITextShaper shaper)
    {
        if (fit.Lines.IsEmpty || areas.Length != 1 || !areas[0].Obstacles.IsEmpty)
        {
            return fit;
        }

        var area = areas[0];
        var most = Math.Min(area.X * 0.5, fit.SizePt * 0.6);
        return fit with
        {
            Lines =
            [
                .. fit.Lines.Select(l =>
                    style.Plan!.Place == WordsPlace.Centred ? l with { X = area.X + ((area.Width - l.Width) / 2) }
                    : l.Text.Length > 1 && l.Text[0] is '“' or '‘' or '"'
                        ? l with
                        {
                            X = l.X - Math.Min(most, shaper.Shape(style.Type.Face, l.Text[..1]).Ends[^1] * fit.SizePt),
                        }
                    : l
                ),
            ],
        };
    }

    /// <summary>
    /// Sets the words again at the same size around their first letter, three lines high; as they were when they have
    /// no room then, are few or large, or begin with no capital.
    /// </summary>
    private static FitOutcome WithDropCapital(
        string words,
        FitOutcome fit,
        CardStyle style,
        ImmutableArray<TypeArea> areas,
        ITextShaper shaper
    )
    {
        if (!HasCapital(words, fit, style) || areas.Length != 1 || !areas[0].Obstacles.IsEmpty)
        {
            return fit;
        }

        var area = areas[0];
        var (size, wide) = CapitalOf(words, fit, style, shaper);
        var around = area with
        {
            Obstacles =
            [
                new BoxInTheWay(area.X - 1, area.Y - 1, wide + 1 + (0.35 * fit.SizePt), (3 * fit.LeadingPt) - 1),
            ],
        };
        var rest = words[1..];
        var copy = Copy.Of(rest, style.Type.Face, shaper);
        var slots = Copyfit.Slots([around], fit.SizePt, style.Type.Leading, shaper.Metrics(style.Type.Face));
        if (
            Copyfit.Set(copy, slots, 0, fit.SizePt, splitWords: false) is not { Next: null } set
            || set.Lines.Count <= CapitalLines
        )
        {
            return fit;
        }

        // The lines beside the letter are shorter, so all of them are made even once more.
        var beside = fit with
        {
            Lines = [.. set.Lines],
            Slots = [.. slots],
        };
        var even = LineBalance.Improve(rest, beside, style.Type, shaper, even: false);
        return even with { Lines = [.. even.Lines.Select(l => l with { Start = l.Start + 1 })] };
    }

    private const int CapitalLines = 3;

    private static bool HasCapital(string words, FitOutcome fit, CardStyle style) =>
        style.Plan!.DropCapital
        && style.Role == StyleRole.Words
        && fit.Fits
        && fit.SizePt <= DisplayPt
        && fit.Lines.Length >= 5
        && words.Length > 1
        && words[0] is >= 'A' and <= 'Z'
        && char.IsLower(words[1]);

    /// <summary>
    /// Size and width of a letter as high as three lines: from the foot of the third to the top of the first.
    /// </summary>
    private static (double SizePt, double Width) CapitalOf(
        string words,
        FitOutcome fit,
        CardStyle style,
        ITextShaper shaper
    )
    {
        const double capitalHeightEm = 0.7;
        var size = ((2 * fit.LeadingPt) + (capitalHeightEm * fit.SizePt)) / capitalHeightEm;
        return (size, shaper.Shape(Typeface.OldStyle, words[..1]).Ends[^1] * size);
    }

    private static IEnumerable<TypeRun> Capital(string words, FitOutcome fit, CardStyle style, ITextShaper shaper)
    {
        // The words were set around it when their first line begins with the second letter.
        if (HasCapital(words, fit, style) && fit.Lines[0].Start == 1)
        {
            yield return new TypeRun(
                Typeface.OldStyle,
                CapitalOf(words, fit, style, shaper).SizePt,
                fit.Slots.Min(s => s.X),
                fit.Lines[2].Baseline,
                words[..1],
                CardComposer.Readable(style.Accent, style.Paper, style.Ink)
            );
        }
    }

    /// <summary>The room that the words leave, under or over them: where an ornament can be.</summary>
    private static FreeRoom RoomLeft(FitOutcome fit, CardStyle style, Size cut, bool heading, ITextShaper shaper)
    {
        var area = Area(style, cut, heading);
        // A scene would begin behind the picture.
        if (CardComposer.Opening(style, cut, heading) is not null)
        {
            return new(area with { Height = 0 }, Over: false);
        }

        // Rules go over the whole card, and what did not fit leaves no room.
        if (style.Ruled || !fit.Fits || (fit.Lines.IsEmpty && fit.Words > 0))
        {
            return new(area with { Height = 0 }, Over: false);
        }

        if (fit.Lines.IsEmpty)
        {
            return new(area, Over: false);
        }

        var metrics = shaper.Metrics(style.Type.Face);
        var over = fit.Lines[0].Baseline - (metrics.Ascent * fit.SizePt) - area.Y;
        var end = fit.Lines[^1].Baseline + (metrics.Descent * fit.SizePt);
        var under = area.Y + area.Height - end;
        return over > under
            ? new(area with { Height = Math.Max(0, over - GapPt) }, Over: true)
            : new(area with { Y = end + GapPt, Height = Math.Max(0, under - GapPt) }, Over: false);
    }

    /// <summary>Between words and an ornament.</summary>
    private const double GapPt = 8;

    private static IEnumerable<TypeRun> QuoteMark(CardStyle style, TypeArea body, FitOutcome fit, ITextShaper shaper)
    {
        if (style.Plan!.Ornament != Ornament.QuoteMark || fit.Lines.IsEmpty)
        {
            yield break;
        }

        var size = Math.Min(body.Width, body.Height) * 0.9;
        var first = fit.Lines[0].Baseline - (shaper.Metrics(style.Type.Face).Ascent * fit.SizePt);
        if (first - body.Y > Ornaments.Smallest / 2)
        {
            yield return new TypeRun(
                Typeface.OldStyle,
                size,
                body.X - (size * 0.04),
                body.Y + (size * 0.66),
                "“",
                style.Accent
            );
        }
    }
}
