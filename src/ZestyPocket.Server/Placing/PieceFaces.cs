using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Photos;

namespace ZestyPocket.Server.Placing;

/// <summary>Makes the face of a piece: the same for the screen, the sheet and the page.</summary>
public sealed class PieceFaces(FontShelf fonts)
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
        var style = BuiltInCardStyles.Find(card.StyleKey, card.Kind);
        return card.Kind switch
        {
            CardKind.WeekTitle => CardComposer.UnitTitle(open.Dates, open.Calendar.Style, style, cut, fonts),
            CardKind.Filler => CardComposer.Filler(style, cut),
            _ => CardComposer.Journaling(card.Words, style, cut, fonts),
        };
    }
}
