using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

/// <summary>A photo with the revision the keeper was looking at.</summary>
public sealed record PhotoAt(Guid Id, int Revision);

/// <summary>One edit over one photo or many.</summary>
public sealed record PhotoEditRequest(IReadOnlyList<PhotoAt> Photos, PhotoEdit Edit);

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
    ReaderPool readers,
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
        var decided = photos.ConvertAll(p => p.Decisions());
        var done = request.Edit.Done(PhotoEdit.What(decided), calendar);
        foreach (var photo in photos)
        {
            await history.MergeAsync(photo, asked[photo.Id], done, cancel);
        }

        history.Touch(photos);
        foreach (var (photo, was) in photos.Zip(decided))
        {
            photo.Write(request.Edit.Apply(was, calendar));
            if (photo.Page != was.Page)
            {
                await MeasurePageAsync(photo, cancel);
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

    /// <summary>Another page of a PDF has another size; it is drawn first.</summary>
    private async Task MeasurePageAsync(Photo photo, CancellationToken cancel)
    {
        var picture = PhotoView.RefOf(photo);
        var facts = await bench.RunAsync(() => readers.Do(new MeasurePicture(cache.Readable(picture))), cancel);
        (photo.Width, photo.Height) = (facts.Pixels.Width, facts.Pixels.Height);
    }
}
