namespace ZestyPocket.Solving;

/// <summary>
/// The best pages of one part on given pockets: its cost with the prices of leaves, and what it takes.
/// </summary>
/// <param name="Cost">Without prices.</param>
/// <param name="Priced">With what its leaves cost at the prices asked for.</param>
/// <param name="Own">The design of each leaf it stands on alone.</param>
/// <param name="Extra">Designs of the leaves added, in ascending order.</param>
internal sealed record PartPlan(long Cost, long Priced, int[] Own, int[] Extra);

/// <summary>
/// Finds the pages of one part: every set of further leaves is looked at, unless a line under the cost shows that it
/// cannot be better. Lines come from transports and hold for all pockets, so what is learnt once is used ever after.
/// </summary>
internal sealed class PartPages(ChainProblem problem, ChainPart part)
{
    /// <summary>So many looked at without an end, and the programme of the part is solved instead.</summary>
    private const int MostLooked = 20_000;

    /// <summary>With more pieces than this it pays to ask what fractions of leaves would cost.</summary>
    private const int FewPieces = 40;

    private readonly List<Line> _lines = [];
    private readonly Dictionary<int[], Transported> _known = new(VectorComparer.Only);
    private readonly List<(int[] Own, int[] Extra)> _good = [];
    private readonly HashSet<int> _learnt = [];
    private long[] _prices = new long[problem.LeafCost.Length];
    private long _cheapestLeaf;

    /// <summary>No set of leaves costs less than nothing for pieces that go where they lose least.</summary>
    private readonly long _floor = part.Classes.Sum(c =>
        c.Count * Math.Min(Core.Counting.PageCosts.Unplaced, c.Costs.Min() ?? Core.Counting.PageCosts.Unplaced)
    );

    /// <summary>
    /// A straight line under the cost of pockets, with what each leaf does to it at the prices of now.
    /// </summary>
    private sealed class Line(long start, long[] slope)
    {
        public long Start { get; } = start;

        public long[] Slope { get; } = slope;

        /// <summary>Addable by addable design, the least that a leaf of it or of a later one adds.</summary>
        public long[] LeastFrom { get; set; } = [];

        /// <summary>Addable by addable design, what a leaf of it adds.</summary>
        public long[] Leaf { get; set; } = [];

        /// <summary>Own leaf by own leaf, the least that it and all after it add.</summary>
        public long[] OwnFrom { get; set; } = [];

        public long At(int[] pockets)
        {
            var cost = Start;
            for (var s = 0; s < pockets.Length; s++)
            {
                cost += Slope[s] * pockets[s];
            }

            return cost;
        }
    }

    /// <summary>How many lines are known; more of them make better bounds.</summary>
    public int Lines => _lines.Count;

    /// <summary>Prices of a leaf by design, on top of what it costs.</summary>
    public void PricedAt(long[] prices)
    {
        _prices = prices;
        _learnt.Clear();
        _cheapestLeaf = problem.Addable.Length == 0 ? 0 : problem.Addable.Min(d => problem.LeafCost[d] + prices[d]);
        foreach (var line in _lines)
        {
            Prepare(line);
        }
    }

    /// <summary>No plan on these pockets costs less, with prices.</summary>
    public long Bound(int[] pockets)
    {
        var most = MostInBound;
        var bound = part.MayGrow && problem.Addable.Length > 0 ? ((most + 1) * _cheapestLeaf) + _floor : long.MaxValue;
        Span<long> start = stackalloc long[_lines.Count];
        for (var j = 0; j < _lines.Count; j++)
        {
            start[j] = _lines[j].At(pockets) + _lines[j].OwnFrom[0];
        }

        for (var leaves = 0; leaves <= most; leaves++)
        {
            var least = (leaves * _cheapestLeaf) + _floor;
            for (var j = 0; j < start.Length; j++)
            {
                least = Math.Max(least, start[j] + (leaves == 0 ? 0 : leaves * _lines[j].LeastFrom[0]));
            }

            bound = Math.Min(bound, least);
        }

        return bound;
    }

    private int MostInBound => part.MayGrow && problem.Addable.Length > 0 ? 4 + (part.Pieces / 6) : 0;

    /// <summary>The cheapest plan on these pockets, with prices.</summary>
    public PartPlan Best(int[] pockets, CancellationToken cancel)
    {
        var search = new Search(this, pockets, cancel);
        foreach (var (own, extra) in _good)
        {
            search.Try(own, extra);
        }

        if (search.Best is null)
        {
            search.Greedy();
        }

        if (!search.Run())
        {
            // Too many sets are nearly equal, as for hundreds of pieces: the part's programme finds the best.
            var (own, extra) = PartProgramme.Solve(problem, part, pockets, _prices, cancel);
            search.Try(own, extra);
        }

        var best = search.Best!;
        if (!_good.Exists(g => g.Own.SequenceEqual(best.Own) && g.Extra.SequenceEqual(best.Extra)))
        {
            _good.Add((best.Own, best.Extra));
            if (_good.Count > 12)
            {
                _good.RemoveAt(0);
            }
        }

        return best;
    }

    /// <summary>
    /// Every plan on these pockets that costs less than a limit, with prices; null when they are too many.
    /// </summary>
    public List<PartPlan>? All(int[] pockets, long below, CancellationToken cancel)
    {
        var search = new Search(this, pockets, cancel) { Below = below, Found = [] };
        return search.Run() ? search.Found : null;
    }

    /// <summary>Where the pieces go on so many pockets.</summary>
    public Transported On(int[] pockets)
    {
        if (_known.TryGetValue(pockets, out var known))
        {
            return known;
        }

        var kept = (int[])pockets.Clone();
        var transported = PieceTransport.Solve(part.Classes, kept, problem.EmptyPocket);
        _known[kept] = transported;
        Add(transported.Base, transported.Slope);
        return transported;
    }

    /// <summary>
    /// Learns the line that says most about so many leaves on these pockets. Any prices of pockets make a line that
    /// holds, so rounded ones do too.
    /// </summary>
    private void Learn(int[] pockets, int leaves)
    {
        if (PartRelaxation.Slopes(problem, part, pockets, _prices, leaves) is not { } worth)
        {
            return;
        }

        var slope = Array.ConvertAll(worth, w => Math.Min(problem.EmptyPocket, (long)Math.Round(w)));
        var start = part.Classes.Sum(c =>
        {
            long least = Core.Counting.PageCosts.Unplaced;
            for (var s = 0; s < slope.Length; s++)
            {
                least = c.Costs[s] is { } cost ? Math.Min(least, cost - slope[s]) : least;
            }

            return c.Count * least;
        });
        Add(start, slope);
    }

    private void Add(long start, long[] slope)
    {
        if (!_lines.Exists(l => l.Start == start && l.Slope.AsSpan().SequenceEqual(slope)))
        {
            var line = new Line(start, slope);
            Prepare(line);
            _lines.Add(line);
        }
    }

    private void Prepare(Line line)
    {
        var addable = problem.Addable;
        line.Leaf = new long[addable.Length];
        line.LeastFrom = new long[addable.Length + 1];
        line.LeastFrom[^1] = long.MaxValue / 8;
        for (var i = addable.Length - 1; i >= 0; i--)
        {
            var d = addable[i];
            line.Leaf[i] = problem.LeafCost[d] + _prices[d] + (2 * Slope(line, d));
            line.LeastFrom[i] = Math.Min(line.LeastFrom[i + 1], line.Leaf[i]);
        }

        line.OwnFrom = new long[part.Own.Length + 1];
        for (var l = part.Own.Length - 1; l >= 0; l--)
        {
            var (leaf, faces) = part.Own[l];
            line.OwnFrom[l] =
                line.OwnFrom[l + 1]
                + problem.Choices[leaf].Min(c => c.Cost + _prices[c.Design] + (faces * Slope(line, c.Design)));
        }
    }

    private long Slope(Line line, int design)
    {
        var sum = 0L;
        var pockets = problem.Pockets[design];
        for (var s = 0; s < pockets.Length; s++)
        {
            sum += line.Slope[s] * pockets[s];
        }

        return sum;
    }

    /// <summary>One search over own leaves and further leaves, depth first, by number of leaves.</summary>
    private sealed class Search(PartPages pages, int[] pockets, CancellationToken cancel)
    {
        private readonly int[] _at = (int[])pockets.Clone();
        private readonly int[] _own = new int[pages.OwnLeaves.Length];
        private readonly List<int> _extra = [];
        private int _looked;
        private int _quick;

        public PartPlan? Best { get; private set; }

        /// <summary>Plans that cost as much as this, or more, are not looked for.</summary>
        public long Below { get; init; } = long.MaxValue;

        public List<PartPlan>? Found { get; init; }

        private long Limit => Found is not null ? Below : Best?.Priced ?? long.MaxValue;

        /// <summary>False when it gave up.</summary>
        public bool Run()
        {
            var problem = pages.Problem;
            var grows = pages.Part.MayGrow && problem.Addable.Length > 0;
            for (
                var leaves = 0;
                leaves == 0 || (grows && (leaves * pages._cheapestLeaf) + pages._floor < Limit);
                leaves++
            )
            {
                if (leaves > 1 && !May(0, 0, 0, leaves))
                {
                    continue;
                }

                if (leaves > 1 && pages.Part.Pieces > FewPieces && pages._learnt.Add(leaves))
                {
                    pages.Learn(pockets, leaves);
                    if (!May(0, 0, 0, leaves))
                    {
                        continue;
                    }
                }

                // A leaf that holds no piece is one too many.
                if (leaves > pages.Part.Pieces || !OwnLeaf(0, 0, leaves))
                {
                    return leaves > pages.Part.Pieces;
                }
            }

            return true;
        }

        /// <summary>Puts leaves in one by one while that makes it cheaper.</summary>
        public void Greedy()
        {
            var problem = pages.Problem;
            var own = pages.OwnLeaves.Select(l => problem.Choices[l.Leaf].MinBy(c => c.Cost).Design).ToArray();
            var extra = new List<int>();
            Try(own, [.. extra]);
            while (pages.Part.MayGrow && extra.Count <= pages.Part.Pieces)
            {
                var before = Best!.Priced;
                foreach (var d in problem.Addable)
                {
                    Try(own, [.. extra.Append(d).Order()]);
                }

                if (Best.Priced >= before || Best.Extra.Length != extra.Count + 1)
                {
                    break;
                }

                extra = [.. Best.Extra];
            }
        }

        /// <summary>Looks at one plan.</summary>
        public void Try(int[] own, int[] extra)
        {
            Array.Copy(pockets, _at, pockets.Length);
            var (cost, prices) = (0L, 0L);
            for (var l = 0; l < own.Length; l++)
            {
                var (leaf, faces) = pages.OwnLeaves[l];
                Add(own[l], faces);
                cost += Array.Find(pages.Problem.Choices[leaf], c => c.Design == own[l]).Cost;
                prices += pages._prices[own[l]];
            }

            foreach (var d in extra)
            {
                Add(d, 2);
                cost += pages.Problem.LeafCost[d];
                prices += pages._prices[d];
            }

            own.CopyTo(_own, 0);
            _extra.Clear();
            _extra.AddRange(extra);
            Take(cost, prices);
            _extra.Clear();
            Array.Copy(pockets, _at, pockets.Length);
        }

        private void Take(long cost, long prices)
        {
            var all = cost + pages.On(_at).Cost;
            if (Found is not null)
            {
                if (all + prices < Below)
                {
                    Found.Add(new PartPlan(all, all + prices, [.. _own], [.. _extra]));
                }
            }
            else if (Best is null || all + prices < Best.Priced)
            {
                Best = new PartPlan(all, all + prices, [.. _own], [.. _extra]);
            }
        }

        private bool OwnLeaf(int l, long cost, int leaves, long prices = 0)
        {
            if (l == _own.Length)
            {
                return Extra(0, cost, prices, leaves);
            }

            var (leaf, faces) = pages.OwnLeaves[l];
            foreach (var (design, change) in pages.Problem.Choices[leaf])
            {
                Add(design, faces);
                _own[l] = design;
                var on =
                    !May(cost + change + prices + pages._prices[design], l + 1, 0, leaves)
                    || OwnLeaf(l + 1, cost + change, leaves, prices + pages._prices[design]);
                Add(design, -faces);
                if (!on)
                {
                    return false;
                }
            }

            return true;
        }

        private bool Extra(int from, long cost, long prices, int more)
        {
            if (more == 0)
            {
                Take(cost, prices);
                return true;
            }

            for (var i = from; i < pages.Problem.Addable.Length; i++)
            {
                var d = pages.Problem.Addable[i];
                if (++_looked > MostLooked || (Found?.Count ?? 0) > MostLooked)
                {
                    return false;
                }

                if ((_looked & 1023) == 0)
                {
                    cancel.ThrowIfCancellationRequested();
                }

                Add(d, 2);
                var (on, priced) = (cost + pages.Problem.LeafCost[d], prices + pages._prices[d]);
                _extra.Add(d);
                var done = !May(on + priced, _own.Length, i, more - 1) || Extra(i, on, priced, more - 1);
                _extra.RemoveAt(_extra.Count - 1);
                Add(d, -2);
                if (!done)
                {
                    return false;
                }
            }

            return true;
        }

        /// <summary>Whether what is begun can still come under the limit.</summary>
        private bool May(long spent, int own, int from, int more)
        {
            var lines = pages._lines;
            var limit = Limit;
            if (_quick < lines.Count && Over(lines[_quick]))
            {
                return false;
            }

            for (var j = 0; j < lines.Count; j++)
            {
                if (j != _quick && Over(lines[j]))
                {
                    // The line that showed it shows the next one too, as a rule.
                    _quick = j;
                    return false;
                }
            }

            return true;

            bool Over(Line line) =>
                spent + line.At(_at) + line.OwnFrom[own] + (more == 0 ? 0 : more * line.LeastFrom[from]) >= limit;
        }

        private void Add(int design, int faces) => pages.Problem.AddPockets(_at, design, faces);
    }

    private ChainProblem Problem => problem;

    private ChainPart Part => part;

    private OwnLeaf[] OwnLeaves => part.Own;
}

/// <summary>Numbers of pockets, compared number by number.</summary>
internal sealed class VectorComparer : IEqualityComparer<int[]>
{
    public static VectorComparer Only { get; } = new();

    public bool Equals(int[]? x, int[]? y) => x.AsSpan().SequenceEqual(y);

    public int GetHashCode(int[] vector)
    {
        var hash = 17;
        foreach (var number in vector)
        {
            hash = (hash * 31) + number;
        }

        return hash;
    }
}
