using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Albums;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Counting;

/// <summary>The leaves of an album in their order, front and back.</summary>
public sealed class BinderReader(ZestyContext db, AlbumReader albums)
{
    public async Task<IReadOnlyList<BinderLeaf>> LeavesAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var style = album.ReadCalendar().Style;
        var leaves = await db.Leaves.AsNoTracking().Where(l => l.AlbumId == albumId).OrderBy(l => l.Ordinal).ToListAsync(cancel);
        var units = await db.Units.AsNoTracking().Where(u => u.AlbumId == albumId).ToDictionaryAsync(u => u.Id, cancel);
        var contents = units.ToDictionary(u => u.Key, u => u.Value.PiecesPlaced == 0 ? null : u.Value.Read());
        var designs = album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector().Design);
        return
        [
            .. leaves.Select((leaf, i) => new BinderLeaf(
                leaf.Id, i + 1, designs[leaf.ProtectorId].Key, designs[leaf.ProtectorId].Name, designs[leaf.ProtectorId].Pockets.Length,
                Face(leaf.Id, LeafSide.Front, leaf.FrontUnitId, i == 0 ? "title page" : "empty"),
                Face(leaf.Id, LeafSide.Back, leaf.BackUnitId, i == leaves.Count - 1 ? "end page" : "empty"))),
        ];

        BinderFace Face(Guid leafId, LeafSide side, Guid? unitId, string otherwise) => unitId is { } id && units.TryGetValue(id, out var unit)
            ? new BinderFace(id, unit.ReadDates().Title(style), contents[id]?.Placements.Count(p => p.Place.LeafId == leafId && p.Place.Side == side) ?? 0)
            : new BinderFace(null, otherwise, 0);
    }
}
