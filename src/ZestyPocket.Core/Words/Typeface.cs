namespace ZestyPocket.Core.Words;

/// <summary>The faces that ship with the program, by what they are for.</summary>
public enum Typeface
{
    Sans,
    SansStrong,
    Serif,
    Typewriter,
    Handwriting,
    Display,
}

/// <summary>Ascent and descent of a face in ems (both positive).</summary>
public readonly record struct FaceMetrics(double Ascent, double Descent);

/// <summary>
/// Shaped advances of a text: <c>Ends[i]</c> is the distance from the start of the text to the end of UTF-16 unit
/// i − 1, in ems, so that the width of any stretch is one subtraction. Has one entry more than the text has units.
/// </summary>
public sealed record ShapedText(string Text, IReadOnlyList<double> Ends)
{
    /// <summary>Width in ems of the units from <paramref name="start"/> up to, not including, <paramref name="end"/>.</summary>
    public double Width(int start, int end) => Ends[end] - Ends[start];
}

/// <summary>Gives the real advances of a face, kerning included, so that fitting and drawing agree.</summary>
public interface ITextShaper
{
    FaceMetrics Metrics(Typeface face);

    /// <summary>Shapes one paragraph (no line ends inside).</summary>
    ShapedText Shape(Typeface face, string paragraph);
}
