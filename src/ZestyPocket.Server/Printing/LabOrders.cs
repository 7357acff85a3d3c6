using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>What is ordered.</summary>
public sealed record LabRequest(
    string RequestKey,
    IReadOnlyList<Guid> UnitIds,
    PrintChoice Choice = PrintChoice.Due,
    IReadOnlyList<Guid>? PieceIds = null,
    Guid? Repeats = null
);

/// <summary>An order, and how far it is.</summary>
public sealed record LabOrderView(
    Guid Id,
    Guid AlbumId,
    JobState State,
    string? Problem,
    int PagesDone,
    int PagesTotal,
    LabState At,
    string Words,
    IReadOnlyList<LabOrderPrint> Prints,
    Guid? Repeats,
    Instant MadeAt,
    Money? Price
)
{
    public static LabOrderView Of(LabOrder order)
    {
        ArgumentNullException.ThrowIfNull(order);
        var prints = LabOrderPrint.Of(order);
        var missing = prints.Count(p => p.Missing);
        var words = order.At switch
        {
            LabState.Ready => "Ready: not sent yet.",
            LabState.Sent => "Sent to the lab.",
            LabState.Printed => "The lab has printed it.",
            LabState.Posted => "It is in the post.",
            _ => missing == 0
                ? "Everything has come."
                : $"It has come, and {NumberWords.Counted(missing, "print is", "prints are")} missing.",
        };
        return new LabOrderView(
            order.Id,
            order.AlbumId,
            order.State,
            order.Problem,
            order.PagesDone,
            order.PagesTotal,
            order.At,
            words,
            prints,
            order.Repeats,
            order.MadeAt,
            order is { Price: { } price, Currency: { } currency } ? new Money(price, currency) : null
        );
    }
}

/// <summary>A step of an order, with the files that did not come when it arrived.</summary>
public sealed record LabStep(LabState To, IReadOnlyList<string>? Missing = null);

/// <summary>What an order cost; null when it is not known any more.</summary>
public sealed record LabPrice(Money? Price);

/// <summary>Orders at a lab, and the lab that stands in for one.</summary>
public sealed class LabOrders(
    ZestyContext db,
    AlbumReader albums,
    ICurrentKeeper keeper,
    AskedJobs<LabOrder> jobs,
    IClock clock
)
{
    public const string What = "The lab order";

    private const int MostPieces = 2_000;

    public Task<LabOrder> StartAsync(LabRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        return jobs.StartAsync(request.RequestKey, () => MakeAsync(request, cancel), cancel);
    }

    public async Task<IReadOnlyList<LabOrder>> ListAsync(Guid albumId, CancellationToken cancel) =>
        await db
            .LabOrders.AsNoTracking()
            .Where(o => o.KeeperId == keeper.Id && o.AlbumId == albumId)
            .OrderByDescending(o => o.MadeAt)
            .Take(100)
            .ToListAsync(cancel);

    /// <summary>
    /// Takes an order one step on. When it arrives, what came counts as printed as it was drawn; what is missing stays
    /// due. A step back or over another is a <see cref="RuleException"/>; the same step twice changes nothing.
    /// </summary>
    public async Task<LabOrder> StepAsync(Guid id, LabStep step, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(step);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // Two windows taking one step at once take it one after the other.
        await db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock(hashtextextended({id.ToString()}, 11))",
            cancel
        );
        var order =
            await db.LabOrders.SingleOrDefaultAsync(o => o.Id == id && o.KeeperId == keeper.Id, cancel)
            ?? throw new MissingException(What);
        if (order.At == step.To)
        {
            return order;
        }

        if (order.State != JobState.Done)
        {
            throw new RuleException("The files of this order are not drawn yet. Nothing was changed: wait for them.");
        }

        if (step.To != order.At + 1)
        {
            throw new RuleException(
                "An order is sent, printed, posted and arrives, in this order. Nothing was changed."
            );
        }

        order.At = step.To;
        order.SentAt ??= clock.GetCurrentInstant();
        if (step.To == LabState.Arrived)
        {
            var lost = (step.Missing ?? []).ToHashSet(StringComparer.Ordinal);
            var prints = LabOrderPrint.Of(order).Select(p => p with { Missing = lost.Contains(p.FileName) }).ToList();
            order.Prints = JsonSerializer.Serialize(prints, JsonSerializerOptions.Web);
            // What has come was printed as it was drawn.
            await PrintedNotes.NoteAsync(
                db,
                order.AlbumId,
                order.Id,
                [
                    .. prints
                        .Where(p => !p.Missing)
                        .SelectMany(p => p.Pieces)
                        .DistinctBy(p => p.PieceId)
                        .Select(p => new PrintedNote(
                            p.PieceId,
                            p.UnitId,
                            p.Number,
                            new Size(new Length(p.CutWidthEmu), new Length(p.CutHeightEmu)),
                            Sheet: null,
                            p.Recipe
                        )),
                ],
                clock.GetCurrentInstant(),
                cancel
            );
        }

        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException twice)
            when (twice.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            throw new RuleException(
                "A print noted the same pieces at the same moment. Nothing was changed: take this step again."
            );
        }

        await transaction.CommitAsync(cancel);
        return order;
    }

    /// <summary>Notes what an order cost, with postage; null when it is not known any more.</summary>
    public async Task<LabOrder> PriceAsync(Guid id, Money? price, CancellationToken cancel)
    {
        var order =
            await db.LabOrders.SingleOrDefaultAsync(o => o.Id == id && o.KeeperId == keeper.Id, cancel)
            ?? throw new MissingException(What);
        var paid = price?.Checked();
        (order.Price, order.Currency) = (paid?.Amount, paid?.Currency);
        await db.SaveChangesAsync(cancel);
        return order;
    }

    /// <summary>
    /// The lab that stands in for one takes an order a step on. Of a first order with several prints it loses the
    /// second, so that there is something to order again.
    /// </summary>
    public async Task<LabOrder> StandInAsync(Guid id, CancellationToken cancel)
    {
        var order = await jobs.RequireAsync(id, What, cancel);
        var prints = LabOrderPrint.Of(order);
        return order.At == LabState.Arrived
            ? order
            : await StepAsync(
                id,
                new LabStep(
                    order.At + 1,
                    order.At + 1 == LabState.Arrived && order.Repeats is null && prints.Count > 1
                        ? [prints[1].FileName]
                        : []
                ),
                cancel
            );
    }

    private async Task<LabOrder> MakeAsync(LabRequest request, CancellationToken cancel)
    {
        var (unitIds, pieceIds, choice) = (request.UnitIds, request.PieceIds ?? [], request.Choice);
        if (request.Repeats is { } repeats)
        {
            var lost = LabOrderPrint.Of(await jobs.RequireAsync(repeats, What, cancel)).Where(p => p.Missing).ToList();
            if (lost.Count == 0)
            {
                throw new RuleException("Nothing of that order is missing. Nothing was ordered.");
            }

            (unitIds, pieceIds, choice) = (
                [.. lost.SelectMany(p => p.Pieces).Select(p => p.UnitId)],
                [.. lost.SelectMany(p => p.Pieces).Select(p => p.PieceId)],
                PrintChoice.Chosen
            );
        }

        unitIds = [.. unitIds.Distinct()];
        if (unitIds.Count is 0 or > PrintRun.MostUnits)
        {
            throw new RuleException($"Choose 1 to {PrintRun.MostUnits} weeks or days to order at once.");
        }

        var albumIds = await db
            .Units.Where(u => unitIds.Contains(u.Id))
            .Select(u => u.AlbumId)
            .Distinct()
            .ToListAsync(cancel);
        return albumIds.Count != 1
            ? throw new RuleException("What is ordered together must be of one album.")
            : new LabOrder
            {
                AlbumId = (await albums.RequireAsync(albumIds[0], cancel)).Id,
                RequestKey = request.RequestKey,
                UnitIds = [.. unitIds],
                Choice = choice,
                PieceIds = [.. pieceIds.Distinct().Take(MostPieces)],
                Repeats = request.Repeats,
            };
    }
}
