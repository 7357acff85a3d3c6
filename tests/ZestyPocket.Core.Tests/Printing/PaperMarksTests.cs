using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>Where pieces are folded and punched. Arithmetic on the measures of the page.</summary>
public sealed class PaperMarksTests
{
    private static readonly Size Outer = new(Length.FromInches(6.75m), Length.FromInches(8.25m));

    private static Protector Punched(Protector page) =>
        page with
        {
            Form = page.Form with { Holes = HolePattern.ThreeRings },
        };

    private static UnitFace Face(Protector page, LeafSide side) => new(Guid.Empty, side, page, LeafAlterations.Plain);

    private static PaperMarks Marks(Protector page, LeafSide side, Size cut, int pocket = 0) =>
        PaperMarks.On(Face(page, side), page.Design.Face(side)[pocket], cut);

    [Fact]
    public void A_page_outside_the_pockets_is_punched_at_its_ring_edge_on_either_side()
    {
        var page = Punched(Protector.Sheet("sheet", Outer, Length.FromInches(1, 2)));
        var front = Marks(page, LeafSide.Front, Outer);
        front.Folds.ShouldBeEmpty();
        front.Holes.Select(h => h.X).Distinct().ShouldBe([Length.FromInches(5, 16)]);
        // In the middle of the edge, and 4 1/4 in above and below it: the last of three would leave this page.
        front.Holes.Select(h => h.Y).ShouldContain(Length.FromInches(4.125m));
        front.Holes.ShouldAllBe(h => h.Diameter == Length.FromInches(1, 4));
        var back = Marks(page, LeafSide.Back, Outer);
        back.Holes.Select(h => Outer.Width - h.X).Distinct().ShouldBe([Length.FromInches(5, 16)]);
        back.Holes.Select(h => h.Y).ShouldBe(front.Holes.Select(h => h.Y));
    }

    [Fact]
    public void A_smaller_print_in_the_middle_of_the_page_keeps_off_the_holes()
    {
        var page = Punched(Protector.Sheet("sheet", Outer, Length.FromInches(1, 2)));
        Marks(page, LeafSide.Front, Size.FromInches(3, 4)).Holes.ShouldBeEmpty();
        // 6 1/4 in wide it begins 1/4 in from the edge: half of each hole would be beyond it.
        Marks(page, LeafSide.Front, new Size(Length.FromInches(6.25m), Outer.Height)).Holes.ShouldBeEmpty();
        // 6 1/2 in wide it begins 1/8 in from the edge, and the holes lie 3/16 in from it.
        Marks(page, LeafSide.Front, new Size(Length.FromInches(6.5m), Outer.Height))
            .Holes.ShouldAllBe(h => h.X == Length.FromInches(3, 16));
    }

    [Fact]
    public void What_lies_in_plastic_pockets_is_neither_folded_nor_punched()
    {
        var page = Punched(Protector.Unmeasured(BuiltInDesigns.Find("6x8-four-3x4")!));
        Marks(page, LeafSide.Front, Size.FromInches(3, 4)).ToString().ShouldBe(PaperMarks.None.ToString());
    }

    [Fact]
    public void A_fold_out_is_folded_where_its_page_is_and_its_flap_is_not()
    {
        var sheet = Protector.FoldOut("fold", Size.FromInches(6, 8), Length.FromInches(3.5m), Length.FromInches(1, 2));
        Marks(sheet, LeafSide.Front, Size.FromInches(6, 8)).Folds.ShouldBe([Length.FromInches(3.5m)]);
        // A picture 5 in wide begins 1/2 in from the edge.
        Marks(sheet, LeafSide.Front, Size.FromInches(5, 8)).Folds.ShouldBe([Length.FromInches(3)]);
        sheet.Design.Face(LeafSide.Back).Count.ShouldBe(2);
        Enumerable
            .Range(0, 2)
            .ShouldAllBe(i =>
                Marks(sheet, LeafSide.Back, sheet.Design.Face(LeafSide.Back)[i].Nominal, i).Folds.IsEmpty
            );
    }

    [Fact]
    public void A_sleeve_is_folded_after_the_strip_for_glue_and_after_its_back()
    {
        var front = Size.FromInches(3, 4);
        var marks = PaperMarks.OfSleeve(front);
        marks.Folds.ShouldBe([Attachment.SleeveFlap, Attachment.SleeveFlap + front.Width]);
        (SleeveSheet.Flat(front).Width - marks.Folds[1]).ShouldBe(front.Width);
    }
}
