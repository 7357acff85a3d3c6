using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Accounts;

namespace ZestyPocket.Server.Household;

/// <summary>What came of a password.</summary>
public enum PasswordAnswer
{
    Right,
    Wrong,

    /// <summary>Right or wrong, too many were tried from there.</summary>
    TooMany,
}

/// <summary>
/// Passwords are tried here and nowhere else. Wrong ones are counted by account and address together, so that nobody
/// locks out whoever sits elsewhere; a device that signed in before is not stopped at all. Each try is noted before
/// it is looked at, so that many at once are as many as they are; and each takes as long as any other.
/// </summary>
public sealed class PasswordTries(
    ZestyContext db,
    UserManager<Account> users,
    SignInLog signIns,
    IHttpContextAccessor http,
    IDataProtectionProvider protection,
    IClock clock
)
{
    /// <summary>Wrong ones within <see cref="Window"/> for one account from one address.</summary>
    public const int Most = 10;

    /// <summary>Wrong ones within <see cref="Window"/> for one account from everywhere.</summary>
    public const int MostFromEverywhere = 100;

    private const string DeviceCookie = "zesty-device";

    private static readonly Duration Window = Duration.FromMinutes(5);

    private static readonly TimeSpan DeviceHolds = TimeSpan.FromDays(365);

    /// <summary>Checked where there is no account, so that the time tells nobody which names there are.</summary>
    private static readonly Lazy<string> NobodysHash = new(() =>
        new PasswordHasher<Account>().HashPassword(
            new Account(),
            Convert.ToHexString(System.Security.Cryptography.RandomNumberGenerator.GetBytes(16))
        )
    );

    private IDataProtector Devices => protection.CreateProtector("ZestyPocket.KnownDevice");

    /// <param name="account">Null when there is none of that name.</param>
    /// <param name="wrong">For the list of sign-ins, such as <c>wrong password</c>.</param>
    public async Task<PasswordAnswer> TryAsync(
        Account? account,
        string password,
        string wrong,
        CancellationToken cancel
    )
    {
        var attempt = await signIns.NoteAsync(
            account?.Id,
            account is null ? "no such name" : wrong,
            succeeded: false,
            cancel
        );
        var right = account is null
            ? users.PasswordHasher.VerifyHashedPassword(new Account(), NobodysHash.Value, password)
                == PasswordVerificationResult.Success
            : await users.CheckPasswordAsync(account, password);
        if (account is null)
        {
            return PasswordAnswer.Wrong;
        }

        if (!IsKnownDevice(account.Id) && await AreTooManyAsync(account.Id, attempt, cancel))
        {
            attempt.What = "locked for five minutes";
            await db.SaveChangesAsync(cancel);
            return PasswordAnswer.TooMany;
        }

        if (right)
        {
            // It was noted as a wrong one: it is none.
            db.SignIns.Remove(attempt);
            await db.SaveChangesAsync(cancel);
        }

        return right ? PasswordAnswer.Right : PasswordAnswer.Wrong;
    }

    /// <summary>
    /// Asks whoever is signed in for the password again, so that a window left open gives nobody a key to the house.
    /// Throws <see cref="RuleException"/> for another one.
    /// </summary>
    /// <param name="undone">Such as <c>No passkey was made</c>.</param>
    public async Task RequireAsync(
        Account account,
        string password,
        string wrong,
        string undone,
        CancellationToken cancel
    )
    {
        var answer = await TryAsync(account, password, wrong, cancel);
        if (answer != PasswordAnswer.Right)
        {
            throw new RuleException(
                answer == PasswordAnswer.Wrong
                    ? $"That is not your password. {undone}: type it again."
                    : $"Too many wrong passwords. {undone}: wait five minutes."
            );
        }
    }

    /// <summary>From now on this browser is known for an account, also after it has signed out.</summary>
    public void RememberDevice(Account account)
    {
        ArgumentNullException.ThrowIfNull(account);
        http.HttpContext?.Response.Cookies.Append(
            DeviceCookie,
            Devices.ToTimeLimitedDataProtector().Protect(account.Id.ToString(), DeviceHolds),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = http.HttpContext.Request.IsHttps,
                MaxAge = DeviceHolds,
                Path = "/",
            }
        );
    }

    private bool IsKnownDevice(Guid account)
    {
        if (http.HttpContext?.Request.Cookies[DeviceCookie] is not { Length: > 0 } cookie)
        {
            return false;
        }

        try
        {
            return Devices.ToTimeLimitedDataProtector().Unprotect(cookie) == account.ToString();
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            // Made up, too old, or of another server.
            return false;
        }
    }

    private async Task<bool> AreTooManyAsync(Guid account, SignInAttempt attempt, CancellationToken cancel)
    {
        var since = clock.GetCurrentInstant() - Window;
        var wrong = db.SignIns.Where(s => s.AccountId == account && !s.Succeeded && s.At > since && s.Id != attempt.Id);
        return await wrong.CountAsync(s => s.From == attempt.From, cancel) >= Most
            || await wrong.CountAsync(cancel) >= MostFromEverywhere;
    }
}
