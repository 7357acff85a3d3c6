using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping;

/// <summary>A colour of the year and its share in hundredths.</summary>
public sealed record YearColourView(string Hex, int Percent);

/// <summary>What a year of an album came to, and the album that could go on.</summary>
/// <param name="Lines">Its numbers, a line each.</param>
/// <param name="Seen">On how many pictures each person is tagged.</param>
/// <param name="CardWords">The same as words of a card.</param>
/// <param name="LastUnitId">Where a card of the year would lie; null in an album without units.</param>
/// <param name="NextName">What the next album would be called.</param>
/// <param name="NextFirstDay">Its first day in words.</param>
public sealed record YearView(
    IReadOnlyList<string> Lines,
    IReadOnlyList<YearColourView> Colours,
    IReadOnlyList<NamedCount> People,
    IReadOnlyList<NamedCount> Seen,
    string CardWords,
    Guid? LastUnitId,
    string NextName,
    string? NextFirstDay
);

/// <summary>Counts what is in an album.</summary>
public sealed class YearReader(AlbumReader albums, UnitOpener opener)
{
    public async Task<YearView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var open = await opener.OpenAlbumAsync(albumId, cancel);
        var (calendar, words) = (album.ReadCalendar(), album.ReadWords());
        var year = YearNumbers.Of([.. open.Select(NumbersOf)], words, album.ReadTrip());
        var lines = year.Lines(NameOf(calendar.Kind), album.Measures).ToList();
        var last = open.Count == 0 ? null : open[^1];
        return new YearView(
            lines,
            [.. year.Colours.Select(c => new YearColourView(c.Colour.ToString(), (int)Math.Round(100 * c.Share)))],
            year.People,
            year.Seen,
            string.Join('\n', lines.Prepend(album.Name)),
            last?.Unit.Id,
            NextAlbum.NameAfter(album.Name),
            last is null ? null : DayOf(open.Max(u => u.Dates.Last).PlusDays(1), calendar.Style)
        );
    }

    internal static UnitNumbers NumbersOf(OpenUnit unit)
    {
        var written = unit
            .Content.Pieces.OfType<Card>()
            .Where(c => !ComputedCards.IsComputed(c.Kind) && !string.IsNullOrWhiteSpace(c.Words))
            .ToList();
        var placed = unit.Content.PhotosPlaced;
        return new UnitNumbers(
            placed.Count,
            written.Sum(c => Copyfit.CountWords(c.Words)),
            // A story that flows over several cards is one.
            [.. written.GroupBy(c => c.StoryId ?? c.Id).Select(g => string.Join('\n', g.Select(c => c.Words)))],
            [.. placed.Select(unit.PhotoOf).OfType<Photo>().SelectMany(p => Boxes.ReadPalette(p.Palette))]
        )
        {
            Seen = [.. placed.Select(unit.PhotoOf).OfType<Photo>().SelectMany(p => p.People)],
        };
    }

    private static string DayOf(LocalDate day, DateStyle style) => SpanLabel.Of(day, day, style.Order);

    internal static string NameOf(AlbumKind kind) =>
        kind switch
        {
            AlbumKind.Weekly => "week",
            AlbumKind.DocumentedDay => "hour",
            _ => "day",
        };
}
