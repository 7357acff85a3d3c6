using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Photos;

/// <summary>
/// A video that pictures are taken from. It lies in the vault under its hash until the keeper is done with it; the
/// frames taken are photos of the album like all others.
/// </summary>
public sealed class Video
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    /// <summary>SHA-256 of the file, lower-case hex; unique in its album.</summary>
    public required ContentHash Sha256 { get; set; }

    public required string FileName { get; set; }

    public long Bytes { get; set; }

    /// <summary>Pixels as it is seen.</summary>
    public int Width { get; set; }

    public int Height { get; set; }

    public long Milliseconds { get; set; }

    public double FramesPerSecond { get; set; }

    /// <summary>When it was begun, by the recorder's local time; null when the file does not say.</summary>
    public LocalDateTime? Started { get; set; }

    public int? OffsetMinutes { get; set; }

    /// <summary>The instant it was begun; null when the file does not say.</summary>
    public Instant? StartedAt { get; set; }

    public string? Camera { get; set; }

    /// <summary>Positions of proposed frames in milliseconds.</summary>
    public required long[] Proposed { get; set; }

    /// <summary>Positions of the frames that were taken, in milliseconds.</summary>
    public required long[] Taken { get; set; }

    /// <summary>The keeper wants the video itself kept with the album.</summary>
    public bool Kept { get; set; }

    public Instant AddedAt { get; set; }
}
