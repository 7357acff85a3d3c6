using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Keeping;

/// <summary>How much one keeper has of a kind of file, and how much and how long may be.</summary>
/// <param name="MostDays">Null for no end.</param>
/// <param name="MostBytes">Null for no end.</param>
public sealed record KeptFilesView(int Files, long Bytes, int? MostDays, long? MostBytes);

/// <summary>What the program keeps beside the albums.</summary>
/// <param name="Prints">Drawn sheets, books and files for a lab.</param>
/// <param name="Videos">Those of which nobody said that they are to be kept.</param>
public sealed record KeptView(KeptFilesView Prints, KeptFilesView Bundles, KeptFilesView Videos);

/// <summary>
/// Lets go what can be made again or nobody wanted to keep: drawn sheets, books and files for a lab, bundles in a store
/// that no row names, and videos that were neither kept nor removed.
/// </summary>
public sealed class MadeFileSweeper(
    ZestyContext db,
    IMadeFiles files,
    VaultSweeper vault,
    ZestySettings settings,
    ICurrentKeeper keeper
)
{
    private const long Megabyte = 1_000_000;

    /// <summary>What arrives or is being written has its row within this time.</summary>
    private static readonly Duration Unnamed = Duration.FromDays(1);

    private FileLimits PrintLimits => new(settings.PrintsKeptDays, settings.PrintsMegabytes * Megabyte);

    /// <summary>Removes what is too old or too much; gives how many files and videos went.</summary>
    public async Task<int> SweepAsync(Instant now, CancellationToken cancel)
    {
        var prints = (await files.ListAsync(settings.Prints, cancel)).Where(f => IsPrint(f.Name));
        var gone = PrintLimits.TooMany(prints, now);
        foreach (var file in gone)
        {
            await files.RemoveAsync(Path.Combine(settings.Prints, file.Name), cancel);
        }

        return gone.Count + await SweepBundlesAsync(now, cancel) + await SweepVideosAsync(now, cancel);
    }

    /// <summary>What the keeper who asks has.</summary>
    public async Task<KeptView> ViewAsync(CancellationToken cancel)
    {
        var own = (
            await db
                .PrintJobs.Where(j => j.KeeperId == keeper.Id)
                .Select(j => j.Id)
                .Concat(db.LabOrders.Where(j => j.KeeperId == keeper.Id).Select(j => j.Id))
                .Concat(db.Books.Where(j => j.KeeperId == keeper.Id).Select(j => j.Id))
                .ToListAsync(cancel)
        )
            .Select(id => id.ToString("N"))
            .ToHashSet();
        var prints = (await files.ListAsync(settings.Prints, cancel)).Where(f => own.Contains(KeyOf(f.Name))).ToList();
        var bundles = await db
            .Backups.Where(b => b.KeeperId == keeper.Id && b.State == JobState.Done)
            .Select(b => b.Bytes)
            .ToListAsync(cancel);
        var videos = await db
            .Videos.Where(v => !v.Kept && db.Albums.Any(a => a.Id == v.AlbumId && a.KeeperId == keeper.Id))
            .Select(v => v.Bytes)
            .ToListAsync(cancel);
        return new KeptView(
            new KeptFilesView(prints.Count, prints.Sum(f => f.Bytes), PrintLimits.MostDays, PrintLimits.MostBytes),
            new KeptFilesView(bundles.Count, bundles.Sum(), null, settings.BundlesMegabytes * Megabyte),
            new KeptFilesView(videos.Count, videos.Sum(), settings.VideosKeptDays, null)
        );
    }

    private async Task<int> SweepBundlesAsync(Instant now, CancellationToken cancel)
    {
        if (!files.IsOwn)
        {
            // A folder may be the keeper's own: what they put there is theirs.
            return 0;
        }

        var named = (await db.Backups.Select(b => b.FileName).ToListAsync(cancel))
            .Concat(await db.Restores.Select(r => r.FileName).ToListAsync(cancel))
            .ToHashSet();
        var unnamed = (await files.ListAsync(settings.Backups, cancel))
            .Where(f => !IsPrint(f.Name) && !named.Contains(f.Name) && now - f.At > Unnamed)
            .ToList();
        foreach (var file in unnamed)
        {
            await files.RemoveAsync(Path.Combine(settings.Backups, file.Name), cancel);
        }

        return unnamed.Count;
    }

    private async Task<int> SweepVideosAsync(Instant now, CancellationToken cancel)
    {
        if (settings.VideosKeptDays is not { } days)
        {
            return 0;
        }

        var before = now - Duration.FromDays(days);
        var old = await db
            .Videos.AsNoTracking()
            .Where(v => !v.Kept && v.AddedAt < before)
            .Select(v => new
            {
                v.Id,
                v.AlbumId,
                v.Sha256,
            })
            .ToListAsync(cancel);
        var ids = old.ConvertAll(v => v.Id);
        // Asked again: somebody may have kept one meanwhile.
        var gone = await db
            .Videos.Where(v => ids.Contains(v.Id) && !v.Kept && v.AddedAt < before)
            .ExecuteDeleteAsync(cancel);
        await vault.RemoveUnnamedAsync(old.ConvertAll(v => v.Sha256), cancel);
        foreach (var album in old.Select(v => v.AlbumId).Distinct())
        {
            await AlbumNews.TellAsync(db, album, NewsKind.Photos, [], cancel);
        }

        return gone;
    }

    /// <summary>Whether a name is one that a print run, a lab order or a book gets: see their runners.</summary>
    private static bool IsPrint(string name) => Guid.TryParseExact(KeyOf(name), "N", out _);

    private static string KeyOf(string name)
    {
        var stem = Path.GetFileNameWithoutExtension(name);
        return stem.StartsWith("book-", StringComparison.Ordinal) ? stem["book-".Length..] : stem;
    }
}

/// <summary>Sweeps made files soon after the program has started and every hour.</summary>
public sealed class MadeFileSweep(IServiceScopeFactory scopes, IClock clock, ILogger<MadeFileSweep> log)
    : PeriodicSweep(scopes, log)
{
    protected override TimeSpan First => TimeSpan.FromMinutes(2);

    protected override TimeSpan Every => TimeSpan.FromHours(1);

    protected override string What => "made files and unkept videos";

    protected override Task<int> SweepAsync(IServiceProvider services, CancellationToken cancel) =>
        services.GetRequiredService<MadeFileSweeper>().SweepAsync(clock.GetCurrentInstant(), cancel);
}
