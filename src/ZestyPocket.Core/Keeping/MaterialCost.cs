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

/// <summary>What the materials of a unit cost.</summary>
/// <param name="Paper">All that is printed in its pockets, with what is cut off.</param>
/// <param name="Leaves">Its pages, each half a protector.</param>
/// <param name="WithoutPrice">Stocks nobody said a price of: they are in no sum.</param>
public sealed record MaterialCost(decimal Paper, decimal Leaves, ImmutableArray<Stock> WithoutPrice)
{
    /// <summary>
    /// A sheet is never used to its edge: of four parts that are printed a fifth is cut off. Common practice, from
    /// memory.
    /// </summary>
    private const decimal WithOffcuts = 1.25m;

    public decimal Total => Paper + Leaves;

    public static MaterialCost Of(UnitDesk desk, IEnumerable<UnitFace> faces, MaterialPrices prices)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(faces);
        ArgumentNullException.ThrowIfNull(prices);
        var (paper, pages, missing) = (0m, 0, new SortedSet<Stock>());
        foreach (var face in faces)
        {
            pages++;
            foreach (var (pocket, place, _) in face.Pockets)
            {
                if (desk.Content.At(place) is { } lies && desk.Content.Find(lies.PieceId) is { } piece)
                {
                    paper += SheetsOf(desk, piece, pocket.Nominal.SquareInches, prices, missing);
                }
            }
        }

        return new MaterialCost(paper, pages * (prices.Leaf ?? 0) / 2, [.. missing]);
    }

    /// <summary>A piece with its mats and what goes with it; what was bought or found costs no paper.</summary>
    private static decimal SheetsOf(
        UnitDesk desk,
        Piece piece,
        decimal squareInches,
        MaterialPrices prices,
        SortedSet<Stock> missing
    )
    {
        // A back is printed on the same sheet, a sleeve has two panels.
        var layers = piece.Attachment?.Kind switch
        {
            AttachmentKind.Back => 0,
            AttachmentKind.Sleeve => 2,
            _ => 1,
        };
        var own = layers == 0 || piece is Keepsake or BoughtCard ? 0 : layers * Of(desk.Words.StockOf(piece));
        var mats = Enumerable.Range(0, Finish.Of(piece)?.Mats.Length ?? 0).Sum(_ => Of(Stock.WhiteCard));
        // A flip's back or a tag is about as large as the piece it goes with.
        var with = desk.Content.AttachedTo(piece.Id).Sum(part => SheetsOf(desk, part, squareInches, prices, missing));
        return own + mats + with;

        decimal Of(Stock stock)
        {
            if (prices.SquareInch.TryGetValue(stock, out var price))
            {
                return squareInches * price * WithOffcuts;
            }

            missing.Add(stock);
            return 0;
        }
    }

    /// <summary>What units that are not finished will cost: each as much as a finished one on average.</summary>
    /// <returns>Null while nothing is finished.</returns>
    public static decimal? Forecast(IReadOnlyCollection<decimal> finished, int open)
    {
        ArgumentNullException.ThrowIfNull(finished);
        return finished.Count == 0 ? null : finished.Sum() + (finished.Average() * open);
    }
}
