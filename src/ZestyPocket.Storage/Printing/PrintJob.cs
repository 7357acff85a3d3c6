using NodaTime;

namespace ZestyPocket.Storage.Printing;

public enum PrintJobState
{
    Waiting,
    Running,
    Done,
    Cancelled,
    Failed,
}

/// <summary>A print run: asked for once (by its key), drawn by a job that survives a restart.</summary>
public sealed class PrintJob
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>Chosen by the asker; asking twice with the same key is one job.</summary>
    public required string RequestKey { get; set; }

    public List<Guid> UnitIds { get; set; } = [];

    public required string PaperKey { get; set; }

    public long MarginEmu { get; set; }

    public long GapEmu { get; set; }

    /// <summary>The keeper knows what would not come out as it should and prints all the same.</summary>
    public bool DespiteDoubts { get; set; }

    public PrintJobState State { get; set; }

    public bool CancelAsked { get; set; }

    public int PagesDone { get; set; }

    public int PagesTotal { get; set; }

    /// <summary>For the keeper: what happened and what to do, when it failed.</summary>
    public string? Problem { get; set; }

    public Instant MadeAt { get; set; }

    public Instant? EndedAt { get; set; }
}
