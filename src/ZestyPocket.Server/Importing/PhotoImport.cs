using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>What became of one file: one line for the keeper.</summary>
/// <param name="FileName">As it was called.</param>
/// <param name="Status">What happened.</param>
/// <param name="Detail">Where it went, or why it was refused and what to do.</param>
/// <param name="PhotoId">The photo, unless refused.</param>
/// <param name="UnitId">The unit it belongs to, if any.</param>
public sealed record ImportOutcome(string FileName, ImportStatus Status, string Detail, Guid? PhotoId, Guid? UnitId);

/// <summary>Takes a file into an album: checked, hashed, kept, dated, judged.</summary>
public sealed class PhotoImport(
    ZestyContext db,
    PictureCache cache,
    IClock clock,
    VideoIntake videos,
    ReaderPool readers,
    UploadQuota quota
)
{
    /// <summary>Decoding is heavy: as many files side by side as there are cores, however many are sent.</summary>
    private static readonly SemaphoreSlim Bench = new(Environment.ProcessorCount);

    /// <summary>
    /// Imports one file that has arrived. A bad file is an outcome, not an exception. The row of an import job, if
    /// given, is written in the same transaction as the photo, so that a crash leaves both or neither.
    /// </summary>
    public async Task<ImportOutcome> TakeAsync(
        Guid albumId,
        string fileName,
        IArrivedFile arrived,
        LocalDateTime? modified,
        ImportFile? line,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(arrived);
        var name = CleanName(fileName);
        var sha = arrived.Original.Sha256;
        if (VideoFiles.Is(arrived.Path))
        {
            return await videos.TakeAsync(albumId, name, arrived, line, cancel);
        }

        if (await FindAsync(albumId, sha, cancel) is { } known)
        {
            return await EndAsync(line, AlreadyHere(name, known), cancel);
        }

        PictureFacts facts;
        PictureJudgement judgement;
        await Bench.WaitAsync(cancel);
        try
        {
            var format = PictureIntake.Accept(arrived.Path, name);
            // A file of an import that takes long is set aside at first; by itself, or taken up last, it has its full
            // time.
            var patience = line is { SetAside: false } ? WorkingCopies.FirstTime : WorkingCopies.LongestTime;
            var (readable, pages) = cache.Readable(arrived.Path, new PictureRef(sha), format, patience, cancel);
            (facts, var thumbnail, judgement) = readers.Do(
                new LookAtPicture(Path.GetFullPath(arrived.Path), format, readable, pages),
                cancel: cancel
            );
            cache.KeepThumbnail(new PictureRef(sha), thumbnail);
        }
        catch (PictureRefusedException refused)
            when (refused is not PictureTakesLongException || line is not { SetAside: false })
        {
            return await EndAsync(
                line,
                new ImportOutcome(name, ImportStatus.Refused, refused.Message, null, null),
                cancel
            );
        }
        finally
        {
            Bench.Release();
        }

        if (await quota.RefusalAsync(albumId, arrived.Original.Bytes, cancel) is { } full)
        {
            return await EndAsync(line, new ImportOutcome(name, ImportStatus.Refused, full, null, null), cancel);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.ShareAsync(db, albumId, cancel);
        // The original is in its place before the row that names it exists, and is not swept in between.
        await VaultLock.ShareAllAsync(db, cancel);
        arrived.Keep();
        var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == albumId, cancel);
        var days = await PhotoDays.ReadAsync(db, album, cancel);
        var photo = Photo(albumId, days, name, arrived.Original, facts, judgement, modified, line?.FolderDay);
        db.Photos.Add(photo);
        var outcome = new ImportOutcome(name, ImportStatus.Added, Where(days, photo), photo.Id, photo.UnitId);
        try
        {
            outcome = await EndAsync(line, outcome, cancel);
            await AlbumNews.TellAsync(db, albumId, NewsKind.Photos, photo.UnitId is { } unit ? [unit] : [], cancel);
            await transaction.CommitAsync(cancel);
            return outcome;
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            await transaction.RollbackAsync(cancel);
            db.Entry(photo).State = EntityState.Detached;
            return await EndAsync(line, AlreadyHere(name, (await FindAsync(albumId, sha, cancel))!), cancel);
        }
    }

    private async Task<ImportOutcome> EndAsync(ImportFile? line, ImportOutcome outcome, CancellationToken cancel)
    {
        if (line is not null)
        {
            (line.Status, line.Detail, line.PhotoId, line.UnitId) = (
                outcome.Status,
                outcome.Detail,
                outcome.PhotoId,
                outcome.UnitId
            );
        }

        await db.SaveChangesAsync(cancel);
        return outcome;
    }

    private Photo Photo(
        Guid albumId,
        AlbumDays days,
        string name,
        StoredOriginal original,
        PictureFacts facts,
        PictureJudgement judgement,
        LocalDateTime? modified,
        LocalDate? folderDay
    )
    {
        var named =
            facts.Recorded is not null ? null
            : FileNameDate.Read(name) is { } own ? own
            : folderDay is { } day ? new NamedDate(day, null)
            : null;
        var source =
            facts.Recorded is not null ? TimeSource.File
            : named is null ? TimeSource.None
            : named.Time is null ? TimeSource.NameDay
            : TimeSource.Name;
        var photo = new Photo
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            Sha256 = original.Sha256,
            FileName = name,
            Format = facts.Format.ToString(),
            Bytes = original.Bytes,
            Width = facts.Pixels.Width,
            Height = facts.Pixels.Height,
            Recorded = facts.Recorded ?? named?.Day.At(named.Time ?? LocalTime.Noon),
            TimeSource = source,
            OffsetMinutes = facts.OffsetMinutes,
            Camera = facts.Camera,
            Latitude = facts.Latitude,
            Longitude = facts.Longitude,
            GuessedDay = source == TimeSource.None ? modified?.Date : null,
            Pages = facts.Pages,
            Kind = KindOf(name, facts),
            Tone = judgement.Tone,
            Colourfulness = judgement.Colourfulness,
            Sharpness = judgement.Sharpness,
            Likeness = unchecked((long)judgement.Likeness),
            Palette = Boxes.WritePalette(judgement.Palette),
            FocusX = judgement.FocusX,
            FocusY = judgement.FocusY,
            // PostgreSQL keeps microseconds.
            AddedAt = Instant.FromUnixTimeMilliseconds(clock.GetCurrentInstant().ToUnixTimeMilliseconds()),
        };
        days.Place(photo).Into(photo);
        return photo;
    }

    /// <summary>
    /// A first guess, which the keeper can change: nothing depends on it but how pictures are listed.
    /// </summary>
    private static PictureKind KindOf(string name, PictureFacts facts) =>
        facts switch
        {
            { Format: PictureFormat.Pdf } => PictureKind.Page,
            _ when name.Contains("screenshot", StringComparison.OrdinalIgnoreCase)
                    || name.Contains("screen shot", StringComparison.OrdinalIgnoreCase) => PictureKind.Screenshot,
            { Camera: null }
                when name.StartsWith("scan", StringComparison.OrdinalIgnoreCase)
                    || facts.Format == PictureFormat.Tiff => PictureKind.Scan,
            _ => PictureKind.Photo,
        };

    private static string Where(AlbumDays days, Photo photo)
    {
        var style = days.Calendar.Style;
        if (photo.Day is not { } day)
        {
            return photo.GuessedDay is { } guess
                ? $"No date in the file: it waits in the “no date” tray, with {SpanLabel.Day(guess, style.Order)} "
                    + $"{guess.Year} as a guess."
                : "No date in the file: it waits in the “no date” tray.";
        }

        var by = photo.TimeSource is TimeSource.Name or TimeSource.NameDay ? " by its name" : string.Empty;
        var label = $"{SpanLabel.Day(day, style.Order)}{by}";
        return photo.UnitId is { } unit
            ? $"{label}, {days.Dates(unit)!.Title(style)}"
            : $"{label} {day.Year} is in no week or day of this album: it waits in the “not in the album” tray.";
    }

    private Task<Photo?> FindAsync(Guid albumId, ContentHash sha, CancellationToken cancel) =>
        db.Photos.AsNoTracking().SingleOrDefaultAsync(p => p.AlbumId == albumId && p.Sha256 == sha, cancel);

    private static ImportOutcome AlreadyHere(string name, Photo known) =>
        new(
            name,
            ImportStatus.AlreadyHere,
            known.Verdict == Verdict.Leave
                ? $"The same file is already here as {known.FileName}, left out of the album: take it back from there."
                : $"The same file is already here as {known.FileName}.",
            known.Id,
            known.UnitId
        );

    /// <summary>The last part of a path, without control characters, at most 255 characters.</summary>
    public static string CleanName(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var clean = PlainWords.Name(name.Split('/', '\\')[^1]);
        if (clean.Length > 255)
        {
            // Never between the two halves of one character.
            clean = clean[..(char.IsHighSurrogate(clean[254]) ? 254 : 255)];
        }

        return clean.Length == 0 ? "unnamed" : clean;
    }
}
