using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// How an album counts time: its kind, week scheme, zones, stays, cameras and style. From it follow the units an album
/// is made of and the unit a picture belongs to. Immutable.
/// </summary>
public sealed record AlbumCalendar
{
    public const int MostStays = 200;

    public required AlbumKind Kind { get; init; }

    /// <summary>First day of the album; for a documented day, that day.</summary>
    public required LocalDate FirstDay { get; init; }

    public WeekScheme Scheme { get; init; }

    /// <summary>The weekday its weeks begin with.</summary>
    public IsoDayOfWeek FirstWeekday =>
        Scheme switch
        {
            WeekScheme.SundayFirst => IsoDayOfWeek.Sunday,
            WeekScheme.FromFirstDay => FirstDay.DayOfWeek,
            _ => IsoDayOfWeek.Monday,
        };

    /// <summary>Pictures before this time belong to the evening before.</summary>
    public LocalTime CutOff { get; init; } = AlbumDay.DefaultCutOff;

    /// <summary>
    /// Where the album is at home: the zone of pictures that nothing else places. Id of the tz database.
    /// </summary>
    public string HomeZone { get; init; } = "Etc/UTC";

    public DateStyle Style { get; init; }

    public WakingWindow Waking { get; init; } = WakingWindow.Default;

    public ImmutableArray<Stay> Stays { get; init; } = [];

    public ImmutableArray<CameraClock> Cameras { get; init; } = [];

    public ImmutableArray<PhotoSeries> Series { get; init; } = [];

    /// <summary>The weeks of the album's scheme.</summary>
    public WeekCalendar Weeks => new(Scheme, FirstDay);

    /// <summary>The traveller's days.</summary>
    public TravelDays Travel => new(FirstDay, Stays, HomeZone, CutOff);

    /// <summary>The clock of a camera as far as the keeper has said anything about it.</summary>
    public CameraClock ClockOf(string? camera) =>
        Cameras.FirstOrDefault(c => c.Camera == (camera ?? string.Empty))
        ?? new CameraClock(camera ?? string.Empty, 0, null);

    /// <summary>Checks zones and the order of stays. Throws <see cref="RuleException"/>.</summary>
    public AlbumCalendar Checked()
    {
        if (FirstDay.Year is < 1900 or > 2200)
        {
            throw new RuleException("The first day must lie between 1900 and 2200. Nothing was changed.");
        }

        if (CutOff > new LocalTime(6, 0))
        {
            throw new RuleException(
                "The late-night cut-off can be 06:00 at the latest: later pictures are the new day's. Nothing was "
                    + "changed."
            );
        }

        if (Stays.Length > MostStays)
        {
            throw new RuleException($"A trip can have {MostStays} stays at most. Nothing was changed.");
        }

        if (Waking.Hours.Length is < 1 or > 24)
        {
            throw new RuleException(
                "The waking hours must be at least one and at most twenty-four. Nothing was changed."
            );
        }

        _ = Travel;
        foreach (var clock in Cameras.Where(c => c.LeftOnZone is not null))
        {
            _ = Zones.Find(clock.LeftOnZone!);
        }

        return this;
    }

    /// <summary>The first units of an album of this kind; a documented day has as many as its waking hours.</summary>
    public ImmutableArray<UnitDates> FirstUnits(int count) =>
        Kind switch
        {
            AlbumKind.Weekly => [.. Weeks.Run(FirstDay, count).Select(UnitDates.Of)],
            AlbumKind.Trip => [.. Travel.Take(count).Select(UnitDates.Of)],
            AlbumKind.DocumentedDay => [.. Waking.Hours.Select(hour => UnitDates.OfHour(FirstDay, hour))],
            _ => [.. Enumerable.Range(1, count).Select(n => UnitDates.Numbered(FirstDay, n))],
        };

    /// <summary>
    /// The unit after the last or before the first of <paramref name="units"/> (which is in order and not empty); null
    /// when there is none: a day has no hour 30, a trip and a countdown have no day 0.
    /// </summary>
    public UnitDates? Beyond(IReadOnlyList<UnitDates> units, bool atEnd)
    {
        ArgumentNullException.ThrowIfNull(units);
        var edge = units[atEnd ? ^1 : 0];
        switch (edge.Kind)
        {
            case UnitKind.Week:
                return UnitDates.Of(Weeks.Holding(atEnd ? edge.Last.PlusDays(1) : edge.First.PlusDays(-1)));
            case UnitKind.Hour:
                var hour = atEnd ? edge.LastNumber + 1 : edge.FirstNumber - 1;
                return hour is >= 0 and < 30 ? UnitDates.OfHour(FirstDay, hour) : null;
            case UnitKind.TravelDay:
                return atEnd ? UnitDates.Of(Travel.Take(edge.LastNumber + 1)[^1]) : null;
            default:
                return atEnd ? UnitDates.Numbered(FirstDay, edge.LastNumber + 1) : null;
        }
    }

    /// <summary>The single weeks, days or hours that a merged unit stands for, in order.</summary>
    public ImmutableArray<UnitDates> Parts(UnitDates merged)
    {
        ArgumentNullException.ThrowIfNull(merged);
        return merged.Kind switch
        {
            UnitKind.Week =>
            [
                .. Enumerable
                    .Range(0, merged.Weight)
                    .Select(i => UnitDates.Of(Weeks.Holding(merged.First.PlusWeeks(i)))),
            ],
            UnitKind.TravelDay => [.. Travel.Take(merged.LastNumber)[(merged.FirstNumber - 1)..].Select(UnitDates.Of)],
            UnitKind.Hour =>
            [
                .. Enumerable.Range(merged.FirstNumber, merged.Weight).Select(h => UnitDates.OfHour(FirstDay, h)),
            ],
            _ => [.. Enumerable.Range(merged.FirstNumber, merged.Weight).Select(n => UnitDates.Numbered(FirstDay, n))],
        };
    }

    /// <summary>
    /// What an existing unit becomes under this calendar. A week goes to the week of the new scheme that holds its
    /// middle day, so that neighbours stay neighbours; a day keeps its number and takes the date that number now has;
    /// an hour stays.
    /// </summary>
    public UnitDates Redated(UnitDates unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        switch (unit.Kind)
        {
            case UnitKind.Week:
                var (first, last) = (Weeks.Holding(unit.First.PlusDays(3)), Weeks.Holding(unit.Last.PlusDays(-3)));
                return unit with
                {
                    First = first.First,
                    Last = last.Last,
                    Year = first.Year,
                    FirstNumber = first.Number,
                    LastNumber = last.Number,
                };
            case UnitKind.TravelDay:
                var days = Travel.Take(unit.LastNumber);
                var (from, to) = (days[unit.FirstNumber - 1], days[^1]);
                return unit with
                {
                    First = from.Date,
                    Last = to.Date,
                    Year = from.Date.Year,
                    FirstOccurrence = from.Occurrence,
                    LastOccurrence = to.Occurrence,
                };
            case UnitKind.Hour:
                return unit with { First = FirstDay, Last = FirstDay, Year = FirstDay.Year };
            default:
                var (start, end) = (FirstDay.PlusDays(unit.FirstNumber - 1), FirstDay.PlusDays(unit.LastNumber - 1));
                return unit with { First = start, Last = end, Year = start.Year };
        }
    }
}

/// <summary>Reads pictures' times by an album's calendar; made once for many pictures.</summary>
public sealed class AlbumClock
{
    private readonly AlbumCalendar _calendar;
    private readonly TravelDays _travel;
    private readonly Dictionary<string, CameraClock> _cameras;

    public AlbumClock(AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        (_calendar, _travel) = (calendar, calendar.Travel);
        _cameras = calendar.Cameras.ToDictionary(c => c.Camera, StringComparer.Ordinal);
    }

    /// <summary>When a picture was really taken; null when its file has no time.</summary>
    public Capture? CaptureOf(RecordedTime recorded)
    {
        var camera = recorded.Camera ?? string.Empty;
        return PhotoTime.Of(recorded, ClockOf(camera), _travel);
    }

    /// <summary>
    /// A camera's own clock, else that of its model: the correction may be older than the serial number in its name.
    /// </summary>
    private CameraClock ClockOf(string camera) =>
        _cameras.GetValueOrDefault(camera)
        ?? _cameras.GetValueOrDefault(CameraName.ModelOf(camera))
        ?? new CameraClock(camera, 0, null);

    /// <summary>The album's moment of a picture.</summary>
    public AlbumMoment MomentOf(Capture capture)
    {
        ArgumentNullException.ThrowIfNull(capture);
        return _calendar.Kind == AlbumKind.Trip
            ? _travel.MomentOf(capture.Local, capture.At)
            : AlbumMoment.Of(capture.Local, _calendar.CutOff);
    }
}
