using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;

namespace ZestyPocket.Core.LookingOver;

/// <summary>
/// How a spread weighs: dark and strongly coloured things are heavy, white paper is light. Shares of the whole,
/// −1 to 1.
/// </summary>
/// <param name="Spread">From 1.</param>
/// <param name="RightLessLeft">Above 0 the right page is heavier.</param>
/// <param name="FootLessHead">Above 0 the lower half is heavier.</param>
/// <param name="IsFilled">Both pages hold something in each pocket.</param>
public sealed record SpreadBalance(int Spread, double RightLessLeft, double FootLessHead, bool IsFilled)
{
    /// <summary>The balance of each spread of a unit that has two pages.</summary>
    public static IEnumerable<SpreadBalance> Of(UnitDesk desk, IReadOnlyList<PocketToFill> pockets)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(pockets);
        foreach (var spread in pockets.GroupBy(p => p.Spread).Where(g => g.Select(p => p.Face).Distinct().Count() > 1))
        {
            var things = spread
                .Select(p => (Pocket: p, Heft: HeftAt(desk, p.Place), Area: (double)p.Cut.SquareInches))
                .ToList();
            var middle = things.Max(t => t.Pocket.Bounds.Bottom).Inches / 2;
            yield return new SpreadBalance(
                spread.Key,
                Mean(things.Where(t => t.Pocket.IsRight)) - Mean(things.Where(t => !t.Pocket.IsRight)),
                Mean(things.Where(t => Centre(t.Pocket) >= middle))
                    - Mean(things.Where(t => Centre(t.Pocket) < middle)),
                things.TrueForAll(t => t.Heft is not null || desk.Content.LeftEmpty.Contains(t.Pocket.Place))
            );
        }

        static decimal Centre(PocketToFill pocket) => (pocket.Bounds.Y.Inches + pocket.Bounds.Bottom.Inches) / 2;

        static double Mean(IEnumerable<(PocketToFill Pocket, double? Heft, double Area)> things)
        {
            var (sum, area) = things.Aggregate(
                (Sum: 0.0, Area: 0.0),
                (t, n) => (t.Sum + ((n.Heft ?? 0) * n.Area), t.Area + n.Area)
            );
            return area == 0 ? 0 : sum / area;
        }
    }

    /// <summary>How heavy what lies in a pocket looks; null for an empty one.</summary>
    private static double? HeftAt(UnitDesk desk, PocketPlace place)
    {
        if (desk.Content.At(place) is not { } lies || desk.Content.Find(lies.PieceId) is not { } piece)
        {
            return null;
        }

        switch (piece)
        {
            case PhotoPrint print when desk.Photos.TryGetValue(print.PhotoId, out var original):
                var photo = print.Adjustment?.On(original) ?? original;
                return SpreadCosts.Heft(photo.Tone, photo.Palette.Sum(c => c.Share * c.Lab.Chroma));
            case Card card:
                var paper = desk.StyleOf(card).Paper;
                var lab = LabColour.OfSrgb(paper.R, paper.G, paper.B);
                return SpreadCosts.Heft(lab.L, lab.Chroma);
            default:
                return SpreadCosts.Heft(70, 10);
        }
    }
}
