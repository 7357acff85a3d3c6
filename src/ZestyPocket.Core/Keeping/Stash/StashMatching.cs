using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>An item against the pictures of a week or day.</summary>
/// <param name="Difference">
/// CIEDE2000 of its colours to the nearest ones of the pictures, weighted by their shares: under 10 they go together to
/// everybody's eye.
/// </param>
/// <param name="Reason">The nearest pair of colours, in a sentence.</param>
public sealed record StashMatch(StashItem Item, double Difference, string Reason)
{
    /// <summary>It goes with these pictures. See <see cref="LabColour.DifferenceTo"/>.</summary>
    public bool Matches => Difference <= 14;
}

/// <summary>Finds what goes with pictures, by colour.</summary>
public static class StashMatching
{
    /// <summary>White, grey, black and kraft go with everything, but say nothing. A choice of this program.</summary>
    private const double NeutralDifference = 9;

    /// <summary>
    /// The items with colours, those that go best with a palette first; the same in whatever order they come. Empty
    /// when the pictures have no colours yet.
    /// </summary>
    public static ImmutableArray<StashMatch> Rank(IEnumerable<StashItem> items, ImmutableArray<PaletteColour> pictures)
    {
        ArgumentNullException.ThrowIfNull(items);
        return pictures.IsDefaultOrEmpty
            ? []
            :
            [
                .. items
                    .Where(i => !i.Colours.IsDefaultOrEmpty)
                    .Select(i => Match(i, pictures))
                    .OrderBy(m => m.Difference)
                    .ThenBy(m => m.Item.Name, StringComparer.Ordinal)
                    .ThenBy(m => m.Item.Id),
            ];
    }

    private static StashMatch Match(StashItem item, ImmutableArray<PaletteColour> pictures)
    {
        var total = item.Colours.Sum(c => c.Share);
        var pairs = item
            .Colours.Select(own =>
            {
                var near = pictures.Select(p => (Colour: p, Far: own.Lab.DifferenceTo(p.Lab))).MinBy(p => p.Far);
                var far = own.Lab.Chroma < ColourWords.GreyChroma ? Math.Min(NeutralDifference, near.Far) : near.Far;
                return (Own: own, near.Colour, near.Far, Counts: far, Weight: total > 0 ? own.Share / total : 1);
            })
            .ToList();
        var difference = Math.Round(pairs.Sum(p => p.Counts * p.Weight) / pairs.Sum(p => p.Weight), 1);
        var says = pairs.OrderBy(p => p.Own.Lab.Chroma < ColourWords.GreyChroma).ThenBy(p => p.Far).First();
        return new StashMatch(item, difference, ReasonOf(says.Own, says.Colour, says.Far));
    }

    private static string ReasonOf(PaletteColour own, PaletteColour near, double far)
    {
        if (own.Lab.Chroma < ColourWords.GreyChroma)
        {
            return $"Its {ColourWords.NameOf(own)} goes with everything.";
        }

        var how =
            far < 3 ? "is the same as"
            : far < 10 ? "is close to"
            : far < 20 ? "is somewhat like"
            : "is unlike";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Its {ColourWords.NameOf(own)} {how} the {ColourWords.NameOf(near)} of the pictures "
                + $"(difference {far:0.0})."
        );
    }
}

/// <summary>How a card of the stash gets into a pocket.</summary>
public static class StashFit
{
    /// <summary>Whether it covers a pocket as it is or cut down, also turned.</summary>
    public static bool Covers(Size card, Size pocket) => pocket.FitsIn(card) || pocket.FitsIn(card.Turned);

    /// <summary>
    /// What is cut away in square inches; null when it does not cover the pocket. Rounding a protector's clear size
    /// does not make a card too small: 1/8 in less each way still covers it. Common practice.
    /// </summary>
    public static decimal? WasteIn(Size card, Size pocket)
    {
        var ease = Length.FromInches(1, 8);
        var least = new Size(pocket.Width - ease, pocket.Height - ease);
        return Covers(card, least) ? Math.Max(0, card.SquareInches - pocket.SquareInches) : null;
    }
}
