using NodaTime;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Storage.Sharing;

/// <summary>
/// A link for one person without an account, who writes about one day, one card or one question, and may add pictures.
/// It shows nothing of the album.
/// </summary>
public sealed class ContributorLink
{
    public const int LongestPerson = 80;

    public const int LongestPrompt = 600;

    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    /// <summary>SHA-256 of its secret, lower-case hex.</summary>
    public required string Hash { get; set; }

    /// <summary>The links of one question to several people have the same key.</summary>
    public Guid AskedTogether { get; set; }

    /// <summary>Its place among those, from 0.</summary>
    public int Ordinal { get; set; }

    /// <summary>Who answers; the author of the story.</summary>
    public required string Person { get; set; }

    /// <summary>What is asked, as the person reads it.</summary>
    public required string Prompt { get; set; }

    /// <summary>The day it is about; null when it is about none.</summary>
    public LocalDate? Day { get; set; }

    /// <summary>The week or day whose card the words are for; null when they are for none.</summary>
    public Guid? UnitId { get; set; }

    /// <summary>The card the words are for; null when they are for none.</summary>
    public Guid? PieceId { get; set; }

    /// <summary>How many pictures the person may add.</summary>
    public int MostPhotos { get; set; }

    public int Photos { get; set; }

    public Guid MadeBy { get; set; }

    public Instant MadeAt { get; set; }

    public Instant ExpiresAt { get; set; }

    public Instant? RevokedAt { get; set; }

    /// <summary>The words of the person; null until they are sent.</summary>
    public string? Words { get; set; }

    public Instant? SentAt { get; set; }

    public ContributionState State { get; set; }

    /// <summary>The story that was made of the words.</summary>
    public Guid? StoryId { get; set; }
}

/// <summary>What became of the words of a contributor.</summary>
public enum ContributionState
{
    /// <summary>Not sent yet, or waiting for a yes.</summary>
    Waiting,

    /// <summary>A <see cref="Story"/> was made of them.</summary>
    Accepted,

    Declined,
}
