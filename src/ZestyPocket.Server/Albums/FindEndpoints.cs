using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Albums;

public enum FoundKind
{
    /// <summary>A week, day or hour, by its name, its number or a date in it.</summary>
    Unit,

    /// <summary>A photo, by its file name.</summary>
    Photo,

    /// <summary>A story, by its title or its words.</summary>
    Story,
}

/// <summary>Something of an album that was found.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="Note">When it is, or the words that were found.</param>
/// <param name="UnitId">Where to look at it; null when it belongs to no week or day.</param>
public sealed record FoundView(FoundKind Kind, Guid Id, string Title, string Note, Guid? UnitId);

public static class FindEndpoints
{
    public static void MapFind(this IEndpointRouteBuilder api) =>
        api.MapGroup("/albums/{albumId:guid}")
            .WithTags("Albums")
            .MapGet(
                "/find",
                (Guid albumId, [FromQuery] string? words, AlbumFinder finder, CancellationToken cancel) =>
                    finder.FindAsync(albumId, words ?? "", cancel)
            )
            .WithName("findInAlbum")
            .WithProblems();
}

/// <summary>Finds weeks and days, photos and stories of an album by what somebody types.</summary>
public sealed class AlbumFinder(ZestyContext db, AlbumReader albums)
{
    public const int LongestWords = 100;

    /// <summary>More of one kind than this is no help in a list that is looked through at a glance.</summary>
    public const int MostOfAKind = 8;

    private const int LongestNote = 90;

    public async Task<IReadOnlyList<FoundView>> FindAsync(Guid albumId, string words, CancellationToken cancel)
    {
        var album = await albums.ViewAsync(albumId, cancel);
        var asked = PlainWords.Clean(words ?? string.Empty).Trim();
        if (asked.Length > LongestWords)
        {
            throw new RuleException($"Type at most {LongestWords} characters to find something.");
        }

        return asked.Length == 0
            ? []
            :
            [
                .. Units(album, asked),
                .. await PhotosAsync(album, asked, cancel),
                .. await StoriesAsync(album, asked, cancel),
            ];
    }

    private static IEnumerable<FoundView> Units(AlbumView album, string asked)
    {
        var units = album.Units;
        var days =
            units.Count == 0
                ? []
                : DateWords.Read(asked, album.DateOrder, units.Min(u => u.FirstDay), units.Max(u => u.LastDay));
        return units
            .Where(u =>
                days.Any(d => u.FirstDay <= d && d <= u.LastDay)
                || u.Title.Contains(asked, StringComparison.OrdinalIgnoreCase)
                || u.Label.Contains(asked, StringComparison.OrdinalIgnoreCase)
                || string.Equals(u.Mark, asked, StringComparison.OrdinalIgnoreCase)
            )
            // “Week 1” means week 1 before weeks 10 to 19.
            .OrderByDescending(u => string.Equals(u.Title, asked, StringComparison.OrdinalIgnoreCase))
            .ThenByDescending(u => string.Equals(u.Mark, asked, StringComparison.OrdinalIgnoreCase))
            .Take(MostOfAKind)
            .Select(u => new FoundView(FoundKind.Unit, u.Id, u.Title, u.Label, u.Id));
    }

    private async Task<IEnumerable<FoundView>> PhotosAsync(AlbumView album, string asked, CancellationToken cancel)
    {
        var like = Anywhere(asked);
        var photos = await db
            .Photos.Where(p => p.AlbumId == album.Id && EF.Functions.ILike(p.FileName, like, Escape))
            .OrderBy(p => p.SortAt)
            .ThenBy(p => p.Id)
            .Take(MostOfAKind)
            .Select(p => new
            {
                p.Id,
                p.FileName,
                p.Day,
                p.UnitId,
            })
            .ToListAsync(cancel);
        return photos.Select(p => new FoundView(
            FoundKind.Photo,
            p.Id,
            p.FileName,
            p.Day is { } day ? SpanLabel.Of(day, day, album.DateOrder) : "no date",
            p.UnitId
        ));
    }

    private async Task<IEnumerable<FoundView>> StoriesAsync(AlbumView album, string asked, CancellationToken cancel)
    {
        var like = Anywhere(asked);
        var stories = await db
            .Stories.Where(s =>
                s.AlbumId == album.Id
                && !s.Gone
                && (EF.Functions.ILike(s.Title, like, Escape) || EF.Functions.ILike(s.Words, like, Escape))
            )
            .OrderBy(s => s.MadeAt)
            .Take(MostOfAKind)
            .ToListAsync(cancel);
        if (stories.Count == 0)
        {
            return [];
        }

        var days = await PhotoDays.ReadAsync(db, await albums.RequireAsync(album.Id, cancel), cancel);
        return stories.Select(s => new FoundView(
            FoundKind.Story,
            s.Id,
            s.Title.Length > 0 ? s.Title : Excerpt.Around(s.Words, string.Empty, 40),
            Excerpt.Around(s.Words, asked, LongestNote),
            AlbumStory.UnitOf(s.Days, s.Hour, days.Units, days.Calendar.Waking)
        ));
    }

    private const string Escape = "\\";

    /// <summary>What is typed stands for itself: no sign in it has a meaning of its own.</summary>
    private static string Anywhere(string asked)
    {
        var literal = new StringBuilder();
        foreach (var sign in asked)
        {
            literal.Append(sign is '\\' or '%' or '_' ? Escape : string.Empty).Append(sign);
        }

        return $"%{literal}%";
    }
}
