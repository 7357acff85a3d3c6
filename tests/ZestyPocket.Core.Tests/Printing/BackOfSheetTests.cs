using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>Both faces of a piece land on each other when the sheet is turned over.</summary>
public sealed class BackOfSheetTests
{
    private static readonly PrinterSetup Letter = new(Paper.Letter, Length.FromInches(1, 4), Length.Zero);

    private static DuePiece Flip(int n, Size cut, bool upsideDown) =>
        new(new Guid(n, 0, 0, new byte[8]), $"W19 L{n} flip", cut, Stock.WhiteCard)
        {
            Back = new DueBack(new Guid(n, 1, 0, new byte[8]), $"W19 L{n} flip back", upsideDown),
        };

    [Fact]
    public void Every_point_of_a_back_lies_behind_the_point_of_its_front() =>
        Gen.Int[0, int.MaxValue - 1].Sample(LiesBehind, iter: Thorough.Of(60, 20));

    private static void LiesBehind(int seed)
    {
        var random = new Random(seed);
        var due = Enumerable
            .Range(1, random.Next(1, 12))
            .Select(n =>
                Flip(n, Size.FromInches(random.Next(4, 25) / 4m, random.Next(4, 25) / 4m), random.Next(2) == 1)
            )
            .ToList();
        var plan = PrintPlan.For(due, Letter, cancel: TestContext.Current.CancellationToken);
        plan.Sheets.Length.ShouldBeGreaterThan(1);
        foreach (var pair in plan.Sheets.Chunk(2))
        {
            (pair[0].Side, pair[1].Side).ShouldBe((SheetSide.Front, SheetSide.Back));
            foreach (var (front, back) in pair[0].Pieces.Zip(pair[1].Pieces))
            {
                back.Due.PieceId.ShouldBe(front.Due.Back!.PieceId);
                var cut = front.Due.Cut;
                // The middle of the head and the middle of the left side of the piece, as the reader sees its front.
                var (head, side) = (At(front, cut, 0.5, 0), At(front, cut, 0, 0.5));
                // From behind the left side is at the right; a back that stands upside down has its head at the foot.
                var (u, v) = front.Due.Back.UpsideDown ? (0, 1) : (1, 0);
                Mirrored(At(back, cut, 0.5, v)).ShouldBe(head);
                Mirrored(At(back, cut, u, 0.5)).ShouldBe(side);
            }
        }
    }

    [Fact]
    public void What_is_printed_on_one_side_and_on_both_never_shares_a_sheet()
    {
        var single = new DuePiece(Guid.NewGuid(), "W19 L1", Size.FromInches(3, 4), Stock.WhiteCard);
        var plan = PrintPlan.For(
            [Flip(1, Size.FromInches(3, 4), true), single],
            Letter,
            cancel: TestContext.Current.CancellationToken
        );
        plan.Sheets.Select(s => s.Side).ShouldBe([SheetSide.Only, SheetSide.Front, SheetSide.Back]);
        plan.Sheets[2].Pieces.ShouldHaveSingleItem().Due.Number.ShouldBe("W19 L1 flip back");
    }

    /// <summary>Where a point of a piece lies on its sheet, in whole EMU; shares of its width and height.</summary>
    private static (long X, long Y) At(PlannedPiece piece, Size cut, double across, double down)
    {
        var (x, y) = ((long)(cut.Width.Emu * across), (long)(cut.Height.Emu * down));
        var (left, top) = (piece.Bounds.X.Emu, piece.Bounds.Y.Emu);
        return piece.Quarters switch
        {
            1 => (left + cut.Height.Emu - y, top + x),
            2 => (left + cut.Width.Emu - x, top + cut.Height.Emu - y),
            3 => (left + y, top + cut.Width.Emu - x),
            _ => (left + x, top + y),
        };
    }

    private static (long X, long Y) Mirrored((long X, long Y) point) =>
        (Letter.Paper.Size.Width.Emu - point.X, point.Y);
}
