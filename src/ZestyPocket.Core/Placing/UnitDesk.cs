using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>A photo with its shape and time.</summary>
public sealed record LoosePhoto(Guid Id, PixelSize Pixels, LocalDate? Day, LocalDateTime? Taken);

/// <summary>A picture of a unit, as far as edits ask.</summary>
/// <param name="Around">How it lies before anybody framed it.</param>
public sealed record DeskPhoto(LoosePhoto Photo, string FileName, Framing Around)
{
    /// <summary>How much the keeper loves it, 0 to 3.</summary>
    public int Favourite { get; init; }

    /// <summary>Its colours, the largest share first.</summary>
    public ImmutableArray<PaletteColour> Palette { get; init; } = [];

    /// <summary>What a crop must keep, in shares of the picture.</summary>
    public ImmutableArray<PictureBox> Keep { get; init; } = [];

    /// <summary>Mean CIE L*, 0 black to 100 white.</summary>
    public double Tone { get; init; } = 60;

    /// <summary>See <see cref="PictureJudging.Colourfulness(ReadOnlySpan{byte})"/>.</summary>
    public double Colourfulness { get; init; }

    /// <summary>See <see cref="PictureJudging.Likeness"/>; 0 when unknown.</summary>
    public ulong Likeness { get; init; }

    /// <summary>Pictures of one moment share this.</summary>
    public Guid? GroupId { get; init; }

    /// <summary>Of its moment it is the sharpest, as the program sees it.</summary>
    public bool SuggestedBest { get; init; }

    /// <summary>The series it belongs to; null for none.</summary>
    public Guid? SeriesId { get; init; }

    /// <summary>What the keeper decided; pictures that are left out are not on the desk.</summary>
    public Verdict Verdict { get; init; }

    public Guid Id => Photo.Id;
}

/// <summary>
/// A unit as it lies on the desk: what it holds, its pages, its pictures, and what the album knows. All an edit needs.
/// </summary>
/// <param name="Title">Such as <c>Week 19</c>, for sentences.</param>
/// <param name="Photos">Its pictures that are not left out, in the order they were taken.</param>
/// <param name="NominalSizes">Sizes of pocket of all page designs that the album uses.</param>
/// <param name="Measures">The keeper's units, for words.</param>
public sealed record UnitDesk(
    UnitContent Content,
    UnitPages Pages,
    UnitDates Dates,
    string Title,
    IReadOnlyDictionary<Guid, DeskPhoto> Photos,
    AlbumWords Words,
    IReadOnlySet<Size> NominalSizes,
    MeasureSystem Measures
)
{
    /// <summary>The protectors that the album knows.</summary>
    public ImmutableArray<OwnedProtector> Protectors { get; init; } = [];

    /// <summary>The album's page body.</summary>
    public Size Body { get; init; }

    /// <summary>How dates are written.</summary>
    public DateStyle Style { get; init; }

    /// <summary>What counts how much when pockets are filled: the unit's own, else the album's.</summary>
    public PlacingWeights Weights => Content.Weights ?? Words.Weights;

    /// <summary>The weekday that a calendar's rows begin with.</summary>
    public IsoDayOfWeek FirstWeekday { get; init; } = IsoDayOfWeek.Monday;

    /// <summary>
    /// Pictures of other units whose pieces lie here, since they are stuck to the back of one that was moved.
    /// </summary>
    public IReadOnlySet<Guid> Guests { get; init; } = ImmutableHashSet<Guid>.Empty;

    /// <summary>What a card is called.</summary>
    public string Called(Card card)
    {
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.WeekTitle => $"Title: {Title}",
            CardKind.Filler => "Filler card",
            CardKind.DayTitle => $"Title: {SpanLabel.Day(card.Day ?? Dates.First, Style.Order)}",
            CardKind.Countdown => "Countdown",
            CardKind.Calendar => "Calendar",
            CardKind.Divider => $"Divider: {SpanLabel.Day(card.Day ?? Dates.First, Style.Order)}",
            CardKind.Legend => "Legend",
            _ => ComputedCards.Heading(card.Kind) is { } heading
            && (ComputedCards.IsComputed(card.Kind) || string.IsNullOrWhiteSpace(card.Words))
                ? heading
                : Opening(card.Words),
        };
    }

    /// <summary>How words begin, as what a card is called by.</summary>
    public static string Opening(string words)
    {
        var first = words.Trim().Split('\n')[0].Trim();
        return first.Length switch
        {
            0 => "Journaling card, no words yet",
            > 40 => first[..40] + "…",
            _ => first,
        };
    }

    /// <summary>The place, if it is on these pages.</summary>
    public PocketPlace Require(PocketPlace place) =>
        Pages.CodeOf(place) is not null
            ? place
            : throw new RuleException(
                "That pocket is not on this spread any more; the page design may have changed. Nothing was changed."
            );

    /// <summary>A picture of the unit.</summary>
    public DeskPhoto RequirePhoto(Guid photoId) =>
        Photos.GetValueOrDefault(photoId)
        ?? throw new RuleException("That photo is not here any more. Nothing was changed.");

    /// <summary>The day, if it is one of the unit's or none.</summary>
    public LocalDate? RequireDay(LocalDate? day) =>
        day is null || (day >= Dates.First && day <= Dates.Last)
            ? day
            : throw new RuleException($"That day is not one of {Title}. Nothing was changed.");

    /// <summary>Such as <c> in W19 L5</c>, or nothing for a loose piece.</summary>
    public string Where(Guid pieceId) =>
        Content.PlaceOf(pieceId) is { } placement && Pages.CodeOf(placement.Place) is { } code
            ? $" in {code}"
            : string.Empty;

    /// <summary>A keepsake must fit its pocket, also turned.</summary>
    public void Admit(Piece? piece, PocketPlace place)
    {
        if (piece is Keepsake keepsake && keepsake.FitIn(Pages.ClearSize(place)) == KeepsakeFit.TooLarge)
        {
            throw new RuleException(
                $"{keepsake.Name} is {MeasureText.Show(keepsake.Size, Measures)} and {Pages.CodeOf(place)} has "
                    + $"{MeasureText.Show(Pages.ClearSize(place), Measures)}: it does not fit, turned or not. Choose a "
                    + "larger pocket or put it into the envelope."
            );
        }
    }

    /// <summary>Whether a picture is of the unit, or of a piece that came from another.</summary>
    public bool HasPhoto(Guid photoId) => Photos.ContainsKey(photoId) || Guests.Contains(photoId);

    /// <summary>The style that a card is set in here.</summary>
    public CardStyle StyleOf(Card card)
    {
        ArgumentNullException.ThrowIfNull(card);
        return StyleOf(card, card.StyleKey, card.Setting, HasPhoto);
    }

    /// <summary>Another style and setting as this card would have them.</summary>
    public CardStyle StyleOf(Card card, string styleKey, CardSetting? setting, Func<Guid, bool> hasPhoto)
    {
        ArgumentNullException.ThrowIfNull(card);
        ArgumentNullException.ThrowIfNull(hasPhoto);
        var style = (setting ?? CardSetting.AsTheStyle).On(Words.Style(styleKey, card.Kind));
        // On a page outside the pockets the words keep clear of the hole strip, on both sides alike.
        if (
            Content.PlacementOf(card.Id) is { } lies
            && Pages.Faces.FirstOrDefault(f => f.LeafId == lies.Place.LeafId)
                is { Protector.Form.Kind: LeafKind.Sheet or LeafKind.FoldOut } face
        )
        {
            style = style with { Margin = Length.Max(style.Margin, face.Protector.RingStrip) };
        }

        style = Content.Tint?.On(style) ?? style;
        return card.Picture is { } picture && hasPhoto(picture.PhotoId) ? style : style.WithoutPicture();
    }
}
