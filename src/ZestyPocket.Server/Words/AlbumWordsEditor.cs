using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Changes what an album knows about its words. What follows from it (stories on cards of a changed style, or written
/// by a hand measured anew) is set anew in the same edit.
/// </summary>
public sealed class AlbumWordsEditor(
    ZestyContext db,
    AlbumReader albums,
    StoryEditor stories,
    History history,
    ICurrentKeeper keeper
)
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
                .. BuiltInCardStyles.All.Select(s => StyleView.Of(s, own: false)),
                .. words.OwnStyles.Select(s => StyleView.Of(s, own: true)),
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
            ]
        );
    }

    public Task<WordsAnswer> ChangeAsync(Guid albumId, ChangeAlbumWords request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        return SaveAsync(
            albumId,
            request.Revision,
            Said(request),
            words =>
                words with
                {
                    People = request.People is { } people
                        ? [.. people.Select(p => new AlbumPerson(p.Name, p.Born))]
                        : words.People,
                    KnownWords = request.KnownWords is { } known
                        ? [.. known.Select(w => w.Trim()).Distinct()]
                        : words.KnownWords,
                    PassedOver = request.PassedOver is { } passed ? [.. passed.Distinct()] : words.PassedOver,
                    School = request.School ?? words.School,
                    Family = request.Family ?? words.Family,
                    Hand = request.UsualHand == true ? HandCapacity.Usual : request.Hand?.Measured() ?? words.Hand,
                },
            cancel
        );
    }

    /// <summary>
    /// Makes a style when the key is unknown or that of a style that ships, else changes the keeper's own.
    /// </summary>
    public async Task<WordsAnswer> WriteStyleAsync(Guid albumId, WriteStyleRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var own = (await albums.RequireAsync(albumId, cancel))
            .ReadWords()
            .OwnStyles.Any(s => s.Key == request.Style.Key);
        var style = request.Style.ToStyle(own ? request.Style.Key : $"own-{Guid.CreateVersion7():N}");
        var answer = await SaveAsync(
            albumId,
            request.Revision,
            own ? $"Changed the card style {style.Name}" : $"Made the card style {style.Name}",
            words =>
            {
                var old = words.OwnStyles.FirstOrDefault(s => s.Key == style.Key);
                return old is not null && old.Role != style.Role
                    ? throw new RuleException(
                        "What a style carries stays as it is, since cards have it already. Nothing was changed: "
                            + "make a new style."
                    )
                    : words with
                    {
                        OwnStyles = old is null ? words.OwnStyles.Add(style) : words.OwnStyles.Replace(old, style),
                    };
            },
            cancel
        );
        return answer with { Key = style.Key };
    }

    public Task<WordsAnswer> ThrowStyleAwayAsync(Guid albumId, string key, int revision, CancellationToken cancel) =>
        SaveAsync(
            albumId,
            revision,
            "Threw a card style away; its cards take another of its family",
            words =>
            {
                var own =
                    words.OwnStyles.FirstOrDefault(s => s.Key == key)
                    ?? throw new RuleException("Only a style of your own can be thrown away. Nothing was changed.");
                var left = words with { OwnStyles = words.OwnStyles.Remove(own) };
                return left.Styles.Any(s => s.Family == words.Family)
                    ? left
                    : left with
                    {
                        Family = AlbumWords.Usual.Family,
                    };
            },
            cancel
        );

    public Task<WordsAnswer> WriteSheetAsync(
        Guid albumId,
        Guid? id,
        WriteSheetRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        var sheet = AlphaSheet.Read(request.Letters, request.Reusable);
        return SaveAsync(
            albumId,
            request.Revision,
            id is null
                ? $"Added the letters {PlainWords.Name(request.Name)}"
                : $"Counted the letters {PlainWords.Name(request.Name)} anew",
            words =>
            {
                var old = id is null ? null : Sheet(words, id.Value);
                return words with
                {
                    Sheets = old is null
                        ? words.Sheets.Add(
                            new OwnedSheet(Guid.CreateVersion7(), PlainWords.Name(request.Name), sheet, [])
                        )
                        : words.Sheets.Replace(old, old with { Name = PlainWords.Name(request.Name), Sheet = sheet }),
                };
            },
            cancel
        );
    }

    public Task<WordsAnswer> ThrowSheetAwayAsync(Guid albumId, Guid id, int revision, CancellationToken cancel) =>
        SaveAsync(
            albumId,
            revision,
            "Took a sheet of letters away",
            words => words with { Sheets = words.Sheets.Remove(Sheet(words, id)) },
            cancel
        );

    /// <summary>Spells a title from a sheet: its letters are used up.</summary>
    public Task<WordsAnswer> SpellAsync(Guid albumId, Guid id, SpellRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (string.IsNullOrWhiteSpace(request.Title) || request.Title.Length > 120)
        {
            throw new RuleException("A title has 1 to 120 characters. Nothing was used.");
        }

        return SaveAsync(
            albumId,
            request.Revision,
            $"Spelt “{request.Title.Trim()}”",
            words =>
            {
                var sheet = Sheet(words, id);
                _ = sheet.Left().After(request.Title);
                return words with
                {
                    Sheets = words.Sheets.Replace(
                        sheet,
                        sheet with
                        {
                            Spelt = sheet.Spelt.Add(
                                new SpeltTitle(Guid.CreateVersion7(), request.Title.Trim(), request.Day)
                            ),
                        }
                    ),
                };
            },
            cancel
        );
    }

    /// <summary>A title was not spelt after all: its letters are back on the sheet.</summary>
    public Task<WordsAnswer> UnspellAsync(
        Guid albumId,
        Guid id,
        Guid titleId,
        int revision,
        CancellationToken cancel
    ) =>
        SaveAsync(
            albumId,
            revision,
            "Put letters back on their sheet",
            words =>
            {
                var sheet = Sheet(words, id);
                return words with
                {
                    Sheets = words.Sheets.Replace(
                        sheet,
                        sheet with
                        {
                            Spelt = sheet.Spelt.RemoveAll(t => t.Id == titleId),
                        }
                    ),
                };
            },
            cancel
        );

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

    private async Task<WordsAnswer> SaveAsync(
        Guid albumId,
        int revision,
        string done,
        Func<AlbumWords, AlbumWords> change,
        CancellationToken cancel
    )
    {
        var album = await albums.RequireAsync(albumId, cancel);
        await history.RequireAsync(album, revision, done, cancel);
        var before = album.ReadWords();
        var after = change(before).Checked();
        history.Touch(album);
        album.WriteWords(after);

        // Styles that look different now, and a hand that writes differently, move words from card to card.
        var styles = before.OwnStyles.Except(after.OwnStyles).Select(s => s.Key).ToList();
        var units =
            styles.Count > 0 || before.Hand != after.Hand
                ? await ReflowAsync(album, styles, before.Hand != after.Hand, cancel)
                : [];
        return new WordsAnswer(done, await history.SaveAsync(albumId, keeper.Id, done, units, cancel));
    }

    private async Task<IReadOnlyList<Guid>> ReflowAsync(
        Album album,
        List<string> styles,
        bool hand,
        CancellationToken cancel
    )
    {
        var told = new HashSet<Guid>();
        var carrying = JsonSerializer.Serialize(new { pieces = new[] { new { piece = "card" } } });
        foreach (
            var unit in await db
                .Units.AsNoTracking()
                .Where(u => u.AlbumId == album.Id && EF.Functions.JsonContains(u.Content, carrying))
                .ToListAsync(cancel)
        )
        {
            told.UnionWith(
                unit.Read()
                    .Pieces.OfType<Core.Placing.Card>()
                    .Where(c =>
                        c.StoryId is not null
                        && (styles.Contains(c.StyleKey) || (hand && c.Setting is { ByHand: true }))
                    )
                    .Select(c => c.StoryId!.Value)
            );
        }

        return await stories.FlowAnewAsync(told, cancel);
    }

    private static OwnedSheet Sheet(AlbumWords words, Guid id) =>
        words.Sheets.FirstOrDefault(s => s.Id == id) ?? throw new MissingException("The sheet of letters");

    private static string Said(ChangeAlbumWords request) =>
        request switch
        {
            { People: { } people } => people.Count == 1 ? "Named one person" : $"Named {people.Count} people",
            { KnownWords: { } known } => known.Count == 1 ? "Learned a word" : $"Knows {known.Count} words of its own",
            { PassedOver: not null } => "Passes over a finding from now on",
            { School: StorySchool.ByTheme } => "Tells its stories by theme",
            { School: StorySchool.ByDay } => "Tells its stories by day",
            { Family: { } family } => $"New cards are of the family {family}",
            { Hand: not null } => "Measured your hand",
            { UsualHand: true } => "Took the usual hand",
            _ => throw new RuleException("That change lacks something it needs. Nothing was changed."),
        };
}
