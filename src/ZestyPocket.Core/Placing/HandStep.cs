using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing;

/// <summary>What people do to a printed piece with their hands.</summary>
public enum HandStepKind
{
    Stamp,
    Write,
    Stitch,
    Staple,
    Emboss,
    StickOn,
    CutByHand,
    PunchHole,
}

/// <summary>A step by hand, and what exactly.</summary>
/// <param name="Words">Such as the stamp or the words; may be empty, at most 120 characters.</param>
public sealed record HandStep(HandStepKind Kind, string Words)
{
    /// <summary>The edge of the piece along which room is kept for it; null for none.</summary>
    public PieceEdge? RoomAt { get; init; }

    /// <summary>How deep that room is, 1/4 to 3 in.</summary>
    public Length Room { get; init; }

    /// <summary>
    /// What is left of a place when the steps have their room: the largest at each edge counts. Common practice.
    /// Null when too little is left.
    /// </summary>
    public static Rect? LeaveRoom(Rect whole, IEnumerable<HandStep> steps)
    {
        var (left, top, right, bottom) = (whole.X, whole.Y, whole.Right, whole.Bottom);
        foreach (var step in steps)
        {
            left = step.RoomAt == PieceEdge.Left ? Length.Max(left, whole.X + step.Room) : left;
            top = step.RoomAt == PieceEdge.Top ? Length.Max(top, whole.Y + step.Room) : top;
            right = step.RoomAt == PieceEdge.Right ? Length.Min(right, whole.Right - step.Room) : right;
            bottom = step.RoomAt == PieceEdge.Bottom ? Length.Min(bottom, whole.Bottom - step.Room) : bottom;
        }

        return right - left < Finish.LeastPicture || bottom - top < Finish.LeastPicture
            ? null
            : new Rect(left, top, right - left, bottom - top);
    }

    public const int LongestWords = 120;

    /// <summary>
    /// How many things it is about: as many as its words begin with, such as <c>4 paper suns</c> or
    /// <c>three dots</c>, at most 999; one where they begin with no number.
    /// </summary>
    public int Things
    {
        get
        {
            var first = Words.AsSpan().Trim();
            var end = first.IndexOfAny(" \t×x");
            first = end > 0 ? first[..end] : first;
            return NumberWords.Read(first) is { } many ? Math.Max(1, many) : 1;
        }
    }

    /// <summary>Most steps of a piece.</summary>
    public const int Most = 12;

    /// <summary>What it is called in a list.</summary>
    public string Says()
    {
        var verb = Kind switch
        {
            HandStepKind.Stamp => "Stamp",
            HandStepKind.Write => "Write by hand",
            HandStepKind.Stitch => "Stitch",
            HandStepKind.Staple => "Staple",
            HandStepKind.Emboss => "Emboss with heat",
            HandStepKind.StickOn => "Stick on",
            HandStepKind.CutByHand => "Cut by hand",
            _ => "Punch a hole",
        };
        return Words.Length == 0 ? verb : $"{verb}: {Words}";
    }

    /// <summary>
    /// The usual caution for its tool; null when it needs none. Common practice; the maker's instructions come first.
    /// </summary>
    public static string? Caution(HandStepKind kind) =>
        kind switch
        {
            HandStepKind.Stamp => "Test the stamp on scrap paper first. Solvent ink needs fresh air and no flame near.",
            HandStepKind.Stitch => "Keep fingers clear of the needle; a hand needle is put away at once.",
            HandStepKind.Staple => "Keep fingers clear of the stapler; no loose staples near small children.",
            HandStepKind.Emboss => "A heat tool and its surface are hot: nothing flammable near, and away from plastic "
                + "pockets.",
            HandStepKind.CutByHand =>
                "Cut away from yourself with a sharp blade along a safety rule, and cover the blade.",
            HandStepKind.PunchHole => "Keep fingers clear of the punch; small parts are not for small children.",
            _ => null,
        };

    public const string MakersFirst = "Follow the instructions of the tool’s maker first.";
}
