using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Household;

/// <summary>Who may come to an album: invited by its owner with a private link, and sent away again at once.</summary>
public sealed class Invitations(
    ZestyContext db,
    ShareLog log,
    IPostOffice post,
    IHttpContextAccessor http,
    ZestySettings settings,
    ICurrentKeeper keeper,
    IClock clock
)
{
    private const int MostDays = 90;

    private const int MostUses = 50;

    /// <summary>Invitations of an album that still hold. A choice of this program.</summary>
    private const int MostOpen = 100;

    private const int MostShown = 100;

    public async Task<SharingView> ViewAsync(Guid albumId, CancellationToken cancel)
    {
        await RequireAlbumAsync(albumId, cancel);
        var now = clock.GetCurrentInstant();
        var names = db.Keepers.AsNoTracking();
        return new SharingView(
            await db
                .Shares.AsNoTracking()
                .Where(s => s.AlbumId == albumId)
                .OrderBy(s => s.Since)
                .Select(s => new MemberView(
                    s.KeeperId,
                    names.Where(k => k.Id == s.KeeperId).Select(k => k.Name).First(),
                    s.Role,
                    s.Since
                ))
                .ToListAsync(cancel),
            await Open(albumId, now)
                .AsNoTracking()
                .OrderByDescending(i => i.MadeAt)
                .Select(i => new InvitationView(i.Id, i.For, i.Role, i.ExpiresAt, i.Uses, i.MostUses))
                .ToListAsync(cancel),
            await db
                .ShareEntries.AsNoTracking()
                .Where(e => e.AlbumId == albumId)
                .OrderByDescending(e => e.At)
                .Take(MostShown)
                .Select(e => new ShareEntryView(
                    e.At,
                    names.Where(k => k.Id == e.KeeperId).Select(k => k.Name).FirstOrDefault(),
                    e.What
                ))
                .ToListAsync(cancel)
        );
    }

    /// <summary>What was shared of a keeper's albums, and what they did in others', the newest first.</summary>
    public Task<List<AccountShareView>> LastAsync(Guid keeperId, CancellationToken cancel)
    {
        var names = db.Keepers.AsNoTracking();
        return (
            from entry in db.ShareEntries.AsNoTracking()
            join album in db.Albums.AsNoTracking() on entry.AlbumId equals album.Id
            where entry.KeeperId == keeperId || album.KeeperId == keeperId
            orderby entry.At descending
            select new AccountShareView(
                entry.At,
                album.Name,
                names.Where(k => k.Id == entry.KeeperId).Select(k => k.Name).FirstOrDefault(),
                entry.What
            )
        )
            .Take(MostShown)
            .ToListAsync(cancel);
    }

    /// <summary>Makes a link; its secret is given this once.</summary>
    public async Task<LinkView> InviteAsync(Guid albumId, InvitationRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        settings.RequireHousehold();
        var album = await RequireAlbumAsync(albumId, cancel);
        var name = PlainWords.Name(asked.For).Trim();
        if (asked.Role == AlbumRole.Owner)
        {
            throw new RuleException("An album has one owner. Nobody was invited: choose editor or reader.");
        }

        if (name.Length is 0 or > Invitation.LongestName)
        {
            throw new RuleException(
                $"Say whom it is for in 1 to {Invitation.LongestName} characters. Nobody was invited."
            );
        }

        if (asked.Days is < 1 or > MostDays || asked.MostUses is < 1 or > MostUses)
        {
            throw new RuleException(
                $"An invitation holds for 1 to {MostDays} days and for 1 to {MostUses} people. Nobody was invited."
            );
        }

        var now = clock.GetCurrentInstant();
        if (await Open(albumId, now).CountAsync(cancel) >= MostOpen)
        {
            throw new RuleException(
                $"{MostOpen} invitations to this album are open. Nobody was invited: revoke some of them first."
            );
        }

        var secret = LinkSecret.New();
        var invitation = new Invitation
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            Role = asked.Role,
            Hash = LinkSecret.HashOf(secret),
            For = name,
            MadeBy = keeper.Id,
            MadeAt = now,
            ExpiresAt = now + Duration.FromDays(asked.Days),
            MostUses = asked.MostUses,
        };
        var path = LinkSecret.Path("join", secret);
        db.Invitations.Add(invitation);
        log.Add(albumId, keeper.Id, $"invited {name} as {InWords(asked.Role)}");
        if (asked.SendTo is { Length: > 0 } to)
        {
            // Before it is saved: a letter that was not sent leaves no invitation behind.
            await post.SendAsync(
                new Letter(
                    to,
                    $"An invitation to “{album.Name}”",
                    $"Hello {name},\n\nyou are invited to the album “{album.Name}” as {InWords(asked.Role)}. Open this "
                        + $"link; it holds for {asked.Days} {(asked.Days == 1 ? "day" : "days")}:\n\n"
                        + $"{OwnSite.Of(http, asked.Site)}{path}\n"
                ),
                cancel
            );
        }

        await db.SaveChangesAsync(cancel);
        return new LinkView(invitation.Id, name, path, invitation.ExpiresAt);
    }

    public async Task RevokeAsync(Guid albumId, Guid invitationId, CancellationToken cancel)
    {
        await RequireAlbumAsync(albumId, cancel);
        var invitation =
            await db.Invitations.SingleOrDefaultAsync(i => i.Id == invitationId && i.AlbumId == albumId, cancel)
            ?? throw new MissingException("That invitation");
        if (invitation.RevokedAt is null)
        {
            invitation.RevokedAt = clock.GetCurrentInstant();
            log.Add(albumId, keeper.Id, $"revoked the invitation for {invitation.For}");
            await db.SaveChangesAsync(cancel);
        }
    }

    /// <summary>Gives a member another role, from their next request on.</summary>
    public async Task SetRoleAsync(Guid albumId, Guid memberId, AlbumRole role, CancellationToken cancel)
    {
        await RequireAlbumAsync(albumId, cancel);
        if (role == AlbumRole.Owner)
        {
            throw new RuleException("An album has one owner. Nothing was changed: choose editor or reader.");
        }

        var (share, name) = await MemberAsync(albumId, memberId, cancel);
        if (share.Role != role)
        {
            share.Role = role;
            log.Add(albumId, keeper.Id, $"made {name} {InWords(role)}");
            await db.SaveChangesAsync(cancel);
            await AlbumNews.TellAsync(db, albumId, NewsKind.Sharing, [], cancel);
        }
    }

    /// <summary>Ends what a member may do, from their next request on.</summary>
    public async Task RemoveAsync(Guid albumId, Guid memberId, CancellationToken cancel)
    {
        await RequireAlbumAsync(albumId, cancel);
        var (share, name) = await MemberAsync(albumId, memberId, cancel);
        db.Shares.Remove(share);
        log.Add(albumId, keeper.Id, $"removed {name}");
        await db.SaveChangesAsync(cancel);
        await AlbumNews.TellAsync(db, albumId, NewsKind.Sharing, [], cancel);
    }

    /// <summary>Leaves somebody else's album.</summary>
    public async Task LeaveAsync(Guid albumId, CancellationToken cancel)
    {
        var (share, _) = await MemberAsync(albumId, keeper.Id, cancel);
        db.Shares.Remove(share);
        log.Add(albumId, keeper.Id, "left the album");
        await db.SaveChangesAsync(cancel);
        await AlbumNews.TellAsync(db, albumId, NewsKind.Sharing, [], cancel);
    }

    /// <summary>What an invitation is to, for whoever holds it; null when it does not hold any more.</summary>
    public async Task<InvitedView?> FindAsync(string secret, CancellationToken cancel)
    {
        var (hash, now) = (LinkSecret.HashOf(secret), clock.GetCurrentInstant());
        return await Holding(hash, now)
            .Join(
                db.Albums.Where(a => a.PutAwayAt == null),
                i => i.AlbumId,
                a => a.Id,
                (i, a) =>
                    new InvitedView(
                        a.Id,
                        a.Name,
                        db.Keepers.Where(k => k.Id == a.KeeperId).Select(k => k.Name).First(),
                        i.For,
                        i.Role
                    )
            )
            .SingleOrDefaultAsync(cancel);
    }

    /// <summary>
    /// Uses an invitation. Who may do as much already uses nothing up; asked twice it is used once.
    /// </summary>
    public async Task<InvitedView> AcceptAsync(string secret, Guid keeperId, CancellationToken cancel)
    {
        settings.RequireHousehold();
        var invited = await FindAsync(secret, cancel) ?? throw DoesNotHold();
        var before = await AlbumAccess.RoleAsync(db, keeperId, invited.AlbumId, cancel);
        if (before >= invited.Role)
        {
            return invited;
        }

        var (hash, now) = (LinkSecret.HashOf(secret), clock.GetCurrentInstant());
        var own = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(cancel) : null;
        await using (own)
        {
            // With a condition, so that not more people than were invited use it at once.
            if (
                await Holding(hash, now).ExecuteUpdateAsync(s => s.SetProperty(i => i.Uses, i => i.Uses + 1), cancel)
                == 0
            )
            {
                throw DoesNotHold();
            }

            var came = await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO "Shares" ("AlbumId", "KeeperId", "Role", "Since")
                VALUES ({invited.AlbumId}, {keeperId}, {invited.Role.ToString()}, {now})
                ON CONFLICT ("AlbumId", "KeeperId") DO UPDATE SET "Role" = EXCLUDED."Role"
                WHERE "Shares"."Role" <> EXCLUDED."Role"
                """,
                cancel
            );
            if (came == 0)
            {
                // The same person in two windows: the other one used it.
                await Holding(hash, now, full: true)
                    .ExecuteUpdateAsync(s => s.SetProperty(i => i.Uses, i => i.Uses - 1), cancel);
            }
            else
            {
                log.Add(invited.AlbumId, keeperId, $"came as {InWords(invited.Role)}");
            }

            await db.SaveChangesAsync(cancel);
            if (own is not null)
            {
                await own.CommitAsync(cancel);
            }
        }

        return invited;
    }

    private IQueryable<Invitation> Open(Guid albumId, Instant now) =>
        db.Invitations.Where(i =>
            i.AlbumId == albumId && i.RevokedAt == null && i.ExpiresAt > now && i.Uses < i.MostUses
        );

    private IQueryable<Invitation> Holding(string hash, Instant now, bool full = false) =>
        db.Invitations.Where(i =>
            i.Hash == hash && i.RevokedAt == null && i.ExpiresAt > now && (full || i.Uses < i.MostUses)
        );

    private async Task<Album> RequireAlbumAsync(Guid albumId, CancellationToken cancel) =>
        await AlbumAccess
            .Of(db, keeper.Id, AlbumRole.Owner)
            .AsNoTracking()
            .SingleOrDefaultAsync(a => a.Id == albumId && a.PutAwayAt == null, cancel)
        ?? throw new MissingException("The album");

    private async Task<(AlbumShare Share, string Name)> MemberAsync(
        Guid albumId,
        Guid memberId,
        CancellationToken cancel
    ) =>
        (
            await db.Shares.SingleOrDefaultAsync(s => s.AlbumId == albumId && s.KeeperId == memberId, cancel)
                ?? throw new MissingException("That person"),
            await db.Keepers.Where(k => k.Id == memberId).Select(k => k.Name).SingleAsync(cancel)
        );

    private static string InWords(AlbumRole role) => role == AlbumRole.Editor ? "an editor" : "a reader";

    private static RuleException DoesNotHold() =>
        new("This invitation does not hold any more. Nothing was changed: ask whoever sent it for another one.");
}
