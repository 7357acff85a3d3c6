using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Photos;

/// <summary>Where a photo lies in time and in the album.</summary>
public sealed record PhotoDay(
    Guid? UnitId,
    LocalDateTime? Taken,
    Instant? TakenAt,
    LocalDate? Day,
    int Occurrence,
    Instant SortAt
);

/// <summary>An album's units and clocks, read once to place many photos.</summary>
public sealed class AlbumDays(AlbumCalendar calendar, IReadOnlyList<(Guid Id, UnitDates Dates)> units)
{
    /// <summary>Pictures without a day stand behind all others.</summary>
    public static readonly Instant Last = Instant.FromUtc(9999, 12, 30, 0, 0);

    private readonly AlbumClock _clock = new(calendar);

    public AlbumCalendar Calendar => calendar;

    public IReadOnlyList<(Guid Id, UnitDates Dates)> Units => units;

    public UnitDates? Dates(Guid unitId) => units.Where(u => u.Id == unitId).Select(u => u.Dates).FirstOrDefault();

    /// <summary>The units that hold one of these days, in the album's order.</summary>
    public IEnumerable<Guid> UnitsOn(IReadOnlyCollection<LocalDate> days) =>
        units.Where(u => days.Any(d => d >= u.Dates.First && d <= u.Dates.Last)).Select(u => u.Id);

    /// <summary>Places a photo by what its file says and what the keeper decided.</summary>
    public PhotoDay Place(
        RecordedTime recorded,
        TimeSource source,
        LocalDate? keeperDay,
        int? keeperHour,
        bool dayTakenAway
    )
    {
        var capture = source == TimeSource.None ? null : _clock.CaptureOf(recorded);
        var moment = capture is null ? (AlbumMoment?)null : _clock.MomentOf(capture);
        if (source == TimeSource.NameDay && moment is { } named)
        {
            moment = named with { Minute = null };
        }

        if (keeperDay is { } day)
        {
            var same = moment is { } m && m.Day == day;
            var minute = keeperHour is { } hour ? hour * 60 : moment?.Minute;
            moment = new AlbumMoment(day, same ? moment!.Value.Occurrence : 0, minute);
            var sort =
                same && keeperHour is null
                    ? capture!.At
                    : Zones.At(day.AtMidnight().PlusMinutes(minute ?? 720), Zones.Find(calendar.HomeZone));
            return Done(moment, sort);
        }

        return dayTakenAway || moment is null ? Done(null, Last) : Done(moment, capture!.At);

        PhotoDay Done(AlbumMoment? at, Instant sort) =>
            new(
                at is { } found ? UnitOf(found) : null,
                capture?.Local,
                capture?.At,
                at?.Day,
                at?.Occurrence ?? 0,
                sort == Last ? Last : sort + BurstOrder.Behind(recorded.FileName ?? string.Empty, recorded.Local)
            );
    }

    private Guid? UnitOf(AlbumMoment moment)
    {
        foreach (var (id, dates) in units)
        {
            if (dates.Holds(moment))
            {
                return id;
            }
        }

        return null;
    }
}

/// <summary>One photo whose place changes.</summary>
public sealed record PhotoMove(Guid Id, Guid? OldUnitId, LocalDate? OldDay, PhotoDay Now)
{
    public bool ChangesUnit => OldUnitId != Now.UnitId;
}

/// <summary>What moves of photos mean, in words.</summary>
public static class PhotoMoves
{
    /// <summary>
    /// Line by line: how many pictures go from which unit to which, how many to another day, and how many prints left a
    /// pocket for it.
    /// </summary>
    public static IReadOnlyList<string> InWords(IReadOnlyList<PhotoMove> moves, AlbumDays days, int taken)
    {
        ArgumentNullException.ThrowIfNull(moves);
        ArgumentNullException.ThrowIfNull(days);
        var style = days.Calendar.Style;
        var places = days.Units.Select((u, i) => (u.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var lines = moves
            .Where(m => m.ChangesUnit)
            .GroupBy(m => (From: Title(m.OldUnitId), To: Title(m.Now.UnitId)))
            .OrderBy(g => g.Min(m => Place(m.OldUnitId)))
            .ThenBy(g => g.Min(m => Place(m.Now.UnitId)))
            .Select(g => $"{g.Count()} {(g.Count() == 1 ? "picture" : "pictures")} from {g.Key.From} to {g.Key.To}")
            .ToList();
        var redated = moves.Count(m => !m.ChangesUnit && m.OldDay != m.Now.Day);
        if (redated > 0)
        {
            lines.Add($"{redated} {(redated == 1 ? "picture" : "pictures")} to another day of the same week or day");
        }

        if (taken > 0)
        {
            lines.Add($"{taken} {(taken == 1 ? "print" : "prints")} left a pocket because the picture moved");
        }

        return lines;

        // In the album's order; what lies outside comes last.
        int Place(Guid? unit) => unit is { } id && places.TryGetValue(id, out var place) ? place : int.MaxValue;

        string Title(Guid? unit) =>
            unit is { } id ? days.Dates(id)?.Title(style) ?? "a week or day that is gone" : "outside the album";
    }
}
