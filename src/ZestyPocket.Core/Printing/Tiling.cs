using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A part of a piece that is larger than the paper.</summary>
/// <param name="Due">The whole piece.</param>
/// <param name="Part">Which part of it, overlap included.</param>
/// <param name="Row">From 1, from the top.</param>
/// <param name="Column">From 1, from the left.</param>
/// <param name="Rows">How many rows the piece is printed in.</param>
/// <param name="Columns">How many columns.</param>
public sealed record PlannedTile(DuePiece Due, Rect Part, int Row, int Column, int Rows, int Columns);

/// <summary>Cuts pieces that are larger than the paper into parts that overlap.</summary>
public static class Tiling
{
    /// <summary>What neighbouring parts share, for glue and register marks. Common practice.</summary>
    public static Length Overlap => Length.FromMillimetres(10);

    /// <summary>
    /// The fewest parts, all of one size, none larger than the room; they cover the piece and neighbours share the
    /// overlap.
    /// </summary>
    public static ImmutableArray<PlannedTile> Of(DuePiece due, Size room)
    {
        ArgumentNullException.ThrowIfNull(due);
        if (room.Width <= 2 * Overlap || room.Height <= 2 * Overlap)
        {
            throw new RuleException("This paper is too small to print a piece in parts on it. Choose a larger paper.");
        }

        var (columns, rows) = (Number(due.Cut.Width, room.Width), Number(due.Cut.Height, room.Height));
        var (width, height) = (Side(due.Cut.Width, columns), Side(due.Cut.Height, rows));
        return
        [
            .. from row in Enumerable.Range(0, rows)
            from column in Enumerable.Range(0, columns)
            let x = Start(due.Cut.Width, width, column, columns)
            let y = Start(due.Cut.Height, height, row, rows)
            select new PlannedTile(due, new Rect(x, y, width, height), row + 1, column + 1, rows, columns),
        ];
    }

    private static int Number(Length side, Length room) =>
        side <= room ? 1 : (int)Math.Ceiling((double)(side - Overlap).Emu / (room - Overlap).Emu);

    private static Length Side(Length side, int number) =>
        number == 1 ? side : new Length((side.Emu + ((number - 1) * Overlap.Emu) + number - 1) / number);

    /// <summary>The last part ends with the piece.</summary>
    private static Length Start(Length side, Length part, int at, int number) =>
        at == number - 1 ? side - part : at * (part - Overlap);
}
