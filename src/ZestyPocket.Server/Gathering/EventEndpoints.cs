using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
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

/// <summary>What an imported calendar brought.</summary>
public sealed record EventsAnswer(
    string Done,
    int Added,
    int AlreadyHere,
    int Outside,
    IReadOnlyList<string> Passed,
    Guid? EditId
);

/// <summary>Calendar files in and out.</summary>
public static class EventEndpoints
{
    public static void MapEvents(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}").WithTags("Gathering");

        group
            .MapGet(
                "/reminders.ics",
                async (
                    Guid id,
                    [FromQuery] int? weekday,
                    [FromQuery] string? time,
                    [FromQuery] int? minutes,
                    AlbumReader albums,
                    ZestyContext db,
                    IClock clock,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var calendar = album.ReadCalendar();
                    var now = clock.GetCurrentInstant();
                    var units = await db
                        .Units.Where(u => u.AlbumId == id && !u.LeftOut)
                        .OrderBy(u => u.Ordinal)
                        .Select(u => new
                        {
                            u.LastDay,
                            u.FirstNumber,
                            u.LastNumber,
                        })
                        .ToListAsync(cancel);
                    string text;
                    if (calendar.Kind == AlbumKind.DocumentedDay)
                    {
                        var hours = units.SelectMany(u =>
                            Enumerable.Range(u.FirstNumber, u.LastNumber - u.FirstNumber + 1)
                        );
                        text = EventCalendar.Hours(album.Name, calendar.FirstDay, hours, calendar.HomeZone, now);
                    }
                    else
                    {
                        var at = LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(time ?? "19:30")
                            is { Success: true, Value: var parsed }
                            ? parsed
                            : throw new RuleException($"“{time}” is not a time of day. Write it as 19:30.");
                        if (weekday is < 1 or > 7 || minutes is < 5 or > 600)
                        {
                            throw new RuleException("Choose a weekday and a length of 5 to 600 minutes.");
                        }

                        var today = now.InZone(Zones.Find(calendar.HomeZone)).Date;
                        var from = today > calendar.FirstDay ? today : calendar.FirstDay;
                        var last = units.Count == 0 ? from : units.Max(u => u.LastDay);
                        var weeks = Math.Max(1, (Period.DaysBetween(from, last) / 7) + 1);
                        text = EventCalendar.SitDown(
                            album.Name,
                            from,
                            (IsoDayOfWeek)(weekday ?? 7),
                            at,
                            minutes ?? 60,
                            calendar.HomeZone,
                            weeks,
                            now
                        );
                    }

                    return Results.File(
                        Encoding.UTF8.GetBytes(text),
                        "text/calendar; charset=utf-8",
                        "zesty-pocket-reminders.ics"
                    );
                }
            )
            .WithName("getReminders")
            .Produces(StatusCodes.Status200OK, contentType: "text/calendar")
            .WithProblems();

        group
            .MapPost(
                "/events",
                async (
                    Guid id,
                    HttpRequest request,
                    AlbumReader albums,
                    ZestyContext db,
                    History history,
                    ICurrentKeeper keeper,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    using var reader = new StreamReader(request.Body, Encoding.UTF8);
                    var text = (await reader.ReadToEndAsync(cancel)).Replace(
                        "\0",
                        string.Empty,
                        StringComparison.Ordinal
                    );
                    var units = await db.Units.Where(u => u.AlbumId == id).OrderBy(u => u.Ordinal).ToListAsync(cancel);
                    if (units.Count == 0)
                    {
                        throw new RuleException("This album has no weeks or days yet. Nothing was taken.");
                    }

                    var (first, last) = (units.Min(u => u.FirstDay), units.Max(u => u.LastDay));
                    // A wide look around the album, so that what lies outside is told and not silently dropped.
                    var events = CalendarFile.Read(text, first.PlusDays(-366), last.PlusDays(366), cancel);
                    history.Touch(units);
                    var (added, known, outside) = (0, 0, 0);
                    foreach (var item in events.Days)
                    {
                        var moment = new AlbumMoment(item.Day, 0, item.Time is { } t ? (t.Hour * 60) + t.Minute : null);
                        // On a documented day an event of the whole day goes to its first hour.
                        var unit =
                            units.Find(u => u.ReadDates().Holds(moment))
                            ?? units.Find(u => u.Kind == UnitKind.Hour && u.FirstDay == item.Day);
                        if (unit is null)
                        {
                            outside++;
                            continue;
                        }

                        var content = unit.Read();
                        if (content.Notes.Any(n => n.Source == item.Source && n.Text == item.Text))
                        {
                            known++;
                            continue;
                        }

                        var id2 =
                            content.Notes.Where(n => n.Source == item.Source).Select(n => (Guid?)n.Id).FirstOrDefault()
                            ?? Guid.CreateVersion7();
                        unit.Write(content.Note(new DayNote(id2, item.Day, item.Time, item.Text, item.Source)));
                        added++;
                    }

                    var done = $"Read {added} {(added == 1 ? "event" : "events")} out of a calendar";
                    var edit = await history.SaveAsync(id, keeper.Id, done, units.Select(u => u.Id), cancel);
                    return new EventsAnswer(
                        done
                            + (known > 0 ? $"; {known} were here already" : string.Empty)
                            + (outside > 0 ? $"; {outside} lie outside the album and were not taken" : string.Empty)
                            + (events.Passed.Count > 0 ? $"; {events.Passed.Count} passed over." : "."),
                        added,
                        known,
                        outside,
                        [.. events.Passed.Take(50)],
                        edit
                    );
                }
            )
            .WithName("importEvents")
            .Accepts<string>("text/calendar")
            .WithMetadata(new RequestSizeLimitAttribute(ForeignReading.LargestCalendar))
            .WithProblems();
    }
}
