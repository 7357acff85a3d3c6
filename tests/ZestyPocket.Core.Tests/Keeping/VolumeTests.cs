using CsCheck;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Tests.Binder;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>A volume begins on a leaf of its own, so that the album can be parted between the binders.</summary>
public sealed class VolumeTests
{
    [Fact]
    public void Facing_pages_begin_a_volume_behind_a_title_page_of_its_own()
    {
        var desk = Desks.Weeks(4).Filled(1).Filled(2);
        desk.Leaves().ShouldBe("·|19 19|20 20|21 21|22 22|·");
        var parted = desk.After(new SetVolumes([desk.Binder.Units[2].Id]) { Revision = 0 });
        // The back of the last leaf of volume one and the front of the first of volume two are nobody's.
        parted.Leaves().ShouldBe("·|19 19|20 20|· ·|21 21|22 22|·");
        (parted.Placed(1), parted.Placed(2)).ShouldBe((18, 18), "pieces move with their pages");
        parted.ShouldHold();
        var merged = parted.After(new SetVolumes([]) { Revision = 0 });
        merged.Leaves().ShouldBe(desk.Leaves());
        (merged.Placed(1), merged.Placed(2)).ShouldBe((18, 18));
    }

    [Fact]
    public void In_the_leaf_school_a_volume_gets_a_leaf_for_its_title()
    {
        var desk = Desks.Weeks(3, PageSchool.Leaf);
        desk.Leaves().ShouldBe("·|· 19|19 20|20 21|21");
        desk.After(new SetVolumes([desk.Binder.Units[1].Id]) { Revision = 0 })
            .Leaves()
            .ShouldBe("·|· 19|19 ·|· 20|20 21|21");
    }

    [Fact]
    public void Volumes_stay_whole_whatever_leaves_come_and_go()
    {
        var step = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 4], Gen.Bool);
        Gen.Select(Gen.Enum<PageSchool>(), step.Array[1, 10])
            .Sample(
                (school, steps) =>
                {
                    var desk = Desks.Weeks(5, school).Filled(1, 5).Filled(3, 7);
                    foreach (var (what, at, second) in steps)
                    {
                        var unit = desk.Binder.Units[at];
                        desk = what switch
                        {
                            0 => desk.After(
                                new AddLeaf(desk.Binder.Protectors[0].Id) { UnitId = unit.Id, Revision = 0 }
                            ),
                            1 => desk.After(
                                new SetVolumes(
                                    at == 0 ? []
                                    : second ? [unit.Id, desk.Binder.Units[4].Id]
                                    : [unit.Id]
                                )
                                {
                                    Revision = 0,
                                }
                            ),
                            _ => desk.After(new SetVolumes([desk.Binder.Units[Math.Max(1, at)].Id]) { Revision = 0 }),
                        };
                        desk.ShouldHold();
                        (desk.Placed(1), desk.Placed(3)).ShouldBe((5, 7), "nothing leaves its pocket");
                        foreach (var start in desk.Binder.VolumeStarts)
                        {
                            var first = desk.Binder.FacesOf(start)[0];
                            var leaf = desk.Binder.RequireLeaf(first.LeafId);
                            // Its first leaf carries nothing of the volume before it.
                            (first.Side == LeafSide.Front || leaf.Front is null).ShouldBeTrue();
                        }
                    }
                },
                iter: 100
            );
    }
}
