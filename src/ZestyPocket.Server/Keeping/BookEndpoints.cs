using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Keeping;

/// <summary>Asks for a book of an album.</summary>
/// <param name="RequestKey">Chosen by the asker: the same key is the same book.</param>
/// <param name="UnitIds">Which weeks or days; none are all.</param>
/// <param name="Light">With smaller pictures.</param>
public sealed record BookRequest(string RequestKey, BookForm Form, bool Light, IReadOnlyList<Guid>? UnitIds);

/// <summary>A book, or how far it is.</summary>
public sealed record BookView(
    Guid Id,
    BookForm Form,
    JobState State,
    int PagesDone,
    int PagesTotal,
    long Bytes,
    string? Problem
)
{
    public static BookView Of(Book book)
    {
        ArgumentNullException.ThrowIfNull(book);
        return new BookView(book.Id, book.Form, book.State, book.PagesDone, book.PagesTotal, book.Bytes, book.Problem);
    }
}

/// <summary>Albums as books.</summary>
public static class BookEndpoints
{
    private const string What = "That book";

    public static void MapBooks(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Keeping");
        group
            .MapPost(
                "/albums/{id:guid}/books",
                async (
                    Guid id,
                    BookRequest request,
                    AskedJobs<Book> books,
                    AlbumReader albums,
                    ZestyContext db,
                    CancellationToken cancel
                ) =>
                    BookView.Of(
                        await books.StartAsync(
                            request.RequestKey,
                            async () =>
                            {
                                var album = await albums.RequireAsync(id, cancel);
                                var units = (request.UnitIds ?? []).Distinct().ToList();
                                if (
                                    await db.Units.CountAsync(
                                        u => u.AlbumId == album.Id && units.Contains(u.Id),
                                        cancel
                                    ) < units.Count
                                )
                                {
                                    throw new MissingException("That week or day");
                                }

                                return new Book
                                {
                                    AlbumId = album.Id,
                                    RequestKey = request.RequestKey,
                                    UnitIds = units,
                                    Form = request.Form,
                                    Light = request.Light,
                                };
                            },
                            cancel
                        )
                    )
            )
            .WithName("makeBook")
            .ForReaders()
            .WithProblems();
        group
            .MapGet(
                "/books/{id:guid}",
                async (Guid id, AskedJobs<Book> books, CancellationToken cancel) =>
                    BookView.Of(await books.RequireAsync(id, What, cancel))
            )
            .WithName("getBook")
            .ForReaders()
            .WithProblems();
        group
            .MapPost(
                "/books/{id:guid}/cancel",
                async (Guid id, AskedJobs<Book> books, CancellationToken cancel) =>
                    BookView.Of(await books.CancelAsync(id, What, cancel))
            )
            .WithName("cancelBook")
            .ForReaders()
            .WithProblems();
        group
            .MapGet(
                "/books/{id:guid}/file",
                async (
                    Guid id,
                    AskedJobs<Book> books,
                    ZestySettings settings,
                    IMadeFiles files,
                    CancellationToken cancel
                ) =>
                {
                    var book = await books.RequireAsync(id, What, cancel);
                    var path = await files.FetchAsync(BookRunner.PathOf(settings, book), cancel);
                    if (book.State != JobState.Done || path is null)
                    {
                        throw new RuleException("The book is not made yet. Wait until it is done, or make it again.");
                    }

                    var (type, name) = book.Form switch
                    {
                        BookForm.FlipThrough => ("application/octet-stream", "zesty-pocket-flip-through.html"),
                        BookForm.Pictures => ("application/zip", "zesty-pocket-pictures.zip"),
                        _ => ("application/pdf", "zesty-pocket-book.pdf"),
                    };
                    return Results.File(Path.GetFullPath(path), type, name, enableRangeProcessing: true);
                }
            )
            .WithName("getBookFile")
            .ForReaders()
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();
    }
}
