using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>A place on the kept part of a card as written, such as <c>1/4 in</c> for each.</summary>
public sealed record WrittenPlace(string X, string Y, string Width, string Height)
{
    public static WrittenPlace? Of(Rect? place, MeasureSystem measures) =>
        place is { } p
            ? new(
                MeasureText.Show(p.X, measures),
                MeasureText.Show(p.Y, measures),
                MeasureText.Show(p.Width, measures),
                MeasureText.Show(p.Height, measures)
            )
            : null;

    public Rect ToRect() =>
        new(
            MeasureText.ParseLengthOrNone(X),
            MeasureText.ParseLengthOrNone(Y),
            MeasureText.ParseLength(Width),
            MeasureText.ParseLength(Height)
        );
}

/// <summary>A bought card as written.</summary>
/// <param name="Corners">Top left, top right, bottom right, bottom left.</param>
/// <param name="Size">As measured, such as <c>4x6 in</c>.</param>
/// <param name="PicturePhotoId">The picture mounted on <paramref name="PicturePlace"/>.</param>
public sealed record WrittenBoughtCard(
    string Name,
    IReadOnlyList<PicturePoint> Corners,
    string Size,
    string KeepX = "0",
    string KeepY = "0",
    string Words = "",
    WrittenPlace? WordsPlace = null,
    WrittenPlace? PicturePlace = null,
    Guid? PicturePhotoId = null
)
{
    public static WrittenBoughtCard Of(BoughtCard card, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(card);
        return new WrittenBoughtCard(
            card.Name,
            card.Corners.All,
            MeasureText.Exact(card.Size, measures),
            MeasureText.Show(card.KeepX, measures),
            MeasureText.Show(card.KeepY, measures),
            card.Words,
            WrittenPlace.Of(card.WordsPlace, measures),
            WrittenPlace.Of(card.PicturePlace, measures),
            card.Picture?.PhotoId
        );
    }

    internal BoughtCard Read(UnitDesk desk, Guid id, Guid photoId, BoughtCard? old)
    {
        if (Corners is not [var a, var b, var c, var d])
        {
            throw new RuleException("A card has four corners. Nothing was changed.");
        }

        if (PicturePhotoId is { } mounted)
        {
            desk.RequirePhoto(mounted);
        }

        var size = MeasureText.ParseSize(Size);
        return new BoughtCard(
            id,
            PlainWords.Name(Name),
            photoId,
            new CardCorners(a, b, c, d),
            size.Width,
            size.Height,
            MeasureText.ParseLengthOrNone(KeepX),
            MeasureText.ParseLengthOrNone(KeepY),
            PlainWords.Clean(Words ?? string.Empty)
        )
        {
            WordsPlace = WordsPlace?.ToRect(),
            PicturePlace = PicturePlace?.ToRect(),
            Picture = PicturePhotoId is { } photo
                ? old?.Picture is { } same && same.PhotoId == photo
                    ? same
                    : new CardPicture(photo, desk.RequirePhoto(photo).Around)
                : null,
            PrintedOn = old?.PrintedOn,
            Steps = old?.Steps ?? [],
            Attachment = old?.Attachment,
        }.Checked();
    }
}

/// <summary>Makes a piece of a photo of a bought card, in a pocket or in the tray.</summary>
public sealed record AddBoughtCard(Guid PhotoId, WrittenBoughtCard Card, PocketPlace? Place = null) : ContentEdit
{
    public override string Label() => "Add a bought card";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => Place is { } place ? [place] : [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var photo = desk.RequirePhoto(PhotoId);
        var made = Card.Read(desk, tools.NewId(), photo.Id, old: null);
        var content = desk.Content.AddBoughtCard(made);
        return new Edited(
            Place is { } place ? content.Put(made.Id, desk.Require(place)) : content,
            $"Added the bought card {made.Name}{(Place is { } at ? $" in {desk.Pages.CodeOf(at)}" : string.Empty)}",
            made.Id
        );
    }
}

/// <summary>Changes a bought card: its corners, size, kept part, words and mounted picture.</summary>
public sealed record ChangeBoughtCard(Guid PieceId, WrittenBoughtCard Card) : ContentEdit
{
    public override string Label() => "Change a bought card";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var old =
            desk.Content.Find(PieceId) as BoughtCard
            ?? throw new RuleException(
                "That card is no longer here. Your words were not saved: copy them before you reload."
            );
        var made = Card.Read(desk, PieceId, old.PhotoId, old);
        return new Edited(
            desk.Content.AddBoughtCard(made),
            $"Changed the bought card {made.Name}{desk.Where(PieceId)}",
            PieceId
        );
    }
}
