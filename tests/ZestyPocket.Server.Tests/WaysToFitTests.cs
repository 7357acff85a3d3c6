using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>What people do about too many or too few pieces, in their order, and what is said about it.</summary>
public sealed class WaysToFitTests
{
    private static Task<CountView> CountAsync(TestHost host, Guid unit) =>
        host.GetAsync<CountView>($"/api/units/{unit}/count");

    private static async Task AddAsync(
        TestHost host,
        AlbumView album,
        int lying,
        int square = 0,
        string day = "2026:05:06"
    )
    {
        for (var i = 0; i < lying + square; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{day[^2..]}-{i:00}.jpg",
                Pictures.Jpeg(
                    i < lying ? 1800 : 1200,
                    1200,
                    $"{day} 1{i / 10}:0{i % 10}:00",
                    shade: (20 + (9 * i)) % 255
                )
            );
        }
    }

    [Fact]
    public async Task Too_many_pieces_are_met_in_the_order_people_try()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4", "9x12-nine-3x4");
        await AddAsync(host, album, lying: 14);
        var unit = await host.OpenAsync(album.Units[0].Id);
        unit = await host.EditAsync(unit, new AddCard(CardKind: CardKind.Journaling, Words: "Beans.") { Revision = 0 });
        await host.EditAsync(unit, new AddCard(CardKind: CardKind.Journaling, Words: "Peas.") { Revision = 0 });
        var count = await CountAsync(host, unit.Id);
        count.Lacking.ShouldBe(4);
        count
            .Ways.Select(m => m.Kind)
            .Distinct()
            .ShouldBe([
                WayKind.MakeCollage,
                WayKind.SmallerPockets,
                WayKind.JoinCards,
                WayKind.FusePocket,
                WayKind.AddLeaf,
            ]);

        // Each is one click, and each gains what it says.
        var collage = count.Ways.First(m => m.Kind == WayKind.MakeCollage);
        unit = await host.EditAsync(
            await host.OpenAsync(unit.Id),
            new AddCollage(Collage: new WrittenCollage(collage.Size!, collage.PhotoIds!)) { Revision = 0 }
        );
        (await CountAsync(host, unit.Id)).Lacking.ShouldBe(0);
        unit = await host.StepAsync(unit, "undo");
        var join = count.Ways.First(m => m.Kind == WayKind.JoinCards);
        unit = await host.EditAsync(
            unit,
            new JoinCards(PieceId: join.PieceId!.Value, OtherId: join.OtherId!.Value) { Revision = 0 }
        );
        (await CountAsync(host, unit.Id)).Lacking.ShouldBe(3);
        unit = await host.StepAsync(unit, "undo");
        var fuse = count.Ways.First(m => m.Kind == WayKind.FusePocket);
        await host.EditAlbumAsync(
            album.Id,
            new FusePocket(fuse.PocketKey!) { LeafId = fuse.LeafId!.Value, Revision = TestHost.Latest }
        );
        (await CountAsync(host, unit.Id)).Lacking.ShouldBe(3);
        await host.StepAsync(await host.OpenAsync(unit.Id), "undo");
        (await CountAsync(host, unit.Id)).Lacking.ShouldBe(4);
    }

    [Fact]
    public async Task What_the_stock_has_left_stands_beside_the_move()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4", "9x12-nine-3x4");
        await AddAsync(host, album, lying: 13);
        foreach (var (protector, owned) in new[] { (album.Protectors[0], 5), (album.Protectors[1], 2) })
        {
            await host.EditAlbumAsync(
                album.Id,
                new CountOnHand(owned) { ProtectorId = protector.Id, Revision = protector.Revision }
            );
        }

        // Five of the first lie in the binder, none of the second.
        var moves = (await CountAsync(host, album.Units[0].Id)).Ways.Where(m => m.Kind == WayKind.AddLeaf).ToList();
        moves.Single(m => m.ProtectorId == album.Protectors[0].Id).Gain.ShouldEndWith("; none left in stock");
        moves.Single(m => m.ProtectorId == album.Protectors[1].Id).Gain.ShouldEndWith("; two left in stock");
    }

    [Fact]
    public async Task Too_few_pieces_take_a_keepsake_a_clear_pocket_or_the_next_week()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddAsync(host, album, lying: 0, square: 3);
        var unit = await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddKeepsake(Keepsake: new WrittenKeepsake("Ticket", "2 x 3 in", "0", "", null, null, InEnvelope: true))
            {
                Revision = 0,
            }
        );
        var count = await CountAsync(host, unit.Id);
        // Three of eighteen: the second page stays without content.
        (count.Free, count.Faces, count.EmptyFaces).ShouldBe((15, 2, 2));
        count.Hint!.ShouldContain("fill one of two pages and the last stays without content: a full-size picture");
        count
            .Ways.Select(m => m.Kind)
            .ShouldBe([
                WayKind.SpanPockets,
                WayKind.AddFiller,
                WayKind.LeaveEmpty,
                WayKind.UseKeepsake,
                WayKind.MergeWithNext,
            ]);

        var keepsake = count.Ways.Single(m => m.Kind == WayKind.UseKeepsake);
        unit = await host.EditAsync(
            unit,
            new UseKeepsake(PieceId: keepsake.PieceId!.Value, Place: keepsake.Places!.Single()) { Revision = 0 }
        );
        unit.Envelope.ShouldBeEmpty();
        unit.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece?.Kind == PieceKind.Keepsake).ShouldBe(1);
        var clear = (await CountAsync(host, unit.Id)).Ways.Single(m => m.Kind == WayKind.LeaveEmpty);
        clear.Label.ShouldBe("Leave W19 R9 clear on purpose");
        await host.EditAsync(unit, new LeaveEmpty(Place: clear.Places!.Single(), Empty: true) { Revision = 0 });
        (await CountAsync(host, unit.Id)).Free.ShouldBe(13);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new UseKeepsake(PieceId: Guid.NewGuid(), Place: clear.Places!.Single())
            {
                Revision = (await host.OpenAsync(unit.Id)).Revision,
            }
        );
    }

    [Fact]
    public async Task The_choice_of_pages_uses_the_room_there_is_on_altered_leaves_and_pages_outside_the_pockets()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("6x8-two-6x4");
        await AddAsync(host, album, lying: 4);
        foreach (var large in new[] { 1, 2 })
        {
            await host.AddAsync(
                album.Id,
                $"large-{large}.jpg",
                Pictures.Jpeg(2100, 2600, $"2026:05:08 10:0{large}:00", shade: 60 * large)
            );
        }

        var week = album.Units[0].Id;
        await host.EditAlbumAsync(
            album.Id,
            new AddNewLeaf(new LeafMake(LeafKind.Sheet)) { UnitId = week, Revision = TestHost.Latest }
        );
        // Two pages of two, and a sheet with a place in front and one behind: six.
        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(week, 1)))[0];
        (choice.Leaves, choice.Unplaced, choice.Empty).ShouldBe((0, 0, 0));
        await AddAsync(host, album, lying: 1, day: "2026:05:07");
        choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(week, 1)))[0];
        (choice.Leaves, choice.Unplaced).ShouldBe((1, 0));
    }

    [Fact]
    public async Task A_long_story_wants_pockets_also_in_an_album_that_has_sheets_outside_them()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await host.EditAlbumAsync(
            album.Id,
            new UseProtector(new LeafMake(LeafKind.Sheet)) { Revision = TestHost.Latest }
        );
        await host.EditStoriesAsync(
            album.Id,
            new NewStory(string.Join(' ', Enumerable.Repeat("marmalade", 400)), "Long", [new LocalDate(2026, 5, 6)])
        );
        await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddCard(CardKind: CardKind.Journaling, Words: string.Join(' ', Enumerable.Repeat("marmalade", 600)))
            {
                Revision = 0,
            }
        );
        // The week itself has no sheet: all of it goes into 3x4 pockets.
        var count = await CountAsync(host, album.Units[0].Id);
        count.Wanted.Single(w => w.Kind == Core.Counting.WantKind.Story).Count.ShouldBeGreaterThan(1);
        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(album.Units[0].Id, 1)))[0];
        choice.Unplaced.ShouldBe(0);
    }

    [Fact]
    public async Task Weeks_of_the_leaf_school_are_merged_and_keep_the_pieces_of_the_first()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Leaf school",
                new LocalDate(2026, 5, 4),
                3,
                ["9x12-nine-3x4"],
                MeasureSystem.Inches,
                School: PageSchool.Leaf
            )
        );
        await AddAsync(host, album, lying: 4);
        await AddAsync(host, album, lying: 5, day: "2026:05:13");
        var first = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        await host.EditAsync(await host.OpenAsync(album.Units[1].Id), new FillSpread { Revision = 0 });
        var merged = await host.EditAlbumAsync(
            album.Id,
            new MergeUnit { UnitId = first.Id, Revision = first.Revision }
        );
        var unit = await host.OpenAsync(merged.UnitId!.Value);
        (unit.Faces.Count, unit.Faces.Select(f => f.LeafId).Distinct().Count(), unit.Counts.Photos).ShouldBe((2, 1, 9));
        unit.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(4);
        var leaves = await host.GetAsync<List<BinderLeaf>>($"/api/albums/{album.Id}/leaves");
        leaves.Select(l => l.Front.Title).ShouldBe(["title page", "Weeks 19–20", "Week 21"]);
        (await host.StepAsync(unit, "undo")).Counts.Photos.ShouldBe(4);
    }

    [Fact]
    public async Task A_leaf_school_of_one_page_each_is_refused() =>
        await (await TestHost.StartAsync()).RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/albums",
            new MakeAlbumRequest(
                "No",
                new LocalDate(2026, 5, 4),
                3,
                ["9x12-nine-3x4"],
                MeasureSystem.Inches,
                FacesPerUnit: 1,
                School: PageSchool.Leaf
            )
        );
}
