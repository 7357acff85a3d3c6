using Hangfire;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// At the start, before any job runs: when no other server is alive, whatever the job store holds as taken was taken by
/// one that is gone. It is set free, so that its jobs are taken up now and not when a time-out says so.
/// </summary>
public sealed partial class LeftoverLocks(
    IConfiguration configuration,
    JobStorage storage,
    IServiceScopeFactory scopes,
    ILogger<LeftoverLocks> log
) : IHostedService, IAsyncDisposable
{
    private const string Alive = "only server";

    private ServerLock? _alive;

    public async Task StartAsync(CancellationToken cancellationToken)
    {
        // Makes the job store's tables when they are not there yet.
        using (storage.GetConnection()) { }

        await using (var alone = await ServerLock.TryTakeAsync(configuration, Alive, cancellationToken))
        {
            if (alone is not null)
            {
                await SweepAsync(cancellationToken);
            }
        }

        // Held as long as this server lives. Another one that is sweeping just now is done in a moment.
        while ((_alive = await ServerLock.TryShareAsync(configuration, Alive, cancellationToken)) is null)
        {
            await Task.Delay(100, cancellationToken);
        }
    }

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public async ValueTask DisposeAsync()
    {
        if (_alive is not null)
        {
            await _alive.DisposeAsync();
        }
    }

    private async Task SweepAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var swept =
            await db.Database.ExecuteSqlRawAsync("DELETE FROM hangfire.lock", cancel)
            + await db.Database.ExecuteSqlRawAsync("DELETE FROM hangfire.server", cancel)
            + await db.Database.ExecuteSqlRawAsync(
                "UPDATE hangfire.jobqueue SET fetchedat = NULL WHERE fetchedat IS NOT NULL",
                cancel
            );
        if (swept > 0)
        {
            LogSwept(swept);
        }
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "{Count} locks of a server that is gone were set free")]
    private partial void LogSwept(int count);
}
