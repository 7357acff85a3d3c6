using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Shared;

/// <summary>Keeps the cache within its bounds while the program runs.</summary>
public sealed partial class CacheSweep(PictureCache cache, ZestySettings settings, ILogger<CacheSweep> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        do
        {
            try
            {
                var went = cache.Sweep(settings.CacheMegabytes * 1_000_000L, DateTime.UtcNow);
                if (went.Files > 0)
                {
                    LogSwept(went.Files, went.Bytes / 1_000_000);
                }
            }
            catch (IOException busy)
            {
                // Another server on the same folder swept it first, or the disk is away: the next turn tries again.
                LogNotSwept(busy);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "{Files} painted files of {Megabytes} MB swept")]
    private partial void LogSwept(int files, long megabytes);

    [LoggerMessage(Level = LogLevel.Warning, Message = "The cache could not be swept")]
    private partial void LogNotSwept(Exception exception);
}
