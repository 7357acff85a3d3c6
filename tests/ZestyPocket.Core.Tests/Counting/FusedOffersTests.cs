using CsCheck;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Tests.Pages;

namespace ZestyPocket.Core.Tests.Counting;

/// <summary>
/// Designs with fused pockets as they are offered to the choice of pages. Common practice; counts are arithmetic.
/// </summary>
public sealed class FusedOffersTests
{
    private static (PageOffer Offer, Protector Protector) Of(string key, int? stock = null)
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find(key)!);
        return (new PageOffer(key, protector.Design.Name, FusedOffers.PocketsOf(protector), stock), protector);
    }

    [Fact]
    public void Three_rows_of_6x4_and_3x4_can_be_fused_three_times()
    {
        var (offer, protector) = Of("9x12-rows-6x4-3x4", stock: 4);
        var fused = FusedOffers.Of(offer, protector, 9).ToList();
        fused
            .Select(f =>
                (f.Fused, f.Pockets.GetValueOrDefault(Size.FromInches(6, 4)), f.Pockets[Size.FromInches(3, 4)])
            )
            .ShouldBe([(1, 2, 5), (2, 1, 7), (3, 0, 9)]);
        fused.ShouldAllBe(f => f.Of == offer.Key && f.Bought == offer.Key && f.OnHand == 4);
        fused.Select(f => f.Key).ShouldBeUnique();
        fused[0].Name.ShouldBe("Three rows of 6x4 + 3x4 with one pocket fused");
    }

    [Fact]
    public void Small_pockets_and_whole_pages_are_not_fused()
    {
        foreach (var key in new[] { "9x12-nine-3x4", "6x8-twelve-2x2", "9x12-full", "6x8-full" })
        {
            var (offer, protector) = Of(key);
            FusedOffers.Of(offer, protector, 3).ShouldBeEmpty(key);
        }

        var (given, up) = Of("9x12-rows-6x4-3x4");
        FusedOffers.Of(given with { MayBeAdded = false }, up, 3).ShouldBeEmpty();
        var sheet = Protector.Sheet("sheet", Size.FromInches(6, 4), Protector.DefaultRingStrip);
        FusedOffers.Of(given, sheet, 3).ShouldBeEmpty();
    }

    [Fact]
    public void Every_fused_offer_holds_what_the_altered_leaf_has()
    {
        RandomDesigns.Any.Sample(design =>
        {
            var protector = Protector.Unmeasured(design);
            var offer = new PageOffer("any", "Any", FusedOffers.PocketsOf(protector), null);
            foreach (var fused in FusedOffers.Of(offer, protector, 2))
            {
                fused.Pockets.Values.Sum().ShouldBe(design.Pockets.Length + fused.Fused);
                fused
                    .Pockets.Aggregate(Int128.Zero, (sum, p) => sum + (p.Key.SquareEmu * p.Value))
                    .ShouldBe(design.Body.SquareEmu);
            }
        });
    }

    [Fact]
    public void A_measured_pocket_is_offered_by_the_size_pieces_are_cut_to()
    {
        var (_, protector) = Of("9x12-nine-3x4");
        var tight = protector with
        {
            ClearSizes = protector.ClearSizes.Add(Size.FromInches(3, 4), MeasureText.ParseSize("2 15/16 x 4")),
        };
        FusedOffers.PocketsOf(tight).Keys.Single().ShouldBe(tight.CutSize(Size.FromInches(3, 4)));
    }

    [Theory]
    [InlineData("6x4", "3x4")]
    [InlineData("4x6", "4x3")]
    [InlineData("4x4", "2x4")]
    public void A_pocket_is_fused_across_its_longer_side(string pocket, string half) =>
        FusedOffers.HalfOf(MeasureText.ParseSize(pocket)).ToString().ShouldBe(half);
}
