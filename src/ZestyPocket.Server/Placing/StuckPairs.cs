using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Placing;

/// <summary>
/// Moves pieces that are stuck back to back: swapping two fronts swaps the two backs, and says when that breaks an
/// order on the other face. Common practice.
/// </summary>
public sealed class StuckPairs(ZestyContext db, History history, ICurrentKeeper keeper)
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
        if (from.LeafId == to.LeafId && from.PocketKey == to.PocketKey)
        {
            throw new RuleException(
                "The two are stuck together back to back: turning one turns both, so they would lie as they do. "
                    + "Nothing was changed."
            );
        }

        var (one, two) = (LeafOf(open, from), LeafOf(open, to));
        var (behindFrom, behindTo) = (Behind(from), Behind(to));
        var (ownerFrom, ownerTo) = (Owner(one, behindFrom.Side), Owner(two, behindTo.Side));
        if (ownerFrom != ownerTo && (ownerFrom is null || ownerTo is null))
        {
            throw new RuleException(
                $"What lies behind {open.CodeOf(from)} or {open.CodeOf(to)} belongs to no part of the album, so the "
                    + "two cannot change places. Nothing was changed: take the pair apart first."
            );
        }

        var owners = new[] { ownerFrom, ownerTo }.OfType<Guid>().Distinct().ToList();
        var others = await db.Units.Where(u => owners.Contains(u.Id)).ToDictionaryAsync(u => u.Id, cancel);
        var leaves = new List<AlbumLeaf> { one, two }
            .DistinctBy(l => l.Id)
            .ToList();
        history.Touch([open.Unit, .. leaves, .. others.Values]);
        // The fronts first: when a back is of the same unit, it is found as they left it.
        open.Unit.Write(open.Content.Put(pieceId, to));
        var before = others.ToDictionary(o => o.Key, o => o.Value.Read());
        if (ownerFrom is { } idFrom && ownerTo is { } idTo)
        {
            if (idFrom == idTo)
            {
                others[idFrom].Write(Swapped(before[idFrom], behindFrom, behindTo));
            }
            else
            {
                var (first, second) = Exchanged(before[idFrom], behindFrom, before[idTo], behindTo);
                others[idFrom].Write(first);
                others[idTo].Write(second);
            }
        }

        var warning = string.Empty;
        foreach (var (id, other) in others)
        {
            warning += await OutOfOrderAsync(other, before[id], other.Read(), cancel);
        }

        Exchange(one, from.PocketKey, two, to.PocketKey);
        var done = $"Moved a piece to {open.CodeOf(to)} with the one stuck to its back{warning}";
        await history.SaveAsync(open.Album.Id, keeper.Id, done, owners.Prepend(open.Unit.Id), cancel);
        return (done, pieceId);
    }

    /// <summary>What lies in a pocket of one unit and in one of another change places, with all they are.</summary>
    private static (UnitContent One, UnitContent Two) Exchanged(
        UnitContent one,
        PocketPlace from,
        UnitContent two,
        PocketPlace to
    )
    {
        var (first, second) = (Lying(one, from), Lying(two, to));
        if (first is PhotoPrint { SpanId: not null } || second is PhotoPrint { SpanId: not null })
        {
            throw new RuleException(
                "A picture behind one of them runs over several pockets and cannot be moved by itself. Nothing was "
                    + "changed: take the pair apart first."
            );
        }

        one = first is null ? one : one.Discard(first.Id);
        two = second is null ? two : two.Discard(second.Id);
        return (second is null ? one : one.Receive(second, from), first is null ? two : two.Receive(first, to));
    }

    private static Piece? Lying(UnitContent content, PocketPlace place) =>
        content.At(place) is { } lies ? content.Find(lies.PieceId) : null;

    private static UnitContent Swapped(UnitContent content, PocketPlace a, PocketPlace b) =>
        content.At(a) is { } lies ? content.Put(lies.PieceId, b)
        : content.At(b) is { } there ? content.Put(there.PieceId, a)
        : content;

    /// <summary>Which pairs are stuck goes with the pieces.</summary>
    private static void Exchange(AlbumLeaf one, string from, AlbumLeaf two, string to)
    {
        var (first, second) = (one.ReadForm().Stuck.Contains(from), two.ReadForm().Stuck.Contains(to));
        one.WriteForm(one.ReadForm().Stick(from, second));
        two.WriteForm(two.ReadForm().Stick(to, first));
    }

    /// <summary>
    /// Words about pictures that have come out of the order of time in which they lay; empty when none have.
    /// </summary>
    private async Task<string> OutOfOrderAsync(
        AlbumUnit other,
        UnitContent before,
        UnitContent after,
        CancellationToken cancel
    )
    {
        var times = await db
            .Photos.AsNoTracking()
            .Where(p => p.UnitId == other.Id)
            .ToDictionaryAsync(p => p.Id, p => p.SortAt, cancel);
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l => l.FrontUnitId == other.Id || l.BackUnitId == other.Id)
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var ids = leaves.ConvertAll(l => l.ProtectorId);
        var protectors = await db
            .Protectors.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .ToDictionaryAsync(p => p.Id, cancel);
        var reading = leaves
            .SelectMany(l =>
                new[]
                {
                    (Leaf: l, Side: LeafSide.Front, Unit: l.FrontUnitId),
                    (Leaf: l, Side: LeafSide.Back, Unit: l.BackUnitId),
                }
            )
            .Where(f => f.Unit == other.Id)
            .SelectMany(f => OpenFace.Of(f.Leaf, f.Side, protectors[f.Leaf.ProtectorId]).Pockets.Select(p => p.Place))
            .ToList();
        var (was, now) = (Inversions(before), Inversions(after));
        return now > was
            ? $"; on the other face {NumberWords.Of(now)} {(now == 1 ? "picture stands" : "pictures stand")} before "
                + "an earlier one now"
            : string.Empty;

        int Inversions(UnitContent content)
        {
            var order = reading
                .Select(p =>
                    content.At(p) is { } lies
                    && content.Find(lies.PieceId) is PhotoPrint print
                    && times.TryGetValue(print.PhotoId, out var at)
                        ? at
                        : (NodaTime.Instant?)null
                )
                .OfType<NodaTime.Instant>()
                .ToList();
            return order.Where((at, i) => order.Skip(i + 1).Any(later => later < at)).Count();
        }
    }

    private static PocketPlace Behind(PocketPlace place) =>
        place with
        {
            Side = place.Side == LeafSide.Front ? LeafSide.Back : LeafSide.Front,
        };

    private static Guid? Owner(AlbumLeaf leaf, LeafSide side) =>
        side == LeafSide.Front ? leaf.FrontUnitId : leaf.BackUnitId;

    private static AlbumLeaf LeafOf(OpenUnit open, PocketPlace place) =>
        open.Faces.First(f => f.Leaf.Id == place.LeafId).Leaf;
}
