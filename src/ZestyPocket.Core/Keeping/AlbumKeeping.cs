using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping;

/// <summary>What an album knows about how it is kept: its rings and where a new volume begins.</summary>
public sealed record AlbumKeeping
{
    public static AlbumKeeping Usual { get; } = new();

    public BinderRings Rings { get; init; } = BinderRings.Usual;

    /// <summary>Units that a further volume begins with, in no order; a unit that is gone counts no more.</summary>
    public ImmutableArray<Guid> VolumeStarts { get; init; } = [];

    /// <summary>Which volume each unit is in, from 1, in the order of the units.</summary>
    public ImmutableArray<int> VolumesOf(IEnumerable<Guid> units)
    {
        ArgumentNullException.ThrowIfNull(units);
        var volume = 1;
        return [.. units.Select((u, i) => i > 0 && VolumeStarts.Contains(u) ? ++volume : volume)];
    }

    /// <summary>What stands on the spine of each volume; one in a single volume is called as the album is.</summary>
    public static ImmutableArray<string> VolumeNames(string album, int volumes) =>
        volumes <= 1
            ? [album]
            :
            [
                .. Enumerable
                    .Range(1, volumes)
                    .Select(v => string.Create(CultureInfo.InvariantCulture, $"{album}, volume {v}")),
            ];

    /// <summary>Minutes at the table that a timer ran, one for each unit.</summary>
    public ImmutableArray<TimedWork> Timed { get; init; } = [];

    /// <summary>What a page protector cost; null when nobody said.</summary>
    public Money? LeafPrice { get; init; }

    /// <summary>What weeks and days will be made of that have no pictures yet, one for each.</summary>
    public ImmutableArray<SpreadPlan> Plans { get; init; } = [];

    /// <summary>The plan of a unit; null when there is none.</summary>
    public SpreadPlan? PlanOf(Guid unitId) => Plans.FirstOrDefault(p => p.UnitId == unitId);

    /// <summary>Albums of their own, such as trips, that are bound into this one.</summary>
    public ImmutableArray<AlbumInsert> Inserts { get; init; } = [];

    /// <summary>How the keeper works: evenings and the lag that is wanted.</summary>
    public WorkingHabit Habit { get; init; } = WorkingHabit.Usual;
}
