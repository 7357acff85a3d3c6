using ZestyPocket.Core.Counting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Counting;

namespace ZestyPocket.Server.Counting;

/// <summary>Starts searches for pages.</summary>
public sealed class PageSearches(AlbumReader albums, AskedJobs<PageSearch> jobs)
{
    /// <summary>For a refusal that names it.</summary>
    public const string What = "The search for pages";

    public async Task<PageSearchView> StartAsync(Guid albumId, PageSearchRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        return PageSearchView.Of(
            await jobs.StartAsync(request.RequestKey, () => MakeAsync(albumId, request, cancel), cancel)
        );
    }

    /// <summary>What makes no sense is refused at once and not by a job.</summary>
    private async Task<PageSearch> MakeAsync(Guid albumId, PageSearchRequest request, CancellationToken cancel)
    {
        var (ask, album) = (request.Ask, await albums.RequireAsync(albumId, cancel));
        _ = await albums.StretchAsync(album.Id, ask.From, ask.Count, PageChoosing.MostUnits, cancel);
        return new PageSearch
        {
            AlbumId = album.Id,
            RequestKey = request.RequestKey,
            FromUnitId = ask.From,
            Count = ask.Count,
            Weights = ask.Weights?.ToWeights() is { } weights
                ? [weights.Leaf, weights.EmptyPocket, weights.Crop, weights.Change, weights.Alter]
                : [],
        };
    }
}
