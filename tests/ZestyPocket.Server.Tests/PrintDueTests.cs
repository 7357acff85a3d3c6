using System.Security.Cryptography;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.TuckingIn;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.LookingOver;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.TuckingIn;

namespace ZestyPocket.Server.Tests;

/// <summary>What is due on paper, what is printed again, and what lies in its pocket.</summary>
public sealed class PrintDueTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<UnitView> FilledAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        for (var i = 0; i < 14; i++)
        {
            var taken = $"2026:05:{4 + (i % 7):00} 1{i % 10}:00:00";
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(500, 420 + i, taken, colourful: true));
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        foreach (var words in new[] { "Rain all day.", "We baked, and the kitchen was warm until evening.", "Home." })
        {
            unit = await host.EditAsync(unit, new AddCard(CardKind.Journaling, words) { Revision = 0 });
        }

        unit = await host.EditAsync(unit, new AddCard(CardKind.Filler) { Revision = 0 });
        return await host.EditAsync(unit, new FillSpread { Revision = 0 });
    }

    private static PrintRequest Ask(UnitView unit, PrintChoice choice, params Guid[] pieces) =>
        new(Guid.NewGuid().ToString(), [unit.Id], "letter", "1/4 in", "0", false, choice, pieces);

    private static Task<PrintPlanView> PlanAsync(TestHost host, PrintRequest request) =>
        host.PostAsync<PrintPlanView>("/api/print-plans", request);

    private static async Task<PrintJobView> PrintAsync(TestHost host, PrintRequest request)
    {
        var job = await host.PostAsync<PrintJobView>("/api/print-jobs", request);
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<PrintJobRunner>().RunAsync(job.Id, Cancel);
        return await host.GetAsync<PrintJobView>($"/api/print-jobs/{job.Id}");
    }

    [Fact]
    public async Task A_changed_word_makes_exactly_that_card_due_and_the_rest_is_not_printed_again()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        (await PlanAsync(host, Ask(unit, PrintChoice.Due))).Pieces.ShouldBe(18);
        (await PrintAsync(host, Ask(unit, PrintChoice.Due))).State.ShouldBe(Storage.Jobs.JobState.Done);

        var none = await PlanAsync(host, Ask(unit, PrintChoice.Due));
        (none.Pieces, none.Words).ShouldBe(
            (0, "Everything here is printed as it is. Choose everything, or single pieces, to print it again.")
        );
        none.Standing.ShouldAllBe(s => s.Standing == PrintStanding.Printed && s.PrintedAt != null);
        (await PrintAsync(host, Ask(unit, PrintChoice.Due))).Problem!.ShouldContain("printed as they are");
        (await PlanAsync(host, Ask(unit, PrintChoice.All))).Pieces.ShouldBe(18);

        var card = Cards(unit).Single(c => c.Words == "Home.");
        unit = await host.EditAsync(unit, new WriteCard(card.Id, "Home!") { Revision = 0 });
        var due = await PlanAsync(host, Ask(unit, PrintChoice.Due));
        due.Standing.Where(s => s.Standing == PrintStanding.Changed).Select(s => s.PieceId).ShouldBe([card.Id]);
        (due.Pieces, due.Sheets.Count).ShouldBe((1, 1));
        // Written back it is as it was printed.
        unit = await host.EditAsync(unit, new WriteCard(card.Id, "Home.") { Revision = 0 });
        (await PlanAsync(host, Ask(unit, PrintChoice.Due))).Pieces.ShouldBe(0);
        // One that was lost is printed again on request, once.
        (await PlanAsync(host, Ask(unit, PrintChoice.Chosen, card.Id))).Pieces.ShouldBe(1);
        (await PlanAsync(host, Ask(unit, PrintChoice.Chosen))).Pieces.ShouldBe(0);
    }

    [Fact]
    public async Task What_changed_since_it_was_printed_is_found_on_looking_over_until_it_is_printed_again()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        // Nothing is printed yet: nobody knows what the printer does to a sheet.
        (await FoundAsync()).ShouldBe([(FindingRule.PrinterNotMeasured, FindingRoom.Printers)]);
        await PrintAsync(host, Ask(unit, PrintChoice.Due));
        (await FoundAsync()).ShouldBeEmpty();
        var card = Cards(unit).Single(c => c.Words == "Home.");
        unit = await host.EditAsync(unit, new WriteCard(card.Id, "Home!") { Revision = 0 });
        (await FoundAsync()).ShouldBe([(FindingRule.PrintedChanged, FindingRoom.Sheets)]);
        await PrintAsync(host, Ask(unit, PrintChoice.Due));
        (await FoundAsync()).ShouldBeEmpty();

        async Task<List<(FindingRule, FindingRoom)>> FoundAsync() =>
            [
                .. (await host.GetAsync<List<AlbumFinding>>($"/api/albums/{unit.AlbumId}/findings"))
                    .Where(f => f.Opens is not null)
                    .Select(f => (f.Rule, f.Opens!.Value)),
            ];
    }

    [Trait("Duration", "Long")]
    [Fact]
    public async Task After_random_edits_exactly_what_differs_in_pixels_is_due()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        await PrintAsync(host, Ask(unit, PrintChoice.All));
        var printed = await PixelsAsync(host, unit.Id);
        var dice = new Random(5);
        var (dues, steps) = (0, Thorough.Of(1_000, 20));
        for (var step = 0; step < steps; step++)
        {
            unit = await host.EditAsync(unit, Random(dice, unit));
            var now = await PixelsAsync(host, unit.Id);
            var differs = now.Where(p => printed.GetValueOrDefault(p.Key) != p.Value).Select(p => p.Key).ToHashSet();
            var plan = await PlanAsync(host, Ask(unit, PrintChoice.Due));
            var due = plan.Standing.Where(s => s.OnSheets).Select(s => s.PieceId).ToHashSet();
            due.SetEquals(differs).ShouldBeTrue($"step {step}: {due.Count} due, {differs.Count} differ");
            dues += due.Count;
            if (step % 12 == 11)
            {
                await PrintAsync(host, Ask(unit, PrintChoice.Due));
                printed = now;
            }
        }

        dues.ShouldBeGreaterThan(steps);
    }

    [Fact]
    public async Task A_leaf_is_assembled_from_the_printer_to_the_pocket_and_a_changed_card_comes_out_first()
    {
        await using var host = await TestHost.StartAsync();
        var unit = await FilledAsync(host);
        var url = $"/api/albums/{unit.AlbumId}/assembly?from={unit.Id}&count=1";
        Next(await host.GetAsync<TuckView>(url)).ShouldAllBe(n => n == TuckStep.Print);
        await PrintAsync(host, Ask(unit, PrintChoice.Due));
        var table = await host.GetAsync<TuckView>(url);
        Next(table).ShouldAllBe(n => n == TuckStep.Cut);
        // Each piece knows its sheet, so that a whole one can be ticked off.
        var sheets = (await PlanAsync(host, Ask(unit, PrintChoice.All))).Sheets;
        Pieces(table)
            .GroupBy(p => p.Sheet!.Number)
            .OrderBy(g => g.Key)
            .Select(g => g.Select(p => p.Number).Order().ToList())
            .ShouldBe(sheets.Select(s => s.Numbers.Order().ToList()));
        // Two leaves, each with the sides of two weeks; the other weeks hold nothing.
        table.Leaves.Count.ShouldBe(2);

        var ids = Pieces(table).Select(p => p.PieceId).ToList();
        await TickAsync(host, unit, ids, TuckStep.Cut);
        Next(await host.GetAsync<TuckView>(url)).ShouldAllBe(n => n == TuckStep.TuckIn);
        // Six windows tick the same pieces at once.
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => TickAsync(host, unit, ids, TuckStep.TuckIn)));
        Next(await host.GetAsync<TuckView>(url)).ShouldAllBe(n => n == TuckStep.Done);
        await TickAsync(host, unit, [ids[0]], TuckStep.TuckIn, done: false);
        Next(await host.GetAsync<TuckView>(url)).Count(n => n == TuckStep.TuckIn).ShouldBe(1);
        await TickAsync(host, unit, [ids[0]], TuckStep.TuckIn);

        var card = Cards(unit).Single(c => c.Words == "Home.");
        unit = await host.EditAsync(unit, new WriteCard(card.Id, "Home at last.") { Revision = 0 });
        NextOf(card.Id, await host.GetAsync<TuckView>(url)).ShouldBe(TuckStep.Print);
        await PrintAsync(host, Ask(unit, PrintChoice.Due));
        NextOf(card.Id, await host.GetAsync<TuckView>(url)).ShouldBe(TuckStep.Cut);
        await TickAsync(host, unit, [card.Id], TuckStep.Cut);
        NextOf(card.Id, await host.GetAsync<TuckView>(url)).ShouldBe(TuckStep.TakeOutFirst);
        await TickAsync(host, unit, [card.Id], TuckStep.TuckIn);
        Next(await host.GetAsync<TuckView>(url)).ShouldAllBe(n => n == TuckStep.Done);

        var ticks = $"/api/albums/{unit.AlbumId}/ticks";
        await host.RefusedAsync(422, HttpMethod.Post, ticks, new TickRequest([], TuckStep.Cut, true));
        await host.RefusedAsync(422, HttpMethod.Post, ticks, new TickRequest([ids[0]], TuckStep.Print, true));
        await host.RefusedAsync(422, HttpMethod.Post, ticks, new TickRequest([Guid.NewGuid()], TuckStep.Cut, true));
    }

    private static async Task TickAsync(
        TestHost host,
        UnitView unit,
        IReadOnlyList<Guid> pieces,
        TuckStep step,
        bool done = true
    )
    {
        using var answer = await host.Client.PostAsync(
            new Uri($"/api/albums/{unit.AlbumId}/ticks", UriKind.Relative),
            TestHost.Written(new TickRequest(pieces, step, done)),
            Cancel
        );
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static IEnumerable<TuckPiece> Pieces(TuckView table) =>
        table.Leaves.SelectMany(l => l.Faces).SelectMany(f => f.Pockets).Select(p => p.Piece).OfType<TuckPiece>();

    private static List<TuckStep> Next(TuckView table)
    {
        var next = Pieces(table).Select(p => p.Next).ToList();
        next.Count.ShouldBe(18);
        return next;
    }

    private static TuckStep NextOf(Guid piece, TuckView table) => Pieces(table).Single(p => p.PieceId == piece).Next;

    private static List<PieceView> Cards(UnitView unit) =>
        [
            .. unit
                .Faces.SelectMany(f => f.Pockets)
                .Select(p => p.Piece)
                .OfType<PieceView>()
                .Where(p => p.CardKind == CardKind.Journaling),
        ];

    /// <summary>An edit that can be seen.</summary>
    private static ContentEdit Random(Random dice, UnitView unit)
    {
        var pockets = unit
            .Faces.SelectMany(f => f.Pockets.Select(p => (Place: new PocketPlace(f.LeafId, f.Side, p.Key), p.Piece)))
            .Where(p => p.Piece is not null)
            .ToList();
        var prints = pockets.Where(p => p.Piece!.Kind == PieceKind.Photo).ToList();
        var print = prints[dice.Next(prints.Count)].Piece!;
        var cards = Cards(unit);
        var card = cards[dice.Next(cards.Count)];
        return dice.Next(8) switch
        {
            0 => new WriteCard(card.Id, string.Join(' ', Enumerable.Repeat("rain", dice.Next(1, 40)))) { Revision = 0 },
            1 => new FramePhoto(print.Id, new Framing(dice.NextDouble(), 0.5, 1 + (2 * dice.NextDouble())))
            {
                Revision = 0,
            },
            2 => new AdjustPhotos([new(print.Id, new PictureAdjustment(dice.Next(-9, 9), 0, dice.Next(2) == 0))])
            {
                Revision = 0,
            },
            3 => new FinishPieces([print.Id], new WrittenFinish(Border: [$"{dice.Next(1, 4)}/8 in"])) { Revision = 0 },
            4 => new FinishPieces([print.Id]) { Revision = 0 },
            5 => new TintCards(dice.Next(2) == 0) { Revision = 0 },
            6 => new CaptionPhoto(
                print.Id,
                new WrittenCaption($"No. {dice.Next(99)}", Typeface.SansStrong, 20, 0.1, 0.5, 0.6, "#ffffff", "#000000")
            )
            {
                Revision = 0,
            },
            _ => new MovePiece(print.Id, pockets[dice.Next(pockets.Count)].Place) { Revision = 0 },
        };
    }

    /// <summary>What each piece looks like on paper, painted: all its parts and its back.</summary>
    private static async Task<Dictionary<Guid, string>> PixelsAsync(TestHost host, Guid unitId)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var open = await services.GetRequiredService<UnitOpener>().OpenAsync(unitId, Cancel);
        var due = new DuePieces(
            services.GetRequiredService<PieceFaces>(),
            services.GetRequiredService<BoughtCardFaces>(),
            services.GetRequiredService<FontShelf>()
        );
        due.TakePlaced(open);
        var painter = services.GetRequiredService<PiecePainter>();
        return due
            .Pieces.GroupBy(p => p.PieceId)
            .ToDictionary(
                g => g.Key,
                g =>
                    string.Join(
                        ' ',
                        g.OrderBy(p => p.Part)
                            .Select(p =>
                                Convert.ToHexString(
                                    SHA256.HashData(
                                        Raster.Png(
                                            p.Cut.Width.Points,
                                            p.Cut.Height.Points,
                                            60,
                                            canvas => painter.Draw(canvas, due.Faces[(p.PieceId, p.Part)], 60)
                                        )
                                    )
                                )
                            )
                    )
            );
    }
}
