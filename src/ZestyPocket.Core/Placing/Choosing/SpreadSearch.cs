using System.Collections.Immutable;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>
/// Finds the assignment with the least sum: the linear part exactly first, then swaps and replacements as long as one
/// helps, then again from where a few pockets were shuffled. Nothing hangs on a clock or on chance: the same question
/// gives the same answer on any machine.
/// </summary>
public static class SpreadSearch
{
    /// <summary>Moves that are looked at for each open pocket: what keeps 18 of them under 100 ms.</summary>
    private const long MovesForEachPocket = 5_500;

    /// <summary>Of more candidates those are looked at that suit some pocket best, and some of every day.</summary>
    private const int MostLookedAt = 240;

    private const int OfEveryDay = 8;

    private const int FewestRounds = 12;

    private const long NotThere = long.MaxValue / 8;

    /// <param name="question">What goes where.</param>
    /// <param name="avoid">
    /// Answers that this one should differ from: lying in the same pocket as in one of them costs extra.
    /// </param>
    /// <param name="effort">1 is usual; more looks at so many times as many moves.</param>
    public static SpreadAnswer Best(
        SpreadQuestion question,
        IReadOnlyList<SpreadAnswer>? avoid = null,
        double effort = 1
    )
    {
        ArgumentNullException.ThrowIfNull(question);
        var asked = avoid is { Count: > 0 } ? Avoiding(question, avoid) : question;
        var costs = new SpreadCosts(asked);
        var search = new Search(costs, effort);
        var best = search.Run();
        var found = best.ToImmutableArray();
        return new SpreadAnswer(
            found,
            ReferenceEquals(asked, question) ? costs.Of(found) : new SpreadCosts(question).Of(found)
        );
    }

    /// <summary>What a candidate costs more in a pocket where it lies in an answer that is to be avoided.</summary>
    public const long SamePlace = 260_000;

    private static SpreadQuestion Avoiding(SpreadQuestion question, IReadOnlyList<SpreadAnswer> avoid) =>
        question with
        {
            Prices =
            [
                .. question.Prices.Select(
                    (row, p) =>
                        row.Select(
                                (price, c) =>
                                    price is not null && question.Pockets[p].Stays < 0
                                        ? price with
                                        {
                                            Terms = price.Terms.Add(
                                                (PlacingTerm.Place, SamePlace * avoid.Count(a => a.Candidates[p] == c))
                                            ),
                                        }
                                        : price
                            )
                            .ToImmutableArray()
                ),
            ],
        };

    private sealed class Search
    {
        private readonly SpreadCosts _costs;
        private readonly int[] _free;
        private readonly int[] _movable;
        private readonly long _most;
        private readonly int[] _start;
        private long _moves;
        private ulong _dice = 0x9E3779B97F4A7C15;

        public Search(SpreadCosts costs, double effort)
        {
            _costs = costs;
            var pockets = costs.Question.Pockets;
            _free = [.. Enumerable.Range(0, pockets.Length).Where(p => pockets[p].Stays < 0 && !pockets[p].StaysEmpty)];
            var stays = pockets.Where(p => p.Stays >= 0).Select(p => p.Stays).ToHashSet();
            _most = (long)(MovesForEachPocket * _free.Length * effort);
            _movable = LookedAt([
                .. Enumerable.Range(0, costs.Question.Candidates.Length).Where(c => !stays.Contains(c)),
            ]);
            _start = [.. pockets.Select(p => p.Stays)];
        }

        public int[] Run()
        {
            if (_free.Length == 0 || _movable.Length == 0)
            {
                return _start;
            }

            var state = new SpreadCosts.State(_costs, Linear());
            Descend(state);
            var (best, least) = (state.Copy(), state.Total);
            var (home, level) = (best, least);
            for (var round = 0; _moves < _most || round < FewestRounds; round++)
            {
                Shuffle(state, 2 + (round % 4));
                Descend(state);
                if (state.Total < least)
                {
                    (best, least) = (state.Copy(), state.Total);
                }

                // Somewhat worse is a place to go on from, so that the search leaves its valley.
                if (state.Total <= level + (Math.Abs(level) / 400))
                {
                    (home, level) = (state.Copy(), state.Total);
                }
                else
                {
                    state = new SpreadCosts.State(_costs, home);
                }

                if (round % 25 == 24)
                {
                    (home, level) = (best, least);
                    state = new SpreadCosts.State(_costs, home);
                }
            }

            return best;
        }

        /// <summary>All candidates, or of very many those that can matter.</summary>
        private int[] LookedAt(int[] all)
        {
            if (all.Length <= MostLookedAt)
            {
                return all;
            }

            var candidates = _costs.Question.Candidates;
            var ranked = all.Select(c => (Candidate: c, Cost: Cheapest(c)))
                .OrderBy(c => candidates[c.Candidate].Kind == CandidateKind.Photo)
                .ThenBy(c => c.Cost)
                .ThenBy(c => c.Candidate)
                .Select(c => c.Candidate)
                .ToList();
            return
            [
                .. ranked
                    .Take(MostLookedAt)
                    .Concat(ranked.GroupBy(c => candidates[c].Day).SelectMany(g => g.Take(OfEveryDay)))
                    .Distinct()
                    .Order(),
            ];

            long Cheapest(int candidate) =>
                _free
                    .Where(p => _costs.Allows(p, candidate))
                    .Select(p => _costs.Alone(p, candidate))
                    .DefaultIfEmpty(NotThere)
                    .Min();
        }

        /// <summary>The best by what each candidate costs by itself, exactly.</summary>
        private int[] Linear()
        {
            var at = (int[])_start.Clone();
            // As many empty candidates as pockets, so that a pocket may stay empty.
            var cost = new long[_free.Length, _movable.Length + _free.Length];
            for (var i = 0; i < _free.Length; i++)
            {
                for (var j = 0; j < _movable.Length; j++)
                {
                    cost[i, j] = _costs.Allows(_free[i], _movable[j]) ? _costs.Alone(_free[i], _movable[j]) : NotThere;
                }

                for (var j = 0; j < _free.Length; j++)
                {
                    cost[i, _movable.Length + j] = _costs.Alone(_free[i], -1);
                }
            }

            var columns = Assignment.Solve(cost);
            for (var i = 0; i < _free.Length; i++)
            {
                at[_free[i]] =
                    columns[i] < _movable.Length && cost[i, columns[i]] < NotThere ? _movable[columns[i]] : -1;
            }

            return at;
        }

        /// <summary>Swaps and replacements as long as one helps.</summary>
        private void Descend(SpreadCosts.State state)
        {
            for (var helped = true; helped; )
            {
                helped = false;
                foreach (var pocket in _free)
                {
                    foreach (var candidate in _movable)
                    {
                        helped |= Try(state, pocket, candidate);
                    }

                    helped |= Try(state, pocket, -1);
                }
            }
        }

        /// <summary>Lets a candidate lie in a pocket if the sum falls; says whether it did.</summary>
        private bool Try(SpreadCosts.State state, int pocket, int candidate)
        {
            var old = state[pocket];
            if (old == candidate || !_costs.Allows(pocket, candidate))
            {
                return false;
            }

            _moves++;
            var before = state.Total;
            if (candidate >= 0 && state.PocketOf(candidate) is >= 0 and var other)
            {
                if (!_costs.Allows(other, old))
                {
                    return false;
                }

                state.Swap(pocket, other);
                if (state.Total < before)
                {
                    return true;
                }

                state.Swap(pocket, other);
                return false;
            }

            state.Set(pocket, candidate);
            if (state.Total < before)
            {
                return true;
            }

            state.Set(pocket, old);
            return false;
        }

        private void Shuffle(SpreadCosts.State state, int times)
        {
            for (var i = 0; i < times; i++)
            {
                var pocket = _free[Next(_free.Length)];
                var candidate = _movable[Next(_movable.Length)];
                if (!_costs.Allows(pocket, candidate) || state[pocket] == candidate)
                {
                    continue;
                }

                var other = state.PocketOf(candidate);
                if (other < 0)
                {
                    state.Set(pocket, candidate);
                }
                else if (_costs.Allows(other, state[pocket]))
                {
                    state.Swap(pocket, other);
                }
            }
        }

        /// <summary>A fixed sequence of numbers (xorshift, Marsaglia 2003), the same every time.</summary>
        private int Next(int below)
        {
            _dice ^= _dice << 13;
            _dice ^= _dice >> 7;
            _dice ^= _dice << 17;
            return (int)(_dice % (ulong)below);
        }
    }
}
