using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using Npgsql;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Importing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>
/// A database cluster and servers, each a process of its own that can be killed; several servers stand behind a proxy.
/// </summary>
internal sealed class Machine : IAsyncDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-killed-").FullName;
    private readonly int _databasePort = ObjectStoreServer.FreePort();
    private readonly HttpClient _client;
    private readonly int[] _ports;
    private readonly Process?[] _servers;
    private readonly ObjectStoreSettings? _store;
    private Process? _proxy;

    private Machine(int servers, ObjectStoreSettings? store)
    {
        _store = store;
        _servers = new Process?[servers];
        _ports = [.. Enumerable.Range(0, servers).Select(_ => ObjectStoreServer.FreePort())];
        var port = servers == 1 ? _ports[0] : StartProxy();
        _client = new HttpClient
        {
            BaseAddress = new Uri($"http://127.0.0.1:{port}"),
            Timeout = TimeSpan.FromSeconds(30),
        };
    }

    /// <summary>Debian's nginx in front of the servers; an edit is never sent to two of them.</summary>
    private int StartProxy()
    {
        var port = ObjectStoreServer.FreePort();
        var servers = string.Join(' ', _ports.Select(p => $"server 127.0.0.1:{p} max_fails=1 fail_timeout=1s;"));
        File.WriteAllText(
            Path.Combine(_folder, "nginx.conf"),
            $$"""
            daemon off; pid {{_folder}}/nginx.pid; error_log /dev/null;
            events { }
            http {
              access_log off; client_max_body_size 100m;
              client_body_temp_path {{_folder}}/body; proxy_temp_path {{_folder}}/proxy;
              fastcgi_temp_path {{_folder}}/f; uwsgi_temp_path {{_folder}}/u; scgi_temp_path {{_folder}}/s;
              upstream zesty { {{servers}} }
              server {
                listen 127.0.0.1:{{port}};
                location / {
                  proxy_pass http://zesty; proxy_http_version 1.1; proxy_set_header Host $host:$server_port;
                  proxy_connect_timeout 2s;
                }
              }
            }
            """
        );
        _proxy = Process.Start(new ProcessStartInfo("nginx", ["-c", Path.Combine(_folder, "nginx.conf")]))!;
        return port;
    }

    public string DataFolder => Path.Combine(_folder, "data");

    private string Connection =>
        new NpgsqlConnectionStringBuilder
        {
            Host = "127.0.0.1",
            Port = _databasePort,
            Username = "zesty",
            Password = File.ReadAllText(Path.Combine(_folder, "pg", "password")).Trim(),
            Database = "zesty",
            Timeout = 5,
            Pooling = false,
        }.ConnectionString;

    public static async Task<Machine> StartAsync(int servers = 1, ObjectStoreSettings? store = null)
    {
        var machine = new Machine(servers, store);
        // As root the database runs as another user, who must be able to reach its folder.
        machine.Bash("mkdir -p \"$PG\"; chmod 755 \"$PG\" \"$PG/..\"; postgres_init \"$PG\"");
        machine.StartDatabase();
        for (var i = 0; i < servers; i++)
        {
            await machine.StartServerAsync(i);
        }

        return machine;
    }

    public void StartDatabase() => Bash($"postgres_start \"$PG\" {_databasePort} '-c fsync=off'");

    public void KillDatabase() =>
        Bash(
            "kill -9 $(head -n 1 \"$PG/cluster/postmaster.pid\"); for i in $(seq 100); do pgrep -f \"postgres "
                + "-D $PG\" >/dev/null || break; sleep 0.05; done"
        );

    public async Task StartServerAsync(int number = 0)
    {
        // The server's own output: the copy beside the tests lacks the native libraries where a program looks for
        // them.
        var built = AppContext.BaseDirectory.TrimEnd('/').Split('/')[^2..];
        var output = Path.Combine(Repository.Root, "src/ZestyPocket.Server/bin", built[0], built[1], "linux-x64");
        var start = new ProcessStartInfo("dotnet", [Path.Combine(output, "ZestyPocket.Server.dll")])
        {
            WorkingDirectory = output,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        // With a pool, as servers have one: connections of a database that was killed lie in it.
        start.Environment["ConnectionStrings__Zesty"] = new NpgsqlConnectionStringBuilder(Connection)
        {
            Pooling = true,
        }.ConnectionString;
        // Servers that share an object store have no folder in common.
        start.Environment["Zesty__DataFolder"] = _store is null ? DataFolder : $"{DataFolder}-{number}";
        start.Environment["Urls"] = $"http://127.0.0.1:{_ports[number]}";
        if (_store is not null)
        {
            start.Environment["Zesty__ObjectStore__ServiceUrl"] = _store.ServiceUrl;
            start.Environment["Zesty__ObjectStore__AccessKey"] = _store.AccessKey;
            start.Environment["Zesty__ObjectStore__SecretKey"] = _store.SecretKey;
        }

        start.Environment["Serilog__MinimumLevel__Default"] = "Fatal";
        var server = Process.Start(start)!;
        server.OutputDataReceived += (_, _) => { };
        server.ErrorDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        server.BeginErrorReadLine();
        _servers[number] = server;
        await PersistAsync(async () =>
            (await _client.GetAsync($"http://127.0.0.1:{_ports[number]}/healthz")).EnsureSuccessStatusCode()
        );
    }

    /// <summary>With -9, as when the power is cut.</summary>
    public void KillServer(int number = 0)
    {
        _servers[number]!.Kill();
        _servers[number]!.WaitForExit();
        _servers[number]!.Dispose();
        _servers[number] = null;
    }

    /// <summary>With the signal by which a service is stopped: it ends what it does, or hands it back.</summary>
    public void StopServer(int number)
    {
        using var signal = Process.Start("kill", ["-TERM", $"{_servers[number]!.Id}"]);
        _servers[number]!.WaitForExit(TimeSpan.FromSeconds(70)).ShouldBeTrue("it did not stop");
        _servers[number]!.ExitCode.ShouldBe(0);
        _servers[number]!.Dispose();
        _servers[number] = null;
    }

    /// <summary>
    /// Does something that may meet a dead server or database, again and again, for five minutes at most.
    /// </summary>
    public static async Task PersistAsync(Func<Task> step)
    {
        var watch = Stopwatch.StartNew();
        while (true)
        {
            try
            {
                await step();
                return;
            }
            catch (Exception dead)
                when (dead is HttpRequestException or TaskCanceledException or NpgsqlException or TimeoutException
                    && watch.Elapsed < TimeSpan.FromMinutes(5)
                )
            {
                await Task.Delay(40);
            }
        }
    }

    public int ServerId => _servers[0]!.Id;

    /// <summary>Adds one file by itself; what became of it.</summary>
    public async Task<ImportOutcome> AddAsync(Guid albumId, string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        using var response = await _client.PostAsync($"/api/albums/{albumId}/photos?name={name}", content);
        response.IsSuccessStatusCode.ShouldBeTrue($"{name}: {await response.Content.ReadAsStringAsync()}");
        return (await response.Content.ReadFromJsonAsync<ImportOutcome>(TestHost.Json))!;
    }

    public async Task SendAsync(Guid batch, int i, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        using var response = await _client.PostAsync($"/api/imports/{batch}/files?key={i}&name={i}.jpg", content);
        await CheckAsync(response);
    }

    /// <summary>Lays fillers into the first pockets of a week, so that there is something to print.</summary>
    public async Task<Guid> FillAsync(Guid unitId)
    {
        for (var i = 0; i < 4; i++)
        {
            await PersistAsync(async () =>
            {
                var unit = await GetAsync<UnitView>($"/api/units/{unitId}");
                var (face, pocket) = (unit.Faces[0], unit.Faces[0].Pockets[i]);
                await PostAsync<EditAnswer>(
                    $"/api/units/{unitId}/edits",
                    new AddCard(CardKind: CardKind.Filler, Place: new PocketPlace(face.LeafId, face.Side, pocket.Key))
                    {
                        Revision = unit.Revision,
                    }
                );
            });
        }

        return unitId;
    }

    public async Task<T> PostAsync<T>(string url, object body)
    {
        using var response = await _client.PostAsync(url, TestHost.Written(body));
        await CheckAsync(response);
        return (await response.Content.ReadFromJsonAsync<T>(TestHost.Json))!;
    }

    public async Task<T> GetAsync<T>(string url)
    {
        using var response = await _client.GetAsync(url);
        await CheckAsync(response);
        return JsonSerializer.Deserialize<T>(await response.Content.ReadAsStringAsync(), TestHost.Json)!;
    }

    /// <summary>
    /// A server without its database may say so (5xx) and is asked again; what it refuses (4xx) ends the test.
    /// </summary>
    private static async Task CheckAsync(HttpResponseMessage response)
    {
        ((int)response.StatusCode is >= 400 and < 500).ShouldBeFalse(await response.Content.ReadAsStringAsync());
        response.EnsureSuccessStatusCode();
    }

    public async Task<long> CountAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return (long)(await command.ExecuteScalarAsync())!;
    }

    public async Task<List<string>> ShasAsync()
    {
        await using var connection = new NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand("SELECT \"Sha256\" FROM \"Photos\"", connection);
        await using var reader = await command.ExecuteReaderAsync();
        var shas = new List<string>();
        while (await reader.ReadAsync())
        {
            shas.Add(reader.GetString(0));
        }

        return shas;
    }

    public ValueTask DisposeAsync()
    {
        for (var i = 0; i < _servers.Length; i++)
        {
            if (_servers[i] is { HasExited: false })
            {
                KillServer(i);
            }
        }

        _proxy?.Kill(entireProcessTree: true);
        _proxy?.Dispose();
        Bash("postgres_stop \"$PG\" immediate");
        _client.Dispose();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    /// <summary>The same functions that ./start and ./test keep their databases with.</summary>
    private void Bash(string script)
    {
        var start = new ProcessStartInfo(
            "bash",
            [
                "-c",
                ". \"$ROOT/scripts/prerequisites.sh\"; . \"$ROOT/scripts/postgres.sh\"; require_postgres; "
                    + $"{script}",
            ]
        )
        {
            RedirectStandardError = true,
        };
        start.Environment["ROOT"] = Repository.Root;
        start.Environment["PG"] = Path.Combine(_folder, "pg");
        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEnd();
        process.WaitForExit();
        process.ExitCode.ShouldBe(0, errors);
    }
}
