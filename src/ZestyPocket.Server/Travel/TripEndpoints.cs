using Microsoft.AspNetCore.Mvc;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Travel;

/// <summary>The trip log: legs, weather, what things cost, maps.</summary>
public static class TripEndpoints
{
    public static void MapTrips(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}/trip").WithTags("Travel");
        group
            .MapGet("", (Guid id, TripReader trips, CancellationToken cancel) => trips.ReadAsync(id, cancel))
            .WithName("getTrip")
            .WithProblems();

        group
            .MapGet(
                "/map.png",
                async (Guid id, [FromQuery] string? day, TripReader trips, CancellationToken cancel) =>
                {
                    var only =
                        string.IsNullOrEmpty(day) ? (NodaTime.LocalDate?)null
                        : LocalDatePattern.Iso.Parse(day) is { Success: true, Value: var parsed } ? parsed
                        : throw new RuleException($"“{day}” is not a day. Write it as 2026-05-04.");
                    return Results.File(await trips.MapAsync(id, only, cancel), "image/png");
                }
            )
            .WithName("getTripMap")
            .Produces(StatusCodes.Status200OK, contentType: "image/png")
            .WithProblems();

        MapFile(
            group,
            "/tracks",
            "importTrack",
            (import, id, name, bytes, cancel) => import.AddTracksAsync(id, name, bytes, cancel)
        );
        MapFile(
            group,
            "/weather",
            "importWeather",
            (import, id, name, bytes, cancel) => import.AddWeatherAsync(id, name, bytes, cancel)
        );
        group
            .MapPost(
                "/legs-from-pictures",
                (Guid id, TripImport import, CancellationToken cancel) => import.AddFromPicturesAsync(id, cancel)
            )
            .WithName("addLegsFromPictures")
            .WithProblems();
    }

    private static void MapFile(
        RouteGroupBuilder group,
        string path,
        string name,
        Func<TripImport, Guid, string, byte[], CancellationToken, Task<AlbumEditAnswer>> take
    ) =>
        group
            .MapPost(
                path,
                async (
                    Guid id,
                    [FromQuery(Name = "name")] string file,
                    HttpRequest request,
                    TripImport import,
                    CancellationToken cancel
                ) =>
                    await take(
                        import,
                        id,
                        file,
                        await WholeBody.ReadAsync(request, file, ForeignReading.LargestTrack, cancel),
                        cancel
                    )
            )
            .WithName(name)
            .Accepts<string>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(ForeignReading.LargestTrack + (1 << 20)))
            .WithProblems();
}
