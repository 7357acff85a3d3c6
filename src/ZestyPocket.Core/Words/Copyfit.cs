using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>One line as it is set: its words without the blank at the end, and where it starts in the story.</summary>
public readonly record struct SetLine(string Text, int Start, double Width);

/// <summary>What a face, a range of sizes and a leading ask of the words.</summary>
/// <param name="Face">The typeface.</param>
/// <param name="SmallestPt">Smallest size in points that the style allows.</param>
/// <param name="LargestPt">Largest size in points that the style allows.</param>
/// <param name="Leading">Distance of baselines as a multiple of the size.</param>
public readonly record struct TypeRange(Typeface Face, double SmallestPt, double LargestPt, double Leading)
{
    /// <summary>Sizes are tried in quarter points.</summary>
    public const double StepPt = 0.25;
}

/// <summary>How words came out in a column.</summary>
/// <param name="SizePt">The largest size that fits, or the style's smallest when none does.</param>
/// <param name="LeadingPt">Distance of baselines in points.</param>
/// <param name="Lines">The lines that fit, top down.</param>
/// <param name="LinesThatFit">How many lines the column holds at this size.</param>
/// <param name="Words">Words in the whole text.</param>
/// <param name="WordsOver">Words that found no room; 0 when it fits.</param>
public sealed record FitOutcome(
    double SizePt,
    double LeadingPt,
    ImmutableArray<SetLine> Lines,
    int LinesThatFit,
    int Words,
    int WordsOver)
{
    public bool Fits => WordsOver == 0;

    public int LinesLeft => Math.Max(0, LinesThatFit - Lines.Length);
}

/// <summary>
/// Exact copyfitting: the largest size of a style's range at which the words fit a column, measured with the face's
/// own shaped advances. What it returns is what the screen shows and the sheet prints.
/// </summary>
public static class Copyfit
{
    /// <summary>Fits words to a column of the given width and height in points.</summary>
    public static FitOutcome Fit(string words, double widthPt, double heightPt, TypeRange type, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(shaper);
        var paragraphs = Paragraphs(words, type.Face, shaper);
        var metrics = shaper.Metrics(type.Face);
        var wordCount = CountWords(words);

        var steps = (int)Math.Round((type.LargestPt - type.SmallestPt) / TypeRange.StepPt);
        for (var step = steps; step >= 0; step--)
        {
            var size = type.SmallestPt + (step * TypeRange.StepPt);
            var room = LinesIn(heightPt, size, type.Leading, metrics);
            var lines = Break(paragraphs, widthPt / size, stopAfter: room, splitWords: step == 0);
            if (lines is not null && lines.Count <= room)
            {
                return Outcome(size, lines, room, 0);
            }
        }

        var smallestRoom = LinesIn(heightPt, type.SmallestPt, type.Leading, metrics);
        var all = Break(paragraphs, widthPt / type.SmallestPt, stopAfter: int.MaxValue, splitWords: true)!;
        var kept = all.Take(smallestRoom).ToList();
        var cut = all.Count > smallestRoom ? all[smallestRoom].Start : words.Length;
        return Outcome(type.SmallestPt, kept, smallestRoom, CountWords(words[cut..]));

        FitOutcome Outcome(double size, List<SetLine> lines, int room, int over) => new(
            size,
            size * type.Leading,
            [.. lines.Select(l => l with { Width = l.Width * size })],
            room,
            wordCount,
            over);
    }

    /// <summary>Words are stretches between blanks.</summary>
    public static int CountWords(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
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

    private static int LinesIn(double heightPt, double size, double leading, FaceMetrics metrics)
    {
        var first = (metrics.Ascent + metrics.Descent) * size;
        const double dust = 1e-6;
        return heightPt + dust < first ? 0 : 1 + (int)Math.Floor(((heightPt - first) / (size * leading)) + dust);
    }

    private sealed record Paragraph(ShapedText Shaped, IReadOnlyList<int> Breaks, int Start);

    private static List<Paragraph> Paragraphs(string words, Typeface face, ITextShaper shaper)
    {
        var paragraphs = new List<Paragraph>();
        var start = 0;
        foreach (var text in words.Split('\n'))
        {
            var clean = text.TrimEnd('\r');
            paragraphs.Add(new Paragraph(shaper.Shape(face, clean), LineBreaks.Opportunities(clean), start));
            start += text.Length + 1;
        }

        // Blank lines after the last word take no room.
        while (paragraphs.Count > 1 && string.IsNullOrWhiteSpace(paragraphs[^1].Shaped.Text))
        {
            paragraphs.RemoveAt(paragraphs.Count - 1);
        }

        return paragraphs;
    }

    /// <summary>
    /// Sets the paragraphs in a column of <paramref name="width"/> ems; null when a word is wider than the column and
    /// words may not be split. Stops early once there are more lines than <paramref name="stopAfter"/>.
    /// </summary>
    private static List<SetLine>? Break(List<Paragraph> paragraphs, double width, int stopAfter, bool splitWords)
    {
        const double dust = 1e-9;
        var lines = new List<SetLine>();
        foreach (var (shaped, breaks, offset) in paragraphs)
        {
            var (start, next) = (0, 0);
            do
            {
                var end = start;
                while (next < breaks.Count && Visible(shaped, start, breaks[next]) <= width + dust)
                {
                    end = breaks[next++];
                }

                if (end == start && shaped.Text.Length > start)
                {
                    if (!splitWords)
                    {
                        return null;
                    }

                    end = SplitWord(shaped, start, breaks[next], width);
                    next += end == breaks[next] ? 1 : 0;
                }

                var text = shaped.Text[start..end].TrimEnd();
                lines.Add(new SetLine(text, offset + start, Visible(shaped, start, end)));
                start = end;
            }
            while (start < shaped.Text.Length && (lines.Count <= stopAfter || stopAfter == int.MaxValue));

            if (lines.Count > stopAfter)
            {
                return lines;
            }
        }

        return lines;
    }

    /// <summary>Width without the blanks at the end, which hang over the edge.</summary>
    private static double Visible(ShapedText shaped, int start, int end)
    {
        while (end > start && char.IsWhiteSpace(shaped.Text[end - 1]))
        {
            end--;
        }

        return shaped.Width(start, end);
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
