using System.Globalization;
using System.Text.Json;
using NetVips;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>What a video file says of itself.</summary>
/// <param name="Pixels">As it is seen, turned where the file says so.</param>
/// <param name="Milliseconds">How long it is.</param>
/// <param name="FramesPerSecond">Of the picture; 0 when unknown.</param>
/// <param name="Camera">Maker and model; null when the file names none.</param>
public sealed record VideoFacts(
    PixelSize Pixels,
    long Milliseconds,
    double FramesPerSecond,
    VideoStart Start,
    string? Camera
);

/// <summary>
/// Videos by way of ffmpeg (a package of Debian), each step in a process with limits of time and memory. The kind is
/// told by the first bytes and given to the reader, so that no file is read as a list of other files.
/// </summary>
public static class VideoFiles
{
    /// <summary>Largest file in bytes.</summary>
    public const long LargestFile = 2L << 30;

    /// <summary>Longest video, in milliseconds: four hours.</summary>
    public const long Longest = 4 * 3_600_000;

    /// <summary>Largest frame in pixels: 8K and some more.</summary>
    public const long MostPixels = 40_000_000;

    public const string Accepted = "MP4, MOV, MKV, WebM or AVI";

    private const long Memory = 3L << 30;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    private const string Refusal =
        "The video is damaged or of a kind that cannot be read. Save it as MP4 and add that, or add stills from it.";

    static VideoFiles() => PhotoEngine.Start();

    private static readonly string[] Endings = [".mp4", ".m4v", ".mov", ".mkv", ".webm", ".avi", ".3gp"];

    /// <summary>Whether a name is one that videos have: such a file may be large.</summary>
    public static bool HasEnding(string fileName) =>
        Endings.Contains(Path.GetExtension(fileName), StringComparer.OrdinalIgnoreCase);

    /// <summary>Whether a file is a video, by its first bytes.</summary>
    public static bool Is(string path) => ReaderOf(path) is not null;

    /// <summary>Reads what the file says. Throws <see cref="PictureRefusedException"/> with the reason.</summary>
    public static VideoFacts Inspect(string path, CancellationToken cancel = default)
    {
        var length = new FileInfo(path).Length;
        if (length > LargestFile)
        {
            throw new PictureRefusedException(
                $"The video has {length / 1048576:N0} MB; {LargestFile / 1048576:N0} MB can be "
                    + "handled. Cut it into parts."
            );
        }

        using var said = JsonDocument.Parse(
            ReaderProcess.Run(
                "ffprobe",
                ["-v", "error", .. Input(path), "-print_format", "json", "-show_format", "-show_streams"],
                Patience,
                Memory,
                Refusal,
                cancel
            )
        );
        var stream = said
            .RootElement.GetProperty("streams")
            .EnumerateArray()
            .FirstOrDefault(s => Text(s, "codec_type") == "video" && Number(s, "width") > 0);
        if (stream.ValueKind == JsonValueKind.Undefined)
        {
            throw new PictureRefusedException(
                said.RootElement.GetProperty("streams").EnumerateArray().ToList() is { Count: > 0 } streams
                && streams.TrueForAll(s => Text(s, "codec_type") == "audio")
                    ? "This file has sound but no picture. A pocket holds still pictures."
                    : Refusal
            );
        }

        var format = said.RootElement.GetProperty("format");
        var (wide, high) = ((int)Number(stream, "width"), (int)Number(stream, "height"));
        var milliseconds = (long)(1000 * Math.Max(Number(format, "duration"), Number(stream, "duration")));
        if ((long)wide * high > MostPixels || milliseconds > Longest)
        {
            throw new PictureRefusedException(
                "The video is larger than 40 million pixels or longer than four hours. Cut it and add the part."
            );
        }

        var tags = Tags(format)
            .Concat(Tags(stream))
            .ToLookup(t => t.Key, t => t.Value, StringComparer.OrdinalIgnoreCase);
        var model = tags["com.apple.quicktime.model"].Concat(tags["model"]).FirstOrDefault();
        var make = tags["com.apple.quicktime.make"].Concat(tags["make"]).FirstOrDefault();
        return new VideoFacts(
            IsOnItsSide(stream) ? new PixelSize(high, wide) : new PixelSize(wide, high),
            Math.Max(0, milliseconds),
            Rate(Text(stream, "avg_frame_rate")),
            VideoFrames.StartOf(
                tags["creation_time"].Concat(tags["ICRD"]).Concat(tags["date"]).FirstOrDefault(),
                tags["com.apple.quicktime.creationdate"].FirstOrDefault()
            ),
            CameraName.Of(make, model, null)
        );
    }

    /// <summary>
    /// Writes the frame at a position as an upright JPEG, no longer than a side; the last one when there is none so
    /// late.
    /// </summary>
    public static void Frame(
        string path,
        long milliseconds,
        int longestSide,
        string target,
        CancellationToken cancel = default
    )
    {
        foreach (var at in new[] { milliseconds, milliseconds - 300, milliseconds - 1500, 0 }.Where(a => a >= 0))
        {
            ReaderProcess.Run(
                "ffmpeg",
                [
                    "-v",
                    "error",
                    "-nostdin",
                    "-y",
                    "-threads",
                    "2",
                    "-ss",
                    string.Create(CultureInfo.InvariantCulture, $"{at / 1000.0:0.000}"),
                    .. Input(path),
                    "-map",
                    "0:v:0",
                    "-frames:v",
                    "1",
                    "-vf",
                    $"scale='min({longestSide},iw)':'min({longestSide},ih)':force_original_aspect_ratio=decrease",
                    "-f",
                    "image2",
                    "-c:v",
                    "mjpeg",
                    "-q:v",
                    "2",
                    target,
                ],
                Patience,
                Memory,
                Refusal,
                cancel
            );
            if (File.Exists(target) && new FileInfo(target).Length > 0)
            {
                return;
            }
        }

        throw new PictureRefusedException(Refusal);
    }

    /// <summary>Looks at frames evenly over the video; each is as sharp and as like others as it is small.</summary>
    public static IReadOnlyList<VideoFrame> Look(string path, long milliseconds, int frames, CancellationToken cancel)
    {
        var found = new List<VideoFrame>();
        var target = Path.GetTempFileName();
        try
        {
            for (var i = 0; i < frames; i++)
            {
                cancel.ThrowIfCancellationRequested();
                var at = milliseconds * ((2 * i) + 1) / (2 * frames);
                File.Delete(target);
                Frame(path, at, PictureIntake.JudgedSide, target, cancel);
                var (_, judged) = PictureIntake.Judge(target);
                found.Add(new VideoFrame(at, judged.Sharpness, judged.Likeness));
            }
        }
        finally
        {
            File.Delete(target);
        }

        return found;
    }

    /// <summary>
    /// Writes a frame as a picture of its own: full size, with the time it was taken, the offset and the camera in its
    /// EXIF data (source: Exif 2.32), so that it is dated as every picture is.
    /// </summary>
    public static void Still(string path, long milliseconds, VideoStart taken, string? camera, string target)
    {
        ArgumentNullException.ThrowIfNull(taken);
        var raw = target + ".frame";
        try
        {
            Frame(path, milliseconds, 8192, raw);
            using var frame = Image
                .NewFromFile(raw)
                .Mutate(picture =>
                {
                    if (taken.Local is { } local)
                    {
                        picture.Set(
                            GValue.GStrType,
                            "exif-ifd2-DateTimeOriginal",
                            local.ToString("uuuu':'MM':'dd HH':'mm':'ss", CultureInfo.InvariantCulture)
                        );
                        picture.Set(GValue.GStrType, "exif-ifd2-SubSecTimeOriginal", $"{local.Millisecond:000}");
                    }

                    if (taken.OffsetMinutes is { } minutes)
                    {
                        picture.Set(
                            GValue.GStrType,
                            "exif-ifd2-OffsetTimeOriginal",
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{(minutes < 0 ? '-' : '+')}{Math.Abs(minutes) / 60:00}:{Math.Abs(minutes) % 60:00}"
                            )
                        );
                    }

                    if (camera is not null)
                    {
                        picture.Set(GValue.GStrType, "exif-ifd0-Model", camera);
                    }
                });
            frame.Jpegsave(target, q: 95);
        }
        catch (VipsException broken)
        {
            throw new PictureRefusedException(Refusal, broken);
        }
        finally
        {
            File.Delete(raw);
        }
    }

    /// <summary>The kind is forced and only files are opened: no list of other files, no address.</summary>
    private static IEnumerable<string> Input(string path) =>
        [
            "-protocol_whitelist",
            "file",
            "-f",
            ReaderOf(path) ?? throw new PictureRefusedException($"This is no {Accepted} video."),
            "-i",
            $"file:{path}",
        ];

    private static string? ReaderOf(string path)
    {
        Span<byte> head = stackalloc byte[64];
        int read;
        using (var file = File.OpenRead(path))
        {
            read = file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        }

        return PictureFormats.FilmReader(head[..read]);
    }

    private static IEnumerable<KeyValuePair<string, string>> Tags(JsonElement of) =>
        of.TryGetProperty("tags", out var tags)
            ? tags.EnumerateObject()
                .Where(t => t.Value.ValueKind == JsonValueKind.String)
                .Select(t => KeyValuePair.Create(t.Name, t.Value.GetString()!))
            : [];

    private static bool IsOnItsSide(JsonElement stream)
    {
        var turn = Tags(stream).Where(t => t.Key == "rotate").Select(t => Parse(t.Value)).FirstOrDefault();
        if (stream.TryGetProperty("side_data_list", out var sides))
        {
            turn = sides.EnumerateArray().Select(s => Number(s, "rotation")).FirstOrDefault(r => r != 0, turn);
        }

        return Math.Abs((int)Math.Round(turn)) % 180 == 90;
    }

    private static double Rate(string text) =>
        text.Split('/') is [var up, var down] && Parse(down) > 0 ? Parse(up) / Parse(down) : 0;

    private static string Text(JsonElement of, string name) =>
        of.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString()! : "";

    private static double Number(JsonElement of, string name) =>
        !of.TryGetProperty(name, out var value) ? 0
        : value.ValueKind == JsonValueKind.Number ? value.GetDouble()
        : value.ValueKind == JsonValueKind.String ? Parse(value.GetString()!)
        : 0;

    private static double Parse(string text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        && double.IsFinite(number)
            ? number
            : 0;
}
