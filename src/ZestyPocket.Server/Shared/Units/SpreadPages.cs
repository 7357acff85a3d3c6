using System.Collections.Immutable;
using System.Globalization;
using SkiaSharp;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Pages;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Shared;

/// <summary>A page of a unit.</summary>
/// <param name="Index">Which of the unit's pages, from 0.</param>
public sealed record OpenPage(OpenUnit Unit, OpenFace Face, int Index)
{
    /// <summary>The pages of a unit in reading order.</summary>
    public static IReadOnlyList<OpenPage> Of(OpenUnit unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        return [.. unit.Faces.Select((f, i) => new OpenPage(unit, f, i))];
    }
}

/// <summary>What lies open at once: a left and a right page, or one.</summary>
public sealed record Opening(ImmutableArray<OpenPage> Pages);

/// <summary>The open spread as one page of its true size.</summary>
public sealed class SpreadPages(
    UnitOpener opener,
    PieceFaces faces,
    PiecePainter painter,
    PictureCache pictures,
    PaintingBench bench
)
{
    /// <summary>A spread as a small picture, for the shelf and the overview: about 720 pixels across.</summary>
    public const double CoverPixelsPerInch = 40;

    private readonly SpreadPainter _spreads = new(painter);

    /// <summary>The file of the picture, kept by the hash of what is on it.</summary>
    public async Task<string> PngAsync(Guid unitId, double pixelsPerInch, CancellationToken cancel)
    {
        var pages = await PaintedAsync(unitId, cancel);
        var recipe = string.Join('|', pages.Select(PageRecipe));
        return await pictures.PaintedAsync(
            string.Create(CultureInfo.InvariantCulture, $"spread-{recipe}-{pixelsPerInch}"),
            () => Png(Spreads(pages), pixelsPerInch, cancel),
            cancel
        );
    }

    /// <summary>Everything that is drawn of a page: its protector, what was done to it, and each piece.</summary>
    private static string PageRecipe(PaintedFace page)
    {
        var pieces = page
            .Pieces.OrderBy(p => p.Key, StringComparer.Ordinal)
            .Select(p => $"{p.Key}={PieceRecipe.HashOf(p.Value)}");
        var pockets = page.Protector.Design.Face(page.Side).Select(p => $"{p.Key} {p.Bounds}");
        var holes = page.Protector.HolesOn(page.Side).Select(h => h.ToString());
        return string.Join(
            ';',
            [
                $"{page.Side} {page.Protector.Outer} {page.Protector.RingStrip} {page.Protector.Form.Kind} "
                    + $"{page.Protector.Form.Fold} {page.Protector.Form.Rings} {page.Protector.Form.Holes?.Diameter}",
                $"{page.Alterations.Cut} {page.Alterations.Tab}",
                .. page.Alterations.Fuses.Select(f => f.ToString()),
                .. page.Alterations.Stuck,
                .. pockets,
                .. holes,
                .. pieces,
            ]
        );
    }

    private byte[] Png(List<List<PaintedFace>> spreads, double pixelsPerInch, CancellationToken cancel)
    {
        var sizes = spreads.ConvertAll(SpreadPainter.SizeOf);
        var gap = Length.FromInches(1, 4);
        // One spread under another, as the album is turned.
        var height = sizes.Aggregate(gap * (spreads.Count - 1), (sum, s) => sum + s.Height);
        return Raster.Png(
            sizes.Max(s => s.Width.Points),
            height.Points,
            pixelsPerInch,
            canvas =>
            {
                foreach (var (spread, size) in spreads.Zip(sizes))
                {
                    _spreads.Draw(canvas, spread, pixelsPerInch, cancel);
                    canvas.Translate(0, (float)(size.Height + gap).Points);
                }
            }
        );
    }

    /// <summary>One page of a unit, kept by the hash of what is on it.</summary>
    public async Task<string> PagePngAsync(
        Guid unitId,
        Guid leafId,
        LeafSide side,
        double pixelsPerInch,
        CancellationToken cancel
    )
    {
        var open = await opener.OpenAsync(unitId, cancel);
        var at = open.Faces.ToList().FindIndex(f => f.Leaf.Id == leafId && f.Side == side);
        if (at < 0)
        {
            throw new MissingException("That page");
        }

        var page = Painted(open)[at];
        return await pictures.PaintedAsync(
            string.Create(CultureInfo.InvariantCulture, $"page-{PageRecipe(page)}-{pixelsPerInch}"),
            () =>
                Png(
                    [
                        [page],
                    ],
                    pixelsPerInch,
                    cancel
                ),
            cancel
        );
    }

    public async Task<byte[]> PdfAsync(Guid unitId, CancellationToken cancel)
    {
        var spreads = Spreads(await PaintedAsync(unitId, cancel));
        return await bench.RunAsync(() => PdfFile.Bytes("Spread", spreads.Select(Page)), cancel);

        // A page for each spread as the album lies open.
        PdfPage Page(List<PaintedFace> spread)
        {
            var size = SpreadPainter.SizeOf(spread);
            return new PdfPage(
                size.Width.Points,
                size.Height.Points,
                canvas => _spreads.Draw(canvas, spread, 300, cancel)
            );
        }
    }

    /// <summary>Pages in reading order as they lie open; one page each when asked for.</summary>
    public static IReadOnlyList<Opening> Openings(IReadOnlyList<OpenPage> pages, bool facing)
    {
        ArgumentNullException.ThrowIfNull(pages);
        return facing
            ?
            [
                .. pages
                    .Zip(Binding.SpreadsOf([.. pages.Select(p => p.Face.Side)]))
                    .GroupBy(p => p.Second, p => p.First)
                    .Select(g => new Opening([.. g])),
            ]
            : [.. pages.Select(p => new Opening([p]))];
    }

    /// <summary>Paints what lies open; pictures are read when they are drawn, so that nothing is held.</summary>
    public (Size Size, Action<SKCanvas> Draw) Painting(Opening opening, double pixelsPerInch, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(opening);
        List<PaintedFace> painted = [.. opening.Pages.Select(p => Painted(p.Unit)[p.Index])];
        return (SpreadPainter.SizeOf(painted), canvas => _spreads.Draw(canvas, painted, pixelsPerInch, cancel));
    }

    private static List<List<PaintedFace>> Spreads(List<PaintedFace> pages) =>
        [
            .. pages
                .Zip(Binding.SpreadsOf([.. pages.Select(p => p.Side)]))
                .GroupBy(p => p.Second, p => p.First)
                .Select(g => g.ToList()),
        ];

    /// <summary>A spread beside others it is chosen from: about 560 pixels across for facing 9x12 pages.</summary>
    private const double PreviewPixelsPerInch = 30;

    /// <summary>The picture of a unit as it would be, small and not kept, as a data address.</summary>
    public async Task<string> PreviewAsync(OpenUnit open, CancellationToken cancel)
    {
        var pages = Painted(open);
        var png = await bench.RunAsync(() => Png(Spreads(pages), PreviewPixelsPerInch, cancel), cancel);
        return $"data:image/png;base64,{Convert.ToBase64String(png)}";
    }

    private async Task<List<PaintedFace>> PaintedAsync(Guid unitId, CancellationToken cancel) =>
        Painted(await opener.OpenAsync(unitId, cancel));

    private List<PaintedFace> Painted(OpenUnit open)
    {
        if (open.Faces.Count == 0)
        {
            throw new RuleException("This week or day has no pages yet.");
        }

        return
        [
            .. open.Faces.Select(face => new PaintedFace(
                face.Protector,
                face.Side,
                face.Pockets.Select(p =>
                        (p.Pocket, Piece: open.Content.At(p.Place) is { } at ? open.Content.Find(at.PieceId) : null)
                    )
                    .Where(p => p.Piece is not null)
                    .Select(p => (p.Pocket.Key, Face: faces.InPocket(open, p.Piece!, open.CutSizeOf(p.Piece!))))
                    .Where(p => p.Face is not null)
                    .ToImmutableDictionary(p => p.Key, p => p.Face!),
                face.Alterations
            )),
        ];
    }
}
