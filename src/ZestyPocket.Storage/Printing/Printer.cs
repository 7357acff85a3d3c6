using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Storage.Printing;

/// <summary>A printer of a keeper's, and what was measured on its test sheet.</summary>
public sealed class Printer
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    public required string Name { get; set; }

    public double ScaleX { get; set; } = 1;

    public double ScaleY { get; set; } = 1;

    public Length OffsetX { get; set; }

    public Length OffsetY { get; set; }

    /// <summary>How far too far right the second side of a sheet comes out, seen on that side.</summary>
    public Length BackRight { get; set; }

    /// <summary>How far down.</summary>
    public Length BackDown { get; set; }

    /// <summary>Null when nothing was measured yet.</summary>
    public Instant? MeasuredAt { get; set; }

    /// <summary>The keeper wants the sheets to make up for what was measured.</summary>
    public bool MakesUp { get; set; }

    public Instant MadeAt { get; set; }

    public PrinterFault Fault() => new(ScaleX, ScaleY, OffsetX, OffsetY);

    public void Measured(PrinterFault fault, Instant at)
    {
        ArgumentNullException.ThrowIfNull(fault);
        (ScaleX, ScaleY, OffsetX, OffsetY, MeasuredAt) = (fault.ScaleX, fault.ScaleY, fault.OffsetX, fault.OffsetY, at);
    }
}
