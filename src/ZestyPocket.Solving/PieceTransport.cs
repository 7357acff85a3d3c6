using ZestyPocket.Core.Counting;

namespace ZestyPocket.Solving;

/// <summary>
/// What pieces cost in given pockets at best, and the straight line under that cost: for every number of pockets
/// <c>p</c>, the cost is at least <c>Base + Slope · p</c>.
/// </summary>
/// <param name="Cost">Crops, pieces without a pocket, and pockets that stay empty.</param>
/// <param name="Flow">Class by class and size by size, how many go there.</param>
internal sealed record Transported(long Cost, int[][] Flow, long Base, long[] Slope);

/// <summary>
/// Puts pieces into pockets at the least cost: a transport by shortest augmenting paths (Busacker and Gowen), in whole
/// numbers and so exact. Its prices give the line under the cost by weak duality, whatever the pockets are.
/// </summary>
internal static class PieceTransport
{
    private const long Far = long.MaxValue / 4;

    public static Transported Solve(PieceClass[] classes, int[] pockets, long emptyPocket)
    {
        var (n, m) = (classes.Length, pockets.Length);
        var left = Array.ConvertAll(classes, c => c.Count);
        var room = (int[])pockets.Clone();
        var flow = classes.Select(_ => new int[m]).ToArray();
        var nowhere = new int[n];
        var (toClass, toSize) = (new long[n], new long[m]);
        var (classFrom, sizeFrom) = (new int[n], new int[m]);
        while (Array.Exists(left, c => c > 0))
        {
            Distances();
            // The cheapest end: a size with room, or nowhere at all.
            var (best, end, placed) = (Far, -1, false);
            for (var s = 0; s < m; s++)
            {
                if (room[s] > 0 && toSize[s] < best)
                {
                    (best, end, placed) = (toSize[s], s, true);
                }
            }

            for (var c = 0; c < n; c++)
            {
                if (toClass[c] + PageCosts.Unplaced < best)
                {
                    (best, end, placed) = (toClass[c] + PageCosts.Unplaced, c, false);
                }
            }

            Push(end, placed);
        }

        return Result();

        // Bellman and Ford from all classes that have pieces left; a piece in a pocket saves that it stays empty.
        void Distances()
        {
            for (var c = 0; c < n; c++)
            {
                (toClass[c], classFrom[c]) = (left[c] > 0 ? 0 : Far, -1);
            }

            Array.Fill(toSize, Far);
            for (var changed = true; changed; )
            {
                changed = Relax();
            }
        }

        bool Relax()
        {
            var changed = false;
            for (var c = 0; c < n; c++)
            {
                var costs = classes[c].Costs;
                for (var s = 0; s < m; s++)
                {
                    if (costs[s] is not { } cost)
                    {
                        continue;
                    }

                    var there = cost - emptyPocket;
                    if (toClass[c] < Far && toClass[c] + there < toSize[s])
                    {
                        (toSize[s], sizeFrom[s], changed) = (toClass[c] + there, c, true);
                    }

                    if (flow[c][s] > 0 && toSize[s] < Far && toSize[s] - there < toClass[c])
                    {
                        (toClass[c], classFrom[c], changed) = (toSize[s] - there, s, true);
                    }
                }
            }

            return changed;
        }

        void Push(int end, bool placed)
        {
            var most = placed ? room[end] : int.MaxValue;
            for (var (c, s) = placed ? (sizeFrom[end], end) : (end, -1); ; c = sizeFrom[s])
            {
                if (classFrom[c] < 0)
                {
                    most = Math.Min(most, left[c]);
                    break;
                }

                s = classFrom[c];
                most = Math.Min(most, flow[c][s]);
            }

            int at;
            if (placed)
            {
                room[end] -= most;
                at = sizeFrom[end];
                flow[at][end] += most;
            }
            else
            {
                nowhere[end] += most;
                at = end;
            }

            while (classFrom[at] >= 0)
            {
                var s = classFrom[at];
                flow[at][s] -= most;
                at = sizeFrom[s];
                flow[at][s] += most;
            }

            left[at] -= most;
        }

        Transported Result()
        {
            var cost = 0L;
            for (var c = 0; c < n; c++)
            {
                cost += (long)nowhere[c] * PageCosts.Unplaced;
                for (var s = 0; s < m; s++)
                {
                    cost += flow[c][s] == 0 ? 0 : flow[c][s] * (classes[c].Costs[s]!.Value - emptyPocket);
                }
            }

            var prices = Prices();
            var floor = 0L;
            var slope = new long[m];
            for (var s = 0; s < m; s++)
            {
                cost += pockets[s] * emptyPocket;
                slope[s] = emptyPocket + prices[s];
            }

            for (var c = 0; c < n; c++)
            {
                long least = PageCosts.Unplaced;
                for (var s = 0; s < m; s++)
                {
                    if (classes[c].Costs[s] is { } there)
                    {
                        least = Math.Min(least, there - emptyPocket - prices[s]);
                    }
                }

                floor += classes[c].Count * least;
            }

            return new Transported(cost, flow, floor, slope);
        }

        // What one more pocket of a size would save: the shortest way to it from where pieces end now.
        long[] Prices()
        {
            for (var c = 0; c < n; c++)
            {
                (toClass[c], classFrom[c]) = (nowhere[c] > 0 ? -PageCosts.Unplaced : Far, -1);
            }

            for (var s = 0; s < m; s++)
            {
                toSize[s] = pockets[s] > room[s] ? 0 : Far;
            }

            for (var changed = true; changed; )
            {
                changed = Relax();
            }

            return Array.ConvertAll(toSize, d => Math.Min(0, d));
        }
    }
}
