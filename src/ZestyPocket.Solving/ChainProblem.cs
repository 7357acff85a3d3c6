using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Solving;

/// <summary>A class of pieces: how many, and what one costs in each size of pocket; null where it cannot go.</summary>
internal sealed record PieceClass(int Count, long?[] Costs);

/// <summary>A leaf that stands, as seen from one part: which leaf, and how many of its faces are the part's.</summary>
internal readonly record struct OwnLeaf(int Leaf, int Faces);

/// <summary>
/// One part of the chain: its pieces, the pockets that are there anyway, the leaves that only it stands on, and whether
/// leaves may be added.
/// </summary>
internal sealed record ChainPart(PieceClass[] Classes, int[] Room, OwnLeaf[] Own, bool MayGrow)
{
    public int Pieces => Classes.Sum(c => c.Count);
}

/// <summary>The leaf that two neighbours share; null where they share none.</summary>
internal sealed record SharedLeaf(int Leaf, int FacesBefore, int FacesAfter);

/// <summary>
/// A <see cref="PageQuestion"/> as a chain of parts that share leaves with their neighbours only, in numbers.
/// </summary>
internal sealed class ChainProblem
{
    private ChainProblem(PageQuestion question, List<Size> sizes, ChainPart[] parts, SharedLeaf?[] shared)
    {
        (Question, Sizes, Parts, Shared) = (question, sizes, parts, shared);
        var offers = question.Offers;
        var sizeAt = sizes.Select((s, i) => (s, i)).ToDictionary(p => p.s, p => p.i);
        Pockets =
        [
            .. offers.Select(o =>
            {
                var pockets = new int[sizes.Count];
                foreach (var (size, count) in o.Pockets)
                {
                    pockets[sizeAt[size]] = count;
                }

                return pockets;
            }),
        ];
        LeafCost = [.. offers.Select(o => question.Weights.Leaf + ((long)question.Weights.Alter * o.Fused))];
        Addable = [.. Enumerable.Range(0, offers.Length).Where(d => offers[d].MayBeAdded)];
        var scarce = offers.Where(o => o.OnHand is not null && o.Of is null).Select(o => o.Key).ToList();
        StockOf = [.. offers.Select(o => scarce.IndexOf(o.Bought))];
        var boughtAs = offers.ToDictionary(o => o.Key, o => o.Bought);
        Available =
        [
            .. scarce.Select(key =>
                (long)offers.First(o => o.Key == key).OnHand!.Value
                + question.Standing.Count(l => boughtAs[l.Key] == key)
            ),
        ];
        Choices =
        [
            .. question.Standing.Select(leaf =>
                Enumerable
                    .Range(0, offers.Length)
                    .Where(d => offers[d].Key == leaf.Key || (leaf.MayChange && offers[d].MayBeAdded))
                    .Select(d => (d, PageCosts.ChangeCost(leaf, offers[d], question.Weights)))
                    .ToArray()
            ),
        ];
    }

    public PageQuestion Question { get; }

    /// <summary>All sizes of pocket, in a fixed order.</summary>
    public List<Size> Sizes { get; }

    public ChainPart[] Parts { get; }

    /// <summary>The leaf shared by part <c>u</c> and part <c>u + 1</c>.</summary>
    public SharedLeaf?[] Shared { get; }

    /// <summary>Design by design, pockets of each size on one face.</summary>
    public int[][] Pockets { get; }

    /// <summary>What a further leaf of a design costs.</summary>
    public long[] LeafCost { get; }

    /// <summary>Designs of which leaves may be added.</summary>
    public int[] Addable { get; }

    /// <summary>Which stock a leaf of a design comes out of; -1 when it never runs out.</summary>
    public int[] StockOf { get; }

    /// <summary>Leaves of each stock, those standing counted.</summary>
    public long[] Available { get; }

    /// <summary>Leaf by leaf, the designs it can have, each with what the change costs.</summary>
    public (int Design, long Cost)[][] Choices { get; }

    public long EmptyPocket => Question.Weights.EmptyPocket;

    /// <summary>Adds the pockets of so many faces of a design; takes them away for a negative number.</summary>
    public void AddPockets(int[] pockets, int design, int faces)
    {
        if (design < 0)
        {
            return;
        }

        var onFace = Pockets[design];
        for (var s = 0; s < pockets.Length; s++)
        {
            pockets[s] += faces * onFace[s];
        }
    }

    /// <summary>Leaves of these designs that come out of each stock.</summary>
    public int[] Taken(IEnumerable<int> designs)
    {
        var taken = new int[Available.Length];
        foreach (var d in designs)
        {
            if (d >= 0 && StockOf[d] is >= 0 and var g)
            {
                taken[g]++;
            }
        }

        return taken;
    }

    /// <summary>The question as a chain; null when a leaf joins parts that do not follow each other.</summary>
    public static ChainProblem? Of(PageQuestion question)
    {
        var sizes = question
            .Offers.SelectMany(o => o.Pockets.Keys)
            .Concat(question.Room.SelectMany(r => r.Keys))
            .Distinct()
            .OrderBy(s => s.Width)
            .ThenBy(s => s.Height)
            .ToList();
        var count = question.Units.Length;
        var own = Enumerable.Range(0, count).Select(_ => new List<OwnLeaf>()).ToArray();
        var shared = new SharedLeaf?[Math.Max(0, count - 1)];
        for (var l = 0; l < question.Standing.Length; l++)
        {
            var faces = question.Standing[l].Faces;
            var parts = faces.Distinct().Order().ToList();
            if (parts.Count == 1)
            {
                own[parts[0]].Add(new OwnLeaf(l, faces.Length));
            }
            else if (parts.Count == 2 && parts[1] == parts[0] + 1 && shared[parts[0]] is null)
            {
                shared[parts[0]] = new SharedLeaf(l, faces.Count(f => f == parts[0]), faces.Count(f => f == parts[1]));
            }
            else
            {
                return null;
            }
        }

        var chain = question.Units.Select(
            (demands, u) =>
                new ChainPart(
                    [.. demands.Where(d => d.Count > 0).Select(d => Class(d, sizes, question.Weights))],
                    [.. sizes.Select(s => question.Room.IsDefaultOrEmpty ? 0 : question.Room[u].GetValueOrDefault(s))],
                    [.. own[u]],
                    !question.Kept.Contains(u)
                )
        );
        return new ChainProblem(question, sizes, [.. chain], shared);
    }

    private static PieceClass Class(Demand demand, List<Size> sizes, ChoiceWeights weights) =>
        new(
            demand.Count,
            [.. sizes.Select(s => demand.Costs.TryGetValue(s, out var loss) ? (long)loss * weights.Crop : (long?)null)]
        );
}
