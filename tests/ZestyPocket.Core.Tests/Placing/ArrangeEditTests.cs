using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Several pieces at once: rows, mirrored pages, units by rules, a card with its picture.</summary>
public sealed class ArrangeEditTests
{
    private static readonly EditTools Tools = Desks.Tools();

    private static UnitDesk Filled(string left, string right, int photos)
    {
        var desk = Spreads.Desk(left, right, Enumerable.Range(1, photos).Select(i => Spreads.Photo(i, 3000, 4000)));
        for (var i = 0; i < photos; i++)
        {
            desk = Desks.After(
                desk,
                new PutPhoto(Desks.Id(i + 1), desk.Pages.Pockets[i].Place) { Revision = 0 },
                Tools
            );
        }

        return desk;
    }

    private static string? At(UnitDesk desk, string code) =>
        desk.Content.At(desk.Pages.Pockets.First(p => p.Code == $"W19 {code}").Place) is { } lies
            ? desk.Photos[((PhotoPrint)desk.Content.Find(lies.PieceId)!).PhotoId].FileName
            : null;

    private static PocketPlace Place(UnitDesk desk, string code) =>
        desk.Pages.Pockets.First(p => p.Code == $"W19 {code}").Place;

    [Fact]
    public void A_mirrored_page_has_its_left_column_at_the_right_and_mirrored_twice_is_as_it_was()
    {
        var desk = Filled("9x12-nine-3x4", "6x8-full", 7);
        var mirror = new MirrorPage(Desks.Left, LeafSide.Back) { Revision = 0 };
        var once = Desks.After(desk, mirror, Tools);
        new[] { "L1", "L2", "L3", "L7", "L9" }
            .Select(c => At(once, c))
            .ShouldBe(["3.jpg", "2.jpg", "1.jpg", null, "7.jpg"]);
        Desks
            .After(once, mirror, Tools)
            .Content.Placements.ToHashSet()
            .SetEquals(desk.Content.Placements)
            .ShouldBeTrue();
        var full = new MirrorPage(Desks.Right, LeafSide.Front) { Revision = 0 };
        Should.Throw<RuleException>(() => full.Apply(desk, Tools)).Message.ShouldContain("nothing to mirror");
    }

    [Fact]
    public void Rows_of_the_same_pockets_change_places_and_rows_of_other_pockets_do_not()
    {
        var desk = Filled("9x12-nine-3x4", "9x12-rows-6x4-3x4", 9);
        var swap = new SwapRows(Place(desk, "L1"), Place(desk, "L8")) { Revision = 0 };
        var (content, done, _) = swap.Apply(desk, Tools);
        var once = desk with { Content = content };
        done.ShouldBe("Swapped the rows of W19 L1 and W19 L8");
        Enumerable
            .Range(1, 9)
            .Select(i => At(once, $"L{i}"))
            .ShouldBe(["7.jpg", "8.jpg", "9.jpg", "4.jpg", "5.jpg", "6.jpg", "1.jpg", "2.jpg", "3.jpg"]);
        Desks.After(once, swap, Tools).Content.Placements.ToHashSet().SetEquals(desk.Content.Placements).ShouldBeTrue();

        var same = new SwapRows(Place(desk, "L1"), Place(desk, "L3")) { Revision = 0 };
        Should.Throw<RuleException>(() => same.Apply(desk, Tools)).Message.ShouldContain("lie in one row");
        var other = new SwapRows(Place(desk, "L1"), Place(desk, "R1")) { Revision = 0 };
        Should.Throw<RuleException>(() => other.Apply(desk, Tools)).Message.ShouldContain("different sizes");
    }

    [Fact]
    public void A_picture_over_several_pockets_is_not_torn_apart()
    {
        var desk = Filled("9x12-nine-3x4", "6x8-full", 1);
        desk = Desks.After(
            desk,
            new PutSpan(Desks.Id(1), [Place(desk, "L1"), Place(desk, "L2")]) { Revision = 0 },
            Tools
        );
        Should
            .Throw<RuleException>(() => new MirrorPage(Desks.Left, LeafSide.Back) { Revision = 0 }.Apply(desk, Tools))
            .Message.ShouldContain("torn apart");
        var gone = Desks.After(desk, new TakeOutAll([Place(desk, "L1"), Place(desk, "L2")]) { Revision = 0 }, Tools);
        gone.Content.Placements.ShouldBeEmpty();
    }

    [Fact]
    public void Pockets_are_locked_together_and_empty_ones_are_passed_over()
    {
        var desk = Filled("9x12-nine-3x4", "6x8-full", 3);
        desk = Desks.After(desk, new LockPockets(false) { Revision = 0 }, Tools);
        desk.Content.Placements.ShouldAllBe(p => !p.Locked);
        var some = new LockPockets(true, [Place(desk, "L1"), Place(desk, "L9")]) { Revision = 0 };
        some.Apply(desk, Tools).Done.ShouldBe("Locked 1 pocket");
        var none = new LockPockets(true, [Place(desk, "L9")]) { Revision = 0 };
        Should.Throw<RuleException>(() => none.Apply(desk, Tools)).Message.ShouldContain("nothing to lock");
    }

    [Fact]
    public void Units_placed_by_rules_have_the_title_first_the_series_in_its_pocket_and_cards_to_write_on()
    {
        var photos = Enumerable
            .Range(1, 12)
            .Select(i => Spreads.Photo(i, 3000, 4000, i % 7) with { SeriesId = i == 8 ? Desks.Id(77) : null });
        var desk = Spreads.Desk("9x12-nine-3x4", "9x12-nine-3x4", photos);
        var rules = new StretchRules
        {
            TitleFirst = true,
            Words = 2,
            Series = [new SeriesPocket(Desks.Id(77), "R3")],
        };
        var done = Desks.After(desk, new PlaceByRules(false, rules) { Revision = 0 }, Tools);
        done.Content.Find(done.Content.At(Place(done, "L1"))!.Value.PieceId)
            .ShouldBeOfType<Card>()
            .Kind.ShouldBe(CardKind.WeekTitle);
        At(done, "R3").ShouldBe("8.jpg");
        done.Content.Pieces.OfType<Card>().Count(c => c.Kind == CardKind.Journaling).ShouldBe(2);
        done.Content.Placements.Length.ShouldBe(15);

        // What is locked stays; the rest is placed again, with no second title and no further cards.
        var locked = Desks.After(
            done,
            new LockPockets(true, [Place(done, "L2"), Place(done, "R3")]) { Revision = 0 },
            Tools
        );
        var (was, again) = (
            locked.Content.At(Place(locked, "L2")),
            Desks.After(locked, new PlaceByRules(true, rules) { Revision = 0 }, Tools)
        );
        again.Content.At(Place(again, "L2")).ShouldBe(was);
        At(again, "R3").ShouldBe("8.jpg");
        again.Content.Pieces.OfType<Card>().Count().ShouldBe(3);

        var full = Filled("6x8-full", "6x8-full", 2);
        Should
            .Throw<RuleException>(() => new PlaceByRules(false, new StretchRules()) { Revision = 0 }.Apply(full, Tools))
            .Message.ShouldContain("nothing to place");
        var twice = rules with { Series = [new(Desks.Id(77), "R3"), new(Desks.Id(78), "R3")] };
        Should
            .Throw<RuleException>(() => new PlaceByRules(false, twice) { Revision = 0 }.Apply(desk, Tools))
            .Message.ShouldContain("one pocket");
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void A_card_that_is_kept_beside_a_picture_touches_it_whatever_else_counts()
    {
        for (var seed = 1; seed <= 40; seed++)
        {
            var desk = Spreads.Random(seed, "9x12-nine-3x4", "9x12-nine-3x4", 17);
            desk = Desks.After(desk, new AddCard(CardKind.Journaling, "Rain all day.") { Revision = 0 }, Tools);
            var card = desk.Content.Pieces.OfType<Card>().Single();
            var photo = desk.Photos.Keys.ElementAt(seed % 17);
            desk = Desks.After(desk, new PairCard(card.Id, photo) { Revision = 0 }, Tools);
            var laid = Spreads.Laid(desk);
            var (words, picture) = (
                laid.Single(l => l.Value == card.Id).Key,
                laid.SingleOrDefault(l => l.Value == photo).Key
            );
            if (picture is null)
            {
                continue;
            }

            var pockets = DeskQuestion.PocketsOf(desk);
            DeskQuestion
                .NeighboursOf(pockets)
                .Any(n =>
                    (pockets[n.First].Code, pockets[n.Second].Code) == (words, picture)
                    || (pockets[n.First].Code, pockets[n.Second].Code) == (picture, words)
                )
                .ShouldBeTrue($"{seed}: {words} and {picture}");
        }
    }

    [Fact]
    public void The_cards_of_a_story_stay_beside_the_pictures_it_names()
    {
        var desk = Desks.Week(3);
        var story = new AlbumStory(Desks.Id(90), 1)
        {
            Words = string.Join(' ', Enumerable.Repeat("We walked along the river.", 40)),
            Days = [Desks.Monday],
            Pictures = ["2.JPG", "gone.jpg", "3.jpg"],
        };
        var cards = StoryOnCards.Over(desk, story, 3, Desks.Tools()).Content.CardsOf(story.Id);
        cards.Select(c => c.PairedWith).ShouldBe([Desks.Id(2), Desks.Id(3), null]);
        // Set again, a card keeps the picture that the keeper gave it.
        var own = desk with
        {
            Content = desk.Content with { Pieces = [.. cards.Select(c => c with { PairedWith = Desks.Id(1) })] },
        };
        StoryOnCards.Again(own, story, Desks.Tools()).CardsOf(story.Id).ShouldAllBe(c => c.PairedWith == Desks.Id(1));
    }
}
