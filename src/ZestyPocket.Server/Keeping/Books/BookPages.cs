using System.Globalization;
using NodaTime;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Keeping.Books;

/// <summary>A page of a book: the cover, or what lies open.</summary>
/// <param name="Title">The unit that begins on it; null when none does.</param>
/// <param name="Described">What is on it, for somebody who does not see it.</param>
/// <param name="Words">What its cards say, in reading order.</param>
public sealed record BookPage(
    string? Title,
    string Described,
    IReadOnlyList<string> Words,
    Func<(Size Size, Action<SKCanvas> Draw)> Paint
);

/// <summary>The pages of a book in reading order, the cover first. Each is painted when it is drawn.</summary>
public sealed class BookPages(SpreadPages spreads, PiecePainter painter, FontShelf fonts)
{
    /// <param name="parts">At least one; each inserted album has a title page of its own.</param>
    public IReadOnlyList<BookPage> Of(
        IReadOnlyList<BookPart> parts,
        bool facing,
        double pixelsPerInch,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(parts);
        var own = parts.Where(p => !p.Inserted).SelectMany(p => p.Units).ToList();
        var seen = new HashSet<Guid>();
        return
        [
            Cover(own, "Cover", pixelsPerInch),
            .. parts.SelectMany(p =>
                p.Inserted
                    ?
                    [
                        Cover(p.Units, "Title page", pixelsPerInch),
                        .. Opened(p.Pages, seen, facing, pixelsPerInch, cancel),
                    ]
                    : Opened(p.Pages, seen, facing, pixelsPerInch, cancel)
            ),
        ];
    }

    private List<BookPage> Opened(
        IReadOnlyList<OpenPage> read,
        HashSet<Guid> seen,
        bool facing,
        double pixelsPerInch,
        CancellationToken cancel
    )
    {
        var pages = new List<BookPage>();
        foreach (var opening in SpreadPages.Openings(read, facing))
        {
            var begins = opening
                .Pages.Select(p => p.Unit)
                .Where(u => seen.Add(u.Unit.Id))
                .Select(u => u.Title)
                .ToList();
            pages.Add(
                new BookPage(
                    begins.Count == 0 ? null : string.Join(", ", begins),
                    string.Join(" ", opening.Pages.Select(Described)),
                    [.. opening.Pages.SelectMany(WordsOn)],
                    () => spreads.Painting(opening, pixelsPerInch, cancel)
                )
            );
        }

        return pages;
    }

    private BookPage Cover(IReadOnlyList<OpenUnit> units, string what, double pixelsPerInch)
    {
        var first = units[0];
        var (from, until) = (first.Dates.First, units.Max(u => u.Dates.Last));
        var years = from.Year == until.Year ? Year(from) : $"{Year(from)} – {Year(until)}";
        var name = first.Album.Name.Replace(years, string.Empty, StringComparison.Ordinal).Trim(' ', ',');
        return new BookPage(
            what == "Cover" ? null : first.Album.Name,
            $"{what}: {first.Album.Name}.",
            [],
            () =>
            {
                var size = first.Faces.Count > 0 ? first.Faces[0].Protector.Outer : first.Desk.Body;
                var style = first.Words.NewStyle(CardKind.WeekTitle);
                var face = CardComposer.Title(string.Empty, name.Length > 0 ? name : years, years, style, size, fonts);
                return (size, canvas => painter.Draw(canvas, new CardPieceFace(size, face), pixelsPerInch));
            }
        );

        static string Year(LocalDate day) => day.Year.ToString(CultureInfo.InvariantCulture);
    }

    private static string Described(OpenPage page)
    {
        var pieces = PiecesOn(page).ToList();
        var pictures = pieces.Sum(p => p is PhotoPrint ? 1 : p.PhotosInside.Count());
        var cards = pieces.Count(p => p is Card);
        var side = page.Face.Side == LeafSide.Back ? "left" : "right";
        return $"{page.Unit.Title}, {side} page: "
            + (
                pieces.Count == 0
                    ? "empty."
                    : $"{NumberWords.Counted(pictures, "picture")} and {NumberWords.Counted(cards, "card")}."
            );
    }

    private static IEnumerable<string> WordsOn(OpenPage page) =>
        PiecesOn(page).OfType<Card>().Select(c => c.Words.Trim()).Where(w => w.Length > 0);

    /// <summary>In reading order.</summary>
    private static IEnumerable<Piece> PiecesOn(OpenPage page) =>
        page
            .Face.Pockets.Select(p =>
                page.Unit.Content.At(p.Place) is { } lies ? page.Unit.Content.Find(lies.PieceId) : null
            )
            .OfType<Piece>();
}
