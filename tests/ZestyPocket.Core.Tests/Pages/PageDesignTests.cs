using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>Page designs as common practice of the trade; areas are arithmetic.</summary>
public sealed class PageDesignTests
{
    public static TheoryData<string> Keys => [.. BuiltInDesigns.All.Select(d => d.Key)];

    [Theory]
    [MemberData(nameof(Keys))]
    public void Pockets_tile_their_page_without_gap_or_overlap(string key)
    {
        var design = BuiltInDesigns.Find(key)!;
        design.Pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(design.Body.SquareInches);
        var page = new Rect(Length.Zero, Length.Zero, design.Body);
        foreach (var pocket in design.Pockets)
        {
            page.Contains(pocket.Bounds).ShouldBeTrue();
            design.Pockets.Count(other => other.Bounds.Overlaps(pocket.Bounds)).ShouldBe(1);
        }

        design.Pockets.Select(p => p.Key).Distinct().Count().ShouldBe(design.Pockets.Length);
    }

    [Theory]
    [InlineData("9x12-nine-3x4", 9)]
    [InlineData("9x12-rows-6x4-3x4", 6)]
    [InlineData("6x8-two-6x4", 2)]
    [InlineData("6x8-four-3x4", 4)]
    [InlineData("6x8-6x4-two-3x4", 3)]
    [InlineData("6x8-twelve-2x2", 12)]
    [InlineData("6x8-full", 1)]
    [InlineData("12x12-six-6x4", 6)]
    [InlineData("12x12-rows-6x4-3x4-3x4", 9)]
    public void The_designs_people_use_are_there(string key, int pockets)
    {
        BuiltInDesigns.Find(key)!.Pockets.Length.ShouldBe(pockets);
    }

    [Theory]
    [MemberData(nameof(Keys))]
    public void Turning_a_leaf_mirrors_its_columns_and_twice_is_the_identity(string key)
    {
        var design = BuiltInDesigns.Find(key)!;
        var back = design.Face(LeafSide.Back).ToDictionary(p => p.Key);
        foreach (var front in design.Face(LeafSide.Front))
        {
            back[front.Key].Bounds.ShouldBe(front.Bounds.MirroredIn(design.Body.Width));
            back[front.Key].Bounds.MirroredIn(design.Body.Width).ShouldBe(front.Bounds);
        }
    }

    [Fact]
    public void The_back_of_6x4_beside_3x4_shows_the_3x4_first()
    {
        var design = BuiltInDesigns.Find("9x12-rows-6x4-3x4")!;
        design.Face(LeafSide.Front)[0].Nominal.ToString().ShouldBe("6x4");
        design.Face(LeafSide.Back)[0].Nominal.ToString().ShouldBe("3x4");
        design.Face(LeafSide.Back)[0].Key.ShouldBe(design.Face(LeafSide.Front)[1].Key);
    }

    [Theory]
    [InlineData("6x4 | 3x3", "character 6", "tall")]
    [InlineData("6x4 / 3x4", "character 6", "wide")]
    [InlineData("6x4 | (3x4", "character 11", "bracket")]
    [InlineData("6x4 | 0x4", "character 7", "more than zero")]
    [InlineData("6x4 )", "character 5", "not expected")]
    [InlineData("", "character 1", "not a size")]
    public void A_notation_that_does_not_tile_is_refused_at_its_place(string notation, string place, string reason)
    {
        var message = Should.Throw<MeasureException>(() => DesignNotation.Parse(notation)).Message;
        message.ShouldContain(place);
        message.ShouldContain(reason);
    }

    [Fact]
    public void Splits_may_nest()
    {
        var (body, pockets) = DesignNotation.Parse("6x8 | (3x4 / 3x4) / 9x4");
        body.ShouldBe(Size.FromInches(9, 12));
        pockets.Select(p => p.Key).ShouldBe(["1.1", "1.2.1.1", "1.2.2.1", "2.1"]);
        pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(108);
    }

    [Fact]
    public void A_6x8_protector_measures_6_3_4_by_8_1_4_outside()
    {
        Protector.UsualOuter(Size.FromInches(6, 8)).ShouldBe(MeasureText.ParseSize("6 3/4 x 8 1/4"));
    }

    [Fact]
    public void A_piece_is_cut_to_the_nominal_size_or_to_the_clear_size_less_the_ease()
    {
        var nominal = Size.FromInches(3, 4);
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!);
        protector.CutSize(nominal).ShouldBe(nominal);

        var tight = protector with
        {
            ClearSizes = protector.ClearSizes.Add(nominal, MeasureText.ParseSize("2 15/16 x 4 1/8")),
        };
        tight.CutSize(nominal).ShouldBe(new Size(Length.FromInches(2.90625m), Length.FromInches(4)));
        tight.Checked().ShouldBe(tight);
        Should.Throw<MeasureException>(() =>
            (protector with { ClearSizes = protector.ClearSizes.Add(nominal, Size.FromInches(4, 3)) }).Checked()
        );
        Should.Throw<MeasureException>(() => (protector with { Outer = Size.FromInches(9, 12) }).Checked());
    }

    [Fact]
    public void The_ring_strip_lies_at_the_spine_on_both_pages()
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("6x8-two-6x4")!);
        protector.BodyOrigin(LeafSide.Front).X.ShouldBe(Length.FromInches(5, 8));
        protector.BodyOrigin(LeafSide.Back).X.ShouldBe(Length.FromInches(1, 8));
    }

    [Fact]
    public void A_notation_that_is_too_deep_too_long_or_too_full_is_refused_by_its_limit()
    {
        Should
            .Throw<MeasureException>(() => DesignNotation.Parse(new string('(', 10_000)))
            .Message.ShouldContain("8,000 at most");
        Should
            .Throw<MeasureException>(() => DesignNotation.Parse(new string('(', 5_000)))
            .Message.ShouldContain("more than 16 deep");
        Should
            .Throw<MeasureException>(() => DesignNotation.Parse(string.Join('|', Enumerable.Repeat("1x1", 500))))
            .Message.ShouldContain("400 pockets at most");
        DesignNotation.Parse(new string('(', 16) + "3x4" + new string(')', 16)).Pockets.Length.ShouldBe(1);
    }
}
