using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>
/// Drawing a page design: splitting, merging, writing it down. Areas are arithmetic, names common practice.
/// </summary>
public sealed class DesignDraftTests
{
    [Fact]
    public void A_page_is_split_into_the_sizes_people_buy()
    {
        var page = DesignDraft.Read("9x12");
        page.SplitsOf("1.1").ShouldContain(s => !s.Upright && s.Parts.Length == 3);
        var rows = page.Split(
            "1.1",
            upright: false,
            [Length.FromInches(4), Length.FromInches(4), Length.FromInches(4)]
        );
        rows.Notation.ShouldBe("9x4 / 9x4 / 9x4");
        var row = rows.SplitsOf("1.1").First(s => s is { Upright: true, Parts.Length: 2 });
        row.Parts.ShouldBe([Length.FromInches(3), Length.FromInches(6)]);
        rows.Split("1.1", upright: true, row.Parts).Notation.ShouldBe("3x4 | 6x4 / 9x4 / 9x4");
    }

    [Fact]
    public void Merging_neighbours_takes_a_seam_out_and_refuses_what_is_no_rectangle()
    {
        var nine = DesignDraft.Read("3x4 | 3x4 | 3x4 / 3x4 | 3x4 | 3x4 / 3x4 | 3x4 | 3x4");
        var merged = nine.Merge(["1.1", "1.2", "2.1", "2.2"]);
        DesignDraft.NameOf(merged.Pockets).ShouldBe("One 6x8 + five 3x4");
        merged.Pockets.Sum(p => p.Nominal.SquareInches).ShouldBe(108);
        Should.Throw<RuleException>(() => nine.Merge(["1.1", "2.2"])).Message.ShouldContain("fill a rectangle");
        Should.Throw<RuleException>(() => nine.Merge(["1.1"])).Message.ShouldContain("two or more");
        Should
            .Throw<RuleException>(() => nine.Split("1.1", true, [Length.FromInches(1), Length.FromInches(1)]))
            .Message.ShouldContain("add up");
        Should
            .Throw<RuleException>(() => nine.Split("7.7", true, [Length.FromInches(1), Length.FromInches(2)]))
            .Message.ShouldContain("not on this page");
    }

    [Fact]
    public void Four_pockets_around_a_fifth_are_on_no_page_that_can_be_welded()
    {
        var inch = Length.FromInches(1);
        Rect At(int x, int y, int w, int h) => new(inch * x, inch * y, inch * w, inch * h);
        Should
            .Throw<RuleException>(() =>
                DesignTiling.Write([At(0, 0, 2, 1), At(2, 0, 1, 2), At(1, 2, 2, 1), At(0, 1, 1, 2), At(1, 1, 1, 1)])
            )
            .Message.ShouldContain("right across");
    }

    [Fact]
    public void What_is_written_down_reads_back_as_the_same_pockets()
    {
        RandomDesigns.Any.Sample(design =>
        {
            var (body, pockets) = DesignNotation.Parse(DesignTiling.Write([.. design.Pockets.Select(p => p.Bounds)]));
            body.ShouldBe(design.Body);
            pockets
                .Select(p => p.Bounds)
                .OrderBy(b => b.Y)
                .ThenBy(b => b.X)
                .ShouldBe(design.Pockets.Select(p => p.Bounds).OrderBy(b => b.Y).ThenBy(b => b.X));
        });
    }

    [Fact]
    public void Every_proposed_split_adds_up_and_what_was_split_can_be_merged_again()
    {
        RandomDesigns
            .Any.Where(d => d.Pockets.Length <= DesignDraft.MostPockets)
            .Sample(
                design =>
                {
                    var draft = DesignDraft.Read(DesignTiling.Write([.. design.Pockets.Select(p => p.Bounds)]));
                    var pocket = draft.Pockets[0];
                    foreach (var split in draft.SplitsOf(pocket.Key))
                    {
                        split
                            .Parts.Aggregate(Length.Zero, (a, b) => a + b)
                            .ShouldBe(split.Upright ? pocket.Nominal.Width : pocket.Nominal.Height);
                        var after = draft.Split(pocket.Key, split.Upright, split.Parts);
                        after
                            .Pockets.Aggregate(Int128.Zero, (sum, p) => sum + p.Nominal.SquareEmu)
                            .ShouldBe(design.Body.SquareEmu);
                        var parts = after
                            .Pockets.Where(p => pocket.Bounds.Contains(p.Bounds))
                            .Select(p => p.Key)
                            .ToList();
                        after
                            .Merge(parts)
                            .Pockets.Select(p => p.Bounds)
                            .ShouldBe(draft.Pockets.Select(p => p.Bounds), ignoreOrder: true);
                    }
                },
                iter: 200
            );
    }

    [Fact]
    public void Metric_pages_keep_their_millimetres()
    {
        var page = DesignDraft
            .Read("148 x 210 mm")
            .Split("1.1", upright: false, [Length.FromMillimetres(105), Length.FromMillimetres(105)]);
        page.Pockets.Select(p => p.Nominal).ShouldAllBe(s => s == Size.FromMillimetres(148, 105));
        DesignDraft.Read(page.Notation).Pockets.ShouldBe(page.Pockets);
    }

    [Theory]
    [InlineData("100x100", "24 in")]
    [InlineData("", "not a size")]
    [InlineData("2 1/2x8", "decimals")]
    public void Pages_that_nobody_has_are_refused(string notation, string reason) =>
        Should.Throw<MeasureException>(() => DesignDraft.Read(notation)).Message.ShouldContain(reason);

    [Fact]
    public void Built_in_designs_are_called_by_what_they_hold()
    {
        DesignDraft.NameOf(BuiltInDesigns.Find("6x8-6x4-two-3x4")!.Pockets).ShouldBe("One 6x4 + two 3x4");
        DesignDraft.NameOf(BuiltInDesigns.Find("9x12-nine-3x4")!.Pockets).ShouldBe("Nine 3x4");
        DesignDraft.NameOf(BuiltInDesigns.Find("12x12-full")!.Pockets).ShouldBe("One full 12x12");
    }
}
