using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Tests.Placing.Choosing;

namespace ZestyPocket.Core.Tests.LookingOver;

/// <summary>What paper says of an album: changed since it was printed, and printers nobody measured.</summary>
public sealed class PaperLookTests
{
    private static PieceOnPaper Piece(int i, PrintStanding standing) => new(Spreads.Id(i), $"W19 L{i}", standing);

    private static PrinterOnDesk Printer(PrinterFault? fault, bool makesUp = false) =>
        new(Spreads.Id(7), "Study", fault, makesUp);

    private static PrinterFault Scaled(double scale) => PrinterFault.None with { ScaleX = scale, ScaleY = scale };

    [Fact]
    public void A_piece_that_changed_since_it_was_printed_is_found_until_it_is_printed_again()
    {
        var found = PaperLook
            .Over(Spreads.Id(1), "Week 19", [Piece(1, PrintStanding.Printed), Piece(2, PrintStanding.Changed)])
            .ShouldHaveSingleItem();
        found.Words.ShouldBe("1 piece has changed since the print: W19 L2.");
        (found.UnitId, found.Opens, found.MendLabel).ShouldBe((Spreads.Id(1), FindingRoom.Sheets, "Print again"));
        PaperLook
            .Over(Spreads.Id(1), "Week 19", [Piece(1, PrintStanding.Printed), Piece(2, PrintStanding.Printed)])
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData(PrintStanding.NeverPrinted)]
    [InlineData(PrintStanding.Printed)]
    [InlineData(PrintStanding.Spoilt)]
    public void A_piece_that_is_still_to_be_printed_or_printed_as_it_is_is_not_found(PrintStanding standing) =>
        PaperLook.Over(Spreads.Id(1), "Week 19", [Piece(1, standing)]).ShouldBeEmpty();

    [Fact]
    public void Of_many_changed_pieces_some_are_named_and_one_more_is_another_finding()
    {
        var six = Enumerable.Range(1, 6).Select(i => Piece(i, PrintStanding.Changed)).ToList();
        var found = PaperLook.Over(Spreads.Id(1), "Week 19", six).ShouldHaveSingleItem();
        found.Words.ShouldBe("6 pieces have changed since the print: W19 L1, W19 L2, W19 L3, W19 L4 and 2 more.");
        found.Key.Length.ShouldBeLessThan(1_000);
        six.Reverse();
        PaperLook.Over(Spreads.Id(1), "Week 19", six).Single().Key.ShouldBe(found.Key);
        // What was accepted does not hide what changes later.
        PaperLook.Over(Spreads.Id(1), "Week 19", six[1..]).Single().Key.ShouldNotBe(found.Key);
    }

    [Fact]
    public void A_printer_nobody_measured_is_found_while_there_is_something_to_print()
    {
        var found = PaperLook.Over(toPrint: true, [Printer(null)]).ShouldHaveSingleItem();
        (found.Where, found.Opens, found.Weight).ShouldBe(("Study", FindingRoom.Printers, 3));
        PaperLook.Over(toPrint: true, []).ShouldHaveSingleItem().Where.ShouldBe("No printer");
        PaperLook.Over(toPrint: false, [Printer(null)]).ShouldBeEmpty();
        PaperLook.Over(toPrint: true, [Printer(PrinterFault.None)]).ShouldBeEmpty();
    }

    /// <summary>Half a millimetre over the 150 mm of the test sheet is a third of a percent. Arithmetic.</summary>
    [Theory]
    [InlineData(0.97, false, 1)]
    [InlineData(0.97, true, 0)]
    [InlineData(0.9966, false, 1)]
    [InlineData(0.9967, false, 0)]
    [InlineData(1.0033, false, 0)]
    public void A_measured_printer_is_found_when_it_is_off_and_its_sheets_do_not_make_up_for_it(
        double scale,
        bool makesUp,
        int expected
    ) => PaperLook.Over(toPrint: true, [Printer(Scaled(scale), makesUp)]).Count.ShouldBe(expected);

    [Fact]
    public void A_printer_measured_anew_is_another_finding()
    {
        var key = PaperLook.Over(toPrint: true, [Printer(Scaled(0.97))]).Single().Key;
        PaperLook.Over(toPrint: true, [Printer(Scaled(0.95))]).Single().Key.ShouldNotBe(key);
    }
}
