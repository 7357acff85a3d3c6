using CsCheck;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>Pictures are made here from two grounds and grain: the line between them is known.</summary>
public class HorizonTests
{
    private static byte[] Picture(int width, int height, Func<int, int, int> shade) =>
        [.. Enumerable.Range(0, width * height).Select(i => (byte)Math.Clamp(shade(i % width, i / width), 0, 255))];

    [Fact]
    public void Where_sky_meets_the_sea_is_found_to_a_hundredth_of_the_height() =>
        Gen.Select(Gen.Int[20, 80], Gen.Int[30, 200], Gen.Int[-60, 60].Where(d => Math.Abs(d) >= 25), Gen.Int[1, 999])
            .Sample(
                (percent, sky, step, seed) =>
                {
                    var dice = new Random(seed);
                    var line = percent * 120 / 100;
                    var grey = Picture(160, 120, (_, y) => (y < line ? sky : sky + step) + dice.Next(-6, 7));
                    Horizon.Of(grey, 160, 120).ShouldNotBeNull().ShouldBe(line / 120.0, 0.01);
                },
                iter: 200
            );

    [Fact]
    public void A_house_in_the_middle_or_a_slope_is_no_horizon()
    {
        Horizon.Of(Picture(160, 120, (x, y) => x is > 50 and < 110 && y > 60 ? 40 : 200), 160, 120).ShouldBeNull();
        Horizon.Of(Picture(160, 120, (x, y) => y > 20 + (x / 2) ? 60 : 200), 160, 120).ShouldBeNull();
        Horizon.Of(Picture(160, 120, (_, y) => 60 + y), 160, 120).ShouldBeNull();
        Horizon.Of(Picture(160, 120, (_, _) => 128), 160, 120).ShouldBeNull();
        Horizon.Of([], 0, 0).ShouldBeNull();
    }
}
