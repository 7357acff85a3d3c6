using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// Who is asking. Every query for albums goes through this, so that sign-in can take the place later.
/// </summary>
public interface ICurrentKeeper
{
    Guid Id { get; }
}

/// <summary>The one keeper of a machine nobody signs in to.</summary>
public sealed class LocalKeeper : ICurrentKeeper
{
    public Guid Id => Keeper.LocalId;
}
