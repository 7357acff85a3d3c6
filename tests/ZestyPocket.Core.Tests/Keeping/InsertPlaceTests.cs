using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>A leaf on rings comes between two leaves, never between the two sides of one (fact of the trade).</summary>
public sealed class InsertPlaceTests
{
    private static readonly Guid Week = Guid.NewGuid();
    private static readonly Guid Next = Guid.NewGuid();
    private static readonly BoundLeaf A = Leaf(null, Week);
    private static readonly BoundLeaf B = Leaf(Week, Next);
    private static readonly BoundLeaf C = Leaf(Next, null);

    [Fact]
    public void Behind_a_week_is_behind_the_leaf_with_its_last_page()
    {
        InsertPlace.LeafBefore([A, B, C], new AlbumInsert(Guid.NewGuid(), Week)).ShouldBe(B.Id);
        InsertPlace.LeafBefore([A, B, C], new AlbumInsert(Guid.NewGuid(), Guid.NewGuid())).ShouldBeNull();
    }

    [Fact]
    public void Between_the_facing_pages_is_behind_the_leaf_with_the_left_one() =>
        InsertPlace.LeafBefore([A, B, C], new AlbumInsert(Guid.NewGuid(), Week) { Between = true }).ShouldBe(A.Id);

    [Fact]
    public void A_week_on_one_leaf_has_nothing_to_lie_between_and_the_insert_comes_behind_it()
    {
        var one = Leaf(Week, Week);
        InsertPlace.BetweenPages([one, C], Week).ShouldBeNull();
        InsertPlace.LeafBefore([one, C], new AlbumInsert(Guid.NewGuid(), Week) { Between = true }).ShouldBe(one.Id);
    }

    [Fact]
    public void It_is_read_before_the_right_one_of_the_facing_pages_or_after_all_of_them()
    {
        InsertPlace.PageOf([LeafSide.Back, LeafSide.Front], between: true).ShouldBe(1);
        InsertPlace.PageOf([LeafSide.Back, LeafSide.Front], between: false).ShouldBe(2);
        InsertPlace.PageOf([LeafSide.Front, LeafSide.Back], between: true).ShouldBe(2);
        InsertPlace.PageOf([], between: true).ShouldBe(0);
    }

    private static BoundLeaf Leaf(Guid? front, Guid? back) =>
        new(Guid.NewGuid(), Guid.NewGuid(), LeafAlterations.Plain, front, back);
}
