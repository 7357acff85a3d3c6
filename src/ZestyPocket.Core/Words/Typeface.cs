using System.Collections.Immutable;

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

    /// <summary>A book face with old-style figures.</summary>
    BookSerif,

    /// <summary>The small capitals of the book face.</summary>
    BookSmallCapitals,

    /// <summary>The italic of the book face.</summary>
    BookItalic,

    /// <summary>A light old-style face for titles.</summary>
    OldStyle,

    /// <summary>Its italic.</summary>
    OldStyleItalic,

    /// <summary>A heavy face for posters.</summary>
    Poster,

    /// <summary>A narrow face for labels.</summary>
    Condensed,

    /// <summary>A plain face that goes with the narrow one.</summary>
    Grotesque,

    /// <summary>A round, friendly face.</summary>
    Rounded,

    /// <summary>All letters of one width.</summary>
    Mono,

    /// <summary>The same, bold.</summary>
    MonoStrong,
}

/// <summary>Ascent and descent of a face in ems (both positive).</summary>
public readonly record struct FaceMetrics(double Ascent, double Descent);

/// <summary>
/// Shaped advances of a text: <c>Ends[i]</c> is the distance from the start of the text to the end of UTF-16 unit
/// i − 1, in ems, so that the width of any stretch is one subtraction. Has one entry more than the text has units.
/// </summary>
/// <param name="Text">The text, in the order in which it is read.</param>
/// <param name="Ends">Distances in that order.</param>
public sealed record ShapedText(string Text, IReadOnlyList<double> Ends)
{
    /// <summary>
    /// How deep each unit lies in runs of the other direction: even is left to right. Default when all of it runs left
    /// to right. Source: UAX #9, embedding levels.
    /// </summary>
    public ImmutableArray<byte> Levels { get; init; }

    /// <summary>The paragraph begins at the right: its first strong letter is of a script that does.</summary>
    public bool RightToLeft { get; init; }

    /// <summary>
    /// Width in ems of the units from <paramref name="start"/> up to, not including, <paramref name="end"/>.
    /// </summary>
    public double Width(int start, int end) => Ends[end] - Ends[start];
}

/// <summary>Gives the real advances of a face, kerning included, so that fitting and drawing agree.</summary>
public interface ITextShaper
{
    FaceMetrics Metrics(Typeface face);

    /// <summary>Shapes one paragraph (no line ends inside).</summary>
    ShapedText Shape(Typeface face, string paragraph);
}
