using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Photos;

/// <summary>What the keeper knows of a camera's clock.</summary>
/// <param name="Camera">The camera's name as its files have it; empty for files that name none.</param>
/// <param name="CorrectionSeconds">Added to every recorded time: the true time minus the recorded one.</param>
/// <param name="LeftOnZone">
/// Set when the clock stayed on one zone through a trip (usually home): the recorded times are that zone's. Null when
/// the clock showed the local time of each place.
/// </param>
public sealed record CameraClock(string Camera, long CorrectionSeconds, string? LeftOnZone)
{
    public bool IsPlain => CorrectionSeconds == 0 && LeftOnZone is null;

    /// <summary>
    /// Such as <c>2 hours later</c> or <c>stayed on Europe/Lisbon</c>; null when the clock is taken as it is.
    /// </summary>
    public string? Words
    {
        get
        {
            if (IsPlain)
            {
                return null;
            }

            var (seconds, parts) = (Math.Abs(CorrectionSeconds), new List<string>());
            foreach (var (unit, size) in new[] { ("day", 86_400L), ("hour", 3_600L), ("minute", 60L), ("second", 1L) })
            {
                var count = seconds / size;
                seconds %= size;
                if (count > 0)
                {
                    parts.Add($"{count} {unit}{(count == 1 ? string.Empty : "s")}");
                }
            }

            var shift =
                parts.Count == 0 ? null : $"{string.Join(' ', parts)} {(CorrectionSeconds > 0 ? "later" : "earlier")}";
            return LeftOnZone is null ? shift
                : shift is null ? $"stayed on {LeftOnZone}"
                : $"stayed on {LeftOnZone}, {shift}";
        }
    }

    /// <summary>What it takes to come from this clock to another, as an order for the keeper.</summary>
    public string RemedyTo(CameraClock proposed)
    {
        ArgumentNullException.ThrowIfNull(proposed);
        if (proposed.LeftOnZone is { } zone && LeftOnZone != zone)
        {
            return $"Read its clock as {zone} time";
        }

        var shift = new CameraClock(Camera, proposed.CorrectionSeconds - CorrectionSeconds, null);
        return $"Set it {shift.Words}";
    }
}

/// <summary>A time as a file has it: the camera's own local time, perhaps with an offset.</summary>
public readonly record struct RecordedTime(LocalDateTime? Local, int? OffsetMinutes, string? Camera)
{
    /// <summary>Of the file, for the order within a second: see <see cref="BurstOrder"/>.</summary>
    public string FileName { get; init; } = string.Empty;
}

/// <summary>When a picture was really taken.</summary>
/// <param name="Local">By the clock of the place.</param>
/// <param name="At">The instant; what puts pictures of several cameras in order.</param>
public sealed record Capture(LocalDateTime Local, Instant At);

/// <summary>
/// Capture time = recorded time + the camera's correction, in the zone of the file, else of the stay, else of the
/// album's home. Common practice; zones are the tz database's.
/// </summary>
public static class PhotoTime
{
    /// <summary>In seconds, 400 days: more than a year is no clock error.</summary>
    public const long LongestCorrection = 400L * 86_400;

    public static Capture? Of(RecordedTime recorded, CameraClock clock, TravelDays travel)
    {
        ArgumentNullException.ThrowIfNull(clock);
        ArgumentNullException.ThrowIfNull(travel);
        if (recorded.Local is not { } written)
        {
            return null;
        }

        var local = written.PlusSeconds(clock.CorrectionSeconds);
        if (clock.LeftOnZone is { } zone)
        {
            var at = Zones.At(local, Zones.Find(zone));
            return new Capture(at.InZone(travel.ZoneAt(at)).LocalDateTime, at);
        }

        return recorded.OffsetMinutes is { } minutes
            ? new Capture(local, local.WithOffset(Offset.FromSeconds(minutes * 60)).ToInstant())
            : new Capture(local, Zones.At(local, travel.ZoneOf(local)));
    }

    /// <summary>
    /// The correction that follows from a pair of pictures of the same moment: what must be added to
    /// <paramref name="wrong"/> as recorded to read as <paramref name="right"/> really was. At most 400 days.
    /// </summary>
    public static long CorrectionFromPair(LocalDateTime wrong, LocalDateTime right)
    {
        var seconds = (long)Period.Between(wrong, right, PeriodUnits.Seconds).Seconds;
        return Math.Abs(seconds) <= LongestCorrection
            ? seconds
            : throw new RuleException(
                "Those two times are more than a year apart: that is no clock correction. Nothing was changed; look "
                    + "for the right pair."
            );
    }
}
