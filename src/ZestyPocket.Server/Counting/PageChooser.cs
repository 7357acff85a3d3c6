using ZestyPocket.Core.Counting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

/// <summary>Loads a stretch of the album and lets the core choose its pages.</summary>
public sealed class PageChooser(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    CountReader counts,
    IPageSolver solver
)
{
    /// <param name="progress">Told how many of how many searches are done.</param>
    public async Task<IReadOnlyList<PageChoice>> ChooseAsync(
        Guid albumId,
        ChoosePagesRequest request,
        Action<int, int> progress,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        var rows = await AlbumRows.LoadAsync(db, await albums.RequireAsync(albumId, cancel), cancel);
        var stretch = await albums.StretchAsync(albumId, request.From, request.Count, PageChoosing.MostUnits, cancel);
        var units = await opener.OpenManyAsync(stretch, cancel);
        var tallies = await counts.TalliesAsync(units, cancel);
        var choosing = new PageChoosing(
            rows.Desk.Binder,
            [.. units.Zip(tallies, (u, t) => new UnitToFit(u.Unit.Id, u.Title, u.Desk, [.. t.Wants]))]
        );
        // A search takes its turn at the solver and may take seconds: on a thread of its own.
        return await Task.Factory.StartNew(
            () => choosing.Choose(solver, request.Weights?.ToWeights(), progress, cancel),
            cancel,
            TaskCreationOptions.LongRunning,
            TaskScheduler.Default
        );
    }
}
