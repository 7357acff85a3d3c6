using System.Net;
using System.Net.Http.Json;
using UglyToad.PdfPig;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>Finished and composed pieces under rough handling.</summary>
public sealed class MadePieceTests
{
    [Fact]
    public async Task Six_finishes_at_once_on_one_revision_are_one_finish()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, piece) = await PrintedAsync(host);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(1, 6)
                .Select(i =>
                    host.Client.PostAsJsonAsync(
                        $"/api/units/{unit.Id}/edits",
                        (UnitEdit)
                            new FinishPieces([piece], new WrittenFinish(Border: [$"{i} mm"]))
                            {
                                Revision = unit.Revision,
                            },
                        TestHost.Json,
                        TestContext.Current.CancellationToken
                    )
                )
        );
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        answers.Count(a => a.StatusCode == HttpStatusCode.Conflict).ShouldBe(5);
        var now = await host.OpenAsync(unit.Id);
        now.Revision.ShouldBe(unit.Revision + 1);
        PieceAt(now, 1).Finish!.Border!.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_finish_too_wide_for_the_pocket_a_piece_is_moved_to_is_said_and_does_not_break_the_page()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, piece) = await PrintedAsync(host);
        unit = await host.EditAsync(
            unit,
            new FinishPieces(
                [piece],
                new WrittenFinish(Border: ["1 in"], Mats: [new("1/2 in", "#223344"), new("1/4 in", "#223344")])
            )
            {
                Revision = 0,
            }
        );
        PieceAt(unit, 1).Warning.ShouldBeNull();
        // From a 6x4 into the 3x4 beside it: 3 in less three and a half.
        unit = await host.EditAsync(unit, new MovePiece(piece, PlaceAt(unit, 0)) { Revision = 0 });
        PieceAt(unit, 0).Warning!.ShouldContain("too small for the finish");
        var png = await host.Client.GetAsync(PieceAt(unit, 0).FaceUrl, TestContext.Current.CancellationToken);
        png.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_composition_holds_words_of_any_script_and_survives_a_smaller_pocket()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, _) = await PrintedAsync(host);
        unit = await host.EditAsync(
            unit,
            new AddComposition("circle-head-and-foot", PlaceAt(unit, 3)) { Revision = 0 }
        );
        var made = PieceAt(unit, 3);
        foreach (
            var words in new[] { "שלום לכולם, מה שלומך היום?", "مرحبا بالعالم", "", new string('w', 5_000), "a\u0000b" }
        )
        {
            var shapes = made.Composition!.Shapes.Select(s => s with { Words = words });
            unit = await host.EditAsync(
                unit,
                new ChangeComposition(made.Id, made.Composition with { Shapes = [.. shapes] }) { Revision = 0 }
            );
            var png = await host.Client.GetAsync(PieceAt(unit, 3).FaceUrl, TestContext.Current.CancellationToken);
            png.StatusCode.ShouldBe(HttpStatusCode.OK, words);
            (PieceAt(unit, 3).Warning is not null).ShouldBe(words.Length > 1_000);
        }

        unit = await host.EditAsync(unit, new MovePiece(made.Id, PlaceAt(unit, 0)) { Revision = 0 });
        PieceAt(unit, 0).Composition!.Shapes.Count.ShouldBe(3);
        (
            await host.Client.GetAsync(PieceAt(unit, 0).FaceUrl, TestContext.Current.CancellationToken)
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_thousand_pieces_asked_for_at_once_that_are_not_there_are_refused_and_nothing_is_changed()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, piece) = await PrintedAsync(host);
        List<Guid> ids = [piece, .. Enumerable.Range(0, 1_000).Select(_ => Guid.NewGuid())];
        foreach (
            var edit in new UnitEdit[]
            {
                new FinishPieces(ids, new WrittenFinish(Border: ["3 mm"])) { Revision = unit.Revision },
                new PrintPiecesOn(ids, Stock.Kraft) { Revision = unit.Revision },
            }
        )
        {
            await host.RefusedAsync(422, HttpMethod.Post, $"/api/units/{unit.Id}/edits", edit);
        }

        var now = await host.OpenAsync(unit.Id);
        (now.Revision, PieceAt(now, 1).Finish, PieceAt(now, 1).Stock).ShouldBe((unit.Revision, null, Stock.PhotoPaper));
    }

    /// <summary>A week on pages of 3x4 and 6x4 with one picture in the 6x4.</summary>
    [Fact]
    public async Task A_bought_card_is_not_printed_but_its_words_are_on_a_carrier_sheet()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, _) = await PrintedAsync(host);
        var card = await host.AddAsync(unit.AlbumId, "card.jpg", Pictures.Jpeg(900, 1350, "2026:05:05 12:00:00", 150));
        unit = await host.OpenAsync(unit.Id);
        var written = new WrittenBoughtCard("spring cards", CardCorners.Whole.All, "4x6 in");
        unit = await host.EditAsync(
            unit,
            new AddBoughtCard(card.PhotoId!.Value, written, PlaceAt(unit, 0)) { Revision = 0 }
        );
        var piece = PieceAt(unit, 0);
        (piece.Kind, piece.Offcuts).ShouldSatisfyAllConditions(
            p => p.Kind.ShouldBe(PieceKind.BoughtCard),
            p => p.Offcuts.ShouldBe(["1 × 6 in", "3 × 2 in"])
        );
        // Paper of one colour is free all over but for a rim.
        var free = await host.GetAsync<FreePlaceView>($"/api/units/{unit.Id}/pieces/{piece.Id}/free-place");
        free.Place.ShouldNotBeNull();
        unit = await host.EditAsync(
            unit,
            new ChangeBoughtCard(piece.Id, written with { Words = "The first warm evening.", WordsPlace = free.Place })
            {
                Revision = 0,
            }
        );
        var plan = await host.PostAsync<PrintPlanView>(
            "/api/print-plans",
            new PrintRequest("a", [unit.Id], "letter", "1/4 in", "0")
        );
        plan.Words.ShouldContain("1 bought card is printed on a carrier sheet.");
        plan.Pieces.ShouldBe(2);
        var used = await host.GetAsync<List<UsedCardsView>>($"/api/albums/{unit.AlbumId}/bought-cards");
        used.ShouldHaveSingleItem().Used.ShouldBe(1);
        (
            await host.Client.GetAsync(PieceAt(unit, 0).FaceUrl, TestContext.Current.CancellationToken)
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_binder_gets_its_spine_cover_and_a_composition_is_kept_for_others()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, _) = await PrintedAsync(host);
        var url = $"/api/albums/{unit.AlbumId}/inserts.pdf?paper=letter&margin=5+mm";
        (await host.Client.GetAsync(url, TestContext.Current.CancellationToken)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        await host.EditAlbumAsync(
            unit.AlbumId,
            new MeasureBinder("1 x 9 in", "6 x 8 in") { Revision = TestHost.Latest }
        );
        var bytes = await host.Client.GetByteArrayAsync(url, TestContext.Current.CancellationToken);
        using (var pdf = PdfDocument.Open(bytes))
        {
            string.Concat(pdf.GetPages().Select(p => p.Text)).ShouldContain("spine");
        }

        unit = await host.EditAsync(unit, new AddComposition("circle", PlaceAt(unit, 0)) { Revision = 0 });
        await host.EditAlbumAsync(
            unit.AlbumId,
            new KeepComposition("my circle", "3x4 in", PieceAt(unit, 0).Composition!) { Revision = TestHost.Latest }
        );
        var words = await host.GetAsync<AlbumWordsView>($"/api/albums/{unit.AlbumId}/words");
        var kept = words.OwnCompositions.ShouldHaveSingleItem();
        unit = await host.OpenAsync(unit.Id);
        unit = await host.EditAsync(unit, new AddComposition(kept.Key, PlaceAt(unit, 2)) { Revision = 0 });
        PieceAt(unit, 2).Composition!.Name.ShouldBe("my circle");
    }

    [Fact]
    public async Task Six_flips_at_once_are_one_flip_and_labels_hold_any_script_or_say_that_they_are_too_long()
    {
        await using var host = await TestHost.StartAsync();
        var (unit, piece) = await PrintedAsync(host);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    host.Client.PostAsJsonAsync(
                        $"/api/units/{unit.Id}/edits",
                        (UnitEdit)new AttachPiece(piece, AttachmentKind.Flip) { Revision = unit.Revision },
                        TestHost.Json,
                        TestContext.Current.CancellationToken
                    )
                )
        );
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        answers.Count(a => a.StatusCode == HttpStatusCode.Conflict).ShouldBe(5);
        unit = await host.OpenAsync(unit.Id);
        PieceAt(unit, 1).Attached!.Count.ShouldBe(1);
        foreach (var words in new[] { "שלום לכולם", "مرحبا بالعالم", "岸辺の夕方", "at the weir\nthree o’clock" })
        {
            unit = await host.EditAsync(unit, new WriteLabel(words, ToId: piece) { Revision = 0 });
            var label = PieceAt(unit, 1).Attached!.Single(a => a.Label?.Words == words);
            var png = await host.Client.GetAsync(label.FaceUrl, TestContext.Current.CancellationToken);
            png.StatusCode.ShouldBe(HttpStatusCode.OK, words);
        }

        foreach (var words in new[] { "", " ", new string('w', 1_000) })
        {
            await host.RefusedAsync(
                422,
                HttpMethod.Post,
                $"/api/units/{unit.Id}/edits",
                new WriteLabel(words, ToId: piece) { Revision = unit.Revision }
            );
        }

        (await host.OpenAsync(unit.Id)).Revision.ShouldBe(unit.Revision);
    }

    [Fact]
    public async Task A_calendar_page_folds_in_under_a_flap_with_a_pattern_and_both_come_out_at_true_size()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = await host.OpenAsync(album.Units[0].Id);
        await host.EditAlbumAsync(
            album.Id,
            new AddNewLeaf(new LeafMake(LeafKind.FoldOut, Size: "11x8", Fold: "6 1/2 in"))
            {
                UnitId = week.Id,
                Revision = week.Revision,
            }
        );
        week = await host.OpenAsync(week.Id);
        var back = week.Faces.Single(f => f.Pockets.Any(p => p.Key == "flap"));
        PocketPlace Of(string key) => new(back.LeafId, back.Side, key);
        week = await host.EditAsync(week, new AddCard(CardKind.Calendar, Place: Of("page")) { Revision = 0 });
        week = await host.EditAsync(week, new AddCard(CardKind.Filler, Place: Of("flap")) { Revision = 0 });
        var pockets = week.Faces.Single(f => f.LeafId == back.LeafId && f.Side == back.Side).Pockets;
        pockets.Single(p => p.Key == "page").CutLabel.ShouldBe("6 1/2 × 8 in");
        pockets.Single(p => p.Key == "flap").CutLabel.ShouldBe("4 1/2 × 8 in");
        // The flap is card, and so is the page under it.
        pockets.Select(p => p.Thickness).Distinct().ShouldBe(["0.3 mm"]);
        var plan = await host.PostAsync<PrintPlanView>(
            "/api/print-plans",
            new PrintRequest("a", [week.Id], "letter", "1/4 in", "0")
        );
        plan.Pieces.ShouldBe(2);
    }

    [Fact]
    public async Task What_could_go_where_is_told_and_one_of_the_other_ways_is_laid_with_one_edit()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        for (var i = 0; i < 14; i++)
        {
            var (wide, high) = i % 2 == 0 ? (1500, 1000) : (1200, 1600);
            var day = 4 + (i % 6);
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(wide, high, $"2026:05:0{day} 1{i % 10}:00:00", shade: 40 + (10 * i))
            );
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        var offers = await host.GetAsync<List<PocketOffer>>($"/api/units/{unit.Id}/pockets-for/{unit.Photos[0].Id}");
        offers.Count.ShouldBe(12);
        offers[0].Words.ShouldBe("nothing cropped");
        var things = await host.GetAsync<List<PocketOffer>>($"/api/units/{unit.Id}/things-for?code=W19%20L2");
        things.ShouldNotBeEmpty();
        (await StatusAsync(host, $"/api/units/{unit.Id}/things-for?code=nowhere")).ShouldBe(HttpStatusCode.NotFound);

        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var reasons = await host.GetAsync<List<PlacingReason>>($"/api/units/{unit.Id}/reasons");
        reasons.Count.ShouldBe(12);
        var ways = await host.GetAsync<List<WayView>>($"/api/units/{unit.Id}/other-ways");
        ways.Count.ShouldBeGreaterThan(1);
        ways.ShouldAllBe(w => w.Things.Count == 12 && w.Picture.StartsWith("data:image/png;base64,"));
        ways[0].Score.ShouldBe(100);
        var before = unit;
        unit = await host.EditAsync(unit, new LaySpread(ways[1].Things) { Revision = 0 });
        foreach (var (key, place) in ways[1].Things)
        {
            unit.Faces.Single(f => f.LeafId == place.LeafId && f.Side == place.Side)
                .Pockets.Single(p => p.Key == place.PocketKey)
                .Piece!.Photo!.Id.ShouldBe(key);
        }

        unit = await host.StepAsync(unit, "undo");
        Laid(unit).ShouldBe(Laid(before));

        // Everything locked: there is no other way, and it is said.
        foreach (
            var pocket in unit.Faces.SelectMany(f => f.Pockets.Select(p => new PocketPlace(f.LeafId, f.Side, p.Key)))
        )
        {
            unit = await host.EditAsync(unit, new LockPocket(pocket, true) { Revision = 0 });
        }

        (await StatusAsync(host, $"/api/units/{unit.Id}/other-ways")).ShouldBe(HttpStatusCode.UnprocessableEntity);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new PlaceAgain { Revision = unit.Revision }
        );

        static IEnumerable<Guid?> Laid(UnitView unit) =>
            unit.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece?.Photo?.Id);
    }

    private static async Task<(UnitView Unit, Guid Piece)> PrintedAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(1500, 1000, "2026:05:04 10:00:00"));
        var unit = await host.OpenAsync(album.Units[0].Id);
        unit.Faces[0].Pockets.Take(2).Select(p => p.Size).ShouldBe(["3x4", "6x4"]);
        unit = await host.EditAsync(unit, new PutPhoto(unit.Photos[0].Id, PlaceAt(unit, 1)) { Revision = 0 });
        return (unit, PieceAt(unit, 1).Id);
    }

    private static async Task<HttpStatusCode> StatusAsync(TestHost host, string url) =>
        (await host.Client.GetAsync(url, TestContext.Current.CancellationToken)).StatusCode;

    private static PocketPlace PlaceAt(UnitView unit, int n) =>
        new(unit.Faces[0].LeafId, unit.Faces[0].Side, unit.Faces[0].Pockets[n].Key);

    private static PieceView PieceAt(UnitView unit, int n) => unit.Faces[0].Pockets[n].Piece!;
}
