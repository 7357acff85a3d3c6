using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Accounts;

namespace ZestyPocket.Server.Household;

/// <summary>The door of the API: who comes in, by which cookie, and how often somebody may knock.</summary>
public static class HouseholdDoor
{
    /// <summary>What everything under <c>/api</c> asks for.</summary>
    public const string Policy = "keeper";

    public static void AddHousehold(this IServiceCollection services, ZestySettings settings)
    {
        services.AddHttpContextAccessor();
        services.AddScoped<ICurrentKeeper, CurrentKeeper>();
        services.AddScoped<Accounts>();
        services.AddScoped<PasswordTries>();
        services.AddScoped<Passkeys>();
        services.AddScoped<SignInLog>();
        services.AddScoped<Invitations>();
        services.AddScoped<Operations>();
        services.AddScoped<ShareLog>();
        services.AddSingleton<IPostOffice, FolderPostOffice>();
        services
            .AddIdentityCore<Account>(options =>
            {
                // Names in any script; what makes a password strong is its length.
                options.User.AllowedUserNameCharacters = string.Empty;
                var password = options.Password;
                (password.RequiredLength, password.RequiredUniqueChars) = (Accounts.ShortestPassword, 4);
                (password.RequireDigit, password.RequireLowercase) = (false, false);
                (password.RequireUppercase, password.RequireNonAlphanumeric) = (false, false);
                // Wrong passwords are counted by address as well, see PasswordTries: an account locks nobody out.
                options.Lockout.AllowedForNewUsers = false;
            })
            .AddEntityFrameworkStores<ZestyContext>()
            .AddSignInManager()
            .AddDefaultTokenProviders();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.ConfigureApplicationCookie(Cookie);
        // Holds what a passkey is asked with until the answer comes.
        services.Configure<CookieAuthenticationOptions>(
            IdentityConstants.TwoFactorUserIdScheme,
            options =>
            {
                options.Cookie.Name = "zesty-passkey";
                options.Cookie.SameSite = SameSiteMode.Strict;
            }
        );
        services.Configure<IdentityPasskeyOptions>(passkeys =>
        {
            // A finger, a face or a PIN each time, and found without a name: two proofs in one.
            (passkeys.UserVerificationRequirement, passkeys.ResidentKeyRequirement) = ("required", "required");
            passkeys.AuthenticatorTimeout = TimeSpan.FromMinutes(5);
        });
        // Signing out everywhere holds from the next request on.
        services.Configure<SecurityStampValidatorOptions>(o => o.ValidationInterval = TimeSpan.Zero);
        services.AddDataProtection().SetApplicationName("ZestyPocket").PersistKeysToDbContext<ZestyContext>();
        services
            .AddAuthorizationBuilder()
            .AddPolicy(
                Policy,
                policy =>
                    policy.RequireAssertion(context =>
                        settings.SignIn == SignInMode.None || context.User.Identity is { IsAuthenticated: true }
                    )
            );
        services.AddRateLimits();
    }

    private static void Cookie(CookieAuthenticationOptions options)
    {
        options.Cookie.Name = "zesty-session";
        options.Cookie.HttpOnly = true;
        options.Cookie.SameSite = SameSiteMode.Strict;
        // Behind TLS it is sent over TLS only; on loopback there is none.
        options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.ExpireTimeSpan = TimeSpan.FromDays(30);
        options.SlidingExpiration = true;
        options.Events.OnSigningIn = Sessions.BeginAsync;
        options.Events.OnSigningOut = Sessions.EndAsync;
        options.Events.OnValidatePrincipal = Sessions.ValidateAsync;
        options.Events.OnRedirectToLogin = context =>
            AnswerAsync(
                context.HttpContext,
                StatusCodes.Status401Unauthorized,
                "Sign in first",
                "This server belongs to a household. Nothing was done: sign in and try again."
            );
        options.Events.OnRedirectToAccessDenied = context =>
            AnswerAsync(
                context.HttpContext,
                StatusCodes.Status403Forbidden,
                "Not yours",
                "You may not do this. Nothing was done."
            );
    }

    private static Task AnswerAsync(HttpContext context, int status, string title, string detail) =>
        RequestGate.WriteAsync(
            context,
            new ProblemDetails
            {
                Status = status,
                Title = title,
                Detail = detail,
            }
        );
}
