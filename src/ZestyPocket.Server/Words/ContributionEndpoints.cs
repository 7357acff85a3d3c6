using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>Other people's words: the keeper's side, and the side of whoever holds a link.</summary>
public static class ContributionEndpoints
{
    public static void MapContributions(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Words");
        group
            .MapPost(
                "/albums/{albumId:guid}/contributor-links",
                (Guid albumId, AskForWords asked, Contributions contributions, CancellationToken cancel) =>
                    contributions.AskAsync(albumId, asked, cancel)
            )
            .WithName("askForWords")
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapGet(
                "/albums/{albumId:guid}/contributor-links",
                (Guid albumId, Contributions contributions, CancellationToken cancel) =>
                    contributions.ListAsync(albumId, cancel)
            )
            .WithName("listContributions")
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/contributor-links/{linkId:guid}",
                async (Guid albumId, Guid linkId, Contributions contributions, CancellationToken cancel) =>
                {
                    await contributions.RevokeAsync(albumId, linkId, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("revokeContributorLink")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/contributor-links/{linkId:guid}/decision",
                (
                    Guid albumId,
                    Guid linkId,
                    AnswerDecision decision,
                    Contributions contributions,
                    CancellationToken cancel
                ) => contributions.DecideAsync(albumId, linkId, decision.State, cancel)
            )
            .WithName("decideContribution")
            .WithProblems();
        group
            .MapGet(
                "/contribution",
                (
                    [FromHeader(Name = ContributorDoor.Header)] string? secret,
                    Contributions contributions,
                    CancellationToken cancel
                ) => contributions.SeenAsync(secret, cancel)
            )
            .WithName("getContribution")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Links)
            .WithProblems();
        group
            .MapPut(
                "/contribution",
                (
                    [FromHeader(Name = ContributorDoor.Header)] string? secret,
                    ContributedWords sent,
                    Contributions contributions,
                    CancellationToken cancel
                ) => contributions.SendAsync(secret, sent.Words, cancel)
            )
            .WithName("sendContribution")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Links)
            .WithProblems();
    }
}
