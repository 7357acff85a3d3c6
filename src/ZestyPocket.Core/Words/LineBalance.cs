using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Breaks the lines of a text that fits once more, at the same size, so that they are of even length: no single word
/// stands on a last line, and no line ends with the first word of a sentence, where that can be avoided. Source of the
/// method: D. E. Knuth and M. F. Plass, "Breaking paragraphs into lines", 1981 (the least sum of squares over all
/// breaks); the two rules are common practice.
/// </summary>
internal static class LineBalance
{
    private const double SingleWordLast = 10;

    private const double SentenceBegunAtEnd = 4;

    /// <summary>What a last line that is much shorter than the others costs where all are to be even.</summary>
    private const double LastLineShare = 0.6;

    /// <param name="even">The last line is to be as long as the others, as in a title or a quote.</param>
    public static FitOutcome Improve(string words, FitOutcome fit, TypeRange type, ITextShaper shaper, bool even)
    {
        if (!fit.Fits || fit.Lines.IsEmpty || fit.Slots.Any(s => s.Area != 0))
        {
            return fit;
        }

        // Around a picture a further line would push the words after it into places of another width.
        var alike = fit.Slots.All(s => s.Width == fit.Slots[0].Width);
        var copy = Copy.Of(words, type.Face, shaper);
        var (lines, free) = (ImmutableArray.CreateBuilder<SetLine>(fit.Lines.Length), fit.LinesLeft);
        for (var at = 0; at < fit.Lines.Length; )
        {
            var until = at;
            while (!fit.Lines[until].EndsParagraph)
            {
                until++;
            }

            var paragraph = copy.Paragraphs[copy.ParagraphAt(fit.Lines[at].Start)];
            var old = fit.Lines[at..(until + 1)];
            double[] rooms = [.. fit.Slots.Skip(lines.Count).Take(old.Length + 1).Select(s => s.Width / fit.SizePt)];
            var mayGrow = free > 0 && rooms.Length > old.Length && (alike || until == fit.Lines.Length - 1);
            var ends = Ends(copy, paragraph, old, rooms, mayGrow, even);
            free -= Math.Max(0, ends.Count - old.Length);
            var start = 0;
            foreach (var end in ends)
            {
                var slot = fit.Slots[lines.Count];
                lines.Add(Copyfit.Line(copy, paragraph.Shaped, paragraph.Start, start, end, slot, fit.SizePt));
                start = end;
            }

            at = until + 1;
        }

        return fit with
        {
            Lines = lines.ToImmutable(),
        };
    }

    /// <summary>
    /// Where the lines of a paragraph end: in as many lines as it has, or one more to be rid of a fault.
    /// </summary>
    private static List<int> Ends(
        Copy copy,
        Paragraph paragraph,
        ImmutableArray<SetLine> old,
        double[] rooms,
        bool mayGrow,
        bool even
    )
    {
        var text = paragraph.Shaped.Text;
        List<int> was = [.. old.Skip(1).Select(l => l.Start - paragraph.Start), text.Length];
        // A word that had to be parted is left as it is.
        if (old.Length < 2 || was.Exists(e => !paragraph.Breaks.Contains(e)))
        {
            return was;
        }

        var places = Places(paragraph);
        var best = Best(old.Length);
        if (mayGrow && best.Cost >= SentenceBegunAtEnd && Best(old.Length + 1) is var more && more.Cost < best.Cost - 1)
        {
            best = more;
        }

        return best.Ends ?? was;

        (double Cost, List<int>? Ends) Best(int count) => Cheapest(copy, paragraph, places, count, rooms, even);
    }

    private static (double Cost, List<int>? Ends) Cheapest(
        Copy copy,
        Paragraph paragraph,
        Place[] places,
        int count,
        double[] rooms,
        bool even
    )
    {
        var last = places.Length - 1;
        var cost = new double[count + 1, places.Length];
        var from = new int[count + 1, places.Length];
        for (var k = 0; k <= count; k++)
        {
            for (var i = 0; i < places.Length; i++)
            {
                cost[k, i] = k == 0 && i == 0 ? 0 : double.PositiveInfinity;
            }
        }

        var widest = rooms.Max();
        for (var i = 1; i < places.Length; i++)
        {
            for (var j = i - 1; j >= 0; j--)
            {
                var width = Copyfit.Visible(copy, paragraph.Shaped, places[j].End, places[i].End);
                if (width > widest + 1e-9)
                {
                    break;
                }

                for (var k = 1; k <= count; k++)
                {
                    var room = rooms[k - 1];
                    if (double.IsPositiveInfinity(cost[k - 1, j]) || (k == count) != (i == last) || width > room + 1e-9)
                    {
                        continue;
                    }

                    var slack = (room - width) / room;
                    var here = cost[k - 1, j] + LineCost(places, j, i, slack, k == count, even);
                    if (here < cost[k, i])
                    {
                        (cost[k, i], from[k, i]) = (here, j);
                    }
                }
            }
        }

        if (double.IsPositiveInfinity(cost[count, last]))
        {
            return (double.PositiveInfinity, null);
        }

        var ends = new List<int>();
        for (var (k, i) = (count, last); k > 0; i = from[k, i], k--)
        {
            ends.Insert(0, places[i].End);
        }

        return (cost[count, last], ends);
    }

    private static double LineCost(Place[] places, int j, int i, double slack, bool isLast, bool even)
    {
        if (!isLast)
        {
            return (slack * slack) + (places[i].BeginsSentence ? SentenceBegunAtEnd : 0);
        }

        var single = j > 0 && places[i].Words - places[j].Words <= 1;
        return (single ? SingleWordLast : 0) + (even ? slack * slack * LastLineShare : 0);
    }

    /// <summary>A place where a line may end.</summary>
    /// <param name="End">Where in the paragraph.</param>
    /// <param name="Words">Words before it.</param>
    /// <param name="BeginsSentence">The word before it begins a sentence that is not the paragraph's first.</param>
    private readonly record struct Place(int End, int Words, bool BeginsSentence);

    private static Place[] Places(Paragraph paragraph)
    {
        var text = paragraph.Shaped.Text;
        var places = new List<Place> { new(0, 0, false) };
        foreach (var end in paragraph.Breaks.Where(b => b > 0).Distinct())
        {
            var word = text.AsSpan(0, end).TrimEnd();
            var start = word.LastIndexOfAny(" \t\u2009\u200A") + 1;
            var before = word[..start].TrimEnd().TrimEnd("”’\"')»");
            var begins = start > 0 && before.Length > 0 && before[^1] is '.' or '!' or '?' or '…';
            places.Add(new Place(end, Copyfit.CountWords(text.AsSpan(0, end)), begins));
        }

        return [.. places];
    }
}
