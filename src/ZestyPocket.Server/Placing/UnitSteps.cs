using Microsoft.EntityFrameworkCore;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Placing;

/// <summary>An edit that was undone or done again outside a unit.</summary>
public sealed record StepAnswer(string Done, Guid AlbumId);

/// <summary>Undo and redo, with what follows from them: photos go where they belong after it.</summary>
public sealed class UnitSteps(
    ZestyContext db,
    UnitOpener opener,
    UnitReader reader,
    History history,
    PhotoDays photoDays,
    ICurrentKeeper keeper
)
{
    public Task<EditAnswer> UndoAsync(Guid unitId, int revision, CancellationToken cancel) =>
        StepAsync(unitId, unit => history.UndoAsync(unit, revision, cancel), "Undone", cancel);

    public Task<EditAnswer> RedoAsync(Guid unitId, int revision, CancellationToken cancel) =>
        StepAsync(unitId, unit => history.RedoAsync(unit, revision, cancel), "Done again", cancel);

    public Task<StepAnswer> UndoEditAsync(Guid editId, CancellationToken cancel) =>
        EditStepAsync(editId, () => history.UndoAsync(editId, keeper.Id, cancel), "Undone", cancel);

    public Task<StepAnswer> RedoEditAsync(Guid editId, CancellationToken cancel) =>
        EditStepAsync(editId, () => history.RedoAsync(editId, keeper.Id, cancel), "Done again", cancel);

    private async Task<StepAnswer> EditStepAsync(
        Guid editId,
        Func<Task<Edit>> step,
        string word,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var albumId = await db
            .Edits.Where(e => e.Id == editId && e.KeeperId == keeper.Id)
            .Select(e => e.AlbumId)
            .SingleOrDefaultAsync(cancel);
        await AlbumLock.HoldAsync(db, albumId, cancel);
        var edit = await step();
        await SettleAsync(edit, cancel);
        await transaction.CommitAsync(cancel);
        return new StepAnswer($"{word}: {edit.Summary}", edit.AlbumId);
    }

    private async Task<EditAnswer> StepAsync(
        Guid unitId,
        Func<AlbumUnit, Task<Edit>> step,
        string word,
        CancellationToken cancel
    )
    {
        var open = await opener.OpenAsync(unitId, cancel);
        var (albumId, ordinal) = (open.Album.Id, open.Unit.Ordinal);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.HoldAsync(db, albumId, cancel);
        var edit = await step(open.Unit);
        await SettleAsync(edit, cancel);
        await transaction.CommitAsync(cancel);
        // Photos are read without tracking, so what an undo brought back is read anew.
        db.ChangeTracker.Clear();
        // Undoing the making of a unit takes it away: its neighbour is opened instead.
        var shown = await db
            .Units.Where(u => u.AlbumId == albumId)
            .OrderBy(u => u.Id == unitId ? 0 : 1)
            .ThenBy(u => Math.Abs(u.Ordinal - ordinal))
            .Select(u => u.Id)
            .FirstAsync(cancel);
        return new EditAnswer(
            await reader.ViewAsync(await opener.OpenAsync(shown, cancel), cancel),
            $"{word}: {edit.Summary}",
            null
        );
    }

    private async Task SettleAsync(Edit edit, CancellationToken cancel)
    {
        var subjects = edit.Changes.Select(c => c.Subject).ToHashSet();
        if (!subjects.Overlaps([EditSubject.Photo, EditSubject.Album, EditSubject.Unit]))
        {
            return;
        }

        db.ChangeTracker.Clear();
        var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == edit.AlbumId, cancel);
        var days = await PhotoDays.ReadAsync(db, album, cancel);
        // An edit inside one unit moves nobody; one over a photo moves that photo; the rest may move any.
        var only =
            subjects.SetEquals([EditSubject.Unit]) && edit.UnitIds.Count == 1 ? []
            : subjects.Contains(EditSubject.Photo)
                ? edit.Changes.Where(c => c.Subject == EditSubject.Photo).Select(c => c.SubjectId).ToList()
            : null;
        if (only is not { Count: 0 })
        {
            await photoDays.ApplyAsync(await photoDays.PlanAsync(album.Id, days, only, cancel), cancel);
        }
    }
}
