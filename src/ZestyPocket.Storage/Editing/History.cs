using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Words;

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

    /// <summary>Somebody saved while this was being done: done again, it may well go through.</summary>
    public bool Raced { get; init; }
}

/// <summary>
/// Every edit goes through here: it changes rows, keeps what they were, and can take an edit back or make it again,
/// also after a restart. Undo and redo follow the history of one unit; an edit that touched several rows is taken
/// back as a whole or not at all.
/// </summary>
public sealed class History(ZestyContext db, IClock clock)
{
    /// <summary>How many undone edits are looked at for one that can be made again.</summary>
    private const int MostUndoneLookedAt = 50;

    private readonly List<(EditSubject Subject, IRevisioned Row, string Before)> _touched = [];
    private readonly HashSet<IRevisioned> _rows = new(ReferenceEqualityComparer.Instance);
    private readonly HashSet<IRevisioned> _advanced = new(ReferenceEqualityComparer.Instance);
    private readonly List<(IRevisioned Row, int Revision, string Yours, string Base)> _merged = [];

    /// <summary>Remembers a row before it is changed. Call for each row an edit will touch.</summary>
    public void Touch(params IEnumerable<IRevisioned> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        foreach (var row in rows.Where(_rows.Add))
        {
            _touched.Add((SubjectOf(row), row, StateOf(row)));
        }
    }

    /// <summary>
    /// Gives a row a new revision with this edit also when it is what it was: something that belongs to it has changed.
    /// </summary>
    public void Advance(IRevisioned row)
    {
        Touch([row]);
        _advanced.Add(row);
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

    /// <summary>
    /// Lets an edit that was made on an older revision go on when it can be merged: everything since was done in other
    /// windows, and what it changes is not what they changed, which <see cref="CheckMergedAsync"/> finds out. Otherwise
    /// refuses it, telling both sides. What came from the same window since may be this very edit, its answer lost.
    /// </summary>
    public async Task MergeAsync(IRevisioned row, int revision, string yours, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(row);
        if (row.Revision != revision)
        {
            var seen = await SeenAsync(row, revision, cancel) ?? throw await StaleAsync(row, revision, yours, cancel);
            _merged.Add((row, revision, yours, seen));
        }
    }

    /// <summary>Refuses an edit that changed the same as others since. Saving does this too.</summary>
    public async Task CheckMergedAsync(CancellationToken cancel)
    {
        foreach (var (row, revision, yours, seen) in _merged)
        {
            var now = _touched.Find(t => ReferenceEquals(t.Row, row)).Before ?? StateOf(row);
            var mine = DocumentDiff.Between(now, StateOf(row));
            if (mine.Count == 0 || DocumentDiff.Meet(mine, DocumentDiff.Between(seen, now)))
            {
                throw await StaleAsync(row, revision, yours, cancel);
            }
        }

        _merged.Clear();
    }

    /// <summary>Forgets an edit that was not saved, to do it again.</summary>
    public void Forget()
    {
        _touched.Clear();
        _rows.Clear();
        _advanced.Clear();
        _merged.Clear();
        db.ChangeTracker.Clear();
    }

    /// <summary>
    /// What a row was at a revision; null when it is not known, or not everything since was done in other windows.
    /// </summary>
    private async Task<string?> SeenAsync(IRevisioned row, int revision, CancellationToken cancel)
    {
        if (AlbumNews.Window is not { } window || revision > row.Revision)
        {
            return null;
        }

        var since = await db.Set<EditChange>()
            .AsNoTracking()
            .Where(c => c.SubjectId == row.Id && c.RevisionAfter > revision)
            .Join(
                db.Edits,
                c => c.EditId,
                e => e.Id,
                (c, e) =>
                    new
                    {
                        c.RevisionAfter,
                        c.Before,
                        e.WindowId,
                    }
            )
            .OrderBy(c => c.RevisionAfter)
            .ToListAsync(cancel);
        // An undo gives a revision too, but no change of its own.
        return since.Count != row.Revision - revision || since.Exists(c => c.WindowId is null || c.WindowId == window)
            ? null
            : since[0].Before;
    }

    /// <summary>
    /// Saves the edit over the touched rows that really changed and gives its id. Does nothing and gives null when none
    /// did.
    /// </summary>
    public async Task<Guid?> SaveAsync(
        Guid albumId,
        Guid keeperId,
        string summary,
        IEnumerable<Guid> units,
        CancellationToken cancel
    )
    {
        await CheckMergedAsync(cancel);
        var edit = new Edit
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            KeeperId = keeperId,
            WindowId = AlbumNews.Window,
            Summary = summary,
            UnitIds = [.. units.Distinct()],
            MadeAt = clock.GetCurrentInstant(),
        };
        var asked = _touched.Select(t => (t.Row, t.Row.Revision)).ToList();
        foreach (var (subject, row, before) in _touched)
        {
            var after = StateOf(row);
            if (after == before && !_advanced.Contains(row))
            {
                continue;
            }

            edit.Changes.Add(
                new EditChange
                {
                    Id = Guid.CreateVersion7(),
                    Subject = subject,
                    SubjectId = row.Id,
                    Before = before,
                    After = after,
                    PreviousHeadEditId = row.HeadEditId,
                    RevisionAfter = row.Revision + 1,
                }
            );
            row.Revision++;
            row.HeadEditId = edit.Id;
        }

        _touched.Clear();
        _rows.Clear();
        _advanced.Clear();
        if (edit.Changes.Count == 0)
        {
            return null;
        }

        db.Edits.Add(edit);
        await SaveAndTellAsync(asked, summary, edit, cancel);
        return edit.Id;
    }

    /// <summary>
    /// Writes what was changed so far without closing the edit, so that queries see it. Only inside a transaction that
    /// ends with <see cref="SaveAsync"/>.
    /// </summary>
    public Task FlushAsync(string summary, CancellationToken cancel) =>
        SaveOrStaleAsync(_touched.ConvertAll(t => (t.Row, t.Row.Revision)), summary, cancel);

    /// <summary>The edit that undo would take back in a unit, and the one that redo would make again.</summary>
    public async Task<(Edit? Undo, Edit? Redo)> NextAsync(AlbumUnit unit, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unit);
        var undo = await OfUnit(unit)
            .AsNoTracking()
            .Where(e => !e.Undone)
            .OrderByDescending(e => e.Sequence)
            .FirstOrDefaultAsync(cancel);
        var redo = await RedoableAsync(OfUnit(unit), cancel);
        return (undo, redo);
    }

    /// <summary>The edits in whose history a unit is: of its own album, whatever else names it.</summary>
    private IQueryable<Edit> OfUnit(AlbumUnit unit) =>
        db.Edits.Where(e => e.AlbumId == unit.AlbumId && e.UnitIds.Contains(unit.Id));

    /// <summary>Takes the last edit of a unit back.</summary>
    public async Task<Edit> UndoAsync(AlbumUnit unit, int revision, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unit);
        await RequireAsync(unit, revision, "Undo", cancel);
        var edit =
            await OfUnit(unit)
                .Include(e => e.Changes)
                .Where(e => !e.Undone)
                .OrderByDescending(e => e.Sequence)
                .FirstOrDefaultAsync(cancel)
            ?? throw new RuleException("There is nothing to undo here.");
        await TakeBackAsync(edit, cancel);
        return edit;
    }

    /// <summary>
    /// Takes one certain edit back, whatever unit it was made in, as long as nothing was built on top of it.
    /// </summary>
    public async Task<Edit> UndoAsync(Guid editId, Guid keeperId, CancellationToken cancel)
    {
        var edit =
            await db
                .Edits.Include(e => e.Changes)
                .SingleOrDefaultAsync(e => e.Id == editId && e.KeeperId == keeperId, cancel)
            ?? throw new RuleException("That edit is not known any more. Nothing was changed.");
        if (edit.Undone)
        {
            throw new RuleException($"“{edit.Summary}” was undone already. Nothing was changed.");
        }

        await TakeBackAsync(edit, cancel);
        return edit;
    }

    /// <summary>
    /// The edit of an album that was made last and stands, and the one that was undone last and can be made again.
    /// </summary>
    public async Task<(Edit? Undo, Edit? Redo)> NextOfAlbumAsync(Guid albumId, CancellationToken cancel) =>
        (
            await db
                .Edits.AsNoTracking()
                .Where(e => e.AlbumId == albumId && !e.Undone)
                .OrderByDescending(e => e.Sequence)
                .FirstOrDefaultAsync(cancel),
            await RedoableAsync(db.Edits.Where(e => e.AlbumId == albumId), cancel)
        );

    /// <summary>Makes a certain undone edit again.</summary>
    public async Task<Edit> RedoAsync(Guid editId, Guid keeperId, CancellationToken cancel)
    {
        var candidate =
            await RedoableAsync(db.Edits.Where(e => e.Id == editId && e.KeeperId == keeperId), cancel)
            ?? throw new RuleException("That cannot be done again: something was changed since. Nothing was changed.");
        return await DoAgainAsync(candidate.Id, cancel);
    }

    /// <summary>Makes the edit again that was taken back last in a unit.</summary>
    public async Task<Edit> RedoAsync(AlbumUnit unit, int revision, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unit);
        await RequireAsync(unit, revision, "Redo", cancel);
        var candidate =
            await RedoableAsync(OfUnit(unit), cancel) ?? throw new RuleException("There is nothing to redo here.");
        return await DoAgainAsync(candidate.Id, cancel);
    }

    private async Task TakeBackAsync(Edit edit, CancellationToken cancel)
    {
        var rows = await RowsAsync(edit, cancel);
        if (edit.Changes.Exists(c => rows[c.SubjectId].HeadEditId != edit.Id))
        {
            throw new RuleException(
                $"“{edit.Summary}” cannot be undone by itself: something else was built on it since. Undo that first."
            );
        }

        var asked = rows.Values.Select(r => (r, r.Revision)).ToList();
        foreach (var change in edit.Changes)
        {
            var row = rows[change.SubjectId];
            Restore(row, change.Before);
            (row.Revision, row.HeadEditId) = (row.Revision + 1, change.PreviousHeadEditId);
        }

        edit.Undone = true;
        await SaveAndTellAsync(asked, "Undo", edit, cancel);
    }

    private async Task<Edit> DoAgainAsync(Guid editId, CancellationToken cancel)
    {
        var edit = await db.Edits.Include(e => e.Changes).SingleAsync(e => e.Id == editId, cancel);
        var rows = await RowsAsync(edit, cancel);
        var asked = rows.Values.Select(r => (r, r.Revision)).ToList();
        foreach (var change in edit.Changes)
        {
            var row = rows[change.SubjectId];
            Restore(row, change.After);
            (row.Revision, row.HeadEditId) = (row.Revision + 1, edit.Id);
        }

        edit.Undone = false;
        await SaveAndTellAsync(asked, "Redo", edit, cancel);
        return edit;
    }

    /// <summary>
    /// An undone edit can be made again while each of its rows is in the state it was made on: the same edit on top.
    /// A new edit in between puts another on top, and the old branch is out of reach. Looks only at which edit is on
    /// top of each row: the documents of an edit over a whole album are megabytes, and this is asked whenever a unit is
    /// opened.
    /// </summary>
    private async Task<Edit?> RedoableAsync(IQueryable<Edit> among, CancellationToken cancel)
    {
        var undone = await among
            .AsNoTracking()
            .Where(e => e.Undone)
            .OrderByDescending(e => e.Sequence)
            .Take(MostUndoneLookedAt)
            .Select(e => new
            {
                e.Id,
                e.AlbumId,
                Changes = e
                    .Changes.Select(c => new
                    {
                        c.Subject,
                        c.SubjectId,
                        c.PreviousHeadEditId,
                    })
                    .ToList(),
            })
            .ToListAsync(cancel);
        if (undone.Count == 0)
        {
            return null;
        }

        // By album: a row of another one is none that an edit may be made again on.
        var heads = new Dictionary<(Guid AlbumId, Guid RowId), Guid?>();
        foreach (var album in undone.GroupBy(e => e.AlbumId))
        {
            foreach (var group in album.SelectMany(e => e.Changes).GroupBy(c => c.Subject, c => c.SubjectId))
            {
                foreach (var (id, head) in await HeadsAsync(group.Key, album.Key, [.. group.Distinct()], cancel))
                {
                    heads[(album.Key, id)] = head;
                }
            }
        }

        var candidate = undone.FirstOrDefault(e =>
            e.Changes.TrueForAll(c =>
                heads.TryGetValue((e.AlbumId, c.SubjectId), out var head) && head == c.PreviousHeadEditId
            )
        );
        return candidate is null ? null : await db.Edits.AsNoTracking().SingleAsync(e => e.Id == candidate.Id, cancel);
    }

    /// <summary>Which edit is on top of rows of one kind and one album, those that are gone included.</summary>
    private Task<Dictionary<Guid, Guid?>> HeadsAsync(
        EditSubject subject,
        Guid albumId,
        List<Guid> ids,
        CancellationToken cancel
    ) => OfAlbumAsync(subject, albumId, new Heads(ids, cancel));

    private sealed class Heads(List<Guid> ids, CancellationToken cancel) : IAsked<Dictionary<Guid, Guid?>>
    {
        public Task<Dictionary<Guid, Guid?>> OfAsync<T>(IQueryable<T> rows)
            where T : class, IRevisioned =>
            rows.AsNoTracking()
                .Where(r => ids.Contains(r.Id))
                .Select(r => new { r.Id, r.HeadEditId })
                .ToDictionaryAsync(r => r.Id, r => r.HeadEditId, cancel);
    }

    private sealed class Rows(List<Guid> ids, CancellationToken cancel) : IAsked<IReadOnlyList<IRevisioned>>
    {
        public async Task<IReadOnlyList<IRevisioned>> OfAsync<T>(IQueryable<T> rows)
            where T : class, IRevisioned => await rows.Where(r => ids.Contains(r.Id)).ToListAsync(cancel);
    }

    /// <summary>A question about rows of whatever kind.</summary>
    private interface IAsked<TAnswer>
    {
        Task<TAnswer> OfAsync<T>(IQueryable<T> rows)
            where T : class, IRevisioned;
    }

    /// <summary>Asks of all rows of one kind and one album, those that are gone included.</summary>
    private Task<TAnswer> OfAlbumAsync<TAnswer>(EditSubject subject, Guid albumId, IAsked<TAnswer> asked) =>
        subject switch
        {
            EditSubject.Unit => asked.OfAsync(db.Units.IgnoreQueryFilters().Where(u => u.AlbumId == albumId)),
            EditSubject.Leaf => asked.OfAsync(db.Leaves.IgnoreQueryFilters().Where(l => l.AlbumId == albumId)),
            EditSubject.Album => asked.OfAsync(db.Albums.Where(a => a.Id == albumId)),
            EditSubject.Story => asked.OfAsync(db.Stories.IgnoreQueryFilters().Where(s => s.AlbumId == albumId)),
            EditSubject.Protector => asked.OfAsync(db.Protectors.Where(p => p.AlbumId == albumId)),
            _ => asked.OfAsync(db.Photos.Where(p => p.AlbumId == albumId)),
        };

    /// <summary>
    /// The rows an edit touches, all of its own album. Throws <see cref="RuleException"/> when one is of another album
    /// or not there, or when a leaf would be given pages or a protector that are.
    /// </summary>
    private async Task<Dictionary<Guid, IRevisioned>> RowsAsync(Edit edit, CancellationToken cancel)
    {
        var rows = new Dictionary<Guid, IRevisioned>();
        foreach (var group in edit.Changes.GroupBy(c => c.Subject, c => c.SubjectId))
        {
            foreach (var row in await OfAlbumAsync(group.Key, edit.AlbumId, new Rows([.. group], cancel)))
            {
                rows[row.Id] = row;
            }
        }

        var leaves = edit.Changes.Where(c => c.Subject == EditSubject.Leaf).ToList();
        var states = leaves
            .SelectMany(c => new[] { c.Before, c.After })
            .Select(StoredDocuments.LeafState.Read)
            .ToList();
        var (units, protectors) = (
            states.SelectMany(s => new[] { s.FrontUnitId, s.BackUnitId }).OfType<Guid>().Distinct().ToList(),
            states.Select(s => s.ProtectorId).Distinct().ToList()
        );
        return
            edit.Changes.TrueForAll(c => rows.ContainsKey(c.SubjectId))
            && (await HeadsAsync(EditSubject.Unit, edit.AlbumId, units, cancel)).Count == units.Count
            && (await HeadsAsync(EditSubject.Protector, edit.AlbumId, protectors, cancel)).Count == protectors.Count
            ? rows
            : throw new RuleException(
                $"“{edit.Summary}” cannot be undone or redone: something it changed is not in this album any more. "
                    + "Nothing was changed."
            );
    }

    /// <summary>Whoever has the album open hears of it when it is committed.</summary>
    private async Task SaveAndTellAsync(
        List<(IRevisioned Row, int Revision)> asked,
        string yours,
        Edit edit,
        CancellationToken cancel
    )
    {
        await SaveOrStaleAsync(asked, yours, cancel);
        await AlbumNews.TellAsync(db, edit.AlbumId, NewsKind.Edit, edit.UnitIds, cancel);
    }

    private async Task SaveOrStaleAsync(
        List<(IRevisioned Row, int Revision)> asked,
        string yours,
        CancellationToken cancel
    )
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
            throw await StaleAsync(row, asked.First(a => a.Row == row).Revision, yours, cancel, raced: true);
        }
    }

    private async Task<StaleRevisionException> StaleAsync(
        IRevisioned row,
        int revision,
        string yours,
        CancellationToken cancel,
        bool raced = false
    )
    {
        var theirs = await db
            .Edits.AsNoTracking()
            .Where(e => e.Changes.Any(c => c.SubjectId == row.Id && c.RevisionAfter > revision))
            .OrderBy(e => e.Sequence)
            .Select(e => new
            {
                e.Summary,
                By = db.Keepers.Where(k => k.Id == e.KeeperId).Select(k => k.Name).First(),
                Shared = db.Shares.Any(s => s.AlbumId == e.AlbumId),
            })
            .ToListAsync(cancel);
        return new StaleRevisionException(
            yours,
            theirs.ConvertAll(t => t.Shared ? $"{t.By}: {t.Summary}" : t.Summary),
            row.Revision
        )
        {
            Raced = raced,
        };
    }

    private static EditSubject SubjectOf(IRevisioned row) =>
        row switch
        {
            AlbumUnit => EditSubject.Unit,
            AlbumLeaf => EditSubject.Leaf,
            Photo => EditSubject.Photo,
            Album => EditSubject.Album,
            AlbumProtector => EditSubject.Protector,
            Story => EditSubject.Story,
            _ => throw new ArgumentException("Not a row with revisions.", nameof(row)),
        };

    private static string StateOf(IRevisioned row) =>
        row switch
        {
            AlbumUnit unit => StoredDocuments.UnitState.Write(UnitState.Of(unit)),
            AlbumLeaf leaf => StoredDocuments.LeafState.Write(LeafState.Of(leaf)),
            Photo photo => StoredDocuments.PhotoState.Write(PhotoState.Of(photo)),
            Album album => StoredDocuments.AlbumState.Write(AlbumState.Of(album)),
            AlbumProtector protector => StoredDocuments.ProtectorState.Write(ProtectorState.Of(protector)),
            Story story => StoredDocuments.StoryState.Write(StoryState.Of(story)),
            _ => throw new ArgumentException("Not a row with revisions.", nameof(row)),
        };

    /// <summary>
    /// A row of one kind before or after an edit, as a value; a column that holds another kind's is found by this.
    /// Throws <see cref="StoredDocumentException"/> for one that cannot be read.
    /// </summary>
    public static object StateOf(EditSubject subject, string state) =>
        subject switch
        {
            EditSubject.Unit => StoredDocuments.UnitState.Read(state),
            EditSubject.Leaf => StoredDocuments.LeafState.Read(state),
            EditSubject.Photo => StoredDocuments.PhotoState.Read(state),
            EditSubject.Album => StoredDocuments.AlbumState.Read(state),
            EditSubject.Protector => StoredDocuments.ProtectorState.Read(state),
            EditSubject.Story => StoredDocuments.StoryState.Read(state),
            _ => throw new ArgumentOutOfRangeException(nameof(subject)),
        };

    private static void Restore(IRevisioned row, string state)
    {
        switch (row)
        {
            case AlbumUnit unit:
                StoredDocuments.UnitState.Read(state).Into(unit);
                break;
            case AlbumLeaf leaf:
                StoredDocuments.LeafState.Read(state).Into(leaf);
                break;
            case Photo photo:
                StoredDocuments.PhotoState.Read(state).Into(photo);
                break;
            case Album album:
                StoredDocuments.AlbumState.Read(state).Into(album);
                break;
            case AlbumProtector protector:
                StoredDocuments.ProtectorState.Read(state).Into(protector);
                break;
            case Story story:
                StoredDocuments.StoryState.Read(state).Into(story);
                break;
            default:
                throw new ArgumentException("Not a row with revisions.", nameof(row));
        }
    }
}
