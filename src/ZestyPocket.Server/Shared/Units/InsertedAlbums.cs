using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Shared;

/// <summary>An album that is bound into another one, opened.</summary>
/// <param name="After">The week or day it comes after, or between whose pages it lies.</param>
public sealed record InsertedAlbum(AlbumInsert Insert, AlbumUnit After, Album Album, IReadOnlyList<OpenUnit> Units);

/// <summary>Reads what is bound into an album.</summary>
public sealed class InsertedAlbums(ZestyContext db, UnitOpener opener)
{
    /// <summary>The albums bound into one in their order, each with its units; those that are gone are not.</summary>
    public async Task<IReadOnlyList<InsertedAlbum>> OfAsync(Album album, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(album);
        var wanted = album.ReadKeeping().Inserts.Where(i => i.AlbumId != album.Id).ToList();
        if (wanted.Count == 0)
        {
            return [];
        }

        var ids = wanted.ConvertAll(i => i.AlbumId);
        var there = await db
            .Albums.AsNoTracking()
            .Where(a => ids.Contains(a.Id) && a.KeeperId == album.KeeperId && a.PutAwayAt == null)
            .ToDictionaryAsync(a => a.Id, cancel);
        var after = wanted.ConvertAll(i => i.AfterUnitId);
        var units = await db
            .Units.AsNoTracking()
            .Where(u => u.AlbumId == album.Id && after.Contains(u.Id))
            .ToDictionaryAsync(u => u.Id, cancel);
        var found = new List<InsertedAlbum>();
        foreach (
            var insert in wanted
                .Where(i => there.ContainsKey(i.AlbumId) && units.ContainsKey(i.AfterUnitId))
                .OrderBy(i => units[i.AfterUnitId].Ordinal)
                .ThenByDescending(i => i.Between)
                .ThenBy(i => there[i.AlbumId].FirstDay)
        )
        {
            found.Add(
                new InsertedAlbum(
                    insert,
                    units[insert.AfterUnitId],
                    there[insert.AlbumId],
                    await opener.OpenAlbumAsync(insert.AlbumId, cancel)
                )
            );
        }

        return found;
    }
}
