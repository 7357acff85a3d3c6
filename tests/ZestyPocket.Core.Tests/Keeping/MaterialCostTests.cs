using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Tests.Placing;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>Costs by hand: area times price of a square inch, a quarter more for offcuts, half a leaf a page.</summary>
public sealed class MaterialCostTests
{
    private static readonly MaterialPrices Prices = new(
        1.10m,
        MaterialPrices.Of([
            (Stock.PhotoPaper, Paper.Find("4x6")!.Size, 0.12m),
            (Stock.PhotoPaper, Paper.Letter.Size, 0.935m),
            (Stock.WhiteCard, Paper.Letter.Size, 0.187m),
        ])
    );

    [Fact]
    public void The_cheaper_paper_of_a_stock_counts_by_its_area()
    {
        // 0.12 for 24 square inches; 0.935 for 93.5 would be twice as much.
        Prices.SquareInch[Stock.PhotoPaper].ShouldBe(0.005m);
        Prices.SquareInch[Stock.WhiteCard].ShouldBe(0.002m);
    }

    [Fact]
    public void A_print_of_3x4_with_a_mat_costs_its_paper_its_card_and_its_pages()
    {
        var (desk, tools) = (Desks.Week(1), Desks.Tools());
        var place = Desks.LeftPocket(desk, 1);
        MaterialCost.Of(desk, desk.Pages.Faces, Prices).Total.ShouldBe(1.10m, "two empty pages");
        desk = Desks.After(desk, new PutPhoto(Desks.Id(1), Place: place) { Revision = 0 }, tools);
        var inches = desk
            .Pages.Faces.SelectMany(f => f.Pockets)
            .First(p => p.Place == place)
            .Pocket.Nominal.SquareInches;
        var plain = MaterialCost.Of(desk, desk.Pages.Faces, Prices);
        plain.Paper.ShouldBe(inches * 0.005m * 1.25m);
        plain.Total.ShouldBe(plain.Paper + 1.10m);
        var mats = new WrittenFinish(Mats: [new WrittenMat("1/8 in", "#ffffff")]);
        desk = Desks.After(desk, new FinishPieces([desk.Content.Pieces[0].Id], mats) { Revision = 0 }, tools);
        MaterialCost.Of(desk, desk.Pages.Faces, Prices).Paper.ShouldBe(inches * (0.005m + 0.002m) * 1.25m);
    }

    [Fact]
    public void What_has_no_price_is_named_and_in_no_sum()
    {
        var (desk, tools) = (Desks.Week(1), Desks.Tools());
        desk = Desks.After(desk, new PutPhoto(Desks.Id(1), Place: Desks.LeftPocket(desk, 1)) { Revision = 0 }, tools);
        var cost = MaterialCost.Of(desk, desk.Pages.Faces, new MaterialPrices(null, MaterialPrices.Of([])));
        (cost.Total, cost.WithoutPrice.Single()).ShouldBe((0m, Stock.PhotoPaper));
    }

    [Fact]
    public void An_album_will_cost_as_much_a_unit_as_what_is_finished()
    {
        MaterialCost.Forecast([4m, 6m], 10).ShouldBe(60m);
        MaterialCost.Forecast([], 10).ShouldBeNull();
    }
}
