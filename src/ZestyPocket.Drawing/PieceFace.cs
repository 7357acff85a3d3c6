using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Drawing;

/// <summary>A piece ready to be drawn at its cut size.</summary>
public abstract record PieceFace(Size Cut);

/// <summary>A photo print: which picture and which part of it.</summary>
/// <param name="Cut">Cut size.</param>
/// <param name="OriginalSha">Content hash of the original in the vault.</param>
/// <param name="Pixels">Pixels of the upright original.</param>
/// <param name="Crop">The kept part.</param>
public sealed record PhotoFace(Size Cut, string OriginalSha, PixelSize Pixels, Crop Crop) : PieceFace(Cut);

/// <summary>A set card.</summary>
public sealed record CardPieceFace(Size Cut, CardFace Card) : PieceFace(Cut);

/// <summary>Delivers the pixels of a crop as a JPEG file; the server keeps them in a cache.</summary>
public interface IPrintCrops
{
    /// <summary>The crop at up to <paramref name="pixelsPerInch"/>, upright, sRGB, without metadata.</summary>
    byte[] Jpeg(PhotoFace face, double pixelsPerInch);
}
