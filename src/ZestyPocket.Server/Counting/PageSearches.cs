using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Counting;

namespace ZestyPocket.Server.Counting;

/// <summary>Starts, shows and cancels searches for pages.</summary>
public sealed class PageSearches(
    ZestyContext db,
    AlbumReader albums,
    ICurrentKeeper keeper,
    PageSearchNudges queue,
    IClock clock
)
{
    private const int LongestKey = 100;

    /// <summary>Asked several times with the same key, as after a lost answer, it is one search.</summary>
    public async Task<PageSearchView> StartAsync(Guid albumId, PageSearchRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (request.RequestKey.Length is 0 or > LongestKey)
        {
            throw new RuleException($"A search has a key of 1 to {LongestKey} characters. Nothing was started.");
        }

        if (await FindAsync(request.RequestKey, cancel) is { } known)
        {
            return PageSearchView.Of(known);
        }

        var (ask, album) = (request.Ask, await albums.RequireAsync(albumId, cancel));
        // What makes no sense is refused at once and not by a job.
        _ = await albums.StretchAsync(album.Id, ask.From, ask.Count, PageChoosing.MostUnits, cancel);
        var weights = ask.Weights?.ToWeights();
        var search = new PageSearch
        {
            Id = Guid.CreateVersion7(),
            AlbumId = album.Id,
            KeeperId = keeper.Id,
            RequestKey = request.RequestKey,
            FromUnitId = ask.From,
            Count = ask.Count,
            Weights = weights is null
                ? []
                : [weights.Leaf, weights.EmptyPocket, weights.Crop, weights.Change, weights.Alter],
            MadeAt = clock.GetCurrentInstant(),
        };
        db.PageSearches.Add(search);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Asked several times at once under one key: the first one counts.
            return PageSearchView.Of((await FindAsync(request.RequestKey, cancel))!);
        }

        // When the program ends between the two, the recovery finds the row waiting.
        queue.Nudge(search.Id);
        return PageSearchView.Of(search);
    }

    public async Task<PageSearchView> CancelAsync(Guid id, CancellationToken cancel)
    {
        await db
            .PageSearches.Where(s => s.Id == id && s.KeeperId == keeper.Id)
            .ExecuteUpdateAsync(set => set.SetProperty(s => s.CancelAsked, true), cancel);
        return PageSearchView.Of(await RequireAsync(id, cancel));
    }

    public async Task<PageSearch> RequireAsync(Guid id, CancellationToken cancel) =>
        await db.PageSearches.AsNoTracking().SingleOrDefaultAsync(s => s.Id == id && s.KeeperId == keeper.Id, cancel)
        ?? throw new MissingException("The search for pages");

    private Task<PageSearch?> FindAsync(string key, CancellationToken cancel) =>
        db
            .PageSearches.AsNoTracking()
            .SingleOrDefaultAsync(s => s.KeeperId == keeper.Id && s.RequestKey == key, cancel);
}
