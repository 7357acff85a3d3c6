using CsCheck;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Placing;

public sealed class AssignmentTests
{
    [Fact]
    public void The_assignment_is_the_best_of_all_on_small_cases()
    {
        Gen.Select(Gen.Int[1, 5], Gen.Int[0, 2], Gen.Int[0, 1000].Array[35])
            .Sample(
                (rows, more, numbers) =>
                {
                    var columns = rows + more;
                    var cost = new long[rows, columns];
                    for (var i = 0; i < rows * columns; i++)
                    {
                        cost[i / columns, i % columns] = numbers[i];
                    }

                    var answer = Assignment.Solve(cost);
                    answer.Distinct().Count().ShouldBe(rows);
                    answer.Select((c, r) => cost[r, c]).Sum().ShouldBe(Best(cost, 0, new bool[columns]));
                }
            );

        static long Best(long[,] cost, int row, bool[] used)
        {
            if (row == cost.GetLength(0))
            {
                return 0;
            }

            var best = long.MaxValue;
            for (var column = 0; column < used.Length; column++)
            {
                if (!used[column])
                {
                    used[column] = true;
                    best = Math.Min(best, cost[row, column] + Best(cost, row + 1, used));
                    used[column] = false;
                }
            }

            return best;
        }
    }
}
