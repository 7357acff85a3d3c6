using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>
/// Several pictures in one print, and one picture over several pockets. Common practice; sizes are arithmetic.
/// </summary>
public sealed class CollageTests
{
    private static readonly Size FourBySix = Size.FromInches(4, 6);

    private static Collage Six(Length gutter) =>
        new(
            Guid.NewGuid(),
            "2x2 | 2x2 / 2x2 | 2x2 / 2x2 | 2x2",
            [
                .. new[] { "1.1", "1.2", "2.1", "2.2", "3.1" }.Select(k => new CollageCell(
                    k,
                    Guid.NewGuid(),
                    Framing.Middle,
                    string.Empty
                )),
                new CollageCell("3.2", null, Framing.Middle, "Six of us"),
            ],
            gutter,
            Rgb.Read("#ffffff")
        );

    [Fact]
    public void Six_2x2_fill_a_4x6_exactly_five_pictures_and_one_of_words()
    {
        var cells = Six(Length.Zero).Checked().CellsIn(FourBySix);
        cells.ShouldAllBe(c => c.Bounds.Size == Size.FromInches(2, 2));
        cells.Sum(c => c.Bounds.Size.SquareInches).ShouldBe(24);
        Six(Length.Zero).Photos.Count().ShouldBe(5);
    }

    [Fact]
    public void Gutters_lie_between_cells_and_not_at_the_edges()
    {
        var gutter = Length.FromInches(1, 8);
        var cells = Six(gutter).CellsIn(FourBySix).ToDictionary(c => c.Key, c => c.Bounds);
        (cells["1.2"].X - cells["1.1"].Right).ShouldBe(gutter);
        (cells["2.1"].Y - cells["1.1"].Bottom).ShouldBe(gutter);
        (cells["1.1"].X, cells["1.2"].Right, cells["3.2"].Bottom).ShouldBe(
            (Length.Zero, FourBySix.Width, FourBySix.Height)
        );
    }

    [Fact]
    public void Square_pictures_lose_nothing_in_square_cells()
    {
        var square = new PixelSize(2000, 2000);
        var (layout, cells, loss) = CollageLayouts.Best(FourBySix, [.. Enumerable.Repeat(square, 6)], 0, Length.Zero);
        loss.ShouldBe(0, 1e-6);
        DesignNotation.Parse(layout).Pockets.ShouldAllBe(p => p.Nominal.IsSquare);
        cells.ShouldBeUnique();
    }

    [Fact]
    public void Every_layout_fills_its_print_for_every_number_of_cells()
    {
        Gen.Select(Gen.Int[2, 48], Gen.Int[2, 48], Gen.Int[Collage.FewestCells, Collage.MostCells])
            .Sample(
                (w, h, n) =>
                {
                    var size = new Size(Length.FromInches(w, 4), Length.FromInches(h, 4));
                    foreach (var layout in CollageLayouts.For(size, n))
                    {
                        var cells = Collage.CellsOf(layout, size, Length.Zero);
                        cells.Length.ShouldBe(n);
                        cells
                            .Aggregate(Int128.Zero, (sum, c) => sum + c.Bounds.Size.SquareEmu)
                            .ShouldBe(size.SquareEmu);
                    }
                },
                iter: 60
            );
    }

    [Fact]
    public void The_best_layout_is_better_than_every_other_with_its_pictures_in_any_order()
    {
        // Trying every order of three pictures in every layout.
        Gen.Select(Gen.Int[500, 4000], Gen.Int[500, 4000])
            .Select((w, h) => new PixelSize(w, h))
            .Array[3]
            .Sample(
                pictures =>
                {
                    var (_, _, best) = CollageLayouts.Best(FourBySix, pictures, 0, Collage.UsualGutter);
                    foreach (var layout in CollageLayouts.For(FourBySix, 3))
                    {
                        var cells = Collage.CellsOf(layout, FourBySix, Collage.UsualGutter);
                        foreach (
                            var order in new[]
                            {
                                new[] { 0, 1, 2 },
                                [0, 2, 1],
                                [1, 0, 2],
                                [1, 2, 0],
                                [2, 0, 1],
                                [2, 1, 0],
                            }
                        )
                        {
                            order
                                .Select(
                                    (c, i) =>
                                        Crop.For(pictures[i], cells[c].Bounds.Size, Framing.Middle).LossOf(pictures[i])
                                )
                                .Sum()
                                .ShouldBeGreaterThanOrEqualTo(best - 1e-5);
                        }
                    }
                },
                iter: 40
            );
    }

    [Fact]
    public void Impossible_collages_are_refused()
    {
        Should.Throw<RuleException>(() => CollageLayouts.For(FourBySix, 10)).Message.ShouldContain("2 to 9");
        Should
            .Throw<RuleException>(() => (Six(Length.Zero) with { Layout = "4x6" }).Checked())
            .Message.ShouldContain("2 to 9");
        Should.Throw<RuleException>(() => Six(Length.FromInches(1)).Checked()).Message.ShouldContain("gutter");
        var twice = Six(Length.Zero);
        Should
            .Throw<RuleException>(() =>
                (
                    twice with
                    {
                        Cells = [.. twice.Cells.Select(c => c with { PhotoId = twice.Cells[0].PhotoId })],
                    }
                ).Checked()
            )
            .Message.ShouldContain("once");
    }

    [Fact]
    public void A_picture_over_two_pockets_goes_on_behind_the_seam()
    {
        // Two 6x4 pockets with clear sizes of 5 7/8 in across: between their prints lie the welds.
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("12x12-six-6x4")!);
        protector = protector with
        {
            ClearSizes = protector.ClearSizes.Add(Size.FromInches(6, 4), MeasureText.ParseSize("5.875x4")),
            Ease = Length.Zero,
        };
        var (whole, slices) = Spans.Of(protector, LeafSide.Front, ["1.1", "1.2"]);
        whole.ShouldBe(MeasureText.ParseSize("11.875x4"));
        (slices["1.2"].X - slices["1.1"].Right).ShouldBe(Length.FromInches(1, 8));

        var picture = new PixelSize(4750, 1600);
        var crop = Crop.For(picture, whole, Framing.Middle);
        var (left, right) = (Spans.SliceOf(crop, whole, slices["1.1"]), Spans.SliceOf(crop, whole, slices["1.2"]));
        // 400 pixels to the inch: 50 of them lie under the weld and are skipped; the scale is the same on both sides.
        (right.Left - (left.Left + left.Width)).ShouldBe(50, 1e-6);
        left.PixelsPerInch(slices["1.1"].Size).ShouldBe(400, 1e-6);
        right.PixelsPerInch(slices["1.2"].Size).ShouldBe(400, 1e-6);
        (right.Left + right.Width).ShouldBe(4750, 1e-6);
    }

    [Fact]
    public void A_picture_runs_over_neighbours_that_fill_a_rectangle()
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!);
        var leaf = Guid.NewGuid();
        IReadOnlyList<PocketPlace> On(params string[] keys) =>
            [.. keys.Select(k => new PocketPlace(leaf, LeafSide.Back, k))];
        Spans
            .Checked(protector, On("2.1", "1.1", "1.2", "2.2"))
            .Select(p => p.PocketKey)
            .ShouldBe(["1.2", "1.1", "2.2", "2.1"]);
        Should
            .Throw<RuleException>(() => Spans.Checked(protector, On("1.1", "2.2")))
            .Message.ShouldContain("rectangle");
        Should
            .Throw<RuleException>(() => Spans.Checked(protector, On("1.1", "1.3")))
            .Message.ShouldContain("rectangle");
        Should.Throw<RuleException>(() => Spans.Checked(protector, On("1.1"))).Message.ShouldContain("2 to 9");
        Should
            .Throw<RuleException>(() =>
                Spans.Checked(protector, [.. On("1.1"), new PocketPlace(Guid.NewGuid(), LeafSide.Back, "1.2")])
            )
            .Message.ShouldContain("one page");
    }

    [Fact]
    public void What_runs_over_several_pockets_is_framed_locked_and_taken_out_as_one()
    {
        var (leaf, photo, card) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        PocketPlace At(string key) => new(leaf, LeafSide.Front, key);
        var content = UnitContent
            .Empty.AddCard(card, CardKind.Journaling, "Words", "any")
            .Put(card, At("1.1"))
            .PutSpan(photo, [(At("1.1"), Guid.NewGuid()), (At("1.2"), Guid.NewGuid())], Framing.Middle);
        content.Loose.Single().Id.ShouldBe(card);
        var slice = (PhotoPrint)content.Find(content.At(At("1.2"))!.Value.PieceId)!;
        content
            .Frame(slice.Id, new Framing(0.2, 0.5, 2))
            .SlicesOf(slice.SpanId!.Value)
            .ShouldAllBe(s => s.Framing.Zoom == 2);
        content.Lock(At("1.1"), locked: false).Placements.ShouldAllBe(p => !p.Locked);
        Should.Throw<RuleException>(() => content.Put(slice.Id, At("3.3"))).Message.ShouldContain("as a whole");
        content.TakeOut(At("1.2")).Placements.ShouldBeEmpty();
        // A card put onto one of the slices sends the whole picture back.
        content.Put(card, At("1.1")).Pieces.ShouldHaveSingleItem();
        content.KeepOnly(_ => false).Pieces.ShouldHaveSingleItem().Id.ShouldBe(card);
        content.WithoutPrintsOf(new HashSet<Guid> { photo }).Placements.ShouldBeEmpty();
    }

    [Fact]
    public void A_collage_takes_its_pictures_out_of_their_pockets_and_loses_those_that_leave()
    {
        var place = new PocketPlace(Guid.NewGuid(), LeafSide.Front, "1.1");
        var collage = Six(Length.Zero);
        var first = collage.Photos.First();
        var content = UnitContent.Empty.PutPhoto(first, place, Guid.NewGuid(), Framing.Middle).AddCollage(collage);
        content.Placements.ShouldBeEmpty();
        content.PhotosPlaced.Count.ShouldBe(5);
        content.WithoutPrintsOf(new HashSet<Guid> { first }).PhotosPlaced.Count.ShouldBe(4);
        content.Put(collage.Id, place).At(place)!.Value.PieceId.ShouldBe(collage.Id);
    }

    [Fact]
    public void A_pocket_left_clear_stays_so_until_something_is_put_into_it()
    {
        var (leaf, photo) = (Guid.NewGuid(), Guid.NewGuid());
        var place = new PocketPlace(leaf, LeafSide.Front, "1.1");
        var content = UnitContent.Empty.LeaveEmpty(place, empty: true).LeaveEmpty(place, empty: true);
        content.LeftEmpty.ShouldBe([place]);
        var put = content.PutPhoto(photo, place, Guid.NewGuid(), Framing.Middle);
        put.LeftEmpty.ShouldBeEmpty();
        Should.Throw<RuleException>(() => put.LeaveEmpty(place, empty: true)).Message.ShouldContain("take it out");
        content.KeepOnly(_ => false).LeftEmpty.ShouldBeEmpty();
        var (other, next) = (new FaceOfLeaf(leaf, LeafSide.Front), new FaceOfLeaf(Guid.NewGuid(), LeafSide.Back));
        content
            .OnFaces([other], [next], _ => true)
            .LeftEmpty.ShouldBe([new PocketPlace(next.LeafId, LeafSide.Back, "1.1")]);
    }

    [Fact]
    public void A_picture_wanted_at_6x8_says_so_until_the_wish_is_taken_back()
    {
        var photo = Guid.NewGuid();
        var wished = UnitContent.Empty.Wish(photo, Size.FromInches(6, 8)).Wish(photo, Size.FromInches(6, 4));
        wished.WishFor(photo).ShouldBe(Size.FromInches(6, 4));
        wished.Wish(photo, null).WishFor(photo).ShouldBeNull();
        wished.WithoutPrintsOf(new HashSet<Guid> { photo }).Wishes.ShouldBeEmpty();
    }
}
