using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A kind of sheet that pieces can be packed on.</summary>
/// <param name="Room">Its printable part, or the free part of one that was used before.</param>
/// <param name="Cost">What one costs, in any unit that all kinds share; 0 for a leftover.</param>
/// <param name="Most">How many there are.</param>
public readonly record struct SheetKind(Size Room, long Cost, int Most = int.MaxValue)
{
    /// <summary>A sheet without a price costs its area, in thousandths of a square inch.</summary>
    public static long AreaOf(Size paper) => (long)Math.Round(1000 * paper.SquareInches);
}

/// <summary>How many sheets of each pattern cover what is wanted.</summary>
/// <param name="Times">By pattern.</param>
/// <param name="IsProved">No other choice of patterns costs less.</param>
/// <param name="Bound">No choice costs less than this.</param>
public sealed record SheetCover(IReadOnlyList<int> Times, bool IsProved, long Bound);

/// <summary>
/// Chooses patterns. The core asks; how it is solved is somebody else's. The same question has the same answer on every
/// machine.
/// </summary>
public interface ISheetCovering
{
    /// <summary>
    /// The patterns with the least cost, then the fewest cuts, that hold every piece; null when none was found in the
    /// time that it has.
    /// </summary>
    /// <param name="wanted">How many pieces of each size.</param>
    SheetCover? Cover(
        IReadOnlyList<SheetPattern> patterns,
        IReadOnlyList<SheetKind> kinds,
        IReadOnlyList<int> wanted,
        CancellationToken cancel = default
    );
}
