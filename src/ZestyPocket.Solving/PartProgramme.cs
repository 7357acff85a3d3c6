using Google.OrTools.LinearSolver;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;

namespace ZestyPocket.Solving;

/// <summary>
/// The pages of one part as a mixed integer programme for SCIP: leaves in whole numbers, pieces as flows, which come
/// out whole by themselves. For parts of hundreds of pieces, where sets of leaves are too many to be looked at one by
/// one.
/// </summary>
internal static class PartProgramme
{
    public static (int[] Own, int[] Extra) Solve(
        ChainProblem problem,
        ChainPart part,
        int[] pockets,
        long[] prices,
        CancellationToken cancel
    )
    {
        using var solver = Solver.CreateSolver("SCIP");
        var objective = solver.Objective();
        var extra = problem
            .Addable.Select(d =>
            {
                var leaves = solver.MakeIntVar(0, part.MayGrow ? part.Pieces : 0, $"x{d}");
                objective.SetCoefficient(leaves, problem.LeafCost[d] + prices[d]);
                return leaves;
            })
            .ToArray();
        var own = part
            .Own.Select(
                (leaf, l) =>
                {
                    var taken = problem
                        .Choices[leaf.Leaf]
                        .Select(c =>
                        {
                            var choice = solver.MakeBoolVar($"o{l}_{c.Design}");
                            objective.SetCoefficient(choice, c.Cost + prices[c.Design]);
                            return choice;
                        })
                        .ToArray();
                    solver.Add(Sum(taken) == 1);
                    return taken;
                }
            )
            .ToArray();
        var flows = part.Classes.Select((c, i) => Flows(solver, objective, c, i)).ToArray();
        for (var s = 0; s < pockets.Length; s++)
        {
            var empty = solver.MakeNumVar(0, double.PositiveInfinity, $"e{s}");
            objective.SetCoefficient(empty, problem.EmptyPocket);
            var balance = solver.MakeConstraint(pockets[s], pockets[s], $"s{s}");
            balance.SetCoefficient(empty, 1);
            foreach (var flow in flows)
            {
                if (flow[s] is { } here)
                {
                    balance.SetCoefficient(here, 1);
                }
            }

            for (var i = 0; i < extra.Length; i++)
            {
                balance.SetCoefficient(extra[i], -2 * problem.Pockets[problem.Addable[i]][s]);
            }

            for (var l = 0; l < own.Length; l++)
            {
                var choices = problem.Choices[part.Own[l].Leaf];
                for (var i = 0; i < choices.Length; i++)
                {
                    balance.SetCoefficient(own[l][i], -part.Own[l].Faces * problem.Pockets[choices[i].Design][s]);
                }
            }
        }

        objective.SetMinimization();
        cancel.ThrowIfCancellationRequested();
        using var stop = cancel.Register(() => solver.InterruptSolve());
        var status = solver.Solve();
        cancel.ThrowIfCancellationRequested();
        if (status != Solver.ResultStatus.OPTIMAL)
        {
            throw new RuleException("No choice of pages was found. Nothing was changed: choose for fewer at once.");
        }

        return (
            [
                .. own.Select(
                    (taken, l) =>
                        problem.Choices[part.Own[l].Leaf][Array.FindIndex(taken, t => t.SolutionValue() > 0.5)].Design
                ),
            ],
            [
                .. extra.SelectMany(
                    (leaves, i) => Enumerable.Repeat(problem.Addable[i], (int)Math.Round(leaves.SolutionValue()))
                ),
            ]
        );
    }

    private static Variable?[] Flows(Solver solver, Objective objective, PieceClass pieces, int c)
    {
        var nowhere = solver.MakeNumVar(0, pieces.Count, $"n{c}");
        objective.SetCoefficient(nowhere, PageCosts.Unplaced);
        var all = solver.MakeConstraint(pieces.Count, pieces.Count, $"c{c}");
        all.SetCoefficient(nowhere, 1);
        return
        [
            .. pieces.Costs.Select(
                (cost, s) =>
                {
                    if (cost is not { } there)
                    {
                        return null;
                    }

                    var flow = solver.MakeNumVar(0, pieces.Count, $"f{c}_{s}");
                    objective.SetCoefficient(flow, there);
                    all.SetCoefficient(flow, 1);
                    return flow;
                }
            ),
        ];
    }

    private static LinearExpr Sum(Variable[] variables) =>
        variables.Aggregate(new LinearExpr(), (sum, variable) => sum + variable);
}
