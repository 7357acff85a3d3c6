using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// Traces and metrics by OTLP, off unless an address is set. Requests are named by their routes
/// (<c>/api/units/{id}</c>), and neither words nor names of anybody are in them.
/// </summary>
public static class Telemetry
{
    public static void AddTelemetry(this IServiceCollection services, ZestySettings settings)
    {
        ArgumentNullException.ThrowIfNull(settings);
        if (settings.TelemetryEndpoint is not { Length: > 0 } endpoint)
        {
            return;
        }

        var to = new Uri(endpoint);
        services
            .AddOpenTelemetry()
            .ConfigureResource(resource =>
                resource.AddService("zesty-pocket", serviceInstanceId: Environment.MachineName)
            )
            .WithTracing(traces =>
                traces.AddAspNetCoreInstrumentation().AddSource("Npgsql").AddOtlpExporter(o => o.Endpoint = to)
            )
            .WithMetrics(metrics =>
                metrics
                    .AddMeter("Microsoft.AspNetCore.Hosting", "Microsoft.AspNetCore.Server.Kestrel", "Npgsql")
                    .AddMeter("System.Runtime")
                    .AddOtlpExporter(o => o.Endpoint = to)
            );
    }
}
