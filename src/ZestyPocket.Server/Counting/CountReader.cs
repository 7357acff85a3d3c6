using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

/// <summary>Loads units with what their tally needs, and shows what the core counts.</summary>
public sealed class CountReader(ZestyContext db, UnitOpener opener, StoriesOfDays stories, FontShelf fonts)
{
    public async Task<CountView> CountAsync(Guid unitId, CancellationToken cancel) =>
        (await CountAsync([await opener.OpenAsync(unitId, cancel)], cancel))[0];

    /// <summary>Counts several units of an album, in the order asked for.</summary>
    public async Task<IReadOnlyList<CountView>> CountAsync(IReadOnlyList<Guid> unitIds, CancellationToken cancel) =>
        await CountAsync(await opener.OpenManyAsync(unitIds, cancel), cancel);

    /// <summary>The tally of each unit of one album.</summary>
    public async Task<IReadOnlyList<UnitTally>> TalliesAsync(IReadOnlyList<OpenUnit> units, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(units);
        var told = await stories.OfAsync(units, cancel);
        return [.. units.Select(u => new UnitTally(u.Desk, told[u.Unit.Id], fonts))];
    }

    private async Task<IReadOnlyList<CountView>> CountAsync(IReadOnlyList<OpenUnit> units, CancellationToken cancel)
    {
        if (units.Count == 0)
        {
            return [];
        }

        var tallies = await TalliesAsync(units, cancel);
        var neighbours = await NeighboursAsync(units, cancel);
        var albumId = units[0].Album.Id;
        var inUse = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == albumId)
            .GroupBy(l => l.ProtectorId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        return [.. units.Zip(tallies, (unit, tally) => View(unit, tally, neighbours, inUse))];
    }

    /// <summary>The units that lie on the other faces of these units' leaves.</summary>
    private async Task<Dictionary<Guid, AlbumUnit>> NeighboursAsync(
        IReadOnlyList<OpenUnit> units,
        CancellationToken cancel
    )
    {
        var ids = units
            .SelectMany(u => u.Faces.SelectMany(f => new[] { f.Leaf.FrontUnitId, f.Leaf.BackUnitId }))
            .OfType<Guid>()
            .Distinct()
            .ToList();
        return await db.Units.AsNoTracking().Where(u => ids.Contains(u.Id)).ToDictionaryAsync(u => u.Id, cancel);
    }

    private CountView View(
        OpenUnit open,
        UnitTally tally,
        Dictionary<Guid, AlbumUnit> neighbours,
        Dictionary<Guid, int> inUse
    )
    {
        var (desk, content) = (open.Desk, open.Content);
        var leafOf = open.Faces.Select(f => f.Leaf).DistinctBy(l => l.Id).ToDictionary(l => l.Id);
        var leaves = LeafTally.Of(desk, id => Behind(id) is { } other && other.Read().HoldsOn(id));
        return new CountView(
            open.Unit.Id,
            open.Unit.Revision,
            open.Title,
            open.Dates.Span(open.Calendar.Style),
            tally.Sum,
            tally.Pieces,
            tally.Pockets.Length,
            tally.Placed,
            tally.Lacking,
            tally.Free,
            tally.Wanted,
            [
                .. tally
                    .Pockets.GroupBy(p => desk.Pages.CutSize(p))
                    .OrderByDescending(g => g.Count())
                    .ThenBy(g => g.Key.SquareInches)
                    .Select(g => new PocketsView(
                        MeasureText.Show(g.Key, desk.Measures),
                        g.Count(),
                        g.Count(p => content.At(p) is null)
                    )),
            ],
            [
                .. leaves.Select(l => new LeafView(
                    l.LeafId,
                    leafOf[l.LeafId].Revision,
                    leafOf[l.LeafId].ProtectorId,
                    l.Design,
                    l.Faces,
                    l.Placed,
                    l.Pockets,
                    l.Kind,
                    l.MayChange,
                    l.MayGo,
                    Behind(l.LeafId)?.ReadDates().Title(open.Calendar.Style)
                )),
            ],
            desk.Dates.LeftOut ? [] : new WaysToFit(desk, leaves, inUse, fonts).Of(tally.Lacking, tally.Free),
            content.LeftEmpty.Length,
            open.Faces.Count(f => f.Pockets.Any()),
            open.Faces.Count(f =>
                f.Pockets.Any() && !content.Placements.Any(p => p.Place.LeafId == f.Leaf.Id && p.Place.Side == f.Side)
            ),
            tally.Hint,
            Followed(open, tally),
            content.KeepsItsPages
        );

        // The unit on the leaf's other face; null when that is this unit's too, or nobody's.
        AlbumUnit? Behind(Guid leafId) =>
            new[] { leafOf[leafId].FrontUnitId, leafOf[leafId].BackUnitId }
                .OfType<Guid>()
                .Where(id => id != open.Unit.Id)
                .Select(id => neighbours.GetValueOrDefault(id))
                .FirstOrDefault();
    }

    /// <summary>The formula a unit follows, and what it lacks of it while pictures can still be taken.</summary>
    private static FollowedFormula? Followed(OpenUnit open, UnitTally tally)
    {
        if (open.Album.ReadFormulas().Of(open.Unit.Id) is not { } formula)
        {
            return null;
        }

        var gap = tally.GapOf(formula);
        return new FollowedFormula(
            formula.Id,
            formula.Name,
            gap.IsMet ? string.Empty : gap.Says(SpanLabel.Weekday(open.Dates.Last)),
            gap.Beyond == 0
                ? string.Empty
                : $"{NumberWords.Of(gap.Beyond)} {(gap.Beyond == 1 ? "piece goes" : "pieces go")} beyond it and "
                    + "onto a further leaf"
        );
    }
}
