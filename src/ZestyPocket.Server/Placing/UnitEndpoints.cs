using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Drawing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Placing;

/// <summary>Opening and editing a week, undo and redo, and the painted faces of its cards.</summary>
public static class UnitEndpoints
{
    public static void MapUnits(this IEndpointRouteBuilder api)
    {
        var units = api.MapGroup("/units").WithTags("Placing");

        units.MapGet("/{id:guid}", async (Guid id, UnitOpener opener, UnitReader reader, CancellationToken cancel) =>
            await reader.ViewAsync(await opener.OpenAsync(id, cancel), cancel)).WithName("getUnit").WithProblems();

        units.MapPost("/{id:guid}/edits", async (
            Guid id, EditRequest request, UnitEditor editor, UnitOpener opener, UnitReader reader, CancellationToken cancel) =>
        {
            var (done, piece) = await editor.ApplyAsync(id, request, cancel);
            return new EditAnswer(await reader.ViewAsync(await opener.OpenAsync(id, cancel), cancel), done, piece);
        }).WithName("editUnit").WithProblems();

        units.MapPost("/{id:guid}/undo", (
            Guid id, RevisionRequest request, UnitOpener opener, UnitReader reader, History history, ZestyContext db, CancellationToken cancel) =>
            StepAsync(id, opener, reader, db, async open => $"Undone: {(await history.UndoAsync(open.Unit, request.Revision, cancel)).Summary}", cancel))
            .WithName("undo").WithProblems();

        units.MapPost("/{id:guid}/redo", (
            Guid id, RevisionRequest request, UnitOpener opener, UnitReader reader, History history, ZestyContext db, CancellationToken cancel) =>
            StepAsync(id, opener, reader, db, async open => $"Done again: {(await history.RedoAsync(open.Unit, request.Revision, cancel)).Summary}", cancel))
            .WithName("redo").WithProblems();

        units.MapGet("/{id:guid}/pieces/{pieceId:guid}/face", async (
            Guid id,
            Guid pieceId,
            [FromQuery] int? ppi,
            UnitOpener opener,
            PieceFaces faces,
            PiecePainter painter,
            HttpContext http,
            CancellationToken cancel) =>
        {
            var open = await opener.OpenAsync(id, cancel);
            var piece = open.Content.Find(pieceId) ?? throw new MissingException("The card");
            var cut = open.CutSizeOf(piece);
            var face = faces.Of(open, piece, cut) ?? throw new MissingException("The photo of this print");
            var resolution = Math.Clamp(ppi ?? 144, 36, 300);
            var png = Raster.Png(cut.Width.Points, cut.Height.Points, resolution, canvas => painter.Draw(canvas, face, resolution));
            http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Results.File(png, "image/png");
        }).WithName("getPieceFace").Produces(StatusCodes.Status200OK, contentType: "image/png").WithProblems();
    }

    private static async Task<EditAnswer> StepAsync(
        Guid id, UnitOpener opener, UnitReader reader, ZestyContext db, Func<OpenUnit, Task<string>> step, CancellationToken cancel)
    {
        var done = await step(await opener.OpenAsync(id, cancel));
        // Photos are read without tracking, so what an undo brought back is read anew.
        db.ChangeTracker.Clear();
        return new EditAnswer(await reader.ViewAsync(await opener.OpenAsync(id, cancel), cancel), done, null);
    }
}
