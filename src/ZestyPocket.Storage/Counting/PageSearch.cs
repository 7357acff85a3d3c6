using NodaTime;

namespace ZestyPocket.Storage.Counting;

public enum PageSearchState
{
    Waiting,
    Running,
    Done,
    Cancelled,
    Failed,
}

/// <summary>
/// A search for the pages of a stretch: asked for once (by its key), made by a job that survives a restart.
/// </summary>
public sealed class PageSearch
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>Chosen by the asker; asking twice with the same key is one search.</summary>
    public required string RequestKey { get; set; }

    /// <summary>The first unit.</summary>
    public Guid FromUnitId { get; set; }

    /// <summary>How many units.</summary>
    public int Count { get; set; }

    /// <summary>
    /// What counts how much when the keeper has moved it, in the order leaf, empty pocket, crop, change, alter; empty
    /// for the usual weights.
    /// </summary>
    public List<int> Weights { get; set; } = [];

    public PageSearchState State { get; set; }

    public bool CancelAsked { get; set; }

    /// <summary>Of the ways that are tried, how many are done.</summary>
    public int WaysDone { get; set; }

    public int WaysTotal { get; set; }

    /// <summary>The choices as a document; null before it is done.</summary>
    public string? Answer { get; set; }

    /// <summary>For the keeper: what happened and what to do, when it failed.</summary>
    public string? Problem { get; set; }

    public Instant MadeAt { get; set; }

    public Instant? EndedAt { get; set; }
}
