using System.Net;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>From a video to pictures of the album, through the server.</summary>
public sealed class VideoServerTests
{
    [Fact]
    public async Task Frames_of_a_video_go_to_their_day_by_the_clock_of_where_it_was_taken()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TapeTests.TripAsync(host, 5);
        var film = Films.Moving("creation_time=2026-06-07T10:00:00Z");
        var outcome = await host.AddAsync(album.Id, "weir.mp4", film);
        outcome.Status.ShouldBe(ImportStatus.Opened);
        outcome.Detail.ShouldContain("in the room Videos");
        (await host.AddAsync(album.Id, "again.mp4", film)).Status.ShouldBe(ImportStatus.AlreadyHere);

        var video = (await host.GetAsync<List<VideoView>>($"/api/albums/{album.Id}/videos")).ShouldHaveSingleItem();
        (video.Width, video.Height, video.Milliseconds).ShouldBe((320, 240, 2000));
        video.Proposed.ShouldNotBeEmpty();
        var frame = await host.Client.GetAsync(
            $"/api/videos/{video.Id}/frame?at=500",
            TestContext.Current.CancellationToken
        );
        frame.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");

        // The same two frames six times at once are two pictures.
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    host.PostAsync<List<ImportOutcome>>(
                        $"/api/videos/{video.Id}/frames",
                        new TakeFramesRequest([0, 1500, 1500])
                    )
                )
        );
        answers.SelectMany(a => a).Count(o => o.Status == ImportStatus.Added).ShouldBe(2);
        answers.SelectMany(a => a).Count(o => o.Status == ImportStatus.AlreadyHere).ShouldBe(10);
        var photos = (await host.OpenAsync(album.Units[1].Id)).Photos;
        photos.Select(p => p.FileName).ShouldBe(["weir 0m00.0s.jpg", "weir 0m01.5s.jpg"], ignoreOrder: true);
        (await host.GetAsync<List<VideoView>>($"/api/albums/{album.Id}/videos"))[0].Taken.ShouldBe([0, 1500]);

        // The video goes, its pictures stay.
        (
            await host.Client.DeleteAsync($"/api/videos/{video.Id}", TestContext.Current.CancellationToken)
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await host.GetAsync<List<VideoView>>($"/api/albums/{album.Id}/videos")).ShouldBeEmpty();
        (
            await host.Client.GetAsync($"/api/videos/{video.Id}/frame?at=0", TestContext.Current.CancellationToken)
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await host.OpenAsync(album.Units[1].Id)).Photos.Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_broken_video_is_one_line_and_no_frames_are_too_many()
    {
        await using var host = await TestHost.StartAsync();
        var album = await TapeTests.TripAsync(host, 2);
        var film = Films.Moving("title=x");
        var cut = await host.AddAsync(album.Id, "cut.mp4", film[..(film.Length / 2)]);
        (cut.Status, cut.Detail).ShouldBe(
            (
                ImportStatus.Refused,
                "The video is damaged or of a kind that cannot be read. Save it as MP4 and add that, or add stills "
                    + "from it."
            )
        );
        await host.AddAsync(album.Id, "whole.mp4", film);
        var video = (await host.GetAsync<List<VideoView>>($"/api/albums/{album.Id}/videos")).Single();
        video.Started.ShouldBeNull();
        foreach (var positions in new long[][] { [], [.. Enumerable.Range(0, 25).Select(i => (long)i)] })
        {
            await host.RefusedAsync(
                422,
                HttpMethod.Post,
                $"/api/videos/{video.Id}/frames",
                new TakeFramesRequest(positions)
            );
        }
    }
}
