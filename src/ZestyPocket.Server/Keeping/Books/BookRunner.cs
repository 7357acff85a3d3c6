using System.Text;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Keeping.Books;

/// <summary>Queues the making of books.</summary>
public sealed class BookNudges(IBackgroundJobClient jobs) : AskedJobNudges<Book>(jobs)
{
    protected override void Enqueue(IBackgroundJobClient jobs, Guid id) =>
        jobs.Enqueue<BookRunner>(JobQueues.Prints, runner => runner.RunAsync(id, CancellationToken.None));
}

/// <summary>Makes a book of an album.</summary>
public sealed class BookRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    UnitOpener opener,
    BookPages books,
    BookNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    ILogger<BookRunner> log
) : AskedJobRunner<Book>(db, queue, configuration, clock, log)
{
    /// <summary>Printed pictures are at most this sharp; a light book is for the screen.</summary>
    private const double PrintPixelsPerInch = 300;
    private const double LightPixelsPerInch = 120;

    /// <summary>A flip-through is looked at on a screen.</summary>
    private const double FlipPixelsPerInch = 110;
    private const double LightFlipPixelsPerInch = 72;

    public static string PathOf(ZestySettings settings, Book book)
    {
        ArgumentNullException.ThrowIfNull(settings);
        ArgumentNullException.ThrowIfNull(book);
        return Path.Combine(
            settings.Prints,
            $"book-{book.Id:N}.{(book.Form == BookForm.FlipThrough ? "html" : "pdf")}"
        );
    }

    protected override string Failure => "the book could not be made";

    /// <summary>One at a time for each album, beside its prints.</summary>
    protected override string TurnOf(Book job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"book {job.AlbumId}";
    }

    protected override async Task WorkAsync(Book job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var ids = await Db
            .Units.AsNoTracking()
            .Where(u => u.AlbumId == job.AlbumId && (job.UnitIds.Count == 0 || job.UnitIds.Contains(u.Id)))
            .OrderBy(u => u.Ordinal)
            .Select(u => u.Id)
            .ToListAsync(cancel);
        var units = (await opener.OpenManyAsync(ids, cancel)).Where(u => u.Faces.Count > 0).ToList();
        if (units.Count == 0)
        {
            throw new RuleException("These weeks or days have no pages yet: there is nothing to make a book of.");
        }

        var flip = job.Form == BookForm.FlipThrough;
        var ppi = flip
            ? job.Light
                ? LightFlipPixelsPerInch
                : FlipPixelsPerInch
            : job.Light
                ? LightPixelsPerInch
                : PrintPixelsPerInch;
        using var watch = new JobWatch<Book>(contexts, job.Id, cancel);
        var pages = books.Of(units, facing: job.Form != BookForm.Pages, ppi, watch.Token);
        (job.State, job.PagesDone, job.PagesTotal) = (JobState.Running, 0, pages.Count);
        await Db.SaveChangesAsync(cancel);

        var path = PathOf(settings, job);
        await WholeFile.WriteAsync(
            path,
            async temporary =>
            {
                await using var file = new FileStream(temporary, FileMode.CreateNew, FileAccess.ReadWrite);
                var title = units[0].Album.Name;
                if (flip)
                {
                    await FlipAsync(file, title, pages, ppi, watch, cancel);
                }
                else
                {
                    PdfFile.Write(file, title, Drawn(pages, watch), Bookmarks(pages));
                }
            }
        );

        (job.PagesDone, job.Bytes) = (pages.Count, new FileInfo(path).Length);
    }

    private static IEnumerable<PdfPage> Drawn(IReadOnlyList<BookPage> pages, JobWatch<Book> watch)
    {
        for (var i = 0; i < pages.Count; i++)
        {
            watch.Tell(set => set.SetProperty(b => b.PagesDone, i));
            var (size, draw) = pages[i].Paint();
            yield return new PdfPage(size.Width.Points, size.Height.Points, draw);
        }
    }

    private static List<PdfBookmark> Bookmarks(IReadOnlyList<BookPage> pages) =>
        [
            new PdfBookmark("Cover", 0),
            .. pages
                .Select((p, i) => (p.Title, i))
                .Where(p => p.Title is not null)
                .Select(p => new PdfBookmark(p.Title!, p.i)),
        ];

    private static async Task FlipAsync(
        FileStream file,
        string title,
        IReadOnlyList<BookPage> pages,
        double ppi,
        JobWatch<Book> watch,
        CancellationToken cancel
    )
    {
        await using var text = new StreamWriter(file, new UTF8Encoding(false), leaveOpen: true);
        await text.WriteAsync(FlipThrough.Begin(title).AsMemory(), cancel);
        for (var i = 0; i < pages.Count; i++)
        {
            watch.Tell(set => set.SetProperty(b => b.PagesDone, i));
            var (size, draw) = pages[i].Paint();
            var jpeg = Raster.Jpeg(size.Width.Points, size.Height.Points, ppi, 85, draw);
            await text.WriteAsync(FlipThrough.Page(i, pages[i], jpeg).AsMemory(), cancel);
        }

        await text.WriteAsync(FlipThrough.End().AsMemory(), cancel);
    }
}
