using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Counting;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Searches for pages as jobs: asked for once, told how far they are, cancelled, taken up after a crash.
/// </summary>
public sealed class PageSearchTests
{
    [Fact]
    public async Task Six_askings_at_once_under_one_key_are_one_search()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var ask = new ChoosePagesRequest(album.Units[0].Id, 4);
        var found = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => host.SearchPagesAsync(album.Id, ask, "once"))
        );
        found.Select(f => f.Id).Distinct().Count().ShouldBe(1);
        found.ShouldAllBe(f => f.State == JobState.Done && f.Choices!.Count > 0 && f.WaysDone == f.WaysTotal);
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        (await db.PageSearches.CountAsync(TestContext.Current.CancellationToken)).ShouldBe(1);
    }

    [Fact]
    public async Task A_cancelled_search_ends_and_answers_nothing()
    {
        await using var host = await TestHost.StartAsync(solver: new EndlessSolver(), runJobs: true);
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var search = await host.PostAsync<PageSearchView>(
            $"/api/albums/{album.Id}/pages/searches",
            new PageSearchRequest("long", new ChoosePagesRequest(album.Units[0].Id, 4))
        );
        await host.PostAsync<PageSearchView>($"/api/page-searches/{search.Id}/cancel", new { });
        search = await host.EndOfAsync(search);
        (search.State, search.Choices, search.Problem).ShouldBe((JobState.Cancelled, null, null));
    }

    [Fact]
    public async Task A_search_that_was_broken_off_is_made_again_after_the_restart()
    {
        await using var host = await TestHost.StartAsync(runJobs: false);
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var search = await host.PostAsync<PageSearchView>(
            $"/api/albums/{album.Id}/pages/searches",
            new PageSearchRequest("crash", new ChoosePagesRequest(album.Units[0].Id, 1))
        );
        await using (var scope = host.Services.CreateAsyncScope())
        {
            // As a server that was killed in the middle leaves it.
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            await db.PageSearches.ExecuteUpdateAsync(
                set => set.SetProperty(s => s.State, JobState.Running).SetProperty(s => s.WaysDone, 2),
                TestContext.Current.CancellationToken
            );
        }

        search = await host.EndOfAsync(search);
        search.State.ShouldBe(JobState.Done);
        search.Choices!.ShouldNotBeEmpty();
        // A finished one is left alone.
        (await host.EndOfAsync(search)).ShouldBeEquivalentTo(search);
    }

    /// <summary>Searches until it is told to stop.</summary>
    private sealed class EndlessSolver : IPageSolver
    {
        public PageAnswer Solve(PageQuestion question, CancellationToken cancel = default)
        {
            cancel.WaitHandle.WaitOne(TimeSpan.FromMinutes(1));
            cancel.ThrowIfCancellationRequested();
            throw new InvalidOperationException("Nobody has stopped the search.");
        }
    }
}
