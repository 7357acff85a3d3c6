using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Storage.Printing;

/// <summary>What became of what is left of a sheet.</summary>
public enum LeftoverState
{
    /// <summary>A print left it over; the keeper has not said what becomes of it.</summary>
    Offered,

    /// <summary>The sheet is kept whole: it goes through the printer again.</summary>
    Sheet,

    /// <summary>It was cut off and is kept by itself.</summary>
    CutOff,
    Used,
    ThrownAway,
}

/// <summary>The free part of a sheet after a print.</summary>
public sealed class SheetLeftover
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>The print that left it over.</summary>
    public Guid JobId { get; set; }

    /// <summary>Its number in that print.</summary>
    public int Sheet { get; set; }

    public Stock Stock { get; set; }

    /// <summary>The sheet it is part of.</summary>
    public required string PaperKey { get; set; }

    public Length X { get; set; }

    public Length Y { get; set; }

    public Length Width { get; set; }

    public Length Height { get; set; }

    public LeftoverState State { get; set; }

    /// <summary>The print that used it up.</summary>
    public Guid? UsedBy { get; set; }

    public Instant At { get; set; }

    public Rect Free => new(X, Y, Width, Height);

    /// <summary>As a sheet that can be printed on; null when it is not kept.</summary>
    public SheetOnHand? OnHand() =>
        State switch
        {
            LeftoverState.Sheet when Paper.Find(PaperKey) is { } paper => new SheetOnHand(Stock, paper)
            {
                LeftoverId = Id,
                Free = Free,
            },
            LeftoverState.CutOff => new SheetOnHand(Stock, new Paper("offcut", "Offcut", Free.Size))
            {
                LeftoverId = Id,
            },
            _ => null,
        };
}
