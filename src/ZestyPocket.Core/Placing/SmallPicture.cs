using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>A small picture at a place of a card; the picture can lie in a pocket of its own as well.</summary>
/// <param name="Place">A day of a calendar as <c>2026-05-04</c>, or the name of somebody who was there.</param>
public sealed record SmallPicture(string Place, Guid PhotoId, Framing Framing);

/// <summary>Which places for small pictures a card has, and what is proposed for them.</summary>
public static class SmallPictures
{
    /// <summary>The places of a card in their order: days of the unit, or people; none on other kinds.</summary>
    public static IReadOnlyList<string> PlacesOf(UnitDesk desk, Card card)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.Calendar => [.. DaysOf(desk, card).Select(CalendarCard.PlaceOf)],
            CardKind.People =>
            [
                .. ComputedCards
                    .PeopleOn(desk.Words.People, card.Day ?? desk.Dates.First)
                    .Select(p => p.Name)
                    .Distinct(StringComparer.Ordinal),
            ],
            _ => [],
        };
    }

    /// <summary>
    /// For each open place of a calendar the day's picture that is loved most, the earliest of those; nothing for
    /// people, whom no program should tell apart.
    /// </summary>
    public static IReadOnlyList<SmallPicture> ProposedFor(UnitDesk desk, Card card)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(card);
        if (card.Kind != CardKind.Calendar)
        {
            return [];
        }

        var open = PlacesOf(desk, card).Except(card.SmallPictures.Select(p => p.Place)).ToHashSet();
        return
        [
            .. desk
                .Photos.Values.Where(p => p.Photo.Day is { } day && open.Contains(CalendarCard.PlaceOf(day)))
                .GroupBy(p => p.Photo.Day!.Value)
                .OrderBy(g => g.Key)
                .Select(g => g.OrderByDescending(p => p.Favourite).ThenBy(p => p.Photo.Taken).ThenBy(p => p.Id).First())
                .Select(p => new SmallPicture(CalendarCard.PlaceOf(p.Photo.Day!.Value), p.Id, p.Around)),
        ];
    }

    /// <summary>The days of the unit that a calendar shows: one of its months or weeks may show only some.</summary>
    private static IEnumerable<NodaTime.LocalDate> DaysOf(UnitDesk desk, Card card)
    {
        var about = card.Day ?? desk.Dates.First;
        var days = Enumerable
            .Range(0, NodaTime.Period.DaysBetween(desk.Dates.First, desk.Dates.Last) + 1)
            .Select(desk.Dates.First.PlusDays);
        if (card.Setting is not { OneWeek: true })
        {
            return days.Where(d => d.Year == about.Year && d.Month == about.Month);
        }

        var begins = CalendarOfCard.BeginningOf(about, desk.FirstWeekday);
        return days.Where(d => d >= begins && d < begins.PlusDays(7));
    }
}
