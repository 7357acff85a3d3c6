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
        IReadOnlyList<PictureBox>? covers = null,
        FaceTones? tones = null
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

        // A part that is turned is cut out of the upright part around it.
        var around = Around(crop);
        var left = Math.Clamp((int)Math.Round(around.Left * scaleX), 0, turned.Width - 1);
        var top = Math.Clamp((int)Math.Round(around.Top * scaleY), 0, turned.Height - 1);
        var width = Math.Clamp((int)Math.Round(around.Width * scaleX), 1, turned.Width - left);
        var height = Math.Clamp((int)Math.Round(around.Height * scaleY), 1, turned.Height - top);

        using var cut = turned.Crop(left, top, width, height);
        using var flat = ScreenColour.Of(cut);
        using var covered = Covers.OverPart(flat, covers ?? [], left, top, turned.Width, turned.Height);
        using var level = Straightened(covered, crop, scaleX, scaleY);
        using var sized = level.ThumbnailImage(target.Width, height: target.Height, size: Enums.Size.Force);
        using var toned = Toned(sized, tones);
        return toned.JpegsaveBuffer(q: 92, keep: Enums.ForeignKeep.None, subsampleMode: Enums.ForeignSubsample.Off);
    }

    /// <summary>The upright part of the picture that a turned one needs.</summary>
    private static Crop Around(Crop crop)
    {
        var (sine, cosine) = Math.SinCos(Math.Abs(crop.Degrees) * Math.PI / 180);
        var (width, height) = (
            (crop.Width * cosine) + (crop.Height * sine),
            (crop.Width * sine) + (crop.Height * cosine)
        );
        return new Crop(crop.Left - ((width - crop.Width) / 2), crop.Top - ((height - crop.Height) / 2), width, height);
    }

    private static Image Straightened(Image around, Crop crop, double scaleX, double scaleY)
    {
        if (crop.Degrees == 0)
        {
            return around.Copy();
        }

        using var turned = around.Rotate(crop.Degrees);
        var (width, height) = (
            Math.Clamp((int)Math.Round(crop.Width * scaleX), 1, turned.Width),
            Math.Clamp((int)Math.Round(crop.Height * scaleY), 1, turned.Height)
        );
        return turned.Crop((turned.Width - width) / 2, (turned.Height - height) / 2, width, height);
    }

    private static Image Toned(Image picture, FaceTones? tones)
    {
        if (tones is null)
        {
            return picture.Copy();
        }

        using var lab = picture.Colourspace(Enums.Interpretation.Lab);
        using var light = (lab[0] / 100).Linear([1.0], [0.0]).Math2Const(Enums.OperationMath2.Pow, [tones.Gamma]) * 100;
        using var toned = tones.BlackAndWhite
            ? light.Copy(interpretation: Enums.Interpretation.Lab).Bandjoin([0.0, 0.0])
            : light.Bandjoin(lab[1], lab[2]);
        using var marked = toned.Copy(interpretation: Enums.Interpretation.Lab);
        return marked.Colourspace(Enums.Interpretation.Srgb);
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
