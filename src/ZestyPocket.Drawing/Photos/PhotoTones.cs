using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Drawing.Photos;

/// <summary>Measures how light and how busy a print is, cell by cell.</summary>
public static class PhotoTones
{
    /// <summary>The resolution prints are measured at: fine enough for what disturbs letters.</summary>
    public const double PixelsPerInch = 96;

    /// <summary>A cell is a twenty-fourth of an inch.</summary>
    private const int CellPixels = 4;

    public static ToneMap Of(IPrintCrops crops, PhotoFace face)
    {
        ArgumentNullException.ThrowIfNull(crops);
        ArgumentNullException.ThrowIfNull(face);
        return Of(crops.Jpeg(face, PixelsPerInch));
    }

    /// <summary>Measures a picture of at least one pixel.</summary>
    public static ToneMap Of(byte[] jpeg)
    {
        using var bitmap = SKBitmap.Decode(jpeg) ?? throw new InvalidDataException("The print could not be read.");
        var (columns, rows) = (Math.Max(1, bitmap.Width / CellPixels), Math.Max(1, bitmap.Height / CellPixels));
        var luminance = ImmutableArray.CreateBuilder<double>(columns * rows);
        var detail = ImmutableArray.CreateBuilder<double>(columns * rows);
        var pixels = bitmap.Pixels;
        for (var row = 0; row < rows; row++)
        {
            for (var column = 0; column < columns; column++)
            {
                var (left, right) = (
                    column * bitmap.Width / columns,
                    Math.Max((column + 1) * bitmap.Width / columns, (column * bitmap.Width / columns) + 1)
                );
                var (top, bottom) = (
                    row * bitmap.Height / rows,
                    Math.Max((row + 1) * bitmap.Height / rows, (row * bitmap.Height / rows) + 1)
                );
                double sum = 0,
                    lights = 0,
                    squares = 0;
                for (var y = top; y < bottom; y++)
                {
                    for (var x = left; x < right; x++)
                    {
                        var pixel = pixels[(y * bitmap.Width) + x];
                        var own = new Rgb(pixel.Red, pixel.Green, pixel.Blue).Luminance;
                        // The root is near to how light it looks.
                        var light = Math.Sqrt(own);
                        sum += own;
                        lights += light;
                        squares += light * light;
                    }
                }

                var count = (right - left) * (bottom - top);
                luminance.Add(sum / count);
                detail.Add(Math.Sqrt(Math.Max(0, (squares / count) - (lights / count * (lights / count)))));
            }
        }

        return new ToneMap(columns, rows, luminance.ToImmutable(), detail.ToImmutable());
    }
}
