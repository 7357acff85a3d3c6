using NodaTime;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// What an album knows about its words: its own styles, the keeper's hand, letters, notes from the way, words on
/// pictures.
/// </summary>
public sealed class AlbumWordsTests
{
    private static readonly LocalDate Wednesday = new(2026, 5, 6);
    private static readonly string Long = string.Join(
        ' ',
        Enumerable.Range(0, 150).Select(i => i % 9 == 8 ? "marmalade." : "kettle")
    );

    private static Task<AlbumWordsView> WordsAsync(TestHost host, Guid album) =>
        host.GetAsync<AlbumWordsView>($"/api/albums/{album}/words");

    private static string OnCards(UnitView week) =>
        string.Join(' ', week.LooseCards.Where(p => p.StoryId is not null).Select(p => p.Words)).Trim();

    [Fact]
    public async Task A_style_of_ones_own_dresses_cards_and_its_story_is_set_anew_when_it_changes()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var words = await WordsAsync(host, album.Id);
        var mine = StyleText.Of(BuiltInCardStyles.All.Single(s => s.Key == "plain-sans")) with
        {
            Key = "",
            Name = "Mine",
            Family = "Kitchen",
            LargestPt = 9,
        };
        await host.EditAlbumAsync(album.Id, new WriteStyle(mine) { Revision = words.Revision });
        var own = (await WordsAsync(host, album.Id)).Styles.Single(s => s.Own);
        var key = own.Key;
        (own.Name, own.Family, own.LargestPt, own.Role).ShouldBe(("Mine", "Kitchen", 9, mine.Role));
        await host.EditAlbumAsync(album.Id, new ChooseFamily("Kitchen") { Revision = TestHost.Latest });

        // New cards take it, stories too.
        var week = album.Units[0].Id;
        (await host.EditAsync(await host.OpenAsync(week), new AddCard(CardKind: CardKind.Journaling) { Revision = 0 }))
            .LooseCards.Single()
            .StyleKey.ShouldBe(key);
        var story = (await host.EditStoriesAsync(album.Id, new NewStory(Long, "", [Wednesday]))).StoryId!.Value;
        await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story, 3) { UnitId = week, Revision = (await host.OpenAsync(week)).Revision }
        );
        var before = await host.OpenAsync(week);
        before.LooseCards.ShouldAllBe(c => c.StyleKey == key);
        OnCards(before).ShouldBe(Long);
        before.LooseCards.Where(c => c.StoryId is not null).ShouldAllBe(c => c.Day == Wednesday);

        // Twice the size: the same words part in other places, in the same edit; one undo brings both back.
        words = await WordsAsync(host, album.Id);
        var changed = await host.EditAlbumAsync(
            album.Id,
            new WriteStyle(mine with { Key = key, SmallestPt = 11, LargestPt = 12, MarginMm = 8 })
            {
                Revision = words.Revision,
            }
        );
        var after = await host.OpenAsync(week);
        OnCards(after).ShouldBe(Long);
        after
            .LooseCards.Where(c => c.StoryId is not null)
            .Select(c => c.Words)
            .ShouldNotBe(before.LooseCards.Where(c => c.StoryId is not null).Select(c => c.Words));
        after.LooseCards.First(c => c.StoryId is not null).Fit!.SizePt.ShouldBeGreaterThanOrEqualTo(11);
        await host.PostAsync<object>($"/api/edits/{changed.EditId}/undo", new { });
        (await host.OpenAsync(week))
            .LooseCards.Where(c => c.StoryId is not null)
            .Select(c => c.Words)
            .ShouldBe(before.LooseCards.Where(c => c.StoryId is not null).Select(c => c.Words));

        // Thrown away, its cards keep their words and take another style.
        words = await WordsAsync(host, album.Id);
        await host.EditAlbumAsync(album.Id, new DeleteStyle(key) { Revision = words.Revision });
        var left = await host.OpenAsync(week);
        OnCards(left).ShouldBe(Long);
        left.LooseCards.ShouldAllBe(c => c.StyleKey != key);
        (await WordsAsync(host, album.Id)).Family.ShouldBe(BuiltInCardStyles.NewAlbumFamily);

        // What makes no sense is said, and nothing is changed.
        words = await WordsAsync(host, album.Id);
        foreach (
            var wrong in new[]
            {
                mine with
                {
                    Leading = 9,
                },
                mine with
                {
                    Ink = "red",
                },
                mine with
                {
                    MarginMm = double.MaxValue,
                },
                mine with
                {
                    Name = "",
                },
            }
        )
        {
            (await host.AlbumEditRefusedAsync(422, album.Id, new WriteStyle(wrong) { Revision = words.Revision }))[
                "detail"
            ]!
                .GetValue<string>()
                .ShouldContain("Nothing was changed");
        }

        (await host.AlbumEditRefusedAsync(409, album.Id, new ChooseFamily("Slate") { Revision = words.Revision - 1 }))[
            "detail"
        ]!
            .GetValue<string>()
            .ShouldNotBeEmpty();
        (await WordsAsync(host, album.Id)).Revision.ShouldBe(words.Revision);
    }

    [Fact]
    public async Task A_measured_hand_says_how_many_cards_a_story_by_hand_needs()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        var story = (await host.EditStoriesAsync(album.Id, new NewStory(Long, "", [Wednesday]))).StoryId!.Value;
        var room = await host.PostAsync<RoomForWords>($"/api/units/{week}/room", new RoomRequest(Long));
        // 13 lines of 2.6 in at 2.2 words: 74 words on a 3x4 card.
        room.ByHand.Single(r => r.Size.StartsWith('3')).Cards.ShouldBe(3);
        await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story, 3, ByHand: true)
            {
                UnitId = week,
                Revision = (await host.OpenAsync(week)).Revision,
            }
        );
        var byHand = await host.OpenAsync(week);
        OnCards(byHand).ShouldBe(Long);
        byHand.LooseCards.ShouldAllBe(c =>
            c.Setting!.ByHand && c.Fit!.WordsOver == 0 && c.Fit.Verdict.StartsWith("By hand: 50 words")
        );

        // A hand twice as small: 40 words on 4 lines of 2 in are 5 to the inch.
        var words = await WordsAsync(host, album.Id);
        var hand = new MeasureHand(string.Join(' ', Enumerable.Repeat("jam", 40)), 4, "2 in", "6 mm")
        {
            Revision = words.Revision,
        };
        await host.EditAlbumAsync(album.Id, hand);
        (await WordsAsync(host, album.Id)).Hand.ShouldBe(new HandView(5, 6));
        (await host.PostAsync<RoomForWords>($"/api/units/{week}/room", new RoomRequest(Long)))
            .ByHand.Single(r => r.Size.StartsWith('3'))
            .Cards.ShouldBe(1);
        words = await WordsAsync(host, album.Id);
        foreach (
            var wrong in new[]
            {
                hand with
                {
                    Text = "",
                },
                hand with
                {
                    LineWidth = "two",
                },
                hand with
                {
                    Text = "jam",
                    Pitch = "1 mm",
                },
            }
        )
        {
            await host.AlbumEditRefusedAsync(422, album.Id, wrong with { Revision = words.Revision });
        }
    }

    [Fact]
    public async Task Letters_are_counted_down_and_put_back()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var url = $"/api/albums/{album.Id}/words";
        await host.EditAlbumAsync(
            album.Id,
            new AddSheet("Cork", "M1 A2 Y1 W1 E2 K1 1 9 ,1", Reusable: false) { Revision = TestHost.Latest }
        );
        var sheet = (await WordsAsync(host, album.Id)).Sheets.Single();
        var tried = await host.GetAsync<TitleTry>(
            $"{url}/title?title={Uri.EscapeDataString("May's week")}&unitId={album.Units[0].Id}"
        );
        (tried.Sheets[0].Can, tried.Sheets[0].WithStandIns).ShouldBe((false, null));
        tried.Sheets[0].Missing.ShouldBe(["1 × '", "1 × S"]);
        tried.Others.ShouldBe(["Week 19", "May", "19"]);

        var spell = new SpellTitle(sheet.Id, "May", Wednesday) { Revision = TestHost.Latest };
        var spelt = await host.EditAlbumAsync(album.Id, spell);
        (await WordsAsync(host, album.Id)).Sheets.Single().Left.ShouldBe("A1 E2 K1 W1 ,1 11 91");
        await host.AlbumEditRefusedAsync(422, album.Id, spell);
        await host.PostAsync<object>($"/api/edits/{spelt.EditId}/undo", new { });
        (await WordsAsync(host, album.Id)).Sheets.Single().Spelt.ShouldBeEmpty();

        // A sheet that is counted anew must still have what was spelt from it.
        await host.EditAlbumAsync(album.Id, spell);
        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new CountSheet(sheet.Id, "Cork", "Y9", false) { Revision = TestHost.Latest }
        );
        var view = await WordsAsync(host, album.Id);
        await host.EditAlbumAsync(
            album.Id,
            new UnspellTitle(sheet.Id, view.Sheets[0].Spelt[0].Id) { Revision = view.Revision }
        );
        (await WordsAsync(host, album.Id)).Sheets.Single().Left.ShouldBe(sheet.Letters);
    }

    [Fact]
    public async Task A_note_from_the_way_lands_on_its_day_and_after_midnight_on_the_evening_before()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var noted = await host.EditAlbumAsync(
            album.Id,
            new JotNote("“It is resting.” Otto", "2026-05-07T01:10", NoteKind.Overheard)
        );
        (noted.UnitId, noted.Done).ShouldBe((album.Units[0].Id, "Noted for Wed 6 May"));
        await host.EditAlbumAsync(album.Id, new JotNote("Ice cream 2.40", "2026-05-11T15:00", NoteKind.Price));
        (await host.OpenAsync(album.Units[0].Id))
            .Notes.Select(n => (n.Day, n.Kind))
            .ShouldBe([(Wednesday, NoteKind.Overheard)]);
        (await host.OpenAsync(album.Units[1].Id))
            .Notes.Select(n => (n.Text, n.Time))
            .ShouldBe([("Ice cream 2.40", "15:00")]);
        (await RefusedAsync("Too early", "2025-12-24T15:00")).ShouldContain("no place for Wed 24 Dec");
        (await RefusedAsync("When?", "noon")).ShouldContain("not a date and time");
        (await RefusedAsync("  ", "2026-05-07T12:00")).ShouldContain("characters");
        await host.PostAsync<object>($"/api/edits/{noted.EditId}/undo", new { });
        (await host.OpenAsync(album.Units[0].Id)).Notes.ShouldBeEmpty();

        async Task<string> RefusedAsync(string text, string at) =>
            (await host.AlbumEditRefusedAsync(422, album.Id, new JotNote(text, at, NoteKind.Plain)))[
                "detail"
            ]!.GetValue<string>();
    }

    [Fact]
    public async Task The_words_of_several_weeks_say_what_is_missing()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.WeekTitle) { Revision = 0 }
        );
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "The kettel boiled.") { Revision = 0 }
        );
        unit = await host.EditAsync(unit, new AddCard(CardKind: CardKind.Journaling) { Revision = 0 });
        await host.EditAsync(unit, new FillSpread { Revision = 0 });
        await host.EditStoriesAsync(
            album.Id,
            new NewStory("Told of both.", "Both", [Wednesday, Wednesday.PlusDays(7)])
        );

        var due = await host.GetAsync<List<UnitWordsView>>($"/api/albums/{album.Id}/words/due?from={week}&count=3");
        due.Count.ShouldBe(3);
        due[0]
            .Missing.ShouldBe([
                "one card without words",
                "“Both” is on no card",
                "one thing to look at before printing",
            ]);
        (due[0].Stories, due[0].Words).ShouldBe((1, 3));
        var misspelt = due[0].Cards.Single(c => c.Problems.Count > 0);
        (misspelt.Piece.Words, misspelt.Code is not null).ShouldBe(("The kettel boiled.", true));
        due[0].Cards[0].Piece.CardKind.ShouldBe(CardKind.WeekTitle);
        due[1].Missing.ShouldBe(["“Both” is on no card", "no title card"]);
        due[2].Missing.ShouldBe(["no words yet", "no title card"]);
        await host.RefusedAsync(422, HttpMethod.Get, $"/api/albums/{album.Id}/words/due?from={week}&count=0", new { });
    }

    [Fact]
    public async Task Stories_change_places_and_a_finding_passed_over_always_is_not_named_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        foreach (var title in new[] { "First", "Second" })
        {
            await host.EditStoriesAsync(album.Id, new NewStory("Words.", title, [Wednesday], People: ["Otto"]));
        }

        var stories = await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories");
        stories.Select(s => s.Title).ShouldBe(["First", "Second"]);
        var swapped = await host.EditStoriesAsync(
            album.Id,
            new SwapStories(stories[0].Id) { StoryId = stories[1].Id, Revision = stories[1].Revision }
        );
        (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories"))
            .Select(s => s.Title)
            .ShouldBe(["Second", "First"]);
        await host.PostAsync<object>($"/api/edits/{swapped.EditId}/undo", new { });
        (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories"))
            .Select(s => s.Title)
            .ShouldBe(["First", "Second"]);

        await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.Journaling, Words: "On Sunday 3 May it rained.") { Revision = 0 }
        );
        var finding = (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).Single();
        var words = await WordsAsync(host, album.Id);
        await host.EditAlbumAsync(album.Id, new PassOver([finding.Key]) { Revision = words.Revision });
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Words_too_many_for_a_card_flow_on_as_a_story_and_two_short_ones_are_joined()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.Journaling, Words: $"{Long} {Long} {Long}", StyleKey: "reading-serif")
            {
                Revision = 0,
            }
        );
        var card = unit.LooseCards.Single();
        var fit = await host.PostAsync<FitAnswer>(
            "/api/fit",
            new FitRequest(card.Words!, "reading-serif", week, card.Id)
        );
        fit.FlowsOn.ShouldNotBeNull().ShouldMatch("^(two|three) cards at [0-9.]+ pt$");
        await host.EditStoriesAsync(album.Id, new FlowOn(card.Id) { UnitId = week, Revision = unit.Revision });
        unit = await host.OpenAsync(week);
        OnCards(unit).ShouldBe(card.Words);
        unit.LooseCards.ShouldAllBe(c => c.Fit!.WordsOver == 0);
        unit.LooseCards.Count.ShouldBe(fit.FlowsOn!.StartsWith("two", StringComparison.Ordinal) ? 2 : 3);
        unit = await host.StepAsync(unit, "undo");
        (unit.LooseCards.Single().Words, unit.LooseCards[0].StoryId).ShouldBe((card.Words, null));
        (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).ShouldBeEmpty();

        var other = album.Units[1].Id;
        unit = await host.EditAsync(
            await host.OpenAsync(other),
            new AddCard(CardKind: CardKind.Journaling, Words: "Rain.") { Revision = 0 }
        );
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "Then sun.") { Revision = 0 }
        );
        var (rain, sun) = (
            unit.LooseCards.Single(c => c.Words == "Rain."),
            unit.LooseCards.Single(c => c.Words == "Then sun.")
        );
        var joins = (
            await host.PostAsync<FitAnswer>("/api/fit", new FitRequest("Rain.", rain.StyleKey!, other, rain.Id))
        ).Joins;
        joins.Single().PieceId.ShouldBe(sun.Id);
        unit = await host.EditAsync(unit, new JoinCards(PieceId: rain.Id, OtherId: sun.Id) { Revision = 0 });
        unit.LooseCards.Single().Words.ShouldBe("Rain.\n\nThen sun.");
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{other}/edits",
            new JoinCards(PieceId: rain.Id, OtherId: sun.Id) { Revision = unit.Revision }
        );
    }

    [Fact]
    public async Task Words_on_a_picture_lie_in_its_quiet_part_and_a_print_that_moves_is_looked_at_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = album.Units[0].Id;
        await host.AddAsync(album.Id, "2026-05-06 10.00.00.png", Pictures.HalfQuiet(1800, 1200));
        var unit = await host.EditAsync(await host.OpenAsync(week), new FillSpread { Revision = 0 });
        var print = unit
            .Faces.SelectMany(f => f.Pockets)
            .Select(p => p.Piece)
            .OfType<PieceView>()
            .Single(p => p.Kind == PieceKind.Photo);
        var found = await host.PostAsync<CaptionAnswer>(
            $"/api/units/{week}/pieces/{print.Id}/caption",
            new CaptionRequest("First swim", Large: true, Typeface.Display)
        );
        (found.WantsLabel, found.Caption.Ink).ShouldBe((false, PhotoWords.Dark.ToString()));
        found.Contrast.ShouldBeGreaterThan(10);
        // The upper half is plain and light, the lower half is a chequer.
        found.Caption.Y.ShouldBeLessThan(0.5);

        unit = await host.EditAsync(unit, new CaptionPhoto(PieceId: print.Id, Caption: found.Caption) { Revision = 0 });
        print = unit
            .Faces.SelectMany(f => f.Pockets)
            .Select(p => p.Piece)
            .OfType<PieceView>()
            .Single(p => p.Kind == PieceKind.Photo);
        print.Caption.ShouldBe(found.Caption);
        print.FaceUrl.ShouldNotBeNull();
        (
            await host.Client.GetAsync(new Uri(print.FaceUrl!, UriKind.Relative))
        ).Content.Headers.ContentType!.MediaType.ShouldBe("image/png");
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings")).ShouldBeEmpty();

        // Onto the chequer: nobody could read them there, and the program says so.
        unit = await host.EditAsync(
            unit,
            new CaptionPhoto(PieceId: print.Id, Caption: found.Caption with { Y = 0.7 }) { Revision = 0 }
        );
        (await host.GetAsync<List<FindingView>>($"/api/units/{week}/words/findings"))
            .Single()
            .Says.ShouldContain("hard to read");
        var labelled = await host.PostAsync<CaptionAnswer>(
            $"/api/units/{week}/pieces/{print.Id}/caption",
            new CaptionRequest("First swim", false, Typeface.Sans, Label: true)
        );
        (labelled.WantsLabel, labelled.Caption.Label is not null).ShouldBe((false, true));
        unit = await host.EditAsync(unit, new CaptionPhoto(PieceId: print.Id) { Revision = 0 });
        unit.Faces.SelectMany(f => f.Pockets)
            .Select(p => p.Piece)
            .OfType<PieceView>()
            .Single(p => p.Kind == PieceKind.Photo)
            .Caption.ShouldBeNull();
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{week}/pieces/{print.Id}/caption",
            new CaptionRequest(" ", false, Typeface.Sans)
        );
    }
}
