using NodaTime;

namespace ZestyPocket.Storage.Sharing;

/// <summary>What somebody may do with an album, from least to most.</summary>
public enum AlbumRole
{
    /// <summary>Sees the finished pages and writes comments.</summary>
    Reader,

    /// <summary>Works on the album like its owner.</summary>
    Editor,

    /// <summary>Shares it, deletes it, backs it up.</summary>
    Owner,
}

/// <summary>A keeper who may come to somebody else's album.</summary>
public sealed class AlbumShare
{
    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>Never the owner, which the album itself names.</summary>
    public AlbumRole Role { get; set; }

    public Instant Since { get; set; }
}

/// <summary>A link with which others become editors or readers of an album.</summary>
public sealed class Invitation
{
    public const int LongestName = 80;

    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public AlbumRole Role { get; set; }

    /// <summary>SHA-256 of its secret, lower-case hex: who reads the database cannot use it.</summary>
    public required string Hash { get; set; }

    /// <summary>For whom it was made, in the owner's words.</summary>
    public required string For { get; set; }

    public Guid MadeBy { get; set; }

    public Instant MadeAt { get; set; }

    public Instant ExpiresAt { get; set; }

    public int MostUses { get; set; }

    public int Uses { get; set; }

    public Instant? RevokedAt { get; set; }
}

/// <summary>What was done about the sharing of an album: who may come changed, or somebody came.</summary>
public sealed class ShareEntry
{
    public const int LongestWhat = 300;

    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    /// <summary>Who did it; null for somebody with a contributor's link.</summary>
    public Guid? KeeperId { get; set; }

    /// <summary>In words, such as <c>invited Ben as a reader</c>.</summary>
    public required string What { get; set; }

    public Instant At { get; set; }
}
