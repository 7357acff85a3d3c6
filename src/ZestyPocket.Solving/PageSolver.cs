using System.Collections.Immutable;
using ZestyPocket.Core.Counting;

namespace ZestyPocket.Solving;

/// <summary>
/// Answers which pages hold it all: as a chain where parts share leaves with their neighbours only, which is how albums
/// are bound, and as one programme where they do not. Deterministic; several questions at once wait for each other, so
/// that a few keepers do not take the whole machine.
/// </summary>
public sealed class PageSolver : IPageSolver, IDisposable
{
    private readonly SemaphoreSlim _gate = new(Math.Max(1, Environment.ProcessorCount / 2));

    public PageAnswer Solve(PageQuestion question, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(question);
        question.Checked();
        _gate.Wait(cancel);
        try
        {
            return question.Units.Length > 0 && ChainProblem.Of(question) is { } chain
                ? ByChain(chain, cancel)
                : WholeModel.Solve(question, WholeModel.UsualEffort, cancel);
        }
        finally
        {
            _gate.Release();
        }
    }

    public void Dispose() => _gate.Dispose();

    private static PageAnswer ByChain(ChainProblem problem, CancellationToken cancel)
    {
        var (path, bound) = new ChainSearch(problem, cancel).Solve();
        var offers = problem.Question.Offers;
        var standing = new int[problem.Question.Standing.Length];
        for (var u = 0; u < problem.Parts.Length; u++)
        {
            for (var l = 0; l < problem.Parts[u].Own.Length; l++)
            {
                standing[problem.Parts[u].Own[l].Leaf] = path.Plans[u].Own[l];
            }

            if (u < path.Shared.Length && problem.Shared[u] is { } shared)
            {
                standing[shared.Leaf] = path.Shared[u];
            }
        }

        return new PageAnswer(
            [.. problem.Parts.Select((_, u) => PartOf(problem, path, u))],
            [.. standing.Select(d => offers[d].Key)],
            Bought(problem, path, standing),
            path.Cost,
            bound >= path.Cost ? 0 : Math.Max(1e-9, (double)(path.Cost - bound) / Math.Max(1, Math.Abs(path.Cost)))
        );
    }

    private static UnitAnswer PartOf(ChainProblem problem, ChainPath path, int u)
    {
        var (part, plan, demands) = (problem.Parts[u], path.Plans[u], problem.Question.Units[u]);
        var pockets = (int[])part.Room.Clone();
        Add(u > 0 ? path.Shared[u - 1] : -1, u > 0 ? problem.Shared[u - 1]?.FacesAfter ?? 0 : 0);
        Add(
            u < path.Shared.Length ? path.Shared[u] : -1,
            u < path.Shared.Length ? problem.Shared[u]?.FacesBefore ?? 0 : 0
        );
        for (var l = 0; l < part.Own.Length; l++)
        {
            Add(plan.Own[l], part.Own[l].Faces);
        }

        foreach (var d in plan.Extra)
        {
            Add(d, 2);
        }

        var flow = PieceTransport.Solve(part.Classes, pockets, problem.EmptyPocket).Flow;
        var classes = demands.Select((d, c) => (d, c)).Where(d => d.d.Count > 0).Select(d => d.c).ToList();
        var spread = (
            from i in Enumerable.Range(0, classes.Count)
            from s in Enumerable.Range(0, pockets.Length)
            where flow[i][s] > 0
            select new Spreading(classes[i], problem.Sizes[s], flow[i][s])
        ).ToImmutableArray();
        return new UnitAnswer(
            [
                .. plan
                    .Extra.GroupBy(d => d)
                    .OrderBy(g => g.Key)
                    .Select(g => (problem.Question.Offers[g.Key].Key, g.Count())),
            ],
            spread,
            pockets.Sum(),
            demands.Sum(d => d.Count) - spread.Sum(s => s.Count)
        );

        void Add(int design, int faces) => problem.AddPockets(pockets, design, faces);
    }

    private static ImmutableDictionary<string, int> Bought(ChainProblem problem, ChainPath path, int[] standing)
    {
        var used = problem.Taken(standing.Concat(path.Plans.SelectMany(p => p.Extra)));
        return problem
            .Question.Offers.Select((o, d) => (o, g: problem.StockOf[d]))
            .Where(p => p.g >= 0 && p.o.Of is null && used[p.g] > problem.Available[p.g])
            .ToImmutableDictionary(p => p.o.Key, p => (int)(used[p.g] - problem.Available[p.g]));
    }
}
