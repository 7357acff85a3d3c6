using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;

namespace ZestyPocket.Server.Shared;

/// <summary>Makes the faces of what goes with other pieces: labels, word strips, letters, sleeves.</summary>
public static class AttachedFaces
{
    /// <summary>As they lie on a page, each strip by itself.</summary>
    public static FinishedFace Of(WordStrips made, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(made);
        return new FinishedFace(
            made.Size,
            [
                .. made.Lay(shaper)
                    .Select(s => new FinishPart(s.Text, Outline.Of(s.Bounds), made.Paper, [On(made, s, shaper)])),
            ]
        );
    }

    /// <summary>As they are printed: all on one strip of paper, with the lines they are cut along.</summary>
    public static FinishedFace OnOneStrip(WordStrips made, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(made);
        var strips = made.LayTogether(shaper);
        var size = new Size(strips.Max(s => s.Bounds.Right), strips.Max(s => s.Bounds.Bottom));
        return new FinishedFace(
            size,
            [
                new FinishPart(
                    string.Empty,
                    Outline.Of(new Rect(Length.Zero, Length.Zero, size)),
                    made.Paper,
                    [.. strips.Select(s => On(made, s, shaper)), CutLines(strips.Select(s => s.Bounds), size, made)]
                ),
            ]
        );
    }

    /// <summary>The flat sheet of a sleeve, with short ticks where it is folded.</summary>
    public static FinishedFace Sleeve(PieceFace front)
    {
        ArgumentNullException.ThrowIfNull(front);
        var (flat, folds) = (SleeveSheet.Flat(front.Cut), SleeveSheet.Folds(front.Cut));
        var whole = new Rect(Length.Zero, Length.Zero, flat);
        var shown = new Rect(folds.Second, Length.Zero, front.Cut);
        return new FinishedFace(
            flat,
            [
                new FinishPart(
                    string.Empty,
                    Outline.Of(whole),
                    White,
                    [
                        new FaceOnPart(shown, front, Outline.Of(shown)),
                        new FaceOnPart(whole, Ticks(flat, [folds.First, folds.Second]), Outline.Of(whole)),
                    ]
                ),
            ]
        );
    }

    private static Rgb White { get; } = new(255, 255, 255);

    private static CardPieceFace Ticks(Size size, IEnumerable<Length> at)
    {
        var tick = Length.FromInches(1, 8);
        var rules = at.SelectMany(x =>
            new[]
            {
                Hair(x, Length.Zero, x, tick, PhotoWords.Dark),
                Hair(x, size.Height - tick, x, size.Height, PhotoWords.Dark),
            }
        );
        return new CardPieceFace(
            size,
            new CardFace(size.Width.Points, size.Height.Points, White, [], [.. rules], [], [], null)
        )
        {
            GroundShare = 0,
        };
    }

    private static FaceOnPart On(WordStrips made, WordStrip strip, ITextShaper shaper)
    {
        var size = strip.Bounds.Size;
        var (metrics, rim) = (shaper.Metrics(made.Face), made.SizePt / 3);
        var line = (metrics.Ascent + metrics.Descent) * made.SizePt;
        var runs = strip
            .Text.Split('\n')
            .Select(
                (text, i) =>
                    new TypeRun(
                        made.Face,
                        made.SizePt,
                        rim,
                        rim + (metrics.Ascent * made.SizePt) + (i * line),
                        text,
                        made.Ink
                    )
            );
        var face = new CardFace(size.Width.Points, size.Height.Points, made.Paper, [], [], [], [.. runs], null);
        return new FaceOnPart(
            strip.Bounds,
            new CardPieceFace(size, face) { GroundShare = 0 },
            Outline.Of(strip.Bounds)
        );
    }

    /// <summary>Hair lines around every strip, inside the paper.</summary>
    private static FaceOnPart CutLines(IEnumerable<Rect> strips, Size size, WordStrips made)
    {
        var rules = strips.SelectMany(b =>
            new[] { Hair(b.Right, b.Y, b.Right, b.Bottom, made.Ink), Hair(b.X, b.Bottom, b.Right, b.Bottom, made.Ink) }
        );
        var face = new CardFace(size.Width.Points, size.Height.Points, made.Paper, [], [.. rules], [], [], null);
        var whole = new Rect(Length.Zero, Length.Zero, size);
        return new FaceOnPart(whole, new CardPieceFace(size, face) { GroundShare = 0 }, Outline.Of(whole));
    }

    private static InkLine Hair(Length x1, Length y1, Length x2, Length y2, Rgb ink) =>
        new(x1.Points, y1.Points, x2.Points, y2.Points, 0.25, ink);
}
