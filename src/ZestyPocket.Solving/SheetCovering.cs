using Google.OrTools.Sat;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Solving;

/// <summary>
/// Chooses among the ways to cut sheets as an integer programme, with one worker, a fixed seed and a bound in the
/// solver's own deterministic time. Several questions at once wait for each other.
/// </summary>
public sealed class SheetCovering : ISheetCovering, IDisposable
{
    /// <summary>A sheet more is worth more than all cuts of an album.</summary>
    private const long CutsPerCost = 100;

    /// <summary>Enough to prove a year of weeks in a tenth of it; what is not proved says so.</summary>
    private const string Settings =
        "num_workers:1 random_seed:1 max_deterministic_time:1.5 cp_model_presolve:true linearization_level:2";

    private readonly SemaphoreSlim _gate = new(Math.Max(1, Environment.ProcessorCount / 2));

    public SheetCover? Cover(
        IReadOnlyList<SheetPattern> patterns,
        IReadOnlyList<SheetKind> kinds,
        IReadOnlyList<int> wanted,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(patterns);
        ArgumentNullException.ThrowIfNull(kinds);
        ArgumentNullException.ThrowIfNull(wanted);
        var model = new CpModel();
        var times = patterns
            .Select(p =>
                model.NewIntVar(
                    0,
                    Math.Min(
                        kinds[p.Kind].Most,
                        p.Counts.Select((c, i) => c == 0 ? 0 : (wanted[i] + c - 1) / c).DefaultIfEmpty().Max()
                    ),
                    string.Empty
                )
            )
            .ToArray();
        for (var size = 0; size < wanted.Count; size++)
        {
            model.Add(LinearExpr.WeightedSum(times, patterns.Select(p => (long)p.Counts[size])) >= wanted[size]);
        }

        for (var kind = 0; kind < kinds.Count; kind++)
        {
            if (kinds[kind].Most < int.MaxValue)
            {
                var ofKind = times.Where((_, p) => patterns[p].Kind == kind).ToArray();
                model.Add(LinearExpr.Sum(ofKind) <= kinds[kind].Most);
            }
        }

        model.Minimize(
            LinearExpr.WeightedSum(times, patterns.Select(p => (kinds[p.Kind].Cost * CutsPerCost) + p.Cuts))
        );
        _gate.Wait(cancel);
        try
        {
            using var solver = new CpSolver { StringParameters = Settings };
            using var stop = cancel.Register(solver.StopSearch);
            var status = solver.Solve(model);
            cancel.ThrowIfCancellationRequested();
            if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            {
                return null;
            }

            var cost = patterns.Select((p, i) => kinds[p.Kind].Cost * solver.Value(times[i])).Sum();
            // Cuts are under a sheet's worth only while they are few: the cost alone is what is proved.
            var bound = (long)
                Math.Ceiling((solver.BestObjectiveBound - MostCuts(patterns, solver, times)) / CutsPerCost);
            return new SheetCover(
                [.. times.Select(t => (int)solver.Value(t))],
                status == CpSolverStatus.Optimal || bound >= cost,
                status == CpSolverStatus.Optimal ? cost : bound
            );
        }
        finally
        {
            _gate.Release();
        }
    }

    public void Dispose() => _gate.Dispose();

    private static long MostCuts(IReadOnlyList<SheetPattern> patterns, CpSolver solver, IntVar[] times) =>
        patterns.Select((p, i) => p.Cuts * solver.Value(times[i])).Sum();
}
