using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Keeping;

/// <summary>What materials cost, all in one currency.</summary>
/// <param name="Leaf">A page protector; null when nobody said.</param>
/// <param name="SquareInch">A square inch of a sheet, by what it is.</param>
public sealed record MaterialPrices(decimal? Leaf, IReadOnlyDictionary<Stock, decimal> SquareInch)
{
    /// <summary>Of what lies in the drawer: of several papers of one stock the cheapest by its area counts.</summary>
    public static IReadOnlyDictionary<Stock, decimal> Of(IEnumerable<(Stock Stock, Size Sheet, decimal Price)> papers)
    {
        ArgumentNullException.ThrowIfNull(papers);
        return papers.GroupBy(p => p.Stock).ToDictionary(g => g.Key, g => g.Min(p => p.Price / p.Sheet.SquareInches));
    }
}

/// <summary>What the materials of a unit cost, all in one currency.</summary>
/// <param name="Paper">All that is printed at home in its pockets, with what is cut off.</param>
/// <param name="Leaves">Its pages, each half a protector.</param>
/// <param name="WithoutPrice">Stocks nobody said a price of: they are in no sum.</param>
public sealed record MaterialCost(decimal Paper, decimal Leaves, ImmutableArray<Stock> WithoutPrice)
{
    /// <summary>Its share of the orders at a lab.</summary>
    public decimal Lab { get; init; }

    /// <summary>What it used of the stash.</summary>
    public decimal Stash { get; init; }

    /// <summary>Tickets and the like in its pockets and in the envelope.</summary>
    public decimal Keepsakes { get; init; }

    public decimal Total => Paper + Leaves + Lab + Stash + Keepsakes;

    /// <param name="fromLab">Pieces that a lab printed: they take no paper of one's own.</param>
    public static MaterialCost Of(
        UnitDesk desk,
        IReadOnlyCollection<UnitFace> faces,
        MaterialPrices prices,
        IReadOnlySet<Guid>? fromLab = null
    )
    {
        ArgumentNullException.ThrowIfNull(faces);
        ArgumentNullException.ThrowIfNull(prices);
        var used = MaterialUse.SquareInches(desk, faces, fromLab);
        return new MaterialCost(
            used.Sum(u => u.Value * prices.SquareInch.GetValueOrDefault(u.Key)),
            faces.Count * (prices.Leaf ?? 0) / 2,
            [.. used.Keys.Where(s => !prices.SquareInch.ContainsKey(s))]
        );
    }

    /// <summary>What keepsakes of a unit cost, wherever they lie.</summary>
    public static IEnumerable<Money> KeepsakesOf(UnitContent content)
    {
        ArgumentNullException.ThrowIfNull(content);
        return content.Pieces.OfType<Keepsake>().Select(k => k.Price).OfType<Money>();
    }

    /// <summary>
    /// A unit's share of an order at a lab, by how many of the pieces are its own. The shares of all units add up to
    /// the price.
    /// </summary>
    public static Money ShareOf(Money price, int pieces, int all)
    {
        ArgumentNullException.ThrowIfNull(price);
        return price with { Amount = all == 0 ? 0 : price.Amount * pieces / all };
    }

    /// <summary>What units that are not finished will cost: each as much as a finished one on average.</summary>
    /// <returns>Null while nothing is finished.</returns>
    public static decimal? Forecast(IReadOnlyCollection<decimal> finished, int open)
    {
        ArgumentNullException.ThrowIfNull(finished);
        return finished.Count == 0 ? null : finished.Sum() + (finished.Average() * open);
    }
}
