using System.IO.Compression;
using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.TuckingIn;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Tests;

/// <summary>Papers in the drawer, what is left of sheets, reprints, orders at a lab, outlines and templates.</summary>
public sealed class PrintRoomTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<UnitView> FilledAsync(TestHost host, int pictures = 4)
    {
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        for (var i = 0; i < pictures; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(900, 1200 + i, $"2026:05:{4 + (i % 7):00} 1{i % 10}:00:00", colourful: true)
            );
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        foreach (var words in new[] { "Rain all day.", "Home." })
        {
            unit = await host.EditAsync(unit, new AddCard(CardKind.Journaling, words) { Revision = 0 });
        }

        return await host.EditAsync(unit, new FillSpread { Revision = 0 });
    }

    private static IEnumerable<PieceView?> Pieces(UnitView unit) =>
        unit.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece);

    private static PrintRequest Ask(
        UnitView unit,
        PrintChoice choice = PrintChoice.Due,
        PrintOptions? options = null
    ) => new(Guid.NewGuid().ToString(), [unit.Id], "letter", "1/4 in", "0", false, choice, [], null, options);

    private static async Task<PrintJobView> PrintAsync(TestHost host, PrintRequest request)
    {
        var job = await host.PostAsync<PrintJobView>("/api/print-jobs", request);
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<PrintJobRunner>().RunAsync(job.Id, Cancel);
        return await host.GetAsync<PrintJobView>($"/api/print-jobs/{job.Id}");
    }

    private static Task<List<LeftoverView>> LeftoversAsync(TestHost host, Guid? job = null) =>
        host.GetAsync<List<LeftoverView>>(job is null ? "/api/leftovers" : $"/api/leftovers?job={job}");

    [Fact]
    public async Task A_changed_card_is_printed_on_the_sheet_that_was_kept_and_the_drawer_counts_down()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        await host.PostAsync<PaperOnHandView>(
            "/api/papers-on-hand",
            new PaperEntry(Stock.WhiteCard, "letter", Count: 5, Price: 0.4m)
        );
        // Kept six times at once it is one entry.
        await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    host.PostAsync<PaperOnHandView>(
                        "/api/papers-on-hand",
                        new PaperEntry(Stock.WhiteCard, "letter", Count: 5, Price: 0.4m)
                    )
                )
        );
        var first = await PrintAsync(host, Ask(unit));
        first.State.ShouldBe(JobState.Done, first.Problem);
        (await host.GetAsync<List<PaperOnHandView>>("/api/papers-on-hand")).Single().Entry.Count.ShouldBe(4);

        // Two cards leave most of a Letter sheet of white card, four pictures a third of one of photo paper.
        var offered = await LeftoversAsync(host, first.Id);
        offered.Count.ShouldBe(2);
        offered.ShouldAllBe(l => l.State == LeftoverState.Offered);
        (await LeftoversAsync(host)).Count.ShouldBe(2);
        var card = offered.Single(l => l.Words.Contains("white card", StringComparison.Ordinal));
        await host.PostAsync<LeftoverView>($"/api/leftovers/{card.Id}", new LeftoverChoice(LeftoverState.Sheet));

        var home = Pieces(unit).First(p => p?.Words == "Home.")!;
        unit = await host.EditAsync(unit, new WriteCard(home.Id, "Home!") { Revision = 0 });
        var plan = await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit));
        var sheet = plan.Sheets.ShouldHaveSingleItem();
        (sheet.IsLeftover, sheet.Numbers.Count, plan.IsProved).ShouldBe((true, 1, true));
        var png = await host.Client.GetAsync(
            new Uri(
                $"/api/units/{unit.Id}/sheets/1?paper=letter&margin=1/4 in&gap=0&choice=due&useLeftovers=true",
                UriKind.Relative
            ),
            Cancel
        );
        png.StatusCode.ShouldBe(HttpStatusCode.OK);

        var second = await PrintAsync(host, Ask(unit));
        second.State.ShouldBe(JobState.Done, second.Problem);
        // No new sheet was taken, the kept one is used up, and what is left of it is offered again.
        (await host.GetAsync<List<PaperOnHandView>>("/api/papers-on-hand"))
            .Single()
            .Entry.Count.ShouldBe(4);
        (await LeftoversAsync(host)).ShouldNotContain(l => l.Id == card.Id);
        (await LeftoversAsync(host, first.Id)).Single(l => l.Id == card.Id).State.ShouldBe(LeftoverState.Used);
        (await LeftoversAsync(host, second.Id)).Count.ShouldBe(1);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/leftovers/{card.Id}",
            new LeftoverChoice(LeftoverState.CutOff)
        );
    }

    [Fact]
    public async Task Two_prints_never_take_one_leftover()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        var first = await PrintAsync(host, Ask(unit));
        var left = (await LeftoversAsync(host, first.Id)).First(l =>
            l.Words.Contains("white card", StringComparison.Ordinal)
        );
        await host.PostAsync<LeftoverView>($"/api/leftovers/{left.Id}", new LeftoverChoice(LeftoverState.CutOff));
        var cards = Pieces(unit).Where(p => p?.Words is { Length: > 0 }).Select(p => p!.Id).ToList();
        PrintRequest[] both =
        [
            Ask(unit, PrintChoice.Chosen) with
            {
                PieceIds = [cards[0]],
            },
            Ask(unit, PrintChoice.Chosen) with
            {
                PieceIds = [cards[1]],
            },
        ];
        var jobs = new List<PrintJobView>();
        foreach (var ask in both)
        {
            jobs.Add(await host.PostAsync<PrintJobView>("/api/print-jobs", ask));
        }

        await Task.WhenAll(
            jobs.Select(async job =>
            {
                await using var scope = host.Services.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<PrintJobRunner>().RunAsync(job.Id, Cancel);
            })
        );
        // One that found the turn taken is taken up again.
        foreach (var job in jobs)
        {
            await using var scope = host.Services.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<PrintJobRunner>().RunAsync(job.Id, Cancel);
        }

        await using var last = host.Services.CreateAsyncScope();
        var db = last.ServiceProvider.GetRequiredService<ZestyContext>();
        var row = await db.SheetLeftovers.SingleAsync(l => l.Id == left.Id, Cancel);
        (row.State, jobs.Select(j => j.Id).Contains(row.UsedBy!.Value)).ShouldBe((LeftoverState.Used, true));
    }

    [Fact]
    public async Task A_print_whose_leftover_is_gone_fails_and_nothing_counts_as_printed()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        var job = await host.PostAsync<PrintJobView>("/api/print-jobs", Ask(unit));
        await using var scope = host.Services.CreateAsyncScope();
        var (db, drawer) = (
            scope.ServiceProvider.GetRequiredService<ZestyContext>(),
            scope.ServiceProvider.GetRequiredService<PaperDrawer>()
        );
        var row = await db.PrintJobs.SingleAsync(j => j.Id == job.Id, Cancel);
        var setup = PrintRun.Setup("letter", "1/4 in", "0");
        var due = new DuePiece(Guid.NewGuid(), "W19 L1", Core.Measures.Size.FromInches(3, 4), Stock.WhiteCard);
        var plan = PrintPlan.For([due], setup, cancel: Cancel);
        var gone = plan with { Sheets = [plan.Sheets[0] with { LeftoverId = Guid.NewGuid() }] };
        (await Should.ThrowAsync<Core.RuleException>(() => drawer.NoteAsync(row, gone, Cancel))).Message.ShouldContain(
            "print again"
        );
        db.ChangeTracker.HasChanges().ShouldBeFalse("what failed must not be saved with the end of the job");
        (await LeftoversAsync(host, job.Id)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_miscut_piece_is_due_again_alone_and_is_to_be_cut_and_tucked_in_again()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        await PrintAsync(host, Ask(unit));
        var piece = Pieces(unit).OfType<PieceView>().First();
        await host.Client.PostAsync(
            new Uri($"/api/albums/{unit.AlbumId}/ticks", UriKind.Relative),
            TestHost.Written(new TickRequest([piece.Id], Core.TuckingIn.TuckStep.TuckIn, true)),
            Cancel
        );
        var spoilt = await host.Client.PostAsync(
            new Uri($"/api/albums/{unit.AlbumId}/spoilt", UriKind.Relative),
            TestHost.Written(new SpoiltRequest([piece.Id], Spoilt.Miscut)),
            Cancel
        );
        spoilt.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var plan = await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit));
        (plan.Pieces, plan.Standing.Single(s => s.OnSheets).PieceId).ShouldBe((1, piece.Id));
        var table = await host.GetAsync<TuckView>($"/api/albums/{unit.AlbumId}/assembly?from={unit.Id}&count=1");
        table
            .Leaves.SelectMany(l => l.Faces)
            .SelectMany(f => f.Pockets)
            .Single(p => p.Piece?.PieceId == piece.Id)
            .Piece!.Next.ShouldBe(Core.TuckingIn.TuckStep.Print);
        await PrintAsync(host, Ask(unit));
        (await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit))).Pieces.ShouldBe(0);
        // What was never printed cannot be printed again.
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/albums/{unit.AlbumId}/spoilt",
            new SpoiltRequest([piece.Id, Guid.NewGuid()], Spoilt.Lost)
        );
        (await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit))).Pieces.ShouldBe(0);
    }

    private static async Task<LabOrderView> OrderAsync(TestHost host, LabRequest request)
    {
        var order = await host.PostAsync<LabOrderView>("/api/lab-orders", request);
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<LabOrderRunner>().RunAsync(order.Id, Cancel);
        return await host.GetAsync<LabOrderView>($"/api/lab-orders/{order.Id}");
    }

    [Fact]
    public async Task What_a_lab_loses_is_ordered_again_and_what_came_is_printed()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        var asked = new LabRequest("order 1", [unit.Id]);
        var order = await OrderAsync(host, asked);
        (order.State, order.At).ShouldBe((JobState.Done, LabState.Ready), order.Problem);
        // Four pictures of 3x4: two on each print. Asked twice under one key it is one order.
        order.Prints.Select(p => p.FileName).ShouldBe(["2026-W19_01_4x6.jpg", "2026-W19_02_4x6.jpg"]);
        (await host.PostAsync<LabOrderView>("/api/lab-orders", asked)).Id.ShouldBe(order.Id);

        await using (
            var stream = await host.Client.GetStreamAsync(
                new Uri($"/api/lab-orders/{order.Id}/file", UriKind.Relative),
                Cancel
            )
        )
        using (var zip = new ZipArchive(stream))
        {
            zip.Entries.Select(e => e.Name)
                .ShouldBe([.. order.Prints.Select(p => p.FileName), "order.csv", "order.json"]);
            using var json = await JsonDocument.ParseAsync(
                await zip.GetEntry("order.json")!.OpenAsync(Cancel),
                default,
                Cancel
            );
            json.RootElement.GetProperty("prints")[0]
                .GetProperty("sha256")
                .GetString()
                .ShouldBe(order.Prints[0].Sha256);
            await using var jpeg = await zip.GetEntry(order.Prints[0].FileName)!.OpenAsync(Cancel);
            using var bytes = new MemoryStream();
            await jpeg.CopyToAsync(bytes, Cancel);
            Convert
                .ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes.ToArray()))
                .ShouldBe(order.Prints[0].Sha256);
        }

        // It goes through the stand-in lab; six at once are one step.
        foreach (var at in new[] { LabState.Sent, LabState.Printed, LabState.Posted })
        {
            var steps = await Task.WhenAll(
                Enumerable
                    .Range(0, 6)
                    .Select(_ => host.PostAsync<LabOrderView>($"/api/lab-orders/{order.Id}/step", new LabStep(at)))
            );
            steps.ShouldAllBe(s => s.At == at);
        }

        var arrived = await host.PostAsync<LabOrderView>($"/api/lab-orders/{order.Id}/stand-in", new { });
        (arrived.At, arrived.Words).ShouldBe((LabState.Arrived, "It has come, and 1 print is missing."));
        var plan = await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit));
        plan.Standing.Count(s => s.Standing == PrintStanding.Printed).ShouldBe(2);

        var again = await OrderAsync(host, new LabRequest("order 2", [], Repeats: order.Id));
        again
            .Prints.ShouldHaveSingleItem()
            .Pieces.Select(p => p.PieceId)
            .ShouldBe(order.Prints[1].Pieces.Select(p => p.PieceId), ignoreOrder: true);
        for (var i = 0; i < 4; i++)
        {
            again = await host.PostAsync<LabOrderView>($"/api/lab-orders/{again.Id}/stand-in", new { });
        }

        again.Words.ShouldBe("Everything has come.");
        // Only the two cards are left to print at home.
        (await host.PostAsync<PrintPlanView>("/api/print-plans", Ask(unit))).Pieces.ShouldBe(2);
        // Nothing is missing any more.
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/lab-orders",
            new LabRequest("order 3", [], Repeats: again.Id)
        );
        await host.RefusedAsync(422, HttpMethod.Post, $"/api/lab-orders/{again.Id}/step", new LabStep(LabState.Sent));
    }

    [Fact]
    public async Task Outlines_and_templates_come_as_files()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        var svg = await host.Client.GetStringAsync(
            new Uri($"/api/units/{unit.Id}/sheets/1/outlines.svg?paper=letter&margin=1/4 in&gap=0", UriKind.Relative),
            Cancel
        );
        svg.ShouldContain("id=\"cut-photo-paper\"");
        svg.ShouldContain("width=\"215.9mm\"");
        var album = await host.GetAsync<AlbumView>($"/api/albums/{unit.AlbumId}");
        var pdf = await host.Client.GetByteArrayAsync(
            new Uri(
                $"/api/albums/{unit.AlbumId}/templates.pdf?protector={album.Protectors[0].Id}&holes=threeRings",
                UriKind.Relative
            ),
            Cancel
        );
        System.Text.Encoding.Latin1.GetString(pdf, 0, 5).ShouldBe("%PDF-");
        var missing = await host.Client.GetAsync(
            new Uri($"/api/albums/{unit.AlbumId}/templates.pdf?protector={Guid.NewGuid()}", UriKind.Relative),
            Cancel
        );
        missing.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
