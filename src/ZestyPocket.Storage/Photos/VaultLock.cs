using Microsoft.EntityFrameworkCore;

namespace ZestyPocket.Storage.Photos;

/// <summary>
/// Over all servers: while something is kept nothing is removed, so that what is removed is never what has just been
/// kept and has no row yet.
/// </summary>
public static class VaultLock
{
    /// <summary>"vault" on a telephone keypad.</summary>
    private const long All = 82858;

    /// <summary>
    /// While something is kept, until the row that names it is committed: nothing is swept meanwhile. Needs a
    /// transaction.
    /// </summary>
    public static Task ShareAllAsync(ZestyContext db, CancellationToken cancel)
    {
        Require(db);
        return db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock_shared({All})", cancel);
    }

    /// <summary>For removing what nothing names; false while something is being kept. Needs a transaction.</summary>
    public static async Task<bool> TryHoldAllAsync(ZestyContext db, CancellationToken cancel)
    {
        Require(db);
        return (
            await db
                .Database.SqlQuery<bool>($"SELECT pg_try_advisory_xact_lock({All}) AS \"Value\"")
                .ToListAsync(cancel)
        )[0];
    }

    private static void Require(ZestyContext db)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (db.Database.CurrentTransaction is null)
        {
            throw new InvalidOperationException("The lock lasts as long as a transaction: begin one first.");
        }
    }
}
