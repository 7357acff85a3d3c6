using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Core.Words.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Words;

/// <summary>Other people's words: asked for by link, sent by link, taken in as stories by a yes.</summary>
public sealed class Contributions(
    ZestyContext db,
    AlbumReader albums,
    StoryEditor stories,
    ContributorDoor door,
    ShareLog log,
    IPostOffice post,
    IHttpContextAccessor http,
    ZestySettings settings,
    ICurrentKeeper keeper,
    IClock clock
)
{
    /// <summary>A page of words; more is an album of one's own. A choice of this program.</summary>
    private const int LongestWords = 8_000;

    private const int MostPeople = 20;

    private const int MostPhotos = 50;

    private const int MostDays = 90;

    /// <summary>Links of an album that still hold. A choice of this program.</summary>
    private const int MostOpen = 200;

    private const int MostShown = 200;

    public async Task<IReadOnlyList<ContributorLinkView>> AskAsync(
        Guid albumId,
        AskForWords asked,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(asked);
        await albums.RequireAsync(albumId, cancel);
        settings.RequireHousehold();
        var people = asked.People.Select(p => p with { Name = PlainWords.Name(p.Name).Trim() }).ToList();
        var prompt = PlainWords.Clean(asked.Prompt).Trim();
        Check(asked, people, prompt);
        await CheckCardAsync(albumId, asked, cancel);
        var now = clock.GetCurrentInstant();
        if (
            await db.ContributorLinks.CountAsync(
                l => l.AlbumId == albumId && l.RevokedAt == null && l.ExpiresAt > now,
                cancel
            ) + people.Count
            > MostOpen
        )
        {
            throw new RuleException(
                $"{MostOpen} links of this album can be open at once. Nobody was asked: revoke some of them first."
            );
        }

        var (together, made) = (Guid.CreateVersion7(), new List<ContributorLinkView>());
        foreach (var person in people)
        {
            var secret = LinkSecret.New();
            var link = new ContributorLink
            {
                Id = Guid.CreateVersion7(),
                AlbumId = albumId,
                Hash = LinkSecret.HashOf(secret),
                AskedTogether = together,
                Ordinal = made.Count,
                Person = person.Name,
                Prompt = prompt,
                Day = asked.Day,
                UnitId = asked.UnitId,
                PieceId = asked.PieceId,
                MostPhotos = asked.MostPhotos,
                MadeBy = keeper.Id,
                MadeAt = now,
                ExpiresAt = now + Duration.FromDays(asked.Days),
            };
            db.ContributorLinks.Add(link);
            log.Add(albumId, keeper.Id, $"asked {person.Name} for words");
            made.Add(new ContributorLinkView(link.Id, person.Name, LinkSecret.Path("write", secret), link.ExpiresAt));
        }

        foreach (var (person, link) in people.Zip(made).Where(p => p.First.SendTo is { Length: > 0 }))
        {
            await post.SendAsync(
                new Letter(
                    person.SendTo!,
                    "A question for you",
                    $"Hello {person.Name},\n\n{prompt}\n\nWrite your answer here; you need no account, and a phone is "
                        + $"enough:\n\n{OwnSite.Of(http, asked.Site)}{link.Path}\n"
                ),
                cancel
            );
        }

        await db.SaveChangesAsync(cancel);
        return made;
    }

    /// <summary>What was asked in an album, the newest first, with the answers side by side.</summary>
    public async Task<IReadOnlyList<AskedView>> ListAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var (now, order) = (clock.GetCurrentInstant(), album.ReadCalendar().Style.Order);
        var links = await db
            .ContributorLinks.AsNoTracking()
            .Where(l => l.AlbumId == albumId && (l.SentAt != null || l.RevokedAt == null))
            .OrderByDescending(l => l.MadeAt)
            .ThenBy(l => l.AskedTogether)
            .Take(MostShown)
            .ToListAsync(cancel);
        var told = await ToldAsync(links, cancel);
        return
        [
            .. links
                .GroupBy(l => l.AskedTogether)
                .Select(g => new AskedView(
                    g.Key,
                    g.First().Prompt,
                    g.First().Day is { } day ? SpanLabel.Day(day, order) : null,
                    g.First().PieceId is not null,
                    g.First().MadeAt,
                    [
                        .. g.OrderBy(l => l.Ordinal)
                            .Select(l => new AnswerView(
                                l.Id,
                                l.Person,
                                l.Words,
                                l.SentAt,
                                StateOf(l, told),
                                l.Photos,
                                l.RevokedAt is null && l.ExpiresAt > now,
                                l.ExpiresAt
                            )),
                    ]
                )),
        ];
    }

    /// <summary>Ends a link at once. What was sent with it stays.</summary>
    public async Task RevokeAsync(Guid albumId, Guid linkId, CancellationToken cancel)
    {
        var link = await RequireAsync(albumId, linkId, cancel);
        if (link.RevokedAt is null)
        {
            link.RevokedAt = clock.GetCurrentInstant();
            log.Add(albumId, keeper.Id, $"revoked the link of {link.Person}");
            await db.SaveChangesAsync(cancel);
        }
    }

    /// <summary>
    /// Says yes or no to an answer. A yes makes a story by its author, which is undone like any edit; the answer waits
    /// again then.
    /// </summary>
    public async Task<StoryAnswer> DecideAsync(
        Guid albumId,
        Guid linkId,
        ContributionState state,
        CancellationToken cancel
    )
    {
        var link = await RequireAsync(albumId, linkId, cancel);
        if (string.IsNullOrWhiteSpace(link.Words))
        {
            throw new RuleException("There are no words yet. Nothing was changed: wait until they are sent.");
        }

        var was = StateOf(link, await ToldAsync([link], cancel));
        if (was == ContributionState.Accepted)
        {
            throw new RuleException("A story was made of it already. Nothing was changed: undo that first.");
        }

        if (state != ContributionState.Accepted)
        {
            (link.State, link.StoryId) = (state, null);
            await db.SaveChangesAsync(cancel);
            return new StoryAnswer(
                state == ContributionState.Declined ? "Declined the words" : "The words wait again",
                null,
                null,
                []
            );
        }

        // With a condition and in one transaction with the story: two who say yes at once make one.
        var (sent, before, storyBefore) = (link.SentAt, link.State, link.StoryId);
        return await stories.ApplyAsync(
            albumId,
            await StoryOfAsync(link, cancel),
            cancel,
            async storyId =>
            {
                var claimed = await db
                    .ContributorLinks.Where(l =>
                        l.Id == linkId && l.State == before && l.StoryId == storyBefore && l.SentAt == sent
                    )
                    .ExecuteUpdateAsync(
                        set =>
                            set.SetProperty(l => l.State, ContributionState.Accepted)
                                .SetProperty(l => l.StoryId, storyId),
                        cancel
                    );
                if (claimed == 0)
                {
                    throw new RuleException(
                        "These words were changed or decided on in the meantime. Nothing was changed: look again."
                    );
                }
            }
        );
    }

    /// <summary>What the holder of a link sees.</summary>
    public async Task<ContributionView> SeenAsync(string? secret, CancellationToken cancel) =>
        await ViewAsync(await door.RequireAsync(secret, cancel), cancel);

    /// <summary>Keeps the words of the holder of a link; they may change them until somebody takes them.</summary>
    public async Task<ContributionView> SendAsync(string? secret, string words, CancellationToken cancel)
    {
        var link = await door.RequireAsync(secret, cancel);
        var clean = PlainWords.Clean(words).Trim();
        if (clean.Length is 0 or > LongestWords)
        {
            throw new RuleException($"Write 1 to {LongestWords:N0} characters. Nothing was sent; your words are here.");
        }

        if (StateOf(link, await ToldAsync([link], cancel)) == ContributionState.Accepted)
        {
            throw new RuleException(
                "Your words are in the album already. Nothing was changed: tell whoever asked you."
            );
        }

        if (link.SentAt is null)
        {
            log.Add(link.AlbumId, null, $"{link.Person} sent words");
        }

        // With a condition: words that are being taken over are not changed under the hand of whoever takes them.
        var (state, story, now) = (link.State, link.StoryId, clock.GetCurrentInstant());
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var kept = await db
            .ContributorLinks.Where(l => l.Id == link.Id && l.State == state && l.StoryId == story)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(l => l.Words, clean)
                        .SetProperty(l => l.SentAt, now)
                        .SetProperty(l => l.State, ContributionState.Waiting),
                cancel
            );
        if (kept == 0)
        {
            throw new RuleException("Your words are being taken over just now. Nothing was changed: look again.");
        }

        await db.SaveChangesAsync(cancel);
        await AlbumNews.TellAsync(db, link.AlbumId, NewsKind.Words, [], cancel);
        await transaction.CommitAsync(cancel);
        await db.Entry(link).ReloadAsync(cancel);
        return await ViewAsync(link, cancel);
    }

    private async Task<ContributionView> ViewAsync(ContributorLink link, CancellationToken cancel)
    {
        var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == link.AlbumId, cancel);
        return new ContributionView(
            link.Person,
            await db.Keepers.Where(k => k.Id == link.MadeBy).Select(k => k.Name).SingleAsync(cancel),
            link.Prompt,
            link.Day is { } day ? SpanLabel.Day(day, album.ReadCalendar().Style.Order) : null,
            link.Words ?? string.Empty,
            link.SentAt is not null,
            StateOf(link, await ToldAsync([link], cancel)) == ContributionState.Accepted,
            link.Photos,
            link.MostPhotos,
            LongestWords,
            link.ExpiresAt
        );
    }

    private async Task<ContributorLink> RequireAsync(Guid albumId, Guid linkId, CancellationToken cancel)
    {
        await albums.RequireAsync(albumId, cancel);
        return await db.ContributorLinks.SingleOrDefaultAsync(l => l.Id == linkId && l.AlbumId == albumId, cancel)
            ?? throw new MissingException("That answer");
    }

    private async Task<StoryEdit> StoryOfAsync(ContributorLink link, CancellationToken cancel)
    {
        if (link is { UnitId: { } unitId, PieceId: { } pieceId })
        {
            var revision = await db
                .Units.Where(u => u.Id == unitId && u.AlbumId == link.AlbumId)
                .Select(u => (int?)u.Revision)
                .SingleOrDefaultAsync(cancel);
            if (revision is { } seen)
            {
                return new NewStoryOnCard(pieceId, link.Words!, link.Person) { UnitId = unitId, Revision = seen };
            }
        }

        return new NewStory(link.Words!, Days: link.Day is { } day ? [day] : [], Author: link.Person);
    }

    /// <summary>The stories of these links that are there, undone ones not.</summary>
    private async Task<HashSet<Guid>> ToldAsync(IReadOnlyCollection<ContributorLink> links, CancellationToken cancel)
    {
        var ids = links.Where(l => l.StoryId is not null).Select(l => l.StoryId!.Value).ToList();
        return ids.Count == 0
            ? []
            : [.. await db.Stories.Where(s => ids.Contains(s.Id)).Select(s => s.Id).ToListAsync(cancel)];
    }

    private static ContributionState StateOf(ContributorLink link, HashSet<Guid> told) =>
        link.State == ContributionState.Accepted && !(link.StoryId is { } story && told.Contains(story))
            ? ContributionState.Waiting
            : link.State;

    private static void Check(AskForWords asked, List<AskedPerson> people, string prompt)
    {
        if (
            people.Count is 0 or > MostPeople
            || people.Exists(p => p.Name.Length is 0 or > ContributorLink.LongestPerson)
        )
        {
            throw new RuleException(
                $"Ask 1 to {MostPeople} people, each by a name of up to {ContributorLink.LongestPerson} characters. "
                    + "Nobody was asked."
            );
        }

        if (prompt.Length is 0 or > ContributorLink.LongestPrompt)
        {
            throw new RuleException(
                $"A question has 1 to {ContributorLink.LongestPrompt} characters. Nobody was asked."
            );
        }

        if (asked.MostPhotos is < 0 or > MostPhotos || asked.Days is < 1 or > MostDays)
        {
            throw new RuleException(
                $"A link holds for 1 to {MostDays} days and takes {MostPhotos} photos at most. Nobody was asked."
            );
        }
    }

    private async Task CheckCardAsync(Guid albumId, AskForWords asked, CancellationToken cancel)
    {
        if (asked is { UnitId: null, PieceId: null })
        {
            return;
        }

        var unit = await db
            .Units.AsNoTracking()
            .SingleOrDefaultAsync(u => u.Id == asked.UnitId && u.AlbumId == albumId, cancel);
        if (unit is null || asked.PieceId is not { } piece || unit.Read().Find(piece) is not Card)
        {
            throw new MissingException("That card");
        }
    }
}
