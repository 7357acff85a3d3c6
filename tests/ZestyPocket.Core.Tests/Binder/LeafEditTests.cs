using CsCheck;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Binder;

/// <summary>Leaves that come, go, move and are altered, and protectors, on values alone. Common practice.</summary>
public sealed class LeafEditTests
{
    private static Guid Unit(AlbumDesk desk, int at) => desk.Binder.Units[at].Id;

    private static AddLeaf Add(AlbumDesk desk, int unit, int protector = 0) =>
        new(desk.Binder.Protectors[protector].Id) { UnitId = Unit(desk, unit), Revision = 1 };

    private static RemoveLeaf Remove(AlbumDesk desk, int unit, int leaf) =>
        new(desk.Binder.Leaves[leaf].Id) { UnitId = Unit(desk, unit), Revision = 1 };

    private static System.Collections.Immutable.ImmutableArray<string> Says(AlbumDesk before, AlbumEdit edit) =>
        BinderChanges.Between(before.Binder, edit.Apply(before, Desks.Tools()).Desk.Binder, DateStyle.Default);

    [Fact]
    public void A_leaf_goes_between_the_facing_pages_and_what_lay_on_it_goes_to_the_tray_with_it()
    {
        var desk = Desks.Weeks(3).Filled(0).Filled(1);
        var more = desk.After(Add(desk, 0)).Filled(0);
        more.Leaves().ShouldBe("·|19 19|19 19|20 20|21 21|·");
        (more.Placed(0), more.Placed(1)).ShouldBe((36, 18));
        more.ShouldHold();
        Says(more, Remove(more, 0, 1))[0].ShouldBe("18 pieces go to the tray");
        var less = more.After(Remove(more, 0, 1));
        less.Leaves().ShouldBe(desk.Leaves());
        (less.Placed(0), less.Binder.Units[0].Content.Pieces.Length).ShouldBe((18, 36));
        desk.Refused(Remove(desk, 0, 1)).ShouldContain("belongs to a neighbour");
        var leafSchool = Desks.Weeks(3, PageSchool.Leaf);
        leafSchool.Refused(Remove(leafSchool, 0, 1)).ShouldContain("only leaf");
        desk.Refused(Add(desk, 0) with { ProtectorId = Desks.NewId() }).ShouldContain("does not use");
    }

    [Fact]
    public void A_leaf_between_pages_moves_to_the_week_it_comes_to_lie_in_and_leaves_its_pieces_behind()
    {
        var desk = Desks.Weeks(3);
        desk = desk.After(Add(desk, 0)).Filled(0).Filled(1);
        var leaf = desk.Binder.Leaves[1].Id;
        var move = new MoveLeaf(2) { LeafId = leaf, Revision = 1 };
        var says = Says(desk, move);
        says[0].ShouldBe("18 pieces go to the tray");
        says.ShouldContain("Week 19: opposite of the back of leaf 1 lies the front of leaf 2 now");
        var moved = move.Apply(desk, Desks.Tools());
        moved.Done.ShouldBe("Moved leaf 2 to place 3");
        moved.Desk.Leaves().ShouldBe("·|19 19|20 20|20 20|21 21|·");
        moved.Desk.Binder.Leaves[2].Id.ShouldBe(leaf);
        (moved.Desk.Placed(0), moved.Desk.Placed(1)).ShouldBe((18, 18));
        moved.Desk.ShouldHold();
        desk.Refused(move with { To = 1 }).ShouldContain("there already");
        desk.Refused(move with { To = 0 }).ShouldContain("before the first");
        desk.Refused(move with { LeafId = Desks.NewId() }).ShouldContain("no longer in the binder");
    }

    [Fact]
    public void A_leaf_of_two_weeks_takes_its_pockets_along_and_the_pieces_stay_with_their_week()
    {
        var desk = Desks.Weeks(3).Filled(0).Filled(1).Filled(2);
        var moved = desk.After(new MoveLeaf(3) { LeafId = desk.Binder.Leaves[1].Id, Revision = 1 });
        moved.Leaves().ShouldBe(desk.Leaves());
        moved.Binder.Leaves[3].Id.ShouldBe(desk.Binder.Leaves[1].Id);
        Enumerable.Range(0, 3).Select(moved.Placed).ShouldBe([18, 18, 18]);
        moved.ShouldHold();
    }

    [Fact]
    public void A_fused_pocket_is_two_on_both_faces_and_an_altered_leaf_is_lost_to_those_owned()
    {
        var desk = Desks.Weeks(2, PageSchool.Spread, "9x12-rows-6x4-3x4").Filled(0).Filled(1);
        desk = desk with { Binder = desk.Binder.With(desk.Binder.Protectors[0] with { OnHand = 5 }) };
        var leaf = desk.Binder.Leaves[1];
        var fuse = new FusePocket("1.1") { LeafId = leaf.Id, Revision = 1 };
        var fused = desk.After(fuse);
        // Six pockets become seven on the front of one week and on the back of the next; the piece in it is loose.
        fused.Binder.PocketsOf(Unit(desk, 0)).Count().ShouldBe(13);
        fused.Binder.PocketsOf(Unit(desk, 1)).Count().ShouldBe(13);
        (fused.Placed(0), fused.Placed(1)).ShouldBe((11, 11));
        fused.ShouldHold();
        desk.Refused(fuse with { PocketKey = "9.9" }).ShouldContain("not on this leaf");
        var renewed = fused.After(new RenewLeaf { LeafId = leaf.Id, Revision = 1 });
        (renewed.Binder.Protectors[0].OnHand, renewed.Binder.Leaves[1].Alterations.IsAltered).ShouldBe((4, false));
        // A plain leaf goes back to the others.
        desk.After(new RenewLeaf { LeafId = leaf.Id, Revision = 1 }).Binder.Protectors[0].OnHand.ShouldBe(5);
    }

    [Fact]
    public void Another_design_sends_what_has_no_pocket_any_more_to_the_tray_on_both_faces_and_keeps_the_tab()
    {
        var desk = Desks.Weeks(2, PageSchool.Spread, "9x12-nine-3x4", "9x12-full").Filled(0).Filled(1);
        var leaf = desk.Binder.Leaves[1].Id;
        desk = desk.After(new TabLeaf(" May ", 2) { LeafId = leaf, Revision = 1 });
        desk.Binder.Leaves[1].Alterations.Tab.ShouldBe(new IndexTab("May", 2));
        var give = new GiveDesign(leaf, desk.Binder.Protectors[1].Id) { UnitId = Unit(desk, 0), Revision = 1 };
        var given = give.Apply(desk, Desks.Tools());
        // Nine pockets become one on each face: of eighteen pieces at most two keep a place.
        given.Done.ShouldStartWith("Changed a leaf to One full 9x12; 16 pieces");
        given.Desk.Binder.Leaves[1].Alterations.Tab!.Words.ShouldBe("May");
        given.Desk.ShouldHold();
        desk.Refused(give with { UnitId = Unit(desk, 1), LeafId = desk.Binder.Leaves[0].Id })
            .ShouldContain("does not belong here");
        desk.Refused(new TabLeaf("May", 9) { LeafId = leaf, Revision = 1 }).ShouldContain("6 places");
    }

    [Fact]
    public void Facing_pages_become_the_two_faces_of_a_leaf_and_back_with_all_pieces()
    {
        var desk = Desks.Weeks(3).Filled(0).Filled(1, most: 5);
        var leafSchool = desk.After(new ChangeSchool(PageSchool.Leaf) { Revision = 1 });
        leafSchool.Leaves().ShouldBe("·|· 19|19 20|20 21|21");
        (leafSchool.Placed(0), leafSchool.Placed(1)).ShouldBe((18, 5));
        leafSchool.ShouldHold();
        var back = leafSchool.After(new ChangeSchool(PageSchool.Spread) { Revision = 1 });
        back.Leaves().ShouldBe(desk.Leaves());
        (back.Placed(0), back.Placed(1)).ShouldBe((18, 5));
        desk.Refused(new ChangeSchool(PageSchool.Spread) { Revision = 1 }).ShouldContain("already");
    }

    [Fact]
    public void A_choice_of_pages_puts_in_what_is_missing_takes_out_what_is_not_wanted_and_leaves_dividers()
    {
        var desk = Desks.Weeks(2, PageSchool.Spread, "9x12-nine-3x4", "9x12-full");
        var week = new UnitAt(Unit(desk, 0), 1);
        desk = desk.After(
            Add(desk, 0),
            new AddNewLeaf(new LeafMake(LeafKind.Divider)) { UnitId = week.UnitId, Revision = 1 }
        );
        var (nine, full) = (desk.Binder.Protectors[0].Id, desk.Binder.Protectors[1].Id);
        var chosen = desk.After(
            new ChoosePages(
                [week],
                [new LeafDesign(desk.Binder.Leaves[0].Id, full)],
                [new ExtraLeaves(week.UnitId, full, 2)]
            )
        );
        chosen
            .Binder.Leaves.Where(l => l.IsAllOf(week.UnitId))
            .Select(l => chosen.Binder.On(l).Form.Kind)
            .Order()
            .ShouldBe([LeafKind.Pockets, LeafKind.Pockets, LeafKind.Divider]);
        chosen.Binder.Leaves[0].ProtectorId.ShouldBe(full);
        chosen.Binder.Leaves.Count(l => l.ProtectorId == nine && l.IsAllOf(week.UnitId)).ShouldBe(0);
        chosen.ShouldHold();
        desk.Refused(new ChoosePages([week], [], [new ExtraLeaves(week.UnitId, full, 1_001)])).ShouldContain("1,000");
        desk.Refused(new ChoosePages([week], [new LeafDesign(Desks.NewId(), full)], [])).ShouldContain("ask for");
        Should.Throw<RuleException>(() => new ChoosePages([], [], []).MadeOn().ToList());
    }

    [Fact]
    public void A_formula_gives_a_stretch_its_pages_and_leaves_where_more_has_to_lie()
    {
        var desk = Desks.Weeks(3, PageSchool.Spread, "9x12-rows-6x4-3x4", "9x12-nine-3x4", "9x12-full");
        var ids = desk.Binder.Protectors.Select(p => p.Id).ToList();
        var keep = new KeepFormula(null, " Every week ", [ids[0], ids[1]], [ids[2]], 6, 1, true) { Revision = 1 };
        desk = desk.After(keep);
        var formula = desk.Formulas.All.Single();
        formula.Name.ShouldBe("Every week");
        var apply = new ApplyFormula(formula.Id, [.. desk.Binder.Units.Select(u => new UnitAt(u.Id, 1))]);
        apply.Asks(desk).PiecesOf.Length.ShouldBe(3);
        var tools = Desks.Tools((Unit(desk, 0), 4), (Unit(desk, 1), 25), (Unit(desk, 2), 0));
        var applied = apply.Apply(desk, tools);
        applied.Done.ShouldBe("Gave 3 parts the formula “Every week”");
        var binder = applied.Desk.Binder;
        // Six, a full page front and back, nine; the second week wants a further leaf of nine for 25 pieces.
        desk.Binder.Units.Select(u => binder.FacesOf(u.Id).Length).ShouldBe([4, 6, 4]);
        binder.PocketsOf(Unit(desk, 0)).Count().ShouldBe(6 + 2 + 9);
        binder.PocketsOf(Unit(desk, 1)).Count().ShouldBe(9 + 2 + 18 + 6);
        applied.Desk.Formulas.Follows.Count.ShouldBe(3);
        applied.Desk.ShouldHold();
        // Applied again it has the same pages.
        apply
            .Apply(applied.Desk, tools)
            .Desk.Binder.Leaves.Select(l => l.ProtectorId)
            .ShouldBe(binder.Leaves.Select(l => l.ProtectorId));
        applied
            .Desk.After(new DeleteFormula(formula.Id) { Revision = 1 })
            .Formulas.ShouldSatisfyAllConditions(f => f.All.ShouldBeEmpty(), f => f.Follows.ShouldBeEmpty());
        desk.Refused(keep with { Own = [Desks.NewId()] }).ShouldContain("leaves that the album uses");
        desk.Refused(new DeleteFormula(Desks.NewId()) { Revision = 1 }).ShouldContain("not in the album");
    }

    [Fact]
    public void A_locked_piece_keeps_its_leaf_and_says_so()
    {
        var desk = Desks.Weeks(1, PageSchool.Spread, "9x12-rows-6x4-3x4", "9x12-nine-3x4").Filled(0, most: 1);
        var week = desk.Binder.Units[0];
        var locked = week.Content.Lock(week.Content.Placements[0].Place, true);
        desk = desk with { Binder = desk.Binder.With(week with { Content = locked }) };
        var keep = new KeepFormula(null, "Nine", [desk.Binder.Protectors[1].Id], [], 0, 0, false) { Revision = 1 };
        desk = desk.After(keep);
        var apply = new ApplyFormula(desk.Formulas.All[0].Id, [new UnitAt(week.Id, 1)]);
        var applied = apply.Apply(desk, Desks.Tools((week.Id, 1)));
        applied.Done.ShouldEndWith("; 1 leaf keeps what lies locked on it");
        applied.Desk.Binder.PocketsOf(week.Id).Count().ShouldBe(6 + 9);
    }

    [Fact]
    public void Protectors_come_are_given_up_and_come_back_and_one_always_stays()
    {
        var desk = Desks.Weeks(1);
        var use = new UseProtector(new LeafMake(LeafKind.Pockets, "9x12-full")) { Revision = 1 };
        desk.Refused(use with { Make = new LeafMake(LeafKind.Pockets, "9x12-nine-3x4") }).ShouldContain("already");
        desk.Refused(use with { Make = new LeafMake(LeafKind.Pockets, "12x12-full") })
            .ShouldContain("cannot be larger");
        desk.Refused(use with { Make = new LeafMake(LeafKind.Pockets, "nobody's") }).ShouldContain("no page design");
        desk.Refused(use with { Make = new LeafMake(LeafKind.FoldOut) }).ShouldContain("size of its sheet");
        var nine = desk.Binder.Protectors[0].Id;
        desk.Refused(new GiveUpProtector { ProtectorId = nine, Revision = 1 }).ShouldContain("at least one");
        var two = desk.After(use, new GiveUpProtector { ProtectorId = nine, Revision = 1 });
        two.Binder.Protectors.Select(p => p.GivenUp).ShouldBe([true, false]);
        two.Refused(new GiveUpProtector { ProtectorId = nine, Revision = 1 }).ShouldContain("already");
        var back = two.After(use with { Make = new LeafMake(LeafKind.Pockets, "9x12-nine-3x4") });
        back.Binder.Protectors.Select(p => p.GivenUp).ShouldBe([false, false]);
        desk.Refused(new CountOnHand(-1) { ProtectorId = nine, Revision = 1 }).ShouldContain("0 to 100,000");
        desk.After(new CountOnHand(3) { ProtectorId = nine, Revision = 1 }).Binder.Protectors[0].OnHand.ShouldBe(3);
    }

    [Fact]
    public void A_measured_pocket_cuts_what_is_not_printed_and_names_what_is()
    {
        var desk = Desks.Weeks(1).Filled(0, most: 3);
        var nine = desk.Binder.Protectors[0];
        var printed = desk.Binder.Units[0].Content.Placements[0].PieceId;
        var tools = Desks.Tools() with
        {
            Facts = AlbumFacts.None with
            {
                Printed = new Dictionary<Guid, PrintedAs> { [printed] = new("W19 L1", Size.FromInches(3, 4)) },
            },
        };
        var measure = new MeasureProtector("9 3/4 x 12 1/4", "5/8", "1/16", [new MeasuredPocket("3x4", "3 x 4")])
        {
            ProtectorId = nine.Id,
            Revision = 1,
        };
        measure
            .Apply(desk, tools)
            .Says.ShouldBe([
                "2 pieces are cut to another size from now on",
                "W19 L1 was printed at 3 × 4 in and would be cut to 2 15/16 × 3 15/16 in now",
                "print it again if it does not fit",
            ]);
        var cut = tools with
        {
            Facts = AlbumFacts.None with
            {
                Printed = new Dictionary<Guid, PrintedAs>
                {
                    [printed] = new("W19 L1", Size.FromInches(3, 4), IsCut: true),
                },
            },
        };
        measure
            .Apply(desk, cut)
            .Says[1]
            .ShouldBe("W19 L1 was printed and cut at 3 × 4 in and would be cut to 2 15/16 × 3 15/16 in now");
        desk.Refused(measure with { Outer = "9x12" }).ShouldContain("smaller");
        desk.Refused(measure with { Pockets = [new("3x4", "3x4"), new("3 x 4", "2x3")] }).ShouldContain("twice");
        desk.Refused(measure with { Holes = new MeasuredHoles("Somebody's") }).ShouldContain("no hole pattern");
    }

    /// <summary>Any edit in any order: no piece is lost, and the binder stays one.</summary>
    [Trait("Duration", "Long")]
    [Fact]
    public void Whatever_is_done_no_piece_is_lost_and_faces_follow_each_other()
    {
        var steps = Gen.Select(Gen.Int[0, 8], Gen.Int[0, 40], Gen.Int[0, 40]).Array[1, 25];
        Gen.Select(steps, Gen.Bool)
            .Sample(
                (walk, leafSchool) =>
                {
                    var school = leafSchool ? PageSchool.Leaf : PageSchool.Spread;
                    var desk = Desks
                        .Weeks(4, school, "9x12-nine-3x4", "9x12-rows-6x4-3x4")
                        .Filled(0)
                        .Filled(2, most: 7);
                    var pieces = Pieces(desk);
                    foreach (var (kind, a, b) in walk)
                    {
                        try
                        {
                            desk = Edit(desk, kind, a, b).Apply(desk, Desks.Tools()).Desk;
                        }
                        catch (RuleException)
                        {
                            // Refused: nothing was changed.
                        }

                        desk.ShouldHold();
                        Pieces(desk).ShouldBe(pieces);
                    }
                },
                iter: Thorough.Of(150, 60)
            );

        static int Pieces(AlbumDesk desk) => desk.Binder.Units.Sum(u => u.Content.Pieces.Length);
    }

    private static AlbumEdit Edit(AlbumDesk desk, int kind, int a, int b)
    {
        var unit = desk.Binder.Units[a % desk.Binder.Units.Length].Id;
        var leaf = desk.Binder.Leaves[b % desk.Binder.Leaves.Length].Id;
        return kind switch
        {
            0 => Add(desk, a % desk.Binder.Units.Length, b % 2),
            1 => new RemoveLeaf(leaf) { UnitId = unit, Revision = 1 },
            2 => new MoveLeaf(a) { LeafId = leaf, Revision = 1 },
            3 => new MergeUnit { UnitId = unit, Revision = 1 },
            4 => new SplitUnit { UnitId = unit, Revision = 1 },
            5 => new GrowAlbum(1, b % 2 == 0) { Revision = 1 },
            6 => new FusePocket("1.1") { LeafId = leaf, Revision = 1 },
            7 => new ChangeSchool(b % 2 == 0 ? PageSchool.Leaf : PageSchool.Spread) { Revision = 1 },
            _ => new GiveDesign(leaf, desk.Binder.Protectors[b % 2].Id) { UnitId = unit, Revision = 1 },
        };
    }
}
