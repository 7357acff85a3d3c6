using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>Sheets: the counts of the trade are arithmetic; everything else holds for any pieces.</summary>
public sealed class SheetPackingTests
{
    private static readonly Size LetterQuarterInch = Size.FromInches(8, 10.5m);

    [Theory]
    [InlineData(3, 4, 6)]
    [InlineData(4, 6, 3)]
    [InlineData(6, 8, 1)]
    [InlineData(2, 2, 20)]
    public void As_many_as_a_letter_sheet_with_quarter_inch_margins_holds(int width, int height, int count)
    {
        Most(Size.FromInches(width, height), LetterQuarterInch, mayTurn: true).ShouldBe(count);
        // The strip with the check rule at the foot takes none of them away.
        Most(
                Size.FromInches(width, height),
                new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero).Usable.Size,
                mayTurn: true
            )
            .ShouldBe(count);
    }

    [Fact]
    public void Upright_only_a_letter_sheet_holds_four_3x4()
    {
        Most(Size.FromInches(3, 4), LetterQuarterInch, mayTurn: false).ShouldBe(4);
    }

    [Theory]
    [InlineData(5, 5)]
    [InlineData(3.4, 6)]
    [InlineData(3, 6)]
    public void An_A4_sheet_holds_five_3x4_with_5_mm_margins_and_six_with_3_4(double margin, int count)
    {
        Most(
                Size.FromInches(3, 4),
                new PrinterSetup(Paper.A4, Length.FromMillimetres((decimal)margin), Length.Zero).Usable.Size,
                mayTurn: true
            )
            .ShouldBe(count);
    }

    [Fact]
    public void Two_3x4_fill_one_4x6_sheet_exactly()
    {
        var sheets = SheetPacking.Pack(Copies(Size.FromInches(3, 4), 2, true), Size.FromInches(4, 6), Length.Zero, 1);
        sheets.Count.ShouldBe(1);
        sheets[0].Offcuts.ShouldBeEmpty();
        GuillotineCuts.Of(Size.FromInches(4, 6), sheets[0].Pieces)!.Count.ShouldBe(1);
    }

    [Fact]
    public void A_gap_keeps_pieces_apart()
    {
        var gap = Length.FromMillimetres(4);
        var sheets = SheetPacking.Pack(Copies(Size.FromInches(2, 2), 12, true), LetterQuarterInch, gap, 1);
        foreach (var sheet in sheets)
        {
            foreach (var piece in sheet.Pieces)
            {
                var grown = new Rect(
                    piece.Bounds.X - gap,
                    piece.Bounds.Y - gap,
                    piece.Bounds.Width + (2 * gap),
                    piece.Bounds.Height + (2 * gap)
                );
                sheet
                    .Pieces.Count(other =>
                        other.Index != piece.Index
                        && other.Bounds.Overlaps(
                            grown with
                            {
                                X = grown.X + new Length(1),
                                Y = grown.Y + new Length(1),
                                Width = grown.Width - new Length(2),
                                Height = grown.Height - new Length(2),
                            }
                        )
                    )
                    .ShouldBe(0);
            }
        }
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void Packed_pieces_are_all_there_never_overlap_stay_on_the_sheet_and_come_free_by_edge_to_edge_cuts()
    {
        var sides = Gen.Int[8, 64];
        Gen.Select(Gen.Select(sides, sides, Gen.Bool).Array[1, 24], Gen.Int[0, 8], Gen.ULong)
            .Sample(
                (specs, gapSixteenths, seed) =>
                {
                    var usable = Size.FromInches(8, 10);
                    var gap = Length.FromInches(gapSixteenths, 32);
                    var pieces = specs
                        .Select(
                            (s, i) =>
                                new SheetPiece(
                                    i,
                                    new Size(Length.FromInches(s.Item1, 16), Length.FromInches(s.Item2, 16)),
                                    s.Item3
                                )
                        )
                        .ToArray();
                    var sheets = SheetPacking.Pack(pieces, usable, gap, seed);
                    var page = new Rect(Length.Zero, Length.Zero, usable);

                    sheets
                        .SelectMany(s => s.Pieces)
                        .Select(p => p.Index)
                        .Order()
                        .ShouldBe(Enumerable.Range(0, pieces.Length));
                    foreach (var sheet in sheets)
                    {
                        foreach (var packed in sheet.Pieces)
                        {
                            page.Contains(packed.Bounds).ShouldBeTrue();
                            var cut = pieces[packed.Index].Cut;
                            packed.Bounds.Size.ShouldBe(packed.Turned ? cut.Turned : cut);
                            (packed.Turned && !pieces[packed.Index].MayTurn).ShouldBeFalse();
                            sheet.Pieces.Count(other => other.Bounds.Overlaps(packed.Bounds)).ShouldBe(1);
                            sheet.Offcuts.ShouldNotContain(offcut => offcut.Overlaps(packed.Bounds));
                        }

                        GuillotineCuts.Of(usable, sheet.Pieces).ShouldNotBeNull();
                    }

                    sheets.Count.ShouldBeGreaterThanOrEqualTo(SheetPacking.LowerBound(pieces, usable));
                },
                iter: 60
            );
    }

    [Fact]
    public void A_pinwheel_cannot_be_cut_edge_to_edge()
    {
        PackedPiece[] pinwheel = [At(0, 0, 0, 2, 1), At(1, 2, 0, 1, 2), At(2, 1, 2, 2, 1), At(3, 0, 1, 1, 2)];
        GuillotineCuts.Of(Size.FromInches(3, 3), pinwheel).ShouldBeNull();
        GuillotineCuts.Of(Size.FromInches(3, 3), pinwheel[..3]).ShouldNotBeNull();

        static PackedPiece At(int index, int x, int y, int w, int h) =>
            new(index, new Rect(Length.FromInches(x), Length.FromInches(y), Size.FromInches(w, h)), false);
    }

    [Fact]
    public void Photos_and_cards_lie_on_sheets_of_their_own_and_what_is_too_large_is_named()
    {
        DuePiece[] due =
        [
            new(Guid.CreateVersion7(), "W1 L1", Size.FromInches(6, 4), Stock.PhotoPaper),
            new(Guid.CreateVersion7(), "W1 L2", Size.FromInches(3, 4), Stock.WhiteCard),
            new(Guid.CreateVersion7(), "W1 R1", Size.FromInches(9, 12), Stock.PhotoPaper),
        ];
        var plan = PrintPlan.For(
            due,
            new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero),
            cancel: TestContext.Current.CancellationToken
        );
        plan.Sheets.Select(s => s.Stock).ShouldBe([Stock.PhotoPaper, Stock.WhiteCard]);
        plan.TooLarge.Single().Number.ShouldBe("W1 R1");
        Should.Throw<MeasureException>(() =>
            new PrinterSetup(Paper.Letter, Length.FromInches(2), Length.Zero).Checked()
        );
    }

    [Fact]
    public void Packing_can_be_stopped()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        Should.Throw<OperationCanceledException>(() =>
            SheetPacking.Pack(
                Copies(Size.FromInches(2, 2), 40, true),
                LetterQuarterInch,
                Length.Zero,
                1,
                cancel: stop.Token
            )
        );
    }

    private static int Most(Size piece, Size usable, bool mayTurn)
    {
        var count = 0;
        while (SheetPacking.Pack(Copies(piece, count + 1, mayTurn), usable, Length.Zero, 1).Count == 1)
        {
            count++;
        }

        return count;
    }

    private static SheetPiece[] Copies(Size size, int count, bool mayTurn) =>
        [.. Enumerable.Range(0, count).Select(i => new SheetPiece(i, size, mayTurn))];

    [Trait("Duration", "Long")]
    [Fact]
    public void Every_edge_of_every_piece_lies_on_a_cut_line()
    {
        var random = new Random(4);
        Size[] sizes =
        [
            Size.FromInches(3, 4),
            Size.FromInches(6, 4),
            Size.FromInches(2, 2),
            Size.FromInches(3, 3),
            Size.FromInches(3, 8),
        ];
        var edges = 0;
        for (var run = 0; run < 40; run++)
        {
            DuePiece[] due =
            [
                .. Enumerable
                    .Range(0, 1 + random.Next(24))
                    .Select(i => new DuePiece(
                        Guid.CreateVersion7(),
                        $"W1 L{i}",
                        sizes[random.Next(sizes.Length)],
                        Stock.PhotoPaper
                    )),
            ];
            var gap = run % 2 == 0 ? Length.Zero : Length.FromMillimetres(4);
            var plan = PrintPlan.For(
                due,
                new PrinterSetup(run % 3 == 0 ? Paper.A4 : Paper.Letter, Length.FromInches(1, 4), gap),
                cancel: TestContext.Current.CancellationToken
            );
            foreach (var sheet in plan.Sheets)
            {
                foreach (var b in sheet.Pieces.Select(p => p.Bounds))
                {
                    edges += 4;
                    var across = sheet
                        .Cuts.Where(c => c.Y1 == c.Y2 && c.X1 <= b.X && c.X2 >= b.Right)
                        .Select(c => c.Y1);
                    var down = sheet.Cuts.Where(c => c.X1 == c.X2 && c.Y1 <= b.Y && c.Y2 >= b.Bottom).Select(c => c.X1);
                    down.ToHashSet().IsSupersetOf([b.X, b.Right]).ShouldBeTrue();
                    across.ToHashSet().IsSupersetOf([b.Y, b.Bottom]).ShouldBeTrue();
                }
            }
        }

        edges.ShouldBeGreaterThan(1_400);
    }
}
