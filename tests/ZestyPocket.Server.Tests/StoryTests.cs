using System.Net.Http.Json;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>Stories: written, brought along, measured, and set on cards that follow them.</summary>
public sealed class StoryTests
{
    private static readonly LocalDate Wednesday = new(2026, 5, 6);
    private static readonly string Long = string.Join(
        ' ',
        Enumerable.Range(0, 90).Select(i => i % 9 == 8 ? "marmalade." : "kettle")
    );

    private static Task<List<StoryView>> StoriesAsync(TestHost host, Guid album, Guid unit) =>
        host.GetAsync<List<StoryView>>($"/api/albums/{album}/stories?unitId={unit}");

    private static string OnCards(UnitView week, Guid story) =>
        string.Join(' ', week.LooseCards.Where(p => p.StoryId == story).Select(p => p.Words)).Trim();

    /// <summary>A story stood at every hour once, and was written over from another one.</summary>
    [Fact]
    public async Task In_an_album_by_the_hour_a_story_is_told_at_its_own_hour()
    {
        await using var host = await TestHost.StartAsync();
        var day = new LocalDate(2026, 6, 21);
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "One day",
                day,
                1,
                ["6x8-four-3x4"],
                MeasureSystem.Inches,
                Kind: AlbumKind.DocumentedDay
            )
        );
        var (seven, eight) = (await host.OpenAsync(album.Units[0].Id), await host.OpenAsync(album.Units[1].Id));
        (seven.Hour, eight.Hour, eight.Hours.Count).ShouldBe((7, 8, album.Units.Count));
        await host.EditStoriesAsync(album.Id, new NewStory("Coffee.", Days: [day], Hour: 8));
        await host.EditStoriesAsync(album.Id, new NewStory("The whole day.", Days: [day]));
        (await StoriesAsync(host, album.Id, seven.Id)).Single().Words.ShouldBe("The whole day.");
        var coffee = (await StoriesAsync(host, album.Id, eight.Id)).Single();
        (coffee.Words, coffee.UnitId, coffee.Hour).ShouldBe(("Coffee.", eight.Id, 8));

        (await host.GetAsync<List<FoundView>>($"/api/albums/{album.Id}/find?words=Coffee"))
            .Single(f => f.Kind == FoundKind.Story)
            .UnitId.ShouldBe(eight.Id);
        // Words for a card of an hour, as a contributor sends them, tell of that hour too.
        var nine = await host.OpenAsync(album.Units[2].Id);
        nine = await host.EditAsync(nine, new AddCard(CardKind.Journaling, "") { Revision = nine.Revision });
        var told = await host.EditStoriesAsync(
            album.Id,
            new NewStoryOnCard(nine.LooseCards.Single().Id, "Toast.", "Oma")
            {
                UnitId = nine.Id,
                Revision = nine.Revision,
            }
        );
        (await StoriesAsync(host, album.Id, nine.Id)).Single().Hour.ShouldBe(9);
        await host.PostAsync<object>($"/api/edits/{told.EditId}/undo", new { });

        var moved = await host.EditStoriesAsync(
            album.Id,
            new DateStory([day], 9) { StoryId = coffee.Id, Revision = coffee.Revision }
        );
        (await StoriesAsync(host, album.Id, eight.Id)).ShouldBeEmpty();
        (await StoriesAsync(host, album.Id, album.Units[2].Id)).Single().Id.ShouldBe(coffee.Id);
        await host.PostAsync<object>($"/api/edits/{moved.EditId}/undo", new { });
        (await StoriesAsync(host, album.Id, eight.Id)).Single().Id.ShouldBe(coffee.Id);
    }

    [Fact]
    public async Task A_story_flows_over_its_cards_and_they_follow_every_change_of_it()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        var made = await host.EditStoriesAsync(album.Id, new NewStory(Long, "Jam", [Wednesday]));
        var story = (await StoriesAsync(host, album.Id, week)).Single();
        (story.Id, story.WordCount, story.UnitId, story.DayLabel).ShouldBe(
            (made.StoryId!.Value, 90, week, "Wed 6 May")
        );

        var unit = await host.OpenAsync(week);
        await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story.Id, 2, "plain-sans") { UnitId = week, Revision = unit.Revision }
        );
        unit = await host.OpenAsync(week);
        OnCards(unit, story.Id).ShouldBe(Long);
        unit.LooseCards.Select(c => c.Fit!.SizePt).Distinct().Count().ShouldBe(1, "one size for all cards of a story");

        // Half the words: the cards change with them, in the same edit, and one undo brings both back.
        var half = Long[..(Long.Length / 2)].Trim();
        await host.EditStoriesAsync(album.Id, new WriteStory(half) { StoryId = story.Id, Revision = story.Revision });
        unit = await host.OpenAsync(week);
        OnCards(unit, story.Id).ShouldBe(half);
        unit = await host.StepAsync(unit, "undo");
        OnCards(unit, story.Id).ShouldBe(Long);
        (await StoriesAsync(host, album.Id, week)).Single().Words.ShouldBe(Long);

        // On the card itself they cannot drift away from the story.
        var card = unit.LooseCards.First(c => c.StoryId == story.Id);
        var refused = await host.Client.PostAsJsonAsync<UnitEdit>(
            $"/api/units/{week}/edits",
            new WriteCard(PieceId: card.Id, Words: "other") { Revision = unit.Revision },
            TestHost.Json
        );
        (await refused.Content.ReadAsStringAsync()).ShouldContain("flow here from a story");

        // Too few cards: what finds no room stays on the last and is told.
        var once = await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story.Id, 1, "note-hand") { UnitId = week, Revision = unit.Revision }
        );
        unit = await host.OpenAsync(week);
        OnCards(unit, story.Id).ShouldBe(Long);
        unit.LooseCards.Count(c => c.StoryId == story.Id).ShouldBe(1);
        once.Changes.Count.ShouldBe(unit.LooseCards[0].Fit!.WordsOver > 0 ? 1 : 0);
    }

    [Fact]
    public async Task Stories_are_parted_joined_moved_and_thrown_away_and_all_of_it_can_be_undone()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        await host.EditStoriesAsync(album.Id, new NewStory("We planted beans. It rained.", Days: [Wednesday]));
        var story = (await StoriesAsync(host, album.Id, week)).Single();
        var rest = await host.EditStoriesAsync(
            album.Id,
            new SplitStory(17) { StoryId = story.Id, Revision = story.Revision }
        );
        (await StoriesAsync(host, album.Id, week)).Select(s => s.Words).ShouldBe(["We planted beans.", "It rained."]);

        story = (await StoriesAsync(host, album.Id, week))[0];
        await host.EditStoriesAsync(
            album.Id,
            new MergeStories(rest.StoryId!.Value) { StoryId = story.Id, Revision = story.Revision }
        );
        (await StoriesAsync(host, album.Id, week)).Select(s => s.Words).ShouldBe(["We planted beans.\n\nIt rained."]);

        // To another week: it is no longer this one's.
        story = (await StoriesAsync(host, album.Id, week))[0];
        await host.EditStoriesAsync(
            album.Id,
            new DateStory([new LocalDate(2026, 5, 13)]) { StoryId = story.Id, Revision = story.Revision }
        );
        (await StoriesAsync(host, album.Id, week)).ShouldBeEmpty();
        story = (await StoriesAsync(host, album.Id, album.Units[1].Id)).Single();

        var answer = await host.EditStoriesAsync(
            album.Id,
            new DeleteStory { StoryId = story.Id, Revision = story.Revision }
        );
        (await StoriesAsync(host, album.Id, album.Units[1].Id)).ShouldBeEmpty();
        await host.PostAsync<StepAnswer>($"/api/edits/{answer.EditId}/undo", new { });
        (await StoriesAsync(host, album.Id, album.Units[1].Id)).Count.ShouldBe(1);

        // On its present revision, but before its first word.
        story = (await StoriesAsync(host, album.Id, album.Units[1].Id)).Single();
        (
            await host.Client.PostAsJsonAsync<StoryEdit>(
                $"/api/albums/{album.Id}/stories/edits",
                new SplitStory(0) { StoryId = story.Id, Revision = story.Revision },
                TestHost.Json
            )
        ).StatusCode.ShouldBe(System.Net.HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_feed_is_taken_once_and_its_posts_land_on_their_days_with_their_pictures()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "garden.jpg", Pictures.Jpeg(800, 600, "2026:05:06 10:00:00"));
        using var feeds = System.Text.Json.JsonDocument.Parse(
            await Node.RunAsync("ZestyPocket.Server.Tests/write-feed.mjs", string.Empty)
        );

        async Task<StoriesArrived> SendAsync(string kind)
        {
            using var content = new StringContent(feeds.RootElement.GetProperty(kind).GetString()!);
            content.Headers.ContentType = new("application/octet-stream");
            var response = await host.Client.PostAsync(
                $"/api/albums/{album.Id}/stories/file?name=feed.{kind}",
                content
            );
            response.EnsureSuccessStatusCode();
            return (await response.Content.ReadFromJsonAsync<StoriesArrived>(TestHost.Json))!;
        }

        var first = await SendAsync("atom");
        (first.Added, first.Known, first.WithoutDay, first.PicturesFound).ShouldBe((2, 0, 0, 1));
        var again = await SendAsync("rss");
        (again.Added, again.Known, again.Done).ShouldBe((0, 2, "Nothing new: every post was here already"));
        var stories = await StoriesAsync(host, album.Id, album.Units[0].Id);
        stories.Count.ShouldBe(2);
        stories.SelectMany(s => s.Pictures).Count().ShouldBe(1);
    }

    [Fact]
    public async Task The_room_for_words_is_told_before_there_is_any_layout()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4");
        var room = await host.PostAsync<RoomForWords>($"/api/units/{album.Units[0].Id}/room", new RoomRequest(Long));
        room.Words.ShouldBe(90);
        room.Summary.ShouldMatch(
            "^90 words: one [36] x 4 in card at [0-9.]+ pt, or one 9 x 12 in page at [0-9.]+ pt\\.$|^90 words: one "
                + "[36]x4( in)? card at [0-9.]+ pt, or one 9x12( in)? page at [0-9.]+ pt\\.$|^90 words: one [36] × "
                + "4 in card at [0-9.]+ pt, or one 9 × 12 in page at [0-9.]+ pt\\.$"
        );
        // 3x4 with 5 mm margins holds 13 lines of 2.6 in: 74 words by hand, so 90 need two.
        room.ByHand.Single(r => r.Size.StartsWith('3')).Cards.ShouldBe(2);
        (
            await host.PostAsync<RoomForWords>($"/api/units/{album.Units[0].Id}/room", new RoomRequest(""))
        ).Summary.ShouldBe("No words yet.");
    }

    [Fact]
    public async Task Computed_cards_follow_the_people_and_the_days_and_findings_are_mended_with_one_edit()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        var words = await host.GetAsync<AlbumWordsView>($"/api/albums/{album.Id}/words");
        await host.EditAlbumAsync(
            album.Id,
            new SetPeople([new("Junie", new LocalDate(2019, 5, 4)), new("Otto", null)]) { Revision = words.Revision }
        );
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.People) { Revision = 0 }
        );
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "On Sunday 3 May Junei  ran. Junie’s kettel. Otto’s.")
            {
                Revision = 0,
            }
        );
        unit.LooseCards.Single(c => c.CardKind == CardKind.People).Fit!.WordCount.ShouldBe(3);

        var findings = await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings");
        findings
            .Select(f => (f.Kind, f.Found, f.Mend))
            .ShouldBe([
                (WordFindingKind.WrongDate, "Sunday 3 May", null),
                (WordFindingKind.NameSpeltTwoWays, "Junei", "Junie"),
                (WordFindingKind.DoubleSpace, "  ", " "),
                (WordFindingKind.Spelling, "kettel", "kettle"),
            ]);
        var name = findings[1];
        unit = await host.EditAsync(
            unit,
            new WriteCard(PieceId: name.PieceId, Words: name.MendedWords) { Revision = 0 }
        );
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).ShouldNotContain(f =>
            f.Kind == WordFindingKind.NameSpeltTwoWays
        );

        // A word the keeper calls right is right from then on; Americans have their own dictionary.
        await host.EditAlbumAsync(album.Id, new SetKnownWords(["kettel"]) { Revision = TestHost.Latest });
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).ShouldNotContain(f =>
            f.Kind == WordFindingKind.Spelling
        );
        unit = await host.EditAsync(
            await host.OpenAsync(week),
            new WriteCard(PieceId: name.PieceId, Words: "The colour of the harbour.") { Revision = 0 }
        );
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).ShouldBeEmpty();
        await host.EditAlbumAsync(
            album.Id,
            new WriteDates(Core.Dates.DateOrder.MonthDay, Core.Dates.HourClock.TwentyFour)
            {
                Revision = TestHost.Latest,
            }
        );
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings"))
            .Select(f => f.Found)
            .ShouldBe(["colour", "harbour"]);
    }

    [Fact]
    public async Task A_card_written_by_hand_prints_lines_and_its_words_stand_on_the_cue_sheet()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var week = album.Units[0].Id;
        (await host.Client.GetAsync($"/api/units/{week}/cue-sheet")).IsSuccessStatusCode.ShouldBeFalse(
            "there is nothing to write yet"
        );
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.Journaling, Words: Long, StyleKey: "typewriter") { Revision = 0 }
        );
        var card = unit.LooseCards[0];
        unit = await host.EditAsync(
            unit,
            new WriteCard(PieceId: card.Id, Words: Long, Setting: new CardSetting(ByHand: true)) { Revision = 0 }
        );
        // 3x4 with 5 mm margins: 13 lines of 2.6 in at 2.2 words an inch hold 74 of the 90 words.
        unit.LooseCards[0].Fit!.Verdict.ShouldBe("By hand: 16 of 90 words too many for 13 lines.");
        var face = await host.Client.GetByteArrayAsync(unit.LooseCards[0].FaceUrl);
        face.Length.ShouldBeGreaterThan(500);

        using var pdf = UglyToad.PdfPig.PdfDocument.Open(
            await host.Client.GetByteArrayAsync($"/api/units/{week}/cue-sheet")
        );
        var text = string.Concat(pdf.GetPages().SelectMany(p => p.Letters).Select(l => l.Value))
            .Replace(" ", "", StringComparison.Ordinal);
        text.ShouldContain("Whattowritewhere:Week19");
        text.ShouldContain("13lines:");
        text.Split("marmalade.").Length.ShouldBe(11);
    }
}
