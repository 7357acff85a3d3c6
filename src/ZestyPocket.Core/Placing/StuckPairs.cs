using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// A pocket of a leaf with a pair that may be stuck, and the unit that what lies behind it belongs to.
/// </summary>
/// <param name="BackUnit">The unit of the leaf's other side; null when it belongs to none.</param>
public readonly record struct PairPlace(PocketPlace Place, LeafAlterations Alterations, Guid? BackUnit)
{
    /// <summary>The same pocket seen from the other side.</summary>
    public PocketPlace Behind => Place with { Side = Place.Side == LeafSide.Front ? LeafSide.Back : LeafSide.Front };
}

/// <summary>What moving a pair has made of the units and the leaves it touches.</summary>
/// <param name="Fronts">The contents with only the fronts moved.</param>
/// <param name="Contents">The contents with the backs moved too.</param>
/// <param name="FromAlterations">What is stuck on the leaf it came from.</param>
/// <param name="ToAlterations">What is stuck on the leaf it went to; the same for one leaf.</param>
public sealed record PairMoved(
    ImmutableDictionary<Guid, UnitContent> Fronts,
    ImmutableDictionary<Guid, UnitContent> Contents,
    LeafAlterations FromAlterations,
    LeafAlterations ToAlterations
);

/// <summary>
/// Moves pieces that are stuck back to back: swapping two fronts swaps the two backs, and which pairs are stuck goes
/// with the pieces. Common practice.
/// </summary>
public static class StuckPairs
{
    /// <summary>
    /// Moves a piece of a unit with what is stuck to its back. Throws <see cref="RuleException"/> and changes nothing
    /// where the backs cannot change places.
    /// </summary>
    /// <param name="unit">The unit whose piece is moved.</param>
    /// <param name="contents">The contents of that unit and of the units of both backs.</param>
    /// <param name="pieceId">The piece.</param>
    /// <param name="from">Where it lies.</param>
    /// <param name="to">Where it goes.</param>
    /// <param name="codeOf">The codes of pockets, for words.</param>
    public static PairMoved Move(
        Guid unit,
        ImmutableDictionary<Guid, UnitContent> contents,
        Guid pieceId,
        PairPlace from,
        PairPlace to,
        Func<PocketPlace, string?> codeOf
    )
    {
        ArgumentNullException.ThrowIfNull(contents);
        ArgumentNullException.ThrowIfNull(codeOf);
        if (from.Place.LeafId == to.Place.LeafId && from.Place.PocketKey == to.Place.PocketKey)
        {
            throw new RuleException(
                "The two are stuck together back to back: turning one turns both, so they would lie as they do. "
                    + "Nothing "
                    + "was changed."
            );
        }

        if (from.BackUnit != to.BackUnit && (from.BackUnit is null || to.BackUnit is null))
        {
            throw new RuleException(
                $"What lies behind {codeOf(from.Place)} or {codeOf(to.Place)} belongs to no week or day, so "
                    + "the two "
                    + "cannot change places. Nothing was changed: take the pair apart first."
            );
        }

        // The fronts first: when a back is of the same unit, it is found as they left it.
        var fronts = contents.SetItem(unit, contents[unit].Put(pieceId, to.Place));
        var moved = fronts;
        if (from.BackUnit is { } one && to.BackUnit is { } two)
        {
            moved =
                one == two
                    ? moved.SetItem(one, Swapped(moved[one], from.Behind, to.Behind))
                    : Exchanged(moved, (one, from.Behind), (two, to.Behind));
        }

        var (first, second) = (
            from.Alterations.Stuck.Contains(from.Place.PocketKey),
            to.Alterations.Stuck.Contains(to.Place.PocketKey)
        );
        var fromAlterations = from.Alterations.Stick(from.Place.PocketKey, second);
        // Both pockets may be of one leaf.
        var toAlterations = (from.Place.LeafId == to.Place.LeafId ? fromAlterations : to.Alterations).Stick(
            to.Place.PocketKey,
            first
        );
        return new PairMoved(
            fronts,
            moved,
            from.Place.LeafId == to.Place.LeafId ? toAlterations : fromAlterations,
            toAlterations
        );
    }

    /// <summary>
    /// How many pairs of pictures lie against the order of time that did not before, in reading order of the pockets.
    /// </summary>
    public static int OutOfOrder(
        UnitContent before,
        UnitContent after,
        IReadOnlyList<PocketPlace> reading,
        IReadOnlyDictionary<Guid, Instant> taken
    )
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        var (was, now) = (EarlierAfter(before), EarlierAfter(after));
        return now > was ? now : 0;

        // Pictures that stand before an earlier one.
        int EarlierAfter(UnitContent content)
        {
            var times = reading
                .Select(p => Lying(content, p))
                .OfType<PhotoPrint>()
                .Where(p => taken.ContainsKey(p.PhotoId));
            var order = times.Select(p => taken[p.PhotoId]).ToList();
            return order.Where((at, i) => order.Skip(i + 1).Any(later => later < at)).Count();
        }
    }

    /// <summary>In words, empty when nothing has come out of order.</summary>
    public static string OutOfOrderWords(int pictures) =>
        pictures == 0
            ? string.Empty
            : $"; on the other face {NumberWords.Of(pictures)} "
                + $"{(pictures == 1 ? "picture stands" : "pictures stand")} before an earlier one now";

    /// <summary>What lies in a pocket of one unit and in one of another change places, with all they are.</summary>
    private static ImmutableDictionary<Guid, UnitContent> Exchanged(
        ImmutableDictionary<Guid, UnitContent> contents,
        (Guid Unit, PocketPlace Place) from,
        (Guid Unit, PocketPlace Place) to
    )
    {
        var (one, two) = (contents[from.Unit], contents[to.Unit]);
        var (first, second) = (Lying(one, from.Place), Lying(two, to.Place));
        if (first is PhotoPrint { SpanId: not null } || second is PhotoPrint { SpanId: not null })
        {
            throw new RuleException(
                "A picture behind one of them runs over several pockets and cannot be moved by itself. Nothing was "
                    + "changed: take the pair apart first."
            );
        }

        one = first is null ? one : one.Discard(first.Id);
        two = second is null ? two : two.Discard(second.Id);
        return contents
            .SetItem(from.Unit, second is null ? one : one.Receive(second, from.Place))
            .SetItem(to.Unit, first is null ? two : two.Receive(first, to.Place));
    }

    private static UnitContent Swapped(UnitContent content, PocketPlace a, PocketPlace b) =>
        content.At(a) is { } lies ? content.Put(lies.PieceId, b)
        : content.At(b) is { } there ? content.Put(there.PieceId, a)
        : content;

    private static Piece? Lying(UnitContent content, PocketPlace place) =>
        content.At(place) is { } lies ? content.Find(lies.PieceId) : null;
}
