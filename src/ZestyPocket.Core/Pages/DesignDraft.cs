using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>A way to part a pocket of a draft: the sizes of its parts from left or top.</summary>
/// <param name="Upright">Seams from top to bottom, parts side by side; else one under another.</param>
/// <param name="Parts">Their extents; they add up to the pocket's.</param>
/// <param name="Bought">Every part is a size that people can buy pockets, cards or prints for.</param>
public sealed record DraftSplit(bool Upright, ImmutableArray<Length> Parts, bool Bought);

/// <summary>
/// A page design being drawn: pockets are parted and merged, and their areas always add up to the page. Immutable.
/// </summary>
public sealed record DesignDraft(string Notation, Size Body, ImmutableArray<Pocket> Pockets)
{
    /// <summary>More pockets than this on one page could not be told apart.</summary>
    public const int MostPockets = 80;

    /// <summary>The largest page that is drawn here.</summary>
    private static readonly Length Largest = Length.FromInches(24);

    /// <summary>The sizes people can buy pockets for, each also turned. Common practice.</summary>
    public static ImmutableArray<Size> BoughtSizes { get; } =
    [
        .. new (decimal W, decimal H)[]
        {
            (3, 4),
            (4, 6),
            (2, 2),
            (3, 3),
            (4, 4),
            (3, 8),
            (6, 8),
            (6, 12),
            (3, 6),
            (2, 3),
            (9, 12),
            (12, 12),
        }
            .SelectMany(s => new[] { Size.FromInches(s.W, s.H), Size.FromInches(s.H, s.W) })
            .Distinct(),
    ];

    /// <summary>Reads a notation. Throws <see cref="MeasureException"/> with the place of what is wrong.</summary>
    public static DesignDraft Read(string notation)
    {
        ArgumentNullException.ThrowIfNull(notation);
        if (notation.Length > 2_000)
        {
            throw new MeasureException("A page design is written in at most 2,000 characters. Nothing was changed.");
        }

        var (body, pockets) = DesignNotation.Parse(notation);
        if (pockets.Length > MostPockets || body.Width > Largest || body.Height > Largest)
        {
            throw new MeasureException(
                $"A page has at most {MostPockets} pockets and is at most {Largest} in wide and tall; this one has "
                    + $"{pockets.Length} and is {body}. Nothing was changed."
            );
        }

        return new DesignDraft(notation.Trim(), body, pockets);
    }

    /// <summary>Parts a pocket. The parts must add up to it.</summary>
    public DesignDraft Split(string key, bool upright, IReadOnlyList<Length> parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var pocket = Find(key);
        var whole = upright ? pocket.Nominal.Width : pocket.Nominal.Height;
        var sum = parts.Aggregate(Length.Zero, (a, b) => a + b);
        if (parts.Count < 2 || parts.Any(p => p <= Length.Zero) || sum != whole)
        {
            throw new RuleException(
                $"The parts of a pocket are two or more and add up to it: {string.Join(" + ", parts)} is not "
                    + $"{whole}. Nothing was changed."
            );
        }

        var at = Length.Zero;
        var rects = new List<Rect>();
        foreach (var part in parts)
        {
            rects.Add(
                upright
                    ? new Rect(pocket.Bounds.X + at, pocket.Bounds.Y, part, pocket.Bounds.Height)
                    : new Rect(pocket.Bounds.X, pocket.Bounds.Y + at, pocket.Bounds.Width, part)
            );
            at += part;
        }

        return Of([.. Pockets.Where(p => p != pocket).Select(p => p.Bounds), .. rects]);
    }

    /// <summary>Makes one pocket of several that fill a rectangle.</summary>
    public DesignDraft Merge(IReadOnlyList<string> keys)
    {
        ArgumentNullException.ThrowIfNull(keys);
        var merged = keys.Distinct().Select(Find).ToList();
        if (merged.Count < 2)
        {
            throw new RuleException("Choose two or more pockets to merge. Nothing was changed.");
        }

        var around = Around(merged.Select(p => p.Bounds));
        return around.Size.SquareEmu != merged.Aggregate(Int128.Zero, (sum, p) => sum + p.Nominal.SquareEmu)
            ? throw new RuleException("Only pockets that fill a rectangle together become one. Nothing was changed.")
            : Of([.. Pockets.Except(merged).Select(p => p.Bounds), around]);
    }

    /// <summary>
    /// The ways to part a pocket, those first whose parts can be bought: two to four equal parts, and two unequal parts
    /// where both snap to a size that can be bought.
    /// </summary>
    public ImmutableArray<DraftSplit> SplitsOf(string key)
    {
        var pocket = Find(key);
        var splits = new List<DraftSplit>();
        foreach (var upright in new[] { true, false })
        {
            var (whole, across) = upright
                ? (pocket.Nominal.Width, pocket.Nominal.Height)
                : (pocket.Nominal.Height, pocket.Nominal.Width);
            foreach (
                var count in Enumerable
                    .Range(2, 3)
                    .Where(c => whole.Emu % c == 0 && whole / c >= Alterations.Narrowest && IsMeasurable(whole / c))
            )
            {
                splits.Add(Way(upright, [.. Enumerable.Repeat(whole / count, count)], across));
            }

            foreach (
                var part in BoughtSizes
                    .Where(s => (upright ? s.Height : s.Width) == across)
                    .Select(s => upright ? s.Width : s.Height)
                    .Distinct()
                    .Where(p => p < whole && 2 * p != whole)
            )
            {
                if (Way(upright, [part, whole - part], across) is { Bought: true } snapped)
                {
                    splits.Add(snapped);
                }
            }
        }

        return
        [
            .. splits
                .OrderByDescending(s => s.Bought)
                .ThenBy(s => s.Parts.Length)
                .ThenByDescending(s => s.Upright)
                .ThenBy(s => s.Parts[0]),
        ];
    }

    /// <summary>The smallest rectangle around some.</summary>
    public static Rect Around(IEnumerable<Rect> rects)
    {
        var all = rects.ToList();
        var (x, y) = (all.Min(r => r.X), all.Min(r => r.Y));
        return new Rect(x, y, all.Max(r => r.Right) - x, all.Max(r => r.Bottom) - y);
    }

    /// <summary>
    /// What a page holds, in words: <c>One 6x8 + five 3x4</c>. Designs are named so, never after a maker.
    /// </summary>
    public static string NameOf(IEnumerable<Pocket> pockets)
    {
        var sizes = pockets
            .GroupBy(p => p.Nominal)
            .OrderByDescending(g => g.Key.SquareInches)
            .ThenBy(g => g.Key.Width)
            .ToList();
        var name = string.Join(" + ", sizes.Select(g => $"{NumberWords.Of(g.Count())} {g.Key}"));
        return sizes.Count == 1 && sizes[0].Count() == 1
            ? $"One full {sizes[0].Key}"
            : char.ToUpperInvariant(name[0]) + name[1..];
    }

    /// <summary>A sixteenth of an inch or a whole millimetre: what can be read off a ruler.</summary>
    private static bool IsMeasurable(Length part) =>
        part.Emu % (Length.EmuPerInch / 16) == 0 || part.Emu % Length.EmuPerMillimetre == 0;

    private static DraftSplit Way(bool upright, ImmutableArray<Length> parts, Length across) =>
        new(upright, parts, parts.All(p => BoughtSizes.Contains(upright ? new Size(p, across) : new Size(across, p))));

    private static DesignDraft Of(IReadOnlyCollection<Rect> rects) => Read(DesignTiling.Write(rects));

    private Pocket Find(string key) =>
        Pockets.FirstOrDefault(p => p.Key == key)
        ?? throw new RuleException("That pocket is not on this page. Nothing was changed.");
}
