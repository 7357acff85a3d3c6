using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Binder;

/// <summary>
/// Notes that come without anybody looking at the unit. That what happens after midnight belongs to the evening before
/// is common practice.
/// </summary>
public sealed class DayNotesTests
{
    private static DayEvent Event(int day, string text, string source, LocalTime? time = null) =>
        new(Desks.Monday.PlusDays(day), time, text, source);

    [Fact]
    public void A_note_after_midnight_belongs_to_the_evening_before()
    {
        var desk = Desks.Weeks(2);
        // Monday 11 May, ten past one in the night: still the Sunday of week 19.
        var jotted = new JotNote("It is resting.", "2026-05-11T01:10", NoteKind.Overheard).Apply(desk, Desks.Tools());
        jotted.Done.ShouldBe("Noted for Sun 10 May");
        jotted.UnitId.ShouldBe(desk.Binder.Units[0].Id);
        var note = jotted.Desk.Binder.Units[0].Content.Notes.Single();
        (note.Day, note.Kind).ShouldBe((new LocalDate(2026, 5, 10), NoteKind.Overheard));
        desk.Refused(new JotNote("Early", "2025-12-24T15:00", NoteKind.Plain)).ShouldContain("no place for Wed 24 Dec");
        desk.Refused(new JotNote("When?", "noon", NoteKind.Plain)).ShouldContain("not a date and time");
    }

    [Fact]
    public void An_event_is_written_once_and_says_what_it_says_now()
    {
        var desk = Desks.Weeks(2);
        var edit = new ImportEvents([
            Event(1, "Dentist", "dentist", new LocalTime(9, 30)),
            Event(9, "Choir", "choir"),
            Event(40, "Far away", "far"),
        ]);
        var once = edit.Apply(desk, Desks.Tools());
        once.Done.ShouldBe("Read 2 events out of a calendar");
        once.Says.ShouldBe(["1 lies outside the album and was not taken"]);
        once.Desk.Binder.Units.Select(u => u.Content.Notes.Single().Text).ShouldBe(["Dentist", "Choir"]);

        edit.Apply(once.Desk, Desks.Tools()).Desk.Binder.Units.ShouldBe(once.Desk.Binder.Units);
        var moved = new ImportEvents([Event(1, "Dentist, moved", "dentist")]).Apply(once.Desk, Desks.Tools());
        var note = moved.Desk.Binder.Units[0].Content.Notes.Single();
        (note.Text, note.Id).ShouldBe(("Dentist, moved", once.Desk.Binder.Units[0].Content.Notes[0].Id));
    }
}
