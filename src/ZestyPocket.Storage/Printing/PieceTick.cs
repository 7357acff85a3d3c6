using NodaTime;

namespace ZestyPocket.Storage.Printing;

/// <summary>How far a piece is on the table: cut, tucked in.</summary>
public sealed class PieceTick
{
    public Guid PieceId { get; set; }

    public Guid AlbumId { get; set; }

    public Guid UnitId { get; set; }

    public Instant? CutAt { get; set; }

    public Instant? TuckedAt { get; set; }

    /// <summary>What it looked like when it was tucked in; null for what is not printed, such as a keepsake.</summary>
    public string? TuckedRecipe { get; set; }
}
