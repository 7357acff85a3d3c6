using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

/// <summary>Which of an album's photos a list is about.</summary>
public enum PhotoScope
{
    /// <summary>Everything but what is left out.</summary>
    All,

    /// <summary>Without a day.</summary>
    NoDate,

    /// <summary>With a day that no unit of the album has.</summary>
    Outside,

    /// <summary>Left out by the keeper.</summary>
    LeftOut,
}

public enum Orientation
{
    Landscape,
    Upright,
    Square,
}

/// <summary>What is asked for; whatever is null does not narrow the list.</summary>
public sealed record PhotoFilter
{
    /// <summary>A <see cref="PhotoScope"/>.</summary>
    public string? Scope { get; init; }

    /// <summary>Only what this unit holds.</summary>
    public Guid? UnitId { get; init; }

    /// <summary>Of this camera; empty for files that name none.</summary>
    public string? Camera { get; init; }

    /// <summary>An <see cref="Photos.Orientation"/>.</summary>
    public string? Orientation { get; init; }

    /// <summary>With at least that many stars.</summary>
    public int? Favourite { get; init; }

    /// <summary>A <see cref="Core.Photos.Verdict"/>.</summary>
    public string? Verdict { get; init; }

    /// <summary>A <see cref="PictureKind"/>.</summary>
    public string? Kind { get; init; }

    /// <summary>Only what lies in no pocket.</summary>
    public bool? Unplaced { get; init; }

    /// <summary>Only what does not fill a 4x6 at 300 ppi.</summary>
    public bool? TooSmall { get; init; }

    /// <summary>Only pictures of which there are several of one moment.</summary>
    public bool? Lookalikes { get; init; }

    /// <summary>From this day on, as <c>2026-05-04</c>.</summary>
    public string? From { get; init; }

    /// <summary>Where the last stretch ended.</summary>
    public string? After { get; init; }

    /// <summary>How many, up to 500.</summary>
    public int? Take { get; init; }
}

/// <summary>A stretch of the list and where it goes on; no cursor at its end.</summary>
public sealed record PhotoPage(IReadOnlyList<PhotoView> Photos, string? Next);

/// <summary>
/// Lists an album's photos in the order of time, stretch by stretch, the same speed however many there are.
/// </summary>
public sealed class PhotoListing(ZestyContext db)
{
    public const int MostAtOnce = 500;

    // Six by four inches at 300 ppi, as the rule in the core counts it, for the database.
    private const int LongSideOf4x6 = 1797;
    private const int ShortSideOf4x6 = 1198;

    public async Task<PhotoPage> PageAsync(Album album, PhotoFilter filter, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(album);
        ArgumentNullException.ThrowIfNull(filter);
        var take = Math.Clamp(filter.Take ?? 200, 1, MostAtOnce);
        var photos = Matching(album.Id, filter);
        if (filter.After is { } after)
        {
            var (at, id) = Cursor(after);
            photos = photos.Where(p => p.SortAt > at || (p.SortAt == at && p.Id.CompareTo(id) > 0));
        }
        else if (filter.From is { } from)
        {
            var day = NodaTime.Text.LocalDatePattern.Iso.Parse(from) is { Success: true, Value: var date }
                ? date
                : throw new RuleException($"“{from}” is not a day. Write it as 2026-05-04.");
            var start = Zones.At(day.AtMidnight(), Zones.Find(album.ReadCalendar().HomeZone));
            photos = photos.Where(p => p.SortAt >= start);
        }

        var rows = await photos
            .OrderBy(p => p.SortAt)
            .ThenBy(p => p.Id)
            .Take(take + 1)
            .AsNoTracking()
            .ToListAsync(cancel);
        var style = album.ReadCalendar().Style;
        var more = rows.Count > take;
        var shown = rows.Take(take).ToList();
        return new PhotoPage(
            shown.ConvertAll(p => PhotoView.Of(p, style)),
            more
                ? string.Create(CultureInfo.InvariantCulture, $"{shown[^1].SortAt.ToUnixTimeTicks()}_{shown[^1].Id:N}")
                : null
        );
    }

    public Task<int> CountAsync(Guid albumId, PhotoFilter filter, CancellationToken cancel) =>
        Matching(albumId, filter).CountAsync(cancel);

    private IQueryable<Photo> Matching(Guid albumId, PhotoFilter filter)
    {
        var photos = db.Photos.Where(p => p.AlbumId == albumId);
        var verdict = Named<Verdict>(filter.Verdict);
        photos = (Named<PhotoScope>(filter.Scope) ?? PhotoScope.All) switch
        {
            PhotoScope.NoDate => photos.Where(p => p.Day == null && p.Verdict != Verdict.Leave),
            PhotoScope.Outside => photos.Where(p => p.Day != null && p.UnitId == null && p.Verdict != Verdict.Leave),
            PhotoScope.LeftOut => photos.Where(p => p.Verdict == Verdict.Leave),
            _ => verdict == Verdict.Leave ? photos : photos.Where(p => p.Verdict != Verdict.Leave),
        };
        if (filter.UnitId is { } unit)
        {
            photos = photos.Where(p => p.UnitId == unit);
        }

        if (filter.Camera is { } camera)
        {
            photos = photos.Where(p => camera == string.Empty ? p.Camera == null : p.Camera == camera);
        }

        photos = Named<Orientation>(filter.Orientation) switch
        {
            Orientation.Landscape => photos.Where(p => p.Width > p.Height),
            Orientation.Upright => photos.Where(p => p.Width < p.Height),
            Orientation.Square => photos.Where(p => p.Width == p.Height),
            _ => photos,
        };
        if (filter.Favourite is { } favourite)
        {
            photos = photos.Where(p => p.Favourite >= favourite);
        }

        if (verdict is { } asked)
        {
            photos = photos.Where(p => p.Verdict == asked);
        }

        if (Named<PictureKind>(filter.Kind) is { } kind)
        {
            photos = photos.Where(p => p.Kind == kind);
        }

        if (filter.Unplaced == true)
        {
            photos = photos.Where(p => !db.Units.Any(u => u.Id == p.UnitId && u.PhotosPlaced.Contains(p.Id)));
        }

        if (filter.TooSmall == true)
        {
            photos = photos.Where(p =>
                Math.Max(p.Width, p.Height) < LongSideOf4x6 || Math.Min(p.Width, p.Height) < ShortSideOf4x6
            );
        }

        return filter.Lookalikes == true ? photos.Where(p => p.GroupId != null) : photos;
    }

    /// <summary>Names of choices as the rest of the interface writes them, whatever their case.</summary>
    private static T? Named<T>(string? name)
        where T : struct, Enum =>
        name is null ? null
        : Enum.TryParse<T>(name, ignoreCase: true, out var value) && Enum.IsDefined(value) ? value
        : throw new RuleException($"There is no choice “{name}” in this list.");

    private static (Instant At, Guid Id) Cursor(string text)
    {
        var parts = text.Split('_');
        return
            parts.Length == 2
            && long.TryParse(parts[0], CultureInfo.InvariantCulture, out var ticks)
            && Guid.TryParse(parts[1], out var id)
            && ticks >= Instant.MinValue.ToUnixTimeTicks()
            && ticks <= Instant.MaxValue.ToUnixTimeTicks()
            ? (Instant.FromUnixTimeTicks(ticks), id)
            : throw new RuleException("The list cannot go on from there. Read it again from its start.");
    }
}
