using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Keeping;

/// <summary>What a unit's materials cost.</summary>
/// <param name="IsFinished">Each of its pockets has something or is empty on purpose.</param>
public sealed record UnitCostView(
    Guid UnitId,
    string Title,
    string Paper,
    string Leaves,
    string Lab,
    string Stash,
    string Keepsakes,
    string Total,
    bool IsFinished
);

/// <summary>What a month's units cost together.</summary>
public sealed record MonthCostView(string Month, string Total);

/// <summary>What an album costs.</summary>
/// <param name="Revision">Of the album.</param>
/// <param name="Words">All of it in a sentence.</param>
/// <param name="LeafPrice">What a page protector cost; null when nobody said.</param>
/// <param name="IsPriced">Something that lies in the pockets has a price.</param>
/// <param name="WithoutPrice">Stocks without a price in the drawer: they are in no sum.</param>
/// <param name="WithoutRate">Sums in a currency without a rate in the trip log: they are in no sum.</param>
public sealed record CostView(
    int Revision,
    string Words,
    Money? LeafPrice,
    bool IsPriced,
    IReadOnlyList<string> WithoutPrice,
    IReadOnlyList<string> WithoutRate,
    IReadOnlyList<MonthCostView> Months,
    IReadOnlyList<UnitCostView> Units
);

/// <summary>
/// Counts what an album's materials cost: papers from the prices in the drawer, protectors, orders at a lab, what was
/// used of the stash, keepsakes.
/// </summary>
public sealed class CostReader(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    StashReader stash,
    ICurrentKeeper keeper
)
{
    public async Task<CostView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var (leaf, trip) = (album.ReadKeeping().LeafPrice, album.ReadTrip());
        var opened = await opener.OpenAlbumAsync(albumId, cancel);
        var orders = await OrdersAsync(albumId, cancel);
        // What was used up may have been deleted from the stash since: it was paid for all the same.
        var items = (await stash.StashAsync(cancel)).Items.Where(i => i.Price is not null && i.Used > 0).ToList();
        var fromLab = orders.SelectMany(o => o.Pieces).Select(p => p.PieceId).ToHashSet();
        var prices = new MaterialPrices(leaf?.Amount, await PapersAsync(cancel));
        var missing = new List<Money>();
        var currency =
            leaf?.Currency ?? (trip.Expenses.IsEmpty ? CurrencyOf(opened, orders, items) : trip.HomeCurrency);
        var units = opened
            .Select(u =>
                (
                    Unit: u,
                    Cost: MaterialCost.Of(u.Desk, [.. u.Faces.Select(f => f.Face)], prices, fromLab) with
                    {
                        Lab = Sum(
                            orders.Select(o =>
                                MaterialCost.ShareOf(
                                    o.Price,
                                    o.Pieces.Count(p => p.UnitId == u.Unit.Id),
                                    o.Pieces.Count
                                )
                            )
                        ),
                        Stash = Sum(
                            items.Select(i => i.Price! with { Amount = i.Price.Amount * i.ClaimOf(u.Unit.Id).Used })
                        ),
                        Keepsakes = Sum(MaterialCost.KeepsakesOf(u.Content)),
                    }
                )
            )
            .ToList();
        var laid = units.FindAll(u => !u.Unit.Content.Placements.IsEmpty || u.Cost.Total > u.Cost.Leaves);
        return new CostView(
            album.Revision,
            WordsOf(units, laid, currency),
            leaf,
            laid.Exists(u => u.Cost.Total > 0),
            [.. units.SelectMany(u => u.Cost.WithoutPrice).Distinct().Order().Select(Stocks.Name)],
            [
                .. missing
                    .Where(m => m.Amount > 0)
                    .GroupBy(m => m.Currency)
                    .OrderBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g => new Money(g.Sum(m => m.Amount), g.Key).ToString()),
            ],
            [
                .. laid.GroupBy(u => (u.Unit.Dates.First.Year, u.Unit.Dates.First.Month))
                    .OrderBy(g => g.Key)
                    .Select(g => new MonthCostView(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(g.Key.Month)} {g.Key.Year}"
                        ),
                        Show(g.Sum(u => u.Cost.Total), currency)
                    )),
            ],
            [
                .. laid.Select(u => new UnitCostView(
                    u.Unit.Unit.Id,
                    u.Unit.Title,
                    Show(u.Cost.Paper, currency),
                    Show(u.Cost.Leaves, currency),
                    Show(u.Cost.Lab, currency),
                    Show(u.Cost.Stash, currency),
                    Show(u.Cost.Keepsakes, currency),
                    Show(u.Cost.Total, currency),
                    u.Unit.IsFinished
                )),
            ]
        );

        decimal Sum(IEnumerable<Money> all)
        {
            var sums = MoneySums.Of(all, currency, trip.Rates);
            missing.AddRange(sums.WithoutRate);
            return sums.Total;
        }
    }

    private sealed record PricedOrder(Money Price, IReadOnlyList<LabOrderPiece> Pieces);

    /// <summary>Orders that somebody wrote the price of, with every piece they print.</summary>
    private async Task<List<PricedOrder>> OrdersAsync(Guid albumId, CancellationToken cancel) =>
        (
            await db
                .LabOrders.AsNoTracking()
                .Where(o => o.KeeperId == keeper.Id && o.AlbumId == albumId && o.Price != null && o.Currency != null)
                .ToListAsync(cancel)
        ).ConvertAll(o => new PricedOrder(
            new Money(o.Price!.Value, o.Currency!),
            [.. LabOrderPrint.Of(o).SelectMany(p => p.Pieces)]
        ));

    private async Task<IReadOnlyDictionary<Stock, decimal>> PapersAsync(CancellationToken cancel)
    {
        var papers = await db
            .PapersOnHand.AsNoTracking()
            .Where(p => p.KeeperId == keeper.Id && p.Price != null)
            .Select(p => new
            {
                p.Stock,
                p.PaperKey,
                p.Price,
            })
            .ToListAsync(cancel);
        return MaterialPrices.Of(
            papers
                .Select(p => (p.Stock, Paper: Paper.Find(p.PaperKey), Price: p.Price!.Value))
                .Where(p => p.Paper is not null)
                .Select(p => (p.Stock, p.Paper!.Size, p.Price))
        );
    }

    /// <summary>Without a price of the protector the first currency that somebody wrote.</summary>
    private static string CurrencyOf(
        IEnumerable<OpenUnit> units,
        IEnumerable<PricedOrder> orders,
        IEnumerable<StashItem> items
    ) =>
        orders
            .Select(o => o.Price.Currency)
            .Concat(items.Select(i => i.Price!.Currency))
            .Concat(units.SelectMany(u => MaterialCost.KeepsakesOf(u.Content)).Select(m => m.Currency))
            .FirstOrDefault("");

    private static string WordsOf(
        List<(OpenUnit Unit, MaterialCost Cost)> units,
        List<(OpenUnit Unit, MaterialCost Cost)> laid,
        string currency
    )
    {
        if (laid.Count == 0)
        {
            return "Nothing lies in the pockets yet, so nothing costs anything.";
        }

        if (laid.TrueForAll(u => u.Cost.Total == 0))
        {
            return "Write what a page protector costs here and what papers cost in Papers: then each spread, each "
                + "month and the whole album are counted.";
        }

        var finished = laid.FindAll(u => u.Unit.IsFinished).ConvertAll(u => u.Cost.Total);
        var so = $"What lies in the pockets cost {Show(laid.Sum(u => u.Cost.Total), currency)}";
        return MaterialCost.Forecast(finished, units.Count - finished.Count) is { } all
            ? $"{so}; the whole album will come to about {Show(all, currency)} at the pace of what is finished."
            : $"{so}. When a spread is finished, the whole album can be forecast.";
    }

    private static string Show(decimal amount, string currency) =>
        string.Create(CultureInfo.InvariantCulture, $"{amount:N2} {currency}").TrimEnd();
}
