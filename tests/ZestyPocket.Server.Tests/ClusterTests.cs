using System.Collections.Concurrent;
using System.Diagnostics;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Two servers behind a proxy, on one database and one object store, are killed and restarted in turn while pictures
/// come and cards are written: what was acknowledged is there, and nothing is there twice.
/// </summary>
public sealed class ClusterTests : IAsyncLifetime
{
    private static readonly int Files = Thorough.Of(500, 30);
    private static readonly int Edits = Thorough.Of(2_000, 60);
    private static readonly int Kills = Thorough.Of(20, 3);

    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-cluster-").FullName;
    private Process? _objects;
    private ObjectStoreSettings _store = new();

    public async ValueTask InitializeAsync() => (_objects, _store) = await ObjectStoreServer.StartAsync(_folder);

    public ValueTask DisposeAsync()
    {
        _objects?.Kill(entireProcessTree: true);
        _objects?.Dispose();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task Two_servers_lose_nothing_that_was_acknowledged_and_keep_nothing_twice_while_one_is_killed()
    {
        await using var machine = await Machine.StartAsync(servers: 2, _store);
        var album = await machine.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Cluster",
                new NodaTime.LocalDate(2026, 5, 4),
                4,
                ["9x12-nine-3x4"],
                MeasureSystem.Inches
            )
        );
        var batch = (await machine.PostAsync<ImportView>($"/api/albums/{album.Id}/imports", new { })).Id;
        var printed = await machine.FillAsync(album.Units[2].Id);
        var written = new ConcurrentBag<string>();
        var work = Task.WhenAll(
            Task.Run(() => SendAsync(machine, batch)),
            Task.Run(() => WriteAsync(machine, album.Units[0].Id, 0, written)),
            Task.Run(() => WriteAsync(machine, album.Units[1].Id, 1, written))
        );
        var prints = new List<Guid>();
        for (var i = 0; i < Kills; i++)
        {
            // Between kills some of the work must go on: a kill before anything happened shows nothing.
            var before = written.Count;
            await Machine.PersistAsync(() =>
                written.Count > before || work.IsCompleted
                    ? Task.CompletedTask
                    : throw new TimeoutException("Nothing is written any more.")
            );
            await Machine.PersistAsync(async () =>
                prints.Add(
                    (
                        await machine.PostAsync<PrintJobView>(
                            "/api/print-jobs",
                            new PrintRequest($"before kill {i}", [printed], "letter", "1/4 in", "0")
                        )
                    ).Id
                )
            );
            if (i == Kills / 3 || i == 2 * Kills / 3)
            {
                machine.KillDatabase();
                machine.StartDatabase();
            }

            // The last time as a rollout does it: asked to stop, and started anew.
            if (i == Kills - 1)
            {
                machine.StopServer(i % 2);
            }
            else
            {
                machine.KillServer(i % 2);
            }

            await machine.StartServerAsync(i % 2);
        }

        await work;
        await Machine.PersistAsync(() => machine.PostAsync<ImportView>($"/api/imports/{batch}/close", new { }));
        await Machine.PersistAsync(async () =>
        {
            var done = await machine.GetAsync<ImportView>($"/api/imports/{batch}");
            if (done.State != ImportState.Done)
            {
                throw new TimeoutException($"The import is still {done.State}: {done.Waiting} wait.");
            }
        });

        var cards = new List<string>();
        foreach (var unit in album.Units.Take(2))
        {
            cards.AddRange(
                (await machine.GetAsync<UnitView>($"/api/units/{unit.Id}")).LooseCards.Select(c => c.Words!)
            );
        }

        cards.Order().ShouldBe(written.Order(), "every acknowledged card once");
        cards.Distinct().Count().ShouldBe(Edits);

        foreach (var print in prints)
        {
            PrintJobView? job = null;
            await Machine.PersistAsync(async () =>
            {
                job = await machine.GetAsync<PrintJobView>($"/api/print-jobs/{print}");
                if (job.State is JobState.Waiting or JobState.Running)
                {
                    throw new TimeoutException($"The print is still {job.State}.");
                }
            });
            (job!.State, job.Problem).ShouldBe((JobState.Done, null));
        }

        var shas = await machine.ShasAsync();
        shas.Count.ShouldBe(Files);
        shas.Distinct().Count().ShouldBe(Files);
        using var store = new ObjectStore(_store);
        var kept = await store.ListAsync("originals/", TestContext.Current.CancellationToken);
        kept.Select(o => o.Key.Split('/')[^1]).Order().ShouldBe(shas.Order(), "each row with its file, no file alone");
    }

    private static async Task SendAsync(Machine machine, Guid batch)
    {
        for (var i = 0; i < Files; i++)
        {
            var (number, time) = (i, $"2026:05:{4 + (i % 28):00} 12:{i % 60:00}:00");
            var bytes = Pictures.Jpeg(700 + i, 500, time, shade: i % 200);
            await Machine.PersistAsync(() => machine.SendAsync(batch, number, bytes));
        }
    }

    /// <summary>
    /// As a person does it: whoever gets no answer looks whether the card is there before writing it again.
    /// </summary>
    private static async Task WriteAsync(Machine machine, Guid unitId, int person, ConcurrentBag<string> written)
    {
        for (var i = 0; i < Edits / 2; i++)
        {
            var words = $"card {person}-{i}";
            await Machine.PersistAsync(async () =>
            {
                var unit = await machine.GetAsync<UnitView>($"/api/units/{unitId}");
                if (unit.LooseCards.All(c => c.Words != words))
                {
                    await machine.PostAsync<EditAnswer>(
                        $"/api/units/{unitId}/edits",
                        new AddCard(CardKind.Journaling, words) { Revision = unit.Revision }
                    );
                }
            });
            written.Add(words);
        }
    }
}
