namespace ZestyPocket.Solving;

/// <summary>
/// A way along the chain: the design of every shared leaf (-1 where none is shared), and each part's plan.
/// </summary>
internal sealed record ChainPath(int[] Shared, PartPlan[] Plans, long Cost);

/// <summary>
/// The cheapest pages of all parts: a shortest path over the parts, whose states are the designs of the leaves that
/// neighbours share. Only what lies on a path that could be the shortest is worked out exactly; elsewhere a lower bound
/// does. OnHand that all share enters by prices (Lagrange): the path at any prices shows how cheap it can be at best.
/// What remains open between that and the best path found is settled by a small programme over the plans that could
/// matter.
/// </summary>
internal sealed class ChainSearch(ChainProblem problem, CancellationToken cancel)
{
    private const int MostRounds = 60;

    /// <summary>Rounds without a better bound before steps are halved.</summary>
    private const int Patience = 4;

    private readonly PartPages[] _pages = [.. problem.Parts.Select(p => new PartPages(problem, p))];
    private readonly Crossing[] _crossings = Crossings(problem);
    private readonly List<PathColumn> _seen = [];
    private long[] _prices = new long[problem.LeafCost.Length];
    private Edges[] _edges = [];

    /// <summary>Where two parts meet: the designs the leaf between them can have, with what the change costs.</summary>
    private sealed record Crossing(SharedLeaf? Leaf, (int Design, long Cost)[] States);

    /// <summary>What a part costs for each pair of designs beside it: bounds, and plans where they are known.</summary>
    private sealed class Edges(int[,] at, List<int[]> pockets)
    {
        public int[,] At { get; } = at;

        public List<int[]> Pockets { get; } = pockets;

        public long[] Value { get; } = new long[pockets.Count];

        public PartPlan?[] Plan { get; } = new PartPlan?[pockets.Count];
    }

    /// <summary>The cheapest path, and what no path undercuts; both equal when it is proved.</summary>
    public (ChainPath Path, long Bound) Solve()
    {
        _edges = [.. problem.Parts.Select((_, u) => EdgesOf(u))];
        var stocks = problem.Available.Length;
        var stockPrices = new double[stocks];
        var (best, bound) = ((ChainPath?)null, long.MinValue);
        var bestPrices = new long[stocks];
        var (step, since) = (1.0, 0);
        for (var round = 0; round < MostRounds; round++)
        {
            var prices = Array.ConvertAll(stockPrices, p => (long)Math.Round(p));
            var (path, priced) = Shortest(prices);
            var lower = priced - prices.Zip(problem.Available, (p, a) => p * a).Sum();
            if (best is null || path.Cost < best.Cost)
            {
                best = path;
            }

            if (lower > bound)
            {
                (bound, bestPrices, since) = (lower, prices, 0);
            }
            else if (++since >= Patience)
            {
                (step, since) = (step / 2, 0);
            }

            if (bound >= best.Cost || step < 0.01)
            {
                break;
            }

            if (!Step(stockPrices, path, best.Cost - lower, step))
            {
                break;
            }
        }

        if (bound < best!.Cost)
        {
            (best, bound) = Close(best, bound, bestPrices);
        }

        return (best, Math.Min(bound, best.Cost));
    }

    /// <summary>OnHand that is overdrawn becomes dearer, what is left over cheaper. False when nothing moves.</summary>
    private bool Step(double[] stockPrices, ChainPath path, long gap, double step)
    {
        var used = Used(path);
        var slack = used.Zip(problem.Available, (u, a) => u - a).ToArray();
        var moves = slack
            .Select((s, g) => (s > 0 && stockPrices[g] < Core.Counting.PageCosts.Buy) || (s < 0 && stockPrices[g] > 0))
            .ToArray();
        var square = slack.Where((_, g) => moves[g]).Sum(s => (double)s * s);
        if (square == 0)
        {
            return false;
        }

        for (var g = 0; g < stockPrices.Length; g++)
        {
            if (moves[g])
            {
                var moved = stockPrices[g] + (step * gap / square * slack[g]);
                stockPrices[g] = Math.Clamp(moved, 0, Core.Counting.PageCosts.Buy);
            }
        }

        return true;
    }

    /// <summary>What remains open is settled over all plans that could be on a cheaper path.</summary>
    private (ChainPath Path, long Bound) Close(ChainPath best, long bound, long[] stockPrices)
    {
        // First over the plans of the paths that were seen: a good path makes the rest few.
        if (PathProgramme.Solve(problem, States, _seen, cancel) is { } seen && Path(seen) is var joined)
        {
            best = joined.Cost < best.Cost ? joined : best;
        }

        if (bound >= best.Cost)
        {
            return (best, bound);
        }

        var constant = stockPrices.Zip(problem.Available, (p, a) => p * a).Sum();
        _ = Shortest(stockPrices);
        if (Columns(best.Cost + constant) is not { } columns)
        {
            return (best, bound);
        }

        // No column at all: no path is cheaper than the best that is known.
        if (PathProgramme.Solve(problem, States, columns, cancel) is { } all)
        {
            var path = Path(all);
            return path.Cost < best.Cost ? (path, path.Cost) : (best, best.Cost);
        }

        return (best, best.Cost);
    }

    private int[][] States => Array.ConvertAll(_crossings, c => Array.ConvertAll(c.States, s => s.Design));

    /// <summary>
    /// All plans on a path that costs less than a limit at the prices of now; null when they are too many.
    /// </summary>
    private List<PathColumn>? Columns(long limit)
    {
        var (before, after) = Distances();
        var columns = new List<PathColumn>();
        for (var u = 0; u < problem.Parts.Length; u++)
        {
            var (edges, kept) = (_edges[u], new Dictionary<int, (long Below, List<PartPlan> Plans)>());
            for (var i = 0; i < edges.At.GetLength(0); i++)
            {
                for (var j = 0; j < edges.At.GetLength(1); j++)
                {
                    var at = edges.At[i, j];
                    var below = limit - before[u][i] - after[u][j];
                    if (
                        before[u][i] >= long.MaxValue / 4
                        || after[u][j] >= long.MaxValue / 4
                        || edges.Value[at] >= below
                    )
                    {
                        continue;
                    }

                    if (!kept.TryGetValue(at, out var found) || found.Below < below)
                    {
                        if (_pages[u].All(edges.Pockets[at], below, cancel) is not { } plans)
                        {
                            return null;
                        }

                        kept[at] = found = (below, plans);
                    }

                    columns.AddRange(Undominated(u, i, j, found.Plans.Where(p => p.Priced < below)));
                    if (columns.Count > PathProgramme.MostColumns)
                    {
                        return null;
                    }
                }
            }
        }

        return columns;
    }

    /// <summary>Of plans that take the same leaves out of every stock, the cheapest.</summary>
    private IEnumerable<PathColumn> Undominated(int u, int i, int j, IEnumerable<PartPlan> plans) =>
        plans
            .Select(p => new PathColumn(u, i, j, p, Taken(p)))
            .GroupBy(c => c.Taken, VectorComparer.Only)
            .Select(g => g.MinBy(c => c.Plan.Cost)!);

    private int[] Taken(PartPlan plan) => problem.Taken(plan.Own.Concat(plan.Extra));

    /// <summary>From each state to the start and to the end, at the prices and with the bounds of now.</summary>
    private (long[][] Before, long[][] After) Distances()
    {
        var n = problem.Parts.Length;
        var before = new long[n][];
        var after = new long[n][];
        for (var u = 0; u < n; u++)
        {
            before[u] = u == 0 ? [0] : Next(before[u - 1], _edges[u - 1], _crossings[u - 1]);
        }

        for (var u = n - 1; u >= 0; u--)
        {
            after[u] = u == n - 1 ? [0] : Previous(after[u + 1], _edges[u + 1], _crossings[u]);
        }

        return (before, after);
    }

    private long[] Next(long[] before, Edges edges, Crossing crossing) =>
        [
            .. crossing.States.Select(
                (state, j) => before.Select((b, i) => b + edges.Value[edges.At[i, j]]).Min() + Price(state)
            ),
        ];

    private long[] Previous(long[] after, Edges edges, Crossing crossing) =>
        [
            .. crossing.States.Select(
                (state, i) => after.Select((a, j) => a + edges.Value[edges.At[i, j]]).Min() + Price(state)
            ),
        ];

    private long Price((int Design, long Cost) state) => state.Design < 0 ? 0 : state.Cost + _prices[state.Design];

    /// <summary>The shortest path at prices for stock, and its length with those prices.</summary>
    private (ChainPath Path, long Priced) Shortest(long[] stockPrices)
    {
        _prices = [.. problem.StockOf.Select(g => g < 0 ? 0 : stockPrices[g])];
        for (var u = 0; u < _pages.Length; u++)
        {
            _pages[u].PricedAt(_prices);
            var edges = _edges[u];
            for (var at = 0; at < edges.Pockets.Count; at++)
            {
                (edges.Value[at], edges.Plan[at]) = (_pages[u].Bound(edges.Pockets[at]), null);
            }
        }

        while (true)
        {
            cancel.ThrowIfCancellationRequested();
            var (states, length) = ByBounds();
            var open = false;
            for (var u = 0; u < _pages.Length; u++)
            {
                var edges = _edges[u];
                var at = edges.At[u == 0 ? 0 : states[u - 1], u == _pages.Length - 1 ? 0 : states[u]];
                if (edges.Plan[at] is null)
                {
                    open = true;
                    Settle(u, at);
                }
            }

            if (!open)
            {
                return (PathOf(states), length);
            }
        }
    }

    /// <summary>Works one edge out exactly; what that teaches makes the bounds of its neighbours better.</summary>
    private void Settle(int u, int at)
    {
        var (edges, lines) = (_edges[u], _pages[u].Lines);
        edges.Plan[at] = _pages[u].Best(edges.Pockets[at], cancel);
        edges.Value[at] = edges.Plan[at]!.Priced;
        if (_pages[u].Lines == lines)
        {
            return;
        }

        for (var other = 0; other < edges.Pockets.Count; other++)
        {
            if (edges.Plan[other] is null)
            {
                edges.Value[other] = Math.Max(edges.Value[other], _pages[u].Bound(edges.Pockets[other]));
            }
        }
    }

    private (int[] States, long Length) ByBounds()
    {
        var n = problem.Parts.Length;
        var came = new int[n][];
        long[] before = [0];
        for (var u = 0; u < n - 1; u++)
        {
            var (edges, crossing) = (_edges[u], _crossings[u]);
            var next = new long[crossing.States.Length];
            came[u] = new int[crossing.States.Length];
            for (var j = 0; j < next.Length; j++)
            {
                next[j] = long.MaxValue;
                for (var i = 0; i < before.Length; i++)
                {
                    var length = before[i] + edges.Value[edges.At[i, j]];
                    if (length < next[j])
                    {
                        (next[j], came[u][j]) = (length, i);
                    }
                }

                next[j] += Price(crossing.States[j]);
            }

            before = next;
        }

        var states = new int[Math.Max(0, n - 1)];
        var (best, end) = (long.MaxValue, 0);
        for (var i = 0; i < before.Length; i++)
        {
            if (before[i] + _edges[n - 1].Value[_edges[n - 1].At[i, 0]] is var length && length < best)
            {
                (best, end) = (length, i);
            }
        }

        for (var u = n - 2; u >= 0; u--)
        {
            states[u] = end;
            end = came[u][end];
        }

        return (states, best);
    }

    private ChainPath PathOf(int[] states)
    {
        var plans = new PartPlan[_pages.Length];
        for (var u = 0; u < plans.Length; u++)
        {
            var (i, j) = (u == 0 ? 0 : states[u - 1], u == plans.Length - 1 ? 0 : states[u]);
            plans[u] = _edges[u].Plan[_edges[u].At[i, j]]!;
            _seen.Add(new PathColumn(u, i, j, plans[u], Taken(plans[u])));
        }

        return Costed(states, plans);
    }

    private ChainPath Path(List<PathColumn> columns)
    {
        var ordered = columns.OrderBy(c => c.Part).ToList();
        return Costed([.. ordered.SkipLast(1).Select(c => c.After)], [.. ordered.Select(c => c.Plan)]);
    }

    /// <summary>What a path really costs: without prices, with what has to be bought.</summary>
    private ChainPath Costed(int[] states, PartPlan[] plans)
    {
        var path = new ChainPath(
            [.. states.Select((s, u) => _crossings[u].States[s].Design)],
            plans,
            plans.Sum(p => p.Cost) + states.Select((s, u) => _crossings[u].States[s].Cost).Sum()
        );
        var bought = Used(path).Zip(problem.Available, (u, a) => Math.Max(0, u - a)).Sum();
        return path with { Cost = path.Cost + (bought * Core.Counting.PageCosts.Buy) };
    }

    /// <summary>Leaves that a path takes out of each stock, those that stand counted.</summary>
    private int[] Used(ChainPath path) =>
        problem.Taken(path.Shared.Concat(path.Plans.SelectMany(p => p.Own.Concat(p.Extra))));

    private Edges EdgesOf(int u)
    {
        var (part, left, right) = (problem.Parts[u], Side(u - 1), Side(u));
        var at = new int[left.States.Length, right.States.Length];
        var pockets = new List<int[]>();
        var known = new Dictionary<int[], int>(VectorComparer.Only);
        for (var i = 0; i < left.States.Length; i++)
        {
            for (var j = 0; j < right.States.Length; j++)
            {
                var there = (int[])part.Room.Clone();
                problem.AddPockets(there, left.States[i].Design, left.Leaf?.FacesAfter ?? 0);
                problem.AddPockets(there, right.States[j].Design, right.Leaf?.FacesBefore ?? 0);
                if (!known.TryGetValue(there, out at[i, j]))
                {
                    known[there] = at[i, j] = pockets.Count;
                    pockets.Add(there);
                }
            }
        }

        return new Edges(at, pockets);
    }

    private Crossing Side(int u) => u < 0 || u >= _crossings.Length ? new Crossing(null, [(-1, 0)]) : _crossings[u];

    private static Crossing[] Crossings(ChainProblem problem) =>
        [.. problem.Shared.Select(leaf => new Crossing(leaf, leaf is null ? [(-1, 0L)] : problem.Choices[leaf.Leaf]))];
}
