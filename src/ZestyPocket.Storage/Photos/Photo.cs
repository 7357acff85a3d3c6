using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Photos;

/// <summary>A photo of an album. The original lies in the vault under its hash.</summary>
public sealed class Photo : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    /// <summary>The unit whose days hold the photo's day; null when it has no day or none of the album's.</summary>
    public Guid? UnitId { get; set; }

    /// <summary>SHA-256 of the original, lower-case hex; with the album it is unique: the same file twice is one photo.</summary>
    public required string Sha256 { get; set; }

    public required string FileName { get; set; }

    public required string Format { get; set; }

    public long Bytes { get; set; }

    /// <summary>Pixels of the upright picture.</summary>
    public int Width { get; set; }

    public int Height { get; set; }

    /// <summary>The camera's own local time as recorded, uncorrected.</summary>
    public LocalDateTime? Recorded { get; set; }

    public int? OffsetMinutes { get; set; }

    public string? Camera { get; set; }

    public double? Latitude { get; set; }

    public double? Longitude { get; set; }

    /// <summary>The album's day; null puts the photo into the "no date" tray.</summary>
    public LocalDate? Day { get; set; }

    public bool DaySetByKeeper { get; set; }

    public Instant AddedAt { get; set; }

    /// <summary>Left out of the album by the keeper; can be taken back.</summary>
    public bool LeftOut { get; set; }

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    public PixelSize Pixels => new(Width, Height);
}
