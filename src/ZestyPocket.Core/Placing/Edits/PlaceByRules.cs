using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// Fills a unit by rules that it shares with others: first what the rules say, then the rest as
/// <see cref="FillSpread"/> or <see cref="PlaceAgain"/> do it. Locked pieces stay.
/// </summary>
public sealed record PlaceByRules(bool Again, StretchRules Rules) : ContentEdit
{
    public override string Label() => Again ? "Place again by rules" : "Fill by rules";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var rules = Rules.Checked();
        var ready = Again ? PlaceAgain.Cleared(desk) : desk;
        ready = WithSeries(WithWords(WithTitle(ready, rules, tools), rules, tools), rules, tools);
        var question = DeskQuestion.Of(ready, tools.Shaper);
        var (content, counts) = LaidSpread.Lay(
            ready,
            LaidSpread.Of(question, SpreadSearch.Best(question)),
            tools.NewId
        );
        return content == desk.Content || (counts.All == 0 && ready.Content == desk.Content)
            ? throw new RuleException("There is nothing to place here. Nothing was changed.")
            : new Edited(content, $"Placed {FillSpread.Say(counts)}{FillSpread.LeftOver(desk, content)}");
    }

    private static UnitDesk WithTitle(UnitDesk desk, StretchRules rules, EditTools tools)
    {
        if (!rules.TitleFirst || desk.Pages.Pockets.Count == 0)
        {
            return desk;
        }

        var first = desk.Pages.Pockets[0].Place;
        var title = desk.Content.Pieces.OfType<Card>().FirstOrDefault(c => CardStyle.RoleOf(c.Kind) == StyleRole.Title);
        if (title is null)
        {
            var id = tools.NewId();
            desk = desk with
            {
                Content = desk.Content.AddCard(
                    id,
                    CardKind.WeekTitle,
                    ComputedCards.Beginning(CardKind.WeekTitle),
                    desk.Words.NewStyle(CardKind.WeekTitle).Key
                ),
            };
            title = (Card)desk.Content.Find(id)!;
        }

        return desk.Content.PlacementOf(title.Id) is null && IsOpen(desk, first)
            ? desk with
            {
                Content = desk.Content.Put(title.Id, first).Lock(first, locked: false),
            }
            : desk;
    }

    /// <summary>Cards to write on, until there are as many as asked for.</summary>
    private static UnitDesk WithWords(UnitDesk desk, StretchRules rules, EditTools tools)
    {
        var has = desk.Content.Pieces.OfType<Card>().Count(c => c.Kind == CardKind.Journaling);
        for (var i = has; i < rules.Words; i++)
        {
            desk = desk with
            {
                Content = desk.Content.AddCard(
                    tools.NewId(),
                    CardKind.Journaling,
                    string.Empty,
                    desk.Words.NewStyle(CardKind.Journaling).Key
                ),
            };
        }

        return desk;
    }

    /// <summary>
    /// The picture of a series, the keeper's favourite of several, in the pocket it has in every unit.
    /// </summary>
    private static UnitDesk WithSeries(UnitDesk desk, StretchRules rules, EditTools tools)
    {
        foreach (var (series, pocket) in rules.Series)
        {
            var found = desk
                .Pages.Pockets.Where(p => p.Code.EndsWith($" {pocket}", StringComparison.Ordinal))
                .Select(p => (PocketPlace?)p.Place)
                .FirstOrDefault();
            var placed = desk.Content.PhotosPlaced;
            var picture = desk
                .Photos.Values.Where(p => p.SeriesId == series && !placed.Contains(p.Id))
                .OrderByDescending(p => p.Favourite)
                .ThenBy(p => p.Photo.Taken)
                .ThenBy(p => p.Id)
                .FirstOrDefault();
            if (found is { } place && picture is not null && IsOpen(desk, place))
            {
                desk = desk with
                {
                    Content = desk
                        .Content.PutPhoto(picture.Id, place, tools.NewId(), picture.Around)
                        .Lock(place, locked: false),
                };
            }
        }

        return desk;
    }

    private static bool IsOpen(UnitDesk desk, PocketPlace place) =>
        desk.Content.At(place) is null && !desk.Content.LeftEmpty.Contains(place);
}
