using System.Globalization;
using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using NetVips;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>Why a file cannot be a picture of the album; the message is for the keeper.</summary>
public sealed class PictureRefusedException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>What a file says of itself. The recorded time is the camera's own local time, uncorrected.</summary>
public sealed record PictureFacts(
    string Format,
    PixelSize Pixels,
    LocalDateTime? Recorded,
    int? OffsetMinutes,
    string? Camera,
    double? Latitude,
    double? Longitude);

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

    /// <summary>Longest side of the thumbnail made on import, in pixels.</summary>
    public const int ThumbnailSide = 512;

    static PictureIntake() => PhotoEngine.Start();

    /// <summary>Checks a stored file and reads its facts. Throws <see cref="PictureRefusedException"/> with the reason.</summary>
    public static PictureFacts Inspect(string path)
    {
        var length = new FileInfo(path).Length;
        if (length == 0)
        {
            throw new PictureRefusedException("The file is empty (0 bytes). Copy it again from where it came.");
        }

        if (length > LargestFile)
        {
            throw new PictureRefusedException(
                $"The file has {length / 1048576:N0} MB; a picture may have {LargestFile / 1048576:N0} MB at most.");
        }

        var format = FormatOf(path)
            ?? throw new PictureRefusedException("This is not a JPEG or PNG picture, whatever its name says.");
        var pixels = HeaderSize(path);
        var (recorded, offset, camera, latitude, longitude) = Metadata(path);
        return new PictureFacts(format, pixels, recorded, offset, camera, latitude, longitude);
    }

    /// <summary>
    /// Decodes the whole picture once into an upright JPEG thumbnail without metadata.
    /// A file that breaks off is found here.
    /// </summary>
    public static byte[] Thumbnail(string path, int side)
    {
        try
        {
            // Colour is managed on the small picture: asking the thumbnailer for a profile costs four times as much.
            using var image = Image.Thumbnail(path, side, height: side, size: Enums.Size.Down, failOn: Enums.FailOn.Error);
            using var flat = ScreenColour.Of(image);
            return flat.JpegsaveBuffer(q: 84, keep: Enums.ForeignKeep.None);
        }
        catch (VipsException broken)
        {
            throw new PictureRefusedException("The picture breaks off or is damaged: it could not be read to its end. Copy it again from the camera.", broken);
        }
    }

    private static string? FormatOf(string path)
    {
        Span<byte> head = stackalloc byte[8];
        using var file = File.OpenRead(path);
        var read = file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        return head switch
        {
            _ when read >= 3 && head[..3].SequenceEqual<byte>([0xFF, 0xD8, 0xFF]) => "jpeg",
            _ when read >= 8 && head.SequenceEqual<byte>([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]) => "png",
            _ => null,
        };
    }

    private static PixelSize HeaderSize(string path)
    {
        try
        {
            using var header = Image.NewFromFile(path, access: Enums.Access.Sequential, failOn: Enums.FailOn.Error);
            var pixels = (long)header.Width * header.Height;
            if (pixels > MostPixels)
            {
                throw new PictureRefusedException(
                    $"The picture has {header.Width:N0} × {header.Height:N0} pixels ({pixels / 1_000_000:N0} million); at most {MostPixels / 1_000_000:N0} million can be handled.");
            }

            if (header.Width < 16 || header.Height < 16)
            {
                throw new PictureRefusedException($"The picture has only {header.Width} × {header.Height} pixels: too small for any pocket.");
            }

            var turned = header.Contains("orientation") && header.Get("orientation") is int and >= 5 and <= 8;
            return turned ? new PixelSize(header.Height, header.Width) : new PixelSize(header.Width, header.Height);
        }
        catch (VipsException broken)
        {
            throw new PictureRefusedException("The picture's header cannot be read: the file is damaged or not what its name says.", broken);
        }
    }

    private static (LocalDateTime? Recorded, int? Offset, string? Camera, double? Latitude, double? Longitude) Metadata(string path)
    {
        IReadOnlyList<MetadataExtractor.Directory> directories;
        try
        {
            directories = ImageMetadataReader.ReadMetadata(path);
        }
        catch (Exception unreadable) when (unreadable is ImageProcessingException or MetadataException or IOException)
        {
            // Metadata never blocks an import: the picture simply has no date.
            return default;
        }

        var sub = directories.OfType<ExifSubIfdDirectory>().ToList();
        var main = directories.OfType<ExifIfd0Directory>().FirstOrDefault();
        var recorded = sub.Select(d => Time(d.GetString(ExifDirectoryBase.TagDateTimeOriginal))).FirstOrDefault(t => t is not null)
            ?? sub.Select(d => Time(d.GetString(ExifDirectoryBase.TagDateTimeDigitized))).FirstOrDefault(t => t is not null);
        // 0x9011 is OffsetTimeOriginal (Exif 2.31).
        var offset = sub.Select(d => Offset(d.GetString(0x9011))).FirstOrDefault(o => o is not null);
        var (latitude, longitude) = Position(directories.OfType<GpsDirectory>().FirstOrDefault());
        return (recorded, offset, CameraName(main), latitude, longitude);
    }

    /// <summary>EXIF times are <c>yyyy:MM:dd HH:mm:ss</c>; anything else, such as 0000:00:00, is no time.</summary>
    private static LocalDateTime? Time(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var result = ExifTime.Parse(text.Trim().TrimEnd('\0'));
        return result.Success && result.Value.Year is >= 1826 and < 2200 ? result.Value : null;
    }

    private static readonly LocalDateTimePattern ExifTime = LocalDateTimePattern.CreateWithInvariantCulture("uuuu':'MM':'dd HH':'mm':'ss");

    private static int? Offset(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var result = OffsetPattern.GeneralInvariantWithZ.Parse(text.Trim().TrimEnd('\0'));
        // The world's zones run from -12:00 to +14:00.
        return result.Success && result.Value.Seconds is >= -12 * 3600 and <= 14 * 3600 ? result.Value.Seconds / 60 : null;
    }

    private static (double?, double?) Position(GpsDirectory? gps)
    {
        var location = gps?.GetGeoLocation();
        if (location is null || location.IsZero)
        {
            return (null, null);
        }

        return (location.Latitude, location.Longitude);
    }

    private static string? CameraName(ExifIfd0Directory? main)
    {
        var make = main?.GetString(ExifDirectoryBase.TagMake)?.Trim().TrimEnd('\0').Trim();
        var model = main?.GetString(ExifDirectoryBase.TagModel)?.Trim().TrimEnd('\0').Trim();
        var name = string.IsNullOrEmpty(make) || (model?.StartsWith(make, true, CultureInfo.InvariantCulture) ?? false)
            ? model
            : $"{make} {model}".Trim();
        return string.IsNullOrWhiteSpace(name) ? null : name.Length > 80 ? name[..80] : name;
    }
}
