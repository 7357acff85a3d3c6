using ZestyPocket.Core.Dates;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
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

    [Fact]
    public void A_page_that_was_skipped_is_found_when_its_leaf_and_later_pages_are_used()
    {
        var weeks = Bound();
        // The right page of the first week is emptied; its leaf's other side is the second week's left page.
        weeks[0] = weeks[0] with
        {
            Desk = Emptied(weeks[0].Desk, 1),
        };
        var found = Look(weeks, FindingRule.EmptyBack).ShouldHaveSingleItem();
        found.Words.ShouldContain("The right page of Week 19 is empty");
        weeks[0] = weeks[0] with { Desk = Desks.After(weeks[0].Desk, (ContentEdit)found.Mend!, Tools) };
        Look(weeks, FindingRule.EmptyBack).ShouldBeEmpty();
        // The last page of an album is not skipped: it has not come to it yet.
        var ended = Bound();
        ended[2] = ended[2] with { Desk = Emptied(ended[2].Desk, 1) };
        Look(ended, FindingRule.EmptyBack).ShouldBeEmpty();

        // The right page of a week and the left page of the next are two sides of one leaf.
        static List<UnitToLook> Bound() =>
            [
                .. Weeks(3, _ => false)
                    .Select(
                        (week, i) =>
                            week with
                            {
                                Desk = Desks.After(
                                    week.Desk with
                                    {
                                        Pages = new UnitPages(
                                            week.Desk.Dates,
                                            [
                                                .. week.Desk.Pages.Faces.Select(
                                                    (face, side) => face with { LeafId = Spreads.Id(800 + i + side) }
                                                ),
                                            ]
                                        ),
                                    },
                                    new FillSpread { Revision = 0 },
                                    Tools
                                ),
                            }
                    ),
            ];

        static UnitDesk Emptied(UnitDesk desk, int pocket) =>
            desk with
            {
                Content = desk.Content.TakeOut(desk.Pages.Pockets[pocket].Place),
            };
    }

    [Fact]
    public void One_name_spelt_two_ways_is_found_and_words_that_begin_sentences_are_not_names()
    {
        var weeks = Weeks(1, _ => true);
        string[] told = ["We met Marcus at the bridge. Marcus had a kite.", "Then Markus came, and Marcus laughed."];
        Look(weeks, FindingRule.NameSpeltTwoWays, told)
            .ShouldHaveSingleItem()
            .Words.ShouldStartWith("“Markus” stands in the words, and “Marcus” more often");
        // A word the album knows is right.
        var knows = weeks[0] with
        {
            Desk = weeks[0].Desk with { Words = weeks[0].Desk.Words with { KnownWords = ["Markus"] } },
        };
        Look([knows], FindingRule.NameSpeltTwoWays, told).ShouldBeEmpty();
        Look(weeks, FindingRule.NameSpeltTwoWays, "Rain came. Raid came. We saw Ada and Ida.").ShouldBeEmpty();
        // Lower case somewhere: a word like any other.
        Look(weeks, FindingRule.NameSpeltTwoWays, "The Market was full, a Marker too, a marker and a market. A Market.")
            .ShouldBeEmpty();
    }

    [Fact]
    public void Leaves_that_are_not_owned_are_found()
    {
        var weeks = Weeks(2, _ => true);
        var design = weeks[0].Desk.Pages.Faces[0].Protector;
        Owned(1).ShouldHaveSingleItem().Words.ShouldEndWith("you own 1: buy 1.");
        Owned(2).ShouldBeEmpty();
        Owned(null).ShouldBeEmpty();

        List<Finding> Owned(int? leaves) =>
            Look(
                [
                    weeks[0] with
                    {
                        Desk = weeks[0].Desk with { Protectors = [new(Spreads.Id(70), design, leaves)] },
                    },
                    weeks[1],
                ],
                FindingRule.StockShort
            );
    }

    [Fact]
    public void Colours_clash_when_neither_near_nor_opposite()
    {
        var (red, orange, green, blue) = (Lab(200, 40, 40), Lab(225, 120, 40), Lab(60, 140, 60), Lab(50, 70, 190));
        AlbumLook.Clash(red, orange).ShouldBeFalse();
        AlbumLook.Clash(orange, blue).ShouldBeFalse();
        AlbumLook.Clash(red, green).ShouldBeTrue();
        AlbumLook.Clash(green, red).ShouldBeTrue();
        AlbumLook.Clash(red, red).ShouldBeFalse();

        static Core.Photos.LabColour Lab(byte r, byte g, byte b) => Core.Photos.LabColour.OfSrgb(r, g, b);
    }

    [Fact]
    public void Cards_of_two_weeks_that_lie_open_together_clash_until_one_takes_the_colours_of_its_pictures()
    {
        // Weeks of one page each: the back of a leaf and the front of the next lie open together.
        var red = Week(1, LeafSide.Back, new Core.Photos.PaletteColour(200, 40, 40, 1), "#c82828");
        var green = Week(2, LeafSide.Front, new Core.Photos.PaletteColour(190, 60, 50, 1), "#3c8c3c");
        var found = Look([red, green], FindingRule.ColoursClash).ShouldHaveSingleItem();
        found.UnitId.ShouldBe(green.UnitId);
        var mended = green with { Desk = Desks.After(green.Desk, (ContentEdit)found.Mend!, Tools) };
        Look([red, mended], FindingRule.ColoursClash).ShouldBeEmpty();
        // The other way around they lie on two sides of a leaf and are never seen together.
        Look(
                [
                    Week(1, LeafSide.Front, new(200, 40, 40, 1), "#c82828"),
                    Week(2, LeafSide.Back, new(190, 60, 50, 1), "#3c8c3c"),
                ],
                FindingRule.ColoursClash
            )
            .ShouldBeEmpty();

        static UnitToLook Week(int n, LeafSide side, Core.Photos.PaletteColour colour, string accent)
        {
            var desk = Spreads.Desk(
                "9x12-nine-3x4",
                "9x12-nine-3x4",
                [Spreads.Photo(n, 3000, 4000) with { Palette = [colour] }]
            );
            var face = desk.Pages.Faces.First(f => f.Side == side);
            var style = BuiltInCardStyles.All[0] with { Key = $"own-{n}", Accent = Rgb.Read(accent) };
            desk = desk with
            {
                Pages = new UnitPages(desk.Dates, [face]),
                Words = desk.Words with { OwnStyles = [style] },
            };
            var pockets = desk.Pages.Pockets;
            desk = Desks.After(
                desk,
                new AddCard(CardKind.Journaling, "Rain.", style.Key, pockets[0].Place) { Revision = 0 },
                Tools
            );
            desk = Desks.After(desk, new PutPhoto(Spreads.Id(n), pockets[1].Place) { Revision = 0 }, Tools);
            return new UnitToLook(Spreads.Id(6000 + n), desk);
        }
    }
}
