using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Binder;

/// <summary>
/// Carries edits of a keeper's collection of page designs out: loads it, lets the core make the edit, saves what it
/// touched.
/// </summary>
public sealed class DesignEditor(ZestyContext db, ICurrentKeeper keeper, IClock clock)
{
    public async Task<CollectionEdited> ApplyAsync(DesignEdit edit, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(edit);
        await using var transaction = await AlbumLock.BeginAsync(db, keeper.Id, cancel);
        var rows = await RowsAsync(cancel);
        var collection = new OwnDesigns([.. rows.Select(r => r.Read())]);
        Require(edit, collection);
        var edited = edit.Apply(collection, Guid.CreateVersion7);
        Write(rows, edited.Design);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return edited;
    }

    /// <summary>Takes designs from a file. What cannot be read is named with its reason; the others are kept.</summary>
    public async Task<ImportedDesigns> ImportAsync(string text, CancellationToken cancel)
    {
        var found = DesignFile.Read(text);
        await using var transaction = await AlbumLock.BeginAsync(db, keeper.Id, cancel);
        var rows = await RowsAsync(cancel);
        var collection = new OwnDesigns([.. rows.Select(r => r.Read())]);
        var (kept, refused) = (new List<string>(), new List<string>());
        foreach (var add in found)
        {
            try
            {
                var edited = add.Apply(collection, Guid.CreateVersion7);
                collection = edited.Collection;
                Write(rows, edited.Design);
                kept.Add(edited.Design.Name);
            }
            catch (RuleException reason)
            {
                refused.Add($"{(string.IsNullOrWhiteSpace(add.Name) ? add.Notation : add.Name)}: {reason.Message}");
            }
        }

        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return new ImportedDesigns(kept, refused);
    }

    private Task<List<KeeperDesign>> RowsAsync(CancellationToken cancel) =>
        db.Designs.Where(d => d.KeeperId == keeper.Id).OrderBy(d => d.MadeAt).ThenBy(d => d.Id).ToListAsync(cancel);

    private static void Require(DesignEdit edit, OwnDesigns collection)
    {
        if (edit.MadeOn() is not { } seen)
        {
            return;
        }

        var now = collection.Require(seen.DesignId);
        if (now.Revision != seen.Revision)
        {
            throw new StaleRevisionException(
                edit.Label(),
                [now.Deleted ? $"“{now.Name}” was deleted" : $"It is in the collection as “{now.Name}”"],
                now.Revision
            );
        }
    }

    private void Write(List<KeeperDesign> rows, OwnDesign design)
    {
        var row = rows.Find(r => r.Id == design.Id);
        if (row is null)
        {
            row = new KeeperDesign
            {
                Id = design.Id,
                KeeperId = keeper.Id,
                Name = design.Name,
                Notation = design.Notation,
                MadeAt = clock.GetCurrentInstant(),
            };
            db.Designs.Add(row);
            rows.Add(row);
        }

        row.Name = design.Name;
        row.Revision = design.Revision;
        row.PutAwayAt = design.Deleted ? row.PutAwayAt ?? clock.GetCurrentInstant() : null;
    }
}

/// <summary>What was taken from a file of designs, and what was not, with the reason.</summary>
public sealed record ImportedDesigns(IReadOnlyList<string> Kept, IReadOnlyList<string> Refused);
