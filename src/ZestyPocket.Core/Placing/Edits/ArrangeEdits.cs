using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>Takes what lies in several pockets out of them.</summary>
public sealed record TakeOutAll(IReadOnlyList<PocketPlace> Places) : ContentEdit
{
    public override string Label() => "Remove several pieces";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => Places ?? [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var full = (Places ?? []).Select(desk.Require).Distinct().Where(p => desk.Content.At(p) is not null).ToList();
        if (full.Count == 0)
        {
            throw new RuleException("These pockets are empty already: nothing was taken out.");
        }

        // A picture over several pockets leaves all of them at once.
        var content = full.Aggregate(desk.Content, (c, p) => c.At(p) is null ? c : c.TakeOut(p));
        return new Edited(content, $"Removed the pieces from {NumberWords.Counted(full.Count, "pocket")}");
    }
}

/// <summary>Locks what lies in several pockets, or lets it go; empty ones are passed over.</summary>
/// <param name="Places">The pockets; all of the unit's when there are none.</param>
public sealed record LockPockets(bool Locked, IReadOnlyList<PocketPlace>? Places = null) : ContentEdit
{
    public override string Label() => "Lock or unlock several pockets";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var asked = Places is { Count: > 0 } some ? some.Select(desk.Require) : desk.Pages.Pockets.Select(p => p.Place);
        var full = asked.Distinct().Where(p => desk.Content.At(p) is not null).ToList();
        if (full.Count == 0)
        {
            throw new RuleException("These pockets are empty: there is nothing to lock.");
        }

        return new Edited(
            full.Aggregate(desk.Content, (content, place) => content.Lock(place, Locked)),
            $"{(Locked ? "Locked" : "Unlocked")} {NumberWords.Counted(full.Count, "pocket")}"
        );
    }
}

/// <summary>Leaves every open pocket of a page clear on purpose.</summary>
public sealed record LeavePageEmpty(Guid LeafId, LeafSide Side) : ContentEdit
{
    public override string Label() => "Leave a page empty";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var open = desk
            .Pages.Pockets.Where(p => p.Place.LeafId == LeafId && p.Place.Side == Side)
            .Select(p => p.Place)
            .Where(p => desk.Content.At(p) is null && !desk.Content.LeftEmpty.Contains(p))
            .ToList();
        return open.Count == 0
            ? throw new RuleException("No pocket of this page is open. Nothing was changed.")
            : new Edited(
                open.Aggregate(desk.Content, (content, place) => content.LeaveEmpty(place, true)),
                $"Left the {(Side == LeafSide.Back ? "left" : "right")} page of {desk.Title} empty on purpose"
            );
    }
}

/// <summary>Swaps the rows that two pockets lie in, piece by piece; the rows have the same pockets.</summary>
public sealed record SwapRows(PocketPlace One, PocketPlace Other) : ContentEdit
{
    public override string Label() => "Swap two rows";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) =>
        Rearrangement.RowOf(desk, One).Concat(Rearrangement.RowOf(desk, Other));

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var (one, other) = (Rearrangement.RowOf(desk, One), Rearrangement.RowOf(desk, Other));
        if (one.Contains(other[0]))
        {
            throw new RuleException("These pockets lie in one row. Nothing was changed: choose one of another row.");
        }

        if (!one.Select(desk.Pages.CutSize).SequenceEqual(other.Select(desk.Pages.CutSize)))
        {
            throw new RuleException(
                "These rows have pockets of different sizes, so they cannot be swapped as a whole. Nothing was changed."
            );
        }

        return new Edited(
            Rearrangement.Swap(desk, one.Zip(other)),
            $"Swapped the rows of {desk.Pages.CodeOf(One)} and {desk.Pages.CodeOf(Other)}"
        );
    }
}

/// <summary>Mirrors a page: what lies on the left goes to the right. Nothing is turned or printed mirrored.</summary>
public sealed record MirrorPage(Guid LeafId, LeafSide Side) : ContentEdit
{
    public override string Label() => "Mirror a page";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) =>
        Rearrangement.MirroredPairs(desk, LeafId, Side).SelectMany(p => new[] { p.First, p.Second });

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var pairs = Rearrangement.MirroredPairs(desk, LeafId, Side).ToList();
        return pairs.Count == 0
            ? throw new RuleException(
                "This page has nothing to mirror: no pocket has one of the same size across from it. Nothing was "
                    + "changed."
            )
            : new Edited(
                Rearrangement.Swap(desk, pairs),
                $"Mirrored the {(Side == LeafSide.Back ? "left" : "right")} page"
            );
    }
}

/// <summary>Rows and mirrored pockets of a page, and pieces that change places.</summary>
internal static class Rearrangement
{
    /// <summary>
    /// The pockets beside a pocket, with it, from left to right: those whose top and foot are its own.
    /// </summary>
    public static List<PocketPlace> RowOf(UnitDesk desk, PocketPlace place)
    {
        desk.Require(place);
        var own = desk.Pages.Pockets.First(p => p.Place == place);
        return
        [
            .. desk
                .Pages.Pockets.Where(p =>
                    p.Face == own.Face
                    && p.Pocket.Bounds.Y == own.Pocket.Bounds.Y
                    && p.Pocket.Bounds.Bottom == own.Pocket.Bounds.Bottom
                )
                .OrderBy(p => p.Pocket.Bounds.X)
                .Select(p => p.Place),
        ];
    }

    /// <summary>Each pocket with the one across from it on the page, once; what lies in the middle stays.</summary>
    public static IEnumerable<(PocketPlace First, PocketPlace Second)> MirroredPairs(
        UnitDesk desk,
        Guid leafId,
        LeafSide side
    )
    {
        var pockets = desk.Pages.Pockets.Where(p => p.Place.LeafId == leafId && p.Place.Side == side).ToList();
        if (pockets.Count == 0)
        {
            throw new RuleException("That page is not on this spread any more. Nothing was changed.");
        }

        var (left, right) = (pockets.Min(p => p.Pocket.Bounds.X), pockets.Max(p => p.Pocket.Bounds.Right));
        foreach (var one in pockets)
        {
            var bounds = one.Pocket.Bounds;
            var across = bounds with { X = left + (right - bounds.Right) };
            if (across.X > bounds.X && pockets.Find(p => p.Pocket.Bounds == across) is { Pocket: not null } two)
            {
                yield return (one.Place, two.Place);
            }
        }
    }

    /// <summary>
    /// The content with what lies in the first of each pair and what lies in the second in each other's pocket; empty
    /// pockets change places with full ones, and locks go along.
    /// </summary>
    public static UnitContent Swap(UnitDesk desk, IEnumerable<(PocketPlace First, PocketPlace Second)> pairs)
    {
        var to = new Dictionary<PocketPlace, PocketPlace>();
        foreach (var (first, second) in pairs)
        {
            (to[first], to[second]) = (second, first);
        }

        var content = desk.Content;
        foreach (var placement in content.Placements.Where(p => to.ContainsKey(p.Place)))
        {
            var piece = content.Find(placement.PieceId);
            if (piece is PhotoPrint { SpanId: not null })
            {
                throw new RuleException(
                    $"The picture in {desk.Pages.CodeOf(placement.Place)} runs over several pockets and would be torn "
                        + "apart. Nothing was changed: take it out first."
                );
            }

            desk.Admit(piece, to[placement.Place]);
        }

        return content with
        {
            Placements = [.. content.Placements.Select(p => p with { Place = To(p.Place) })],
            LeftEmpty = [.. content.LeftEmpty.Select(To)],
        };

        PocketPlace To(PocketPlace place) => to.GetValueOrDefault(place, place);
    }
}

/// <summary>
/// Keeps a card beside the photo it speaks of whenever pockets are filled; without a photo it is free.
/// </summary>
public sealed record PairCard(Guid PieceId, Guid? PhotoId = null) : ContentEdit
{
    public override string Label() => "Keep a card beside a picture";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var card = ShowDaysPictures.CardOf(desk, PieceId);
        var photo = PhotoId is { } id ? desk.RequirePhoto(id) : null;
        return new Edited(
            desk.Content with
            {
                Pieces = desk.Content.Pieces.Replace(card, card with { PairedWith = photo?.Id }),
            },
            photo is null ? "Let a card go from its picture" : $"Keeps the card beside {photo.FileName}",
            card.Id
        );
    }
}
