using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Server.Keeping;
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
}
