using System.Globalization;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Keeping;

/// <summary>Draws the title page of an album or of one of its volumes, as large as its page body.</summary>
public sealed class TitlePages(
    AlbumReader albums,
    UnitOpener opener,
    FontShelf fonts,
    PiecePainter painter,
    PaintingBench bench
)
{
    private const double PreviewPixelsPerInch = 60;

    public async Task<byte[]> PdfAsync(Guid albumId, int volume, CancellationToken cancel)
    {
        var (name, size, face) = await FaceAsync(albumId, volume, cancel);
        return await bench.RunAsync(
            () =>
                PdfFile.Bytes(
                    name,
                    [
                        new PdfPage(
                            size.Width.Points,
                            size.Height.Points,
                            canvas => painter.Draw(canvas, new CardPieceFace(size, face), 300)
                        ),
                    ]
                ),
            cancel
        );
    }

    public async Task<byte[]> PngAsync(Guid albumId, int volume, CancellationToken cancel)
    {
        var (_, size, face) = await FaceAsync(albumId, volume, cancel);
        return await bench.RunAsync(
            () =>
                Raster.Png(
                    size.Width.Points,
                    size.Height.Points,
                    PreviewPixelsPerInch,
                    canvas => painter.Draw(canvas, new CardPieceFace(size, face), PreviewPixelsPerInch)
                ),
            cancel
        );
    }

    private async Task<(string Name, Size Size, CardFace Face)> FaceAsync(
        Guid albumId,
        int volume,
        CancellationToken cancel
    )
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var open = await opener.OpenAlbumAsync(albumId, cancel);
        var volumes = album.ReadKeeping().VolumesOf(open.Select(u => u.Unit.Id));
        var units = open.Zip(volumes).Where(u => u.Second == volume).Select(u => u.First).ToList();
        if (units.Count == 0)
        {
            throw new RuleException(
                $"The album has {NumberWords.Counted(volumes.DefaultIfEmpty(0).Max(), "volume")}: there is no "
                    + $"volume {volume}."
            );
        }

        var words = album.ReadWords();
        var year = YearNumbers.Of([.. units.Select(YearReader.NumbersOf)], words, album.ReadTrip());
        // A week belongs to the year of its middle (ISO 8601): the first one may begin in December.
        var (from, until) = (
            units.Min(u => MiddleOf(u.Dates.First, u.Dates.Last)).Year,
            units.Max(u => MiddleOf(u.Dates.First, u.Dates.Last)).Year
        );
        var years = string.Create(CultureInfo.InvariantCulture, $"{from}{(from == until ? "" : $" – {until}")}");
        var name = AlbumKeeping.VolumeNames(album.Name, volumes.Max())[volume - 1];
        var large = name.Replace(years, string.Empty, StringComparison.Ordinal).Trim(' ', ',');
        var size = new Size(album.BodyWidth, album.BodyHeight);
        return (
            name,
            size,
            TitlePage.Of(
                large.Length > 0 ? large : years,
                years,
                [.. year.Lines(YearReader.NameOf(album.ReadCalendar().Kind), album.Measures)],
                [.. year.Colours.Select(c => (c.Colour, c.Share))],
                words.NewStyle(CardKind.WeekTitle),
                size,
                fonts
            )
        );

        static LocalDate MiddleOf(LocalDate first, LocalDate last) =>
            first.PlusDays(Period.DaysBetween(first, last) / 2);
    }
}
