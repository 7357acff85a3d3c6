using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core.Dates;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

public enum ImportStatus
{
    Added,
    AlreadyHere,
    Refused,
}

/// <summary>What became of one file: one line for the keeper.</summary>
/// <param name="FileName">As it was called.</param>
/// <param name="Status">What happened.</param>
/// <param name="Detail">Where it went, or why it was refused and what to do.</param>
/// <param name="PhotoId">The photo, unless refused.</param>
/// <param name="UnitId">The week it belongs to, if any.</param>
public sealed record ImportOutcome(string FileName, ImportStatus Status, string Detail, Guid? PhotoId, Guid? UnitId);

/// <summary>Takes a file into an album: checked, hashed, kept, dated.</summary>
public sealed class PhotoImport(ZestyContext db, IPhotoVault vault, PictureCache cache, IClock clock)
{
    /// <summary>Decoding is heavy: as many files side by side as there are cores, however many are sent.</summary>
    private static readonly SemaphoreSlim Bench = new(Environment.ProcessorCount);

    /// <summary>Imports one file. A bad file is an outcome, not an exception.</summary>
    public async Task<ImportOutcome> ImportAsync(Album album, string fileName, Stream content, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(album);
        var name = CleanName(fileName);
        using var arrived = await vault.ReceiveAsync(content, PictureIntake.LargestFile, cancel);
        var sha = arrived.Original.Sha256;
        if (await FindAsync(album.Id, sha, cancel) is { } known)
        {
            return AlreadyHere(name, known);
        }

        PictureFacts facts;
        await Bench.WaitAsync(cancel);
        try
        {
            facts = PictureIntake.Inspect(arrived.Path);
            cache.KeepThumbnail(sha, PictureIntake.Thumbnail(arrived.Path, PictureIntake.ThumbnailSide));
        }
        catch (PictureRefusedException refused)
        {
            return new ImportOutcome(name, ImportStatus.Refused, refused.Message, null, null);
        }
        finally
        {
            Bench.Release();
        }

        var day = facts.Recorded is { } taken ? AlbumDay.Of(taken, album.LateNightCutOff) : (LocalDate?)null;
        var unit = day is null
            ? null
            : await db.Units.Where(u => u.AlbumId == album.Id && u.FirstDay <= day && u.LastDay >= day)
                .Select(u => new { u.Id, u.FirstDay }).FirstOrDefaultAsync(cancel);
        var photo = new Photo
        {
            Id = Guid.CreateVersion7(),
            AlbumId = album.Id,
            UnitId = unit?.Id,
            Sha256 = sha,
            FileName = name,
            Format = facts.Format,
            Bytes = arrived.Original.Bytes,
            Width = facts.Pixels.Width,
            Height = facts.Pixels.Height,
            Recorded = facts.Recorded,
            OffsetMinutes = facts.OffsetMinutes,
            Camera = facts.Camera,
            Latitude = facts.Latitude,
            Longitude = facts.Longitude,
            Day = day,
            AddedAt = Instant.FromUnixTimeMilliseconds(clock.GetCurrentInstant().ToUnixTimeMilliseconds()),
        };

        // The original is in its place before the row that names it exists.
        arrived.Keep();
        db.Photos.Add(photo);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice) when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            db.Entry(photo).State = EntityState.Detached;
            return AlreadyHere(name, (await FindAsync(album.Id, sha, cancel))!);
        }

        var detail = (day, unit) switch
        {
            (null, _) => "No date in the file: it waits in the “no week yet” tray.",
            ({ } d, null) => $"{SpanLabel.Day(d)} {d.Year} is in none of the album's weeks: it waits in the “no week yet” tray.",
            ({ } d, { } u) => $"{SpanLabel.Day(d)}, week {Week.Holding(u.FirstDay).Number}",
        };
        return new ImportOutcome(name, ImportStatus.Added, detail, photo.Id, unit?.Id);
    }

    private Task<Photo?> FindAsync(Guid albumId, string sha, CancellationToken cancel) =>
        db.Photos.AsNoTracking().SingleOrDefaultAsync(p => p.AlbumId == albumId && p.Sha256 == sha, cancel);

    private static ImportOutcome AlreadyHere(string name, Photo known) => new(
        name,
        ImportStatus.AlreadyHere,
        known.LeftOut
            ? $"The same file is already here as {known.FileName}, left out of the album: take it back from there."
            : $"The same file is already here as {known.FileName}.",
        known.Id,
        known.UnitId);

    /// <summary>The last part of a path, without control characters, at most 255 characters.</summary>
    private static string CleanName(string name)
    {
        var last = name.Split('/', '\\')[^1];
        var clean = new string([.. last.Where(c => !char.IsControl(c))]).Trim();
        return clean.Length switch { 0 => "unnamed", > 255 => clean[..255], _ => clean };
    }
}
