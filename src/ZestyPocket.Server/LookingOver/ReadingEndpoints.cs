using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.LookingOver;

/// <summary>A page of the album as it lies on the table.</summary>
/// <param name="Opening">From 1: pages with one number lie open together, across units too.</param>
/// <param name="LeafId">Its leaf; the other side of it is the page with the same one.</param>
/// <param name="Side">A back is a left page, a front a right one.</param>
/// <param name="WidthInches">Of the protector or sheet.</param>
/// <param name="IsEmpty">Nothing lies on it.</param>
/// <param name="Picture">Begins the address of its picture: a number of pixels to the inch ends it.</param>
public sealed record AlbumPage(
    int Opening,
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
                async (Guid id, AlbumReader albums, UnitOpener opener, CancellationToken cancel) =>
                {
                    var album = await albums.ViewAsync(id, cancel);
                    return Of(await opener.OpenManyAsync([.. album.Units.Select(u => u.Id)], cancel));
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

    private static List<AlbumPage> Of(IReadOnlyList<OpenUnit> units)
    {
        var pages = units.SelectMany(u => u.Faces.Select(f => (Unit: u, Face: f))).ToList();
        var openings = Binding.SpreadsOf([.. pages.Select(p => p.Face.Side)]);
        return
        [
            .. pages.Zip(
                openings,
                (page, opening) =>
                    new AlbumPage(
                        opening,
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
