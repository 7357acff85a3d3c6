using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>
/// Draws a print job's PDF. Run again after a crash it starts the file anew; a finished job is left alone.
/// </summary>
public sealed partial class PrintJobRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PrintRun run,
    PrintNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    ILogger<PrintJobRunner> log
)
{
    public static string PathOf(ZestySettings settings, Guid jobId)
    {
        ArgumentNullException.ThrowIfNull(settings);
        return Path.Combine(settings.Prints, $"{jobId:N}.pdf");
    }

    /// <summary>What fails is told at once; what was broken off is queued again by the recovery.</summary>
    [AutomaticRetry(Attempts = 0, OnAttemptsExceeded = AttemptsExceededAction.Delete)]
    public async Task RunAsync(Guid jobId, CancellationToken cancel)
    {
        var had = false;
        queue.Began(jobId);
        try
        {
            var albumId = await db.PrintJobs.Where(j => j.Id == jobId).Select(j => j.AlbumId).SingleAsync(cancel);
            // One print at a time for each album, over all servers: the other workers are for the other albums.
            await using var turn = await ServerLock.TryTakeAsync(configuration, $"print {albumId}", cancel);
            had = turn is not null;
            if (had)
            {
                await RunAsync(await db.PrintJobs.SingleAsync(j => j.Id == jobId, cancel), cancel);
            }
        }
        finally
        {
            queue.Release(jobId);
        }

        // Others of this album may have found it taken.
        if (had)
        {
            await queue.NudgeOpenAsync(db, cancel);
        }
    }

    private async Task RunAsync(PrintJob job, CancellationToken cancel)
    {
        if (job.State is not (PrintJobState.Waiting or PrintJobState.Running))
        {
            return;
        }

        try
        {
            if (job.CancelAsked)
            {
                await EndAsync(job, PrintJobState.Cancelled, null);
                return;
            }

            await DrawAsync(job, cancel);
        }
        catch (RuleException rule)
        {
            await EndAsync(job, PrintJobState.Failed, rule.Message);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            await EndAsync(job, PrintJobState.Cancelled, null);
        }
        catch (Exception broken)
            when (broken is not OperationCanceledException && Outage.Of(broken) is { Title: var title })
        {
            // Without a database nothing could be noted: the job stays open and is taken up again.
            LogAway(title);
            if (!Outage.Of(broken)!.IsDatabase)
            {
                await EndAsync(
                    job,
                    PrintJobState.Failed,
                    $"{title}: the sheets could not be drawn. Your album is untouched; mend that and print again."
                );
            }
        }
        catch (Exception broken) when (broken is not OperationCanceledException)
        {
            LogFailed(job.Id, broken);
            await EndAsync(
                job,
                PrintJobState.Failed,
                "The sheets could not be drawn. Your album is untouched; try again, and look into the log if it "
                    + "stays so."
            );
        }
    }

    private async Task DrawAsync(PrintJob job, CancellationToken cancel)
    {
        var paper = Paper.Find(job.PaperKey) ?? throw new RuleException("The chosen paper is not known any more.");
        var setup = new PrinterSetup(paper, new Length(job.MarginEmu), new Length(job.GapEmu));
        var prepared = await run.PrepareAsync(job.UnitIds, setup, cancel);
        if (prepared.Pages == 0)
        {
            throw new RuleException("Nothing lies in a pocket yet: there are no sheets to print.");
        }

        if (prepared.Doubts.Count > 0 && !job.DespiteDoubts)
        {
            throw new RuleException(
                $"{string.Join(" ", prepared.Doubts.Take(6))} Nothing was printed: mend this, or print all the same."
            );
        }

        (job.State, job.PagesDone, job.PagesTotal, job.Problem) = (PrintJobState.Running, 0, prepared.Pages, null);
        await db.SaveChangesAsync(cancel);

        Directory.CreateDirectory(settings.Prints);
        var path = PathOf(settings, job.Id);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        try
        {
            using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            await using (var file = new FileStream(temporary, FileMode.CreateNew, FileAccess.ReadWrite))
            {
                PdfFile.Write(file, $"{prepared.Album}: sheets", Watched(prepared, job.Id, stop));
            }

            File.Move(temporary, path, overwrite: true);
        }
        finally
        {
            File.Delete(temporary);
        }

        job.PagesDone = job.PagesTotal;
        await NoteAsync(job, prepared, cancel);
        await EndAsync(job, PrintJobState.Done, null);
        LogDone(job.Id, prepared.Plan.Sheets.Length);
    }

    /// <summary>
    /// Hands the pages on, telling the progress and looking whether the keeper cancelled, page by page.
    /// </summary>
    private IEnumerable<PdfPage> Watched(PreparedRun prepared, Guid jobId, CancellationTokenSource stop)
    {
        var done = 0;
        foreach (var page in run.Pages(prepared, stop.Token))
        {
            using (var watch = contexts.CreateDbContext())
            {
                watch.PrintJobs.Where(j => j.Id == jobId).ExecuteUpdate(set => set.SetProperty(j => j.PagesDone, done));
                if (watch.PrintJobs.Any(j => j.Id == jobId && j.CancelAsked))
                {
                    stop.Cancel();
                }
            }

            stop.Token.ThrowIfCancellationRequested();
            yield return page;
            done++;
        }
    }

    /// <summary>
    /// Every piece remembers that and how it was printed last; saved together with the end of the job.
    /// </summary>
    private async Task NoteAsync(PrintJob job, PreparedRun prepared, CancellationToken cancel)
    {
        var pieces = prepared
            .Plan.Sheets.SelectMany(s => s.Pieces)
            .Select(p => p.Due)
            .Concat(prepared.Plan.TooLarge)
            .ToList();
        var ids = pieces.ConvertAll(p => p.PieceId);
        var known = await db
            .PrintedPieces.Where(p => ids.Contains(p.PieceId))
            .ToDictionaryAsync(p => p.PieceId, cancel);
        foreach (var due in pieces)
        {
            if (!known.TryGetValue(due.PieceId, out var row))
            {
                db.PrintedPieces.Add(
                    row = new PrintedPiece
                    {
                        PieceId = due.PieceId,
                        AlbumId = job.AlbumId,
                        Number = due.Number,
                    }
                );
            }

            (row.UnitId, row.JobId, row.Number, row.PrintedAt) = (
                prepared.UnitOf[due.PieceId],
                job.Id,
                due.Number,
                clock.GetCurrentInstant()
            );
            (row.CutWidth, row.CutHeight) = (due.Cut.Width, due.Cut.Height);
        }
    }

    private async Task EndAsync(PrintJob job, PrintJobState state, string? problem)
    {
        (job.State, job.Problem, job.EndedAt) = (state, problem, clock.GetCurrentInstant());
        await db.SaveChangesAsync(CancellationToken.None);
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "Print job {JobId} done, {Sheets} sheets")]
    private partial void LogDone(Guid jobId, int sheets);

    [LoggerMessage(Level = LogLevel.Warning, Message = "A print was broken off: {Reason}")]
    private partial void LogAway(string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "Print job {JobId} failed")]
    private partial void LogFailed(Guid jobId, Exception exception);
}
