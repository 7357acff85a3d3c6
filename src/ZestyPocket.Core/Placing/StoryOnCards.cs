using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>Puts a story on the cards of a unit, so that its words and its cards never disagree.</summary>
public static class StoryOnCards
{
    /// <summary>
    /// The unit's content after a story has changed: its words are set again on the cards it has there; one that was
    /// deleted leaves them.
    /// </summary>
    public static UnitContent Again(UnitDesk desk, AlbumStory story, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(story);
        var cards = desk.Content.CardsOf(story.Id);
        return story.Deleted
            ? cards.Aggregate(desk.Content, (left, card) => left.Discard(card.Id))
            : Over(desk, story, cards.Length, tools).Content;
    }

    /// <summary>The unit's content with a story on so many cards; those it has are used again in their order.</summary>
    /// <param name="count">How many cards.</param>
    /// <param name="styleKey">Their style; null for the one they have, or the album's.</param>
    /// <param name="byHand">Written by hand; null for as they are.</param>
    public static (UnitContent Content, int WordsOver) Over(
        UnitDesk desk,
        AlbumStory story,
        int count,
        EditTools tools,
        string? styleKey = null,
        bool? byHand = null
    )
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(story);
        ArgumentNullException.ThrowIfNull(tools);
        var content = desk.Content;
        var order = desk.Pages.Pockets.Select((p, i) => (p.Place, i)).ToDictionary(p => p.Place, p => p.i);
        var cards = content
            .CardsOf(story.Id)
            .OrderBy(c =>
                content.PlacementOf(c.Id) is { } lies ? order.GetValueOrDefault(lies.Place, int.MaxValue) : int.MaxValue
            )
            .ToList();
        var key = (styleKey ?? cards.FirstOrDefault()?.StyleKey) is { } asked
            ? desk.Words.Style(asked, CardKind.Journaling).Key
            : desk.Words.NewStyle(CardKind.Journaling).Key;
        var was = cards.FirstOrDefault()?.Setting ?? CardSetting.AsTheStyle;
        var setting = was with { LargestPt = null, ByHand = byHand ?? was.ByHand };
        foreach (var surplus in cards.Skip(count))
        {
            content = content.Discard(surplus.Id);
        }

        for (var i = cards.Count; i < count; i++)
        {
            var id = tools.NewId();
            content = content.AddCard(id, CardKind.Journaling, string.Empty, key);
            if (
                desk.Dates.First != desk.Dates.Last
                && story.Days is [var only]
                && only >= desk.Dates.First
                && only <= desk.Dates.Last
            )
            {
                content = content.Furnish(id, only, null);
            }

            cards.Add((Card)content.Find(id)!);
        }

        cards = cards[..count];
        var styles = cards.ConvertAll(c => desk.StyleOf(c, key, setting, desk.HasPhoto));
        FlowOutcome flow;
        if (setting.ByHand)
        {
            var (parts, over) = StoryFlow.ByHand(
                story.Words,
                [
                    .. cards.Select(
                        (c, i) => CardComposer.HandRoom(styles[i], desk.Pages.RoomOf(content, c), desk.Words.Hand).Words
                    ),
                ]
            );
            flow = new FlowOutcome(0, parts, over);
        }
        else
        {
            var pictures = Enumerable
                .Range(0, count)
                .Where(i => styles[i].Zones.Picture != PicturePlace.None)
                .ToHashSet();
            flow = StoryFlow.Over(
                story.Words,
                setting.On(desk.Words.Style(key, CardKind.Journaling)),
                cards.ConvertAll(c => desk.Pages.RoomOf(content, c)),
                tools.Shaper,
                pictures
            );
        }

        for (var i = 0; i < count; i++)
        {
            var words = flow.Parts[i].Of(story.Words);
            if (i == count - 1 && !flow.Fits)
            {
                // What finds no room stays with the last card, where it is told and cannot be forgotten.
                words = story.Words[flow.Parts[i].Start..].Trim('\n');
            }

            content = content.Carry(
                cards[i].Id,
                story.Id,
                words,
                key,
                setting with
                {
                    LargestPt = setting.ByHand ? null : flow.SizePt,
                }
            );
        }

        return (BesidePictures(desk, content, story), flow.WordsOver);
    }

    /// <summary>
    /// A card of a story that names pictures of the unit stays beside one of them: the first card beside the first
    /// picture, the next beside the next. A card that has a picture keeps it.
    /// </summary>
    private static UnitContent BesidePictures(UnitDesk desk, UnitContent content, AlbumStory story)
    {
        var named = story
            .Pictures.Select(name =>
                desk.Photos.Values.FirstOrDefault(p => p.FileName.Equals(name, StringComparison.OrdinalIgnoreCase))?.Id
            )
            .OfType<Guid>()
            .Distinct()
            .Except(content.Pieces.OfType<Card>().Select(c => c.PairedWith).OfType<Guid>())
            .ToList();
        var cards = content.CardsOf(story.Id).Where(c => c.PairedWith is null);
        return cards
            .Zip(named)
            .Aggregate(
                content,
                (all, pair) =>
                    all with
                    {
                        Pieces = all.Pieces.Replace(pair.First, pair.First with { PairedWith = pair.Second }),
                    }
            );
    }
}
