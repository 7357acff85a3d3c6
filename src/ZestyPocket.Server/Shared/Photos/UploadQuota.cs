using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// How much a keeper may have in their own albums, whoever adds it. Without a figure there is no end.
/// </summary>
public sealed class UploadQuota(ZestyContext db, ZestySettings settings)
{
    private const long Megabyte = 1_000_000;

    /// <summary>Why a file of so many bytes finds no room in an album; null when it does.</summary>
    public async Task<string?> RefusalAsync(Guid albumId, long bytes, CancellationToken cancel)
    {
        if (settings.QuotaMegabytes is not { } most)
        {
            return null;
        }

        var owner = await db.Albums.Where(a => a.Id == albumId).Select(a => a.KeeperId).SingleAsync(cancel);
        var used = await UsedAsync(owner, cancel);
        return used + bytes <= most * Megabyte
            ? null
            : string.Create(
                CultureInfo.InvariantCulture,
                $"The owner of this album has {used / Megabyte:N0} of {most:N0} MB. The file was not kept: make room, "
                    + $"or ask whoever runs the program for more."
            );
    }

    /// <summary>How many bytes a keeper may still add; null for no end.</summary>
    public async Task<long?> RoomAsync(Guid keeperId, CancellationToken cancel) =>
        settings.QuotaMegabytes is { } most ? Math.Max(0, (most * Megabyte) - await UsedAsync(keeperId, cancel)) : null;

    private async Task<long> UsedAsync(Guid keeperId, CancellationToken cancel)
    {
        var albums = db.Albums.Where(a => a.KeeperId == keeperId);
        var photos = await db
            .Photos.Where(p => albums.Any(a => a.Id == p.AlbumId))
            .SumAsync(p => (long?)p.Bytes, cancel);
        var videos = await db
            .Videos.Where(v => albums.Any(a => a.Id == v.AlbumId))
            .SumAsync(v => (long?)v.Bytes, cancel);
        return (photos ?? 0) + (videos ?? 0);
    }
}
