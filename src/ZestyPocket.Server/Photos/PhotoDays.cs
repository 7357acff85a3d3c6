using Microsoft.EntityFrameworkCore;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Photos;

/// <summary>Brings photos that have a day but no unit into the unit that holds the day.</summary>
public static class PhotoDays
{
    /// <summary>Run after an album has grown. Photos already in a unit are left where they are.</summary>
    public static Task<int> SettleAsync(ZestyContext db, Guid albumId, CancellationToken cancel) =>
        db.Photos
            .Where(p => p.AlbumId == albumId && p.UnitId == null && p.Day != null)
            .ExecuteUpdateAsync(
                set => set.SetProperty(
                    p => p.UnitId,
                    p => db.Units.Where(u => u.AlbumId == albumId && u.FirstDay <= p.Day && u.LastDay >= p.Day).Select(u => (Guid?)u.Id).FirstOrDefault()),
                cancel);
}
