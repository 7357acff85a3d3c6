using Hangfire;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Placing;

namespace ZestyPocket.Server.Placing;

/// <summary>Asks for the placing of several units in a row.</summary>
/// <param name="RequestKey">Chosen by the asker: asking twice with the same key is one placing.</param>
/// <param name="From">The first unit.</param>
/// <param name="Count">How many units.</param>
/// <param name="Again">Everything that is not locked is placed anew; else only open pockets are filled.</param>
/// <param name="Rules">What the units have in common.</param>
public sealed record PlaceStretchRequest(string RequestKey, Guid From, int Count, bool Again, StretchRules Rules);

/// <summary>A placing of several units, how far it is, and what came of it.</summary>
/// <param name="EditId">One edit, that can be undone; null when nothing was changed.</param>
/// <param name="Done">What was done, in words.</param>
/// <param name="Problem">What happened and what to do, when it failed.</param>
public sealed record StretchPlacingView(
    Guid Id,
    JobState State,
    int UnitsDone,
    int UnitsTotal,
    Guid? EditId,
    string? Done,
    string? Problem
)
{
    public static StretchPlacingView Of(StretchPlacing placing)
    {
        ArgumentNullException.ThrowIfNull(placing);
        return new StretchPlacingView(
            placing.Id,
            placing.State,
            placing.UnitsDone,
            placing.UnitsTotal,
            placing.EditId,
            placing.Done,
            placing.Problem
        );
    }
}

/// <summary>A unit on the contact sheet of a stretch.</summary>
/// <param name="Placed">Pockets that hold something.</param>
/// <param name="Locked">Of these, the locked ones.</param>
/// <param name="Loose">Photos that lie in no pocket.</param>
public sealed record SheetUnit(
    Guid Id,
    int Revision,
    string Title,
    string Label,
    int Pockets,
    int Placed,
    int Locked,
    int Loose
)
{
    public static SheetUnit Of(OpenUnit open)
    {
        ArgumentNullException.ThrowIfNull(open);
        var lies = open.Desk.Pages.Pockets.Select(p => open.Content.At(p.Place)).OfType<Placement>().ToList();
        var placed = open.Content.PhotosPlaced;
        return new SheetUnit(
            open.Unit.Id,
            open.Unit.Revision,
            open.Title,
            open.Dates.Span(open.Calendar.Style),
            open.Desk.Pages.Pockets.Count,
            lies.Count,
            lies.Count(p => p.Locked),
            open.Photos.Keys.Count(id => !placed.Contains(id))
        );
    }
}

/// <summary>Placing several units at once.</summary>
public static class StretchEndpoints
{
    private const string What = "The placing";

    /// <summary>Three years of weeks.</summary>
    private const int MostUnits = 160;

    public static void MapStretches(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Placing");
        group
            .MapGet(
                "/albums/{albumId:guid}/contact-sheet",
                async (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    AlbumReader albums,
                    UnitOpener opener,
                    CancellationToken cancel
                ) =>
                    (
                        await opener.OpenManyAsync(
                            await albums.StretchAsync(albumId, from, count, MostUnits, cancel),
                            cancel
                        )
                    )
                        .Select(SheetUnit.Of)
                        .ToList()
            )
            .WithName("getContactSheet")
            .WithProblems();
        group
            .MapPost(
                "/albums/{albumId:guid}/stretch-placings",
                async (
                    Guid albumId,
                    PlaceStretchRequest request,
                    AlbumReader albums,
                    AskedJobs<StretchPlacing> jobs,
                    CancellationToken cancel
                ) =>
                    StretchPlacingView.Of(
                        await jobs.StartAsync(
                            request.RequestKey,
                            async () =>
                            {
                                var rules = request.Rules.Checked();
                                _ = await albums.StretchAsync(albumId, request.From, request.Count, MostUnits, cancel);
                                return new StretchPlacing
                                {
                                    AlbumId = albumId,
                                    RequestKey = request.RequestKey,
                                    FromUnitId = request.From,
                                    Count = request.Count,
                                    Again = request.Again,
                                    Rules = StoredDocuments.StretchRules.Write(rules),
                                    UnitsTotal = request.Count,
                                };
                            },
                            cancel
                        )
                    )
            )
            .WithName("placeStretch")
            .WithProblems();
        group
            .MapGet(
                "/stretch-placings/{id:guid}",
                async (Guid id, AskedJobs<StretchPlacing> jobs, CancellationToken cancel) =>
                    StretchPlacingView.Of(await jobs.RequireAsync(id, What, cancel))
            )
            .WithName("getStretchPlacing")
            .WithProblems();
        group
            .MapPost(
                "/stretch-placings/{id:guid}/cancel",
                async (Guid id, AskedJobs<StretchPlacing> jobs, CancellationToken cancel) =>
                    StretchPlacingView.Of(await jobs.CancelAsync(id, What, cancel))
            )
            .WithName("cancelStretchPlacing")
            .WithProblems();
    }
}

/// <summary>Queues the jobs of placings.</summary>
public sealed class StretchNudges(IBackgroundJobClient jobs) : AskedJobNudges<StretchPlacing>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<StretchRunner>(JobQueues.Searches, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Takes up placings that were left behind.</summary>
public sealed class StretchRecovery(
    IServiceScopeFactory scopes,
    StretchNudges queue,
    ZestySettings settings,
    ILogger<StretchRecovery> log
) : JobRecovery(scopes, settings, log)
{
    protected override Task NudgeAsync(ZestyContext db, CancellationToken cancel) => queue.NudgeOpenAsync(db, cancel);

    /// <summary>A placing leaves nothing but its row and its edit.</summary>
    protected override void Sweep() { }
}

/// <summary>
/// Places several units: all are thought out first, with progress, then written as one edit. Cancelled or broken off
/// before that, nothing is changed.
/// </summary>
public sealed class StretchRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    AlbumReader albums,
    UnitOpener opener,
    History history,
    StoryFitting stories,
    FontShelf fonts,
    StretchNudges queue,
    IConfiguration configuration,
    IClock clock,
    ILogger<StretchRunner> log
) : AskedJobRunner<StretchPlacing>(db, queue, configuration, clock, log)
{
    private static readonly Duration KeptFor = Duration.FromDays(1);

    protected override string Failure => "the placing broke off";

    /// <summary>Two placings of one album would meet on its units.</summary>
    protected override string TurnOf(StretchPlacing job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"stretch {job.AlbumId}";
    }

    protected override async Task WorkAsync(StretchPlacing job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        if (job.EditId is not null)
        {
            // Broken off after it was written: it is done.
            return;
        }

        job.State = JobState.Running;
        await Db.SaveChangesAsync(cancel);
        var edit = new PlaceByRules(job.Again, StoredDocuments.StretchRules.Read(job.Rules)) { Revision = 0 };
        var ids = await albums.StretchAsync(job.AlbumId, job.FromUnitId, job.Count, job.Count, cancel);
        var placed = new Dictionary<Guid, (OpenUnit Open, UnitContent Content)>();
        var open = await opener.OpenManyAsync(ids, cancel);
        foreach (var (unit, done) in open.Select((unit, done) => (unit, done)))
        {
            await TellAsync(job.Id, done, open.Count, cancel);
            if (ContentOf(unit, edit) is { } content)
            {
                placed.Add(unit.Unit.Id, (unit, content));
            }
        }

        await TellAsync(job.Id, open.Count, open.Count, cancel);
        await WriteAsync(job, edit, placed, cancel);
        (job.UnitsDone, job.UnitsTotal) = (open.Count, open.Count);
        var old = Clock.GetCurrentInstant() - KeptFor;
        await Db.StretchPlacings.Where(s => s.AlbumId == job.AlbumId && s.EndedAt < old).ExecuteDeleteAsync(cancel);
    }

    /// <summary>What a unit becomes; null where nothing is to be placed.</summary>
    private UnitContent? ContentOf(OpenUnit unit, PlaceByRules edit)
    {
        try
        {
            return edit.Apply(unit.Desk, new EditTools(Guid.CreateVersion7, fonts)).Content;
        }
        catch (RuleException)
        {
            // A unit that is full or has nothing loose stays as it is.
            return null;
        }
    }

    /// <summary>Tells how far it is, and stops when the keeper cancelled.</summary>
    private async Task TellAsync(Guid id, int done, int total, CancellationToken cancel)
    {
        await using var watch = await contexts.CreateDbContextAsync(cancel);
        var mine = watch.StretchPlacings.Where(s => s.Id == id);
        await mine.ExecuteUpdateAsync(
            set => set.SetProperty(s => s.UnitsDone, done).SetProperty(s => s.UnitsTotal, total),
            cancel
        );
        if (await mine.AnyAsync(s => s.CancelAsked, cancel))
        {
            throw new OperationCanceledException();
        }
    }

    /// <summary>Writes all units as one edit; one that was changed meanwhile is placed as it is now.</summary>
    private async Task WriteAsync(
        StretchPlacing job,
        PlaceByRules edit,
        Dictionary<Guid, (OpenUnit Open, UnitContent Content)> placed,
        CancellationToken cancel
    )
    {
        if (placed.Count == 0)
        {
            job.Done = "There was nothing to place: no pocket is open, or nothing is loose";
            return;
        }

        await using var transaction = await Db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.HoldAsync(Db, job.AlbumId, cancel);
        var rows = await Db.Units.Where(u => placed.Keys.Contains(u.Id)).OrderBy(u => u.Ordinal).ToListAsync(cancel);
        history.Touch(rows);
        foreach (var row in rows)
        {
            var (was, content) = placed[row.Id];
            if (row.Revision != was.Unit.Revision)
            {
                var now = (await opener.OpenManyAsync([row.Id], cancel))[0];
                (was, content) = (now, ContentOf(now, edit) ?? now.Content);
                placed[row.Id] = (was, content);
            }

            row.Write(content);
        }

        var told = await stories.FitAgainInAsync(
            [.. rows.Where(r => UnitEditor.CardsChangeSize(placed[r.Id].Open, placed[r.Id].Content))],
            cancel
        );
        job.Done = $"{(job.Again ? "Placed again" : "Filled")} {NumberWords.Counted(rows.Count, "spread")}";
        job.EditId = await history.SaveAsync(
            job.AlbumId,
            job.KeeperId,
            job.Done,
            told.Union(rows.Select(r => r.Id)),
            cancel
        );
        await Db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
    }
}
