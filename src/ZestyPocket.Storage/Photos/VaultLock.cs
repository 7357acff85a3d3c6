using Microsoft.EntityFrameworkCore;

namespace ZestyPocket.Storage.Photos;

/// <summary>
/// One file comes into the vault or leaves it at a time, over all servers: what one of them removes must not be what
/// another one has just kept.
/// </summary>
public static class VaultLock
{
    /// <summary>Held until the transaction ends. Needs one.</summary>
    public static Task HoldAsync(ZestyContext db, string sha256, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Database.CurrentTransaction is null
            ? throw new InvalidOperationException("The lock lasts as long as a transaction: begin one first.")
            : db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({sha256}, 2))", cancel);
    }
}
