using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Core.Words.Edits;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Stories written, split, merged and set on cards, on values alone. Common practice; no source.</summary>
public sealed class StoryEditTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);
    private static readonly string Long = string.Join(' ', Enumerable.Repeat("We walked along the river.", 40));

    private int _next = 1;

    private EditTools Tools => new(NewId, EvenShaper.Only);

    private Guid NewId() => new($"00000000-0000-7000-8000-{_next++:000000000000}");

    private AlbumStory Story(string words, params LocalDate[] days) =>
        new(NewId(), _next) { Words = words, Days = [.. days] };

    private static StoryDesk Desk(params AlbumStory[] stories) => new([.. stories], stories.Length, null);

    /// <summary>Week 19 on two pages of nine 3x4.</summary>
    private UnitDesk Week()
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!);
        var dates = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday }.FirstUnits(1)[0];
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(
                dates,
                [
                    new UnitFace(NewId(), LeafSide.Back, protector, LeafAlterations.Plain),
                    new UnitFace(NewId(), LeafSide.Front, protector, LeafAlterations.Plain),
                ]
            ),
            dates,
            "Week 19",
            ImmutableDictionary<Guid, DeskPhoto>.Empty,
            AlbumWords.Usual,
            new HashSet<Size>(),
            MeasureSystem.Inches
        )
        {
            Body = protector.Design.Body,
        };
    }

    [Fact]
    public void A_story_is_split_between_two_words_and_merges_back_into_the_same_words()
    {
        var story = Story("We planted beans. It rained.", Monday) with { Author = "Ada", People = ["Otto"] };
        var split = new SplitStory(17) { StoryId = story.Id, Revision = 0 }.Apply(Desk(story), Tools);
        split.Stories.Select(s => s.Words).ShouldBe(["We planted beans.", "It rained."]);
        split.Stories.ShouldAllBe(s => s.Author == "Ada" && s.Days.Single() == Monday && s.People.Single() == "Otto");
        split.StoryId.ShouldBe(split.Stories[1].Id);

        var merged = new MergeStories(split.StoryId) { StoryId = story.Id, Revision = 1 }.Apply(
            Desk([.. split.Stories]),
            Tools
        );
        merged
            .Stories.Select(s => (s.Words, s.Deleted))
            .ShouldBe([("We planted beans.\n\nIt rained.", false), ("It rained.", true)]);

        foreach (var at in new[] { -1, 0, 28, 400 })
        {
            Should
                .Throw<RuleException>(() =>
                    new SplitStory(at) { StoryId = story.Id, Revision = 0 }.Apply(Desk(story), Tools)
                )
                .Message.ShouldContain("between two of its words");
        }

        Should
            .Throw<RuleException>(() =>
                new MergeStories(story.Id) { StoryId = story.Id, Revision = 0 }.Apply(Desk(story), Tools)
            )
            .Message.ShouldContain("with another one");
    }

    [Fact]
    public void Who_a_story_is_signed_by_is_one_clean_line_and_nobody_in_a_list_of_people_is_nobody()
    {
        var story = Story("Soup.").Described("", "", "Ada\0\n", ["Otto", null!, " "]);
        story.Author.ShouldBe("Ada");
        story.People.ShouldBe(["Otto"]);
    }

    [Fact]
    public void A_story_tells_of_its_days_in_order_and_of_no_day_twice()
    {
        var story = Story("Rain.");
        var dated = new DateStory([Monday.PlusDays(2), Monday, Monday]) { StoryId = story.Id, Revision = 0 }.Apply(
            Desk(story),
            Tools
        );
        dated.Stories.Single().Days.ShouldBe([Monday, Monday.PlusDays(2)]);
        dated.Stories[0].ChangesCards(story).ShouldBeFalse();
        Should.Throw<RuleException>(() => story.On([new LocalDate(1700, 1, 1)])).Message.ShouldContain("1800");
        Should.Throw<RuleException>(() => story.Saying(new string('a', 200_001))).Message.ShouldContain("split it");
        Should
            .Throw<RuleException>(() => story.Described(new string('a', 201), "", "", []))
            .Message.ShouldContain("200 characters");
    }

    [Fact]
    public void Two_stories_change_places()
    {
        var (first, second) = (Story("One."), Story("Two."));
        new SwapStories(first.Id) { StoryId = second.Id, Revision = 0 }
            .Apply(Desk(first, second), Tools)
            .Stories.Select(s => (s.Words, s.Ordinal))
            .ShouldBe([("Two.", first.Ordinal), ("One.", second.Ordinal)]);
    }

    [Fact]
    public void A_story_flows_over_its_cards_and_leaves_them_when_it_is_deleted()
    {
        var story = Story(Long, Monday);
        var week = Week();
        var set = new SetStoryOnCards(story.Id, 4) { UnitId = NewId(), Revision = 0 }.Apply(
            new StoryDesk([story], 1, week),
            Tools
        );
        set.Done.ShouldBe("Placed a story on four cards");
        var cards = set.Content!.CardsOf(story.Id);
        string.Join(' ', cards.Select(c => c.Words.Trim())).ShouldBe(Long);
        cards.ShouldAllBe(c => c.Day == Monday);

        // Half the words are set again on the cards it has.
        var half = story.Saying(Long[..(Long.Length / 2)].Trim());
        half.ChangesCards(story).ShouldBeTrue();
        var again = StoryOnCards.Again(week with { Content = set.Content }, half, Tools);
        string.Join(' ', again.CardsOf(story.Id).Select(c => c.Words.Trim())).Trim().ShouldBe(half.Words);

        var deleted = new DeleteStory { StoryId = story.Id, Revision = 0 }
            .Apply(Desk(story), Tools)
            .Stories.Single();
        deleted.ChangesCards(story).ShouldBeTrue();
        StoryOnCards.Again(week with { Content = set.Content }, deleted, Tools).Pieces.ShouldBeEmpty();
    }

    [Fact]
    public void Words_without_room_stay_on_the_last_card_and_are_told()
    {
        var story = Story(string.Join("\n\n", Enumerable.Repeat(Long, 12)), Monday);
        var set = new SetStoryOnCards(story.Id, 1) { UnitId = NewId(), Revision = 0 }.Apply(
            new StoryDesk([story], 1, Week()),
            Tools
        );
        set.Content!.CardsOf(story.Id).Single().Words.ShouldBe(story.Words);
        set.Says.Single().ShouldContain("words have no room");
        foreach (
            var (edit, says) in new (SetStoryOnCards, string)[]
            {
                (new(story.Id, 0) { UnitId = NewId(), Revision = 0 }, "1 to 40 cards"),
                (new(story.Id, 41) { UnitId = NewId(), Revision = 0 }, "1 to 40 cards"),
                (new(story.Id, 1, "no-such") { UnitId = NewId(), Revision = 0 }, "no card style"),
            }
        )
        {
            Should
                .Throw<RuleException>(() => edit.Apply(new StoryDesk([story], 1, Week()), Tools))
                .Message.ShouldContain(says);
        }
    }

    [Fact]
    public void Words_too_many_for_their_card_become_a_story_on_as_many_cards_as_it_needs()
    {
        var week = Week();
        var id = NewId();
        var content = week.Content.AddCard(id, CardKind.Journaling, Long, "plain-sans");
        var flown = new FlowOn(id) { UnitId = NewId(), Revision = 0 }.Apply(
            new StoryDesk([], 7, week with { Content = content }),
            Tools
        );
        var story = flown.Stories.Single();
        (story.Ordinal, story.Words, story.Days.Single()).ShouldBe((8, Long, Monday));
        var cards = flown.Content!.CardsOf(story.Id);
        cards.Length.ShouldBeGreaterThan(1);
        cards[0].Id.ShouldBe(id, "the card itself carries the beginning");
        string.Join(' ', cards.Select(c => c.Words.Trim())).ShouldBe(Long);
        flown.Done.ShouldBe($"Let words flow over {NumberWords.Of(cards.Length)} cards");
    }

    [Fact]
    public void A_post_comes_in_once_and_a_deleted_one_comes_back_when_it_is_brought_again()
    {
        ArrivedStory Post(string source, string words) => new("", words, Monday, "Ada", source, ["boat.jpg"]);
        var first = ArrivingStories.Into([], [Post("a", "One."), Post("b", "Two."), Post("a", "One.")], NewId);
        (first.Done, first.Passed, first.Stories.Length).ShouldBe(("Imported 2 stories", 1, 2));
        first.Stories.Select(s => s.Ordinal).ShouldBe([1, 2]);
        first.Pictures.ShouldBe(["boat.jpg"]);

        AlbumStory[] here = [first.Stories[0], first.Stories[1] with { Deleted = true }];
        var again = ArrivingStories.Into(here, [Post("a", "One."), Post("b", "Two.")], NewId);
        (again.Passed, again.Stories.Single().Id).ShouldBe((1, first.Stories[1].Id));
        again.InWords().ShouldBe("Imported 1 story; 1 was here already");
        ArrivingStories.Into(first.Stories, [Post("a", "One.")], NewId).InWords().ShouldStartWith("Nothing new");
    }

    [Fact]
    public void The_same_plain_words_on_another_day_are_another_story()
    {
        ArrivedStory Rest(int day) => new("", "Rest day.", Monday.PlusDays(day), "", null, []);
        var first = ArrivingStories.Into([], [Rest(0), Rest(2), Rest(2)], NewId);
        (first.Stories.Length, first.Passed).ShouldBe((2, 1));
        ArrivingStories.Into(first.Stories, [Rest(0), Rest(2)], NewId).Stories.ShouldBeEmpty();
    }

    [Fact]
    public void The_room_for_words_is_told_in_the_pockets_there_are_and_as_a_page()
    {
        var room = RoomForWords.In(Week(), Long, null, EvenShaper.Only);
        room.Words.ShouldBe(200);
        room.Typed.Select(r => r.InAlbum).ShouldBe([18, 0]);
        room.Summary.ShouldStartWith("200 words: ");
        // 200 words by hand on cards that hold some of them each: never fewer cards than that.
        var byHand = room.ByHand.Single();
        byHand.Cards.ShouldBeGreaterThan(1);
        RoomForWords.In(Week(), "  ", null, EvenShaper.Only).Summary.ShouldBe("No words yet.");
        Should.Throw<RuleException>(() =>
            RoomForWords.In(Week(), new string('a', AlbumStory.LongestWords + 1), null, EvenShaper.Only)
        );
    }

    [Fact]
    public void Somebody_elses_words_stand_on_the_card_they_were_asked_for_over_as_many_cards_as_they_need()
    {
        var week = Week();
        var card = NewId();
        week = week with { Content = week.Content.AddCard(card, CardKind.Journaling, "", "plain") };
        var words = $"{Long} {Long} {Long}";
        var told = new NewStoryOnCard(card, words, "Oma") { UnitId = NewId(), Revision = 0 }.Apply(
            Desk() with
            {
                Unit = week,
            },
            Tools
        );
        var story = told.Stories.ShouldHaveSingleItem();
        (story.Author, story.Words).ShouldBe(("Oma", words));
        story.Days.ShouldBe([Monday]);
        var cards = told.Content!.CardsOf(story.Id);
        cards.Length.ShouldBeGreaterThan(1);
        cards[0].Id.ShouldBe(card);
        string.Join(' ', cards.Select(c => c.Words)).ShouldBe(words);

        // A card with words of its own keeps them; the story waits.
        week = week with
        {
            Content = week.Content.WriteCard(card, "Mine.", "plain", CardSetting.AsTheStyle),
        };
        var waits = new NewStoryOnCard(card, Long, "Oma") { UnitId = NewId(), Revision = 0 }.Apply(
            Desk() with
            {
                Unit = week,
            },
            Tools
        );
        waits.Content.ShouldBeNull();
        waits.Says.ShouldHaveSingleItem().ShouldContain("waits");
    }
}
