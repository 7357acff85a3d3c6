using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Keeping;

/// <summary>Where an album that is inserted into another one best begins.</summary>
public static class InsertPlace
{
    /// <summary>
    /// Behind the unit that its first day falls into, so that the week is read first and the trip after it; at the end
    /// when its days come later, and null when they come before the first unit. Common practice.
    /// </summary>
    /// <param name="units">Of the album it goes into, in their order.</param>
    /// <param name="firstDay">Of the album that is inserted.</param>
    public static Guid? For(IEnumerable<(Guid Id, LocalDate First, LocalDate Last)> units, LocalDate firstDay)
    {
        ArgumentNullException.ThrowIfNull(units);
        return units.Where(u => u.First <= firstDay).Select(u => (Guid?)u.Id).LastOrDefault();
    }

    /// <summary>
    /// The leaf behind which the leaves of an insert lie on the rings. A leaf can only come between two leaves: what
    /// comes after a week whose last page is the front of a leaf lies behind that leaf, and so between the facing pages
    /// of the next week. Null when the unit has no pages.
    /// </summary>
    /// <param name="leaves">Of the album it goes into, in their order.</param>
    public static Guid? LeafBefore(IReadOnlyList<BoundLeaf> leaves, AlbumInsert insert)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        ArgumentNullException.ThrowIfNull(insert);
        return insert.Between && BetweenPages(leaves, insert.AfterUnitId) is { } left
            ? left
            : leaves
                .Where(l => l.Front == insert.AfterUnitId || l.Back == insert.AfterUnitId)
                .Select(l => (Guid?)l.Id)
                .LastOrDefault();
    }

    /// <summary>The leaf whose back is the left one of a unit's facing pages; null when it has none.</summary>
    public static Guid? BetweenPages(IReadOnlyList<BoundLeaf> leaves, Guid unitId)
    {
        ArgumentNullException.ThrowIfNull(leaves);
        return leaves
            .Zip(leaves.Skip(1))
            .Where(pair => pair.First.Back == unitId && pair.Second.Front == unitId)
            .Select(pair => (Guid?)pair.First.Id)
            .FirstOrDefault();
    }

    /// <summary>
    /// Before which of a unit's pages an insert is read: before the right one of its facing pages, or after them all.
    /// </summary>
    /// <param name="sides">Of the unit's pages in reading order.</param>
    public static int PageOf(IReadOnlyList<LeafSide> sides, bool between)
    {
        ArgumentNullException.ThrowIfNull(sides);
        return Enumerable
            .Range(1, Math.Max(0, sides.Count - 1))
            .Where(i => between && sides[i - 1] == LeafSide.Back && sides[i] == LeafSide.Front)
            .Append(sides.Count)
            .First();
    }
}
