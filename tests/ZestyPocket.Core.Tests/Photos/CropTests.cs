using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>Crop loss and effective resolution: arithmetic.</summary>
public sealed class CropTests
{
    [Theory]
    [InlineData(3000, 2000, 6, 4, 0)]
    [InlineData(4000, 3000, 6, 4, 11.1)]
    [InlineData(4000, 3000, 4, 3, 0)]
    [InlineData(3000, 2000, 3, 4, 50)]
    [InlineData(2000, 2000, 2, 2, 0)]
    [InlineData(2000, 2000, 3, 4, 25)]
    public void The_losses_people_reckon_with(int width, int height, int pocketWidth, int pocketHeight, double percent)
    {
        var picture = new PixelSize(width, height);
        var crop = Crop.For(picture, Size.FromInches(pocketWidth, pocketHeight), Framing.Middle);
        Math.Round(100 * crop.LossOf(picture), 1).ShouldBe(percent);
    }

    [Fact]
    public void A_square_photo_in_a_3x4_pocket_loses_a_quarter()
    {
        var picture = new PixelSize(1000, 1000);
        Crop.For(picture, Size.FromInches(3, 4), Framing.Middle).LossOf(picture).ShouldBe(0.25, 1e-12);
    }

    [Fact]
    public void A_crop_stays_inside_its_picture_and_keeps_the_pockets_proportion()
    {
        var pictures = Gen.Select(Gen.Int[16, 12_000], Gen.Int[16, 12_000]);
        var prints = Gen.Select(Gen.Int[1, 400], Gen.Int[1, 400]);
        var framings = Gen.Select(Gen.Double[-1, 2], Gen.Double[-1, 2], Gen.Double[0, 20]);
        Gen.Select(pictures, prints, framings)
            .Sample(
                (p, s, f) =>
                {
                    var (picture, print) = (
                        new PixelSize(p.Item1, p.Item2),
                        new Size(Length.FromInches(s.Item1, 32), Length.FromInches(s.Item2, 32))
                    );
                    var crop = Crop.For(picture, print, new Framing(f.Item1, f.Item2, f.Item3));
                    crop.Left.ShouldBeGreaterThanOrEqualTo(0);
                    crop.Top.ShouldBeGreaterThanOrEqualTo(0);
                    (crop.Left + crop.Width).ShouldBeLessThanOrEqualTo(picture.Width + 1e-6);
                    (crop.Top + crop.Height).ShouldBeLessThanOrEqualTo(picture.Height + 1e-6);
                    (crop.Width / crop.Height).ShouldBe(print.Proportion, print.Proportion * 1e-9);
                    crop.LossOf(picture).ShouldBeInRange(0, 1);
                }
            );
    }

    [Fact]
    public void Zooming_in_twice_halves_the_resolution()
    {
        var (picture, print) = (new PixelSize(1800, 1200), Size.FromInches(6, 4));
        Crop.For(picture, print, Framing.Middle).PixelsPerInch(print).ShouldBe(300);
        Crop.For(picture, print, Framing.Middle with { Zoom = 2 }).PixelsPerInch(print).ShouldBe(150);
    }

    [Theory]
    [InlineData(300, ResolutionGrade.Good)]
    [InlineData(299, ResolutionGrade.Fair)]
    [InlineData(200, ResolutionGrade.Fair)]
    [InlineData(199, ResolutionGrade.Poor)]
    [InlineData(150, ResolutionGrade.Poor)]
    [InlineData(149, ResolutionGrade.AskFirst)]
    public void Resolution_has_four_grades(double pixelsPerInch, ResolutionGrade grade)
    {
        Resolution.Grade(pixelsPerInch).ShouldBe(grade);
    }

    /// <summary>Arithmetic from the eye's limit of one minute of arc, quoted from memory.</summary>
    [Fact]
    public void Three_hundred_to_the_inch_is_what_an_eye_can_part_at_thirty_centimetres()
    {
        var smallest = 300 * Math.Tan(Math.PI / 180 / 60);
        smallest.ShouldBe(0.0873, 0.0001);
        Math.Round(25.4 / smallest).ShouldBe(291);
    }

    [Fact]
    public void A_picture_without_size_is_refused()
    {
        Should.Throw<MeasureException>(() => Crop.For(new PixelSize(0, 10), Size.FromInches(3, 4), Framing.Middle));
    }
}
