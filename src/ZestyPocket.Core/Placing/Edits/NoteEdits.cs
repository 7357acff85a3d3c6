using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// A note for a day as written; time as <c>19:30</c> or null for the whole day; its key to change one.
/// </summary>
public sealed record WrittenNote(Guid? Id, LocalDate Day, string? Time, string Text, NoteKind? Kind = null);

/// <summary>Writes a note, or changes it.</summary>
public sealed record WriteNote(WrittenNote Note) : ContentEdit
{
    private static readonly LocalTimePattern TimeOfDay = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    public override string Label() => "Write a note";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        if (Note.Day < desk.Dates.First || Note.Day > desk.Dates.Last)
        {
            throw new RuleException($"That day is not one of {desk.Title}. Nothing was changed: write the note there.");
        }

        var time =
            string.IsNullOrWhiteSpace(Note.Time) ? (LocalTime?)null
            : TimeOfDay.Parse(Note.Time) is { Success: true, Value: var at } ? at
            : throw new RuleException($"“{Note.Time}” is not a time of day. Write it as 19:30. Nothing was changed.");
        var note = new DayNote(Note.Id ?? tools.NewId(), Note.Day, time, PlainWords.Clean(Note.Text), null)
        {
            Kind = Note.Kind ?? NoteKind.Plain,
        };
        return new Edited(desk.Content.Note(note), "Wrote a note");
    }
}

/// <summary>Throws a note away.</summary>
public sealed record DropNote(Guid NoteId) : ContentEdit
{
    public override string Label() => "Delete a note";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(desk.Content.DropNote(NoteId), "Deleted a note");
}
