using Google.OrTools.LinearSolver;

namespace ZestyPocket.Solving;

/// <summary>
/// The pages of one part with a given number of leaves, where leaves may be fractions: a linear programme for GLOP. Its
/// prices of pockets give the line under the cost that says most about this number of leaves.
/// </summary>
internal static class PartRelaxation
{
    /// <summary>What one more pocket of each size is worth; null when the programme has no optimum.</summary>
    public static double[]? Slopes(ChainProblem problem, ChainPart part, int[] pockets, long[] prices, int leaves)
    {
        using var solver = Solver.CreateSolver("GLOP");
        var objective = solver.Objective();
        var balance = Array.ConvertAll(pockets, p => solver.MakeConstraint(p, p));
        foreach (var row in balance)
        {
            row.SetCoefficient(Variable(problem.EmptyPocket), 1);
        }

        var count = solver.MakeConstraint(leaves, leaves);
        foreach (var d in problem.Addable)
        {
            var leaf = Variable(problem.LeafCost[d] + prices[d]);
            count.SetCoefficient(leaf, 1);
            Give(leaf, d, 2);
        }

        foreach (var (leaf, faces) in part.Own)
        {
            var one = solver.MakeConstraint(1, 1);
            foreach (var (design, cost) in problem.Choices[leaf])
            {
                var taken = Variable(cost + prices[design]);
                one.SetCoefficient(taken, 1);
                Give(taken, design, faces);
            }
        }

        foreach (var pieces in part.Classes)
        {
            var all = solver.MakeConstraint(pieces.Count, pieces.Count);
            all.SetCoefficient(Variable(Core.Counting.PageCosts.Unplaced), 1);
            for (var s = 0; s < pockets.Length; s++)
            {
                if (pieces.Costs[s] is { } cost)
                {
                    var flow = Variable(cost);
                    all.SetCoefficient(flow, 1);
                    balance[s].SetCoefficient(flow, 1);
                }
            }
        }

        objective.SetMinimization();
        return solver.Solve() == Solver.ResultStatus.OPTIMAL ? Array.ConvertAll(balance, b => b.DualValue()) : null;

        Variable Variable(double cost)
        {
            var variable = solver.MakeNumVar(0, double.PositiveInfinity, string.Empty);
            objective.SetCoefficient(variable, cost);
            return variable;
        }

        void Give(Variable leaf, int design, int faces)
        {
            for (var s = 0; s < pockets.Length; s++)
            {
                if (problem.Pockets[design][s] > 0)
                {
                    balance[s].SetCoefficient(leaf, -faces * problem.Pockets[design][s]);
                }
            }
        }
    }
}
