using System.Collections.Immutable;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using UglyToad.PdfPig;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Travel.Edits;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Thickness, volumes and pace as the rooms of Keep ask for them.</summary>
public sealed class KeepingTests
{
    private static Task<ThicknessView> ThicknessAsync(TestHost host, Guid album) =>
        host.GetAsync<ThicknessView>($"/api/albums/{album}/thickness");

    private static async Task<AlbumView> FilledAsync(TestHost host, int pictures)
    {
        var album = await host.MakeAlbumAsync("6x8-four-3x4");
        for (var i = 0; i < pictures; i++)
        {
            var taken = $"2026:05:{4 + (i % 7):00} 1{i % 10}:00:00";
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(300 + i, 400, taken));
        }

        await host.EditAsync(await host.OpenAsync(album.Units[0].Id), new FillSpread { Revision = 0 });
        return await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
    }

    [Fact]
    public async Task A_week_of_prints_is_as_thick_as_its_leaves_and_a_print_on_either_side()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        var thick = await ThicknessAsync(host, album.Id);
        var volume = thick.Volumes.ShouldHaveSingleItem();
        // By hand: five leaves of 0.2 mm, and a print of 0.25 mm on the last page of the first leaf and on the first of
        // the second.
        volume.Bulk.Millimetres.Max().ShouldBe(1.5, 0.001);
        volume.Bulk.Millimetres.Min().ShouldBe(1.0, 0.001);
        (thick.Words.StartsWith("Everything fits", StringComparison.Ordinal), thick.Proposed.Count).ShouldBe((true, 0));
    }

    [Fact]
    public async Task Rings_and_volumes_are_edits_that_can_be_undone_and_meet_the_newer_revision()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        // A week of two pages is 0.35 mm each: four weeks are 2.8 mm.
        var small = new SetRings(RingShape.Round, "1/4 in", null) { Revision = TestHost.Latest };
        await host.EditAlbumAsync(album.Id, small);
        (await ThicknessAsync(host, album.Id)).Words.ShouldStartWith("Everything fits");
        await host.AlbumEditRefusedAsync(422, album.Id, small with { Holds = "1 in" });
        await host.AlbumEditRefusedAsync(422, album.Id, small with { Diameter = "wide" });
        var volumes = new SetVolumes([album.Units[2].Id]) { Revision = TestHost.Latest };
        var done = await host.EditAlbumAsync(album.Id, volumes);
        var parted = (await ThicknessAsync(host, album.Id)).Volumes;
        parted.Select(v => v.Name).ShouldBe(["Test year, volume 1", "Test year, volume 2"]);
        parted.Select(v => v.StartsWith).ShouldBe([album.Units[0].Id, album.Units[2].Id]);
        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new SetVolumes([album.Units[0].Id]) { Revision = TestHost.Latest }
        );
        await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new SetVolumes([Guid.NewGuid()]) { Revision = TestHost.Latest }
        );
        await host.AlbumEditRefusedAsync(409, album.Id, volumes with { Revision = 0 });
        await host.PostAsync<object>($"/api/edits/{done.EditId}/undo", new { });
        (await ThicknessAsync(host, album.Id)).Volumes.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Evenings_are_planned_changed_and_exported_as_a_calendar()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        var url = $"/api/albums/{album.Id}/pace?order=oldestFirst";
        var pace = await host.GetAsync<PaceView>(url);
        (pace.MinutesEach, pace.IsMeasured).ShouldBe((90, false));
        // The week that is filled is not open; its three others are.
        pace.Evenings.SelectMany(e => e.Words.Split(", "))
            .Count(w => w.StartsWith("finish", StringComparison.Ordinal))
            .ShouldBeLessThanOrEqualTo(3);
        ImmutableArray<IsoDayOfWeek> daily = [.. Enumerable.Range(1, 7).Select(d => (IsoDayOfWeek)d)];
        await host.EditAlbumAsync(album.Id, new SetHabit(daily, 90, 0) { Revision = TestHost.Latest });
        pace = await host.GetAsync<PaceView>(url);
        pace.Evenings.ShouldAllBe(e => e.Minutes == 90);
        var text = await host.Client.GetStringAsync(
            new Uri($"/api/albums/{album.Id}/evenings.ics?order=oldestFirst&time=20:15", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        text.Split("BEGIN:VEVENT").Length.ShouldBe(pace.Evenings.Count + 1);
        foreach (var wrong in new[] { "order=backwards", "by=soon" })
        {
            (
                (int)
                    (
                        await host.Client.GetAsync(
                            new Uri($"/api/albums/{album.Id}/pace?{wrong}", UriKind.Relative),
                            TestContext.Current.CancellationToken
                        )
                    ).StatusCode
            ).ShouldBe(422);
        }

        await host.AlbumEditRefusedAsync(422, album.Id, new SetHabit([], 90, 0) { Revision = TestHost.Latest });
    }

    [Fact]
    public async Task A_year_is_counted_and_its_next_album_is_made_once_also_when_it_is_asked_for_six_times()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 6);
        await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddCard(Core.Words.CardKind.Journaling, "Seven words about a rainy week here.") { Revision = 0 }
        );
        var year = await host.GetAsync<YearView>($"/api/albums/{album.Id}/year");
        year.Lines.ShouldBe(["1 of 4 weeks told", "6 pictures", "7 words", "1 story"]);
        year.Colours.ShouldNotBeEmpty();
        year.NextFirstDay.ShouldBe("1 June 2026", "four weeks from 4 May");

        var made = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    host.PostAsync<AlbumView>($"/api/albums/{album.Id}/next", new Albums.NextAlbumRequest("Next year"))
                )
        );
        made.Select(m => m.Id).Distinct().ShouldHaveSingleItem();
        var next = made[0];
        (next.Name, next.Units.Count, next.Units[0].FirstDay).ShouldBe(("Next year", 4, new LocalDate(2026, 6, 1)));
        next.Units.ShouldAllBe(u => u.PiecesPlaced == 0 && u.Photos == 0);
        (await host.GetAsync<List<AlbumSummary>>("/api/albums")).Count.ShouldBe(2);
    }

    [Fact]
    public async Task An_album_that_is_inserted_counts_in_the_binder_and_is_read_in_its_place()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        var trip = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Canal",
                new LocalDate(2026, 5, 12),
                3,
                ["6x8-four-3x4"],
                MeasureSystem.Inches,
                Kind: AlbumKind.Trip
            )
        );
        var before = (await ThicknessAsync(host, album.Id)).Volumes.Single().Bulk.Millimetres.Max();
        var seen = await host.GetAsync<InsertsView>($"/api/albums/{album.Id}/inserted-albums");
        // It begins in the second week, so it comes after that.
        seen.Offers.Single().ShouldBe(new InsertOfferView(trip.Id, "Canal", album.Units[1].Id));
        var asked = await host.GetAsync<InsertsView>($"/api/albums/{trip.Id}/inserted-albums");
        asked.Hosts.Single().After.ShouldBe("Week 20");
        var done = await host.EditAlbumAsync(
            album.Id,
            new InsertAlbum(trip.Id, album.Units[1].Id) { Revision = TestHost.Latest }
        );
        seen = await host.GetAsync<InsertsView>($"/api/albums/{album.Id}/inserted-albums");
        seen.Inserts.Single().Words.ShouldBe("6 pages after Week 20");
        (await host.GetAsync<InsertsView>($"/api/albums/{trip.Id}/inserted-albums")).BoundInto!.AlbumId.ShouldBe(
            album.Id
        );
        // By hand: the four leaves of three days more, each of 0.2 mm.
        var after = (await ThicknessAsync(host, album.Id)).Volumes.Single().Bulk.Millimetres.Max();
        after.ShouldBe(before + 0.8, 0.001);
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var services = scope.ServiceProvider;
            var units = await services
                .GetRequiredService<UnitOpener>()
                .OpenAlbumAsync(album.Id, TestContext.Current.CancellationToken);
            var parts = await services
                .GetRequiredService<InsertReader>()
                .PartsAsync(units[0].Album, units, TestContext.Current.CancellationToken);
            parts.Select(p => (p.Inserted, p.Units.Count)).ShouldBe([(false, 2), (true, 3), (false, units.Count - 2)]);
        }

        // On the rings it lies behind the leaf with the week's right page; its own first leaf faces the next week.
        var leaves = await host.GetAsync<List<BinderLeaf>>($"/api/albums/{album.Id}/leaves");
        var behind = leaves.Single(l => l.Inserts.Count > 0);
        (behind.Front.UnitId, behind.Inserts.Single().Words).ShouldBe((album.Units[1].Id, "4 leaves after Week 20"));
        var pages = await host.GetAsync<List<AlbumPage>>($"/api/albums/{album.Id}/pages");
        pages.Count(p => p.Inserted == "Canal").ShouldBe(6);
        pages.Select(p => p.UnitTitle).Take(4).ShouldBe(["Week 19", "Week 19", "Week 20", "Week 20"]);
        pages[5].AlbumId.ShouldBe(trip.Id, "behind the left page of week 21 come the leaves of the trip");
        var moved = await host.EditAlbumAsync(
            album.Id,
            new InsertAlbum(trip.Id, album.Units[1].Id, Between: true) { Revision = TestHost.Latest }
        );
        pages = await host.GetAsync<List<AlbumPage>>($"/api/albums/{album.Id}/pages");
        pages.Select(p => p.Inserted is null).Take(4).ShouldBe([true, true, true, false]);
        (await host.GetAsync<InsertsView>($"/api/albums/{album.Id}/inserted-albums"))
            .Inserts.Single()
            .Words.ShouldBe("6 pages between the pages of Week 20");

        await host.PostAsync<object>($"/api/edits/{moved.EditId}/undo", new { });
        await host.PostAsync<object>($"/api/edits/{done.EditId}/undo", new { });
        (await ThicknessAsync(host, album.Id)).Volumes.Single().Bulk.Millimetres.Max().ShouldBe(before, 0.001);
        // One that is not there, or the album itself, changes nothing.
        foreach (var none in new[] { Guid.NewGuid(), album.Id })
        {
            await host.AlbumEditRefusedAsync(
                422,
                album.Id,
                new InsertAlbum(none, album.Units[1].Id) { Revision = TestHost.Latest }
            );
        }

        seen = await host.GetAsync<InsertsView>($"/api/albums/{album.Id}/inserted-albums");
        seen.Inserts.ShouldBeEmpty();
        (await ThicknessAsync(host, album.Id)).Volumes.Single().Bulk.Millimetres.Max().ShouldBe(before, 0.001);
    }

    [Fact]
    public async Task Costs_add_up_what_the_lab_the_stash_and_keepsakes_cost()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        await host.EditAlbumAsync(album.Id, new SetLeafPrice(new Money(1.20m, "EUR")) { Revision = TestHost.Latest });
        await host.EditAlbumAsync(
            album.Id,
            new SetRates("EUR", [new CurrencyRate("GBP", 1.2m)]) { Revision = TestHost.Latest }
        );
        var unit = await host.OpenAsync(album.Units[0].Id);
        var ticket = new WrittenKeepsake("Ticket", "2x3", "0.2 mm", "", null, null, false, Price: new Money(5m, "GBP"));
        await host.EditAsync(unit, new AddKeepsake(ticket) { Revision = 0 });
        var card = (
            await host.PostAsync<StashAnswer>(
                "/api/stash/edits",
                new AddToStash([new StashEntry(StashKind.Card, "Sea", 4, Price: new Money(0.40m, "EUR"))])
            )
        ).Items.Single();
        await host.PostAsync<StashAnswer>(
            "/api/stash/edits",
            new UseFromStash(unit.Id, 3) { ItemId = card.Id, Revision = card.Revision }
        );
        var costs = await host.GetAsync<CostView>($"/api/albums/{album.Id}/costs");
        var week = costs.Units.Single(u => u.UnitId == unit.Id);
        // By hand: two pages are one leaf; three cards at 0.40; a ticket of five pounds at 1.20.
        (week.Leaves, week.Stash, week.Keepsakes, week.Lab).ShouldBe(("1.20 EUR", "1.20 EUR", "6.00 EUR", "0.00 EUR"));
        week.Total.ShouldBe("8.40 EUR");
        // Deleted from the stash it was paid for all the same.
        await host.PostAsync<StashAnswer>(
            "/api/stash/edits",
            new DeleteFromStash { ItemId = card.Id, Revision = card.Revision + 1 }
        );
        await host.EditAlbumAsync(album.Id, new SetRates("EUR", []) { Revision = TestHost.Latest });
        costs = await host.GetAsync<CostView>($"/api/albums/{album.Id}/costs");
        costs.WithoutRate.ShouldBe(["5.00 GBP"]);
        costs.Units.Single(u => u.UnitId == unit.Id).Total.ShouldBe("2.40 EUR");
    }

    [Fact]
    public async Task Each_volume_has_a_title_page_with_its_numbers_and_its_colours()
    {
        await using var host = await TestHost.StartAsync();
        var album = await FilledAsync(host, pictures: 8);
        var photos = (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos")).Photos;
        await host.EditPhotosAsync(album.Units[0].Id, photos.Take(3), new TagPerson("Ada"));
        await host.EditPhotosAsync(album.Units[0].Id, photos.Skip(3).Take(1), new TagPerson("Ben"));
        var year = await host.GetAsync<YearView>($"/api/albums/{album.Id}/year");
        year.Seen.ShouldBe([new NamedCount("Ada", 3), new NamedCount("Ben", 1)]);
        year.Lines.ShouldContain("Most seen: Ada, Ben");
        await host.EditAlbumAsync(album.Id, new SetVolumes([album.Units[2].Id]) { Revision = TestHost.Latest });
        foreach (var (volume, told) in new[] { (1, "8 pictures"), (2, "") })
        {
            var bytes = await host.Client.GetByteArrayAsync(
                new Uri($"/api/albums/{album.Id}/title-page.pdf?volume={volume}", UriKind.Relative),
                TestContext.Current.CancellationToken
            );
            using var pdf = PdfDocument.Open(bytes);
            var page = pdf.GetPage(1);
            // The page body of the album: 6 by 8 inches.
            (page.Width, page.Height).ShouldBe((432, 576));
            var text = string.Concat(page.Letters.Select(l => l.Value));
            text.ShouldStartWith($"Test year, volume {volume}2026");
            text.ShouldContain(told);
            page.Letters.ShouldAllBe(l => l.BoundingBox.Left >= 0 && l.BoundingBox.Right <= 432);
        }

        await host.RefusedAsync(422, HttpMethod.Get, $"/api/albums/{album.Id}/title-page.pdf?volume=3", new { });
    }
}
