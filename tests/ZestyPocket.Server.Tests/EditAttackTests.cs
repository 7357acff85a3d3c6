using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Server.Tests;

/// <summary>Edits six times at once, cut off half-way, and documents brought up to date by two servers.</summary>
public sealed class EditAttackTests
{
    private static readonly LocalDate Wednesday = new(2026, 5, 6);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The status of the same edit six times at once.</summary>
    private static async Task<int[]> SixTimesAsync(TestHost host, string url, object edit)
    {
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => host.Client.PostAsync(url, TestHost.Written(edit), Cancel))
        );
        return [.. answers.Select(a => (int)a.StatusCode).Order()];
    }

    [Fact]
    public async Task Six_equal_edits_at_once_are_done_once_and_five_are_told_both_sides()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        int[] onceOnly = [200, 409, 409, 409, 409, 409];
        var (edits, units) = ($"/api/albums/{album.Id}/edits", album.Units.Count);
        (await SixTimesAsync(host, edits, new GrowAlbum(1, AtEnd: true) { Revision = album.Revision })).ShouldBe(
            onceOnly
        );
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units.Count.ShouldBe(units + 1);

        var week = await host.OpenAsync(album.Units[0].Id);
        (await SixTimesAsync(host, edits, new MergeUnit { UnitId = week.Id, Revision = week.Revision })).ShouldBe(
            onceOnly
        );
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units.Count.ShouldBe(units);

        await host.EditStoriesAsync(album.Id, new NewStory("We planted beans. It rained.", Days: [Wednesday]));
        var story = (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).Single();
        (
            await SixTimesAsync(
                host,
                $"/api/albums/{album.Id}/stories/edits",
                new SplitStory(17) { StoryId = story.Id, Revision = story.Revision }
            )
        ).ShouldBe(onceOnly);
        (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).Count.ShouldBe(2);

        // What only adds is the same design once.
        (await SixTimesAsync(host, "/api/designs/edits", new AddDesign("Mine", "6x4 / 6x4"))).ShouldAllBe(s =>
            s == 200
        );
        (await host.GetAsync<List<OwnDesignView>>("/api/designs")).ShouldHaveSingleItem();
    }

    [Fact]
    public async Task An_edit_cut_off_half_way_is_done_whole_or_not_at_all()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var done = 0;
        const int tries = 20;
        for (var n = 0; n <= tries; n++)
        {
            var before = await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
            using var cut = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
            if (n < tries)
            {
                // From at once to far longer than it takes; the last is not cut off.
                cut.CancelAfter(TimeSpan.FromMilliseconds(n * n));
            }

            try
            {
                await host.Client.PostAsync(
                    $"/api/albums/{album.Id}/edits",
                    TestHost.Written(new GrowAlbum(1, AtEnd: true) { Revision = before.Revision }),
                    cut.Token
                );
            }
            catch (OperationCanceledException)
            {
                // The keeper's window is gone; whether the server was done is its own affair.
            }

            var now = await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
            var grown = now.Units.Count - before.Units.Count;
            grown.ShouldBeInRange(0, 1);
            (now.Revision - before.Revision).ShouldBe(grown, "a unit and the album's revision come together");
            now.Units.ShouldAllBe(u => u.Pockets > 0, "no unit is without its pages");
            done += grown;
        }

        done.ShouldBeGreaterThan(0, "some had time to be done");
    }

    [Fact]
    public async Task Documents_are_brought_up_to_date_by_two_servers_at_once_and_after_one_was_killed()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        const int photos = 1_300;
        await using (var scope = host.Services.CreateAsyncScope())
        {
            // As the first version wrote them: a list without a version.
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            await host.AddAsync(album.Id, "one.jpg", Pictures.Jpeg(taken: "2026:05:06 12:00:00"));
            await db.Database.ExecuteSqlRawAsync(
                """
                INSERT INTO "Photos" SELECT (jsonb_populate_record(p, jsonb_build_object('Id', gen_random_uuid(),
                    'Sha256', md5(n::text) || md5((-n)::text), 'KeepBoxes',
                    '[{{"x":0.1,"y":0.1,"width":0.5,"height":0.5}}]'::jsonb,
                    'CoverBoxes', '[]'::jsonb))).* FROM "Photos" p, generate_series(2, {0}) n
                """,
                [photos],
                Cancel
            );
        }

        using (var killed = CancellationTokenSource.CreateLinkedTokenSource(Cancel))
        {
            killed.CancelAfter(TimeSpan.FromMilliseconds(15));
            await Should.ThrowAsync<OperationCanceledException>(() => UpgradeAsync(killed.Token));
        }

        var brought = await Task.WhenAll(UpgradeAsync(Cancel), UpgradeAsync(Cancel));
        brought.Sum().ShouldBeInRange(1, 2 * photos, "no document is brought up to date twice");
        (await UpgradeAsync(Cancel)).ShouldBe(0, "nothing is left to do");
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            var all = await db.Photos.AsNoTracking().ToListAsync(Cancel);
            all.Count.ShouldBe(photos);
            all.Count(p => p.Decisions().KeepBoxes is [{ X: 0.1, Width: 0.5 }]).ShouldBe(photos - 1);
        }

        async Task<int> UpgradeAsync(CancellationToken cancel)
        {
            await using var scope = host.Services.CreateAsyncScope();
            return (
                await DocumentUpgrade.RunAsync(scope.ServiceProvider.GetRequiredService<ZestyContext>(), cancel)
            ).Done;
        }
    }
}
