using System.Net;
using System.Text.Json.Nodes;
using NodaTime;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

public sealed class EditingTests
{
    [Fact]
    public async Task A_week_takes_the_back_of_one_leaf_and_the_front_of_the_next()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var (first, second) = (await host.OpenAsync(album.Units[0].Id), await host.OpenAsync(album.Units[1].Id));
        first.Faces.Select(f => f.Side).ShouldBe([LeafSide.Back, LeafSide.Front]);
        first.Faces[1].LeafId.ShouldBe(second.Faces[0].LeafId);
        (first.Title, first.Label).ShouldBe(("Week 19", "4–10 May 2026"));
        first.Faces[1].OtherSide.ShouldBe("Week 20");
    }

    [Fact]
    public async Task Two_windows_never_overwrite_each_other_silently()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekWithPhotosAsync(host, 2);
        var mine = await host.EditAsync(unit, Put(unit, 0, 0));

        var refusal = await host.RefusedAsync(
            409,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            Put(unit, 1, 0) with
            {
                Revision = unit.Revision,
            }
        );
        refusal["yours"]!.GetValue<string>().ShouldBe("Put a photo into a pocket");
        refusal["theirs"]!
            .AsArray()
            .Single()!
            .GetValue<string>()
            .ShouldBe($"Put {unit.Photos[0].FileName} into W19 L1");
        refusal["currentRevision"]!.GetValue<int>().ShouldBe(mine.Revision);

        var after = await host.OpenAsync(unit.Id);
        after.Faces[0].Pockets[0].Piece!.Photo!.Id.ShouldBe(unit.Photos[0].Id);
        album.Units.Count.ShouldBe(4);
    }

    [Fact]
    public async Task Of_many_edits_at_the_same_moment_exactly_one_wins()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekWithPhotosAsync(host, 8);
        var statuses = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(async i =>
                {
                    try
                    {
                        await host.EditAsync(unit, Put(unit, i, i % 4));
                        return HttpStatusCode.OK;
                    }
                    catch (HttpRequestException refused)
                    {
                        return refused.StatusCode;
                    }
                })
        );
        statuses.Count(s => s == HttpStatusCode.OK).ShouldBe(1);
        statuses.Count(s => s == HttpStatusCode.Conflict).ShouldBe(7);
        (await host.OpenAsync(unit.Id)).Revision.ShouldBe(unit.Revision + 1);
    }

    [Fact]
    public async Task Undo_and_redo_survive_a_restart()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekWithPhotosAsync(host, 2);
        unit = await host.EditAsync(unit, Put(unit, 0, 0));
        unit = await host.EditAsync(unit, Put(unit, 1, 1));
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "Tuesday was wet.") { Revision = 0 }
        );
        unit.Undo.ShouldBe("Added a journaling card");

        await host.RestartAsync();
        unit = await host.OpenAsync(unit.Id);
        unit = await host.StepAsync(unit, "undo");
        unit.LooseCards.ShouldBeEmpty();
        unit = await host.StepAsync(unit, "undo");
        unit.Counts.OpenPockets.ShouldBe(unit.Counts.Pockets - 1);

        await host.RestartAsync();
        unit = await host.StepAsync(await host.OpenAsync(unit.Id), "redo");
        unit = await host.StepAsync(unit, "redo");
        unit.LooseCards.Single().Words.ShouldBe("Tuesday was wet.");
        unit.Redo.ShouldBeNull();
        await host.RefusedAsync(422, HttpMethod.Post, $"/api/units/{unit.Id}/redo", new RevisionRequest(unit.Revision));
    }

    [Fact]
    public async Task A_new_edit_after_an_undo_closes_the_way_to_redo()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekWithPhotosAsync(host, 2);
        unit = await host.EditAsync(unit, Put(unit, 0, 0));
        unit = await host.StepAsync(unit, "undo");
        unit.Redo.ShouldNotBeNull();
        unit = await host.EditAsync(unit, Put(unit, 1, 0));
        unit.Redo.ShouldBeNull();
        unit = await host.StepAsync(unit, "undo");
        unit = await host.StepAsync(unit, "redo");
        unit.Faces[0].Pockets[0].Piece!.Photo!.Id.ShouldBe(unit.Photos[1].Id);
    }

    [Fact]
    public async Task A_new_page_design_sends_what_lost_its_pocket_to_the_tray_in_both_weeks_and_undo_brings_all_back()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4", "9x12-full");
        for (var i = 0; i < 18; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(taken: $"2026:05:{4 + i % 14:00} 09:{i:00}:00", shade: i)
            );
        }

        var first = await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        var second = await host.EditAsync(await host.OpenAsync(album.Units[1].Id), new FillSpread { Revision = 0 });
        var shared = first.Faces[1];
        shared.LeafId.ShouldBe(second.Faces[0].LeafId);
        var (before1, before2) = (first.Counts.LoosePhotos, second.Counts.LoosePhotos);

        var full = album.Protectors.Single(p => p.DesignKey == "9x12-full").Id;
        await host.EditAlbumAsync(
            album.Id,
            new GiveDesign(shared.LeafId, full) { UnitId = first.Id, Revision = first.Revision }
        );
        first = await host.OpenAsync(first.Id);
        first.Faces[1].Pockets.Count.ShouldBe(1);
        second = await host.OpenAsync(second.Id);
        second.Faces[0].Pockets.Count.ShouldBe(1);
        (first.Counts.LoosePhotos + second.Counts.LoosePhotos).ShouldBeGreaterThan(before1 + before2);

        first = await host.StepAsync(first, "undo");
        second = await host.OpenAsync(second.Id);
        (first.Counts.LoosePhotos, second.Counts.LoosePhotos).ShouldBe((before1, before2));
        second.Faces[0].Pockets.Count.ShouldBe(9);
    }

    [Fact]
    public async Task An_edit_over_two_weeks_is_not_undone_over_a_later_change_of_the_neighbour()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4", "9x12-full");
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(taken: "2026:05:12 09:00:00"));
        var second = await host.OpenAsync(album.Units[1].Id);
        second = await host.EditAsync(second, Put(second, 0, 8));

        var first = await host.OpenAsync(album.Units[0].Id);
        var full = album.Protectors.Single(p => p.DesignKey == "9x12-full").Id;
        await host.EditAlbumAsync(
            album.Id,
            new GiveDesign(first.Faces[1].LeafId, full) { UnitId = first.Id, Revision = first.Revision }
        );
        first = await host.OpenAsync(first.Id);
        second = await host.OpenAsync(second.Id);
        await host.EditAsync(second, Put(second, 0, 0));

        var refusal = await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{first.Id}/undo",
            new RevisionRequest(first.Revision)
        );
        refusal["detail"]!.GetValue<string>().ShouldContain("something else was built on it");
    }

    [Fact]
    public async Task Filling_the_spread_leaves_what_is_placed_where_it_is()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekWithPhotosAsync(host, 20);
        unit = await host.EditAsync(unit, Put(unit, 7, 3));
        unit = await host.EditAsync(unit, new AddCard(CardKind: CardKind.WeekTitle) { Revision = 0 });
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        unit.Counts.OpenPockets.ShouldBe(0);
        var pockets = unit.Faces.SelectMany(f => f.Pockets).ToList();
        pockets[3].Piece!.Photo!.Id.ShouldBe(unit.Photos[7].Id);
        pockets[0].Piece!.CardKind.ShouldBe(CardKind.WeekTitle);
        pockets.Select(p => p.Piece!.Photo?.Id).OfType<Guid>().Distinct().Count().ShouldBe(11);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new FillSpread { Revision = unit.Revision }
        );
    }

    [Fact]
    public async Task Crop_loss_and_resolution_are_told_with_a_plain_warning_under_200_ppi()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await WeekWithPhotosAsync(host, 1);
        // 600x400 pixels in a 6x4 pocket: 100 to the inch, nothing lost.
        var large = unit.Faces[1].Pockets.First(p => p.Size == "6x4");
        unit = await host.EditAsync(
            unit,
            new PutPhoto(
                PhotoId: unit.Photos[0].Id,
                Place: new PocketPlace(unit.Faces[1].LeafId, LeafSide.Front, large.Key)
            )
            {
                Revision = 0,
            }
        );
        var piece = unit.Faces[1].Pockets.First(p => p.Piece is not null).Piece!;
        piece.Crop!.PixelsPerInch.ShouldBe(100);
        piece.Crop.LossPercent.ShouldBe(0, 0.001);
        piece.Warning!.ShouldContain("100 ppi");
        unit.Counts.Warnings.ShouldBe(1);
    }

    [Fact]
    public async Task A_photo_moved_to_another_week_leaves_its_pocket_and_undo_puts_it_back()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekWithPhotosAsync(host, 1);
        unit = await host.EditAsync(unit, Put(unit, 0, 0));
        var photo = unit.Photos[0];
        await PutAsync(host, photo, new LocalDate(2026, 5, 13));
        unit = await host.OpenAsync(unit.Id);
        (unit.Photos.Count, unit.Counts.OpenPockets).ShouldBe((0, unit.Counts.Pockets));
        (await host.OpenAsync(album.Units[1].Id)).Photos.Single().Id.ShouldBe(photo.Id);

        unit = await host.StepAsync(unit, "undo");
        unit.Faces[0].Pockets[0].Piece!.Photo!.Id.ShouldBe(photo.Id);
        (await host.OpenAsync(album.Units[1].Id)).Photos.ShouldBeEmpty();
    }

    [Fact]
    public async Task Photos_outside_the_album_find_their_week_when_the_album_grows()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var outcome = await host.AddAsync(album.Id, "june.jpg", Pictures.Jpeg(taken: "2026:06:10 10:00:00"));
        outcome.UnitId.ShouldBeNull();
        (
            await host.EditAlbumAsync(album.Id, new GrowAlbum(4, AtEnd: true) { Revision = album.Revision })
        ).Changes.ShouldBe(["1 picture from outside the album to Week 24"]);
        album = await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
        album.Units.Count.ShouldBe(8);
        album.PhotosWithoutUnit.ShouldBe(0);
        album.Units.Single(u => u.Title == "Week 24").Photos.ShouldBe(1);
        (await host.OpenAsync(album.Units[4].Id)).Faces.Count.ShouldBe(2);
        (await host.OpenAsync(album.Units[7].Id)).Faces.Count.ShouldBe(2);
    }

    [Fact]
    public async Task Measured_pockets_change_the_cut_size_of_their_pieces()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var protector = album.Protectors[0];
        var measure = new MeasureProtector("9 3/4 x 12 1/4", "5/8", "1/32", [new MeasuredPocket("3x4", "2 15/16 x 4")])
        {
            ProtectorId = protector.Id,
            Revision = protector.Revision,
        };
        await host.EditAlbumAsync(album.Id, measure);
        var unit = await host.OpenAsync(album.Units[0].Id);
        unit.Faces[0].Pockets[0].CutLabel.ShouldBe("2.906 × 3.969 in");
        unit.Undo.ShouldBe("Measured Nine 3x4");
        unit = await host.StepAsync(await host.OpenAsync(album.Units[2].Id), "undo");
        unit.Faces[0].Pockets[0].CutLabel.ShouldBe("3 × 4 in");
        var bad = await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            measure with
            {
                Outer = "9x12",
                Revision = TestHost.Latest,
            }
        );
        bad["detail"]!.GetValue<string>().ShouldContain("smaller");
    }

    [Fact]
    public async Task Requests_that_make_no_sense_are_refused_and_change_nothing()
    {
        await using var host = await TestHost.StartAsync();
        var (album, unit) = await WeekWithPhotosAsync(host, 1);
        var url = $"/api/units/{unit.Id}/edits";
        await host.RefusedAsync(
            400,
            HttpMethod.Post,
            url,
            new
            {
                kind = "putPhoto",
                revision = unit.Revision,
                photoId = (Guid?)null,
                place = Place(unit, 0),
            }
        );
        // A kind that nobody knows, a field that the kind does not have, and a field that it lacks.
        await host.RefusedAsync(400, HttpMethod.Post, url, new { kind = "setOnFire", revision = unit.Revision });
        await host.RefusedAsync(
            400,
            HttpMethod.Post,
            url,
            new
            {
                kind = "fillSpread",
                revision = unit.Revision,
                place = Place(unit, 0),
            }
        );
        await host.RefusedAsync(400, HttpMethod.Post, url, new { kind = "fillSpread" });
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            new PutPhoto(PhotoId: Guid.NewGuid(), Place: Place(unit, 0)) { Revision = unit.Revision }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            new PutPhoto(PhotoId: unit.Photos[0].Id, Place: new PocketPlace(Guid.NewGuid(), LeafSide.Front, "1.1"))
            {
                Revision = unit.Revision,
            }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            new AddCard(CardKind: CardKind.Journaling, StyleKey: "no such style") { Revision = unit.Revision }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            new AddCard(CardKind: CardKind.Journaling, Words: new string('w', 30_000)) { Revision = unit.Revision }
        );
        await host.RefusedAsync(
            404,
            HttpMethod.Post,
            $"/api/units/{Guid.NewGuid()}/edits",
            new FillSpread { Revision = 0 }
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/albums",
            new MakeAlbumRequest(" ", new LocalDate(2026, 1, 1), 1, ["9x12-full"], Core.Measures.MeasureSystem.Inches)
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/albums",
            new MakeAlbumRequest("A", new LocalDate(2026, 1, 1), 0, ["9x12-full"], Core.Measures.MeasureSystem.Inches)
        );
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/albums",
            new MakeAlbumRequest(
                "A",
                new LocalDate(2026, 1, 1),
                1,
                ["9x12-full", "6x8-full"],
                Core.Measures.MeasureSystem.Inches
            )
        );
        await host.RefusedAsync(400, HttpMethod.Post, url, JsonNode.Parse("""{"revision":"soon"}""")!);
        (await host.OpenAsync(unit.Id)).Revision.ShouldBe(unit.Revision);
        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Single().Id.ShouldBe(album.Id);
    }

    [Fact]
    public async Task An_album_put_away_can_be_brought_back()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        (
            await host.Client.PostAsync($"/api/albums/{album.Id}/put-away", null, TestContext.Current.CancellationToken)
        ).EnsureSuccessStatusCode();
        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).ShouldBeEmpty();
        (
            await host.Client.GetAsync($"/api/albums/{album.Id}", TestContext.Current.CancellationToken)
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (
            await host.Client.PostAsync(
                $"/api/albums/{album.Id}/bring-back",
                null,
                TestContext.Current.CancellationToken
            )
        ).EnsureSuccessStatusCode();
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units.Count.ShouldBe(4);
    }

    [Fact]
    public async Task The_server_is_healthy_and_knows_no_addresses_but_its_own()
    {
        await using var host = await TestHost.StartAsync();
        (await host.Client.GetStringAsync("/healthz", TestContext.Current.CancellationToken)).ShouldBe("Healthy");
        (await host.Client.GetAsync("/api/nothing-here", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    internal static async Task<(AlbumView Album, UnitView Unit)> WeekWithPhotosAsync(TestHost host, int count)
    {
        var album = await host.MakeAlbumAsync();
        for (var i = 0; i < count; i++)
        {
            var upright = i % 3 == 1;
            await host.AddAsync(
                album.Id,
                $"{i:00}.jpg",
                Pictures.Jpeg(
                    upright ? 400 : 600,
                    upright ? 600 : 400,
                    $"2026:05:{4 + (i % 7):00} 10:{i:00}:00",
                    shade: 20 + i
                )
            );
        }

        return (album, await host.OpenAsync(album.Units[0].Id));
    }

    internal static PocketPlace Place(UnitView unit, int pocket)
    {
        var all = unit.Faces.SelectMany(f => f.Pockets.Select(p => (f, p))).ToList();
        return new PocketPlace(all[pocket].f.LeafId, all[pocket].f.Side, all[pocket].p.Key);
    }

    private static PutPhoto Put(UnitView unit, int photo, int pocket) =>
        new PutPhoto(unit.Photos[photo].Id, Place(unit, pocket)) { Revision = 0 };

    private static Task<PhotoEditAnswer> PutAsync(TestHost host, PhotoView photo, LocalDate day) =>
        host.EditPhotosAsync(photo, new DatePhoto(day));
}
