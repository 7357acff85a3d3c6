using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Takes up work that a crash, a restart or a lost database left behind: at the start, and every few seconds after. A
/// server that runs no jobs leaves it to those that do.
/// </summary>
public abstract partial class JobRecovery(IServiceScopeFactory scopes, ZestySettings settings, ILogger log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    /// <summary>Where the data lies, and whether this server runs jobs.</summary>
    protected ZestySettings Settings { get; } = settings;

    /// <summary>Once, before the first round: throws away what was half written.</summary>
    protected abstract void Sweep();

    /// <summary>Asks for jobs for what is not finished.</summary>
    protected abstract Task NudgeAsync(ZestyContext db, CancellationToken cancel);

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!Settings.RunJobs)
        {
            return;
        }

        Sweep();
        using var timer = new PeriodicTimer(Every);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await NudgeAsync(scope.ServiceProvider.GetRequiredService<ZestyContext>(), stoppingToken);
            }
            catch (Exception away) when (!stoppingToken.IsCancellationRequested)
            {
                // The database is away; the next round asks again.
                LogAway(log, away.Message);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Unfinished work cannot be looked up just now: {Reason}")]
    private static partial void LogAway(ILogger log, string reason);
}
