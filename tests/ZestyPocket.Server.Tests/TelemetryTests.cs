using Microsoft.Extensions.DependencyInjection;
using OpenTelemetry.Metrics;
using OpenTelemetry.Trace;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>What a collector gets to know: routes and times, no words and no names.</summary>
public sealed class TelemetryTests
{
    [Fact]
    public async Task A_collector_hears_of_routes_and_times_and_of_no_words_names_or_files()
    {
        await using var collector = await Collector.StartAsync();
        await using var host = await TestHost.WithAsync(("Zesty:TelemetryEndpoint", collector.Address));
        var album = await host.MakeAlbumAsync();
        await host.OpenAsync(album.Units[0].Id);
        await host.EditStoriesAsync(album.Id, new NewStory("We hid the cake from Oma."));
        await host.AddAsync(album.Id, "secret-birthday.jpg", Pictures.Jpeg());
        host.Services.GetRequiredService<TracerProvider>().ForceFlush();
        host.Services.GetRequiredService<MeterProvider>().ForceFlush();

        var traces = collector.Of("TraceService");
        traces.ShouldContain("zesty-pocket");
        traces.ShouldContain("/api/units/{id");
        collector.Of("MetricsService").ShouldContain("http.server.request.duration");
        foreach (var own in new[] { "cake", "Oma", album.Name, "secret-birthday" })
        {
            (traces + collector.Of("MetricsService")).ShouldNotContain(own);
        }
    }

    [Fact]
    public async Task Nothing_is_told_to_anybody_where_no_collector_is_named()
    {
        await using var host = await TestHost.StartAsync();
        host.Services.GetService<TracerProvider>().ShouldBeNull();
        host.Services.GetService<MeterProvider>().ShouldBeNull();
    }
}
