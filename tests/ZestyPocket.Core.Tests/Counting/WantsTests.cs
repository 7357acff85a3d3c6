using CsCheck;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Counting;

/// <summary>What wants a pocket, and what it loses in each.</summary>
public sealed class WantsTests
{
    private static readonly Size[] Pockets =
    [
        .. BuiltInDesigns.All.SelectMany(d => d.Pockets).Select(p => p.Nominal).Distinct(),
    ];

    [Fact]
    public void A_picture_loses_nothing_where_it_fits_and_a_quarter_as_a_square_in_a_3x4()
    {
        Want.Picture(new PixelSize(3000, 4000), Pockets).Costs[Size.FromInches(3, 4)].ShouldBe(0);
        Want.Picture(new PixelSize(3000, 2000), Pockets).Costs[Size.FromInches(6, 4)].ShouldBe(0);
        Want.Picture(new PixelSize(4000, 4000), Pockets).Costs[Size.FromInches(3, 4)].ShouldBe(250);
        // 3:2 lying in a 3x4 upright keeps half. Arithmetic.
        Want.Picture(new PixelSize(6000, 4000), Pockets).Costs[Size.FromInches(3, 4)].ShouldBe(500);
    }

    [Fact]
    public void A_picture_that_would_be_another_picture_is_not_put_there_and_too_few_pixels_count()
    {
        var panorama = Want.Picture(new PixelSize(8000, 1600), Pockets);
        panorama.Costs.ContainsKey(Size.FromInches(3, 8)).ShouldBeFalse();
        // 900 pixels over 6 inches are 150 to the inch: poor; over 9 inches 100: ask first.
        Want.Picture(new PixelSize(900, 600), Pockets).Costs[Size.FromInches(6, 4)].ShouldBe(150);
        Want.Picture(new PixelSize(900, 1200), Pockets).Costs[Size.FromInches(9, 12)].ShouldBe(400);
    }

    [Fact]
    public void Losses_are_shares_and_follow_the_proportions_alone()
    {
        Gen.Select(Gen.Int[2000, 9000], Gen.Int[2000, 9000])
            .Sample(
                (width, height) =>
                {
                    var pixels = new PixelSize(width * 4, height * 4);
                    foreach (var (pocket, loss) in Want.Picture(pixels, Pockets).Costs)
                    {
                        var ratio = (double)width / height / ((double)pocket.Width.Emu / pocket.Height.Emu);
                        Math.Abs(loss - (1_000 * (1 - Math.Min(ratio, 1 / ratio)))).ShouldBeLessThanOrEqualTo(1);
                        loss.ShouldBeInRange(0, 700);
                    }
                }
            );
    }

    [Fact]
    public void Equal_pieces_are_counted_together_and_a_keepsake_goes_in_turned()
    {
        var demands = Want.Together([
            Want.Picture(new PixelSize(9000, 6000), Pockets),
            Want.Picture(new PixelSize(6000, 4000), Pockets),
            Want.Picture(new PixelSize(4000, 6000), Pockets),
        ]);
        demands.Select(d => (d.Name, d.Count)).ShouldBe([("landscape photos", 2), ("portrait photos", 1)]);

        var ticket = new Keepsake(
            Guid.NewGuid(),
            "Ticket",
            Length.FromInches(4),
            Length.FromInches(3),
            Length.Zero,
            "",
            null,
            null,
            false
        );
        Want.Flat(ticket, [Size.FromInches(3, 4), Size.FromInches(2, 2)]).Costs.Keys.ShouldBe([Size.FromInches(3, 4)]);
        Want.Flat(ticket with { Width = Length.FromInches(13) }, Pockets).Costs.ShouldBeEmpty();
    }

    [Fact]
    public void Every_design_of_the_trade_is_built_in_and_its_areas_add_up()
    {
        // The list is common practice; the areas are arithmetic.
        string[] wanted =
        [
            "9x12-nine-3x4",
            "9x12-twelve-3x3",
            "9x12-rows-6x4-3x4",
            "9x12-rows-3x4-6x4",
            "9x12-6x8-five-3x4",
            "9x12-6x12-three-3x4",
            "9x12-full",
            "12x12-six-6x4",
            "12x12-six-4x6",
            "12x12-rows-6x4-3x4-3x4",
            "12x12-nine-4x4",
            "12x12-full",
            "6x8-full",
            "6x8-two-6x4",
            "6x8-four-3x4",
            "6x8-6x4-two-3x4",
            "6x8-twelve-2x2",
            "6x8-two-3x8",
            "6x8-two-3x6-two-3x2",
            "6x12-three-6x4",
            "6x12-six-3x4",
            "6x12-6x8-6x4",
            "6x12-full",
            "3x8-two-3x4",
            "3x8-full",
            "10x8-full",
            "10x8-two-6x4-two-4x4",
        ];
        foreach (var key in wanted)
        {
            var design = BuiltInDesigns.Find(key).ShouldNotBeNull(key);
            design.Pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(design.Body.SquareInches, key);
            key.ShouldStartWith($"{design.Body.Width.Inches:0.##}x{design.Body.Height.Inches:0.##}-");
        }
    }
}
