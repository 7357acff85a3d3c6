using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Server.Binder;

public sealed record PocketShape(string Key, long X, long Y, long Width, long Height);

public sealed record DesignView(
    string Key,
    string Name,
    string Body,
    long BodyWidth,
    long BodyHeight,
    IReadOnlyList<PocketShape> Pockets
)
{
    public static DesignView Of(PageDesign d)
    {
        ArgumentNullException.ThrowIfNull(d);
        return new DesignView(
            d.Key,
            d.Name,
            d.Body.ToString(),
            d.Body.Width.Emu,
            d.Body.Height.Emu,
            [
                .. d.Face(LeafSide.Front)
                    .Select(p => new PocketShape(
                        p.Key,
                        p.Bounds.X.Emu,
                        p.Bounds.Y.Emu,
                        p.Bounds.Width.Emu,
                        p.Bounds.Height.Emu
                    )),
            ]
        );
    }
}

public sealed record PaperView(string Key, string Name, string SizeLabel);

/// <summary>What ships with the program and never changes while it runs.</summary>
public sealed record Catalog(IReadOnlyList<DesignView> Designs, IReadOnlyList<PaperView> Papers);

public static class CatalogEndpoints
{
    private static readonly Catalog Shipped = new(
        [.. BuiltInDesigns.All.Select(DesignView.Of)],
        [
            .. Paper.All.Select(p => new PaperView(
                p.Key,
                p.Name,
                MeasureText.Show(p.Size, p == Paper.A4 ? MeasureSystem.Millimetres : MeasureSystem.Inches)
            )),
        ]
    );

    public static void MapCatalog(this IEndpointRouteBuilder api) =>
        api.MapGet("/catalog", () => Shipped).WithName("getCatalog").WithTags("Pages");
}
