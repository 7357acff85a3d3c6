using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Drawing;

/// <summary>A piece ready to be drawn at its cut size.</summary>
public abstract record PieceFace(Size Cut);

/// <summary>A photo print: which picture and which part of it.</summary>
/// <param name="Cut">Cut size.</param>
/// <param name="Original">The picture in the vault, with what covers it.</param>
/// <param name="Pixels">Pixels of the upright original.</param>
/// <param name="Crop">The kept part.</param>
public sealed record PhotoFace(Size Cut, PictureRef Original, PixelSize Pixels, Crop Crop) : PieceFace(Cut)
{
    /// <summary>How its tones differ from the original's; null when they do not.</summary>
    public FaceTones? Tones { get; init; }

    /// <summary>Labels under words on the print, in points.</summary>
    public ImmutableArray<InkBox> Boxes { get; init; } = [];

    /// <summary>Discs and rings under the words, such as that of a number.</summary>
    public ImmutableArray<InkDisc> Discs { get; init; } = [];

    /// <summary>Words on the print.</summary>
    public ImmutableArray<TypeRun> Runs { get; init; } = [];
}

/// <summary>Tones of a print.</summary>
/// <param name="BlackAndWhite">Only its lightness is kept.</param>
/// <param name="Gamma">L*, as a share of 100, is raised to this: under 1 lighter, over 1 darker.</param>
public sealed record FaceTones(bool BlackAndWhite, double Gamma);

/// <summary>A set card.</summary>
public sealed record CardPieceFace(Size Cut, CardFace Card) : PieceFace(Cut)
{
    /// <summary>
    /// How much of its ground is painted, 0 to 1: less on film and vellum, none on paper that has a ground of its own.
    /// </summary>
    public double GroundShare { get; init; } = 1;

    /// <summary>The picture in the card's opening; null when it has none.</summary>
    public PhotoFace? Picture { get; init; }

    /// <summary>Small pictures at their places on the card.</summary>
    public ImmutableArray<PictureOnCard> SmallPictures { get; init; } = [];
}

/// <summary>A small picture at its place on a card.</summary>
public sealed record PictureOnCard(CardOpening At, PhotoFace Picture);

/// <summary>Something that lies on a part of a finished piece, clipped to an outline.</summary>
public sealed record FaceOnPart(Rect Bounds, PieceFace Face, Outline Clip);

/// <summary>A part of a finished piece that is cut by itself: a mat, or the print on top.</summary>
/// <param name="Name">What it is called on a sheet; empty for the print itself.</param>
/// <param name="Outline">Where it is cut.</param>
/// <param name="Ground">Its colour where nothing lies on it.</param>
/// <param name="IsMat">It is cut from card, whatever the print is on.</param>
public sealed record FinishPart(
    string Name,
    Outline Outline,
    Rgb Ground,
    ImmutableArray<FaceOnPart> On,
    bool IsMat = false
);

/// <summary>A piece with its finish: parts one over the other, the outermost first.</summary>
public sealed record FinishedFace(Size Cut, ImmutableArray<FinishPart> Parts) : PieceFace(Cut)
{
    /// <summary>One part by itself, as it is printed and cut: its bounding box is its size.</summary>
    public FinishedFace Part(int index)
    {
        var part = Parts[index];
        var (x, y) = (-part.Outline.Bounds.X, -part.Outline.Bounds.Y);
        return new FinishedFace(
            part.Outline.Bounds.Size,
            [
                part with
                {
                    Outline = part.Outline.Moved(x, y),
                    On = [.. part.On.Select(o => o with { Bounds = o.Bounds.Moved(x, y), Clip = o.Clip.Moved(x, y) })],
                },
            ]
        );
    }
}

/// <summary>A bought card in its photo, squared up and trimmed: shown on the screen, never printed.</summary>
/// <param name="Original">The photo of it.</param>
/// <param name="Corners">Where it lies in the photo.</param>
/// <param name="Whole">The card as measured.</param>
/// <param name="Kept">The part of it that is kept, as large as <paramref name="Cut"/>.</param>
public sealed record SquaredFace(Size Cut, PictureRef Original, CardCorners Corners, Size Whole, Rect Kept)
    : PieceFace(Cut);

/// <summary>Several faces in one print, on a ground.</summary>
public sealed record CollageFace(Size Cut, ImmutableArray<(Rect Bounds, PieceFace Face)> Cells, Rgb Ground)
    : PieceFace(Cut);

/// <summary>A picture in the vault as it may be shown and printed.</summary>
/// <param name="Sha256">Content hash of the original.</param>
/// <param name="Page">The page of a PDF, from 1; 1 for everything else.</param>
/// <param name="Covers">Opaque boxes that are burned in wherever the picture leaves the program.</param>
public sealed record PictureRef(ContentHash Sha256, int Page, ImmutableArray<PictureBox> Covers)
{
    public PictureRef(ContentHash sha256)
        : this(sha256, 1, []) { }
}

/// <summary>Delivers the pixels of a crop as a JPEG file; the server keeps them in a cache.</summary>
public interface IPrintCrops
{
    /// <summary>The crop at up to <paramref name="pixelsPerInch"/>, upright, sRGB, without metadata.</summary>
    byte[] Jpeg(PhotoFace face, double pixelsPerInch);

    /// <summary>The kept part of a bought card, squared up, at <paramref name="pixelsPerInch"/>.</summary>
    byte[] Squared(SquaredFace face, double pixelsPerInch) =>
        throw new NotSupportedException("These pictures have no bought cards among them.");
}
