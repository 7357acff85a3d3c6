using NodaTime;

namespace ZestyPocket.Storage.Jobs;

public enum JobState
{
    Waiting,
    Running,
    Done,
    Cancelled,
    Failed,
}

/// <summary>Work that a keeper asked for once, by its key, and that a job does which survives a restart.</summary>
public abstract class AskedJob
{
    public const int LongestKey = 100;

    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>Chosen by the asker; asking twice with the same key is one job.</summary>
    public required string RequestKey { get; set; }

    public JobState State { get; set; }

    public bool CancelAsked { get; set; }

    /// <summary>For the keeper: what happened and what to do, when it failed.</summary>
    public string? Problem { get; set; }

    public Instant MadeAt { get; set; }

    public Instant? EndedAt { get; set; }
}
