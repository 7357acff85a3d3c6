using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>A card or paper cut out of a photo of several.</summary>
/// <param name="Width">Of its upper and lower side in the mean, in pixels of the photo.</param>
/// <param name="Height">Of its left and right side in the mean.</param>
/// <param name="Jpeg">Small, squared up.</param>
public sealed record CutOutCard(
    CardCorners Corners,
    double Width,
    double Height,
    byte[] Jpeg,
    ImmutableArray<PaletteColour> Colours
);

/// <summary>Squares up a card that was photographed at an angle, and finds where it lies.</summary>
public static class Squaring
{
    /// <summary>Longest side of the photo it is taken from, in pixels: a card fills a good part of it.</summary>
    public const int LongestSide = 5_000;

    /// <summary>Longest side of the photo in which cards are found, in pixels.</summary>
    public const int SmallSide = 900;

    /// <summary>
    /// The kept part of a card as a JPEG, out of the upright photo of <see cref="LongestSide"/> with its covers.
    /// </summary>
    public static byte[] Jpeg(byte[] upright, SquaredFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(face);
        using var photo =
            SKImage.FromEncodedData(upright)
            ?? throw new PictureRefusedException("The photo of the card can no longer be read.");
        var toPixels = pixelsPerInch / 72;
        var matrix = ToCard(face.Corners, photo.Width, photo.Height, face.Whole)
            .PostConcat(
                SKMatrix
                    .CreateTranslation(-(float)face.Kept.X.Points, -(float)face.Kept.Y.Points)
                    .PostConcat(SKMatrix.CreateScale((float)toPixels, (float)toPixels))
            );
        using var surface = SKSurface.Create(
            new SKImageInfo(
                Math.Max(1, (int)Math.Round(face.Cut.Width.Points * toPixels)),
                Math.Max(1, (int)Math.Round(face.Cut.Height.Points * toPixels))
            )
        );
        surface.Canvas.Clear(SKColors.White);
        surface.Canvas.SetMatrix(matrix);
        surface.Canvas.DrawImage(photo, 0, 0, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using var squared = surface.Snapshot();
        using var jpeg = squared.Encode(SKEncodedImageFormat.Jpeg, 92);
        return jpeg.ToArray();
    }

    /// <summary>Takes pixels of the photo to points of the card.</summary>
    private static SKMatrix ToCard(CardCorners corners, int width, int height, Size card)
    {
        var (w, h) = (card.Width.Points, card.Height.Points);
        var m = Homography
            .Of([.. corners.All.Select(c => (c.X * width, c.Y * height))], [(0, 0), (w, 0), (w, h), (0, h)])
            .M;
        return new SKMatrix(
            (float)m[0],
            (float)m[1],
            (float)m[2],
            (float)m[3],
            (float)m[4],
            (float)m[5],
            (float)m[6],
            (float)m[7],
            1
        );
    }

    /// <summary>
    /// Where a card lies in its photo when it stands out from what it lies on: what differs from the photo's rim, its
    /// outline as the largest quadrilateral of its hull, each side fitted to the points along it. The whole picture
    /// when nothing stands out. Taken from the upright photo of <see cref="SmallSide"/>.
    /// </summary>
    public static CardCorners Find(byte[] small)
    {
        using var bitmap = Decoded(small);
        return CardOutline.Find(bitmap.Width, bitmap.Height, ColoursOf(bitmap));
    }

    /// <summary>Each of several cards or papers that lie apart on one photo; empty when nothing stands out.</summary>
    public static IReadOnlyList<CutOutCard> FindAll(byte[] small)
    {
        using var bitmap = Decoded(small);
        return
        [
            .. CardOutline
                .FindAll(bitmap.Width, bitmap.Height, ColoursOf(bitmap))
                .Select(corners => CutOut(small, corners)),
        ];
    }

    /// <summary>One of them, small and squared up, as wide and high as its sides are long on the photo.</summary>
    public static CutOutCard CutOut(byte[] small, CardCorners corners)
    {
        ArgumentNullException.ThrowIfNull(corners);
        using var photo = Decoded(small);
        using var image = SKImage.FromBitmap(photo);
        var (width, height) = (
            (Side(corners.TopLeft, corners.TopRight) + Side(corners.BottomLeft, corners.BottomRight)) / 2,
            (Side(corners.TopLeft, corners.BottomLeft) + Side(corners.TopRight, corners.BottomRight)) / 2
        );
        var scale = CutOutSide / Math.Max(width, height);
        using var surface = SKSurface.Create(
            new SKImageInfo(
                Math.Max(1, (int)Math.Round(width * scale)),
                Math.Max(1, (int)Math.Round(height * scale)),
                SKColorType.Rgba8888
            )
        );
        var card = new Size(
            Length.FromPoints((decimal)Math.Round(width * scale, 3)),
            Length.FromPoints((decimal)Math.Round(height * scale, 3))
        );
        surface.Canvas.SetMatrix(ToCard(corners, photo.Width, photo.Height, card));
        surface.Canvas.DrawImage(image, 0, 0, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using var squared = surface.Snapshot();
        using var jpeg = squared.Encode(SKEncodedImageFormat.Jpeg, 85);
        using var pixels = SKBitmap.FromImage(squared);
        var rgb = pixels.Pixels.SelectMany(p => new[] { p.Red, p.Green, p.Blue }).ToArray();
        return new CutOutCard(corners, width, height, jpeg.ToArray(), PictureJudging.Colours(rgb).Palette);

        double Side(PicturePoint a, PicturePoint b) =>
            Math.Sqrt(Math.Pow((a.X - b.X) * photo.Width, 2) + Math.Pow((a.Y - b.Y) * photo.Height, 2));
    }

    private const int CutOutSide = 160;

    private static SKBitmap Decoded(byte[] small) =>
        SKBitmap.Decode(small) ?? throw new PictureRefusedException("The photo of the card can no longer be read.");

    private static Func<int, int, (byte R, byte G, byte B)> ColoursOf(SKBitmap bitmap)
    {
        var (wide, pixels) = (bitmap.Width, bitmap.Pixels);
        return (x, y) =>
        {
            var pixel = pixels[(y * wide) + x];
            return (pixel.Red, pixel.Green, pixel.Blue);
        };
    }
}
