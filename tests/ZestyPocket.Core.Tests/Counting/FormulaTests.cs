using System.Collections.Immutable;
using ZestyPocket.Core.Counting;

namespace ZestyPocket.Core.Tests.Counting;

/// <summary>A pattern that units repeat: common practice of the trade.</summary>
public sealed class FormulaTests
{
    private static readonly Guid Nine = Guid.NewGuid();
    private static readonly Guid Rows = Guid.NewGuid();
    private static readonly Guid Sheet = Guid.NewGuid();

    private static Formula EachDay =>
        new(Guid.NewGuid(), "Each day", [Nine, Rows], [Sheet], Pictures: 5, Words: 2, Title: true);

    [Fact]
    public void What_is_below_the_minimum_is_said_while_pictures_can_still_be_taken()
    {
        EachDay
            .GapOf(pictures: 3, words: 2, title: true, pieces: 6, ofFormula: 18)
            .Says("Sunday")
            .ShouldBe("two more pictures by Sunday");
        EachDay
            .GapOf(4, 1, false, 5, 18)
            .Says(null)
            .ShouldBe("one more picture, one more card of words and the title card");
        var met = EachDay.GapOf(5, 2, true, 8, 18);
        (met.IsMet, met.Says("Sunday"), met.Beyond).ShouldBe((true, string.Empty, 0));
    }

    [Fact]
    public void What_goes_beyond_the_pattern_flows_to_extra_leaves()
    {
        EachDay.GapOf(30, 2, true, 33, ofFormula: 18).Beyond.ShouldBe(15);
        EachDay.Pieces.ShouldBe(8);
    }

    [Fact]
    public void Sizes_alternate_without_breaking_the_pattern() =>
        Enumerable.Range(0, 5).Select(EachDay.OwnOf).ShouldBe([Nine, Rows, Nine, Rows, Nine]);

    [Fact]
    public void A_formula_that_goes_takes_what_follows_it_along()
    {
        var (each, other, unit, elsewhere) = (
            EachDay,
            EachDay with
            {
                Id = Guid.NewGuid(),
                Name = "Other",
            },
            Guid.NewGuid(),
            Guid.NewGuid()
        );
        var formulas = new AlbumFormulas().With(each).With(other) with
        {
            Follows = ImmutableDictionary<Guid, Guid>.Empty.Add(unit, each.Id).Add(elsewhere, other.Id),
        };
        formulas.Of(unit).ShouldBe(each);
        var without = formulas.Without(each.Id);
        (without.Of(unit), without.Of(elsewhere)?.Name, without.All.Length).ShouldBe((null, "Other", 1));
        formulas.With(each with { Name = "Every day" }).All.Length.ShouldBe(2);
    }

    [Fact]
    public void Patterns_that_cannot_be_repeated_are_refused()
    {
        Should.Throw<RuleException>(() => (EachDay with { Name = " " }).Checked()).Message.ShouldContain("name");
        Should.Throw<RuleException>(() => (EachDay with { Own = [] }).Checked()).Message.ShouldContain("own pages");
        Should.Throw<RuleException>(() => (EachDay with { Pictures = -1 }).Checked()).Message.ShouldContain("0 to 400");
    }
}
