using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

/// <summary>A photo with the revision the keeper was looking at.</summary>
public sealed record PhotoAt(Guid Id, int Revision);

/// <summary>What to change; whatever is null stays as it is.</summary>
public sealed record PhotoChange(
    Verdict? Verdict = null,
    int? Favourite = null,
    double? FocusX = null,
    double? FocusY = null,
    IReadOnlyList<BoxView>? KeepBoxes = null,
    IReadOnlyList<BoxView>? CoverBoxes = null,
    PictureKind? Kind = null,
    int? Page = null,
    Guid? SeriesId = null,
    bool? LeaveSeries = null,
    LocalDate? Day = null,
    int? Hour = null,
    bool? TakeDayAway = null,
    bool? DayFromClock = null
);

/// <summary>One edit over one photo or many.</summary>
public sealed record PhotoEditRequest(IReadOnlyList<PhotoAt> Photos, PhotoChange Change);

/// <summary>The photos after an edit, what was done, and the edit itself, to undo it.</summary>
public sealed record PhotoEditAnswer(IReadOnlyList<PhotoView> Photos, string Done, Guid? EditId);

/// <summary>Carries out what the keeper decides about photos; every decision is an edit that can be undone.</summary>
public sealed class PhotoEditor(
    ZestyContext db,
    AlbumReader albums,
    History history,
    PhotoDays days,
    PictureCache cache,
    PaintingBench bench,
    ICurrentKeeper keeper
)
{
    public const int MostAtOnce = 2_000;

    public async Task<PhotoEditAnswer> ApplyAsync(Guid albumId, PhotoEditRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var asked = request.Photos.DistinctBy(p => p.Id).ToDictionary(p => p.Id, p => p.Revision);
        if (asked.Count is 0 or > MostAtOnce)
        {
            throw new RuleException($"Choose 1 to {MostAtOnce:N0} pictures at once. Nothing was changed.");
        }

        var photos = await db.Photos.Where(p => p.AlbumId == albumId && asked.Keys.Contains(p.Id)).ToListAsync(cancel);
        if (photos.Count != asked.Count)
        {
            throw new MissingException("One of the photos");
        }

        var calendar = album.ReadCalendar();
        var done = Words(request.Change, photos, calendar);
        foreach (var photo in photos)
        {
            await history.RequireAsync(photo, asked[photo.Id], done, cancel);
        }

        history.Touch(photos);
        foreach (var photo in photos)
        {
            Change(photo, request.Change, calendar);
            if (request.Change.Page is { } page && page != photo.Page)
            {
                await TurnToAsync(photo, page, cancel);
            }
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.ShareAsync(db, albumId, cancel);
        var albumDays = await PhotoDays.ReadAsync(db, album, cancel);
        var moves = photos.Select(p => new PhotoMove(p.Id, p.UnitId, p.Day, albumDays.Place(p))).ToList();
        var leaving = moves
            .Where(m => m.ChangesUnit || photos.Exists(p => p.Id == m.Id && p.Verdict == Verdict.Leave))
            .Select(m => m with { Now = m.ChangesUnit ? m.Now : m.Now with { UnitId = null } })
            .ToList();
        var taken = await days.TakeOutOfPocketsAsync(leaving, history, cancel);
        foreach (var move in moves)
        {
            move.Now.Into(photos.Single(p => p.Id == move.Id));
        }

        if (taken > 0)
        {
            done += $"; {taken} left {(taken == 1 ? "its pocket" : "their pockets")}";
        }

        var units = moves.SelectMany(m => new[] { m.OldUnitId, m.Now.UnitId }).OfType<Guid>();
        var edit = await history.SaveAsync(albumId, keeper.Id, done, units, cancel);
        await transaction.CommitAsync(cancel);
        return new PhotoEditAnswer(photos.ConvertAll(p => PhotoView.Of(p, calendar.Style)), done, edit);
    }

    private static void Change(Photo photo, PhotoChange change, AlbumCalendar calendar)
    {
        photo.Verdict = change.Verdict ?? photo.Verdict;
        if (change.Favourite is { } favourite)
        {
            photo.Favourite = favourite is >= 0 and <= Photo.MostFavourite
                ? favourite
                : throw new RuleException($"A favourite has 0 to {Photo.MostFavourite} stars. Nothing was changed.");
        }

        if (change.FocusX is { } x && change.FocusY is { } y)
        {
            if (!(x is >= 0 and <= 1 && y is >= 0 and <= 1))
            {
                throw new RuleException("The focus point lies outside the picture. Nothing was changed.");
            }

            (photo.FocusX, photo.FocusY, photo.FocusByKeeper) = (x, y, true);
        }

        photo.KeepBoxes = change.KeepBoxes is { } keep
            ? Boxes.Write([.. keep.Select(b => b.ToBox())])
            : photo.KeepBoxes;
        photo.CoverBoxes = change.CoverBoxes is { } cover
            ? Boxes.Write([.. cover.Select(b => b.ToBox())])
            : photo.CoverBoxes;
        photo.Kind = change.Kind ?? photo.Kind;
        if (change.SeriesId is { } series)
        {
            photo.SeriesId = calendar.Series.Any(s => s.Id == series)
                ? series
                : throw new MissingException("The series");
        }
        else if (change.LeaveSeries == true)
        {
            photo.SeriesId = null;
        }

        if (change.Day is { } day)
        {
            if (day.Year is < 1800 or > 2200 || change.Hour is < 0 or >= 30)
            {
                throw new RuleException("That day lies too far away for an album. Nothing was changed.");
            }

            (photo.KeeperDay, photo.KeeperHour, photo.DayTakenAway) = (day, change.Hour, false);
        }
        else if (change.TakeDayAway == true)
        {
            (photo.KeeperDay, photo.KeeperHour, photo.DayTakenAway) = (null, null, true);
        }
        else if (change.DayFromClock == true)
        {
            (photo.KeeperDay, photo.KeeperHour, photo.DayTakenAway) = (null, null, false);
        }
    }

    private async Task TurnToAsync(Photo photo, int page, CancellationToken cancel)
    {
        if (page < 1 || page > photo.Pages)
        {
            throw new RuleException(
                $"{photo.FileName} has {photo.Pages} {(photo.Pages == 1 ? "page" : "pages")}; there is no page "
                    + $"{page}. Nothing was changed."
            );
        }

        photo.Page = page;
        var picture = PhotoView.RefOf(photo);
        // A page of a PDF is drawn first.
        var facts = await bench.RunAsync(() => PictureIntake.Inspect(cache.Readable(picture)), cancel);
        (photo.Width, photo.Height) = (facts.Pixels.Width, facts.Pixels.Height);
    }

    /// <summary>What is done, in the keeper's words.</summary>
    private static string Words(PhotoChange change, List<Photo> photos, AlbumCalendar calendar)
    {
        var what = photos.Count == 1 ? photos[0].FileName : $"{photos.Count} pictures";
        return change switch
        {
            { Verdict: Verdict.Leave } => $"Left {what} out of the album",
            { Verdict: Verdict.Keep } => $"Kept {what}",
            { Verdict: Verdict.Maybe } => $"Marked {what} as maybe",
            { Verdict: Verdict.Undecided } => $"Took the verdict on {what} back",
            { Favourite: { } stars } => stars == 0
                ? $"Took the stars from {what}"
                : $"Gave {what} {stars} {(stars == 1 ? "star" : "stars")}",
            { FocusX: not null } => $"Moved the focus point of {what}",
            { KeepBoxes: not null } => $"Drew what a crop of {what} keeps",
            { CoverBoxes: { } boxes } => boxes.Count == 0
                ? $"Uncovered {what}"
                : $"Covered {boxes.Count} {(boxes.Count == 1 ? "place" : "places")} on {what}",
            { Page: { } page } => $"Turned {what} to page {page}",
            { SeriesId: { } id } =>
                $"Put {what} into the series {calendar.Series.FirstOrDefault(s => s.Id == id)?.Name}",
            { LeaveSeries: true } => $"Took {what} out of its series",
            { Day: { } day, Hour: { } hour } => $"Put {what} on {SpanLabel.Day(day, calendar.Style.Order)}, "
                + $"{SpanLabel.Hour(hour, calendar.Style.Clock)}",
            { Day: { } day } => $"Put {what} on {SpanLabel.Day(day, calendar.Style.Order)}",
            { TakeDayAway: true } => $"Took the day of {what} away",
            { DayFromClock: true } => $"Let the clock say the day of {what} again",
            { Kind: { } kind } => $"Called {what} a {kind.ToString().ToLowerInvariant()}",
            _ => throw new RuleException("That edit lacks something it needs. Nothing was changed."),
        };
    }
}
