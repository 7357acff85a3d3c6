using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Words;

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
/// <param name="MendedWords">
/// All words of the card, or of its story, with this mended; null when only the keeper can know.
/// </param>
/// <param name="Mend">What would stand there instead.</param>
/// <param name="StoryId">The story that flows over the card: it is the story that is mended.</param>
/// <param name="StoryRevision">The story's revision.</param>
public sealed record FindingView(
    Guid PieceId,
    string Card,
    string? Code,
    WordFindingKind Kind,
    int Start,
    int Length,
    string Found,
    string Says,
    string? MendedWords,
    string? Mend,
    Guid? StoryId,
    int? StoryRevision
)
{
    /// <summary>What it is about, whichever card it is on: passed over always, it is not named again.</summary>
    public string Key
    {
        get
        {
            var about = Found.Trim().Length > 0 ? Found.Trim() : Says;
            return $"{Kind}: {about[..Math.Min(about.Length, 160)]}";
        }
    }
}

/// <summary>Looking over the words of a unit.</summary>
public static class CardEndpoints
{
    public static void MapCards(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/units/{id:guid}/words/findings",
                async (Guid id, UnitOpener opener, WordsOver over, CancellationToken cancel) =>
                    await over.LookAsync(await opener.OpenAsync(id, cancel), cancel)
            )
            .WithName("lookOverWords")
            .WithTags("Words")
            .WithProblems();
}

/// <summary>Looks over the words of a unit: on its cards and on its pictures.</summary>
public sealed class WordsOver(PieceFaces faces, Speller speller, ZestyContext db, IPrintCrops crops, FontShelf fonts)
{
    public async Task<IReadOnlyList<FindingView>> LookAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var cards = open.Content.Pieces.OfType<Card>().Where(c => c.Kind != CardKind.Filler).ToList();
        var told = cards.Select(c => c.StoryId).OfType<Guid>().Distinct().ToList();
        var stories = await db
            .Stories.AsNoTracking()
            .Where(s => told.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, cancel);
        string[] known =
        [
            .. open.Words.People.Select(p => p.Name),
            .. open.Calendar.Stays.Select(s => s.Place),
            .. open.Words.KnownWords,
        ];
        var findings = new List<FindingView>();
        foreach (var card in cards)
        {
            var misspelt = ComputedCards.IsComputed(card.Kind)
                ? []
                : await speller.CheckAsync(Speller.LanguageOf(open.Calendar.Style), card.Words, known, cancel) ?? [];
            findings.AddRange(
                Findings(
                    open,
                    card,
                    faces,
                    card.StoryId is { } story ? stories.GetValueOrDefault(story) : null,
                    misspelt
                )
            );
        }

        findings.AddRange(OnPictures(open));
        findings.RemoveAll(f => open.Words.PassedOver.Contains(f.Key));
        return findings;
    }

    /// <summary>
    /// Words on pictures that cannot be read, or that run over the edge since the print has another size.
    /// </summary>
    private IEnumerable<FindingView> OnPictures(OpenUnit open)
    {
        foreach (var print in open.Content.Pieces.OfType<PhotoPrint>().Where(p => p.Caption is not null))
        {
            var cut = open.RoomOf(print);
            if (faces.Of(open, print, cut) is not PhotoFace face)
            {
                continue;
            }

            var code = open.Content.PlacementOf(print.Id) is { } lies ? open.CodeOf(lies.Place) : null;
            var contrast = PhotoWords.Contrast(print.Caption!, cut, PhotoTones.Of(crops, face), fonts);
            var says =
                !PhotoWords.Inside(print.Caption!, cut, fonts)
                    ? "The words run over the edge of this print. Find a place for them again."
                : contrast < PhotoWords.ReadableContrast
                    ? $"These words are hard to read on the picture ({contrast:0.0} to 1; "
                        + $"{PhotoWords.ReadableContrast:0.0} reads well). Find "
                        + "another place, or take a label."
                : null;
            if (says is not null)
            {
                yield return new FindingView(
                    print.Id,
                    open.PhotoOf(print.PhotoId)!.FileName,
                    code,
                    WordFindingKind.FaintInk,
                    0,
                    print.Caption!.Words.Length,
                    print.Caption.Words,
                    says,
                    null,
                    null,
                    null,
                    null
                );
            }
        }
    }

    private static IEnumerable<FindingView> Findings(
        OpenUnit open,
        Card card,
        PieceFaces faces,
        Story? story,
        IReadOnlyList<WordFinding> misspelt
    )
    {
        var days = WordChecks.DaysOf(card.Day, story?.Days ?? [], open.Dates.First, open.Dates.Last);
        var typed = !ComputedCards.IsComputed(card.Kind);
        var found = typed
            ? WordChecks
                .Of(
                    card.Words,
                    days,
                    [.. open.Words.People.Select(p => p.Name), .. open.Calendar.Stays.Select(s => s.Place)],
                    open.Calendar.Style.Order
                )
                .ToList()
            : [];
        // A name that is nearly one the album knows says so already.
        found.AddRange(misspelt.Where(m => !found.Exists(f => f.Start == m.Start)));
        var face = faces.CardFaceOf(open, card, open.RoomOf(card));
        if (face.Fit is { WordsOver: > 0 } fit && typed)
        {
            var rest = card.Words[fit.CutAt..].TrimStart();
            found.Add(
                new WordFinding(
                    WordFindingKind.CutOff,
                    fit.CutAt,
                    card.Words.Length - fit.CutAt,
                    rest,
                    $"{fit.WordsOver} {(fit.WordsOver == 1 ? "word has" : "words have")} no room and would not be "
                        + "printed.",
                    null
                )
            );
        }

        var contrast = Rgb.Contrast(PieceFaces.StyleOf(open, card).Ink, PieceFaces.StyleOf(open, card).Paper);
        if (contrast < PhotoWords.ReadableContrast)
        {
            found.Add(
                new WordFinding(
                    WordFindingKind.FaintInk,
                    0,
                    0,
                    string.Empty,
                    $"The ink is too faint on its paper ({contrast:0.0} to 1; "
                        + $"{PhotoWords.ReadableContrast:0.0} reads well).",
                    null
                )
            );
        }

        var code = open.Content.PlacementOf(card.Id) is { } lies ? open.CodeOf(lies.Place) : null;
        return found.Select(f => new FindingView(
            card.Id,
            open.Desk.Called(card),
            code,
            f.Kind,
            f.Start,
            f.Length,
            f.Found.Length > 80 ? f.Found[..80] + "…" : f.Found,
            f.Says,
            Mended(card, story, f),
            f.Mend,
            story?.Id,
            story?.Revision
        ));
    }

    private static string? Mended(Card card, Story? story, WordFinding finding)
    {
        if (finding.Mend is null)
        {
            return null;
        }

        // The card shows a stretch of its story: the finding lies as far behind the beginning of that stretch.
        return story is null ? WordChecks.Mended(card.Words, finding)
            : story.Words.IndexOf(card.Words, StringComparison.Ordinal) is >= 0 and var at
                ? WordChecks.Mended(story.Words, finding with { Start = at + finding.Start })
            : null;
    }
}
