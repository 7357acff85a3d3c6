using NetVips;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>The pixels a crop is delivered in: never more than the picture has, never fewer than promised.</summary>
public static class PrintCrop
{
    static PrintCrop() => PhotoEngine.Start();

    /// <summary>
    /// Pixels across and down for a print: 300 (or <paramref name="pixelsPerInch"/>) to the inch when the crop has
    /// them, else what it has; rounded up, so that the print is never under the promise.
    /// </summary>
    public static PixelSize Target(Crop crop, Size print, double pixelsPerInch)
    {
        var ppi = Math.Min(pixelsPerInch, crop.PixelsPerInch(print));
        return new PixelSize(
            Math.Max(1, (int)Math.Ceiling(((double)print.Width.Inches * ppi) - 1e-6)),
            Math.Max(1, (int)Math.Ceiling(((double)print.Height.Inches * ppi) - 1e-6))
        );
    }

    /// <summary>
    /// Cuts the crop out of the original, upright, in sRGB, without any metadata, as a JPEG of quality 92 without
    /// chroma subsampling. What lies outside the crop or under a cover is not in the result.
    /// </summary>
    public static byte[] Jpeg(
        string originalPath,
        PixelSize upright,
        Crop crop,
        PixelSize target,
        IReadOnlyList<PictureBox>? covers = null
    )
    {
        // Shrinking while the JPEG is decoded is far cheaper than afterwards; never below the target.
        var spare = Math.Min(crop.Width / target.Width, crop.Height / target.Height);
        var shrink = spare switch
        {
            >= 8 => 8,
            >= 4 => 4,
            >= 2 => 2,
            _ => 1,
        };
        using var loaded = Load(originalPath, shrink);
        using var turned = loaded.Autorot();
        var (scaleX, scaleY) = ((double)turned.Width / upright.Width, (double)turned.Height / upright.Height);

        var left = Math.Clamp((int)Math.Round(crop.Left * scaleX), 0, turned.Width - 1);
        var top = Math.Clamp((int)Math.Round(crop.Top * scaleY), 0, turned.Height - 1);
        var width = Math.Clamp((int)Math.Round(crop.Width * scaleX), 1, turned.Width - left);
        var height = Math.Clamp((int)Math.Round(crop.Height * scaleY), 1, turned.Height - top);

        using var cut = turned.Crop(left, top, width, height);
        using var flat = ScreenColour.Of(cut);
        using var covered = Covers.OverPart(flat, covers ?? [], left, top, turned.Width, turned.Height);
        using var sized = covered.ThumbnailImage(target.Width, height: target.Height, size: Enums.Size.Force);
        return sized.JpegsaveBuffer(q: 92, keep: Enums.ForeignKeep.None, subsampleMode: Enums.ForeignSubsample.Off);
    }

    private static Image Load(string path, int shrink)
    {
        Span<byte> head = stackalloc byte[2];
        using (var file = File.OpenRead(path))
        {
            file.ReadAtLeast(head, 2, throwOnEndOfStream: false);
        }

        return head[0] == 0xFF && head[1] == 0xD8
            ? Image.Jpegload(path, shrink: shrink, failOn: Enums.FailOn.Error)
            : Image.NewFromFile(path, failOn: Enums.FailOn.Error);
    }
}
