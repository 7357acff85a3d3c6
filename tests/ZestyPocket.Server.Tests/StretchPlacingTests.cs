using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Tests;

/// <summary>Several weeks placed at once: one job, one edit, nothing changed when it is cancelled.</summary>
public sealed class StretchPlacingTests
{
    private static readonly StretchRules Titled = new() { TitleFirst = true };

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<AlbumView> GatheredAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        for (var i = 0; i < 24; i++)
        {
            var taken = $"2026:05:{4 + i:00} 1{i % 10}:00:00";
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(300 + i, 400, taken, shade: 60 + (5 * i), colourful: i == 2)
            );
        }

        return album;
    }

    private static Task<StretchPlacingView> AskAsync(
        TestHost host,
        AlbumView album,
        string key,
        bool again = false,
        int count = 4
    ) =>
        host.PostAsync<StretchPlacingView>(
            $"/api/albums/{album.Id}/stretch-placings",
            new PlaceStretchRequest(key, album.Units[0].Id, count, again, Titled)
        );

    private static async Task<StretchPlacingView> RunAsync(TestHost host, StretchPlacingView placing)
    {
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<StretchRunner>().RunAsync(placing.Id, Cancel);
        return await host.GetAsync<StretchPlacingView>($"/api/stretch-placings/{placing.Id}");
    }

    private static Task<List<SheetUnit>> SheetAsync(TestHost host, AlbumView album) =>
        host.GetAsync<List<SheetUnit>>($"/api/albums/{album.Id}/contact-sheet?from={album.Units[0].Id}&count=4");

    [Fact]
    public async Task Four_weeks_are_filled_by_one_edit_that_is_undone_at_once()
    {
        await using var host = await TestHost.StartAsync();
        var album = await GatheredAsync(host);
        var done = await RunAsync(host, await AskAsync(host, album, "fill"));
        (done.State, done.Problem, done.UnitsDone, done.UnitsTotal).ShouldBe((JobState.Done, null, 4, 4));
        done.Done.ShouldBe("Filled 4 spreads");
        var sheet = await SheetAsync(host, album);
        sheet.Sum(u => u.Placed).ShouldBe(24 + 4);
        sheet.ShouldAllBe(u => u.Loose == 0 && u.Locked == 0);
        foreach (var unit in album.Units)
        {
            var open = await host.OpenAsync(unit.Id);
            open.Faces[0].Pockets[0].Piece!.CardKind.ShouldBe(Core.Words.CardKind.WeekTitle);
            open.Undo.ShouldBe("Filled 4 spreads");
        }

        await host.PostAsync<StepAnswer>($"/api/edits/{done.EditId}/undo", new { });
        (await SheetAsync(host, album)).ShouldAllBe(u => u.Placed == 0);
        await host.PostAsync<StepAnswer>($"/api/edits/{done.EditId}/redo", new { });
        (await SheetAsync(host, album)).Sum(u => u.Placed).ShouldBe(28);
    }

    [Fact]
    public async Task The_good_one_is_locked_and_the_rest_is_tried_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await GatheredAsync(host);
        await RunAsync(host, await AskAsync(host, album, "fill"));
        var good = await host.OpenAsync(album.Units[1].Id);
        good = await host.EditAsync(good, new LockPockets(true) { Revision = 0 });
        var again = await RunAsync(host, await AskAsync(host, album, "again", again: true));
        again.Done.ShouldBe("Placed again 3 spreads");
        var after = await host.OpenAsync(good.Id);
        after.Revision.ShouldBe(good.Revision);
        (await SheetAsync(host, album))[1].ShouldSatisfyAllConditions(u => u.Locked.ShouldBe(u.Placed));
        // Nothing is open any more: that is said, and nothing is changed.
        var none = await RunAsync(host, await AskAsync(host, album, "none"));
        (none.State, none.EditId).ShouldBe((JobState.Done, null));
        none.Done!.ShouldStartWith("There was nothing to place");
    }

    [Fact]
    public async Task Cancelled_before_it_was_written_it_changes_nothing_and_broken_off_it_begins_anew()
    {
        await using var host = await TestHost.StartAsync();
        var album = await GatheredAsync(host);
        var placing = await AskAsync(host, album, "cancel");
        await host.PostAsync<StretchPlacingView>($"/api/stretch-placings/{placing.Id}/cancel", new { });
        (await RunAsync(host, placing)).State.ShouldBe(JobState.Cancelled);
        (await SheetAsync(host, album)).ShouldAllBe(u => u.Placed == 0);

        // As a server that was killed in the middle leaves it.
        var cut = await AskAsync(host, album, "cut");
        await using (var scope = host.Services.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<ZestyContext>()
                .StretchPlacings.Where(s => s.Id == cut.Id)
                .ExecuteUpdateAsync(
                    set => set.SetProperty(s => s.State, JobState.Running).SetProperty(s => s.UnitsDone, 2),
                    Cancel
                );
        }

        var done = await RunAsync(host, cut);
        (done.State, done.UnitsDone).ShouldBe((JobState.Done, 4));
        // Run once more it is left alone: no second title, no second edit.
        (await RunAsync(host, done)).ShouldBe(done);
        (await SheetAsync(host, album)).Sum(u => u.Placed).ShouldBe(28);
    }

    [Fact]
    public async Task Six_askings_at_once_while_somebody_works_in_a_week_are_one_placing_that_keeps_the_work()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await GatheredAsync(host);
        var unit = await host.OpenAsync(album.Units[0].Id);
        var (face, photo) = (unit.Faces[1], unit.Photos[0]);
        var asked = Enumerable.Range(0, 6).Select(_ => AskAsync(host, album, "once")).ToList();
        var place = new Core.Placing.PocketPlace(face.LeafId, face.Side, face.Pockets[8].Key);
        var put = new PutPhoto(photo.Id, place) { Revision = unit.Revision };
        using var edited = await host.Client.PostAsync($"/api/units/{unit.Id}/edits", TestHost.Written(put), Cancel);
        var placings = await Task.WhenAll(asked);
        placings.Select(p => p.Id).Distinct().Count().ShouldBe(1);
        var deadline = DateTime.UtcNow.AddMinutes(2);
        var now = placings[0];
        while (now.State is JobState.Waiting or JobState.Running)
        {
            DateTime.UtcNow.ShouldBeLessThan(deadline, "the placing has not ended");
            await Task.Delay(50, Cancel);
            now = await host.GetAsync<StretchPlacingView>($"/api/stretch-placings/{now.Id}");
        }

        now.State.ShouldBe(JobState.Done);
        var after = await host.OpenAsync(unit.Id);
        // Put before the placing was written it lies where it was put, locked; put after it, the edit was refused.
        if (edited.IsSuccessStatusCode)
        {
            after.Faces[1].Pockets[8].Piece!.Photo!.Id.ShouldBe(photo.Id);
            after.Faces[1].Pockets[8].Locked.ShouldBeTrue();
        }
        else
        {
            ((int)edited.StatusCode).ShouldBe(409);
        }

        (await SheetAsync(host, album)).Sum(u => u.Placed).ShouldBe(28);
    }

    [Fact]
    public async Task What_makes_no_sense_is_refused_at_once()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var url = $"/api/albums/{album.Id}/stretch-placings";
        var ask = new PlaceStretchRequest("no", album.Units[0].Id, 0, false, new StretchRules());
        await host.RefusedAsync(422, HttpMethod.Post, url, ask);
        await host.RefusedAsync(422, HttpMethod.Post, url, ask with { Count = 161 });
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            ask with
            {
                Count = 1,
                Rules = new() { Words = 21 },
            }
        );
        await host.RefusedAsync(404, HttpMethod.Post, url, ask with { Count = 1, From = Guid.NewGuid() });
        await host.RefusedAsync(422, HttpMethod.Post, url, ask with { Count = 1, RequestKey = "" });
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            url,
            ask with
            {
                Count = 1,
                Rules = new() { Series = [new(Guid.NewGuid(), "")] },
            }
        );
    }

    [Fact]
    public async Task The_album_is_read_opening_by_opening_and_a_pages_picture_is_of_its_true_shape()
    {
        await using var host = await TestHost.StartAsync();
        var album = await GatheredAsync(host);
        await RunAsync(host, await AskAsync(host, album, "fill"));
        var pages = await host.GetAsync<List<AlbumPage>>($"/api/albums/{album.Id}/pages");
        pages.Count.ShouldBe(8);
        // A week on facing pages lies open by itself: a back at the left, the front of the next leaf at the right.
        foreach (var opening in pages.GroupBy(p => p.Opening))
        {
            opening.Select(p => p.Side).ShouldBe([Core.Pages.LeafSide.Back, Core.Pages.LeafSide.Front]);
            opening.Select(p => p.UnitId).Distinct().ShouldHaveSingleItem();
        }

        var png = await host.Client.GetByteArrayAsync(new Uri($"{pages[0].Picture}48", UriKind.Relative), Cancel);
        using var image = NetVips.Image.NewFromBuffer(png);
        ((double)image.Width / image.Height).ShouldBe(pages[0].WidthInches / pages[0].HeightInches, 0.01);
        ((double)image.Width).ShouldBe(48 * pages[0].WidthInches, 2);
        var missing = new Uri(
            pages[0].Picture.Replace("back", "inside", StringComparison.Ordinal) + "48",
            UriKind.Relative
        );
        (await host.Client.GetAsync(missing, Cancel)).StatusCode.ShouldBe(System.Net.HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_spread_is_calmed_by_the_way_that_was_painted()
    {
        await using var host = await TestHost.StartAsync();
        var album = await GatheredAsync(host);
        var unit = await host.OpenAsync(album.Units[0].Id);
        await host.RefusedAsync(422, HttpMethod.Get, $"/api/units/{unit.Id}/colours?spread=1", new { });
        await RunAsync(host, await AskAsync(host, album, "fill"));
        var colours = await host.GetAsync<SpreadColoursView>($"/api/units/{unit.Id}/colours?spread=1");
        colours.Picture.ShouldStartWith("data:image/png;base64,");
        foreach (var way in colours.Ways)
        {
            way.After.ShouldBeLessThan(colours.Colourfulness);
            way.Picture.ShouldNotBe(colours.Picture);
        }

        var grey = colours.Ways.First(w => w.Words == "2.jpg in black and white");
        await host.PostAsync<EditAnswer>($"/api/units/{unit.Id}/edits", grey.Edit);
        var after = await host.GetAsync<SpreadColoursView>($"/api/units/{unit.Id}/colours?spread=1");
        after.Colourfulness.ShouldBe(grey.After, 1e-6);

        await host.EditAlbumAsync(album.Id, new LimitColour(33) { Revision = TestHost.Latest });
        (await host.GetAsync<SpreadColoursView>($"/api/units/{unit.Id}/colours?spread=1")).Most.ShouldBe(33);
        await host.AlbumEditRefusedAsync(422, album.Id, new LimitColour(-1) { Revision = TestHost.Latest });
    }
}
