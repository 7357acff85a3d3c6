using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Albums;

/// <summary>Makes the rows of a new album.</summary>
public static class AlbumMaking
{
    public static Album Rows(NewAlbum made, Guid keeperId, Instant now)
    {
        ArgumentNullException.ThrowIfNull(made);
        return Rows(made.Made(Guid.CreateVersion7), keeperId, now);
    }

    public static Album Rows(AlbumDesk desk, Guid keeperId, Instant now)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var album = new Album
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeperId,
            Name = desk.Name,
            BodyWidth = desk.Binder.Body.Width,
            BodyHeight = desk.Binder.Body.Height,
            Measures = desk.Measures,
            FacesPerUnit = desk.Binder.FacesPerUnit,
            School = desk.Binder.School,
            MadeAt = now,
        };
        album.WriteCalendar(desk.Calendar);
        album.WriteWords(desk.Words);
        album.WriteFormulas(desk.Formulas);
        album.WriteKeeping(desk.Keeping);
        foreach (var owned in desk.Binder.Protectors)
        {
            var row = AlbumProtector.From(owned.Protector, album.Protectors.Count);
            row.Id = owned.Id;
            album.Protectors.Add(row);
        }

        foreach (var unit in desk.Binder.Units)
        {
            var row = new AlbumUnit { Id = unit.Id, Ordinal = album.Units.Count };
            row.WriteDates(unit.Dates);
            album.Units.Add(row);
        }

        foreach (var leaf in desk.Binder.Leaves)
        {
            album.Leaves.Add(
                new AlbumLeaf
                {
                    Id = leaf.Id,
                    Ordinal = album.Leaves.Count,
                    ProtectorId = leaf.ProtectorId,
                    FrontUnitId = leaf.Front,
                    BackUnitId = leaf.Back,
                }
            );
        }

        return album;
    }
}
