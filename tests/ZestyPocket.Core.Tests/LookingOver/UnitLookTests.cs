using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Placing;
using ZestyPocket.Core.Tests.Placing.Choosing;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.LookingOver;

/// <summary>Each finding appears, goes by its own remedy, and is silent at a near miss.</summary>
public sealed class UnitLookTests
{
    private const string Nine = "9x12-nine-3x4";
    private const string Rows = "9x12-rows-6x4-3x4";
    private static readonly EditTools Tools = Desks.Tools();

    private static List<Finding> Look(UnitDesk desk, FindingRule rule) =>
        [.. UnitLook.Over(Guid.Empty, desk, EvenShaper.Only).Where(f => f.Rule == rule)];

    private static UnitDesk Mended(UnitDesk desk, Finding finding) =>
        desk with
        {
            Content = finding.Mend!.Apply(desk, Tools).Content,
        };

    /// <summary>A week with pictures in its first pockets, in their order, none of them locked.</summary>
    private static UnitDesk Laid(string left, string right, params DeskPhoto[] photos)
    {
        var desk = Spreads.Desk(left, right, photos);
        for (var i = 0; i < photos.Length && i < desk.Pages.Pockets.Count; i++)
        {
            var place = desk.Pages.Pockets[i].Place;
            desk = Desks.After(desk, new PutPhoto(photos[i].Id, Place: place) { Revision = 0 }, Tools);
            desk = desk with { Content = desk.Content.Lock(place, locked: false) };
        }

        return desk;
    }

    private static DeskPhoto[] Upright(int count) =>
        [.. Enumerable.Range(1, count).Select(i => Spreads.Photo(i, 3000, 4000, i % 7))];

    [Fact]
    public void A_unit_that_nobody_has_begun_has_nothing_wrong() =>
        UnitLook.Over(Guid.Empty, Spreads.Desk(Nine, Nine, Upright(3)), EvenShaper.Only).ShouldBeEmpty();

    [Fact]
    public void Empty_pockets_are_found_filled_while_something_is_loose_and_left_empty_on_purpose_otherwise()
    {
        var desk = Laid(Nine, "6x8-full", Upright(9));
        var found = Look(desk, FindingRule.EmptyPocket).ShouldHaveSingleItem();
        (found.Where, found.MendLabel).ShouldBe(("W19 R1", "Leave it empty"));
        Look(Mended(desk, found), FindingRule.EmptyPocket).ShouldBeEmpty();

        var more = desk with
        {
            Photos = desk.Photos.Values.Append(Spreads.Photo(50, 3000, 4000)).ToDictionary(p => p.Id),
        };
        found = Look(more, FindingRule.EmptyPocket).ShouldHaveSingleItem();
        found.MendLabel.ShouldBe("Fill the spread");
        Look(Mended(more, found), FindingRule.EmptyPocket).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(CardKind.Journaling, "", "Nothing is written")]
    [InlineData(CardKind.Prompts, "reading \nwearing \nlistening to \neating \nthinking of ", "Nothing is filled in")]
    [InlineData(CardKind.Legend, "", "no lines")]
    [InlineData(CardKind.People, "", "no people")]
    [InlineData(CardKind.Journaling, "Rain.", null)]
    [InlineData(CardKind.Filler, "", null)]
    [InlineData(CardKind.WeekTitle, "", null)]
    public void A_card_with_nothing_on_it_is_found_and_deleted(CardKind kind, string words, string? says)
    {
        var desk = Laid(Nine, "6x8-full", Upright(2));
        var place = desk.Pages.Pockets[4].Place;
        desk = Desks.After(desk, new AddCard(kind, words, Place: place) { Revision = 0 }, Tools);
        var found = Look(desk, FindingRule.CardEmpty);
        if (says is null)
        {
            found.ShouldBeEmpty();
            return;
        }

        found.ShouldHaveSingleItem().Words.ShouldContain(says);
        Look(Mended(desk, found[0]), FindingRule.CardEmpty).ShouldBeEmpty();
        var card = (Card)desk.Content.Find(desk.Content.At(place)!.Value.PieceId)!;
        EmptyCard
            .Says(desk, card with { Setting = new CardSetting(ByHand: true) })
            .ShouldBe(kind is CardKind.Legend or CardKind.People ? found[0].Words : null, "written by hand later");
    }

    [Fact]
    public void A_story_that_is_on_no_card_is_found_before_anything_lies_in_a_pocket()
    {
        var desk = Spreads.Desk(Nine, Nine, []);
        StoryOfDays Story(int i, string title, string words) =>
            new(Spreads.Id(700 + i), words, desk.Dates.First) { Title = title };
        UnitLook
            .Untold(
                Guid.Empty,
                desk,
                [
                    Story(1, "Jam", "Boiled."),
                    Story(2, "", "The weir was loud.\nWe left."),
                    Story(3, "", " "),
                    Story(4, "", "x"),
                ],
                new HashSet<Guid> { Spreads.Id(704) }
            )
            .Select(f => f.Words)
            .ShouldBe(["The story “Jam” is on no card.", "The story “The weir was loud. We left.” is on no card."]);
    }

    [Fact]
    public void A_loose_keepsake_that_fits_nowhere_does_not_offer_to_fill_the_spread()
    {
        var desk = Laid(Nine, "6x8-full", Upright(9));
        var map = new Keepsake(
            Spreads.Id(900),
            "Map",
            Length.FromInches(14),
            Length.FromInches(10),
            default,
            "",
            null,
            null,
            false
        );
        desk = desk with { Content = desk.Content with { Pieces = desk.Content.Pieces.Add(map) } };
        var found = Look(desk, FindingRule.EmptyPocket).ShouldHaveSingleItem();
        found.MendLabel.ShouldBe("Leave it empty");
        Look(Mended(desk, found), FindingRule.EmptyPocket).ShouldBeEmpty();
    }

    [Fact]
    public void A_soft_print_is_found_under_200_ppi_and_a_swap_into_a_smaller_pocket_mends_it()
    {
        // On a left page the large pocket is the second. 1100 pixels over 6 in are 183 to the inch, over 3 in 367.
        // Arithmetic.
        var small = Spreads.Photo(1, 1100, 1467);
        var desk = Laid("9x12-6x8-five-3x4", "6x8-full", [.. Upright(7).Skip(6), small, .. Upright(5).Skip(1)]);
        var found = Look(desk, FindingRule.LowResolution).ShouldHaveSingleItem();
        found.Words.ShouldContain("1.jpg prints at 183 ppi");
        found.MendLabel!.ShouldStartWith("Swap with W19 L");
        Look(Mended(desk, found), FindingRule.LowResolution).ShouldBeEmpty();
        // 1200 pixels over 6 in are 200: fair, and nothing is said.
        Look(
                Laid(
                    "9x12-6x8-five-3x4",
                    "6x8-full",
                    [.. Upright(7).Skip(6), Spreads.Photo(1, 1200, 1600), .. Upright(5).Skip(1)]
                ),
                FindingRule.LowResolution
            )
            .ShouldBeEmpty();
    }

    [Fact]
    public void A_crop_through_what_must_stay_is_found_and_framed_anew_or_swapped()
    {
        var people = Spreads.Photo(1, 3000, 2000) with { Keep = [new PictureBox(0.55, 0.2, 0.42, 0.6)] };
        var desk = Laid(Rows, "6x8-full", [people, Spreads.Photo(2, 3000, 2000)]);
        var found = Look(desk, FindingRule.CutThrough).ShouldHaveSingleItem();
        found.MendLabel.ShouldNotBeNull();
        Look(Mended(desk, found), FindingRule.CutThrough).ShouldBeEmpty();
        // In a landscape pocket the box is whole.
        Look(Laid(Rows, "6x8-full", [Spreads.Photo(2, 3000, 2000), people]), FindingRule.CutThrough).ShouldBeEmpty();
    }

    [Fact]
    public void Words_without_room_are_found_and_those_that_just_fit_are_not()
    {
        var desk = Laid("9x12-6x8-five-3x4", "6x8-full", Upright(5));
        desk = Desks.After(
            desk,
            new AddCard(
                CardKind.Journaling,
                string.Join(' ', Enumerable.Repeat("weir", 400)),
                Place: desk.Pages.Pockets[5].Place
            )
            {
                Revision = 0,
            },
            Tools
        );
        var found = Look(desk, FindingRule.WordsCutOff).ShouldHaveSingleItem();
        found.Words.ShouldContain("words of the card have no room");
        // The large pocket holds them, once both may be moved.
        desk = desk with
        {
            Content = desk.Content.Lock(desk.Pages.Pockets[5].Place, locked: false),
        };
        found = Look(desk, FindingRule.WordsCutOff).ShouldHaveSingleItem();
        if (found.Mend is not null)
        {
            Look(Mended(desk, found), FindingRule.WordsCutOff).ShouldBeEmpty();
        }

        var few = Desks.After(
            Laid(Nine, "6x8-full", Upright(1)),
            new AddCard(CardKind.Journaling, "The weir was loud.", Place: desk.Pages.Pockets[1].Place) { Revision = 0 },
            Tools
        );
        Look(few, FindingRule.WordsCutOff).ShouldBeEmpty();
    }

    [Fact]
    public void A_name_spelt_another_way_and_a_weekday_that_is_none_of_the_days_are_found_and_the_name_is_mended()
    {
        var desk = Laid(Nine, "6x8-full", Upright(1));
        desk = desk with
        {
            Words = desk.Words with { People = [new AlbumPerson("Odette", new LocalDate(1946, 5, 14))] },
        };
        var place = desk.Pages.Pockets[1].Place;
        var wrong = Desks.After(
            desk,
            new AddCard(CardKind.Journaling, "Odete came for tea.", Place: place) { Revision = 0 },
            Tools
        );
        var found = Look(wrong, FindingRule.WordsWrong).ShouldHaveSingleItem();
        found.MendLabel.ShouldBe("Write “Odette”");
        Look(Mended(wrong, found), FindingRule.WordsWrong).ShouldBeEmpty();
        var right = Desks.After(
            desk,
            new AddCard(CardKind.Journaling, "Odette came for tea.", Place: place) { Revision = 0 },
            Tools
        );
        Look(right, FindingRule.WordsWrong).ShouldBeEmpty();
    }

    [Fact]
    public void Pictures_of_one_moment_that_touch_are_found_and_swapped_apart()
    {
        var photos = Upright(9);
        (photos[3], photos[4]) = (
            photos[3] with
            {
                GroupId = Spreads.Id(77),
            },
            photos[4] with
            {
                GroupId = Spreads.Id(77),
            }
        );
        var desk = Laid(Nine, "6x8-full", photos);
        var found = Look(desk, FindingRule.LookalikesTouch).ShouldHaveSingleItem();
        found.Words.ShouldContain("5.jpg lies beside 4.jpg");
        Look(Mended(desk, found), FindingRule.LookalikesTouch).ShouldBeEmpty();
        // Corner to corner they do not touch, and a series is meant.
        (photos[4], photos[7]) = (photos[4] with { GroupId = null }, photos[7] with { GroupId = Spreads.Id(77) });
        Look(Laid(Nine, "6x8-full", photos), FindingRule.LookalikesTouch).ShouldBeEmpty();
        var series = Upright(9).Select(p => p with { GroupId = Spreads.Id(77), SeriesId = Spreads.Id(88) }).ToArray();
        Look(Laid(Nine, "6x8-full", series), FindingRule.LookalikesTouch).ShouldBeEmpty();
    }

    [Fact]
    public void Three_dark_pictures_in_a_clump_are_found_and_two_are_not()
    {
        var photos = Upright(9).Select((p, i) => p with { Tone = i is 0 or 1 or 2 ? 15 : 75 }).ToArray();
        var desk = Laid(Nine, "6x8-full", photos);
        var found = Look(desk, FindingRule.DarkClump).ShouldHaveSingleItem();
        found.Words.ShouldBe("3 dark pictures lie in a clump.");
        Look(Mended(desk, found), FindingRule.DarkClump).ShouldBeEmpty();
        photos[1] = photos[1] with { Tone = UnitLook.Dark + 1 };
        Look(Laid(Nine, "6x8-full", photos), FindingRule.DarkClump).ShouldBeEmpty();
    }

    [Fact]
    public void A_page_that_outweighs_the_other_is_found_and_a_swap_across_the_rings_evens_it()
    {
        var photos = Upright(12).Select((p, i) => p with { Tone = i is < 6 and not (1 or 3 or 5) ? 25 : 80 }).ToArray();
        var desk = Laid("9x12-rows-6x4-3x4", "9x12-rows-6x4-3x4", photos);
        var found = Look(desk, FindingRule.OneSideHeavier).ShouldHaveSingleItem();
        found.Words.ShouldStartWith("The left page is darker");
        var after = Mended(desk, found);
        Look(after, FindingRule.OneSideHeavier).ShouldBeEmpty();
        Look(
                Laid("9x12-rows-6x4-3x4", "9x12-rows-6x4-3x4", [.. Upright(12).Select(p => p with { Tone = 60 })]),
                FindingRule.OneSideHeavier
            )
            .ShouldBeEmpty();
    }

    [Fact]
    public void A_day_with_photos_and_nothing_to_show_is_found_and_a_card_of_its_own_mends_it()
    {
        var desk = Laid(
            "6x8-two-6x4",
            "6x8-two-6x4",
            [.. Enumerable.Range(1, 4).Select(i => Spreads.Photo(i, 3000, 2000))]
        );
        desk = desk with
        {
            Photos = desk.Photos.Values.Append(Spreads.Photo(9, 3000, 2000, day: 3)).ToDictionary(p => p.Id),
        };
        var found = Look(desk, FindingRule.DayWithNothing).ShouldHaveSingleItem();
        found.Words.ShouldContain("has 1 photo");
        Look(Mended(desk, found), FindingRule.DayWithNothing).ShouldBeEmpty();
    }

    [Fact]
    public void The_same_picture_in_two_pockets_is_found_and_one_is_moved_to_the_tray()
    {
        var desk = Laid(Nine, "6x8-full", Upright(9));
        var first = (PhotoPrint)desk.Content.Pieces[0];
        var second = new PhotoPrint(Spreads.Id(700), first.PhotoId, first.Framing);
        desk = desk with
        {
            Content = desk.Content with
            {
                Pieces = desk.Content.Pieces.Add(second),
                Placements = desk.Content.Placements.Add(new Placement(desk.Pages.Pockets[9].Place, second.Id, false)),
            },
        };
        var found = Look(desk, FindingRule.PictureTwice).ShouldHaveSingleItem();
        found.Where.ShouldBe("W19 R1");
        Look(Mended(desk, found), FindingRule.PictureTwice).ShouldBeEmpty();
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Locked_pieces_are_not_swapped_and_no_remedy_makes_more_to_mend()
    {
        for (var seed = 0; seed < 25; seed++)
        {
            var desk = Spreads.Random(seed, Rows, Nine, 18);
            desk = Desks.After(desk, new FillSpread { Revision = 0 }, Tools);
            var locked = desk.Pages.Pockets[seed % 15].Place;
            var there = desk.Content.At(locked)!.Value.PieceId;
            desk = desk with { Content = desk.Content.Lock(locked, locked: true) };
            var all = UnitLook.Over(Guid.Empty, desk, EvenShaper.Only);
            all.Select(f => f.Key).Distinct().Count().ShouldBe(all.Count);
            foreach (var swap in all.Where(f => f.Mend is MovePiece))
            {
                var after = Mended(desk, swap);
                after.Content.At(locked)!.Value.PieceId.ShouldBe(there);
                Look(after, swap.Rule).Count.ShouldBeLessThan(Look(desk, swap.Rule).Count, swap.Words);
            }
        }
    }

    [Fact]
    public void A_spread_more_colourful_than_the_album_allows_is_calmed_by_a_picture_in_black_and_white()
    {
        DeskPhoto[] photos =
        [
            .. Enumerable
                .Range(1, 10)
                .Select(i => Spreads.Photo(i, 3000, 4000, i % 7) with { Colourfulness = i == 4 ? 200 : 50 }),
        ];
        var desk = Laid(Nine, "6x8-full", photos);
        var loud = desk with { Words = desk.Words with { MostColourful = 55 } };
        var found = Look(loud, FindingRule.TooColourful).ShouldHaveSingleItem();
        found.Words.ShouldContain("where the album allows 55");
        found.MendLabel.ShouldNotBeNull().ShouldContain("in black and white");
        Look(Mended(loud, found), FindingRule.TooColourful).ShouldBeEmpty();
        // A little under the limit nothing is said, and without a limit never.
        Look(desk with { Words = desk.Words with { MostColourful = 70 } }, FindingRule.TooColourful).ShouldBeEmpty();
        Look(desk with { Words = desk.Words with { MostColourful = null } }, FindingRule.TooColourful).ShouldBeEmpty();
    }

    [Fact]
    public void Ways_to_calm_a_spread_say_before_and_after_and_keep_what_they_promise()
    {
        DeskPhoto[] photos =
        [
            .. Enumerable.Range(1, 10).Select(i => Spreads.Photo(i, 3000, 4000, i % 7) with { Colourfulness = 20 * i }),
        ];
        var desk = Laid(Nine, "6x8-full", photos);
        var pockets = Core.Placing.Choosing.DeskQuestion.PocketsOf(desk);
        var ways = CalmerWays.Of(desk, pockets, 1, Tools);
        ways.Count.ShouldBeGreaterThanOrEqualTo(2);
        ways.Select(w => w.After).ShouldBeInOrder();
        foreach (var way in ways)
        {
            var after = desk with { Content = way.Edit.Apply(desk, Tools).Content };
            SpreadColours.Of(after, pockets).Single().Colourfulness.ShouldBe(way.After, 1e-9);
            way.After.ShouldBeLessThan(way.Before);
        }

        CalmerWays.Of(desk, pockets, 9, Tools).ShouldBeEmpty();
    }

    [Fact]
    public void Two_things_stuck_on_are_said_and_one_or_three_are_not()
    {
        Stuck(2).ShouldHaveSingleItem().Words.ShouldContain("2 things are stuck onto this spread");
        Stuck(1).ShouldBeEmpty();
        Stuck(3).ShouldBeEmpty();
        // Things are counted, not steps.
        Stuck(1, "four paper suns").Single().Words.ShouldContain("4 things");
        Stuck(1, "12 dots").Single().Words.ShouldContain("12 things");
        Stuck(1, "3x star").ShouldBeEmpty();
        Stuck(2, "one moon").ShouldHaveSingleItem();

        static List<Finding> Stuck(int count, string words = "star")
        {
            var desk = Laid(Nine, "6x8-full", Upright(4));
            foreach (var print in desk.Content.Pieces.OfType<PhotoPrint>().Take(count))
            {
                var step = new WrittenStep(HandStepKind.StickOn, words);
                desk = Desks.After(desk, new PlanSteps(print.Id, [step]) { Revision = 0 }, Tools);
            }

            return Look(desk, FindingRule.OrnamentsEven);
        }
    }

    [Fact]
    public void A_card_away_from_its_picture_is_found_and_a_swap_brings_them_together()
    {
        var desk = Laid(Nine, "6x8-full", Upright(8));
        desk = Desks.After(
            desk,
            new AddCard(CardKind.Journaling, "Rain.", Place: desk.Pages.Pockets[8].Place) { Revision = 0 },
            Tools
        );
        var card = desk.Content.Pieces.OfType<Card>().Single();
        Look(desk, FindingRule.PairApart).ShouldBeEmpty();
        var apart = Desks.After(desk, new PairCard(card.Id, Spreads.Id(1)) { Revision = 0 }, Tools);
        var found = Look(apart, FindingRule.PairApart).ShouldHaveSingleItem();
        found.Words.ShouldBe("This card is to lie beside 1.jpg, which lies in W19 L1.");
        Look(Mended(apart, found), FindingRule.PairApart).ShouldBeEmpty();
        // The eighth picture lies beside the ninth pocket.
        var together = Desks.After(desk, new PairCard(card.Id, Spreads.Id(8)) { Revision = 0 }, Tools);
        Look(together, FindingRule.PairApart).ShouldBeEmpty();
    }
}
