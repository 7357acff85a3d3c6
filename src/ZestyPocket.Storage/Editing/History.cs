using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Storage.Editing;

/// <summary>
/// The edit was made on a state that is no longer the present one. Nothing was changed.
/// </summary>
/// <param name="yours">What was asked for.</param>
/// <param name="theirs">What has happened since, oldest first.</param>
/// <param name="currentRevision">The present revision.</param>
public sealed class StaleRevisionException(string yours, IReadOnlyList<string> theirs, int currentRevision)
    : Exception("This was changed in another window in the meantime. Nothing was overwritten.")
{
    public string Yours { get; } = yours;

    public IReadOnlyList<string> Theirs { get; } = theirs;

    public int CurrentRevision { get; } = currentRevision;
}

/// <summary>The undoable part of a leaf.</summary>
public sealed record LeafState(Guid ProtectorId);

/// <summary>
/// Every edit goes through here: it changes rows, keeps what they were, and can take an edit back or make it again,
/// also after a restart. Undo and redo follow the history of one unit; an edit that touched several rows is taken
/// back as a whole or not at all.
/// </summary>
public sealed class History(ZestyContext db, IClock clock)
{
    private readonly List<(EditSubject Subject, IRevisioned Row, string Before)> _touched = [];

    /// <summary>Remembers a row before it is changed. Call for each row an edit will touch.</summary>
    public void Touch(params IEnumerable<IRevisioned> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        foreach (var row in rows.Where(r => !_touched.Exists(t => t.Row == r)))
        {
            _touched.Add((SubjectOf(row), row, StateOf(row)));
        }
    }

    /// <summary>Refuses an edit that was made on an older revision, telling both sides.</summary>
    public async Task RequireAsync(IRevisioned row, int revision, string yours, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(row);
        if (row.Revision != revision)
        {
            throw await StaleAsync(row, revision, yours, cancel);
        }
    }

    /// <summary>Saves the edit over the touched rows that really changed. Does nothing when none did.</summary>
    public async Task SaveAsync(Guid albumId, Guid keeperId, string summary, IEnumerable<Guid> units, CancellationToken cancel)
    {
        var edit = new Edit
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            KeeperId = keeperId,
            Summary = summary,
            UnitIds = [.. units.Distinct()],
            MadeAt = clock.GetCurrentInstant(),
        };
        var asked = _touched.Select(t => (t.Row, t.Row.Revision)).ToList();
        foreach (var (subject, row, before) in _touched)
        {
            var after = StateOf(row);
            if (after == before)
            {
                continue;
            }

            edit.Changes.Add(new EditChange
            {
                Id = Guid.CreateVersion7(),
                Subject = subject,
                SubjectId = row.Id,
                Before = before,
                After = after,
                PreviousHeadEditId = row.HeadEditId,
                RevisionAfter = row.Revision + 1,
            });
            row.Revision++;
            row.HeadEditId = edit.Id;
        }

        _touched.Clear();
        if (edit.Changes.Count == 0)
        {
            return;
        }

        db.Edits.Add(edit);
        await SaveOrStaleAsync(asked, summary, cancel);
    }

    /// <summary>The edit that undo would take back in a unit, and the one that redo would make again.</summary>
    public async Task<(Edit? Undo, Edit? Redo)> NextAsync(Guid unitId, CancellationToken cancel)
    {
        var undo = await db.Edits.AsNoTracking()
            .Where(e => e.UnitIds.Contains(unitId) && !e.Undone)
            .OrderByDescending(e => e.Sequence).FirstOrDefaultAsync(cancel);
        var redo = await RedoCandidateAsync(unitId, cancel);
        return (undo, redo);
    }

    /// <summary>Takes the last edit of a unit back.</summary>
    public async Task<Edit> UndoAsync(AlbumUnit unit, int revision, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unit);
        await RequireAsync(unit, revision, "Undo", cancel);
        var edit = await db.Edits.Include(e => e.Changes)
            .Where(e => e.UnitIds.Contains(unit.Id) && !e.Undone)
            .OrderByDescending(e => e.Sequence).FirstOrDefaultAsync(cancel)
            ?? throw new RuleException("There is nothing to undo in this week.");
        var rows = await RowsAsync(edit, cancel);
        if (edit.Changes.Exists(c => rows[c.SubjectId].HeadEditId != edit.Id))
        {
            throw new RuleException(
                $"“{edit.Summary}” also touched a neighbouring week that was changed after it. Undo that change there first.");
        }

        var asked = rows.Values.Select(r => (r, r.Revision)).ToList();
        foreach (var change in edit.Changes)
        {
            var row = rows[change.SubjectId];
            Restore(row, change.Before);
            (row.Revision, row.HeadEditId) = (row.Revision + 1, change.PreviousHeadEditId);
        }

        edit.Undone = true;
        await SaveOrStaleAsync(asked, "Undo", cancel);
        return edit;
    }

    /// <summary>Makes the edit again that was taken back last in a unit.</summary>
    public async Task<Edit> RedoAsync(AlbumUnit unit, int revision, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unit);
        await RequireAsync(unit, revision, "Redo", cancel);
        var candidate = await RedoCandidateAsync(unit.Id, cancel)
            ?? throw new RuleException("There is nothing to redo in this week.");
        var edit = await db.Edits.Include(e => e.Changes).SingleAsync(e => e.Id == candidate.Id, cancel);
        var rows = await RowsAsync(edit, cancel);
        var asked = rows.Values.Select(r => (r, r.Revision)).ToList();
        foreach (var change in edit.Changes)
        {
            var row = rows[change.SubjectId];
            Restore(row, change.After);
            (row.Revision, row.HeadEditId) = (row.Revision + 1, edit.Id);
        }

        edit.Undone = false;
        await SaveOrStaleAsync(asked, "Redo", cancel);
        return edit;
    }

    /// <summary>
    /// An undone edit can be made again while each of its rows is in the state it was made on: the same edit on top.
    /// A new edit in between puts another on top, and the old branch is out of reach.
    /// </summary>
    private async Task<Edit?> RedoCandidateAsync(Guid unitId, CancellationToken cancel)
    {
        var undone = await db.Edits.AsNoTracking().Include(e => e.Changes)
            .Where(e => e.UnitIds.Contains(unitId) && e.Undone)
            .OrderByDescending(e => e.Sequence).Take(50).ToListAsync(cancel);
        foreach (var edit in undone)
        {
            var rows = await RowsAsync(edit, cancel);
            if (edit.Changes.TrueForAll(c => rows[c.SubjectId].HeadEditId == c.PreviousHeadEditId))
            {
                return edit;
            }
        }

        return null;
    }

    private async Task<Dictionary<Guid, IRevisioned>> RowsAsync(Edit edit, CancellationToken cancel)
    {
        var rows = new Dictionary<Guid, IRevisioned>();
        foreach (var group in edit.Changes.GroupBy(c => c.Subject))
        {
            var ids = group.Select(c => c.SubjectId).ToList();
            IEnumerable<IRevisioned> found = group.Key switch
            {
                EditSubject.Unit => await db.Units.Where(u => ids.Contains(u.Id)).ToListAsync(cancel),
                EditSubject.Leaf => await db.Leaves.Where(l => ids.Contains(l.Id)).ToListAsync(cancel),
                EditSubject.Album => await db.Albums.Where(a => ids.Contains(a.Id)).ToListAsync(cancel),
                EditSubject.Protector => await db.Protectors.Where(p => ids.Contains(p.Id)).ToListAsync(cancel),
                _ => await db.Photos.Where(p => ids.Contains(p.Id)).ToListAsync(cancel),
            };
            foreach (var row in found)
            {
                rows[row.Id] = row;
            }
        }

        return rows;
    }

    private async Task SaveOrStaleAsync(List<(IRevisioned Row, int Revision)> asked, string yours, CancellationToken cancel)
    {
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException lost)
        {
            // Another window saved between our reading and our writing.
            var entry = lost.Entries[0];
            await entry.ReloadAsync(cancel);
            var row = (IRevisioned)entry.Entity;
            throw await StaleAsync(row, asked.First(a => a.Row == row).Revision, yours, cancel);
        }
    }

    private async Task<StaleRevisionException> StaleAsync(IRevisioned row, int revision, string yours, CancellationToken cancel)
    {
        var theirs = await db.Edits.AsNoTracking()
            .Where(e => e.Changes.Any(c => c.SubjectId == row.Id && c.RevisionAfter > revision))
            .OrderBy(e => e.Sequence).Select(e => e.Summary).ToListAsync(cancel);
        return new StaleRevisionException(yours, theirs, row.Revision);
    }

    private static EditSubject SubjectOf(IRevisioned row) => row switch
    {
        AlbumUnit => EditSubject.Unit,
        AlbumLeaf => EditSubject.Leaf,
        Photo => EditSubject.Photo,
        Album => EditSubject.Album,
        AlbumProtector => EditSubject.Protector,
        _ => throw new ArgumentException("Not a row with revisions.", nameof(row)),
    };

    private static string StateOf(IRevisioned row) => row switch
    {
        // Read and written anew, so that the database's own spelling of JSON never looks like a change.
        AlbumUnit unit => UnitContentJson.Write(unit.Read()),
        AlbumLeaf leaf => UnitContentJson.WriteState(new LeafState(leaf.ProtectorId)),
        Photo photo => UnitContentJson.WriteState(StoredPhotoState.Of(photo)),
        Album album => UnitContentJson.WriteState(new AlbumState(album.Name)),
        AlbumProtector protector => UnitContentJson.WriteState(ProtectorState.Of(protector)),
        _ => throw new ArgumentException("Not a row with revisions.", nameof(row)),
    };

    private static void Restore(IRevisioned row, string state)
    {
        switch (row)
        {
            case AlbumUnit unit:
                unit.Write(UnitContentJson.Read(state));
                break;
            case AlbumLeaf leaf:
                leaf.ProtectorId = UnitContentJson.ReadState<LeafState>(state).ProtectorId;
                break;
            case Photo photo:
                UnitContentJson.ReadState<StoredPhotoState>(state).Into(photo);
                break;
            case Album album:
                album.Name = UnitContentJson.ReadState<AlbumState>(state).Name;
                break;
            case AlbumProtector protector:
                UnitContentJson.ReadState<ProtectorState>(state).Into(protector);
                break;
            default:
                throw new ArgumentException("Not a row with revisions.", nameof(row));
        }
    }

    private sealed record AlbumState(string Name);

    /// <summary>The measures of a protector; lengths in EMU.</summary>
    private sealed record ProtectorState(long OuterWidth, long OuterHeight, long RingStrip, long Ease, string ClearSizes)
    {
        public static ProtectorState Of(AlbumProtector row)
        {
            // By way of the rules' own type, so that the database's own spelling of JSON never looks like a change.
            var plain = AlbumProtector.From(row.ToProtector(), row.Ordinal);
            return new ProtectorState(plain.OuterWidth.Emu, plain.OuterHeight.Emu, plain.RingStrip.Emu, plain.Ease.Emu, plain.ClearSizes);
        }

        public void Into(AlbumProtector row)
        {
            (row.OuterWidth, row.OuterHeight) = (new Length(OuterWidth), new Length(OuterHeight));
            (row.RingStrip, row.Ease, row.ClearSizes) = (new Length(RingStrip), new Length(Ease), ClearSizes);
        }
    }

    /// <summary>A photo's state with its day as ISO text.</summary>
    private sealed record StoredPhotoState(Guid? UnitId, string? Day, bool DaySetByKeeper, bool LeftOut)
    {
        public static StoredPhotoState Of(Photo photo) => new(
            photo.UnitId,
            photo.Day is { } day ? NodaTime.Text.LocalDatePattern.Iso.Format(day) : null,
            photo.DaySetByKeeper,
            photo.LeftOut);

        public void Into(Photo photo)
        {
            photo.UnitId = UnitId;
            photo.Day = Day is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(Day).Value;
            photo.DaySetByKeeper = DaySetByKeeper;
            photo.LeftOut = LeftOut;
        }
    }
}
