using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace ZestyPocket.Storage.Editing;

/// <summary>
/// An album's lock, held until the transaction ends. What adds, moves or takes away units holds it alone; what files
/// things under units by their day shares it and reads the units after it has it. So nothing is ever written into a
/// unit that is gone.
/// </summary>
public static class AlbumLock
{
    /// <summary>For edits over an album's units. Needs a transaction.</summary>
    public static Task HoldAsync(ZestyContext db, Guid albumId, CancellationToken cancel)
    {
        Require(db);
        return db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock(hashtextextended({albumId.ToString()}, 1))",
            cancel
        );
    }

    /// <summary>For what files things under units. Needs a transaction.</summary>
    public static Task ShareAsync(ZestyContext db, Guid albumId, CancellationToken cancel)
    {
        Require(db);
        return db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock_shared(hashtextextended({albumId.ToString()}, 1))",
            cancel
        );
    }

    private static void Require(ZestyContext db)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (db.Database.CurrentTransaction is null)
        {
            throw new InvalidOperationException("An album's lock lasts as long as a transaction: begin one first.");
        }
    }

    /// <summary>
    /// A transaction that has what belongs to a keeper to itself: the same thing twice at once must not be two.
    /// </summary>
    public static async Task<IDbContextTransaction> BeginAsync(ZestyContext db, Guid keeperId, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var transaction = await db.Database.BeginTransactionAsync(cancel);
        await HoldAsync(db, keeperId, cancel);
        return transaction;
    }
}
