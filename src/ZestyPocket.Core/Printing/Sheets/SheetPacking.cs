using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A piece to be cut from a sheet: its cut size, and whether a quarter turn is allowed.</summary>
public readonly record struct SheetPiece(int Index, Size Cut, bool MayTurn);

/// <summary>A piece at its place on a sheet. <paramref name="Bounds"/> is as printed, turned or not.</summary>
public readonly record struct PackedPiece(int Index, Rect Bounds, bool Turned);

/// <summary>One sheet's pieces, and the rectangles left over.</summary>
public sealed record PackedSheet(ImmutableArray<PackedPiece> Pieces, ImmutableArray<Rect> Offcuts)
{
    /// <summary>Index of its kind of sheet.</summary>
    public int Kind { get; init; }
}

/// <summary>
/// Packs pieces on sheets so that every piece comes free by edge-to-edge (guillotine) cuts: fewest sheets, then fewest
/// cuts, then the largest usable offcut. Many starts over fixed heuristics and shuffled orders; not proved optimal:
/// that is <see cref="SheetFilling"/>.
/// </summary>
public static class SheetPacking
{
    private const int ShuffledOrders = 400;

    /// <summary>
    /// As many starts as pieces allow: all of them for 80, ever fewer for more, so that a thousand take seconds.
    /// </summary>
    private static int StartsFor(int pieces) => (int)Math.Clamp(600_000 / (pieces * Math.Sqrt(pieces)), 24, 840);

    private enum Fit
    {
        LeastArea,
        ShortestSide,
        LongestSide,
        TopLeft,
    }

    private enum Cut
    {
        ShorterLeftover,
        LongerLeftover,
        SmallerRest,
        LargerRest,
        Across,
        Down,
    }

    private enum Turn
    {
        Either,
        UprightFirst,
        TurnedFirst,
    }

    /// <summary>Whether a piece can go on a sheet at all.</summary>
    public static bool CanHold(Size usable, SheetPiece piece) =>
        piece.Cut.FitsIn(usable) || (piece.MayTurn && piece.Cut.Turned.FitsIn(usable));

    /// <summary>
    /// Packs all pieces; each must fit a sheet by itself (<see cref="CanHold"/>), else <see cref="RuleException"/>.
    /// </summary>
    /// <param name="pieces">What to pack.</param>
    /// <param name="usable">The room on each sheet.</param>
    /// <param name="gap">Waste kept between neighbouring pieces, 0 for shared cuts.</param>
    /// <param name="seed">Start of the shuffled orders; the same seed gives the same sheets.</param>
    /// <param name="shuffled">Tries shuffled orders after the fixed ones.</param>
    /// <param name="cancel">Stops the search.</param>
    public static IReadOnlyList<PackedSheet> Pack(
        IReadOnlyList<SheetPiece> pieces,
        Size usable,
        Length gap,
        ulong seed,
        bool shuffled = true,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(pieces);
        if (pieces.Count == 0)
        {
            return [];
        }

        if (pieces.FirstOrDefault(p => !CanHold(usable, p)) is { Cut.IsPositive: true } tooLarge)
        {
            throw new RuleException($"A {tooLarge.Cut} piece is larger than the printable part of the sheet.");
        }

        // A gap between pieces is the same as pieces and sheet all larger by the gap.
        var sheet = new Size(usable.Width + gap, usable.Height + gap);
        var grown = pieces.Select(p => p with { Cut = new Size(p.Cut.Width + gap, p.Cut.Height + gap) }).ToArray();
        var bound = LowerBound(grown, sheet);

        Candidate? best = null;
        var left = StartsFor(pieces.Count);
        foreach (var order in FixedOrders(grown))
        {
            foreach (var (fit, cut, turn) in Rules().Take(Math.Max(0, left)))
            {
                cancel.ThrowIfCancellationRequested();
                Consider(order, fit, cut, turn);
                left--;
            }
        }

        if (shuffled && best!.Sheets.Count > bound)
        {
            var shuffle = new Shuffle(seed);
            var order = (SheetPiece[])grown.Clone();
            var rules = Rules().ToArray();
            for (var i = 0; i < Math.Min(left, ShuffledOrders) && best.Sheets.Count > bound; i++)
            {
                cancel.ThrowIfCancellationRequested();
                shuffle.Mix(order);
                var (fit, cut, turn) = rules[i % rules.Length];
                Consider(order, fit, cut, turn);
            }
        }

        return [.. best!.Sheets.Select(s => Shrunk(s, gap))];

        void Consider(SheetPiece[] order, Fit fit, Cut cut, Turn turn)
        {
            var candidate = Candidate.Make(order, sheet, fit, cut, turn, best?.Sheets.Count ?? int.MaxValue);
            if (candidate is not null && (best is null || candidate.BetterThan(best)))
            {
                best = candidate;
            }
        }
    }

    /// <summary>No packing needs fewer sheets than the area does.</summary>
    public static int LowerBound(IReadOnlyList<SheetPiece> pieces, Size sheet)
    {
        ArgumentNullException.ThrowIfNull(pieces);
        var area = pieces.Sum(p => p.Cut.SquareInches);
        return Math.Max(1, (int)Math.Ceiling(Math.Round(area / sheet.SquareInches, 9)));
    }

    private static IEnumerable<(Fit Fit, Cut Cut, Turn Turn)> Rules() =>
        from turn in Enum.GetValues<Turn>()
        from cut in Enum.GetValues<Cut>()
        from fit in Enum.GetValues<Fit>()
        select (fit, cut, turn);

    private static IEnumerable<SheetPiece[]> FixedOrders(SheetPiece[] pieces)
    {
        yield return [.. pieces.OrderByDescending(p => p.Cut.SquareInches).ThenBy(p => p.Index)];
        yield return
        [
            .. pieces
                .OrderByDescending(p => Length.Max(p.Cut.Width, p.Cut.Height))
                .ThenByDescending(p => p.Cut.SquareInches)
                .ThenBy(p => p.Index),
        ];
        yield return
        [
            .. pieces
                .OrderByDescending(p => Length.Min(p.Cut.Width, p.Cut.Height))
                .ThenByDescending(p => p.Cut.SquareInches)
                .ThenBy(p => p.Index),
        ];
        yield return
        [
            .. pieces.OrderByDescending(p => p.Cut.Width).ThenByDescending(p => p.Cut.Height).ThenBy(p => p.Index),
        ];
        yield return
        [
            .. pieces.OrderByDescending(p => p.Cut.Height).ThenByDescending(p => p.Cut.Width).ThenBy(p => p.Index),
        ];
        yield return [.. pieces.OrderByDescending(p => (p.Cut.Width + p.Cut.Height).Emu).ThenBy(p => p.Index)];
    }

    private static PackedSheet Shrunk(PackedSheet sheet, Length gap) =>
        new(
            [
                .. sheet
                    .Pieces.Select(p =>
                        p with
                        {
                            Bounds = p.Bounds with { Width = p.Bounds.Width - gap, Height = p.Bounds.Height - gap },
                        }
                    )
                    .OrderBy(p => p.Index),
            ],
            [
                .. sheet
                    .Offcuts.Select(o => o with { Width = o.Width - gap, Height = o.Height - gap })
                    .Where(o => o.Size.IsPositive),
            ]
        );

    /// <summary>
    /// A small deterministic generator (xorshift64*), so that no clock or shared state enters the core.
    /// </summary>
    private sealed class Shuffle(ulong seed)
    {
        private ulong _state = seed == 0 ? 0x9E3779B97F4A7C15UL : seed;

        public void Mix(SheetPiece[] order)
        {
            for (var i = order.Length - 1; i > 0; i--)
            {
                _state ^= _state >> 12;
                _state ^= _state << 25;
                _state ^= _state >> 27;
                var j = (int)((_state * 2685821657736338717UL) % (ulong)(i + 1));
                (order[i], order[j]) = (order[j], order[i]);
            }
        }
    }

    private sealed class Candidate
    {
        private readonly Lazy<int> _cuts;
        private readonly decimal _largestOffcut;

        private Candidate(List<PackedSheet> sheets, Size sheet)
        {
            Sheets = sheets;
            _cuts = new Lazy<int>(() => sheets.Sum(s => GuillotineCuts.Of(sheet, s.Pieces)!.Count));
            _largestOffcut = sheets.SelectMany(s => s.Offcuts).Select(o => o.Size.SquareInches).DefaultIfEmpty().Max();
        }

        public List<PackedSheet> Sheets { get; }

        public bool BetterThan(Candidate other)
        {
            if (Sheets.Count != other.Sheets.Count)
            {
                return Sheets.Count < other.Sheets.Count;
            }

            return _cuts.Value != other._cuts.Value
                ? _cuts.Value < other._cuts.Value
                : _largestOffcut > other._largestOffcut;
        }

        public static Candidate? Make(SheetPiece[] order, Size sheet, Fit fit, Cut cut, Turn turn, int mostSheets)
        {
            var open = new List<(List<PackedPiece> Pieces, List<Rect> Free)>();
            foreach (var piece in order)
            {
                var place = Best(open, piece, fit, turn);
                if (place is null)
                {
                    if (open.Count == mostSheets)
                    {
                        return null;
                    }

                    open.Add(([], [new Rect(Length.Zero, Length.Zero, sheet)]));
                    place = Best([open[^1]], piece, fit, turn);
                    place = place!.Value with { Sheet = open.Count - 1 };
                }

                var (index, freeIndex, turned) = place.Value;
                var (pieces, free) = open[index];
                var room = free[freeIndex];
                var size = turned ? piece.Cut.Turned : piece.Cut;
                pieces.Add(new PackedPiece(piece.Index, new Rect(room.X, room.Y, size), turned));
                free.RemoveAt(freeIndex);
                Split(free, room, size, cut);
            }

            return new Candidate([.. open.Select(s => new PackedSheet([.. s.Pieces], [.. s.Free]))], sheet);
        }

        private static (int Sheet, int Free, bool Turned)? Best(
            List<(List<PackedPiece> Pieces, List<Rect> Free)> open,
            SheetPiece piece,
            Fit fit,
            Turn turn
        )
        {
            (int, int, bool)? best = null;
            var bestScore = (long.MaxValue, long.MaxValue);
            for (var s = 0; s < open.Count && best is null; s++)
            {
                for (var f = 0; f < open[s].Free.Count; f++)
                {
                    var room = open[s].Free[f];
                    foreach (var turned in Turns(piece, turn))
                    {
                        var size = turned ? piece.Cut.Turned : piece.Cut;
                        if (!size.FitsIn(room.Size))
                        {
                            continue;
                        }

                        var score = Score(room, size, fit);
                        if (score.CompareTo(bestScore) < 0)
                        {
                            (best, bestScore) = ((s, f, turned), score);
                        }

                        if (turn != Turn.Either)
                        {
                            break;
                        }
                    }
                }
            }

            return best;
        }

        private static ReadOnlySpan<bool> Turns(SheetPiece piece, Turn turn)
        {
            if (!piece.MayTurn || piece.Cut.IsSquare)
            {
                return [false];
            }

            return turn == Turn.TurnedFirst ? [true, false] : [false, true];
        }

        private static (long First, long Second) Score(Rect room, Size size, Fit fit)
        {
            var (across, down) = ((room.Width - size.Width).Emu, (room.Height - size.Height).Emu);
            return fit switch
            {
                // Areas in square EMU overflow a long; a thousandth of an inch each way is fine enough.
                Fit.LeastArea => ((room.Width.Emu / 914) * (room.Height.Emu / 914), Math.Min(across, down)),
                Fit.ShortestSide => (Math.Min(across, down), Math.Max(across, down)),
                Fit.LongestSide => (Math.Max(across, down), Math.Min(across, down)),
                _ => (room.Y.Emu, room.X.Emu),
            };
        }

        private static void Split(List<Rect> free, Rect room, Size size, Cut cut)
        {
            var (across, down) = (room.Width - size.Width, room.Height - size.Height);
            var right = (decimal)across.Emu * size.Height.Emu;
            var below = (decimal)down.Emu * size.Width.Emu;
            var cutAcross = cut switch
            {
                Cut.ShorterLeftover => across <= down,
                Cut.LongerLeftover => across > down,
                Cut.SmallerRest => right <= below,
                Cut.LargerRest => right > below,
                Cut.Across => true,
                _ => false,
            };

            // Cut across: the rest below runs the whole width; cut down: the rest beside runs the whole height.
            var beside = new Rect(room.X + size.Width, room.Y, across, cutAcross ? size.Height : room.Height);
            var under = new Rect(room.X, room.Y + size.Height, cutAcross ? room.Width : size.Width, down);
            foreach (var rest in new[] { beside, under })
            {
                if (rest.Size.IsPositive)
                {
                    free.Add(rest);
                }
            }
        }
    }
}
