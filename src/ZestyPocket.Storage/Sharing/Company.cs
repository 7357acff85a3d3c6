using NodaTime;

namespace ZestyPocket.Storage.Sharing;

/// <summary>Where somebody is in an album: one row for each open window.</summary>
public sealed class Presence
{
    public Guid AlbumId { get; set; }

    /// <summary>Chosen by the window.</summary>
    public Guid WindowId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>The week or day that is looked at; null for the whole album.</summary>
    public Guid? UnitId { get; set; }

    public Instant SeenAt { get; set; }
}

/// <summary>A comment on a spread.</summary>
public sealed class Comment
{
    public const int LongestWords = 2_000;

    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid UnitId { get; set; }

    public Guid KeeperId { get; set; }

    public required string Words { get; set; }

    public Instant MadeAt { get; set; }

    /// <summary>Set when what it asks for is done.</summary>
    public Instant? DoneAt { get; set; }

    /// <summary>Set when it was deleted, which can be undone.</summary>
    public Instant? DeletedAt { get; set; }
}
