using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>Pieces against pockets, the pages that hold it all, and leaves that come and go.</summary>
public sealed class CountTests
{
    private static readonly LocalDate Wednesday = new(2026, 5, 6);

    private static Task<CountView> CountAsync(TestHost host, Guid unit) =>
        host.GetAsync<CountView>($"/api/units/{unit}/count");

    private static async Task AddPicturesAsync(
        TestHost host,
        Guid album,
        int lying,
        int upright,
        string day = "2026:05:06"
    )
    {
        for (var i = 0; i < lying + upright; i++)
        {
            var (width, height) = i < lying ? (1800, 1200) : (900, 1200);
            await host.AddAsync(
                album,
                $"{day[^2..]}-{i}.jpg",
                Pictures.Jpeg(width, height, $"{day} 1{i / 10}:0{i % 10}:00", shade: 20 + (9 * i))
            );
        }
    }

    private static async Task<IReadOnlyList<PageChoice>> ChooseAsync(
        TestHost host,
        Guid album,
        Guid from,
        int count = 1
    ) => await host.ChoosePagesAsync(album, new ChoosePagesRequest(from, count));

    private static async Task<AlbumEditAnswer> TakeAsync(
        TestHost host,
        Guid album,
        PageChoice choice,
        params Guid[] units
    )
    {
        var at = new List<UnitAt>();
        foreach (var unit in units)
        {
            at.Add(new UnitAt(unit, (await host.OpenAsync(unit)).Revision));
        }

        return await host.EditAlbumAsync(album, new ChoosePages([.. at], [.. choice.Standing], [.. choice.Extra]));
    }

    [Fact]
    public async Task The_sum_counts_pictures_cards_keepsakes_and_stories_that_are_on_no_card()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4", "9x12-rows-6x4-3x4");
        var week = album.Units[0].Id;
        (await CountAsync(host, week)).Sum.ShouldBe("Nothing yet; 18 pockets free.");
        await AddPicturesAsync(host, album.Id, lying: 3, upright: 2);
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.WeekTitle) { Revision = 0 }
        );
        await host.EditAsync(
            unit,
            new AddKeepsake(Keepsake: new WrittenKeepsake("Ticket", "2 x 3 in", "0", "", null, null, false))
            {
                Revision = 0,
            }
        );
        await host.EditStoriesAsync(album.Id, new NewStory("We planted beans.", "Beans", [Wednesday]));

        var count = await CountAsync(host, week);
        count.Sum.ShouldBe(
            "3 landscape photos + 2 portrait photos + 1 title card + 1 untold story + 1 keepsake = 8 pieces; 18 "
                + "pockets: 10 free."
        );
        (count.Pieces, count.Pockets, count.Free, count.Lacking, count.Placed).ShouldBe((8, 18, 10, 0, 0));
        count.BySize.ShouldBe([new PocketsView("3 × 4 in", 18, 18)]);
        // Two pages of six are enough; a filler and merging come after that.
        count
            .Ways.Select(m => m.Kind)
            .ShouldBe([
                WayKind.LargerPockets,
                WayKind.LargerPockets,
                WayKind.SpanPockets,
                WayKind.AddFiller,
                WayKind.LeaveEmpty,
                WayKind.MergeWithNext,
            ]);
        // The story told on a card counts once, as that card.
        var story = (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).Single();
        await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story.Id, 1) { UnitId = week, Revision = (await host.OpenAsync(week)).Revision }
        );
        (await CountAsync(host, week)).Pieces.ShouldBe(8);
        (await CountAsync(host, week)).Wanted.ShouldNotContain(w => w.Kind == WantKind.Story);
    }

    [Fact]
    public async Task A_week_counts_the_same_alone_and_in_a_stretch_when_its_pictures_lie_in_pockets()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album.Id, lying: 3, upright: 2);
        var unit = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        unit.Counts.LoosePhotos.ShouldBe(0);

        var alone = await CountAsync(host, unit.Id);
        alone.Pieces.ShouldBe(5);
        var stretch = await host.GetAsync<List<CountView>>($"/api/albums/{album.Id}/count?from={unit.Id}&count=2");
        (stretch[0].Pieces, stretch[0].Sum).ShouldBe((alone.Pieces, alone.Sum));
        (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(unit.Id, 1)))[0]
            .Units.Single()
            .Says.ShouldBe("As it is: 5 pieces want pockets and its own pages have 18.");
    }

    [Fact]
    public async Task An_overfull_week_gets_the_pages_that_hold_it_all_and_one_undo_takes_them_out_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4", "9x12-nine-3x4");
        var (week, next) = (album.Units[0].Id, album.Units[1].Id);
        await AddPicturesAsync(host, album.Id, lying: 16, upright: 8);
        await host.AddAsync(album.Id, "next.jpg", Pictures.Jpeg(1800, 1200, "2026:05:12 10:00:00", shade: 7));
        var filled = await host.EditAsync(await host.OpenAsync(next), new FillSpread { Revision = 0 });
        var count = await CountAsync(host, week);
        (count.Pieces, count.Pockets, count.Lacking).ShouldBe((24, 12, 12));

        var choices = await ChooseAsync(host, album.Id, week);
        choices.ShouldAllBe(c => c.Proved && c.Unplaced == 0);
        var balanced = choices[0];
        balanced.Units.Single().Says.ShouldContain("because 24 pieces want pockets and its own pages have 12");
        // The leaf whose back carries the next week's picture stays.
        var shared = filled.Faces[0].LeafId;
        balanced.Standing.Single(l => l.LeafId == shared).ProtectorId.ShouldBe(filled.Faces[0].ProtectorId);

        var taken = await TakeAsync(host, album.Id, balanced, week);
        count = await CountAsync(host, week);
        (count.Lacking, count.Free).ShouldBe((0, balanced.Empty));
        count.Leaves.Count.ShouldBe(2 + balanced.Leaves);
        var unit = await host.EditAsync(await host.OpenAsync(week), new FillSpread { Revision = 0 });
        unit.Counts.LoosePhotos.ShouldBe(0);
        // The neighbour is as it was: its picture lies where it lay.
        var after = await host.OpenAsync(next);
        after
            .Faces.SelectMany(f => f.Pockets)
            .Select(p => p.Piece?.Title)
            .ShouldBe(filled.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece?.Title));

        unit = await host.StepAsync(unit, "undo");
        await host.StepAsync(unit, "undo");
        (await CountAsync(host, week)).Pockets.ShouldBe(12);
        (await host.OpenAsync(next)).Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(1);
        taken.Changes.ShouldNotContain(m => m.Contains("tray", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_leaf_is_put_in_and_taken_out_and_what_lay_on_it_goes_to_the_tray()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4", "9x12-full");
        var (week, next) = (album.Units[0].Id, album.Units[1].Id);
        var nine = album.Protectors.Single(p => p.DesignKey == "9x12-nine-3x4");
        (nine.Pockets, nine.InUse, nine.OnHand).ShouldBe((9, 5, null));
        await AddPicturesAsync(host, album.Id, lying: 20, upright: 0);
        await host.EditAlbumAsync(album.Id, new AddLeaf(nine.Id) { UnitId = week, Revision = TestHost.Latest });
        var unit = await host.OpenAsync(week);
        unit.Faces.Select(f => f.Side.ToString()).ShouldBe(["Back", "Front", "Back", "Front"]);
        (await host.OpenAsync(next)).Faces.Count.ShouldBe(2);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        unit.Counts.LoosePhotos.ShouldBe(0);
        var between = (await CountAsync(host, week)).Leaves.Single(l => l.MayGo);
        (between.Faces, between.Placed > 0).ShouldBe((2, true));

        var remove = new RemoveLeaf(between.LeafId) { UnitId = week, Revision = TestHost.Latest };
        var removed = await host.EditAlbumAsync(album.Id, remove);
        removed.Changes[0].ShouldBe($"{between.Placed} pieces go to the tray");
        unit = await host.OpenAsync(week);
        (unit.Counts.Pockets, unit.Counts.LoosePhotos).ShouldBe((18, between.Placed));
        unit = await host.StepAsync(unit, "undo");
        (unit.Counts.Pockets, unit.Counts.LoosePhotos).ShouldBe((36, 0));

        // A leaf that it shares with a neighbour is not its own to take out, and two windows cannot both do it.
        var facing = (await CountAsync(host, week)).Leaves.First(l => !l.MayGo);
        var refused = await host.AlbumEditRefusedAsync(422, album.Id, remove with { LeafId = facing.LeafId });
        refused["detail"]!.GetValue<string>().ShouldContain("belongs to a neighbour");
        await host.AlbumEditRefusedAsync(409, album.Id, remove with { Revision = unit.Revision - 1 });
        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new AddLeaf(Guid.NewGuid()) { UnitId = week, Revision = unit.Revision }
        );
        (await host.OpenAsync(week)).Counts.Pockets.ShouldBe(36);
    }

    [Fact]
    public async Task A_trip_with_too_few_leaves_says_what_to_buy_and_its_days_share_the_stock()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Trip",
                new LocalDate(2026, 6, 6),
                3,
                ["6x8-four-3x4", "6x8-two-6x4"],
                Core.Measures.MeasureSystem.Inches,
                Core.Dates.AlbumKind.Trip,
                HomeZone: "Europe/London"
            )
        );
        await AddPicturesAsync(host, album.Id, lying: 0, upright: 14, day: "2026:06:06");
        await AddPicturesAsync(host, album.Id, lying: 0, upright: 14, day: "2026:06:07");
        foreach (var protector in album.Protectors)
        {
            await SetStockAsync(host, album.Id, protector.Id, protector.DesignKey == "6x8-four-3x4" ? 5 : 0);
        }

        var counts = await host.GetAsync<List<CountView>>(
            $"/api/albums/{album.Id}/count?from={album.Units[0].Id}&count=3"
        );
        counts.Select(c => (c.Pieces, c.Pockets, c.Lacking)).ShouldBe([(14, 8, 6), (14, 8, 6), (0, 8, 0)]);
        // Four leaves stand; each of two days wants one more of four pockets a face, and one is left.
        var choice = (await ChooseAsync(host, album.Id, album.Units[0].Id, 3))[0];
        (choice.Leaves, choice.Unplaced, choice.Proved).ShouldBe((2, 0, true));
        // Bought is one leaf; which design is the program's choice, since the empty day can set a leaf of four free.
        choice.Buy.Single().ShouldStartWith("1 × ");
        await TakeAsync(host, album.Id, choice, [.. album.Units.Select(u => u.Id)]);
        counts = await host.GetAsync<List<CountView>>($"/api/albums/{album.Id}/count?from={album.Units[0].Id}&count=3");
        counts.ShouldAllBe(c => c.Lacking == 0);
        counts.Sum(c => c.Free).ShouldBe(choice.Empty);

        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new CountOnHand(-1) { ProtectorId = album.Protectors[0].Id, Revision = TestHost.Latest }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/pages/searches",
            new PageSearchRequest("many", new ChoosePagesRequest(album.Units[0].Id, 101))
        );
        await host.RefusedAsync(
            404,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/pages/searches",
            new PageSearchRequest("nobody", new ChoosePagesRequest(Guid.NewGuid(), 1))
        );
    }

    [Fact]
    public async Task Another_design_is_used_too_and_given_up_again_and_the_binder_shows_every_leaf_with_both_faces()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var used = await host.EditAlbumAsync(album.Id, Use("9x12-twelve-3x3"));
        var twelve = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Protectors.Single(p =>
            p.DesignKey == "9x12-twelve-3x3"
        );
        await host.EditAlbumAsync(
            album.Id,
            new AddLeaf(twelve.Id) { UnitId = album.Units[0].Id, Revision = TestHost.Latest }
        );
        var leaves = await host.GetAsync<List<BinderLeaf>>($"/api/albums/{album.Id}/leaves");
        leaves
            .Select(l => (l.Number, l.Front.Title, l.Back.Title))
            .ShouldBe([
                (1, "title page", "Week 19"),
                (2, "Week 19", "Week 19"),
                (3, "Week 19", "Week 20"),
                (4, "Week 20", "Week 21"),
                (5, "Week 21", "Week 22"),
                (6, "Week 22", "end page"),
            ]);
        (leaves[1].Design, leaves[1].Kind, leaves[1].Between, leaves[1].Front.Pockets).ShouldBe(
            ("Twelve 3x3", LeafKind.Pockets, true, 12)
        );

        // Given up while a leaf has it: the leaf keeps it, no new one is offered, and it can come back.
        var giveUp = new GiveUpProtector { ProtectorId = twelve.Id, Revision = TestHost.Latest };
        await host.EditAlbumAsync(album.Id, giveUp);
        (await host.OpenAsync(album.Units[0].Id)).Counts.Pockets.ShouldBe(18 + 24);
        var view = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Protectors.Single(p =>
            p.Id == twelve.Id
        );
        (view.Gone, view.InUse).ShouldBe((true, 1));
        await host.AlbumEditRefusedAsync(422, album.Id, giveUp with { ProtectorId = album.Protectors[0].Id });
        (await host.EditAlbumAsync(album.Id, Use("9x12-twelve-3x3"))).Done.ShouldContain("uses");
        foreach (var wrong in new[] { "9x12-twelve-3x3", "12x12-full", "nobody's" })
        {
            await host.AlbumEditRefusedAsync(422, album.Id, Use(wrong));
        }

        used.EditId.ShouldNotBeNull();

        static UseProtector Use(string design) =>
            new(new LeafMake(LeafKind.Pockets, design)) { Revision = TestHost.Latest };
    }

    private static Task<AlbumEditAnswer> SetStockAsync(TestHost host, Guid album, Guid protector, int? stock) =>
        host.EditAlbumAsync(album, new CountOnHand(stock) { ProtectorId = protector, Revision = TestHost.Latest });

    [Fact]
    public async Task The_badge_of_count_counts_untold_stories_as_the_sum_does()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("6x8-two-6x4");
        for (var i = 0; i < 4; i++)
        {
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(600 + i, 400, "2026:05:05 12:00:00"));
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        unit.Counts.PiecesShort.ShouldBe(0);
        await host.EditStoriesAsync(album.Id, new NewStory("It rained.", "", [unit.FirstDay]));
        await host.EditStoriesAsync(album.Id, new NewStory("It stopped.", "", [unit.FirstDay]));
        unit = await host.OpenAsync(unit.Id);
        var count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        unit.Counts.PiecesShort.ShouldBe(count.Pieces - count.Pockets);
        unit.Counts.PiecesShort.ShouldBe(2);
    }
}
