using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>Fits stories again on the cards that carry them, inside an edit that may have changed either.</summary>
public sealed class StoryFitting(ZestyContext db, UnitOpener opener, History history, FontShelf fonts)
{
    /// <summary>Keys for new cards, and the measure of type.</summary>
    public EditTools Tools { get; } = new(Guid.CreateVersion7, fonts);

    /// <summary>Gives the units in which the stories' cards lie.</summary>
    public async Task<IReadOnlyList<Guid>> FitAgainAsync(IReadOnlyCollection<Guid> storyIds, CancellationToken cancel)
    {
        var units = new List<Guid>();
        foreach (var story in await db.Stories.Where(s => storyIds.Contains(s.Id)).ToListAsync(cancel))
        {
            units.AddRange(await FitAgainAsync(story, cancel));
        }

        return units;
    }

    /// <summary>The stories whose cards lie in these units; gives the units in which they lie.</summary>
    public Task<IReadOnlyList<Guid>> FitAgainInAsync(IEnumerable<AlbumUnit> units, CancellationToken cancel)
    {
        var told = units
            .SelectMany(u => u.Read().Pieces.OfType<Card>())
            .Select(c => c.StoryId)
            .OfType<Guid>()
            .Distinct()
            .ToList();
        return told.Count == 0 ? Task.FromResult<IReadOnlyList<Guid>>([]) : FitAgainAsync(told, cancel);
    }

    /// <summary>On all cards that carry it; gives the units in which they lie.</summary>
    public async Task<IReadOnlyList<Guid>> FitAgainAsync(Story story, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(story);
        var units = await UnitsWithAsync(story, cancel);
        foreach (var id in units)
        {
            var open = await opener.OpenAsync(id, cancel);
            history.Touch(open.Unit);
            open.Unit.Write(StoryOnCards.Again(open.Desk, story.Read(), Tools));
        }

        return units;
    }

    private Task<List<Guid>> UnitsWithAsync(Story story, CancellationToken cancel)
    {
        var carries = $$"""{"pieces":[{"storyId":"{{story.Id}}"}]}""";
        return db
            .Units.Where(u => u.AlbumId == story.AlbumId && EF.Functions.JsonContains(u.Content, carries))
            .Select(u => u.Id)
            .ToListAsync(cancel);
    }
}
