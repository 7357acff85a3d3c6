using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Pages;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Printing;

/// <summary>Templates on paper.</summary>
public static class TemplateEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder api) =>
        api.MapGroup("/albums/{albumId:guid}")
            .WithTags("Printing")
            .MapGet(
                "/templates.pdf",
                async (
                    Guid albumId,
                    [FromQuery] Guid protector,
                    [FromQuery] string? holes,
                    AlbumReader albums,
                    ZestyContext db,
                    FontShelf fonts,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    var row =
                        await db
                            .Protectors.AsNoTracking()
                            .SingleOrDefaultAsync(p => p.Id == protector && p.AlbumId == album.Id, cancel)
                        ?? throw new MissingException("That protector");
                    var measured = row.ToProtector();
                    if (measured.Form.Holes is null && Standard(holes) is { } standard)
                    {
                        measured = measured with { Form = measured.Form with { Holes = standard } };
                    }

                    var pages = new TemplatePainter(fonts).Pages(measured, measured.Design.Name, album.Measures);
                    return Results.File(
                        PdfFile.Bytes($"{album.Name}: templates", pages),
                        "application/pdf",
                        "templates.pdf"
                    );
                }
            )
            .WithName("getTemplates")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();

    /// <summary>Holes of a standard, for a protector whose holes were not measured.</summary>
    private static HolePattern? Standard(string? holes) =>
        holes switch
        {
            "twoHoles" => HolePattern.TwoHoles,
            "threeRings" => HolePattern.ThreeRings,
            _ => null,
        };
}
