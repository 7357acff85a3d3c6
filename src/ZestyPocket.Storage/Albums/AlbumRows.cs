using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>
/// The rows of an album as the value that edits are made on, and back: what an edit has changed is written into the
/// rows it is about and into the history, and nothing else.
/// </summary>
public sealed class AlbumRows
{
    private readonly ZestyContext _db;
    private readonly List<AlbumUnit> _units;
    private readonly List<AlbumLeaf> _leaves;

    private AlbumRows(ZestyContext db, Album album, List<AlbumUnit> units, List<AlbumLeaf> leaves)
    {
        (_db, Album, _units, _leaves) = (db, album, units, leaves);
        Desk = new AlbumDesk(
            album.Name,
            album.ReadCalendar(),
            album.ReadWords(),
            album.ReadFormulas(),
            album.Measures,
            new RingBinder(
                album.School,
                album.FacesPerUnit,
                new Size(album.BodyWidth, album.BodyHeight),
                [.. units.Select(u => new BoundUnit(u.Id, u.ReadDates(), u.Read()))],
                [
                    .. leaves.Select(l => new BoundLeaf(
                        l.Id,
                        l.ProtectorId,
                        l.ReadAlterations(),
                        l.FrontUnitId,
                        l.BackUnitId
                    )),
                ],
                [
                    .. album
                        .Protectors.OrderBy(p => p.Ordinal)
                        .Select(p => new OwnedProtector(p.Id, p.ToProtector(), p.OnHand, p.Gone)),
                ]
            )
            {
                VolumeStarts = album.ReadKeeping().VolumeStarts,
            }
        )
        {
            Keeping = album.ReadKeeping(),
            Trip = album.ReadTrip(),
        };
    }

    /// <summary>Leaves with whose faces they carry, for rules that ask nothing else of them.</summary>
    public static IReadOnlyList<BoundLeaf> Bound(IEnumerable<AlbumLeaf> leaves)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        return
        [
            .. leaves.Select(l => new BoundLeaf(
                l.Id,
                l.ProtectorId,
                LeafAlterations.Plain,
                l.FrontUnitId,
                l.BackUnitId
            )),
        ];
    }

    public Album Album { get; }

    /// <summary>The album as it was when it was loaded.</summary>
    public AlbumDesk Desk { get; }

    /// <summary>The units, those that an edit has added included.</summary>
    public IReadOnlyList<AlbumUnit> Units => _units;

    /// <param name="album">With its protectors.</param>
    public static async Task<AlbumRows> LoadAsync(ZestyContext db, Album album, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(album);
        return new AlbumRows(
            db,
            album,
            await db.Units.Where(u => u.AlbumId == album.Id).OrderBy(u => u.Ordinal).ToListAsync(cancel),
            await db.Leaves.Where(l => l.AlbumId == album.Id).OrderBy(l => l.Ordinal).ToListAsync(cancel)
        );
    }

    /// <summary>The row that a revision is of; null when it is not in the album.</summary>
    public IRevisioned? Find(SeenRevision seen) =>
        seen.What switch
        {
            Seen.Album => Album,
            Seen.Unit => _units.Find(u => u.Id == seen.Id),
            Seen.Leaf => _leaves.Find(l => l.Id == seen.Id),
            Seen.Protector => Album.Protectors.Find(p => p.Id == seen.Id),
            _ => null,
        };

    /// <summary>
    /// Writes what has changed into the rows, inside the edit under way; gives the units that have changed, in dates,
    /// content or pages.
    /// </summary>
    public IReadOnlyList<Guid> Write(AlbumDesk after, History history)
    {
        ArgumentNullException.ThrowIfNull(after);
        ArgumentNullException.ThrowIfNull(history);
        var touched = new HashSet<Guid>();
        WriteAlbum(after, history);
        WriteProtectors(after.Binder, history);
        WriteUnits(after.Binder, history, touched);
        WriteLeaves(after.Binder, history, touched);
        touched.UnionWith(BinderChanges.Touched(Desk.Binder, after.Binder));
        // Pages belong to their unit: nothing may be put onto them between the edit and its undo or redo.
        foreach (var unit in _units.Where(u => touched.Contains(u.Id)))
        {
            history.Advance(unit);
        }

        return [.. touched];
    }

    private void WriteAlbum(AlbumDesk after, History history)
    {
        history.Touch([Album]);
        Album.Name = after.Name;
        Album.School = after.Binder.School;
        if (!ReferenceEquals(after.Calendar, Desk.Calendar))
        {
            Album.WriteCalendar(after.Calendar);
        }

        if (!ReferenceEquals(after.Words, Desk.Words))
        {
            Album.WriteWords(after.Words);
        }

        if (!ReferenceEquals(after.Formulas, Desk.Formulas))
        {
            Album.WriteFormulas(after.Formulas);
        }

        if (!ReferenceEquals(after.Keeping, Desk.Keeping))
        {
            Album.WriteKeeping(after.Keeping);
        }

        if (!ReferenceEquals(after.Trip, Desk.Trip))
        {
            Album.WriteTrip(after.Trip);
        }

        if (!after.Binder.Units.Select(u => u.Id).SequenceEqual(_units.Select(u => u.Id)))
        {
            // Which units there are is the album's: who adds to it in two windows hears of the other.
            history.Advance(Album);
        }
    }

    private void WriteProtectors(RingBinder after, History history)
    {
        var before = Desk.Binder.Protectors.ToDictionary(p => p.Id);
        foreach (var (owned, at) in after.Protectors.Select((p, i) => (p, i)))
        {
            if (before.TryGetValue(owned.Id, out var was) && was == owned)
            {
                continue;
            }

            var row = Album.Protectors.Find(p => p.Id == owned.Id);
            if (row is null)
            {
                row = AlbumProtector.From(owned.Protector, at);
                // Undoing it is the state before: not used.
                (row.Id, row.AlbumId, row.Gone) = (owned.Id, Album.Id, true);
                _db.Protectors.Add(row);
            }

            history.Touch([row]);
            if (was?.Protector != owned.Protector)
            {
                row.Measure(owned.Protector);
            }

            (row.OnHand, row.Gone) = (owned.OnHand, owned.GivenUp);
        }
    }

    private void WriteUnits(RingBinder after, History history, HashSet<Guid> touched)
    {
        var before = Desk.Binder.Units.ToDictionary(u => u.Id);
        var rows = _units.ToDictionary(u => u.Id);
        foreach (var gone in _units.Where(u => after.Find(u.Id) is null).ToList())
        {
            history.Touch([gone]);
            gone.Write(UnitContent.Empty);
            gone.Gone = true;
            _units.Remove(gone);
        }

        foreach (var (unit, at) in after.Units.Select((u, i) => (u, i)))
        {
            if (!rows.TryGetValue(unit.Id, out var row))
            {
                row = NewUnit(unit, at, history);
            }
            else if (before[unit.Id] == unit && row.Ordinal == at)
            {
                continue;
            }

            history.Touch([row]);
            var was = before.GetValueOrDefault(unit.Id);
            if (was != unit)
            {
                touched.Add(unit.Id);
            }

            row.Ordinal = at;
            if (was?.Dates != unit.Dates)
            {
                row.WriteDates(unit.Dates);
            }

            if (was?.Content != unit.Content)
            {
                row.Write(unit.Content);
            }
        }

        _units.Sort((a, b) => a.Ordinal.CompareTo(b.Ordinal));
    }

    private AlbumUnit NewUnit(BoundUnit unit, int at, History history)
    {
        var row = new AlbumUnit
        {
            Id = unit.Id,
            AlbumId = Album.Id,
            Ordinal = at,
            Gone = true,
        };
        row.WriteDates(unit.Dates);
        _db.Units.Add(row);
        _units.Add(row);
        // Undoing the making is the state before it: gone.
        history.Touch([row]);
        row.Gone = false;
        return row;
    }

    private void WriteLeaves(RingBinder after, History history, HashSet<Guid> touched)
    {
        var before = Desk.Binder.Leaves.ToDictionary(l => l.Id);
        var rows = _leaves.ToDictionary(l => l.Id);
        foreach (var gone in _leaves.Where(l => after.Leaves.All(a => a.Id != l.Id)).ToList())
        {
            history.Touch([gone]);
            (gone.Gone, gone.FrontUnitId, gone.BackUnitId) = (true, null, null);
            _leaves.Remove(gone);
        }

        foreach (var (leaf, at) in after.Leaves.Select((l, i) => (l, i)))
        {
            var was = before.GetValueOrDefault(leaf.Id);
            if (!rows.TryGetValue(leaf.Id, out var row))
            {
                row = new AlbumLeaf
                {
                    Id = leaf.Id,
                    AlbumId = Album.Id,
                    Ordinal = at,
                    ProtectorId = leaf.ProtectorId,
                    Gone = true,
                };
                _db.Leaves.Add(row);
                _leaves.Add(row);
            }
            else if (was == leaf && row.Ordinal == at)
            {
                continue;
            }

            history.Touch([row]);
            if (was is not null && was with { Front = leaf.Front, Back = leaf.Back } != leaf)
            {
                touched.UnionWith(new[] { leaf.Front, leaf.Back }.OfType<Guid>());
            }

            (row.Gone, row.Ordinal, row.ProtectorId) = (false, at, leaf.ProtectorId);
            (row.FrontUnitId, row.BackUnitId) = (leaf.Front, leaf.Back);
            if (was?.Alterations != leaf.Alterations)
            {
                row.WriteAlterations(leaf.Alterations);
            }
        }

        _leaves.Sort((a, b) => a.Ordinal.CompareTo(b.Ordinal));
    }
}
