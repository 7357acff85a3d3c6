using Microsoft.Extensions.DependencyInjection;
using UglyToad.PdfPig;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Print jobs run in the same process as Hangfire's storage, which is one a process: hence one collection.
/// </summary>
public sealed class PrintingTests
{
    [Fact]
    public async Task A_print_job_draws_every_placed_piece_once_and_is_not_run_twice_for_one_request()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 14);
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "A short week.") { Revision = 0 }
        );
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var request = new PrintRequest("once", [unit.Id], "letter", "1/4 in", "0");

        var plan = await host.PostAsync<PrintPlanView>("/api/print-plans", request);
        plan.Pieces.ShouldBe(12);
        plan.Words.ShouldContain("12 pieces on");

        var job = await host.PostAsync<PrintJobView>("/api/print-jobs", request);
        (await host.PostAsync<PrintJobView>("/api/print-jobs", request)).Id.ShouldBe(job.Id);
        job = await UntilEndedAsync(host, job);
        (job.State, job.Problem).ShouldBe((JobState.Done, null));
        job.PagesDone.ShouldBe(plan.Sheets.Count + 1);

        using var pdf = PdfDocument.Open(
            await host.Client.GetByteArrayAsync($"/api/print-jobs/{job.Id}/file", TestContext.Current.CancellationToken)
        );
        pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(11);
        string.Concat(pdf.GetPages().Select(p => p.Text))
            .Replace(" ", "", StringComparison.Ordinal)
            .ShouldContain("Ashortweek.");

        // The preview on the screen is drawn by the same painter.
        var png = await host.Client.GetByteArrayAsync(
            $"/api/units/{unit.Id}/sheets/1?paper=letter&margin=1/4 in&gap=0",
            TestContext.Current.CancellationToken
        );
        png[..4].ShouldBe([0x89, 0x50, 0x4E, 0x47]);
    }

    [Fact]
    public async Task A_job_that_was_waiting_when_the_server_stopped_is_done_after_the_restart()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 12);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var job = await host.PostAsync<PrintJobView>(
            "/api/print-jobs",
            new PrintRequest("restart", [unit.Id], "a4", "5 mm", "2 mm")
        );
        await host.RestartAsync();
        job = await UntilEndedAsync(host, job);
        job.State.ShouldBe(JobState.Done);
    }

    [Fact]
    public async Task A_cancelled_job_makes_no_file()
    {
        await using var host = await TestHost.StartAsync(runJobs: false);
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 12);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var job = await host.PostAsync<PrintJobView>(
            "/api/print-jobs",
            new PrintRequest("cancel", [unit.Id], "letter", "1/4", "0")
        );
        await host.PostAsync<PrintJobView>($"/api/print-jobs/{job.Id}/cancel", new { });

        // No worker runs in this host: the job is drawn here, as the worker would, and meets the wish to cancel.
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<PrintJobRunner>().RunAsync(job.Id, CancellationToken.None);
        (await host.GetAsync<PrintJobView>($"/api/print-jobs/{job.Id}")).State.ShouldBe(JobState.Cancelled);
        Directory.GetFiles(host.DataFolder, "*.pdf*", SearchOption.AllDirectories).ShouldBeEmpty();
        (
            await host.Client.GetAsync($"/api/print-jobs/{job.Id}/file", TestContext.Current.CancellationToken)
        ).IsSuccessStatusCode.ShouldBeFalse();
    }

    [Fact]
    public async Task Bad_printer_settings_and_empty_weeks_are_told()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 1);
        var good = new PrintRequest("x", [unit.Id], "letter", "1/4", "0");
        (await host.PostAsync<PrintPlanView>("/api/print-plans", good)).Words.ShouldContain(
            "Nothing lies in a pocket yet"
        );
        (await host.RefusedAsync(422, HttpMethod.Post, "/api/print-plans", good with { Margin = "wide" }))["detail"]!
            .GetValue<string>()
            .ShouldContain("wide");
        (await host.RefusedAsync(422, HttpMethod.Post, "/api/print-plans", good with { Margin = "3 in" }))["detail"]!
            .GetValue<string>()
            .ShouldContain("between 0 and 1 in");
        await host.RefusedAsync(422, HttpMethod.Post, "/api/print-plans", good with { PaperKey = "foolscap" });
        await host.RefusedAsync(422, HttpMethod.Post, "/api/print-plans", good with { UnitIds = [] });
        await host.RefusedAsync(404, HttpMethod.Post, "/api/print-plans", good with { UnitIds = [Guid.NewGuid()] });
    }

    [Fact]
    public async Task The_spread_itself_is_a_page_of_its_true_size()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 12);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        using var pdf = PdfDocument.Open(
            await host.Client.GetByteArrayAsync(
                $"/api/units/{unit.Id}/spread.pdf",
                TestContext.Current.CancellationToken
            )
        );
        var page = pdf.GetPage(1);
        // Two 9x12 pages with their ring strips and welds: 2 x 9 3/4 by 12 1/4 in.
        (page.Width, page.Height).ShouldBe((19.5 * 72, 12.25 * 72));
        page.GetImages().Count().ShouldBe(12);
        (
            await host.Client.GetAsync($"/api/units/{unit.Id}/spread.png", TestContext.Current.CancellationToken)
        ).Content.Headers.ContentType!.MediaType.ShouldBe("image/png");
    }

    [Fact]
    public async Task While_somebody_types_the_fit_is_told_and_nothing_is_saved()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 1);
        unit = await host.EditAsync(unit, new AddCard(CardKind: CardKind.Journaling, Words: "") { Revision = 0 });
        var card = unit.LooseCards.Single();
        var few = await host.PostAsync<Server.Words.FitAnswer>(
            "/api/fit",
            new Server.Words.FitRequest("Three small words", "reading-serif", unit.Id, card.Id)
        );
        (few.Fit.WordsOver, few.Fit.SizePt).ShouldBe((0, 13));
        var many = await host.PostAsync<Server.Words.FitAnswer>(
            "/api/fit",
            new Server.Words.FitRequest(
                string.Join(' ', Enumerable.Repeat("marmalade", 600)),
                "reading-serif",
                unit.Id,
                card.Id
            )
        );
        many.Fit.WordsOver.ShouldBeGreaterThan(0);
        many.Fit.Verdict.ShouldContain($"{many.Fit.WordsOver} words too many");
        (await host.OpenAsync(unit.Id)).Revision.ShouldBe(unit.Revision);
    }

    internal static async Task<PrintJobView> UntilEndedAsync(TestHost host, PrintJobView job)
    {
        using var limit = new CancellationTokenSource(TimeSpan.FromMinutes(5));
        while (job.State is JobState.Waiting or JobState.Running)
        {
            await Task.Delay(100, limit.Token);
            job = await host.GetAsync<PrintJobView>($"/api/print-jobs/{job.Id}");
        }

        return job;
    }
}
