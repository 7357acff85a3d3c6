using NetVips;

namespace ZestyPocket.Drawing.Photos;

/// <summary>How much happens in each row of a picture, for cutting tall ones where nothing does.</summary>
public static class RowBusyness
{
    /// <summary>Most rows that are measured; taller pictures are measured smaller.</summary>
    public const int MostRows = 4_000;

    /// <summary>
    /// The spread of light in each row from the top, 0 to 255: 0 in a row of one colour. At most
    /// <see cref="MostRows"/> rows.
    /// </summary>
    public static IReadOnlyList<double> Of(string readable)
    {
        try
        {
            using var small = Image.Thumbnail(readable, 600, height: MostRows, size: Enums.Size.Down);
            using var grey = small.Colourspace(Enums.Interpretation.Bw);
            using var flat = grey.HasAlpha() ? grey.Flatten(background: [255]) : grey.Copy();
            using var bytes = flat.ExtractBand(0).Cast(Enums.BandFormat.Uchar);
            var (wide, pixels) = (bytes.Width, bytes.WriteToMemory<byte>());
            return
            [
                .. Enumerable
                    .Range(0, bytes.Height)
                    .Select(row =>
                    {
                        var (low, high) = (255, 0);
                        foreach (var light in pixels.AsSpan(row * wide, wide))
                        {
                            low = Math.Min(low, light);
                            high = Math.Max(high, light);
                        }

                        return (double)(high - low);
                    }),
            ];
        }
        catch (VipsException broken)
        {
            throw new PictureRefusedException("The picture can no longer be read.", broken);
        }
    }
}
