using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>
/// A run of type at its place: where it begins at the left and its baseline, in points from the card's top left corner.
/// Its text is in the order in which it is read; <paramref name="Levels"/> say which parts run the other way (UAX #9),
/// default when the text by itself says it.
/// </summary>
public readonly record struct TypeRun(
    Typeface Face,
    double SizePt,
    double X,
    double Baseline,
    string Text,
    Rgb Ink,
    ImmutableArray<byte> Levels = default
)
{
    /// <summary>Space added after every letter, in ems; for labels in capitals.</summary>
    public double Tracking { get; init; }

    /// <summary>A line as it was set.</summary>
    public static TypeRun Of(SetLine line, Typeface face, double sizePt, Rgb ink) =>
        new(face, sizePt, line.X, line.Baseline, line.Text, ink, line.Levels);
}

/// <summary>A filled box in points.</summary>
public readonly record struct InkBox(double X, double Y, double Width, double Height, Rgb Ink);

/// <summary>A hairline or rule in points.</summary>
public readonly record struct InkLine(double X1, double Y1, double X2, double Y2, double Thickness, Rgb Ink);

/// <summary>A filled circle or ring in points; a ring when <paramref name="Thickness"/> is above 0.</summary>
public readonly record struct InkDisc(double X, double Y, double Radius, double Thickness, Rgb Ink);

/// <summary>
/// A drawn shape: its outline as SVG path data (source: SVG 2, chapter 9), moved and scaled; filled, or a line when
/// <paramref name="Thickness"/> (in points) is above 0.
/// </summary>
public readonly record struct InkShape(string Path, double X, double Y, double Scale, Rgb Ink, double Thickness = 0)
{
    /// <summary>Ends and corners of a line are round.</summary>
    public bool RoundEnds { get; init; }
}

/// <summary>A border along the cut of a card, in points.</summary>
public readonly record struct CardBorder(double Thickness, Rgb Ink);

/// <summary>The place of a picture on a card, in points.</summary>
public readonly record struct CardOpening(double X, double Y, double Width, double Height);

/// <summary>The place of a small picture, by what it stands for: a day of a calendar, a person.</summary>
public readonly record struct SmallOpening(string Place, CardOpening At);

/// <summary>
/// A card ready to be drawn, everything in points from its top left corner. The painter adds nothing of its own, so
/// the screen, the sheet and the fit agree.
/// </summary>
public sealed record CardFace(
    double Width,
    double Height,
    Rgb Paper,
    ImmutableArray<InkBox> Boxes,
    ImmutableArray<InkLine> Rules,
    ImmutableArray<InkDisc> Discs,
    ImmutableArray<TypeRun> Runs,
    FitOutcome? Fit
)
{
    /// <summary>Ornaments and scenes, under everything else in their order.</summary>
    public ImmutableArray<InkShape> Shapes { get; init; } = [];

    /// <summary>Large numerals and marks that may run off the card; over the shapes and under the words.</summary>
    public ImmutableArray<TypeRun> Numerals { get; init; } = [];

    /// <summary>Where a picture lies on the card; null on a card without one.</summary>
    public CardOpening? Opening { get; init; }

    /// <summary>Where small pictures lie on the card.</summary>
    public ImmutableArray<SmallOpening> SmallOpenings { get; init; } = [];

    /// <summary>A border of even width inside the cut, which follows its corners; null on a card without one.</summary>
    public CardBorder? Border { get; init; }

    /// <summary>Radius of its rounded corners; 0 for square ones.</summary>
    public double Corner { get; init; }
}
