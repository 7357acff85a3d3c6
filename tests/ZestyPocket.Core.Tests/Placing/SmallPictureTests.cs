using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Small pictures on calendars and on pages of who was there.</summary>
public sealed class SmallPictureTests
{
    private static (UnitDesk Desk, Guid Card, EditTools Tools) With(CardKind kind, int photos = 3)
    {
        var (desk, tools) = (Desks.Week(photos), Desks.Tools());
        desk = desk with
        {
            Words = desk.Words with
            {
                People = [new AlbumPerson("Ada", new LocalDate(1987, 9, 2)), new AlbumPerson("Otto", null)],
            },
        };
        desk = Desks.After(desk, new AddCard(kind) { Revision = 0 }, tools);
        return (desk, desk.Content.Pieces[^1].Id, tools);
    }

    private static Card CardOn(UnitDesk desk, Guid id) => (Card)desk.Content.Find(id)!;

    [Fact]
    public void A_calendar_shows_of_each_day_the_picture_that_is_loved_most_and_the_earliest_of_those()
    {
        var (desk, card, tools) = With(CardKind.Calendar);
        desk = desk with
        {
            Photos = desk.Photos.Values.ToDictionary(
                p => p.Id,
                p => p.Id == Desks.Id(2) ? p with { Favourite = 1 } : p
            ),
        };
        var after = Desks.After(desk, new ShowDaysPictures(card) { Revision = 0 }, tools);
        var shown = CardOn(after, card).SmallPictures.ShouldHaveSingleItem();
        (shown.Place, shown.PhotoId).ShouldBe(("2026-05-04", Desks.Id(2)));
        // It can still lie in a pocket of its own.
        after.Content.PhotosPlaced.ShouldBeEmpty();

        // There is no other day to fill: said, not passed over.
        Should.Throw<RuleException>(() => Desks.After(after, new ShowDaysPictures(card) { Revision = 0 }, tools));
    }

    [Fact]
    public void One_portrait_at_a_name_replaces_the_one_before_and_can_be_removed()
    {
        var (desk, card, tools) = With(CardKind.People);
        desk = Desks.After(desk, new ShowSmallPicture(card, "Otto", Desks.Id(1)) { Revision = 0 }, tools);
        desk = Desks.After(desk, new ShowSmallPicture(card, "Otto", Desks.Id(2)) { Revision = 0 }, tools);
        CardOn(desk, card).SmallPictures.Select(p => p.PhotoId).ShouldBe([Desks.Id(2)]);
        desk = Desks.After(desk, new ShowSmallPicture(card, "Otto") { Revision = 0 }, tools);
        CardOn(desk, card).SmallPictures.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("Nobody")]
    [InlineData("")]
    [InlineData("2026-05-04")]
    public void A_place_that_is_not_on_the_card_is_refused(string at)
    {
        var (desk, card, tools) = With(CardKind.People);
        Should.Throw<RuleException>(() =>
            Desks.After(desk, new ShowSmallPicture(card, at, Desks.Id(1)) { Revision = 0 }, tools)
        );
    }

    [Fact]
    public void Nobody_is_recognised_by_the_program()
    {
        var (desk, card, _) = With(CardKind.People);
        SmallPictures.ProposedFor(desk, CardOn(desk, card)).ShouldBeEmpty();
    }

    [Fact]
    public void A_picture_that_leaves_the_week_leaves_the_calendar_too()
    {
        var (desk, card, tools) = With(CardKind.Calendar);
        desk = Desks.After(desk, new ShowSmallPicture(card, "2026-05-06", Desks.Id(3)) { Revision = 0 }, tools);
        var without = desk.Content.WithoutPrintsOf(new HashSet<Guid> { Desks.Id(3) });
        ((Card)without.Find(card)!).SmallPictures.ShouldBeEmpty();
    }
}
