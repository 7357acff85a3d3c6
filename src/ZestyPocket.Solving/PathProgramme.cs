using Google.OrTools.Sat;
using ZestyPocket.Core.Counting;

namespace ZestyPocket.Solving;

/// <summary>One plan of one part between two states, as a column of the programme over the path.</summary>
internal sealed record PathColumn(int Part, int Before, int After, PartPlan Plan, int[] Taken);

/// <summary>
/// A path through given plans with the least cost, stock and purchases counted exactly: an integer programme for CP-SAT
/// with one worker and a fixed seed.
/// </summary>
internal static class PathProgramme
{
    public const int MostColumns = 40_000;

    /// <summary>
    /// The plans of the best path, part by part; null when these plans make no path or no proof is found.
    /// </summary>
    public static List<PathColumn>? Solve(
        ChainProblem problem,
        int[][] states,
        List<PathColumn> columns,
        CancellationToken cancel
    )
    {
        var parts = problem.Parts.Length;
        var model = new CpModel();
        var cost = LinearExpr.NewBuilder();
        var taken = columns.Select((c, k) => model.NewBoolVar($"c{k}")).ToArray();
        var ways = columns.Select((c, k) => (c, k)).ToLookup(w => w.c.Part, w => w.k);
        if (Enumerable.Range(0, parts).Any(u => !ways[u].Any()))
        {
            return null;
        }

        for (var u = 0; u < parts; u++)
        {
            model.AddExactlyOne(ways[u].Select(k => taken[k]));
            foreach (var k in ways[u])
            {
                cost.AddTerm(taken[k], columns[k].Plan.Cost);
            }
        }

        var at = new BoolVar[Math.Max(0, parts - 1)][];
        for (var u = 0; u < at.Length; u++)
        {
            at[u] = new BoolVar[states[u].Length];
            for (var s = 0; s < states[u].Length; s++)
            {
                at[u][s] = model.NewBoolVar($"s{u}_{s}");
                model.Add(LinearExpr.Sum(ways[u].Where(k => columns[k].After == s).Select(k => taken[k])) == at[u][s]);
                model.Add(
                    LinearExpr.Sum(ways[u + 1].Where(k => columns[k].Before == s).Select(k => taken[k])) == at[u][s]
                );
                if (problem.Shared[u] is { } leaf)
                {
                    cost.AddTerm(at[u][s], problem.Choices[leaf.Leaf][s].Cost);
                }
            }
        }

        for (var g = 0; g < problem.Available.Length; g++)
        {
            var needed = LinearExpr.NewBuilder();
            for (var k = 0; k < columns.Count; k++)
            {
                if (columns[k].Taken[g] > 0)
                {
                    needed.AddTerm(taken[k], columns[k].Taken[g]);
                }
            }

            for (var u = 0; u < at.Length; u++)
            {
                for (var s = 0; s < states[u].Length; s++)
                {
                    if (states[u][s] >= 0 && problem.StockOf[states[u][s]] == g)
                    {
                        needed.Add(at[u][s]);
                    }
                }
            }

            var bought = model.NewIntVar(0, 1_000_000, $"b{g}");
            model.Add(needed <= bought + problem.Available[g]);
            cost.AddTerm(bought, PageCosts.Buy);
        }

        model.Minimize(cost);
        var solver = new CpSolver
        {
            StringParameters = "num_workers:1,random_seed:7,linearization_level:2,max_deterministic_time:20",
        };
        using var stop = cancel.Register(solver.StopSearch);
        var status = solver.Solve(model);
        cancel.ThrowIfCancellationRequested();
        return status == CpSolverStatus.Optimal
            ? [.. Enumerable.Range(0, columns.Count).Where(k => solver.BooleanValue(taken[k])).Select(k => columns[k])]
            : null;
    }
}
