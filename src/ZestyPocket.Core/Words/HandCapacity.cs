using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>
/// A keeper's own hand, measured on a sample: how many words go on an inch of line, and how far apart the lines are.
/// </summary>
/// <param name="WordsPerInch">0.5 to 8.</param>
/// <param name="LinePitch">4 to 20 mm.</param>
public sealed record HandCapacity(double WordsPerInch, Length LinePitch)
{
    /// <summary>2.2 words to the inch, 7 mm from line to line. Common practice, from memory.</summary>
    public static HandCapacity Usual { get; } = new(2.2, Length.FromMillimetres(7));

    /// <summary>The hand that wrote so many words on so many lines of a width.</summary>
    public static HandCapacity Measured(int words, int lines, Length lineWidth, Length pitch) =>
        words < 1 || lines < 1 || lineWidth <= Length.Zero
            ? throw new RuleException("A sample has at least one word and one line of some width. Nothing was changed.")
            : new HandCapacity(words / (lines * (double)lineWidth.Inches), pitch).Checked();

    public HandCapacity Checked() =>
        WordsPerInch is < 0.5 or > 8 or double.NaN
        || LinePitch < Length.FromMillimetres(4)
        || LinePitch > Length.FromMillimetres(20)
            ? throw new RuleException(
                "A hand writes half a word to 8 words on an inch, on lines 4 to 20 mm apart. Nothing was changed: "
                    + "measure it again."
            )
            : this;
}
