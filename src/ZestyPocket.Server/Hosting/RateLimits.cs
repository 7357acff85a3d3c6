using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Mvc;

namespace ZestyPocket.Server.Hosting;

/// <summary>How often one address may ask for what is guarded. The figures are choices of this program.</summary>
public static class RateLimits
{
    /// <summary>What is asked a few times only, such as to sign in: 20 times a minute.</summary>
    public const string Guarded = "guarded";

    /// <summary>What is asked with a private link, also by a family behind one address: 120 times a minute.</summary>
    public const string Links = "links";

    /// <summary>
    /// Files that are sent: 6,000 times a minute, more than a browser sends of a memory card. It stops what runs wild.
    /// </summary>
    public const string Uploads = "uploads";

    private const int GuardedAMinute = 20;

    private const int LinksAMinute = 120;

    private const int UploadsAMinute = 6_000;

    public static void AddRateLimits(this IServiceCollection services) =>
        services.AddRateLimiter(limiter =>
        {
            limiter.AddPolicy(Guarded, context => ByAddress(context, GuardedAMinute));
            limiter.AddPolicy(Links, context => ByAddress(context, LinksAMinute));
            limiter.AddPolicy(Uploads, context => ByAddress(context, UploadsAMinute));
            limiter.OnRejected = (context, cancel) => new ValueTask(RefuseAsync(context.HttpContext));
        });

    private static RateLimitPartition<string> ByAddress(HttpContext context, int aMinute) =>
        RateLimitPartition.GetFixedWindowLimiter(
            context.Connection.RemoteIpAddress?.ToString() ?? "unknown",
            _ => new FixedWindowRateLimiterOptions { PermitLimit = aMinute, Window = TimeSpan.FromMinutes(1) }
        );

    private static Task RefuseAsync(HttpContext context) =>
        RequestGate.WriteAsync(
            context,
            new ProblemDetails
            {
                Status = StatusCodes.Status429TooManyRequests,
                Title = "Too many tries",
                Detail = "Nothing was done. Wait a minute and try again.",
            }
        );
}
