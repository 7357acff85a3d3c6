using System.Security.Claims;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Hosting;

/// <summary>Who is asking. Every query for what belongs to somebody goes through this.</summary>
public interface ICurrentKeeper
{
    Guid Id { get; }
}

/// <summary>
/// The keeper for whom work goes on outside a request: a job, or a command of the terminal. It holds for everything
/// that is awaited inside.
/// </summary>
public sealed class KeeperScope : IDisposable
{
    private static readonly AsyncLocal<Guid?> Acting = new();

    private readonly Guid? _before;

    private KeeperScope(Guid? before) => _before = before;

    /// <summary>Null outside every scope.</summary>
    public static Guid? Now => Acting.Value;

    public static KeeperScope Of(Guid keeperId)
    {
        var scope = new KeeperScope(Acting.Value);
        Acting.Value = keeperId;
        return scope;
    }

    public void Dispose() => Acting.Value = _before;
}

/// <summary>
/// Whoever is signed in; on a machine where nobody signs in always the same keeper. Work for nobody is a mistake and
/// throws <see cref="InvalidOperationException"/>.
/// </summary>
public sealed class CurrentKeeper(IHttpContextAccessor http, ZestySettings settings) : ICurrentKeeper
{
    public Guid Id =>
        KeeperScope.Now
        ?? (
            settings.SignIn == SignInMode.None ? Keeper.LocalId
            : Guid.TryParse(http.HttpContext?.User.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id
            : throw new InvalidOperationException("Nobody is signed in, and no job says for whom it works.")
        );
}
