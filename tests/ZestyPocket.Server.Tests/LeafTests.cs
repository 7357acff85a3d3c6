using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// What is done to leaves: moved, altered, stuck together, put in as inserts and fold-outs, measured.
/// </summary>
public sealed class LeafTests
{
    private static Task<List<BinderLeaf>> LeavesAsync(TestHost host, AlbumView album) =>
        host.GetAsync<List<BinderLeaf>>($"/api/albums/{album.Id}/leaves");

    private static Task<AlbumEditAnswer> FormAsync(TestHost host, AlbumView album, LeafEdit edit) =>
        host.EditAlbumAsync(album.Id, edit);

    private static Task<AlbumEditAnswer> AddLeafAsync(TestHost host, AlbumView album, LeafMake make) =>
        host.EditAlbumAsync(album.Id, new AddNewLeaf(make) { UnitId = album.Units[0].Id, Revision = TestHost.Latest });

    private static async Task AddPicturesAsync(
        TestHost host,
        AlbumView album,
        int count,
        string day = "2026:05:06",
        int width = 1800,
        int height = 1200
    )
    {
        for (var i = 0; i < count; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{day[^2..]}-{i:00}.jpg",
                Pictures.Jpeg(width, height, $"{day} 1{i / 10}:0{i % 10}:00", shade: (20 + (9 * i)) % 255)
            );
        }
    }

    [Fact]
    public async Task A_fused_pocket_is_two_on_both_faces_and_the_neighbour_on_the_back_knows_it()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4");
        await AddPicturesAsync(host, album, 12);
        await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        var leaf = (await LeavesAsync(host, album))[1];
        (leaf.Front.Title, leaf.Back.Title).ShouldBe(("Week 19", "Week 20"));
        var detail = await host.GetAsync<LeafDetail>($"/api/albums/{album.Id}/leaves/{leaf.LeafId}");
        var fuse = detail.Fusible.First(f => f.Label.Contains("6x4", StringComparison.Ordinal));
        fuse.Label.ShouldBe("Fuse 6x4 (pocket 1) into two 3x4");

        // First it is said what would happen, and nothing does.
        var fusing = new FusePocket(fuse.PocketKey!) { LeafId = leaf.LeafId, Revision = leaf.Revision };
        var preview = await host.EditAlbumAsync(album.Id, fusing, preview: true);
        (preview.EditId, preview.Changes.Single()).ShouldBe((null, "1 piece goes to the tray"));
        (await host.OpenAsync(album.Units[0].Id)).Counts.LoosePhotos.ShouldBe(0);

        var done = await FormAsync(host, album, fusing);
        var (week, next) = (await host.OpenAsync(album.Units[0].Id), await host.OpenAsync(album.Units[1].Id));
        (week.Counts.Pockets, week.Counts.LoosePhotos, next.Counts.Pockets).ShouldBe((13, 1, 13));
        week.Faces[1].Marks.ShouldHaveSingleItem().Kind.ShouldBe(MarkKind.Seam);
        // The seam is the same line of plastic from both sides.
        (week.Faces[1].Marks[0].X1 + next.Faces[0].Marks[0].X1).ShouldBe(week.Faces[1].Width);
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units[1].Pockets.ShouldBe(13);

        // Two windows: the second one's leaf is no longer what it looked at.
        await host.AlbumEditRefusedAsync(409, album.Id, fusing with { PocketKey = "2.1" });
        await host.AlbumEditRefusedAsync(422, album.Id, fusing with { PocketKey = "9.9", Revision = TestHost.Latest });
        await host.PostAsync<object>($"/api/edits/{done.EditId}/undo", new { });
        week = await host.OpenAsync(album.Units[0].Id);
        (week.Counts.Pockets, week.Counts.LoosePhotos).ShouldBe((12, 0));
    }

    [Fact]
    public async Task A_page_cut_down_is_an_insert_and_a_new_leaf_takes_its_place_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("12x12-six-6x4");
        var week = album.Units[0].Id;
        await AddLeafAsync(host, album, new LeafMake(LeafKind.Pockets, "12x12-six-6x4"));
        var leaf = (await LeavesAsync(host, album))[1];
        leaf.Between.ShouldBeTrue();
        var detail = await host.GetAsync<LeafDetail>($"/api/albums/{album.Id}/leaves/{leaf.LeafId}");
        var half = detail.Cuts.Single(c => c.Keeps == CutKeeps.Columns);
        var cut = new CutLeafDown(CutKeeps.Columns, half.Size!) { LeafId = leaf.LeafId, Revision = TestHost.Latest };
        await FormAsync(host, album, cut);
        leaf = (await LeavesAsync(host, album))[1];
        (leaf.Front.Pockets, leaf.Design).ShouldBe((3, "Six 6x4, cut down to 6x12"));
        leaf.Note!.ShouldContain("hides 6 3/4 × 12 1/4 in");
        (await host.OpenAsync(week)).Faces[1].Note.ShouldNotBeNull();
        await host.AlbumEditRefusedAsync(422, album.Id, cut with { Size = "5 in" });
        await FormAsync(host, album, new RenewLeaf { LeafId = leaf.LeafId, Revision = TestHost.Latest });
        (await LeavesAsync(host, album))[1].Front.Pockets.ShouldBe(6);
    }

    [Fact]
    public async Task A_fold_out_carries_one_picture_in_front_and_two_panels_behind()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("3x8-two-3x4");
        var week = album.Units[0].Id;
        await AddPicturesAsync(host, album, 7, width: 1800, height: 2400);
        await AddLeafAsync(host, album, new LeafMake(LeafKind.FoldOut, null, "6x8", "3 1/2 in"));
        var unit = await host.OpenAsync(week);
        var (front, back) = (unit.Faces[1], unit.Faces[2]);
        (front.Kind, front.Pockets.Single().Size, front.FoldedWidth).ShouldBe(
            (LeafKind.FoldOut, "6x8", Length.FromInches(3.5m).Emu)
        );
        back.Pockets.Select(p => p.Size).ShouldBe(["2 1/2x8", "3 1/2x8"]);
        front.Marks.ShouldHaveSingleItem().Kind.ShouldBe(MarkKind.Fold);
        front.Note!.ShouldContain("a flap of 2 1/2 in");
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        unit.Counts.LoosePhotos.ShouldBe(0);
        // The whole sheet is printed as one piece.
        var plan = await host.PostAsync<PrintPlanView>(
            "/api/print-plans",
            new PrintRequest("fold", [week], "letter", "1/4 in", "0")
        );
        plan.Pieces.ShouldBe(7);
        foreach (
            var wrong in new[]
            {
                new LeafMake(LeafKind.FoldOut, Size: "9x8", Fold: "3 1/2 in"),
                new LeafMake(LeafKind.FoldOut, Size: "6x8", Fold: "1/2 in"),
                new LeafMake(LeafKind.FoldOut),
            }
        )
        {
            await host.AlbumEditRefusedAsync(
                422,
                album.Id,
                new AddNewLeaf(wrong) { UnitId = week, Revision = TestHost.Latest }
            );
        }
    }

    [Fact]
    public async Task Pages_outside_the_pockets_are_as_large_as_the_protectors_and_words_fill_them_too()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("6x8-two-6x4");
        var week = album.Units[0].Id;
        await AddLeafAsync(host, album, new LeafMake(LeafKind.Sheet));
        await AddLeafAsync(host, album, new LeafMake(LeafKind.Divider));
        await AddLeafAsync(host, album, new LeafMake(LeafKind.Envelope));
        var unit = await host.OpenAsync(week);
        unit.Faces.Select(f => f.Kind)
            .Distinct()
            .ShouldBe([LeafKind.Pockets, LeafKind.Sheet, LeafKind.Divider, LeafKind.Envelope]);
        unit.Counts.Pockets.ShouldBe(2 + 2 + 2);
        var sheet = unit.Faces[1];
        sheet.Pockets.Single().CutLabel.ShouldBe("6 3/4 × 8 1/4 in");
        unit = await host.EditAsync(
            unit,
            new AddCard(
                CardKind: CardKind.Journaling,
                Words: "A page of words.",
                Place: new PocketPlace(sheet.LeafId, sheet.Side, "1")
            )
            {
                Revision = 0,
            }
        );
        unit.Faces[1].Pockets.Single().Piece!.Fit!.WordsOver.ShouldBe(0);
        await using (var scope = host.Services.CreateAsyncScope())
        {
            // Nothing that matters within the ring strip: the lines begin behind it.
            var open = await scope
                .ServiceProvider.GetRequiredService<UnitOpener>()
                .OpenAsync(week, CancellationToken.None);
            var card = open.Content.Pieces.OfType<Core.Placing.Card>().Single();
            var face = scope
                .ServiceProvider.GetRequiredService<PieceFaces>()
                .CardFaceOf(open, card, open.CutSizeOf(card));
            face.Runs.Min(r => r.X).ShouldBeGreaterThanOrEqualTo(Protector.DefaultRingStrip.Points - 0.01);
        }

        // A choice of pages leaves them where they are.
        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(week, 1)))[0];
        await host.EditAlbumAsync(
            album.Id,
            new ChoosePages([new UnitAt(week, unit.Revision)], [.. choice.Standing], [.. choice.Extra])
        );
        (await host.OpenAsync(week)).Faces.Count(f => f.Kind != LeafKind.Pockets).ShouldBe(6);
    }

    [Fact]
    public async Task Before_a_leaf_moves_it_is_said_what_changes_and_two_windows_cannot_both_move_it()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4", "9x12-full");
        await AddPicturesAsync(host, album, 20);
        await AddPicturesAsync(host, album, 3, "2026:05:13");
        var full = album.Protectors.Single(p => p.DesignKey == "9x12-full").Id;
        await host.EditAlbumAsync(
            album.Id,
            new AddLeaf(full) { UnitId = album.Units[0].Id, Revision = TestHost.Latest }
        );
        var week = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        await host.EditAsync(await host.OpenAsync(album.Units[1].Id), new FillSpread { Revision = 0 });
        week.Counts.LoosePhotos.ShouldBe(0);
        var leaf = (await LeavesAsync(host, album))[1];
        var move = new MoveLeaf(2) { LeafId = leaf.LeafId, Revision = leaf.Revision };

        // From between week 19's pages to between week 20's: what lay on it stays with week 19, in the tray.
        var preview = await host.EditAlbumAsync(album.Id, move, preview: true);
        preview.EditId.ShouldBeNull();
        preview.Changes[0].ShouldBe("2 pieces go to the tray");
        preview.Changes.ShouldContain(m =>
            m.StartsWith("Week 19: opposite of the back of leaf 1", StringComparison.Ordinal)
        );
        (await LeavesAsync(host, album))[1].LeafId.ShouldBe(leaf.LeafId);

        var moved = await host.EditAlbumAsync(album.Id, move);
        var leaves = await LeavesAsync(host, album);
        (leaves[2].LeafId, leaves[2].Front.Title, leaves[2].Back.Title).ShouldBe((leaf.LeafId, "Week 20", "Week 20"));
        (
            (await host.OpenAsync(album.Units[0].Id)).Counts.LoosePhotos,
            (await host.OpenAsync(album.Units[1].Id)).Counts.Pockets
        ).ShouldBe((2, 20));
        await host.AlbumEditRefusedAsync(409, album.Id, move with { To = 1 });
        await host.AlbumEditRefusedAsync(422, album.Id, move with { Revision = TestHost.Latest });
        await host.AlbumEditRefusedAsync(422, album.Id, move with { To = 0, Revision = TestHost.Latest });
        await host.PostAsync<object>($"/api/edits/{moved.EditId}/undo", new { });
        (await host.OpenAsync(album.Units[0].Id)).Counts.LoosePhotos.ShouldBe(0);

        // A leaf that carries two parts takes its pockets along, and the pieces stay with their part.
        var nine = (await LeavesAsync(host, album))[2];
        await host.EditAlbumAsync(album.Id, new MoveLeaf(4) { LeafId = nine.LeafId, Revision = nine.Revision });
        (await host.OpenAsync(album.Units[1].Id)).Counts.LoosePhotos.ShouldBe(0);
        (await host.OpenAsync(album.Units[0].Id)).Photos.Count.ShouldBe(20);
    }

    [Fact]
    public async Task A_leaf_is_not_taken_out_again_once_something_was_put_onto_it()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album, 1);
        var added = await AddLeafAsync(host, album, new LeafMake(LeafKind.Pockets, "9x12-nine-3x4"));
        var week = album.Units[0].Id;
        var leaf = (await LeavesAsync(host, album)).Single(l => l.Between);
        var removed = await host.EditAlbumAsync(
            album.Id,
            new RemoveLeaf(leaf.LeafId) { UnitId = week, Revision = TestHost.Latest }
        );
        await host.PostAsync<StepAnswer>($"/api/edits/{removed.EditId}/undo", new { });
        var unit = await host.OpenAsync(week);
        var place = new PocketPlace(leaf.LeafId, LeafSide.Front, unit.Faces[1].Pockets[0].Key);
        await host.EditAsync(unit, new PutPhoto(PhotoId: unit.Photos[0].Id, Place: place) { Revision = 0 });
        await host.RefusedAsync(422, HttpMethod.Post, $"/api/edits/{removed.EditId}/redo", new { });
        await host.RefusedAsync(422, HttpMethod.Post, $"/api/edits/{added.EditId}/undo", new { });
        (await host.OpenAsync(week)).Faces[1].Pockets[0].Piece.ShouldNotBeNull();
    }

    [Fact]
    public async Task Stuck_together_pieces_move_as_one_and_a_broken_order_is_said()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album, 18);
        await AddPicturesAsync(host, album, 18, "2026:05:13");
        // In the order of time, so that the order can be broken.
        await host.EditAlbumAsync(
            album.Id,
            new WeighAlbum(PlacingWeights.Usual with { InOrderOfTime = 3, Calm = 0, LookalikesApart = 0 })
            {
                Revision = TestHost.Latest,
            }
        );
        var week = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        var next = await host.EditAsync(await host.OpenAsync(album.Units[1].Id), new FillSpread { Revision = 0 });
        var leaf = (await LeavesAsync(host, album))[1];
        await FormAsync(host, album, new StickPieces("1.1", true) { LeafId = leaf.LeafId, Revision = TestHost.Latest });
        week = await host.OpenAsync(week.Id);
        PocketView At(UnitView unit, int face, string key) => unit.Faces[face].Pockets.Single(p => p.Key == key);
        At(week, 1, "1.1").Stuck.ShouldBeTrue();
        At(week, 1, "1.1").Behind.ShouldBe("a picture");
        var (front, back, target) = (
            At(week, 1, "1.1").Piece!,
            At(next, 0, "1.1").Piece!.Title,
            new PocketPlace(leaf.LeafId, LeafSide.Front, "3.3")
        );

        // One half alone stays where it is.
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{week.Id}/edits",
            new TakeOut(Place: new PocketPlace(leaf.LeafId, LeafSide.Front, "1.1")) { Revision = week.Revision }
        );
        var answer = await host.PostAsync<EditAnswer>(
            $"/api/units/{week.Id}/edits",
            new MovePiece(PieceId: front.Id, Place: target) { Revision = week.Revision }
        );
        answer.Done.ShouldContain("with the one stuck to its back");
        answer.Done.ShouldContain("before an earlier one now");
        (
            At(answer.Unit, 1, "3.3").Piece!.Title,
            At(answer.Unit, 1, "3.3").Stuck,
            At(answer.Unit, 1, "1.1").Stuck
        ).ShouldBe((front.Title, true, false));
        At(await host.OpenAsync(next.Id), 0, "3.3").Piece!.Title.ShouldBe(back);
        week = await host.StepAsync(answer.Unit, "undo");
        (At(week, 1, "1.1").Piece!.Title, At(await host.OpenAsync(next.Id), 0, "1.1").Piece!.Title).ShouldBe(
            (front.Title, back)
        );
        // Behind the title page lies no week or day: there the pair cannot go.
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{week.Id}/edits",
            new MovePiece(PieceId: front.Id, Place: new PocketPlace(week.Faces[0].LeafId, LeafSide.Back, "1.1"))
            {
                Revision = week.Revision,
            }
        );
    }

    [Fact]
    public async Task What_is_see_through_warns_on_both_faces()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album, 1, "2026:05:13");
        var leaf = (await LeavesAsync(host, album))[1];
        var next = await host.OpenAsync(album.Units[1].Id);
        await host.EditAsync(
            next,
            new PutPhoto(next.Photos[0].Id, Place: new PocketPlace(leaf.LeafId, LeafSide.Back, "2.2")) { Revision = 0 }
        );
        var week = await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddKeepsake(
                Keepsake: new WrittenKeepsake(
                    "Paper star",
                    "2 x 2 in",
                    "1.5 mm",
                    "",
                    null,
                    null,
                    false,
                    SeeThrough: true
                )
            )
            {
                Revision = 0,
            }
        );
        week = await host.EditAsync(
            week,
            new MovePiece(
                PieceId: week.LooseCards.Single().Id,
                Place: new PocketPlace(leaf.LeafId, LeafSide.Front, "2.2")
            )
            {
                Revision = 0,
            }
        );
        week.Faces[1].Pockets.Single(p => p.Key == "2.2").Piece!.Warning!.ShouldContain("See-through");
        (await host.OpenAsync(next.Id))
            .Faces[0]
            .Pockets.Single(p => p.Key == "2.2")
            .Piece!.Warning!.ShouldContain("Paper star");
        var detail = await host.GetAsync<LeafDetail>($"/api/albums/{album.Id}/leaves/{leaf.LeafId}");
        // Faces are numbered so that a back is never a surprise: the middle of nine lies behind the middle.
        detail.Front.Pockets.Single(p => p.Key == "2.2").BehindNumber.ShouldBe(5);
        detail.Front.Pockets.Single(p => p.Key == "1.1").BehindNumber.ShouldBe(3);
        detail.Back.Pockets.Single(p => p.Key == "2.2").SeeThrough.ShouldBeTrue();
    }

    [Fact]
    public async Task A_measured_protector_cuts_what_is_not_printed_and_names_what_is()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album, 2);
        await AddPicturesAsync(host, album, 3, "2026:05:13");
        await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        await host.EditAsync(await host.OpenAsync(album.Units[1].Id), new FillSpread { Revision = 0 });
        var job = await PrintingTests.UntilEndedAsync(
            host,
            await host.PostAsync<PrintJobView>(
                "/api/print-jobs",
                new PrintRequest("once", [album.Units[0].Id], "letter", "1/4 in", "0")
            )
        );
        job.State.ShouldBe(JobState.Done);
        var nine = album.Protectors.Single();
        var request = new MeasureProtector(
            nine.Outer,
            nine.RingStrip,
            "1/16 in",
            [new MeasuredPocket("3x4", "3 x 4")],
            "0.3 mm",
            RingSide.Left,
            new MeasuredHoles("Three rings, 4 1/4 in apart")
        )
        {
            ProtectorId = nine.Id,
            Revision = TestHost.Latest,
        };
        var measured = await host.EditAlbumAsync(album.Id, request);
        measured.Changes.Count.ShouldBe(4);
        measured.Changes[0].ShouldBe("3 pieces are cut to another size from now on");
        measured.Changes[1].ShouldBe("W19 L1 was printed at 3 × 4 in and would be cut to 2 15/16 × 3 15/16 in now");
        var view = await NowAsync();
        (view.Thickness, view.Holes!.FromTop.Count, view.Holes.Pattern).ShouldBe(
            ("0.3 mm", 3, "Three rings, 4 1/4 in apart")
        );
        (await host.OpenAsync(album.Units[0].Id)).Faces[0].Holes.Count.ShouldBe(3);

        var byHand = new MeasuredHoles("Measured", "5/16 in", "1/4 in", ["2 in", "6 in", "10 1/4 in"]);
        await host.EditAlbumAsync(album.Id, request with { Holes = byHand });
        (await NowAsync()).Holes!.FromTop.ShouldBe(["2 in", "6 in", "10 1/4 in"]);
        var refused = await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            request with
            {
                Holes = new MeasuredHoles("Measured", "2 in", "1/4 in", ["2 in"]),
            }
        );
        refused["detail"]!.ToString().ShouldContain("ring strip");
        await host.AlbumEditRefusedAsync(422, album.Id, request with { Holes = new MeasuredHoles("Somebody's") });
        var twice = request with { Pockets = [new MeasuredPocket("3x4", "3 x 4"), new MeasuredPocket("3x4", "2x3")] };
        await host.AlbumEditRefusedAsync(422, album.Id, twice);
        (await host.OpenAsync(album.Units[0].Id)).Faces[0].Holes.Count.ShouldBe(3);

        async Task<ProtectorView> NowAsync() =>
            (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Protectors.Single();
    }

    [Fact]
    public async Task In_the_leaf_school_a_week_lies_on_both_faces_of_one_leaf()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Leaf school",
                new NodaTime.LocalDate(2026, 5, 4),
                3,
                ["9x12-nine-3x4"],
                MeasureSystem.Inches,
                School: PageSchool.Leaf
            )
        );
        album.School.ShouldBe(PageSchool.Leaf);
        await AddPicturesAsync(host, album, 30);
        var unit = await host.OpenAsync(album.Units[0].Id);
        unit.Faces.Select(f => f.Side).ShouldBe([LeafSide.Front, LeafSide.Back]);
        unit.Faces.Select(f => f.LeafId).Distinct().Count().ShouldBe(1);
        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(unit.Id, 1)))[0];
        choice.Leaves.ShouldBe(1);
        await host.EditAlbumAsync(
            album.Id,
            new ChoosePages([new UnitAt(unit.Id, unit.Revision)], [.. choice.Standing], [.. choice.Extra])
        );
        (await LeavesAsync(host, album))
            .Select(l => (l.Front.Title, l.Back.Title, l.Between))
            .ShouldBe([
                ("title page", "empty", false),
                ("Week 19", "Week 19", false),
                ("Week 19", "Week 19", true),
                ("Week 20", "Week 20", false),
                ("Week 21", "Week 21", false),
            ]);
        // The leaf a week stands on is not taken out.
        var count = await host.GetAsync<CountView>($"/api/units/{album.Units[1].Id}/count");
        count.Leaves.ShouldAllBe(l => !l.MayGo);
        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new RemoveLeaf(count.Leaves[0].LeafId) { UnitId = album.Units[1].Id, Revision = count.Revision }
        );
    }

    [Fact]
    public async Task An_index_tab_is_put_on_and_taken_off()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var leaf = (await LeavesAsync(host, album))[1];
        await FormAsync(host, album, new TabLeaf("May", 2) { LeafId = leaf.LeafId, Revision = TestHost.Latest });
        leaf = (await LeavesAsync(host, album))[1];
        (leaf.Tab, leaf.TabPlace).ShouldBe(("May", 2));
        (await host.OpenAsync(album.Units[0].Id)).Faces[1].Tab.ShouldBe("May");
        var tab = new TabLeaf("May", 9) { LeafId = leaf.LeafId, Revision = TestHost.Latest };
        await host.AlbumEditRefusedAsync(422, album.Id, tab);
        await FormAsync(host, album, tab with { Words = "", Place = 0 });
        (await LeavesAsync(host, album))[1].Tab.ShouldBeNull();
    }

    [Fact]
    public async Task A_fused_leaf_that_is_given_up_does_not_go_back_to_those_on_hand()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4");
        var protector = album.Protectors[0].Id;
        await host.EditAlbumAsync(
            album.Id,
            new CountOnHand(10) { ProtectorId = protector, Revision = album.Protectors[0].Revision }
        );
        var leaf = (await LeavesAsync(host, album))[1];
        var fuse = (await host.GetAsync<LeafDetail>($"/api/albums/{album.Id}/leaves/{leaf.LeafId}")).Fusible[0];
        await FormAsync(
            host,
            album,
            new FusePocket(fuse.PocketKey!) { LeafId = leaf.LeafId, Revision = TestHost.Latest }
        );
        (await StockAsync()).ShouldBe(10);
        leaf = (await LeavesAsync(host, album))[1];
        var anew = await FormAsync(host, album, new RenewLeaf { LeafId = leaf.LeafId, Revision = TestHost.Latest });
        (await StockAsync()).ShouldBe(9);
        await host.PostAsync<StepAnswer>($"/api/edits/{anew.EditId}/undo", new { });
        (await StockAsync()).ShouldBe(10);

        async Task<int?> StockAsync() =>
            (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}"))
                .Protectors.Single(p => p.Id == protector)
                .OnHand;
    }

    [Fact]
    public async Task An_album_can_change_from_facing_pages_to_one_leaf_and_back_with_its_pieces()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await AddPicturesAsync(host, album, 12);
        var week = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        var placed = Filled(week);
        var revision = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Revision;
        var preview = await host.EditAlbumAsync(
            album.Id,
            new ChangeSchool(PageSchool.Leaf) { Revision = revision },
            preview: true
        );
        preview.EditId.ShouldBeNull();
        preview.Changes.ShouldNotBeEmpty();
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).School.ShouldBe(PageSchool.Spread);

        var changed = await host.EditAlbumAsync(album.Id, new ChangeSchool(PageSchool.Leaf) { Revision = revision });
        week = await host.OpenAsync(week.Id);
        week.Faces.Select(f => f.LeafId).Distinct().Count().ShouldBe(1);
        week.Faces.Select(f => f.Side).ShouldBe([LeafSide.Front, LeafSide.Back]);
        Filled(week).ShouldBe(placed);
        // On the older revision it is refused with both sides.
        (await host.AlbumEditRefusedAsync(409, album.Id, new ChangeSchool(PageSchool.Spread) { Revision = revision }))[
            "theirs"
        ]!
            .AsArray()
            .Count.ShouldBe(1);
        await host.PostAsync<StepAnswer>($"/api/edits/{changed.EditId}/undo", new { });
        week = await host.OpenAsync(week.Id);
        week.Faces.Select(f => f.Side).ShouldBe([LeafSide.Back, LeafSide.Front]);
        Filled(week).ShouldBe(placed);

        static int Filled(UnitView unit) => unit.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null);
    }

    [Fact]
    public async Task A_stuck_pair_moves_also_where_its_backs_belong_to_two_weeks()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("6x8-four-3x4");
        foreach (var day in new[] { "2026:05:06", "2026:05:13", "2026:05:20" })
        {
            await AddPicturesAsync(host, album, 8, day);
        }

        foreach (var unit in album.Units.Take(3))
        {
            await host.EditAsync(await host.OpenAsync(unit.Id), new FillSpread { Revision = 0 });
        }

        // The middle week: behind its left page lies the first week's right one, behind its right page the third week's
        // left one.
        var leaves = await LeavesAsync(host, album);
        await FormAsync(
            host,
            album,
            new StickPieces("1.1", true) { LeafId = leaves[1].LeafId, Revision = TestHost.Latest }
        );
        var (first, week, third) = (
            await host.OpenAsync(album.Units[0].Id),
            await host.OpenAsync(album.Units[1].Id),
            await host.OpenAsync(album.Units[2].Id)
        );
        var (behindLeft, behindRight) = (Title(first, 1, "1.1"), Title(third, 0, "2.2"));
        var (left, right) = (Title(week, 0, "1.1"), Title(week, 1, "2.2"));
        var answer = await host.PostAsync<EditAnswer>(
            $"/api/units/{week.Id}/edits",
            new MovePiece(
                PieceId: Piece(week, 0, "1.1").Id,
                Place: new PocketPlace(week.Faces[1].LeafId, LeafSide.Front, "2.2")
            )
            {
                Revision = week.Revision,
            }
        );
        (Title(answer.Unit, 1, "2.2"), Title(answer.Unit, 0, "1.1")).ShouldBe((left, right));
        (first, third) = (await host.OpenAsync(first.Id), await host.OpenAsync(third.Id));
        (Title(first, 1, "1.1"), Title(third, 0, "2.2")).ShouldBe((behindRight, behindLeft));
        // The guest is drawn as well as its hosts.
        Piece(third, 0, "2.2").Crop.ShouldNotBeNull();
        (
            await host.Client.GetAsync($"/api/units/{third.Id}/spread.png", TestContext.Current.CancellationToken)
        ).IsSuccessStatusCode.ShouldBeTrue();
        await host.StepAsync(answer.Unit, "undo");
        (Title(await host.OpenAsync(first.Id), 1, "1.1"), Title(await host.OpenAsync(third.Id), 0, "2.2")).ShouldBe(
            (behindLeft, behindRight)
        );

        static PieceView Piece(UnitView unit, int face, string key) =>
            unit.Faces[face].Pockets.Single(p => p.Key == key).Piece!;

        static string Title(UnitView unit, int face, string key) => Piece(unit, face, key).Title;
    }
}
