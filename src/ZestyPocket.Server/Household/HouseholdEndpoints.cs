using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Household;

/// <summary>Signing in and out, and making accounts.</summary>
public static class HouseholdEndpoints
{
    public static void MapHousehold(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Household");
        group
            .MapGet("/me", (Accounts accounts, CancellationToken cancel) => accounts.MeAsync(cancel))
            .WithName("getMe")
            .AllowAnonymous()
            .WithProblems();
        group
            .MapPost(
                "/sign-in",
                (SignInRequest asked, Accounts accounts, CancellationToken cancel) =>
                    accounts.SignInAsync(asked, cancel)
            )
            .WithName("signIn")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/accounts",
                (NewAccountRequest asked, Accounts accounts, CancellationToken cancel) =>
                    accounts.MakeAsync(asked, cancel)
            )
            .WithName("makeAccount")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/recover",
                (RecoverRequest asked, Accounts accounts, CancellationToken cancel) =>
                    accounts.RecoverAsync(asked, cancel)
            )
            .WithName("recover")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/account/recovery-codes",
                (MakeCodesRequest asked, Accounts accounts, CancellationToken cancel) =>
                    accounts.MakeCodesAsync(asked, cancel)
            )
            .WithName("makeRecoveryCodes")
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/sign-out",
                async (Accounts accounts) =>
                {
                    await accounts.SignOutAsync();
                    return Results.NoContent();
                }
            )
            .WithName("signOut")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/sign-out-everywhere",
                async (Accounts accounts, CancellationToken cancel) =>
                {
                    await accounts.SignOutEverywhereAsync(cancel);
                    return Results.NoContent();
                }
            )
            .WithName("signOutEverywhere")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapGet("/account", (Accounts accounts, CancellationToken cancel) => accounts.AccountAsync(cancel))
            .WithName("getAccount")
            .WithProblems();
        group
            .MapPost(
                "/account/password",
                async (PasswordRequest asked, Accounts accounts, CancellationToken cancel) =>
                {
                    await accounts.ChangePasswordAsync(asked, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("changePassword")
            .RequireRateLimiting(RateLimits.Guarded)
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        MapPasskeys(group);
        group
            .MapGet("/operations", (Operations operations, CancellationToken cancel) => operations.LookAsync(cancel))
            .WithName("getOperations")
            .ForTheOperator()
            .ProducesProblem(StatusCodes.Status403Forbidden)
            .WithProblems();
        group
            .MapPost(
                "/account-links",
                (Accounts accounts, ICurrentKeeper keeper, CancellationToken cancel) =>
                    accounts.LinkAsync(keeper.Id, cancel)
            )
            .WithName("makeAccountLink")
            .WithProblems();
    }

    private static void MapPasskeys(RouteGroupBuilder group)
    {
        group
            .MapPost("/sign-in/passkey-options", (Passkeys passkeys) => passkeys.AskAsync())
            .WithName("askForPasskey")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Links)
            .WithProblems();
        group
            .MapPost(
                "/sign-in/passkey",
                (PasskeySignInRequest asked, Passkeys passkeys, CancellationToken cancel) =>
                    passkeys.SignInAsync(asked, cancel)
            )
            .WithName("signInWithPasskey")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/account/passkey-options",
                (BeginPasskeyRequest asked, Passkeys passkeys, CancellationToken cancel) =>
                    passkeys.BeginAsync(asked, cancel)
            )
            .WithName("beginPasskey")
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapPost(
                "/account/passkeys",
                (NewPasskeyRequest asked, Passkeys passkeys, CancellationToken cancel) =>
                    passkeys.AddAsync(asked, cancel)
            )
            .WithName("addPasskey")
            .RequireRateLimiting(RateLimits.Guarded)
            .WithProblems();
        group
            .MapDelete(
                "/account/passkeys/{id}",
                (string id, Passkeys passkeys, CancellationToken cancel) => passkeys.RemoveAsync(id, cancel)
            )
            .WithName("removePasskey")
            .WithProblems();
    }
}
