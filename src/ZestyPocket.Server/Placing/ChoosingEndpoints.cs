using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Placing;

/// <summary>A whole spread that could be.</summary>
/// <param name="Things">What goes where, to be sent back when it is chosen.</param>
/// <param name="Score">100 is the best of those shown.</param>
/// <param name="Words">How it differs from the first, in a sentence.</param>
/// <param name="Picture">Painted small, as a data address.</param>
public sealed record WayView(IReadOnlyList<LaidThing> Things, int Score, string Words, string Picture);

/// <summary>Priorities of a way of working.</summary>
public sealed record PlacingPreset(string Name, PlacingWeights Weights);

/// <summary>Why the pieces lie where they lie, and what the loose ones could do.</summary>
public static class ChoosingEndpoints
{
    private const int MostWays = 3;
    private const int MostOffers = 8;

    public static void MapChoosing(this IEndpointRouteBuilder api)
    {
        var units = api.MapGroup("/units/{id:guid}").WithTags("Placing");

        api.MapGet(
                "/placing-presets",
                () => PlacingWeights.Presets.Select(p => new PlacingPreset(p.Name, p.Weights)).ToList()
            )
            .WithTags("Placing")
            .WithName("getPlacingPresets");

        units
            .MapGet(
                "/reasons",
                async (Guid id, UnitOpener opener, FontShelf fonts, CancellationToken cancel) =>
                    PlacingReasons.Of((await opener.OpenAsync(id, cancel)).Desk, fonts)
            )
            .WithName("getReasons")
            .WithProblems();

        units
            .MapGet(
                "/pockets-for/{key:guid}",
                async (Guid id, Guid key, UnitOpener opener, FontShelf fonts, CancellationToken cancel) =>
                    PlacingReasons.PocketsFor((await opener.OpenAsync(id, cancel)).Desk, fonts, key)
            )
            .WithName("findPocketsFor")
            .WithProblems();

        units
            .MapGet(
                "/things-for",
                async (
                    Guid id,
                    [FromQuery] string code,
                    UnitOpener opener,
                    FontShelf fonts,
                    CancellationToken cancel
                ) =>
                {
                    var desk = (await opener.OpenAsync(id, cancel)).Desk;
                    var place = desk
                        .Pages.Pockets.Where(p => p.Code == code)
                        .Select(p => (PocketPlace?)p.Place)
                        .FirstOrDefault();
                    return place is { } found
                        ? PlacingReasons.ThingsFor(desk, fonts, found, MostOffers)
                        : throw new MissingException("That pocket");
                }
            )
            .WithName("findThingsFor")
            .WithProblems();

        units
            .MapGet(
                "/other-ways",
                async (Guid id, UnitOpener opener, SpreadPages spreads, FontShelf fonts, CancellationToken cancel) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    var desk = PlaceAgain.Cleared(open.Desk);
                    var question = DeskQuestion.Of(desk, fonts);
                    if (question.Pockets.All(p => p.Stays >= 0 || p.StaysEmpty))
                    {
                        throw new RuleException(
                            "Everything here is locked or kept as somebody made it: there is no other way. Unlock a "
                                + "pocket first."
                        );
                    }

                    var ways = OtherWays.Of(question, MostWays);
                    var views = new List<WayView>();
                    foreach (var way in ways)
                    {
                        var things = LaidSpread.Of(question, way);
                        var content = LaidSpread.Lay(desk, things, Guid.CreateVersion7).Content;
                        views.Add(
                            new WayView(
                                things,
                                WaysInWords.Score(ways[0], way),
                                WaysInWords.Of(question, ways[0], way),
                                await spreads.PreviewAsync(open with { Content = content }, cancel)
                            )
                        );
                    }

                    return views;
                }
            )
            .WithName("findOtherWays")
            .WithProblems();
    }
}
