using System.Collections.Immutable;
using Google.OrTools.Sat;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Solving;

/// <summary>
/// The whole question as one integer programme, for CP-SAT with one worker and a fixed seed. Right for leaves that join
/// parts which do not follow each other; weak from about ten parts on, because fractional leaves fit each part exactly.
/// </summary>
public static class WholeModel
{
    /// <summary>More extra leaves of one design than this for one part are not looked for.</summary>
    private const int MostExtraLeaves = 200;

    /// <summary>Enough to prove nearly every week in a second or two; what is not proved says its gap.</summary>
    public const double UsualEffort = 1.1;

    /// <summary>
    /// Answers a question. <paramref name="effort"/> bounds the search in the solver's own deterministic time.
    /// </summary>
    public static PageAnswer Solve(PageQuestion question, double effort, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(question);
        var offers = question.Offers;
        var weights = question.Weights;
        var model = new CpModel();
        var cost = LinearExpr.NewBuilder();

        // Designs of the leaves that stand.
        var standing = question
            .Standing.Select(
                (leaf, l) =>
                    offers
                        .Select(
                            (offer, d) =>
                            {
                                var taken = model.NewBoolVar($"leaf{l}_{d}");
                                if (offer.Key != leaf.Key && (!leaf.MayChange || !offer.MayBeAdded))
                                {
                                    model.Add(taken == 0);
                                }
                                else
                                {
                                    cost.AddTerm(taken, PageCosts.ChangeCost(leaf, offer, weights));
                                }

                                return taken;
                            }
                        )
                        .ToArray()
            )
            .ToArray();
        foreach (var choice in standing)
        {
            model.AddExactlyOne(choice);
        }

        // Leaves that are added, part by part.
        var extra = question
            .Units.Select(
                (part, u) =>
                    offers
                        .Select(
                            (offer, d) =>
                            {
                                // No more leaves of a design than hold every piece in the size it has fewest of: the
                                // next would stay empty.
                                var most =
                                    !offer.MayBeAdded || question.Kept.Contains(u)
                                        ? 0
                                        : Math.Min(
                                            MostExtraLeaves,
                                            offer.Pockets.Values.Max(pockets =>
                                                (part.Sum(p => p.Count) + (2 * pockets) - 1) / (2 * pockets)
                                            )
                                        );
                                var leaves = model.NewIntVar(0, most, $"extra{u}_{d}");
                                cost.AddTerm(leaves, weights.Leaf + ((long)weights.Alter * offer.Fused));
                                return leaves;
                            }
                        )
                        .ToArray()
            )
            .ToArray();

        // Where the pieces go, and what stays empty.
        var sizes = offers
            .SelectMany(o => o.Pockets.Keys)
            .Concat(question.Room.SelectMany(r => r.Keys))
            .Distinct()
            .OrderBy(s => s.Width)
            .ThenBy(s => s.Height)
            .ToList();
        var spread = new List<(int Part, int Demand, int Size, IntVar Count)>();
        var unplaced = new IntVar[question.Units.Length][];
        for (var u = 0; u < question.Units.Length; u++)
        {
            var demands = question.Units[u];
            unplaced[u] = [.. demands.Select((demand, c) => model.NewIntVar(0, demand.Count, $"none{u}_{c}"))];
            for (var s = 0; s < sizes.Count; s++)
            {
                var room = LinearExpr.NewBuilder();
                room.Add(RoomOf(question, u, sizes[s]));
                for (var d = 0; d < offers.Length; d++)
                {
                    if (offers[d].Pockets.TryGetValue(sizes[s], out var pockets))
                    {
                        room.AddTerm(extra[u][d], 2 * pockets);
                        for (var l = 0; l < standing.Length; l++)
                        {
                            var faces = question.Standing[l].Faces.Count(f => f == u);
                            if (faces > 0)
                            {
                                room.AddTerm(standing[l][d], faces * pockets);
                            }
                        }
                    }
                }

                var used = LinearExpr.NewBuilder();
                for (var c = 0; c < demands.Length; c++)
                {
                    if (demands[c].Costs.TryGetValue(sizes[s], out var loss))
                    {
                        var count = model.NewIntVar(0, demands[c].Count, $"to{u}_{c}_{s}");
                        spread.Add((u, c, s, count));
                        used.Add(count);
                        cost.AddTerm(count, (long)loss * weights.Crop);
                    }
                }

                // Empty pockets are all pockets less the pieces in them.
                cost.AddTerm(room, weights.EmptyPocket);
                cost.AddTerm(used, -weights.EmptyPocket);
                model.Add(used <= room);
            }

            for (var c = 0; c < demands.Length; c++)
            {
                var all = LinearExpr.NewBuilder();
                all.Add(unplaced[u][c]);
                foreach (var way in spread.Where(w => w.Part == u && w.Demand == c))
                {
                    all.Add(way.Count);
                }

                model.Add(all == demands[c].Count);
                cost.AddTerm(unplaced[u][c], PageCosts.Unplaced);
            }
        }

        // What is owned, and what would have to be bought. A leaf that stands brings its own; one that changes sets it
        // free. Altered leaves are made of those of their design.
        var buy = new IntVar?[offers.Length];
        for (var d = 0; d < offers.Length; d++)
        {
            if (offers[d].OnHand is not { } stock || offers[d].Of is not null)
            {
                continue;
            }

            var needed = LinearExpr.NewBuilder();
            for (var same = 0; same < offers.Length; same++)
            {
                if (offers[same].Bought != offers[d].Key)
                {
                    continue;
                }

                foreach (var part in extra)
                {
                    needed.Add(part[same]);
                }

                foreach (var choice in standing)
                {
                    needed.Add(choice[same]);
                }
            }

            var short_ = model.NewIntVar(0, MostExtraLeaves * Math.Max(1, question.Units.Length), $"buy{d}");
            model.Add(
                needed <= short_ + stock + question.Standing.Count(l => BoughtAs(question, l.Key) == offers[d].Key)
            );
            cost.AddTerm(short_, PageCosts.Buy);
            buy[d] = short_;
        }

        model.Minimize(cost);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1,random_seed:7,cp_model_presolve:false,linearization_level:2,"
                    + $"max_deterministic_time:{effort}"
            ),
        };
        using var stop = cancel.Register(solver.StopSearch);
        var status = solver.Solve(model);
        cancel.ThrowIfCancellationRequested();
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            throw new RuleException(
                "No choice of pages was found in the time given. Nothing was changed: choose for fewer weeks or "
                    + "days at once."
            );
        }

        var value = (long)Math.Round(solver.ObjectiveValue);
        return new PageAnswer(
            [
                .. question.Units.Select(
                    (_, u) =>
                        new UnitAnswer(
                            [
                                .. offers
                                    .Select((o, d) => (o.Key, (int)solver.Value(extra[u][d])))
                                    .Where(e => e.Item2 > 0),
                            ],
                            [
                                .. spread
                                    .Where(w => w.Part == u)
                                    .Select(w => new Spreading(w.Demand, sizes[w.Size], (int)solver.Value(w.Count)))
                                    .Where(w => w.Count > 0),
                            ],
                            PocketsOf(u),
                            unplaced[u].Sum(v => (int)solver.Value(v))
                        )
                ),
            ],
            [.. standing.Select(choice => offers[Array.FindIndex(choice, v => solver.Value(v) == 1)].Key)],
            offers
                .Select((o, d) => (o.Key, Count: buy[d] is { } v ? (int)solver.Value(v) : 0))
                .Where(b => b.Count > 0)
                .ToImmutableDictionary(b => b.Key, b => b.Count),
            value,
            status == CpSolverStatus.Optimal
                ? 0
                : Math.Max(1e-9, (value - solver.BestObjectiveBound) / Math.Max(1, Math.Abs(value)))
        );

        int PocketsOf(int part)
        {
            var count = question.Room.IsDefaultOrEmpty ? 0 : question.Room[part].Values.Sum();
            for (var d = 0; d < offers.Length; d++)
            {
                var onFace = offers[d].Pockets.Values.Sum();
                count += 2 * onFace * (int)solver.Value(extra[part][d]);
                for (var l = 0; l < standing.Length; l++)
                {
                    count +=
                        question.Standing[l].Faces.Count(f => f == part) * onFace * (int)solver.Value(standing[l][d]);
                }
            }

            return count;
        }
    }

    private static string BoughtAs(PageQuestion question, string key) =>
        question.Offers.First(o => o.Key == key).Bought;

    private static int RoomOf(PageQuestion question, int part, Size size) =>
        question.Room.IsDefaultOrEmpty ? 0 : question.Room[part].GetValueOrDefault(size);
}
