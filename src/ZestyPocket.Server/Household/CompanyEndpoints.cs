using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Household;

/// <summary>Several people at one album: news, presence, comments.</summary>
public static class CompanyEndpoints
{
    public static void MapCompany(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Household");
        group
            .MapGet(
                "/albums/{albumId:guid}/news",
                async (
                    Guid albumId,
                    Company company,
                    AlbumReader albums,
                    IHostApplicationLifetime life,
                    HttpContext http,
                    CancellationToken cancel
                ) =>
                {
                    await albums.RequireAsync(albumId, cancel);
                    // An open line must not keep a server from stopping; the window opens another one.
                    var until = CancellationTokenSource.CreateLinkedTokenSource(cancel, life.ApplicationStopping);
                    http.Response.RegisterForDispose(until);
                    // A proxy passes each line on at once.
                    http.Response.Headers["X-Accel-Buffering"] = "no";
                    return TypedResults.ServerSentEvents(company.NewsAsync(albumId, until.Token));
                }
            )
            .WithName("getNews")
            .ForReaders()
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/presence",
                (Guid albumId, PresenceRequest asked, Company company, CancellationToken cancel) =>
                    company.BeHereAsync(albumId, asked, cancel)
            )
            .WithName("bePresent")
            .ForReaders()
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/presence/{windowId:guid}",
                async (Guid albumId, Guid windowId, Company company, CancellationToken cancel) =>
                {
                    await company.LeaveAsync(albumId, windowId, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("endPresence")
            .ForReaders()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/comments",
                (Guid albumId, [FromQuery] Guid? unitId, Company company, CancellationToken cancel) =>
                    company.CommentsAsync(albumId, unitId, cancel)
            )
            .WithName("listComments")
            .ForReaders()
            .WithProblems();
        group
            .MapPost(
                "/units/{id:guid}/comments",
                (Guid id, CommentRequest asked, Company company, CancellationToken cancel) =>
                    company.CommentAsync(id, asked, cancel)
            )
            .WithName("addComment")
            .ForReaders()
            .WithProblems();
        group
            .MapPut(
                "/units/{id:guid}/comments/{commentId:guid}",
                (Guid id, Guid commentId, CommentChange asked, Company company, CancellationToken cancel) =>
                    company.ChangeAsync(id, commentId, asked, cancel)
            )
            .WithName("changeComment")
            .ForReaders()
            .WithProblems();
    }
}
