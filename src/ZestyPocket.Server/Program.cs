using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Hangfire;
using Hangfire.PostgreSql;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using Serilog;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Dates;
using ZestyPocket.Server.Demo;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Keeping.Bundles;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Shared;
using ZestyPocket.Server.Travel;
using ZestyPocket.Server.TuckingIn;
using ZestyPocket.Server.Words;
using ZestyPocket.Solving;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Counting;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Placing;
using ZestyPocket.Storage.Printing;

// What is written and compared never depends on the machine's language.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.DefaultThreadCurrentUICulture = CultureInfo.InvariantCulture;

// The OpenAPI document is written at build time by running this program without a database.
var onlyDocument = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog((context, logging) => logging.ReadFrom.Configuration(context.Configuration));

var settings = builder.Configuration.GetSection("Zesty").Get<ZestySettings>() ?? new ZestySettings();
var connectionString =
    builder.Configuration.GetConnectionString("Zesty")
    ?? (
        onlyDocument
            ? "Host=127.0.0.1"
            : throw new InvalidOperationException("ConnectionStrings:Zesty is not set; start with ./start.")
    );
connectionString = Database.WithBoundedPool(connectionString);

var services = builder.Services;
services.AddSingleton(settings);
services.AddSingleton<IClock>(SystemClock.Instance);
services.AddHousehold(settings);
services.AddDbContextFactory<ZestyContext>(
    options => ZestyContext.Configure(options, connectionString),
    ServiceLifetime.Scoped
);
services.AddScoped<History>();
services.AddScoped<AlbumReader>();
services.AddScoped<UnitOpener>();
services.AddScoped<UnitReader>();
services.AddScoped<PairEditor>();
services.AddScoped<UnitEditor>();
services.AddScoped<UnitSteps>();
services.AddScoped<AlbumEditor>();
services.AddScoped<TripReader>();
services.AddScoped<YearReader>();
services.AddScoped<CostReader>();
services.AddScoped<InsertReader>();
services.AddScoped<InsertedAlbums>();
services.AddScoped<TitlePages>();
services.AddScoped<StashReader>();
services.AddScoped<StashEditor>();
services.AddScoped<UnitStashReader>();
services.AddScoped<ShoppingReader>();
services.AddSingleton<StashPhotos>();
services.AddScoped<NextAlbumMaking>();
services.AddScoped<TripImport>();
services.AddScoped<IPieceCount, PieceCount>();
services.AddScoped<PhotoImport>();
services.AddScoped<VideoIntake>();
services.AddScoped<UploadQuota>();
services.AddScoped<PhotoDays>();
services.AddScoped<LookalikeGroups>();
services.AddScoped<PhotoListing>();
services.AddScoped<PhotoEditor>();
services.AddScoped<OverviewReader>();
services.AddScoped<AlbumFinder>();
services.AddScoped<StoryEditor>();
services.AddSingleton<AlbumFeed>();
services.AddHostedService(s => s.GetRequiredService<AlbumFeed>());
services.AddScoped<Company>();
services.AddScoped<Contributions>();
services.AddScoped<ContributorDoor>();
services.AddScoped<ContributedPhotos>();
services.AddScoped<StoryFitting>();
services.AddScoped<StoryReader>();
services.AddScoped<AlbumWordsReader>();
services.AddScoped<WordsOver>();
services.AddScoped<StoriesOfDays>();
services.AddScoped<CountReader>();
services.AddScoped<PageChooser>();
services.AddScoped<PageSearches>();
services.AddScoped<PrintJobs>();
services.AddScoped(typeof(AskedJobs<>));
services.AddSingleton<IPageSolver, PageSolver>();
services.AddScoped<DesignShelf>();
services.AddScoped<DesignEditor>();
services.AddScoped<FormulaReader>();
services.AddScoped<BinderReader>();
services.AddScoped<ImportJob>();
services.AddSingleton<ImportNudges>();
services.AddSingleton<PrintNudges>();
services.AddSingleton<AskedJobNudges<PrintJob>>(s => s.GetRequiredService<PrintNudges>());
services.AddSingleton<PageSearchNudges>();
services.AddSingleton<AskedJobNudges<PageSearch>>(s => s.GetRequiredService<PageSearchNudges>());
services.AddSingleton<StretchNudges>();
services.AddSingleton<AskedJobNudges<StretchPlacing>>(s => s.GetRequiredService<StretchNudges>());
services.AddSingleton<IPhoneOutbox, FolderOutbox>();
services.AddSingleton<PrintPlans>();
services.AddScoped<PrintRun>();
services.AddScoped<PlacedPieces>();
services.AddScoped<InsertPages>();
services.AddScoped<PrintJobRunner>();
services.AddScoped<PageSearchRunner>();
services.AddScoped<StretchRunner>();
services.AddScoped<SpreadPages>();
services.AddScoped<AlbumLooker>();
services.AddScoped<TuckingReader>();
services.AddScoped<ThicknessReader>();
services.AddScoped<PaceReader>();
services.AddScoped<Printers>();
services.AddScoped<PaperDrawer>();
services.AddScoped<LabOrders>();
services.AddScoped<LabOrderRunner>();
services.AddSingleton<BookNudges>();
services.AddSingleton<AskedJobNudges<Book>>(s => s.GetRequiredService<BookNudges>());
services.AddScoped<BookPages>();
services.AddScoped<BookRunner>();
services.AddScoped<BackupRunner>();
services.AddScoped<RestoreRunner>();
services.AddSingleton<BackupNudges>();
services.AddSingleton<AskedJobNudges<Backup>>(s => s.GetRequiredService<BackupNudges>());
services.AddSingleton<RestoreNudges>();
services.AddSingleton<AskedJobNudges<Restore>>(s => s.GetRequiredService<RestoreNudges>());
services.AddScoped<BundleWriter>();
services.AddScoped<BundleRestorer>();
services.AddScoped<BundleJudge>();
services.AddScoped<VaultSweeper>();
services.AddHostedService<VaultSweep>();
services.AddScoped<MadeFileSweeper>();
services.AddHostedService<MadeFileSweep>();
services.AddScoped<Backups>();
services.AddSingleton<LabNudges>();
services.AddSingleton<AskedJobNudges<LabOrder>>(s => s.GetRequiredService<LabNudges>());
services.AddSingleton<ISheetCovering, SheetCovering>();
services.AddScoped<DemoSeeding>();
services.AddFileKeeping(settings);
services.AddTelemetry(settings);
services.AddSingleton<PaintingBench>();
services.AddSingleton(ReaderPool.Shared);
services.AddSingleton<PictureCache>();
services.AddHostedService<CacheSweep>();
services.AddSingleton<IPrintCrops>(provider => provider.GetRequiredService<PictureCache>());
services.AddSingleton<FontShelf>();
services.AddSingleton<PiecePainter>();
services.AddSingleton<Speller>();
services.AddSingleton<IWeatherAlmanac, MadeUpAlmanac>();
services.AddSingleton<CompositionFaces>();
services.AddSingleton<BoughtCardFaces>();
services.AddSingleton<PieceFaces>();

services.ConfigureHttpJsonOptions(options =>
{
    options.SerializerOptions.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
    options.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    // Edits are told apart by their kind, wherever it stands in the object.
    options.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
    options.SerializerOptions.TypeInfoResolver = new DefaultJsonTypeInfoResolver
    {
        Modifiers = { EditWire.Modify, EditWire.RefuseEmptyEntries },
    };
    options.SerializerOptions.RespectNullableAnnotations = true;
    options.SerializerOptions.RespectRequiredConstructorParameters = true;
    options.SerializerOptions.Converters.Add(new HashAsJson());
    options.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase));
});
services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
services.AddProblemDetails();
services.AddExceptionHandler<Problems>();
services.AddHealthChecks().AddCheck<DatabaseHealth>("database", tags: ["ready"]);
services.AddApiDocument();
services.AddResponseCompression();

if (!onlyDocument)
{
    services.AddHangfire(hangfire =>
        hangfire
            .SetDataCompatibilityLevel(CompatibilityLevel.Version_180)
            .UseSimpleAssemblyNameTypeSerializer()
            .UseRecommendedSerializerSettings()
            .UsePostgreSqlStorage(
                storage => storage.UseNpgsqlConnection(connectionString),
                new PostgreSqlStorageOptions
                {
                    QueuePollInterval = TimeSpan.FromMilliseconds(250),
                    // A worker says every few seconds that it is alive; the job of one that was killed is taken up soon
                    // after.
                    InvisibilityTimeout = TimeSpan.FromSeconds(30),
                    UseSlidingInvisibilityTimeout = true,
                    DistributedLockTimeout = TimeSpan.FromSeconds(30),
                }
            )
    );
    if (settings.RunJobs)
    {
        // First of the services, so that no job runs before leftovers of a crash are set free.
        services.AddHostedService<LeftoverLocks>();
        AddWorkers(JobQueues.Imports);
        AddWorkers(JobQueues.Prints);
        AddWorkers(JobQueues.Searches);
    }

    services.Configure<HostOptions>(host =>
        (host.ShutdownTimeout, host.ServicesStopConcurrently) = (TimeSpan.FromSeconds(60), true)
    );
    services.AddHostedService<ImportRecovery>();
    services.AddHostedService<PrintRecovery>();
    services.AddHostedService<BackupRecovery>();
    services.AddHostedService<PageSearchRecovery>();
    services.AddHostedService<StretchRecovery>();

    void AddWorkers(string queue) =>
        services.AddHangfireServer(server =>
        {
            (server.ServerName, server.Queues, server.WorkerCount) = (
                $"{Environment.MachineName}-{queue}",
                [queue],
                JobQueues.WorkersEach
            );
            // What is broken off is taken up again: nobody waits long for it.
            server.ShutdownTimeout = TimeSpan.FromSeconds(5);
            server.HeartbeatInterval = TimeSpan.FromSeconds(10);
            server.ServerTimeout = TimeSpan.FromSeconds(30);
        });
}
else
{
    services.AddSingleton<IBackgroundJobClient>(_ =>
        throw new InvalidOperationException("There are no jobs while the document is written.")
    );
}

var app = builder.Build();

if (!onlyDocument)
{
    await Database.MigrateAsync(connectionString, CancellationToken.None);
    // What the terminal asks for is done for the keeper of this machine.
    using var terminal = args.Length > 0 ? KeeperScope.Of(Keeper.LocalId) : null;
    if (args is ["account-link"])
    {
        await using var scope = app.Services.CreateAsyncScope();
        var link = await scope.ServiceProvider.GetRequiredService<Accounts>().FirstLinkAsync(CancellationToken.None);
        Console.WriteLine(link ?? string.Empty);
        return;
    }

    if (args is ["restore", var bundle])
    {
        await using var scope = app.Services.CreateAsyncScope();
        Environment.ExitCode = await scope
            .ServiceProvider.GetRequiredService<Backups>()
            .RestoreFromTerminalAsync(bundle, Console.WriteLine, CancellationToken.None);
        return;
    }

    if (args is ["seed-demo", ..])
    {
        await using var scope = app.Services.CreateAsyncScope();
        await scope
            .ServiceProvider.GetRequiredService<DemoSeeding>()
            .RunAsync(reset: args.Contains("--reset"), line => Console.WriteLine(line), CancellationToken.None);
        return;
    }
}

app.UseProxyTrust(settings);
app.UseSecurityHeaders();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseRequestGate();
app.UseResponseCompression();
app.UseDefaultFiles();
app.UseStaticFiles(
    new StaticFileOptions
    {
        // Vite puts a content hash into every name under assets.
        OnPrepareResponse = file =>
            file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments(
                "/assets",
                StringComparison.Ordinal
            )
                ? "public, max-age=31536000, immutable"
                : "no-cache",
    }
);

// After the files of the program, which anybody may have.
app.UseAuthentication();
app.UseAuthorization();
app.UseAlbumDoor();
app.UseRateLimiter();

// Live: the process answers. Ready: it can work, and takes requests.
app.MapHealthChecks("/livez", new HealthCheckOptions { Predicate = _ => false });
app.MapHealthChecks("/healthz", new HealthCheckOptions { Predicate = check => check.Tags.Contains("ready") });
app.MapOpenApi("/api/openapi.json").ExcludeFromDescription();
var api = app.MapGroup("/api")
    .AddEndpointFilter(NoMissingEntries.CheckAsync)
    .RequireAuthorization(HouseholdDoor.Policy);
api.MapHousehold();
api.MapSharing();
api.MapCompany();
api.MapContributions();
api.MapContributedPhotos();
api.MapCatalog();
api.MapDesigns();
api.MapAlbums();
api.MapCalendars();
api.MapCameras();
api.MapSeries();
api.MapVideos();
api.MapScrolls();
api.MapChoosing();
api.MapStretches();
api.MapReading();
api.MapTuckingIn();
api.MapKeeping();
api.MapStash();
api.MapTrips();
api.MapBackups();
api.MapBooks();
api.MapPrinters();
api.MapPaperDrawer();
api.MapLab();
api.MapTemplates();
api.MapFindings();
api.MapBoughtCards();
api.MapEvents();
api.MapOverview();
api.MapFind();
api.MapImporting();
api.MapPhotos();
api.MapUnits();
api.MapFit();
api.MapCards();
api.MapStories();
api.MapAlbumWords();
api.MapCaptions();
api.MapWordsDue();
api.MapBinder();
api.MapCounting();
api.MapCueSheet();
api.MapPrinting();
api.Map("/{**rest}", RequestGate.AnswerUnknownAsync).ExcludeFromDescription();
app.MapFallbackToFile("index.html");

await app.RunAsync();

/// <summary>The entry point, named so that tests can host it.</summary>
public partial class Program;
