using Google.OrTools.LinearSolver;
using ZestyPocket.Core.Counting;

namespace ZestyPocket.Solving.Tests;

/// <summary>
/// Any question as a mixed integer programme for SCIP, written down from the rules a second time: whole leaves, pieces
/// as flows. An opponent for answers over several parts.
/// </summary>
internal static class ByScip
{
    /// <summary>The least cost; null when SCIP has not proved it in so many seconds.</summary>
    public static long? Cost(PageQuestion question, int seconds = 60)
    {
        using var solver = Solver.CreateSolver("SCIP");
        solver.SetTimeLimit(seconds * 1000L);
        var (offers, weights, objective) = (question.Offers, question.Weights, solver.Objective());
        var stands = question
            .Standing.Select((leaf, l) => offers.Select((o, d) => Standing(leaf, o, $"z{l}_{d}")).ToArray())
            .ToArray();
        foreach (var choice in stands)
        {
            solver.Add(Sum(choice) == 1);
        }

        var extra = question
            .Units.Select(
                (part, u) =>
                    offers
                        .Select(
                            (o, d) =>
                            {
                                var most = o.MayBeAdded && !question.Kept.Contains(u) ? part.Sum(c => c.Count) : 0;
                                var leaves = solver.MakeIntVar(0, most, $"x{u}_{d}");
                                objective.SetCoefficient(leaves, weights.Leaf + (weights.Alter * o.Fused));
                                return leaves;
                            }
                        )
                        .ToArray()
            )
            .ToArray();
        for (var u = 0; u < question.Units.Length; u++)
        {
            Part(u);
        }

        foreach (var (offer, d) in offers.Select((o, d) => (o, d)).Where(p => p.o.OnHand is not null && p.o.Of is null))
        {
            var bought = solver.MakeIntVar(0, double.PositiveInfinity, $"b{d}");
            objective.SetCoefficient(bought, PageCosts.Buy);
            var same = Enumerable.Range(0, offers.Length).Where(o => offers[o].Bought == offer.Key).ToList();
            var needed = Sum([.. same.SelectMany(o => extra.Select(x => x[o]).Concat(stands.Select(z => z[o])))]);
            var there = question.Standing.Count(l => offers.First(o => o.Key == l.Key).Bought == offer.Key);
            solver.Add(needed <= bought + offer.OnHand!.Value + there);
        }

        objective.SetMinimization();
        return solver.Solve() == Solver.ResultStatus.OPTIMAL ? (long)Math.Round(objective.Value()) : null;

        Variable Standing(StandingLeaf leaf, PageOffer offer, string name)
        {
            var allowed = offer.Key == leaf.Key || (leaf.MayChange && offer.MayBeAdded);
            var taken = solver.MakeIntVar(0, allowed ? 1 : 0, name);
            var change =
                offer.Key == leaf.Key ? 0 : (weights.Alter * offer.Fused) + (offer.Of == leaf.Key ? 0 : weights.Change);
            objective.SetCoefficient(taken, change);
            return taken;
        }

        void Part(int u)
        {
            var sizes = offers
                .SelectMany(o => o.Pockets.Keys)
                .Concat(question.Room.SelectMany(r => r.Keys))
                .Distinct()
                .ToList();
            var balance = sizes.ToDictionary(
                s => s,
                s =>
                {
                    var room = question.Room.IsDefaultOrEmpty ? 0 : question.Room[u].GetValueOrDefault(s);
                    var row = solver.MakeConstraint(room, room);
                    var empty = solver.MakeNumVar(0, double.PositiveInfinity, $"e{u}");
                    objective.SetCoefficient(empty, weights.EmptyPocket);
                    row.SetCoefficient(empty, 1);
                    return row;
                }
            );
            for (var d = 0; d < offers.Length; d++)
            {
                foreach (var (size, count) in offers[d].Pockets)
                {
                    balance[size].SetCoefficient(extra[u][d], -2 * count);
                    for (var l = 0; l < stands.Length; l++)
                    {
                        var faces = question.Standing[l].Faces.Count(f => f == u);
                        if (faces > 0)
                        {
                            balance[size].SetCoefficient(stands[l][d], -faces * count);
                        }
                    }
                }
            }

            foreach (var demand in question.Units[u])
            {
                var all = solver.MakeConstraint(demand.Count, demand.Count);
                var nowhere = solver.MakeNumVar(0, demand.Count, "n");
                objective.SetCoefficient(nowhere, PageCosts.Unplaced);
                all.SetCoefficient(nowhere, 1);
                foreach (var (size, loss) in demand.Costs.Where(c => balance.ContainsKey(c.Key)))
                {
                    var flow = solver.MakeNumVar(0, demand.Count, "f");
                    objective.SetCoefficient(flow, (double)loss * weights.Crop);
                    all.SetCoefficient(flow, 1);
                    balance[size].SetCoefficient(flow, 1);
                }
            }
        }

        static LinearExpr Sum(Variable[] variables) => variables.Aggregate(new LinearExpr(), (sum, v) => sum + v);
    }
}
