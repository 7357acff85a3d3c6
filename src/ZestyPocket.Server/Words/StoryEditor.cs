using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Stories and the cards they flow over. A story that changes is set anew on its cards in the same edit, so its words
/// and its cards never disagree.
/// </summary>
public sealed class StoryEditor(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    History history,
    FontShelf fonts,
    ICurrentKeeper keeper,
    IClock clock,
    StoryFitting fitting
)
{
    public const int MostCards = 40;

    public async Task<StoryAnswer> MakeAsync(Guid albumId, NewStoryRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var story = await NewAsync(album.Id, cancel);
        await AddAsync(
            story,
            s =>
                Change(
                    s,
                    new WriteStoryRequest(
                        0,
                        request.Words,
                        request.Title,
                        request.Days ?? [],
                        request.Theme,
                        request.Author,
                        request.People ?? []
                    )
                ),
            cancel
        );
        return await SaveAsync(album, "Wrote a story", story, [], cancel);
    }

    public async Task<StoryAnswer> WriteAsync(Guid id, WriteStoryRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var (album, story) = await RequireAsync(id, cancel);
        var done =
            request is { Days: { } days } && request.Words is null
                ? days.Count == 0
                    ? "Took a story from its day"
                    : "Moved a story to its day"
                : "Wrote on a story";
        await history.RequireAsync(story, request.Revision, done, cancel);
        history.Touch(story);
        Change(story, request);
        var told = request.Words is null ? [] : await fitting.FitAgainAsync(story, cancel);
        return await SaveAsync(album, done, story, told, cancel);
    }

    public async Task<StoryAnswer> SplitAsync(Guid id, SplitStoryRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var (album, story) = await RequireAsync(id, cancel);
        await history.RequireAsync(story, request.Revision, "Parted a story", cancel);
        if (
            request.At <= 0
            || request.At >= story.Words.Length
            || story.Words[..request.At].Trim().Length == 0
            || story.Words[request.At..].Trim().Length == 0
        )
        {
            throw new RuleException(
                "A story is parted between two of its words. Nothing was changed: put the cursor there."
            );
        }

        var (first, second) = (story.Words[..request.At].TrimEnd(), story.Words[request.At..].TrimStart());
        var rest = await NewAsync(album.Id, cancel);
        await AddAsync(
            rest,
            s =>
            {
                (s.Words, s.Theme, s.Author) = (second, story.Theme, story.Author);
                (s.Days, s.People, s.Pictures) = ([.. story.Days], [.. story.People], []);
            },
            cancel
        );
        history.Touch(story);
        story.Words = first;
        return await SaveAsync(album, "Parted a story", rest, await fitting.FitAgainAsync(story, cancel), cancel);
    }

    public async Task<StoryAnswer> MergeAsync(Guid id, MergeStoryRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var (album, story) = await RequireAsync(id, cancel);
        await history.RequireAsync(story, request.Revision, "Joined two stories", cancel);
        var (_, other) = await RequireAsync(request.OtherId, cancel);
        if (other.AlbumId != story.AlbumId || other.Id == story.Id)
        {
            throw new RuleException("A story is joined with another one of its album. Nothing was changed.");
        }

        history.Touch(story, other);
        story.Words = CheckedWords($"{story.Words.TrimEnd()}\n\n{other.Words.TrimStart()}");
        story.Days = [.. story.Days.Union(other.Days).Order()];
        story.People = [.. story.People.Union(other.People)];
        story.Pictures = [.. story.Pictures.Union(other.Pictures)];
        other.Gone = true;
        var told = await fitting.FitAgainAsync(story, cancel);
        told.AddRange(await TakeOffCardsAsync(other, cancel));
        return await SaveAsync(album, "Joined two stories", story, told, cancel);
    }

    /// <summary>Two stories change places in the order in which they are told.</summary>
    public async Task<StoryAnswer> SwapAsync(Guid id, SwapStoriesRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var (album, story) = await RequireAsync(id, cancel);
        await history.RequireAsync(story, request.Revision, "Moved a story", cancel);
        var (_, other) = await RequireAsync(request.OtherId, cancel);
        if (other.AlbumId != story.AlbumId)
        {
            throw new RuleException("A story changes places with another one of its album. Nothing was changed.");
        }

        history.Touch(story, other);
        (story.Ordinal, other.Ordinal) = (other.Ordinal, story.Ordinal);
        return await SaveAsync(album, "Moved a story", story, [], cancel);
    }

    public async Task<StoryAnswer> ThrowAwayAsync(Guid id, int revision, CancellationToken cancel)
    {
        var (album, story) = await RequireAsync(id, cancel);
        await history.RequireAsync(story, revision, "Threw a story away", cancel);
        history.Touch(story);
        story.Gone = true;
        return await SaveAsync(album, "Threw a story away", story, await TakeOffCardsAsync(story, cancel), cancel);
    }

    /// <summary>
    /// Sets a story on cards of a unit: as many as asked for, in one size, the last as full as the others.
    /// </summary>
    public async Task<StoryAnswer> SetAsync(
        Guid unitId,
        Guid storyId,
        SetStoryRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        var (album, story) = await RequireAsync(storyId, cancel);
        var open = await opener.OpenAsync(unitId, cancel);
        await history.RequireAsync(open.Unit, request.Revision, "Set a story on cards", cancel);
        if (request.Cards is < 1 or > MostCards || open.Album.Id != album.Id)
        {
            throw new RuleException($"A story is set on 1 to {MostCards} cards of its album. Nothing was changed.");
        }

        if (string.IsNullOrWhiteSpace(story.Words))
        {
            throw new RuleException("This story has no words yet. Nothing was changed: write it first.");
        }

        var style =
            request.StyleKey is { } key && open.Words.Style(key, CardKind.Journaling) is { } found
                ? found.Key == key
                    ? key
                    : throw new RuleException($"There is no card style “{key}” for words. Nothing was changed.")
                : null;
        history.Touch(open.Unit);
        var (content, over) = StoryOnCards.Over(
            open.Desk,
            StoryFitting.TextOf(story),
            request.Cards,
            fitting.Tools,
            style,
            request.ByHand
        );
        open.Unit.Write(content);
        var told =
            over > 0
                ? new List<string>
                {
                    $"{over} {(over == 1 ? "word has" : "words have")} no room on them: take more cards or larger "
                        + "pockets",
                }
                : [];
        var answer = await SaveAsync(
            album,
            $"Set a story on {NumberWords.Of(request.Cards)} {(request.Cards == 1 ? "card" : "cards")}",
            story,
            [unitId],
            cancel
        );
        return answer with { Moved = told };
    }

    /// <summary>
    /// Lets words that are too many for their card flow on: they become a story, and its cards are as many as they
    /// need.
    /// </summary>
    public async Task<StoryAnswer> FlowOnAsync(Guid unitId, Guid pieceId, int revision, CancellationToken cancel)
    {
        var open = await opener.OpenAsync(unitId, cancel);
        await history.RequireAsync(open.Unit, revision, "Let words flow on", cancel);
        if (
            open.Content.Find(pieceId)
                is not Card { StoryId: null, Kind: CardKind.Journaling or CardKind.Incident or CardKind.Why } card
            || string.IsNullOrWhiteSpace(card.Words)
        )
        {
            throw new RuleException(
                "Written words of a journaling card can flow on to another; these cannot. Nothing was changed."
            );
        }

        var story = await NewAsync(open.Album.Id, cancel);
        await AddAsync(story, s => (s.Words, s.Days) = (card.Words, [card.Day ?? open.Dates.First]), cancel);
        history.Touch(open.Unit);
        var setting = card.Setting ?? CardSetting.AsTheStyle;
        var style = PieceFaces.StyleOf(open, card);
        var cut = open.CutSizeOf(card);
        var cards = setting.ByHand
            ? (int)
                Math.Ceiling(
                    Copyfit.CountWords(card.Words)
                        / (double)Math.Max(1, CardComposer.HandRoom(style, cut, open.Words.Hand).Words)
                )
            : StoryFlow.Needed(card.Words, style, cut, style.Type.SmallestPt, fonts).Cards;
        var carrying = open.Content.Carry(card.Id, story.Id, card.Words, card.StyleKey, setting);
        var count = Math.Clamp(cards, 2, MostCards);
        var desk = (open with { Content = carrying }).Desk;
        open.Unit.Write(StoryOnCards.Over(desk, StoryFitting.TextOf(story), count, fitting.Tools).Content);
        return await SaveAsync(
            open.Album,
            $"Let words flow over {NumberWords.Of(count)} cards",
            story,
            [unitId],
            cancel
        );
    }

    /// <summary>Takes the stories of a file in; posts that are here already are passed over.</summary>
    public async Task<StoriesArrived> ArriveAsync(
        Guid albumId,
        IReadOnlyList<ArrivedStory> arrived,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(arrived);
        var album = await albums.RequireAsync(albumId, cancel);
        var sources = arrived.Select(a => a.Source).OfType<string>().ToList();
        var known = await db
            .Stories.IgnoreQueryFilters()
            .Where(s => s.AlbumId == albumId && s.Source != null && sources.Contains(s.Source))
            .ToDictionaryAsync(s => s.Source!, cancel);
        var written = await db
            .Stories.Where(s => s.AlbumId == albumId && s.Source == null)
            .Select(s => new { s.Words, s.Days })
            .ToListAsync(cancel);
        // The same words on another day are another story.
        var plain = written
            .SelectMany(s =>
                s.Days.Count == 0 ? [(s.Words, (LocalDate?)null)] : s.Days.Select(d => (s.Words, (LocalDate?)d))
            )
            .ToHashSet();
        var (added, passed, withoutDay) = (0, 0, 0);
        var named = new List<string>();
        foreach (var one in arrived)
        {
            if (
                one.Source is null
                    ? !plain.Add((one.Words, one.Day))
                    : known.TryGetValue(one.Source, out var here) && !here.Gone
            )
            {
                passed++;
                continue;
            }

            added++;
            withoutDay += one.Day is null ? 1 : 0;
            named.AddRange(one.Pictures);
            if (one.Source is not null && known.TryGetValue(one.Source, out var gone))
            {
                // Thrown away before and brought again: it comes back.
                history.Touch(gone);
                gone.Gone = false;
                continue;
            }

            var story = await NewAsync(albumId, cancel);
            story.Source = one.Source;
            await AddAsync(
                story,
                s =>
                {
                    (s.Title, s.Words, s.Author) = (one.Title, CheckedWords(one.Words), one.Author);
                    (s.Days, s.Pictures) = (one.Day is { } day ? [day] : [], [.. one.Pictures]);
                },
                cancel
            );
            if (one.Source is not null)
            {
                known[one.Source] = story;
            }
        }

        var edit = await history.SaveAsync(
            albumId,
            keeper.Id,
            $"Took {Stories(added)} in",
            await UnitsOfAsync(album, [], cancel),
            cancel
        );
        var names = named.Distinct().ToList();
        var found = (await StoryPictures.FindAsync(db, albumId, names, cancel)).Select(f => f.Key).ToList();
        var done =
            added == 0
                ? "Nothing new: every post was here already"
                : $"Took {Stories(added)} in" + (passed > 0 ? $"; {passed} were here already" : string.Empty);
        return new StoriesArrived(
            done,
            edit,
            added,
            passed,
            withoutDay,
            found.Count,
            [.. names.Except(found).Take(100)]
        );
    }

    private static string Stories(int count) => $"{count:N0} {(count == 1 ? "story" : "stories")}";

    /// <summary>A new row counts as gone until it is filled, so that undoing its making takes it away.</summary>
    private async Task<Story> NewAsync(Guid albumId, CancellationToken cancel)
    {
        var last = await db.Stories.Where(s => s.AlbumId == albumId).MaxAsync(s => (int?)s.Ordinal, cancel) ?? 0;
        var tracked = db
            .ChangeTracker.Entries<Story>()
            .Where(e => e.Entity.AlbumId == albumId)
            .Select(e => e.Entity.Ordinal)
            .DefaultIfEmpty(0)
            .Max();
        return new Story
        {
            Id = Guid.CreateVersion7(),
            AlbumId = albumId,
            MadeAt = clock.GetCurrentInstant(),
            Ordinal = Math.Max(last, tracked) + 1,
            Gone = true,
        };
    }

    private async Task AddAsync(Story story, Action<Story> fill, CancellationToken cancel)
    {
        await db.Stories.AddAsync(story, cancel);
        history.Touch(story);
        fill(story);
        story.Gone = false;
    }

    private static void Change(Story story, WriteStoryRequest request)
    {
        if (request.Words is { } words)
        {
            story.Words = CheckedWords(words);
        }

        story.Title = Short(request.Title ?? story.Title, 200, "title");
        story.Theme = Short(request.Theme ?? story.Theme, 120, "theme");
        story.Author = Short(request.Author ?? story.Author, 80, "author");
        if (request.Days is { } days)
        {
            story.Days =
                days.Count <= 400 && days.All(d => d.Year is >= 1800 and <= 2200)
                    ? [.. days.Distinct().Order()]
                    : throw new RuleException(
                        "A story tells of 400 days at most, between 1800 and 2200. Nothing was changed."
                    );
        }

        if (request.People is { } people)
        {
            story.People =
                people.Count <= 60
                    ? [.. people.Select(p => Short(p, 80, "name")).Where(p => p.Length > 0).Distinct()]
                    : throw new RuleException("A story tells of 60 people at most. Nothing was changed.");
        }
    }

    private static string CheckedWords(string words)
    {
        var clean = PlainWords.Clean(words);
        return clean.Length <= Story.LongestWords
            ? clean
            : throw new RuleException(
                $"A story has {Story.LongestWords:N0} characters at most; this one has {clean.Length:N0}. Nothing "
                    + "was changed: split it."
            );
    }

    private static string Short(string text, int most, string what) =>
        PlainWords.Name(text) is { } trimmed && trimmed.Length <= most
            ? trimmed
            : throw new RuleException($"The {what} has {most} characters at most. Nothing was changed.");

    private async Task<(Album Album, Story Story)> RequireAsync(Guid id, CancellationToken cancel)
    {
        var story =
            await db.Stories.SingleOrDefaultAsync(s => s.Id == id, cancel) ?? throw new MissingException("The story");
        return (await albums.RequireAsync(story.AlbumId, cancel), story);
    }

    private async Task<List<Guid>> TakeOffCardsAsync(Story story, CancellationToken cancel)
    {
        var units = await fitting.UnitsWithAsync(story, cancel);
        foreach (var unit in await db.Units.Where(u => units.Contains(u.Id)).ToListAsync(cancel))
        {
            history.Touch(unit);
            var content = unit.Read();
            unit.Write(content.CardsOf(story.Id).Aggregate(content, (left, card) => left.Discard(card.Id)));
        }

        return units;
    }

    private async Task<StoryAnswer> SaveAsync(
        Album album,
        string done,
        Story story,
        IEnumerable<Guid> units,
        CancellationToken cancel
    )
    {
        var edit = await history.SaveAsync(
            album.Id,
            keeper.Id,
            done,
            await UnitsOfAsync(album, story.Days, cancel, units),
            cancel
        );
        return new StoryAnswer(done, edit, story.Id, []);
    }

    /// <summary>The units whose history an edit belongs to: those of its days and those whose cards changed.</summary>
    private async Task<IEnumerable<Guid>> UnitsOfAsync(
        Album album,
        IReadOnlyList<LocalDate> days,
        CancellationToken cancel,
        IEnumerable<Guid>? changed = null
    )
    {
        var albumDays = await PhotoDays.ReadAsync(db, album, cancel);
        return albumDays
            .Units.Where(u => days.Any(d => d >= u.Dates.First && d <= u.Dates.Last))
            .Select(u => u.Id)
            .Union(changed ?? []);
    }
}

/// <summary>Says how much room words need.</summary>
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
                ?? throw new MissingException("That part of the album");
            content = unit.Read();
            stories = stories.FindAll(s =>
                s.Days.Exists(d => d >= unit.FirstDay && d <= unit.LastDay) || !content.CardsOf(s.Id).IsEmpty
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
                    s.Days.Count == 0 ? null
                        : s.Days.Count == 1 ? SpanLabel.Day(s.Days[0], calendar.Style.Order)
                        : SpanLabel.Of(s.Days[0], s.Days[^1], calendar.Style.Order),
                    s.Days.Count == 0
                        ? null
                        : days
                            .Units.Where(u => s.Days[0] >= u.Dates.First && s.Days[0] <= u.Dates.Last)
                            .Select(u => (Guid?)u.Id)
                            .FirstOrDefault(),
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
    public async Task<StoryRoom> RoomAsync(Guid unitId, string words, string? styleKey, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(words);
        if (words.Length > Story.LongestWords)
        {
            throw new RuleException($"A story has {Story.LongestWords:N0} characters at most. Split it.");
        }

        var open = await opener.OpenAsync(unitId, cancel);
        var text = PlainWords.Clean(words).Trim();
        var style = (
            styleKey is null
                ? open.Words.NewStyle(CardKind.Journaling)
                : open.Words.Style(styleKey, CardKind.Journaling)
        ).WithoutPicture();
        var cuts = open
            .Pockets.GroupBy(p => (p.Pocket.Nominal, Cut: p.Face.Protector.CutSize(p.Pocket)))
            .Select(g => (g.Key.Nominal, g.Key.Cut, Count: g.Count()))
            .OrderBy(g => g.Cut.SquareInches)
            .ToList();
        var typed = cuts.ConvertAll(c => Typed(c.Nominal, c.Cut, c.Count, "card", TypeRange.ComfortableOnCardsPt));
        var body = new Size(open.Album.BodyWidth, open.Album.BodyHeight);
        typed.Add(Typed(body, body, 0, "page", TypeRange.ComfortableOnPagesPt));
        var hand = open.Words.Hand;
        var count = Copyfit.CountWords(text);
        var byHand = cuts.Select(c =>
            {
                var (lines, holds) = CardComposer.HandRoom(style, c.Cut, hand);
                var cards = holds == 0 ? 0 : Math.Max(1, (count + holds - 1) / holds);
                return new RoomView(
                    $"{Cards(cards, c.Nominal, "card", open.Album.Measures)} of {NumberWords.Counted(lines, "line")}",
                    MeasureText.Show(c.Nominal, open.Album.Measures),
                    cards,
                    0,
                    c.Count
                );
            })
            .Where(r => r.Cards > 0)
            .ToList();
        var usable = typed.OfType<RoomView>().ToList();
        // The fewest cards first; of equally few the smaller.
        var best = usable.Where(r => r.InAlbum > 0).OrderBy(r => r.Cards).FirstOrDefault();
        var page = usable.Find(r => r.InAlbum == 0);
        var summary = string.Join(", or ", new[] { best?.Label, page?.Label }.OfType<string>());
        return new StoryRoom(
            count,
            count == 0
                ? "No words yet."
                : $"{count.ToString("N0", CultureInfo.InvariantCulture)} {(count == 1 ? "word" : "words")}: {summary}.",
            usable,
            byHand
        );

        RoomView? Typed(Size nominal, Size cut, int inAlbum, string what, double comfortable)
        {
            var (cards, size) = StoryFlow.Needed(text, style, cut, comfortable, fonts);
            return cards == 0 || size == 0
                ? null
                : new RoomView(
                    $"{Cards(cards, nominal, what, open.Album.Measures)} at "
                        + $"{size.ToString("0.##", CultureInfo.InvariantCulture)} pt",
                    MeasureText.Show(nominal, open.Album.Measures),
                    cards,
                    size,
                    inAlbum
                );
        }
    }

    private static string Cards(int count, Size size, string what, MeasureSystem system) =>
        $"{NumberWords.Of(count)} {MeasureText.Show(size, system)} {what}{(count == 1 ? string.Empty : "s")}";
}
