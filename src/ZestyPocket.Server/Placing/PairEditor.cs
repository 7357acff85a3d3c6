using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Placing;

/// <summary>
/// Loads what lies before and behind two pockets, lets the core move the pair, and saves all it touched.
/// </summary>
public sealed class PairEditor(ZestyContext db, History history, ICurrentKeeper keeper)
{
    /// <summary>Swaps two pockets with what lies behind them, as one edit.</summary>
    public async Task<(string Done, Guid? PieceId)> MoveAsync(
        OpenUnit open,
        Guid pieceId,
        PocketPlace from,
        PocketPlace to,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        var (one, two) = (LeafOf(open, from), LeafOf(open, to));
        var (pairFrom, pairTo) = (Pair(one, from), Pair(two, to));
        var owners = new[] { pairFrom.BackUnit, pairTo.BackUnit }.OfType<Guid>().Distinct().ToList();
        var units = await db
            .Units.Where(u => owners.Contains(u.Id) || u.Id == open.Unit.Id)
            .ToDictionaryAsync(u => u.Id, cancel);
        var contents = units.ToImmutableDictionary(u => u.Key, u => u.Value.Read());
        var moved = StuckPairs.Move(open.Unit.Id, contents, pieceId, pairFrom, pairTo, open.CodeOf);

        history.Touch([one, .. one.Id == two.Id ? [] : new[] { two }, .. units.Values]);
        foreach (var (id, unit) in units)
        {
            unit.Write(moved.Contents[id]);
        }

        one.WriteAlterations(moved.FromAlterations);
        two.WriteAlterations(moved.ToAlterations);
        var warning = string.Empty;
        foreach (var id in owners)
        {
            warning += StuckPairs.OutOfOrderWords(
                StuckPairs.OutOfOrder(
                    moved.Fronts[id],
                    moved.Contents[id],
                    await ReadingAsync(id, cancel),
                    await TakenAsync(id, cancel)
                )
            );
        }

        var done = $"Moved a piece to {open.CodeOf(to)} with the one stuck to its back{warning}";
        await history.SaveAsync(open.Album.Id, keeper.Id, done, owners.Prepend(open.Unit.Id), cancel);
        return (done, pieceId);
    }

    /// <summary>All pockets of a unit in reading order.</summary>
    private async Task<List<PocketPlace>> ReadingAsync(Guid unitId, CancellationToken cancel)
    {
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l => l.FrontUnitId == unitId || l.BackUnitId == unitId)
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var ids = leaves.ConvertAll(l => l.ProtectorId);
        var protectors = await db
            .Protectors.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .ToDictionaryAsync(p => p.Id, cancel);
        return
        [
            .. from leaf in leaves
            from side in new[] { LeafSide.Front, LeafSide.Back }
            where Owner(leaf, side) == unitId
            from pocket in OpenFace.Of(leaf, side, protectors[leaf.ProtectorId]).Pockets
            select pocket.Place,
        ];
    }

    private Task<Dictionary<Guid, Instant>> TakenAsync(Guid unitId, CancellationToken cancel) =>
        db.Photos.AsNoTracking().Where(p => p.UnitId == unitId).ToDictionaryAsync(p => p.Id, p => p.SortAt, cancel);

    private static PairPlace Pair(AlbumLeaf leaf, PocketPlace place) =>
        new(place, leaf.ReadAlterations(), Owner(leaf, place.Side == LeafSide.Front ? LeafSide.Back : LeafSide.Front));

    private static Guid? Owner(AlbumLeaf leaf, LeafSide side) =>
        side == LeafSide.Front ? leaf.FrontUnitId : leaf.BackUnitId;

    private static AlbumLeaf LeafOf(OpenUnit open, PocketPlace place) =>
        open.Faces.First(f => f.Leaf.Id == place.LeafId).Leaf;
}
