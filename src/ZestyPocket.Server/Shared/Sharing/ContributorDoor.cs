using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>Opens for somebody without an account who holds a contributor's link.</summary>
public sealed class ContributorDoor(ZestyContext db, IClock clock)
{
    /// <summary>The header in which the secret of the link is sent: headers are in no log.</summary>
    public const string Header = "X-Zesty-Link";

    /// <summary>
    /// The link, tracked. One that never was, one that is too old and one that was revoked are refused alike.
    /// </summary>
    public async Task<ContributorLink> RequireAsync(string? secret, CancellationToken cancel)
    {
        var now = clock.GetCurrentInstant();
        var hash = LinkSecret.HashOf(secret ?? string.Empty);
        return await db.ContributorLinks.SingleOrDefaultAsync(
                l =>
                    l.Hash == hash
                    && l.RevokedAt == null
                    && l.ExpiresAt > now
                    && db.Albums.Any(a =>
                        a.Id == l.AlbumId
                        && a.PutAwayAt == null
                        // Whoever was sent away does not go on asking by links.
                        && (
                            a.KeeperId == l.MadeBy
                            || db.Shares.Any(s =>
                                s.AlbumId == a.Id && s.KeeperId == l.MadeBy && s.Role == AlbumRole.Editor
                            )
                        )
                    ),
                cancel
            )
            ?? throw new RuleException(
                "This link does not hold any more. Nothing was sent: ask whoever gave it to you for another one."
            );
    }
}
