using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>Rows of a card as they are drawn.</summary>
internal sealed record RowsSet(FitOutcome Fit, ImmutableArray<TypeRun> Runs, ImmutableArray<InkLine> Rules)
{
    public ImmutableArray<InkShape> Shapes { get; init; } = [];
}

/// <summary>
/// Composes short rows: where from and where to as a journey, counts as large figures, anything else as a table with
/// what it is at the left and how much at the right.
/// </summary>
internal static class PlannedRows
{
    /// <summary>Least distance of two rows of a table, as a multiple of the type's size.</summary>
    private const double LeastPitch = 1.75;

    private const double MostPitch = 2.6;

    /// <summary>A table of small type gives way to rows of two lines each when their type is so much larger.</summary>
    private const double TwoLinesFrom = 1.25;

    /// <summary>A pictogram and the gap after it, in ems of the row's type.</summary>
    private const double PictogramEm = 1.05;

    private const double PictogramGapEm = 0.45;

    private const double LabelPt = 9.5;

    /// <summary>Figures on a card; more are a table.</summary>
    private const int MostFigures = 6;

    /// <summary>
    /// The rows in an area; null when there is none with a value, or one does not fit on a line, so that they are set
    /// as words.
    /// </summary>
    public static RowsSet? Of(string words, CardStyle style, TypeArea area, ITextShaper shaper)
    {
        var lines = words.Split('\n').Select(l => l.TrimEnd()).Where(l => l.Length > 0).ToArray();
        if (style.Plan!.Rows == RowPlan.Lines || lines.Length == 0 || area.Height <= 0 || area.Width <= 0)
        {
            return null;
        }

        var set = new Setting(words, lines, [.. lines.Select(CardRow.Of)], style, area, shaper);
        return set.Rows.All(r => r.Value.Length == 0 && !r.Prompt) ? null : Journey(set) ?? Figures(set) ?? Table(set);
    }

    private sealed record Setting(
        string Words,
        string[] Lines,
        CardRow[] Rows,
        CardStyle Style,
        TypeArea Area,
        ITextShaper Shaper
    )
    {
        public Rgb Quiet => CardComposer.Readable(Style.Accent, Style.Paper, Style.Ink);

        public double Em(Typeface face, string text) => text.Length == 0 ? 0 : Shaper.Shape(face, text).Ends[^1];

        /// <summary>How the rows came out: a line and a place for each, on these baselines.</summary>
        public FitOutcome Fit(double size, double step, IEnumerable<double> baselines)
        {
            var (set, slots, at) = (new List<SetLine>(), new List<LineSlot>(), 0);
            foreach (var (line, baseline) in Lines.Zip(baselines))
            {
                at = Words.IndexOf(line, at, StringComparison.Ordinal);
                set.Add(new SetLine(line, at, Area.Width, Area.X, baseline, 0, true));
                slots.Add(new LineSlot(Area.X, baseline, Area.Width, 0));
                at += line.Length;
            }

            return new FitOutcome(size, step, [.. set], [.. slots], Copyfit.CountWords(Words), 0, Words.Length);
        }
    }

    /// <summary>Where from over where to, each under its label, with the way between them.</summary>
    private static RowsSet? Journey(Setting set)
    {
        if (set.Rows is not [{ Name: "From" } from, { Name: "To" } to])
        {
            return null;
        }

        var (style, area, plan) = (set.Style, set.Area, set.Style.Plan!);
        var inset = Math.Min(22, area.Width * 0.16);
        var room = area.Width - inset;
        var widest = Math.Max(set.Em(plan.Large, from.Value), set.Em(plan.Large, to.Value));
        var size = Stepped(Math.Min(44, Math.Min(room / widest, area.Height * 0.22)));
        if (size < style.Type.SmallestPt)
        {
            return null;
        }

        var label = Math.Min(LabelPt, size * 0.6);
        var x = area.X + inset;
        var runs = new List<TypeRun>();
        var baselines = new List<double>();
        foreach (var (row, middle) in new[] { (from, 0.24), (to, 0.74) })
        {
            var baseline = area.Y + (area.Height * middle) + (size * 0.35);
            baselines.Add(baseline);
            runs.Add(new TypeRun(plan.Large, size, x, baseline, row.Value, style.Ink));
            if (PlannedCard.Tracked(row.Name, plan.Label, label, set.Quiet, room, set.Shaper) is { } over)
            {
                runs.Add(over.Run with { X = x, Baseline = baseline - (size * 1.02) });
            }
        }

        var dot = Math.Clamp(size * 0.14, 2, 4.5);
        var line = area.X + (inset * 0.36);
        var (top, foot) = (baselines[0] - (size * 0.32), baselines[1] - (size * 0.32));
        return new RowsSet(set.Fit(size, baselines[1] - baselines[0], baselines), [.. runs], [])
        {
            Shapes =
            [
                new InkShape(Ornaments.Disc(line, top, dot), 0, 0, 1, style.Accent, 1.6),
                new InkShape(Ornaments.Dashes(line, top + (dot * 2.2), foot - (dot * 2.2)), 0, 0, 1, style.Accent, 1.6)
                {
                    RoundEnds = true,
                },
                new InkShape(Ornaments.Disc(line, foot, dot * 1.25), 0, 0, 1, style.Accent),
            ],
        };
    }

    /// <summary>Counts: each number large, what is counted under it, side by side or in two columns.</summary>
    private static RowsSet? Figures(Setting set)
    {
        var (style, area, plan, rows) = (set.Style, set.Area, set.Style.Plan!, set.Rows);
        if (rows.Length is < 2 or > MostFigures || !rows.All(r => r.Counts))
        {
            return null;
        }

        var columns =
            area.Width > area.Height * 1.2 && rows.Length <= 4 ? rows.Length
            : rows.Length > 3 ? 2
            : 1;
        var down = (rows.Length + columns - 1) / columns;
        var (wide, high) = ((area.Width - ((columns - 1) * 10)) / columns, area.Height / down);
        var widest = rows.Max(r => set.Em(plan.Large, r.Value));
        var size = Stepped(Math.Min(60, Math.Min(wide * 0.94 / widest, high * 0.58)));
        var label = Math.Min(LabelPt + 2, Math.Min(size * 0.4, high * 0.2));
        if (size < style.Type.SmallestPt * 1.6 || label < 6)
        {
            return null;
        }

        var (runs, baselines) = (new List<TypeRun>(), new List<double>());
        for (var i = 0; i < rows.Length; i++)
        {
            var (x, y) = (area.X + (i % columns * (wide + 10)), area.Y + (i / columns * high));
            var tall = (size * 0.74) + (label * 1.5);
            // A single row of figures stands where the words of such a card do.
            var baseline =
                y + (size * 0.74) + ((high - tall) * (down == 1 && plan.Place == WordsPlace.Foot ? 0.92 : 0.5));
            baselines.Add(baseline);
            runs.Add(new TypeRun(plan.Large, size, x, baseline, rows[i].Value, style.Ink));
            if (PlannedCard.Tracked(rows[i].Name, plan.Label, label, set.Quiet, wide, set.Shaper) is { } under)
            {
                runs.Add(under.Run with { X = x, Baseline = baseline + (label * 1.4) });
            }
        }

        var rules =
            columns > 1 || plan.Rows != RowPlan.Ruled
                ? []
                : Enumerable.Range(1, down - 1).SelectMany(i => Rule(style, area, area.Y + (i * high)));
        return new RowsSet(set.Fit(size, high, baselines), [.. runs], [.. rules]);
    }

    /// <summary>Rows over the foot of the card, a rule or dots with each; pictograms where most have one.</summary>
    private static RowsSet? Table(Setting set)
    {
        var (style, area, rows) = (set.Style, set.Area, set.Rows);
        var face = style.Type.Face;
        var pictograms = rows.Select(r => Pictograms.For(r.Name)).ToArray();
        var indent = pictograms.Count(p => p is not null) * 2 > rows.Length ? PictogramEm + PictogramGapEm : 0;
        var widest = rows.Max(r =>
            indent + set.Em(face, r.Name) + (r.Value.Length > 0 ? set.Em(face, r.Value) + 1 : 0)
        );
        var size = Stepped(
            Math.Min(style.Type.LargestPt, Math.Min(area.Width / widest, area.Height / (LeastPitch * rows.Length)))
        );
        if (size < style.Type.LargestPt * 0.6 && TwoLines(set) is { } larger && larger.Fit.SizePt > size * TwoLinesFrom)
        {
            return larger;
        }

        if (size < style.Type.SmallestPt)
        {
            return null;
        }

        var step = Math.Min(area.Height / rows.Length, MostPitch * size);
        var top = area.Y + area.Height - (step * rows.Length);
        var (runs, rules, shapes, baselines) = (
            new List<TypeRun>(),
            new List<InkLine>(),
            new List<InkShape>(),
            new List<double>()
        );
        for (var i = 0; i < rows.Length; i++)
        {
            var (y, row) = (top + (i * step), rows[i]);
            var baseline = y + (step / 2) + (size * 0.36);
            baselines.Add(baseline);
            runs.Add(new TypeRun(face, size, area.X + (indent * size), baseline, row.Name, style.Ink));
            if (row.Value.Length > 0)
            {
                var x = area.X + area.Width - (set.Em(face, row.Value) * size);
                runs.Add(new TypeRun(face, size, x, baseline, row.Value, style.Ink));
            }

            if (indent > 0 && pictograms[i] is { } pictogram)
            {
                shapes.Add(Pictograms.At(pictogram, area.X, baseline - (size * 0.88), size * PictogramEm, set.Quiet));
            }

            rules.AddRange(Rule(style, area, style.Plan!.Rows == RowPlan.Ruled ? y : y + step - 1));
        }

        return new RowsSet(set.Fit(size, step, baselines), [.. runs], [.. rules]) { Shapes = [.. shapes] };
    }

    /// <summary>What it is as a label, how much on a line of its own under it; null when that does not fit.</summary>
    private static RowsSet? TwoLines(Setting set)
    {
        var (style, area, rows) = (set.Style, set.Area, set.Rows);
        var face = style.Type.Face;
        var widest = rows.Max(r => set.Em(face, r.Value.Length > 0 ? r.Value : r.Name));
        // A row is a label of three quarters of the size, its words, and the space to the next.
        const double tall = 2.7;
        var size = Stepped(
            Math.Min(style.Type.LargestPt, Math.Min(area.Width / widest, area.Height / (tall * rows.Length)))
        );
        if (size < style.Type.SmallestPt)
        {
            return null;
        }

        var step = Math.Min(area.Height / rows.Length, 3.2 * size);
        var top = area.Y + area.Height - (step * rows.Length);
        var (runs, rules, baselines) = (new List<TypeRun>(), new List<InkLine>(), new List<double>());
        for (var i = 0; i < rows.Length; i++)
        {
            var (y, row) = (top + (i * step), rows[i]);
            var baseline = y + step - (size * 0.55);
            baselines.Add(baseline);
            var open = row.Prompt && row.Value.Length == 0;
            if (!open)
            {
                var words = row.Value.Length > 0 ? row.Value : row.Name;
                runs.Add(new TypeRun(face, size, area.X, baseline, words, style.Ink));
            }

            if (
                (open || row.Value.Length > 0)
                && PlannedCard.Tracked(row.Name, style.Plan!.Label, size * 0.75, set.Quiet, area.Width, set.Shaper)
                    is { } label
            )
            {
                runs.Add(label.Run with { X = area.X, Baseline = baseline - (size * 1.12) });
            }

            rules.AddRange(Rule(style, area, y + step - 1));
        }

        return new RowsSet(set.Fit(size, step, baselines), [.. runs], [.. rules]);
    }

    private static IEnumerable<InkLine> Rule(CardStyle style, TypeArea area, double y)
    {
        const double dot = 1;
        if (style.Plan!.Rows == RowPlan.Ruled)
        {
            return [new InkLine(area.X, y, area.X + area.Width, y, 0.8, style.Accent)];
        }

        return Enumerable
            .Range(0, Math.Max(0, (int)(area.Width / 3.2)))
            .Select(i => new InkLine(area.X + (i * 3.2), y, area.X + (i * 3.2) + dot, y, dot, style.Accent));
    }

    private static double Stepped(double size) => Math.Floor(size / TypeRange.StepPt) * TypeRange.StepPt;
}
