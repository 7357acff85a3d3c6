namespace ZestyPocket.Drawing.Photos;

/// <summary>Kinds of file that can become a picture.</summary>
public enum PictureFormat
{
    Jpeg,
    Png,
    WebP,
    Avif,
    Heic,
    Tiff,

    /// <summary>Its first frame.</summary>
    Gif,

    /// <summary>One of its pages.</summary>
    Pdf,
}

/// <summary>Tells kinds of file by their first bytes, whatever their names say.</summary>
public static class PictureFormats
{
    public const string Accepted = "JPEG, PNG, WebP, AVIF, HEIC, TIFF, GIF or PDF";

    private static readonly string[] RawEndings =
    [
        ".arw",
        ".cr2",
        ".cr3",
        ".crw",
        ".dng",
        ".nef",
        ".nrw",
        ".orf",
        ".pef",
        ".raf",
        ".raw",
        ".rw2",
        ".srw",
    ];

    /// <summary>Kinds that the picture library decodes by way of a working copy.</summary>
    public static bool NeedsWorkingCopy(this PictureFormat format) => format is PictureFormat.Heic or PictureFormat.Pdf;

    /// <summary>The kind of a file, or a refusal that says what it is instead and what to do.</summary>
    public static PictureFormat Of(string path, string fileName = "")
    {
        ArgumentNullException.ThrowIfNull(fileName);
        Span<byte> head = stackalloc byte[1024];
        int read;
        using (var file = File.OpenRead(path))
        {
            read = file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        }

        ReadOnlySpan<byte> start = head[..read];
        if (RawEndings.Contains(Path.GetExtension(fileName), StringComparer.OrdinalIgnoreCase))
        {
            throw new PictureRefusedException(
                "This is a camera's raw file. Develop it first and add the JPEG or TIFF that comes out."
            );
        }

        if (FilmReader(start) is not null || IsOldFilm(start))
        {
            throw new PictureRefusedException(
                "This is a film of a kind that cannot be read. Save it as MP4 and add that, or add stills from it."
            );
        }

        if (IsZip(start))
        {
            throw new PictureRefusedException("This is a zip inside a zip. Unpack it first, or add it by itself.");
        }

        return Find(start)
            ?? throw new PictureRefusedException($"This is not a {Accepted} picture, whatever its name says.");
    }

    /// <summary>Whether a file begins as a zip archive does.</summary>
    public static bool IsZip(ReadOnlySpan<byte> start) =>
        start.StartsWith("PK\x03\x04"u8) || start.StartsWith("PK\x05\x06"u8);

    private static PictureFormat? Find(ReadOnlySpan<byte> start) =>
        start switch
        {
            [0xFF, 0xD8, 0xFF, ..] => PictureFormat.Jpeg,
            [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, ..] => PictureFormat.Png,
            [0x49, 0x49, 0x2A or 0x2B, 0, ..] or [0x4D, 0x4D, 0, 0x2A or 0x2B, ..] => PictureFormat.Tiff,
            _ when start.StartsWith("GIF87a"u8) || start.StartsWith("GIF89a"u8) => PictureFormat.Gif,
            _ when start.Length > 12 && start.StartsWith("RIFF"u8) && start[8..].StartsWith("WEBP"u8) =>
                PictureFormat.WebP,
            _ when start.IndexOf("%PDF-"u8) >= 0 => PictureFormat.Pdf,
            _ when start.Length > 16 && start[4..].StartsWith("ftyp"u8) => Brand(start),
            _ => null,
        };

    /// <summary>
    /// The major brand of an ISO base media file, then the compatible ones (ISO/IEC 23008-12, from memory).
    /// </summary>
    private static PictureFormat? Brand(ReadOnlySpan<byte> start)
    {
        var box = System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(start);
        var brands = start[8..Math.Clamp(box, 16, start.Length)];
        var avif = false;
        var heic = false;
        for (var at = 0; at + 4 <= brands.Length; at += at == 0 ? 8 : 4)
        {
            var brand = brands.Slice(at, 4);
            avif |= brand.SequenceEqual("avif"u8) || brand.SequenceEqual("avis"u8);
            heic |=
                brand.SequenceEqual("heic"u8)
                || brand.SequenceEqual("heix"u8)
                || brand.SequenceEqual("hevc"u8)
                || brand.SequenceEqual("heim"u8)
                || brand.SequenceEqual("heis"u8)
                || brand.SequenceEqual("mif1"u8);
        }

        return avif ? PictureFormat.Avif
            : heic ? PictureFormat.Heic
            : null;
    }

    /// <summary>The reader for a video, as ffmpeg names it; null when the file is none that is taken.</summary>
    public static string? FilmReader(ReadOnlySpan<byte> start)
    {
        if (start.Length <= 12)
        {
            return null;
        }

        var box = start[4..];
        return start.StartsWith("RIFF"u8) && start[8..].StartsWith("AVI "u8) ? "avi"
            : start.StartsWith(new byte[] { 0x1A, 0x45, 0xDF, 0xA3 }) ? "matroska"
            : box.StartsWith("moov"u8)
            || box.StartsWith("mdat"u8)
            || box.StartsWith("wide"u8)
            || (box.StartsWith("ftyp"u8) && Brand(start) is null)
                ? "mov"
            : null;
    }

    /// <summary>MPEG streams of discs and tapes.</summary>
    private static bool IsOldFilm(ReadOnlySpan<byte> start) =>
        start.StartsWith(new byte[] { 0, 0, 1, 0xBA }) || start.StartsWith(new byte[] { 0, 0, 1, 0xB3 });
}
