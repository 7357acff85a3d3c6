using System.Collections.Immutable;
using CsCheck;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Tests.Binder;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>What lies in the stash: reserved, used, returned, matched, used up, bought.</summary>
public sealed class StashTests
{
    private static readonly Guid May = Desks.NewId();
    private static readonly Guid June = Desks.NewId();

    private static StashItem Item(StashEntry entry) => entry.Item(Desks.NewId());

    private static StashItem Cards(int count) => Item(new StashEntry(StashKind.Card, "Meadow", count));

    [Fact]
    public void What_is_reserved_for_one_week_is_not_free_for_another()
    {
        var item = Cards(3).Reserve(May, 2);
        (item.Count, item.Free).ShouldBe((3, 1));
        Should.Throw<RuleException>(() => item.Reserve(June, 2)).Message.ShouldContain("1 piece free");
        // The week itself takes what it has set aside and one more.
        item = item.Use(May, 3);
        (item.Count, item.Free, item.ClaimOf(May)).ShouldBe((0, 0, new StashClaim(May, 0, 3)));
        item = item.Return(May, 1);
        (item.Count, item.Used).ShouldBe((1, 2));
        Should.Throw<RuleException>(() => item.Return(May, 3)).Message.ShouldContain("only 2 taken");
    }

    [Fact]
    public void Nothing_is_lost_whatever_is_reserved_used_and_returned()
    {
        var step = Gen.Select(Gen.Int[0, 2], Gen.Bool, Gen.Int[1, 4]);
        step.Array[0, 40]
            .Sample(steps =>
            {
                var item = Cards(9);
                foreach (var (what, may, count) in steps)
                {
                    try
                    {
                        item =
                            what == 0 ? item.Reserve(may ? May : June, count)
                            : what == 1 ? item.Use(may ? May : June, count)
                            : item.Return(may ? May : June, count);
                    }
                    catch (RuleException)
                    {
                        // Refused: nothing has changed.
                    }

                    (item.Count + item.Used).ShouldBe(9);
                    item.Free.ShouldBeInRange(0, item.Count);
                    item.Claims.ShouldAllBe(c => c.Reserved >= 0 && c.Used >= 0 && c.Reserved + c.Used > 0);
                    item.Claims.Select(c => c.UnitId).ShouldBeUnique();
                }
            });
    }

    [Fact]
    public void A_count_below_what_is_reserved_is_refused()
    {
        var item = Cards(5).Reserve(May, 4);
        var refused = Should.Throw<RuleException>(() =>
            new StashEntry(StashKind.Card, "Meadow", 3).Item(item.Id, item)
        );
        refused.Message.ShouldContain("4 pieces of “Meadow” are reserved");
    }

    [Fact]
    public void The_same_thing_added_again_is_so_many_more_and_a_sheet_of_letters_is_one_of_its_own()
    {
        var stash = new KeeperStash([Cards(2)]);
        var added = new AddToStash([
            new StashEntry(StashKind.Card, " Meadow ", 3),
            new StashEntry(StashKind.Letters, "Tall", Letters: "A4 B2"),
            new StashEntry(StashKind.Letters, "Tall", Letters: "A4 B2"),
        ]).Apply(stash, Desks.NewId);
        added.Changed.Select(i => (i.Name, i.Count)).ShouldBe([("Meadow", 5), ("Tall", 1), ("Tall", 1)]);
        added.Changed[0].Revision.ShouldBe(1);
    }

    [Fact]
    public void Letters_are_counted_down_where_words_use_them()
    {
        var sheet = Item(new StashEntry(StashKind.Letters, "Tall", Letters: "A3 B2 N1"));
        sheet.Spell("Banana".ToUpperInvariant()[..4]).Letters!.ToString().ShouldBe("A1 B1");
        Should.Throw<RuleException>(() => sheet.Spell("BANANA")).Message.ShouldContain("1 × N");
        Should.Throw<RuleException>(() => Cards(1).Spell("A")).Message.ShouldContain("no sheet of letters");
    }

    [Fact]
    public void A_kit_knows_what_is_left_of_it()
    {
        var (a, b) = (
            Item(new StashEntry(StashKind.Card, "Leaf", 10, Kit: "Meadow")),
            Item(new StashEntry(StashKind.Paper, "Dots", 4, Kit: "Meadow"))
        );
        new KeeperStash([a.Use(May, 3).Reserve(June, 2), b, Cards(1)])
            .Kits()
            .ShouldBe([new StashKit("Meadow", 14, 11, 9)]);
    }

    [Fact]
    public void Colours_are_read_as_people_write_them_and_named_as_they_say_them()
    {
        // Teal is #008080 in CSS Color Module Level 4 (W3C), named colours.
        ColourWords.Read("Teal, #f4e9d8").Select(c => c.Hex).ShouldBe(["#008080", "#f4e9d8"]);
        Should.Throw<RuleException>(() => ColourWords.Read("blurple")).Message.ShouldContain("“blurple”");
        foreach (
            var (css, said) in new[]
            {
                ("teal", "teal"),
                ("white", "white"),
                ("black", "black"),
                ("gold", "light yellow"),
                ("saddlebrown", "brown"),
                ("navy", "dark blue"),
                ("forestgreen", "green"),
                ("hotpink", "pink"),
            }
        )
        {
            ColourWords.NameOf(ColourWords.Read(css)[0]).ShouldBe(said, css);
        }
    }

    [Fact]
    public void Cards_in_the_colours_of_the_pictures_come_first_with_the_reason()
    {
        var pictures = ColourWords.Read("#2f8f83, #f0c27b");
        var (teal, orange, plain) = (
            Coloured("Sea", "teal"),
            Coloured("Fire", "orangered"),
            Coloured("Kraft", "white")
        );
        var ranked = StashMatching.Rank([orange, teal, plain, Cards(1)], pictures);
        ranked.Select(m => m.Item.Name).ShouldBe(["Sea", "Kraft", "Fire"], ignoreOrder: false);
        ranked[0].Reason.ShouldStartWith("Its teal is close to the teal of the pictures (difference ");
        ranked[1].Reason.ShouldBe("Its white goes with everything.");
        ranked[2].Matches.ShouldBeFalse();
        StashMatching.Rank([teal], []).ShouldBeEmpty("without pictures there is nothing to match");
    }

    [Fact]
    public void The_order_of_matches_does_not_depend_on_the_order_of_the_stash()
    {
        var hex = Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte, (r, g, b) => $"#{r:x2}{g:x2}{b:x2}");
        Gen.Select(hex.Array[1, 12], hex.Array[1, 5], Gen.Int[0, 1_000])
            .Sample(
                (items, pictures, seed) =>
                {
                    var stash = items.Select((c, i) => Coloured($"Card {i}", c)).ToList();
                    var palette = ColourWords.Read(string.Join(',', pictures));
                    var shuffled = stash.ToArray();
                    new Random(seed).Shuffle(shuffled);
                    var mixed = palette.Reverse().ToImmutableArray();
                    StashMatching
                        .Rank(shuffled, mixed)
                        .Select(m => m.Item.Id)
                        .ShouldBe(StashMatching.Rank(stash, palette).Select(m => m.Item.Id));
                },
                iter: 200
            );
    }

    [Fact]
    public void Using_it_up_takes_the_oldest_card_that_fits_and_never_more_than_there_are()
    {
        var old = Item(new StashEntry(StashKind.Card, "Old", 1, Size: "3x4", Colours: "teal"));
        var fresh = Item(new StashEntry(StashKind.Card, "Fresh", 1, Size: "3x4", Colours: "teal"));
        var large = Item(new StashEntry(StashKind.Card, "Large", 1, Size: "12x12", Colours: "teal"));
        var stash = new KeeperStash([old, fresh, large]);
        var pockets = ImmutableArray.Create(Size.FromInches(3, 4));
        var colours = ColourWords.Read("teal");
        var rooms = Enumerable.Range(0, 3).Select(_ => new RoomForStash(Desks.NewId(), pockets, colours)).ToList();
        var proposed = UseItUp.Propose(stash, rooms);
        proposed.Select(p => p.Cards.Single().Item.Name).ShouldBe(["Old", "Fresh"]);
        proposed.Select(p => p.UnitId).ShouldBe(rooms.Take(2).Select(r => r.UnitId));
        // One that does not go with the pictures is not proposed before nothing is.
        UseItUp.Propose(stash, [rooms[0] with { Pictures = ColourWords.Read("red") }]).ShouldBeEmpty();
    }

    [Fact]
    public void A_larger_card_is_cut_down_and_the_proposal_says_so()
    {
        var card = Item(new StashEntry(StashKind.Card, "Wide", 2, Size: "6x4", Colours: "teal"));
        var room = new RoomForStash(May, [Size.FromInches(3, 4)], ColourWords.Read("teal"));
        var proposed = UseItUp.Propose(new KeeperStash([card]), [room]).Single().Cards.Single();
        proposed.Reason.ShouldEndWith("Cut it down to 3x4.");
        StashFit.WasteIn(Size.FromInches(4, 6), Size.FromInches(3, 4)).ShouldBe(12m);
        StashFit.WasteIn(Size.FromInches(2, 2), Size.FromInches(3, 4)).ShouldBeNull();
    }

    [Fact]
    public void A_spread_is_filled_with_three_bought_cards_at_most()
    {
        var cards = Enumerable
            .Range(0, 12)
            .Select(i => Item(new StashEntry(StashKind.Card, $"Card {i}", 5, Size: "3x4", Colours: "teal")));
        var pockets = Enumerable.Repeat(Size.FromInches(3, 4), 9).ToImmutableArray();
        var proposed = UseItUp.Propose(new KeeperStash([.. cards]), [new RoomForStash(May, pockets, [])]);
        proposed.Single().Cards.Length.ShouldBe(UseItUp.MostCards);
        proposed.Single().Cards.Select(c => c.Item.Id).ShouldBeUnique();
    }

    [Fact]
    public void The_shopping_list_takes_what_is_in_the_drawer_first()
    {
        // By hand: two open weeks at 400 square inches are 800; a letter sheet has 93.5, so that 8.56 are needed, and
        // with four in the drawer (374) 426 are missing: 4.56 sheets, which are five.
        var needed = ShoppingList.Needed([Used(300), Used(500)], [Used(0), Used(120)]);
        needed[Stock.PhotoPaper].ShouldBe(800m);
        var line = ShoppingList
            .Papers(needed, [new PaperInDrawer(Stock.PhotoPaper, "Letter", Paper.Letter.Size, 4, 0.30m)])
            .Single();
        (line.Count, line.Price).ShouldBe((5, 1.50m));
        line.What.ShouldBe("sheets of photo paper (Letter)");
        line.Why.ShouldBe("The open weeks and days will take about 9, and 4 are in the drawer.");
        ShoppingList
            .Papers(needed, [new PaperInDrawer(Stock.PhotoPaper, "Letter", Paper.Letter.Size, 9, 0.30m)])
            .ShouldBeEmpty();
        ShoppingList
            .Protectors("Nine 3x4", 12, 8, 3, 1.10m)!
            .ShouldSatisfyAllConditions(p => p.Count.ShouldBe(1), p => p.Price.ShouldBe(1.10m));

        static ImmutableSortedDictionary<Stock, decimal> Used(decimal area) =>
            ImmutableSortedDictionary<Stock, decimal>.Empty.Add(Stock.PhotoPaper, area);
    }

    [Fact]
    public void A_spread_is_planned_before_its_pictures_exist_and_its_leaves_take_the_design()
    {
        var desk = Desks.Weeks(3, PageSchool.Spread, "9x12-nine-3x4", "9x12-twelve-3x3");
        var (week, other) = (desk.Binder.Units[1].Id, desk.Binder.Protectors[1].Id);
        var planned = desk.After(new PlanSpread(week, "Meadow", 3, "", other) { Revision = 0 });
        planned.Keeping.PlanOf(week).ShouldBe(new SpreadPlan(week, "Meadow", 3, ""));
        planned.Binder.FacesOf(week).ShouldAllBe(f => planned.Binder.RequireLeaf(f.LeafId).ProtectorId == other);
        planned
            .Keeping.PlanOf(week)!
            .PocketsInWords(12, 2)
            .ShouldBe("12 pockets: 3 stories, 2 cards from the stash, 7 for pictures.");
        planned.After(new DropPlan(week) { Revision = 0 }).Keeping.Plans.ShouldBeEmpty();
        desk.Refused(new PlanSpread(week, "", 0, " ") { Revision = 0 }).ShouldContain("names a kit, stories or a note");
        // Where something lies on every leaf its design stays.
        desk.Filled(0)
            .Filled(1)
            .Refused(new PlanSpread(week, "Meadow", 1, "", other) { Revision = 0 })
            .ShouldContain("its page design stays");
    }

    private static StashItem Coloured(string name, string colours) =>
        Item(new StashEntry(StashKind.Card, name, 1, Size: "3x4", Colours: colours));
}
