using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Counting;

/// <summary>
/// Pieces against pockets, and ways to make it fit, on values alone. The sums are arithmetic; the ways and their order
/// are common practice.
/// </summary>
public sealed class UnitTallyTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);

    private static Guid Id(int n) => new($"00000000-0000-7000-8000-{n:000000000000}");

    private static DeskPhoto Photo(int n) =>
        new(
            new LoosePhoto(Id(n), new PixelSize(3000, 2000), Monday, Monday.AtMidnight().PlusMinutes(n)),
            $"{n}.jpg",
            Framing.Middle
        )
        {
            Favourite = n % 3 == 0 ? 2 : 0,
        };

    /// <summary>Week 19 on two pages, with as many landscape pictures.</summary>
    private static UnitDesk Week(int photos, string left = "9x12-nine-3x4", string? right = null)
    {
        var (one, two) = (Of(left), Of(right ?? left));
        var dates = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday }.FirstUnits(1)[0];
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(
                dates,
                [
                    new UnitFace(Id(901), LeafSide.Back, one, LeafAlterations.Plain),
                    new UnitFace(Id(902), LeafSide.Front, two, LeafAlterations.Plain),
                ]
            ),
            dates,
            "Week 19",
            Enumerable.Range(1, photos).Select(Photo).ToDictionary(p => p.Id),
            AlbumWords.Usual,
            one.Design.Pockets.Select(p => p.Nominal).ToHashSet(),
            MeasureSystem.Inches
        )
        {
            Body = one.Design.Body,
            Protectors =
            [
                new OwnedProtector(Id(801), one),
                new OwnedProtector(Id(802), Of("9x12-rows-6x4-3x4"), OnHand: 3),
                new OwnedProtector(Id(803), Of("9x12-full"), GivenUp: true),
            ],
        };

        static Protector Of(string key) => Protector.Unmeasured(BuiltInDesigns.Find(key)!);
    }

    private static UnitTally Tally(UnitDesk desk, params StoryOfDays[] stories) => new(desk, stories, EvenShaper.Only);

    private static WayToFit[] Ways(UnitDesk desk, params Guid[] heldBehind)
    {
        var tally = Tally(desk);
        var leaves = LeafTally.Of(desk, heldBehind.Contains);
        var ways = new WaysToFit(desk, leaves, new Dictionary<Guid, int> { [Id(802)] = 2 }, EvenShaper.Only);
        return [.. ways.Of(tally.Lacking, tally.Free)];
    }

    [Fact]
    public void Fourteen_pictures_and_four_cards_fill_two_pages_of_nine()
    {
        var desk = Week(14);
        for (var i = 0; i < 4; i++)
        {
            desk = desk with
            {
                Content = desk.Content.AddCard(Id(100 + i), CardKind.Journaling, "Soup.", "plain-sans"),
            };
        }

        var tally = Tally(desk);
        (tally.Pieces, tally.Pockets.Length, tally.Lacking, tally.Free).ShouldBe((18, 18, 0, 0));
        tally.Sum.ShouldBe("14 landscape photos + 4 cards = 18 pieces; 18 pockets: it comes out even.");
        tally.PiecesButStories.ShouldBe(18);
        Ways(desk).ShouldBeEmpty();
        Tally(Week(0)).Sum.ShouldBe("Nothing yet; 18 pockets free.");
    }

    [Fact]
    public void A_pocket_left_clear_is_no_pocket_a_keepsake_in_the_envelope_no_piece_and_a_collage_one()
    {
        var desk = Week(5);
        var keepsake = new Keepsake(
            Id(200),
            "Ticket",
            Length.FromInches(2),
            Length.FromInches(3),
            default,
            "",
            null,
            null,
            true
        );
        var collage = new Collage(
            Id(201),
            "3x4 | 3x4",
            [
                new CollageCell("1.1", Id(1), Framing.Middle, string.Empty),
                new CollageCell("1.2", Id(2), Framing.Middle, string.Empty),
            ],
            Collage.UsualGutter,
            Rgb.Read("#ffffff")
        );
        desk = desk with
        {
            Content = desk
                .Content.AddKeepsake(keepsake)
                .AddCollage(collage)
                .LeaveEmpty(desk.Pages.Pockets[17].Place, empty: true),
        };
        var tally = Tally(desk);
        // Five pictures, of which two became one print; seventeen pockets.
        (tally.Pieces, tally.Pockets.Length, tally.PiecesButStories).ShouldBe((4, 17, 4));
    }

    [Fact]
    public void A_story_on_no_card_wants_as_many_pockets_as_it_needs_and_is_counted_in_its_first_week()
    {
        var words = string.Join(' ', Enumerable.Repeat("marmalade", 250));
        var story = new StoryOfDays(Id(300), words, Monday.PlusDays(2));
        var tally = Tally(Week(0), story);
        tally.UntoldPieces.ShouldBeGreaterThan(1);
        tally.Pieces.ShouldBe(tally.UntoldPieces);
        Tally(Week(0), story with { FirstDay = Monday.PlusDays(-1) }).Pieces.ShouldBe(0);
        Tally(Week(0), story with { Words = "  " }).Pieces.ShouldBe(0);
        var told = Week(0);
        told = told with
        {
            Content = told
                .Content.AddCard(Id(301), CardKind.Journaling, "", "plain-sans")
                .Carry(Id(301), Id(300), "marmalade", "plain-sans", new CardSetting()),
        };
        Tally(told, story).UntoldPieces.ShouldBe(0);
    }

    [Fact]
    public void Too_many_pieces_are_made_into_a_collage_smaller_pockets_or_put_on_a_leaf_more_in_that_order()
    {
        var desk = Week(14, "9x12-rows-6x4-3x4");
        Tally(desk).Lacking.ShouldBe(2);
        var ways = Ways(desk);
        ways.Select(w => w.Kind)
            .Distinct()
            .ShouldBe([WayKind.MakeCollage, WayKind.FusePocket, WayKind.AddLeaf], Says(ways));
        // The three that matter least: favourites stay by themselves.
        ways[0].PhotoIds!.ShouldBe([Id(1), Id(2), Id(4)]);
        ways[0].Gain.ShouldStartWith("two pockets more");
        ways.Single(w => w.Kind == WayKind.AddLeaf && w.ProtectorId == Id(802))
            .Gain.ShouldEndWith("; one left in stock");
        ways.ShouldNotContain(w => w.ProtectorId == Id(803), "what the album has given up is not proposed");
        // A leaf with a neighbour's pieces behind it, or a locked piece on it, keeps its pockets.
        Ways(desk, Id(901), Id(902)).ShouldNotContain(w => w.Kind == WayKind.FusePocket);
    }

    [Fact]
    public void Free_pockets_get_larger_pictures_a_filler_are_left_clear_or_the_week_is_merged()
    {
        var desk = Week(7);
        var ways = Ways(desk);
        ways.Select(w => w.Kind)
            .ShouldBe(
                [
                    WayKind.LargerPockets,
                    WayKind.LargerPockets,
                    WayKind.SpanPockets,
                    WayKind.AddFiller,
                    WayKind.LeaveEmpty,
                    WayKind.MergeWithNext,
                ],
                Says(ways)
            );
        ways.Select(w => w.Label).ShouldBeUnique("which page is meant must be told");
        ways[0].Label.ShouldBe("Enlarge on the left page: “Three rows of 6x4 + 3x4” instead of “Nine 3x4”");
        ways.Single(w => w.Kind == WayKind.LeaveEmpty).Places!.ShouldBe([desk.Pages.Pockets[17].Place]);
        // The favourite runs over two pockets that lie side by side.
        ways.Single(w => w.Kind == WayKind.SpanPockets).PhotoIds!.ShouldBe([Id(3)]);
        Tally(desk).Hint!.ShouldStartWith("The pieces fill one of two pages");
        Tally(Week(10)).Hint.ShouldBeNull();
    }

    [Fact]
    public void A_formula_says_what_is_missing()
    {
        var formula = new Formula(Id(1), "Week", [Id(801)], [], Pictures: 6, Words: 1, Title: true);
        var gap = Tally(Week(4)).GapOf(formula);
        (gap.Pictures, gap.Words, gap.Title, gap.Beyond).ShouldBe((2, 1, true, 0));
        Tally(Week(20)).GapOf(formula).Beyond.ShouldBe(2);
    }

    private static string Says(IEnumerable<WayToFit> ways) =>
        string.Join('\n', ways.Select(w => $"{w.Kind}: {w.Label}"));
}
