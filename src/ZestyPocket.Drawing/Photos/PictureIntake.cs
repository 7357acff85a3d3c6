using NetVips;
using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>Why a file cannot be a picture of the album; the message is for the keeper.</summary>
public class PictureRefusedException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>What a file says of itself. The recorded time is the camera's own local time, uncorrected.</summary>
public sealed record PictureFacts(
    PictureFormat Format,
    PixelSize Pixels,
    LocalDateTime? Recorded,
    int? OffsetMinutes,
    string? Camera,
    double? Latitude,
    double? Longitude,
    int Pages = 1
);

/// <summary>
/// Looks at a file before it becomes a picture: size and header first, pixels last, so that a hostile file is refused
/// before it can cost anything. Metadata never blocks an import.
/// </summary>
public static class PictureIntake
{
    /// <summary>Largest file in bytes.</summary>
    public const long LargestFile = 120L * 1024 * 1024;

    /// <summary>Largest picture in pixels; a 100-megapixel camera fits twice over.</summary>
    public const long MostPixels = 250_000_000;

    /// <summary>
    /// Most memory of a picture that is stored in passes, interlaced or progressive: it is held whole while it is
    /// decoded, where others go through line by line. 50 million pixels of a JPEG, 100 million of a PNG.
    /// </summary>
    public const long MostBytesInPasses = 300_000_000;

    /// <summary>Longest side of the thumbnail made on import, in pixels.</summary>
    public const int ThumbnailSide = 512;

    /// <summary>Longest side of the picture that is judged, in pixels.</summary>
    public const int JudgedSide = 800;

    internal const string TooMuchMemory =
        "The file could not be read: it needs more memory than a picture may take, or it is damaged. Save it again as "
        + "a JPEG and add that.";

    static PictureIntake() => PhotoEngine.Start();

    /// <summary>
    /// The kind of a stored file. Throws <see cref="PictureRefusedException"/> with the reason when it is none that can
    /// become a picture: empty, too large, a film, a camera's raw file, or no picture at all.
    /// </summary>
    public static PictureFormat Accept(string path, string fileName = "")
    {
        var length = new FileInfo(path).Length;
        if (length == 0)
        {
            throw new PictureRefusedException("The file is empty (0 bytes). Copy it again from where it came.");
        }

        if (length > LargestFile)
        {
            throw new PictureRefusedException(
                $"The file has {length / 1048576:N0} MB; a picture may have {LargestFile / 1048576:N0} MB at most."
            );
        }

        var format = PictureFormats.Of(path, fileName);
        if (format == PictureFormat.Png)
        {
            PngNotes.Bound(path);
        }

        return format;
    }

    /// <summary>
    /// Reads the facts of a file. <paramref name="original"/> is as it came; <paramref name="readable"/> is the same
    /// path, or the working copy of a kind that the picture library does not decode itself.
    /// </summary>
    public static PictureFacts Inspect(string original, PictureFormat format, string readable, int pages = 1)
    {
        var pixels = HeaderSize(readable);
        var said = format == PictureFormat.Pdf ? PictureMetadata.None : PictureMetadata.Read(original, format);
        return new PictureFacts(
            format,
            pixels,
            said.Recorded,
            said.OffsetMinutes,
            said.Camera,
            said.Latitude,
            said.Longitude,
            pages
        );
    }

    /// <summary>Facts of a file that needs no working copy.</summary>
    public static PictureFacts Inspect(string path) => Inspect(path, Accept(path), path);

    /// <summary>
    /// Decodes the picture once, small: the thumbnail comes out of it and everything that is measured. A file that
    /// breaks off is found here.
    /// </summary>
    public static (byte[] Thumbnail, PictureJudgement Judgement) Judge(string readable)
    {
        try
        {
            // Colour is managed on the small picture: asking the thumbnailer for a profile costs four times as much.
            using var small = Image.Thumbnail(
                readable,
                JudgedSide,
                height: JudgedSide,
                size: Enums.Size.Down,
                failOn: Enums.FailOn.Error
            );
            using var flat = ScreenColour.Of(small);
            using var picture = flat.CopyMemory();
            using var thumbnail = picture.ThumbnailImage(ThumbnailSide, height: ThumbnailSide, size: Enums.Size.Down);
            return (thumbnail.JpegsaveBuffer(q: 84, keep: Enums.ForeignKeep.None), Judgement(picture));
        }
        catch (VipsException broken)
        {
            throw Broken(broken);
        }
    }

    /// <summary>
    /// Decodes the whole picture into an upright JPEG without metadata, no longer than a side. Boxes are painted over
    /// first, so that what they cover is not in the result.
    /// </summary>
    public static byte[] Thumbnail(string readable, int side, IReadOnlyList<PictureBox>? covers = null)
    {
        try
        {
            using var image = Image.Thumbnail(
                readable,
                side,
                height: side,
                size: Enums.Size.Down,
                failOn: Enums.FailOn.Error
            );
            using var flat = ScreenColour.Of(image);
            using var covered = Covers.Over(flat, covers ?? []);
            return covered.JpegsaveBuffer(q: 84, keep: Enums.ForeignKeep.None);
        }
        catch (VipsException broken)
        {
            throw Broken(broken);
        }
    }

    /// <summary>How far down the horizon of a picture lies, 0 to 1; null when it has none.</summary>
    /// <param name="thumbnail">A small upright picture.</param>
    public static double? HorizonOf(string thumbnail)
    {
        using var picture = Image.NewFromFile(thumbnail);
        using var grey = picture.Colourspace(Enums.Interpretation.Bw);
        using var one = grey.ExtractBand(0);
        return Horizon.Of(one.WriteToMemory<byte>(), one.Width, one.Height);
    }

    private static PictureRefusedException Broken(VipsException broken) =>
        new(
            broken.Message.Contains("out of memory", StringComparison.OrdinalIgnoreCase)
            || broken.Message.Contains("insufficient memory", StringComparison.OrdinalIgnoreCase)
                ? TooMuchMemory
                : "The picture breaks off or is damaged: it could not be read to its end. Copy it again from the "
                    + "camera.",
            broken
        );

    private static PictureJudgement Judgement(Image picture)
    {
        using var grey = picture.Colourspace(Enums.Interpretation.Bw);
        using var one = grey.ExtractBand(0);
        var sharpness = PictureJudging.Sharpness(one.WriteToMemory<byte>(), one.Width, one.Height);
        using var tiny = one.Resize(9.0 / one.Width, vscale: 8.0 / one.Height, kernel: Enums.Kernel.Linear);
        var likeness = tiny is { Width: 9, Height: 8 } ? PictureJudging.Likeness(tiny.WriteToMemory<byte>()) : 0;
        using var mosaic = picture.ThumbnailImage(96, height: 96, size: Enums.Size.Down);
        using var rgb = mosaic.Bands >= 3 ? mosaic.ExtractBand(0, n: 3) : mosaic.Bandjoin(mosaic, mosaic);
        var pixels = rgb.WriteToMemory<byte>();
        var (tone, palette) = PictureJudging.Colours(pixels);
        var (x, y) = Attention(picture);
        return new PictureJudgement(x, y, tone, palette, sharpness, likeness)
        {
            Colourfulness = PictureJudging.Colourfulness(pixels),
        };
    }

    /// <summary>Where the eye goes; the middle when nothing draws it.</summary>
    private static (double X, double Y) Attention(Image picture)
    {
        var side = Math.Min(picture.Width, picture.Height);
        using var cut = picture.Smartcrop(
            Math.Max(1, side / 2),
            Math.Max(1, side / 2),
            out var x,
            out var y,
            interesting: Enums.Interesting.Attention
        );
        return x <= 0 && y <= 0
            ? (0.5, 0.5)
            : (Math.Clamp((double)x / picture.Width, 0, 1), Math.Clamp((double)y / picture.Height, 0, 1));
    }

    private static int SampleBytes(Image header) => header.Format == Enums.BandFormat.Uchar ? 1 : 2;

    private static PixelSize HeaderSize(string path)
    {
        try
        {
            using var header = Image.NewFromFile(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Error);
            var pixels = (long)header.Width * header.Height;
            if (pixels > MostPixels)
            {
                throw new PictureRefusedException(
                    $"The picture has {header.Width:N0} × {header.Height:N0} pixels ({pixels / 1_000_000:N0} "
                        + $"million); at most {MostPixels / 1_000_000:N0} million can be handled."
                );
            }

            var sample =
                header.Contains("jpeg-multiscan") ? 2
                : header.Contains("interlaced") ? SampleBytes(header)
                : 0;
            if (pixels * header.Bands * sample > MostBytesInPasses)
            {
                throw new PictureRefusedException(
                    $"The picture has {pixels / 1_000_000:N0} million pixels and is stored in passes (interlaced or "
                        + "progressive); "
                        + $"of these at most {MostBytesInPasses / header.Bands / sample / 1_000_000:N0} million can be "
                        + "handled. Save it again without that."
                );
            }

            if (header.Width < 16 || header.Height < 16)
            {
                throw new PictureRefusedException(
                    $"The picture has only {header.Width} × {header.Height} pixels: too small for any pocket."
                );
            }

            var turned = header.Contains("orientation") && header.Get("orientation") is int and >= 5 and <= 8;
            return turned ? new PixelSize(header.Height, header.Width) : new PixelSize(header.Width, header.Height);
        }
        catch (VipsException broken)
        {
            throw new PictureRefusedException(
                "The picture's header cannot be read: the file is damaged or not what its name says.",
                broken
            );
        }
    }
}
