using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>Reads the stories that tell of the days of units.</summary>
public sealed class StoriesOfDays(ZestyContext db)
{
    /// <summary>By unit, all of one album: one question to the database for all of them.</summary>
    public async Task<ILookup<Guid, StoryOfDays>> OfAsync(IReadOnlyList<OpenUnit> units, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(units);
        if (units.Count == 0)
        {
            return Array.Empty<(Guid, StoryOfDays)>().ToLookup(s => s.Item1, s => s.Item2);
        }

        var albumId = units[0].Album.Id;
        var (first, last) = (units.Min(u => u.Dates.First), units.Max(u => u.Dates.Last));
        var stories = await db
            .Stories.AsNoTracking()
            .Where(s => s.AlbumId == albumId && s.Days.Any(d => d >= first && d <= last))
            .OrderBy(s => s.Ordinal)
            .ThenBy(s => s.Id)
            .Select(s => new
            {
                s.Id,
                s.Title,
                s.Words,
                s.Days,
                s.Hour,
            })
            .ToListAsync(cancel);
        return (
            from unit in units
            from story in stories
            where AlbumStory.IsToldIn(story.Days, story.Hour, unit.Dates, unit.Calendar.Waking)
            select (unit.Unit.Id, Story: new StoryOfDays(story.Id, story.Words, story.Days[0]) { Title = story.Title })
        ).ToLookup(s => s.Id, s => s.Story);
    }
}
