using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Query;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Tells how far a job is, where others see it at once, and hears whether its keeper has cancelled it.
/// </summary>
public sealed class JobWatch<TJob>(IDbContextFactory<ZestyContext> contexts, Guid jobId, CancellationToken cancel)
    : IDisposable
    where TJob : AskedJob
{
    private readonly CancellationTokenSource _stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);

    /// <summary>Cancelled when the keeper has asked for it, or the program stops.</summary>
    public CancellationToken Token => _stop.Token;

    /// <summary>Writes the progress; throws <see cref="OperationCanceledException"/> when it was cancelled.</summary>
    public void Tell(Action<UpdateSettersBuilder<TJob>> progress)
    {
        using (var db = contexts.CreateDbContext())
        {
            db.Set<TJob>().Where(j => j.Id == jobId).ExecuteUpdate(progress);
            if (db.Set<TJob>().Any(j => j.Id == jobId && j.CancelAsked))
            {
                _stop.Cancel();
            }
        }

        Token.ThrowIfCancellationRequested();
    }

    public void Dispose() => _stop.Dispose();
}
