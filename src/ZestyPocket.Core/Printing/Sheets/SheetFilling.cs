using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>Filled sheets and what is known of how good they are.</summary>
/// <param name="Cost">Sum over the sheets.</param>
/// <param name="IsProved">No other sheets cost less.</param>
public sealed record FilledSheets(ImmutableArray<PackedSheet> Sheets, long Cost, bool IsProved);

/// <summary>
/// Chooses sheets of several kinds for pieces: least cost, then fewest cuts, then the largest offcut. Where all ways to
/// cut a sheet can be listed, the choice among them is exact; else many starts over fixed rules.
/// </summary>
public static class SheetFilling
{
    /// <summary>
    /// Fills sheets. The first kind is the paper that is loaded: there is always enough of it, and every piece fits it
    /// (else <see cref="RuleException"/>). The same pieces give the same sheets.
    /// </summary>
    /// <param name="pieces">Indexes are kept.</param>
    /// <param name="kinds">The loaded paper, then what else there is.</param>
    /// <param name="gap">Waste kept between neighbouring pieces, 0 for shared cuts.</param>
    /// <param name="covering">Null for the fixed rules alone.</param>
    /// <param name="together">Pieces of one group should share a sheet; indexed like the pieces.</param>
    public static FilledSheets Fill(
        IReadOnlyList<SheetPiece> pieces,
        IReadOnlyList<SheetKind> kinds,
        Length gap,
        ISheetCovering? covering,
        IReadOnlyList<int>? together = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(pieces);
        ArgumentNullException.ThrowIfNull(kinds);
        if (pieces.Count == 0)
        {
            return new FilledSheets([], 0, true);
        }

        var (byPatterns, proved) = covering is null ? (null, null) : ByPatterns(pieces, kinds, gap, covering, cancel);
        // Where the cost is proved, rules may still need fewer cuts or leave a larger rest.
        var byRules = ByRules(pieces, kinds, gap, shuffled: proved is null, cancel);
        var best = byPatterns is not null && IsBetter(byPatterns, byRules, kinds, gap) ? byPatterns : byRules;
        var cost = CostOf(best, kinds);
        return new FilledSheets(
            [.. together is null ? best : SheetGroups.Gathered(best, pieces, together)],
            cost,
            cost <= proved
        );
    }

    private static long CostOf(IEnumerable<PackedSheet> sheets, IReadOnlyList<SheetKind> kinds) =>
        sheets.Sum(s => kinds[s.Kind].Cost);

    private static bool IsBetter(
        List<PackedSheet> one,
        List<PackedSheet> other,
        IReadOnlyList<SheetKind> kinds,
        Length gap
    )
    {
        var (mine, theirs) = (CostOf(one, kinds), CostOf(other, kinds));
        if (mine != theirs || one.Count != other.Count)
        {
            return mine != theirs ? mine < theirs : one.Count < other.Count;
        }

        var (cuts, otherCuts) = (Cuts(one), Cuts(other));
        return cuts != otherCuts ? cuts < otherCuts : Largest(one) > Largest(other);

        int Cuts(List<PackedSheet> sheets) =>
            sheets.Sum(s => GuillotineCuts.Of(Grown(kinds[s.Kind].Room, gap), s.Pieces)?.Count ?? 1_000);

        static decimal Largest(List<PackedSheet> sheets) =>
            sheets.SelectMany(s => s.Offcuts).Select(o => o.Size.SquareInches).DefaultIfEmpty().Max();
    }

    private static Size Grown(Size size, Length gap) => new(size.Width + gap, size.Height + gap);

    /// <summary>Leftovers are filled first, as far as they hold anything; then the loaded paper.</summary>
    private static List<PackedSheet> ByRules(
        IReadOnlyList<SheetPiece> pieces,
        IReadOnlyList<SheetKind> kinds,
        Length gap,
        bool shuffled,
        CancellationToken cancel
    )
    {
        var (sheets, left) = (new List<PackedSheet>(), pieces.ToList());
        for (var kind = 1; kind < kinds.Count && left.Count > 0; kind++)
        {
            if (kinds[kind].Cost > 0 || kinds[kind].Most < 1)
            {
                continue;
            }

            var fitting = left.FindAll(p => SheetPacking.CanHold(kinds[kind].Room, p));
            if (fitting.Count == 0)
            {
                continue;
            }

            var fullest = SheetPacking
                .Pack([.. fitting.Take(60)], kinds[kind].Room, gap, seed: 1, cancel: cancel)
                .MaxBy(s => s.Pieces.Sum(p => p.Bounds.Size.SquareInches))!;
            sheets.Add(fullest with { Kind = kind });
            var taken = fullest.Pieces.Select(p => p.Index).ToHashSet();
            left.RemoveAll(p => taken.Contains(p.Index));
        }

        sheets.AddRange(SheetPacking.Pack(left, kinds[0].Room, gap, seed: 1, shuffled, cancel));
        return sheets;
    }

    /// <summary>The sheets, and the least cost when it is proved.</summary>
    private static (List<PackedSheet>? Sheets, long? Proved) ByPatterns(
        IReadOnlyList<SheetPiece> pieces,
        IReadOnlyList<SheetKind> kinds,
        Length gap,
        ISheetCovering covering,
        CancellationToken cancel
    )
    {
        var grown = kinds.Select(k => k with { Room = Grown(k.Room, gap) }).ToList();
        // A piece that may turn is of the same size lying and upright.
        var bySize = pieces
            .GroupBy(p => (Cut: p.MayTurn && p.Cut.Width > p.Cut.Height ? p.Cut.Turned : p.Cut, p.MayTurn))
            .OrderBy(g => g.Key.Cut.Width)
            .ThenBy(g => g.Key.Cut.Height)
            .ThenBy(g => g.Key.MayTurn)
            .ToList();
        List<WantedSize> sizes =
        [
            .. bySize.Select(g => new WantedSize(Grown(g.Key.Cut, gap), g.Key.MayTurn, g.Count())),
        ];
        if (
            SheetPatterns.Of(grown, sizes, cancel) is not { } patterns
            || covering.Cover(patterns, grown, [.. sizes.Select(s => s.Count)], cancel) is not { } cover
        )
        {
            return (null, null);
        }

        var waiting = bySize.ConvertAll(g => new Queue<SheetPiece>(g));
        var sheets = new List<PackedSheet>();
        // Full sheets first: what is left over lies on the last one.
        foreach (
            var pattern in patterns
                .Zip(cover.Times)
                .Where(p => p.Second > 0)
                .OrderBy(p => p.First.Kind == 0)
                .ThenByDescending(p => Enumerable.Range(0, sizes.Count).Sum(i => AreaOf(p.First, i)))
                .SelectMany(p => Enumerable.Repeat(p.First, p.Second))
        )
        {
            var need = pattern.Counts.Select((count, i) => Math.Min(count, waiting[i].Count)).ToList();
            if (need.TrueForAll(n => n == 0))
            {
                continue;
            }

            var (slots, offcuts) = pattern.Lay(grown[pattern.Kind].Room, sizes, need);
            sheets.Add(
                new PackedSheet(
                    [
                        .. slots
                            .Select(slot =>
                            {
                                var piece = waiting[slot.SizeIndex].Dequeue();
                                return new PackedPiece(
                                    piece.Index,
                                    slot.Bounds with
                                    {
                                        Width = slot.Bounds.Width - gap,
                                        Height = slot.Bounds.Height - gap,
                                    },
                                    slot.Bounds.Width - gap != piece.Cut.Width
                                );
                            })
                            .OrderBy(p => p.Index),
                    ],
                    [
                        .. offcuts
                            .Select(o => o with { Width = o.Width - gap, Height = o.Height - gap })
                            .Where(o => o.Size.IsPositive),
                    ]
                )
                {
                    Kind = pattern.Kind,
                }
            );
        }

        return (sheets, cover.IsProved ? cover.Bound : null);

        decimal AreaOf(SheetPattern pattern, int size) => pattern.Counts[size] * sizes[size].Cut.SquareInches;
    }
}
