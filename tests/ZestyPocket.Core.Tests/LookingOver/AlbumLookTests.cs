using ZestyPocket.Core.Dates;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Placing;
using ZestyPocket.Core.Tests.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.LookingOver;

/// <summary>What only the whole album shows.</summary>
public sealed class AlbumLookTests
{
    private static readonly EditTools Tools = Desks.Tools();

    private static readonly Dictionary<Guid, string> Light = new() { [Spreads.Id(88)] = "First light" };

    /// <summary>Weeks with two pictures each; those that are asked for are filled.</summary>
    private static List<UnitToLook> Weeks(int count, Func<int, bool> filled, Func<int, bool>? inSeries = null) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(w =>
                {
                    var desk = Spreads.Desk(
                        "6x8-full",
                        "6x8-full",
                        Enumerable
                            .Range(1, 2)
                            .Select(i =>
                                Spreads.Photo((100 * w) + i, 3000, 4000) with
                                {
                                    Likeness = 0xFFFF_0000_FFFF_0000 ^ (ulong)((100 * w) + i),
                                    SeriesId = i == 1 && (inSeries?.Invoke(w) ?? false) ? Spreads.Id(88) : null,
                                }
                            )
                    );
                    return new UnitToLook(
                        Spreads.Id(5000 + w),
                        filled(w) ? Desks.After(desk, new FillSpread { Revision = 0 }, Tools) : desk
                    );
                }),
        ];

    private static List<Finding> Look(List<UnitToLook> units, FindingRule rule, params string[] told) =>
        [.. AlbumLook.Over(units, Light, told).Where(f => f.Rule == rule)];

    [Fact]
    public void A_week_with_photos_and_nothing_placed_is_forgotten_only_when_a_later_one_is_done()
    {
        var weeks = Weeks(4, w => w is 0 or 3);
        var found = Look(weeks, FindingRule.UnitForgotten);
        found.Select(f => f.UnitId).ShouldBe([weeks[1].UnitId, weeks[2].UnitId]);
        weeks[1] = weeks[1] with { Desk = Desks.After(weeks[1].Desk, (ContentEdit)found[0].Mend!, Tools) };
        Look(weeks, FindingRule.UnitForgotten).ShouldHaveSingleItem();
        Look(Weeks(4, w => w == 0), FindingRule.UnitForgotten).ShouldBeEmpty();
    }

    [Fact]
    public void A_series_with_a_hole_is_found_and_one_that_has_only_begun_or_ended_is_not()
    {
        Look(Weeks(5, _ => true, w => w is 1 or 3), FindingRule.SeriesGap)
            .ShouldHaveSingleItem()
            .Words.ShouldBe("The series “First light” has no picture here, but before and after.");
        Look(Weeks(5, _ => true, w => w is 1 or 2), FindingRule.SeriesGap).ShouldBeEmpty();
        Look(Weeks(5, _ => true), FindingRule.SeriesGap).ShouldBeEmpty();
    }

    [Fact]
    public void A_copy_of_a_picture_in_another_week_is_found_and_moved_to_the_tray()
    {
        var weeks = Weeks(2, _ => false);
        var copy = weeks[0].Desk.Photos.Values.First().Likeness;
        weeks[1] = weeks[1] with
        {
            Desk = weeks[1].Desk with
            {
                Photos = weeks[1]
                    .Desk.Photos.Values.ToDictionary(
                        p => p.Id,
                        p => p.Id == Spreads.Id(101) ? p with { Likeness = copy } : p
                    ),
            },
        };
        weeks = [.. weeks.Select(w => w with { Desk = Desks.After(w.Desk, new FillSpread { Revision = 0 }, Tools) })];
        var found = Look(weeks, FindingRule.PictureTwice).ShouldHaveSingleItem();
        found.UnitId.ShouldBe(weeks[1].UnitId);
        weeks[1] = weeks[1] with { Desk = Desks.After(weeks[1].Desk, found.Mend!, Tools) };
        Look(weeks, FindingRule.PictureTwice).ShouldBeEmpty();
        Look(Weeks(2, _ => true), FindingRule.PictureTwice).ShouldBeEmpty();
    }

    [Fact]
    public void Somebody_who_is_never_named_is_found_by_the_first_name_as_a_whole_word()
    {
        var weeks = Weeks(1, _ => true);
        weeks[0] = weeks[0] with
        {
            Desk = weeks[0].Desk with
            {
                Words = weeks[0].Desk.Words with { People = [new AlbumPerson("Ada Quillan", null)] },
            },
        };
        Look(weeks, FindingRule.PersonNeverNamed).ShouldHaveSingleItem();
        Look(weeks, FindingRule.PersonNeverNamed, "Adagio, again.").ShouldHaveSingleItem();
        Look(weeks, FindingRule.PersonNeverNamed, "And then Ada laughed.").ShouldBeEmpty();
    }

    [Theory]
    [InlineData("1.0 mm", 3, 1)]
    [InlineData("0.9 mm", 3, 0)]
    [InlineData("1.0 mm", 2, 0)]
    public void Thick_things_at_one_spot_of_three_leaves_let_the_album_gape(string thick, int leaves, int expected)
    {
        var weeks = Enumerable
            .Range(0, leaves)
            .Select(w =>
            {
                var desk = Spreads.Desk("6x8-full", "6x8-full", []);
                var faces = desk.Pages.Faces.Select(f => f with { LeafId = Spreads.Id((10 * w) + (int)f.Side) });
                desk = desk with { Pages = new UnitPages(desk.Dates, [.. faces]) };
                var ticket = new Keepsake(
                    Spreads.Id(900 + w),
                    "Ticket",
                    Length.FromInches(2),
                    Length.FromInches(2),
                    MeasureText.ParseLength(thick),
                    "",
                    null,
                    null,
                    false
                );
                desk = desk with
                {
                    Content = (desk.Content with { Pieces = [ticket] }).Put(ticket.Id, desk.Pages.Pockets[0].Place),
                };
                return new UnitToLook(Spreads.Id(5000 + w), desk);
            })
            .ToList();
        Look(weeks, FindingRule.BulkySpot).Count.ShouldBe(expected);
    }

    [Fact]
    public void A_finding_is_accepted_once_or_with_its_rule()
    {
        var words = AlbumWords.Usual;
        words.Accepts("EmptyPocket x 1").ShouldBeFalse();
        (words with { Accepted = ["EmptyPocket x 1"] }).Accepts("EmptyPocket x 1").ShouldBeTrue();
        (words with { Accepted = ["EmptyPocket x 1"] }).Accepts("EmptyPocket x 2").ShouldBeFalse();
        (words with { Accepted = ["EmptyPocket"] }).Accepts("EmptyPocket x 2").ShouldBeTrue();
    }
}
