using System.Globalization;
using System.IO.Compression;
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
using ZestyPocket.Storage.Sharing;

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
    InsertReader inserts,
    BookPages books,
    BookNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    IMadeFiles files,
    ILogger<BookRunner> log
) : AskedJobRunner<Book>(db, queue, configuration, clock, log)
{
    /// <summary>Printed pictures are at most this sharp; a light book is for the screen.</summary>
    private const double PrintPixelsPerInch = 300;
    private const double LightPixelsPerInch = 120;

    /// <summary>A flip-through is looked at on a screen.</summary>
    private const double FlipPixelsPerInch = 110;
    private const double LightFlipPixelsPerInch = 72;

    /// <summary>Single pictures fill a large screen.</summary>
    private const double PicturePixelsPerInch = 200;

    public static string PathOf(ZestySettings settings, Book book)
    {
        ArgumentNullException.ThrowIfNull(settings);
        ArgumentNullException.ThrowIfNull(book);
        return Path.Combine(settings.Prints, $"book-{book.Id:N}.{EndingOf(book.Form)}");
    }

    private static string EndingOf(BookForm form) =>
        form switch
        {
            BookForm.FlipThrough => "html",
            BookForm.Pictures => "zip",
            _ => "pdf",
        };

    private static double PixelsPerInch(Book job) =>
        (job.Form, job.Light) switch
        {
            (BookForm.FlipThrough, true) => LightFlipPixelsPerInch,
            (BookForm.FlipThrough, false) => FlipPixelsPerInch,
            (BookForm.Pictures, false) => PicturePixelsPerInch,
            (_, true) => LightPixelsPerInch,
            _ => PrintPixelsPerInch,
        };

    protected override string Failure => "the book could not be made";

    /// <summary>A book holds finished pages only, which readers see.</summary>
    protected override AlbumRole Needs => AlbumRole.Reader;

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

        var ppi = PixelsPerInch(job);
        using var watch = new JobWatch<Book>(contexts, job.Id, cancel);
        var parts = await inserts.PartsAsync(units[0].Album, units, cancel);
        var pages = books.Of(parts, facing: job.Form != BookForm.Pages, ppi, watch.Token);
        (job.State, job.PagesDone, job.PagesTotal) = (JobState.Running, 0, pages.Count);
        await Db.SaveChangesAsync(cancel);

        var path = PathOf(settings, job);
        await WholeFile.WriteAsync(
            path,
            async temporary =>
            {
                await using var file = new FileStream(temporary, FileMode.CreateNew, FileAccess.ReadWrite);
                var title = units[0].Album.Name;
                switch (job.Form)
                {
                    case BookForm.FlipThrough:
                        await FlipAsync(file, title, pages, ppi, watch, cancel);
                        break;
                    case BookForm.Pictures:
                        await PicturesAsync(file, pages, ppi, watch, cancel);
                        break;
                    default:
                        PdfFile.Write(file, title, Drawn(pages, watch), Bookmarks(pages));
                        break;
                }
            }
        );

        await files.ShareAsync(path, cancel);
        (job.PagesDone, job.Bytes) = (pages.Count, new FileInfo(path).Length);
    }

    private static IEnumerable<PdfPage> Drawn(IReadOnlyList<BookPage> pages, JobWatch<Book> watch)
    {
        for (var i = 0; i < pages.Count; i++)
        {
            watch.Tell(set => set.SetProperty(b => b.PagesDone, i));
            var (size, draw) = pages[i].Paint();
            yield return new PdfPage(size.Width.Points, size.Height.Points, draw)
            {
                Reading = new PdfReading(pages[i].Title, pages[i].Described, [.. pages[i].Words]),
            };
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

    /// <summary>Pictures with nothing but their pixels, numbered in reading order.</summary>
    private static async Task PicturesAsync(
        FileStream file,
        IReadOnlyList<BookPage> pages,
        double ppi,
        JobWatch<Book> watch,
        CancellationToken cancel
    )
    {
        await using var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true);
        for (var i = 0; i < pages.Count; i++)
        {
            watch.Tell(set => set.SetProperty(b => b.PagesDone, i));
            var (size, draw) = pages[i].Paint();
            var name = i == 0 ? "cover" : NameOf(pages[i].Title) ?? "more";
            var entry = zip.CreateEntry(
                string.Create(CultureInfo.InvariantCulture, $"{i:000} {name}.jpg"),
                CompressionLevel.NoCompression
            );
            await using var stream = await entry.OpenAsync(cancel);
            await stream.WriteAsync(Raster.Jpeg(size.Width.Points, size.Height.Points, ppi, 90, draw), cancel);
        }
    }

    /// <summary>A title as every file system takes it.</summary>
    private static string? NameOf(string? title) =>
        title is null
            ? null
            : string.Concat(title.Select(c => char.IsLetterOrDigit(c) || c == ' ' ? c : '-').Take(60)).Trim();

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
