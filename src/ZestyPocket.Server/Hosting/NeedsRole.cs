using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// What an operation wants with the album it is about. Without it an operation is for editors: whoever only reads gets
/// what is marked for readers and nothing else.
/// </summary>
public sealed record NeedsRole(AlbumRole Role)
{
    /// <summary>Null when the operation says nothing.</summary>
    public static AlbumRole? Of(EndpointMetadataCollection? metadata) => metadata?.GetMetadata<NeedsRole>()?.Role;
}

/// <summary>The operation is for whoever runs the program.</summary>
public sealed record NeedsOperator;

/// <summary>Marks operations with who may ask for them.</summary>
public static class NeedsRoleMarks
{
    public static RouteHandlerBuilder ForTheOperator(this RouteHandlerBuilder route) =>
        route.WithMetadata(new NeedsOperator());

    public static RouteHandlerBuilder ForReaders(this RouteHandlerBuilder route) =>
        route.WithMetadata(new NeedsRole(AlbumRole.Reader));

    public static RouteHandlerBuilder ForTheOwner(this RouteHandlerBuilder route) =>
        route.WithMetadata(new NeedsRole(AlbumRole.Owner));
}
