using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Keeping;

/// <summary>How thick pieces and what lies in pockets are. The start values are common practice, from memory.</summary>
public static class PieceThickness
{
    private static readonly Length Card = Length.FromMillimetres(0.30m);

    /// <summary>One layer of a stock.</summary>
    public static Length Of(Stock stock) =>
        stock switch
        {
            Stock.PhotoPaper => Length.FromMillimetres(0.25m),
            Stock.Vellum or Stock.PatternedPaper => Length.FromMillimetres(0.10m),
            Stock.ClearFilm => Length.FromMillimetres(0.13m),
            Stock.Label => Length.FromMillimetres(0.15m),
            _ => Card,
        };

    /// <summary>
    /// A piece by itself, with its mats and a picture that is mounted on it; a sleeve has two panels, a back that is
    /// printed on the same sheet has none.
    /// </summary>
    public static Length OfPiece(UnitDesk desk, Piece piece)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(piece);
        if (piece is Keepsake keepsake)
        {
            return keepsake.Thickness;
        }

        var sheet = piece is BoughtCard ? Card : Of(desk.Words.StockOf(piece));
        var layers = piece.Attachment?.Kind switch
        {
            AttachmentKind.Back => 0,
            AttachmentKind.Sleeve => 2,
            _ => 1,
        };
        return (sheet * layers)
            + (Card * (Finish.Of(piece)?.Mats.Length ?? 0))
            + (piece is BoughtCard { Picture: not null } ? Of(desk.Words.PicturesOn) : Length.Zero);
    }

    /// <summary>A piece with everything that goes with it.</summary>
    public static Length WithAll(UnitDesk desk, Piece piece)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(piece);
        return desk
            .Content.AttachedTo(piece.Id)
            .Aggregate(OfPiece(desk, piece), (sum, part) => sum + WithAll(desk, part));
    }

    /// <summary>What lies in a pocket; nothing in an empty one.</summary>
    public static Length InPocket(UnitDesk desk, PocketPlace place)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return desk.Content.At(place) is { } lies && desk.Content.Find(lies.PieceId) is { } piece
            ? WithAll(desk, piece)
            : Length.Zero;
    }

    /// <summary>
    /// The thickest that a face gets, since its pockets lie beside each other; a page that holds nothing has none.
    /// </summary>
    public static Length OfFace(UnitDesk desk, UnitFace face)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(face);
        return desk
            .Pages.Pockets.Where(p => ReferenceEquals(p.Face, face))
            .Aggregate(Length.Zero, (most, p) => Length.Max(most, InPocket(desk, p.Place)));
    }
}
