using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Accounts;

namespace ZestyPocket.Server.Household;

/// <summary>Who signed in from where, who tried, and what was changed about how they sign in.</summary>
public sealed class SignInLog(ZestyContext db, IHttpContextAccessor http, IClock clock)
{
    private const int MostShown = 50;

    /// <summary>Saves also what else the context holds.</summary>
    /// <param name="account">Null when there is no such account.</param>
    public async Task<SignInAttempt> NoteAsync(Guid? account, string what, bool succeeded, CancellationToken cancel)
    {
        var attempt = new SignInAttempt
        {
            Id = Guid.CreateVersion7(),
            AccountId = account,
            What = what,
            Succeeded = succeeded,
            From = http.HttpContext?.Connection.RemoteIpAddress?.ToString() ?? "this machine",
            At = clock.GetCurrentInstant(),
        };
        db.SignIns.Add(attempt);
        await db.SaveChangesAsync(cancel);
        return attempt;
    }

    /// <summary>The newest first.</summary>
    public Task<List<SignInView>> LastAsync(Guid account, CancellationToken cancel) =>
        db
            .SignIns.AsNoTracking()
            .Where(a => a.AccountId == account)
            .OrderByDescending(a => a.At)
            .Take(MostShown)
            .Select(a => new SignInView(a.At, a.What, a.From, a.Succeeded))
            .ToListAsync(cancel);
}
