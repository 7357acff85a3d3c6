namespace ZestyPocket.Core.Keeping;

/// <summary>
/// An album of its own that is bound into another one behind a week or day, such as a trip into the weekly album. It
/// keeps its own weeks, pictures and pages, so that it can become an album of its own again at any time.
/// </summary>
/// <param name="AfterUnitId">Of the album it is bound into.</param>
public sealed record AlbumInsert(Guid AlbumId, Guid AfterUnitId)
{
    /// <summary>
    /// Its leaves lie between the facing pages of that week or day, as one leaf of its own does; else behind it.
    /// </summary>
    public bool Between { get; init; }
}
