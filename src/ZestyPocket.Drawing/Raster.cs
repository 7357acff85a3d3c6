using SkiaSharp;

namespace ZestyPocket.Drawing;

/// <summary>Draws in points onto a picture of pixels.</summary>
public static class Raster
{
    /// <summary>A PNG of a drawing of the given size in points at a given resolution, on white or on nothing.</summary>
    public static byte[] Png(
        double widthPt,
        double heightPt,
        double pixelsPerInch,
        Action<SKCanvas> draw,
        bool clear = false
    ) => Encoded(widthPt, heightPt, pixelsPerInch, draw, clear, SKEncodedImageFormat.Png, 100);

    /// <summary>A JPEG of a drawing, without any data beside its pixels.</summary>
    /// <param name="quality">1 to 100.</param>
    public static byte[] Jpeg(
        double widthPt,
        double heightPt,
        double pixelsPerInch,
        int quality,
        Action<SKCanvas> draw
    ) => Encoded(widthPt, heightPt, pixelsPerInch, draw, clear: false, SKEncodedImageFormat.Jpeg, quality);

    private static byte[] Encoded(
        double widthPt,
        double heightPt,
        double pixelsPerInch,
        Action<SKCanvas> draw,
        bool clear,
        SKEncodedImageFormat format,
        int quality
    )
    {
        ArgumentNullException.ThrowIfNull(draw);
        var scale = pixelsPerInch / 72;
        var info = new SKImageInfo(
            Math.Max(1, (int)Math.Round(widthPt * scale)),
            Math.Max(1, (int)Math.Round(heightPt * scale)),
            SKColorType.Rgba8888,
            SKAlphaType.Premul,
            SKColorSpace.CreateSrgb()
        );
        using var surface = SKSurface.Create(info);
        surface.Canvas.Clear(clear ? SKColors.Transparent : SKColors.White);
        surface.Canvas.Scale((float)(info.Width / widthPt), (float)(info.Height / heightPt));
        draw(surface.Canvas);
        using var image = surface.Snapshot();
        using var data = image.Encode(format, quality);
        return data.ToArray();
    }
}
