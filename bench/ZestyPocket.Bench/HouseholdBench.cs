using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Npgsql;

namespace ZestyPocket.Bench;

/// <summary>
/// Many at once: 200 readers hear of an edit; two servers on the same cores against one; and a database of 1,000 albums
/// with 2,000 pictures each against one with a single such album.
/// </summary>
internal static class HouseholdBench
{
    private const int Readers = 200;
    private const int Edits = 60;
    private const int Albums = 1_000;
    private const int Photos = 2_000;

    public static async Task RunAsync()
    {
        await using var server = await BenchServer.StartAsync();
        var album = await PhotosBench.FillAsync(server.Connection, Photos);
        var units = await UnitsAsync(server, album);
        await NewsAsync(server, album, units[0]);
        await ServersAsync(server, units);
        await ManyAsync(server, album, units);
    }

    private static async Task<List<Guid>> UnitsAsync(BenchServer server, Guid album) =>
        [
            .. (await server.Client.GetFromJsonAsync<JsonObject>($"/api/albums/{album}"))!["units"]!
                .AsArray()
                .Select(u => u!["id"]!.GetValue<Guid>()),
        ];

    private static async Task NewsAsync(BenchServer server, Guid album, Guid unit)
    {
        using var many = new HttpClient(new SocketsHttpHandler { MaxConnectionsPerServer = Readers + 10 })
        {
            BaseAddress = server.Client.BaseAddress,
            Timeout = Timeout.InfiniteTimeSpan,
        };
        using var ended = new CancellationTokenSource();
        var (heard, sent) = (new List<double>(), 0L);
        var ready = new CountdownEvent(Readers);
        var readers = Enumerable.Range(0, Readers).Select(_ => Task.Run(ReadAsync)).ToList();
        ready.Wait();
        await Task.Delay(2_000);
        for (var i = 0; i < Edits; i++)
        {
            var revision = (await server.Client.GetFromJsonAsync<JsonObject>($"/api/units/{unit}"))!["revision"]!;
            Volatile.Write(ref sent, Stopwatch.GetTimestamp());
            await AddCardAsync(server.Client, unit, revision.GetValue<int>(), $"news {i}");
            await Task.Delay(200);
        }

        await ended.CancelAsync();
        await Task.WhenAll(readers);
        heard.Sort();
        Console.WriteLine(
            $"news     {Readers} readers, {Edits} edits: from the edit to the line in the window, median "
                + $"{heard[heard.Count / 2]:0} ms, p99 {heard[(int)(heard.Count * 0.99)]:0} ms, {heard.Count} lines"
        );

        async Task ReadAsync()
        {
            try
            {
                using var answer = await many.GetAsync(
                    $"/api/albums/{album}/news",
                    HttpCompletionOption.ResponseHeadersRead,
                    ended.Token
                );
                using var lines = new StreamReader(await answer.Content.ReadAsStreamAsync(ended.Token));
                ready.Signal();
                while (await lines.ReadLineAsync(ended.Token) is { } line)
                {
                    if (line.Contains("\"edit\"", StringComparison.Ordinal))
                    {
                        var took = Stopwatch.GetElapsedTime(Volatile.Read(ref sent)).TotalMilliseconds;
                        lock (heard)
                        {
                            heard.Add(took);
                        }
                    }
                }
            }
            catch (OperationCanceledException)
            {
                // The end of the measurement.
            }
        }
    }

    /// <summary>Four people who open weeks and write cards, at one server and then at two.</summary>
    private static async Task ServersAsync(BenchServer server, List<Guid> units)
    {
        await using var second = await BenchServer.StartAsync(server);
        var times = new Dictionary<int, List<double>> { [1] = [], [2] = [] };
        for (var round = 0; round < 6; round++)
        {
            foreach (var count in new[] { 1, 2 })
            {
                var watch = Stopwatch.StartNew();
                await Task.WhenAll(
                    Enumerable
                        .Range(0, 4)
                        .Select(p => WorkAsync(count == 2 && p % 2 == 1 ? second.Client : server.Client, p))
                );
                // The first round warms both up.
                if (round > 0)
                {
                    times[count].Add(watch.Elapsed.TotalSeconds);
                }
            }
        }

        var (one, two) = (Cpu.Median(times[1]), Cpu.Median(times[2]));
        Console.WriteLine(
            $"servers  4 people, 80 weeks opened and 80 cards written: one server {one:0.00} s, two on the same cores "
                + $"{two:0.00} s, ratio {two / one:0.00}"
        );

        async Task WorkAsync(HttpClient client, int person)
        {
            for (var i = 0; i < 20; i++)
            {
                var unit = units[1 + person];
                var revision = (await client.GetFromJsonAsync<JsonObject>($"/api/units/{unit}"))!["revision"]!;
                await AddCardAsync(client, unit, revision.GetValue<int>(), "a card");
                await StepBackAsync(client, unit, revision.GetValue<int>() + 1);
            }
        }
    }

    private static async Task ManyAsync(BenchServer server, Guid album, List<Guid> units)
    {
        var alone = await OpenAsync(server.Client, units);
        await using (var sql = new NpgsqlConnection(server.Connection))
        {
            await sql.OpenAsync();
            foreach (var (table, of) in Copied)
            {
                await CopyAsync(sql, table, of, album);
            }

            await using var analyse = new NpgsqlCommand("VACUUM ANALYZE", sql) { CommandTimeout = 0 };
            await analyse.ExecuteNonQueryAsync();
        }

        var many = await OpenAsync(server.Client, units);
        Console.WriteLine(
            $"many     open a week of an album of {Photos:N0} photos: alone p95 {alone:0.0} ms, among {Albums:N0} such "
                + $"albums {many:0.0} ms, ratio {many / alone:0.00}"
        );
    }

    /// <summary>The 95th percentile over 600 openings, in milliseconds.</summary>
    private static async Task<double> OpenAsync(HttpClient client, List<Guid> units)
    {
        var (random, times) = (new Random(5), new List<double>());
        for (var i = 0; i < 700; i++)
        {
            var watch = Stopwatch.StartNew();
            await client.GetByteArrayAsync($"/api/units/{units[random.Next(units.Count)]}");
            if (i >= 100)
            {
                times.Add(watch.Elapsed.TotalMilliseconds);
            }
        }

        times.Sort();
        return times[(int)(times.Count * 0.95)];
    }

    private static readonly (string Table, string Of)[] Copied =
    [
        ("Albums", "\"Id\""),
        ("Protectors", "\"AlbumId\""),
        ("Units", "\"AlbumId\""),
        ("Leaves", "\"AlbumId\""),
        ("Photos", "\"AlbumId\""),
    ];

    /// <summary>What is a key in the copies is made of the number of the copy and the key it was.</summary>
    private static readonly HashSet<string> Keys =
    [
        "Id",
        "AlbumId",
        "UnitId",
        "ProtectorId",
        "FrontUnitId",
        "BackUnitId",
    ];

    private static async Task CopyAsync(NpgsqlConnection sql, string table, string of, Guid album)
    {
        var columns = new List<string>();
        await using (
            var asked = new NpgsqlCommand(
                "SELECT column_name FROM information_schema.columns WHERE table_schema = 'public' AND table_name = $1 "
                    + "AND is_generated = 'NEVER' ORDER BY ordinal_position",
                sql
            )
        )
        {
            asked.Parameters.AddWithValue(table);
            await using var reader = await asked.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                columns.Add(reader.GetString(0));
            }
        }

        var values = columns.Select(c => Keys.Contains(c) ? $"md5(n.n || t.\"{c}\"::text)::uuid" : $"t.\"{c}\"");
        await using var copy = new NpgsqlCommand(
            $"""
            INSERT INTO "{table}" ({string.Join(", ", columns.Select(c => $"\"{c}\""))})
            SELECT {string.Join(", ", values)} FROM "{table}" t, generate_series(2, {Albums}) n(n) WHERE t.{of} = $1
            """,
            sql
        )
        {
            CommandTimeout = 0,
        };
        copy.Parameters.AddWithValue(album);
        await copy.ExecuteNonQueryAsync();
    }

    private static async Task AddCardAsync(HttpClient client, Guid unit, int revision, string words)
    {
        using var answer = await client.PostAsJsonAsync(
            $"/api/units/{unit}/edits",
            new
            {
                kind = "addCard",
                cardKind = "journaling",
                words,
                revision,
            }
        );
        answer.EnsureSuccessStatusCode();
    }

    private static async Task StepBackAsync(HttpClient client, Guid unit, int revision)
    {
        using var answer = await client.PostAsJsonAsync($"/api/units/{unit}/undo", new { revision });
        answer.EnsureSuccessStatusCode();
    }
}
