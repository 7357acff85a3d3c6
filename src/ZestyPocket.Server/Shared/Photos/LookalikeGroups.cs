using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>Finds the bursts and near-duplicates of an album anew, after pictures came in.</summary>
public sealed class LookalikeGroups(ZestyContext db)
{
    public async Task GroupAsync(Guid albumId, CancellationToken cancel)
    {
        var rows = await db
            .Photos.AsNoTracking()
            .Where(p => p.AlbumId == albumId)
            .Select(p => new
            {
                p.Id,
                p.GroupId,
                p.SuggestedBest,
                p.Camera,
                p.TakenAt,
                p.Likeness,
                p.Sharpness,
                p.Width,
                p.Height,
            })
            .ToListAsync(cancel);
        // The bits are cast here and not by the database, which would take them for a number.
        var photos = rows.ConvertAll(p =>
            (
                p.GroupId,
                p.SuggestedBest,
                Picture: new Lookalike(
                    p.Id,
                    p.Camera,
                    p.TakenAt,
                    unchecked((ulong)p.Likeness),
                    p.Sharpness,
                    (long)p.Width * p.Height
                )
            )
        );
        var groups = Lookalikes.Group(photos.ConvertAll(p => p.Picture));
        var now = groups
            .SelectMany(g => g.Members.Select(m => (Id: m, Group: g.Members[0], Best: m == g.SuggestedBest)))
            .ToDictionary(m => m.Id);
        var changed = photos
            .Select(p =>
                (
                    p.Picture.Id,
                    Was: (p.GroupId, p.SuggestedBest),
                    Now: now.TryGetValue(p.Picture.Id, out var n) ? ((Guid?)n.Group, n.Best) : (null, false)
                )
            )
            .Where(p => p.Was != p.Now)
            .ToList();
        if (changed.Count == 0)
        {
            return;
        }

        await db.Database.ExecuteSqlRawAsync(
            """
            UPDATE "Photos" p SET "GroupId" = n.group_id, "SuggestedBest" = n.best FROM unnest(@ids, @groups, @bests)
                AS n(id, group_id, best) WHERE p."Id" = n.id
            """,
            [
                new NpgsqlParameter("ids", NpgsqlDbType.Array | NpgsqlDbType.Uuid)
                {
                    Value = changed.Select(c => c.Id).ToArray(),
                },
                new NpgsqlParameter("groups", NpgsqlDbType.Array | NpgsqlDbType.Uuid)
                {
                    Value = changed.Select(c => c.Now.Item1).ToArray(),
                },
                new NpgsqlParameter("bests", NpgsqlDbType.Array | NpgsqlDbType.Boolean)
                {
                    Value = changed.Select(c => c.Now.Item2).ToArray(),
                },
            ],
            cancel
        );
    }
}
