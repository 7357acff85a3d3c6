using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.LookingOver;

/// <summary>
/// How colourful a spread looks: the mean of what lies in its pockets, by area. The scale is that of
/// <see cref="PictureJudging.Colourfulness(ReadOnlySpan{byte})"/>.
/// </summary>
/// <param name="Spread">From 1.</param>
public sealed record SpreadColours(int Spread, double Colourfulness)
{
    /// <summary>How much of a plain card is its accent, and of a filler. A choice of this program.</summary>
    private const double CardAccent = 0.08;
    private const double FillerAccent = 0.4;

    /// <summary>The spreads of a unit that hold something.</summary>
    public static IEnumerable<SpreadColours> Of(UnitDesk desk, IReadOnlyList<PocketToFill> pockets)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(pockets);
        return pockets
            .GroupBy(p => p.Spread)
            .Select(g => (g.Key, Things: g.Select(p => (Colour: At(desk, p.Place), Area: (double)p.Cut.SquareInches))))
            .Select(s => (s.Key, Things: s.Things.Where(t => t.Colour is not null).ToList()))
            .Where(s => s.Things.Count > 0)
            .Select(s => new SpreadColours(
                s.Key,
                s.Things.Sum(t => t.Colour!.Value * t.Area) / s.Things.Sum(t => t.Area)
            ));
    }

    /// <summary>How colourful the thing in a pocket looks; null for an empty one.</summary>
    internal static double? At(UnitDesk desk, PocketPlace place)
    {
        if (desk.Content.At(place) is not { } lies || desk.Content.Find(lies.PieceId) is not { } piece)
        {
            return null;
        }

        return piece switch
        {
            PhotoPrint print when desk.Photos.TryGetValue(print.PhotoId, out var photo) => (
                print.Adjustment?.On(photo) ?? photo
            ).Colourfulness,
            Card card => Of(desk, card),
            _ => piece
                .PhotosInside.Select(id => desk.Photos.GetValueOrDefault(id)?.Colourfulness)
                .OfType<double>()
                .DefaultIfEmpty(0)
                .Average(),
        };
    }

    private static double Of(UnitDesk desk, Card card)
    {
        var style = desk.StyleOf(card);
        return Of(style, CardStyle.RoleOf(card.Kind) == StyleRole.Filler);
    }

    /// <summary>How colourful a card of a style looks.</summary>
    internal static double Of(CardStyle style, bool filler)
    {
        var accent = filler ? FillerAccent : CardAccent;
        return PictureJudging.Colourfulness([
            new PaletteColour(style.Paper.R, style.Paper.G, style.Paper.B, 1 - accent),
            new PaletteColour(style.Accent.R, style.Accent.G, style.Accent.B, accent),
        ]);
    }
}
