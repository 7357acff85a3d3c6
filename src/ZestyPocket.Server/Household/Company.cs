using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Household;

/// <summary>News of an album as a window gets them.</summary>
/// <param name="Kind">What is new.</param>
/// <param name="Units">The weeks or days it is about; none when it may be about any.</param>
/// <param name="Window">The window that asked for it; null when none did.</param>
public sealed record NewsView(NewsKind Kind, IReadOnlyList<Guid> Units, Guid? Window);

/// <summary>Somebody else who has the album open.</summary>
public sealed record CompanionView(string Name, Guid? UnitId);

/// <summary>Where a window is.</summary>
/// <param name="UnitId">Null for the whole album.</param>
public sealed record PresenceRequest(Guid WindowId, Guid? UnitId);

/// <summary>A comment on a spread.</summary>
/// <param name="Mine">Whether the keeper wrote it.</param>
public sealed record CommentView(
    Guid Id,
    Guid UnitId,
    string By,
    bool Mine,
    string Words,
    Instant MadeAt,
    bool Done,
    bool Deleted
);

/// <summary>A new comment.</summary>
public sealed record CommentRequest(string Words);

/// <summary>What becomes of a comment.</summary>
public sealed record CommentChange(bool Done, bool Deleted);

/// <summary>Several people at one album: who is where, what is new, what they say to each other.</summary>
public sealed class Company(
    ZestyContext db,
    AlbumReader albums,
    AlbumFeed feed,
    IServiceScopeFactory scopes,
    ICurrentKeeper keeper,
    IClock clock
)
{
    /// <summary>A window says every 15 seconds that it is there; a choice of this program.</summary>
    private static readonly Duration GoneAfter = Duration.FromSeconds(45);

    private static readonly TimeSpan Beat = TimeSpan.FromSeconds(15);

    /// <summary>Comments of one album. A choice of this program.</summary>
    private const int MostComments = 5_000;

    /// <summary>Open windows of one keeper at one album.</summary>
    private const int MostWindows = 20;

    /// <summary>
    /// News of an album while somebody may read it, and a beat in between, so that a dead line is found out.
    /// </summary>
    public async IAsyncEnumerable<SseItem<NewsView?>> NewsAsync(
        Guid albumId,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var me = keeper.Id;
        // Before the window hears that its line is open: from then on nothing may be missed.
        using var lines = feed.Open(albumId);
        yield return new SseItem<NewsView?>(null, "here");
        while (!cancel.IsCancellationRequested)
        {
            var line = await NextAsync(lines, cancel);
            if (line is { Kind: NewsKind.Sharing or NewsKind.LookAgain } && !await MayReadAsync(me, albumId, cancel))
            {
                yield break;
            }

            yield return line is null
                ? new SseItem<NewsView?>(null, "here")
                : new SseItem<NewsView?>(new NewsView(line.Kind, line.Units, line.Window), "news");
        }
    }

    /// <summary>A window that was closed, or a server that stops, is the end and no mistake.</summary>
    private static async Task<AlbumNewsLine?> NextAsync(AlbumFeed.Subscription lines, CancellationToken cancel)
    {
        try
        {
            return await lines.NextAsync(Beat, cancel);
        }
        catch (OperationCanceledException)
        {
            return null;
        }
    }

    /// <summary>In a scope of its own: a line is open for hours and must not hold a connection.</summary>
    private async Task<bool> MayReadAsync(Guid keeperId, Guid albumId, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await AlbumAccess
            .Of(scope.ServiceProvider.GetRequiredService<ZestyContext>(), keeperId, AlbumRole.Reader)
            .AnyAsync(a => a.Id == albumId, cancel);
    }

    /// <summary>Notes where a window is, and gives who else is there.</summary>
    public async Task<IReadOnlyList<CompanionView>> BeHereAsync(
        Guid albumId,
        PresenceRequest asked,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(asked);
        await albums.RequireAsync(albumId, cancel);
        if (asked.UnitId is { } unitId && !await db.Units.AnyAsync(u => u.Id == unitId && u.AlbumId == albumId, cancel))
        {
            throw new MissingException("That week or day");
        }

        var now = clock.GetCurrentInstant();
        var old = now - GoneAfter;
        var gone = await db.Presences.Where(p => p.AlbumId == albumId && p.SeenAt < old).ExecuteDeleteAsync(cancel);
        var was = await db
            .Presences.AsNoTracking()
            .SingleOrDefaultAsync(p => p.AlbumId == albumId && p.WindowId == asked.WindowId, cancel);
        if (
            was is null
            && await db.Presences.CountAsync(p => p.AlbumId == albumId && p.KeeperId == keeper.Id, cancel)
                >= MostWindows
        )
        {
            return await OthersAsync(albumId, cancel);
        }

        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Presences" ("AlbumId", "WindowId", "KeeperId", "UnitId", "SeenAt")
            VALUES ({albumId}, {asked.WindowId}, {keeper.Id}, {asked.UnitId}, {now})
            ON CONFLICT ("AlbumId", "WindowId") DO UPDATE SET "UnitId" = EXCLUDED."UnitId", "SeenAt" = EXCLUDED."SeenAt"
            WHERE "Presences"."KeeperId" = EXCLUDED."KeeperId"
            """,
            cancel
        );
        if (gone > 0 || was is null || was.UnitId != asked.UnitId)
        {
            await AlbumNews.TellAsync(db, albumId, NewsKind.Presence, [], cancel);
        }

        return await OthersAsync(albumId, cancel);
    }

    /// <summary>A window was closed.</summary>
    public async Task LeaveAsync(Guid albumId, Guid windowId, CancellationToken cancel)
    {
        if (
            await db
                .Presences.Where(p => p.AlbumId == albumId && p.WindowId == windowId && p.KeeperId == keeper.Id)
                .ExecuteDeleteAsync(cancel) > 0
        )
        {
            await AlbumNews.TellAsync(db, albumId, NewsKind.Presence, [], cancel);
        }
    }

    private async Task<IReadOnlyList<CompanionView>> OthersAsync(Guid albumId, CancellationToken cancel)
    {
        var since = clock.GetCurrentInstant() - GoneAfter;
        return await db
            .Presences.AsNoTracking()
            .Where(p => p.AlbumId == albumId && p.KeeperId != keeper.Id && p.SeenAt >= since)
            .Join(db.Keepers, p => p.KeeperId, k => k.Id, (p, k) => new { k.Name, p.UnitId })
            .Distinct()
            .OrderBy(c => c.Name)
            .Select(c => new CompanionView(c.Name, c.UnitId))
            .ToListAsync(cancel);
    }

    /// <summary>The comments of an album, or of one of its units, the oldest first.</summary>
    public async Task<IReadOnlyList<CommentView>> CommentsAsync(Guid albumId, Guid? unitId, CancellationToken cancel)
    {
        await albums.RequireAsync(albumId, cancel);
        return await Views(
                db.Comments.Where(c =>
                    c.AlbumId == albumId && c.DeletedAt == null && (unitId == null || c.UnitId == unitId)
                )
            )
            .ToListAsync(cancel);
    }

    public async Task<CommentView> CommentAsync(Guid unitId, CommentRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var albumId = await AlbumOfAsync(unitId, cancel);
        var words = PlainWords.Clean(asked.Words).Trim();
        if (words.Length is 0 or > Comment.LongestWords)
        {
            throw new RuleException($"A comment has 1 to {Comment.LongestWords:N0} characters. Nothing was written.");
        }

        if (await db.Comments.CountAsync(c => c.AlbumId == albumId && c.DeletedAt == null, cancel) >= MostComments)
        {
            throw new RuleException(
                $"An album has {MostComments:N0} comments at most. Nothing was written: delete some of them first."
            );
        }

        var comment = new Comment
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            UnitId = unitId,
            KeeperId = keeper.Id,
            Words = words,
            MadeAt = clock.GetCurrentInstant(),
        };
        db.Comments.Add(comment);
        return await SaveAsync(comment, cancel);
    }

    /// <summary>
    /// Marks a comment as done or not, or deletes it and brings it back. Its author and the editors mark it; its author
    /// and the owner delete it.
    /// </summary>
    public async Task<CommentView> ChangeAsync(
        Guid unitId,
        Guid commentId,
        CommentChange asked,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(asked);
        var albumId = await AlbumOfAsync(unitId, cancel);
        var comment =
            await db.Comments.SingleOrDefaultAsync(c => c.Id == commentId && c.UnitId == unitId, cancel)
            ?? throw new MissingException("That comment");
        var role = await AlbumAccess.RoleAsync(db, keeper.Id, albumId, cancel) ?? AlbumRole.Reader;
        if (comment.KeeperId != keeper.Id && role < AlbumRole.Editor)
        {
            throw new NotAllowedException(role, AlbumRole.Editor);
        }

        if (asked.Deleted != comment.DeletedAt is not null && comment.KeeperId != keeper.Id && role < AlbumRole.Owner)
        {
            throw new NotAllowedException(role, AlbumRole.Owner);
        }

        var now = clock.GetCurrentInstant();
        comment.DoneAt = asked.Done ? comment.DoneAt ?? now : null;
        comment.DeletedAt = asked.Deleted ? comment.DeletedAt ?? now : null;
        return await SaveAsync(comment, cancel);
    }

    private async Task<CommentView> SaveAsync(Comment comment, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.SaveChangesAsync(cancel);
        await AlbumNews.TellAsync(db, comment.AlbumId, NewsKind.Comments, [comment.UnitId], cancel);
        await transaction.CommitAsync(cancel);
        return await Views(db.Comments.Where(c => c.Id == comment.Id)).SingleAsync(cancel);
    }

    private IQueryable<CommentView> Views(IQueryable<Comment> comments)
    {
        var me = keeper.Id;
        return comments
            .AsNoTracking()
            .OrderBy(c => c.MadeAt)
            .ThenBy(c => c.Id)
            .Select(c => new CommentView(
                c.Id,
                c.UnitId,
                db.Keepers.Where(k => k.Id == c.KeeperId).Select(k => k.Name).First(),
                c.KeeperId == me,
                c.Words,
                c.MadeAt,
                c.DoneAt != null,
                c.DeletedAt != null
            ));
    }

    private async Task<Guid> AlbumOfAsync(Guid unitId, CancellationToken cancel)
    {
        var albumId =
            await db.Units.Where(u => u.Id == unitId).Select(u => (Guid?)u.AlbumId).SingleOrDefaultAsync(cancel)
            ?? throw new MissingException("That week or day");
        await albums.RequireAsync(albumId, cancel);
        return albumId;
    }
}
