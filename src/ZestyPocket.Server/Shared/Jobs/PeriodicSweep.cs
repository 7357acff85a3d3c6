namespace ZestyPocket.Server.Shared;

/// <summary>Sweeps something a while after the program has started, and then again and again.</summary>
public abstract partial class PeriodicSweep(IServiceScopeFactory scopes, ILogger log) : BackgroundService
{
    /// <summary>Not while the program starts: what is swept may only be made then.</summary>
    protected abstract TimeSpan First { get; }

    protected abstract TimeSpan Every { get; }

    /// <summary>What it sweeps, in words.</summary>
    protected abstract string What { get; }

    /// <summary>Sweeps once; gives how many went.</summary>
    protected abstract Task<int> SweepAsync(IServiceProvider services, CancellationToken cancel);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(First);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            timer.Period = Every;
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                if (await SweepAsync(scope.ServiceProvider, stoppingToken) is > 0 and var went)
                {
                    LogSwept(log, What, went);
                }
            }
            catch (Exception away) when (away is not (OperationCanceledException or OutOfMemoryException))
            {
                // A disk, a store or a database that is away stops nothing else: the next turn sweeps.
                LogNotSwept(log, What, away);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "Swept {What}: {Went} removed")]
    private static partial void LogSwept(ILogger log, string what, int went);

    [LoggerMessage(Level = LogLevel.Warning, Message = "Not swept: {What}")]
    private static partial void LogNotSwept(ILogger log, string what, Exception exception);
}
