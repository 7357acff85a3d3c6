using System.Collections.Immutable;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// One size of type for the journaling cards of a unit in one face, as far as their words allow it. Common practice:
/// cards that are seen together are set alike.
/// </summary>
public static class TypeLevels
{
    /// <summary>A card that would pull the others down under this share of their usual size stays by itself.</summary>
    public const double LeastShare = 0.7;

    /// <summary>The largest type of each card that is set like others, in points; other cards are left out.</summary>
    public static ImmutableDictionary<Guid, double> Of(UnitDesk desk, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return desk
            .Content.Pieces.OfType<Card>()
            .Select(c => Sized(desk, c, shaper))
            .OfType<SizedCard>()
            .GroupBy(c => c.Face)
            .SelectMany(Levelled)
            .Where(l => Fits(desk, l.Card, l.SizePt, shaper))
            .ToImmutableDictionary(l => l.Card, l => l.SizePt);
    }

    /// <summary>A style at exactly the size that a card shares with others.</summary>
    public static CardStyle At(double sizePt, CardStyle style) =>
        new CardSetting(LargestPt: sizePt, SmallestPt: sizePt).On(style);

    private static bool Fits(UnitDesk desk, Guid cardId, double sizePt, ITextShaper shaper)
    {
        var card = (Card)desk.Content.Find(cardId)!;
        var (cut, heading) = (desk.Pages.RoomOf(desk.Content, card), ComputedCards.Heading(card.Kind) is not null);
        return CardComposer.Fit(card.Words, At(sizePt, desk.StyleOf(card)), cut, shaper, heading).Fits;
    }

    private sealed record SizedCard(Guid Card, double SizePt, Typeface Face);

    private static SizedCard? Sized(UnitDesk desk, Card card, ITextShaper shaper)
    {
        if (
            CardStyle.RoleOf(card.Kind) != StyleRole.Words
            || string.IsNullOrWhiteSpace(card.Words)
            || card.Setting is { ByHand: true } or { OwnSize: true }
            || desk.Content.PlacementOf(card.Id) is null
            || desk.StyleOf(card) is not { Plan: not null } style
        )
        {
            return null;
        }

        var cut = desk.Pages.RoomOf(desk.Content, card);
        var fit = CardComposer.Fit(card.Words, style, cut, shaper, ComputedCards.Heading(card.Kind) is not null);
        return fit.Fits ? new SizedCard(card.Id, fit.SizePt, style.Type.Face) : null;
    }

    private static IEnumerable<(Guid Card, double SizePt)> Levelled(IEnumerable<SizedCard> group)
    {
        var sizes = group.OrderBy(c => c.SizePt).ToList();
        var usual = sizes[sizes.Count / 2].SizePt;
        var alike = sizes.FindAll(c => c.SizePt >= usual * LeastShare);
        return alike.Count < 2 ? [] : alike.Select(c => (c.Card, alike[0].SizePt));
    }
}
