using System.Net;
using System.Text;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Dates;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Cameras, verdicts, boxes, series, keepsakes and calendars through the server.</summary>
public sealed class GatheringTests
{
    [Fact]
    public async Task A_camera_an_hour_off_is_found_corrected_with_one_click_and_put_back_with_another()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TapeTests.TripAsync(host, 5);
        // At 00:30 by the camera's clock, which is an hour fast: really 23:30 of the evening before. With a cut-off of
        // 03:00 both are the evening's; at 03:20 by its clock it is the new day's.
        for (var i = 0; i < 6; i++)
        {
            await host.AddAsync(
                album.Id,
                $"phone{i}.jpg",
                Pictures.Jpeg(
                    taken: $"2026:06:07 {10 + i}:{9 * i:00}:00",
                    shade: 10 + i,
                    offset: "+01:00",
                    model: "Phone"
                )
            );
            await host.AddAsync(
                album.Id,
                $"camera{i}.jpg",
                Pictures.Jpeg(taken: $"2026:06:07 {11 + i}:{(9 * i) + 1:00}:00", shade: 30 + i, model: "Camera")
            );
        }

        await host.AddAsync(
            album.Id,
            "late.jpg",
            Pictures.Jpeg(taken: "2026:06:08 03:20:00", shade: 60, model: "Camera")
        );
        (await host.OpenAsync(album.Units[2].Id)).Photos.Single().FileName.ShouldBe("late.jpg");

        var cameras = await host.GetAsync<CamerasView>($"/api/albums/{album.Id}/cameras");
        var doubted = cameras.Cameras.Single(c => c.Doubt is not null);
        (doubted.Camera, doubted.DoubtRemedy).ShouldBe(("Testmaker Camera", "Set it 1 hour earlier"));
        var answer = await host.EditAlbumAsync(
            album.Id,
            new AcceptClockDoubt { Camera = doubted.Camera, Revision = cameras.Revision }
        );
        answer.Done.ShouldBe("Set the clock of Testmaker Camera: 1 hour earlier");
        answer.Changes.ShouldBe(["1 picture from Day 3 to Day 2"]);
        (await host.OpenAsync(album.Units[1].Id)).Photos.Single(p => p.FileName == "late.jpg").Time.ShouldBe("02:20");
        (await host.GetAsync<CamerasView>($"/api/albums/{album.Id}/cameras")).Cameras.ShouldAllBe(c => c.Doubt == null);

        await host.PostAsync<StepAnswer>($"/api/edits/{answer.EditId}/undo", new { });
        (await host.OpenAsync(album.Units[2].Id)).Photos.Single().FileName.ShouldBe("late.jpg");
        (await host.GetAsync<CamerasView>($"/api/albums/{album.Id}/cameras"))
            .Cameras.Single(c => c.Camera == doubted.Camera)
            .CorrectionSeconds.ShouldBe(0);

        // By two pictures of one moment, and by the true time of one.
        var day = (await host.OpenAsync(album.Units[1].Id)).Photos;
        var match = new MatchPictures(
            day.Single(p => p.FileName == "camera0.jpg").Id,
            day.Single(p => p.FileName == "phone0.jpg").Id
        )
        {
            Camera = doubted.Camera,
            Revision = TestHost.Latest,
        };
        answer = await host.EditAlbumAsync(album.Id, match);
        answer.Done.ShouldBe("Set the clock of Testmaker Camera: 1 hour 1 minute earlier");
        answer = await host.EditAlbumAsync(
            album.Id,
            new TellTrueTime(match.WrongPhotoId, "2026-06-07T11:31")
            {
                Camera = doubted.Camera,
                Revision = TestHost.Latest,
            }
        );
        answer.Done.ShouldBe("Set the clock of Testmaker Camera: 30 minutes later");
        var alike = match with { RightPhotoId = day.Single(p => p.FileName == "camera1.jpg").Id };
        var refused = await host.AlbumEditRefusedAsync(422, album.Id, alike);
        refused["detail"]!.GetValue<string>().ShouldContain("one camera");
    }

    [Fact]
    public async Task A_name_with_a_date_puts_the_picture_on_its_day_and_a_guess_never_does()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var named = await host.AddAsync(album.Id, "Screenshot 2026-05-06 at 21.15.00.png", Pictures.Png(500, 900));
        (named.UnitId, named.Detail).ShouldBe((album.Units[0].Id, "Wed 6 May by its name, Week 19"));
        var page = await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?kind=screenshot");
        (page.Photos.Single().Time, page.Photos.Single().Kind).ShouldBe(("21:15", PictureKind.Screenshot));
        var dayOnly = await host.AddAsync(album.Id, "2026-05-07 ticket.jpg", Pictures.Jpeg(taken: null, shade: 5));
        var detail = await host.GetAsync<PhotoDetail>($"/api/photos/{dayOnly.PhotoId}");
        (detail.Photo.Day, detail.Photo.Time).ShouldBe((new LocalDate(2026, 5, 7), null));
        detail.TimeWords.ShouldContain("the hour is not known");
    }

    [Fact]
    public async Task A_verdict_for_many_is_one_edit_and_what_is_left_out_leaves_its_pocket()
    {
        await using var host = await TestHost.StartAsync();
        var (album, week) = await EditingTests.WeekWithPhotosAsync(host, 5);
        week = await host.EditAsync(week, new FillSpread { Revision = 0 });
        var answer = await host.EditPhotosAsync(week.Id, week.Photos.Take(3), new JudgePhoto(Verdict.Leave));
        answer.Done.ShouldBe("Left 3 pictures out of the album; 3 left their pockets");
        var after = await host.OpenAsync(week.Id);
        after.Photos.Count.ShouldBe(2);
        after.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(2);
        (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?scope=leftOut")).Photos.Count.ShouldBe(3);

        await host.PostAsync<StepAnswer>($"/api/edits/{answer.EditId}/undo", new { });
        after = await host.OpenAsync(week.Id);
        (after.Photos.Count, after.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null)).ShouldBe((5, 5));
        await host.PostAsync<StepAnswer>($"/api/edits/{answer.EditId}/redo", new { });
        (await host.OpenAsync(week.Id)).Photos.Count.ShouldBe(2);
    }

    [Fact]
    public async Task Filters_narrow_the_list_and_it_goes_on_where_it_stopped()
    {
        await using var host = await TestHost.StartAsync();
        var (album, week) = await EditingTests.WeekWithPhotosAsync(host, 9);
        await host.EditPhotosAsync(week.Id, week.Photos.Where(p => p.Width > p.Height).Take(2), new StarPhoto(2));
        (await CountAsync("orientation=upright")).ShouldBe(3);
        (await CountAsync("favourite=1")).ShouldBe(2);
        (await CountAsync("camera=Testmaker%20T1")).ShouldBe(9);
        (await CountAsync("camera=Other")).ShouldBe(0);
        (await CountAsync("tooSmall=true")).ShouldBe(9);
        (await CountAsync("verdict=keep")).ShouldBe(0);
        week = await host.OpenAsync(week.Id);
        await host.EditAsync(
            week,
            new PutPhoto(PhotoId: week.Photos[0].Id, Place: EditingTests.Place(week, 0)) { Revision = 0 }
        );
        (await CountAsync("unplaced=true")).ShouldBe(8);
        (await CountAsync("from=2026-05-08")).ShouldBe(3);

        var (seen, next) = (new List<Guid>(), (string?)null);
        do
        {
            var page = await host.GetAsync<PhotoPage>(
                $"/api/albums/{album.Id}/photos?take=4{(next is null ? string.Empty : $"&after={next}")}"
            );
            seen.AddRange(page.Photos.Select(p => p.Id));
            next = page.Next;
        } while (next is not null);
        seen.Count.ShouldBe(9);
        seen.Distinct().Count().ShouldBe(9);
        (
            await host.Client.GetAsync(
                $"/api/albums/{album.Id}/photos?after=nonsense",
                TestContext.Current.CancellationToken
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await host.Client.GetAsync(
                $"/api/albums/{album.Id}/photos?orientation=sideways",
                TestContext.Current.CancellationToken
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        async Task<int> CountAsync(string filter) =>
            (await host.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos?{filter}")).Photos.Count;
    }

    [Fact]
    public async Task The_focus_point_and_boxes_steer_the_crop_and_covers_are_burned_into_every_picture()
    {
        await using var host = await TestHost.StartAsync();
        var (album, week) = await EditingTests.WeekWithPhotosAsync(host, 1);
        var photo = week.Photos.Single();
        photo = (await host.EditPhotosAsync(photo, new MoveFocus(0.9, 0.5))).Photos.Single();
        // A landscape picture in an upright pocket keeps what is around its focus point.
        var upright = week.Faces.SelectMany(f => f.Pockets).First(p => p.Height > p.Width);
        var face = week.Faces.First(f => f.Pockets.Contains(upright));
        week = await host.EditAsync(
            week,
            new PutPhoto(PhotoId: photo.Id, Place: new PocketPlace(face.LeafId, face.Side, upright.Key))
            {
                Revision = 0,
            }
        );
        var piece = week.Faces.SelectMany(f => f.Pockets).Single(p => p.Piece is not null).Piece!;
        (piece.Crop!.Left + piece.Crop.Width).ShouldBe(1, 0.001);

        var plain = await host.Client.GetByteArrayAsync(photo.Picture + "512", TestContext.Current.CancellationToken);
        var covered = (
            await host.EditPhotosAsync(photo, new CoverPhoto([new DrawnBox(0.1, 0.1, 0.3, 0.3)]))
        ).Photos.Single();
        covered.Picture.ShouldNotBe(photo.Picture, "a browser that kept the old one asks anew");
        var painted = await host.Client.GetByteArrayAsync(
            covered.Picture + "512",
            TestContext.Current.CancellationToken
        );
        using (var before = NetVips.Image.NewFromBuffer(plain))
        using (var after = NetVips.Image.NewFromBuffer(painted))
        {
            after.Getpoint(after.Width / 5, after.Height / 5)[0].ShouldBe(92, 3);
            after
                .Getpoint(after.Width * 4 / 5, after.Height * 4 / 5)[0]
                .ShouldBe(before.Getpoint(before.Width * 4 / 5, before.Height * 4 / 5)[0], 3);
        }

        var spread = await host.Client.GetByteArrayAsync(
            $"/api/units/{week.Id}/spread.png",
            TestContext.Current.CancellationToken
        );
        spread.Length.ShouldBeGreaterThan(1000);
        var outside = await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/photos/edits",
            new PhotoEditRequest(
                [new PhotoAt(covered.Id, covered.Revision)],
                new KeepInCrops([new DrawnBox(2, 2, 1, 1)])
            )
        );
        outside["detail"]!.GetValue<string>().ShouldContain("outside the picture");
    }

    [Fact]
    public async Task A_ticket_goes_in_itself_where_it_fits_and_into_the_envelope_where_not()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4");
        var week = await host.OpenAsync(album.Units[0].Id);
        week = await host.EditAsync(
            week,
            new AddKeepsake(
                Keepsake: new WrittenKeepsake(
                    "Ferry ticket",
                    "5 x 2 in",
                    "0.3 mm",
                    "Window seat",
                    null,
                    week.FirstDay,
                    false
                )
            )
            {
                Revision = 0,
            }
        );
        var ticket = week.LooseCards.Single();
        (ticket.Kind, ticket.Keepsake!.FitWords).ShouldBe((PieceKind.Keepsake, "Fits a pocket of these pages."));

        var pockets = week.Faces.SelectMany(f => f.Pockets.Select(p => (f, p))).ToList();
        var small = pockets.First(p => p.p.Size == "3x4");
        var refusal = await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{week.Id}/edits",
            new MovePiece(PieceId: ticket.Id, Place: new PocketPlace(small.f.LeafId, small.f.Side, small.p.Key))
            {
                Revision = week.Revision,
            }
        );
        refusal["detail"]!.GetValue<string>().ShouldContain("does not fit, turned or not");
        var wide = pockets.First(p => p.p.Size == "6x4");
        week = await host.EditAsync(
            week,
            new MovePiece(PieceId: ticket.Id, Place: new PocketPlace(wide.f.LeafId, wide.f.Side, wide.p.Key))
            {
                Revision = 0,
            }
        );
        week.Faces.SelectMany(f => f.Pockets)
            .Single(p => p.Piece is not null)
            .Piece!.Keepsake!.FitWords.ShouldBe("Goes in itself.");
        (
            await host.PostAsync<Printing.PrintPlanView>(
                "/api/print-plans",
                new Printing.PrintRequest("k", [week.Id], "letter", "1/4", "0")
            )
        ).Pieces.ShouldBe(0, "it is never printed");

        week = await host.EditAsync(
            week,
            new ChangeKeepsake(
                PieceId: ticket.Id,
                Keepsake: new WrittenKeepsake(
                    "Ferry ticket",
                    "5 x 2 in",
                    "0.3 mm",
                    "Window seat",
                    null,
                    week.FirstDay,
                    true
                )
            )
            {
                Revision = 0,
            }
        );
        week.Envelope.Single().Title.ShouldBe("Ferry ticket");
        var list = await host.GetAsync<List<KeepsakeView>>($"/api/albums/{album.Id}/keepsakes");
        (list.Single().Name, list.Single().Size, list.Single().InEnvelope, list.Single().UnitTitle).ShouldBe(
            ("Ferry ticket", "5 × 2 in", true, "Week 19")
        );
        (await host.StepAsync(week, "undo")).Envelope.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_series_suggests_by_time_of_day_and_shows_its_gaps()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "mon.jpg", Pictures.Jpeg(taken: "2026:05:04 08:05:00", shade: 10));
        await host.AddAsync(album.Id, "wed.jpg", Pictures.Jpeg(taken: "2026:05:06 07:50:00", shade: 20));
        await host.AddAsync(album.Id, "noon.jpg", Pictures.Jpeg(taken: "2026:05:06 12:00:00", shade: 30));
        var list = await host.GetAsync<SeriesListView>($"/api/albums/{album.Id}/series");
        await host.EditAlbumAsync(
            album.Id,
            new SetSeries(null, "The window", "08:00", 30, null) { Revision = list.Revision }
        );
        var series = (await host.GetAsync<SeriesListView>($"/api/albums/{album.Id}/series")).Series.Single();
        series
            .Days.Select(d => (d.Day.Day, d.Suggested.Select(p => p.FileName).FirstOrDefault()))
            .ShouldBe([(4, "mon.jpg"), (5, null), (6, "wed.jpg")]);
        series.Gaps.ShouldBe(1);
        await host.EditPhotosAsync(series.Days[0].Suggested[0], new JoinSeries(series.Id));
        series = (await host.GetAsync<SeriesListView>($"/api/albums/{album.Id}/series")).Series.Single();
        (series.Chosen, series.Days[0].Chosen!.FileName).ShouldBe((1, "mon.jpg"));
    }

    [Fact]
    public async Task An_imported_calendar_gives_each_day_its_events_once_and_undo_takes_them_back()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        const string file = """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//Somebody Else//EN
            BEGIN:VEVENT
            UID:dentist-1
            DTSTAMP:20260101T000000Z
            DTSTART;TZID=Europe/London:20260505T093000
            DTEND;TZID=Europe/London:20260505T100000
            SUMMARY:Dentist\, again
            LOCATION:Quay Street
            END:VEVENT
            BEGIN:VEVENT
            UID:choir
            DTSTAMP:20260101T000000Z
            DTSTART;TZID=Europe/London:20260430T190000
            RRULE:FREQ=WEEKLY;COUNT=6
            SUMMARY:Choir
            END:VEVENT
            BEGIN:VEVENT
            UID:birthday
            DTSTAMP:20260101T000000Z
            DTSTART;VALUE=DATE:20260510
            SUMMARY:Nan's birthday
            END:VEVENT
            END:VCALENDAR
            """;
        var answer = await SendAsync(file);
        // Choir on the Thursdays 7, 14, 21 and 28 May; 30 April and 4 June lie outside the four weeks.
        (answer.Done, string.Join(';', answer.Changes)).ShouldBe(
            ("Read 6 events out of a calendar", "2 lie outside the album and were not taken")
        );
        var week = await host.OpenAsync(album.Units[0].Id);
        week.Notes.Select(n => (n.DayLabel, n.Time, n.Text))
            .ShouldBe([
                ("Tue 5 May", "09:30", "Dentist, again, Quay Street"),
                ("Thu 7 May", "19:00", "Choir"),
                ("Sun 10 May", null, "Nan's birthday"),
            ]);
        var again = await SendAsync(file);
        (again.Done, again.EditId, again.Changes[0]).ShouldBe(
            ("Read 0 events out of a calendar", null, "6 were here already")
        );
        week = await host.EditAsync(
            week,
            new WriteNote(Note: new WrittenNote(null, week.FirstDay, "19:30", "Ask Ben about the key")) { Revision = 0 }
        );
        week.Notes[0].FromCalendar.ShouldBeFalse();
        week = await host.StepAsync(week, "undo");
        (await host.StepAsync(week, "undo")).Notes.ShouldBeEmpty();

        var refused = await host.Client.PostAsync(
            $"/api/albums/{album.Id}/events",
            new StringContent("BEGIN:VCALENDAR nonsense", Encoding.UTF8, "text/calendar"),
            TestContext.Current.CancellationToken
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        async Task<AlbumEditAnswer> SendAsync(string text)
        {
            var response = await host.Client.PostAsync(
                $"/api/albums/{album.Id}/events",
                new StringContent(text, Encoding.UTF8, "text/calendar"),
                TestContext.Current.CancellationToken
            );
            var body = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
            response.IsSuccessStatusCode.ShouldBeTrue(body);
            return System.Text.Json.JsonSerializer.Deserialize<AlbumEditAnswer>(body, TestHost.Json)!;
        }
    }
}
