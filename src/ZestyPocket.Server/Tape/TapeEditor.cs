using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
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
public sealed class TapeEditor(
    ZestyContext db,
    Binder binder,
    History history,
    PhotoDays photoDays,
    ICurrentKeeper keeper
)
{
    /// <summary>Merges a unit with the one after it.</summary>
    public async Task<TapeAnswer> MergeAsync(Guid unitId, int revision, CancellationToken cancel)
    {
        var (unit, at) = await binder.OpenAsync(unitId, revision, "Merge", cancel);
        if (at + 1 >= binder.Units.Count)
        {
            throw new RuleException("Nothing comes after this one that it could be merged with. Nothing was changed.");
        }

        var next = binder.Units[at + 1];
        var (dates, following) = (unit.ReadDates(), next.ReadDates());
        var merged = dates.MergedWith(following);
        history.Touch([unit, next]);
        var placedBefore = unit.PiecesPlaced + next.PiecesPlaced;
        unit.Write(unit.Read().With(next.Read()));
        unit.WriteDates(merged);
        next.Write(UnitContent.Empty);
        next.Gone = true;
        binder.Units.RemoveAt(at + 1);
        var carried = binder.Faces[unit.Id].Concat(binder.Faces[next.Id]).ToList();
        if (binder.Album.FacesPerUnit == 2 && carried.Count > 2)
        {
            // One spread is enough for days in which little happened: the leaf between the two goes.
            binder.RemoveLeaf(binder.Album.School == PageSchool.Spread ? carried[1].LeafId : carried[^1].LeafId);
        }

        binder.Lay(
            new Dictionary<Guid, List<FaceOfLeaf>> { [unit.Id] = carried },
            u => u.Id == unit.Id && binder.Album.FacesPerUnit == 1 ? carried.Count : binder.FacesOf(u)
        );
        var style = binder.Calendar.Style;
        var toTray = placedBefore - unit.PiecesPlaced;
        var done =
            $"Merged {dates.Title(style)} and "
            + $"{following.Title(style)}"
            + $"{(toTray > 0 ? $"; {toTray} {(toTray == 1 ? "piece" : "pieces")} went to the tray" : string.Empty)}";
        return await SaveAsync(done, unit.Id, [unit.Id, next.Id], cancel);
    }

    /// <summary>
    /// Takes a merged unit apart again. What it holds goes where its days are; cards stay with the first.
    /// </summary>
    public async Task<TapeAnswer> SplitAsync(Guid unitId, int revision, CancellationToken cancel)
    {
        var (unit, at) = await binder.OpenAsync(unitId, revision, "Split", cancel);
        var dates = unit.ReadDates();
        var parts = binder.Calendar.Parts(dates);
        if (parts.Length < 2)
        {
            throw new RuleException(
                $"{dates.Title(binder.Calendar.Style)} is a single one already: there is nothing to split. Nothing "
                    + "was changed."
            );
        }

        history.Touch([unit]);
        var (faces, placedBefore) = (binder.Faces[unit.Id], unit.PiecesPlaced);
        unit.WriteDates(parts[0] with { Name = dates.Name, LeftOut = dates.LeftOut });
        var made = new List<AlbumUnit> { unit };
        foreach (var part in parts.Skip(1))
        {
            var fresh = binder.Add(part, at + made.Count);
            made.Add(fresh);
            if (binder.Album.FacesPerUnit == 2)
            {
                // Its pages end on a front; the new leaf goes before that one, so that what follows stays.
                binder.InsertLeafBefore(faces[^1].LeafId);
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
        binder.Lay([], u => made.Contains(u) ? binder.Album.FacesPerUnit : binder.FacesOf(u));
        var toTray = placedBefore - unit.PiecesPlaced;
        var done =
            $"Split {dates.Title(binder.Calendar.Style)}"
            + $"{(toTray > 0 ? $"; {toTray} {(toTray == 1 ? "piece" : "pieces")} went to the tray" : string.Empty)}";
        return await SaveAsync(done, unit.Id, made.Select(u => u.Id), cancel);
    }

    /// <summary>Leaves a unit out on purpose, or takes it back. It keeps its number and what it holds.</summary>
    public async Task<TapeAnswer> LeaveOutAsync(Guid unitId, int revision, bool leftOut, CancellationToken cancel)
    {
        var (unit, _) = await binder.OpenAsync(unitId, revision, "Leave out", cancel);
        history.Touch([unit]);
        unit.LeftOut = leftOut;
        var title = unit.ReadDates().Title(binder.Calendar.Style);
        return await SaveAsync(
            leftOut ? $"Left {title} out on purpose" : $"Took {title} back in",
            unit.Id,
            [unit.Id],
            cancel
        );
    }

    /// <summary>Gives a unit the keeper's own name; an empty one brings the computed name back.</summary>
    public async Task<TapeAnswer> RenameAsync(Guid unitId, int revision, string name, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(name);
        var (unit, _) = await binder.OpenAsync(unitId, revision, "Rename", cancel);
        if (name.Length > UnitDates.LongestName)
        {
            throw new RuleException($"A name has {UnitDates.LongestName} characters at most. Nothing was changed.");
        }

        history.Touch([unit]);
        unit.Name = string.IsNullOrWhiteSpace(name) ? null : PlainWords.Name(name);
        return await SaveAsync($"Named it {unit.ReadDates().Title(binder.Calendar.Style)}", unit.Id, [unit.Id], cancel);
    }

    /// <summary>Makes weeks, days or hours at the end or at the start.</summary>
    public async Task<TapeAnswer> GrowAsync(Guid albumId, int count, bool atEnd, CancellationToken cancel)
    {
        await binder.LoadAsync(albumId, cancel);
        if (count < 1 || count > AlbumMaking.MostUnits - binder.Units.Count)
        {
            throw new RuleException(
                $"An album can have 1 to {AlbumMaking.MostUnits} weeks, days or hours. Nothing was changed."
            );
        }

        var made = new List<AlbumUnit>();
        for (var i = 0; i < count; i++)
        {
            var beyond = binder.Calendar.Beyond(binder.Units.ConvertAll(u => u.ReadDates()), atEnd);
            if (beyond is null)
            {
                break;
            }

            if (!atEnd && binder.Album.FacesPerUnit == 2 && binder.Leaves.Count > 0)
            {
                binder.InsertLeafAfter(binder.Leaves[0].Id);
            }

            made.Add(binder.Add(beyond, atEnd ? binder.Units.Count : 0));
        }

        if (made.Count == 0)
        {
            throw new RuleException(
                atEnd
                    ? "There are no more hours in that day. Nothing was changed."
                    : "Nothing comes before number 1. Nothing was changed."
            );
        }

        binder.Lay([], u => made.Contains(u) ? binder.Album.FacesPerUnit : binder.FacesOf(u));
        var (first, last) = (made.MinBy(u => u.Ordinal)!.ReadDates(), made.MaxBy(u => u.Ordinal)!.ReadDates());
        var style = binder.Calendar.Style;
        var done = made.Count == 1 ? $"Made {first.Title(style)}" : $"Made {first.Title(style)} to {last.Title(style)}";
        return await SaveAsync(done, null, binder.Units.Select(u => u.Id), cancel);
    }

    /// <summary>
    /// Changes how the album counts time. Content stays with its unit; photos go where their day is now, and what moved
    /// is told line by line.
    /// </summary>
    public async Task<TapeAnswer> CountAnewAsync(
        Guid albumId,
        int revision,
        Func<AlbumCalendar, AlbumCalendar> change,
        string done,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(change);
        await binder.LoadAsync(albumId, cancel);
        await history.RequireAsync(binder.Album, revision, done, cancel);
        var changed = change(binder.Calendar).Checked();
        history.Touch([binder.Album]);
        history.Touch(binder.Units);
        binder.Album.WriteCalendar(changed);
        binder.Calendar = changed;
        foreach (var unit in binder.Units)
        {
            unit.WriteDates(changed.Redated(unit.ReadDates()));
        }

        MoveNotes();
        return await SaveAsync(done, null, binder.Units.Select(u => u.Id), cancel);
    }

    /// <summary>Notes belong to days: each goes to the unit that has its day now, or stays when none has.</summary>
    private void MoveNotes()
    {
        var notes = binder.Units.SelectMany(u => u.Read().Notes.Select(n => (Unit: u, Note: n))).ToList();
        foreach (var (unit, note) in notes)
        {
            var target = binder.Units.Find(u =>
                u.ReadDates().Holds(new AlbumMoment(note.Day, 0, note.Time is { } t ? (t.Hour * 60) + t.Minute : null))
            );
            if (target is not null && target != unit)
            {
                unit.Write(unit.Read().DropNote(note.Id));
                target.Write(target.Read().Note(note));
            }
        }
    }

    private async Task<TapeAnswer> SaveAsync(
        string done,
        Guid? open,
        IEnumerable<Guid> unitIds,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.HoldAsync(db, binder.Album.Id, cancel);
        var days = new AlbumDays(binder.Calendar, binder.Units.ConvertAll(u => (u.Id, u.ReadDates())));
        var moves = await photoDays.PlanAsync(binder.Album.Id, days, null, cancel);
        var taken = await photoDays.TakeOutOfPocketsAsync(moves, history, cancel);
        var edit = await history.SaveAsync(binder.Album.Id, keeper.Id, done, unitIds, cancel);
        await photoDays.ApplyAsync(moves, cancel);
        await transaction.CommitAsync(cancel);
        return new TapeAnswer(done, open, Moved(moves, days, taken), edit);
    }

    private static List<string> Moved(IReadOnlyList<PhotoMove> moves, AlbumDays days, int taken)
    {
        var style = days.Calendar.Style;
        var places = days.Units.Select((u, i) => (u.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var lines = moves
            .Where(m => m.ChangesUnit)
            .GroupBy(m => (From: Title(m.OldUnitId), To: Title(m.Now.UnitId)))
            .OrderBy(g => g.Min(m => Place(m.OldUnitId)))
            .ThenBy(g => g.Min(m => Place(m.Now.UnitId)))
            .Select(g => $"{g.Count()} {(g.Count() == 1 ? "picture" : "pictures")} from {g.Key.From} to {g.Key.To}")
            .ToList();
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

        string Title(Guid? unit) =>
            unit is { } id ? days.Dates(id)?.Title(style) ?? "a part that is gone" : "outside the album";
    }
}
