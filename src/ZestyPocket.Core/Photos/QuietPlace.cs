namespace ZestyPocket.Core.Photos;

/// <summary>A rectangle in a grid of cells.</summary>
public readonly record struct CellRect(int Column, int Row, int Columns, int Rows)
{
    public int Area => Columns * Rows;
}

/// <summary>Finds the largest free place of a card.</summary>
public static class QuietPlace
{
    /// <summary>
    /// The largest rectangle of quiet cells, by the heights of quiet columns row by row; all zero when no cell is
    /// quiet. Exact. Cells row by row.
    /// </summary>
    public static CellRect Largest(int columns, int rows, Func<int, int, bool> quiet)
    {
        ArgumentNullException.ThrowIfNull(quiet);
        var best = default(CellRect);
        var heights = new int[columns + 1];
        for (var row = 0; row < rows; row++)
        {
            for (var column = 0; column < columns; column++)
            {
                heights[column] = quiet(column, row) ? heights[column] + 1 : 0;
            }

            // A closing height of nothing takes every open rectangle off the pile.
            var pile = new Stack<int>();
            for (var column = 0; column <= columns; column++)
            {
                while (pile.Count > 0 && heights[pile.Peek()] >= heights[column])
                {
                    var height = heights[pile.Pop()];
                    var left = pile.Count > 0 ? pile.Peek() + 1 : 0;
                    var found = new CellRect(left, row - height + 1, column - left, height);
                    best = found.Area > best.Area ? found : best;
                }

                pile.Push(column);
            }
        }

        return best;
    }
}
