using System.Net;
using Microsoft.AspNetCore.HttpOverrides;
using ZestyPocket.Core;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// For whom a proxy asks: only proxies that are named in the configuration are believed, so that nobody chooses the
/// address that limits count.
/// </summary>
public static class ProxyTrust
{
    public static void UseProxyTrust(this IApplicationBuilder app, ZestySettings settings)
    {
        ArgumentNullException.ThrowIfNull(settings);
        if (settings.TrustedProxies.Count == 0)
        {
            return;
        }

        var options = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto,
            ForwardLimit = settings.TrustedProxies.Count,
        };
        options.KnownProxies.Clear();
        options.KnownIPNetworks.Clear();
        foreach (var proxy in settings.TrustedProxies)
        {
            if (IPAddress.TryParse(proxy, out var address))
            {
                options.KnownProxies.Add(address);
            }
            else if (System.Net.IPNetwork.TryParse(proxy, out var network))
            {
                options.KnownIPNetworks.Add(network);
            }
            else
            {
                throw new RuleException($"Zesty:TrustedProxies: “{proxy}” is no address and no network.");
            }
        }

        app.UseForwardedHeaders(options);
    }
}
