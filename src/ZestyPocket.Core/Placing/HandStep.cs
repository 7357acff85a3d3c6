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
    public const int LongestWords = 120;

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
