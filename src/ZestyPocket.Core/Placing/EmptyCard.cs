using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>Cards that would be printed with nothing on them that somebody reads. Common practice.</summary>
public static class EmptyCard
{
    /// <summary>
    /// What is missing, in words; null for a card that says something, is written by hand later, or wants no words.
    /// </summary>
    public static string? Says(UnitDesk desk, Card card)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.Legend => Legend.Of(desk).Count == 0
                ? "The legend has no lines: no picture of it has one yet."
                : null,
            CardKind.People => ComputedCards.PeopleOn(desk.Words.People, card.Day ?? desk.Dates.First).Count == 0
                ? "Nobody is on the card of who was there: the album knows no people yet."
                : null,
            CardKind.Filler => null,
            _ when ComputedCards.IsComputed(card.Kind) => null,
            _ when card.Setting is { ByHand: true } || !card.SmallPictures.IsEmpty => null,
            _ when string.IsNullOrWhiteSpace(card.Words) => "Nothing is written on the card.",
            _ when card.Words.Trim() == ComputedCards.Beginning(card.Kind).Trim() =>
                "Nothing is filled in on the card.",
            _ => null,
        };
    }
}
