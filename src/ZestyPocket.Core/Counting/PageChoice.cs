using System.Collections.Immutable;
using Google.OrTools.Sat;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Counting;

/// <summary>Pieces that want the same kind of pocket.</summary>
/// <param name="Kind">What kind of thing.</param>
/// <param name="Name">What they are, in words, such as <c>lying pictures</c>.</param>
/// <param name="Count">How many.</param>
/// <param name="Costs">
/// The sizes of pocket they can go into, each with what one of them loses there in thousandths of itself: crop for a
/// picture, 0 for a card that fits. Empty for pieces that go nowhere.
/// </param>
public sealed record Demand(WantKind Kind, string Name, int Count, ImmutableDictionary<Size, int> Costs);

/// <summary>
/// A page design as it can be had: how many pockets of each size one face holds, and how many leaves there are.
/// </summary>
/// <param name="Key">Its lasting name.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Pockets">Pockets of each cut size on one face.</param>
/// <param name="Stock">
/// Leaves that are owned and free, those standing not counted; null when they never run out.
/// </param>
/// <param name="MayBeAdded">False for a design that leaves may keep but no further leaf may get, bought or not.</param>
public sealed record PageOffer(
    string Key,
    string Name,
    ImmutableDictionary<Size, int> Pockets,
    int? Stock,
    bool MayBeAdded = true
)
{
    /// <summary>The offer whose leaves it is made of, when it is an altered one: they share one stock.</summary>
    public string? Of { get; init; }

    /// <summary>How many of its pockets are fused.</summary>
    public int Fused { get; init; }

    /// <summary>The key of the leaves as they are bought.</summary>
    public string Bought => Of ?? Key;
}

/// <summary>
/// A leaf that is there anyway, such as those a week's facing pages lie on. Its two faces may belong to two parts of
/// the album, or one of them to none of those in question.
/// </summary>
/// <param name="Faces">Index of the part of each face in question: one or two entries.</param>
/// <param name="Key">The design it has now.</param>
/// <param name="MayChange">Another design may take its place: nothing lies on it, or what does is in question.</param>
public sealed record StandingLeaf(ImmutableArray<int> Faces, string Key, bool MayChange);

/// <summary>What is chosen for, part by part of the album.</summary>
/// <param name="Parts">The pieces of each part.</param>
/// <param name="Standing">Leaves that carry their faces anyway.</param>
/// <param name="Offers">The designs that can be taken.</param>
/// <param name="Weights">What counts how much.</param>
public sealed record PageQuestion(
    ImmutableArray<ImmutableArray<Demand>> Parts,
    ImmutableArray<StandingLeaf> Standing,
    ImmutableArray<PageOffer> Offers,
    ChoiceWeights Weights
)
{
    /// <summary>More extra leaves than this for one part is an album of its own.</summary>
    public const int MostExtraLeaves = 60;

    /// <summary>
    /// Part by part, pockets that are there whatever is chosen, by cut size: on pages outside the pockets and on
    /// altered leaves. Empty when there are none.
    /// </summary>
    public ImmutableArray<ImmutableDictionary<Size, int>> Room { get; init; } = [];

    /// <summary>Parts that get no leaf between their own pages, by index.</summary>
    public ImmutableArray<int> Kept { get; init; } = [];
}

/// <summary>
/// What counts how much, in thousandths of a picture. The usual weights put leaves before empty pockets and those
/// before crops, without giving a whole page away for half a picture. The order is practice, the numbers are this
/// program's own.
/// </summary>
/// <param name="Leaf">A leaf more.</param>
/// <param name="EmptyPocket">A pocket that stays empty.</param>
/// <param name="Crop">A thousandth that is cropped away.</param>
/// <param name="Change">Another design on a leaf that is there.</param>
public sealed record ChoiceWeights(int Leaf, int EmptyPocket, int Crop, int Change)
{
    public static ChoiceWeights Usual { get; } = new(5_000, 300, 1, 50);

    /// <summary>
    /// A pocket that is fused: more than one that stays empty, so that nobody takes a heat tool for nothing.
    /// </summary>
    public int Alter { get; init; } = 400;

    /// <summary>Throws <see cref="RuleException"/> for weights out of 0 to 100,000.</summary>
    public ChoiceWeights Checked() =>
        new[] { Leaf, EmptyPocket, Crop, Change, Alter }.Any(w => w is < 0 or > 100_000)
            ? throw new RuleException("Weights lie between 0 and 100,000. Nothing was changed.")
            : this;
}

/// <summary>How the pieces of one class are spread over pockets.</summary>
public readonly record struct Spreading(int Demand, Size Pocket, int Count);

/// <summary>What was chosen for one part.</summary>
/// <param name="Extra">Extra leaves by design key, with how many; both their faces are the part's.</param>
/// <param name="Spread">Where its pieces go.</param>
/// <param name="Pockets">Pockets on all its faces.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
public sealed record PartChoice(
    ImmutableArray<(string Key, int Leaves)> Extra,
    ImmutableArray<Spreading> Spread,
    int Pockets,
    int Unplaced
)
{
    public int Placed => Spread.Sum(s => s.Count);

    public int Empty => Pockets - Placed;
}

/// <summary>An answer to a <see cref="PageQuestion"/>.</summary>
/// <param name="Parts">Part by part.</param>
/// <param name="Standing">The design of every standing leaf.</param>
/// <param name="Buy">What the stock is short of, by design key.</param>
/// <param name="Cost">Weighted sum of all of it.</param>
/// <param name="Gap">
/// How far from the best this may be, as a share of the cost; 0 when it is proved to be the best.
/// </param>
public sealed record PageAnswer(
    ImmutableArray<PartChoice> Parts,
    ImmutableArray<string> Standing,
    ImmutableDictionary<string, int> Buy,
    long Cost,
    double Gap
)
{
    public bool Proved => Gap <= 0;

    public int ExtraLeaves => Parts.Sum(p => p.Extra.Sum(e => e.Leaves));
}

/// <summary>
/// Which pages hold it all: the leaves and designs with the least weighted sum of leaves, empty pockets, crops and
/// changes, from the stock there is. Exact: solved as an integer programme by CP-SAT with one worker and a fixed seed,
/// so the same question has the same answer.
/// </summary>
public static class PageChoice
{
    /// <summary>A leaf that is not in stock costs this much on top: it has to be bought.</summary>
    private const int BuyWeight = 20_000;

    /// <summary>A piece that goes nowhere: worse than any leaf for it.</summary>
    private const int UnplacedWeight = 100_000;

    /// <summary>
    /// Enough to prove nearly every week and most trips in a few seconds; what is not proved says its gap.
    /// </summary>
    public const double UsualEffort = 1.1;

    /// <summary>
    /// Answers a question. <paramref name="effort"/> bounds the search in the solver's own deterministic time.
    /// </summary>
    public static PageAnswer Solve(
        PageQuestion question,
        double effort = UsualEffort,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(question);
        Check(question);
        var offers = question.Offers;
        var weights = question.Weights;
        var model = new CpModel();
        var cost = LinearExpr.NewBuilder();

        // Designs of the leaves that stand.
        var standing = question
            .Standing.Select(
                (leaf, l) =>
                    offers
                        .Select(
                            (offer, d) =>
                            {
                                var taken = model.NewBoolVar($"leaf{l}_{d}");
                                if (offer.Key != leaf.Key && (!leaf.MayChange || !offer.MayBeAdded))
                                {
                                    model.Add(taken == 0);
                                }
                                else
                                {
                                    cost.AddTerm(taken, ChangeCost(leaf, offer, weights));
                                }

                                return taken;
                            }
                        )
                        .ToArray()
            )
            .ToArray();
        foreach (var choice in standing)
        {
            model.AddExactlyOne(choice);
        }

        // Leaves that are added, part by part.
        var extra = question
            .Parts.Select(
                (part, u) =>
                    offers
                        .Select(
                            (offer, d) =>
                            {
                                // No more leaves of a design than hold every piece in the size it has fewest of: the
                                // next would stay empty.
                                var most =
                                    !offer.MayBeAdded || question.Kept.Contains(u)
                                        ? 0
                                        : Math.Min(
                                            PageQuestion.MostExtraLeaves,
                                            offer.Pockets.Values.Max(pockets =>
                                                (part.Sum(p => p.Count) + (2 * pockets) - 1) / (2 * pockets)
                                            )
                                        );
                                var leaves = model.NewIntVar(0, most, $"extra{u}_{d}");
                                cost.AddTerm(leaves, weights.Leaf + ((long)weights.Alter * offer.Fused));
                                return leaves;
                            }
                        )
                        .ToArray()
            )
            .ToArray();

        // Where the pieces go, and what stays empty.
        var sizes = offers
            .SelectMany(o => o.Pockets.Keys)
            .Concat(question.Room.SelectMany(r => r.Keys))
            .Distinct()
            .OrderBy(s => s.Width)
            .ThenBy(s => s.Height)
            .ToList();
        var spread = new List<(int Part, int Demand, int Size, IntVar Count)>();
        var unplaced = new IntVar[question.Parts.Length][];
        for (var u = 0; u < question.Parts.Length; u++)
        {
            var demands = question.Parts[u];
            unplaced[u] = [.. demands.Select((demand, c) => model.NewIntVar(0, demand.Count, $"none{u}_{c}"))];
            for (var s = 0; s < sizes.Count; s++)
            {
                var room = LinearExpr.NewBuilder();
                room.Add(RoomOf(question, u, sizes[s]));
                for (var d = 0; d < offers.Length; d++)
                {
                    if (offers[d].Pockets.TryGetValue(sizes[s], out var pockets))
                    {
                        room.AddTerm(extra[u][d], 2 * pockets);
                        for (var l = 0; l < standing.Length; l++)
                        {
                            var faces = question.Standing[l].Faces.Count(f => f == u);
                            if (faces > 0)
                            {
                                room.AddTerm(standing[l][d], faces * pockets);
                            }
                        }
                    }
                }

                var used = LinearExpr.NewBuilder();
                for (var c = 0; c < demands.Length; c++)
                {
                    if (demands[c].Costs.TryGetValue(sizes[s], out var loss))
                    {
                        var count = model.NewIntVar(0, demands[c].Count, $"to{u}_{c}_{s}");
                        spread.Add((u, c, s, count));
                        used.Add(count);
                        cost.AddTerm(count, (long)loss * weights.Crop);
                    }
                }

                // Empty pockets are all pockets less the pieces in them.
                cost.AddTerm(room, weights.EmptyPocket);
                cost.AddTerm(used, -weights.EmptyPocket);
                model.Add(used <= room);
            }

            for (var c = 0; c < demands.Length; c++)
            {
                var all = LinearExpr.NewBuilder();
                all.Add(unplaced[u][c]);
                foreach (var way in spread.Where(w => w.Part == u && w.Demand == c))
                {
                    all.Add(way.Count);
                }

                model.Add(all == demands[c].Count);
                cost.AddTerm(unplaced[u][c], UnplacedWeight);
            }
        }

        // What is owned, and what would have to be bought. A leaf that stands brings its own; one that changes sets it
        // free. Altered leaves are made of those of their design.
        var buy = new IntVar?[offers.Length];
        for (var d = 0; d < offers.Length; d++)
        {
            if (offers[d].Stock is not { } stock || offers[d].Of is not null)
            {
                continue;
            }

            var needed = LinearExpr.NewBuilder();
            for (var same = 0; same < offers.Length; same++)
            {
                if (offers[same].Bought != offers[d].Key)
                {
                    continue;
                }

                foreach (var part in extra)
                {
                    needed.Add(part[same]);
                }

                foreach (var choice in standing)
                {
                    needed.Add(choice[same]);
                }
            }

            var short_ = model.NewIntVar(
                0,
                PageQuestion.MostExtraLeaves * Math.Max(1, question.Parts.Length),
                $"buy{d}"
            );
            model.Add(
                needed <= short_ + stock + question.Standing.Count(l => BoughtAs(question, l.Key) == offers[d].Key)
            );
            cost.AddTerm(short_, BuyWeight);
            buy[d] = short_;
        }

        model.Minimize(cost);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1,random_seed:7,cp_model_presolve:false,linearization_level:2,"
                    + $"max_deterministic_time:{effort}"
            ),
        };
        using var stop = cancel.Register(solver.StopSearch);
        var status = solver.Solve(model);
        cancel.ThrowIfCancellationRequested();
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            throw new RuleException(
                "No choice of pages was found in the time given. Nothing was changed: choose for fewer weeks or "
                    + "days at once."
            );
        }

        var value = (long)Math.Round(solver.ObjectiveValue);
        return new PageAnswer(
            [
                .. question.Parts.Select(
                    (_, u) =>
                        new PartChoice(
                            [
                                .. offers
                                    .Select((o, d) => (o.Key, (int)solver.Value(extra[u][d])))
                                    .Where(e => e.Item2 > 0),
                            ],
                            [
                                .. spread
                                    .Where(w => w.Part == u)
                                    .Select(w => new Spreading(w.Demand, sizes[w.Size], (int)solver.Value(w.Count)))
                                    .Where(w => w.Count > 0),
                            ],
                            PocketsOf(u),
                            unplaced[u].Sum(v => (int)solver.Value(v))
                        )
                ),
            ],
            [.. standing.Select(choice => offers[Array.FindIndex(choice, v => solver.Value(v) == 1)].Key)],
            offers
                .Select((o, d) => (o.Key, Count: buy[d] is { } v ? (int)solver.Value(v) : 0))
                .Where(b => b.Count > 0)
                .ToImmutableDictionary(b => b.Key, b => b.Count),
            value,
            status == CpSolverStatus.Optimal
                ? 0
                : Math.Max(1e-9, (value - solver.BestObjectiveBound) / Math.Max(1, Math.Abs(value)))
        );

        int PocketsOf(int part)
        {
            var count = question.Room.IsDefaultOrEmpty ? 0 : question.Room[part].Values.Sum();
            for (var d = 0; d < offers.Length; d++)
            {
                var onFace = offers[d].Pockets.Values.Sum();
                count += 2 * onFace * (int)solver.Value(extra[part][d]);
                for (var l = 0; l < standing.Length; l++)
                {
                    count +=
                        question.Standing[l].Faces.Count(f => f == part) * onFace * (int)solver.Value(standing[l][d]);
                }
            }

            return count;
        }
    }

    /// <summary>What a choice costs, worked out anew from its parts: for checks and for showing why.</summary>
    public static long CostOf(PageQuestion question, PageAnswer answer)
    {
        ArgumentNullException.ThrowIfNull(question);
        ArgumentNullException.ThrowIfNull(answer);
        var weights = question.Weights;
        return answer
                .Parts.Select(
                    (part, u) =>
                        part.Extra.Sum(e =>
                            (long)e.Leaves
                            * (weights.Leaf + (weights.Alter * question.Offers.First(o => o.Key == e.Key).Fused))
                        )
                        + ((long)weights.EmptyPocket * part.Empty)
                        + ((long)UnplacedWeight * part.Unplaced)
                        + part.Spread.Sum(s =>
                            (long)weights.Crop * s.Count * question.Parts[u][s.Demand].Costs[s.Pocket]
                        )
                )
                .Sum()
            + answer
                .Standing.Select(
                    (key, l) => ChangeCost(question.Standing[l], question.Offers.First(o => o.Key == key), weights)
                )
                .Sum()
            + ((long)BuyWeight * answer.Buy.Values.Sum());
    }

    /// <summary>What another design on a leaf that stands costs: the change, and what has to be fused.</summary>
    private static long ChangeCost(StandingLeaf leaf, PageOffer offer, ChoiceWeights weights) =>
        offer.Key == leaf.Key ? 0 : ((long)weights.Alter * offer.Fused) + (offer.Of == leaf.Key ? 0 : weights.Change);

    private static string BoughtAs(PageQuestion question, string key) =>
        question.Offers.First(o => o.Key == key).Bought;

    private static int RoomOf(PageQuestion question, int part, Size size) =>
        question.Room.IsDefaultOrEmpty ? 0 : question.Room[part].GetValueOrDefault(size);

    private static void Check(PageQuestion question)
    {
        _ = question.Weights.Checked();
        if (
            question.Offers.IsEmpty
            || question.Offers.Any(o =>
                o.Pockets.IsEmpty || o.Pockets.Any(p => !p.Key.IsPositive || p.Value < 1) || o.Stock < 0
            )
        )
        {
            throw new RuleException(
                "Pages are chosen from designs with pockets of some size, and a stock is not less than nothing. "
                    + "Nothing was changed."
            );
        }

        if (
            question.Offers.Select(o => o.Key).Distinct().Count() != question.Offers.Length
            || question.Standing.Any(s => question.Offers.All(o => o.Key != s.Key))
        )
        {
            throw new RuleException(
                "Every leaf has one of the album's page designs, each named once. Nothing was changed."
            );
        }

        if (
            question.Offers.Any(o => o.Of is { } of && (question.Offers.All(b => b.Key != of) || o.Fused < 1))
            || (!question.Room.IsDefaultOrEmpty && question.Room.Length != question.Parts.Length)
        )
        {
            throw new RuleException("An altered design is made of one of the album's. Nothing was changed.");
        }

        if (
            question.Parts.Sum(p => p.Sum(d => d.Count)) > 20_000
            || question.Parts.Any(p => p.Any(d => d.Count < 0 || d.Costs.Values.Any(c => c is < 0 or > 1_000)))
        )
        {
            throw new RuleException("Choose for fewer weeks or days at once. Nothing was changed.");
        }
    }
}
