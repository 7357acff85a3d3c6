using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>The hours one is awake on a documented day. Until may lie after midnight: 06:30 to 01:00.</summary>
public readonly record struct WakingWindow(LocalTime From, LocalTime Until)
{
    public static WakingWindow Default => new(new LocalTime(7, 0), new LocalTime(22, 0));

    /// <summary>
    /// The full hours in the window, from the first at or after its start; past midnight they count on from 24.
    /// </summary>
    public ImmutableArray<int> Hours
    {
        get
        {
            var from = (int)Math.Ceiling(Minutes(From) / 60.0);
            var until = Minutes(Until) / 60;
            if (Until <= From)
            {
                until += 24;
            }

            return [.. Enumerable.Range(from, Math.Max(0, until - from + 1))];
        }
    }

    private static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;
}

/// <summary>What an hour asks for: the picture nearest to it, within thirty minutes; null leaves a gap.</summary>
public sealed record HourProposal<T>(int Hour, T? Nearest)
    where T : class;

/// <summary>
/// One slot an hour: a picture belongs to the hour nearest to it, within 30 minutes. Common practice.
/// </summary>
public static class HourSlots
{
    /// <summary>The hour nearest to a minute of the day; half past belongs to the hour after.</summary>
    public static int Of(int minute) => (minute + 30) / 60;

    /// <summary>For each hour the nearest picture within 30 minutes; of two equally near the earlier.</summary>
    public static ImmutableArray<HourProposal<T>> Propose<T>(
        IEnumerable<int> hours,
        IReadOnlyList<(T Picture, int Minute)> pictures
    )
        where T : class
    {
        ArgumentNullException.ThrowIfNull(hours);
        return
        [
            .. hours.Select(hour => new HourProposal<T>(
                hour,
                pictures
                    .Where(p => Of(p.Minute) == hour)
                    .OrderBy(p => Math.Abs(p.Minute - (hour * 60)))
                    .ThenBy(p => p.Minute)
                    .Select(p => p.Picture)
                    .FirstOrDefault()
            )),
        ];
    }
}
