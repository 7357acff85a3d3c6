using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.LookingOver;

/// <summary>A page of the album as it lies on the table.</summary>
/// <param name="Opening">From 1: pages with one number lie open together, across units too.</param>
/// <param name="LeafId">Its leaf; the other side of it is the page with the same one.</param>
/// <param name="Side">A back is a left page, a front a right one.</param>
/// <param name="WidthInches">Of the protector or sheet.</param>
/// <param name="IsEmpty">Nothing lies on it.</param>
/// <param name="Inserted">The name of the album it is of, when that is inserted into the one asked for.</param>
/// <param name="Picture">Begins the address of its picture: a number of pixels to the inch ends it.</param>
public sealed record AlbumPage(
    int Opening,
    Guid AlbumId,
    string? Inserted,
    Guid UnitId,
    string UnitTitle,
    Guid LeafId,
    LeafSide Side,
    string Name,
    double WidthInches,
    double HeightInches,
    bool IsEmpty,
    string Picture
);

/// <summary>Leafing through the album.</summary>
public static class ReadingEndpoints
{
    /// <summary>Enough for a large screen; print has its own way.</summary>
    private static readonly int[] Resolutions = [48, 96, 150];

    public static void MapReading(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("LookingOver");
        group
            .MapGet(
                "/albums/{id:guid}/pages",
                async (
                    Guid id,
                    AlbumReader albums,
                    UnitOpener opener,
                    InsertedAlbums bound,
                    ICurrentKeeper keeper,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var units = await opener.OpenAlbumAsync(id, cancel);
                    if (album.KeeperId != keeper.Id)
                    {
                        // Who may look into one album may not look into those that are inserted.
                        return Of([.. units.SelectMany(OpenPage.Of)], id);
                    }

                    var leaves = await db
                        .Leaves.AsNoTracking()
                        .Where(l => l.AlbumId == id)
                        .OrderBy(l => l.Ordinal)
                        .ToListAsync(cancel);
                    return Of(OnTheRings(units, leaves, await bound.OfAsync(album, cancel)), id);
                }
            )
            .WithName("getPages")
            .ForReaders()
            .WithProblems();
        group
            .MapGet(
                "/units/{id:guid}/leaves/{leafId:guid}/{side}.png",
                async (
                    Guid id,
                    Guid leafId,
                    string side,
                    [FromQuery] int ppi,
                    SpreadPages spreads,
                    CancellationToken cancel
                ) =>
                {
                    var at = side switch
                    {
                        "front" => LeafSide.Front,
                        "back" => LeafSide.Back,
                        _ => throw new MissingException("That side of the leaf"),
                    };
                    var served = Resolutions.FirstOrDefault(r => r >= ppi, Resolutions[^1]);
                    return Results.File(await spreads.PagePngAsync(id, leafId, at, served, cancel), "image/png");
                }
            )
            .WithName("getPagePicture")
            .ForReaders()
            .WithProblems();
    }

    /// <summary>Pages by their leaves: what is inserted lies where its leaves do.</summary>
    private static List<OpenPage> OnTheRings(
        IReadOnlyList<OpenUnit> units,
        List<AlbumLeaf> leaves,
        IReadOnlyList<InsertedAlbum> inserts
    )
    {
        var own = units.SelectMany(OpenPage.Of).ToLookup(p => p.Face.Leaf.Id);
        var bound = AlbumRows.Bound(leaves);
        var behind = inserts.ToLookup(i => InsertPlace.LeafBefore(bound, i.Insert), i => i.Units);
        return
        [
            .. leaves.SelectMany(l =>
                own[l.Id].Concat(behind[l.Id].SelectMany(units => units.SelectMany(OpenPage.Of)))
            ),
        ];
    }

    private static List<AlbumPage> Of(IReadOnlyList<OpenPage> pages, Guid albumId)
    {
        var openings = Binding.SpreadsOf([.. pages.Select(p => p.Face.Side)]);
        return
        [
            .. pages.Zip(
                openings,
                (page, opening) =>
                    new AlbumPage(
                        opening,
                        page.Unit.Album.Id,
                        page.Unit.Album.Id == albumId ? null : page.Unit.Album.Name,
                        page.Unit.Unit.Id,
                        page.Unit.Title,
                        page.Face.Leaf.Id,
                        page.Face.Side,
                        page.Face.Protector.Design.Name,
                        (double)page.Face.Protector.Outer.Width.Inches,
                        (double)page.Face.Protector.Outer.Height.Inches,
                        page.Face.Pockets.All(p => page.Unit.Content.At(p.Place) is null),
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"/api/units/{page.Unit.Unit.Id}/leaves/{page.Face.Leaf.Id}/"
                                + $"{(page.Face.Side == LeafSide.Back ? "back" : "front")}.png"
                                + $"?revision={page.Unit.Unit.Revision}&ppi="
                        )
                    )
            ),
        ];
    }
}
