using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>
/// The whole server on an empty database and an empty data folder. A server without jobs is lent to one test after
/// another and emptied between them, since its start costs more than most tests; one that runs jobs is its test's own.
/// </summary>
public sealed class TestHost : IAsyncDisposable
{
    public static readonly JsonSerializerOptions Json = new JsonSerializerOptions(JsonSerializerDefaults.Web)
    {
        Converters = { new HashAsJson(), new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { EditWire.Modify } },
    }.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    private readonly string _connection;
    private readonly bool _runJobs;
    private readonly IPageSolver? _solver;
    private static TestHost? _idle;
    private WebApplicationFactory<Program> _factory;
    private bool _lent;
    private bool _twin;
    private readonly (string Key, string Value)[] _settings;

    private TestHost(
        string connection,
        bool runJobs,
        IPageSolver? solver = null,
        params (string Key, string Value)[] settings
    )
    {
        (_connection, _runJobs, _solver, _settings) = (connection, runJobs, solver, settings);
        _factory = Factory();
        Client = _factory.CreateClient();
    }

    public string DataFolder { get; } = Directory.CreateTempSubdirectory("zesty-server-").FullName;

    public HttpClient Client { get; private set; }

    public IServiceProvider Services => _factory.Services;

    public static async Task<TestHost> StartAsync(bool runJobs = false, IPageSolver? solver = null)
    {
        if (runJobs || solver is not null || Interlocked.Exchange(ref _idle, null) is not { } idle)
        {
            return new TestHost(await TestDatabase.CreateAsync(), runJobs, solver)
            {
                _lent = !runJobs && solver is null,
            };
        }

        await TestDatabase.EmptyAsync(idle._connection);
        foreach (var file in Directory.GetFiles(idle.DataFolder, "*", SearchOption.AllDirectories))
        {
            File.Delete(file);
        }

        return idle;
    }

    /// <summary>A server that belongs to a household: everybody signs in.</summary>
    public static async Task<TestHost> HouseholdAsync() => await WithAsync(("Zesty:SignIn", "Household"));

    /// <summary>A server where a keeper has room for so much.</summary>
    public static Task<TestHost> WithQuotaAsync(int megabytes) =>
        WithAsync(("Zesty:QuotaMegabytes", megabytes.ToString(System.Globalization.CultureInfo.InvariantCulture)));

    /// <summary>A server with settings of its own, and without jobs.</summary>
    public static async Task<TestHost> WithAsync(params (string Key, string Value)[] settings) =>
        new(await TestDatabase.CreateAsync(), runJobs: false, solver: null, settings);

    /// <summary>A server whose originals lie in an object store.</summary>
    public static Task<TestHost> WithStoreAsync(ObjectStoreSettings store) =>
        WithAsync(
            ("Zesty:ObjectStore:ServiceUrl", store.ServiceUrl!),
            ("Zesty:ObjectStore:AccessKey", store.AccessKey),
            ("Zesty:ObjectStore:SecretKey", store.SecretKey)
        );

    /// <summary>Another browser: with cookies of its own.</summary>
    public HttpClient Browser() => _factory.CreateClient();

    /// <summary>The host as another browser sees it.</summary>
    public TestHost As(HttpClient client)
    {
        var other = (TestHost)MemberwiseClone();
        other.Client = client;
        return other;
    }

    /// <summary>Another server on the same database.</summary>
    public TestHost Twin() => new(_connection, runJobs: false, solver: null, _settings) { _twin = true };

    /// <summary>The server on a database that is there already.</summary>
    public static TestHost On(string connection) => new(connection, runJobs: false);

    /// <summary>Stops the server and starts another on the same data, as after a power cut.</summary>
    public async Task RestartAsync()
    {
        await _factory.DisposeAsync();
        _factory = Factory();
        Client = _factory.CreateClient();
    }

    public async ValueTask DisposeAsync()
    {
        if (_lent && Interlocked.CompareExchange(ref _idle, this, null) is null)
        {
            return;
        }

        await _factory.DisposeAsync();
        if (!_twin)
        {
            TestDatabase.Leave(_connection);
        }

        Directory.Delete(DataFolder, recursive: true);
    }

    // ---- what a keeper does, in one line each -------------------------------------------------------------

    public Task<AlbumView> MakeAlbumAsync(params string[] designs) =>
        PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Test year",
                new LocalDate(2026, 5, 4),
                4,
                designs.Length == 0 ? ["9x12-rows-6x4-3x4", "9x12-nine-3x4"] : designs,
                MeasureSystem.Inches
            )
        );

    public async Task<ImportOutcome> AddAsync(Guid albumId, string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        var response = await Client.PostAsync(
            $"/api/albums/{albumId}/photos?name={Uri.EscapeDataString(name)}",
            content
        );
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<ImportOutcome>(Json))!;
    }

    public Task<PhotoEditAnswer> EditPhotosAsync(PhotoView photo, PhotoEdit change) =>
        EditPhotosAsync(photo.UnitId, [photo], change);

    public async Task<PhotoEditAnswer> EditPhotosAsync(Guid? unitId, IEnumerable<PhotoView> photos, PhotoEdit change)
    {
        var album = unitId is { } unit
            ? (await OpenAsync(unit)).AlbumId
            : (await GetAsync<List<AlbumSummary>>("/api/albums"))[0].Id;
        return await PostAsync<PhotoEditAnswer>(
            $"/api/albums/{album}/photos/edits",
            new PhotoEditRequest([.. photos.Select(p => new PhotoAt(p.Id, p.Revision))], change)
        );
    }

    public Task<StoryAnswer> EditStoriesAsync(Guid albumId, StoryEdit edit) =>
        PostAsync<StoryAnswer>($"/api/albums/{albumId}/stories/edits", edit);

    /// <summary>The ways to choose the pages of a stretch, as the job finds them.</summary>
    public async Task<IReadOnlyList<PageChoice>> ChoosePagesAsync(Guid albumId, ChoosePagesRequest ask)
    {
        var search = await SearchPagesAsync(albumId, ask);
        search.Problem.ShouldBeNull();
        return search.Choices.ShouldNotBeNull();
    }

    /// <summary>A search for pages, once it has ended.</summary>
    public async Task<PageSearchView> SearchPagesAsync(Guid albumId, ChoosePagesRequest ask, string? key = null)
    {
        var search = await PostAsync<PageSearchView>(
            $"/api/albums/{albumId}/pages/searches",
            new PageSearchRequest(key ?? Guid.NewGuid().ToString(), ask)
        );
        return await EndOfAsync(search);
    }

    /// <summary>Waits until a search for pages has ended; runs it here when this host runs no jobs.</summary>
    public async Task<PageSearchView> EndOfAsync(PageSearchView search)
    {
        if (!_runJobs)
        {
            await using var scope = Services.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<PageSearchRunner>().RunAsync(search.Id, default);
        }

        var deadline = DateTime.UtcNow.AddMinutes(2);
        while (search.State is JobState.Waiting or JobState.Running)
        {
            DateTime.UtcNow.ShouldBeLessThan(deadline, "the search has not ended");
            await Task.Delay(50);
            search = await GetAsync<PageSearchView>($"/api/page-searches/{search.Id}");
        }

        return search;
    }

    public Task<UnitView> OpenAsync(Guid unitId) => GetAsync<UnitView>($"/api/units/{unitId}");

    public async Task<UnitView> EditAsync(UnitView unit, UnitEdit request) =>
        (await PostAsync<EditAnswer>($"/api/units/{unit.Id}/edits", request with { Revision = unit.Revision })).Unit;

    /// <summary>The revision that is right now, see <see cref="EditAlbumAsync"/>.</summary>
    public const int Latest = -1;

    /// <summary>An edit of an album, on the revision it states or on the latest.</summary>
    public async Task<AlbumEditAnswer> EditAlbumAsync(Guid albumId, AlbumEdit edit, bool preview = false) =>
        await PostAsync<AlbumEditAnswer>(
            $"/api/albums/{albumId}/edits{(preview ? "?preview=true" : string.Empty)}",
            await OnLatestAsync(albumId, edit)
        );

    /// <summary>An edit of an album that is refused with that status.</summary>
    public async Task<JsonObject> AlbumEditRefusedAsync(int status, Guid albumId, AlbumEdit edit) =>
        await RefusedAsync(status, HttpMethod.Post, $"/api/albums/{albumId}/edits", await OnLatestAsync(albumId, edit));

    private async Task<AlbumEdit> OnLatestAsync(Guid albumId, AlbumEdit edit) =>
        edit switch
        {
            TapeEdit { Revision: Latest } tape => tape with { Revision = (await OpenAsync(tape.UnitId)).Revision },
            WholeAlbumEdit { Revision: Latest } whole => whole with
            {
                Revision = (await GetAsync<AlbumView>($"/api/albums/{albumId}")).Revision,
            },
            LeafEdit { Revision: Latest } leaf => leaf with
            {
                Revision = (await GetAsync<List<BinderLeaf>>($"/api/albums/{albumId}/leaves"))
                    .Single(l => l.LeafId == leaf.LeafId)
                    .Revision,
            },
            ProtectorEdit { Revision: Latest } protector => protector with
            {
                Revision = (await GetAsync<AlbumView>($"/api/albums/{albumId}"))
                    .Protectors.Single(p => p.Id == protector.ProtectorId)
                    .Revision,
            },
            _ => edit,
        };

    public async Task<UnitView> StepAsync(UnitView unit, string step) =>
        (await PostAsync<EditAnswer>($"/api/units/{unit.Id}/{step}", new RevisionRequest(unit.Revision))).Unit;

    public async Task<T> GetAsync<T>(string url) => (await Client.GetFromJsonAsync<T>(url, Json))!;

    public async Task<T> PostAsync<T>(string url, object body)
    {
        var response = await Client.PostAsync(url, Written(body));
        if (!response.IsSuccessStatusCode)
        {
            throw new HttpRequestException(
                $"{(int)response.StatusCode}: {await response.Content.ReadAsStringAsync()}",
                null,
                response.StatusCode
            );
        }

        return (await response.Content.ReadFromJsonAsync<T>(Json))!;
    }

    /// <summary>Sends what should be refused and gives the problem document.</summary>
    public async Task<JsonObject> RefusedAsync(int status, HttpMethod method, string url, object body)
    {
        using var request = new HttpRequestMessage(method, url) { Content = Written(body) };
        var response = await Client.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        ((int)response.StatusCode).ShouldBe(status, text);
        return JsonNode.Parse(text)!.AsObject();
    }

    /// <summary>An edit says its kind only when it is written as one of many.</summary>
    public static JsonContent Written(object body) =>
        JsonContent.Create(
            body,
            EditWire.Families.FirstOrDefault(f => body.GetType().IsSubclassOf(f)) ?? body.GetType(),
            options: Json
        );

    private WebApplicationFactory<Program> Factory() =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(builder =>
        {
            builder.UseSetting("ConnectionStrings:Zesty", _connection);
            builder.UseSetting("Zesty:DataFolder", DataFolder);
            builder.UseSetting("Zesty:RunJobs", _runJobs ? "true" : "false");
            foreach (var (key, value) in _settings)
            {
                builder.UseSetting(key, value);
            }

            if (_solver is not null)
            {
                builder.ConfigureServices(services => services.AddSingleton(_solver));
            }

            builder.UseSetting("Serilog:MinimumLevel:Default", "Error");
            builder.UseSetting("Serilog:MinimumLevel:Override:Microsoft", "Error");
        });
}
