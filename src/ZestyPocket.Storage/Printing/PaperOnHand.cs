using NodaTime;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Storage.Printing;

/// <summary>A paper in a keeper's drawer.</summary>
public sealed class PaperOnHand
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    public Stock Stock { get; set; }

    public required string PaperKey { get; set; }

    /// <summary>How many sheets there are; null when nobody counts.</summary>
    public int? Count { get; set; }

    /// <summary>What a sheet costs, in the keeper's currency.</summary>
    public decimal? Price { get; set; }

    /// <summary>It has a grain, or a pattern with a direction.</summary>
    public bool HasDirection { get; set; }

    public bool BothSides { get; set; } = true;

    /// <summary>Sheets of this size are used beside the loaded paper.</summary>
    public bool UsedBeside { get; set; }

    public Instant MadeAt { get; set; }
}
