using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>Whether an album belongs to the demo, and whether it was made to its end.</summary>
public enum DemoState
{
    None,
    Making,
    Ready,
}

/// <summary>A dated album: its page body and the way it counts its days.</summary>
public sealed class Album : IRevisioned
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    public required string Name { get; set; }

    public LocalDate FirstDay { get; set; }

    public Length BodyWidth { get; set; }

    public Length BodyHeight { get; set; }

    public MeasureSystem Measures { get; set; }

    /// <summary>Pictures before this hour belong to the evening before.</summary>
    public LocalTime LateNightCutOff { get; set; }

    public DemoState Demo { get; set; }

    public Instant MadeAt { get; set; }

    /// <summary>Set when the keeper put the album away; it can be brought back.</summary>
    public Instant? PutAwayAt { get; set; }

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    public List<AlbumProtector> Protectors { get; set; } = [];

    public List<AlbumUnit> Units { get; set; } = [];

    public List<AlbumLeaf> Leaves { get; set; } = [];
}
