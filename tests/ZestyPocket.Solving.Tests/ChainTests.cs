using System.Collections.Immutable;
using CsCheck;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Solving.Tests;

/// <summary>
/// Which pages hold several weeks or days: exact, also where neighbours share leaves and all share a stock.
/// </summary>
public sealed class ChainTests
{
    private static readonly PageSolver Pages = new();

    private static readonly PixelSize[] Shapes =
    [
        new(3000, 2000),
        new(2000, 3000),
        new(4000, 3000),
        new(3000, 4000),
        new(3000, 3000),
        new(4000, 2250),
    ];

    /// <summary>Days in a row share the leaf between them; about half of the designs have a stock.</summary>
    internal static PageQuestion Trip(Random dice, int days, int most, Size body, string key, bool stocked = true)
    {
        var offers = BuiltInDesigns
            .All.Where(d => d.Body == body)
            .Select(d => new PageOffer(
                d.Key,
                d.Name,
                d.Pockets.GroupBy(p => p.Nominal).ToImmutableDictionary(g => g.Key, g => g.Count()),
                stocked && dice.Next(2) == 0 ? dice.Next(2, 4 + days) : null
            ))
            .ToImmutableArray();
        var sizes = offers.SelectMany(o => o.Pockets.Keys).Distinct().ToList();
        return new PageQuestion(
            [
                .. Enumerable
                    .Range(0, days)
                    .Select(_ =>
                        Want.Together(
                            Enumerable
                                .Range(0, dice.Next(most))
                                .Select(_ => Want.Picture(Shapes[dice.Next(Shapes.Length)], sizes))
                                .Concat(
                                    Enumerable
                                        .Range(0, dice.Next(4))
                                        .Select(_ =>
                                            Want.Words(WantKind.Card, "cards", sizes, s => s.SquareInches >= 12)
                                        )
                                )
                        )
                    ),
            ],
            [
                new([0], key, true),
                .. Enumerable.Range(0, days - 1).Select(d => new StandingLeaf([d, d + 1], key, dice.Next(4) > 0)),
                new([days - 1], key, true),
            ],
            offers,
            ChoiceWeights.Usual
        );
    }

    private static PageQuestion SmallTrip(int seed, int days, int most = 10) =>
        Trip(new Random(seed), days, most, Size.FromInches(6, 8), "6x8-four-3x4");

    private static void IsSound(PageQuestion question, PageAnswer answer)
    {
        PageCosts.CostOf(question, answer).ShouldBe(answer.Cost);
        for (var u = 0; u < question.Units.Length; u++)
        {
            var part = answer.Units[u];
            (part.Placed + part.Unplaced).ShouldBe(question.Units[u].Sum(d => d.Count));
            part.Empty.ShouldBeGreaterThanOrEqualTo(0);
        }
    }

    [Fact]
    public void Small_trips_cost_what_the_programme_over_all_of_them_proves()
    {
        Gen.Select(Gen.Int[0, 1_000_000], Gen.Int[2, 4])
            .Sample(
                (seed, days) =>
                {
                    var question = SmallTrip(seed, days);
                    var answer = Pages.Solve(question);
                    answer.Proved.ShouldBeTrue();
                    IsSound(question, answer);
                    var whole = WholeModel.Solve(question, WholeModel.UsualEffort);
                    (whole.Proved ? answer.Cost == whole.Cost : answer.Cost <= whole.Cost).ShouldBeTrue();
                },
                iter: 25,
                threads: 1
            );
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Another_solver_finds_the_same_cost_for_random_trips()
    {
        var (proved, trips) = (0, Thorough.Of(100, 30));
        for (var seed = 0; seed < trips; seed++)
        {
            var question = SmallTrip(seed, 2 + (seed % 3));
            var answer = Pages.Solve(question);
            answer.Proved.ShouldBeTrue();
            if (ByScip.Cost(question) is { } theirs)
            {
                proved++;
                answer.Cost.ShouldBe(theirs, $"trip {seed}");
            }
        }

        // Of those it has not proved nothing is claimed.
        proved.ShouldBeGreaterThan(trips * 8 / 10);
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Twenty_trips_of_twenty_days_are_all_proved()
    {
        for (var seed = 0; seed < 20; seed++)
        {
            var question = SmallTrip(seed, 20, 16);
            var answer = Pages.Solve(question);
            IsSound(question, answer);
            answer.Proved.ShouldBeTrue($"trip {seed}: {answer.Gap}");
        }
    }

    [Fact]
    public void A_year_of_plain_weeks_is_proved()
    {
        var question = Trip(new Random(52), 52, 30, Size.FromInches(9, 12), "9x12-nine-3x4", stocked: false);
        var answer = Pages.Solve(question);
        IsSound(question, answer);
        answer.Proved.ShouldBeTrue();
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Hundreds_of_pictures_in_a_week_are_proved_and_cost_what_another_solver_finds()
    {
        var question = Trip(new Random(3), 3, 400, Size.FromInches(9, 12), "9x12-nine-3x4", stocked: false);
        question.Units.Max(p => p.Sum(d => d.Count)).ShouldBeGreaterThan(200);
        var answer = Pages.Solve(question);
        IsSound(question, answer);
        answer.Proved.ShouldBeTrue();
        if (ByScip.Cost(question) is { } theirs)
        {
            answer.Cost.ShouldBe(theirs);
        }
    }

    [Fact]
    public void Ten_equal_runs_of_a_trip_give_equal_answers()
    {
        var question = SmallTrip(7, 8, 14);
        var first = Pages.Solve(question);
        for (var i = 0; i < 9; i++)
        {
            var again = Pages.Solve(question);
            again.Standing.ShouldBe(first.Standing);
            again.Units.SelectMany(p => p.Extra).ShouldBe(first.Units.SelectMany(p => p.Extra));
            again.Units.SelectMany(p => p.Spread).ShouldBe(first.Units.SelectMany(p => p.Spread));
        }
    }

    [Fact]
    public async Task Six_equal_questions_at_once_have_one_answer()
    {
        var question = SmallTrip(7, 8, 14);
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Task.Run(() => Pages.Solve(question))));
        answers.ShouldAllBe(a => a.Cost == answers[0].Cost && a.Standing.SequenceEqual(answers[0].Standing));
    }

    [Fact]
    public void Days_with_nothing_in_them_keep_their_pages()
    {
        var question = SmallTrip(1, 5) with { Units = [.. Enumerable.Repeat(ImmutableArray<Demand>.Empty, 5)] };
        var answer = Pages.Solve(question);
        IsSound(question, answer);
        (answer.Proved, answer.ExtraLeaves).ShouldBe((true, 0));
    }

    [Fact]
    public void A_leaf_that_joins_days_apart_is_answered_too()
    {
        var question = SmallTrip(5, 3);
        var joined = question with { Standing = question.Standing.Add(new([0, 2], "6x8-four-3x4", true)) };
        var answer = Pages.Solve(joined);
        IsSound(joined, answer);
        answer.Proved.ShouldBeTrue();
    }

    [Fact]
    public void A_choice_that_is_called_off_stops()
    {
        using var off = new CancellationTokenSource();
        off.Cancel();
        Should.Throw<OperationCanceledException>(() => Pages.Solve(SmallTrip(1, 20, 16), off.Token));
    }

    private static readonly Gen<(PieceClass[] Classes, int[] Pockets, int[] Others)> Transports = Gen.Select(
        Gen.Select(Gen.Int[0, 6], Gen.Int[-1, 900].Array[4]).Array[1, 4],
        Gen.Int[0, 7].Array[4],
        Gen.Int[0, 7].Array[4],
        (classes, pockets, others) =>
            (
                Array.ConvertAll(
                    classes,
                    c => new PieceClass(c.Item1, Array.ConvertAll(c.Item2, l => l < 0 ? null : (long?)l))
                ),
                pockets,
                others
            )
    );

    [Fact]
    public void Pieces_in_pockets_cost_no_more_than_when_every_way_is_tried()
    {
        Transports.Sample(
            (classes, pockets, _) =>
                PieceTransport
                    .Solve(classes, pockets, 300)
                    .Cost.ShouldBe(Tried([.. classes.SelectMany(c => Enumerable.Repeat(c, c.Count))], pockets)),
            iter: 300
        );
    }

    [Fact]
    public void The_line_under_the_cost_holds_for_all_pockets_and_touches_it_at_its_own()
    {
        Transports.Sample(
            (classes, pockets, others) =>
            {
                var here = PieceTransport.Solve(classes, pockets, 300);
                long Line(int[] p) => here.Base + here.Slope.Zip(p, (slope, count) => slope * count).Sum();
                Line(pockets).ShouldBe(here.Cost);
                Line(others).ShouldBeLessThanOrEqualTo(PieceTransport.Solve(classes, others, 300).Cost);
            },
            iter: 500
        );
    }

    /// <summary>The least over every way, pieces of a kind counted, not told apart.</summary>
    private static long Tried(List<PieceClass> pieces, int[] pockets)
    {
        var known = new Dictionary<string, long>();
        return Least(0, pockets);

        long Least(int at, int[] left)
        {
            if (at == pieces.Count)
            {
                return left.Sum() * 300L;
            }

            var key = $"{at}:{string.Join(',', left)}";
            if (known.TryGetValue(key, out var found))
            {
                return found;
            }

            var best = PageCosts.Unplaced + Least(at + 1, left);
            for (var s = 0; s < left.Length; s++)
            {
                if (left[s] > 0 && pieces[at].Costs[s] is { } cost)
                {
                    left[s]--;
                    best = Math.Min(best, cost + Least(at + 1, left));
                    left[s]++;
                }
            }

            return known[key] = best;
        }
    }
}
