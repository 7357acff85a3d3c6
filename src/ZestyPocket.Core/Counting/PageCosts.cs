namespace ZestyPocket.Core.Counting;

/// <summary>
/// What a choice of pages costs, in thousandths of a picture: what every solver makes small, and what every answer is
/// checked against. The order is practice, the numbers are this program's own.
/// </summary>
public static class PageCosts
{
    /// <summary>A leaf that is not in stock costs this much on top: it has to be bought.</summary>
    public const int Buy = 20_000;

    /// <summary>A piece that goes nowhere: worse than any leaf for it.</summary>
    public const int Unplaced = 100_000;

    /// <summary>What a choice costs, worked out anew from its parts: for checks and for showing why.</summary>
    public static long CostOf(PageQuestion question, PageAnswer answer)
    {
        ArgumentNullException.ThrowIfNull(question);
        ArgumentNullException.ThrowIfNull(answer);
        var weights = question.Weights;
        return answer
                .Units.Select(
                    (part, u) =>
                        part.Extra.Sum(e =>
                            (long)e.Leaves
                            * (weights.Leaf + (weights.Alter * question.Offers.First(o => o.Key == e.Key).Fused))
                        )
                        + ((long)weights.EmptyPocket * part.Empty)
                        + ((long)Unplaced * part.Unplaced)
                        + part.Spread.Sum(s =>
                            (long)weights.Crop * s.Count * question.Units[u][s.Demand].Costs[s.Pocket]
                        )
                )
                .Sum()
            + answer
                .Standing.Select(
                    (key, l) => ChangeCost(question.Standing[l], question.Offers.First(o => o.Key == key), weights)
                )
                .Sum()
            + ((long)Buy * answer.Buy.Values.Sum());
    }

    /// <summary>What another design on a leaf that stands costs: the change, and what has to be fused.</summary>
    public static long ChangeCost(StandingLeaf leaf, PageOffer offer, ChoiceWeights weights) =>
        offer.Key == leaf.Key ? 0 : ((long)weights.Alter * offer.Fused) + (offer.Of == leaf.Key ? 0 : weights.Change);
}
