using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Dates;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Make, merge, split, leave out, rename; and what moves when the album counts time anew.</summary>
public sealed class TapeTests
{
    [Fact]
    public async Task Two_quiet_days_become_one_spread_and_come_apart_again()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TripAsync(host, 5);
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(taken: "2026:06:07 10:00:00", shade: 10));
        await host.AddAsync(album.Id, "b.jpg", Pictures.Jpeg(taken: "2026:06:08 10:00:00", shade: 20));
        var (third, fourth) = (await host.OpenAsync(album.Units[2].Id), await host.OpenAsync(album.Units[3].Id));
        var second = await FilledAsync(host, album.Units[1].Id);
        var fourthPages = fourth.Faces.Select(f => (f.LeafId, f.Side)).ToList();

        var merged = await host.EditAlbumAsync(
            album.Id,
            new MergeUnit { UnitId = second.Id, Revision = second.Revision }
        );
        merged.Done.ShouldBe("Merged Day 2 and Day 3");
        album = await ViewAsync(host, album.Id);
        album.Units.Select(u => u.Title).ShouldBe(["Day 1", "Days 2–3", "Day 4", "Day 5"]);
        var both = await host.OpenAsync(second.Id);
        both.Photos.Select(p => p.FileName).ShouldBe(["a.jpg", "b.jpg"]);
        both.Faces.Count.ShouldBe(2);
        both.Faces.SelectMany(f => f.Pockets)
            .Count(p => p.Piece is not null)
            .ShouldBe(1, "what lay in a pocket still does");
        (await host.OpenAsync(fourth.Id))
            .Faces.Select(f => (f.LeafId, f.Side))
            .ShouldBe(fourthPages, "what follows stays on its pages");

        var split = await host.EditAlbumAsync(album.Id, new SplitUnit { UnitId = both.Id, Revision = both.Revision });
        album = await ViewAsync(host, album.Id);
        album.Units.Select(u => u.Title).ShouldBe(["Day 1", "Day 2", "Day 3", "Day 4", "Day 5"]);
        split.Changes[^1].ShouldBe("1 picture from Day 2 to Day 3");
        (await host.OpenAsync(album.Units[2].Id)).Photos.Single().FileName.ShouldBe("b.jpg");
        (await host.OpenAsync(album.Units[2].Id)).Faces.Count.ShouldBe(2);

        // Undone twice, it is as it was.
        var unit = await host.StepAsync(await host.OpenAsync(both.Id), "undo");
        unit.Title.ShouldBe("Days 2–3");
        unit = await host.StepAsync(unit, "undo");
        unit.Title.ShouldBe("Day 2");
        album = await ViewAsync(host, album.Id);
        album.Units.Select(u => u.Id).ShouldBe([album.Units[0].Id, second.Id, third.Id, fourth.Id, album.Units[4].Id]);
        unit.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(1);
        (await host.OpenAsync(third.Id)).Photos.Single().FileName.ShouldBe("b.jpg");

        unit = await host.StepAsync(unit, "redo");
        unit.Title.ShouldBe("Days 2–3");
        unit.Photos.Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_day_left_out_on_purpose_keeps_its_number_and_is_not_missed()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TripAsync(host, 3);
        var day = await host.OpenAsync(album.Units[1].Id);
        await host.EditAlbumAsync(album.Id, new LeaveUnitOut(true) { UnitId = day.Id, Revision = day.Revision });
        album = await ViewAsync(host, album.Id);
        (album.Units[1].Title, album.Units[1].LeftOut, album.Units[2].Title).ShouldBe(("Day 2", true, "Day 3"));
        var overview = await host.GetAsync<OverviewView>($"/api/albums/{album.Id}/overview");
        (overview.Units[1].Progress, overview.Units[1].PicturesWanted).ShouldBe((UnitProgress.LeftOut, 0));
        overview.Units[0].PicturesWanted.ShouldBe(album.Units[0].Pockets);
        (await host.StepAsync(await host.OpenAsync(day.Id), "undo")).LeftOut.ShouldBeFalse();
    }

    [Fact]
    public async Task A_unit_has_the_keepers_own_name_until_it_is_taken_away()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var week = await host.OpenAsync(album.Units[0].Id);
        var rename = new RenameUnit(" The great flood ") { UnitId = week.Id, Revision = week.Revision };
        await host.EditAlbumAsync(album.Id, rename);
        week = await host.OpenAsync(week.Id);
        week.Title.ShouldBe("The great flood");
        rename = rename with { Name = "", Revision = week.Revision };
        await host.EditAlbumAsync(album.Id, rename);
        (await host.OpenAsync(week.Id)).Title.ShouldBe("Week 19");
        var refusal = await host.AlbumEditRefusedAsync(409, album.Id, rename with { Name = "Late" });
        refusal["theirs"]!.AsArray().Count.ShouldBe(1);
    }

    [Fact]
    public async Task An_album_grows_at_both_ends_and_the_growth_can_be_undone()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var first = await FilledAsync(host, album.Units[0].Id, shade: 60);
        await host.EditAlbumAsync(album.Id, new GrowAlbum(2, AtEnd: false) { Revision = album.Revision });
        album = await ViewAsync(host, album.Id);
        album.Units.Select(u => u.Title).Take(3).ShouldBe(["Week 17", "Week 18", "Week 19"]);
        var same = await host.OpenAsync(first.Id);
        same.Faces.SelectMany(f => f.Pockets)
            .Count(p => p.Piece is not null)
            .ShouldBe(1, "its pieces moved with its pages");
        foreach (var unit in album.Units)
        {
            var faces = (await host.OpenAsync(unit.Id)).Faces;
            faces.Select(f => f.Side).ShouldBe([Core.Pages.LeafSide.Back, Core.Pages.LeafSide.Front]);
        }

        var back = await host.StepAsync(await host.OpenAsync(album.Units[0].Id), "undo");
        back.Title.ShouldBe("Week 19", "the made week is gone, so its neighbour is opened");
        (await ViewAsync(host, album.Id)).Units.Count.ShouldBe(4);
    }

    [Fact]
    public async Task Changing_the_week_scheme_moves_the_Sunday_pictures_and_says_so()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "sunday.jpg", Pictures.Jpeg(taken: "2026:05:10 10:00:00", shade: 10));
        await host.AddAsync(album.Id, "monday.jpg", Pictures.Jpeg(taken: "2026:05:11 10:00:00", shade: 20));
        var week = await host.OpenAsync(album.Units[0].Id);
        week = await host.EditAsync(
            week,
            new PutPhoto(PhotoId: week.Photos.Single().Id, Place: EditingTests.Place(week, 0)) { Revision = 0 }
        );
        week = await host.EditAsync(
            week,
            new AddCard(CardKind: CardKind.Journaling, Words: "Stays here", StyleKey: "typewriter") { Revision = 0 }
        );

        var calendar = await host.GetAsync<CalendarView>($"/api/albums/{album.Id}/calendar");
        var answer = await host.EditAlbumAsync(
            album.Id,
            new CountWeeks(WeekScheme.SundayFirst) { Revision = calendar.Revision }
        );
        answer.Changes.ShouldBe([
            "1 picture from Week 19 to Week 20",
            "1 print left a pocket because the picture moved",
        ]);
        var moved = await host.OpenAsync(week.Id);
        (moved.Title, moved.Label, moved.Photos.Count, moved.LooseCards.Count).ShouldBe(
            ("Week 19", "3–9 May 2026", 0, 1)
        );
        (await host.OpenAsync(album.Units[1].Id)).Photos.Select(p => p.FileName).ShouldBe(["sunday.jpg", "monday.jpg"]);

        var undone = await host.StepAsync(moved, "undo");
        (undone.Label, undone.Photos.Single().FileName).ShouldBe(("4–10 May 2026", "sunday.jpg"));
        undone.Faces[0].Pockets[0].Piece!.Photo!.FileName.ShouldBe("sunday.jpg");
    }

    [Fact]
    public async Task A_trip_over_the_date_line_has_its_repeated_date_twice_and_pictures_find_the_right_one()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TripAsync(host, 5, new LocalDate(2026, 6, 11));
        var calendar = await host.GetAsync<CalendarView>($"/api/albums/{album.Id}/calendar");
        await host.EditAlbumAsync(
            album.Id,
            new SetStays([
                new("Tokyo", "Asia/Tokyo", "2026-06-11T08:00", "2026-06-12T20:00"),
                new("Honolulu", "Pacific/Honolulu", "2026-06-12T08:00", null),
            ])
            {
                Revision = calendar.Revision,
            }
        );
        album = await ViewAsync(host, album.Id);
        album
            .Units.Select(u => u.Label)
            .ShouldBe(["11 June 2026", "12 June 2026", "12 June 2026, again", "13 June 2026", "14 June 2026"]);
        // At ten on that date: the first time in Tokyo (a phone, +09:00), the second in Honolulu (+10:00 behind).
        var first = await host.AddAsync(
            album.Id,
            "tokyo.jpg",
            Pictures.Jpeg(taken: "2026:06:12 10:00:00", shade: 10, offset: "+09:00")
        );
        var second = await host.AddAsync(
            album.Id,
            "honolulu.jpg",
            Pictures.Jpeg(taken: "2026:06:12 10:00:00", shade: 20, offset: "-10:00")
        );
        (first.UnitId, second.UnitId).ShouldBe((album.Units[1].Id, album.Units[2].Id));

        var bad = await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new SetStays([new("Nowhere", "Moon/Base", "2026-06-11T08:00", null)]) { Revision = TestHost.Latest }
        );
        bad["detail"]!.GetValue<string>().ShouldContain("Moon/Base");
    }

    [Fact]
    public async Task A_documented_day_has_a_page_an_hour_and_offers_the_picture_nearest_to_each()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "A Saturday",
                new LocalDate(2026, 5, 2),
                1,
                ["6x8-two-6x4"],
                MeasureSystem.Inches,
                AlbumKind.DocumentedDay,
                Clock: HourClock.Twelve,
                WakingFrom: new LocalTime(7, 0),
                WakingUntil: new LocalTime(22, 0)
            )
        );
        album.Units.Count.ShouldBe(16);
        album.Units.Select(u => u.Title).Take(2).ShouldBe(["7 a.m.", "8 a.m."]);
        await host.AddAsync(album.Id, "early.jpg", Pictures.Jpeg(taken: "2026:05:02 07:40:00", shade: 10));
        await host.AddAsync(album.Id, "near.jpg", Pictures.Jpeg(taken: "2026:05:02 08:04:00", shade: 20));
        var night = await host.AddAsync(album.Id, "night.jpg", Pictures.Jpeg(taken: "2026:05:02 04:00:00", shade: 30));
        night.UnitId.ShouldBeNull();
        var eight = await host.OpenAsync(album.Units[1].Id);
        eight.Photos.Select(p => p.Time).ShouldBe(["7:40 a.m.", "8:04 a.m."]);
        eight.Photos.Single(p => p.Id == eight.ProposedPhotoId).FileName.ShouldBe("near.jpg");
        eight.Faces.Count.ShouldBe(1);
        (await host.OpenAsync(album.Units[0].Id)).Photos.ShouldBeEmpty();

        // The keeper gives the night picture an hour.
        var waiting = (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?scope=outside")).Photos.Single();
        await host.EditPhotosAsync(null, [waiting], new DatePhoto(new LocalDate(2026, 5, 2), 7));
        (await host.OpenAsync(album.Units[0].Id)).Photos.Single().FileName.ShouldBe("night.jpg");
    }

    [Fact]
    public async Task Today_is_the_albums_day_in_its_zone_with_the_small_hours_of_the_evening_before()
    {
        await using var host = await TestHost.StartAsync();
        var now = SystemClock.Instance.GetCurrentInstant();
        foreach (var zone in new[] { "Pacific/Kiritimati", "Pacific/Pago_Pago" })
        {
            var album = await host.MakeAlbumAsync();
            await host.EditAlbumAsync(album.Id, new SetHomeZone(zone) { Revision = TestHost.Latest });
            var there = now.InZone(DateTimeZoneProviders.Tzdb[zone]).LocalDateTime;
            // Fourteen hours before Greenwich and eleven behind it: never the same day twice.
            (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Today.ShouldBe(
                there.Hour < 3 ? there.Date.PlusDays(-1) : there.Date
            );
        }
    }

    [Fact]
    public async Task A_countdown_counts_its_days_from_one()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Twelve days",
                new LocalDate(2026, 12, 20),
                12,
                ["6x8-two-6x4"],
                MeasureSystem.Inches,
                AlbumKind.Countdown,
                DateOrder: DateOrder.MonthDay
            )
        );
        (album.Units[11].Title, album.Units[11].Label).ShouldBe(("Day 12", "December 31, 2026"));
        (album.CanGrowAtStart, album.CanGrowAtEnd).ShouldBe((false, true));
        var refusal = await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new GrowAlbum(1, AtEnd: false) { Revision = TestHost.Latest }
        );
        refusal["detail"]!.GetValue<string>().ShouldContain("number 1");
    }

    internal static Task<AlbumView> TripAsync(TestHost host, int days, LocalDate? first = null) =>
        host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Test trip",
                first ?? new LocalDate(2026, 6, 6),
                days,
                ["6x8-two-6x4", "6x8-full"],
                MeasureSystem.Inches,
                AlbumKind.Trip,
                HomeZone: "Europe/London"
            )
        );

    private static Task<AlbumView> ViewAsync(TestHost host, Guid id) => host.GetAsync<AlbumView>($"/api/albums/{id}");

    private static async Task<UnitView> FilledAsync(TestHost host, Guid unitId, int shade = 0)
    {
        var unit = await host.OpenAsync(unitId);
        if (unit.Photos.Count == 0)
        {
            await host.AddAsync(
                unit.AlbumId,
                "fill.jpg",
                Pictures.Jpeg(taken: $"{unit.FirstDay:uuuu':'MM':'dd} 11:00:00", shade: shade)
            );
            unit = await host.OpenAsync(unitId);
        }

        return await host.EditAsync(
            unit,
            new PutPhoto(PhotoId: unit.Photos[0].Id, Place: EditingTests.Place(unit, 0)) { Revision = 0 }
        );
    }
}
