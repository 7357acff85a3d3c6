using CsCheck;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Words;
using static ZestyPocket.Core.Tests.Placing.Desks;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Cards that were bought: trimmed to a pocket, counted, typed on.</summary>
public sealed class BoughtCardTests
{
    private static readonly EditTools Once = Tools();

    private static WrittenBoughtCard Written(string size = "4x6 in", string keepX = "0", string keepY = "0") =>
        new("spring cards", CardCorners.Whole.All, size, keepX, keepY);

    private static (UnitDesk Desk, BoughtCard Card) In3x4(WrittenBoughtCard written)
    {
        var desk = Week(2);
        var made = After(desk, new AddBoughtCard(Id(1), written, LeftPocket(desk, 1)) { Revision = 1 }, Once);
        return (made, (BoughtCard)made.Content.Pieces.Single());
    }

    [Fact]
    public void A_4x6_cut_down_to_3x4_leaves_a_strip_of_1x6_and_one_of_3x2()
    {
        var (desk, card) = In3x4(Written());
        var cut = desk.Pages.CutSizeOf(desk.Content, card);
        cut.ShouldBe(Size.FromInches(3, 4));
        card.KeptFor(cut).ShouldBe(new Rect(Length.Zero, Length.Zero, cut));
        card.OffcutsFor(cut).ShouldBe([Size.FromInches(1, 6), Size.FromInches(3, 2)]);
        // Kept from the middle, the strips at both sides and at head and foot are each half as wide.
        var middle = card with
        {
            KeepX = Length.FromInches(1, 2),
            KeepY = Length.FromInches(1),
        };
        middle
            .OffcutsFor(cut)
            .ShouldBe([
                Size.FromInches(0.5m, 6),
                Size.FromInches(0.5m, 6),
                Size.FromInches(3, 1),
                Size.FromInches(3, 1),
            ]);
    }

    [Fact]
    public void Offcuts_and_the_kept_part_are_never_more_than_the_card() =>
        Gen.Select(Gen.Int[4, 48], Gen.Int[4, 48], Gen.Int[0, 60], Gen.Int[0, 60], Gen.Int[4, 40], Gen.Int[4, 40])
            .Sample(
                (wide, high, x, y, cutWide, cutHigh) =>
                {
                    var card = new BoughtCard(
                        Id(1),
                        "a",
                        Id(2),
                        CardCorners.Whole,
                        Length.FromInches(wide, 4),
                        Length.FromInches(high, 4),
                        Length.FromInches(x, 4),
                        Length.FromInches(y, 4),
                        string.Empty
                    );
                    var cut = new Size(Length.FromInches(cutWide, 4), Length.FromInches(cutHigh, 4));
                    var kept = card.KeptFor(cut);
                    new Rect(Length.Zero, Length.Zero, card.Size).Contains(kept).ShouldBeTrue();
                    var used = kept.Size.SquareInches + card.OffcutsFor(cut).Sum(s => s.SquareInches);
                    used.ShouldBeLessThanOrEqualTo(card.Size.SquareInches);
                }
            );

    [Fact]
    public void A_bought_card_wants_a_pocket_and_its_photo_none()
    {
        var before = new UnitTally(Week(2), [], EvenShaper.Only);
        var (desk, _) = In3x4(Written());
        var after = new UnitTally(desk, [], EvenShaper.Only);
        (after.Pieces, after.PiecesButStories).ShouldBe((before.Pieces, before.PiecesButStories));
        after.Sum.ShouldContain("1 bought card");
        UsedCards
            .Of([(desk.Content, desk.Pages)])
            .ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(u => u.Name.ShouldBe("spring cards"), u => u.Used.ShouldBe(1));
        // Without its photo there is no card.
        desk.Content.WithoutPrintsOf(new HashSet<Guid> { Id(1) }).Pieces.ShouldBeEmpty();
    }

    [Fact]
    public void Corners_that_cross_and_sizes_that_make_no_sense_are_refused()
    {
        var crossed = new[] { (0.0, 0.0), (1, 1), (1, 0), (0, 1) }.Select(c => new PicturePoint(c.Item1, c.Item2));
        Should
            .Throw<RuleException>(() => In3x4(Written() with { Corners = [.. crossed] }))
            .Message.ShouldContain("order");
        Should.Throw<RuleException>(() => In3x4(Written() with { Corners = [new(0, 0)] }));
        Should.Throw<RuleException>(() => In3x4(Written("1/2 x 3 in")));
        Should.Throw<RuleException>(() => In3x4(Written() with { Name = " " }));
    }

    [Fact]
    public void A_plane_in_perspective_goes_back_to_where_it_came_from() =>
        Gen.Double[-0.2, 0.2]
            .Array[8]
            .Sample(shift =>
            {
                (double X, double Y)[] square = [(0, 0), (1, 0), (1, 1), (0, 1)];
                var seen = square.Select((p, i) => (p.X + shift[2 * i], p.Y + shift[(2 * i) + 1])).ToArray();
                var (there, back) = (Homography.Of(square, seen), Homography.Of(seen, square));
                foreach (var (x, y) in new[] { (0.5, 0.5), (0.1, 0.9), (0.77, 0.31) })
                {
                    var (u, v) = there.Map(x, y);
                    var (s, t) = back.Map(u, v);
                    (s, t).ShouldSatisfyAllConditions(p => p.s.ShouldBe(x, 1e-6), p => p.t.ShouldBe(y, 1e-6));
                }
            });

    [Fact]
    public void The_largest_quiet_place_is_found_as_by_trying_all() =>
        Gen
            .Bool.Array[48]
            .Sample(quiet =>
            {
                var found = QuietPlace.Largest(8, 6, (column, row) => quiet[(row * 8) + column]);
                found.Area.ShouldBe(All().Where(IsQuiet).Select(r => r.Area).DefaultIfEmpty(0).Max());
                IsQuiet(found).ShouldBeTrue();

                bool IsQuiet(CellRect r) =>
                    Enumerable
                        .Range(r.Row, r.Rows)
                        .All(row => Enumerable.Range(r.Column, r.Columns).All(c => quiet[(row * 8) + c]));
            });

    private static IEnumerable<CellRect> All() =>
        from column in Enumerable.Range(0, 8)
        from row in Enumerable.Range(0, 6)
        from columns in Enumerable.Range(1, 8 - column)
        from rows in Enumerable.Range(1, 6 - row)
        select new CellRect(column, row, columns, rows);
}
