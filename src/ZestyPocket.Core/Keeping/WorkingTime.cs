using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>How long somebody has worked, read from when edits were made.</summary>
public static class WorkingTime
{
    /// <summary>A longer pause between two edits is no work. A choice of this program.</summary>
    public static Duration Idle => Duration.FromMinutes(10);

    /// <summary>Looking and thinking before the first edit of a sitting. A choice of this program.</summary>
    public static Duration BeforeTheFirst => Duration.FromMinutes(2);

    /// <summary>The time between edits that follow each other, and a little before the first of each sitting.</summary>
    /// <param name="edits">In any order.</param>
    public static Duration Of(IEnumerable<Instant> edits)
    {
        var (worked, last) = (Duration.Zero, (Instant?)null);
        foreach (var at in edits.Order())
        {
            worked += last is { } before && at - before <= Idle ? at - before : BeforeTheFirst;
            last = at;
        }

        return worked;
    }

    /// <summary>The middle one of several, the lower of two; null of none.</summary>
    public static Duration? Middle(IEnumerable<Duration> times)
    {
        var sorted = times.Order().ToList();
        return sorted.Count == 0 ? null : sorted[(sorted.Count - 1) / 2];
    }

    /// <summary>
    /// The time at a unit: what its edits say or what a timer ran, whichever is longer. Scissors and paper make no
    /// edits, and a timer is forgotten now and then.
    /// </summary>
    public static Duration With(Duration edits, int timedMinutes) =>
        Duration.Max(edits, Duration.FromMinutes(timedMinutes));
}

/// <summary>Minutes that a timer ran for a unit.</summary>
public sealed record TimedWork(Guid UnitId, int Minutes);
