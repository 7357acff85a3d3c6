using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Household;

/// <summary>Somebody who may come to an album.</summary>
public sealed record MemberView(Guid KeeperId, string Name, AlbumRole Role, Instant Since);

/// <summary>An invitation that still holds. Its link was shown when it was made.</summary>
public sealed record InvitationView(Guid Id, string For, AlbumRole Role, Instant ExpiresAt, int Uses, int MostUses);

/// <summary>What was done about the sharing of an album.</summary>
/// <param name="By">Null for somebody with a contributor's link.</param>
public sealed record ShareEntryView(Instant At, string? By, string What);

/// <summary>Who may come to an album.</summary>
/// <param name="Log">The newest first.</param>
public sealed record SharingView(
    IReadOnlyList<MemberView> Members,
    IReadOnlyList<InvitationView> Invitations,
    IReadOnlyList<ShareEntryView> Log
);

/// <summary>Invites somebody to an album.</summary>
/// <param name="For">Whom it is for.</param>
/// <param name="Days">How long it holds.</param>
/// <param name="MostUses">How many people may use it.</param>
/// <param name="SendTo">A mail address for a letter with the link; null or empty to send none.</param>
/// <param name="Site">What stands before the link in the letter, such as <c>https://albums.example.org</c>.</param>
public sealed record InvitationRequest(
    string For,
    AlbumRole Role,
    int Days,
    int MostUses,
    string? SendTo = null,
    string? Site = null
);

/// <summary>A private link.</summary>
/// <param name="Path">To be opened on this server; its secret is shown this once.</param>
public sealed record LinkView(Guid Id, string For, string Path, Instant ExpiresAt);

/// <summary>The secret of an invitation.</summary>
/// <param name="Secret">The part of the link after <c>#</c>.</param>
public sealed record SecretRequest(string Secret);

/// <summary>What an invitation is to.</summary>
public sealed record InvitedView(Guid AlbumId, string Album, string Owner, string For, AlbumRole Role);

/// <summary>Another role of a member.</summary>
public sealed record RoleRequest(AlbumRole Role);

/// <summary>Sharing an album: who may come, and as what.</summary>
public static class SharingEndpoints
{
    public static void MapSharing(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Household");
        group
            .MapGet(
                "/albums/{albumId:guid}/sharing",
                (Guid albumId, Invitations invitations, CancellationToken cancel) =>
                    invitations.ViewAsync(albumId, cancel)
            )
            .WithName("getSharing")
            .ForTheOwner()
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/invitations",
                (Guid albumId, InvitationRequest asked, Invitations invitations, CancellationToken cancel) =>
                    invitations.InviteAsync(albumId, asked, cancel)
            )
            .WithName("invite")
            .ForTheOwner()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/invitations/{invitationId:guid}",
                async (Guid albumId, Guid invitationId, Invitations invitations, CancellationToken cancel) =>
                {
                    await invitations.RevokeAsync(albumId, invitationId, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("revokeInvitation")
            .ForTheOwner()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPut(
                "/albums/{albumId:guid}/members/{memberId:guid}",
                async (
                    Guid albumId,
                    Guid memberId,
                    RoleRequest asked,
                    Invitations invitations,
                    CancellationToken cancel
                ) =>
                {
                    await invitations.SetRoleAsync(albumId, memberId, asked.Role, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("setRole")
            .ForTheOwner()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapDelete(
                "/albums/{albumId:guid}/members/{memberId:guid}",
                async (Guid albumId, Guid memberId, Invitations invitations, CancellationToken cancel) =>
                {
                    await invitations.RemoveAsync(albumId, memberId, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("removeMember")
            .ForTheOwner()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/leave",
                async (Guid albumId, Invitations invitations, CancellationToken cancel) =>
                {
                    await invitations.LeaveAsync(albumId, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("leaveAlbum")
            .ForReaders()
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/invitations/look",
                async (SecretRequest asked, Invitations invitations, CancellationToken cancel) =>
                    await invitations.FindAsync(asked.Secret, cancel)
                    ?? throw new RuleException(
                        "This invitation does not hold any more. Ask whoever sent it for another one."
                    )
            )
            .WithName("lookAtInvitation")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/invitations/accept",
                (SecretRequest asked, Invitations invitations, ICurrentKeeper keeper, CancellationToken cancel) =>
                    invitations.AcceptAsync(asked.Secret, keeper.Id, cancel)
            )
            .WithName("acceptInvitation")
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
    }
}
