using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Demo;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

public sealed class DemoTests
{
    [Fact]
    public void The_weekly_album_has_pictures_over_eight_weeks_and_the_trip_over_nine_days()
    {
        var weekly = DemoHousehold.WeeklyShots().ToList();
        weekly.Count.ShouldBeGreaterThanOrEqualTo(150);
        weekly.Select(s => Core.Dates.WeekCalendar.Iso.Holding(s.Taken.Date)).Distinct().Count().ShouldBe(8);
        var trip = DemoHousehold.TripShots().ToList();
        trip.Count.ShouldBeGreaterThanOrEqualTo(60);
        trip.Where(s => s.OffsetMinutes is not null).Select(s => s.Taken.Date).Distinct().Count().ShouldBe(9);
        weekly.Concat(trip).Select(s => s.FileName).Distinct().Count().ShouldBe(weekly.Count + trip.Count);
    }

    [Fact]
    public void No_scene_is_seen_twice_in_a_week_or_a_day_afloat_unless_it_is_a_series()
    {
        Enum.GetValues<Scene>().Length.ShouldBeGreaterThanOrEqualTo(40);
        var ordinary = DemoHousehold.WeeklyShots().Where(s => s.Scene != Scene.Window).ToList();
        foreach (var week in ordinary.GroupBy(s => Core.Dates.WeekCalendar.Iso.Holding(s.Taken.Date).Number))
        {
            // The party of the sixth week has the same guests all evening.
            week.Select(s => s.Scene).Distinct().Count().ShouldBeGreaterThanOrEqualTo(Math.Min(week.Count(), 15));
        }

        foreach (
            var day in DemoHousehold.TripShots().Where(s => s.OffsetMinutes is not null).GroupBy(s => s.Taken.Date)
        )
        {
            day.Select(s => s.Scene).Distinct().Count().ShouldBe(day.Count());
        }

        // The window is photographed on the same mornings of several weeks.
        DemoHousehold.WeeklyShots().Count(s => s.Scene == Scene.Window && s.Taken.Hour == 8).ShouldBe(12);
    }

    [Fact]
    public void A_snapshot_is_the_same_bytes_each_time_and_carries_its_cameras_record()
    {
        var shot = new DemoShot(
            "x.jpg",
            Scene.Canal,
            12,
            1008,
            756,
            new LocalDateTime(2026, 6, 7, 9, 30, 5),
            "Kestrel P4",
            60,
            52.1,
            -1.9
        );
        var jpeg = DemoPictures.Jpeg(shot);
        DemoPictures.Jpeg(shot).ShouldBe(jpeg);

        var path = Path.GetTempFileName();
        try
        {
            File.WriteAllBytes(path, jpeg);
            var facts = PictureIntake.Inspect(path);
            (facts.Recorded, facts.OffsetMinutes, facts.Camera).ShouldBe((shot.Taken, 60, "Kestrel P4"));
            facts.Latitude!.Value.ShouldBe(52.1, 0.001);
            facts.Longitude!.Value.ShouldBe(-1.9, 0.001);
        }
        finally
        {
            File.Delete(path);
        }
    }

    [Theory]
    [MemberData(nameof(Scenes))]
    public void Every_scene_has_light_and_shade(Scene scene)
    {
        using var picture = new DemoScenes(3, scene, 14).Paint(320, 240);
        var light = picture.Pixels.Select(p => (p.Red + p.Green + p.Blue) / 3).ToList();
        (light.Max() - light.Min()).ShouldBeGreaterThan(80);
        light.Distinct().Count().ShouldBeGreaterThan(60);
    }

    public static TheoryData<Scene> Scenes => [.. Enum.GetValues<Scene>()];

    [Trait("Duration", "Long")]
    [Fact]
    public async Task The_demo_is_made_once_with_finished_half_done_and_overfull_weeks()
    {
        await using var host = await TestHost.StartAsync();
        var told = new List<string>();
        await SeedAsync(reset: false);
        var shelf = await host.GetAsync<List<AlbumSummary>>("/api/albums");
        shelf.Count.ShouldBe(4);
        shelf
            .Select(a => a.Kind)
            .ShouldBe([
                Core.Dates.AlbumKind.Weekly,
                Core.Dates.AlbumKind.Trip,
                Core.Dates.AlbumKind.DocumentedDay,
                Core.Dates.AlbumKind.Weekly,
            ]);

        // The fourth keeps a week on one leaf: front and back, all pockets filled.
        var garden = await host.GetAsync<AlbumView>(
            $"/api/albums/{shelf.Single(a => a.Name == DemoHousehold.GardenName).Id}"
        );
        garden.Units.ShouldAllBe(u => u.PiecesPlaced == u.Pockets && u.Pockets == 6);

        // The compact camera of the trip is an hour off, and one correction brings its dawns to their right days.
        var trip = shelf.Single(a => a.Name == DemoHousehold.TripName).Id;
        var cameras = await host.GetAsync<Dates.CamerasView>($"/api/albums/{trip}/cameras");
        var doubted = cameras.Cameras.Single(c => c.Doubt is not null);
        var mended = await host.EditAlbumAsync(
            trip,
            new AcceptClockDoubt { Camera = doubted.Camera, Revision = cameras.Revision }
        );
        mended.Changes.ShouldBe(["1 picture from Day 3 to Day 4", "1 picture from Day 6 to Day 7"]);
        var day = await host.GetAsync<AlbumView>(
            $"/api/albums/{shelf.Single(a => a.Name == DemoHousehold.DayName).Id}"
        );
        day.Units.Where(u => u.Photos == 0).Select(u => u.Title).ShouldBe(["3 p.m.", "8 p.m."]);
        shelf.ShouldAllBe(a => a.IsDemo);
        var weekly = await host.GetAsync<AlbumView>(
            $"/api/albums/{shelf.Single(a => a.Name == DemoHousehold.WeeklyName).Id}"
        );
        var weeks = weekly.Units.Where(u => u.Photos > 0).ToList();
        weeks.Count.ShouldBe(8);
        weeks.Count(u => u.PiecesPlaced == u.Pockets).ShouldBeGreaterThanOrEqualTo(2, "finished weeks");
        weeks.Count(u => u.PiecesPlaced > 0 && u.PiecesPlaced < u.Pockets).ShouldBe(1, "half done");
        weeks.Max(u => u.Photos - u.Pockets).ShouldBeGreaterThan(25, "far more pictures than pockets");

        // Asked again it does nothing; a keeper's own album is not touched by a reset.
        var own = await host.MakeAlbumAsync();
        told.Clear();
        await SeedAsync(reset: false);
        told.ShouldBeEmpty();
        (await host.GetAsync<List<AlbumSummary>>("/api/albums"))
            .Select(a => a.Id)
            .ShouldBe([.. shelf.Select(a => a.Id), own.Id]);

        async Task SeedAsync(bool reset)
        {
            await using var scope = host.Services.CreateAsyncScope();
            var seeding = scope.ServiceProvider.GetRequiredService<DemoSeeding>();
            // Painting takes most of the time, and small snapshots are laid out like large ones.
            seeding.Detail = Thorough.IsAsked ? 1 : 0.5;
            await seeding.RunAsync(reset, told.Add, TestContext.Current.CancellationToken);
        }
    }
}
