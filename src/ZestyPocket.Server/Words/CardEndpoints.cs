using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Placing;

namespace ZestyPocket.Server.Words;

/// <summary>Something to look at before a card is printed.</summary>
/// <param name="PieceId">The card.</param>
/// <param name="Card">What it is called.</param>
/// <param name="Code">Its pocket; null when it lies in the tray.</param>
/// <param name="Kind">What is wrong.</param>
/// <param name="Start">Where in its words.</param>
/// <param name="Length">How long.</param>
/// <param name="Found">The words.</param>
/// <param name="Says">What is wrong, in words.</param>
/// <param name="MendedWords">All its words with this mended; null when only the keeper can know.</param>
/// <param name="Mend">What would stand there instead.</param>
public sealed record FindingView(
    Guid PieceId, string Card, string? Code, WordFindingKind Kind, int Start, int Length, string Found, string Says, string? MendedWords, string? Mend);

/// <summary>Looking over the words of a unit.</summary>
public static class CardEndpoints
{
    public static void MapCards(this IEndpointRouteBuilder api) =>
        api.MapGet("/units/{id:guid}/words/findings", async (Guid id, UnitOpener opener, PieceFaces faces, CancellationToken cancel) =>
        {
            var open = await opener.OpenAsync(id, cancel);
            return open.Content.Pieces.OfType<Card>().Where(c => c.Kind != CardKind.Filler).SelectMany(c => Findings(open, c, faces)).ToList();
        }).WithName("lookOverWords").WithTags("Words").WithProblems();

    private static IEnumerable<FindingView> Findings(OpenUnit open, Card card, PieceFaces faces)
    {
        var days = Enumerable.Range(0, NodaTime.Period.DaysBetween(open.Dates.First, open.Dates.Last) + 1).Select(open.Dates.First.PlusDays).ToList();
        var typed = !ComputedCards.IsComputed(card.Kind);
        var found = typed ? WordChecks.Of(card.Words, days, [.. open.Calendar.People.Select(p => p.Name), .. open.Calendar.Stays.Select(s => s.Place)]).ToList() : [];
        var face = faces.CardFaceOf(open, card, open.CutSizeOf(card));
        if (face.Fit is { WordsOver: > 0 } fit && typed)
        {
            var rest = card.Words[fit.CutAt..].TrimStart();
            found.Add(new WordFinding(WordFindingKind.CutOff, fit.CutAt, card.Words.Length - fit.CutAt, rest, $"{fit.WordsOver} {(fit.WordsOver == 1 ? "word has" : "words have")} no room and would not be printed.", null));
        }

        var contrast = Rgb.Contrast(PieceFaces.StyleOf(card).Ink, PieceFaces.StyleOf(card).Paper);
        if (contrast < 4.5)
        {
            found.Add(new WordFinding(WordFindingKind.FaintInk, 0, 0, string.Empty, $"The ink is too faint on its paper ({contrast:0.0} to 1; 4.5 reads well).", null));
        }

        var code = open.Content.PlacementOf(card.Id) is { } lies ? open.CodeOf(lies.Place) : null;
        return found.Select(f => new FindingView(
            card.Id, Called(card), code, f.Kind, f.Start, f.Length, f.Found.Length > 80 ? f.Found[..80] + "…" : f.Found, f.Says,
            f.Mend is null ? null : WordChecks.Mended(card.Words, f), f.Mend));
    }

    private static string Called(Card card) => ComputedCards.Heading(card.Kind) ?? (card.Words.Length > 40 ? card.Words[..40].ReplaceLineEndings(" ") + "…" : card.Words.ReplaceLineEndings(" "));
}
