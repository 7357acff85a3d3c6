using System.Buffers.Binary;
using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json;
using NodaTime;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// What a file's metadata may give, one line each: written by exiftool, by Phil Harvey, the usual reference for
/// metadata, and read here and by exiftool.
/// </summary>
public sealed class MetadataTableTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-metadata-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData(
        "jpg",
        "2024-05-06T07:08:09",
        0,
        "-EXIF:DateTimeOriginal=2024:05:06 07:08:09",
        "-EXIF:OffsetTimeOriginal=+02:00",
        "expect=120"
    )]
    [InlineData(
        "jpg",
        "2024-05-06T07:08:09",
        0,
        "-EXIF:DateTimeOriginal=2024:05:06 07:08:09",
        "-EXIF:OffsetTime=-03:30",
        "expect=-210"
    )]
    [InlineData(
        "jpg",
        "2024-05-06T07:08:09",
        0,
        "-EXIF:CreateDate=2024:05:06 07:08:09",
        "-EXIF:OffsetTimeDigitized=+09:00",
        "expect=540"
    )]
    [InlineData("jpg", "2024-05-06T07:08:09", 0, "-XMP-exif:DateTimeOriginal=2024:05:06 07:08:09", "expect=")]
    [InlineData("jpg", "2024-05-06T07:08:09", 0, "-XMP-photoshop:DateCreated=2024:05:06 07:08:09+01:00", "expect=60")]
    [InlineData("jpg", "2024-05-06T07:08:09", 0, "-XMP-xmp:CreateDate=2024:05:06 07:08:09", "expect=")]
    [InlineData(
        "jpg",
        "2024-05-06T07:08:09",
        0,
        "-IPTC:DateCreated=2024:05:06",
        "-IPTC:TimeCreated=07:08:09+05:30",
        "expect=330"
    )]
    [InlineData(
        "jpg",
        null,
        1,
        "-GPSLatitude=48.2",
        "-GPSLatitudeRef=S",
        "-GPSLongitude=16.3",
        "-GPSLongitudeRef=W",
        "expect="
    )]
    [InlineData("jpg", null, 1, "-XMP-exif:GPSLatitude=48.2", "-XMP-exif:GPSLongitude=-16.3", "expect=")]
    [InlineData("png", "2024-05-06T07:08:09", 0, "-EXIF:DateTimeOriginal=2024:05:06 07:08:09", "expect=")]
    [InlineData("png", "2024-05-06T07:08:09", 0, "-XMP-exif:DateTimeOriginal=2024:05:06 07:08:09", "expect=")]
    [InlineData(
        "tif",
        "2024-05-06T07:08:09",
        1,
        "-EXIF:DateTimeOriginal=2024:05:06 07:08:09",
        "-GPSLatitude=10",
        "-GPSLatitudeRef=N",
        "-GPSLongitude=20",
        "-GPSLongitudeRef=E",
        "expect="
    )]
    [InlineData("webp", "2024-05-06T07:08:09", 0, "-EXIF:DateTimeOriginal=2024:05:06 07:08:09", "expect=")]
    public async Task Time_zone_and_place_are_those_that_exiftool_reads(
        string kind,
        string? time,
        int places,
        params string[] tags
    )
    {
        ArgumentNullException.ThrowIfNull(tags);
        var path = Picture(kind);
        await ExiftoolAsync([.. tags.Where(t => t.StartsWith('-')), "-overwrite_original", path]);
        var theirs = JsonDocument
            .Parse(
                await ExiftoolAsync(
                    "-json",
                    "-n",
                    "-DateTimeOriginal",
                    "-CreateDate",
                    "-DateCreated",
                    "-GPSLatitude",
                    "-GPSLongitude",
                    path
                )
            )
            .RootElement[0];
        var ours = PictureIntake.Inspect(path);
        ours.Recorded?.ToString("uuuu-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture).ShouldBe(time);
        if (time is not null)
        {
            var their = new[] { "DateTimeOriginal", "CreateDate", "DateCreated" }
                .Select(n => theirs.TryGetProperty(n, out var v) ? v.GetString() : null)
                .First(v => v is not null)!;
            their[..10].Replace(':', '-').ShouldBe(time[..10]);
        }

        tags[^1].ShouldBe($"expect={ours.OffsetMinutes}");
        (ours.Latitude is not null).ShouldBe(places == 1);
        if (places == 1)
        {
            ours.Latitude!.Value.ShouldBe(theirs.GetProperty("GPSLatitude").GetDouble(), 0.0001);
            ours.Longitude!.Value.ShouldBe(theirs.GetProperty("GPSLongitude").GetDouble(), 0.0001);
        }
    }

    [Fact]
    public async Task A_serial_number_is_part_of_the_cameras_name()
    {
        var path = Picture("jpg");
        await ExiftoolAsync("-Make=Maker", "-Model=Maker One", "-EXIF:SerialNumber=A77", "-overwrite_original", path);
        PictureIntake.Inspect(path).Camera.ShouldBe("Maker One · A77");
    }

    /// <summary>
    /// A packet of over 64 kB goes on in further segments, which exiftool writes as the XMP specification, part 3,
    /// says.
    /// </summary>
    [Fact]
    public async Task A_picture_with_extended_XMP_is_taken_with_its_date()
    {
        var path = Picture("jpg");
        var notes = Path.Combine(_folder, "notes.txt");
        File.WriteAllText(notes, string.Concat(Enumerable.Repeat("a long note of an editing program ", 5_000)));
        await ExiftoolAsync(
            "-EXIF:DateTimeOriginal=2024:05:06 07:08:09",
            $"-XMP-dc:Description<={notes}",
            "-overwrite_original",
            path
        );
        new FileInfo(path).Length.ShouldBeGreaterThan(150_000);
        PictureIntake.Inspect(path).Recorded.ShouldBe(new LocalDateTime(2024, 5, 6, 7, 8, 9));
    }

    [Fact]
    public void A_position_that_a_program_wrote_as_text_is_read()
    {
        var path = Picture("jpg");
        var jpeg = File.ReadAllBytes(path);
        File.WriteAllBytes(path, [.. jpeg[..2], .. ExifSegment(), .. jpeg[2..]]);
        var facts = PictureIntake.Inspect(path);
        facts.Latitude!.Value.ShouldBe(48.208333, 0.00001);
        facts.Longitude!.Value.ShouldBe(-16.5, 0.00001);
    }

    /// <summary>Few large ones, and many of which each by itself is small.</summary>
    [Theory]
    [InlineData("zTXt", 20, 100_000_000)]
    [InlineData("iTXt", 20, 100_000_000)]
    [InlineData("zTXt", 300, 7_000_000)]
    [InlineData("iTXt", 300, 7_000_000)]
    [InlineData("iCCP", 3, 7_000_000)]
    [InlineData("zTXt", 2_100, 0)]
    public void Notes_that_unfold_to_gigabytes_together_are_refused_before_anything_unfolds_them(
        string chunk,
        int count,
        int bytes
    )
    {
        var path = Picture("png");
        var png = File.ReadAllBytes(path);
        var notes = Enumerable.Repeat(PngBomb.Chunk(chunk, bytes, 1), count).SelectMany(c => c).ToArray();
        File.WriteAllBytes(path, [.. png[..33], .. notes, .. png[33..]]);
        var before = Process.GetCurrentProcess().PeakWorkingSet64;
        Should
            .Throw<PictureRefusedException>(() => PictureIntake.Inspect(path))
            .Message.ShouldContain("Save it again without them");
        (Process.GetCurrentProcess().PeakWorkingSet64 - before).ShouldBeLessThan(100L << 20);
    }

    [Fact]
    public void Long_notes_of_an_ordinary_picture_and_one_that_breaks_off_are_none_of_that()
    {
        var path = Picture("png");
        var png = File.ReadAllBytes(path);
        byte[] noted = [.. png[..33], .. PngBomb.Chunk("zTXt", 3_000_000, 1), .. png[33..]];
        File.WriteAllBytes(path, noted);
        PictureIntake.Inspect(path).Format.ShouldBe(PictureFormat.Png);
        for (var length = 8; length < noted.Length; length += 97)
        {
            File.WriteAllBytes(path, noted[..length]);
            try
            {
                PictureIntake.Inspect(path);
            }
            catch (PictureRefusedException broken)
            {
                broken.Message.ShouldNotContain("notes");
            }
        }
    }

    [Fact]
    public void An_interlaced_picture_of_250_megapixels_is_refused_before_it_is_decoded()
    {
        var path = Path.Combine(_folder, "passes.png");
        File.WriteAllBytes(path, PngBomb.Interlaced(15_800, 15_800));
        Should
            .Throw<PictureRefusedException>(() => PictureIntake.Inspect(path))
            .Message.ShouldContain("at most 100 million");
    }

    /// <summary>An APP1 segment whose GPS directory holds ASCII where Exif wants fractions.</summary>
    private static byte[] ExifSegment()
    {
        byte[] latitude = Encoding.ASCII.GetBytes("48,12,30\0"),
            longitude = Encoding.ASCII.GetBytes("16,30,0\0");
        var tiff = new byte[8 + 18 + 2 + (4 * 12) + 4 + latitude.Length + longitude.Length];
        "MM\0*"u8.CopyTo(tiff);
        BinaryPrimitives.WriteInt32BigEndian(tiff.AsSpan(4), 8);
        BinaryPrimitives.WriteInt16BigEndian(tiff.AsSpan(8), 1);
        Entry(10, 0x8825, 4, 1, 26);
        BinaryPrimitives.WriteInt16BigEndian(tiff.AsSpan(26), 4);
        var data = 26 + 2 + (4 * 12) + 4;
        Entry(28, 1, 2, 2, 'N' << 24);
        Entry(40, 2, 2, latitude.Length, data);
        Entry(52, 3, 2, 2, 'W' << 24);
        Entry(64, 4, 2, longitude.Length, data + latitude.Length);
        latitude.CopyTo(tiff, data);
        longitude.CopyTo(tiff, data + latitude.Length);
        var length = 2 + 6 + tiff.Length;
        return [0xFF, 0xE1, (byte)(length >> 8), (byte)length, .. "Exif\0\0"u8, .. tiff];

        void Entry(int at, int tag, int type, int count, int value)
        {
            BinaryPrimitives.WriteInt16BigEndian(tiff.AsSpan(at), unchecked((short)tag));
            BinaryPrimitives.WriteInt16BigEndian(tiff.AsSpan(at + 2), (short)type);
            BinaryPrimitives.WriteInt32BigEndian(tiff.AsSpan(at + 4), count);
            BinaryPrimitives.WriteInt32BigEndian(tiff.AsSpan(at + 8), value);
        }
    }

    private string Picture(string kind)
    {
        var path = Path.Combine(_folder, $"picture.{kind}");
        using var image = NetVips.Image.Black(400, 300, bands: 3);
        using var grey = image + 128;
        using var bytes = grey.Cast(NetVips.Enums.BandFormat.Uchar);
        PhotoEngine.Start();
        bytes.WriteToFile(path);
        return path;
    }

    private static async Task<string> ExiftoolAsync(params string[] arguments)
    {
        var (code, output) = await OtherReaders.Run("exiftool", arguments);
        code.ShouldBe(0, output);
        return output;
    }
}
