using System.Collections.Immutable;

namespace ZestyPocket.Core.Keeping;

/// <summary>What an album knows about how it is kept: its rings and where a new volume begins.</summary>
public sealed record AlbumKeeping
{
    public static AlbumKeeping Usual { get; } = new();

    public BinderRings Rings { get; init; } = BinderRings.Usual;

    /// <summary>Units that a further volume begins with, in no order; a unit that is gone counts no more.</summary>
    public ImmutableArray<Guid> VolumeStarts { get; init; } = [];

    /// <summary>How the keeper works: evenings and the lag that is wanted.</summary>
    public WorkingHabit Habit { get; init; } = WorkingHabit.Usual;
}
