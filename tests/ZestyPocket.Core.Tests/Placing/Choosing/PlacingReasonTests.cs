using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing.Choosing;

/// <summary>The sum over a spread in words.</summary>
public sealed class PlacingReasonTests
{
    private static UnitDesk Filled(params DeskPhoto[] photos)
    {
        var tools = Desks.Tools();
        var desk = Spreads.Desk("9x12-rows-6x4-3x4", "9x12-full", photos);
        desk = Desks.After(desk, new AddCard(CardKind.WeekTitle) { Revision = 0 }, tools);
        return Desks.After(desk, new FillSpread { Revision = 0 }, tools);
    }

    [Fact]
    public void A_landscape_3_2_in_a_6x4_pocket_says_that_nothing_is_cropped_and_what_would_be_second()
    {
        var desk = Filled(Spreads.Photo(1, 3000, 2000, 2));
        var reasons = PlacingReasons.Of(desk, EvenShaper.Only);
        var photo = reasons.Single(r => desk.Content.Find(r.PieceId) is PhotoPrint);
        photo.Words.ShouldStartWith("Landscape 3:2 in a 6x4 pocket: nothing cropped");
        photo.Words.ShouldContain("would be second");
        reasons.ShouldContain(r => r.Words == "A title comes first.");
    }

    [Fact]
    public void A_print_that_was_straightened_says_what_that_crops()
    {
        var desk = Filled(Spreads.Photo(1, 3000, 2000, 2));
        var print = desk.Content.Pieces.OfType<PhotoPrint>().Single();
        desk = Desks.After(
            desk,
            new AdjustPhotos([new(print.Id, new PictureAdjustment(8))]) { Revision = 0 },
            Desks.Tools()
        );
        // Turned by 8 degrees, a 3:2 keeps 1 / (cos 8 + 1.5 sin 8) of its height: 30 % of it goes. Geometry.
        var words = PlacingReasons.Of(desk, EvenShaper.Only).Single(r => r.PieceId == print.Id).Words;
        words.ShouldContain("nothing cropped");
        words.ShouldContain("As it is framed now, 30 % is cropped.");
    }

    [Fact]
    public void Every_piece_in_a_pocket_has_a_reason_of_at_most_two_sentences()
    {
        for (var seed = 0; seed < 10; seed++)
        {
            var tools = Desks.Tools();
            var desk = Spreads.Random(seed, "9x12-rows-6x4-3x4", "9x12-nine-3x4", 20);
            desk = Desks.After(desk, new AddCard(CardKind.WeekTitle) { Revision = 0 }, tools);
            desk = Desks.After(desk, new AddCard(CardKind.Journaling, "Rain all day.") { Revision = 0 }, tools);
            desk = Desks.After(desk, new FillSpread { Revision = 0 }, tools);
            var reasons = PlacingReasons.Of(desk, EvenShaper.Only);
            reasons.Count.ShouldBe(desk.Content.Placements.Length);
            reasons.ShouldAllBe(r => r.Words.EndsWith('.') && r.Words.Split(". ").Length <= 2);
        }
    }

    [Fact]
    public void A_loose_picture_is_offered_its_pockets_by_what_it_would_lose()
    {
        var desk = Spreads.Desk("9x12-rows-6x4-3x4", "9x12-full", [Spreads.Photo(1, 3000, 2000)]);
        var offers = PlacingReasons.PocketsFor(desk, EvenShaper.Only, Spreads.Id(1));
        offers.Count.ShouldBe(7);
        offers[0].Words.ShouldBe("nothing cropped");
        offers[0].Rank.ShouldBe(1);
        // 3:2 landscape into upright 3x4 loses half. Arithmetic.
        offers[^1].Words.ShouldBe("50 % cropped");
        PlacingReasons.PocketsFor(desk, EvenShaper.Only, Spreads.Id(99)).ShouldBeEmpty();
    }

    [Fact]
    public void An_open_pocket_is_offered_the_loose_things_that_suit_it()
    {
        var desk = Spreads.Desk(
            "9x12-rows-6x4-3x4",
            "9x12-full",
            [Spreads.Photo(1, 3000, 2000), Spreads.Photo(2, 3000, 4000)]
        );
        var upright = desk.Pages.Pockets.First(p => p.Pocket.Nominal == Size.FromInches(3, 4)).Place;
        PlacingReasons
            .ThingsFor(desk, EvenShaper.Only, upright, 5)
            .Select(o => o.Key)
            .ShouldBe([Spreads.Id(2), Spreads.Id(1)]);
        var taken = Desks.After(desk, new PutPhoto(Spreads.Id(1), Place: upright) { Revision = 0 }, Desks.Tools());
        PlacingReasons.ThingsFor(taken, EvenShaper.Only, upright, 5).ShouldBeEmpty();
    }

    [Fact]
    public void Place_again_keeps_what_is_locked_and_what_somebody_worked_on()
    {
        var tools = Desks.Tools();
        var desk = Spreads.Random(3, "9x12-rows-6x4-3x4", "9x12-rows-6x4-3x4", 12);
        desk = Desks.After(desk, new FillSpread { Revision = 0 }, tools);
        var (locked, framed) = (desk.Pages.Pockets[2].Place, desk.Pages.Pockets[4].Place);
        var (one, two) = (desk.Content.At(locked)!.Value.PieceId, desk.Content.At(framed)!.Value.PieceId);
        desk = desk with { Content = desk.Content.Lock(locked, locked: true) };
        desk = Desks.After(
            desk,
            new FinishPieces([two], new WrittenFinish(Border: ["1/8 in"])) { Revision = 0 },
            tools
        );
        var again = Desks.After(desk, new PlaceAgain { Revision = 0 }, tools);
        again.Content.At(locked)!.Value.PieceId.ShouldBe(one);
        again.Content.At(framed)!.Value.PieceId.ShouldBe(two);
        again.Content.Placements.Length.ShouldBe(desk.Content.Placements.Length);
    }

    [Fact]
    public void One_of_the_other_ways_is_laid_as_it_was_shown()
    {
        var tools = Desks.Tools();
        var desk = Spreads.Random(5, "9x12-rows-6x4-3x4", "9x12-rows-6x4-3x4", 12);
        var question = Spreads.Ask(desk);
        var way = LaidSpread.Of(question, OtherWays.Of(question, 3)[^1]);
        var laid = Desks.After(desk, new LaySpread(way) { Revision = 0 }, tools);
        foreach (var (key, place) in way)
        {
            ((PhotoPrint)laid.Content.Find(laid.Content.At(place)!.Value.PieceId)!).PhotoId.ShouldBe(key);
        }

        Should.Throw<RuleException>(() => Desks.After(desk, new LaySpread([way[0], way[0]]) { Revision = 0 }, tools));
        Should.Throw<RuleException>(() =>
            Desks.After(desk, new LaySpread([way[0] with { Key = Spreads.Id(99) }]) { Revision = 0 }, tools)
        );
        Should.Throw<RuleException>(() => Desks.After(desk, new LaySpread([]) { Revision = 0 }, tools));
    }
}
