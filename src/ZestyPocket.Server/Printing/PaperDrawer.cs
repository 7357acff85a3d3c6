using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>The papers of a keeper: what lies in the drawer, and what is left of sheets.</summary>
public sealed class PaperDrawer(ZestyContext db, ICurrentKeeper keeper, IClock clock)
{
    private const int MostPapers = 60;

    /// <summary>Smaller leftovers hold no piece worth the trouble. A choice of this program: a 2x2.</summary>
    private static Length LeastSide => Length.FromInches(2);

    public async Task<IReadOnlyList<PaperOnHand>> PapersAsync(CancellationToken cancel) =>
        await db
            .PapersOnHand.AsNoTracking()
            .Where(p => p.KeeperId == keeper.Id)
            .OrderBy(p => p.Stock)
            .ThenBy(p => p.MadeAt)
            .ToListAsync(cancel);

    /// <summary>Keeps what is known of a paper; there is one entry for each stock and size.</summary>
    public async Task<PaperOnHand> SaveAsync(PaperEntry entry, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(entry);
        var paper = Paper.Find(entry.PaperKey) ?? throw new RuleException($"There is no paper “{entry.PaperKey}”.");
        if (entry.Count is < 0 or > 100_000 || entry.Price is < 0 or > 10_000)
        {
            throw new RuleException(
                "A drawer holds up to 100,000 sheets, and a sheet costs up to 10,000. Nothing was kept: type it again."
            );
        }

        var row = await db.PapersOnHand.SingleOrDefaultAsync(
            p => p.KeeperId == keeper.Id && p.Stock == entry.Stock && p.PaperKey == paper.Key,
            cancel
        );
        if (row is null)
        {
            if (await db.PapersOnHand.CountAsync(p => p.KeeperId == keeper.Id, cancel) >= MostPapers)
            {
                throw new RuleException($"The drawer has room for {MostPapers} papers. Remove one first.");
            }

            row = new PaperOnHand
            {
                Id = Guid.CreateVersion7(),
                KeeperId = keeper.Id,
                Stock = entry.Stock,
                PaperKey = paper.Key,
                MadeAt = clock.GetCurrentInstant(),
            };
            db.PapersOnHand.Add(row);
        }

        (row.Count, row.Price, row.HasDirection, row.BothSides, row.UsedBeside) = (
            entry.Count,
            entry.Price,
            entry.HasDirection,
            entry.BothSides,
            entry.UsedBeside
        );
        try
        {
            await db.SaveChangesAsync(cancel);
            return row;
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Another window kept the same paper at the same moment: its row is changed.
            db.ChangeTracker.Clear();
            return await SaveAsync(entry, cancel);
        }
    }

    public async Task RemoveAsync(Guid id, CancellationToken cancel)
    {
        if (await db.PapersOnHand.Where(p => p.Id == id && p.KeeperId == keeper.Id).ExecuteDeleteAsync(cancel) == 0)
        {
            throw new MissingException("That paper");
        }
    }

    /// <summary>What a print left over; without a print, everything that is not used up or thrown away.</summary>
    public async Task<IReadOnlyList<SheetLeftover>> LeftoversAsync(Guid? jobId, CancellationToken cancel) =>
        await db
            .SheetLeftovers.AsNoTracking()
            .Where(l =>
                l.KeeperId == keeper.Id
                && (
                    jobId != null
                        ? l.JobId == jobId
                        : l.State != LeftoverState.Used && l.State != LeftoverState.ThrownAway
                )
            )
            .OrderByDescending(l => l.At)
            .ThenBy(l => l.Sheet)
            .Take(100)
            .ToListAsync(cancel);

    /// <summary>Keeps a leftover as a sheet or as an offcut, or throws it away. What is used up stays so.</summary>
    public async Task<SheetLeftover> DecideAsync(Guid id, LeftoverState state, CancellationToken cancel)
    {
        if (state is LeftoverState.Used or LeftoverState.Offered)
        {
            throw new RuleException("A leftover is kept as a sheet, cut off, or thrown away. Nothing was changed.");
        }

        var own = db.SheetLeftovers.Where(l => l.Id == id && l.KeeperId == keeper.Id);
        // A print may take it at the same moment.
        var changed = await own.Where(l => l.State != LeftoverState.Used)
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.State, state), cancel);
        var row = await own.AsNoTracking().SingleOrDefaultAsync(cancel) ?? throw new MissingException("That leftover");
        return changed == 1
            ? row
            : throw new RuleException("That leftover was printed on since. Nothing was changed: reload the page.");
    }

    /// <summary>Everything that can be printed on besides new sheets of the loaded paper.</summary>
    public async Task<ImmutableArray<SheetOnHand>> OnHandAsync(
        Guid keeperId,
        string loadedKey,
        CancellationToken cancel
    )
    {
        var papers = await db.PapersOnHand.AsNoTracking().Where(p => p.KeeperId == keeperId).ToListAsync(cancel);
        var leftovers = await db
            .SheetLeftovers.AsNoTracking()
            .Where(l => l.KeeperId == keeperId && (l.State == LeftoverState.Sheet || l.State == LeftoverState.CutOff))
            .OrderBy(l => l.At)
            .ThenBy(l => l.Sheet)
            .Take(40)
            .ToListAsync(cancel);
        var directions = papers.Where(p => p.HasDirection).Select(p => (p.Stock, p.PaperKey)).ToHashSet();
        return
        [
            .. papers
                .Where(p => p.UsedBeside || p.PaperKey == loadedKey)
                .Select(p =>
                    Paper.Find(p.PaperKey) is { } paper
                        ? new SheetOnHand(p.Stock, paper)
                        {
                            Count = p.Count,
                            Price = p.Price,
                            HasDirection = p.HasDirection,
                            BothSides = p.BothSides,
                        }
                        : null
                )
                .OfType<SheetOnHand>(),
            .. leftovers
                .Select(l =>
                    l.OnHand() is { } left
                        ? left with
                        {
                            HasDirection = directions.Contains((l.Stock, l.PaperKey)),
                        }
                        : null
                )
                .OfType<SheetOnHand>(),
        ];
    }

    /// <summary>
    /// What a finished print took out of the drawer and what it leaves over, in one transaction with its end.
    /// Throws <see cref="RuleException"/> when another print has taken a leftover meanwhile.
    /// </summary>
    public async Task NoteAsync(PrintJob job, PrintPlan plan, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(plan);
        var used = plan.Sheets.Select(s => s.LeftoverId).OfType<Guid>().ToHashSet();
        // With a condition, since a print of another album may take them at the same moment.
        var taken = await db
            .SheetLeftovers.Where(l =>
                used.Contains(l.Id)
                && l.KeeperId == job.KeeperId
                && (l.State == LeftoverState.Sheet || l.State == LeftoverState.CutOff)
            )
            .ExecuteUpdateAsync(
                set => set.SetProperty(l => l.State, LeftoverState.Used).SetProperty(l => l.UsedBy, job.Id),
                cancel
            );
        if (taken < used.Count)
        {
            throw new RuleException(
                "Another print took a leftover of this one meanwhile. Nothing was printed: print again."
            );
        }

        foreach (
            var sheets in plan
                .Sheets.Where(s => s.Side is SheetSide.Only or SheetSide.Front && s.LeftoverId is null)
                .GroupBy(s => (s.Stock, plan.SetupOf(s).Paper.Key))
        )
        {
            var (stock, key, number) = (sheets.Key.Stock, sheets.Key.Key, sheets.Count());
            await db
                .PapersOnHand.Where(p =>
                    p.KeeperId == job.KeeperId && p.Count != null && p.Stock == stock && p.PaperKey == key
                )
                .ExecuteUpdateAsync(
                    set => set.SetProperty(p => p.Count, p => Math.Max(0, p.Count!.Value - number)),
                    cancel
                );
        }

        var now = clock.GetCurrentInstant();
        foreach (var (sheet, number) in plan.Sheets.Select((s, i) => (s, i + 1)))
        {
            var largest = sheet
                .Offcuts.Where(o => o.Width >= LeastSide && o.Height >= LeastSide)
                .OrderByDescending(o => o.Size.SquareInches)
                .Cast<Rect?>()
                .FirstOrDefault();
            if (largest is { } free && sheet.Side == SheetSide.Only)
            {
                db.SheetLeftovers.Add(
                    new SheetLeftover
                    {
                        Id = Guid.CreateVersion7(),
                        KeeperId = job.KeeperId,
                        JobId = job.Id,
                        Sheet = number,
                        Stock = sheet.Stock,
                        PaperKey = plan.SetupOf(sheet).Paper.Key,
                        X = free.X,
                        Y = free.Y,
                        Width = free.Width,
                        Height = free.Height,
                        At = now,
                    }
                );
            }
        }
    }
}

/// <summary>What is known of a paper.</summary>
public sealed record PaperEntry(
    Stock Stock,
    string PaperKey,
    int? Count = null,
    decimal? Price = null,
    bool HasDirection = false,
    bool BothSides = true,
    bool UsedBeside = false
);

/// <summary>A paper in the drawer.</summary>
public sealed record PaperOnHandView(Guid Id, PaperEntry Entry, string StockName, string PaperName)
{
    public static PaperOnHandView Of(PaperOnHand paper)
    {
        ArgumentNullException.ThrowIfNull(paper);
        return new PaperOnHandView(
            paper.Id,
            new PaperEntry(
                paper.Stock,
                paper.PaperKey,
                paper.Count,
                paper.Price,
                paper.HasDirection,
                paper.BothSides,
                paper.UsedBeside
            ),
            Stocks.Name(paper.Stock),
            Paper.Find(paper.PaperKey)?.Name ?? paper.PaperKey
        );
    }
}

/// <summary>What is left of a sheet.</summary>
/// <param name="Words">Such as “3.5 × 10.5 in of white card, Letter, sheet 2”.</param>
public sealed record LeftoverView(Guid Id, Guid JobId, int Sheet, LeftoverState State, string Words)
{
    public static LeftoverView Of(SheetLeftover left, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(left);
        var paper = Paper.Find(left.PaperKey)?.Name ?? "an offcut";
        return new LeftoverView(
            left.Id,
            left.JobId,
            left.Sheet,
            left.State,
            $"{MeasureText.Show(Rounded(left.Free.Size, measures), measures)} of {Stocks.Name(left.Stock)}, on sheet "
                + $"{left.Sheet} ({paper})"
        );
    }

    /// <summary>Down to an eighth of an inch or a millimetre: what surely fits.</summary>
    private static Size Rounded(Size size, MeasureSystem measures)
    {
        var step = measures == MeasureSystem.Inches ? Length.FromInches(1, 8) : Length.FromMillimetres(1);
        return new Size(
            new Length(size.Width.Emu / step.Emu * step.Emu),
            new Length(size.Height.Emu / step.Emu * step.Emu)
        );
    }
}

/// <summary>What becomes of a leftover.</summary>
public sealed record LeftoverChoice(LeftoverState State);

/// <summary>The paper drawer.</summary>
public static class PaperDrawerEndpoints
{
    public static void MapPaperDrawer(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Printing");
        group
            .MapGet(
                "/papers-on-hand",
                async (PaperDrawer drawer, CancellationToken cancel) =>
                    (await drawer.PapersAsync(cancel)).Select(PaperOnHandView.Of).ToList()
            )
            .WithName("listPapersOnHand")
            .WithProblems();
        group
            .MapPost(
                "/papers-on-hand",
                async (PaperEntry entry, PaperDrawer drawer, CancellationToken cancel) =>
                    PaperOnHandView.Of(await drawer.SaveAsync(entry, cancel))
            )
            .WithName("savePaperOnHand")
            .WithProblems();
        group
            .MapDelete(
                "/papers-on-hand/{id:guid}",
                async (Guid id, PaperDrawer drawer, CancellationToken cancel) =>
                {
                    await drawer.RemoveAsync(id, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("removePaperOnHand")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapGet(
                "/leftovers",
                async (Guid? job, string? measures, PaperDrawer drawer, CancellationToken cancel) =>
                    (await drawer.LeftoversAsync(job, cancel))
                        .Select(l =>
                            LeftoverView.Of(
                                l,
                                Enum.TryParse<MeasureSystem>(measures, ignoreCase: true, out var named)
                                    ? named
                                    : MeasureSystem.Inches
                            )
                        )
                        .ToList()
            )
            .WithName("listLeftovers")
            .WithProblems();
        group
            .MapPost(
                "/leftovers/{id:guid}",
                async (Guid id, LeftoverChoice choice, PaperDrawer drawer, CancellationToken cancel) =>
                    LeftoverView.Of(await drawer.DecideAsync(id, choice.State, cancel), MeasureSystem.Inches)
            )
            .WithName("decideLeftover")
            .WithProblems();
    }
}
