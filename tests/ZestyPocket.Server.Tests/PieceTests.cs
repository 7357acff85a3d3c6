using Microsoft.Extensions.DependencyInjection;
using UglyToad.PdfPig;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Collages, pictures over several pockets, pockets left empty, and pictures wanted in one size.</summary>
public sealed class PieceTests
{
    private static async Task<(AlbumView Album, UnitView Unit)> WeekAsync(
        TestHost host,
        int pictures,
        params string[] designs
    ) => await WeekAsync(host, pictures, 1, designs);

    private static async Task<(AlbumView Album, UnitView Unit)> WeekAsync(
        TestHost host,
        int pictures,
        int times,
        string[] designs
    )
    {
        var album = await host.MakeAlbumAsync(designs);
        for (var i = 0; i < pictures; i++)
        {
            await host.AddAsync(
                album.Id,
                $"p{i:00}.jpg",
                Pictures.Jpeg(1800 * times, 1200 * times, $"2026:05:06 1{i / 10}:0{i % 10}:00", shade: 20 + (9 * i))
            );
        }

        return (album, await host.OpenAsync(album.Units[0].Id));
    }

    [Fact]
    public async Task Too_many_pictures_are_put_into_a_collage_with_one_click_and_it_prints_at_true_size()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var (_, unit) = await WeekAsync(host, 15, "9x12-rows-6x4-3x4");
        var count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        count.Lacking.ShouldBe(3);
        count.Ways[0].Kind.ShouldBe(WayKind.MakeCollage);
        var move = count.Ways[0];
        (move.PhotoIds!.Count, move.Size).ShouldBe((4, "6x4"));
        unit = await host.EditAsync(
            unit,
            new AddCollage(Collage: new WrittenCollage(move.Size!, move.PhotoIds!)) { Revision = 0 }
        );
        (await host.GetAsync<CountView>($"/api/units/{unit.Id}/count")).Lacking.ShouldBe(0);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        unit.Undo.ShouldBe("Filled the spread with 11 photos, 1 collage and 0 cards");
        (unit.Counts.LoosePhotos, unit.Counts.PiecesShort).ShouldBe((0, 0));
        var pocket = unit.Faces.SelectMany(f => f.Pockets).Single(p => p.Piece?.Kind == PieceKind.Collage);
        pocket.Size.ShouldBe("6x4");
        pocket.Piece!.Collage!.Cells.Count.ShouldBe(4);

        // A word cell, a wider gutter: the pictures find their cells anew.
        unit = await host.EditAsync(
            unit,
            new ChangeCollage(
                PieceId: pocket.Piece.Id,
                Collage: new WrittenCollage("6x4", move.PhotoIds!, WordCells: 2, Gutter: "1/8 in")
            )
            {
                Revision = 0,
            }
        );
        var collage = unit
            .Faces.SelectMany(f => f.Pockets)
            .Single(p => p.Piece?.Kind == PieceKind.Collage)
            .Piece!.Collage!;
        (collage.Cells.Count, collage.Cells.Count(c => c.PhotoId is null), collage.Gutter).ShouldBe((6, 2, "1/8 in"));
        unit = await host.EditAsync(
            unit,
            new ChangeCollage(
                PieceId: pocket.Piece.Id,
                Collage: new WrittenCollage(
                    "6x4",
                    [],
                    Layout: collage.Layout,
                    Gutter: collage.Gutter,
                    Cells:
                    [
                        .. collage.Cells.Select(
                            (c, i) => new WrittenCell(c.Key, c.PhotoId, c.PhotoId is null ? "Market day" : null)
                        ),
                    ]
                )
            )
            {
                Revision = 0,
            }
        );

        var job = await PrintingTests.UntilEndedAsync(
            host,
            await host.PostAsync<PrintJobView>(
                "/api/print-jobs",
                new PrintRequest("collage", [unit.Id], "letter", "1/4 in", "0")
            )
        );
        using var pdf = PdfDocument.Open(
            await host.Client.GetByteArrayAsync($"/api/print-jobs/{job.Id}/file", TestContext.Current.CancellationToken)
        );
        // Eleven prints and the four pictures of the collage, which is one piece on the sheet.
        pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(15);
        string.Concat(pdf.GetPages().Select(p => p.Text))
            .Replace(" ", "", StringComparison.Ordinal)
            .ShouldContain("Marketday");

        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new AddCollage(Collage: new WrittenCollage("6x4", [])) { Revision = unit.Revision }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new AddCollage(Collage: new WrittenCollage("6x4", [.. unit.Photos.Take(10).Select(p => p.Id)]))
            {
                Revision = unit.Revision,
            }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new AddCollage(Collage: new WrittenCollage("nothing", [unit.Photos[0].Id, unit.Photos[1].Id]))
            {
                Revision = unit.Revision,
            }
        );
    }

    [Fact]
    public async Task A_picture_over_two_pockets_is_two_slices_that_skip_what_lies_under_the_seam()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekAsync(host, 2, 2, ["12x12-six-6x4"]);
        var six = album.Protectors.Single();
        await host.EditAlbumAsync(
            album.Id,
            new MeasureProtector(six.Outer, six.RingStrip, "0", [new MeasuredPocket("6x4", "5 3/4 x 4")])
            {
                ProtectorId = six.Id,
                Revision = six.Revision,
            }
        );
        var count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        var move = count.Ways.Single(m => m.Kind == WayKind.SpanPockets);
        move.Places!.Count.ShouldBe(2);
        unit = await host.EditAsync(
            await host.OpenAsync(unit.Id),
            new PutSpan(
                PhotoId: move.PhotoIds![0],
                Places:
                [
                    new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, "1.1"),
                    new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, "1.2"),
                ]
            )
            {
                Revision = 0,
            }
        );
        var slices = unit.Faces[0].Pockets.Take(2).Select(p => p.Piece!).ToList();
        slices.Select(s => (s.Span!.Number, s.Span.Of)).ShouldBe([(1, 2), (2, 2)]);
        // Left to right as the back shows them: the picture goes on where the first slice ends, but for the weld of 1/4
        // in.
        var (left, right) = (slices[0].Crop!, slices[1].Crop!);
        var perInch = left.Width / 5.75;
        (right.Left - left.Left - left.Width).ShouldBe(perInch / 4, 1e-6);
        left.Width.ShouldBe(right.Width, 1e-9);
        unit.Counts.LoosePhotos.ShouldBe(1);

        // Framed as one, printed as two pieces, taken out as one.
        unit = await host.EditAsync(
            unit,
            new FramePhoto(PieceId: slices[1].Id, Framing: new Framing(0.5, 0.2, 1.5)) { Revision = 0 }
        );
        unit.Faces[0].Pockets.Take(2).ShouldAllBe(p => p.Piece!.Framing!.Zoom == 1.5 && p.Locked);
        var plan = await host.PostAsync<PrintPlanView>(
            "/api/print-plans",
            new PrintRequest("span", [unit.Id], "letter", "1/4 in", "0")
        );
        plan.Pieces.ShouldBe(2);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new PutSpan(
                PhotoId: unit.Photos[1].Id,
                Places:
                [
                    new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, "1.1"),
                    new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, "2.2"),
                ]
            )
            {
                Revision = unit.Revision,
            }
        );
        unit = await host.EditAsync(
            unit,
            new TakeOut(Place: new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, "1.1")) { Revision = 0 }
        );
        unit.Counts.LoosePhotos.ShouldBe(2);
    }

    [Fact]
    public async Task A_pocket_left_clear_is_not_filled_and_not_counted()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekAsync(host, 12, "9x12-rows-6x4-3x4");
        var place = new PocketPlace(unit.Faces[0].LeafId, LeafSide.Back, unit.Faces[0].Pockets[2].Key);
        unit = await host.EditAsync(unit, new LeaveEmpty(Place: place, Empty: true) { Revision = 0 });
        var count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        (count.Pockets, count.LeftEmpty, count.Lacking).ShouldBe((11, 1, 1));
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        (
            unit.Faces[0].Pockets[2].Piece,
            unit.Faces[0].Pockets[2].LeftEmpty,
            unit.Counts.LoosePhotos,
            unit.Counts.OpenPockets
        ).ShouldBe((null, true, 1, 0));
        unit = await host.EditAsync(unit, new LeaveEmpty(Place: place, Empty: false) { Revision = 0 });
        unit.Counts.OpenPockets.ShouldBe(1);
    }

    [Fact]
    public async Task A_picture_wanted_at_6x8_gets_a_page_that_has_one_and_lies_there()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekAsync(host, 9, "9x12-nine-3x4", "9x12-6x8-five-3x4");
        var wanted = unit.Photos[4].Id;
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new WishSize(PhotoId: wanted, Size: "12x12") { Revision = unit.Revision }
        );
        unit = await host.EditAsync(unit, new WishSize(PhotoId: wanted, Size: "6x8") { Revision = 0 });
        unit.Wishes.ShouldBe([new WishView(wanted, "6x8")]);
        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(unit.Id, 1)))[0];
        var large = album.Protectors.Single(p => p.DesignKey == "9x12-6x8-five-3x4").Id;
        choice.Standing.ShouldContain(s => s.ProtectorId == large);
        choice.Unplaced.ShouldBe(0);
        await host.EditAlbumAsync(
            album.Id,
            new ChoosePages([new UnitAt(unit.Id, unit.Revision)], [.. choice.Standing], [.. choice.Extra])
        );
        unit = await host.EditAsync(await host.OpenAsync(unit.Id), new FillSpread { Revision = 0 });
        unit.Faces.SelectMany(f => f.Pockets).Single(p => p.Piece?.Photo?.Id == wanted).Size.ShouldBe("6x8");
    }

    [Fact]
    public async Task A_part_that_stays_on_its_pages_gets_no_leaf_and_the_weights_are_the_keepers()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekAsync(host, 16, "9x12-rows-6x4-3x4", "9x12-nine-3x4");
        var ask = new ChoosePagesRequest(unit.Id, 1);
        var free = await host.ChoosePagesAsync(album.Id, ask);
        // Sixteen pieces on two pages of six: fusing pockets is offered after what needs no tool.
        free[^1].Name.ShouldStartWith("Better if you fuse");
        free.Take(free.Count - 1).ShouldAllBe(c => c.Standing.All(s => s.Fused == 0) && c.Extra.All(e => e.Fused == 0));

        unit = await host.EditAsync(unit, new KeepPages(Keep: true) { Revision = 0 });
        var kept = await host.ChoosePagesAsync(album.Id, ask);
        kept.ShouldAllBe(c => c.Extra.Count() == 0);
        kept[0].Units.Single().Says.ShouldContain("stays on its pages");

        // Cropping does not matter to this keeper, leaves do: the answer is at least as short of leaves as any.
        var own = (
            await host.ChoosePagesAsync(album.Id, ask with { Weights = new WeightsView(50_000, 10, 0, 0, 100_000) })
        )[0];
        own.Name.ShouldBe("Your weights");
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/pages/searches",
            new PageSearchRequest("odd", ask with { Weights = new WeightsView(-1, 0, 0, 0, 0) })
        );
    }

    [Fact]
    public async Task Fusing_with_one_click_and_by_a_choice_of_pages_both_hold_what_they_promise()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekAsync(host, 13, "9x12-rows-6x4-3x4");
        var count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        var move = count.Ways.Single(m => m.Kind == WayKind.FusePocket);
        move.Label.ShouldBe("Fuse W19 L2: 6x4 into two 3x4");
        var choices = await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(unit.Id, 1));
        var fused = choices.Single(c => c.Name == "Better if you fuse one pocket");
        (fused.Leaves, fused.Unplaced, fused.Empty).ShouldBe((0, 0, 0));
        await host.EditAlbumAsync(
            album.Id,
            new ChoosePages([new UnitAt(unit.Id, unit.Revision)], [.. fused.Standing], [.. fused.Extra])
        );
        count = await host.GetAsync<CountView>($"/api/units/{unit.Id}/count");
        (count.Pockets, count.Lacking, count.Free).ShouldBe((13, 0, 0));
        (
            await host.EditAsync(await host.OpenAsync(unit.Id), new FillSpread { Revision = 0 })
        ).Counts.LoosePhotos.ShouldBe(0);
    }

    [Fact]
    public async Task Four_hundred_pictures_in_a_day_get_an_answer()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekAsync(host, 1, "9x12-nine-3x4", "9x12-rows-6x4-3x4");
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<Storage.ZestyContext>();
            var photo = db.Photos.Single();
            for (var i = 0; i < 399; i++)
            {
                var copy = (Storage.Photos.Photo)db.Entry(photo).CurrentValues.ToObject();
                (copy.Id, copy.Sha256, copy.FileName) = (
                    Guid.CreateVersion7(),
                    Core.Photos.ContentHash.Parse(i.ToString("x64", System.Globalization.CultureInfo.InvariantCulture)),
                    $"c{i}.jpg"
                );
                db.Photos.Add(copy);
            }

            await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        }

        var choice = (await host.ChoosePagesAsync(album.Id, new ChoosePagesRequest(unit.Id, 1)))[0];
        (choice.Unplaced, choice.Units.Single().Pockets >= 400).ShouldBe((0, true));
    }
}
