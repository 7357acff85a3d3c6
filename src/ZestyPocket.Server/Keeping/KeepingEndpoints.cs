using System.Text;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Keeping;

/// <summary>The rings of a binder, as written.</summary>
/// <param name="Holds">As measured; null when nobody has yet.</param>
/// <param name="Capacity">What they close over, measured or not.</param>
public sealed record RingsView(RingShape Shape, string Diameter, string? Holds, string Capacity);

/// <summary>How thick an album is at each place of its leaves.</summary>
/// <param name="CellInches">The side of a cell.</param>
/// <param name="Millimetres">Row by row from the top, each from the ring edge.</param>
public sealed record BulkView(double CellInches, int Columns, IReadOnlyList<double> Millimetres);

/// <summary>A volume of an album.</summary>
/// <param name="Name">What stands on its spine.</param>
/// <param name="From">Its first unit.</param>
/// <param name="Until">Its last unit.</param>
/// <param name="StartsWith">Its first unit's key.</param>
/// <param name="Now">How thick it is with what lies in it.</param>
/// <param name="AtTheEnd">How thick it will be.</param>
/// <param name="NowShare">Of what the rings close over; over 1 when they do not.</param>
public sealed record VolumeView(
    string Name,
    string From,
    string Until,
    Guid StartsWith,
    string Now,
    string AtTheEnd,
    double NowShare,
    double EndShare,
    BulkView Bulk
);

/// <summary>Where a volume would best end.</summary>
/// <param name="Words">In a sentence.</param>
public sealed record VolumeStartView(Guid UnitId, string Title, string Words);

/// <summary>How thick an album is and gets.</summary>
/// <param name="Revision">Of the album.</param>
/// <param name="Words">When the rings are full, in a sentence.</param>
/// <param name="Proposed">Starts of further volumes that would make all close; empty when they do.</param>
public sealed record ThicknessView(
    int Revision,
    RingsView Rings,
    string Words,
    IReadOnlyList<VolumeView> Volumes,
    IReadOnlyList<VolumeStartView> Proposed
);

/// <summary>A week or day that is not finished.</summary>
/// <param name="Thin">What a thin version of it would need.</param>
public sealed record OpenWorkView(Guid UnitId, string Title, int Minutes, string Thin);

/// <summary>An evening at the album.</summary>
public sealed record EveningView(LocalDate Day, string Label, int Minutes, string Words);

/// <summary>How fast the keeper is, and when the album will be caught up.</summary>
/// <param name="Revision">Of the album.</param>
/// <param name="MinutesEach">What a unit takes.</param>
/// <param name="IsMeasured">From this album's own edits; else taken to be so.</param>
public sealed record PaceView(
    int Revision,
    int MinutesEach,
    bool IsMeasured,
    IReadOnlyList<IsoDayOfWeek> EveningsOn,
    int MinutesAnEvening,
    int LagWeeks,
    string Words,
    IReadOnlyList<OpenWorkView> Open,
    IReadOnlyList<EveningView> Evenings
);

/// <summary>How thick the album gets, and how to catch up.</summary>
public static class KeepingEndpoints
{
    public static void MapKeeping(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}").WithTags("Keeping");
        group
            .MapGet(
                "/thickness",
                (Guid id, ThicknessReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel)
            )
            .WithName("getThickness")
            .WithProblems();
        group
            .MapGet(
                "/inserted-albums",
                (Guid id, InsertReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel)
            )
            .WithName("getInsertedAlbums")
            .WithProblems();
        group
            .MapGet("/year", (Guid id, YearReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel))
            .WithName("getYear")
            .WithProblems();
        group
            .MapGet(
                "/title-page.pdf",
                async (Guid id, [FromQuery] int? volume, TitlePages pages, CancellationToken cancel) =>
                    Results.File(
                        await pages.PdfAsync(id, volume ?? 1, cancel),
                        "application/pdf",
                        "zesty-pocket-title-page.pdf"
                    )
            )
            .WithName("getTitlePage")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();
        group
            .MapGet(
                "/title-page.png",
                async (Guid id, [FromQuery] int? volume, TitlePages pages, CancellationToken cancel) =>
                    Results.File(await pages.PngAsync(id, volume ?? 1, cancel), "image/png")
            )
            .WithName("getTitlePagePicture")
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();
        group
            .MapGet("/costs", (Guid id, CostReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel))
            .WithName("getCosts")
            .ForTheOwner()
            .WithProblems();
        group
            .MapGet(
                "/pace",
                (
                    Guid id,
                    [FromQuery] string? order,
                    [FromQuery] string? by,
                    PaceReader reader,
                    CancellationToken cancel
                ) => reader.ReadAsync(id, OrderOf(order), by is null ? null : DayOf(by), cancel)
            )
            .WithName("getPace")
            .WithProblems();
        group
            .MapGet(
                "/evenings.ics",
                async (
                    Guid id,
                    [FromQuery] string? order,
                    [FromQuery] string? time,
                    PaceReader reader,
                    CancellationToken cancel
                ) =>
                    Results.File(
                        Encoding.UTF8.GetBytes(
                            await reader.CalendarAsync(id, OrderOf(order), TimeOf(time ?? "19:30"), cancel)
                        ),
                        "text/calendar; charset=utf-8",
                        "zesty-pocket-evenings.ics"
                    )
            )
            .WithName("getEvenings")
            .Produces(StatusCodes.Status200OK, contentType: "text/calendar")
            .WithProblems();
    }

    private static CatchUpOrder OrderOf(string? order) =>
        order is null ? CatchUpOrder.CurrentFirst
        : Enum.TryParse<CatchUpOrder>(order, ignoreCase: true, out var known) && Enum.IsDefined(known) ? known
        : throw new RuleException("Work at the current week first, at the oldest first, or at both in turn.");

    private static LocalDate DayOf(string day) =>
        LocalDatePattern.Iso.Parse(day) is { Success: true, Value: var parsed }
            ? parsed
            : throw new RuleException($"“{day}” is not a day. Write it as 2026-05-04.");

    private static LocalTime TimeOf(string time) =>
        LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(time) is { Success: true, Value: var parsed }
            ? parsed
            : throw new RuleException($"“{time}” is not a time of day. Write it as 19:30.");
}
