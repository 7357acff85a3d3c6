using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Hosting;
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
public sealed record CostView(
    int Revision,
    string Words,
    Money? LeafPrice,
    bool IsPriced,
    IReadOnlyList<string> WithoutPrice,
    IReadOnlyList<MonthCostView> Months,
    IReadOnlyList<UnitCostView> Units
);

/// <summary>Counts what an album's materials cost, from the prices in the drawer of papers.</summary>
public sealed class CostReader(ZestyContext db, AlbumReader albums, UnitOpener opener, ICurrentKeeper keeper)
{
    public async Task<CostView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
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
        var leaf = album.ReadKeeping().LeafPrice;
        var prices = new MaterialPrices(
            leaf?.Amount,
            MaterialPrices.Of(
                papers
                    .Select(p => (p.Stock, Paper: Paper.Find(p.PaperKey), Price: p.Price!.Value))
                    .Where(p => p.Paper is not null)
                    .Select(p => (p.Stock, p.Paper!.Size, p.Price))
            )
        );
        var units = (await opener.OpenAlbumAsync(albumId, cancel))
            .Select(u => (Unit: u, Cost: MaterialCost.Of(u.Desk, u.Faces.Select(f => f.Face), prices)))
            .ToList();
        var currency = leaf?.Currency ?? "";
        return new CostView(
            album.Revision,
            WordsOf(units, currency),
            leaf,
            units.Exists(u => u.Cost.Total > 0 && !u.Unit.Content.Placements.IsEmpty),
            [.. units.SelectMany(u => u.Cost.WithoutPrice).Distinct().Order().Select(Stocks.Name)],
            [
                .. units
                    .Where(u => !u.Unit.Content.Placements.IsEmpty)
                    .GroupBy(u => (u.Unit.Dates.First.Year, u.Unit.Dates.First.Month))
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
                .. units
                    .Where(u => !u.Unit.Content.Placements.IsEmpty)
                    .Select(u => new UnitCostView(
                        u.Unit.Unit.Id,
                        u.Unit.Title,
                        Show(u.Cost.Paper, currency),
                        Show(u.Cost.Leaves, currency),
                        Show(u.Cost.Total, currency),
                        u.Unit.IsFinished
                    )),
            ]
        );
    }

    private static string WordsOf(List<(OpenUnit Unit, MaterialCost Cost)> units, string currency)
    {
        var laid = units.FindAll(u => !u.Unit.Content.Placements.IsEmpty);
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
