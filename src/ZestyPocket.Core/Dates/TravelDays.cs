using System.Collections.Immutable;
using NodaTime;
using NodaTime.TimeZones;

namespace ZestyPocket.Core.Dates;

/// <summary>A place of a trip with its clock.</summary>
/// <param name="Place">The keeper's name for it.</param>
/// <param name="Zone">Id of the tz database, such as <c>Pacific/Auckland</c>.</param>
/// <param name="From">Arrival by the clock of the place.</param>
/// <param name="Until">
/// Departure by the clock of the place; null when it is not known, which counts as the moment of the next arrival.
/// </param>
public sealed record Stay(string Place, string Zone, LocalDateTime From, LocalDateTime? Until = null);

/// <summary>One of the traveller's own calendar days.</summary>
/// <param name="Number">From 1, without a gap.</param>
/// <param name="Date">The local date.</param>
/// <param name="Occurrence">1 when the traveller lives through that date a second time, else 0.</param>
public sealed record TravelDay(int Number, LocalDate Date, int Occurrence);

/// <summary>
/// The days of a trip. They follow the traveller: crossing the date line westwards loses a date, eastwards repeats one;
/// the numbers go on, the label shows the local date. Common practice; zones are the tz database's.
/// </summary>
public sealed class TravelDays
{
    /// <summary>A change of clock by more than this crosses the date line by the shorter way.</summary>
    private static readonly TimeSpan DateLine = TimeSpan.FromHours(12);

    private readonly ImmutableArray<(Stay Stay, DateTimeZone Zone, Instant Start)> _stays;
    private readonly LocalDate _firstDay;
    private readonly DateTimeZone _home;
    private readonly LocalTime _cutOff;

    /// <summary>
    /// Throws <see cref="RuleException"/> for an unknown zone or stays that are not in the order of time.
    /// </summary>
    public TravelDays(LocalDate firstDay, IReadOnlyList<Stay> stays, string homeZone, LocalTime cutOff)
    {
        ArgumentNullException.ThrowIfNull(stays);
        (_firstDay, _home, _cutOff) = (firstDay, Zones.Find(homeZone), cutOff);
        _stays =
        [
            .. stays.Select(s => (s, Zones.Find(s.Zone), Zones.At(s.From, Zones.Find(s.Zone)))).OrderBy(s => s.Item3),
        ];
        for (var i = 0; i < _stays.Length; i++)
        {
            var (stay, zone, start) = _stays[i];
            if (stay.Until is not { } until)
            {
                continue;
            }

            if (Zones.At(until, zone) < start || (i + 1 < _stays.Length && Zones.At(until, zone) > _stays[i + 1].Start))
            {
                throw new RuleException(
                    $"The stay in {stay.Place} ends before it begins or after the next one has begun. Nothing was "
                        + "changed: correct its times."
                );
            }
        }
    }

    /// <summary>
    /// The zone where the traveller is at an instant: that of the last arrival; before the first, the home zone.
    /// </summary>
    public DateTimeZone ZoneAt(Instant at)
    {
        var index = IndexAt(at);
        return index < 0 ? _home : _stays[index].Zone;
    }

    /// <summary>
    /// The zone in which a clock on the wall there read this. Two stays can claim the same local time around a date
    /// line; then the earlier one has it.
    /// </summary>
    public DateTimeZone ZoneOf(LocalDateTime local)
    {
        for (var i = 0; i < _stays.Length; i++)
        {
            var at = Zones.At(local, _stays[i].Zone);
            var ends = i + 1 < _stays.Length ? _stays[i + 1].Start : Instant.MaxValue;
            if (at >= _stays[i].Start && at < ends)
            {
                return _stays[i].Zone;
            }
        }

        // On the way between two stays, or before the first.
        return _stays.Where(s => local >= s.Stay.From).Select(s => s.Zone).LastOrDefault() ?? _home;
    }

    /// <summary>The first <paramref name="count"/> days of the trip.</summary>
    public ImmutableArray<TravelDay> Take(int count)
    {
        var days = ImmutableArray.CreateBuilder<TravelDay>();
        foreach (var (date, occurrence) in Dates())
        {
            if (days.Count == count)
            {
                break;
            }

            days.Add(new TravelDay(days.Count + 1, date, occurrence));
        }

        return days.ToImmutable();
    }

    /// <summary>
    /// The date and its occurrence for a picture: the second time of a repeated date begins with the arrival.
    /// </summary>
    public AlbumMoment MomentOf(LocalDateTime local, Instant at)
    {
        var moment = AlbumMoment.Of(local, _cutOff);
        var index = IndexAt(at);
        for (var i = 1; i <= index; i++)
        {
            if (CrossesEast(i) && moment.Day >= FirstDateOf(i) && moment.Day <= LastDateBefore(i))
            {
                return moment with { Occurrence = 1 };
            }
        }

        return moment;
    }

    private int IndexAt(Instant at)
    {
        var index = -1;
        while (index + 1 < _stays.Length && _stays[index + 1].Start <= at)
        {
            index++;
        }

        return index;
    }

    private IEnumerable<(LocalDate Date, int Occurrence)> Dates()
    {
        var seen = new HashSet<LocalDate>();
        var date = _firstDay;
        for (var i = 1; i < _stays.Length; i++)
        {
            var (departs, arrives) = (LastDateBefore(i), FirstDateOf(i));
            for (; date <= departs; date = date.PlusDays(1))
            {
                yield return (date, seen.Add(date) ? 0 : 1);
            }

            if (CrossesEast(i))
            {
                // The clock goes back: the date of arrival is lived through once more.
                date = arrives;
            }
            else if (CrossesWest(i) && arrives > date)
            {
                // The dates in between never happened to the traveller.
                date = arrives;
            }
        }

        for (; ; date = date.PlusDays(1))
        {
            yield return (date, seen.Add(date) ? 0 : 1);
        }
    }

    /// <summary>The last date of the traveller before arriving at stay i.</summary>
    private LocalDate LastDateBefore(int i)
    {
        var (stay, zone, _) = _stays[i - 1];
        if (stay.Until is { } until)
        {
            return AlbumDay.Of(until, _cutOff);
        }

        var arrival = AlbumDay.Of(_stays[i].Start.InZone(zone).LocalDateTime, _cutOff);
        // Without a departure an eastward crossing would count the hours on board as a date of their own.
        return CrossesEast(i) && FirstDateOf(i) < arrival ? FirstDateOf(i) : arrival;
    }

    private LocalDate FirstDateOf(int i) => AlbumDay.Of(_stays[i].Stay.From, _cutOff);

    private bool CrossesEast(int i) => Change(i) < -DateLine && FirstDateOf(i) <= LastDateBeforePlain(i);

    private bool CrossesWest(int i) => Change(i) > DateLine;

    private LocalDate LastDateBeforePlain(int i)
    {
        var (stay, zone, _) = _stays[i - 1];
        return AlbumDay.Of(stay.Until ?? _stays[i].Start.InZone(zone).LocalDateTime, _cutOff);
    }

    private TimeSpan Change(int i)
    {
        var at = _stays[i].Start;
        return _stays[i].Zone.GetUtcOffset(at).ToTimeSpan() - _stays[i - 1].Zone.GetUtcOffset(at).ToTimeSpan();
    }
}

/// <summary>Zones of the tz database, as NodaTime carries it.</summary>
public static class Zones
{
    public static IEnumerable<string> Ids => DateTimeZoneProviders.Tzdb.Ids;

    /// <summary>Throws <see cref="RuleException"/> for an id the tz database does not know.</summary>
    public static DateTimeZone Find(string id) =>
        DateTimeZoneProviders.Tzdb.GetZoneOrNull(id)
        ?? throw new RuleException(
            $"“{id}” is not a zone of the tz database. Choose one such as Europe/London. Nothing was changed."
        );

    /// <summary>
    /// The instant of a local time. In the hour that a clock change repeats the earlier one is taken; in the hour it
    /// skips, the time is moved on by the gap.
    /// </summary>
    public static Instant At(LocalDateTime local, DateTimeZone zone)
    {
        ArgumentNullException.ThrowIfNull(zone);
        return zone.ResolveLocal(local, Resolvers.LenientResolver).ToInstant();
    }
}
