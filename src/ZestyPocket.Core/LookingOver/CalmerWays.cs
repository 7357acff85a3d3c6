using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.LookingOver;

/// <summary>Something that makes a spread less colourful.</summary>
/// <param name="Words">What is used instead, as in “Use …”.</param>
/// <param name="Edit">Its revision still open.</param>
/// <param name="Before">How colourful the spread is now.</param>
/// <param name="After">How colourful it will be.</param>
public sealed record CalmerWay(string Words, ContentEdit Edit, double Before, double After);

/// <summary>
/// Proposals that calm the colours of a spread: a picture in black and white, another filler, the cards in the colours
/// of the pictures. Common practice.
/// </summary>
public static class CalmerWays
{
    /// <summary>Less is not seen. A choice of this program.</summary>
    private const double Seen = 0.5;

    private const int Most = 4;

    /// <summary>What makes a spread calmer, the calmest first.</summary>
    public static IReadOnlyList<CalmerWay> Of(
        UnitDesk desk,
        IReadOnlyList<PocketToFill> pockets,
        int spread,
        EditTools tools
    )
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(pockets);
        ArgumentNullException.ThrowIfNull(tools);
        if (Colour(desk) is not { } before)
        {
            return [];
        }

        return
        [
            .. Ideas(desk, [.. pockets.Where(p => p.Spread == spread)])
                .Select(idea => (idea.Words, idea.Edit, After: After(idea.Edit)))
                .Where(idea => idea.After < before - Seen)
                .Select(idea => new CalmerWay(idea.Words, idea.Edit, before, idea.After))
                .OrderBy(way => way.After)
                .ThenBy(way => way.Words, StringComparer.Ordinal)
                .Take(Most),
        ];

        double? Colour(UnitDesk on) =>
            SpreadColours.Of(on, pockets).FirstOrDefault(s => s.Spread == spread)?.Colourfulness;

        double After(ContentEdit edit)
        {
            try
            {
                return Colour(desk with { Content = edit.Apply(desk, tools).Content }) ?? double.MaxValue;
            }
            catch (RuleException)
            {
                // What a rule refuses is no proposal.
                return double.MaxValue;
            }
        }
    }

    private static IEnumerable<(string Words, ContentEdit Edit)> Ideas(UnitDesk desk, List<PocketToFill> pockets)
    {
        var prints = pockets
            .Select(p => (Print: PieceAt(desk, p.Place) as PhotoPrint, p.Place, Area: (double)p.Cut.SquareInches))
            .Where(p => p.Print is { Adjustment: not { BlackAndWhite: true } })
            .Select(p => (Print: p.Print!, p.Place, Weight: p.Area * SpreadColours.At(desk, p.Place) ?? 0))
            .OrderByDescending(p => p.Weight)
            .ThenBy(p => p.Print.Id)
            .ToList();
        if (prints.Count > 0)
        {
            yield return ($"{NameOf(desk, prints[0].Print)} in black and white", BlackAndWhite([prints[0].Print]));
        }

        if (prints.Count > 2)
        {
            yield return (
                $"{NameOf(desk, prints[0].Print)} and {NameOf(desk, prints[1].Print)} in black and white",
                BlackAndWhite([prints[0].Print, prints[1].Print])
            );
        }

        var filler = pockets
            .Select(p => (Card: PieceAt(desk, p.Place) as Card, p.Place))
            .Where(p => p.Card is { Kind: CardKind.Filler })
            .OrderByDescending(p => SpreadColours.At(desk, p.Place))
            .FirstOrDefault();
        if (filler.Card is { } loud)
        {
            var family = desk.Words.Style(loud.StyleKey, CardKind.Filler).Family;
            var calm = desk
                .Words.Styles.Where(s => s.Role == StyleRole.Filler && s.Family == family && desk.Words.Offers(s))
                .OrderBy(s => SpreadColours.Of(desk.Content.Tint?.On(s) ?? s, filler: true))
                .FirstOrDefault();
            if (calm is not null && calm.Key != loud.StyleKey)
            {
                yield return (
                    $"the filler “{calm.Name}” in {desk.Pages.CodeOf(filler.Place)}",
                    new WriteCard(loud.Id, StyleKey: calm.Key) { Revision = 0 }
                );
            }
        }

        yield return ("the cards in the colours of the pictures", new TintCards(FromPictures: true) { Revision = 0 });
    }

    private static AdjustPhotos BlackAndWhite(IEnumerable<PhotoPrint> prints) =>
        new([
            .. prints.Select(p => new AdjustedPrint(
                p.Id,
                (p.Adjustment ?? PictureAdjustment.None) with
                {
                    BlackAndWhite = true,
                }
            )),
        ])
        {
            Revision = 0,
        };

    private static Piece? PieceAt(UnitDesk desk, PocketPlace place) =>
        desk.Content.At(place) is { } lies ? desk.Content.Find(lies.PieceId) : null;

    private static string NameOf(UnitDesk desk, PhotoPrint print) =>
        desk.Photos.GetValueOrDefault(print.PhotoId)?.FileName ?? "the picture";
}
