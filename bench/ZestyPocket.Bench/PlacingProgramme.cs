using Google.OrTools.Sat;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// Placing against CP-SAT with one second and one worker. Both answer the same question: what each picture costs in its
/// pocket and what neighbours cost each other. Turns of days, moments and balance are left out of it on both sides.
/// </summary>
internal static class PlacingProgramme
{
    private const int Questions = 60;

    public static void Against(FontShelf fonts)
    {
        var (better, same, worse, proved) = (0, 0, 0, 0);
        var (here, there) = (new List<double>(), new List<double>());
        for (var seed = 0; seed < Questions; seed++)
        {
            var desk = PlacingBench.Desk(seed, "9x12-nine-3x4", "9x12-rows-6x4-3x4", 15 + (seed % 16));
            var asked = DeskQuestion.Of(
                desk with
                {
                    Words = desk.Words with { Weights = PlacingWeights.Usual with { EveryDay = 0, Calm = 0 } },
                },
                fonts
            );
            // Every second question has look-alikes that must not touch.
            var question = asked with
            {
                Candidates =
                [
                    .. asked.Candidates.Select(
                        (c, i) =>
                            c with
                            {
                                GroupId = null,
                                Likeness = seed % 2 == 0 ? c.Likeness : (ulong)(i % 4) << 40,
                            }
                    ),
                ],
            };
            var before = Cpu.Now().Own;
            var found = SpreadSearch.Best(question).Cost;
            var between = Cpu.Now().Own;
            var (cost, isProved) = Programme(question);
            here.Add(between - before);
            there.Add(Cpu.Now().Own - between);
            better += found < cost ? 1 : 0;
            same += found == cost ? 1 : 0;
            worse += found > cost ? 1 : 0;
            proved += isProved ? 1 : 0;
        }

        here.Sort();
        there.Sort();
        Console.WriteLine(
            $"  against CP-SAT with one second, {Questions} spreads: better {better}, same {same}, worse {worse}; "
                + $"CP-SAT proved {proved}; CPU {1000 * here[Questions / 2]:0} ms against "
                + $"{1000 * there[Questions / 2]:0} ms"
        );
    }

    private static (long Cost, bool Proved) Programme(SpreadQuestion question)
    {
        var costs = new SpreadCosts(question);
        var (pockets, candidates) = (question.Pockets.Length, question.Candidates.Length);
        var model = new CpModel();
        var lies = new BoolVar[pockets, candidates];
        var sum = LinearExpr.NewBuilder();
        for (var p = 0; p < pockets; p++)
        {
            for (var c = 0; c < candidates; c++)
            {
                lies[p, c] = model.NewBoolVar(string.Empty);
                if (!costs.Allows(p, c))
                {
                    model.Add(lies[p, c] == 0);
                    continue;
                }

                sum.AddTerm(lies[p, c], costs.Alone(p, c) - costs.Alone(p, -1));
            }

            model.AddAtMostOne(Enumerable.Range(0, candidates).Select(c => lies[p, c]));
        }

        for (var c = 0; c < candidates; c++)
        {
            model.AddAtMostOne(Enumerable.Range(0, pockets).Select(p => lies[p, c]));
        }

        foreach (var (first, second, _) in question.Neighbours)
        {
            for (var a = 0; a < candidates; a++)
            {
                for (var b = 0; b < candidates; b++)
                {
                    if (a != b && Together(costs, pockets, (first, a), (second, b)) is not 0 and var pair)
                    {
                        var both = model.NewBoolVar(string.Empty);
                        model.AddImplication(both, lies[first, a]);
                        model.AddImplication(both, lies[second, b]);
                        model.AddBoolOr([both, lies[first, a].Not(), lies[second, b].Not()]);
                        sum.AddTerm(both, pair);
                    }
                }
            }
        }

        model.Minimize(sum);
        using var solver = new CpSolver { StringParameters = "num_workers:1 random_seed:1 max_time_in_seconds:1" };
        var status = solver.Solve(model);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            return (costs.Of(Enumerable.Repeat(-1, pockets).ToList()), false);
        }

        var laid = Enumerable
            .Range(0, pockets)
            .Select(p =>
                Enumerable.Range(0, candidates).Where(c => solver.BooleanValue(lies[p, c])).DefaultIfEmpty(-1).First()
            )
            .ToList();
        return (costs.Of(laid), status == CpSolverStatus.Optimal);
    }

    /// <summary>What two candidates cost each other: the sum over both, less what each costs by itself.</summary>
    private static long Together(SpreadCosts costs, int pockets, (int Pocket, int Candidate) a, (int, int) b) =>
        Sum(costs, pockets, a, b) - Sum(costs, pockets, a) - Sum(costs, pockets, b) + Sum(costs, pockets);

    private static long Sum(SpreadCosts costs, int pockets, params (int Pocket, int Candidate)[] laid)
    {
        var at = Enumerable.Repeat(-1, pockets).ToArray();
        foreach (var (pocket, candidate) in laid)
        {
            at[pocket] = candidate;
        }

        return costs.Of(at);
    }
}
