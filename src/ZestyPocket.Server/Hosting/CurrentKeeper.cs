using System.Security.Claims;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Hosting;

/// <summary>Who is asking. Every query for what belongs to somebody goes through this.</summary>
public interface ICurrentKeeper
{
    Guid Id { get; }

    /// <summary>What this request or job wants with an album: whoever may do less does not find it.</summary>
    AlbumRole Needs { get; }
}

/// <summary>
/// The keeper for whom work goes on outside a request: a job, or a command of the terminal. It holds for everything
/// that is awaited inside.
/// </summary>
public sealed class KeeperScope : IDisposable
{
    private static readonly AsyncLocal<(Guid Id, AlbumRole Needs)?> Acting = new();

    private readonly (Guid Id, AlbumRole Needs)? _before;

    private KeeperScope((Guid Id, AlbumRole Needs)? before) => _before = before;

    /// <summary>Null outside every scope.</summary>
    public static (Guid Id, AlbumRole Needs)? Now => Acting.Value;

    public static KeeperScope Of(Guid keeperId, AlbumRole needs = AlbumRole.Editor)
    {
        var scope = new KeeperScope(Acting.Value);
        Acting.Value = (keeperId, needs);
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
        KeeperScope.Now?.Id
        ?? (
            settings.SignIn == SignInMode.None ? Keeper.LocalId
            : Guid.TryParse(http.HttpContext?.User.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id
            : throw new InvalidOperationException("Nobody is signed in, and no job says for whom it works.")
        );

    public AlbumRole Needs =>
        KeeperScope.Now?.Needs ?? NeedsRole.Of(http.HttpContext?.GetEndpoint()?.Metadata) ?? AlbumRole.Editor;
}
