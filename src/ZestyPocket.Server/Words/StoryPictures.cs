using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Words;

/// <summary>The pictures that a story names: by their file names, or by the time that such a name says.</summary>
public static class StoryPictures
{
    /// <summary>
    /// Photos of the album for each name. A file that was renamed on its way to a post still often has its time in its
    /// name: then it is the picture taken in that second.
    /// </summary>
    public static async Task<ILookup<string, Guid>> FindAsync(
        ZestyContext db,
        Guid albumId,
        IReadOnlyList<string> names,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(names);
        var byName = await db
            .Photos.Where(p => p.AlbumId == albumId && names.Contains(p.FileName))
            .Select(p => new { p.Id, p.FileName })
            .ToListAsync(cancel);
        var found = byName.Select(p => (Name: p.FileName, p.Id)).ToList();
        var times = names
            .Except(byName.Select(p => p.FileName))
            .Select(n =>
                (
                    Name: n,
                    At: FileNameDate.Read(n) is { Time: { } time } named ? named.Day + time : (LocalDateTime?)null
                )
            )
            .Where(n => n.At is not null)
            .ToList();
        if (times.Count > 0)
        {
            var asked = times.ConvertAll(t => t.At);
            var taken = await db
                .Photos.Where(p => p.AlbumId == albumId && asked.Contains(p.Recorded))
                .OrderBy(p => p.SortAt)
                .ThenBy(p => p.Id)
                .Select(p => new { p.Id, p.Recorded })
                .ToListAsync(cancel);
            found.AddRange(
                times.SelectMany(t => taken.Where(p => p.Recorded == t.At).Take(1).Select(p => (t.Name, p.Id)))
            );
        }

        return found.ToLookup(f => f.Name, f => f.Id);
    }
}
