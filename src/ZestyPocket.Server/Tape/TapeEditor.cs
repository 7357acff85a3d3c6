using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Photos;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Tape;

/// <summary>What was done on the tape, the unit to open now, what moved with it, and the edit, to undo it.</summary>
public sealed record TapeAnswer(string Done, Guid? UnitId, IReadOnlyList<string> Moved, Guid? EditId);

/// <summary>
/// Makes, merges, splits, leaves out and renames units, and changes how an album counts time. Each is one edit over
/// everything it touches: the units, the leaves that carry them, and the pockets of photos that move.
/// </summary>
public sealed class TapeEditor(ZestyContext db, AlbumReader albums, History history, PhotoDays photoDays, ICurrentKeeper keeper)
{
    private Album _album = null!;
    private AlbumCalendar _calendar = null!;
    private List<AlbumUnit> _units = [];
    private List<AlbumLeaf> _leaves = [];
    private Dictionary<Guid, List<FaceOfLeaf>> _faces = [];
    private readonly Dictionary<Guid, PageDesign> _designs = [];

    /// <summary>Merges a unit with the one after it.</summary>
    public async Task<TapeAnswer> MergeAsync(Guid unitId, int revision, CancellationToken cancel)
    {
        var (unit, at) = await OpenAsync(unitId, revision, "Merge", cancel);
        if (at + 1 >= _units.Count)
        {
            throw new RuleException("Nothing comes after this one that it could be merged with. Nothing was changed.");
        }

        var next = _units[at + 1];
        var (dates, following) = (unit.ReadDates(), next.ReadDates());
        var merged = dates.MergedWith(following);
        history.Touch([unit, next]);
        var placedBefore = unit.PiecesPlaced + next.PiecesPlaced;
        unit.Write(unit.Read().With(next.Read()));
        unit.WriteDates(merged);
        next.Write(UnitContent.Empty);
        next.Gone = true;
        _units.RemoveAt(at + 1);
        var carried = _faces[unit.Id].Concat(_faces[next.Id]).ToList();
        if (_album.FacesPerUnit == 2 && carried.Count > 2)
        {
            // One spread is enough for days in which little happened: the leaf between the two goes.
            RemoveLeaf(carried[1].LeafId);
        }

        Lay(new Dictionary<Guid, List<FaceOfLeaf>> { [unit.Id] = carried }, u => u.Id == unit.Id && _album.FacesPerUnit == 1 ? carried.Count : FacesOf(u));
        var style = _calendar.Style;
        var toTray = placedBefore - unit.PiecesPlaced;
        var done = $"Merged {dates.Title(style)} and {following.Title(style)}{(toTray > 0 ? $"; {toTray} {(toTray == 1 ? "piece" : "pieces")} went to the tray" : string.Empty)}";
        return await SaveAsync(done, unit.Id, [unit.Id, next.Id], cancel);
    }

    /// <summary>Takes a merged unit apart again. What it holds goes where its days are; cards stay with the first.</summary>
    public async Task<TapeAnswer> SplitAsync(Guid unitId, int revision, CancellationToken cancel)
    {
        var (unit, at) = await OpenAsync(unitId, revision, "Split", cancel);
        var dates = unit.ReadDates();
        var parts = _calendar.Parts(dates);
        if (parts.Length < 2)
        {
            throw new RuleException($"{dates.Title(_calendar.Style)} is a single one already: there is nothing to split. Nothing was changed.");
        }

        history.Touch([unit]);
        var (faces, placedBefore) = (_faces[unit.Id], unit.PiecesPlaced);
        unit.WriteDates(parts[0] with { Name = dates.Name, LeftOut = dates.LeftOut });
        var made = new List<AlbumUnit> { unit };
        foreach (var part in parts.Skip(1))
        {
            var fresh = Add(part, at + made.Count);
            made.Add(fresh);
            if (_album.FacesPerUnit == 2)
            {
                // Its pages end on a front; the new leaf goes before that one, so that what follows stays.
                InsertLeafBefore(faces[^1].LeafId);
            }
        }

        // Notes know their day; pieces stay where they were put.
        var content = unit.Read();
        foreach (var part in made.Skip(1))
        {
            var own = content.Notes.Where(n => part.ReadDates().Holds(new AlbumMoment(n.Day, 0, null))).ToList();
            part.Write(part.Read() with { Notes = [.. own] });
            content = content with { Notes = [.. content.Notes.Except(own)] };
        }

        unit.Write(content);
        Lay([], u => made.Contains(u) ? _album.FacesPerUnit : FacesOf(u));
        var toTray = placedBefore - unit.PiecesPlaced;
        var done = $"Split {dates.Title(_calendar.Style)}{(toTray > 0 ? $"; {toTray} {(toTray == 1 ? "piece" : "pieces")} went to the tray" : string.Empty)}";
        return await SaveAsync(done, unit.Id, made.Select(u => u.Id), cancel);
    }

    /// <summary>Leaves a unit out on purpose, or takes it back. It keeps its number and what it holds.</summary>
    public async Task<TapeAnswer> LeaveOutAsync(Guid unitId, int revision, bool leftOut, CancellationToken cancel)
    {
        var (unit, _) = await OpenAsync(unitId, revision, "Leave out", cancel);
        history.Touch([unit]);
        unit.LeftOut = leftOut;
        var title = unit.ReadDates().Title(_calendar.Style);
        return await SaveAsync(leftOut ? $"Left {title} out on purpose" : $"Took {title} back in", unit.Id, [unit.Id], cancel);
    }

    /// <summary>Gives a unit the keeper's own name; an empty one brings the computed name back.</summary>
    public async Task<TapeAnswer> RenameAsync(Guid unitId, int revision, string name, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(name);
        var (unit, _) = await OpenAsync(unitId, revision, "Rename", cancel);
        if (name.Length > UnitDates.LongestName)
        {
            throw new RuleException($"A name has {UnitDates.LongestName} characters at most. Nothing was changed.");
        }

        history.Touch([unit]);
        unit.Name = string.IsNullOrWhiteSpace(name) ? null : name.Trim();
        return await SaveAsync($"Named it {unit.ReadDates().Title(_calendar.Style)}", unit.Id, [unit.Id], cancel);
    }

    /// <summary>Makes weeks, days or hours at the end or at the start.</summary>
    public async Task<TapeAnswer> GrowAsync(Guid albumId, int count, bool atEnd, CancellationToken cancel)
    {
        await LoadAsync(albumId, cancel);
        if (count < 1 || _units.Count + count > AlbumMaking.MostUnits)
        {
            throw new RuleException($"An album can have 1 to {AlbumMaking.MostUnits} weeks, days or hours. Nothing was changed.");
        }

        var made = new List<AlbumUnit>();
        for (var i = 0; i < count; i++)
        {
            var beyond = _calendar.Beyond(_units.ConvertAll(u => u.ReadDates()), atEnd);
            if (beyond is null)
            {
                break;
            }

            if (!atEnd && _album.FacesPerUnit == 2 && _leaves.Count > 0)
            {
                InsertLeafAfter(_leaves[0].Id);
            }

            made.Add(Add(beyond, atEnd ? _units.Count : 0));
        }

        if (made.Count == 0)
        {
            throw new RuleException(atEnd ? "There are no more hours in that day. Nothing was changed." : "Nothing comes before number 1. Nothing was changed.");
        }

        Lay([], u => made.Contains(u) ? _album.FacesPerUnit : FacesOf(u));
        var (first, last) = (made.MinBy(u => u.Ordinal)!.ReadDates(), made.MaxBy(u => u.Ordinal)!.ReadDates());
        var style = _calendar.Style;
        var done = made.Count == 1 ? $"Made {first.Title(style)}" : $"Made {first.Title(style)} to {last.Title(style)}";
        return await SaveAsync(done, null, _units.Select(u => u.Id), cancel);
    }

    /// <summary>
    /// Changes how the album counts time. Content stays with its unit; photos go where their day is now, and what moved
    /// is told line by line.
    /// </summary>
    public async Task<TapeAnswer> CountAnewAsync(Guid albumId, int revision, Func<AlbumCalendar, AlbumCalendar> change, string done, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(change);
        await LoadAsync(albumId, cancel);
        await history.RequireAsync(_album, revision, done, cancel);
        var changed = change(_calendar).Checked();
        history.Touch([_album]);
        history.Touch(_units);
        _album.WriteCalendar(changed);
        _calendar = changed;
        foreach (var unit in _units)
        {
            unit.WriteDates(changed.Redated(unit.ReadDates()));
        }

        MoveNotes();
        return await SaveAsync(done, null, _units.Select(u => u.Id), cancel);
    }

    /// <summary>Notes belong to days: each goes to the unit that has its day now, or stays when none has.</summary>
    private void MoveNotes()
    {
        var notes = _units.SelectMany(u => u.Read().Notes.Select(n => (Unit: u, Note: n))).ToList();
        foreach (var (unit, note) in notes)
        {
            var target = _units.Find(u => u.ReadDates().Holds(new AlbumMoment(note.Day, 0, note.Time is { } t ? (t.Hour * 60) + t.Minute : null)));
            if (target is not null && target != unit)
            {
                unit.Write(unit.Read().DropNote(note.Id));
                target.Write(target.Read().Note(note));
            }
        }
    }

    private async Task<(AlbumUnit Unit, int At)> OpenAsync(Guid unitId, int revision, string what, CancellationToken cancel)
    {
        var albumId = await db.Units.Where(u => u.Id == unitId).Select(u => (Guid?)u.AlbumId).SingleOrDefaultAsync(cancel) ?? throw new MissingException("That part of the album");
        await LoadAsync(albumId, cancel);
        var at = _units.FindIndex(u => u.Id == unitId);
        await history.RequireAsync(_units[at], revision, what, cancel);
        return (_units[at], at);
    }

    private async Task LoadAsync(Guid albumId, CancellationToken cancel)
    {
        _album = await albums.RequireAsync(albumId, cancel);
        _calendar = _album.ReadCalendar();
        _units = await db.Units.Where(u => u.AlbumId == albumId).OrderBy(u => u.Ordinal).ToListAsync(cancel);
        _leaves = await db.Leaves.Where(l => l.AlbumId == albumId).OrderBy(l => l.Ordinal).ToListAsync(cancel);
        _faces = _units.ToDictionary(u => u.Id, _ => new List<FaceOfLeaf>());
        foreach (var leaf in _leaves)
        {
            foreach (var (side, owner) in new[] { (LeafSide.Front, leaf.FrontUnitId), (LeafSide.Back, leaf.BackUnitId) })
            {
                if (owner is { } id && _faces.TryGetValue(id, out var faces))
                {
                    faces.Add(new FaceOfLeaf(leaf.Id, side));
                }
            }
        }

        foreach (var protector in _album.Protectors)
        {
            _designs[protector.Id] = protector.ToProtector().Design;
        }
    }

    private int FacesOf(AlbumUnit unit) => _faces[unit.Id].Count;

    private AlbumUnit Add(UnitDates dates, int at)
    {
        var unit = AlbumMaking.Unit(dates, at);
        (unit.AlbumId, unit.Gone) = (_album.Id, true);
        db.Units.Add(unit);
        // Undoing the making is the state before it: gone.
        history.Touch([unit]);
        unit.Gone = false;
        _units.Insert(at, unit);
        _faces[unit.Id] = [];
        return unit;
    }

    private void InsertLeafBefore(Guid leafId) => InsertLeaf(_leaves.FindIndex(l => l.Id == leafId), leafId);

    private void InsertLeafAfter(Guid leafId) => InsertLeaf(_leaves.FindIndex(l => l.Id == leafId) + 1, leafId);

    /// <summary>A new leaf with the pockets of a neighbour, so that pieces that move onto it fit.</summary>
    private void InsertLeaf(int at, Guid like)
    {
        var leaf = AlbumMaking.Leaf(_leaves.Single(l => l.Id == like).ProtectorId, at);
        (leaf.AlbumId, leaf.Gone) = (_album.Id, true);
        db.Leaves.Add(leaf);
        history.Touch([leaf]);
        leaf.Gone = false;
        _leaves.Insert(at, leaf);
    }

    private void RemoveLeaf(Guid leafId)
    {
        var leaf = _leaves.Single(l => l.Id == leafId);
        history.Touch([leaf]);
        (leaf.Gone, leaf.FrontUnitId, leaf.BackUnitId) = (true, null, null);
        _leaves.Remove(leaf);
    }

    /// <summary>
    /// Hands the faces out anew in reading order and moves the pieces with them. Units in <paramref name="carried"/>
    /// come from these faces instead of their own.
    /// </summary>
    private void Lay(Dictionary<Guid, List<FaceOfLeaf>> carried, Func<AlbumUnit, int> wanted)
    {
        var counts = _units.ConvertAll(u => wanted(u));
        while (_leaves.Count < Binding.LeavesFor(counts.Sum()))
        {
            InsertLeaf(_leaves.Count, _leaves[^1].Id);
        }

        while (_leaves.Count > Binding.LeavesFor(counts.Sum()))
        {
            RemoveLeaf(_leaves[^1].Id);
        }

        var chain = Binding.Chain(_leaves.ConvertAll(l => l.Id), counts);
        history.Touch(_leaves);
        for (var i = 0; i < _leaves.Count; i++)
        {
            (_leaves[i].Ordinal, _leaves[i].FrontUnitId, _leaves[i].BackUnitId) = (i, null, null);
        }

        var leafOf = _leaves.ToDictionary(l => l.Id);
        for (var i = 0; i < _units.Count; i++)
        {
            var (unit, now) = (_units[i], chain[i]);
            var old = carried.GetValueOrDefault(unit.Id) ?? _faces[unit.Id];
            if (unit.Ordinal != i || !old.SequenceEqual(now))
            {
                history.Touch([unit]);
                unit.Ordinal = i;
            }

            if (!old.SequenceEqual(now))
            {
                unit.Write(unit.Read().OnFaces(old, now, place => leafOf.TryGetValue(place.LeafId, out var leaf) && _designs[leaf.ProtectorId].Find(place.PocketKey) is not null));
            }

            foreach (var face in now)
            {
                AlbumMaking.Give(leafOf[face.LeafId], face.Side, unit.Id);
            }
        }
    }

    private async Task<TapeAnswer> SaveAsync(string done, Guid? open, IEnumerable<Guid> unitIds, CancellationToken cancel)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var days = new AlbumDays(_calendar, _units.ConvertAll(u => (u.Id, u.ReadDates())));
        var moves = await photoDays.PlanAsync(_album.Id, days, null, cancel);
        var taken = await photoDays.TakeOutOfPocketsAsync(moves, history, cancel);
        var edit = await history.SaveAsync(_album.Id, keeper.Id, done, unitIds, cancel);
        await photoDays.ApplyAsync(moves, cancel);
        await transaction.CommitAsync(cancel);
        return new TapeAnswer(done, open, Moved(moves, days, taken), edit);
    }

    private static List<string> Moved(IReadOnlyList<PhotoMove> moves, AlbumDays days, int taken)
    {
        var style = days.Calendar.Style;
        var places = days.Units.Select((u, i) => (u.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var lines = moves.Where(m => m.ChangesUnit)
            .GroupBy(m => (From: Title(m.OldUnitId), To: Title(m.Now.UnitId)))
            .OrderBy(g => g.Min(m => Place(m.OldUnitId))).ThenBy(g => g.Min(m => Place(m.Now.UnitId)))
            .Select(g => $"{g.Count()} {(g.Count() == 1 ? "picture" : "pictures")} from {g.Key.From} to {g.Key.To}").ToList();
        var redated = moves.Count(m => !m.ChangesUnit && m.OldDay != m.Now.Day);
        if (redated > 0)
        {
            lines.Add($"{redated} {(redated == 1 ? "picture" : "pictures")} to another day of the same part");
        }

        if (taken > 0)
        {
            lines.Add($"{taken} {(taken == 1 ? "print" : "prints")} left a pocket because the picture moved");
        }

        return lines;

        // In the album's order; what lies outside comes last.
        int Place(Guid? unit) => unit is { } id && places.TryGetValue(id, out var place) ? place : int.MaxValue;

        string Title(Guid? unit) => unit is { } id ? days.Dates(id)?.Title(style) ?? "a part that is gone" : "outside the album";
    }
}
