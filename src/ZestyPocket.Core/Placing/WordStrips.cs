using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>What words are cut into.</summary>
public enum StripForm
{
    /// <summary>One label with all lines.</summary>
    Label,

    /// <summary>A strip for each line, as wide as its words.</summary>
    Strips,

    /// <summary>A tile for each letter, as wide as the letter.</summary>
    Letters,
}

/// <summary>A strip, a tile or a label with its text.</summary>
/// <param name="Bounds">Inside the piece.</param>
public sealed record WordStrip(string Text, Rect Bounds);

/// <summary>
/// Words as a piece: a label, strips of words or large letters, stuck on another piece or put into a pocket. Its size
/// follows from the words.
/// </summary>
/// <param name="Words">A line for each strip.</param>
/// <param name="SizePt">Size of type, 7 to 200 pt.</param>
/// <param name="Paper">Colour of the backing; the ink is the one that reads better on it.</param>
/// <param name="Width">Of the whole, measured from the words when they were written.</param>
/// <param name="Height">Of the whole.</param>
public sealed record WordStrips(
    Guid Id,
    string Words,
    StripForm Form,
    Typeface Face,
    double SizePt,
    Rgb Paper,
    Length Width,
    Length Height
) : Piece(Id)
{
    public const int MostLines = 12;

    public const int LongestWords = 240;

    public const double LargestPt = 200;

    public Size Size => new(Width, Height);

    /// <summary>The ink that reads better on the backing. Source: WCAG 2.2, contrast ratio.</summary>
    public Rgb Ink =>
        Rgb.Contrast(PhotoWords.Dark, Paper) >= Rgb.Contrast(PhotoWords.White, Paper)
            ? PhotoWords.Dark
            : PhotoWords.White;

    /// <summary>Measures the words. Throws <see cref="RuleException"/> when they cannot be made into strips.</summary>
    public static WordStrips Make(
        Guid id,
        string words,
        StripForm form,
        Typeface face,
        double sizePt,
        Rgb paper,
        ITextShaper shaper
    )
    {
        var clean = PlainWords.Clean(words).Trim('\n', ' ');
        var lines = clean.Split('\n');
        if (clean.Length is 0 or > LongestWords || lines.Length > MostLines)
        {
            throw new RuleException(
                $"A label has 1 to {LongestWords} characters on at most {MostLines} lines. Nothing was changed."
            );
        }

        if (sizePt is < TypeRange.SmallestEverPt or > LargestPt or double.NaN)
        {
            throw new RuleException("The type of a label is 7 to 200 pt. Nothing was changed.");
        }

        var made = new WordStrips(id, clean, form, face, sizePt, paper, Length.Zero, Length.Zero);
        var strips = made.Lay(shaper);
        var most = Length.FromInches(24);
        var (width, height) = (strips.Max(s => s.Bounds.Right), strips.Max(s => s.Bounds.Bottom));
        return width > most || height > most
            ? throw new RuleException(
                "These words would be over 24 in: take smaller type or more lines. Nothing was changed."
            )
            : made with
            {
                Width = width,
                Height = height,
            };
    }

    /// <summary>The same strips, not apart: as they are printed on one strip of paper.</summary>
    public ImmutableArray<WordStrip> LayTogether(ITextShaper shaper) => Lay(shaper, Length.Zero);

    /// <summary>
    /// Where the strips lie. Each is as wide as its words and as high as its face, with a rim of a third of the size
    /// all around.
    /// </summary>
    public ImmutableArray<WordStrip> Lay(ITextShaper shaper) => Lay(shaper, Pt(SizePt / 4));

    private ImmutableArray<WordStrip> Lay(ITextShaper shaper, Length gap)
    {
        ArgumentNullException.ThrowIfNull(shaper);
        var metrics = shaper.Metrics(Face);
        var (rim, line) = (Pt(SizePt / 3), (metrics.Ascent + metrics.Descent) * SizePt);
        var strips = ImmutableArray.CreateBuilder<WordStrip>();
        var y = Length.Zero;
        var lines = Words.Split('\n');
        if (Form == StripForm.Label)
        {
            var width = Pt(lines.Max(l => WidthOf(l, shaper))) + (2 * rim);
            return [new WordStrip(Words, new Rect(y, y, width, Pt(line * lines.Length) + (2 * rim)))];
        }

        foreach (var text in lines.Where(l => !string.IsNullOrWhiteSpace(l)))
        {
            var height = Pt(line) + (2 * rim);
            var x = Length.Zero;
            foreach (var part in Form == StripForm.Letters ? LettersOf(text) : [text.Trim()])
            {
                if (string.IsNullOrWhiteSpace(part))
                {
                    // A space between words of letters stays free.
                    x += Pt(SizePt / 3);
                    continue;
                }

                var width = Pt(WidthOf(part, shaper)) + (2 * rim);
                strips.Add(new WordStrip(part, new Rect(x, y, width, height)));
                x += width + gap;
            }

            y += height + gap;
        }

        return strips.ToImmutable();
    }

    private double WidthOf(string text, ITextShaper shaper) => shaper.Shape(Face, text).Ends[^1] * SizePt;

    /// <summary>What people take for letters, accents with them. Source: Unicode UAX #29.</summary>
    private static IEnumerable<string> LettersOf(string text)
    {
        var letters = StringInfo.GetTextElementEnumerator(text.Trim());
        while (letters.MoveNext())
        {
            yield return letters.GetTextElement();
        }
    }

    private static Length Pt(double points) => Length.FromPoints((decimal)Math.Round(points, 3));
}
