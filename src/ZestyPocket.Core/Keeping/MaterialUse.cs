using System.Collections.Immutable;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Keeping;

/// <summary>Counts the paper that what lies in pockets is printed on.</summary>
public static class MaterialUse
{
    /// <summary>
    /// A sheet is never used to its edge: of four parts that are printed a fifth is cut off. Common practice, from
    /// memory.
    /// </summary>
    public const decimal WithOffcuts = 1.25m;

    /// <summary>
    /// Square inches of sheets by what they are, with what is cut off: each piece with its mats and what goes with it.
    /// What was bought or found takes no paper.
    /// </summary>
    /// <param name="passedOver">Pieces that do not count, such as those that a lab prints.</param>
    public static ImmutableSortedDictionary<Stock, decimal> SquareInches(
        UnitDesk desk,
        IEnumerable<UnitFace> faces,
        IReadOnlySet<Guid>? passedOver = null
    )
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(faces);
        var sums = ImmutableSortedDictionary.CreateBuilder<Stock, decimal>();
        foreach (var (pocket, place, _) in faces.SelectMany(f => f.Pockets))
        {
            if (desk.Content.At(place) is { } lies && desk.Content.Find(lies.PieceId) is { } piece)
            {
                foreach (var stock in StocksOf(desk, piece, passedOver))
                {
                    sums[stock] = sums.GetValueOrDefault(stock) + (pocket.Nominal.SquareInches * WithOffcuts);
                }
            }
        }

        return sums.ToImmutable();
    }

    /// <summary>What a piece is made of, a layer each.</summary>
    private static IEnumerable<Stock> StocksOf(UnitDesk desk, Piece piece, IReadOnlySet<Guid>? passedOver)
    {
        // A back is printed on the same sheet, a sleeve has two panels.
        var layers = piece.Attachment?.Kind switch
        {
            AttachmentKind.Back => 0,
            AttachmentKind.Sleeve => 2,
            _ => 1,
        };
        var own =
            piece is Keepsake or BoughtCard || passedOver?.Contains(piece.Id) == true
                ? []
                : Enumerable.Repeat(desk.Words.StockOf(piece), layers);
        var mats = Enumerable.Repeat(Stock.WhiteCard, Finish.Of(piece)?.Mats.Length ?? 0);
        // A flip's back or a tag is about as large as the piece it goes with.
        var with = desk.Content.AttachedTo(piece.Id).SelectMany(part => StocksOf(desk, part, passedOver));
        return [.. own, .. mats, .. with];
    }
}
