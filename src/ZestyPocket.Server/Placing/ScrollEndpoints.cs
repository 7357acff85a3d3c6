using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Placing;

/// <summary>How a tall picture is best cut for pockets of a size.</summary>
/// <param name="Parts">From the top, as shares of its height.</param>
/// <param name="Words">The same in a sentence.</param>
public sealed record ScrollView(IReadOnlyList<PicturePart> Parts, string Words);

/// <summary>Looks where a tall picture can be cut.</summary>
public static class ScrollEndpoints
{
    public static void MapScrolls(this IEndpointRouteBuilder api) =>
        api.MapGroup("/units/{id:guid}")
            .WithTags("Placing")
            .MapGet(
                "/photos/{photoId:guid}/scroll",
                async (
                    Guid id,
                    Guid photoId,
                    [FromQuery] string? size,
                    UnitOpener opener,
                    PictureCache pictures,
                    PaintingBench bench,
                    ReaderPool readers,
                    CancellationToken cancel
                ) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    var photo = open.PhotoOf(photoId) ?? throw new MissingException("That picture");
                    var pocket = MeasureText.ParseSize(size ?? "");
                    var busy = await bench.RunAsync(
                        () => readers.Do(new MeasureRows(pictures.Readable(PhotoView.RefOf(photo)))),
                        cancel
                    );
                    var parts = ScrollCuts.Of(photo.Pixels, pocket, busy);
                    return new ScrollView(
                        parts,
                        parts.Length == 1
                            ? "One pocket of this size holds it whole."
                            : $"{NumberWords.Counted(parts.Length, "part")}, cut where little happens."
                    );
                }
            )
            .WithName("findScrollCuts")
            .WithProblems();
}
