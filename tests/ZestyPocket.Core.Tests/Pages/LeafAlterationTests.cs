using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>
/// What is done to a leaf: new seams, cutting down, folding, punching. Common practice; sizes are arithmetic.
/// </summary>
public sealed class LeafAlterationTests
{
    private static Protector Of(string key) => Protector.Unmeasured(BuiltInDesigns.Find(key)!);

    private static Length Inches(decimal inches) => Length.FromInches(inches);

    [Fact]
    public void A_fused_6x4_is_two_3x4_on_both_faces()
    {
        var protector = Of("9x12-rows-6x4-3x4");
        var wide = protector.Design.Pockets.First(p => p.Nominal == Size.FromInches(6, 4));
        var altered = protector.Altered(LeafAlterations.Plain.With(Alterations.InHalf(wide)));
        altered.Design.Pockets.Count(p => p.Nominal == Size.FromInches(3, 4)).ShouldBe(5);
        altered.Design.Face(LeafSide.Back).Count(p => p.Nominal == Size.FromInches(3, 4)).ShouldBe(5);
        altered.Design.Name.ShouldBe("Three rows of 6x4 + 3x4, one pocket fused");
        // What was not touched keeps its name.
        altered.Design.Pockets.Select(p => p.Key).ShouldBe(["1.1a", "1.1b", "1.2", "2.1", "2.2", "3.1", "3.2"]);
    }

    [Fact]
    public void Half_of_a_12x12_is_a_narrow_insert()
    {
        var six = Of("12x12-six-6x4");
        var narrow = six.Altered(LeafAlterations.Plain with { Cut = new PageCut(CutKeeps.Columns, Inches(6)) });
        narrow.Design.Body.ShouldBe(Size.FromInches(6, 12));
        narrow.Design.Pockets.Length.ShouldBe(3);
        narrow.Outer.Width.ShouldBe(six.Outer.Width - Inches(6));
        narrow.Hides(six.Outer).ShouldBe(narrow.Outer);
        six.Hides(six.Outer).ShouldBeNull();
        // Nothing is cut through a pocket.
        Should
            .Throw<RuleException>(() =>
                six.Altered(LeafAlterations.Plain with { Cut = new PageCut(CutKeeps.Columns, Inches(5)) })
            )
            .Message.ShouldContain("along a seam");
        Should.Throw<RuleException>(() =>
            six.Altered(LeafAlterations.Plain with { Cut = new PageCut(CutKeeps.Rows, Inches(12)) })
        );
    }

    [Fact]
    public void The_columns_beside_the_rings_stay_whichever_side_they_are_on()
    {
        var page = Of("9x12-rows-6x4-3x4");
        var right = page with { Form = page.Form with { Rings = RingSide.Right } };
        var kept = right.Altered(LeafAlterations.Plain with { Cut = new PageCut(CutKeeps.Columns, Inches(3)) });
        kept.Design.Pockets.Select(p => p.Nominal).ShouldAllBe(s => s == Size.FromInches(3, 4));
        kept.Design.Pockets.ShouldAllBe(p => p.Bounds.X == Length.Zero);
        right.BodyOrigin(LeafSide.Front).ShouldBe(page.BodyOrigin(LeafSide.Back));
        right.RingStripX(LeafSide.Front).ShouldBe(page.Outer.Width - page.RingStrip);
    }

    [Fact]
    public void Alterations_keep_the_area_and_lie_behind_each_other()
    {
        Gen.Select(RandomDesigns.Any, Gen.Int[0, 100], Gen.Bool, Gen.Int[1, 40])
            .Sample(
                (design, which, upright, at) =>
                {
                    var protector = Protector.Unmeasured(design);
                    var pocket = design.Pockets[which % design.Pockets.Length];
                    var seam = Length.FromInches(at, 4);
                    var form = LeafAlterations.Plain.With(new Fuse(pocket.Key, upright, seam));
                    var whole = upright ? pocket.Nominal.Width : pocket.Nominal.Height;
                    if (seam < Alterations.Narrowest || whole - seam < Alterations.Narrowest)
                    {
                        Should.Throw<RuleException>(() => protector.Altered(form));
                        return;
                    }

                    var altered = protector.Altered(form);
                    altered.Design.Pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(design.Body.SquareInches);
                    var front = altered.Design.Face(LeafSide.Front).ToDictionary(p => p.Key, p => p.Bounds);
                    foreach (var back in altered.Design.Face(LeafSide.Back))
                    {
                        // A back's pocket always lies behind its front, and turning twice is the identity.
                        back.Bounds.MirroredIn(altered.Design.Body.Width).ShouldBe(front[back.Key]);
                    }

                    // The seam is the same line of plastic seen from both sides.
                    var (seen, behind) = (
                        altered.MarksOn(LeafSide.Front, form).ShouldHaveSingleItem(),
                        altered.MarksOn(LeafSide.Back, form).ShouldHaveSingleItem()
                    );
                    (seen.X1 + behind.X2).ShouldBe(altered.Outer.Width);
                    (seen.Y1, seen.Y2).ShouldBe((behind.Y1, behind.Y2));
                }
            );
    }

    [Fact]
    public void Cutting_down_keeps_whole_pockets_only()
    {
        RandomDesigns.Any.Sample(design =>
        {
            var protector = Protector.Unmeasured(design);
            foreach (var keeps in new[] { CutKeeps.Columns, CutKeeps.Rows })
            {
                foreach (var size in Alterations.CutsOf(design, keeps))
                {
                    var cut = protector.Altered(LeafAlterations.Plain with { Cut = new PageCut(keeps, size) });
                    cut.Design.Pockets.ShouldNotBeEmpty();
                    cut.Design.Pockets.ShouldAllBe(p => design.Pockets.Contains(p));
                    cut.Design.Pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(cut.Design.Body.SquareInches);
                }
            }
        });
    }

    [Fact]
    public void A_6x8_folded_3_1_2_from_the_rings_leaves_a_flap_of_2_1_2_by_8()
    {
        // Common practice in 3x8 albums, and arithmetic.
        var sheet = Protector.FoldOut("fold", Size.FromInches(6, 8), Inches(3.5m), Protector.DefaultRingStrip);
        sheet.Design.Find(LeafSide.Back, "flap")!.Nominal.ShouldBe(MeasureText.ParseSize("2 1/2 x 8"));
        sheet.Design.Find(LeafSide.Front, "1")!.Nominal.ShouldBe(Size.FromInches(6, 8));
        sheet.WidthInAlbum.ShouldBe(Inches(3.5m));
        sheet.MarksOn(LeafSide.Front, LeafAlterations.Plain).ShouldHaveSingleItem().X1.ShouldBe(Inches(3.5m));
        sheet.MarksOn(LeafSide.Back, LeafAlterations.Plain).ShouldHaveSingleItem().X1.ShouldBe(Inches(2.5m));
        // Seen from behind, the page lies at the rings on the right, the flap at the left.
        sheet.Design.Face(LeafSide.Back).Select(p => p.Key).ShouldBe(["flap", "page"]);
        Should
            .Throw<RuleException>(() =>
                Protector.FoldOut("fold", Size.FromInches(6, 8), Inches(0.5m), Protector.DefaultRingStrip)
            )
            .Message.ShouldContain("clear the ring strip");
        Should
            .Throw<RuleException>(() =>
                Protector.FoldOut("fold", Size.FromInches(8, 8), Inches(4), Protector.DefaultRingStrip)
            )
            .Message.ShouldContain("reach the rings");
        Should
            .Throw<RuleException>(() =>
                Protector.FoldOut("fold", Size.FromInches(6, 8), Inches(5.75m), Protector.DefaultRingStrip)
            )
            .Message.ShouldContain("no flap");
    }

    [Fact]
    public void A_page_outside_the_pockets_is_cut_to_the_outer_size()
    {
        var outer = MeasureText.ParseSize("6 3/4 x 8 1/4");
        var sheet = Protector.Sheet("sheet", outer, Protector.DefaultRingStrip);
        sheet.CutSize(sheet.Design.Pockets.ShouldHaveSingleItem().Nominal).ShouldBe(outer);
        sheet.BodyOrigin(LeafSide.Back).ShouldBe((Length.Zero, Length.Zero));
        Should
            .Throw<RuleException>(() =>
                sheet.Altered(LeafAlterations.Plain with { Cut = new PageCut(CutKeeps.Rows, Inches(4)) })
            )
            .Message.ShouldContain("page of pockets");
    }

    [Fact]
    public void Two_hole_filing_is_80_mm_apart_and_12_mm_from_the_edge()
    {
        // ISO 838, from memory.
        var a4 = Protector.Unmeasured(PageDesign.FromNotation("a4", "A4", "210x297 mm"));
        var punched = (a4 with { Form = a4.Form with { Holes = HolePattern.TwoHoles } }).Checked();
        var holes = punched.HolesOn(LeafSide.Front);
        (holes[1].Y - holes[0].Y).ShouldBe(Length.FromMillimetres(80));
        holes.ShouldAllBe(h => h.X == Length.FromMillimetres(12));
        punched.HolesOn(LeafSide.Back).ShouldAllBe(h => h.X == punched.Outer.Width - Length.FromMillimetres(12));
        // The same middle above and below.
        (holes[0].Y + holes[1].Y).ShouldBe(punched.Outer.Height);
        var three = HolePattern.ThreeRings.FromTop(Length.FromInches(11));
        (three[2] - three[0]).ShouldBe(Length.FromInches(8.5m));
    }

    [Fact]
    public void Measured_holes_lie_in_the_strip_and_on_the_leaf()
    {
        var height = Inches(8.25m);
        var measured = HolePattern.Measured(height, Inches(0.3125m), Inches(0.25m), [Inches(6.5m), Inches(1.75m)]);
        measured.FromTop(height).ShouldBe([Inches(1.75m), Inches(6.5m)]);
        measured.CheckedOn(height, Protector.DefaultRingStrip).ShouldBe(measured);
        Should
            .Throw<MeasureException>(() =>
                (measured with { FromEdge = Inches(1) }).CheckedOn(height, Protector.DefaultRingStrip)
            )
            .Message.ShouldContain("ring strip");
        Should
            .Throw<MeasureException>(() => measured.CheckedOn(Inches(4), Protector.DefaultRingStrip))
            .Message.ShouldContain("end of a leaf");
        Should
            .Throw<MeasureException>(() =>
                HolePattern
                    .Measured(height, Inches(0.3125m), Inches(0.25m), [Inches(2), Inches(2.125m)])
                    .CheckedOn(height, Protector.DefaultRingStrip)
            )
            .Message.ShouldContain("overlap");
    }

    [Fact]
    public void In_the_leaf_school_a_week_is_the_two_faces_of_one_leaf()
    {
        var leaves = Enumerable.Range(0, Binding.LeavesFor(6, PageSchool.Leaf)).Select(_ => Guid.NewGuid()).ToList();
        leaves.Count.ShouldBe(4);
        var weeks = Binding.Chain(leaves, [2, 2, 2], PageSchool.Leaf);
        weeks.ShouldAllBe(w => w[0].LeafId == w[1].LeafId && w[0].Side == LeafSide.Front && w[1].Side == LeafSide.Back);
        Binding
            .Chain([.. leaves.Take(Binding.LeavesFor(6))], [2, 2, 2])
            .ShouldAllBe(w => w[0].LeafId != w[1].LeafId && w[0].Side == LeafSide.Back);
    }

    [Theory]
    [InlineData("", 0)]
    [InlineData("A tab with far too many words on it", 0)]
    [InlineData("May", 6)]
    public void A_tab_is_short_and_on_the_edge(string words, int place) =>
        Should.Throw<RuleException>(() => new IndexTab(words, place).Checked());

    [Fact]
    public void The_halves_of_a_measured_pocket_keep_its_measure_and_lose_half_a_seam_and_the_ease_on_each_side()
    {
        var page = Of("9x12-rows-6x4-3x4");
        var wide = Size.FromInches(6, 4);
        var measured = page with { ClearSizes = page.ClearSizes.Add(wide, new Size(Inches(5.9375m), Inches(3.875m))) };
        var pocket = measured.Design.Pockets.First(p => p.Nominal == wide);
        measured.CutSize(pocket).ShouldBe(new Size(Inches(5.90625m), Inches(3.84375m)));

        // 6 x 1 1/2 and 6 x 2 1/2: the weld above or below takes 1/16, half the seam 1/32, the ease 1/32.
        var rows = measured.Altered(LeafAlterations.Plain.With(new Fuse(pocket.Key, Upright: false, Inches(1.5m))));
        var (upper, lower) = (
            rows.Design.Pockets.First(p => p.Key == pocket.Key + "a"),
            rows.Design.Pockets.First(p => p.Key == pocket.Key + "b")
        );
        rows.CutSize(upper).ShouldBe(new Size(Inches(5.90625m), Inches(1.375m)));
        rows.CutSize(lower).ShouldBe(new Size(Inches(5.90625m), Inches(2.375m)));
        (rows.ClearSize(upper).Height + rows.ClearSize(lower).Height + Alterations.SeamWidth).ShouldBe(Inches(3.875m));

        // Upright halves, and one of them parted again.
        var columns = measured.Altered(
            LeafAlterations
                .Plain.With(Alterations.InHalf(pocket))
                .With(new Fuse(pocket.Key + "a", Upright: true, Inches(1.5m)))
        );
        var parts = columns.Design.Pockets.Where(p => p.Key.StartsWith(pocket.Key, StringComparison.Ordinal)).ToList();
        (
            parts.Aggregate(Length.Zero, (sum, p) => sum + columns.ClearSize(p).Width) + (2 * Alterations.SeamWidth)
        ).ShouldBe(Inches(5.9375m));
        parts.ShouldAllBe(p => columns.CutSize(p).Height == Inches(3.84375m));
    }

    [Fact]
    public void The_halves_of_a_pocket_that_nobody_measured_are_of_their_name()
    {
        var page = Of("9x12-rows-6x4-3x4");
        var altered = page.Altered(
            LeafAlterations.Plain.With(
                Alterations.InHalf(page.Design.Pockets.First(p => p.Nominal == Size.FromInches(6, 4)))
            )
        );
        altered.CutSize(altered.Design.Pockets[0]).ShouldBe(Size.FromInches(3, 4));
    }
}
