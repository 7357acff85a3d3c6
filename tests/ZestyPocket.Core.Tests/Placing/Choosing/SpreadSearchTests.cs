using CsCheck;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing.Choosing;

/// <summary>Which picture goes where.</summary>
public sealed class SpreadSearchTests
{
    private const string Rows = "9x12-rows-6x4-3x4";
    private const string Nine = "9x12-nine-3x4";

    [Fact]
    public void Landscape_pictures_go_to_landscape_pockets_and_upright_ones_to_upright_pockets()
    {
        var desk = Spreads.Desk(
            Rows,
            Rows,
            Enumerable
                .Range(1, 12)
                .Select(i => i % 2 == 0 ? Spreads.Photo(i, 3000, 4000, i / 2) : Spreads.Photo(i, 3000, 2000, i / 2))
        );
        foreach (var (code, key) in Spreads.Laid(desk))
        {
            var pocket = desk.Pages.Pockets.Single(p => p.Code == code).Pocket.Nominal;
            pocket.IsLandscape.ShouldBe(desk.Photos[key].Photo.Pixels.IsLandscape, code);
        }
    }

    [Fact]
    public void Pictures_of_one_shape_lie_in_the_order_of_time()
    {
        var photos = Enumerable.Range(1, 18).Select(i => Spreads.Photo(i, 3000, 4000, (i - 1) * 7 / 18, i)).ToList();
        var laid = Spreads.Laid(Spreads.Desk(Nine, Nine, photos.AsEnumerable().Reverse()));
        Enumerable.Range(1, 9).Select(i => laid[$"W19 L{i}"]).ShouldBe(photos.Take(9).Select(p => p.Id));
        Enumerable.Range(1, 9).Select(i => laid[$"W19 R{i}"]).ShouldBe(photos.Skip(9).Select(p => p.Id));
    }

    [Fact]
    public void With_fewer_pictures_than_pockets_every_picture_lies_and_the_last_pockets_stay_open()
    {
        var laid = Spreads.Laid(
            Spreads.Desk(Nine, Nine, Enumerable.Range(1, 7).Select(i => Spreads.Photo(i, 3000, 4000, i - 1)))
        );
        laid.Keys.Order().ShouldBe(Enumerable.Range(1, 7).Select(i => $"W19 L{i}"));
    }

    [Fact]
    public void With_more_pictures_than_pockets_every_day_has_its_turn()
    {
        var photos = Enumerable.Range(1, 40).Select(i => Spreads.Photo(i, 3000, 4000, i <= 34 ? 5 : i - 35, i % 24));
        var desk = Spreads.Desk(Nine, "9x12-full", photos);
        Spreads.Laid(desk).Values.Select(k => desk.Photos[k].Photo.Day).Distinct().Count().ShouldBe(6);
    }

    [Fact]
    public void A_small_picture_stays_out_while_there_are_enough_sharp_ones()
    {
        var desk = Spreads.Desk(
            "6x8-two-6x4",
            "6x8-full",
            [
                Spreads.Photo(1, 800, 600),
                Spreads.Photo(2, 3000, 2000),
                Spreads.Photo(3, 3000, 2000),
                Spreads.Photo(4, 3000, 4000),
            ]
        );
        Spreads.Laid(desk).Values.ShouldNotContain(Spreads.Id(1));
        var few = desk with { Photos = desk.Photos.Values.Take(2).ToDictionary(p => p.Id) };
        Spreads.Laid(few).Count.ShouldBe(2);
    }

    [Fact]
    public void What_must_stay_is_not_cut_through_while_another_pocket_keeps_it()
    {
        // A row of people over the whole width: an upright pocket would cut two of them in half.
        var people = Spreads.Photo(1, 3000, 2000) with
        {
            Keep = [new PictureBox(0.02, 0.3, 0.96, 0.4)],
        };
        var others = Enumerable.Range(2, 5).Select(i => Spreads.Photo(i, 3000, 2000) with { Favourite = 3 });
        var desk = Spreads.Desk(Rows, "9x12-full", [people, .. others]);
        var laid = Spreads.Laid(desk).Single(p => p.Value == people.Id);
        var pocket = desk.Pages.Pockets.Single(p => p.Code == laid.Key).Pocket.Nominal;
        DeskQuestion.CropOf(people, pocket).CutsThrough.ShouldBeFalse(laid.Key);
    }

    [Fact]
    public void Pictures_of_one_moment_are_represented_once_while_there_are_others()
    {
        var burst = Enumerable
            .Range(1, 4)
            .Select(i => Spreads.Photo(i, 3000, 4000) with { GroupId = Spreads.Id(77), SuggestedBest = i == 3 });
        var others = Enumerable.Range(10, 8).Select(i => Spreads.Photo(i, 3000, 4000));
        var desk = Spreads.Desk(Nine, "9x12-full", [.. burst, .. others, Spreads.Photo(30, 3000, 4000)]);
        var laid = Spreads.Laid(desk).Values.ToHashSet();
        laid.ShouldContain(Spreads.Id(3));
        laid.Count(k => desk.Photos[k].GroupId is not null).ShouldBe(1);
    }

    [Fact]
    public void Pictures_of_one_moment_do_not_touch_and_those_of_a_series_may()
    {
        var alike = Enumerable
            .Range(1, 9)
            .Select(i => Spreads.Photo(i, 3000, 4000) with { GroupId = i is 4 or 5 ? Spreads.Id(77) : null })
            .ToList();
        var desk = Spreads.Desk(Nine, "9x12-full", [.. alike, Spreads.Photo(20, 3000, 4000)]);
        Touching(desk, Spreads.Id(4), Spreads.Id(5)).ShouldBeFalse();
        var series = desk with
        {
            Photos = desk.Photos.Values.ToDictionary(
                p => p.Id,
                p => p.GroupId is null ? p : p with { SeriesId = Spreads.Id(88) }
            ),
        };
        Touching(series, Spreads.Id(4), Spreads.Id(5)).ShouldBeTrue();
    }

    [Fact]
    public void A_favourite_gets_the_large_pocket()
    {
        var photos = Enumerable
            .Range(1, 6)
            .Select(i => Spreads.Photo(i, 3000, 4000) with { Favourite = i == 5 ? 3 : 0 })
            .ToList();
        var laid = Spreads.Laid(
            Spreads.Desk("9x12-6x8-five-3x4", "9x12-full", [.. photos, Spreads.Photo(9, 3000, 4000)])
        );
        laid["W19 R1"].ShouldBe(Spreads.Id(5));
    }

    [Fact]
    public void Dark_pictures_do_not_lie_in_a_clump()
    {
        var photos = Enumerable
            .Range(1, 9)
            .Select(i => Spreads.Photo(i, 3000, 4000) with { Tone = i is 1 or 2 or 3 ? 12 : 75 })
            .ToList();
        var desk = Spreads.Desk(Nine, "9x12-full", [.. photos, Spreads.Photo(20, 3000, 4000)]);
        Touching(desk, Spreads.Id(1), Spreads.Id(2)).ShouldBeFalse();
        Touching(desk, Spreads.Id(2), Spreads.Id(3)).ShouldBeFalse();
    }

    [Fact]
    public void A_card_lies_beside_a_picture_of_its_day()
    {
        var desk = Spreads.Desk(
            Nine,
            "9x12-full",
            Enumerable.Range(1, 9).Select(i => Spreads.Photo(i, 3000, 4000, i % 7))
        );
        var card = new Card(Spreads.Id(500), CardKind.Journaling, "The weir was loud.", "almanac-journal")
        {
            Day = Spreads.Monday.PlusDays(6),
        };
        desk = desk with { Content = desk.Content with { Pieces = [card] } };
        Touching(desk, card.Id, Spreads.Id(6)).ShouldBeTrue();
    }

    [Fact]
    public void Book_ends_lie_at_the_outer_edges_when_they_are_asked_for()
    {
        var photos = Enumerable.Range(1, 16).Select(i => Spreads.Photo(i, 3000, 4000, i % 7));
        var desk = Spreads.Desk(Nine, Nine, photos);
        desk = desk with
        {
            Content = desk.Content with
            {
                Pieces =
                [
                    new Card(Spreads.Id(500), CardKind.Filler, "", "almanac-scales"),
                    new Card(Spreads.Id(501), CardKind.Filler, "", "almanac-scales"),
                ],
            },
        };
        var laid = Spreads.Laid(desk, PlacingWeights.Usual with { BookEnds = 3 });
        var ends = laid.Where(p => p.Value == Spreads.Id(500) || p.Value == Spreads.Id(501))
            .Select(p => p.Key)
            .ToList();
        ends.ShouldContain(c => c == "W19 L1" || c == "W19 L4" || c == "W19 L7");
        ends.ShouldContain(c => c == "W19 R3" || c == "W19 R6" || c == "W19 R9");
    }

    [Trait("Duration", "Long")]
    [Theory]
    [InlineData("6x8-6x4-two-3x4", "6x8-6x4-two-3x4", 7, 180)]
    [InlineData("6x8-four-3x4", "6x8-6x4-two-3x4", 8, 100)]
    [InlineData("9x12-6x12-three-3x4", "6x8-four-3x4", 8, 20)]
    public void The_search_finds_the_least_sum_of_all_assignments(string left, string right, int photos, int cases)
    {
        for (var seed = 0; seed < cases; seed++)
        {
            var question = Spreads.Ask(Spreads.Random(seed, left, right, photos));
            var answer = SpreadSearch.Best(question);
            answer.Cost.ShouldBe(Least(question), $"seed {seed}");
        }
    }

    [Fact]
    public void Locks_and_what_lies_there_never_move_and_each_thing_lies_once()
    {
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[0, 40], Gen.Int[0, 12])
            .Sample(
                (seed, photos, fixedOnes) =>
                {
                    var desk = Spreads.Random(seed, Rows, Nine, photos);
                    var tools = Desks.Tools();
                    var put = desk.Photos.Keys.Take(Math.Min(fixedOnes, photos)).ToList();
                    for (var i = 0; i < put.Count; i++)
                    {
                        var edit = new PutPhoto(put[i], Place: desk.Pages.Pockets[i].Place) { Revision = 0 };
                        desk = Desks.After(desk, edit, tools);
                    }

                    var question = Spreads.Ask(desk);
                    var answer = SpreadSearch.Best(question, effort: 0.1);
                    for (var p = 0; p < question.Pockets.Length; p++)
                    {
                        if (question.Pockets[p].Stays >= 0)
                        {
                            answer.Candidates[p].ShouldBe(question.Pockets[p].Stays);
                        }
                    }

                    var laid = answer.Candidates.Where(c => c >= 0).ToList();
                    laid.Distinct().Count().ShouldBe(laid.Count);
                    laid.Count.ShouldBe(Math.Min(photos, question.Pockets.Length));
                    answer.Cost.ShouldBe(new SpreadCosts(question).Of(answer.Candidates));
                },
                iter: 60
            );
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void The_order_of_the_question_changes_nothing()
    {
        for (var seed = 0; seed < 20; seed++)
        {
            var desk = Spreads.Random(seed, Rows, Nine, 24);
            var dice = new Random(seed);
            var shuffled = desk with { Photos = desk.Photos.Values.OrderBy(_ => dice.Next()).ToDictionary(p => p.Id) };
            Spreads.Laid(shuffled).OrderBy(p => p.Key).ShouldBe(Spreads.Laid(desk).OrderBy(p => p.Key));
        }
    }

    [Fact]
    public void A_better_weight_never_gets_worse_on_its_own_term()
    {
        for (var seed = 0; seed < 12; seed++)
        {
            var desk = Spreads.Random(seed, Rows, Rows, 18);
            var (usual, more) = (Lost(1), Lost(3));
            // Costs are whole numbers, rounded once for each weight.
            more.ShouldBeLessThanOrEqualTo(usual + 18, $"seed {seed}");

            double Lost(double weight)
            {
                var question = Spreads.Ask(desk, PlacingWeights.Usual with { LessCropping = weight });
                var answer = SpreadSearch.Best(question);
                return answer
                    .Candidates.Select(
                        (c, p) =>
                            question.Prices[p][c]!
                                .Terms.Where(t => t.Term is PlacingTerm.Crop or PlacingTerm.Orientation)
                                .Sum(t => t.Cost) / weight
                    )
                    .Sum();
            }
        }
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Other_ways_differ_in_a_third_of_the_pockets_and_cost_no_less()
    {
        for (var seed = 0; seed < 10; seed++)
        {
            var question = Spreads.Ask(Spreads.Random(seed, Rows, Rows, 16));
            var ways = OtherWays.Of(question, 3);
            ways.Count.ShouldBeGreaterThan(1);
            for (var i = 0; i < ways.Count; i++)
            {
                ways[i].Cost.ShouldBeGreaterThanOrEqualTo(ways[0].Cost);
                for (var j = i + 1; j < ways.Count; j++)
                {
                    var differ = ways[i].Candidates.Zip(ways[j].Candidates).Count(p => p.First != p.Second);
                    (differ * 3).ShouldBeGreaterThanOrEqualTo(ways[i].Candidates.Length);
                }
            }
        }
    }

    private static bool Touching(UnitDesk desk, Guid one, Guid two)
    {
        var question = Spreads.Ask(desk);
        var answer = SpreadSearch.Best(question);
        var (a, b) = (PocketOf(one), PocketOf(two));
        return question.Neighbours.Any(n => (n.First, n.Second) == (a, b) || (n.First, n.Second) == (b, a));

        int PocketOf(Guid key)
        {
            var candidate = question.Candidates.Select((c, i) => (c, i)).Single(c => c.c.Key == key).i;
            return answer.Candidates.IndexOf(candidate);
        }
    }

    /// <summary>Every assignment there is.</summary>
    private static long Least(SpreadQuestion question)
    {
        var costs = new SpreadCosts(question);
        var (at, used) = (new int[question.Pockets.Length], new bool[question.Candidates.Length]);
        var state = new SpreadCosts.State(costs, [.. Enumerable.Repeat(-1, at.Length)]);
        var empties = Math.Max(0, at.Length - used.Length);
        var least = long.MaxValue;
        Go(0, empties);
        return least;

        void Go(int pocket, int mayStayEmpty)
        {
            if (pocket == at.Length)
            {
                least = Math.Min(least, state.Total);
                return;
            }

            for (var c = 0; c < used.Length; c++)
            {
                if (!used[c] && costs.Allows(pocket, c))
                {
                    used[c] = true;
                    state.Set(pocket, c);
                    Go(pocket + 1, mayStayEmpty);
                    state.Set(pocket, -1);
                    used[c] = false;
                }
            }

            if (mayStayEmpty > 0)
            {
                Go(pocket + 1, mayStayEmpty - 1);
            }
        }
    }
}
