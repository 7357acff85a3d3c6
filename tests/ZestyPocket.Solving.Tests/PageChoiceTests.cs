using System.Collections.Immutable;
using CsCheck;
using Google.OrTools.LinearSolver;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Solving.Tests;

/// <summary>Which pages hold it all: proved, the same every time, and as others find it too.</summary>
public sealed class PageChoiceTests
{
    private static readonly PageSolver Pages = new();
    private static readonly Size Lying = Size.FromInches(6, 4);
    private static readonly Size Upright = Size.FromInches(3, 4);
    private static readonly Size Small = Size.FromInches(2, 2);
    private static readonly Size Whole = Size.FromInches(6, 8);
    private static readonly Size[] Sizes = [Lying, Upright, Small, Whole];

    private static PageOffer Offer(PageDesign design, int? stock = null) =>
        new(
            design.Key,
            design.Name,
            design.Pockets.GroupBy(p => p.Nominal).ToImmutableDictionary(g => g.Key, g => g.Count()),
            stock
        );

    private static readonly ImmutableArray<PageOffer> SixByEight =
    [
        .. BuiltInDesigns.All.Where(d => d.Body == Whole).Select(d => Offer(d)),
    ];

    private static Demand Pictures(int count, int width, int height) =>
        new(
            WantKind.Picture,
            $"{width}x{height}",
            count,
            Want.Picture(new PixelSize(width, height), SixByEight.SelectMany(o => o.Pockets.Keys)).Costs
        );

    private static PageQuestion Week(
        ImmutableArray<Demand> demands,
        ImmutableArray<PageOffer>? offers = null,
        bool mayChange = true,
        string key = "6x8-two-6x4"
    ) =>
        new([demands], [new([0], key, mayChange), new([0], key, mayChange)], offers ?? SixByEight, ChoiceWeights.Usual);

    [Fact]
    public void Four_lying_pictures_keep_their_two_pages_of_two()
    {
        var answer = Pages.Solve(Week([Pictures(4, 3000, 2000)]));
        (answer.Proved, answer.ExtraLeaves, answer.Units[0].Empty, answer.Units[0].Unplaced).ShouldBe((true, 0, 0, 0));
        answer.Standing.ShouldBe(["6x8-two-6x4", "6x8-two-6x4"]);
        answer.Cost.ShouldBe(0);
    }

    [Fact]
    public void More_pictures_take_smaller_pockets_before_they_take_a_leaf()
    {
        // Eight upright 3:4 pictures fit two pages of four without a crop.
        var eight = Pages.Solve(Week([Pictures(8, 3000, 4000)]));
        (eight.ExtraLeaves, eight.Units[0].Empty).ShouldBe((0, 0));
        eight.Standing.ShouldBe(["6x8-four-3x4", "6x8-four-3x4"]);
        // Nine of them do not: one leaf more.
        Pages.Solve(Week([Pictures(30, 3000, 4000)])).ExtraLeaves.ShouldBeGreaterThan(0);
    }

    private static ImmutableArray<PageOffer> WithFused(int? stock = null) =>
        [
            .. BuiltInDesigns
                .All.Where(d => d.Body == Whole)
                .SelectMany(d => FusedOffers.Of(Offer(d, stock), Protector.Unmeasured(d), 2).Prepend(Offer(d, stock))),
        ];

    [Fact]
    public void A_fused_6x4_holds_two_upright_pictures_more_than_a_leaf_would_cost()
    {
        // Five portrait photos on two pages of two 6x4, of which only fused ones may come: arithmetic.
        ImmutableArray<PageOffer> only = [Offer(BuiltInDesigns.Find("6x8-two-6x4")!)];
        var fused = FusedOffers.Of(only[0], Protector.Unmeasured(BuiltInDesigns.Find("6x8-two-6x4")!), 2).ToList();
        fused.Select(f => f.Pockets.GetValueOrDefault(Upright)).ShouldBe([2, 4]);
        var question = Week([Pictures(5, 3000, 4000)], only);
        var answer = Pages.Solve(question with { Offers = only.AddRange(fused) });
        (answer.ExtraLeaves, answer.Units[0].Unplaced, answer.Proved).ShouldBe((0, 0, true));
        answer.Cost.ShouldBeLessThan(Pages.Solve(question).Cost);
    }

    [Fact]
    public void Altered_leaves_come_from_the_stock_of_their_design()
    {
        var question = Week([Pictures(40, 3000, 4000)], WithFused(stock: 0)) with { Standing = [] };
        var answer = Pages.Solve(question);
        // Nothing is owned: every leaf, altered or not, is bought as the design it is made of.
        answer.Buy.Values.Sum().ShouldBe(answer.ExtraLeaves);
        answer.Buy.Keys.ShouldAllBe(k => !k.Contains('+', StringComparison.Ordinal));
    }

    [Fact]
    public void What_is_there_anyway_is_used_and_a_part_that_stays_on_its_pages_gets_no_leaf()
    {
        var question = Week([Pictures(3, 3000, 2000)]) with { Standing = [] };
        var there = question with { Room = [ImmutableDictionary<Size, int>.Empty.Add(Lying, 3)] };
        var answer = Pages.Solve(there);
        (answer.ExtraLeaves, answer.Cost, answer.Units[0].Pockets).ShouldBe((0, 0, 3));
        var kept = Pages.Solve(question with { Kept = [0] });
        (kept.ExtraLeaves, kept.Units[0].Unplaced).ShouldBe((0, 3));
        Should.Throw<RuleException>(() => Pages.Solve(there with { Room = [.. there.Room, .. there.Room] }));
    }

    [Fact]
    public void Fusing_is_never_worse_and_every_cost_adds_up_again()
    {
        Gen.Select(Gen.Int[0, 9], Gen.Int[0, 9], Gen.Int[0, 4], Gen.Int[0, 3])
            .Sample(
                (lying, upright, square, stock) =>
                {
                    var question = Week(
                        [Pictures(lying, 3000, 2000), Pictures(upright, 3000, 4000), Pictures(square, 2000, 2000)],
                        [.. SixByEight.Select(o => o with { OnHand = stock })]
                    );
                    var fused = question with { Offers = WithFused(stock) };
                    var (without, with) = (Pages.Solve(question), Pages.Solve(fused));
                    PageCosts.CostOf(question, without).ShouldBe(without.Cost);
                    PageCosts.CostOf(fused, with).ShouldBe(with.Cost);
                    if (without.Proved && with.Proved)
                    {
                        with.Cost.ShouldBeLessThanOrEqualTo(without.Cost);
                    }
                },
                iter: 25
            );
    }

    [Fact]
    public void Seven_stories_of_which_two_pairs_merge_leave_eleven_pockets_of_eighteen()
    {
        // The worked check of the trade: five stories, a title card and a filler on two nine-pocket pages. Arithmetic.
        var nine = Offer(BuiltInDesigns.Find("9x12-nine-3x4")!);
        var cards = new Demand(WantKind.Card, "cards", 7, ImmutableDictionary<Size, int>.Empty.Add(Upright, 0));
        var answer = Pages.Solve(
            new PageQuestion(
                [
                    [cards],
                ],
                [new([0], nine.Key, false), new([0], nine.Key, false)],
                [nine],
                ChoiceWeights.Usual
            )
        );
        (answer.Units[0].Pockets, answer.Units[0].Placed, answer.Units[0].Empty).ShouldBe((18, 7, 11));
    }

    [Fact]
    public void A_leaf_that_carries_something_keeps_its_design_and_a_short_stock_says_what_to_buy()
    {
        var kept = Pages.Solve(Week([Pictures(8, 3000, 4000)], mayChange: false));
        kept.Standing.ShouldAllBe(k => k == "6x8-two-6x4");
        kept.ExtraLeaves.ShouldBe(1);

        ImmutableArray<PageOffer> scarce = [Offer(BuiltInDesigns.Find("6x8-two-6x4")!, 1)];
        var answer = Pages.Solve(Week([Pictures(16, 3000, 2000)], scarce));
        (answer.ExtraLeaves, answer.Units[0].Unplaced).ShouldBe((3, 0));
        answer.Buy.ShouldBe(new Dictionary<string, int> { ["6x8-two-6x4"] = 2 });
    }

    [Fact]
    public void A_leaf_that_changes_its_design_sets_the_old_one_free_for_another()
    {
        // Two leaves of four stand and none is in stock: the first day wants two of them, the second none.
        var four = Offer(BuiltInDesigns.Find("6x8-four-3x4")!, 0);
        var two = Offer(BuiltInDesigns.Find("6x8-two-6x4")!, 0);
        var question = new PageQuestion(
            [
                [Pictures(4, 3000, 4000)],
                [Pictures(2, 3000, 2000)],
            ],
            [new([0], two.Key, true), new([1], four.Key, true)],
            [four, two],
            ChoiceWeights.Usual
        );
        var answer = Pages.Solve(question);
        answer.Standing.ShouldBe([four.Key, two.Key]);
        (answer.Buy.Count, answer.ExtraLeaves, answer.Units.Sum(p => p.Empty)).ShouldBe((0, 0, 0));
    }

    [Fact]
    public void A_design_that_is_given_up_stays_where_it_is_and_is_neither_added_nor_bought()
    {
        var gone = Offer(BuiltInDesigns.Find("6x8-four-3x4")!) with { MayBeAdded = false };
        var two = Offer(BuiltInDesigns.Find("6x8-two-6x4")!);
        var answer = Pages.Solve(
            new PageQuestion(
                [
                    [Pictures(20, 3000, 4000)],
                ],
                [new([0], gone.Key, true), new([0], two.Key, true)],
                [gone, two],
                ChoiceWeights.Usual
            )
        );
        answer.Standing.ShouldBe([gone.Key, two.Key]);
        answer.Units[0].Extra.ShouldAllBe(e => e.Key == two.Key);
        answer.Buy.ShouldBeEmpty();
    }

    [Fact]
    public void A_leaf_between_two_days_is_one_leaf_for_both()
    {
        // The front of the second leaf is the first day's, its back the second day's.
        var question = new PageQuestion(
            [
                [Pictures(2, 3000, 2000)],
                [Pictures(4, 3000, 4000)],
            ],
            [new([0], "6x8-two-6x4", true), new([0, 1], "6x8-two-6x4", true), new([1], "6x8-two-6x4", true)],
            SixByEight,
            ChoiceWeights.Usual
        );
        var answer = Pages.Solve(question);
        answer.Proved.ShouldBeTrue();
        PageCosts.CostOf(question, answer).ShouldBe(answer.Cost);
        answer.Units.Sum(p => p.Unplaced).ShouldBe(0);
    }

    [Fact]
    public void What_it_says_it_costs_is_what_it_costs_and_nothing_is_lost()
    {
        RandomWeek.Sample(
            question =>
            {
                var answer = Pages.Solve(question);
                answer.Proved.ShouldBeTrue();
                PageCosts.CostOf(question, answer).ShouldBe(answer.Cost);
                for (var u = 0; u < question.Units.Length; u++)
                {
                    var part = answer.Units[u];
                    (part.Placed + part.Unplaced).ShouldBe(question.Units[u].Sum(d => d.Count));
                    part.Empty.ShouldBeGreaterThanOrEqualTo(0);
                }
            },
            iter: 40,
            threads: 1
        );
    }

    [Fact]
    public void The_same_question_has_the_same_answer_ten_times()
    {
        var question = Week([Pictures(11, 3000, 2000), Pictures(7, 3000, 4000), Pictures(3, 2000, 2000)]);
        var first = Pages.Solve(question);
        for (var i = 0; i < 9; i++)
        {
            var again = Pages.Solve(question);
            again.Standing.ShouldBe(first.Standing);
            again.Units[0].Extra.ShouldBe(first.Units[0].Extra);
            again.Units[0].Spread.ShouldBe(first.Units[0].Spread);
        }
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Trying_every_choice_of_a_small_week_finds_none_better()
    {
        Gen.Select(Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[0, 2], Gen.Int[0, 1].Array[3], Gen.Int[0, 2])
            .Sample(
                (lying, upright, square, start, stock) =>
                {
                    ImmutableArray<PageOffer> offers =
                    [
                        Offer(BuiltInDesigns.Find("6x8-two-6x4")!),
                        Offer(BuiltInDesigns.Find("6x8-6x4-two-3x4")!, stock),
                        Offer(BuiltInDesigns.Find("6x8-full")!),
                    ];
                    var question = Week(
                        [Pictures(lying, 3000, 2000), Pictures(upright, 3000, 4000), Pictures(square, 2000, 2000)],
                        offers,
                        mayChange: start[0] == 1,
                        key: offers[start[1]].Key
                    );
                    Pages.Solve(question).Cost.ShouldBe(Brute(question));
                },
                iter: 60,
                threads: 1
            );
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Another_solver_with_another_formulation_finds_the_same_optimum_for_300_random_weeks()
    {
        RandomWeek.Sample(
            question => Pages.Solve(question).Cost.ShouldBe(ByAnotherSolver(question)),
            iter: 300,
            threads: 1
        );
    }

    [Fact]
    public void Nonsense_is_refused()
    {
        var demands = ImmutableArray.Create(Pictures(1, 300, 200));
        Should.Throw<RuleException>(() => Pages.Solve(Week(demands, [])));
        Should.Throw<RuleException>(() => Pages.Solve(Week(demands, [SixByEight[0], SixByEight[0]])));
        Should.Throw<RuleException>(() => Pages.Solve(Week(demands, key: "gone")));
        Should.Throw<RuleException>(() => Pages.Solve(Week(demands, [SixByEight[0] with { OnHand = -1 }])));
        Should.Throw<RuleException>(() =>
            Pages.Solve(
                Week(
                    demands,
                    [
                        SixByEight[0] with
                        {
                            Pockets = ImmutableDictionary<Size, int>.Empty.Add(Size.FromInches(0, 4), 1),
                        },
                    ]
                )
            )
        );
        Should.Throw<RuleException>(() =>
            Pages.Solve(Week([new Demand(WantKind.Picture, "many", 50_001, ImmutableDictionary<Size, int>.Empty)]))
        );
        Should.Throw<RuleException>(() => Pages.Solve(Week(demands) with { Weights = new ChoiceWeights(-1, 0, 0, 0) }));
        // 400 pictures in a day are many, not too many.
        Pages.Solve(Week([Pictures(400, 3000, 2000)])).Units[0].Unplaced.ShouldBe(0);
        // A piece that fits nowhere is told, not dropped.
        Pages
            .Solve(Week([new Demand(WantKind.Keepsake, "map", 1, ImmutableDictionary<Size, int>.Empty)]))
            .Units[0]
            .Unplaced.ShouldBe(1);
    }

    private static readonly Gen<PageQuestion> RandomWeek = Gen.Select(
        Gen.Int[0, 8],
        Gen.Int[0, 8],
        Gen.Int[0, 4],
        Gen.Int[0, 3],
        Gen.Int[0, SixByEight.Length - 1].Array[2],
        Gen.Bool.Array[2],
        Gen.Int[-1, 3].Array[SixByEight.Length],
        (lying, upright, square, cards, keys, change, stock) =>
            new PageQuestion(
                [
                    [
                        Pictures(lying, 3000, 2000),
                        Pictures(upright, 3000, 4000),
                        Pictures(square, 2000, 2000),
                        new Demand(
                            WantKind.Card,
                            "cards",
                            cards,
                            ImmutableDictionary<Size, int>.Empty.Add(Upright, 0).Add(Lying, 0)
                        ),
                    ],
                ],
                [new([0], SixByEight[keys[0]].Key, change[0]), new([0], SixByEight[keys[1]].Key, change[1])],
                [.. SixByEight.Select((o, d) => o with { OnHand = stock[d] < 0 ? null : stock[d] })],
                ChoiceWeights.Usual
            )
    );

    /// <summary>
    /// Tries every choice of designs for the two leaves, up to two extra leaves, and every way to put the pieces.
    /// </summary>
    private static long Brute(PageQuestion question)
    {
        var (offers, weights, part) = (question.Offers, question.Weights, question.Units[0]);
        var best = long.MaxValue;
        foreach (var left in Choices(question.Standing[0]))
        {
            foreach (var right in Choices(question.Standing[1]))
            {
                foreach (
                    var extra in new[] { Array.Empty<int>() }
                        .Concat(Enumerable.Range(0, offers.Length).Select(d => new[] { d }))
                        .Concat(
                            Enumerable
                                .Range(0, offers.Length)
                                .SelectMany(a => Enumerable.Range(a, offers.Length - a).Select(b => new[] { a, b }))
                        )
                )
                {
                    var pockets = Sizes.ToDictionary(
                        s => s,
                        s =>
                            new[] { left, right }
                                .Concat(extra)
                                .Concat(extra)
                                .Sum(d => offers[d].Pockets.GetValueOrDefault(s))
                    );
                    var buy = Enumerable
                        .Range(0, offers.Length)
                        .Sum(d =>
                            offers[d].OnHand is { } stock
                                ? Math.Max(
                                    0,
                                    extra.Count(e => e == d)
                                        + (left == d ? 1 : 0)
                                        + (right == d ? 1 : 0)
                                        - stock
                                        - question.Standing.Count(l => l.Key == offers[d].Key)
                                )
                                : 0
                        );
                    var fixedCost =
                        ((long)weights.Leaf * extra.Length)
                        + (20_000L * buy)
                        + (
                            (long)weights.Change
                            * (
                                (question.Standing[0].Key == offers[left].Key ? 0 : 1)
                                + (question.Standing[1].Key == offers[right].Key ? 0 : 1)
                            )
                        );
                    best = Math.Min(
                        best,
                        fixedCost + Put([.. part.SelectMany(d => Enumerable.Repeat(d, d.Count))], 0, pockets)
                    );
                }
            }
        }

        return best;

        IEnumerable<int> Choices(StandingLeaf leaf) =>
            Enumerable.Range(0, offers.Length).Where(d => leaf.MayChange || offers[d].Key == leaf.Key);

        long Put(ImmutableArray<Demand> pieces, int at, Dictionary<Size, int> pockets)
        {
            if (at == pieces.Length)
            {
                return (long)weights.EmptyPocket * pockets.Values.Sum();
            }

            var cost = 100_000 + Put(pieces, at + 1, pockets);
            foreach (var (size, loss) in pieces[at].Costs)
            {
                if (pockets.GetValueOrDefault(size) > 0)
                {
                    pockets[size]--;
                    cost = Math.Min(cost, loss + Put(pieces, at + 1, pockets));
                    pockets[size]++;
                }
            }

            return cost;
        }
    }

    /// <summary>
    /// The same question as a mixed integer programme for SCIP: every leaf a slot of its own, every piece and pocket
    /// kind a flow, empty pockets counted by slack.
    /// </summary>
    private static long ByAnotherSolver(PageQuestion question)
    {
        using var solver = Solver.CreateSolver("SCIP");
        var (offers, weights, part) = (question.Offers, question.Weights, question.Units[0]);
        var slots = (part.Sum(d => d.Count) / 2) + 1;
        var objective = solver.Objective();
        var added = Enumerable
            .Range(0, slots)
            .Select(k => offers.Select((_, d) => solver.MakeBoolVar($"x{k}_{d}")).ToArray())
            .ToArray();
        var stands = question
            .Standing.Select((_, l) => offers.Select((_, d) => solver.MakeBoolVar($"z{l}_{d}")).ToArray())
            .ToArray();
        for (var k = 0; k < slots; k++)
        {
            solver.Add(Sum(added[k]) <= 1);
            if (k > 0)
            {
                // Slots are filled from the front.
                solver.Add(Sum(added[k]) <= Sum(added[k - 1]));
            }

            foreach (var x in added[k])
            {
                objective.SetCoefficient(x, weights.Leaf);
            }
        }

        for (var l = 0; l < stands.Length; l++)
        {
            solver.Add(Sum(stands[l]) == 1);
            for (var d = 0; d < offers.Length; d++)
            {
                if (offers[d].Key != question.Standing[l].Key)
                {
                    objective.SetCoefficient(stands[l][d], weights.Change);
                    if (!question.Standing[l].MayChange)
                    {
                        solver.Add(stands[l][d] == 0);
                    }
                }
            }
        }

        var flows = new Dictionary<(int Demand, Size Pocket), Variable>();
        for (var c = 0; c < part.Length; c++)
        {
            var none = solver.MakeIntVar(0, part[c].Count, $"none{c}");
            objective.SetCoefficient(none, 100_000);
            LinearExpr all = none;
            foreach (var (size, loss) in part[c].Costs)
            {
                var flow = solver.MakeIntVar(0, part[c].Count, $"f{c}_{size}");
                flows[(c, size)] = flow;
                objective.SetCoefficient(flow, loss * weights.Crop);
                all += flow;
            }

            solver.Add(all == part[c].Count);
        }

        foreach (var size in offers.SelectMany(o => o.Pockets.Keys).Distinct())
        {
            var empty = solver.MakeIntVar(0, double.PositiveInfinity, $"empty{size}");
            objective.SetCoefficient(empty, weights.EmptyPocket);
            LinearExpr used = empty;
            foreach (var ((_, pocket), flow) in flows)
            {
                if (pocket == size)
                {
                    used += flow;
                }
            }

            LinearExpr room = new();
            for (var d = 0; d < offers.Length; d++)
            {
                var count = offers[d].Pockets.GetValueOrDefault(size);
                room += added.Select(x => x[d]).Aggregate(new LinearExpr(), (sum, x) => sum + (2 * count * x));
                room += stands.Select(z => z[d]).Aggregate(new LinearExpr(), (sum, z) => sum + (count * z));
            }

            solver.Add(used == room);
        }

        for (var d = 0; d < offers.Length; d++)
        {
            if (offers[d].OnHand is { } stock)
            {
                var buy = solver.MakeIntVar(0, double.PositiveInfinity, $"buy{d}");
                objective.SetCoefficient(buy, 20_000);
                var needed = Sum([.. added.Select(x => x[d]), .. stands.Select(z => z[d])]);
                solver.Add(needed <= buy + stock + question.Standing.Count(l => l.Key == offers[d].Key));
            }
        }

        objective.SetMinimization();
        solver.Solve().ShouldBe(Solver.ResultStatus.OPTIMAL);
        return (long)Math.Round(objective.Value());

        static LinearExpr Sum(Variable[] variables) => variables.Aggregate(new LinearExpr(), (sum, v) => sum + v);
    }
}
