using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Dates;

/// <summary>Calendar files in and out.</summary>
public static class EventEndpoints
{
    private const int DaysAround = 366;
    private const int MostPassedTold = 50;

    public static void MapEvents(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}").WithTags("Dates");

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
                    AlbumEditor editor,
                    CancellationToken cancel
                ) =>
                {
                    using var reader = new StreamReader(request.Body, Encoding.UTF8);
                    var text = (await reader.ReadToEndAsync(cancel)).Replace(
                        "\0",
                        string.Empty,
                        StringComparison.Ordinal
                    );
                    var days = await PhotoDays.ReadAsync(db, await albums.RequireAsync(id, cancel), cancel);
                    if (days.Units.Count == 0)
                    {
                        throw new RuleException("This album has no weeks or days yet. Nothing was taken.");
                    }

                    // A wide look around the album, so that what lies outside is told and not silently dropped.
                    var events = CalendarFile.Read(
                        text,
                        days.Units.Min(u => u.Dates.First).PlusDays(-DaysAround),
                        days.Units.Max(u => u.Dates.Last).PlusDays(DaysAround),
                        cancel
                    );
                    var done = await editor.ApplyAsync(id, new ImportEvents(events.Days), preview: false, cancel);
                    return done with { Changes = [.. done.Changes, .. events.Passed.Take(MostPassedTold)] };
                }
            )
            .WithName("importEvents")
            .Accepts<string>("text/calendar")
            .WithMetadata(new RequestSizeLimitAttribute(ForeignReading.LargestCalendar))
            .WithProblems();
    }
}
