using System.Globalization;
using NetVips;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>Videos that ffmpeg made: what they say against ffprobe and exiftool, and their frames.</summary>
public sealed class VideoTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-video-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Two seconds: a test picture that moves, 320 x 240, 25 frames a second.</summary>
    private async Task<string> FilmAsync(string name, params string[] more)
    {
        var path = Path.Combine(_folder, name);
        var (code, output) = await OtherReaders.Run(
            "ffmpeg",
            ["-v", "error", "-f", "lavfi", "-i", "testsrc=duration=2:size=320x240:rate=25", .. more, path]
        );
        code.ShouldBe(0, output);
        return path;
    }

    private static async Task<string> ProbeAsync(string path, string what) =>
        (await OtherReaders.Run("ffprobe", "-v", "error", "-show_entries", what, "-of", "csv=p=0", path)).Output.Trim();

    [Theory]
    [InlineData("a.mp4", "mpeg4")]
    [InlineData("a.mov", "mpeg4")]
    [InlineData("a.mkv", "mpeg4")]
    [InlineData("a.webm", "libvpx")]
    [InlineData("a.avi", "mpeg4")]
    public async Task Every_kind_is_read_as_ffprobe_reads_it(string name, string codec)
    {
        var path = await FilmAsync(name, "-c:v", codec);
        VideoFiles.Is(path).ShouldBeTrue();
        var facts = VideoFiles.Inspect(path);
        var probed = await ProbeAsync(path, "stream=width,height");
        $"{facts.Pixels.Width},{facts.Pixels.Height}".ShouldBe(probed);
        var seconds = double.Parse(await ProbeAsync(path, "format=duration"), CultureInfo.InvariantCulture);
        (facts.Milliseconds / 1000.0).ShouldBe(seconds, 0.05);
        facts.FramesPerSecond.ShouldBe(25, 0.5);
        facts.Start.ShouldBe(new VideoStart(null, null, null));
    }

    [Theory]
    [InlineData("b.mp4")]
    [InlineData("b.mov")]
    public async Task The_creation_time_is_that_of_exiftool_in_utc(string name)
    {
        var path = await FilmAsync(name, "-c:v", "mpeg4", "-metadata", "creation_time=2026-05-04T08:12:30Z");
        var start = VideoFiles.Inspect(path).Start;
        start.Instant.ShouldBe(Instant.FromUtc(2026, 5, 4, 8, 12, 30));
        start.Local.ShouldBeNull();
        var (_, read) = await OtherReaders.Run("exiftool", "-s3", "-CreateDate", path);
        read.Trim().ShouldBe("2026:05:04 08:12:30");
        (await ProbeAsync(path, "format_tags=creation_time")).ShouldStartWith("2026-05-04T08:12:30");
    }

    [Fact]
    public async Task A_telephones_own_time_and_model_are_preferred()
    {
        var path = await FilmAsync(
            "c.mov",
            "-c:v",
            "mpeg4",
            "-movflags",
            "use_metadata_tags",
            "-metadata",
            "creation_time=2026-05-04T08:12:30Z",
            "-metadata",
            "com.apple.quicktime.creationdate=2026-05-04T10:12:30+0200",
            "-metadata",
            "com.apple.quicktime.make=Testmaker",
            "-metadata",
            "com.apple.quicktime.model=Phone 3"
        );
        var facts = VideoFiles.Inspect(path);
        facts.Start.Local.ShouldBe(new LocalDateTime(2026, 5, 4, 10, 12, 30));
        facts.Start.OffsetMinutes.ShouldBe(120);
        facts.Camera.ShouldBe("Testmaker Phone 3");
        var (_, read) = await OtherReaders.Run("exiftool", "-s3", "-CreationDate", path);
        read.Trim().ShouldBe("2026:05:04 10:12:30+02:00");
    }

    [Fact]
    public async Task A_video_on_its_side_is_upright()
    {
        var lying = await FilmAsync("d0.mp4", "-c:v", "mpeg4");
        var path = Path.Combine(_folder, "d.mp4");
        (
            await OtherReaders.Run(
                "ffmpeg",
                "-v",
                "error",
                "-i",
                lying,
                "-c",
                "copy",
                "-metadata:s:v:0",
                "rotate=90",
                path
            )
        ).Code.ShouldBe(0);
        VideoFiles.Inspect(path).Pixels.ShouldBe(new PixelSize(240, 320));
        var still = Path.Combine(_folder, "d.jpg");
        VideoFiles.Frame(path, 500, 4000, still);
        using var picture = Image.NewFromFile(still);
        (picture.Width, picture.Height).ShouldBe((240, 320));
    }

    [Fact]
    public async Task A_still_carries_its_time_offset_and_camera_so_that_it_is_dated_as_a_picture()
    {
        var path = await FilmAsync("e.mp4", "-c:v", "mpeg4");
        var still = Path.Combine(_folder, "e.jpg");
        VideoFiles.Still(
            path,
            1200,
            new VideoStart(new LocalDateTime(2026, 5, 4, 10, 12, 31, 200), 120, null),
            "Testmaker Phone 3",
            still
        );
        var facts = PictureIntake.Inspect(still);
        facts.Recorded.ShouldBe(new LocalDateTime(2026, 5, 4, 10, 12, 31, 200));
        facts.OffsetMinutes.ShouldBe(120);
        facts.Camera.ShouldBe("Testmaker Phone 3");
        facts.Pixels.ShouldBe(new PixelSize(320, 240));
        var (_, read) = await OtherReaders.Run("exiftool", "-s3", "-DateTimeOriginal", "-OffsetTimeOriginal", still);
        read.Trim().ShouldBe("2026:05:04 10:12:31\n+02:00");
    }

    [Trait("Duration", "Long")]
    [Fact]
    public async Task The_last_moment_has_a_frame_and_frames_a_second_apart_differ()
    {
        var path = await FilmAsync("f.mp4", "-c:v", "mpeg4");
        var (first, last) = (Path.Combine(_folder, "f0.jpg"), Path.Combine(_folder, "f1.jpg"));
        VideoFiles.Frame(path, 0, 320, first);
        VideoFiles.Frame(path, VideoFiles.Inspect(path).Milliseconds - 1, 320, last);
        File.ReadAllBytes(first).ShouldNotBe(File.ReadAllBytes(last));
        var looked = VideoFiles.Look(path, 2000, 6, TestContext.Current.CancellationToken);
        looked.Count.ShouldBe(6);
        looked.ShouldAllBe(f => f.Sharpness > 0);
    }

    [Fact]
    public async Task A_video_cut_off_anywhere_is_refused_or_gives_what_it_has()
    {
        var whole = await File.ReadAllBytesAsync(
            await FilmAsync("g.mp4", "-c:v", "mpeg4"),
            TestContext.Current.CancellationToken
        );
        foreach (var share in new[] { 0.02, 0.3, 0.6, 0.9, 0.99 })
        {
            var path = Path.Combine(_folder, "cut.mp4");
            await File.WriteAllBytesAsync(
                path,
                whole[..(int)(whole.Length * share)],
                TestContext.Current.CancellationToken
            );
            // The index of an MP4 comes last, so every cut takes it away.
            Should.Throw<PictureRefusedException>(() => VideoFiles.Inspect(path)).Message.ShouldContain("damaged");
        }

        var stream = await File.ReadAllBytesAsync(
            await FilmAsync("g.mkv", "-c:v", "mpeg4"),
            TestContext.Current.CancellationToken
        );
        var half = Path.Combine(_folder, "half.mkv");
        await File.WriteAllBytesAsync(half, stream[..(stream.Length / 2)], TestContext.Current.CancellationToken);
        var facts = VideoFiles.Inspect(half);
        var still = Path.Combine(_folder, "half.jpg");
        VideoFiles.Frame(half, facts.Milliseconds - 1, 320, still);
        new FileInfo(still).Length.ShouldBeGreaterThan(500);
    }

    [Fact]
    public void A_list_of_other_files_is_no_video()
    {
        // Readers of such lists would open whatever they name.
        foreach (
            var text in new[]
            {
                "#EXTM3U\n#EXTINF:1,\nfile:///etc/passwd\n",
                "ffconcat version 1.0\nfile /etc/passwd\n",
            }
        )
        {
            var path = Path.Combine(_folder, "list.mp4");
            File.WriteAllText(path, text);
            VideoFiles.Is(path).ShouldBeFalse();
            Should.Throw<PictureRefusedException>(() => VideoFiles.Inspect(path)).Message.ShouldContain("no MP4");
        }

        // Bytes of nothing behind a true beginning.
        var noise = Path.Combine(_folder, "noise.mp4");
        var bytes = new byte[200_000];
        new Random(5).NextBytes(bytes);
        "\0\0\0\u0018ftypisom"u8.CopyTo(bytes);
        File.WriteAllBytes(noise, bytes);
        Should.Throw<PictureRefusedException>(() => VideoFiles.Inspect(noise)).Message.ShouldContain("damaged");
    }

    [Fact]
    public async Task Sound_without_a_picture_is_refused()
    {
        var path = Path.Combine(_folder, "sound.mp4");
        (
            await OtherReaders.Run("ffmpeg", "-v", "error", "-f", "lavfi", "-i", "sine=duration=1", "-c:a", "aac", path)
        ).Code.ShouldBe(0);
        Should.Throw<PictureRefusedException>(() => VideoFiles.Inspect(path)).Message.ShouldContain("no picture");
    }
}
