using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Draws who was there as portraits with name and age, where pictures of them are chosen.</summary>
public static class PeoplePage
{
    /// <summary>Between two portraits, in points.</summary>
    private const double GapPt = 8;

    /// <summary>Room for name and age under a portrait, in points.</summary>
    private const double LabelPt = 24;

    /// <summary>
    /// A grid of portraits as large as the card allows; who has none stands with the name in its place.
    /// </summary>
    /// <param name="people">In their order.</param>
    /// <param name="pictured">The names that have a portrait.</param>
    public static CardFace Draw(
        IReadOnlyList<PersonOnDay> people,
        IReadOnlySet<string> pictured,
        CardStyle style,
        Size cut,
        ITextShaper shaper,
        string heading
    )
    {
        ArgumentNullException.ThrowIfNull(people);
        ArgumentNullException.ThrowIfNull(pictured);
        ArgumentNullException.ThrowIfNull(style);
        var face = CardComposer.Journaling(string.Empty, style with { Ruled = false }, cut, shaper, heading);
        var area = CardComposer.Areas(style, cut, heading: true)[0];
        var (columns, side) = Grid(people.Count, area.Width, area.Height);
        var rows = (people.Count + columns - 1) / columns;
        var (openings, runs) = (new List<SmallOpening>(), new List<TypeRun>());
        FitOutcome? smallest = null;
        for (var i = 0; i < people.Count; i++)
        {
            // A last row that is not full stands in the middle.
            var inRow = i / columns == rows - 1 ? people.Count - (columns * (rows - 1)) : columns;
            var wide = (inRow * side) + ((inRow - 1) * GapPt);
            var x = area.X + ((area.Width - wide) / 2) + (i % columns * (side + GapPt));
            var y = area.Y + (i / columns * (side + LabelPt + GapPt));
            var portrait = pictured.Contains(people[i].Name);
            if (portrait)
            {
                openings.Add(new SmallOpening(people[i].Name, new CardOpening(x, y, side, side)));
            }

            var words = people[i].Age is { } age ? $"{people[i].Name}\n{age}" : people[i].Name;
            var (top, room) = portrait ? (y + side + 2, LabelPt) : (y + (side / 2) - (LabelPt / 2), LabelPt);
            var set = Copyfit.Fit(
                words,
                side + (GapPt / 2),
                room,
                style.Type with
                {
                    SmallestPt = TypeRange.SmallestEverPt,
                    LargestPt = 10,
                    Leading = 1.1,
                },
                shaper
            );
            smallest = smallest is null || set.SizePt < smallest.SizePt ? set : smallest;
            runs.AddRange(
                set.Lines.Select(l =>
                    TypeRun.Of(l, style.Type.Face, set.SizePt, style.Ink) with
                    {
                        X = x + ((side - Width(l.Text, style, set.SizePt, shaper)) / 2),
                        Baseline = top + l.Baseline,
                    }
                )
            );
        }

        return face with
        {
            Runs = [.. face.Runs, .. runs],
            SmallOpenings = [.. openings],
            Fit = smallest,
        };
    }

    private static double Width(string text, CardStyle style, double sizePt, ITextShaper shaper) =>
        shaper.Shape(style.Type.Face, text).Ends is { Count: > 0 } ends ? ends[^1] * sizePt : 0;

    /// <summary>The number of columns that gives the largest square portraits, and their side in points.</summary>
    internal static (int Columns, double Side) Grid(int people, double width, double height)
    {
        var best = (Columns: 1, Side: 0.0);
        for (var columns = 1; columns <= Math.Max(1, people); columns++)
        {
            var rows = Math.Max(1, (people + columns - 1) / columns);
            var side = Math.Min(
                (width - (GapPt * (columns - 1))) / columns,
                (height - (GapPt * (rows - 1))) / rows - LabelPt
            );
            if (side > best.Side)
            {
                best = (columns, side);
            }
        }

        return best;
    }
}
