using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;

namespace ZestyPocket.Core.LookingOver;

/// <summary>A print in its pocket, measured as it is framed and finished there.</summary>
internal sealed record PlacedPhoto(PhotoPrint Print, DeskPhoto Photo, PocketPlace Place, Size Cut, Crop Crop)
{
    public double PixelsPerInch => Crop.PixelsPerInch(Cut);

    public double CropLoss => Crop.LossOf(Photo.Photo.Pixels);

    public bool CutsThrough => Cuts(Crop);

    /// <summary>Framed around what must stay, this pocket would keep it.</summary>
    public bool WouldKeepAround => !Cuts(Crop.For(Photo.Photo.Pixels, Cut, Photo.Around));

    private bool Cuts(Crop crop) =>
        Photo.Keep.Any(b => DeskQuestion.KeptOf(b, crop, Photo.Photo.Pixels) < DeskQuestion.Whole);

    /// <summary>The whole prints of a unit in reading order; slices and parts are left out.</summary>
    public static IEnumerable<PlacedPhoto> On(UnitDesk desk)
    {
        foreach (var (_, _, place, _) in desk.Pages.Pockets)
        {
            if (
                desk.Content.At(place) is { } lies
                && desk.Content.Find(lies.PieceId) is PhotoPrint { SpanId: null, Part: null } print
                && desk.Photos.TryGetValue(print.PhotoId, out var photo)
            )
            {
                var cut = desk.Pages.RoomOf(desk.Content, print);
                yield return new PlacedPhoto(
                    print,
                    print.Adjustment?.On(photo) ?? photo,
                    place,
                    cut,
                    print.CropFor(photo.Photo.Pixels, cut)
                );
            }
        }
    }

    /// <summary>What matters of it lies on the hole strip or a fold.</summary>
    public StrayPlace Stray(UnitDesk desk)
    {
        var (face, pocket, _, _) = desk.Pages.Pockets.First(p => p.Place == Place);
        return face.Protector.Form.Kind is LeafKind.Sheet or LeafKind.FoldOut
            ? MustStay.On(
                face.Protector,
                face.Side,
                face.Alterations,
                pocket.Bounds,
                Crop,
                Photo.Photo.Pixels,
                (Photo.Around.CenterX, Photo.Around.CenterY),
                Photo.Keep
            )
            : StrayPlace.None;
    }
}
