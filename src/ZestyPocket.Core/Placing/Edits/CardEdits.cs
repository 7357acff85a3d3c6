using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>What cards are called in sentences.</summary>
public static class CardNames
{
    public static string Of(CardKind kind) =>
        kind switch
        {
            CardKind.WeekTitle => "title card",
            CardKind.DayTitle => "title card of a day",
            CardKind.Filler => "filler card",
            CardKind.Overheard => "card of overheard words",
            CardKind.Prompts => "card of prompts",
            CardKind.HighsAndLows => "card of highs and lows",
            CardKind.Incident => "card of an incident",
            CardKind.Why => "card that says why",
            CardKind.Facts => "card of facts",
            CardKind.FromTo => "card of where from and where to",
            CardKind.Map => "card of the way",
            CardKind.People => "card of who was there",
            CardKind.Numbers => "card of numbers",
            CardKind.Countdown => "countdown card",
            CardKind.Calendar => "calendar card",
            CardKind.Divider => "divider of a day",
            CardKind.Legend => "legend",
            _ => "journaling card",
        };
}

/// <summary>Adds a card to the tray, or straight into a pocket.</summary>
/// <param name="Words">What stands on it; null for what such a card begins with.</param>
/// <param name="StyleKey">Null for the album's usual one.</param>
/// <param name="Day">The day it is about; null for the whole unit.</param>
public sealed record AddCard(
    CardKind CardKind,
    string? Words = null,
    string? StyleKey = null,
    PocketPlace? Place = null,
    LocalDate? Day = null
) : ContentEdit
{
    public override string Label() => "Add a card";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => Place is { } place ? [place] : [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var id = tools.NewId();
        var words = Words is null ? ComputedCards.Beginning(CardKind) : PlainWords.Clean(Words);
        var style = WriteCard.StyleFor(desk, StyleKey, CardKind, desk.Words.NewStyle(CardKind));
        // A map is drawn on the outline from the first; one that was made before there was one stays a sketch.
        var setting = CardKind == CardKind.Map ? new CardSetting(Outline: true) : null;
        var added = desk
            .Content.AddCard(id, CardKind, words, style)
            .WriteCard(id, words, style, setting)
            .Furnish(id, desk.RequireDay(Day), null);
        return new Edited(
            Place is { } place ? added.Put(id, desk.Require(place)) : added,
            $"Added a {CardNames.Of(CardKind)}",
            id
        );
    }
}

/// <summary>Changes the words, the style and the setting of a card; null leaves each as it is.</summary>
public sealed record WriteCard(Guid PieceId, string? Words = null, string? StyleKey = null, CardSetting? Setting = null)
    : ContentEdit
{
    public override string Label() => "Edit a card";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var card =
            desk.Content.Find(PieceId) as Card
            ?? throw new RuleException(
                "That card is no longer here. Your words were not saved: copy them before you reload."
            );
        var words = Words is null ? card.Words : PlainWords.Clean(Words);
        if (card.StoryId is not null && (words != card.Words || (StyleKey ?? card.StyleKey) != card.StyleKey))
        {
            throw new RuleException(
                "These words flow here from a story: change the story, and all its cards change with it. Nothing was "
                    + "changed."
            );
        }

        var style = StyleFor(desk, StyleKey, card.Kind, desk.Words.Style(card.StyleKey, card.Kind));
        return new Edited(
            desk.Content.WriteCard(PieceId, words, style, Setting ?? card.Setting),
            $"Edited a {CardNames.Of(card.Kind)}{desk.Where(PieceId)}",
            PieceId
        );
    }

    /// <summary>The style asked for, if there is one of that name for such a card.</summary>
    internal static string StyleFor(UnitDesk desk, string? asked, CardKind kind, CardStyle otherwise) =>
        asked is null ? otherwise.Key
        : desk.Words.Style(asked, kind).Key == asked ? asked
        : throw new RuleException($"There is no card style “{asked}” for a {CardNames.Of(kind)}. Nothing was changed.");
}

/// <summary>
/// Says which day a card is about and which picture it carries; null for the whole unit and for none.
/// </summary>
public sealed record FurnishCard(Guid PieceId, LocalDate? Day = null, Guid? PhotoId = null, Framing? Framing = null)
    : ContentEdit
{
    public override string Label() => "Change the day or picture of a card";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var card =
            desk.Content.Find(PieceId) as Card
            ?? throw new RuleException("That card is no longer here. Nothing was changed.");
        var picture = PhotoId is { } photo ? new CardPicture(photo, Framing ?? desk.RequirePhoto(photo).Around) : null;
        if (picture is not null)
        {
            desk.RequirePhoto(picture.PhotoId);
        }

        var done =
            picture == card.Picture ? "Changed the day of a card"
            : picture is null ? "Removed the picture from a card"
            : "Added a picture to a card";
        return new Edited(desk.Content.Furnish(PieceId, desk.RequireDay(Day), picture), done, PieceId);
    }
}

/// <summary>Puts a small picture at a place of a card, or removes it.</summary>
/// <param name="At">A day of a calendar as <c>2026-05-04</c>, or the name of somebody who was there.</param>
/// <param name="PhotoId">Null for none.</param>
public sealed record ShowSmallPicture(Guid PieceId, string At, Guid? PhotoId = null, Framing? Framing = null)
    : ContentEdit
{
    public override string Label() => "Change a small picture of a card";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var card = ShowDaysPictures.CardOf(desk, PieceId);
        var others = card.SmallPictures.RemoveAll(p => p.Place == At);
        if (PhotoId is not { } photo)
        {
            return others.Length == card.SmallPictures.Length
                ? throw new RuleException("There is no small picture at that place. Nothing was changed.")
                : new Edited(
                    desk.Content.Change(PieceId, _ => card with { SmallPictures = others }),
                    $"Removed a small picture from a {CardNames.Of(card.Kind)}",
                    PieceId
                );
        }

        if (!SmallPictures.PlacesOf(desk, card).Contains(At))
        {
            throw new RuleException($"“{At}” is not on this {CardNames.Of(card.Kind)}. Nothing was changed.");
        }

        var shown = new SmallPicture(At, photo, Framing ?? desk.RequirePhoto(photo).Around);
        desk.RequirePhoto(photo);
        return new Edited(
            desk.Content.Change(PieceId, _ => card with { SmallPictures = others.Add(shown) }),
            $"Put a small picture on a {CardNames.Of(card.Kind)}",
            PieceId
        );
    }
}

/// <summary>Puts a picture of its day into every open day of a calendar.</summary>
public sealed record ShowDaysPictures(Guid PieceId) : ContentEdit
{
    public override string Label() => "Show pictures of the days";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var card = CardOf(desk, PieceId);
        var proposed = SmallPictures.ProposedFor(desk, card);
        return proposed.Count == 0
            ? throw new RuleException("No open day of this card has a picture. Nothing was changed.")
            : new Edited(
                desk.Content.Change(PieceId, _ => card with { SmallPictures = card.SmallPictures.AddRange(proposed) }),
                proposed.Count == 1
                    ? $"Put 1 small picture on a {CardNames.Of(card.Kind)}"
                    : $"Put {proposed.Count} small pictures on a {CardNames.Of(card.Kind)}",
                PieceId
            );
    }

    internal static Card CardOf(UnitDesk desk, Guid pieceId) =>
        desk.Content.Find(pieceId) as Card
        ?? throw new RuleException("That card is no longer here. Nothing was changed.");
}

/// <summary>Gives the cards of a unit colours of its pictures, or gives them back those of their styles.</summary>
/// <param name="FromPictures">Of its pictures: those in the pockets, or of all when none is in one.</param>
/// <param name="PhotoId">Of this picture alone.</param>
public sealed record TintCards(bool FromPictures, Guid? PhotoId = null) : ContentEdit
{
    public override string Label() => "Change the cards’ colours";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        if (!FromPictures)
        {
            return new Edited(desk.Content with { Tint = null }, "Restored the cards’ own colours");
        }

        var tint =
            CardTint.From(Palettes.Together(Shown(desk, PhotoId).Select(p => p.Palette)))
            ?? throw new RuleException(
                PhotoId is null
                    ? "There is no picture with colours here yet. The cards keep the colours they have."
                    : "This picture is grey. The cards keep the colours they have: choose another picture."
            );
        return new Edited(
            desk.Content with
            {
                Tint = tint with { PhotoId = PhotoId },
            },
            "Coloured the cards like the pictures"
        );
    }

    /// <summary>The pictures whose colours the cards take.</summary>
    internal static IEnumerable<DeskPhoto> Shown(UnitDesk desk, Guid? photoId)
    {
        if (photoId is { } one)
        {
            return [desk.RequirePhoto(one)];
        }

        var placed = desk.Photos.Values.Where(p => desk.Content.PhotosPlaced.Contains(p.Id)).ToList();
        return placed.Count > 0 ? placed : desk.Photos.Values;
    }
}

/// <summary>Sets the other card's words at the end of the first; the other card goes.</summary>
public sealed record JoinCards(Guid PieceId, Guid OtherId) : ContentEdit
{
    public override string Label() => "Merge two cards";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(desk.Content.JoinCards(PieceId, OtherId), "Merged two cards", PieceId);
}
