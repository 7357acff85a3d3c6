using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Draws a print job's PDF.</summary>
public sealed partial class PrintJobRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PrintRun run,
    PaperDrawer drawer,
    PrintNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    IMadeFiles files,
    ILogger<PrintJobRunner> log
) : AskedJobRunner<PrintJob>(db, queue, configuration, clock, log)
{
    private PreparedRun? _drawn;

    public static string PathOf(ZestySettings settings, Guid jobId)
    {
        ArgumentNullException.ThrowIfNull(settings);
        return Path.Combine(settings.Prints, $"{jobId:N}.pdf");
    }

    protected override string Failure => "the sheets could not be drawn";

    /// <summary>One print at a time for each album: the other workers are for the other albums.</summary>
    protected override string TurnOf(PrintJob job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"print {job.AlbumId}";
    }

    protected override async Task WorkAsync(PrintJob job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var paper = Paper.Find(job.PaperKey) ?? throw new RuleException("The chosen paper is not known any more.");
        var setup = await run.SetupAsync(
            new SetupAsked(
                paper.Key,
                MeasureText.Exact(new Length(job.MarginEmu), MeasureSystem.Millimetres),
                MeasureText.Exact(new Length(job.GapEmu), MeasureSystem.Millimetres),
                job.PrinterId,
                job.Options
            ),
            job.KeeperId,
            cancel
        );
        var wanted = new WantedPieces(job.Choice, job.PieceIds);
        var prepared = await run.PrepareAsync(job.UnitIds, setup, wanted, cancel);
        if (prepared.Pages == 0)
        {
            throw new RuleException(
                prepared.Standing.Count == 0
                    ? "Nothing lies in a pocket yet: there are no sheets to print."
                    : "None of these pieces is to be printed: they are printed as they are, or lie in no pocket any "
                        + "more."
            );
        }

        if (prepared.Doubts.Count > 0 && !job.DespiteDoubts)
        {
            throw new RuleException(
                $"{string.Join(" ", prepared.Doubts.Take(6))} Nothing was printed: mend this, or print all the same."
            );
        }

        (job.State, job.PagesDone, job.PagesTotal, job.Problem) = (JobState.Running, 0, prepared.Pages, null);
        await Db.SaveChangesAsync(cancel);

        using var watch = new JobWatch<PrintJob>(contexts, job.Id, cancel);
        await WholeFile.WriteAsync(
            PathOf(settings, job.Id),
            async path =>
            {
                await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite);
                PdfFile.Write(file, $"{prepared.Album}: sheets", Watched(prepared, watch));
            }
        );

        await files.ShareAsync(PathOf(settings, job.Id), cancel);
        job.PagesDone = job.PagesTotal;
        _drawn = prepared;
        LogDone(job.Id, prepared.Plan.Sheets.Length);
    }

    /// <summary>The drawer first: when a leftover is gone, nothing counts as printed.</summary>
    protected override async Task NoteAsync(PrintJob job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        await drawer.NoteAsync(job, _drawn!.Plan, cancel);
        await PrintedNotes.NoteAsync(Db, job.AlbumId, job.Id, NotesOf(_drawn), Clock.GetCurrentInstant(), cancel);
    }

    /// <summary>
    /// Hands the pages on, telling the progress and looking whether the keeper cancelled, page by page.
    /// </summary>
    private IEnumerable<PdfPage> Watched(PreparedRun prepared, JobWatch<PrintJob> watch)
    {
        var done = 0;
        foreach (var page in run.Pages(prepared, watch.Token))
        {
            watch.Tell(set => set.SetProperty(j => j.PagesDone, done));
            yield return page;
            done++;
        }
    }

    private static List<PrintedNote> NotesOf(PreparedRun prepared)
    {
        var sheetOf = prepared
            .Plan.Sheets.SelectMany((s, i) => s.Pieces.Select(p => (p.Due.PieceId, Sheet: i + 1)))
            .DistinctBy(p => p.PieceId)
            .ToDictionary(p => p.PieceId, p => p.Sheet);
        return
        [
            .. prepared
                .Plan.Sheets.SelectMany(s => s.Pieces)
                .Select(p => p.Due)
                .Concat(prepared.Plan.TooLarge)
                .Concat(prepared.Plan.Tiles.Select(t => t.Due))
                .Concat(prepared.Plan.Carriers.SelectMany(c => c.Pieces).Select(p => p.Due))
                .GroupBy(p => p.PieceId)
                // Of a piece in several parts the outermost has its size, the one on top its number.
                .Select(g => new PrintedNote(
                    g.Key,
                    prepared.UnitOf[g.Key],
                    g.MaxBy(p => p.Part)!.Number,
                    g.MinBy(p => p.Part)!.Cut,
                    sheetOf.TryGetValue(g.Key, out var sheet) ? sheet : null,
                    prepared.Recipes.GetValueOrDefault(g.Key)
                )),
        ];
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "Print job {JobId} done, {Sheets} sheets")]
    private partial void LogDone(Guid jobId, int sheets);
}
