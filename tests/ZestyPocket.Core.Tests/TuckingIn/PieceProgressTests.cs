using ZestyPocket.Core.Printing;
using ZestyPocket.Core.TuckingIn;

namespace ZestyPocket.Core.Tests.TuckingIn;

/// <summary>From the printer to the pocket, step by step.</summary>
public sealed class PieceProgressTests
{
    [Fact]
    public void A_print_is_printed_cut_and_tucked_in()
    {
        Next(PrintStanding.NeverPrinted).ShouldBe(TuckStep.Print);
        Next(PrintStanding.Printed).ShouldBe(TuckStep.Cut);
        Next(PrintStanding.Printed, cut: true).ShouldBe(TuckStep.TuckIn);
        Next(PrintStanding.Printed, cut: true, tucked: true, same: true).ShouldBe(TuckStep.Done);
    }

    [Fact]
    public void A_piece_that_changed_is_printed_again_and_the_old_one_comes_out_first()
    {
        Next(PrintStanding.Changed, cut: true, tucked: true).ShouldBe(TuckStep.Print);
        Next(PrintStanding.Printed, tucked: true).ShouldBe(TuckStep.Cut);
        Next(PrintStanding.Printed, cut: true, tucked: true).ShouldBe(TuckStep.TakeOutFirst);
    }

    [Fact]
    public void What_was_tucked_in_and_is_as_it_was_again_is_done_whatever_was_printed_since() =>
        Next(PrintStanding.Changed, tucked: true, same: true).ShouldBe(TuckStep.Done);

    [Fact]
    public void A_keepsake_goes_in_as_it_is()
    {
        PieceProgress.NextOf(false, PrintStanding.Printed, false, false, true).ShouldBe(TuckStep.TuckIn);
        PieceProgress.NextOf(false, PrintStanding.Printed, false, true, true).ShouldBe(TuckStep.Done);
    }

    private static TuckStep Next(PrintStanding standing, bool cut = false, bool tucked = false, bool same = false) =>
        PieceProgress.NextOf(true, standing, cut, tucked, same);
}
