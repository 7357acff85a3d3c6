using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>Something to buy.</summary>
/// <param name="Count">From 1.</param>
/// <param name="What">Such as <c>sheets of photo paper (A4)</c>.</param>
/// <param name="Why">In a sentence.</param>
/// <param name="Price">Of all of them; null when nobody said what one costs.</param>
public sealed record ShoppingLine(int Count, string What, string Why, decimal? Price = null);

/// <summary>A paper that a stock is printed on.</summary>
/// <param name="Count">How many sheets there are; null when nobody counts.</param>
public sealed record PaperInDrawer(Stock Stock, string Name, Size Sheet, int? Count, decimal? Price);

/// <summary>What open weeks and days will need and is not there.</summary>
public static class ShoppingList
{
    /// <summary>
    /// Square inches that open units take: what lies in them, or as much as a finished one on average where that is
    /// more. Nothing is forecast before something is finished.
    /// </summary>
    public static ImmutableSortedDictionary<Stock, decimal> Needed(
        IReadOnlyCollection<IReadOnlyDictionary<Stock, decimal>> finished,
        IReadOnlyCollection<IReadOnlyDictionary<Stock, decimal>> open
    )
    {
        ArgumentNullException.ThrowIfNull(finished);
        ArgumentNullException.ThrowIfNull(open);
        return finished
            .Concat(open)
            .SelectMany(u => u.Keys)
            .Distinct()
            .Select(s =>
            {
                var usual = finished.Count == 0 ? 0 : finished.Sum(u => u.GetValueOrDefault(s)) / finished.Count;
                return (Stock: s, Area: open.Sum(u => Math.Max(usual, u.GetValueOrDefault(s))));
            })
            .Where(n => n.Area > 0)
            .ToImmutableSortedDictionary(n => n.Stock, n => n.Area);
    }

    /// <summary>
    /// Sheets to buy, in whole sheets of the paper with the most of them: what is in the drawer is taken first, also of
    /// other sizes. A stock that nobody counts, or has no paper of, is named all the same.
    /// </summary>
    public static ImmutableArray<ShoppingLine> Papers(
        IReadOnlyDictionary<Stock, decimal> needed,
        IReadOnlyCollection<PaperInDrawer> drawer
    )
    {
        ArgumentNullException.ThrowIfNull(needed);
        ArgumentNullException.ThrowIfNull(drawer);
        var lines = ImmutableArray.CreateBuilder<ShoppingLine>();
        foreach (var (stock, area) in needed.OrderBy(n => n.Key))
        {
            var own = drawer.Where(p => p.Stock == stock).ToList();
            var there = own.Sum(p => (p.Count ?? 0) * p.Sheet.SquareInches);
            if (area <= there)
            {
                continue;
            }

            var usual = own.OrderByDescending(p => p.Count ?? 0).ThenBy(p => p.Name, StringComparer.Ordinal).ToList();
            var (name, sheet, price) =
                usual.Count > 0
                    ? (usual[0].Name, usual[0].Sheet, usual[0].Price)
                    : (Paper.A4.Name, Paper.A4.Size, null);
            var count = (int)Math.Ceiling((area - there) / sheet.SquareInches);
            var counted = own.Exists(p => p.Count is not null);
            lines.Add(
                new ShoppingLine(
                    count,
                    $"{(count == 1 ? "sheet" : "sheets")} of {Stocks.Name(stock)} ({name})",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The open weeks and days will take about {Math.Ceiling(area / sheet.SquareInches):0}"
                    )
                        + (
                            counted
                                ? $", and {own.Sum(p => p.Count ?? 0)} are in the drawer."
                                : "; nobody counted the drawer."
                        ),
                    price * count
                )
            );
        }

        return lines.ToImmutable();
    }

    /// <summary>Page protectors to buy: those that the leaves of the album need and nobody owns.</summary>
    /// <param name="inStash">Of protectors of that name in the stash.</param>
    public static ShoppingLine? Protectors(string design, int leaves, int owned, int inStash, decimal? each)
    {
        var missing = leaves - owned - inStash;
        return missing <= 0
            ? null
            : new ShoppingLine(
                missing,
                $"page {(missing == 1 ? "protector" : "protectors")} {design}",
                $"The album has {NumberWords.Counted(leaves, "leaf", "leaves")} of it; you own {owned + inStash}.",
                each * missing
            );
    }
}
