using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>Takes originals out of the vault that nothing names any more.</summary>
public sealed class VaultSweeper(IDbContextFactory<ZestyContext> contexts, IPhotoVault vault)
{
    /// <summary>What arrived within this time may still get a row.</summary>
    public static readonly TimeSpan Grace = TimeSpan.FromDays(1);

    private const int Batch = 500;

    /// <summary>Removes those of some originals that nothing names; gives how many.</summary>
    public async Task<int> RemoveUnnamedAsync(IReadOnlyCollection<ContentHash> some, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(some);
        var removed = 0;
        foreach (var batch in some.Chunk(Batch))
        {
            await using var db = await contexts.CreateDbContextAsync(cancel);
            await using var transaction = await db.Database.BeginTransactionAsync(cancel);
            if (!await VaultLock.TryHoldAllAsync(db, cancel))
            {
                // Something is being kept at this moment: the next turn looks again.
                return removed;
            }

            var named = await NamedAsync(db, batch, cancel);
            foreach (var sha in batch.Where(s => !named.Contains(s)))
            {
                vault.Remove(sha);
                removed++;
            }

            await transaction.CommitAsync(cancel);
        }

        return removed;
    }

    /// <summary>Removes every original that nothing names and that has been there for longer than the grace.</summary>
    public Task<int> SweepAsync(DateTime nowUtc, CancellationToken cancel) =>
        RemoveUnnamedAsync(vault.KeptBefore(nowUtc - Grace), cancel);

    private static async Task<HashSet<ContentHash>> NamedAsync(
        ZestyContext db,
        ContentHash[] asked,
        CancellationToken cancel
    )
    {
        var named = new HashSet<ContentHash>(
            await db.Photos.Where(p => asked.Contains(p.Sha256)).Select(p => p.Sha256).ToListAsync(cancel)
        );
        named.UnionWith(await db.Videos.Where(v => asked.Contains(v.Sha256)).Select(v => v.Sha256).ToListAsync(cancel));
        named.UnionWith(
            await db
                .ImportFiles.Where(f =>
                    f.Sha256 != null && asked.Contains(f.Sha256) && f.Status == ImportStatus.Waiting
                )
                .Select(f => f.Sha256!)
                .ToListAsync(cancel)
        );
        // Also what an undone edit of the stash would bring back.
        foreach (
            var text in await db
                .Database.SqlQuery<string>(
                    $"""
                    SELECT DISTINCT sha #>> {"{}"}::text[] AS "Value" FROM (
                        SELECT jsonb_path_query("Item", '$.**.sha256') AS sha FROM "StashItems"
                        UNION ALL SELECT jsonb_path_query("Changes", '$.**.sha256') FROM "StashSteps") s
                    """
                )
                .ToListAsync(cancel)
        )
        {
            if (ContentHash.TryParse(text, out var sha))
            {
                named.Add(sha);
            }
        }

        return named;
    }
}

/// <summary>Sweeps the vault soon after the program has started and twice a day.</summary>
public sealed class VaultSweep(IServiceScopeFactory scopes, IClock clock, ILogger<VaultSweep> log)
    : PeriodicSweep(scopes, log)
{
    protected override TimeSpan First => TimeSpan.FromMinutes(1);

    protected override TimeSpan Every => TimeSpan.FromHours(12);

    protected override string What => "originals that nothing names";

    protected override Task<int> SweepAsync(IServiceProvider services, CancellationToken cancel) =>
        services.GetRequiredService<VaultSweeper>().SweepAsync(clock.GetCurrentInstant().ToDateTimeUtc(), cancel);
}
