using System.Collections.Concurrent;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>What is painted is kept by its recipe, within bounds, and made on threads of its own.</summary>
public sealed class PictureCacheTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_least_lately_used_goes_first_and_what_is_in_use_stays()
    {
        await using var host = await TestHost.StartAsync();
        var cache = host.Services.GetRequiredService<PictureCache>();
        var paths = new List<string>();
        foreach (var recipe in new[] { "old", "used again", "new" })
        {
            var path = await cache.PaintedAsync(recipe, () => new byte[1_000], Cancel);
            paths.Add(path);
            File.SetLastAccessTimeUtc(path, DateTime.UtcNow.AddHours(paths.Count - 10));
        }

        // The second is asked for again: that is noted, and nothing is painted twice.
        await cache.PaintedAsync("used again", () => throw new InvalidOperationException("It is there."), Cancel);
        cache.Measure().ShouldBe(new CacheSize(3, 3_000));
        cache.Sweep(2_000, DateTime.UtcNow).ShouldBe(new CacheSize(1, 1_000));
        paths.ConvertAll(File.Exists).ShouldBe([false, true, true]);
        cache.Sweep(0, DateTime.UtcNow).Files.ShouldBe(1, "what was used a moment ago may be on its way");
        paths.ConvertAll(File.Exists).ShouldBe([false, true, false]);
        (await cache.PaintedAsync("old", () => new byte[10], Cancel)).ShouldBe(paths[0]);
    }

    [Fact]
    public async Task Painting_takes_no_thread_that_answers_requests_and_no_more_places_than_cores()
    {
        await using var host = await TestHost.StartAsync();
        var bench = host.Services.GetRequiredService<PaintingBench>();
        var (now, most, pooled) = (0, 0, new ConcurrentBag<bool>());
        await Task.WhenAll(
            Enumerable
                .Range(0, 4 * Environment.ProcessorCount)
                .Select(_ =>
                    bench.RunAsync(
                        () =>
                        {
                            var busy = Interlocked.Increment(ref now);
                            InterlockedMax(ref most, busy);
                            pooled.Add(Thread.CurrentThread.IsThreadPoolThread);
                            Thread.SpinWait(2_000_000);
                            return Interlocked.Decrement(ref now);
                        },
                        Cancel
                    )
                )
        );
        most.ShouldBeLessThanOrEqualTo(Environment.ProcessorCount);
        pooled.ShouldAllBe(p => !p);
        // Who does not want it any more does not wait for a place.
        using var off = new CancellationTokenSource();
        await off.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => bench.RunAsync(() => 1, off.Token));
    }

    private static void InterlockedMax(ref int most, int value)
    {
        for (int seen; (seen = Volatile.Read(ref most)) < value; )
        {
            Interlocked.CompareExchange(ref most, value, seen);
        }
    }
}
