using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>One cut at the trimmer.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Line">Where it runs on the sheet.</param>
/// <param name="Stop">What the stop is set to: the width of what lies between the stop and the blade.</param>
public sealed record TrimmerCut(int Number, CutLine Line, Length Stop);

/// <summary>
/// The order in which a sheet is cut with the fewest changes of the stop: of the cuts that are free to be made, first
/// all for which the stop is set, then those of the setting that most of them share. Common practice.
/// </summary>
public static class TrimmerCuts
{
    /// <summary>The cuts of a planned sheet. Every line of it is cut once.</summary>
    public static IReadOnlyList<TrimmerCut> Of(PlannedSheet sheet, PrinterSetup setup)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(setup);
        var room = setup.ForPieces;
        var open = new List<Cut>();
        var edges = sheet.Cuts.Where(c => IsEdge(c, room)).ToList();
        var (order, stop) = (new List<TrimmerCut>(), (Length?)null);
        foreach (var edge in edges)
        {
            // The sheet is squared up first; the far edges are measured from the near ones.
            var far = edge.X1 == edge.X2 ? edge.X1 == room.Right : edge.Y1 == room.Bottom;
            var near =
                edge.X1 == edge.X2
                    ? edges.Exists(e => e.X1 == room.X && e.X2 == room.X)
                        ? room.X
                        : Length.Zero
                    : edges.Exists(e => e.Y1 == room.Y && e.Y2 == room.Y)
                        ? room.Y
                        : Length.Zero;
            stop = (edge.X1 == edge.X2 ? edge.X1 : edge.Y1) - (far ? near : Length.Zero);
            order.Add(new TrimmerCut(order.Count + 1, edge, stop.Value));
        }

        Open(room, [.. sheet.Pieces.Select(p => p.Bounds)], open);
        while (open.Count > 0)
        {
            if (!open.Exists(c => c.Stop == stop))
            {
                stop = open.GroupBy(c => c.Stop)
                    .OrderByDescending(g => g.Count())
                    .ThenByDescending(g => g.Key)
                    .First()
                    .Key;
            }

            var next = open.First(c => c.Stop == stop);
            open.Remove(next);
            order.Add(new TrimmerCut(order.Count + 1, next.Line, next.Stop));
            next.Then(open);
        }

        return order;
    }

    /// <summary>How often the stop is set.</summary>
    public static int Settings(IReadOnlyList<TrimmerCut> order)
    {
        ArgumentNullException.ThrowIfNull(order);
        return order.Where((cut, i) => i == 0 || order[i - 1].Stop != cut.Stop).Count();
    }

    /// <summary>The order in words: “1–2 at 1/4 in · 3–5 at 4 in”.</summary>
    public static string InWords(IReadOnlyList<TrimmerCut> order, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(order);
        var runs = new List<(int From, int To, Length Stop)>();
        foreach (var cut in order)
        {
            if (runs.Count > 0 && runs[^1].Stop == cut.Stop)
            {
                runs[^1] = runs[^1] with { To = cut.Number };
            }
            else
            {
                runs.Add((cut.Number, cut.Number, cut.Stop));
            }
        }

        return string.Join(
            " · ",
            runs.Select(r =>
                $"{(r.From == r.To ? $"{r.From}" : $"{r.From}–{r.To}")} at {MeasureText.Show(r.Stop, measures)}"
            )
        );
    }

    private static bool IsEdge(CutLine cut, Rect room) =>
        cut.X1 == cut.X2 ? cut.X1 == room.X || cut.X1 == room.Right : cut.Y1 == room.Y || cut.Y1 == room.Bottom;

    /// <summary>What can be cut of a part now; its further cuts follow from these.</summary>
    private static void Open(Rect part, List<Rect> pieces, List<Cut> open)
    {
        if (pieces.Count == 0 || (pieces.Count == 1 && pieces[0] == part))
        {
            return;
        }

        if (GuillotineCuts.LinesOf(part, pieces) is not var (down, lines))
        {
            return;
        }

        OpenLine(part, pieces, down, lines, 0, open);
    }

    /// <summary>Strips come off one after another, from the near edge.</summary>
    private static void OpenLine(Rect part, List<Rect> pieces, bool down, List<Length> lines, int at, List<Cut> open)
    {
        var from = at == 0 ? (down ? part.X : part.Y) : lines[at - 1];
        var line = lines[at];
        var cut = down ? new CutLine(line, part.Y, line, part.Bottom) : new CutLine(part.X, line, part.Right, line);
        open.Add(
            new Cut(
                cut,
                line - from,
                then =>
                {
                    OpenStrip(from, line, then);
                    if (at + 1 < lines.Count)
                    {
                        OpenLine(part, pieces, down, lines, at + 1, then);
                    }
                    else
                    {
                        OpenStrip(line, down ? part.Right : part.Bottom, then);
                    }
                }
            )
        );

        void OpenStrip(Length low, Length high, List<Cut> then)
        {
            var strip = down ? part with { X = low, Width = high - low } : part with { Y = low, Height = high - low };
            Open(strip, pieces.FindAll(strip.Contains), then);
        }
    }

    private sealed record Cut(CutLine Line, Length Stop, Action<List<Cut>> Then);
}
