using ZestyPocket.Core;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Printing;

/// <summary>Sheets with what goes into or onto the binder: spine, cover, labels of index tabs.</summary>
public sealed class InsertPages(FontShelf fonts, PrintRun run, PrintPlans plans, PaintingBench bench)
{
    private const double TabPt = 11;

    private static Rgb White { get; } = new(255, 255, 255);

    public Task<byte[]> PdfAsync(
        Album album,
        int volumes,
        IEnumerable<string> tabs,
        PrinterSetup setup,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(album);
        var words = album.ReadWords();
        var inserts = words.Inserts.Pieces(AlbumKeeping.VolumeNames(album.Name, volumes), tabs);
        if (inserts.IsEmpty)
        {
            throw new RuleException(
                "There is nothing to print for the binder yet: measure its windows, or put an index tab on a leaf."
            );
        }

        var due = inserts
            .Select((p, i) => (Insert: p, Piece: new DuePiece(Key(i), NameOf(p), p.Cut, StockOf(p))))
            .ToList();
        var prepared = new PreparedRun(
            album.Name,
            plans.For([.. due.Select(d => d.Piece)], setup, cancel),
            due.ToDictionary(d => (d.Piece.PieceId, 0), PieceFace (d) => Face(d.Insert, words, album)),
            new Dictionary<Guid, Guid>(),
            [],
            [],
            new Dictionary<Guid, string>(),
            []
        );
        return WriteAsync(prepared, cancel);
    }

    private Task<byte[]> WriteAsync(PreparedRun prepared, CancellationToken cancel) =>
        bench.RunAsync(() => PdfFile.Bytes("Binder", run.Pages(prepared, cancel)), cancel);

    private static Guid Key(int index) => new(index + 1, 0, 0, new byte[8]);

    private static string NameOf(BinderInsert insert) =>
        insert.Kind switch
        {
            InsertKind.Spine => "spine",
            InsertKind.Cover => "cover",
            _ => $"tab {UnitNameOf(insert.Words)}",
        };

    private static string UnitNameOf(string words) => words.Length <= 12 ? words : words[..12];

    private static Stock StockOf(BinderInsert insert) => insert.Kind == InsertKind.Tab ? Stock.Label : Stock.WhiteCard;

    private CardPieceFace Face(BinderInsert insert, AlbumWords words, Album album)
    {
        if (insert.Kind == InsertKind.Tab)
        {
            return new CardPieceFace(insert.Cut, Tab(insert));
        }

        var style = words.NewStyle(CardKind.WeekTitle);
        var year = album.ReadCalendar().FirstDay.Year.ToString(System.Globalization.CultureInfo.InvariantCulture);
        var large = insert.Words.Replace(year, string.Empty, StringComparison.Ordinal).Trim(' ', ',');
        return new CardPieceFace(
            insert.Cut,
            CardComposer.Title(string.Empty, large.Length > 0 ? large : insert.Words, year, style, insert.Cut, fonts)
        );
    }

    /// <summary>Words on the lower half; the upper one is folded behind. Ticks show where.</summary>
    private CardFace Tab(BinderInsert insert)
    {
        var (width, height) = (insert.Cut.Width.Points, insert.Cut.Height.Points);
        var natural = fonts.Width(Typeface.SansStrong, TabPt, insert.Words);
        var size = Math.Max(TypeRange.SmallestEverPt, TabPt * Math.Min(1, (width - 10) / natural));
        var wide = fonts.Width(Typeface.SansStrong, size, insert.Words);
        return new CardFace(
            width,
            height,
            White,
            [],
            [
                new InkLine(0, height / 2, 6, height / 2, 0.25, PhotoWords.Dark),
                new InkLine(width - 6, height / 2, width, height / 2, 0.25, PhotoWords.Dark),
            ],
            [],
            [
                new TypeRun(
                    Typeface.SansStrong,
                    size,
                    (width - wide) / 2,
                    (height * 0.75) + (size * 0.35),
                    insert.Words,
                    PhotoWords.Dark
                ),
            ],
            null
        );
    }
}
