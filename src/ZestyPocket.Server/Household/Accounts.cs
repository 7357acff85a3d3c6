using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Accounts;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Household;

/// <summary>Accounts of a household: made by a link, signed in to by name and password.</summary>
public sealed class Accounts(
    ZestyContext db,
    UserManager<Account> users,
    SignInManager<Account> signIn,
    ZestySettings settings,
    Invitations invitations,
    SignInLog signIns,
    PasswordTries tries,
    IHttpContextAccessor http,
    IClock clock
)
{
    public const int LongestName = 80;

    /// <summary>
    /// No rules of what is in it, only how long it is. Source: NIST SP 800-63B, 5.1.1.2; at least ten instead of eight.
    /// </summary>
    public const int ShortestPassword = 10;

    /// <summary>How many recovery codes an account has. A choice of this program.</summary>
    private const int Codes = 8;

    private static readonly Duration LinkHolds = Duration.FromDays(7);

    public async Task<MeView> MeAsync(CancellationToken cancel)
    {
        if (settings.SignIn == SignInMode.None)
        {
            return new MeView(SignInState.NotNeeded, null);
        }

        if (http.HttpContext?.User is { Identity.IsAuthenticated: true } user)
        {
            return new MeView(SignInState.SignedIn, user.Identity.Name);
        }

        return new MeView(await db.Set<Account>().AnyAsync(cancel) ? SignInState.Needed : SignInState.SetUp, null);
    }

    /// <summary>Signs in, or refuses in the same words and the same time whatever was wrong.</summary>
    public async Task<MeView> SignInAsync(SignInRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        settings.RequireHousehold();
        var account = await users.FindByNameAsync(asked.Name.Trim());
        if (await tries.TryAsync(account, asked.Password, "wrong password", cancel) != PasswordAnswer.Right)
        {
            throw Refused();
        }

        await signIn.SignInAsync(account!, isPersistent: true);
        tries.RememberDevice(account!);
        await signIns.NoteAsync(account!.Id, "signed in", succeeded: true, cancel);
        return new MeView(SignInState.SignedIn, account.UserName);
    }

    /// <summary>Makes an account by way of a link, which is used up, and signs in.</summary>
    public async Task<MeView> MakeAsync(NewAccountRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        settings.RequireHousehold();
        var (name, now, hash) = (
            AccountName.Of(asked.Name),
            clock.GetCurrentInstant(),
            LinkSecret.HashOf(asked.Secret)
        );
        if (name.Length is 0 or > LongestName)
        {
            throw new RuleException($"A name has 1 to {LongestName} characters. No account was made.");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // With a condition, so that two who open the link at once do not both use it.
        var used = await db
            .AccountLinks.Where(l => l.Hash == hash && l.UsedAt == null && l.ExpiresAt > now)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.UsedAt, now), cancel);
        // Whoever is invited to an album may make an account for it.
        if (used == 0 && await invitations.FindAsync(asked.Secret, cancel) is null)
        {
            throw new RuleException(
                "This link was used already or is too old. No account was made: ask for another one."
            );
        }

        var look = AccountName.Look(name);
        var names = await db.Set<Account>().Select(a => a.UserName!).ToListAsync(cancel);
        if (names.Exists(n => AccountName.Look(n) == look))
        {
            throw new RuleException(
                $"Somebody here has a name that looks like “{name}”. No account was made: choose another one."
            );
        }

        // The first account has the albums that were made on this machine before anybody signed in.
        var first = !await db.Set<Account>().AnyAsync(cancel);
        var account = new Account
        {
            Id = first ? Keeper.LocalId : Guid.CreateVersion7(),
            UserName = name,
            MadeAt = now,
        };
        if (first)
        {
            await db
                .Keepers.Where(k => k.Id == Keeper.LocalId)
                .ExecuteUpdateAsync(set => set.SetProperty(k => k.Name, name), cancel);
        }
        else
        {
            db.Keepers.Add(new Keeper { Id = account.Id, Name = name });
            await db.SaveChangesAsync(cancel);
        }

        var made = await users.CreateAsync(account, asked.Password);
        if (!made.Succeeded)
        {
            throw new RuleException(
                $"{string.Join(" ", made.Errors.Select(e => e.Description))} No account was made: change that and send "
                    + "it again."
            );
        }

        if (used == 0)
        {
            await invitations.AcceptAsync(asked.Secret, account.Id, cancel);
        }

        await signIns.NoteAsync(account.Id, "account made", succeeded: true, cancel);
        await transaction.CommitAsync(cancel);
        await signIn.SignInAsync(account, isPersistent: true);
        tries.RememberDevice(account);
        return new MeView(SignInState.SignedIn, account.UserName);
    }

    public Task SignOutAsync() => signIn.SignOutAsync();

    /// <summary>Ends every session of the account, this one too.</summary>
    public async Task SignOutEverywhereAsync(CancellationToken cancel)
    {
        var account = await users.RequireMineAsync(http);
        await users.UpdateSecurityStampAsync(account);
        await Sessions.EndAllAsync(db, account.Id, cancel);
        await signIns.NoteAsync(account.Id, "signed out everywhere", succeeded: true, cancel);
        await signIn.SignOutAsync();
    }

    /// <summary>Another password ends every other session.</summary>
    public async Task ChangePasswordAsync(PasswordRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var account = await users.RequireMineAsync(http);
        await tries.RequireAsync(
            account,
            asked.Current,
            "wrong password before another one",
            "The password stays as it was",
            cancel
        );
        var changed = await users.ChangePasswordAsync(account, asked.Current, asked.Wanted);
        await signIns.NoteAsync(account.Id, "password changed", changed.Succeeded, cancel);
        if (!changed.Succeeded)
        {
            throw new RuleException(
                $"{string.Join(" ", changed.Errors.Select(e => e.Description))} The password stays as it was."
            );
        }

        await Sessions.EndAllAsync(db, account.Id, cancel);
        await signIn.SignInAsync(account, isPersistent: true);
    }

    /// <summary>Makes new codes; those from before do not hold any more. Asks for the password again.</summary>
    public async Task<RecoveryCodesView> MakeCodesAsync(MakeCodesRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var account = await users.RequireMineAsync(http);
        await tries.RequireAsync(
            account,
            asked.Password,
            "wrong password before recovery codes",
            "No codes were made",
            cancel
        );
        var codes = Enumerable.Range(0, Codes).Select(_ => LinkSecret.NewCode()).ToList();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.RecoveryCodes.Where(c => c.AccountId == account.Id).ExecuteDeleteAsync(cancel);
        db.RecoveryCodes.AddRange(
            codes.Select(code => new RecoveryCode
            {
                Id = Guid.CreateVersion7(),
                AccountId = account.Id,
                Hash = LinkSecret.HashOf(code),
            })
        );
        await signIns.NoteAsync(account.Id, "recovery codes made", succeeded: true, cancel);
        await transaction.CommitAsync(cancel);
        return new RecoveryCodesView(codes);
    }

    /// <summary>
    /// Sets another password by a code, which is used up, ends every session, and signs in. A wrong name and a wrong
    /// code are refused alike.
    /// </summary>
    public async Task<MeView> RecoverAsync(RecoverRequest asked, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        settings.RequireHousehold();
        var account = await users.FindByNameAsync(asked.Name.Trim());
        var (hash, now) = (LinkSecret.HashOf(asked.Code.ToLowerInvariant()), clock.GetCurrentInstant());
        var key = account?.Id ?? Guid.Empty;
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // With a condition, so that one code sets one password also when it is sent twice at once.
        var used = await db
            .RecoveryCodes.Where(c => c.AccountId == key && c.Hash == hash && c.UsedAt == null)
            .ExecuteUpdateAsync(set => set.SetProperty(c => c.UsedAt, now), cancel);
        if (account is null || used == 0)
        {
            await transaction.RollbackAsync(cancel);
            await signIns.NoteAsync(account?.Id, "wrong recovery code", succeeded: false, cancel);
            throw new RuleException(
                "That name and code do not belong together, or the code was used. Nothing was changed: try another "
                    + "one."
            );
        }

        var token = await users.GeneratePasswordResetTokenAsync(account);
        var changed = await users.ResetPasswordAsync(account, token, asked.Wanted);
        if (!changed.Succeeded)
        {
            throw new RuleException(
                $"{string.Join(" ", changed.Errors.Select(e => e.Description))} The password stays as it was, and the "
                    + "code can still be used."
            );
        }

        await Sessions.EndAllAsync(db, account.Id, cancel);
        await signIns.NoteAsync(account.Id, "password set by a recovery code", succeeded: true, cancel);
        await transaction.CommitAsync(cancel);
        await signIn.SignInAsync(account, isPersistent: true);
        tries.RememberDevice(account);
        return new MeView(SignInState.SignedIn, account.UserName);
    }

    public async Task<AccountView> AccountAsync(CancellationToken cancel)
    {
        var account = await users.RequireMineAsync(http);
        return new AccountView(
            account.UserName!,
            await signIns.LastAsync(account.Id, cancel),
            settings.IsOperator(account.Id, account.UserName!),
            await db.RecoveryCodes.CountAsync(c => c.AccountId == account.Id && c.UsedAt == null, cancel),
            Passkeys.Views(await users.GetPasskeysAsync(account)),
            await invitations.LastAsync(account.Id, cancel)
        );
    }

    /// <summary>A link for one further account; for the first one without anybody who asks.</summary>
    public async Task<AccountLinkView> LinkAsync(Guid? madeBy, CancellationToken cancel)
    {
        settings.RequireHousehold();
        var secret = LinkSecret.New();
        var now = clock.GetCurrentInstant();
        db.AccountLinks.Add(
            new AccountLink
            {
                Id = Guid.CreateVersion7(),
                Hash = LinkSecret.HashOf(secret),
                MadeBy = madeBy,
                MadeAt = now,
                ExpiresAt = now + LinkHolds,
            }
        );
        await db.SaveChangesAsync(cancel);
        return new AccountLinkView(LinkSecret.Path("welcome", secret), now + LinkHolds);
    }

    /// <summary>For the terminal: the way to the first account; null when there is one already.</summary>
    public async Task<string?> FirstLinkAsync(CancellationToken cancel) =>
        await db.Set<Account>().AnyAsync(cancel) ? null : (await LinkAsync(null, cancel)).Path;

    private static RuleException Refused() =>
        new("That name and password do not belong together, or too many were tried. Wait a little and try again.");
}
