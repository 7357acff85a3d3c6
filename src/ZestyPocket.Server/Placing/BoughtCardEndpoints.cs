using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Placing;

/// <summary>Where a card lies in its photo: top left, top right, bottom right, bottom left.</summary>
public sealed record CornersView(IReadOnlyList<PicturePoint> Corners, string Words);

/// <summary>The largest free place of a bought card; null when it has none.</summary>
public sealed record FreePlaceView(WrittenPlace? Place, string Words);

/// <summary>Bought cards of one name that are used in an album.</summary>
public sealed record UsedCardsView(string Name, string Size, int Used, IReadOnlyList<string> Offcuts);

/// <summary>Looks at photos of bought cards.</summary>
public static class BoughtCardEndpoints
{
    /// <summary>A cell counts as free when less happens in it than this. A choice of this program.</summary>
    private const double QuietDetail = 0.035;

    public static void MapBoughtCards(this IEndpointRouteBuilder api)
    {
        ArgumentNullException.ThrowIfNull(api);
        var units = api.MapGroup("/units/{id:guid}").WithTags("Placing");

        units
            .MapGet(
                "/photos/{photoId:guid}/corners",
                async (
                    Guid id,
                    Guid photoId,
                    UnitOpener opener,
                    PictureCache pictures,
                    PaintingBench bench,
                    CancellationToken cancel
                ) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    var photo = open.PhotoOf(photoId) ?? throw new MissingException("That picture");
                    var found = await bench.RunAsync(
                        () => Squaring.Find(pictures.Small(PhotoView.RefOf(photo), Squaring.SmallSide)),
                        cancel
                    );
                    return new CornersView(
                        found.All,
                        found == CardCorners.Whole
                            ? "No card stands out from what it lies on: put the corners onto it."
                            : "Found the card: move a corner where it is off."
                    );
                }
            )
            .WithName("findCorners")
            .WithProblems();

        units
            .MapGet(
                "/pieces/{pieceId:guid}/free-place",
                async (
                    Guid id,
                    Guid pieceId,
                    UnitOpener opener,
                    PictureCache pictures,
                    PaintingBench bench,
                    CancellationToken cancel
                ) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    if (
                        open.Content.Find(pieceId) is not BoughtCard card
                        || open.PhotoOf(card.PhotoId) is not { } photo
                    )
                    {
                        throw new MissingException("That card");
                    }

                    var kept = card.KeptFor(open.CutSizeOf(card));
                    var face = new SquaredFace(kept.Size, PhotoView.RefOf(photo), card.Corners, card.Size, kept);
                    var place = await bench.RunAsync(() => FreePlaceOf(pictures, face), cancel);
                    return new FreePlaceView(
                        WrittenPlace.Of(place, open.Album.Measures),
                        place is { } free
                            ? $"The largest free place is {MeasureText.Show(free.Size, open.Album.Measures)}."
                            : "This card has no free place: draw one, or stick a label on it."
                    );
                }
            )
            .WithName("findFreePlace")
            .WithProblems();

        api.MapGet(
                "/albums/{albumId:guid}/bought-cards",
                async (
                    Guid albumId,
                    AlbumReader albums,
                    UnitOpener opener,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    var ids = await db
                        .Units.Where(u => u.AlbumId == albumId && u.PiecesPlaced > 0)
                        .OrderBy(u => u.Ordinal)
                        .Select(u => u.Id)
                        .ToListAsync(cancel);
                    var opened = await opener.OpenManyAsync(ids, cancel);
                    return UsedCards
                        .Of(opened.Select(o => (o.Content, o.Desk.Pages)))
                        .Select(u => new UsedCardsView(
                            u.Name,
                            MeasureText.Show(u.Size, album.Measures),
                            u.Used,
                            [.. u.Offcuts.Select(s => MeasureText.Show(s, album.Measures))]
                        ))
                        .ToList();
                }
            )
            .WithTags("Placing")
            .WithName("listBoughtCards")
            .WithProblems();
    }

    private static Rect? FreePlaceOf(PictureCache pictures, SquaredFace face)
    {
        var tones = PhotoTones.Of(pictures.Squared(face, PhotoTones.PixelsPerInch));
        var largest = QuietPlace.Largest(
            tones.Columns,
            tones.Rows,
            (column, row) => tones.Detail[(row * tones.Columns) + column] < QuietDetail
        );
        // A cell at each side is kept clear of what is printed on the card.
        var (columns, rows) = (largest.Columns - 2, largest.Rows - 2);
        var (width, height) = (face.Cut.Width / tones.Columns, face.Cut.Height / tones.Rows);
        var least = Length.FromInches(1, 2);
        return columns < 1 || rows < 1 || width * columns < least || height * rows < least
            ? null
            : InSixteenths(
                new Rect(width * (largest.Column + 1), height * (largest.Row + 1), width * columns, height * rows)
            );
    }

    /// <summary>As people measure: inwards to whole sixteenths of an inch.</summary>
    private static Rect InSixteenths(Rect place)
    {
        var step = Length.FromInches(1, 16);
        var (x, y) = (Up(place.X), Up(place.Y));
        return new Rect(x, y, Down(place.Right) - x, Down(place.Bottom) - y);

        Length Up(Length at) => new((at.Emu + step.Emu - 1) / step.Emu * step.Emu);
        Length Down(Length at) => new(at.Emu / step.Emu * step.Emu);
    }
}
