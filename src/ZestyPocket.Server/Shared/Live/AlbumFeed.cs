using System.Collections.Concurrent;
using System.Threading.Channels;
using Npgsql;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Passes what is new in albums on to the windows that are open at this server, from whichever server it came: one
/// connection listens to PostgreSQL while any window is open. When that connection is lost nobody knows what was
/// missed, so everybody is told to look again.
/// </summary>
public sealed partial class AlbumFeed(IConfiguration configuration, ILogger<AlbumFeed> log) : BackgroundService
{
    /// <summary>A window that reads so slowly is told to look again instead of getting every line.</summary>
    private const int MostWaiting = 200;

    private static readonly TimeSpan BeforeTryingAgain = TimeSpan.FromSeconds(1);

    private readonly ConcurrentDictionary<Guid, Subscription> _windows = new();
    private readonly SemaphoreSlim _somebody = new(0);

    /// <summary>An open window; it hears nothing more once it is disposed.</summary>
    public sealed class Subscription : IDisposable
    {
        private readonly AlbumFeed _feed;
        private readonly Guid _id = Guid.NewGuid();
        private readonly Channel<AlbumNewsLine> _lines = Channel.CreateBounded<AlbumNewsLine>(
            new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest }
        );

        internal Subscription(AlbumFeed feed, Guid albumId)
        {
            (_feed, AlbumId) = (feed, albumId);
            feed._windows[_id] = this;
            feed._somebody.Release();
        }

        internal Guid AlbumId { get; }

        /// <summary>The next line, or null when none came for so long. Throws when it is cancelled.</summary>
        public async Task<AlbumNewsLine?> NextAsync(TimeSpan patience, CancellationToken cancel)
        {
            using var until = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            until.CancelAfter(patience);
            try
            {
                await _lines.Reader.WaitToReadAsync(until.Token);
            }
            catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
            {
                return null;
            }

            // So many wait that some were dropped: this one stands for all of them.
            var full = _lines.Reader.Count >= MostWaiting;
            return !_lines.Reader.TryRead(out var line) ? null
                : full ? LookAgain(AlbumId)
                : line;
        }

        internal void Tell(AlbumNewsLine line) => _lines.Writer.TryWrite(line);

        public void Dispose() => _feed._windows.TryRemove(_id, out _);
    }

    /// <summary>Opens a line about an album. Lines about everything name no units.</summary>
    public Subscription Open(Guid albumId) => new(this, albumId);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                // No window, no connection.
                while (_windows.IsEmpty)
                {
                    await _somebody.WaitAsync(stoppingToken);
                }

                await ListenAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception lost) when (lost is NpgsqlException or System.IO.IOException)
            {
                LogLost(log, lost.Message);
                await Task.Delay(BeforeTryingAgain, stoppingToken)
                    .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private async Task ListenAsync(CancellationToken cancel)
    {
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(configuration.GetConnectionString("Zesty"))
            {
                Pooling = false,
                // A connection that died without a word is found out.
                KeepAlive = 15,
                ApplicationName = "zesty-feed",
            }.ConnectionString
        );
        await connection.OpenAsync(cancel);
        connection.Notification += (_, told) => Pass(told.Payload);
        await using (var listen = new NpgsqlCommand($"LISTEN {AlbumNews.Channel}", connection))
        {
            await listen.ExecuteNonQueryAsync(cancel);
        }

        // What happened before this server listened was heard by nobody.
        foreach (var window in _windows.Values)
        {
            window.Tell(LookAgain(window.AlbumId));
        }

        while (!_windows.IsEmpty)
        {
            await connection.WaitAsync(TimeSpan.FromSeconds(30), cancel);
        }
    }

    private void Pass(string payload)
    {
        if (AlbumNews.Read(payload) is not { } line)
        {
            return;
        }

        foreach (var window in _windows.Values)
        {
            if (window.AlbumId == line.Album)
            {
                window.Tell(line);
            }
        }
    }

    private static AlbumNewsLine LookAgain(Guid albumId) => new(albumId, NewsKind.LookAgain, [], null);

    [LoggerMessage(Level = LogLevel.Warning, Message = "News of albums are not heard just now: {Reason}")]
    private static partial void LogLost(ILogger log, string reason);
}
