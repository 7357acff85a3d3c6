using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Words;

/// <summary>Room that words need, in one size of card or page.</summary>
/// <param name="Label">Such as <c>two 4x6 cards at 9 pt</c>.</param>
/// <param name="Size">The nominal size as people write it.</param>
/// <param name="Cards">How many.</param>
/// <param name="SizePt">The type size on them; 0 by hand.</param>
/// <param name="InAlbum">How many pockets of that size the unit has; 0 for whole pages.</param>
public sealed record RoomInSize(string Label, string Size, int Cards, double SizePt, int InAlbum);

/// <summary>
/// The room that words need in the sizes of pocket a unit has, and as whole pages, typed and by hand.
/// </summary>
/// <param name="Words">How many there are.</param>
/// <param name="Summary">In one line.</param>
public sealed record RoomForWords(
    int Words,
    string Summary,
    IReadOnlyList<RoomInSize> Typed,
    IReadOnlyList<RoomInSize> ByHand
)
{
    /// <param name="styleKey">A style for words; null for the one that new cards take.</param>
    public static RoomForWords In(UnitDesk desk, string words, string? styleKey, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(words);
        if (words.Length > AlbumStory.LongestWords)
        {
            throw new RuleException($"A story has {AlbumStory.LongestWords:N0} characters at most. Split it.");
        }

        var text = PlainWords.Clean(words).Trim();
        var style = (
            styleKey is null
                ? desk.Words.NewStyle(CardKind.Journaling)
                : desk.Words.Style(styleKey, CardKind.Journaling)
        ).WithoutPicture();
        var cuts = desk
            .Pages.Pockets.GroupBy(p => (p.Pocket.Nominal, Cut: p.Face.Protector.CutSize(p.Pocket)))
            .Select(g => (g.Key.Nominal, g.Key.Cut, Count: g.Count()))
            .OrderBy(g => g.Cut.SquareInches)
            .ToList();
        var typed = cuts.Select(c => Typed(c.Nominal, c.Cut, c.Count, "card", TypeRange.ComfortableOnCardsPt))
            .Append(Typed(desk.Body, desk.Body, 0, "page", TypeRange.ComfortableOnPagesPt))
            .OfType<RoomInSize>()
            .ToList();
        var count = Copyfit.CountWords(text);
        var byHand = cuts.Select(c => ByHand(c.Nominal, c.Cut, c.Count)).Where(r => r.Cards > 0).ToList();
        return new RoomForWords(count, Summarised(count, typed), typed, byHand);

        RoomInSize? Typed(Size nominal, Size cut, int inAlbum, string what, double comfortable)
        {
            var (cards, size) = StoryFlow.Needed(text, style, cut, comfortable, shaper);
            return cards == 0 || size == 0
                ? null
                : new RoomInSize(
                    $"{Cards(cards, nominal, what, desk.Measures)} at "
                        + $"{size.ToString("0.##", CultureInfo.InvariantCulture)} pt",
                    MeasureText.Show(nominal, desk.Measures),
                    cards,
                    size,
                    inAlbum
                );
        }

        RoomInSize ByHand(Size nominal, Size cut, int inAlbum)
        {
            var (lines, holds) = CardComposer.HandRoom(style, cut, desk.Words.Hand);
            var cards = holds == 0 ? 0 : Math.Max(1, (count + holds - 1) / holds);
            return new RoomInSize(
                $"{Cards(cards, nominal, "card", desk.Measures)} of {NumberWords.Counted(lines, "line")}",
                MeasureText.Show(nominal, desk.Measures),
                cards,
                0,
                inAlbum
            );
        }
    }

    /// <summary>The fewest cards first, of equally few the smaller; and the whole page.</summary>
    private static string Summarised(int count, List<RoomInSize> typed)
    {
        if (count == 0)
        {
            return "No words yet.";
        }

        var best = typed.Where(r => r.InAlbum > 0).OrderBy(r => r.Cards).FirstOrDefault();
        var page = typed.Find(r => r.InAlbum == 0);
        var rooms = string.Join(", or ", new[] { best?.Label, page?.Label }.OfType<string>());
        return $"{NumberWords.Counted(count, "word")}: {rooms}.";
    }

    private static string Cards(int count, Size size, string what, MeasureSystem system) =>
        $"{NumberWords.Of(count)} {MeasureText.Show(size, system)} {what}{(count == 1 ? string.Empty : "s")}";
}
