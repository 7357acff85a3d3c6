using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Household;

/// <summary>
/// The sessions that hold, a row each among the tokens of an account. A cookie names its session: signing out ends it
/// for every copy of the cookie, wherever that was taken to.
/// </summary>
internal static class Sessions
{
    private const string Claim = "zesty-session";

    private const string Provider = "session";

    /// <summary>Longer than any cookie holds without being renewed.</summary>
    private static readonly Duration Oldest = Duration.FromDays(90);

    /// <summary>Whoever signs in, in whatever way, begins a session.</summary>
    public static async Task BeginAsync(CookieSigningInContext context)
    {
        var services = context.HttpContext.RequestServices;
        var (db, now) = (
            services.GetRequiredService<ZestyContext>(),
            services.GetRequiredService<IClock>().GetCurrentInstant()
        );
        if (
            context.Principal?.Identity is not ClaimsIdentity identity
            || AccountOf(context.Principal) is not { } account
        )
        {
            return;
        }

        var session = Guid.CreateVersion7().ToString("N");
        identity.AddClaim(new Claim(Claim, session));
        var cancel = context.HttpContext.RequestAborted;
        var old = Written(now - Oldest);
        db.RemoveRange((await Of(db, account).ToListAsync(cancel)).Where(t => string.CompareOrdinal(t.Value, old) < 0));
        db.Add(
            new IdentityUserToken<Guid>
            {
                UserId = account,
                LoginProvider = Provider,
                Name = session,
                Value = Written(now),
            }
        );
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Whoever signs out ends it.</summary>
    public static Task EndAsync(CookieSigningOutContext context)
    {
        var user = context.HttpContext.User;
        return AccountOf(user) is { } account && user.FindFirstValue(Claim) is { } session
            ? Of(context.HttpContext.RequestServices.GetRequiredService<ZestyContext>(), account)
                .Where(t => t.Name == session)
                .ExecuteDeleteAsync(CancellationToken.None)
            : Task.CompletedTask;
    }

    /// <summary>Ends every session of an account.</summary>
    public static Task EndAllAsync(ZestyContext db, Guid account, CancellationToken cancel) =>
        Of(db, account).ExecuteDeleteAsync(cancel);

    /// <summary>A cookie holds while its session does and the account has not ended all of them.</summary>
    public static async Task ValidateAsync(CookieValidatePrincipalContext context)
    {
        var session = context.Principal?.FindFirstValue(Claim);
        await SecurityStampValidator.ValidatePrincipalAsync(context);
        if (context.Principal is not { Identity: ClaimsIdentity identity } user || AccountOf(user) is not { } account)
        {
            return;
        }

        var db = context.HttpContext.RequestServices.GetRequiredService<ZestyContext>();
        if (
            session is null
            || !await Of(db, account).AnyAsync(t => t.Name == session, context.HttpContext.RequestAborted)
        )
        {
            context.RejectPrincipal();
            await context.HttpContext.SignOutAsync(IdentityConstants.ApplicationScheme);
            return;
        }

        // The check made the principal anew, without what belongs to this session alone.
        if (!identity.HasClaim(Claim, session))
        {
            identity.AddClaim(new Claim(Claim, session));
        }
    }

    private static IQueryable<IdentityUserToken<Guid>> Of(ZestyContext db, Guid account) =>
        db.UserTokens.Where(t => t.UserId == account && t.LoginProvider == Provider);

    private static Guid? AccountOf(ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : null;

    private static string Written(Instant instant) => instant.ToString("g", CultureInfo.InvariantCulture);
}
