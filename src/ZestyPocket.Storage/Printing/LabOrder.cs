using NodaTime;
using ZestyPocket.Core.Printing;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Printing;

/// <summary>How far an order at a lab is.</summary>
public enum LabState
{
    /// <summary>Its files are drawn; it was not sent.</summary>
    Ready,
    Sent,
    Printed,
    Posted,

    /// <summary>It has come, whole or with something missing.</summary>
    Arrived,
}

/// <summary>Pictures that a lab prints: asked for once (by its key), drawn by a job that survives a restart.</summary>
public sealed class LabOrder : AskedJob
{
    public List<Guid> UnitIds { get; set; } = [];

    public PrintChoice Choice { get; set; }

    /// <summary>The pieces, when they were chosen.</summary>
    public List<Guid> PieceIds { get; set; } = [];

    public LabState At { get; set; }

    /// <summary>The files, with what lies on them and whether they came; see <c>LabOrderPrint</c>.</summary>
    public string Prints { get; set; } = "[]";

    /// <summary>The order whose lost prints this one repeats.</summary>
    public Guid? Repeats { get; set; }

    public int PagesDone { get; set; }

    public int PagesTotal { get; set; }

    public Instant? SentAt { get; set; }

    /// <summary>What it cost with postage; null when nobody said.</summary>
    public decimal? Price { get; set; }

    /// <summary>Of the price, three letters of ISO 4217.</summary>
    public string? Currency { get; set; }
}
