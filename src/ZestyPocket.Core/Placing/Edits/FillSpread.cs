using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing.Choosing;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// Fills the empty pockets with everything loose: which pictures are chosen and where all of it goes is decided
/// together. What lies in a pocket stays there.
/// </summary>
public sealed record FillSpread : ContentEdit
{
    public override string Label() => "Fill the spread";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var question = DeskQuestion.Of(desk, tools.Shaper);
        if (question.Pockets.All(p => p.Stays >= 0 || p.StaysEmpty))
        {
            throw new RuleException(
                "Every pocket of this spread is taken: there is nothing to fill. Take a piece out first."
            );
        }

        var (content, counts) = LaidSpread.Lay(desk, LaidSpread.Of(question, SpreadSearch.Best(question)), tools.NewId);
        return counts.All == 0
            ? throw new RuleException(
                "There is nothing loose to fill the spread with: gather photos or add a card first."
            )
            : new Edited(content, $"Filled the spread with {Say(counts)}{LeftOver(desk, content)}");
    }

    /// <summary>Such as <c>5 photos, 1 collage and 2 cards</c>.</summary>
    internal static string Say(LaidCounts counts)
    {
        var between = new[]
        {
            counts.Collages == 0 ? null : NumberWords.Counted(counts.Collages, "collage"),
            counts.Others == 0 ? null : NumberWords.Counted(counts.Others, "other piece"),
        }.OfType<string>();
        return string.Join(", ", between.Prepend(NumberWords.Counted(counts.Photos, "photo")))
            + $" and {NumberWords.Counted(counts.Cards, "card")}";
    }

    internal static string LeftOver(UnitDesk desk, UnitContent content)
    {
        var left = desk.Photos.Keys.Count(id => !content.PhotosPlaced.Contains(id));
        return left > 0 ? $"; {left} found no pocket" : string.Empty;
    }
}

/// <summary>
/// Takes everything out that is not locked and places it anew. Slices of one picture and pieces that are stuck to the
/// one behind them stay.
/// </summary>
public sealed record PlaceAgain : ContentEdit
{
    public override string Label() => "Place again";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var open = Cleared(desk);
        var question = DeskQuestion.Of(open, tools.Shaper);
        var (content, counts) = LaidSpread.Lay(open, LaidSpread.Of(question, SpreadSearch.Best(question)), tools.NewId);
        return counts.All == 0
            ? throw new RuleException(
                "Everything here is locked or there is nothing to place. Nothing was changed: unlock a pocket first."
            )
            : new Edited(content, $"Placed {FillSpread.Say(counts)} again{FillSpread.LeftOver(desk, content)}");
    }

    /// <summary>The desk with all pockets emptied that may be.</summary>
    public static UnitDesk Cleared(UnitDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var open = desk
            .Content.Placements.Where(p =>
                !p.Locked
                && desk.Pages.CodeOf(p.Place) is not null
                && !desk.Pages.IsStuck(p.Place)
                && desk.Content.Find(p.PieceId) is not (null or PhotoPrint { SpanId: not null })
                && MayGo(desk, p.PieceId)
            )
            .ToList();
        return desk with { Content = open.Aggregate(desk.Content, (content, p) => content.TakeOut(p.Place)) };
    }

    /// <summary>A print that somebody worked on stays: taken out, its finish and words would be gone.</summary>
    private static bool MayGo(UnitDesk desk, Guid pieceId) =>
        desk.Content.Find(pieceId) is not PhotoPrint print
        || (
            desk.Photos.TryGetValue(print.PhotoId, out var photo)
            && print.Framing == photo.Around
            && print
                is { Caption: null, Finish: null, Adjustment: null, LegendLine: null, PrintedOn: null, Steps.Length: 0 }
            && !desk.Content.AttachedTo(print.Id).Any()
        );
}

/// <summary>Lays one of the other ways: everything that is not locked goes where it was shown.</summary>
/// <param name="Things">Loose photos and pieces with their pockets.</param>
public sealed record LaySpread(IReadOnlyList<LaidThing> Things) : ContentEdit
{
    public override string Label() => "Choose another way";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var things = (Things ?? []).OfType<LaidThing>().ToList();
        if (things.DistinctBy(t => t.Key).Count() != things.Count)
        {
            throw new RuleException("One thing lies in one pocket only. Nothing was changed.");
        }

        var (content, counts) = LaidSpread.Lay(PlaceAgain.Cleared(desk), things, tools.NewId);
        return counts.All == 0
            ? throw new RuleException("That way lays nothing. Nothing was changed.")
            : new Edited(content, $"Laid {FillSpread.Say(counts)} another way{FillSpread.LeftOver(desk, content)}");
    }
}

/// <summary>Says what counts how much when this unit's pockets are filled; null for what the album says.</summary>
public sealed record WeighPlacing(PlacingWeights? Weights) : ContentEdit
{
    public override string Label() => "Change the priorities";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(
            desk.Content with
            {
                Weights = Weights?.Checked(),
            },
            Weights is null ? "Restored the album’s priorities" : "Changed the priorities of placing"
        );
}
