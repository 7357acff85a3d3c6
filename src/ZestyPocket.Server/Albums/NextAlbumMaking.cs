using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Albums;

/// <summary>The album that goes on where another ends.</summary>
public sealed record NextAlbumRequest(string Name);

/// <summary>Makes next year's album from this year's settings.</summary>
public sealed class NextAlbumMaking(ZestyContext db, AlbumReader albums, ICurrentKeeper keeper, IClock clock)
{
    /// <summary>Asked again under the same name it answers with the album that is there already.</summary>
    public async Task<AlbumView> MakeAsync(Guid albumId, string name, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.HoldAsync(db, albumId, cancel);
        var rows = await AlbumRows.LoadAsync(db, await albums.RequireAsync(albumId, cancel), cancel);
        var desk = NextAlbum.After(rows.Desk, name, Guid.CreateVersion7);
        var made = AlbumMaking.Rows(desk, keeper.Id, clock.GetCurrentInstant());
        var here = await albums
            .Mine.Where(a => a.Name == made.Name && a.FirstDay == made.FirstDay)
            .Select(a => (Guid?)a.Id)
            .FirstOrDefaultAsync(cancel);
        if (here is null)
        {
            db.Albums.Add(made);
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return await albums.ViewAsync(here ?? made.Id, cancel);
    }
}
