using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Words;

/// <summary>Reads what an album knows about its words.</summary>
public sealed class AlbumWordsReader(ZestyContext db, AlbumReader albums)
{
    public async Task<AlbumWordsView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var words = album.ReadWords();
        var themes = await db
            .Stories.AsNoTracking()
            .Where(s => s.AlbumId == albumId && s.Theme != "")
            .Select(s => s.Theme)
            .Distinct()
            .OrderBy(t => t)
            .ToListAsync(cancel);
        return new AlbumWordsView(
            album.Revision,
            [.. words.People.Select(p => new PersonView(p.Name, p.Born))],
            words.KnownWords,
            words.PassedOver,
            words.School,
            words.Family,
            [
                .. BuiltInCardStyles.All.Select(s => StyleView.Of(s, own: false, words.Offers(s))),
                .. words.OwnStyles.Select(s => StyleView.Of(s, own: true, offered: true)),
            ],
            HandView.Of(words.Hand),
            [
                .. words.Sheets.Select(s => new SheetOfLettersView(
                    s.Id,
                    s.Name,
                    s.Sheet.Reusable,
                    s.Sheet.ToString(),
                    s.Left().ToString(),
                    [.. s.Spelt.Select(t => new SpeltView(t.Id, t.Title, t.Day))]
                )),
            ],
            themes,
            [
                .. album
                    .Protectors.Select(p => p.ToProtector())
                    .SelectMany(p => p.Design.Face(LeafSide.Front).Select(f => p.CutSize(f)))
                    .GroupBy(size => size)
                    .OrderByDescending(g => g.Count())
                    .ThenBy(g => g.Key.SquareInches)
                    .ThenBy(g => g.Key.Width)
                    .Select(g => MeasureText.Show(g.Key, album.Measures)),
            ],
            words.PicturesOn,
            words.CardsOn,
            [.. words.OwnCompositions.Select(c => new KeptCompositionView(c.Key, c.Composition.Name))],
            words.MostColourful,
            words.Inserts.Spine is { } spine ? MeasureText.Show(spine, album.Measures) : null,
            words.Inserts.Cover is { } cover ? MeasureText.Show(cover, album.Measures) : null
        );
    }

    /// <summary>
    /// What the sheets make of a title, and which other titles of the part of the album that holds a day they can
    /// spell.
    /// </summary>
    public async Task<TitleTry> TryTitleAsync(Guid albumId, string title, Guid? unitId, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(title);
        var album = await albums.RequireAsync(albumId, cancel);
        var left = album.ReadWords().Sheets.Select(s => (s.Id, s.Name, Left: s.Left())).ToList();
        var sheets = left.ConvertAll(s =>
        {
            var spelling = s.Left.Try(title);
            return new SpellingView(
                s.Id,
                s.Name,
                spelling.CanBeSpelt,
                [
                    .. spelling.Missing.Select(m =>
                        string.Create(CultureInfo.InvariantCulture, $"{m.Short} × {m.Letter}")
                    ),
                ],
                spelling.CanBeSpelt ? null : s.Left.WithStandIns(title)?.Title
            );
        });
        var unit = unitId is { } id
            ? await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == id && u.AlbumId == albumId, cancel)
            : null;
        var others = unit is null
            ? []
            : TitleIdeas
                .Of(unit.ReadDates(), album.ReadCalendar())
                .Where(t =>
                    !string.Equals(t, title.Trim(), StringComparison.OrdinalIgnoreCase)
                    && left.Exists(s => s.Left.Try(t).CanBeSpelt)
                )
                .Take(6)
                .ToList();
        return new TitleTry(sheets, others);
    }
}
