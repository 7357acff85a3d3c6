using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Placing;

/// <summary>Makes the face of a piece: the same for the screen, the sheet and the page.</summary>
public sealed class PieceFaces(FontShelf fonts, IWeatherAlmanac almanac)
{
    /// <summary>The face of a piece at a cut size; null for a print whose photo has left the week.</summary>
    public PieceFace? Of(OpenUnit open, Piece piece, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        return piece switch
        {
            PhotoPrint print => open.Photos.TryGetValue(print.PhotoId, out var photo)
                ? new PhotoFace(cut, PhotoView.RefOf(photo), photo.Pixels, Crop.For(photo.Pixels, cut, print.Framing))
                : null,
            Card card => new CardPieceFace(cut, CardFaceOf(open, card, cut)),
            Keepsake { PhotoId: { } taken } when open.Photos.TryGetValue(taken, out var picture) =>
                new PhotoFace(cut, PhotoView.RefOf(picture), picture.Pixels, Crop.For(picture.Pixels, cut, Framing.Middle)),
            Keepsake keepsake => new CardPieceFace(cut, CardComposer.KeepsakeNote(keepsake.Name, cut, fonts)),
            _ => throw new ArgumentException("Unknown kind of piece.", nameof(piece)),
        };
    }

    public CardFace CardFaceOf(OpenUnit open, Card card, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        var style = StyleOf(card);
        switch (card.Kind)
        {
            case CardKind.WeekTitle:
                return CardComposer.UnitTitle(open.Dates, open.Calendar.Style, style, cut, fonts);
            case CardKind.Filler:
                return CardComposer.Filler(style, cut);
            case CardKind.Countdown:
                var (over, large, foot) = ComputedCards.Countdown(open.Dates.First, CountdownTo(open), card.Words, open.Calendar.Style);
                return CardComposer.Title(over, large, foot, style, cut, fonts);
            case var _ when card.Setting is { ByHand: true }:
                return CardComposer.ByHand(WordsOf(open, card), style, cut, HandCapacity.Usual, fonts, ComputedCards.Heading(card.Kind));
            default:
                return CardComposer.Journaling(WordsOf(open, card), style, cut, fonts, ComputedCards.Heading(card.Kind));
        }
    }

    /// <summary>The words that stand on a card: typed, or computed where its kind says so.</summary>
    public string WordsOf(OpenUnit open, Card card)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.People => ComputedCards.People(open.Calendar.People, open.Dates.First),
            CardKind.FromTo => ComputedCards.FromTo(open.Calendar, open.Dates.First, open.Dates.Last),
            CardKind.Numbers => ComputedCards.Numbers(new AlbumNumbers(
                Period.DaysBetween(open.Dates.First, open.Dates.Last) + 1,
                open.Calendar.People.Length,
                open.Calendar.Stays.Where(s => s.From.Date <= open.Dates.Last).Select(s => s.Place).Distinct().Count(),
                open.Photos.Count,
                open.Content.Pieces.OfType<Card>().Where(c => !ComputedCards.IsComputed(c.Kind)).Sum(c => Copyfit.CountWords(c.Words)))),
            CardKind.Facts => Facts(open),
            _ => card.Words,
        };
    }

    public static CardStyle StyleOf(Card card)
    {
        ArgumentNullException.ThrowIfNull(card);
        return (card.Setting ?? CardSetting.AsTheStyle).On(BuiltInCardStyles.Find(card.StyleKey, card.Kind));
    }

    /// <summary>Daylight and weather of the unit's first day, where its pictures were taken.</summary>
    private string Facts(OpenUnit open)
    {
        var placed = open.Photos.Values.Where(p => p.Latitude is not null && p.Longitude is not null).OrderBy(p => p.SortAt).ToList();
        if (placed.Count == 0)
        {
            return "No picture says where it was taken.";
        }

        // The middle of the day's places, so that one stray position does not move the day.
        var latitude = placed.Select(p => p.Latitude!.Value).Order().ElementAt(placed.Count / 2);
        var longitude = placed.Select(p => p.Longitude!.Value).Order().ElementAt(placed.Count / 2);
        var zone = open.Calendar.Travel.ZoneOf(open.Dates.First.At(new LocalTime(12, 0)));
        return ComputedCards.Facts(Daylight.On(open.Dates.First, latitude, longitude, zone), zone, open.Calendar.Style, almanac.On(open.Dates.First, latitude, longitude));
    }

    /// <summary>A countdown counts to the beginning of the trip, or on an album without stays to its first day.</summary>
    private static LocalDate CountdownTo(OpenUnit open) => open.Calendar.Stays.IsEmpty ? open.Calendar.FirstDay : open.Calendar.Stays[0].From.Date;
}
