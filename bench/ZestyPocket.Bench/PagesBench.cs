using System.Collections.Immutable;
using System.Diagnostics;
using Google.OrTools.LinearSolver;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Solving;

namespace ZestyPocket.Bench;

/// <summary>
/// Choosing pages for 300 random weeks and 20 random trips of 20 days with a shared stock: processor time, and how many
/// answers are proved. The opponent solves the same weeks as a mixed integer programme with SCIP.
/// </summary>
internal static class PagesBench
{
    public static void Run()
    {
        using var solver = new PageSolver();
        var dice = new Random(11);
        var weeks = Enumerable
            .Range(0, 300)
            .Select(_ => Question(dice, 1, 30, "9x12-nine-3x4", Size.FromInches(9, 12)))
            .ToList();
        var trips = Enumerable
            .Range(0, 20)
            .Select(_ => Question(dice, 20, 14, "6x8-four-3x4", Size.FromInches(6, 8)))
            .ToList();
        solver.Solve(weeks[0]);
        ByScip(weeks[0]);

        var (ours, proved) = Measured(weeks, q => solver.Solve(q).Proved);
        var (theirs, _) = Measured(
            weeks,
            q =>
            {
                ByScip(q);
                return true;
            }
        );
        Console.WriteLine(
            $"pages, 300 weeks: CPU median {Median(ours):0} ms, p95 {P95(ours):0} ms, {proved} of 300 proved; SCIP "
                + $"median {Median(theirs):0} ms, p95 {P95(theirs):0} ms; ratio of medians "
                + $"{Median(ours) / Median(theirs):0.00}"
        );
        Stretches(solver, "20 trips of 20 days", trips);
        Stretches(
            solver,
            "10 stretches of 40 days",
            [.. Many(dice, 10, 40, 14, "6x8-four-3x4", Size.FromInches(6, 8))]
        );
        Stretches(solver, "10 years of 52 weeks", [.. Many(dice, 10, 52, 30, "9x12-nine-3x4", Size.FromInches(9, 12))]);
    }

    private static IEnumerable<PageQuestion> Many(Random dice, int count, int parts, int most, string key, Size body) =>
        Enumerable.Range(0, count).Select(_ => Question(dice, parts, most, key, body));

    /// <summary>
    /// Several parts at once, against one programme over all of them with the effort it had in the server.
    /// </summary>
    private static void Stretches(PageSolver solver, string name, List<PageQuestion> questions)
    {
        var (ours, proved) = Measured(questions, q => solver.Solve(q).Proved);
        var (whole, provedWhole) = Measured(questions, ByWholeModel);
        Console.WriteLine(
            $"pages, {name}: CPU median {Median(ours):0} ms, p95 {P95(ours):0} ms, {proved} of {questions.Count} "
                + $"proved; one programme over all median {Median(whole):0} ms, p95 {P95(whole):0} ms, {provedWhole} "
                + $"proved; ratio of medians {Median(ours) / Median(whole):0.00}"
        );
    }

    /// <summary>It may find no answer at all in its time.</summary>
    private static bool ByWholeModel(PageQuestion question)
    {
        try
        {
            return WholeModel.Solve(question, WholeModel.UsualEffort / 2).Proved;
        }
        catch (RuleException)
        {
            return false;
        }
    }

    private static (List<double> Milliseconds, int True) Measured(
        List<PageQuestion> questions,
        Func<PageQuestion, bool> solve
    )
    {
        var (times, yes) = (new List<double>(), 0);
        foreach (var question in questions)
        {
            var before = Process.GetCurrentProcess().TotalProcessorTime;
            yes += solve(question) ? 1 : 0;
            times.Add((Process.GetCurrentProcess().TotalProcessorTime - before).TotalMilliseconds);
        }

        return (times, yes);
    }

    private static double Median(List<double> times) => times.Order().ElementAt(times.Count / 2);

    private static double P95(List<double> times) => times.Order().ElementAt(times.Count * 95 / 100);

    /// <summary>Days in a row share the leaf between them; half of the designs have a stock.</summary>
    private static PageQuestion Question(Random dice, int days, int most, string key, Size body)
    {
        var offers = BuiltInDesigns
            .All.Where(d => d.Body == body)
            .Select(d => new PageOffer(
                d.Key,
                d.Name,
                d.Pockets.GroupBy(p => p.Nominal).ToImmutableDictionary(g => g.Key, g => g.Count()),
                dice.Next(2) == 0 ? dice.Next(2, 4 + days) : null
            ))
            .ToImmutableArray();
        var sizes = offers.SelectMany(o => o.Pockets.Keys).Distinct().ToList();
        PixelSize[] shapes =
        [
            new(3000, 2000),
            new(2000, 3000),
            new(4000, 3000),
            new(3000, 4000),
            new(3000, 3000),
            new(4000, 2250),
        ];
        return new PageQuestion(
            [
                .. Enumerable
                    .Range(0, days)
                    .Select(_ =>
                        Want.Together(
                            Enumerable
                                .Range(0, 2 + dice.Next(most))
                                .Select(_ => Want.Picture(shapes[dice.Next(shapes.Length)], sizes))
                                .Concat(
                                    Enumerable
                                        .Range(0, dice.Next(4))
                                        .Select(_ =>
                                            Want.Words(WantKind.Card, "cards", sizes, s => s.SquareInches >= 12)
                                        )
                                )
                        )
                    ),
            ],
            [
                new([0], key, true),
                .. Enumerable.Range(0, days - 1).Select(d => new StandingLeaf([d, d + 1], key, dice.Next(4) > 0)),
                new([days - 1], key, true),
            ],
            offers,
            ChoiceWeights.Usual
        );
    }

    /// <summary>The same sums for another solver; of one week.</summary>
    private static double ByScip(PageQuestion question)
    {
        using var solver = Solver.CreateSolver("SCIP");
        var (offers, weights, part) = (question.Offers, question.Weights, question.Units[0]);
        var objective = solver.Objective();
        var extra = offers.Select((o, d) => solver.MakeIntVar(0, 60, $"x{d}")).ToArray();
        var stands = question
            .Standing.Select((s, l) => offers.Select((o, d) => solver.MakeBoolVar($"z{l}_{d}")).ToArray())
            .ToArray();
        foreach (var x in extra)
        {
            objective.SetCoefficient(x, weights.Leaf);
        }

        for (var l = 0; l < stands.Length; l++)
        {
            solver.Add(stands[l].Aggregate(new LinearExpr(), (sum, z) => sum + z) == 1);
            for (var d = 0; d < offers.Length; d++)
            {
                if (offers[d].Key != question.Standing[l].Key)
                {
                    objective.SetCoefficient(stands[l][d], weights.Change);
                    if (!question.Standing[l].MayChange)
                    {
                        solver.Add(stands[l][d] == 0);
                    }
                }
            }
        }

        var flows = new List<(Size Pocket, Variable Flow)>();
        for (var c = 0; c < part.Length; c++)
        {
            var none = solver.MakeIntVar(0, part[c].Count, $"n{c}");
            objective.SetCoefficient(none, 100_000);
            LinearExpr all = none;
            foreach (var (size, loss) in part[c].Costs)
            {
                var flow = solver.MakeIntVar(0, part[c].Count, $"f{c}_{size}");
                objective.SetCoefficient(flow, loss * weights.Crop);
                flows.Add((size, flow));
                all += flow;
            }

            solver.Add(all == part[c].Count);
        }

        foreach (var size in offers.SelectMany(o => o.Pockets.Keys).Distinct())
        {
            var empty = solver.MakeIntVar(0, double.PositiveInfinity, $"e{size}");
            objective.SetCoefficient(empty, weights.EmptyPocket);
            LinearExpr used = empty,
                room = new();
            used = flows.Where(f => f.Pocket == size).Aggregate(used, (sum, f) => sum + f.Flow);
            for (var d = 0; d < offers.Length; d++)
            {
                var count = offers[d].Pockets.GetValueOrDefault(size);
                room += 2 * count * extra[d];
                room = stands.Aggregate(room, (sum, z) => sum + (count * z[d]));
            }

            solver.Add(used == room);
        }

        for (var d = 0; d < offers.Length; d++)
        {
            if (offers[d].OnHand is { } stock)
            {
                var buy = solver.MakeIntVar(0, double.PositiveInfinity, $"b{d}");
                objective.SetCoefficient(buy, 20_000);
                LinearExpr needed = extra[d];
                needed = stands.Aggregate(needed, (sum, z) => sum + z[d]);
                solver.Add(needed <= buy + stock + question.Standing.Count(l => l.Key == offers[d].Key));
            }
        }

        objective.SetMinimization();
        solver.Solve();
        return objective.Value();
    }
}
