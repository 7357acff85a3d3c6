using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Storage.Printing;

/// <summary>That a piece was printed, and as what: the last time.</summary>
public sealed class PrintedPiece
{
    public Guid PieceId { get; set; }

    public Guid AlbumId { get; set; }

    public Guid UnitId { get; set; }

    public Guid JobId { get; set; }

    /// <summary>
    /// Which page of its print it is on, from 1; null at a lab, and when an older version printed it.
    /// </summary>
    public int? Sheet { get; set; }

    /// <summary>The number it was printed with.</summary>
    public required string Number { get; set; }

    public Length CutWidth { get; set; }

    public Length CutHeight { get; set; }

    public Instant PrintedAt { get; set; }

    /// <summary>Everything that was printed of it, and on what; null when an older version printed it.</summary>
    public string? Recipe { get; set; }

    /// <summary>It was lost, smudged or cut wrong: it is printed again with the next sheets.</summary>
    public Spoilt? Spoilt { get; set; }
}
