using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Makes the faces of bought cards: as they look in the pocket, and what is printed, which is the words alone and the
/// picture that is mounted.
/// </summary>
public sealed class BoughtCardFaces(FontShelf fonts)
{
    private static Rgb White { get; } = new(255, 255, 255);

    /// <summary>As it looks: the trimmed card with its words and its mounted picture; null without its photo.</summary>
    public FinishedFace? Of(OpenUnit open, BoughtCard card, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        if (open.PhotoOf(card.PhotoId) is not { } photo)
        {
            return null;
        }

        var kept = card.KeptFor(cut);
        var squared = new SquaredFace(kept.Size, PhotoView.RefOf(photo), card.Corners, card.Size, kept);
        var on = new List<FaceOnPart> { On(new Rect(Length.Zero, Length.Zero, kept.Size), squared) };
        if (Picture(open, card) is { } picture)
        {
            on.Add(On(card.PicturePlace!.Value, picture));
        }

        return Whole(cut, [.. on, .. Words(open, card)]);
    }

    /// <summary>What is printed onto the card: its words; null when it has none.</summary>
    public FinishedFace? Printed(OpenUnit open, BoughtCard card, Size cut)
    {
        ArgumentNullException.ThrowIfNull(card);
        var words = Words(open, card).ToImmutableArray();
        return words.IsEmpty ? null : Whole(card.KeptFor(cut).Size, words);
    }

    /// <summary>The print that is mounted on its place; null for none.</summary>
    public PhotoFace? Picture(OpenUnit open, BoughtCard card)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        return card is { Picture: { } picture, PicturePlace: { } place } && open.PhotoOf(picture.PhotoId) is { } shown
            ? new PhotoFace(
                place.Size,
                PhotoView.RefOf(shown),
                shown.Pixels,
                Crop.For(shown.Pixels, place.Size, picture.Framing)
            )
            : null;
    }

    /// <summary>How the words come out on their place; null when there are none.</summary>
    public FitOutcome? FitOf(OpenUnit open, BoughtCard card)
    {
        ArgumentNullException.ThrowIfNull(card);
        return card.WordsPlace is { } place && !string.IsNullOrWhiteSpace(card.Words)
            ? Set(open, card.Words, place.Size).Fit
            : null;
    }

    private IEnumerable<FaceOnPart> Words(OpenUnit open, BoughtCard card) =>
        card.WordsPlace is { } place && !string.IsNullOrWhiteSpace(card.Words)
            ? [On(place, new CardPieceFace(place.Size, Set(open, card.Words, place.Size)) { GroundShare = 0 })]
            : [];

    /// <summary>Words of the album's journaling style without its ornaments: the card has its own.</summary>
    private CardFace Set(OpenUnit open, string words, Size place)
    {
        var style = open.Words.NewStyle(CardKind.Journaling).WithoutPicture();
        var plain = style with
        {
            Dress = CardDress.Plain,
            PlanKey = null,
            Ruled = false,
            BorderPt = 0,
            Corner = Length.Zero,
            Zones = CardZones.None,
            Margin = Length.FromInches(1, 16),
            Columns = 1,
        };
        var face = CardComposer.Journaling(words, plain, place, fonts);
        return face with { Boxes = [], Rules = [], Discs = [], Shapes = [] };
    }

    private static FaceOnPart On(Rect at, PieceFace face) => new(at, face, Outline.Of(at));

    private static FinishedFace Whole(Size cut, ImmutableArray<FaceOnPart> on)
    {
        var whole = Outline.Of(new Rect(Length.Zero, Length.Zero, cut));
        return new FinishedFace(cut, [new FinishPart(string.Empty, whole, White, on)]);
    }
}
