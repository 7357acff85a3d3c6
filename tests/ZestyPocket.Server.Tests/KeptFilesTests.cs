using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Tests;

/// <summary>What can be made again, and videos that nobody wanted to keep, do not stay for ever.</summary>
public sealed class KeptFilesTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Drawn_sheets_go_after_sixty_days_and_bundles_and_files_of_the_keeper_stay()
    {
        await using var host = await TestHost.StartAsync();
        var settings = host.Services.GetRequiredService<ZestySettings>();
        Directory.CreateDirectory(settings.Prints);
        Directory.CreateDirectory(settings.Backups);
        var now = SystemClock.Instance.GetCurrentInstant();
        string[] old =
        [
            Path.Combine(settings.Prints, $"{Guid.NewGuid():N}.pdf"),
            Path.Combine(settings.Prints, $"book-{Guid.NewGuid():N}.html"),
            Path.Combine(settings.Prints, "notes-of-mine.txt"),
            Path.Combine(settings.Backups, "2026-01-01-100000-our-year-1a2b3c.zip"),
        ];
        var young = Path.Combine(settings.Prints, $"{Guid.NewGuid():N}.zip");
        foreach (var path in old.Append(young))
        {
            await File.WriteAllTextAsync(path, "made", Cancel);
            File.SetLastWriteTimeUtc(path, (now - Duration.FromDays(path == young ? 59 : 61)).ToDateTimeUtc());
        }

        await SweepAsync(host, now);
        old.Append(young)
            .Where(File.Exists)
            .Select(Path.GetFileName)
            .ShouldBe(["notes-of-mine.txt", "2026-01-01-100000-our-year-1a2b3c.zip", Path.GetFileName(young)]);
    }

    [Fact]
    public async Task A_video_goes_after_sixty_days_unless_it_is_kept_and_says_so_before()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        foreach (var kept in new[] { true, false })
        {
            var film = Films.Moving($"creation_time=2026-05-0{(kept ? 5 : 6)}T10:00:00Z");
            await host.AddAsync(album.Id, "weir.mp4", film);
            var video = (await VideosAsync(host, album.Id))[^1];
            await host.PostAsync<VideoView>($"/api/videos/{video.Id}/keep", new KeepVideoRequest(kept));
        }

        var now = SystemClock.Instance.GetCurrentInstant();
        (await VideosAsync(host, album.Id)).Select(v => v.GoesOn is null).ShouldBe([true, false]);
        await SweepAsync(host, now + Duration.FromDays(59));
        (await VideosAsync(host, album.Id)).Count.ShouldBe(2);
        await SweepAsync(host, now + Duration.FromDays(61));
        (await VideosAsync(host, album.Id)).ShouldHaveSingleItem().Kept.ShouldBeTrue();
    }

    [Fact]
    public async Task A_bundle_that_has_no_room_is_refused_before_it_is_written()
    {
        await using var host = await TestHost.WithAsync(("Zesty:BundlesMegabytes", "0"), ("Zesty:RunJobs", "true"));
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg());
        var backup = await host.PostAsync<BackupView>("/api/backups", new BackupRequest("one", [album.Id]));
        while (backup.State is JobState.Waiting or JobState.Running)
        {
            await Task.Delay(50, Cancel);
            backup = await host.GetAsync<BackupView>($"/api/backups/{backup.Id}");
        }

        backup.State.ShouldBe(JobState.Failed);
        backup.Problem!.ShouldContain("0 MB");
        backup.Problem!.ShouldContain("delete a bundle");
        (await host.GetAsync<KeptView>("/api/kept-files")).Bundles.ShouldBe(new KeptFilesView(0, 0, null, 0));
    }

    private static async Task<List<VideoView>> VideosAsync(TestHost host, Guid albumId) =>
        await host.GetAsync<List<VideoView>>($"/api/albums/{albumId}/videos");

    private static async Task SweepAsync(TestHost host, Instant now)
    {
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<MadeFileSweeper>().SweepAsync(now, Cancel);
    }
}
