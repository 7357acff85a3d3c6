using CsCheck;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>A week on facing pages or on the two faces of one leaf: common practice, arithmetic.</summary>
public sealed class PageSchoolTests
{
    [Fact]
    public void Every_face_belongs_to_one_unit_and_no_leaf_is_too_many()
    {
        Gen.Select(Gen.Bool, Gen.Int[0, 6].List[1, 60])
            .Sample(
                (facing, counts) =>
                {
                    var school = facing ? PageSchool.Spread : PageSchool.Leaf;
                    var needed = Binding.LeavesFor(counts.Sum(), school);
                    var leaves = Enumerable.Range(0, needed).Select(_ => Guid.NewGuid()).ToList();
                    var chain = Binding.Chain(leaves, counts, school);
                    chain.Select(f => f.Count).ShouldBe(counts);
                    var faces = chain.SelectMany(f => f).ToList();
                    faces.ShouldBeUnique();
                    // In reading order: never back in the binder.
                    var order = faces
                        .Select(f => (2 * leaves.IndexOf(f.LeafId)) + (f.Side == LeafSide.Back ? 1 : 0))
                        .ToList();
                    order.ShouldBe(order.Order());
                    if (counts.Sum() > 0)
                    {
                        Should.Throw<ArgumentException>(() => Binding.Chain([.. leaves.SkipLast(1)], counts, school));
                    }
                }
            );
    }

    [Fact]
    public void The_title_page_is_the_first_front_in_one_school_and_the_first_leaf_in_the_other()
    {
        var leaves = Enumerable.Range(0, 4).Select(_ => Guid.NewGuid()).ToList();
        Binding.ReadingOrder(leaves).First().ShouldBe(new FaceOfLeaf(leaves[0], LeafSide.Back));
        Binding.ReadingOrder(leaves, PageSchool.Leaf).First().ShouldBe(new FaceOfLeaf(leaves[1], LeafSide.Front));
        Binding.ReadingOrder(leaves, PageSchool.Leaf).Count().ShouldBe(6);
    }

    [Fact]
    public void With_an_even_number_of_faces_each_the_leaf_school_never_shares_a_leaf()
    {
        Gen.Int[1, 4]
            .List[1, 30]
            .Sample(leavesOfUnit =>
            {
                var counts = leavesOfUnit.ConvertAll(l => 2 * l);
                var leaves = Enumerable
                    .Range(0, Binding.LeavesFor(counts.Sum(), PageSchool.Leaf))
                    .Select(_ => Guid.NewGuid())
                    .ToList();
                var owners = Binding
                    .Chain(leaves, counts, PageSchool.Leaf)
                    .SelectMany((faces, unit) => faces.Select(f => (f.LeafId, unit)))
                    .ToLookup(f => f.LeafId, f => f.unit);
                owners.ShouldAllBe(leaf => leaf.Distinct().Count() == 1);
            });
    }
}
