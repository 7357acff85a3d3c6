using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>Papers and what fits on them.</summary>
public sealed class PaperTests
{
    [Fact]
    public void Two_3x4_fill_a_4x6_exactly_and_a_4x6_of_its_own_too()
    {
        // Arithmetic: turned, each is 4 wide and 3 high.
        var plan = Plan("4x6", Length.Zero, (3, 4), (3, 4));
        plan.Sheets.Length.ShouldBe(1);
        plan.Sheets[0].Offcuts.ShouldBeEmpty();
        Plan("4x6", Length.Zero, (4, 6)).TooLarge.ShouldBeEmpty();
        Plan("8x10", Length.Zero, (8, 10)).TooLarge.Length.ShouldBe(1, "the rule at the foot takes its strip");
        Plan("12x12", Length.Zero, (6, 8), (6, 8)).Sheets.Length.ShouldBe(1);
    }

    [Fact]
    public void An_own_size_is_read_from_its_key_and_one_that_is_no_sheet_is_refused()
    {
        var own = Paper.Find("own 8x8 in").ShouldNotBeNull();
        own.Size.ShouldBe(Size.FromInches(8, 8));
        Paper.Find(own.Key)!.Size.ShouldBe(own.Size);
        var metric = Paper.Find("own 203.2 x 200 mm")!;
        Paper.Find(metric.Key)!.Size.ShouldBe(metric.Size);
        Should.Throw<RuleException>(() => Paper.Find("own 1x1 in"));
        Should.Throw<RuleException>(() => Paper.Find("own 30x30 in"));
        Should.Throw<MeasureException>(() => Paper.Find("own x"));
        Paper.Find("napkin").ShouldBeNull();
        Paper.All.Select(p => p.Key).ShouldBeUnique();
        Paper.All.ShouldAllBe(p => p.Key.Length <= 32);
    }

    [Fact]
    public void Nothing_is_written_as_a_length_with_a_unit_or_without()
    {
        foreach (var nothing in new[] { "0", "0.0", "0.0 mm", "0,00 mm", " 0 in", "0in.", "0\"", "0 cm", "", null })
        {
            MeasureText.ParseLengthOrNone(nothing).ShouldBe(Length.Zero, nothing);
        }

        MeasureText.ParseLengthOrNone("0.1 mm").ShouldBe(Length.FromMillimetres(0.1m));
        Should.Throw<MeasureException>(() => MeasureText.ParseLengthOrNone("0 miles"));
    }

    private static PrintPlan Plan(string paper, Length margin, params (int W, int H)[] pieces) =>
        PrintPlan.For(
            [
                .. pieces.Select(
                    (p, i) => new DuePiece(Guid.NewGuid(), $"W1 L{i}", Size.FromInches(p.W, p.H), Stock.PhotoPaper)
                ),
            ],
            new PrinterSetup(Paper.Find(paper)!, margin, Length.Zero)
        );
}
