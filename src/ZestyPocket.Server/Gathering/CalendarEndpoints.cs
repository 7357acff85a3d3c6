using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Tape;

namespace ZestyPocket.Server.Gathering;

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

/// <summary>A change of how the album counts time, made on the album's revision; whatever is null stays.</summary>
public sealed record CountAnewRequest(
    int Revision,
    LocalDate? FirstDay = null,
    WeekScheme? Scheme = null,
    string? CutOff = null,
    string? HomeZone = null,
    DateOrder? DateOrder = null,
    HourClock? Clock = null,
    string? WakingFrom = null,
    string? WakingUntil = null,
    IReadOnlyList<StayView>? Stays = null
);

/// <summary>The scheme, zones and stays of an album.</summary>
public static class CalendarEndpoints
{
    private static readonly LocalTimePattern TimeText = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly LocalDateTimePattern MomentText = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuu-MM-dd'T'HH:mm"
    );

    public static void MapCalendars(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Gathering");

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
                        Text(c.CutOff),
                        c.HomeZone,
                        c.Style.Order,
                        c.Style.Clock,
                        Text(c.Waking.From),
                        Text(c.Waking.Until),
                        [
                            .. c.Stays.Select(s => new StayView(
                                s.Place,
                                s.Zone,
                                MomentText.Format(s.From),
                                s.Until is { } until ? MomentText.Format(until) : null
                            )),
                        ]
                    );
                }
            )
            .WithName("getCalendar")
            .WithProblems();

        group
            .MapPut(
                "/albums/{id:guid}/calendar",
                (Guid id, CountAnewRequest request, TapeEditor tape, CancellationToken cancel) =>
                    tape.CountAnewAsync(
                        id,
                        request.Revision,
                        calendar => Changed(calendar, request),
                        Words(request),
                        cancel
                    )
            )
            .WithName("countAnew")
            .WithProblems();
    }

    private static AlbumCalendar Changed(AlbumCalendar calendar, CountAnewRequest request) =>
        calendar with
        {
            FirstDay = request.FirstDay ?? calendar.FirstDay,
            Scheme = request.Scheme ?? calendar.Scheme,
            CutOff = Time(request.CutOff) ?? calendar.CutOff,
            HomeZone = request.HomeZone ?? calendar.HomeZone,
            Style = new DateStyle(request.DateOrder ?? calendar.Style.Order, request.Clock ?? calendar.Style.Clock),
            Waking = new WakingWindow(
                Time(request.WakingFrom) ?? calendar.Waking.From,
                Time(request.WakingUntil) ?? calendar.Waking.Until
            ),
            Stays = request.Stays is { } stays
                ?
                [
                    .. stays
                        .Select(s => new Stay(Named(s.Place), s.Zone, Moment(s.From)!.Value, Moment(s.Until)))
                        .OrderBy(s => s.From),
                ]
                : calendar.Stays,
        };

    private static string Words(CountAnewRequest request) =>
        request switch
        {
            { Scheme: WeekScheme.Iso } => "Counted weeks from Monday, ISO 8601",
            { Scheme: WeekScheme.SundayFirst } => "Counted weeks from Sunday",
            { Scheme: WeekScheme.FromFirstDay } => "Counted weeks from the album's first day",
            { Stays: { } stays } => stays.Count == 1 ? "Set the stay" : $"Set {stays.Count} stays",
            { FirstDay: not null } => "Moved the album's first day",
            { CutOff: { } cutOff } => $"Set the late-night cut-off to {cutOff}",
            { HomeZone: { } zone } => $"Set the home zone to {zone}",
            { WakingFrom: not null } or { WakingUntil: not null } => "Set the waking hours",
            { DateOrder: not null } or { Clock: not null } => "Changed how dates are written",
            _ => throw new RuleException("That change lacks something it needs. Nothing was changed."),
        };

    private static string Named(string place) =>
        string.IsNullOrWhiteSpace(place) || place.Length > 120
            ? throw new RuleException(
                "Every stay needs the name of its place, of at most 120 characters. Nothing was changed."
            )
            : PlainWords.Name(place);

    private static string Text(LocalTime time) => TimeText.Format(time);

    private static LocalTime? Time(string? text) =>
        text is null ? null
        : TimeText.Parse(text) is { Success: true, Value: var time } ? time
        : throw new RuleException($"“{text}” is not a time of day. Write it as 03:00. Nothing was changed.");

    private static LocalDateTime? Moment(string? text) =>
        string.IsNullOrWhiteSpace(text) ? null
        : MomentText.Parse(text) is { Success: true, Value: var moment } ? moment
        : throw new RuleException(
            $"“{text}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was changed."
        );
}
