using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Words;

/// <summary>Reads stories, and says how much room words need.</summary>
public sealed class StoryReader(ZestyContext db, AlbumReader albums, UnitOpener opener, FontShelf fonts)
{
    public async Task<IReadOnlyList<StoryView>> ListAsync(Guid albumId, Guid? unitId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var calendar = album.ReadCalendar();
        var stories = await db.Stories.AsNoTracking().Where(s => s.AlbumId == albumId).ToListAsync(cancel);
        var days = await PhotoDays.ReadAsync(db, album, cancel);
        var content = UnitContent.Empty;
        if (unitId is { } asked)
        {
            var unit =
                await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == asked && u.AlbumId == albumId, cancel)
                ?? throw new MissingException("That week or day");
            content = unit.Read();
            stories = stories.FindAll(s =>
                AlbumStory.IsToldIn(s.Days, s.Hour, unit.ReadDates(), calendar.Waking) || !content.CardsOf(s.Id).IsEmpty
            );
        }

        var names = stories.SelectMany(s => s.Pictures).Distinct().ToList();
        var pictures = await StoryPictures.FindAsync(db, albumId, names, cancel);
        return
        [
            .. stories
                .OrderBy(s => s.Days.Count > 0 ? s.Days[0] : LocalDate.MaxIsoValue)
                .ThenBy(s => s.Ordinal)
                .Select(s => new StoryView(
                    s.Id,
                    s.Revision,
                    s.Title,
                    s.Words,
                    s.Days,
                    s.Hour,
                    s.Days.Count == 0 ? null
                        : s.Days.Count == 1 ? SpanLabel.Day(s.Days[0], calendar.Style.Order)
                        : SpanLabel.Of(s.Days[0], s.Days[^1], calendar.Style.Order),
                    AlbumStory.UnitOf(s.Days, s.Hour, days.Units, calendar.Waking),
                    s.Theme,
                    s.Author,
                    s.People,
                    Copyfit.CountWords(s.Words),
                    content.CardsOf(s.Id).Length,
                    [.. s.Pictures.SelectMany(p => pictures[p])]
                )),
        ];
    }

    /// <summary>
    /// The room that words need in the sizes of pocket a unit has, and as whole pages, typed and by hand.
    /// </summary>
    public async Task<RoomForWords> RoomAsync(Guid unitId, string words, string? styleKey, CancellationToken cancel) =>
        RoomForWords.In((await opener.OpenAsync(unitId, cancel)).Desk, words, styleKey, fonts);
}
