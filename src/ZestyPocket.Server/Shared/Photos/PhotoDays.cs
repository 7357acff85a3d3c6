using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Works out anew where an album's photos lie, after a clock was corrected, a unit came or went, the scheme changed, or
/// an edit was undone. Days and units of photos follow from the calendar, so they are no part of the history.
/// </summary>
public sealed class PhotoDays(ZestyContext db)
{
    /// <summary>An album's units and clocks.</summary>
    public static async Task<AlbumDays> ReadAsync(ZestyContext db, Album album, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(album);
        var units = await db
            .Units.AsNoTracking()
            .Where(u => u.AlbumId == album.Id)
            .OrderBy(u => u.Ordinal)
            .Select(u => new
            {
                u.Id,
                Dates = new UnitDates(
                    u.Kind,
                    u.FirstDay,
                    u.LastDay,
                    u.Year,
                    u.FirstNumber,
                    u.LastNumber,
                    u.FirstOccurrence,
                    u.LastOccurrence,
                    u.LeftOut,
                    u.Name
                ),
            })
            .ToListAsync(cancel);
        return new AlbumDays(album.ReadCalendar(), units.ConvertAll(u => (u.Id, u.Dates)));
    }

    /// <summary>
    /// What would move under a calendar and units that need not be saved yet. Photos: all, or only some.
    /// </summary>
    public async Task<IReadOnlyList<PhotoMove>> PlanAsync(
        Guid albumId,
        AlbumDays days,
        IReadOnlyCollection<Guid>? only,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(days);
        var photos = db.Photos.AsNoTracking().Where(p => p.AlbumId == albumId);
        if (only is not null)
        {
            photos = photos.Where(p => only.Contains(p.Id));
        }

        var rows = await photos
            .Select(p => new
            {
                p.Id,
                p.FileName,
                p.Recorded,
                p.OffsetMinutes,
                p.Camera,
                p.TimeSource,
                p.KeeperDay,
                p.KeeperHour,
                p.DayTakenAway,
                Was = new PhotoDay(p.UnitId, p.Taken, p.TakenAt, p.Day, p.Occurrence, p.SortAt),
            })
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r =>
                    (
                        r.Id,
                        r.Was,
                        Now: days.Place(
                            new RecordedTime(r.Recorded, r.OffsetMinutes, r.Camera) { FileName = r.FileName },
                            r.TimeSource,
                            r.KeeperDay,
                            r.KeeperHour,
                            r.DayTakenAway
                        )
                    )
                )
                .Where(r => r.Was != r.Now)
                .Select(r => new PhotoMove(r.Id, r.Was.UnitId, r.Was.Day, r.Now)),
        ];
    }

    /// <summary>
    /// Takes the prints of photos that leave their unit out of its pockets, as part of the edit that is being made.
    /// Gives how many left a pocket.
    /// </summary>
    public async Task<int> TakeOutOfPocketsAsync(
        IReadOnlyList<PhotoMove> moves,
        History history,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(moves);
        ArgumentNullException.ThrowIfNull(history);
        var leaving = moves
            .Where(m => m.ChangesUnit && m.OldUnitId is not null)
            .ToLookup(m => m.OldUnitId!.Value, m => m.Id);
        var ids = leaving.Select(g => g.Key).ToList();
        var units = await db.Units.Where(u => ids.Contains(u.Id)).ToListAsync(cancel);
        var taken = 0;
        foreach (var unit in units)
        {
            var gone = leaving[unit.Id].ToHashSet();
            var before = unit.Read();
            if (!before.Pieces.OfType<PhotoPrint>().Any(p => gone.Contains(p.PhotoId)))
            {
                continue;
            }

            history.Touch([unit]);
            var after = before.WithoutPrintsOf(gone);
            taken += before.Pieces.Length - after.Pieces.Length;
            unit.Write(after);
        }

        return taken;
    }

    /// <summary>Writes the new places, all in one statement.</summary>
    public async Task ApplyAsync(IReadOnlyList<PhotoMove> moves, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(moves);
        if (moves.Count == 0)
        {
            return;
        }

        await db.Database.ExecuteSqlRawAsync(
            """
            UPDATE "Photos" p SET "UnitId" = n.unit, "Taken" = n.taken, "TakenAt" = n.at, "Day" = n.day,
                "Occurrence" = n.occurrence, "SortAt" = n.sort
            FROM unnest(@ids, @units, @taken, @at, @days, @occurrences, @sorts)
                AS n(id, unit, taken, at, day, occurrence, sort)
            WHERE p."Id" = n.id
            """,
            [
                Array("ids", NpgsqlDbType.Uuid, moves.Select(m => m.Id)),
                Array("units", NpgsqlDbType.Uuid, moves.Select(m => m.Now.UnitId)),
                Array("taken", NpgsqlDbType.Timestamp, moves.Select(m => m.Now.Taken)),
                Array("at", NpgsqlDbType.TimestampTz, moves.Select(m => m.Now.TakenAt)),
                Array("days", NpgsqlDbType.Date, moves.Select(m => m.Now.Day)),
                Array("occurrences", NpgsqlDbType.Integer, moves.Select(m => m.Now.Occurrence)),
                Array("sorts", NpgsqlDbType.TimestampTz, moves.Select(m => m.Now.SortAt)),
            ],
            cancel
        );

        static NpgsqlParameter Array<T>(string name, NpgsqlDbType type, IEnumerable<T> values) =>
            new(name, NpgsqlDbType.Array | type) { Value = values.ToArray() };
    }

    /// <summary>
    /// Brings every photo of an album to where it belongs now. For use after an undo and when an album has grown.
    /// </summary>
    public async Task SettleAsync(Album album, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(album);
        await ApplyAsync(await PlanAsync(album.Id, await PhotoDays.ReadAsync(db, album, cancel), null, cancel), cancel);
    }
}

/// <summary>Photos as rows, and where they lie.</summary>
public static class PhotoPlaces
{
    public static PhotoDay Place(this AlbumDays days, Photo photo)
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(photo);
        return days.Place(photo.RecordedTime, photo.TimeSource, photo.KeeperDay, photo.KeeperHour, photo.DayTakenAway);
    }

    public static void Into(this PhotoDay day, Photo photo)
    {
        ArgumentNullException.ThrowIfNull(day);
        ArgumentNullException.ThrowIfNull(photo);
        (photo.UnitId, photo.Taken, photo.TakenAt, photo.Day) = (day.UnitId, day.Taken, day.TakenAt, day.Day);
        (photo.Occurrence, photo.SortAt) = (day.Occurrence, day.SortAt);
    }
}
