using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using ZestyPocket.Core;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage.Accounts;

namespace ZestyPocket.Server.Household;

/// <summary>
/// Passkeys: a device proves who somebody is, after it has asked for a finger, a face or a PIN, and no password crosses
/// the line. Source: W3C Web Authentication (level 3), by way of ASP.NET Core Identity.
/// </summary>
public sealed class Passkeys(
    UserManager<Account> users,
    SignInManager<Account> signIn,
    SignInLog signIns,
    PasswordTries tries,
    ZestySettings settings,
    IHttpContextAccessor http
)
{
    public const int LongestName = 60;

    /// <summary>Passkeys of one account. A choice of this program.</summary>
    public const int Most = 20;

    public static IReadOnlyList<PasskeyView> Views(IEnumerable<UserPasskeyInfo> passkeys) =>
        [
            .. passkeys
                .OrderBy(p => p.CreatedAt)
                .Select(p => new PasskeyView(
                    WebEncoders.Base64UrlEncode(p.CredentialId),
                    p.Name ?? "Passkey",
                    NodaTime.Instant.FromDateTimeOffset(p.CreatedAt)
                )),
        ];

    /// <summary>
    /// What the browser needs to make a passkey. Asks for the password again, so that a window left open gives nobody a
    /// key to the house.
    /// </summary>
    public async Task<PasskeyOptionsView> BeginAsync(BeginPasskeyRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var account = await users.RequireMineAsync(http);
        await tries.RequireAsync(
            account,
            asked.Password,
            "wrong password before a passkey",
            "No passkey was made",
            cancel
        );
        if ((await users.GetPasskeysAsync(account)).Count >= Most)
        {
            throw new RuleException($"An account has at most {Most} passkeys. No passkey was made: remove one first.");
        }

        return new PasskeyOptionsView(
            await signIn.MakePasskeyCreationOptionsAsync(
                new PasskeyUserEntity
                {
                    Id = account.Id.ToString(),
                    Name = account.UserName!,
                    DisplayName = account.UserName!,
                }
            )
        );
    }

    /// <summary>Keeps what the browser made.</summary>
    public async Task<IReadOnlyList<PasskeyView>> AddAsync(NewPasskeyRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var account = await users.RequireMineAsync(http);
        var name = PlainWords.Name(asked.Name).Trim();
        if (name.Length is 0 or > LongestName)
        {
            throw new RuleException($"A name has 1 to {LongestName} characters. No passkey was made.");
        }

        var made = await TriedAsync(asked.Credential, signIn.PerformPasskeyAttestationAsync);
        if (made is not { Succeeded: true })
        {
            throw new RuleException(
                "The passkey does not belong to this request, or came too late. No passkey was made: begin again."
            );
        }

        made.Passkey.Name = name;
        var kept = await users.AddOrUpdatePasskeyAsync(account, made.Passkey);
        if (!kept.Succeeded)
        {
            throw new RuleException(
                $"{string.Join(" ", kept.Errors.Select(e => e.Description))} No passkey was made: begin again."
            );
        }

        await signIns.NoteAsync(account.Id, $"passkey added: {name}", succeeded: true, cancel);
        return Views(await users.GetPasskeysAsync(account));
    }

    /// <summary>From now on it signs nobody in.</summary>
    public async Task<IReadOnlyList<PasskeyView>> RemoveAsync(string id, CancellationToken cancel)
    {
        var account = await users.RequireMineAsync(http);
        var passkey =
            (await users.GetPasskeysAsync(account)).FirstOrDefault(p =>
                WebEncoders.Base64UrlEncode(p.CredentialId) == id
            ) ?? throw new MissingException("That passkey");
        await users.RemovePasskeyAsync(account, passkey.CredentialId);
        await signIns.NoteAsync(account.Id, $"passkey removed: {passkey.Name}", succeeded: true, cancel);
        return Views(await users.GetPasskeysAsync(account));
    }

    /// <summary>What the browser needs to ask for any passkey it has for this server.</summary>
    public async Task<PasskeyOptionsView> AskAsync()
    {
        settings.RequireHousehold();
        return new PasskeyOptionsView(await signIn.MakePasskeyRequestOptionsAsync(null));
    }

    /// <summary>
    /// Signs in, or refuses in the same words whatever was wrong. An account that was locked by wrong passwords comes
    /// in: nobody guesses a passkey.
    /// </summary>
    public async Task<MeView> SignInAsync(PasskeySignInRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        settings.RequireHousehold();
        var proof = await TriedAsync(asked.Credential, signIn.PerformPasskeyAssertionAsync);
        if (proof is not { Succeeded: true })
        {
            await signIns.NoteAsync(null, "wrong passkey", succeeded: false, cancel);
            throw new RuleException(
                "This passkey opens no account here, or came too late. Try again, or sign in with your password."
            );
        }

        // Its counter has moved on; a copy of the key that lags behind is refused by it.
        await users.AddOrUpdatePasskeyAsync(proof.User, proof.Passkey);
        await signIn.SignInAsync(proof.User, isPersistent: true);
        await signIns.NoteAsync(proof.User.Id, $"signed in with {proof.Passkey.Name}", succeeded: true, cancel);
        return new MeView(SignInState.SignedIn, proof.User.UserName);
    }

    /// <summary>The framework throws where nothing was begun or nothing is sent: null then.</summary>
    private static async Task<T?> TriedAsync<T>(string credential, Func<string, Task<T>> ask)
        where T : class
    {
        if (credential.Length == 0)
        {
            return null;
        }

        try
        {
            return await ask(credential);
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }
}
