using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace ZestyPocket.Storage.Accounts;

/// <summary>How a keeper signs in. It has the key of its keeper.</summary>
public sealed class Account : IdentityUser<Guid>
{
    public Instant MadeAt { get; set; }
}

/// <summary>A link with which one account can be made.</summary>
public sealed class AccountLink
{
    public Guid Id { get; set; }

    /// <summary>SHA-256 of its secret, lower-case hex: who reads the database cannot use it.</summary>
    public required string Hash { get; set; }

    /// <summary>Null for the first one, which the start command makes.</summary>
    public Guid? MadeBy { get; set; }

    public Instant MadeAt { get; set; }

    public Instant ExpiresAt { get; set; }

    public Instant? UsedAt { get; set; }
}

/// <summary>With it somebody who forgot the password sets another one, once.</summary>
public sealed class RecoveryCode
{
    public Guid Id { get; set; }

    public Guid AccountId { get; set; }

    /// <summary>SHA-256 of the code, lower-case hex.</summary>
    public required string Hash { get; set; }

    public Instant? UsedAt { get; set; }
}

/// <summary>Somebody signed in, or tried to.</summary>
public sealed class SignInAttempt
{
    public Guid Id { get; set; }

    /// <summary>Null when there is no account of that name.</summary>
    public Guid? AccountId { get; set; }

    public bool Succeeded { get; set; }

    /// <summary>What happened, such as <c>signed in</c>.</summary>
    public required string What { get; set; }

    /// <summary>Where it was asked from, as far as the server sees it.</summary>
    public required string From { get; set; }

    public Instant At { get; set; }
}
