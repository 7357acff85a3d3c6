using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Shared;

/// <summary>What an edit of an album did, or would do.</summary>
/// <param name="Done">In words.</param>
/// <param name="EditId">To undo it; null for a preview, and when nothing has changed.</param>
/// <param name="Changes">What it means for pages, pieces and pictures, line by line.</param>
/// <param name="UnitId">The unit to look at now; null to stay.</param>
public sealed record AlbumEditAnswer(string Done, Guid? EditId, IReadOnlyList<string> Changes, Guid? UnitId);

/// <summary>Counts the pieces of a unit that want pockets, for edits that ask.</summary>
public interface IPieceCount
{
    Task<int> OfUnitAsync(Guid unitId, CancellationToken cancel);
}

/// <summary>
/// Carries one edit of an album out: loads the album as a value, lets the core make the edit, saves what it touched.
/// </summary>
public sealed class AlbumEditor(
    ZestyContext db,
    AlbumReader albums,
    DesignShelf designs,
    IPieceCount pieces,
    PhotoDays photoDays,
    StoryFitting stories,
    History history,
    ICurrentKeeper keeper
)
{
    /// <summary>Does the edit, or with <paramref name="preview"/> only says what it would do.</summary>
    public async Task<AlbumEditAnswer> ApplyAsync(Guid albumId, AlbumEdit edit, bool preview, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(edit);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (!preview)
        {
            await AlbumLock.HoldAsync(db, albumId, cancel);
            // What the request read before it had the lock may be old by now: it must not be what is saved.
            db.ChangeTracker.Clear();
        }

        var rows = await AlbumRows.LoadAsync(db, await albums.RequireAsync(albumId, cancel), cancel);
        foreach (var seen in edit.MadeOn())
        {
            var row = rows.Find(seen) ?? throw new MissingException(Named(seen.What));
            await history.MergeAsync(row, seen.Revision, edit.Label(), cancel);
        }

        if (edit is InsertAlbum insert)
        {
            await RequireBothAsync(rows.Album, insert.AlbumId, cancel);
        }

        await designs.LoadAsync(cancel);
        var facts = await FactsAsync(albumId, edit.Asks(rows.Desk), cancel);
        var edited = edit.Apply(rows.Desk, new AlbumTools(Guid.CreateVersion7, FindDesign, facts));
        var changes = edited.Says.AddRange(
            BinderChanges.Between(rows.Desk.Binder, edited.Desk.Binder, edited.Desk.Calendar.Style)
        );
        if (preview)
        {
            return new AlbumEditAnswer(edited.Done, null, changes, edited.UnitId);
        }

        var saved = await SaveAsync(rows, edited, cancel);
        await transaction.CommitAsync(cancel);
        return new AlbumEditAnswer(edited.Done, saved.EditId, changes.AddRange(saved.Moved), edited.UnitId);
    }

    private async Task<(Guid? EditId, IReadOnlyList<string> Moved)> SaveAsync(
        AlbumRows rows,
        AlbumEdited edited,
        CancellationToken cancel
    )
    {
        var (before, after) = (rows.Desk, edited.Desk);
        var touched = rows.Write(after, history);
        var (moves, taken) = (Array.Empty<PhotoMove>() as IReadOnlyList<PhotoMove>, 0);
        var days = new AlbumDays(after.Calendar, [.. after.Binder.Units.Select(u => (u.Id, u.Dates))]);
        if (TellsTimeAnotherWay(before, after))
        {
            moves = await photoDays.PlanAsync(rows.Album.Id, days, null, cancel);
            taken = await photoDays.TakeOutOfPocketsAsync(moves, history, cancel);
        }

        var told = await FitStoriesAgainAsync(rows, after, touched, edited.Done, cancel);
        var units = edited.AlsoIn.Union(touched).Union(told).ToList();
        var editId = await history.SaveAsync(
            rows.Album.Id,
            keeper.Id,
            edited.Done,
            // An edit of leaves that no unit owns is taken back from the first.
            units.Count == 0
                ? rows.Units.Take(1).Select(u => u.Id)
                : units,
            cancel
        );
        await photoDays.ApplyAsync(moves, cancel);
        return (editId, PhotoMoves.InWords(moves, days, taken));
    }

    private static bool TellsTimeAnotherWay(AlbumDesk before, AlbumDesk after) =>
        !ReferenceEquals(before.Calendar, after.Calendar)
        || !before
            .Binder.Units.Select(u => (u.Id, u.Dates))
            .SequenceEqual(after.Binder.Units.Select(u => (u.Id, u.Dates)));

    /// <summary>
    /// Stories are fitted again where the cards they are on have another size, another style or another hand; gives the
    /// units they lie in.
    /// </summary>
    private async Task<IReadOnlyList<Guid>> FitStoriesAgainAsync(
        AlbumRows rows,
        AlbumDesk after,
        IReadOnlyList<Guid> touched,
        string done,
        CancellationToken cancel
    )
    {
        var before = rows.Desk;
        var styles = before.Words.OwnStyles.Except(after.Words.OwnStyles).Select(s => s.Key).ToHashSet();
        var hand = before.Words.Hand != after.Words.Hand;
        var measured = !before
            .Binder.Protectors.Select(p => p.Protector)
            .SequenceEqual(after.Binder.Protectors.Select(p => p.Protector));
        var resized = touched.ToHashSet();
        var told = after
            .Binder.Units.SelectMany(u => u.Content.Pieces.OfType<Card>().Select(c => (Unit: u.Id, Card: c)))
            .Where(c =>
                c.Card.StoryId is not null
                && (
                    measured
                    || resized.Contains(c.Unit)
                    || styles.Contains(c.Card.StyleKey)
                    || (hand && c.Card.Setting is { ByHand: true })
                )
            )
            .Select(c => c.Card.StoryId!.Value)
            .ToHashSet();
        if (told.Count == 0)
        {
            return [];
        }

        // They are fitted to the pages as they are now, which are read from the database.
        await history.FlushAsync(done, cancel);
        return await stories.FitAgainAsync(told, cancel);
    }

    /// <summary>
    /// Pages of an album that is bound into another are seen by all who see that one: only who owns both decides it.
    /// </summary>
    private async Task RequireBothAsync(Album host, Guid albumId, CancellationToken cancel)
    {
        if (
            host.KeeperId != keeper.Id
            || host.Id == albumId
            || !await db.Albums.AnyAsync(a => a.Id == albumId && a.KeeperId == keeper.Id, cancel)
        )
        {
            throw new RuleException(
                "An album is bound into another one by whoever owns both. Nothing was changed: choose an album of "
                    + "yours."
            );
        }
    }

    private Protector? FindDesign(string key) => designs.Find(key) is { } design ? designs.AsProtector(design) : null;

    private async Task<AlbumFacts> FactsAsync(Guid albumId, AlbumQuestions asks, CancellationToken cancel)
    {
        var counts = new Dictionary<Guid, int>();
        foreach (var unitId in asks.PiecesOf)
        {
            counts[unitId] = await pieces.OfUnitAsync(unitId, cancel);
        }

        return new AlbumFacts
        {
            PiecesOf = counts,
            Pictures = asks.Pictures.IsEmpty
                ? AlbumFacts.None.Pictures
                : await db
                    .Photos.AsNoTracking()
                    .Where(p => p.AlbumId == albumId && asks.Pictures.Contains(p.Id))
                    .ToDictionaryAsync(
                        p => p.Id,
                        p => new PictureTime(p.FileName, p.Camera, p.Recorded, p.Taken),
                        cancel
                    ),
            RecordedTimes = asks.EveryRecordedTime ? await RecordedTimesAsync(db, albumId, cancel) : [],
            Printed = asks.Printed ? await PrintedAsync(albumId, cancel) : AlbumFacts.None.Printed,
        };
    }

    private async Task<Dictionary<Guid, PrintedAs>> PrintedAsync(Guid albumId, CancellationToken cancel)
    {
        var cut = await db
            .PieceTicks.AsNoTracking()
            .Where(t => t.AlbumId == albumId && t.CutAt != null)
            .ToDictionaryAsync(t => t.PieceId, t => t.CutAt!.Value, cancel);
        var printed = await db.PrintedPieces.AsNoTracking().Where(p => p.AlbumId == albumId).ToListAsync(cancel);
        // Cut before it was printed last, it was another print that was cut.
        return printed.ToDictionary(
            p => p.PieceId,
            p => new PrintedAs(
                p.Number,
                new Size(p.CutWidth, p.CutHeight),
                cut.TryGetValue(p.PieceId, out var at) && at >= p.PrintedAt
            )
        );
    }

    /// <summary>What every file of an album says of its time.</summary>
    public static async Task<IReadOnlyList<RecordedTime>> RecordedTimesAsync(
        ZestyContext db,
        Guid albumId,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .Photos.Where(p => p.AlbumId == albumId && p.Recorded != null && p.TimeSource == TimeSource.File)
            .Select(p => new
            {
                p.Recorded,
                p.OffsetMinutes,
                p.Camera,
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(p => new RecordedTime(p.Recorded, p.OffsetMinutes, p.Camera));
    }

    private static string Named(Seen what) =>
        what switch
        {
            Seen.Leaf => "That leaf",
            Seen.Protector => "That page design",
            Seen.Unit => "That week or day",
            _ => "The album",
        };
}
