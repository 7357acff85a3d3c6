using System.Text;
using System.Xml;
using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using MetadataExtractor.Formats.Tiff;
using MetadataExtractor.IO;
using NetVips;
using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>
/// What the metadata of a picture says: the camera's own local time, uncorrected, its zone, camera and place.
/// </summary>
internal sealed record PictureMetadata(
    LocalDateTime? Recorded,
    int? OffsetMinutes,
    string? Camera,
    double? Latitude,
    double? Longitude
)
{
    /// <summary>Nothing is known.</summary>
    public static readonly PictureMetadata None = new(null, null, null, null, null);

    /// <summary>Largest block that is looked into, in bytes: camera makers' own notes reach some hundred kB.</summary>
    private const int LargestBlock = 4 << 20;

    private const int LargestXmp = 1 << 20;

    private const int DeepestXmp = 32;

    /// <summary>OffsetTimeOriginal, OffsetTime and OffsetTimeDigitized. Source: Exif 2.31.</summary>
    private const int TagOffsetTimeOriginal = 0x9011;

    private const int TagOffsetTime = 0x9010;

    /// <summary>SubSecTimeOriginal and SubSecTimeDigitized. Source: Exif 2.3.</summary>
    private const int TagSubSecTimeOriginal = 0x9291;

    private const int TagSubSecTimeDigitized = 0x9292;

    private const int TagOffsetTimeDigitized = 0x9012;

    /// <summary>BodySerialNumber. Source: Exif 2.3.</summary>
    private const int TagBodySerialNumber = 0xA431;

    /// <summary>
    /// Reads a file's metadata. Never throws for what a file holds: metadata never blocks an import, a block that
    /// cannot be read says nothing and the others are still asked.
    /// </summary>
    public static PictureMetadata Read(string path, PictureFormat format)
    {
        var (exif, xmp, iptc) = Blocks(path, format);
        var byXmp = Guarded(() => xmp is null ? null : Xmp(xmp)) ?? [];
        var xmpTime = First(byXmp, "DateTimeOriginal", "DateCreated", "CreateDate", "DateTimeDigitized");
        var directories = exif;
        var recorded =
            ExifTime(directories, ExifDirectoryBase.TagDateTimeOriginal, TagSubSecTimeOriginal)
            ?? ExifTime(directories, ExifDirectoryBase.TagDateTimeDigitized, TagSubSecTimeDigitized)
            ?? CaptureText.Time(xmpTime)
            ?? Guarded(() => iptc is null ? null : Iptc(iptc));
        // The zone that is stated with the moment that is used comes first.
        var offset =
            recorded?.OffsetMinutes
            ?? Offset(directories, TagOffsetTimeOriginal)
            ?? Offset(directories, TagOffsetTimeDigitized)
            ?? Offset(directories, TagOffsetTime)
            ?? (
                CaptureText.Time(xmpTime) is { } stated && stated.Local == recorded?.Local ? stated.OffsetMinutes : null
            );
        var (latitude, longitude) = Guarded(() => Position(directories)) ?? Position(byXmp);
        var camera = CameraName.Of(
            Text(directories, ExifDirectoryBase.TagMake) ?? byXmp.GetValueOrDefault("Make"),
            Text(directories, ExifDirectoryBase.TagModel) ?? byXmp.GetValueOrDefault("Model"),
            Text(directories, TagBodySerialNumber) ?? byXmp.GetValueOrDefault("SerialNumber")
        );
        return new PictureMetadata(recorded?.Local, recorded is null ? null : offset, camera, latitude, longitude);
    }

    /// <summary>
    /// The blocks as the picture library finds them, which inflates none beyond its own bounds; TIFF has no blocks but
    /// is itself the directory.
    /// </summary>
    private static (IReadOnlyList<MetadataExtractor.Directory> Exif, byte[]? Xmp, byte[]? Iptc) Blocks(
        string path,
        PictureFormat format
    )
    {
        byte[]? exif = null,
            xmp = null,
            iptc = null;
        try
        {
            using var header = Image.NewFromFile(path, access: Enums.Access.Sequential);
            (exif, xmp, iptc) = (Block(header, "exif-data"), Block(header, "xmp-data"), Block(header, "iptc-data"));
        }
        catch (VipsException)
        {
            // Kinds that only become readable by a working copy; their own reader is asked below.
        }

        var directories = Guarded<IReadOnlyList<MetadataExtractor.Directory>>(() =>
            exif is not null ? Directories(exif)
            : format == PictureFormat.Tiff ? TiffMetadataReader.ReadMetadata(path)
            : format == PictureFormat.Heic ? ImageMetadataReader.ReadMetadata(path)
            : []
        );
        return (directories ?? [], xmp, iptc);
    }

    private static byte[]? Block(Image header, string name) =>
        header.Contains(name) && header.Get(name) is byte[] { Length: > 0 and <= LargestBlock } block ? block : null;

    private static IReadOnlyList<MetadataExtractor.Directory> Directories(byte[] block) =>
        [
            .. new ExifReader().Extract(
                new ByteArrayReader(block.AsSpan().StartsWith("Exif\0\0"u8) ? block[6..] : block)
            ),
        ];

    /// <param name="parts">The tag with the part of the second, which cameras keep apart.</param>
    private static StatedTime? ExifTime(IReadOnlyList<MetadataExtractor.Directory> directories, int tag, int parts) =>
        CaptureText.Time(Text(directories, tag)) is { } time
            ? time with
            {
                Local =
                    time.Local.TickOfSecond == 0
                        ? time.Local + CaptureText.Fraction(Text(directories, parts))
                        : time.Local,
            }
            : null;

    private static int? Offset(IReadOnlyList<MetadataExtractor.Directory> directories, int tag) =>
        CaptureText.Offset(Text(directories, tag));

    /// <summary>
    /// A text of the first directory of the picture itself that has it; thumbnails have directories of their own.
    /// </summary>
    private static string? Text(IReadOnlyList<MetadataExtractor.Directory> directories, int tag) =>
        directories
            .Where(d => d is ExifIfd0Directory or ExifSubIfdDirectory)
            .Select(d => d.GetString(tag))
            .FirstOrDefault(t => !string.IsNullOrWhiteSpace(t?.Trim('\0')));

    private static (double?, double?)? Position(IReadOnlyList<MetadataExtractor.Directory> directories)
    {
        foreach (var gps in directories.OfType<GpsDirectory>())
        {
            var location = gps.GetGeoLocation();
            // Some programs write positions as text, where Exif wants three fractions.
            var latitude =
                location?.Latitude
                ?? CaptureText.Degrees(
                    gps.GetString(GpsDirectory.TagLatitude),
                    gps.GetString(GpsDirectory.TagLatitudeRef),
                    90
                );
            var longitude =
                location?.Longitude
                ?? CaptureText.Degrees(
                    gps.GetString(GpsDirectory.TagLongitude),
                    gps.GetString(GpsDirectory.TagLongitudeRef),
                    180
                );
            if (IsPlace(latitude, longitude))
            {
                return (latitude, longitude);
            }
        }

        return null;
    }

    private static (double?, double?) Position(Dictionary<string, string> xmp)
    {
        var latitude = CaptureText.Degrees(xmp.GetValueOrDefault("GPSLatitude"), null, 90);
        var longitude = CaptureText.Degrees(xmp.GetValueOrDefault("GPSLongitude"), null, 180);
        return IsPlace(latitude, longitude) ? (latitude, longitude) : (null, null);
    }

    /// <summary>0, 0 is what a receiver without a fix writes.</summary>
    private static bool IsPlace(double? latitude, double? longitude) =>
        latitude is { } north
        && longitude is { } east
        && double.IsFinite(north)
        && double.IsFinite(east)
        && Math.Abs(north) <= 90
        && Math.Abs(east) <= 180
        && (north, east) != (0, 0);

    /// <summary>
    /// Texts of an XMP packet by their plain names, as attributes or as elements. Source: XMP specification, part 1.
    /// </summary>
    private static Dictionary<string, string> Xmp(byte[] packet)
    {
        var found = new Dictionary<string, string>(StringComparer.Ordinal);
        if (packet.Length > LargestXmp)
        {
            return found;
        }

        using var reader = XmlReader.Create(
            new MemoryStream(packet.AsSpan().TrimEnd((byte)0).ToArray()),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = LargestXmp,
            }
        );
        try
        {
            var element = string.Empty;
            while (reader.Read() && reader.Depth <= DeepestXmp)
            {
                element = Take(reader, element, found);
            }
        }
        catch (XmlException)
        {
            // What was read before the damage counts.
        }

        return found;
    }

    private static string Take(XmlReader reader, string element, Dictionary<string, string> found)
    {
        if (reader.NodeType == XmlNodeType.Text && reader.Value.Length < 200)
        {
            found.TryAdd(element, reader.Value);
        }

        if (reader.NodeType != XmlNodeType.Element)
        {
            return element;
        }

        var name = reader.LocalName;
        while (reader.MoveToNextAttribute())
        {
            found.TryAdd(reader.LocalName, reader.Value);
        }

        return name;
    }

    /// <summary>
    /// Date and time of creation, data sets 2:55 and 2:60. Source: IPTC Information Interchange Model 4.
    /// </summary>
    private static StatedTime? Iptc(byte[] block)
    {
        string? date = null,
            time = null;
        for (var at = 0; at + 5 <= block.Length; at++)
        {
            if (block[at] != 0x1C || block[at + 1] != 2 || block[at + 2] is not (55 or 60))
            {
                continue;
            }

            var length = (block[at + 3] << 8) | block[at + 4];
            if (length is >= 6 and <= 11 && at + 5 + length <= block.Length)
            {
                var text = Encoding.Latin1.GetString(block, at + 5, length);
                (date, time) = block[at + 2] == 55 ? (date ?? text, time) : (date, time ?? text);
            }
        }

        return date is { Length: 8 } && time is { Length: >= 6 }
            ? CaptureText.Time($"{date[..4]}:{date[4..6]}:{date[6..]} {time[..2]}:{time[2..4]}:{time[4..6]}{time[6..]}")
            : null;
    }

    private static string? First(Dictionary<string, string> texts, params ReadOnlySpan<string> names)
    {
        foreach (var name in names)
        {
            if (texts.TryGetValue(name, out var text) && CaptureText.Time(text) is not null)
            {
                return text;
            }
        }

        return null;
    }

    private static T? Guarded<T>(Func<T?> read)
    {
        try
        {
            return read();
        }
        catch (Exception unreadable) when (unreadable is not OutOfMemoryException)
        {
            // The readers throw whatever they stumble over; this block then says nothing.
            return default;
        }
    }
}
