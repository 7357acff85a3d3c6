using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>
/// Takes a video in: looked at for frames that are worth being pictures, kept until the keeper is done with it.
/// </summary>
public sealed class VideoIntake(ZestyContext db, IClock clock, UploadQuota quota)
{
    /// <summary>How many frames are looked at.</summary>
    private const int Looked = 24;

    /// <summary>Most frames that are proposed.</summary>
    private const int MostProposed = 8;

    /// <summary>Reading videos is heavy: one at a time over the whole program.</summary>
    private static readonly SemaphoreSlim Bench = new(1);

    /// <summary>Takes the file. A bad one is an outcome, not an exception.</summary>
    public async Task<ImportOutcome> TakeAsync(
        Guid albumId,
        string name,
        IArrivedFile arrived,
        ImportFile? line,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(arrived);
        VideoFacts facts;
        IReadOnlyList<VideoFrame> proposed;
        await Bench.WaitAsync(cancel);
        try
        {
            if (await db.Videos.AnyAsync(v => v.AlbumId == albumId && v.Sha256 == arrived.Original.Sha256, cancel))
            {
                return await EndAsync(line, Known(name), cancel);
            }

            (facts, proposed) = await Task.Run(() => Look(arrived.Path, cancel), cancel);
        }
        catch (PictureRefusedException refused)
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
        await VaultLock.ShareAllAsync(db, cancel);
        try
        {
            arrived.Keep();
            db.Videos.Add(Row(albumId, name, arrived.Original, facts, proposed));
            var frames = NumberWords.Counted(proposed.Count, "frame");
            var outcome = await EndAsync(
                line,
                new ImportOutcome(
                    name,
                    ImportStatus.Opened,
                    $"A video: {frames} proposed. Choose pictures from it in the room Videos.",
                    null,
                    null
                ),
                cancel
            );
            await transaction.CommitAsync(cancel);
            return outcome;
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            await transaction.RollbackAsync(cancel);
            db.ChangeTracker.Entries<Video>().Single().State = EntityState.Detached;
            return await EndAsync(line, Known(name), cancel);
        }
    }

    private static (VideoFacts, IReadOnlyList<VideoFrame>) Look(string path, CancellationToken cancel)
    {
        var facts = VideoFiles.Inspect(path, cancel);
        // A short one has fewer frames than are looked at otherwise: four a second are enough.
        var frames = (int)Math.Clamp(facts.Milliseconds / 250, 1, Looked);
        return (facts, VideoFrames.Propose(VideoFiles.Look(path, facts.Milliseconds, frames, cancel), MostProposed));
    }

    private Video Row(
        Guid albumId,
        string name,
        StoredOriginal original,
        VideoFacts facts,
        IReadOnlyList<VideoFrame> proposed
    ) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            Sha256 = original.Sha256,
            FileName = name,
            Bytes = original.Bytes,
            Width = facts.Pixels.Width,
            Height = facts.Pixels.Height,
            Milliseconds = facts.Milliseconds,
            FramesPerSecond = facts.FramesPerSecond,
            Started = facts.Start.Local,
            OffsetMinutes = facts.Start.OffsetMinutes,
            StartedAt = facts.Start.Instant,
            Camera = facts.Camera,
            Proposed = [.. proposed.Select(f => f.Milliseconds)],
            Taken = [],
            AddedAt = Instant.FromUnixTimeMilliseconds(clock.GetCurrentInstant().ToUnixTimeMilliseconds()),
        };

    private static ImportOutcome Known(string name) =>
        new(name, ImportStatus.AlreadyHere, "The same video is already here, in the room Videos.", null, null);

    private async Task<ImportOutcome> EndAsync(ImportFile? line, ImportOutcome outcome, CancellationToken cancel)
    {
        if (line is not null)
        {
            (line.Status, line.Detail) = (outcome.Status, outcome.Detail);
        }

        await db.SaveChangesAsync(cancel);
        return outcome;
    }
}
