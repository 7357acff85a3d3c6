using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Words;

/// <summary>A card that is due, at its true size.</summary>
/// <param name="Piece">The card.</param>
/// <param name="Code">Its pocket; null when it lies in the tray.</param>
/// <param name="WidthInches">Cut width.</param>
/// <param name="HeightInches">Cut height.</param>
/// <param name="Size">Cut size in words.</param>
/// <param name="Problems">What is wrong with it, in words.</param>
public sealed record CardDueView(
    PieceView Piece,
    string? Code,
    double WidthInches,
    double HeightInches,
    string Size,
    IReadOnlyList<string> Problems
);

/// <summary>The words of one part of the album.</summary>
/// <param name="UnitId">The part.</param>
/// <param name="Title">Its title.</param>
/// <param name="Label">Its span.</param>
/// <param name="Stories">Stories that tell of it.</param>
/// <param name="Words">Words on its cards.</param>
/// <param name="Missing">What is missing, in words; empty when all is told.</param>
/// <param name="Cards">Its cards in reading order, those in the tray last.</param>
public sealed record UnitWordsView(
    Guid UnitId,
    string Title,
    string Label,
    int Stories,
    int Words,
    IReadOnlyList<string> Missing,
    IReadOnlyList<CardDueView> Cards
);

/// <summary>The words of several parts of an album, in one flow with what is missing.</summary>
public static class WordsDue
{
    public const int MostUnits = 60;

    public static void MapWordsDue(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/albums/{albumId:guid}/words/due",
                async (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    AlbumReader albums,
                    UnitOpener opener,
                    UnitReader reader,
                    WordsOver over,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                {
                    var units = new List<UnitWordsView>();
                    foreach (
                        var open in await opener.OpenManyAsync(
                            await albums.StretchAsync(albumId, from, count, MostUnits, cancel),
                            cancel
                        )
                    )
                    {
                        var (firstDay, lastDay) = (open.Dates.First, open.Dates.Last);
                        var ofDays = await db
                            .Stories.AsNoTracking()
                            .Where(s => s.AlbumId == albumId && s.Days.Any(d => d >= firstDay && d <= lastDay))
                            .Select(s => new
                            {
                                s.Id,
                                s.Title,
                                s.Words,
                                s.Days,
                                s.Hour,
                            })
                            .ToListAsync(cancel);
                        var stories = ofDays.FindAll(s =>
                            AlbumStory.IsToldIn(s.Days, s.Hour, open.Dates, open.Calendar.Waking)
                        );
                        var findings = (await over.LookAsync(open, cancel)).ToLookup(f => f.PieceId);
                        units.Add(
                            new UnitWordsView(
                                open.Unit.Id,
                                open.Title,
                                open.Dates.Span(open.Calendar.Style),
                                stories.Count,
                                open.Content.Pieces.OfType<Card>()
                                    .Where(c => !ComputedCards.IsComputed(c.Kind))
                                    .Sum(c => Copyfit.CountWords(c.Words)),
                                [
                                    .. Missing(
                                        open,
                                        stories
                                            .Where(s => s.Words.Trim().Length > 0 && open.Content.CardsOf(s.Id).IsEmpty)
                                            .Select(s => s.Title)
                                            .ToList(),
                                        findings.Sum(f => f.Count())
                                    ),
                                ],
                                [.. Cards(open, reader, findings)]
                            )
                        );
                    }

                    return units;
                }
            )
            .WithName("listWordsDue")
            .WithTags("Words")
            .WithProblems();

    private static IEnumerable<string> Missing(OpenUnit open, List<string> untold, int findings)
    {
        var cards = open.Content.Pieces.OfType<Card>().Where(c => c.Kind != CardKind.Filler).ToList();
        if (cards.TrueForAll(c => ComputedCards.IsComputed(c.Kind)) && untold.Count == 0)
        {
            yield return "no words yet";
        }

        var unwritten = cards.Count(c => !ComputedCards.IsComputed(c.Kind) && string.IsNullOrWhiteSpace(c.Words));
        if (unwritten > 0)
        {
            yield return $"{Count(unwritten, "card", "cards")} without words";
        }

        if (untold.Count > 0)
        {
            yield return untold is [{ Length: > 0 } only]
                ? $"“{only}” is on no card"
                : $"{Count(untold.Count, "story is", "stories are")} on no card";
        }

        if (!cards.Exists(c => CardStyle.RoleOf(c.Kind) == StyleRole.Title))
        {
            yield return "no title card";
        }

        var loose = cards.Count(c => open.Content.PlacementOf(c.Id) is null);
        if (loose > 0)
        {
            yield return $"{Count(loose, "card", "cards")} in no pocket";
        }

        if (findings > 0)
        {
            yield return $"{Count(findings, "thing", "things")} to look at before printing";
        }
    }

    private static IEnumerable<CardDueView> Cards(OpenUnit open, UnitReader reader, ILookup<Guid, FindingView> findings)
    {
        var order = open.Pockets.Select((p, i) => (p.Place, i)).ToDictionary(p => p.Place, p => p.i);
        foreach (
            var card in open
                .Content.Pieces.OfType<Card>()
                .OrderBy(c =>
                    open.Content.PlacementOf(c.Id) is { } lies
                        ? order.GetValueOrDefault(lies.Place, int.MaxValue)
                        : int.MaxValue
                )
        )
        {
            var cut = open.RoomOf(card);
            yield return new CardDueView(
                reader.View(open, card)!,
                open.Content.PlacementOf(card.Id) is { } lies ? open.CodeOf(lies.Place) : null,
                (double)cut.Width.Inches,
                (double)cut.Height.Inches,
                Core.Measures.MeasureText.Show(cut, open.Album.Measures),
                [.. findings[card.Id].Select(f => f.Found.Trim().Length > 0 ? $"“{f.Found}”: {f.Says}" : f.Says)]
            );
        }
    }

    private static string Count(int count, string one, string many) =>
        $"{NumberWords.Of(count)} {(count == 1 ? one : many)}";
}
