using System.Collections.Concurrent;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>A collector that takes traces and metrics by OTLP over gRPC and keeps what came, as it came.</summary>
internal sealed class Collector : IAsyncDisposable
{
    private readonly WebApplication _app;
    private readonly ConcurrentQueue<(string Path, byte[] Body)> _came = new();

    private Collector()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.ConfigureKestrel(kestrel =>
            kestrel.Listen(System.Net.IPAddress.Loopback, 0, listen => listen.Protocols = HttpProtocols.Http2)
        );
        _app = builder.Build();
        _app.MapPost("/{**path}", TakeAsync);
    }

    public string Address =>
        _app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.Single();

    public static async Task<Collector> StartAsync()
    {
        var collector = new Collector();
        await collector._app.StartAsync();
        return collector;
    }

    /// <summary>Everything that came to a service; in Protocol Buffers text stands as it is.</summary>
    public string Of(string service) =>
        string.Concat(
            _came
                .Where(c => c.Path.Contains(service, StringComparison.Ordinal))
                .Select(c => Encoding.UTF8.GetString(c.Body))
        );

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    /// <summary>An empty message and a status of zero say in gRPC that all is well.</summary>
    private async Task TakeAsync(HttpContext context)
    {
        using var body = new MemoryStream();
        await context.Request.Body.CopyToAsync(body);
        _came.Enqueue((context.Request.Path, body.ToArray()));
        context.Response.ContentType = "application/grpc";
        await context.Response.Body.WriteAsync(new byte[5]);
        context.Response.AppendTrailer("grpc-status", "0");
    }
}
