using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.TuckingIn;

/// <summary>What is done next with a piece on the table.</summary>
public enum TuckStep
{
    /// <summary>It is to be printed, or printed again.</summary>
    Print,
    Cut,

    /// <summary>Another version of it lies in the pocket: that one comes out first.</summary>
    TakeOutFirst,
    TuckIn,
    Done,
}

/// <summary>How far a piece is from the printer to its pocket.</summary>
public static class PieceProgress
{
    /// <summary>What is done next.</summary>
    /// <param name="isPrinted">It is printed at all: a keepsake goes in as it is.</param>
    /// <param name="standing">How it stands to what was printed of it.</param>
    /// <param name="cut">It is ticked off as cut, since it was printed last.</param>
    /// <param name="tucked">It is ticked off as tucked in.</param>
    /// <param name="tuckedAsItIs">What was tucked in looks as it does now.</param>
    public static TuckStep NextOf(bool isPrinted, PrintStanding standing, bool cut, bool tucked, bool tuckedAsItIs)
    {
        if (tucked && tuckedAsItIs && standing != PrintStanding.Spoilt)
        {
            return TuckStep.Done;
        }

        if (isPrinted && standing != PrintStanding.Printed)
        {
            return TuckStep.Print;
        }

        return isPrinted && !cut ? TuckStep.Cut
            : tucked ? TuckStep.TakeOutFirst
            : TuckStep.TuckIn;
    }
}
