using NodaTime;

namespace ZestyPocket.Server.Household;

/// <summary>How far somebody is who opens the program.</summary>
public enum SignInState
{
    /// <summary>Nobody signs in here.</summary>
    NotNeeded,

    /// <summary>There is no account yet: the first one is made with the link that ./start shows.</summary>
    SetUp,

    Needed,
    SignedIn,
}

/// <summary>Who is asking.</summary>
/// <param name="Name">Null for nobody who is signed in.</param>
public sealed record MeView(SignInState State, string? Name);

/// <summary>A name and a password.</summary>
public sealed record SignInRequest(string Name, string Password);

/// <summary>A new account by way of a link.</summary>
/// <param name="Secret">The part of the link after <c>#</c>.</param>
public sealed record NewAccountRequest(string Secret, string Name, string Password);

/// <summary>Another password.</summary>
public sealed record PasswordRequest(string Current, string Wanted);

/// <summary>Codes with which the password is set anew, each once; shown this once.</summary>
public sealed record RecoveryCodesView(IReadOnlyList<string> Codes);

/// <summary>Sets the password anew with a recovery code.</summary>
public sealed record RecoverRequest(string Name, string Code, string Wanted);

/// <summary>A link with which one account can be made.</summary>
/// <param name="Path">To be opened on this server; its secret is shown this once.</param>
public sealed record AccountLinkView(string Path, Instant ExpiresAt);

/// <summary>Somebody signed in, or tried to.</summary>
public sealed record SignInView(Instant At, string What, string From, bool Succeeded);

/// <summary>A passkey of an account.</summary>
public sealed record PasskeyView(string Id, string Name, Instant MadeAt);

/// <summary>Asks for new recovery codes.</summary>
public sealed record MakeCodesRequest(string Password);

/// <summary>Begins to make a passkey.</summary>
public sealed record BeginPasskeyRequest(string Password);

/// <summary>What the browser is asked with.</summary>
/// <param name="Options">JSON as Web Authentication describes it.</param>
public sealed record PasskeyOptionsView(string Options);

/// <summary>A passkey that the browser made.</summary>
/// <param name="Credential">JSON as Web Authentication describes it.</param>
public sealed record NewPasskeyRequest(string Name, string Credential);

/// <summary>A proof by passkey.</summary>
/// <param name="Credential">JSON as Web Authentication describes it.</param>
public sealed record PasskeySignInRequest(string Credential);

/// <summary>Something that was shared, or not any more.</summary>
/// <param name="By">Null for somebody with a contributor's link.</param>
public sealed record AccountShareView(Instant At, string Album, string? By, string What);

/// <summary>The account of whoever is signed in.</summary>
/// <param name="SignIns">The newest first.</param>
/// <param name="IsOperator">Whether the operator's page is theirs.</param>
/// <param name="RecoveryCodes">How many codes are left.</param>
/// <param name="Shares">What was shared of their albums and with them, the newest first.</param>
public sealed record AccountView(
    string Name,
    IReadOnlyList<SignInView> SignIns,
    bool IsOperator,
    int RecoveryCodes,
    IReadOnlyList<PasskeyView> Passkeys,
    IReadOnlyList<AccountShareView> Shares
);
