using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Placing.Choosing;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Straightened, lightened and black-and-white prints.</summary>
public sealed class PictureAdjustmentTests
{
    private static readonly EditTools Tools = Desks.Tools();

    [Fact]
    public void A_straightened_crop_has_its_corners_in_the_picture_and_keeps_middle_and_proportion()
    {
        var dice = new Random(7);
        for (var i = 0; i < 5_000; i++)
        {
            var picture = new PixelSize(dice.Next(200, 6000), dice.Next(200, 6000));
            var print = Size.FromInches(dice.Next(2, 9), dice.Next(2, 9));
            var framing = new Framing(dice.NextDouble(), dice.NextDouble(), 1 + (3 * dice.NextDouble()));
            var (whole, degrees) = (Crop.For(picture, print, framing), (30 * dice.NextDouble()) - 15);
            var turned = whole.Turned(degrees);
            (turned.Width / turned.Height).ShouldBe(whole.Width / whole.Height, 1e-9);
            var (midX, midY) = (turned.Left + (turned.Width / 2), turned.Top + (turned.Height / 2));
            midX.ShouldBe(whole.Left + (whole.Width / 2), 1e-6);
            midY.ShouldBe(whole.Top + (whole.Height / 2), 1e-6);
            var (sine, cosine) = Math.SinCos(degrees * Math.PI / 180);
            var nearest = double.MaxValue;
            foreach (var (x, y) in new[] { (-1, -1), (-1, 1), (1, -1), (1, 1) })
            {
                var (across, down) = (x * turned.Width / 2, y * turned.Height / 2);
                var (atX, atY) = (midX + (across * cosine) + (down * sine), midY - (across * sine) + (down * cosine));
                atX.ShouldBeInRange(whole.Left - 1e-6, whole.Left + whole.Width + 1e-6);
                atY.ShouldBeInRange(whole.Top - 1e-6, whole.Top + whole.Height + 1e-6);
                nearest = Math.Min(
                    nearest,
                    Math.Min(
                        Math.Min(atX - whole.Left, whole.Left + whole.Width - atX),
                        Math.Min(atY - whole.Top, whole.Top + whole.Height - atY)
                    )
                );
            }

            // As large as it can be: a corner touches the edge.
            nearest.ShouldBe(0, 1e-6);
        }
    }

    [Fact]
    public void Nothing_is_lost_by_no_turn_and_the_resolution_falls_with_what_is_cropped()
    {
        var crop = new Crop(0, 0, 1800, 1200);
        crop.Turned(0).ShouldBe(crop);
        // A square turned by 10 degrees: 1 / (cos 10 + sin 10) of its side is left. Geometry.
        var square = new Crop(0, 0, 1000, 1000).Turned(10);
        square.Width.ShouldBe(1000 / (Math.Cos(Math.PI / 18) + Math.Sin(Math.PI / 18)), 1e-9);
        square.PixelsPerInch(Size.FromInches(3, 3)).ShouldBe(square.Width / 3, 1e-9);
        square.LossOf(new PixelSize(1000, 1000)).ShouldBe(1 - (square.Width * square.Width / 1e6), 1e-9);
        new Crop(0, 0, 1000, 1000).Turned(-10).Width.ShouldBe(square.Width);
    }

    [Fact]
    public void A_picture_gets_as_much_lighter_as_asked_for_and_black_and_white_stay()
    {
        for (var tone = 10; tone <= 90; tone += 5)
        {
            foreach (var lighter in new[] { -6.0, -2, 3, 6 })
            {
                var gamma = new PictureAdjustment(Lighter: lighter).Gamma(tone);
                (100 * Math.Pow(tone / 100.0, gamma)).ShouldBe(tone + lighter, 1e-9);
                (Math.Pow(0, gamma), Math.Pow(1, gamma)).ShouldBe((0, 1));
            }
        }

        var photo = Spreads.Photo(1, 3000, 2000) with
        {
            Tone = 50,
            Colourfulness = 70,
            Palette = [new PaletteColour(200, 30, 30, 1)],
        };
        var grey = new PictureAdjustment(Lighter: 4, BlackAndWhite: true).On(photo);
        (grey.Tone, grey.Colourfulness).ShouldBe((54, 0));
        grey.Palette[0].Lab.Chroma.ShouldBeLessThan(1);
        PictureAdjustment.None.On(photo).ShouldBeSameAs(photo);
    }

    [Fact]
    public void Matched_light_goes_half_way_never_far_and_leaves_the_night_alone()
    {
        MatchedLight.Of([50, 60, 54]).ShouldBe([2, -3, 0]);
        // A picture under 4 steps away is as light as the others; 40 away it is a night.
        MatchedLight.Of([55, 55, 57, 15]).ShouldBe([0, 0, 0, 0]);
        // Never more than 6 steps.
        MatchedLight.Of([40, 60, 60, 60])[0].ShouldBe(6);
        MatchedLight.Of([40]).ShouldBe([0]);
        MatchedLight.Of([]).ShouldBeEmpty();
        var dice = new Random(3);
        for (var i = 0; i < 500; i++)
        {
            var tones = Enumerable.Range(0, dice.Next(2, 20)).Select(_ => dice.NextDouble() * 100).ToList();
            var after = MatchedLight.Of(tones);
            after.ShouldAllBe(l => Math.Abs(l) <= MatchedLight.Most);
            // The same pictures in another order are matched alike.
            MatchedLight.Of([.. tones.AsEnumerable().Reverse()]).ShouldBe(after.Reverse());
        }
    }

    [Fact]
    public void Edits_of_the_look_change_the_print_and_say_what_they_did()
    {
        var desk = Desks.Week(3);
        for (var i = 1; i <= 3; i++)
        {
            desk = Desks.After(desk, new PutPhoto(Desks.Id(i), Desks.LeftPocket(desk, i)) { Revision = 0 }, Tools);
        }

        var prints = desk.Content.Pieces.OfType<PhotoPrint>().Select(p => p.Id).ToList();
        var adjust = new AdjustPhotos([new(prints[0], new PictureAdjustment(2.34, 3, true))]) { Revision = 0 };
        desk = Desks.After(desk, adjust, Tools);
        Print(0).Adjustment.ShouldBe(new PictureAdjustment(2.3, 3, true));

        var finish = new WrittenFinish(Border: ["1/8 in"]);
        desk = Desks.After(desk, new FinishPieces([prints[0]], finish) { Revision = 0 }, Tools);
        desk = Desks.After(desk, new AdjustPhotos([new(prints[1], new PictureAdjustment(-1))]) { Revision = 0 }, Tools);
        desk = Desks.After(desk, new CopyLook(prints[0], [prints[1], prints[2]]) { Revision = 0 }, Tools);
        // The look is copied; each stays as straight as it was.
        Print(1).Adjustment.ShouldBe(new PictureAdjustment(-1, 3, true));
        Print(2).Adjustment.ShouldBe(new PictureAdjustment(0, 3, true));
        Print(2).Finish.ShouldBe(Print(0).Finish);

        desk = Desks.After(
            desk,
            new AdjustPhotos([.. prints.Select(p => new AdjustedPrint(p))]) { Revision = 0 },
            Tools
        );
        Print(0).Adjustment.ShouldBeNull();

        var far = new AdjustPhotos([new(prints[0], new PictureAdjustment(16))]) { Revision = 0 };
        Should.Throw<RuleException>(() => far.Apply(desk, Tools)).Message.ShouldContain("at most 15 degrees");
        var never = new AdjustPhotos([new(prints[0], new PictureAdjustment(double.NaN))]) { Revision = 0 };
        Should.Throw<RuleException>(() => never.Apply(desk, Tools));

        PhotoPrint Print(int i) => (PhotoPrint)desk.Content.Find(prints[i])!;
    }

    [Fact]
    public void The_light_of_a_spread_is_matched_once_and_again_changes_nothing()
    {
        var desk = Spreads.Desk(
            "9x12-nine-3x4",
            "6x8-full",
            Enumerable.Range(1, 4).Select(i => Spreads.Photo(i, 3000, 4000) with { Tone = 40 + (5 * i) })
        );
        for (var i = 1; i <= 4; i++)
        {
            desk = Desks.After(
                desk,
                new PutPhoto(Desks.Id(i), desk.Pages.Pockets[i - 1].Place) { Revision = 0 },
                Tools
            );
        }

        var match = new MatchLight { Revision = 0 };
        var (content, done, _) = match.Apply(desk, Tools);
        done.ShouldBe("Matched the light of 2 pictures");
        content.Pieces.OfType<PhotoPrint>().Select(p => p.Adjustment?.Lighter ?? 0).ShouldBe([3.8, 0, 0, -3.8]);
        var after = desk with { Content = content };
        Should.Throw<RuleException>(() => match.Apply(after, Tools)).Message.ShouldContain("as light as each other");
    }

    [Fact]
    public void Colourfulness_is_that_of_the_published_metric_computed_again_from_raw_pixels()
    {
        // Source: Hasler and Süsstrunk, Measuring colourfulness in natural images, Proc. SPIE 5007 (2003): the root of
        // the variances of red minus green and of half of red and green minus blue, and 0.3 times that of their means.
        var dice = new Random(11);
        for (var i = 0; i < 200; i++)
        {
            var pixels = new byte[3 * dice.Next(1, 400)];
            dice.NextBytes(pixels);
            var rg = new List<double>();
            var yb = new List<double>();
            foreach (var p in pixels.Chunk(3))
            {
                rg.Add(p[0] - p[1]);
                yb.Add((0.5 * (p[0] + p[1])) - p[2]);
            }

            var (meanRg, meanYb) = (rg.Average(), yb.Average());
            var (varRg, varYb) = (
                rg.Average(v => (v - meanRg) * (v - meanRg)),
                yb.Average(v => (v - meanYb) * (v - meanYb))
            );
            var expected = Math.Sqrt(varRg + varYb) + (0.3 * Math.Sqrt((meanRg * meanRg) + (meanYb * meanYb)));
            PictureJudging.Colourfulness(pixels).ShouldBe(expected, 1e-6);
        }

        PictureJudging.Colourfulness((byte[])[90, 90, 90, 10, 10, 10]).ShouldBe(0, 1e-9);
        // Pure red beside pure blue: as colourful as it gets, over the 109 of "extremely".
        PictureJudging.Colourfulness((byte[])[255, 0, 0, 0, 0, 255]).ShouldBeGreaterThan(109);
        Should.Throw<ArgumentException>(() => PictureJudging.Colourfulness((byte[])[1, 2]));
    }
}
