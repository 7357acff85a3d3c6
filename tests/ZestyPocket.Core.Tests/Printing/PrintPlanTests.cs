using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>Sheets as the keeper wishes them. Common practice, no source; the counts are arithmetic.</summary>
public sealed class PrintPlanTests
{
    private static readonly PrinterSetup Letter = new(Paper.Letter, Length.FromInches(1, 4), Length.Zero);

    private static DuePiece Piece(
        int number,
        int width,
        int height,
        string unit = "W19",
        Stock stock = Stock.WhiteCard
    ) =>
        new(new Guid(number, 0, 0, new byte[8]), $"{unit} L{number}", Size.FromInches(width, height), stock)
        {
            UnitId = UnitOf(unit),
        };

    private static Guid UnitOf(string code) => new(code.GetHashCode(StringComparison.Ordinal), 1, 1, new byte[8]);

    private static List<DuePiece> Threes(int count, string unit = "W19", int from = 1) =>
        [.. Enumerable.Range(from, count).Select(i => Piece(i, 3, 4, unit))];

    [Fact]
    public void One_week_per_sheet_costs_a_sheet_and_the_plan_says_so()
    {
        List<DuePiece> due = [.. Threes(3), .. Threes(3, "W20", 4)];
        PrintPlan.For(due, Letter).Sheets.Length.ShouldBe(1);
        var apart = PrintPlan.For(due, Letter with { Options = new SheetOptions { UnitPerSheet = true } });
        apart.Sheets.Length.ShouldBe(2);
        apart.Sheets.ShouldAllBe(s => s.Pieces.Select(p => p.Due.UnitId).Distinct().Count() == 1);
        SheetSavings
            .Of(due, apart, null)
            .ShouldContain("With several weeks or days on a sheet these pieces take 1 sheet instead of 2.");
    }

    [Fact]
    public void With_one_week_per_sheet_flips_and_mats_share_the_sheet_of_their_week()
    {
        List<DuePiece> due =
        [
            .. Threes(1),
            .. new[] { "W19 L1 flip", "W19 L1 mat", "W19 L1 picture" }.Select(
                (n, i) => Piece(10 + i, 3, 4) with { Number = n }
            ),
        ];
        PrintPlan
            .For(due, Letter with { Options = new SheetOptions { UnitPerSheet = true } })
            .Sheets.Length.ShouldBe(1);
    }

    [Fact]
    public void Margins_and_gaps_that_cost_sheets_are_named()
    {
        // Six 3x4 fill a Letter sheet's 8 by 10 1/2 in; on A4 five go with margins of 5 mm, six with 3 (arithmetic).
        var a4 = new PrinterSetup(Paper.A4, Length.FromMillimetres(5), Length.Zero);
        var due = Threes(12);
        var plan = PrintPlan.For(due, a4);
        plan.Sheets.Length.ShouldBe(3);
        SheetSavings
            .Of(due, plan, null)
            .ShouldBe([
                "If your printer reaches to 3 mm from the edge, these pieces take 2 sheets instead of 3.",
                "On Letter these pieces take 2 sheets instead of 3.",
            ]);
        var gapped = PrintPlan.For(due, Letter with { Gap = Length.FromInches(1, 4) });
        gapped.Sheets.Length.ShouldBeGreaterThan(2);
        SheetSavings
            .Of(due, gapped, null)
            .ShouldContain(s => s.StartsWith("With shared cuts", StringComparison.Ordinal));
        SheetSavings.Of(Threes(2), PrintPlan.For(Threes(2), Letter), null).ShouldBeEmpty();
    }

    [Fact]
    public void A_bleed_keeps_pieces_apart_and_away_from_the_edge()
    {
        var bleed = Length.FromMillimetres(3);
        var plan = PrintPlan.For(Threes(6), Letter with { Options = new SheetOptions { Bleed = bleed } });
        foreach (var sheet in plan.Sheets)
        {
            foreach (var piece in sheet.Pieces)
            {
                var around = new Rect(
                    piece.Bounds.X - bleed,
                    piece.Bounds.Y - bleed,
                    piece.Bounds.Width + (2 * bleed),
                    piece.Bounds.Height + (2 * bleed)
                );
                Letter.Usable.Contains(around).ShouldBeTrue();
                sheet
                    .Pieces.Count(o =>
                        new Rect(
                            o.Bounds.X - bleed,
                            o.Bounds.Y - bleed,
                            o.Bounds.Width + (2 * bleed),
                            o.Bounds.Height + (2 * bleed)
                        ).Overlaps(around)
                    )
                    .ShouldBe(1);
            }
        }

        Should.Throw<MeasureException>(() =>
            PrintPlan.For([], Letter with { Options = new SheetOptions { Bleed = Length.FromMillimetres(11) } })
        );
    }

    [Fact]
    public void Copies_are_printed_only_on_request_and_one_stock_can_be_printed_alone()
    {
        List<DuePiece> due = [.. Threes(2), Piece(3, 3, 4, stock: Stock.PhotoPaper)];
        var twice = PrintPlan.For(due, Letter with { Options = new SheetOptions { Copies = 2 } });
        twice.Sheets.Sum(s => s.Pieces.Length).ShouldBe(6);
        var photos = PrintPlan.For(due, Letter with { Options = new SheetOptions { Only = Stock.PhotoPaper } });
        photos.Sheets.Single().Pieces.Single().Due.ShouldBe(due[2]);
        // A print with its mat on card is not printed in half.
        due.Add(due[2] with { Part = 1, Stock = Stock.WhiteCard });
        PrintPlan.WhollyOn(due, Stock.PhotoPaper).ShouldBeEmpty();
        PrintPlan.WhollyOn(due, Stock.WhiteCard).ShouldBe(due[..2]);
        Should.Throw<RuleException>(() =>
            PrintPlan.For(due, Letter with { Options = new SheetOptions { Copies = 21 } })
        );
    }

    [Fact]
    public void Paper_with_a_direction_turns_no_piece()
    {
        var grained = new SheetOnHand(Stock.WhiteCard, Paper.Letter) { HasDirection = true };
        // Upright a Letter sheet holds four 3x4, turned six (arithmetic).
        var plan = PrintPlan.For(Threes(6), Letter with { OnHand = [grained] });
        plan.Sheets.Length.ShouldBe(2);
        plan.Sheets.SelectMany(s => s.Pieces).ShouldAllBe(p => p.Quarters == 0);
    }

    [Fact]
    public void A_kept_sheet_is_started_on_where_it_is_free_and_an_offcut_is_a_sheet_of_its_own()
    {
        var id = Guid.NewGuid();
        var free = new Rect(Length.FromInches(1, 4), Length.FromInches(6), Size.FromInches(8, 4));
        var kept = new SheetOnHand(Stock.WhiteCard, Paper.Letter) { LeftoverId = id, Free = free };
        var plan = PrintPlan.For(Threes(2), Letter with { OnHand = [kept] });
        var sheet = plan.Sheets.ShouldHaveSingleItem();
        (sheet.LeftoverId, plan.SetupOf(sheet).Paper).ShouldBe((id, Paper.Letter));
        sheet.Pieces.ShouldAllBe(p => free.Contains(p.Bounds));
        plan.SetupOf(sheet).Strip.ShouldBe(Length.Zero);
        // Not wished, or of another stock, it stays where it is.
        PrintPlan
            .For(
                Threes(2),
                Letter with
                {
                    OnHand = [kept],
                    Options = new SheetOptions { UseLeftovers = false },
                }
            )
            .Sheets.Single()
            .LeftoverId.ShouldBeNull();
        PrintPlan
            .For([Piece(1, 3, 4, stock: Stock.PhotoPaper)], Letter with { OnHand = [kept] })
            .Sheets.Single()
            .LeftoverId.ShouldBeNull();
        // What it does not hold goes on a new sheet, and one leftover is used once.
        PrintPlan
            .For(Threes(9), Letter with { OnHand = [kept] })
            .Sheets.Select(s => s.LeftoverId is not null)
            .Order()
            .ShouldBe([false, false, true]);
    }

    [Fact]
    public void Numbers_behind_lie_behind_their_pieces()
    {
        var plan = PrintPlan.For(Threes(5), Letter with { Options = new SheetOptions { NumbersOnBack = true } });
        plan.Sheets.Select(s => s.Side).ShouldBe([SheetSide.Only, SheetSide.Numbers]);
        plan.SheetsOfPaper.ShouldBe(1);
        foreach (var (front, back) in plan.Sheets[0].Pieces.Zip(plan.Sheets[1].Pieces))
        {
            back.Bounds.ShouldBe(front.Bounds.MirroredIn(Paper.Letter.Size.Width));
            back.Due.Number.ShouldBe(front.Due.Number);
        }
    }

    [Fact]
    public void Parts_of_a_large_piece_cover_it_and_share_their_overlap() =>
        Gen.Select(Gen.Int[9, 30], Gen.Int[9, 30])
            .Sample(
                (width, height) =>
                {
                    var due = Piece(1, width, height);
                    var room = Letter.ForPieces.Size;
                    var tiles = Tiling.Of(due, room);
                    tiles.Length.ShouldBe(tiles[0].Rows * tiles[0].Columns);
                    var whole = new Rect(Length.Zero, Length.Zero, due.Cut);
                    tiles.ShouldAllBe(t => whole.Contains(t.Part) && t.Part.Size.FitsIn(room));
                    foreach (var (tile, next) in tiles.Zip(tiles.Skip(1)).Where(t => t.First.Row == t.Second.Row))
                    {
                        (tile.Part.Right - next.Part.X).ShouldBeGreaterThanOrEqualTo(
                            Tiling.Overlap - Length.FromMillimetres(0.01m)
                        );
                    }

                    tiles.Max(t => t.Part.Right).ShouldBe(due.Cut.Width);
                    tiles.Max(t => t.Part.Bottom).ShouldBe(due.Cut.Height);
                    tiles.Min(t => t.Part.X).ShouldBe(Length.Zero);
                    // One part fewer would not reach.
                    var columns = tiles[0].Columns;
                    if (columns > 1)
                    {
                        ((columns - 1) * (room.Width - Tiling.Overlap) + Tiling.Overlap).ShouldBeLessThan(
                            due.Cut.Width
                        );
                    }
                },
                iter: 300
            );

    [Fact]
    public void A_piece_larger_than_the_paper_is_left_out_of_nothing()
    {
        List<DuePiece> due = [Piece(1, 12, 12), .. Threes(1, from: 2)];
        var own = PrintPlan.For(due, Letter);
        (own.TooLarge.Single().PieceId, own.Tiles.IsEmpty).ShouldBe((due[0].PieceId, true));
        var parts = PrintPlan.For(due, Letter with { Options = new SheetOptions { Tiles = true } });
        (parts.TooLarge.IsEmpty, parts.Tiles.Length).ShouldBe((true, 4));
    }

    [Fact]
    public void Several_bought_cards_share_a_carrier_apart_for_the_tape()
    {
        List<DuePiece> cards = [.. Threes(4).Select(p => p with { OnCarrier = true })];
        var plan = PrintPlan.For(cards, Letter);
        plan.Sheets.ShouldBeEmpty();
        var carrier = plan.Carriers.ShouldHaveSingleItem();
        carrier.Pieces.Length.ShouldBe(4);
        foreach (var card in carrier.Pieces)
        {
            var around = card.Bounds with
            {
                Width = card.Bounds.Width + Length.FromMillimetres(14),
                Height = card.Bounds.Height + Length.FromMillimetres(14),
            };
            carrier.Pieces.Count(o => o.Bounds.Overlaps(around)).ShouldBe(1);
        }

        Should
            .Throw<RuleException>(() => PrintPlan.For([Piece(1, 12, 12) with { OnCarrier = true }], Letter))
            .Message.ShouldContain("larger paper");
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void A_trimmer_makes_every_cut_once_after_what_frees_it_and_its_stop_is_set_seldom() =>
        Gen.Select(Gen.Int[1, 3], Gen.Int[1, 3])
            .Array[1, 14]
            .Sample(
                shapes =>
                {
                    var plan = PrintPlan.For([.. shapes.Select((s, i) => Piece(i, s.Item1 + 1, s.Item2 + 1))], Letter);
                    foreach (var sheet in plan.Sheets)
                    {
                        var order = TrimmerCuts.Of(sheet, Letter);
                        order.Select(c => c.Number).ShouldBe(Enumerable.Range(1, sheet.Cuts.Length));
                        order.Select(c => c.Line).ToHashSet().SetEquals(sheet.Cuts).ShouldBeTrue();
                        order.ShouldAllBe(c => c.Stop > Length.Zero);
                        TrimmerCuts.Settings(order).ShouldBeLessThanOrEqualTo(sheet.Cuts.Length);
                    }
                },
                iter: 200
            );

    /// <summary>Arithmetic: six 3x4, turned, come of two columns of three: stops of 1/4, 4 and 3 in.</summary>
    [Fact]
    public void Six_3x4_take_few_settings_of_the_stop()
    {
        var order = TrimmerCuts.Of(PrintPlan.For(Threes(6), Letter).Sheets[0], Letter);
        TrimmerCuts.Settings(order).ShouldBeLessThanOrEqualTo(5);
        TrimmerCuts.InWords(order, MeasureSystem.Inches).ShouldStartWith("1–2 at 1/4 in");
    }

    [Fact]
    public void A_lab_prints_two_3x4_on_one_4x6_and_names_files_in_order()
    {
        List<DuePiece> due =
        [
            .. Threes(3).Select(p => p with { Stock = Stock.PhotoPaper }),
            Piece(4, 6, 8, stock: Stock.PhotoPaper),
            Piece(5, 6, 4, "W20", Stock.PhotoPaper),
        ];
        var prints = LabPrints.Of(due, p => p.UnitId == UnitOf("W19") ? "2026-W19" : "2026-W20");
        prints
            .Select(p => (p.FileName, p.Pieces.Length))
            .ShouldBe([
                ("2026-W19_01_4x6.jpg", 2),
                ("2026-W19_02_4x6.jpg", 1),
                ("2026-W19_03_6x8.jpg", 1),
                ("2026-W20_01_4x6.jpg", 1),
            ]);
        foreach (var print in prints)
        {
            var paper = new Rect(Length.Zero, Length.Zero, print.Paper);
            print.Pieces.ShouldAllBe(p => paper.Contains(p.Bounds));
        }

        // A 3x4 alone lies in the middle of its print, turned.
        prints[1].Pieces[0].Bounds.ShouldBe(Middle());
        Should.Throw<RuleException>(() => LabPrints.Of([Piece(1, 13, 19)], _ => "x")).Message.ShouldContain("larger");

        static Rect Middle() =>
            new Rect(Length.Zero, Length.Zero, Size.FromInches(4, 6)).Centred(Size.FromInches(4, 3));
    }

    [Fact]
    public void Weeks_scatter_over_fewer_sheets_when_their_pieces_trade_places()
    {
        List<DuePiece> due =
        [
            .. Enumerable.Range(0, 60).Select(i => Piece(i, i % 3 == 0 ? 6 : 3, 4, $"W{10 + (i % 5)}")),
        ];
        var plan = PrintPlan.For(due, Letter);
        var spread = plan.Sheets.Sum(s => s.Pieces.Select(p => p.Due.UnitId).Distinct().Count());
        // Five weeks on about as many sheets as they fill, and at most one more at each border.
        spread.ShouldBeLessThanOrEqualTo(plan.Sheets.Length + 10);
    }
}
