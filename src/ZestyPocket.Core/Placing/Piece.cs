using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// One thing that will be cut and put somewhere. It knows its recipe; its cut size follows from the pocket it lies in.
/// </summary>
public abstract record Piece(Guid Id)
{
    /// <summary>What it is printed on; null for what its style or its album says.</summary>
    public Stock? PrintedOn { get; init; }

    /// <summary>What is done to it by hand after printing, in this order.</summary>
    public ImmutableArray<HandStep> Steps { get; init; } = [];

    /// <summary>The piece it goes with, and how; null for a piece that wants a pocket.</summary>
    public Attachment? Attachment { get; init; }

    /// <summary>The pictures of a piece that shows several: a collage or a composition.</summary>
    public IEnumerable<Guid> PhotosInside =>
        this switch
        {
            Collage collage => collage.Photos,
            Composition composition => composition.Photos,
            BoughtCard { Picture: { } mounted } card => [card.PhotoId, mounted.PhotoId],
            BoughtCard card => [card.PhotoId],
            _ => [],
        };
}

/// <summary>A print of a photo.</summary>
public sealed record PhotoPrint(Guid Id, Guid PhotoId, Framing Framing) : Piece(Id)
{
    /// <summary>Words on the picture; null when there are none.</summary>
    public PhotoCaption? Caption { get; init; }

    /// <summary>
    /// The picture runs over neighbouring pockets and this is the slice in one of them: all slices have the same key
    /// and the same framing, which is that of the whole.
    /// </summary>
    public Guid? SpanId { get; init; }

    /// <summary>
    /// The part of a tall picture that it shows at full width; null for all of it. All parts have one
    /// <see cref="SpanId"/>.
    /// </summary>
    public PicturePart? Part { get; init; }

    /// <summary>Its line on the legend of the unit; null when it has no number.</summary>
    public string? LegendLine { get; init; }

    /// <summary>Its shape, border, mats and strip; null for the bare print.</summary>
    public Finish? Finish { get; init; }

    /// <summary>How it differs from its picture; null when it does not.</summary>
    public PictureAdjustment? Adjustment { get; init; }

    /// <summary>The kept part of its picture at a cut size, straightened.</summary>
    public Crop CropFor(PixelSize picture, Size cut) =>
        Crop.For(picture, cut, Framing).Turned(Adjustment?.Straighten ?? 0);
}

/// <summary>A card: journaling words, a computed week title, or a filler.</summary>
public sealed record Card(Guid Id, CardKind Kind, string Words, string StyleKey) : Piece(Id)
{
    /// <summary>What was changed on this card to make its words fit; null when nothing was.</summary>
    public CardSetting? Setting { get; init; }

    /// <summary>The story whose words flow over this card; null when they were written on the card itself.</summary>
    public Guid? StoryId { get; init; }

    /// <summary>The one day it is about; null when it is about the whole unit.</summary>
    public LocalDate? Day { get; init; }

    /// <summary>The photo it speaks of and stays beside; null for none.</summary>
    public Guid? PairedWith { get; init; }

    /// <summary>The picture on it, where its style has a place for one.</summary>
    public CardPicture? Picture { get; init; }

    /// <summary>Small pictures: of the days of a calendar, of the people of a page of who was there.</summary>
    public ImmutableArray<SmallPicture> SmallPictures { get; init; } = [];

    /// <summary>Its shape, border, mats and strip; null for the bare card.</summary>
    public Finish? Finish { get; init; }
}

/// <summary>A picture on a card and how it is framed there.</summary>
public sealed record CardPicture(Guid PhotoId, Framing Framing);

/// <summary>
/// A flat keepsake that goes in itself: a ticket, a receipt, a pressed leaf. It is not printed; it must fit its pocket,
/// also turned, or it goes to the album's keepsake envelope.
/// </summary>
/// <param name="Id">Its key.</param>
/// <param name="Name">What it is.</param>
/// <param name="Width">As it lies readable.</param>
/// <param name="Height">As it lies readable.</param>
/// <param name="Thickness">Of the thing itself, for how thick the album gets.</param>
/// <param name="Note">Where from, what for; may be empty.</param>
/// <param name="PhotoId">A picture of it, if one was taken.</param>
/// <param name="Day">The day it belongs to, if it has one.</param>
/// <param name="InEnvelope">It lies in the album's envelope.</param>
public sealed record Keepsake(
    Guid Id,
    string Name,
    Length Width,
    Length Height,
    Length Thickness,
    string Note,
    Guid? PhotoId,
    LocalDate? Day,
    bool InEnvelope
) : Piece(Id)
{
    public Size Size => new(Width, Height);

    /// <summary>What it cost, such as a ticket; null when nobody said.</summary>
    public Money? Price { get; init; }

    /// <summary>On clear film, or a shape without ground: the other face of the leaf shows its back.</summary>
    public bool SeeThrough { get; init; }

    /// <summary>Throws <see cref="RuleException"/> when a measure or the name makes no sense.</summary>
    public Keepsake Checked()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 120 || Note.Length > 2_000)
        {
            throw new RuleException(
                "A keepsake needs a name of at most 120 characters and a note of at most 2,000. Nothing was changed."
            );
        }

        var most = Length.FromInches(24);
        if (!Size.IsPositive || Width > most || Height > most)
        {
            throw new RuleException(
                "A keepsake is wider and taller than nothing and at most 24 in each way. Nothing was changed: "
                    + "measure it again."
            );
        }

        return Thickness < Length.Zero || Thickness > Length.FromMillimetres(20)
            ? throw new RuleException("A flat keepsake is 0 to 20 mm thick. Nothing was changed: measure it again.")
            : this with
            {
                Name = Name.Trim(),
            };
    }

    /// <summary>How it fits into a clear pocket: as it is, turned, or not at all.</summary>
    public KeepsakeFit FitIn(Size clear) =>
        Width <= clear.Width && Height <= clear.Height ? KeepsakeFit.Upright
        : Height <= clear.Width && Width <= clear.Height ? KeepsakeFit.Turned
        : KeepsakeFit.TooLarge;
}

public enum KeepsakeFit
{
    Upright,
    Turned,
    TooLarge,
}

/// <summary>Something noted for a day: an event of a calendar, or the keeper's own words.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Day">The album's day.</param>
/// <param name="Time">When, by the clock of the place; null for the whole day.</param>
/// <param name="Text">What.</param>
/// <param name="Source">Key of the event in the calendar it came from; null when written here.</param>
public sealed record DayNote(Guid Id, LocalDate Day, LocalTime? Time, string Text, string? Source)
{
    public NoteKind Kind { get; init; }
}

/// <summary>What a note is about, so that it finds its card.</summary>
public enum NoteKind
{
    Plain,

    /// <summary>Words somebody said.</summary>
    Overheard,

    /// <summary>What something cost.</summary>
    Price,
    Weather,
}

/// <summary>A pocket of one face of one leaf.</summary>
public readonly record struct PocketPlace(Guid LeafId, LeafSide Side, string PocketKey);

/// <summary>A piece in a pocket.</summary>
/// <param name="Place">The pocket.</param>
/// <param name="PieceId">The piece.</param>
/// <param name="Locked">Put or kept there by hand: no automatic placing moves it.</param>
public readonly record struct Placement(PocketPlace Place, Guid PieceId, bool Locked);
