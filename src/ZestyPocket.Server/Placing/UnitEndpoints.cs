using Microsoft.AspNetCore.Mvc;
using Microsoft.Net.Http.Headers;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Placing;

/// <summary>Opening and editing a unit, undo and redo, and the painted faces of its cards.</summary>
public static class UnitEndpoints
{
    public static void MapUnits(this IEndpointRouteBuilder api)
    {
        var units = api.MapGroup("/units").WithTags("Placing");

        units
            .MapGet(
                "/{id:guid}",
                async (Guid id, UnitOpener opener, UnitReader reader, CancellationToken cancel) =>
                    await reader.ViewAsync(await opener.OpenAsync(id, cancel), cancel)
            )
            .WithName("getUnit")
            .WithProblems();

        units
            .MapPost(
                "/{id:guid}/edits",
                async (
                    Guid id,
                    UnitEdit edit,
                    UnitEditor editor,
                    UnitOpener opener,
                    UnitReader reader,
                    CancellationToken cancel
                ) =>
                {
                    var (done, piece) = await editor.ApplyAsync(id, edit, cancel);
                    return new EditAnswer(
                        await reader.ViewAsync(await opener.OpenAsync(id, cancel), cancel),
                        done,
                        piece
                    );
                }
            )
            .WithName("editUnit")
            .WithProblems();

        units
            .MapPost(
                "/{id:guid}/undo",
                (Guid id, RevisionRequest request, UnitSteps steps, CancellationToken cancel) =>
                    steps.UndoAsync(id, request.Revision, cancel)
            )
            .WithName("undo")
            .WithProblems();

        units
            .MapPost(
                "/{id:guid}/redo",
                (Guid id, RevisionRequest request, UnitSteps steps, CancellationToken cancel) =>
                    steps.RedoAsync(id, request.Revision, cancel)
            )
            .WithName("redo")
            .WithProblems();

        // One certain edit, from whatever screen it was made on.
        api.MapPost(
                "/edits/{id:guid}/undo",
                (Guid id, UnitSteps steps, CancellationToken cancel) => steps.UndoEditAsync(id, cancel)
            )
            .WithTags("Placing")
            .WithName("undoEdit")
            .WithProblems();

        api.MapPost(
                "/edits/{id:guid}/redo",
                (Guid id, UnitSteps steps, CancellationToken cancel) => steps.RedoEditAsync(id, cancel)
            )
            .WithTags("Placing")
            .WithName("redoEdit")
            .WithProblems();

        units
            .MapGet(
                "/{id:guid}/pieces/{pieceId:guid}/face",
                async (
                    Guid id,
                    Guid pieceId,
                    [FromQuery] int? ppi,
                    [FromQuery] string? v,
                    UnitOpener opener,
                    PieceFaces faces,
                    PiecePainter painter,
                    PictureCache pictures,
                    HttpContext http,
                    CancellationToken cancel
                ) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    var piece = open.Content.Find(pieceId) ?? throw new MissingException("The card");
                    var cut = open.CutSizeOf(piece);
                    var face = faces.Of(open, piece, cut) ?? throw new MissingException("The photo of this print");
                    var resolution = Math.Clamp(ppi ?? 144, 36, 300);
                    var recipe = PieceRecipe.HashOf(face);
                    var path = await pictures.PaintedAsync(
                        $"piece-{recipe}-{resolution}",
                        () =>
                            Raster.Png(
                                cut.Width.Points,
                                cut.Height.Points,
                                resolution,
                                canvas => painter.Draw(canvas, face, resolution),
                                clear: true
                            ),
                        cancel
                    );
                    // Only the address that names what is shown may be kept: any other is asked again.
                    http.Response.Headers.CacheControl =
                        v == recipe ? "private, max-age=31536000, immutable" : "private, no-cache";
                    return Results.File(
                        Path.GetFullPath(path),
                        "image/png",
                        entityTag: new EntityTagHeaderValue($"\"{recipe}-{resolution}\"")
                    );
                }
            )
            .WithName("getPieceFace")
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();
    }
}
