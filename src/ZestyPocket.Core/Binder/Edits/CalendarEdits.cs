using System.Collections.Immutable;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>
/// A change of how the album counts time. Content stays with its unit, notes go where their day is now; where
/// pictures go follows from the new calendar.
/// </summary>
public abstract record CalendarEdit : WholeAlbumEdit
{
    public sealed override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var (changed, done) = Change(desk.Calendar, tools);
        var calendar = changed.Checked();
        var units = desk.Binder.Units.Select(u => u with { Dates = calendar.Redated(u.Dates) });
        var after = desk with { Calendar = calendar, Binder = desk.Binder with { Units = NotesInPlace([.. units]) } };
        return new AlbumEdited(after, done) { AlsoIn = EveryUnit(after) };
    }

    /// <summary>The calendar after the edit, and what was done.</summary>
    protected abstract (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools);

    /// <summary>Notes belong to days: each goes to the unit that has its day now, or stays when none has.</summary>
    private static ImmutableArray<BoundUnit> NotesInPlace(ImmutableArray<BoundUnit> units)
    {
        foreach (var (from, note) in units.SelectMany((u, i) => u.Content.Notes.Select(n => (i, n))).ToList())
        {
            var moment = new AlbumMoment(note.Day, 0, note.Time is { } t ? (t.Hour * 60) + t.Minute : null);
            if (units.FirstOrDefault(u => u.Dates.Holds(moment)) is not { } target || target.Id == units[from].Id)
            {
                continue;
            }

            units = units
                .SetItem(from, units[from] with { Content = units[from].Content.DropNote(note.Id) })
                .Replace(
                    target,
                    target with
                    {
                        Content = target.Content.Note(note),
                    },
                    ReferenceEqualityComparer.Instance
                );
        }

        return units;
    }
}

/// <summary>Moves the album's first day; a documented day moves to that day.</summary>
public sealed record MoveFirstDay(LocalDate FirstDay) : CalendarEdit
{
    public override string Label() => "Move the first day";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (calendar with { FirstDay = FirstDay }, "Moved the album's first day");
}

/// <summary>Counts weeks by another scheme.</summary>
public sealed record CountWeeks(WeekScheme Scheme) : CalendarEdit
{
    public override string Label() => "Count weeks another way";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (
            calendar with
            {
                Scheme = Scheme,
            },
            Scheme switch
            {
                WeekScheme.Iso => "Counted weeks from Monday, ISO 8601",
                WeekScheme.SundayFirst => "Counted weeks from Sunday",
                WeekScheme.FromFirstDay => "Counted weeks from the album's first day",
                _ => throw new RuleException("There is no such way to count weeks. Nothing was changed."),
            }
        );
}

/// <summary>Sets the time until which pictures belong to the evening before.</summary>
/// <param name="CutOff">Such as <c>03:00</c>.</param>
public sealed record SetCutOff(string CutOff) : CalendarEdit
{
    public override string Label() => "Set the late-night cut-off";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (calendar with { CutOff = ClockText.Time(CutOff) }, $"Set the late-night cut-off to {CutOff}");
}

/// <summary>Sets the zone of pictures that nothing else places.</summary>
public sealed record SetHomeZone(string HomeZone) : CalendarEdit
{
    public override string Label() => "Set the home zone";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (calendar with { HomeZone = HomeZone }, $"Set the home zone to {HomeZone}");
}

/// <summary>Sets the hours of a documented day.</summary>
/// <param name="From">Such as <c>06:00</c>.</param>
/// <param name="Until">The last; it may lie after midnight.</param>
public sealed record SetWakingHours(string From, string Until) : CalendarEdit
{
    public override string Label() => "Set the waking hours";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (
            calendar with
            {
                Waking = new WakingWindow(ClockText.Time(From), ClockText.Time(Until)),
            },
            "Set the waking hours"
        );
}

/// <summary>Changes how dates and hours are written.</summary>
public sealed record WriteDates(DateOrder Order, HourClock Clock) : CalendarEdit
{
    public override string Label() => "Change how dates are written";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (calendar with { Style = new DateStyle(Order, Clock) }, "Changed how dates are written");
}

/// <summary>A place of a trip; times are <c>2026-06-06T14:30</c> by the clock of the place.</summary>
public sealed record StayText(string Place, string Zone, string From, string? Until);

/// <summary>Sets the places of a trip, in any order.</summary>
public sealed record SetStays(ImmutableArray<StayText> Stays) : CalendarEdit
{
    public override string Label() => "Set the stays";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools) =>
        (
            calendar with
            {
                Stays =
                [
                    .. Stays
                        .Select(s => new Stay(
                            Named(s.Place),
                            s.Zone,
                            ClockText.Moment(s.From),
                            string.IsNullOrWhiteSpace(s.Until) ? null : ClockText.Moment(s.Until)
                        ))
                        .OrderBy(s => s.From),
                ],
            },
            Stays.Length == 1 ? "Set the stay" : $"Set {Stays.Length} stays"
        );

    private static string Named(string place) =>
        string.IsNullOrWhiteSpace(place) || place.Length > 120
            ? throw new RuleException(
                "Every stay needs the name of its place, of at most 120 characters. Nothing was changed."
            )
            : PlainWords.Name(place);
}

/// <summary>Begins a series of pictures, or changes the one with that key.</summary>
/// <param name="SeriesId">Null for a new one.</param>
/// <param name="Around">The usual time of day, such as <c>08:00</c>.</param>
/// <param name="Minutes">How far from it a picture may be to be suggested.</param>
/// <param name="Weekday">Null: every day.</param>
public sealed record SetSeries(Guid? SeriesId, string Name, string Around, int Minutes, IsoDayOfWeek? Weekday)
    : CalendarEdit
{
    /// <summary>An album has no more series than this.</summary>
    public const int Most = 30;

    public override string Label() => "Set a series";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools)
    {
        var series = new PhotoSeries(
            SeriesId ?? tools.NewId(),
            Name,
            ClockText.Time(Around, "08:00"),
            Minutes,
            Weekday
        ).Checked();
        if (SeriesId is not null)
        {
            return (
                calendar with
                {
                    Series = [.. calendar.Series.Select(s => s.Id == series.Id ? series : s)],
                },
                $"Changed the series {series.Name}"
            );
        }

        return calendar.Series.Length < Most
            ? (calendar with { Series = calendar.Series.Add(series) }, $"Began the series {series.Name}")
            : throw new RuleException($"An album can have {Most} series. Nothing was changed.");
    }
}

/// <summary>Gives a series up; its pictures stay.</summary>
public sealed record DeleteSeries(Guid SeriesId) : CalendarEdit
{
    public override string Label() => "Delete a series";

    protected override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools)
    {
        var series =
            calendar.Series.FirstOrDefault(s => s.Id == SeriesId)
            ?? throw new RuleException("That series is not in the album any more. Nothing was changed.");
        return (calendar with { Series = calendar.Series.Remove(series) }, $"Deleted the series {series.Name}");
    }
}

/// <summary>Times as they are written in edits.</summary>
public static class ClockText
{
    private static readonly LocalTimePattern TimePattern = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly LocalDateTimePattern MomentPattern = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm"
    );

    public static string Show(LocalTime time) => TimePattern.Format(time);

    public static string Show(LocalDateTime moment) => MomentPattern.Format(moment);

    /// <summary>Reads <c>03:00</c>. Throws <see cref="RuleException"/>.</summary>
    public static LocalTime Time(string text, string example = "03:00") =>
        TimePattern.Parse(text) is { Success: true, Value: var time }
            ? time
            : throw new RuleException($"“{text}” is not a time of day. Write it as {example}. Nothing was changed.");

    /// <summary>Reads <c>2026-06-06T14:30</c>. Throws <see cref="RuleException"/>.</summary>
    public static LocalDateTime Moment(string text) =>
        MomentPattern.Parse(text) is { Success: true, Value: var moment }
            ? moment
            : throw new RuleException(
                $"“{text}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was changed."
            );
}
