using ZestyPocket.Core.LookingOver;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Findings through the server: found, mended by the edit they bring, accepted, shown again.</summary>
public sealed class LookOverTests
{
    [Fact]
    public async Task A_finding_is_mended_by_its_own_edit_and_an_old_one_meets_the_newer_revision()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        for (var i = 0; i < 18; i++)
        {
            var taken = $"2026:05:{4 + (i % 7):00} 1{i % 10}:00:00";
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(900, 1200, taken, shade: 60 + (8 * i)));
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        (await LookAsync(host, album.Id)).ShouldBeEmpty();
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var last = unit.Faces[1].Pockets[8];
        unit = await host.EditAsync(
            unit,
            new TakeOut(new(unit.Faces[1].LeafId, unit.Faces[1].Side, last.Key)) { Revision = 0 }
        );
        var found = (await LookAsync(host, album.Id)).Single(f => f.Rule == FindingRule.EmptyPocket);
        (found.Where, found.MendLabel, found.Mend!.Revision).ShouldBe((last.Code, "Fill the spread", unit.Revision));
        unit = await host.EditAsync(unit, found.Mend);
        (await LookAsync(host, album.Id)).ShouldNotContain(f => f.Rule == FindingRule.EmptyPocket);
        // The same click once more is on a revision that is gone.
        await host.RefusedAsync(409, HttpMethod.Post, $"/api/units/{unit.Id}/edits", found.Mend);
    }

    [Fact]
    public async Task A_finding_is_accepted_once_or_always_and_shown_again_on_request()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(900, 1200, "2026:05:04 10:00:00"));
        var unit = await host.OpenAsync(album.Units[0].Id);
        await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var empty = (await LookAsync(host, album.Id)).FindAll(f => f.Rule == FindingRule.EmptyPocket);
        empty.Count.ShouldBe(17);
        await host.EditAlbumAsync(album.Id, new AcceptFinding(empty[0].Key, false) { Revision = TestHost.Latest });
        (await LookAsync(host, album.Id)).Count(f => f.Accepted).ShouldBe(1);
        await host.EditAlbumAsync(album.Id, new AcceptFinding(empty[0].Key, true) { Revision = TestHost.Latest });
        (await LookAsync(host, album.Id)).Count(f => f.Accepted).ShouldBe(17);
        foreach (var key in new[] { "", "Nonsense x", "3", "17", new string('x', 2_000) })
        {
            await host.AlbumEditRefusedAsync(
                422,
                album.Id,
                new AcceptFinding(key, false) { Revision = TestHost.Latest }
            );
        }

        await host.EditAlbumAsync(album.Id, new ShowAllFindings { Revision = TestHost.Latest });
        (await LookAsync(host, album.Id)).ShouldNotContain(f => f.Accepted);
        var balance = await host.GetAsync<List<BalanceView>>($"/api/units/{unit.Id}/balance");
        balance.ShouldHaveSingleItem().RightLessLeft.ShouldBeInRange(-1, 1);
    }

    private static Task<List<AlbumFinding>> LookAsync(TestHost host, Guid albumId) =>
        host.GetAsync<List<AlbumFinding>>($"/api/albums/{albumId}/findings");

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Everything_that_looks_answers_while_an_import_runs_and_when_it_is_cut_off()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        var unit = album.Units[0].Id;
        for (var i = 0; i < 6; i++)
        {
            var taken = $"2026:05:{4 + i:00} 10:00:00";
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(300, 400 + i, taken, shade: 60 + (8 * i)));
        }

        await host.EditAsync(await host.OpenAsync(unit), new FillSpread { Revision = 0 });
        var batch = await ImportJobTests.BeginAsync(host, album);
        var sending = Parallel.ForEachAsync(
            Enumerable.Range(0, 60),
            TestContext.Current.CancellationToken,
            async (i, _) =>
                await ImportJobTests.SendAsync(
                    host,
                    batch,
                    $"{i}",
                    $"in-{i}.jpg",
                    Pictures.Jpeg(320 + i, 420, $"2026:05:{4 + (i % 7):00} 12:00:00", shade: i)
                )
        );
        string[] looks =
        [
            $"/api/albums/{album.Id}/findings",
            $"/api/albums/{album.Id}/findings?from={unit}",
            $"/api/units/{unit}/other-ways",
            $"/api/units/{unit}/reasons",
            $"/api/units/{unit}/colours?spread=1",
            $"/api/units/{unit}/balance",
            $"/api/albums/{album.Id}/pages",
            $"/api/albums/{album.Id}/contact-sheet?from={unit}&count=4",
        ];
        do
        {
            // Each six times at once, one of them cut off at once.
            await Task.WhenAll(
                looks.SelectMany(look => Enumerable.Range(0, 6).Select(i => LookAsync(host, look, cutOff: i == 3)))
            );
        } while (!sending.IsCompleted);

        await sending;
        (await ImportJobTests.DoneAsync(host, batch)).Added.ShouldBe(60);
        (await LookAsync(host, album.Id)).ShouldNotBeEmpty();
    }

    private static async Task LookAsync(TestHost host, string url, bool cutOff)
    {
        using var cut = new CancellationTokenSource(cutOff ? TimeSpan.FromMilliseconds(5) : TimeSpan.FromMinutes(2));
        try
        {
            using var answer = await host.Client.GetAsync(new Uri(url, UriKind.Relative), cut.Token);
            answer.IsSuccessStatusCode.ShouldBeTrue($"{url}: {(int)answer.StatusCode}");
        }
        catch (OperationCanceledException) when (cutOff)
        {
            // Nobody waits for this one.
        }
    }
}
