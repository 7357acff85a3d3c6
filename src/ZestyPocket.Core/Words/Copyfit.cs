using System.Buffers;
using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>
/// One line as it is set: its words without the blank at the end, where they start in the text, and where its baseline
/// starts, in points from the card's top left corner.
/// </summary>
/// <param name="Text">The words.</param>
/// <param name="Start">The place of the first of them in the text.</param>
/// <param name="Width">Their width in points.</param>
/// <param name="X">Where the line begins.</param>
/// <param name="Baseline">How far down its baseline is.</param>
/// <param name="Area">Which of the areas it lies in.</param>
/// <param name="EndsParagraph">The paragraph ends with it.</param>
/// <param name="Levels">Which parts run the other way, as the whole paragraph says; default when none does.</param>
public readonly record struct SetLine(
    string Text,
    int Start,
    double Width,
    double X,
    double Baseline,
    int Area,
    bool EndsParagraph,
    ImmutableArray<byte> Levels = default
);

/// <summary>A place where a line can stand.</summary>
public readonly record struct LineSlot(double X, double Baseline, double Width, int Area);

/// <summary>What a face, a range of sizes and a leading ask of the words.</summary>
/// <param name="Face">The typeface.</param>
/// <param name="SmallestPt">Smallest size in points that the style allows.</param>
/// <param name="LargestPt">Largest size in points that the style allows.</param>
/// <param name="Leading">Distance of baselines as a multiple of the size.</param>
public readonly record struct TypeRange(Typeface Face, double SmallestPt, double LargestPt, double Leading)
{
    /// <summary>Sizes are tried in quarter points.</summary>
    public const double StepPt = 0.25;

    /// <summary>Smaller type is hard to read in print. Common practice.</summary>
    public const double SmallestEverPt = 7;

    /// <summary>Type people read without effort on a card. Common practice.</summary>
    public const double ComfortableOnCardsPt = 9;

    /// <summary>Type people read without effort on a page. Common practice.</summary>
    public const double ComfortableOnPagesPt = 10;
}

/// <summary>How words came out in their areas.</summary>
/// <param name="SizePt">The largest size that fits, or the style's smallest when none does.</param>
/// <param name="LeadingPt">Distance of baselines in points.</param>
/// <param name="Lines">The lines that fit, top down.</param>
/// <param name="Slots">Every place for a line at this size.</param>
/// <param name="Words">Words in the whole text.</param>
/// <param name="WordsOver">Words that found no room; 0 when it fits.</param>
/// <param name="CutAt">Where in the text the words begin that found no room; the text's length when it fits.</param>
public sealed record FitOutcome(
    double SizePt,
    double LeadingPt,
    ImmutableArray<SetLine> Lines,
    ImmutableArray<LineSlot> Slots,
    int Words,
    int WordsOver,
    int CutAt
)
{
    public bool Fits => WordsOver == 0;

    /// <summary>How many lines the areas hold at this size.</summary>
    public int LinesThatFit => Slots.Length;

    public int LinesLeft => Math.Max(0, LinesThatFit - Lines.Length);
}

/// <summary>
/// Exact copyfitting: the largest size of a style's range at which the words fit their areas, measured with the face's
/// own shaped advances. What it returns is what the screen shows and the sheet prints.
/// </summary>
public static class Copyfit
{
    private const double Dust = 1e-6;

    private const char SoftHyphen = '\u00AD';

    internal const string Hyphen = "-";

    /// <summary>Fits words to one column of the given width and height in points, from the origin.</summary>
    public static FitOutcome Fit(string words, double widthPt, double heightPt, TypeRange type, ITextShaper shaper) =>
        Fit(words, [new TypeArea(0, 0, widthPt, heightPt)], type, shaper);

    /// <summary>Fits words to areas that are filled one after another.</summary>
    public static FitOutcome Fit(string words, ImmutableArray<TypeArea> areas, TypeRange type, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(shaper);
        var copy = Copy.Of(words, type.Face, shaper);
        var metrics = shaper.Metrics(type.Face);
        var steps = Math.Max(0, (int)Math.Round((type.LargestPt - type.SmallestPt) / TypeRange.StepPt));
        for (var step = steps; step > 0; step--)
        {
            var size = type.SmallestPt + (step * TypeRange.StepPt);
            var slots = Slots(areas, size, type.Leading, metrics);
            if (copy.MayFit(slots, size) && Set(copy, slots, 0, size, splitWords: false) is { } set && set.Next is null)
            {
                return Outcome(size, slots, set, copy);
            }
        }

        var smallest = Slots(areas, type.SmallestPt, type.Leading, metrics);
        return Outcome(type.SmallestPt, smallest, Set(copy, smallest, 0, type.SmallestPt, splitWords: true)!, copy);

        FitOutcome Outcome(double size, List<LineSlot> slots, Setting set, Copy text)
        {
            var cut = set.Next ?? words.Length;
            return new FitOutcome(
                size,
                areas.IsEmpty ? size * type.Leading : areas[0].LeadingPt(size, type.Leading),
                [.. set.Lines],
                [.. slots],
                text.Words,
                CountWords(words.AsSpan(cut)),
                cut
            );
        }
    }

    /// <summary>Words are stretches between blanks.</summary>
    public static int CountWords(ReadOnlySpan<char> text)
    {
        var count = 0;
        var inWord = false;
        foreach (var c in text)
        {
            var blank = char.IsWhiteSpace(c);
            count += !blank && !inWord ? 1 : 0;
            inWord = !blank;
        }

        return count;
    }

    /// <summary>Where each word starts and ends.</summary>
    public static ImmutableArray<(int Start, int End)> Words(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var words = ImmutableArray.CreateBuilder<(int, int)>();
        for (var at = 0; at < text.Length; )
        {
            var end = at;
            while (end < text.Length && !char.IsWhiteSpace(text[end]))
            {
                end++;
            }

            if (end > at)
            {
                words.Add((at, end));
            }

            at = end + 1;
        }

        return words.ToImmutable();
    }

    /// <summary>Where lines can stand at a size, area by area, top down.</summary>
    internal static List<LineSlot> Slots(
        ImmutableArray<TypeArea> areas,
        double size,
        double leading,
        FaceMetrics metrics
    )
    {
        var slots = new List<LineSlot>();
        for (var a = 0; a < areas.Length; a++)
        {
            var area = areas[a];
            var high = (metrics.Ascent + metrics.Descent) * size;
            var (leadingPt, widest) = (area.LeadingPt(size, leading), area.WidestPt(size));
            for (var i = 0; ; i++)
            {
                var top = area.Y + (i * leadingPt);
                if (top + high > area.Y + area.Height + Dust)
                {
                    break;
                }

                var (x, width) = area.Slot(top, top + high);
                // A gap that takes no word is no place for a line.
                if (!area.IsUneven || width >= 2 * size)
                {
                    slots.Add(new LineSlot(x, top + (metrics.Ascent * size), Math.Min(width, widest), a));
                }
            }
        }

        return slots;
    }

    /// <summary>Lines that were set, and where the text goes on when they did not take it all.</summary>
    internal sealed record Setting(List<SetLine> Lines, int? Next);

    /// <summary>
    /// Sets the text from a place on into the slots; null when a word is wider than every slot left in its area and
    /// words may not be split.
    /// </summary>
    internal static Setting? Set(Copy copy, List<LineSlot> slots, int from, double size, bool splitWords)
    {
        var lines = new List<SetLine>();
        var slot = 0;
        for (var p = copy.ParagraphAt(from); p < copy.Paragraphs.Count; p++)
        {
            var (shaped, breaks, offset) = copy.Paragraphs[p];
            var start = Math.Max(0, from - offset);
            if (lines.Count == 0 && string.IsNullOrWhiteSpace(shaped.Text[start..]) && p + 1 < copy.Paragraphs.Count)
            {
                // Blank lines before the first word take no room.
                continue;
            }

            var next = FirstAfter(breaks, start);
            do
            {
                if (slot == slots.Count)
                {
                    return new Setting(lines, offset + start);
                }

                var room = (slots[slot].Width / size) + 1e-9;
                var end = start;
                while (next < breaks.Count && Visible(copy, shaped, start, breaks[next]) <= room)
                {
                    end = breaks[next++];
                }

                if (end == start && shaped.Text.Length > start)
                {
                    // Beside something in the way there may be wider lines further down.
                    if (slots.Skip(slot + 1).Any(s => s.Width > slots[slot].Width + Dust))
                    {
                        slot++;
                        continue;
                    }

                    if (!splitWords)
                    {
                        // What stands already stays; the word may have room on another card.
                        return lines.Count > 0 ? new Setting(lines, offset + start) : null;
                    }

                    end = SplitWord(shaped, start, breaks[next], room);
                    next += end == breaks[next] ? 1 : 0;
                }

                lines.Add(Line(copy, shaped, offset, start, end, slots[slot++], size));
                start = end;
            } while (start < shaped.Text.Length);
        }

        return new Setting(lines, null);
    }

    internal static SetLine Line(
        Copy copy,
        ShapedText shaped,
        int offset,
        int start,
        int end,
        LineSlot slot,
        double size
    )
    {
        var text = shaped.Text[start..end].TrimEnd();
        var width = Visible(copy, shaped, start, end) * size;
        var levels = shaped.Levels.IsDefault ? default : shaped.Levels.Slice(start, text.Length);
        if (EndsInHyphen(shaped, end))
        {
            // The soft hyphen at which a word is parted is printed as one.
            text = text[..^1] + Hyphen;
        }

        var x = shaped.RightToLeft ? slot.X + slot.Width - width : slot.X;
        return new SetLine(text, offset + start, width, x, slot.Baseline, slot.Area, end == shaped.Text.Length, levels);
    }

    private static bool EndsInHyphen(ShapedText shaped, int end) =>
        end > 0 && end < shaped.Text.Length && shaped.Text[end - 1] == SoftHyphen;

    private static int FirstAfter(IReadOnlyList<int> breaks, int start)
    {
        var (low, high) = (0, breaks.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = breaks[middle] > start ? (low, middle) : (middle + 1, high);
        }

        return low;
    }

    /// <summary>
    /// Width without the blanks at the end, which hang over the edge, and with the hyphen of a parted word.
    /// </summary>
    internal static double Visible(Copy copy, ShapedText shaped, int start, int end)
    {
        var hyphen = EndsInHyphen(shaped, end) ? copy.HyphenEm : 0;
        while (end > start && char.IsWhiteSpace(shaped.Text[end - 1]))
        {
            end--;
        }

        return shaped.Width(start, end) + hyphen;
    }

    private static int SplitWord(ShapedText shaped, int start, int wordEnd, double width)
    {
        var end = start + 1;
        while (end < wordEnd && (char.IsLowSurrogate(shaped.Text[end]) || shaped.Width(start, end + 1) <= width))
        {
            end++;
        }

        return end < wordEnd && char.IsLowSurrogate(shaped.Text[end]) ? end + 1 : end;
    }
}

/// <summary>A paragraph with its shaped advances, where its lines may end, and where it starts in the text.</summary>
internal sealed record Paragraph(ShapedText Shaped, IReadOnlyList<int> Breaks, int Start)
{
    /// <summary>Width in ems of everything but the blanks.</summary>
    public double Ink { get; } =
        Enumerable
            .Range(0, Shaped.Text.Length)
            .Where(i => !char.IsWhiteSpace(Shaped.Text[i]))
            .Sum(i => Shaped.Width(i, i + 1));
}

/// <summary>A text made ready for setting: shaped once, set at many sizes.</summary>
internal sealed record Copy(List<Paragraph> Paragraphs, int Words, int Length, double HyphenEm)
{
    private static readonly SearchValues<char> LineEnds = SearchValues.Create("\n\r\v\f\u0085\u2028\u2029");

    public static Copy Of(string words, Typeface face, ITextShaper shaper)
    {
        var paragraphs = new List<Paragraph>();
        for (var start = 0; start <= words.Length; )
        {
            var end = words.AsSpan(start).IndexOfAny(LineEnds);
            end = end < 0 ? words.Length : start + end;
            var text = words[start..end];
            paragraphs.Add(new Paragraph(shaper.Shape(face, text), LineBreaks.Opportunities(text), start));
            start = end + (end + 1 < words.Length && words[end] == '\r' && words[end + 1] == '\n' ? 2 : 1);
        }

        // Blank lines after the last word take no room.
        while (paragraphs.Count > 1 && string.IsNullOrWhiteSpace(paragraphs[^1].Shaped.Text))
        {
            paragraphs.RemoveAt(paragraphs.Count - 1);
        }

        return new Copy(
            paragraphs,
            Copyfit.CountWords(words),
            words.Length,
            shaper.Shape(face, Copyfit.Hyphen).Ends[^1]
        );
    }

    /// <summary>The paragraph that holds a place of the text.</summary>
    public int ParagraphAt(int place)
    {
        var p = Paragraphs.FindLastIndex(p => p.Start <= place);
        return Math.Max(0, p);
    }

    /// <summary>
    /// Whether the words could fit at all, by their width alone: a quick no for most sizes that are too large, never a
    /// wrong one, since no line is wider than the widest slot.
    /// </summary>
    public bool MayFit(List<LineSlot> slots, double size)
    {
        if (slots.Count == 0)
        {
            return false;
        }

        var widest = slots.Max(s => s.Width) + 1e-6;
        double needed = 0;
        foreach (var paragraph in Paragraphs)
        {
            // Blanks at line ends take no room, so only the letters count.
            needed += Math.Max(1, Math.Ceiling(paragraph.Ink * size / widest));
            if (needed > slots.Count)
            {
                return false;
            }
        }

        return true;
    }
}
