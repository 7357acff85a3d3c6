using CsCheck;
using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

public sealed class PictureJudgingTests
{
    /// <summary>The 34 pairs of Sharma, Wu and Dalal (2005), table 1: L, a, b of both and the difference.</summary>
    public static TheoryData<double, double, double, double, double, double, double> SharmaPairs =>
        new()
        {
            { 50.0000, 2.6772, -79.7751, 50.0000, 0.0000, -82.7485, 2.0425 },
            { 50.0000, 3.1571, -77.2803, 50.0000, 0.0000, -82.7485, 2.8615 },
            { 50.0000, 2.8361, -74.0200, 50.0000, 0.0000, -82.7485, 3.4412 },
            { 50.0000, -1.3802, -84.2814, 50.0000, 0.0000, -82.7485, 1.0000 },
            { 50.0000, -1.1848, -84.8006, 50.0000, 0.0000, -82.7485, 1.0000 },
            { 50.0000, -0.9009, -85.5211, 50.0000, 0.0000, -82.7485, 1.0000 },
            { 50.0000, 0.0000, 0.0000, 50.0000, -1.0000, 2.0000, 2.3669 },
            { 50.0000, -1.0000, 2.0000, 50.0000, 0.0000, 0.0000, 2.3669 },
            { 50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0009, 7.1792 },
            { 50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0010, 7.1792 },
            { 50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0011, 7.2195 },
            { 50.0000, 2.4900, -0.0010, 50.0000, -2.4900, 0.0012, 7.2195 },
            { 50.0000, -0.0010, 2.4900, 50.0000, 0.0009, -2.4900, 4.8045 },
            { 50.0000, -0.0010, 2.4900, 50.0000, 0.0010, -2.4900, 4.8045 },
            { 50.0000, -0.0010, 2.4900, 50.0000, 0.0011, -2.4900, 4.7461 },
            { 50.0000, 2.5000, 0.0000, 50.0000, 0.0000, -2.5000, 4.3065 },
            { 50.0000, 2.5000, 0.0000, 73.0000, 25.0000, -18.0000, 27.1492 },
            { 50.0000, 2.5000, 0.0000, 61.0000, -5.0000, 29.0000, 22.8977 },
            { 50.0000, 2.5000, 0.0000, 56.0000, -27.0000, -3.0000, 31.9030 },
            { 50.0000, 2.5000, 0.0000, 58.0000, 24.0000, 15.0000, 19.4535 },
            { 50.0000, 2.5000, 0.0000, 50.0000, 3.1736, 0.5854, 1.0000 },
            { 50.0000, 2.5000, 0.0000, 50.0000, 3.2972, 0.0000, 1.0000 },
            { 50.0000, 2.5000, 0.0000, 50.0000, 1.8634, 0.5757, 1.0000 },
            { 50.0000, 2.5000, 0.0000, 50.0000, 3.2592, 0.3350, 1.0000 },
            { 60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644 },
            { 63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630 },
            { 61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731 },
            { 35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645 },
            { 22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373 },
            { 36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146 },
            { 90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441 },
            { 90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381 },
            { 6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377 },
            { 2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082 },
        };

    [Theory]
    [MemberData(nameof(SharmaPairs))]
    public void Colour_differences_agree_with_the_published_pairs_both_ways(
        double l1,
        double a1,
        double b1,
        double l2,
        double a2,
        double b2,
        double expected
    )
    {
        var (one, other) = (new LabColour(l1, a1, b1), new LabColour(l2, a2, b2));
        one.DifferenceTo(other).ShouldBe(expected, 0.0001);
        other.DifferenceTo(one).ShouldBe(expected, 0.0001);
    }

    [Theory]
    [InlineData(255, 255, 255, 100, 0, 0)]
    [InlineData(0, 0, 0, 0, 0, 0)]
    [InlineData(255, 0, 0, 53.24, 80.09, 67.20)]
    [InlineData(0, 0, 255, 32.30, 79.19, -107.86)]
    [InlineData(119, 119, 119, 50.03, 0, 0)]
    public void Screen_colours_have_their_known_place_in_Lab(byte r, byte g, byte b, double l, double a, double bb)
    {
        // Values of sRGB primaries under D65, as commonly published (from memory, to two places).
        var lab = LabColour.OfSrgb(r, g, b);
        lab.L.ShouldBe(l, 0.02);
        lab.A.ShouldBe(a, 0.05);
        lab.B.ShouldBe(bb, 0.05);
    }

    [Fact]
    public void Every_screen_colour_goes_to_Lab_and_back() =>
        Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte)
            .Sample((r, g, b) => LabColour.OfSrgb(r, g, b).ToSrgb().ShouldBe((r, g, b)));

    [Fact]
    public void A_picture_of_three_flat_colours_has_just_these_with_their_shares()
    {
        byte[] red = [200, 30, 30],
            blue = [20, 40, 160],
            white = [250, 250, 250];
        byte[] pixels =
        [
            .. Enumerable.Repeat(red, 600).SelectMany(p => p),
            .. Enumerable.Repeat(blue, 300).SelectMany(p => p),
            .. Enumerable.Repeat(white, 100).SelectMany(p => p),
        ];
        var (tone, palette) = PictureJudging.Colours(pixels);
        palette.Select(p => (p.Hex, p.Share)).ShouldBe([("#c81e1e", 0.6), ("#1428a0", 0.3), ("#fafafa", 0.1)]);
        tone.ShouldBe(
            (0.6 * LabColour.OfSrgb(200, 30, 30).L)
                + (0.3 * LabColour.OfSrgb(20, 40, 160).L)
                + (0.1 * LabColour.OfSrgb(250, 250, 250).L),
            1e-6
        );
    }

    [Fact]
    public void Blur_lowers_sharpness_and_a_flat_picture_has_none()
    {
        var dice = new Random(3);
        var sharp = new byte[100 * 100];
        dice.NextBytes(sharp);
        var blurred = new byte[sharp.Length];
        for (var y = 1; y < 99; y++)
        {
            for (var x = 1; x < 99; x++)
            {
                var sum = 0;
                for (var d = 0; d < 9; d++)
                {
                    sum += sharp[((y + (d / 3) - 1) * 100) + x + (d % 3) - 1];
                }

                blurred[(y * 100) + x] = (byte)(sum / 9);
            }
        }

        PictureJudging.Sharpness(blurred, 100, 100).ShouldBeLessThan(PictureJudging.Sharpness(sharp, 100, 100) / 5);
        PictureJudging.Sharpness(new byte[10_000], 100, 100).ShouldBe(0);
    }

    [Theory]
    [InlineData(4032, 3024, "13.44", "10.08")]
    [InlineData(1800, 1200, "6", "4")]
    public void The_largest_print_is_pixels_by_300(int width, int height, string inchesWide, string inchesHigh) =>
        PictureJudging
            .LargestPrint(new PixelSize(width, height))
            .ShouldBe(Size.FromInches(decimal.Parse(inchesWide, null), decimal.Parse(inchesHigh, null)));

    [Theory]
    [InlineData(1800, 1200, true)]
    [InlineData(1200, 1800, true)]
    [InlineData(1600, 1200, false)]
    [InlineData(1800, 1350, true)]
    [InlineData(800, 600, false)]
    public void Too_small_for_4x6_counts_the_crop_and_the_turn(int width, int height, bool fills) =>
        PictureJudging.Fills(new PixelSize(width, height), Size.FromInches(6, 4)).ShouldBe(fills);

    [Theory]
    [InlineData(0.5, 0.5, 0, 0.1)]
    [InlineData(1.2, 0.5, 0.3, 0.3)]
    [InlineData(double.NaN, 0, 1, 1)]
    public void A_box_without_area_on_the_picture_is_refused(double x, double y, double w, double h) =>
        Should.Throw<Core.RuleException>(() => new PictureBox(x, y, w, h).Checked());

    [Fact]
    public void A_box_over_the_edge_is_cut_at_the_edge()
    {
        var box = new PictureBox(-0.1, 0.9, 0.3, 0.5).Checked();
        (box.X, box.Y, Math.Round(box.Width, 9), Math.Round(box.Height, 9)).ShouldBe((0, 0.9, 0.2, 0.1));
    }
}

public sealed class LookalikesTests
{
    private const ulong Scene = 0xF0F0_A5A5_3C3C_9696;
    private static readonly Instant Noon = Instant.FromUtc(2026, 6, 6, 12, 0);

    [Fact]
    public void A_burst_is_one_group_and_its_sharpest_is_suggested()
    {
        var burst = Enumerable
            .Range(0, 4)
            .Select(i => Picture(Noon + Duration.FromSeconds(i), Scene ^ (1UL << i), sharpness: i == 2 ? 90 : 40))
            .ToList();
        var group = Lookalikes
            .Group([.. burst, Picture(Noon + Duration.FromMinutes(9), ~Scene, 500)])
            .ShouldHaveSingleItem();
        group.Members.ShouldBe(burst.Select(p => p.Id));
        group.SuggestedBest.ShouldBe(burst[2].Id);
    }

    [Fact]
    public void Another_scene_a_second_later_is_no_burst() =>
        Lookalikes
            .Group([Picture(Noon, Scene, 1), Picture(Noon + Duration.FromSeconds(1), Scene ^ 0xFFFF_FFFFUL, 1)])
            .ShouldBeEmpty();

    [Fact]
    public void A_smaller_copy_sent_later_joins_its_original_and_is_not_suggested()
    {
        var original = Picture(Noon, Scene, 50) with { Pixels = 12_000_000 };
        var copy = Picture(null, Scene, 400) with { Pixels = 1_000_000, Camera = null };
        var group = Lookalikes.Group([copy, original]).ShouldHaveSingleItem();
        group.SuggestedBest.ShouldBe(original.Id);
    }

    [Fact]
    public void Two_blank_pictures_are_not_taken_for_one_scene() =>
        Lookalikes.Group([Picture(Noon, 0, 0), Picture(Noon + Duration.FromHours(5), 0, 0)]).ShouldBeEmpty();

    [Fact]
    public void Ten_thousand_pictures_of_a_year_are_grouped_without_comparing_all_with_all()
    {
        var dice = new Random(1);
        var pictures = Enumerable
            .Range(0, 10_000)
            .Select(i => Picture(Noon + Duration.FromMinutes(30 * i), (ulong)dice.NextInt64(), i))
            .ToList();
        Lookalikes.Group(pictures).ShouldBeEmpty();
    }

    private static Lookalike Picture(Instant? at, ulong likeness, double sharpness) =>
        new(Guid.CreateVersion7(), "Phone", at, likeness, sharpness, 12_000_000);
}

public sealed class SeriesTests
{
    [Fact]
    public void A_daily_series_shows_what_was_chosen_what_could_be_and_the_gaps()
    {
        var series = new PhotoSeries(Guid.CreateVersion7(), "The window", new LocalTime(8, 0), 30, null).Checked();
        var (chosen, near, nearer, far, other) = (
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7()
        );
        var monday = new LocalDate(2026, 6, 1);
        var days = SeriesDays.Of(
            series,
            monday,
            monday.PlusDays(3),
            [
                new(chosen, monday, new LocalTime(11, 0), series.Id),
                new(other, monday, new LocalTime(8, 1), null),
                new(near, monday.PlusDays(1), new LocalTime(8, 25), null),
                new(nearer, monday.PlusDays(1), new LocalTime(7, 50), null),
                new(far, monday.PlusDays(2), new LocalTime(9, 0), null),
            ]
        );
        days.Length.ShouldBe(4);
        (days[0].Chosen, days[0].Suggested.Length).ShouldBe((chosen, 0));
        days[1].Suggested.ShouldBe([nearer, near]);
        days.Select(d => d.IsGap).ShouldBe([false, false, true, true]);
    }

    [Fact]
    public void A_weekly_series_asks_only_for_its_weekday()
    {
        var series = new PhotoSeries(
            Guid.CreateVersion7(),
            "Sunday walk",
            new LocalTime(14, 0),
            120,
            IsoDayOfWeek.Sunday
        );
        SeriesDays
            .Of(series, new LocalDate(2026, 6, 1), new LocalDate(2026, 6, 30), [])
            .Select(d => d.Day.Day)
            .ShouldBe([7, 14, 21, 28]);
    }

    [Theory]
    [InlineData("", 30)]
    [InlineData("The window", 0)]
    [InlineData("The window", 721)]
    public void A_series_without_name_or_with_an_odd_window_is_refused(string name, int minutes) =>
        Should.Throw<Core.RuleException>(() =>
            new PhotoSeries(Guid.Empty, name, new LocalTime(8, 0), minutes, null).Checked()
        );
}
