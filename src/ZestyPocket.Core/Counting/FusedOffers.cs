using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Counting;

/// <summary>Page designs with some of their pockets fused by halves, as further offers for the choice of pages.</summary>
public static class FusedOffers
{
    /// <summary>The pockets people fuse: a lying 6x4 or an upright 4x6, into two pockets that can be filled. Common practice.</summary>
    public static IEnumerable<string> Fusible(PageDesign design)
    {
        ArgumentNullException.ThrowIfNull(design);
        return design.Pockets.Where(p => DesignDraft.BoughtSizes.Contains(HalfOf(p.Nominal)) && p.Nominal.SquareInches is >= 18 and <= 24).Select(p => p.Key);
    }

    /// <summary>What a pocket becomes when it is fused through the middle of its longer side.</summary>
    public static Size HalfOf(Size pocket) => pocket.Width >= pocket.Height ? new Size(pocket.Width / 2, pocket.Height) : new Size(pocket.Width, pocket.Height / 2);

    /// <summary>
    /// An offer for one pocket fused, one for two, up to <paramref name="most"/>. They come from the stock of the design
    /// they are made of.
    /// </summary>
    public static IEnumerable<PageOffer> Of(PageOffer offer, Protector protector, int most)
    {
        ArgumentNullException.ThrowIfNull(offer);
        ArgumentNullException.ThrowIfNull(protector);
        if (!offer.MayBeAdded || protector.Form.Kind != LeafKind.Pockets)
        {
            yield break;
        }

        var form = LeafForm.Plain;
        var fused = 0;
        foreach (var key in Fusible(protector.Design).Take(most))
        {
            form = form.With(Alterations.InHalf(protector.Design.Pockets.First(p => p.Key == key)));
            fused++;
            yield return offer with
            {
                Key = $"{offer.Key}+{fused}",
                Name = $"{offer.Name} with {NumberWords.Of(fused)} {(fused == 1 ? "pocket" : "pockets")} fused",
                Pockets = PocketsOf(protector.Altered(form)),
                Of = offer.Key,
                Fused = fused,
            };
        }
    }

    /// <summary>Pockets of each cut size on one face.</summary>
    public static ImmutableDictionary<Size, int> PocketsOf(Protector protector)
    {
        ArgumentNullException.ThrowIfNull(protector);
        return protector.Design.Pockets.GroupBy(p => protector.CutSize(p.Nominal)).ToImmutableDictionary(g => g.Key, g => g.Count());
    }
}
