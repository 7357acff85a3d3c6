using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>Makes the face of a composition: its ground, then each shape with its mat and what it holds.</summary>
public sealed class CompositionFaces(FontShelf fonts)
{
    /// <summary>Largest type in a shape.</summary>
    private const double LargestPt = 36;

    public FinishedFace Of(OpenUnit open, Composition made, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(made);
        var whole = Outline.Of(new Rect(Length.Zero, Length.Zero, cut));
        var on = new List<FaceOnPart>();
        if (made.GroundStyleKey is { } pattern)
        {
            on.Add(Pattern(open, pattern, whole));
        }

        if (made.GroundPhotoId is { } ground && Picture(open, ground, Framing.Middle, whole) is { } picture)
        {
            on.Add(picture);
        }

        foreach (var shape in made.Shapes)
        {
            on.AddRange(Shape(open, shape, shape.On(cut)));
        }

        return new FinishedFace(cut, [new FinishPart(string.Empty, whole, made.Ground, [.. on])]);
    }

    /// <summary>How the words of a shape come out; null when it holds none.</summary>
    public FitOutcome? FitOf(OpenUnit open, CompositionShape shape, Size cut)
    {
        ArgumentNullException.ThrowIfNull(shape);
        return string.IsNullOrWhiteSpace(shape.Words)
            ? null
            : ShapeWords.Fit(shape.Words, shape.On(cut), Composition.WordsInset, TypeOf(StyleOf(open)), fonts);
    }

    private IEnumerable<FaceOnPart> Shape(OpenUnit open, CompositionShape shape, Outline outline)
    {
        if (shape.Mat is { } mat)
        {
            var around = outline.Inset(Length.Zero - mat.Reveal);
            yield return Plain(mat.Colour, around);
        }

        yield return shape.StyleKey is { } pattern ? Pattern(open, pattern, outline) : Plain(shape.Colour, outline);
        if (shape.PhotoId is { } id && Picture(open, id, shape.Framing, outline) is { } picture)
        {
            yield return picture;
        }

        if (!string.IsNullOrWhiteSpace(shape.Words))
        {
            yield return Words(open, shape, outline);
        }
    }

    private FaceOnPart Words(OpenUnit open, CompositionShape shape, Outline outline)
    {
        var style = StyleOf(open);
        var fit = ShapeWords.Fit(shape.Words, outline, Composition.WordsInset, TypeOf(style), fonts);
        var (paper, ink) = (shape.Colour, style.Ink);
        // Dark words on a dark shape become light ones.
        if (Rgb.Contrast(ink, paper) < PhotoWords.ReadableContrast)
        {
            ink =
                Rgb.Contrast(PhotoWords.White, paper) > Rgb.Contrast(PhotoWords.Dark, paper)
                    ? PhotoWords.White
                    : PhotoWords.Dark;
        }

        var face = Empty(outline, paper) with
        {
            Runs =
            [
                .. fit.Lines.Where(l => l.Text.Length > 0).Select(l => TypeRun.Of(l, style.Type.Face, fit.SizePt, ink)),
            ],
            Fit = fit,
        };
        return new FaceOnPart(
            outline.Bounds,
            new CardPieceFace(outline.Bounds.Size, face) { GroundShare = 0 },
            outline
        );
    }

    private static CardStyle StyleOf(OpenUnit open)
    {
        var own = open.Words.NewStyle(CardKind.Journaling).WithoutPicture();
        return open.Content.Tint?.On(own) ?? own;
    }

    private static TypeRange TypeOf(CardStyle style) =>
        style.Type with
        {
            LargestPt = Math.Min(LargestPt, style.Type.LargestPt),
        };

    private static CardFace Empty(Outline outline, Rgb paper) =>
        new(outline.Bounds.Width.Points, outline.Bounds.Height.Points, paper, [], [], [], [], null);

    private static FaceOnPart Plain(Rgb colour, Outline outline) =>
        new(outline.Bounds, new CardPieceFace(outline.Bounds.Size, Empty(outline, colour)), outline);

    private static FaceOnPart? Picture(OpenUnit open, Guid photoId, Framing framing, Outline outline) =>
        open.PhotoOf(photoId) is { } photo
            ? new FaceOnPart(
                outline.Bounds,
                new PhotoFace(
                    outline.Bounds.Size,
                    PhotoView.RefOf(photo),
                    photo.Pixels,
                    Crop.For(photo.Pixels, outline.Bounds.Size, framing)
                ),
                outline
            )
            : null;

    private static FaceOnPart Pattern(OpenUnit open, string styleKey, Outline outline) =>
        PieceFaces.Pattern(open, styleKey, outline.Bounds, outline);
}
