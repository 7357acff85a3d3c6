using System.Collections.Immutable;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>What an edit of the stash did.</summary>
/// <param name="StepId">To undo it.</param>
/// <param name="Items">What it changed or added.</param>
/// <param name="Passed">Lines of a file that could not be read.</param>
public sealed record StashAnswer(
    string Done,
    Guid StepId,
    IReadOnlyList<StashItemView> Items,
    IReadOnlyList<string> Passed
);

/// <summary>
/// Carries edits of a keeper's stash out: loads it, lets the core make the edit, saves what it touched. Each is a step
/// that can be undone as long as nothing was built on it.
/// </summary>
public sealed class StashEditor(
    ZestyContext db,
    IPhotoVault vault,
    StashReader reader,
    ICurrentKeeper keeper,
    IClock clock
)
{
    public async Task<StashAnswer> ApplyAsync(StashEdit edit, IReadOnlyList<string> passed, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(edit);
        await using var transaction = await AlbumLock.BeginAsync(db, keeper.Id, cancel);
        var rows = await RowsAsync(cancel);
        var stash = new KeeperStash([.. rows.Select(r => r.Read())]);
        Require(edit, stash);
        await RequireUnitAsync(edit, cancel);
        var edited = edit.Apply(stash, Guid.CreateVersion7);
        await KeepPhotoAsync((edit as AddToStash)?.Upload, edited.Changed, stash, cancel);
        var before = stash.Items.ToDictionary(i => i.Id);
        var heads = rows.ToDictionary(r => r.Id, r => r.HeadStepId);
        var step = new StashStep
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeper.Id,
            Summary = edited.Done.Length > 400 ? edited.Done[..400] : edited.Done,
            MadeAt = clock.GetCurrentInstant(),
            Changes = StoredDocuments.StashChanges.Write(
                new StashChanges([
                    .. edited.Changed.Select(i => new StashChange(
                        before.GetValueOrDefault(i.Id),
                        i,
                        heads.GetValueOrDefault(i.Id)
                    )),
                ])
            ),
        };
        foreach (var item in edited.Changed)
        {
            Write(rows, item, step.Id);
        }

        db.StashSteps.Add(step);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return new StashAnswer(edited.Done, step.Id, await reader.ViewsAsync(edited.Changed, cancel), passed);
    }

    /// <summary>Takes an edit back, or makes one again that was taken back.</summary>
    public async Task<StashAnswer> TurnAsync(Guid stepId, bool undo, CancellationToken cancel)
    {
        await using var transaction = await AlbumLock.BeginAsync(db, keeper.Id, cancel);
        var step =
            await db.StashSteps.SingleOrDefaultAsync(s => s.Id == stepId && s.KeeperId == keeper.Id, cancel)
            ?? throw new MissingException("That edit");
        if (step.Undone == undo)
        {
            throw new RuleException(
                $"“{step.Summary}” was {(undo ? "undone" : "done again")} already. Nothing was changed."
            );
        }

        var rows = await RowsAsync(cancel);
        var changes = step.ReadChanges().All;
        // An edit is undone while it is on top of all its items, and done again while the one before it is.
        if (changes.Any(c => rows.Find(r => r.Id == c.After.Id)?.HeadStepId != (undo ? step.Id : c.PreviousStepId)))
        {
            throw new RuleException(
                $"“{step.Summary}” cannot be {(undo ? "undone" : "done again")}: something was changed since. Nothing "
                    + "was changed."
            );
        }

        var items = new List<StashItem>();
        foreach (var change in changes)
        {
            var state = undo ? change.Before ?? change.After with { Deleted = true } : change.After;
            var item = state with { Revision = rows.Find(r => r.Id == state.Id)!.Revision + 1 };
            Write(rows, item, undo ? change.PreviousStepId : step.Id);
            items.Add(item);
        }

        step.Undone = undo;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return new StashAnswer(
            $"{(undo ? "Undid" : "Did again")}: {step.Summary}",
            step.Id,
            await reader.ViewsAsync(items, cancel),
            []
        );
    }

    private Task<List<StashedItem>> RowsAsync(CancellationToken cancel) =>
        db.StashItems.Where(i => i.KeeperId == keeper.Id).OrderBy(i => i.MadeAt).ThenBy(i => i.Id).ToListAsync(cancel);

    private static void Require(StashEdit edit, KeeperStash stash)
    {
        foreach (var seen in edit.MadeOn())
        {
            var now = stash.Require(seen.ItemId);
            if (now.Revision != seen.Revision)
            {
                throw new StaleRevisionException(
                    edit.Label(),
                    [$"“{now.Name}”: {now.Count} in the stash, {now.Free} of them free"],
                    now.Revision
                );
            }
        }
    }

    /// <summary>What is set aside or used is so for a week or day of an own album.</summary>
    private async Task RequireUnitAsync(StashEdit edit, CancellationToken cancel)
    {
        var unit = edit switch
        {
            ReserveFromStash reserve => reserve.UnitId,
            UseFromStash use => use.UnitId,
            _ => (Guid?)null,
        };
        if (
            unit is { } id
            && !await db.Units.AnyAsync(
                u => u.Id == id && db.Albums.Any(a => a.Id == u.AlbumId && a.KeeperId == keeper.Id),
                cancel
            )
        )
        {
            throw new MissingException("That week or day");
        }
    }

    /// <summary>
    /// The photo that pictures of items are parts of goes into the vault under the hash of its content. A hash alone
    /// gives nobody a picture: it has just arrived, or the stash has it already.
    /// </summary>
    private async Task KeepPhotoAsync(
        Guid? upload,
        ImmutableArray<StashItem> changed,
        KeeperStash stash,
        CancellationToken cancel
    )
    {
        var owned = stash.Items.Select(i => i.Picture?.Sha256).ToHashSet();
        var shas = changed
            .Select(i => i.Picture?.Sha256)
            .OfType<ContentHash>()
            .Where(s => !owned.Contains(s))
            .Distinct();
        if (!shas.Any())
        {
            return;
        }

        var path = upload is { } key ? vault.PathOfParked(key) : null;
        if (!File.Exists(path))
        {
            throw new RuleException("That photo is not here any more. Nothing was added: choose it again.");
        }

        await using var file = File.OpenRead(path);
        var sha = ContentHash.Of(await SHA256.HashDataAsync(file, cancel));
        if (shas.Any(s => s != sha))
        {
            throw new RuleException("These pictures are parts of another photo. Nothing was added: choose it again.");
        }

        await VaultLock.ShareAllAsync(db, cancel);
        using var arrived = vault.TakeUp(upload!.Value, new StoredOriginal(sha, file.Length));
        arrived.Keep();
    }

    private void Write(List<StashedItem> rows, StashItem item, Guid? step)
    {
        var row = rows.Find(r => r.Id == item.Id);
        if (row is null)
        {
            row = new StashedItem
            {
                Id = item.Id,
                KeeperId = keeper.Id,
                MadeAt = clock.GetCurrentInstant(),
            };
            db.StashItems.Add(row);
            rows.Add(row);
        }

        row.Write(item);
        row.HeadStepId = step;
    }
}
