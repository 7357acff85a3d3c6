using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>
/// An edit that only adds, to whatever there is: from a phone or a file, where nobody looks at a revision.
/// </summary>
public abstract record AddingEdit : AlbumEdit
{
    public sealed override IEnumerable<SeenRevision> MadeOn() => [];
}

/// <summary>
/// Something jotted down on the way. After midnight and before the album's cut-off it belongs to the evening before.
/// </summary>
/// <param name="At">When, by the clock of the phone, as <c>2026-06-06T14:30</c>.</param>
public sealed record JotNote(string Text, string At, NoteKind NoteKind) : AddingEdit
{
    private static readonly LocalDateTimePattern MomentText = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm"
    );

    public override string Label() => "Write a note";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var at = MomentText.Parse(At) is { Success: true, Value: var moment }
            ? moment
            : throw new RuleException(
                $"“{At}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was kept."
            );
        var when = AlbumMoment.Of(at, desk.Calendar.CutOff);
        var label = SpanLabel.Day(when.Day, desk.Calendar.Style.Order);
        // An hour that the album leaves out still has its day.
        var unit =
            desk.Binder.Units.FirstOrDefault(u => u.Dates.Holds(when))
            ?? desk.Binder.Units.FirstOrDefault(u => u.Dates.First <= when.Day && u.Dates.Last >= when.Day)
            ?? throw new RuleException(
                $"This album has no place for {label} yet. Your note was not kept: add that "
                    + $"{(desk.Calendar.Kind == AlbumKind.Weekly ? "week" : "day")} to the album, or choose another "
                    + "day."
            );
        var note = new DayNote(tools.NewId(), when.Day, at.TimeOfDay, PlainWords.Clean(Text), null) { Kind = NoteKind };
        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder.With(unit with { Content = unit.Content.Note(note) }),
            },
            $"Noted for {label}",
            unit.Id
        );
    }
}

/// <summary>An event of a calendar file on one day.</summary>
/// <param name="Source">Its UID with the date, the same each time the file is read.</param>
public sealed record DayEvent(LocalDate Day, LocalTime? Time, string Text, string Source);

/// <summary>
/// Writes the events of a calendar as notes on their days. An event that is here already is not written twice; one
/// whose words have changed replaces what it said.
/// </summary>
/// <param name="Events">Those around the album; what lies outside is told and not written.</param>
public sealed record ImportEvents(IReadOnlyList<DayEvent> Events) : AddingEdit
{
    public override string Label() => "Import a calendar";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        if (desk.Binder.Units.IsEmpty)
        {
            throw new RuleException("This album has no weeks or days yet. Nothing was taken.");
        }

        var units = desk.Binder.Units.ToArray();
        var (added, known, outside) = (0, 0, 0);
        foreach (var item in Events)
        {
            var at = FindUnit(units, item);
            if (at < 0)
            {
                outside++;
                continue;
            }

            var content = units[at].Content;
            var before = content.Notes.FirstOrDefault(n => n.Source == item.Source);
            if (content.Notes.Any(n => n.Source == item.Source && n.Text == item.Text.Trim()))
            {
                known++;
                continue;
            }

            var note = new DayNote(before?.Id ?? tools.NewId(), item.Day, item.Time, item.Text, item.Source);
            units[at] = units[at] with { Content = content.Note(note) };
            added++;
        }

        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder with { Units = [.. units] },
            },
            $"Read {NumberWords.Counted(added, "event")} out of a calendar"
        )
        {
            Says =
            [
                .. known > 0 ? [$"{known} {(known == 1 ? "was" : "were")} here already"] : Array.Empty<string>(),
                .. outside > 0
                    ?
                    [
                        outside == 1
                            ? "1 lies outside the album and was not taken"
                            : $"{outside} lie outside the album and were not taken",
                    ]
                    : Array.Empty<string>(),
            ],
            AlsoIn = EveryUnit(desk),
        };
    }

    /// <summary>On a documented day an event of the whole day goes to its first hour.</summary>
    private static int FindUnit(BoundUnit[] units, DayEvent item)
    {
        var minute = item.Time is { } time ? (time.Hour * 60) + time.Minute : (int?)null;
        var moment = new AlbumMoment(item.Day, 0, minute);
        var at = Array.FindIndex(units, u => u.Dates.Holds(moment));
        return at >= 0 ? at : Array.FindIndex(units, u => u.Dates.Kind == UnitKind.Hour && u.Dates.First == item.Day);
    }
}
