using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>A real object-store server for tests: npm s3rver, among the packages of the web client.</summary>
internal static class ObjectStoreServer
{
    public static async Task<(Process Server, ObjectStoreSettings Settings)> StartAsync(string folder)
    {
        var web = Path.GetFullPath(
            Path.Combine(
                Environment.GetEnvironmentVariable("ZESTY_WEB_ROOT")
                    ?? throw new InvalidOperationException("ZESTY_WEB_ROOT is not set: run the tests with ./test."),
                ".."
            )
        );
        var port = FreePort();
        var server = Process.Start(
            new ProcessStartInfo(
                "node",
                [
                    Path.Combine(web, "node_modules", "s3rver", "bin", "s3rver.js"),
                    "-d",
                    Path.Combine(folder, "store"),
                    "-a",
                    "127.0.0.1",
                    "-p",
                    port.ToString(System.Globalization.CultureInfo.InvariantCulture),
                    "--silent",
                ]
            )
        )!;
        using var client = new HttpClient();
        for (var tries = 0; ; tries++)
        {
            try
            {
                await client.GetAsync(new Uri($"http://127.0.0.1:{port}/"), TestContext.Current.CancellationToken);
                break;
            }
            catch (HttpRequestException) when (tries < 300)
            {
                await Task.Delay(50, TestContext.Current.CancellationToken);
            }
        }

        return (
            server,
            new ObjectStoreSettings
            {
                ServiceUrl = $"http://127.0.0.1:{port}",
                AccessKey = "S3RVER",
                SecretKey = "S3RVER",
            }
        );
    }

    public static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
