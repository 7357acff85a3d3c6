using CsCheck;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>Tall pictures are cut where no line of words runs.</summary>
public sealed class ScrollCutsTests
{
    private static readonly Size Pocket = Size.FromInches(3, 4);

    [Fact]
    public void A_conversation_is_cut_between_its_lines()
    {
        // Lines of 30 rows with 10 quiet ones between: 3,600 rows at a width of 600 need five 3x4 of 800 rows each.
        var busy = Enumerable.Range(0, 3_600).Select(row => row % 40 < 30 ? 200.0 : 0).ToList();
        var parts = ScrollCuts.Of(new PixelSize(600, 3_600), Pocket, busy);
        parts.Length.ShouldBe(5);
        foreach (var part in parts.SkipLast(1))
        {
            var row = (int)Math.Round(part.Bottom * 3_600);
            (row % 40).ShouldBeInRange(31, 39);
        }
    }

    [Fact]
    public void A_picture_that_fits_stays_whole_and_an_endless_one_is_refused()
    {
        ScrollCuts.Of(new PixelSize(600, 800), Pocket, new double[800]).ShouldHaveSingleItem();
        Should.Throw<RuleException>(() => ScrollCuts.Of(new PixelSize(600, 40_000), Pocket, new double[4_000]));
    }

    [Fact]
    public void Parts_follow_on_each_other_cover_the_whole_and_fit_their_pockets() =>
        Gen.Select(Gen.Int[300, 1_200], Gen.Int[400, 12_000], Gen.Double[0, 255].Array[20, 700])
            .Sample(
                (wide, high, busy) =>
                {
                    var picture = new PixelSize(wide, high);
                    if (ScrollCuts.Fewest(picture, Pocket) > ScrollCuts.MostParts)
                    {
                        return;
                    }

                    var parts = ScrollCuts.Of(picture, Pocket, busy);
                    parts[0].Top.ShouldBe(0);
                    parts[^1].Bottom.ShouldBe(1);
                    parts.Zip(parts.Skip(1)).ShouldAllBe(p => p.First.Bottom == p.Second.Top);
                    // The measure has fewer rows than the picture: a row of it is the grain.
                    var grain = (double)high / busy.Length;
                    parts.ShouldAllBe(p => p.Height * high <= (wide * 4 / 3.0) + grain);
                },
                iter: 300
            );
}
