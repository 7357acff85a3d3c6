namespace ZestyPocket.Core.Placing;

/// <summary>
/// The assignment problem solved exactly: each row gets one column of its own so that the costs add up to the least.
/// Method: shortest augmenting paths with potentials (Kuhn 1955, Munkres 1957; Jonker and Volgenant 1987).
/// </summary>
public static class Assignment
{
    /// <summary>
    /// Returns the column of each row. There must be at least as many columns as rows; costs are whole numbers so that
    /// the same input always gives the same answer. O(rows² · columns).
    /// </summary>
    public static int[] Solve(long[,] cost)
    {
        ArgumentNullException.ThrowIfNull(cost);
        var (rows, columns) = (cost.GetLength(0), cost.GetLength(1));
        if (rows > columns)
        {
            throw new ArgumentException("There are more rows than columns.", nameof(cost));
        }

        // Row and column 0 are the artificial start of each augmenting path.
        var (rowPotential, columnPotential) = (new long[rows + 1], new long[columns + 1]);
        var (rowOf, cameFrom) = (new int[columns + 1], new int[columns + 1]);
        for (var row = 1; row <= rows; row++)
        {
            Augment(row);
        }

        var answer = new int[rows];
        for (var column = 1; column <= columns; column++)
        {
            if (rowOf[column] > 0)
            {
                answer[rowOf[column] - 1] = column - 1;
            }
        }

        return answer;

        void Augment(int row)
        {
            rowOf[0] = row;
            var at = 0;
            var slack = new long[columns + 1];
            Array.Fill(slack, long.MaxValue);
            var used = new bool[columns + 1];
            do
            {
                used[at] = true;
                var (current, delta, nearest) = (rowOf[at], long.MaxValue, 0);
                for (var column = 1; column <= columns; column++)
                {
                    if (used[column])
                    {
                        continue;
                    }

                    var reduced = cost[current - 1, column - 1] - rowPotential[current] - columnPotential[column];
                    if (reduced < slack[column])
                    {
                        (slack[column], cameFrom[column]) = (reduced, at);
                    }

                    if (slack[column] < delta)
                    {
                        (delta, nearest) = (slack[column], column);
                    }
                }

                for (var column = 0; column <= columns; column++)
                {
                    if (used[column])
                    {
                        rowPotential[rowOf[column]] += delta;
                        columnPotential[column] -= delta;
                    }
                    else if (slack[column] != long.MaxValue)
                    {
                        slack[column] -= delta;
                    }
                }

                at = nearest;
            } while (rowOf[at] != 0);

            while (at != 0)
            {
                var previous = cameFrom[at];
                rowOf[at] = rowOf[previous];
                at = previous;
            }
        }
    }
}
