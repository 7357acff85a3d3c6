using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A size that is packed, and how many of it are wanted.</summary>
public readonly record struct WantedSize(Size Cut, bool MayTurn, int Count);

/// <summary>A place for a piece in a pattern.</summary>
/// <param name="SizeIndex">Which of the wanted sizes.</param>
public readonly record struct PatternSlot(int SizeIndex, Rect Bounds);

/// <summary>One way to cut a sheet edge to edge.</summary>
/// <param name="Kind">Index of the kind of sheet.</param>
/// <param name="Counts">How many of each wanted size it gives.</param>
/// <param name="Cuts">How many cuts free all of them.</param>
public sealed record SheetPattern(int Kind, ImmutableArray<int> Counts, int Cuts)
{
    private readonly SheetPatterns.Part _part = null!;

    internal SheetPattern(int kind, SheetPatterns.Part part)
        : this(kind, [.. part.Counts], part.Cuts) => _part = part;

    /// <summary>The places of so many pieces of each size, and what is left over as rectangles.</summary>
    /// <param name="need">At most <see cref="Counts"/>.</param>
    public (IReadOnlyList<PatternSlot> Slots, IReadOnlyList<Rect> Offcuts) Lay(
        Size room,
        IReadOnlyList<WantedSize> sizes,
        IReadOnlyList<int> need
    )
    {
        var (slots, offcuts, left) = (new List<PatternSlot>(), new List<Rect>(), need.ToArray());
        _part.Lay(new Rect(Length.Zero, Length.Zero, room), sizes, left, slots, offcuts);
        return left.Any(n => n > 0)
            ? throw new InvalidOperationException("A pattern holds fewer pieces than were asked of it.")
            : (slots, offcuts);
    }
}

/// <summary>
/// All ways to cut a sheet edge to edge that no other way gives more than: for every rectangle that normal cuts leave,
/// the undominated counts of pieces. Exact. Source: P. C. Gilmore and R. E. Gomory, "Multistage cutting stock problems
/// of two and more dimensions", Operations Research 13 (1965), for patterns; J. C. Herz, IBM Journal 16 (1972), for
/// normal cuts.
/// </summary>
public static class SheetPatterns
{
    /// <summary>Counts that are compared before it is too many: about half a second.</summary>
    private const long MostCompared = 100_000_000;

    /// <summary>The patterns of all kinds of sheet; null when there are too many to list.</summary>
    public static IReadOnlyList<SheetPattern>? Of(
        IReadOnlyList<SheetKind> kinds,
        IReadOnlyList<WantedSize> sizes,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(kinds);
        ArgumentNullException.ThrowIfNull(sizes);
        var listing = new Listing(sizes, cancel);
        var all = new List<SheetPattern>();
        for (var kind = 0; kind < kinds.Count; kind++)
        {
            if (listing.Of(kinds[kind].Room) is not { } parts)
            {
                return null;
            }

            all.AddRange(parts.Where(p => p.Counts.Any(c => c > 0)).Select(p => new SheetPattern(kind, p)));
        }

        return all;
    }

    /// <summary>A rectangle and how it is cut: into two parts, into one piece, or not at all.</summary>
    internal sealed class Part(int[] counts, int cuts)
    {
        public int[] Counts { get; } = counts;

        public int Cuts { get; } = cuts;

        public (Part First, Part Second, bool Down, Length At)? Split { get; init; }

        public (int SizeIndex, Size Cut)? Piece { get; init; }

        /// <summary>Lays what is still needed into a rectangle; says whether anything lies there.</summary>
        public bool Lay(
            Rect room,
            IReadOnlyList<WantedSize> sizes,
            int[] need,
            List<PatternSlot> slots,
            List<Rect> offcuts
        )
        {
            if (Split is { } split)
            {
                var (one, two) = split.Down
                    ? (
                        room with
                        {
                            Width = split.At,
                        },
                        room with
                        {
                            X = room.X + split.At,
                            Width = room.Width - split.At,
                        }
                    )
                    : (
                        room with
                        {
                            Height = split.At,
                        },
                        room with
                        {
                            Y = room.Y + split.At,
                            Height = room.Height - split.At,
                        }
                    );
                var before = offcuts.Count;
                var (first, second) = (
                    split.First.Lay(one, sizes, need, slots, offcuts),
                    split.Second.Lay(two, sizes, need, slots, offcuts)
                );
                if (first || second)
                {
                    return true;
                }

                // Nothing lies in either part: it need not be cut.
                offcuts.RemoveRange(before, offcuts.Count - before);
                AddOffcut(offcuts, room);
                return false;
            }

            if (Piece is not { } piece || need[piece.SizeIndex] == 0)
            {
                AddOffcut(offcuts, room);
                return false;
            }

            need[piece.SizeIndex]--;
            var place = new Rect(room.X, room.Y, piece.Cut);
            slots.Add(new PatternSlot(piece.SizeIndex, place));
            var (across, down) = (room.Width - place.Width, room.Height - place.Height);
            // The larger rest stays whole.
            var besideIsWhole = (decimal)across.Emu * room.Height.Emu >= (decimal)down.Emu * room.Width.Emu;
            AddOffcut(offcuts, new Rect(place.Right, room.Y, across, besideIsWhole ? room.Height : place.Height));
            AddOffcut(offcuts, new Rect(room.X, place.Bottom, besideIsWhole ? place.Width : room.Width, down));
            return true;
        }

        private static void AddOffcut(List<Rect> offcuts, Rect rest)
        {
            if (rest.Size.IsPositive)
            {
                offcuts.Add(rest);
            }
        }
    }

    private sealed class Listing
    {
        private readonly IReadOnlyList<WantedSize> _sizes;
        private readonly CancellationToken _cancel;
        private readonly List<(int Index, Size Cut)> _shapes = [];
        private readonly Dictionary<(long, long), List<Part>> _known = [];
        private readonly long[] _widths;
        private readonly long[] _heights;
        private long _compared;

        public Listing(IReadOnlyList<WantedSize> sizes, CancellationToken cancel)
        {
            (_sizes, _cancel) = (sizes, cancel);
            for (var i = 0; i < sizes.Count; i++)
            {
                _shapes.Add((i, sizes[i].Cut));
                if (sizes[i].MayTurn && !sizes[i].Cut.IsSquare)
                {
                    _shapes.Add((i, sizes[i].Cut.Turned));
                }
            }

            _widths = [.. _shapes.Select(s => s.Cut.Width.Emu).Distinct().Order()];
            _heights = [.. _shapes.Select(s => s.Cut.Height.Emu).Distinct().Order()];
        }

        public List<Part>? Of(Size room)
        {
            var (across, down) = (Normal(_widths, room.Width.Emu), Normal(_heights, room.Height.Emu));
            return across is null || down is null ? null : Of(room.Width.Emu, room.Height.Emu, across, down);
        }

        /// <summary>Every sum of sides up to a length, 0 among them; null when there are too many.</summary>
        private static long[]? Normal(long[] sides, long most)
        {
            var sums = new SortedSet<long> { 0 };
            var open = new Queue<long>([0]);
            while (open.TryDequeue(out var sum))
            {
                foreach (var side in sides)
                {
                    if (sum + side <= most && sums.Add(sum + side))
                    {
                        open.Enqueue(sum + side);
                    }
                }

                if (sums.Count > 400)
                {
                    return null;
                }
            }

            return [.. sums];
        }

        private static long Floor(long[] normal, long length)
        {
            var at = Array.BinarySearch(normal, length);
            return normal[at >= 0 ? at : ~at - 1];
        }

        /// <summary>The undominated parts of a rectangle; null when there are too many.</summary>
        private List<Part>? Of(long width, long height, long[] across, long[] down)
        {
            (width, height) = (Floor(across, width), Floor(down, height));
            if (_known.TryGetValue((width, height), out var known))
            {
                return known;
            }

            _cancel.ThrowIfCancellationRequested();
            var found = new Undominated(_sizes.Count);
            foreach (var (index, cut) in _shapes)
            {
                if (cut.Width.Emu <= width && cut.Height.Emu <= height)
                {
                    var counts = new int[_sizes.Count];
                    counts[index] = 1;
                    found.Add(
                        new Part(counts, (cut.Width.Emu < width ? 1 : 0) + (cut.Height.Emu < height ? 1 : 0))
                        {
                            Piece = (index, cut),
                        }
                    );
                }
            }

            foreach (var at in across.Where(x => x > 0 && 2 * x <= width))
            {
                if (!Join(Of(at, height, across, down), Of(width - at, height, across, down), true, at, found))
                {
                    return null;
                }
            }

            foreach (var at in down.Where(y => y > 0 && 2 * y <= height))
            {
                if (!Join(Of(width, at, across, down), Of(width, height - at, across, down), false, at, found))
                {
                    return null;
                }
            }

            return _known[(width, height)] = found.Parts.Count > 0 ? found.Parts : [new Part(new int[_sizes.Count], 0)];
        }

        private bool Join(List<Part>? ones, List<Part>? twos, bool isDown, long at, Undominated found)
        {
            if (ones is null || twos is null)
            {
                return false;
            }

            foreach (var one in ones)
            {
                // Each sum is compared with the parts that are known, size by size.
                _compared += (long)twos.Count * (found.Parts.Count + 1) * _sizes.Count;
                if (_compared > MostCompared)
                {
                    return false;
                }

                foreach (var two in twos)
                {
                    var counts = new int[_sizes.Count];
                    for (var i = 0; i < counts.Length; i++)
                    {
                        counts[i] = Math.Min(_sizes[i].Count, one.Counts[i] + two.Counts[i]);
                    }

                    found.Add(new Part(counts, one.Cuts + two.Cuts + 1) { Split = (one, two, isDown, new Length(at)) });
                }
            }

            return true;
        }
    }

    /// <summary>Keeps parts that no other one equals or exceeds; of equals the one with fewer cuts.</summary>
    private sealed class Undominated(int sizes)
    {
        public List<Part> Parts { get; } = [];

        public void Add(Part part)
        {
            for (var i = 0; i < Parts.Count; i++)
            {
                var (less, more) = (false, false);
                for (var s = 0; s < sizes; s++)
                {
                    less |= part.Counts[s] < Parts[i].Counts[s];
                    more |= part.Counts[s] > Parts[i].Counts[s];
                }

                if (!more && (less || part.Cuts >= Parts[i].Cuts))
                {
                    return;
                }

                if (!less)
                {
                    Parts.RemoveAt(i--);
                }
            }

            Parts.Add(part);
        }
    }
}
