using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Gathering;

/// <summary>
/// Something jotted down on the way: what, when by the clock of the phone (<c>2026-06-06T14:30</c>), and what kind of
/// thing.
/// </summary>
public sealed record QuickNoteRequest(string Text, string At, NoteKind Kind);

/// <summary>Where a quick note has gone.</summary>
public sealed record QuickNoteAnswer(string Done, Guid? EditId, Guid UnitId, LocalDate Day);

/// <summary>
/// Notes from a phone. Nobody looks at a revision on the way: a note only adds, so it is put on whatever there is.
/// </summary>
public static class QuickNotes
{
    private static readonly LocalDateTimePattern MomentText = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm"
    );

    public static void MapQuickNotes(this IEndpointRouteBuilder api) =>
        api.MapPost(
                "/albums/{id:guid}/quick-notes",
                async (
                    Guid id,
                    QuickNoteRequest request,
                    AlbumReader albums,
                    History history,
                    ICurrentKeeper keeper,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var days = await PhotoDays.ReadAsync(db, album, cancel);
                    var at = MomentText.Parse(request.At) is { Success: true, Value: var moment }
                        ? moment
                        : throw new RuleException(
                            $"“{request.At}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was kept."
                        );
                    var when = AlbumMoment.Of(at, days.Calendar.CutOff);
                    var label = SpanLabel.Day(when.Day, days.Calendar.Style.Order);
                    var target =
                        days.Units.Where(u => u.Dates.Holds(when)).Select(u => (Guid?)u.Id).FirstOrDefault()
                        ?? days.Units.Where(u => u.Dates.First <= when.Day && u.Dates.Last >= when.Day)
                            .Select(u => (Guid?)u.Id)
                            .FirstOrDefault()
                        ?? throw new RuleException(
                            $"This album has no place for {label} yet. Your note was not kept: add that "
                                + $"{(days.Calendar.Kind == AlbumKind.Weekly ? "week" : "day")} to the album, or "
                                + "choose another day."
                        );
                    var unit =
                        await db.Units.FindAsync([target], cancel)
                        ?? throw new MissingException("That part of the album");
                    history.Touch(unit);
                    unit.Write(
                        unit.Read()
                            .Note(
                                new DayNote(Guid.CreateVersion7(), when.Day, at.TimeOfDay, request.Text, null)
                                {
                                    Kind = request.Kind,
                                }
                            )
                    );
                    var done = $"Noted for {label}";
                    return new QuickNoteAnswer(
                        done,
                        await history.SaveAsync(album.Id, keeper.Id, done, [unit.Id], cancel),
                        unit.Id,
                        when.Day
                    );
                }
            )
            .WithName("noteQuickly")
            .WithTags("Gathering")
            .WithProblems();
}
