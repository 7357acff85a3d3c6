using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Counting;

/// <summary>
/// Page designs with some of their pockets fused by halves, as further offers for the choice of pages.
/// </summary>
public static class FusedOffers
{
    /// <summary>
    /// The pockets people fuse: a lying 6x4 or an upright 4x6, into two pockets that can be filled. Common practice.
    /// </summary>
    public static IEnumerable<string> Fusible(PageDesign design)
    {
        ArgumentNullException.ThrowIfNull(design);
        return design
            .Pockets.Where(p =>
                DesignDraft.BoughtSizes.Contains(HalfOf(p.Nominal)) && p.Nominal.SquareInches is >= 18 and <= 24
            )
            .Select(p => p.Key);
    }

    /// <summary>What a pocket becomes when it is fused through the middle of its longer side.</summary>
    public static Size HalfOf(Size pocket) =>
        pocket.Width >= pocket.Height
            ? new Size(pocket.Width / 2, pocket.Height)
            : new Size(pocket.Width, pocket.Height / 2);

    /// <summary>
    /// An offer for one pocket fused, one for two, up to <paramref name="most"/>. They come from the stock of the
    /// design they are made of.
    /// </summary>
    public static IEnumerable<PageOffer> Of(PageOffer offer, Protector protector, int most)
    {
        ArgumentNullException.ThrowIfNull(offer);
        ArgumentNullException.ThrowIfNull(protector);
        if (!offer.MayBeAdded || protector.Form.Kind != LeafKind.Pockets)
        {
            yield break;
        }

        var possible = Fusible(protector.Design).Take(most).Count();
        for (var fused = 1; fused <= possible; fused++)
        {
            yield return offer with
            {
                Key = $"{offer.Key}+{fused}",
                Name = $"{offer.Name} with {NumberWords.Of(fused)} {(fused == 1 ? "pocket" : "pockets")} fused",
                Pockets = PocketsOf(protector.Altered(Fuse(LeafAlterations.Plain, protector, fused))),
                Of = offer.Key,
                Fused = fused,
            };
        }
    }

    /// <summary>What is done to a leaf so that it holds what the offer with so many fused pockets promises.</summary>
    public static LeafAlterations Fuse(LeafAlterations alterations, Protector protector, int fused)
    {
        ArgumentNullException.ThrowIfNull(alterations);
        ArgumentNullException.ThrowIfNull(protector);
        return Fusible(protector.Design)
            .Take(fused)
            .Aggregate(
                alterations,
                (done, key) => done.With(Alterations.InHalf(protector.Design.Pockets.First(p => p.Key == key)))
            );
    }

    /// <summary>Pockets of each cut size on one face.</summary>
    public static ImmutableDictionary<Size, int> PocketsOf(Protector protector)
    {
        ArgumentNullException.ThrowIfNull(protector);
        return protector
            .Design.Pockets.GroupBy(p => protector.CutSize(p))
            .ToImmutableDictionary(g => g.Key, g => g.Count());
    }
}
