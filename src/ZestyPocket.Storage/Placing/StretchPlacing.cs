using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Placing;

/// <summary>
/// The placing of several units in a row: asked for once (by its key), made by a job that survives a restart, and one
/// edit in the end.
/// </summary>
public sealed class StretchPlacing : AskedJob
{
    /// <summary>The first unit.</summary>
    public Guid FromUnitId { get; set; }

    /// <summary>How many units.</summary>
    public int Count { get; set; }

    /// <summary>What lies there and is not locked is placed anew.</summary>
    public bool Again { get; set; }

    /// <summary>The rules they share, as a document.</summary>
    public required string Rules { get; set; }

    public int UnitsDone { get; set; }

    public int UnitsTotal { get; set; }

    /// <summary>The edit that it became; null when nothing was changed.</summary>
    public Guid? EditId { get; set; }

    /// <summary>What was done, in words.</summary>
    public string? Done { get; set; }
}
