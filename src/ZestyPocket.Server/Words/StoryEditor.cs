using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Core.Words.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Carries one edit of stories out: loads what it asks for, lets the core make the edit, saves what it touched. A story
/// that changes is set again on its cards in the same edit, so its words and its cards never disagree.
/// </summary>
public sealed class StoryEditor(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    History history,
    ICurrentKeeper keeper,
    IClock clock,
    StoryFitting fitting
)
{
    /// <param name="alongside">What is done in the same transaction once the story has its key; may be null.</param>
    public async Task<StoryAnswer> ApplyAsync(
        Guid albumId,
        StoryEdit edit,
        CancellationToken cancel,
        Func<Guid, Task>? alongside = null
    )
    {
        ArgumentNullException.ThrowIfNull(edit);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.ShareAsync(db, albumId, cancel);
        var album = await albums.RequireAsync(albumId, cancel);
        var asked = edit.Asks().ToList();
        var rows = await db.Stories.Where(s => s.AlbumId == albumId && asked.Contains(s.Id)).ToListAsync(cancel);
        var open = await RequireAsync(albumId, rows, edit, cancel);
        var before = rows.ConvertAll(r => r.Read());
        var edited = edit.Apply(
            new StoryDesk([.. before], await LastOrdinalAsync(albumId, cancel), open?.Desk),
            fitting.Tools
        );
        if (edited.Content is { } content && open is not null)
        {
            history.Touch(open.Unit);
            open.Unit.Write(content);
        }

        Write(album, rows, edited.Stories);
        var told = await FollowAsync(rows, before, edited, cancel);
        var days = edited.Stories.Concat(before).SelectMany(s => s.Days).ToHashSet();
        var units = await UnitsOfAsync(album, days, cancel);
        var editId = await history.SaveAsync(
            albumId,
            keeper.Id,
            edited.Done,
            open is null ? units.Union(told) : units.Union(told).Append(open.Unit.Id),
            cancel
        );
        if (alongside is not null)
        {
            await alongside(edited.StoryId);
        }

        await transaction.CommitAsync(cancel);
        return new StoryAnswer(edited.Done, editId, edited.StoryId, edited.Says);
    }

    /// <summary>Takes the stories of a file in; posts that are here already are passed over.</summary>
    public async Task<StoriesArrived> ArriveAsync(
        Guid albumId,
        IReadOnlyList<ArrivedStory> arrived,
        CancellationToken cancel
    )
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // Alone: the same file twice at once must not bring its posts twice.
        await AlbumLock.HoldAsync(db, albumId, cancel);
        var album = await albums.RequireAsync(albumId, cancel);
        var rows = await db.Stories.IgnoreQueryFilters().Where(s => s.AlbumId == albumId).ToListAsync(cancel);
        var arriving = ArrivingStories.Into(rows.ConvertAll(r => r.Read()), arrived, fitting.Tools.NewId);
        Write(album, rows, arriving.Stories);
        var editId = await history.SaveAsync(
            albumId,
            keeper.Id,
            arriving.Done,
            await UnitsOfAsync(album, [.. arriving.Stories.SelectMany(s => s.Days)], cancel),
            cancel
        );
        await transaction.CommitAsync(cancel);
        var found = (await StoryPictures.FindAsync(db, albumId, arriving.Pictures, cancel)).Select(f => f.Key).ToList();
        return new StoriesArrived(
            arriving.InWords(),
            editId,
            arriving.Stories.Length,
            arriving.Passed,
            arriving.WithoutDay,
            found.Count,
            [.. arriving.Pictures.Except(found).Take(100)]
        );
    }

    /// <summary>Checks what the edit was made on, and opens the unit it works on.</summary>
    private async Task<OpenUnit?> RequireAsync(Guid albumId, List<Story> rows, StoryEdit edit, CancellationToken cancel)
    {
        switch (edit.MadeOn())
        {
            case { What: Seen.Story } seen:
                var story = rows.Find(r => r.Id == seen.Id) ?? throw new MissingException("The story");
                await history.MergeAsync(story, seen.Revision, edit.Label(), cancel);
                return null;
            case { What: Seen.Unit } seen:
                var open = await opener.OpenAsync(seen.Id, cancel);
                if (open.Album.Id != albumId)
                {
                    throw new MissingException("That week or day");
                }

                await history.MergeAsync(open.Unit, seen.Revision, edit.Label(), cancel);
                return open;
            case null:
                return null;
            default:
                throw new NotSupportedException($"{edit.GetType().Name} is made on something else.");
        }
    }

    /// <summary>Writes changed stories into their rows and adds rows for new ones.</summary>
    private void Write(Album album, List<Story> rows, IEnumerable<AlbumStory> stories)
    {
        foreach (var story in stories)
        {
            var row = rows.Find(r => r.Id == story.Id);
            if (row is null)
            {
                // A new row counts as gone until it is filled, so that undoing its making takes it away.
                row = new Story
                {
                    Id = story.Id,
                    AlbumId = album.Id,
                    MadeAt = clock.GetCurrentInstant(),
                    Ordinal = story.Ordinal,
                    Gone = true,
                };
                db.Stories.Add(row);
                rows.Add(row);
            }

            history.Touch(row);
            row.Write(story);
        }
    }

    /// <summary>Lets the cards of stories follow that were changed; gives the units in which they lie.</summary>
    private async Task<List<Guid>> FollowAsync(
        List<Story> rows,
        List<AlbumStory> before,
        StoriesEdited edited,
        CancellationToken cancel
    )
    {
        var told = new List<Guid>();
        foreach (var story in edited.Stories)
        {
            if (before.Find(b => b.Id == story.Id) is { } was && story.ChangesCards(was))
            {
                told.AddRange(await fitting.FitAgainAsync(rows.Single(r => r.Id == story.Id), cancel));
            }
        }

        return told;
    }

    private async Task<int> LastOrdinalAsync(Guid albumId, CancellationToken cancel) =>
        await db.Stories.IgnoreQueryFilters().Where(s => s.AlbumId == albumId).MaxAsync(s => (int?)s.Ordinal, cancel)
        ?? 0;

    private async Task<IEnumerable<Guid>> UnitsOfAsync(
        Album album,
        IReadOnlyCollection<LocalDate> days,
        CancellationToken cancel
    ) => (await PhotoDays.ReadAsync(db, album, cancel)).UnitsOn(days);
}
