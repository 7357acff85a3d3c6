using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using ZestyPocket.Core;
using ZestyPocket.Storage.Accounts;

namespace ZestyPocket.Server.Household;

/// <summary>Whoever asks, as an account.</summary>
internal static class SignedIn
{
    /// <summary>The account of whoever asks; throws <see cref="RuleException"/> where nobody signs in.</summary>
    public static async Task<Account> RequireMineAsync(this UserManager<Account> users, IHttpContextAccessor http) =>
        await users.GetUserAsync(http.HttpContext?.User ?? new ClaimsPrincipal())
        ?? throw new RuleException("Nobody signs in here. Nothing was changed.");
}
