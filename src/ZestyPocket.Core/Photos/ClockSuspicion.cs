using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Photos;

/// <summary>A reason to doubt a camera's clock, and the correction that would mend it.</summary>
/// <param name="Camera">The camera in doubt.</param>
/// <param name="Proposed">Its clock with the correction; null when only the keeper can know it.</param>
/// <param name="Reason">In words, with the numbers it rests on.</param>
public sealed record ClockDoubt(string Camera, CameraClock? Proposed, string Reason);

/// <summary>
/// Finds cameras that disagree with the others by whole hours, and cameras whose pictures fall into the night. Common
/// practice: phones set their clocks by the network, cameras are set by hand and forgotten.
/// </summary>
public static class ClockSuspicion
{
    /// <summary>Two pictures this close are taken to show the same moment.</summary>
    private static readonly Duration Together = Duration.FromMinutes(5);

    /// <summary>
    /// Zones differ by 26 hours at most, but nobody leaves a camera further off than this by whole hours.
    /// </summary>
    private const int MostHours = 14;

    /// <summary>Fewer meetings than this prove nothing.</summary>
    private const int FewestMeetings = 3;

    /// <summary>
    /// Doubts about the cameras of an album, given every picture's recorded time and the album's calendar with the
    /// corrections made so far. A camera whose files carry offsets is trusted.
    /// </summary>
    public static ImmutableArray<ClockDoubt> Find(IReadOnlyList<RecordedTime> pictures, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        ArgumentNullException.ThrowIfNull(calendar);
        var cameras = pictures
            .Where(p => p.Local is not null && !string.IsNullOrEmpty(p.Camera))
            .GroupBy(p => p.Camera!, StringComparer.Ordinal)
            .OrderBy(g => g.Key, StringComparer.Ordinal)
            .ToList();
        var travel = calendar.Travel;
        var trusted = cameras.Where(Knows).SelectMany(g => g).ToList();
        if (trusted.Count == 0 && cameras.Count > 1)
        {
            // Nobody knows the zone: the camera with most pictures is as good as any.
            trusted = [.. cameras.MaxBy(g => g.Count())!];
        }

        var trustedNames = trusted.Select(t => t.Camera).ToHashSet();
        var clock = new AlbumClock(calendar);
        var moments = trusted.Select(t => clock.CaptureOf(t)!.At).Order().ToArray();
        var doubts = ImmutableArray.CreateBuilder<ClockDoubt>();
        foreach (var camera in cameras.Where(g => !trustedNames.Contains(g.Key)))
        {
            if (Doubt(camera.Key, [.. camera], moments, calendar, travel) is { } doubt)
            {
                doubts.Add(doubt);
            }
        }

        return doubts.ToImmutable();

        static bool Knows(IEnumerable<RecordedTime> group)
        {
            var list = group.ToList();
            return list.Count(p => p.OffsetMinutes is not null) * 2 > list.Count;
        }
    }

    private static ClockDoubt? Doubt(
        string camera,
        List<RecordedTime> pictures,
        Instant[] trusted,
        AlbumCalendar calendar,
        TravelDays travel
    )
    {
        var now = calendar.ClockOf(camera);
        var candidates = Enumerable
            .Range(-MostHours, (2 * MostHours) + 1)
            .Where(h => h != 0)
            .Select(h => (Clock: now with { CorrectionSeconds = now.CorrectionSeconds + (h * 3600L) }, Words: Hours(h)))
            .ToList();
        if (now.LeftOnZone is null && !calendar.Stays.IsEmpty)
        {
            candidates.Insert(
                0,
                (now with { LeftOnZone = calendar.HomeZone }, $"its clock stayed on {calendar.HomeZone}")
            );
        }

        var asItIs = Meetings(now);
        var ranked = candidates
            .Select(c => (c.Clock, c.Words, Met: Meetings(c.Clock)))
            .OrderByDescending(c => c.Met)
            .ToList();
        var best = ranked[0];
        // Chance meetings happen at every shift; a true one stands out from the others and from how it is now.
        var byChance = ranked.Count > 3 ? ranked[3].Met : 0;
        if (best.Met >= FewestMeetings && best.Met >= (2 * asItIs) + 1 && best.Met >= 2 * byChance)
        {
            return new ClockDoubt(
                camera,
                best.Clock,
                $"{best.Met} of its {pictures.Count} pictures meet one of another camera within five minutes if "
                    + $"{best.Words}; as it is, {asItIs} do."
            );
        }

        var night = Night(now);
        if (night >= FewestMeetings && night * 6 >= pictures.Count)
        {
            var home = candidates.FirstOrDefault(c => c.Clock.LeftOnZone is not null);
            var proposed = home.Clock is not null && Night(home.Clock) * 3 <= night ? home.Clock : null;
            return new ClockDoubt(
                camera,
                proposed,
                proposed is null
                    ? $"{night} of its {pictures.Count} pictures fall between midnight and five in the morning. "
                        + "Pair two pictures of the same moment, or type the true time of one."
                    : $"{night} of its {pictures.Count} pictures fall between midnight and five in the morning, and "
                        + $"{Night(proposed)} if its clock stayed on {calendar.HomeZone}."
            );
        }

        return null;

        int Meetings(CameraClock clock) => pictures.Count(p => Near(PhotoTime.Of(p, clock, travel)!.At));

        int Night(CameraClock clock) => pictures.Count(p => PhotoTime.Of(p, clock, travel)!.Local.Hour < 5);

        bool Near(Instant at)
        {
            var index = Array.BinarySearch(trusted, at);
            if (index >= 0)
            {
                return true;
            }

            index = ~index;
            return (index < trusted.Length && trusted[index] - at <= Together)
                || (index > 0 && at - trusted[index - 1] <= Together);
        }
    }

    private static string Hours(int hours) =>
        $"its clock is {Math.Abs(hours)} {(Math.Abs(hours) == 1 ? "hour" : "hours")} {(hours > 0 ? "slow" : "fast")}";
}
