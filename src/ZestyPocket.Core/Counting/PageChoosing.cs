using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Counting;

/// <summary>A unit for which pages are chosen.</summary>
/// <param name="Title">Such as <c>Week 19</c>.</param>
/// <param name="Wants">The pieces that want pockets.</param>
public sealed record UnitToFit(Guid UnitId, string Title, UnitDesk Desk, ImmutableArray<Want> Wants);

/// <summary>What a choice means for one unit.</summary>
/// <param name="Says">What would be done and why, in words.</param>
/// <param name="Pockets">Pockets after it.</param>
/// <param name="Empty">Of those, empty.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
public sealed record UnitChoice(Guid UnitId, string Title, string Says, int Pockets, int Empty, int Unplaced);

/// <summary>One way to choose the pages of a stretch.</summary>
/// <param name="Name">What it puts first.</param>
/// <param name="Says">The whole of it in words.</param>
/// <param name="Leaves">Leaves it adds to those there are; less than nothing when some go.</param>
/// <param name="Empty">Pockets that stay empty.</param>
/// <param name="CropPercent">How much of the pictures is cropped away on average.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
/// <param name="Buy">What the stock is short of, in words.</param>
/// <param name="Proved">It is proved that none is better by the same weights.</param>
/// <param name="Gap">How far from the best it may be, in hundredths.</param>
/// <param name="Units">Unit by unit.</param>
/// <param name="Standing">Designs of leaves that stand.</param>
/// <param name="Extra">Leaves between them.</param>
public sealed record PageChoice(
    string Name,
    string Says,
    int Leaves,
    int Empty,
    double CropPercent,
    int Unplaced,
    ImmutableArray<string> Buy,
    bool Proved,
    double Gap,
    ImmutableArray<UnitChoice> Units,
    ImmutableArray<LeafDesign> Standing,
    ImmutableArray<ExtraLeaves> Extra
)
{
    /// <summary>Whether two come to the same, whatever leaf comes first.</summary>
    public bool ComesToTheSameAs(PageChoice other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return (Leaves, Empty, CropPercent, Unplaced) == (other.Leaves, other.Empty, other.CropPercent, other.Unplaced)
            && Buy.SequenceEqual(other.Buy);
    }
}

/// <summary>
/// Which pages hold a stretch of the album: states the question from the binder and the pieces, has it answered by the
/// solver, and puts the answers into words.
/// </summary>
public sealed class PageChoosing
{
    /// <summary>The most units at once.</summary>
    public const int MostUnits = 100;

    /// <summary>More pockets than this are not fused on one leaf: another design is easier.</summary>
    private const int MostFused = 2;

    private const string IfFused = "Better if you fuse";

    /// <summary>The ways that are offered side by side: what they put first, and by which weights.</summary>
    private static readonly (string Name, ChoiceWeights Weights)[] Priorities =
    [
        ("Balanced", ChoiceWeights.Usual),
        ("Fewest leaves", ChoiceWeights.Usual with { Leaf = 30_000 }),
        ("Least cropping", ChoiceWeights.Usual with { Leaf = 2_500, EmptyPocket = 150, Crop = 6 }),
    ];

    private readonly ImmutableArray<UnitToFit> _units;
    private readonly ImmutableArray<BoundLeaf> _standing;
    private readonly ImmutableArray<BoundLeaf> _between;
    private readonly ImmutableArray<OwnedProtector> _designs;
    private readonly PageQuestion _question;

    /// <param name="binder">The album's.</param>
    /// <param name="units">A stretch of it, in its order.</param>
    public PageChoosing(RingBinder binder, ImmutableArray<UnitToFit> units)
    {
        ArgumentNullException.ThrowIfNull(binder);
        _units = units;
        _designs =
        [
            .. binder.Protectors.Where(p =>
                p.Protector.Form.Kind == LeafKind.Pockets && p.Protector.Design.Body == binder.Body
            ),
        ];
        var known = _designs.Select(d => d.Id).ToHashSet();
        var index = units.Select((u, i) => (u.UnitId, i)).ToDictionary(u => u.UnitId, u => u.i);
        var leaves = binder.Leaves.Where(l => Faces(l).Any(index.ContainsKey)).ToList();
        // Dividers, pages outside the pockets, inserts and altered leaves are what the keeper made them: their pockets
        // are there.
        var made = leaves
            .Where(l => !known.Contains(l.ProtectorId) || l.Alterations.IsAltered)
            .Select(l => l.Id)
            .ToHashSet();
        // A leaf with both faces in one unit can come and go; the others stand.
        var others = leaves.Where(l => !made.Contains(l.Id)).ToLookup(binder.IsBetween);
        (_standing, _between) = ([.. others[false]], [.. others[true]]);
        _question = new PageQuestion(
            [.. units.Select(u => Want.Together(u.Wants.Concat(LeftEmpty(u.Desk))))],
            [.. _standing.Select(l => Standing(binder, l, index))],
            [.. _designs.Select(d => Offer(binder, d))],
            ChoiceWeights.Usual
        )
        {
            Room = [.. units.Select(u => RoomOn(u.Desk, made))],
            Kept =
            [
                .. units
                    .Select((u, i) => (u.Desk.Content.KeepsItsPages, i))
                    .Where(k => k.KeepsItsPages)
                    .Select(k => k.i),
            ],
        };
    }

    /// <summary>
    /// The ways side by side, those that come to the same once; with the keeper's own weights first when they were
    /// moved, and with fused pockets last when that is better.
    /// </summary>
    /// <param name="own">Weights that the keeper has moved; null when none was.</param>
    /// <param name="progress">Told how many of how many searches are done.</param>
    public IReadOnlyList<PageChoice> Choose(
        IPageSolver solver,
        ChoiceWeights? own,
        Action<int, int> progress,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(solver);
        ArgumentNullException.ThrowIfNull(progress);
        var ways = Ways(own).ToList();
        var choices = new List<PageChoice>();
        foreach (var (name, question) in ways)
        {
            cancel.ThrowIfCancellationRequested();
            var answer = solver.Solve(question, cancel);
            var fused =
                answer.Units.Sum(p => p.Extra.Sum(e => e.Leaves * FusedIn(question, e.Key)))
                + answer.Standing.Sum(k => FusedIn(question, k));
            if (name != IfFused || fused > 0)
            {
                var called = name == IfFused ? $"{IfFused} {NumberWords.CountedInWords(fused, "pocket")}" : name;
                var choice = Told(called, question, answer);
                if (!choices.Exists(choice.ComesToTheSameAs))
                {
                    choices.Add(choice);
                }
            }

            progress(ways.IndexOf((name, question)) + 1, ways.Count);
        }

        return choices;
    }

    private IEnumerable<(string Name, PageQuestion Question)> Ways(ChoiceWeights? own)
    {
        if (own is not null)
        {
            yield return ("Your weights", _question with { Weights = own.Checked() });
        }

        foreach (var (name, weights) in Priorities)
        {
            yield return (name, _question with { Weights = weights });
        }

        var most = _units.Length == 1 ? MostFused : 1;
        yield return (
            IfFused,
            _question with
            {
                Offers =
                [
                    .. _question.Offers.SelectMany((o, i) => FusedOffers.Of(o, _designs[i].Protector, most).Prepend(o)),
                ],
            }
        );
    }

    private static IEnumerable<Guid> Faces(BoundLeaf leaf) => new[] { leaf.Front, leaf.Back }.OfType<Guid>();

    private static StandingLeaf Standing(RingBinder binder, BoundLeaf leaf, Dictionary<Guid, int> index) =>
        new(
            [.. Faces(leaf).Where(index.ContainsKey).Select(u => index[u])],
            leaf.ProtectorId.ToString(),
            // What lies on it here is laid anew, but for what is locked; outside nothing is touched.
            !Faces(leaf).Any(u => binder.Require(u).Content.HoldsOn(leaf.Id, locked: index.ContainsKey(u)))
        );

    private PageOffer Offer(RingBinder binder, OwnedProtector design) =>
        new(
            design.Id.ToString(),
            design.Protector.Design.Name,
            FusedOffers.PocketsOf(design.Protector),
            // What lies between the leaves of these units is free to be used again.
            design.OnHand
                is { } owned
                ? Math.Max(
                    0,
                    owned
                        - binder.Leaves.Count(l => l.ProtectorId == design.Id)
                        + _between.Count(l => l.ProtectorId == design.Id)
                )
                : null,
            // What the album has given up is not put in anew, but leaves that have it may keep it.
            MayBeAdded: !design.GivenUp
        );

    private static ImmutableDictionary<Size, int> RoomOn(UnitDesk desk, HashSet<Guid> leaves) =>
        desk
            .Pages.Faces.Where(f => leaves.Contains(f.LeafId))
            .SelectMany(f => f.Pockets.Select(k => f.Protector.CutSize(k.Pocket)))
            .GroupBy(s => s)
            .ToImmutableDictionary(g => g.Key, g => g.Count());

    /// <summary>Pockets that stay empty on purpose take their room as pieces do.</summary>
    private static IEnumerable<Want> LeftEmpty(UnitDesk desk) =>
        desk
            .Content.LeftEmpty.Where(c => desk.Pages.CodeOf(c) is not null)
            .Select(c => Want.Words(WantKind.Card, "pockets left empty", [desk.Pages.CutSize(c)], _ => true));

    private static int FusedIn(PageQuestion question, string key) => question.Offers.First(o => o.Key == key).Fused;

    private static Guid ProtectorOf(PageQuestion question, string key) =>
        Guid.Parse(question.Offers.First(o => o.Key == key).Bought);

    private PageChoice Told(string name, PageQuestion question, PageAnswer answer)
    {
        var nameOf = question.Offers.ToDictionary(o => o.Key, o => o.Name);
        var leaves = answer.ExtraLeaves - _between.Length;
        var pictures = question
            .Units.Select(
                (p, u) => answer.Units[u].Spread.Where(s => p[s.Demand].Kind == WantKind.Picture).Sum(s => s.Count)
            )
            .Sum();
        var lost = question
            .Units.Select(
                (p, u) =>
                    answer
                        .Units[u]
                        .Spread.Where(s => p[s.Demand].Kind == WantKind.Picture)
                        .Sum(s => s.Count * p[s.Demand].Costs[s.Pocket])
            )
            .Sum();
        var crop = pictures == 0 ? 0 : Math.Round(lost / 10.0 / pictures, 1);
        var buy = answer
            .Buy.OrderBy(b => b.Key, StringComparer.Ordinal)
            .Select(b => $"{b.Value} × {nameOf[b.Key]}")
            .ToList();
        var (empty, unplaced) = (answer.Units.Sum(p => p.Empty), answer.Units.Sum(p => p.Unplaced));
        var says = new List<string>
        {
            leaves switch
            {
                0 => "No leaf more",
                1 => "One leaf more",
                -1 => "One leaf fewer",
                > 0 => $"{NumberWords.Of(leaves)} leaves more",
                _ => $"{NumberWords.Of(-leaves)} leaves fewer",
            },
            empty == 0 ? "no pocket stays empty" : $"{empty} {(empty == 1 ? "pocket stays" : "pockets stay")} empty",
        };
        if (pictures > 0)
        {
            says.Add(
                crop == 0
                    ? "nothing is cropped"
                    : string.Create(
                        CultureInfo.InvariantCulture,
                        $"{crop:0.#} % of the pictures is cropped away on average"
                    )
            );
        }

        if (unplaced > 0)
        {
            says.Add($"{unplaced} {(unplaced == 1 ? "piece finds" : "pieces find")} no pocket");
        }

        return new PageChoice(
            name,
            char.ToUpperInvariant(says[0][0]) + string.Join("; ", says)[1..] + ".",
            leaves,
            empty,
            crop,
            unplaced,
            [.. buy],
            answer.Proved,
            Math.Round(100 * answer.Gap, 2),
            [
                .. _units.Select(
                    (unit, u) =>
                        new UnitChoice(
                            unit.UnitId,
                            unit.Title,
                            Why(u, question, answer, nameOf),
                            answer.Units[u].Pockets,
                            answer.Units[u].Empty,
                            answer.Units[u].Unplaced
                        )
                ),
            ],
            [
                .. _standing.Select(
                    (l, i) =>
                        new LeafDesign(
                            l.Id,
                            ProtectorOf(question, answer.Standing[i]),
                            FusedIn(question, answer.Standing[i])
                        )
                ),
            ],
            [
                .. answer.Units.SelectMany(
                    (p, u) =>
                        p.Extra.Select(e => new ExtraLeaves(
                            _units[u].UnitId,
                            ProtectorOf(question, e.Key),
                            e.Leaves,
                            FusedIn(question, e.Key)
                        ))
                ),
            ]
        );
    }

    /// <summary>
    /// Such as: one leaf of Nine 3x4 more, because 30 pieces want pockets and its facing pages have 12.
    /// </summary>
    private string Why(int u, PageQuestion question, PageAnswer answer, Dictionary<string, string> nameOf)
    {
        var own = _standing
            .Select((l, i) => (Leaf: l, Key: answer.Standing[i], Was: question.Standing[i]))
            .Where(s => s.Was.Faces.Contains(u))
            .ToList();
        var changed = own.Where(s => s.Key != s.Was.Key)
            .Select(s => $"“{nameOf[s.Key]}” instead of “{nameOf[s.Was.Key]}”")
            .ToList();
        var extra = answer
            .Units[u]
            .Extra.Select(e =>
                $"{NumberWords.Of(e.Leaves)} {(e.Leaves == 1 ? "leaf" : "leaves")} of “{nameOf[e.Key]}” between"
            )
            .ToList();
        if (question.Kept.Contains(u))
        {
            extra.Add("no leaf between, as it stays on its pages");
        }

        var onOwn = own.Sum(s =>
            question.Offers.First(o => o.Key == s.Was.Key).Pockets.Values.Sum() * s.Was.Faces.Count(f => f == u)
        );
        var done = changed.Concat(extra).ToList();
        var pieces = NumberWords.Counted(_units[u].Wants.Length, "piece wants a pocket", "pieces want pockets");
        var because = $"{pieces} and its own pages have {onOwn.ToString("N0", CultureInfo.InvariantCulture)}";
        return done.Count == 0
            ? $"As it is: {because}."
            : $"{char.ToUpperInvariant(done[0][0])}{string.Join(", ", done)[1..]}, because {because}.";
    }
}
