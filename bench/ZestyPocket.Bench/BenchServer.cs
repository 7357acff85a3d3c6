using System.Diagnostics;
using Npgsql;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Bench;

/// <summary>The server as a process of its own, on a database of its own.</summary>
internal sealed class BenchServer : IAsyncDisposable
{
    private readonly Process _process;
    private readonly string _folder;
    private readonly HttpClient _client;

    private BenchServer(Process process, string folder, string connection, int port)
    {
        (_process, _folder, Connection) = (process, folder, connection);
        _client = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
    }

    public HttpClient Client => _client;

    public string Connection { get; }

    /// <param name="beside">A server whose database and vault this one shares; null for one of its own.</param>
    public static async Task<BenchServer> StartAsync(BenchServer? beside = null)
    {
        const int firstPort = 5199;
        var port = beside is null ? firstPort : firstPort + 1;
        var folder = Directory.CreateTempSubdirectory("zesty-bench-").FullName;
        var database =
            Environment.GetEnvironmentVariable("ZESTY_TEST_DATABASE")
            ?? throw new InvalidOperationException("Run with ./bench/run.");
        var connection =
            beside?.Connection
            ?? new NpgsqlConnectionStringBuilder(database) { Database = $"bench_{Guid.NewGuid():N}" }.ConnectionString;
        await Database.MigrateAsync(connection, CancellationToken.None);
        // Its own build: beside this program's it would not find its native libraries.
        var built = Path.Combine(
            Environment.GetEnvironmentVariable("ZESTY_ROOT")
                ?? throw new InvalidOperationException("Run with ./bench/run."),
            "src/ZestyPocket.Server/bin/Release/net10.0/linux-x64"
        );
        var start = new ProcessStartInfo("dotnet", [Path.Combine(built, "ZestyPocket.Server.dll")])
        {
            WorkingDirectory = folder,
        };
        start.Environment["ConnectionStrings__Zesty"] = connection;
        start.Environment["Zesty__DataFolder"] = beside?._folder ?? folder;
        start.Environment["Urls"] = $"http://127.0.0.1:{port}";
        // Its settings say where errors are written.
        start.Environment["ASPNETCORE_CONTENTROOT"] = built;
        start.Environment["Serilog__MinimumLevel__Default"] = "Error";
        var server = new BenchServer(Process.Start(start)!, folder, connection, port);
        while (true)
        {
            try
            {
                (await server._client.GetAsync("/healthz")).EnsureSuccessStatusCode();
                return server;
            }
            catch (HttpRequestException) when (!server._process.HasExited)
            {
                await Task.Delay(200);
            }
        }
    }

    /// <summary>The median time of each group of requests over 40 rounds taken in turns, in milliseconds.</summary>
    public async Task<List<double>> MediansAsync(List<string[]> groups)
    {
        var times = groups.ConvertAll(_ => new List<double>());
        for (var round = 0; round < 45; round++)
        {
            for (var g = 0; g < groups.Count; g++)
            {
                var watch = Stopwatch.StartNew();
                foreach (var path in groups[g])
                {
                    await _client.GetByteArrayAsync(path);
                }

                if (round >= 5)
                {
                    times[g].Add(watch.Elapsed.TotalMilliseconds);
                }
            }
        }

        return times.ConvertAll(t => Cpu.Median(t));
    }

    public ValueTask DisposeAsync()
    {
        _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
        _client.Dispose();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }
}
