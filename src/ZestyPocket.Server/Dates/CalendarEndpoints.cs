using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Dates;

/// <summary>A place of a trip; times are <c>2026-06-06T14:30</c> by the clock of the place.</summary>
public sealed record StayView(string Place, string Zone, string From, string? Until);

/// <summary>How an album counts time.</summary>
public sealed record CalendarView(
    int Revision,
    AlbumKind Kind,
    LocalDate FirstDay,
    WeekScheme Scheme,
    string CutOff,
    string HomeZone,
    DateOrder DateOrder,
    HourClock Clock,
    string WakingFrom,
    string WakingUntil,
    IReadOnlyList<StayView> Stays
);

/// <summary>The scheme, zones and stays of an album.</summary>
public static class CalendarEndpoints
{
    public static void MapCalendars(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Dates");

        group.MapGet("/zones", () => Zones.Ids.Order(StringComparer.Ordinal).ToList()).WithName("listZones");

        group
            .MapGet(
                "/albums/{id:guid}/calendar",
                async (Guid id, AlbumReader albums, CancellationToken cancel) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var c = album.ReadCalendar();
                    return new CalendarView(
                        album.Revision,
                        c.Kind,
                        c.FirstDay,
                        c.Scheme,
                        ClockText.Show(c.CutOff),
                        c.HomeZone,
                        c.Style.Order,
                        c.Style.Clock,
                        ClockText.Show(c.Waking.From),
                        ClockText.Show(c.Waking.Until),
                        [
                            .. c.Stays.Select(s => new StayView(
                                s.Place,
                                s.Zone,
                                ClockText.Show(s.From),
                                s.Until is { } until ? ClockText.Show(until) : null
                            )),
                        ]
                    );
                }
            )
            .WithName("getCalendar")
            .WithProblems();
    }
}
