using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>The stretch of a story that stands on one card.</summary>
public readonly record struct FlowPart(int Start, int End, int Lines)
{
    public string Of(string story)
    {
        ArgumentNullException.ThrowIfNull(story);
        return story[Start..End].TrimStart('\n', '\r').TrimEnd();
    }
}

/// <summary>A story over several cards in one size.</summary>
/// <param name="SizePt">The size of all of them.</param>
/// <param name="Parts">One for each card, in order; a card that gets nothing is empty.</param>
/// <param name="WordsOver">Words that found no room on any.</param>
public sealed record FlowOutcome(double SizePt, ImmutableArray<FlowPart> Parts, int WordsOver)
{
    public bool Fits => WordsOver == 0;

    /// <summary>An odd number of written sides leaves a back: it can be offered to a picture.</summary>
    public bool LeavesABack => Parts.Count(p => p.Lines > 0) % 2 == 1;
}

/// <summary>
/// Lets a story flow over cards or pages: one size for all, as large as it can be; no paragraph leaves a single line
/// behind or sends a single line ahead; the cards equally full rather than the last one nearly empty. Common practice
/// of setting type.
/// </summary>
public static class StoryFlow
{
    /// <summary>More cards than this is a book.</summary>
    public const int MostCards = 200;

    /// <summary>
    /// Flows a story over cards of the given sizes, all in one style; those whose numbers are in
    /// <paramref name="pictures"/> carry a picture where the style has a place for one, all when it is null.
    /// </summary>
    public static FlowOutcome Over(
        string story,
        CardStyle style,
        IReadOnlyList<Size> cards,
        ITextShaper shaper,
        IReadOnlySet<int>? pictures = null
    )
    {
        ArgumentNullException.ThrowIfNull(story);
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(cards);
        ArgumentOutOfRangeException.ThrowIfZero(cards.Count);
        var copy = Copy.Of(story, style.Type.Face, shaper);
        var areas = cards
            .Select(
                (c, i) =>
                    CardComposer.Areas(pictures is null || pictures.Contains(i) ? style : style.WithoutPicture(), c)
            )
            .ToList();
        var steps = Math.Max(0, (int)Math.Round((style.Type.LargestPt - style.Type.SmallestPt) / TypeRange.StepPt));
        for (var step = steps; step >= 0; step--)
        {
            var size = style.Type.SmallestPt + (step * TypeRange.StepPt);
            var slots = SlotsOf(areas, size, style, shaper);
            if (step > 0 && !copy.MayFit([.. slots.SelectMany(s => s)], size))
            {
                continue;
            }

            if (Pour(copy, story, slots, size, splitWords: false) is { } parts && parts.End >= story.Length)
            {
                return new FlowOutcome(size, Balance(copy, story, slots, size, parts.Parts, splitWords: false), 0);
            }
        }

        // Words are split only where no size of the style holds them whole.
        var last = SlotsOf(areas, style.Type.SmallestPt, style, shaper);
        var split = Pour(copy, story, last, style.Type.SmallestPt, splitWords: true)!.Value;
        return split.End >= story.Length
            ? new FlowOutcome(
                style.Type.SmallestPt,
                Balance(copy, story, last, style.Type.SmallestPt, split.Parts, splitWords: true),
                0
            )
            : new FlowOutcome(style.Type.SmallestPt, split.Parts, Copyfit.CountWords(story.AsSpan(split.End)));
    }

    /// <summary>
    /// Parts a story over cards that are written by hand and hold so many words each, at ends of words, all about
    /// equally full. Lines are not known before they are written, so parts have none.
    /// </summary>
    public static (ImmutableArray<FlowPart> Parts, int WordsOver) ByHand(string story, IReadOnlyList<int> holds)
    {
        ArgumentNullException.ThrowIfNull(story);
        ArgumentNullException.ThrowIfNull(holds);
        var words = Copyfit.Words(story);
        var room = holds.Sum();
        var parts = ImmutableArray.CreateBuilder<FlowPart>(holds.Count);
        var (at, before) = (0, 0);
        for (var i = 0; i < holds.Count; i++)
        {
            before += holds[i];
            // As full as all of them together, rounded up so that the last is not the fullest.
            var until =
                words.Length >= room
                    ? Math.Min(words.Length, before)
                    : (int)Math.Ceiling((double)words.Length * before / Math.Max(1, room));
            parts.Add(
                until > at
                    ? new FlowPart(words[at].Start, words[until - 1].End, 0)
                    : new FlowPart(story.Length, story.Length, 0)
            );
            at = Math.Max(at, until);
        }

        return (parts.ToImmutable(), words.Length - at);
    }

    /// <summary>
    /// How many cards of one size a story needs so that it can be set at <paramref name="comfortablePt"/> or larger,
    /// and the size it gets on them.
    /// </summary>
    public static (int Cards, double SizePt) Needed(
        string story,
        CardStyle style,
        Size card,
        double comfortablePt,
        ITextShaper shaper
    )
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(story);
        // On the steps in which sizes are tried, so that the size that is promised is one that can be given.
        var steps = Math.Max(
            0,
            Math.Floor((Math.Min(comfortablePt, style.Type.LargestPt) - style.Type.SmallestPt) / TypeRange.StepPt)
        );
        var comfortable = style.Type.SmallestPt + (steps * TypeRange.StepPt);
        var copy = Copy.Of(story, style.Type.Face, shaper);
        var one = SlotsOf([CardComposer.Areas(style, card)], comfortable, style, shaper)[0];
        if (one.Count == 0)
        {
            return (0, 0);
        }

        List<List<LineSlot>> many = [.. Enumerable.Repeat(one, MostCards)];
        var poured =
            Pour(copy, story, many, comfortable, splitWords: false) is { } whole && whole.End >= story.Length
                ? whole
                : Pour(copy, story, many, comfortable, splitWords: true)!.Value;
        if (poured.End < story.Length)
        {
            return (0, 0);
        }

        // The size that these cards really get, which is never under what was asked for where whole words allow it.
        var cards = Math.Max(1, poured.Parts.Count(p => p.Lines > 0));
        var flow = Over(story, style, [.. Enumerable.Repeat(card, cards)], shaper);
        return flow.Fits ? (cards, flow.SizePt) : (0, 0);
    }

    private static List<List<LineSlot>> SlotsOf(
        List<ImmutableArray<TypeArea>> areas,
        double size,
        CardStyle style,
        ITextShaper shaper
    )
    {
        var metrics = shaper.Metrics(style.Type.Face);
        return areas.ConvertAll(a => Copyfit.Slots(a, size, style.Type.Leading, metrics));
    }

    /// <summary>Fills card after card; null when a word is too wide and may not be split.</summary>
    private static (ImmutableArray<FlowPart> Parts, int End)? Pour(
        Copy copy,
        string story,
        List<List<LineSlot>> cards,
        double size,
        bool splitWords,
        int most = int.MaxValue
    )
    {
        var parts = ImmutableArray.CreateBuilder<FlowPart>(cards.Count);
        var at = 0;
        for (var c = 0; c < cards.Count; c++)
        {
            // A card never begins with a blank line.
            while (at > 0 && at < story.Length && story[at] is '\n' or '\r')
            {
                at++;
            }

            if (at >= story.Length)
            {
                parts.Add(new FlowPart(story.Length, story.Length, 0));
                continue;
            }

            var slots = cards[c].Count > most ? cards[c].GetRange(0, most) : cards[c];
            if (Copyfit.Set(copy, slots, at, size, splitWords) is not { } set)
            {
                // The next word is wider than this card's lines: a wider card may follow.
                if (c < cards.Count - 1 && cards.Skip(c + 1).Any(s => Widest(s) > Widest(slots)))
                {
                    parts.Add(new FlowPart(at, at, 0));
                    continue;
                }

                return null;
            }

            if (set.Lines.Count == 0 && set.Next is not null)
            {
                parts.Add(new FlowPart(at, at, 0));
                continue;
            }

            var last = c == cards.Count - 1;
            var lines =
                set.Next is null || last ? set.Lines.Count : WithoutStragglers(copy, set.Lines, slots[^1].Width, size);
            var end =
                set.Next is null ? story.Length
                : lines == set.Lines.Count ? set.Next.Value
                : set.Lines[lines].Start;
            // Blank lines at its foot take no room.
            parts.Add(new FlowPart(at, end, set.Lines.FindLastIndex(lines - 1, l => l.Text.Length > 0) + 1));
            at = end;
        }

        return (parts.ToImmutable(), at);
    }

    private static double Widest(List<LineSlot> slots) => slots.Count == 0 ? 0 : slots.Max(s => s.Width);

    /// <summary>
    /// How many of a card's lines stay on it: its last line is not the first of a paragraph that goes on (an orphan),
    /// and the next card does not begin with the last line of one (a widow).
    /// </summary>
    private static int WithoutStragglers(Copy copy, List<SetLine> lines, double columnWidth, double size)
    {
        var keep = lines.Count;
        if (keep < 3 || lines[keep - 1].EndsParagraph)
        {
            return keep;
        }

        var (paragraph, rest) = Rest(copy, lines[keep - 1], size);
        if (rest <= columnWidth)
        {
            // What is left of the paragraph is one line: it gets company.
            keep--;
        }

        // One line of a paragraph does not stay behind alone.
        if (keep >= 2 && lines[keep - 1].Start == paragraph && !lines[keep - 1].EndsParagraph)
        {
            keep--;
        }

        return Math.Max(1, keep);
    }

    /// <summary>Where a line's paragraph starts, and the width in points of what follows the line in it.</summary>
    private static (int Start, double Width) Rest(Copy copy, SetLine line, double size)
    {
        var paragraph = copy.Paragraphs[copy.ParagraphAt(line.Start)];
        var from = Math.Min(paragraph.Shaped.Text.Length, line.Start - paragraph.Start + line.Text.Length);
        return (paragraph.Start, paragraph.Shaped.Width(from, paragraph.Shaped.Text.Length) * size);
    }

    /// <summary>
    /// The fewest lines a card with which the cards still hold everything: a story that one of them could hold is
    /// spread over all of them, since the keeper gave it so many.
    /// </summary>
    private static ImmutableArray<FlowPart> Balance(
        Copy copy,
        string story,
        List<List<LineSlot>> cards,
        double size,
        ImmutableArray<FlowPart> full,
        bool splitWords
    )
    {
        var best = full;
        var (low, high) = (1, full.Max(p => p.Lines) - 1);
        while (low <= high)
        {
            var most = (low + high) / 2;
            if (Pour(copy, story, cards, size, splitWords, most) is { } tighter && tighter.End >= story.Length)
            {
                (best, high) = (tighter.Parts, most - 1);
            }
            else
            {
                low = most + 1;
            }
        }

        return best;
    }
}
