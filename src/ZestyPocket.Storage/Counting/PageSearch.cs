using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Counting;

/// <summary>
/// A search for the pages of a stretch: asked for once (by its key), made by a job that survives a restart.
/// </summary>
public sealed class PageSearch : AskedJob
{
    /// <summary>The first unit.</summary>
    public Guid FromUnitId { get; set; }

    /// <summary>How many units.</summary>
    public int Count { get; set; }

    /// <summary>
    /// What counts how much when the keeper has moved it, in the order leaf, empty pocket, crop, change, alter; empty
    /// for the usual weights.
    /// </summary>
    public List<int> Weights { get; set; } = [];

    /// <summary>Of the ways that are tried, how many are done.</summary>
    public int WaysDone { get; set; }

    public int WaysTotal { get; set; }

    /// <summary>The choices as a document; null before it is done.</summary>
    public string? Answer { get; set; }
}
