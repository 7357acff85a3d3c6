using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Nothing that matters in the hole strip or within 1/8 in of a fold. Common practice.</summary>
public sealed class MustStayTests
{
    private static readonly Length Strip = Length.FromInches(5, 8);
    private static readonly Protector Sheet = Protector.Sheet("sheet", Size.FromInches(6, 8), Strip);
    private static readonly Protector FoldOut = Protector.FoldOut(
        "fold",
        Size.FromInches(6, 8),
        Length.FromInches(3.5m),
        Strip
    );

    [Theory]
    // The strip is the first 5/8 of 6 in: 10.4 %.
    [InlineData(0.5, 0.2, 0.4, StrayPlace.None)]
    [InlineData(0.05, 0.2, 0.4, StrayPlace.None)]
    [InlineData(0.5, 0.08, 0.4, StrayPlace.HoleStrip)]
    [InlineData(0.5, 0.0, 1.0, StrayPlace.HoleStrip)]
    public void What_must_stay_is_the_boxes_and_not_the_focus_point(
        double focus,
        double from,
        double to,
        StrayPlace expected
    ) => On(Sheet, LeafSide.Front, focus, new PictureBox(from, 0.2, to - from, 0.3)).ShouldBe(expected);

    [Theory]
    [InlineData(0.05, StrayPlace.HoleStrip)]
    [InlineData(0.5, StrayPlace.None)]
    public void Without_boxes_it_is_the_focus_point(double focus, StrayPlace expected) =>
        On(Sheet, LeafSide.Front, focus).ShouldBe(expected);

    [Theory]
    [InlineData(LeafSide.Front, 0.04, StrayPlace.HoleStrip)]
    [InlineData(LeafSide.Back, 0.04, StrayPlace.None)]
    [InlineData(LeafSide.Back, 0.96, StrayPlace.HoleStrip)]
    public void The_strip_is_on_the_other_side_of_the_back(LeafSide side, double focus, StrayPlace expected) =>
        On(Sheet, side, focus).ShouldBe(expected);

    [Theory]
    // The fold lies 3 1/2 of 6 in from the rings: 58.3 %, and 1/8 in is 2.1 %.
    [InlineData(0.30, 0.55, StrayPlace.None)]
    [InlineData(0.30, 0.57, StrayPlace.Fold)]
    [InlineData(0.30, 0.90, StrayPlace.Fold)]
    [InlineData(0.62, 0.90, StrayPlace.None)]
    public void A_face_across_the_fold_is_named(double from, double to, StrayPlace expected) =>
        On(FoldOut, LeafSide.Front, 0.9, new PictureBox(from, 0.2, to - from, 0.3)).ShouldBe(expected);

    [Fact]
    public void In_a_pocket_nothing_is_punched() =>
        On(Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!), LeafSide.Front, 0).ShouldBe(StrayPlace.None);

    private static StrayPlace On(Protector protector, LeafSide side, double focus, params PictureBox[] keep)
    {
        var pixels = new PixelSize(3000, 4000);
        var print = new Rect(Length.Zero, Length.Zero, Size.FromInches(6, 8));
        return MustStay.On(
            protector,
            side,
            LeafAlterations.Plain,
            print,
            Crop.For(pixels, print.Size, Framing.Middle),
            pixels,
            (focus, 0.5),
            keep
        );
    }
}
