using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using NetVips;
using NodaTime;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Travel.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Demo;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Travel;

namespace ZestyPocket.Server.Tests;

/// <summary>The trip log: tracks and tables that come in, what the cards print of them.</summary>
public sealed class TripTests
{
    private static readonly LocalDate Day = new(2026, 5, 4);

    private sealed record ReadTrack(string? Kind, double[][] Points, string[] Times);

    /// <summary>Points northwards from 47° N, one every 20 seconds from nine o'clock, about 28 m apart.</summary>
    private static byte[] Gpx(int points = 200)
    {
        var nine = Instant.FromUtc(2026, 5, 4, 9, 0);
        var track = Enumerable
            .Range(0, points)
            .Select(i =>
                string.Create(CultureInfo.InvariantCulture, $"<trkpt lat=\"{47 + (i * 0.00025)}\" lon=\"3.02\">")
                + $"<ele>{200 + (i % 3)}</ele><time>{nine + Duration.FromSeconds(20 * i)}</time></trkpt>"
            );
        return Encoding.UTF8.GetBytes(
            "<gpx version=\"1.1\" creator=\"test\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><type>boat</type>"
                + $"<trkseg>{string.Concat(track)}</trkseg></trk></gpx>"
        );
    }

    private static async Task<HttpResponseMessage> SendAsync(
        TestHost host,
        Guid album,
        string what,
        string name,
        byte[] bytes
    )
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        return await host.Client.PostAsync(
            new Uri($"/api/albums/{album}/trip/{what}?name={Uri.EscapeDataString(name)}", UriKind.Relative),
            content,
            TestContext.Current.CancellationToken
        );
    }

    private static async Task<string> RefusedAsync(TestHost host, Guid album, string what, byte[] bytes)
    {
        var answer = await SendAsync(host, album, what, "bad.file", bytes);
        var text = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        ((int)answer.StatusCode).ShouldBe(422, text);
        return JsonNode.Parse(text)!["detail"]!.GetValue<string>();
    }

    private static Task<TripView> TripAsync(TestHost host, Guid album) =>
        host.GetAsync<TripView>($"/api/albums/{album}/trip");

    /// <summary>What a computed card prints.</summary>
    private static async Task<string> WordsOfAsync(TestHost host, Guid unit, CardKind kind)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var open = await scope
            .ServiceProvider.GetRequiredService<UnitOpener>()
            .OpenAsync(unit, TestContext.Current.CancellationToken);
        return scope
            .ServiceProvider.GetRequiredService<PieceFaces>()
            .WordsOf(open, open.Content.Pieces.OfType<Card>().Single(c => c.Kind == kind));
    }

    [Fact]
    public async Task A_track_is_read_point_by_point_as_another_library_reads_it()
    {
        var bytes = DemoTrip.Track();
        var theirs = JsonSerializer.Deserialize<List<ReadTrack>>(
            await Node.RunAsync("ZestyPocket.Server.Tests/read-gpx.mjs", Encoding.UTF8.GetString(bytes)),
            JsonSerializerOptions.Web
        )!;
        var ours = TrackFiles.Read("demo.gpx", bytes, TestContext.Current.CancellationToken);
        ours.Select(o => o.Mode).ShouldBe([TravelMode.Boat, TravelMode.Bicycle]);
        foreach (var (track, read) in ours.Zip(theirs))
        {
            var points = track.Stretches.SelectMany(s => s).ToList();
            points.Count.ShouldBe(read.Points.Length);
            for (var i = 0; i < points.Count; i++)
            {
                points[i].Place.ShouldBe(new GeoPoint(read.Points[i][1], read.Points[i][0]));
                points[i].ElevationMetres!.Value.ShouldBe(read.Points[i][2], 1e-9);
                points[i].At.ShouldBe(NodaTime.Text.InstantPattern.ExtendedIso.Parse(read.Times[i]).Value);
            }
        }
    }

    [Fact]
    public async Task A_track_becomes_a_leg_places_a_picture_is_printed_on_a_map_and_is_undone()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "afloat.jpg", Pictures.Jpeg(400, 300, "2026:05:04 09:30:00"));
        var done = await (
            await SendAsync(host, album.Id, "tracks", "way.gpx", Gpx())
        ).Content.ReadFromJsonAsync<AlbumEditAnswer>(TestHost.Json, TestContext.Current.CancellationToken);
        var trip = await TripAsync(host, album.Id);
        var leg = trip.Legs.ShouldHaveSingleItem();
        // 199 steps of a 4000th of a degree: 5.53 km (111.2 km a degree at 47° N, handbook value).
        (leg.Mode, leg.Day, leg.Leaves, leg.Arrives, leg.Length).ShouldBe(
            (TravelMode.Boat, Day, "09:00", "10:06", "3.4 mi")
        );
        trip.FromTracks.ShouldBe(1);

        var unit = await host.OpenAsync(album.Units[0].Id);
        unit = await host.EditAsync(unit, new AddCard(CardKind.Map, Day: Day) { Revision = 0 });
        unit = await host.EditAsync(unit, new AddCard(CardKind.Numbers) { Revision = 0 });
        (await WordsOfAsync(host, unit.Id, CardKind.Map)).ShouldBe("3.4 mi by boat");
        (await WordsOfAsync(host, unit.Id, CardKind.Numbers)).ShouldContain("3.4 mi by boat");
        var png = await host.Client.GetByteArrayAsync(
            new Uri($"/api/albums/{album.Id}/trip/map.png", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        using (var map = Image.NewFromBuffer(png))
        {
            (map.Width, map.Height).ShouldBe((960, 720));
            map.Stats()[4, 0][0].ShouldBeGreaterThan(0);
        }

        await host.PostAsync<JsonObject>($"/api/edits/{done!.EditId}/undo", new { });
        (await TripAsync(host, album.Id)).Legs.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_same_track_six_times_at_once_is_one_leg()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => SendAsync(host, album.Id, "tracks", "way.gpx", Gpx()))
        );
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        answers.Count(a => (int)a.StatusCode == 422).ShouldBe(5);
        (await TripAsync(host, album.Id)).Legs.Count.ShouldBe(1);
    }

    [Fact]
    public async Task What_is_no_track_is_refused_with_its_reason_and_nothing_changes()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        Task<string> TrackAsync(string text) => RefusedAsync(host, album.Id, "tracks", Encoding.UTF8.GetBytes(text));
        (await TrackAsync("")).ShouldContain("no GPX file");
        (await TrackAsync("קו 47,3")).ShouldContain("no GPX file");
        (await TrackAsync(Encoding.UTF8.GetString(Gpx())[..900])).ShouldContain("no GPX file");
        (
            await TrackAsync(
                "<!DOCTYPE gpx [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]>"
                    + "<gpx version=\"1.1\" creator=\"&b;\"/>"
            )
        ).ShouldContain("no GPX file");
        const string Head = "<gpx version=\"1.1\" creator=\"x\" xmlns=\"http://www.topografix.com/GPX/1/1\">";
        (await TrackAsync(Head + "</gpx>")).ShouldContain("no track or route");
        (await TrackAsync(Head + "<wpt lat=\"1\" lon=\"2\"/></gpx>")).ShouldContain("single points");
        (
            await TrackAsync(
                Head + "<trk><trkseg><trkpt lat=\"97\" lon=\"2\"/><trkpt lat=\"1\" lon=\"2\"/></trkseg></trk></gpx>"
            )
        ).ShouldContain("no GPX file");
        (await TrackAsync(Encoding.UTF8.GetString(Gpx(2)))).ShouldContain("nobody goes farther");
        (await TripAsync(host, album.Id)).Legs.ShouldBeEmpty();
    }

    [Fact]
    public async Task Weather_comes_from_a_table_or_a_list_and_what_a_stand_in_makes_up_is_never_printed()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(400, 300, "2026:05:04 09:30:00"));
        await SendAsync(host, album.Id, "tracks", "way.gpx", Gpx());
        (await TripAsync(host, album.Id)).Days.Single(d => d.Day == Day).Source.ShouldBe(WeatherSource.Almanac);
        var before = await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddCard(CardKind.Facts, Day: Day) { Revision = 0 }
        );
        var computed = await WordsOfAsync(host, before.Id, CardKind.Facts);
        computed.ShouldNotContain("°C");
        computed.ShouldContain("of daylight");
        await host.StepAsync(before, "undo");
        var csv = "Date;Low;High;Sky\n2026-05-04;-3;4;Hagel, dann Sonne\n2026-05-05;x;4;Rain\n2026-05-06;8;2;Rain\n";
        var answer = await SendAsync(host, album.Id, "weather", "w.csv", Encoding.UTF8.GetBytes(csv));
        (
            await answer.Content.ReadFromJsonAsync<AlbumEditAnswer>(
                TestHost.Json,
                TestContext.Current.CancellationToken
            )
        )!.Changes.Count.ShouldBe(2);
        var json = "[{\"date\":\"2026-05-07T00:00\",\"lowF\":32,\"highF\":68,\"conditions\":\"大雪\"}]";
        (await SendAsync(host, album.Id, "weather", "w.json", Encoding.UTF8.GetBytes(json))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        var days = (await TripAsync(host, album.Id)).Days;
        days.Where(d => d.Source == WeatherSource.Noted)
            .Select(d => (d.Day, d.LowCelsius, d.HighCelsius, d.Sky))
            .ShouldBe([(Day, -3, 4, "Hagel, dann Sonne"), (Day.PlusDays(3), 0, 20, "大雪")]);
        var unit = await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddCard(CardKind.Facts, Day: Day) { Revision = 0 }
        );
        (await WordsOfAsync(host, unit.Id, CardKind.Facts)).ShouldStartWith("Hagel, dann Sonne, −3 to 4 °C");
        foreach (var bad in new[] { "", "[", "[1,2]", "a,b\n1,2\n", "{\"date\":1}" })
        {
            await RefusedAsync(host, album.Id, "weather", Encoding.UTF8.GetBytes(bad));
        }
    }

    [Fact]
    public async Task Pictures_with_places_give_legs_that_are_at_least_so_long()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        (await host.RefusedAsync(422, HttpMethod.Post, $"/api/albums/{album.Id}/trip/legs-from-pictures", new { }))[
            "detail"
        ]!
            .GetValue<string>()
            .ShouldContain("two places");
        foreach (var shot in DemoHousehold.TripShots().Where(s => s.OffsetMinutes is not null).Take(10))
        {
            var moved = shot with
            {
                Taken = shot.Taken.PlusDays(-33),
                Latitude = shot.Latitude + (0.01 * shot.Taken.Hour),
            };
            await host.AddAsync(album.Id, shot.FileName, DemoPictures.Jpeg(moved.At(0.2)));
        }

        await host.PostAsync<AlbumEditAnswer>($"/api/albums/{album.Id}/trip/legs-from-pictures", new { });
        var trip = await TripAsync(host, album.Id);
        trip.Legs.Select(l => (l.Day, l.Source))
            .ShouldBe([(Day, LegSource.Pictures), (Day.PlusDays(1), LegSource.Pictures)]);
        trip.Words.ShouldContain("at least");
    }

    [Fact]
    public async Task A_thousand_expenses_and_three_hundred_legs_are_the_most_and_read_in_a_moment()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        TripLeg Leg(int i) =>
            new()
            {
                Id = Guid.Empty,
                Day = Day.PlusDays(i % 20),
                From = $"Place {i}",
                To = $"地名 {i}",
                Mode = TravelMode.Train,
                Length = Distance.FromKilometres(i),
            };
        await host.EditAlbumAsync(album.Id, new AddLegs([.. Enumerable.Range(0, 300).Select(Leg)]));
        var refused = await host.AlbumEditRefusedAsync(422, album.Id, new AddLegs([Leg(300)]));
        refused["detail"]!.GetValue<string>().ShouldContain("300 legs");
        var trip = await TripAsync(host, album.Id);
        trip.Legs.Count.ShouldBe(300);
        trip.ByMode.ShouldHaveSingleItem().Total.ShouldBe("27,868 mi", "300 legs of 0 to 299 km are 44,850 km");
    }
}
