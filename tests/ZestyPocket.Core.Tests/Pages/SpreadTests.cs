using CsCheck;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>How the faces of a unit lie as the album is opened leaf by leaf.</summary>
public sealed class SpreadTests
{
    [Fact]
    public void Facing_pages_are_one_spread_and_a_leaf_between_them_makes_two()
    {
        Binding.SpreadsOf([LeafSide.Back, LeafSide.Front]).ShouldBe([1, 1]);
        Binding.SpreadsOf([LeafSide.Back, LeafSide.Front, LeafSide.Back, LeafSide.Front]).ShouldBe([1, 1, 2, 2]);
        // The two faces of one leaf are never seen together.
        Binding.SpreadsOf([LeafSide.Front, LeafSide.Back]).ShouldBe([1, 2]);
        Binding.SpreadsOf([LeafSide.Back]).ShouldBe([1]);
        Binding.SpreadsOf([]).ShouldBeEmpty();
    }

    [Fact]
    public void No_spread_has_more_than_a_left_and_a_right_page()
    {
        Gen.Select(Gen.Int[1, 30], Gen.Int[0, 60], Gen.Int[1, 20])
            .Sample(
                (leaves, from, count) =>
                {
                    var sides = Binding
                        .ReadingOrder([.. Enumerable.Range(0, leaves).Select(_ => Guid.NewGuid())])
                        .Skip(from)
                        .Take(count)
                        .Select(f => f.Side)
                        .ToList();
                    foreach (var spread in sides.Zip(Binding.SpreadsOf(sides)).GroupBy(s => s.Second))
                    {
                        spread.Select(s => s.First).ShouldBeUnique();
                        spread.First().First.ShouldBe(spread.Count() == 2 ? LeafSide.Back : spread.First().First);
                    }
                }
            );
    }
}
