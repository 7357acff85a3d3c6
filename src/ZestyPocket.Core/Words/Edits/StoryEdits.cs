using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;

namespace ZestyPocket.Core.Words.Edits;

/// <summary>What lies before an edit of stories.</summary>
/// <param name="Stories">Those it asks for and that are there.</param>
/// <param name="LastOrdinal">The last place among the album's stories.</param>
/// <param name="Unit">The unit whose cards it works on; null when it works on none.</param>
public sealed record StoryDesk(ImmutableArray<AlbumStory> Stories, int LastOrdinal, UnitDesk? Unit)
{
    public AlbumStory Require(Guid id) =>
        Stories.FirstOrDefault(s => s.Id == id)
        ?? throw new RuleException("That story is not here any more. Nothing was changed.");

    public UnitDesk RequireUnit() =>
        Unit ?? throw new RuleException("That week or day is not here any more. Nothing was changed.");
}

/// <summary>What an edit has made of stories.</summary>
/// <param name="Stories">The new ones and those that were changed. Their cards follow, wherever they lie.</param>
/// <param name="Done">What was done, for the history and the keeper.</param>
/// <param name="StoryId">The story in hand afterwards.</param>
public sealed record StoriesEdited(ImmutableArray<AlbumStory> Stories, string Done, Guid StoryId)
{
    /// <summary>The content of the unit whose cards it worked on; null when it worked on none.</summary>
    public UnitContent? Content { get; init; }

    /// <summary>What else there is to say about it.</summary>
    public ImmutableArray<string> Says { get; init; } = [];
}

/// <summary>
/// One edit of stories. Every kind is a record of its own with exactly the fields it needs; its name on the wire is the
/// record's.
/// </summary>
public abstract record StoryEdit
{
    /// <summary>What is about to be done, for a refusal that names it.</summary>
    public abstract string Label();

    /// <summary>What the keeper looked at, with its revision; null for what only adds.</summary>
    public abstract SeenRevision? MadeOn();

    /// <summary>The stories it must have before it.</summary>
    public virtual IEnumerable<Guid> Asks() => [];

    /// <summary>
    /// The stories after the edit. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public abstract StoriesEdited Apply(StoryDesk desk, EditTools tools);
}

/// <summary>A new story; it is about its days, else about its theme.</summary>
public sealed record NewStory(
    string Words,
    string Title = "",
    IReadOnlyList<LocalDate>? Days = null,
    string Theme = "",
    string Author = "",
    IReadOnlyList<string>? People = null,
    int? Hour = null
) : StoryEdit
{
    public override string Label() => "Write a story";

    public override SeenRevision? MadeOn() => null;

    public override StoriesEdited Apply(StoryDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var story = new AlbumStory(tools.NewId(), desk.LastOrdinal + 1)
            .Saying(Words)
            .On(Days ?? [])
            .At(Hour)
            .Described(Title, Theme, Author, People ?? []);
        return new StoriesEdited([story], "Wrote a story", story.Id);
    }
}

/// <summary>An edit of one story.</summary>
public abstract record OneStoryEdit : StoryEdit
{
    public required Guid StoryId { get; init; }

    /// <summary>The revision of the story that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override SeenRevision? MadeOn() => new SeenRevision(Seen.Story, StoryId, Revision);

    public override IEnumerable<Guid> Asks() => [StoryId];

    public sealed override StoriesEdited Apply(StoryDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        return Change(desk.Require(StoryId), desk, tools);
    }

    protected abstract StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools);
}

/// <summary>Writes a story's words.</summary>
public sealed record WriteStory(string Words) : OneStoryEdit
{
    public override string Label() => "Edit a story";

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools) =>
        new([story.Saying(Words)], "Edited a story", story.Id);
}

/// <summary>Says what a story is called, who tells it and of whom.</summary>
public sealed record DescribeStory(string Title, string Theme, string Author, IReadOnlyList<string> People)
    : OneStoryEdit
{
    public override string Label() => "Edit the details of a story";

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools) =>
        new([story.Described(Title, Theme, Author, People)], "Changed what a story is called", story.Id);
}

/// <summary>Says which days a story tells of.</summary>
/// <param name="Hour">In an album by the hour, else null.</param>
public sealed record DateStory(IReadOnlyList<LocalDate> Days, int? Hour = null) : OneStoryEdit
{
    public override string Label() => "Move a story to another day";

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools) =>
        new(
            [story.On(Days).At(Hour)],
            Days.Count == 0 ? "Removed the day of a story" : "Moved a story to its day",
            story.Id
        );
}

/// <summary>Splits a story in two.</summary>
/// <param name="At">Before this character, from 0.</param>
public sealed record SplitStory(int At) : OneStoryEdit
{
    public override string Label() => "Split a story";

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools)
    {
        if (
            At <= 0
            || At >= story.Words.Length
            || string.IsNullOrWhiteSpace(story.Words[..At])
            || string.IsNullOrWhiteSpace(story.Words[At..])
        )
        {
            throw new RuleException(
                "A story is split between two of its words. Nothing was changed: put the cursor there."
            );
        }

        var rest = new AlbumStory(tools.NewId(), desk.LastOrdinal + 1)
        {
            Words = story.Words[At..].TrimStart(),
            Theme = story.Theme,
            Author = story.Author,
            Days = story.Days,
            Hour = story.Hour,
            People = story.People,
        };
        return new StoriesEdited([story with { Words = story.Words[..At].TrimEnd() }, rest], "Split a story", rest.Id);
    }
}

/// <summary>Merges another story into the end of this one.</summary>
public sealed record MergeStories(Guid OtherId) : OneStoryEdit
{
    public override string Label() => "Merge two stories";

    public override IEnumerable<Guid> Asks() => [StoryId, OtherId];

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools)
    {
        if (OtherId == StoryId)
        {
            throw new RuleException("A story is merged with another one of its album. Nothing was changed.");
        }

        var other = desk.Require(OtherId);
        var merged = story.Saying($"{story.Words.TrimEnd()}\n\n{other.Words.TrimStart()}") with
        {
            Days = [.. story.Days.Union(other.Days).Order()],
            People = [.. story.People.Union(other.People)],
            Pictures = [.. story.Pictures.Union(other.Pictures)],
        };
        return new StoriesEdited([merged, other with { Deleted = true }], "Merged two stories", story.Id);
    }
}

/// <summary>Two stories change places in the order in which they are told.</summary>
public sealed record SwapStories(Guid OtherId) : OneStoryEdit
{
    public override string Label() => "Move a story";

    public override IEnumerable<Guid> Asks() => [StoryId, OtherId];

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools)
    {
        var other = desk.Require(OtherId);
        return new StoriesEdited(
            [story with { Ordinal = other.Ordinal }, other with { Ordinal = story.Ordinal }],
            "Moved a story",
            story.Id
        );
    }
}

/// <summary>Deletes a story and takes it off its cards.</summary>
public sealed record DeleteStory : OneStoryEdit
{
    public override string Label() => "Delete a story";

    protected override StoriesEdited Change(AlbumStory story, StoryDesk desk, EditTools tools) =>
        new([story with { Deleted = true }], "Deleted a story", story.Id);
}

/// <summary>An edit of stories that changes the cards of a unit.</summary>
public abstract record StoryOfUnitEdit : StoryEdit
{
    public required Guid UnitId { get; init; }

    /// <summary>The revision of the unit that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override SeenRevision? MadeOn() => new SeenRevision(Seen.Unit, UnitId, Revision);
}

/// <summary>
/// Sets a story on cards of a unit, all in one size, the last as full as the others; the cards it has there already are
/// used again.
/// </summary>
/// <param name="Cards">How many cards, 1 to 40.</param>
/// <param name="StyleKey">The style of all of them; null keeps what they have or takes the album's.</param>
/// <param name="ByHand">They are written by hand: lines are printed; null keeps what they are.</param>
public sealed record SetStoryOnCards(Guid StoryId, int Cards, string? StyleKey = null, bool? ByHand = null)
    : StoryOfUnitEdit
{
    /// <summary>The most cards that one story flows over in a unit.</summary>
    public const int MostCards = 40;

    public override string Label() => "Place a story on cards";

    public override IEnumerable<Guid> Asks() => [StoryId];

    public override StoriesEdited Apply(StoryDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var (story, unit) = (desk.Require(StoryId), desk.RequireUnit());
        if (Cards is < 1 or > MostCards)
        {
            throw new RuleException($"A story is set on 1 to {MostCards} cards of its album. Nothing was changed.");
        }

        if (string.IsNullOrWhiteSpace(story.Words))
        {
            throw new RuleException("This story has no words yet. Nothing was changed: write it first.");
        }

        if (StyleKey is not null && unit.Words.Style(StyleKey, CardKind.Journaling).Key != StyleKey)
        {
            throw new RuleException($"There is no card style “{StyleKey}” for words. Nothing was changed.");
        }

        var (content, over) = StoryOnCards.Over(unit, story, Cards, tools, StyleKey, ByHand);
        return new StoriesEdited([], $"Placed a story on {NumberWords.CountedInWords(Cards, "card")}", story.Id)
        {
            Content = content,
            Says =
                over > 0
                    ?
                    [
                        $"{over} {(over == 1 ? "word has" : "words have")} no room on them: take more cards or larger "
                            + "pockets",
                    ]
                    : [],
        };
    }
}

/// <summary>
/// A new story for one card that has no words yet: the card carries it, over as many cards as its words need. Where the
/// card is gone or has words by now, the story waits beside it.
/// </summary>
public sealed record NewStoryOnCard(Guid PieceId, string Words, string Author = "") : StoryOfUnitEdit
{
    public override string Label() => "Write a story for a card";

    public override StoriesEdited Apply(StoryDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var unit = desk.RequireUnit();
        var card = unit.Content.Find(PieceId) as Card;
        var story = new AlbumStory(tools.NewId(), desk.LastOrdinal + 1)
            .Saying(Words)
            .On([card?.Day ?? unit.Dates.First])
            .At(unit.Dates.Hour)
            .Described(string.Empty, string.Empty, Author, []);
        if (
            card is not { StoryId: null, Kind: CardKind.Journaling or CardKind.Incident or CardKind.Why }
            || !string.IsNullOrWhiteSpace(card.Words)
            || string.IsNullOrWhiteSpace(story.Words)
        )
        {
            return new StoriesEdited([story], "Wrote a story", story.Id)
            {
                Says = ["The card is not free any more: the story waits in Tell"],
            };
        }

        var setting = card.Setting ?? CardSetting.AsTheStyle;
        var count = Math.Clamp(FlowOn.CardsNeeded(unit, card, story.Words, tools), 1, SetStoryOnCards.MostCards);
        var carrying = unit.Content.Carry(card.Id, story.Id, story.Words, card.StyleKey, setting);
        return new StoriesEdited([story], "Wrote a story on a card", story.Id)
        {
            Content = StoryOnCards.Over(unit with { Content = carrying }, story, count, tools).Content,
        };
    }
}

/// <summary>
/// Lets words that are too many for their card flow on: they become a story, and its cards are as many as they need.
/// </summary>
public sealed record FlowOn(Guid PieceId) : StoryOfUnitEdit
{
    public override string Label() => "Continue on another card";

    public override StoriesEdited Apply(StoryDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var unit = desk.RequireUnit();
        if (
            unit.Content.Find(PieceId)
                is not Card { StoryId: null, Kind: CardKind.Journaling or CardKind.Incident or CardKind.Why } card
            || string.IsNullOrWhiteSpace(card.Words)
        )
        {
            throw new RuleException(
                "Written words of a journaling card can flow on to another; these cannot. Nothing was changed."
            );
        }

        var story = new AlbumStory(tools.NewId(), desk.LastOrdinal + 1)
            .Saying(card.Words)
            .On([card.Day ?? unit.Dates.First])
            .At(unit.Dates.Hour);
        var setting = card.Setting ?? CardSetting.AsTheStyle;
        var count = Math.Clamp(CardsNeeded(unit, card, card.Words, tools), 2, SetStoryOnCards.MostCards);
        var carrying = unit.Content.Carry(card.Id, story.Id, card.Words, card.StyleKey, setting);
        return new StoriesEdited([story], $"Let words flow over {NumberWords.CountedInWords(count, "card")}", story.Id)
        {
            Content = StoryOnCards.Over(unit with { Content = carrying }, story, count, tools).Content,
        };
    }

    /// <summary>On how many cards like one of a unit words need to stand.</summary>
    internal static int CardsNeeded(UnitDesk unit, Card card, string words, EditTools tools)
    {
        var style = unit.StyleOf(card);
        var cut = unit.Pages.RoomOf(unit.Content, card);
        if (card.Setting is not { ByHand: true })
        {
            return StoryFlow.Needed(words, style, cut, style.Type.SmallestPt, tools.Shaper).Cards;
        }

        var holds = Math.Max(1, CardComposer.HandRoom(style, cut, unit.Words.Hand).Words);
        return (int)Math.Ceiling(Copyfit.CountWords(words) / (double)holds);
    }
}
