using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using NodaTime.Text;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// Files of real cameras, as the npm packages exif, jpeg-exif and exif-parser carry them for their own tests; what is
/// read here is compared with what exiftool reads, by Phil Harvey, the usual reference for metadata.
/// </summary>
public sealed class RealCameraTests
{
    private static readonly string Packages = Path.Combine(Root(), "src", "web", "node_modules");

    public static TheoryData<string> Files =>
        [
            .. new[] { "exif", "jpeg-exif", "exif-parser" }
                .SelectMany(p => Directory.GetFiles(Path.Combine(Packages, p, "test")))
                .Where(f => Path.GetExtension(f).Equals(".jpg", StringComparison.OrdinalIgnoreCase))
                .Select(f => Path.GetRelativePath(Packages, f))
                .Order(StringComparer.Ordinal),
        ];

    [Fact]
    public void There_are_real_files_to_look_at() => Files.Count.ShouldBeGreaterThan(10);

    [Theory]
    [MemberData(nameof(Files))]
    public void Time_camera_place_and_size_agree_with_exiftool(string file)
    {
        var path = Path.Combine(Packages, file);
        var theirs = Exiftool(path);
        PictureFacts ours;
        try
        {
            ours = PictureIntake.Inspect(path);
        }
        catch (PictureRefusedException refused)
        {
            // Some are cut to their metadata, as test files: these have no picture, and that is what is said.
            refused.Message.ShouldMatch("header cannot be read|breaks off|too small");
            return;
        }

        var (width, height) = ((int)theirs.Number("ImageWidth")!, (int)theirs.Number("ImageHeight")!);
        var turned = theirs.Number("Orientation") is >= 5 and <= 8;
        (ours.Pixels.Width, ours.Pixels.Height).ShouldBe(turned ? (height, width) : (width, height));

        var time = LocalDateTimePattern
            .CreateWithInvariantCulture("uuuu:MM:dd HH:mm:ss")
            .Parse(theirs.Text("DateTimeOriginal") ?? theirs.Text("CreateDate") ?? string.Empty);
        var parts = theirs.Text("DateTimeOriginal") is null ? "SubSecCreateDate" : "SubSecDateTimeOriginal";
        var behindThePoint =
            (theirs.Text(parts) ?? string.Empty).Split('.', '+', '-') is [_, { Length: > 0 } digits, ..]
            && theirs.Text(parts)!.Contains('.', StringComparison.Ordinal)
                ? int.Parse(digits.PadRight(3, '0')[..3], System.Globalization.CultureInfo.InvariantCulture)
                : 0;
        ours.Recorded.ShouldBe(time.Success ? time.Value.PlusMilliseconds(behindThePoint) : null);
        if (theirs.Text("Model") is { } model && ours.Camera is not null)
        {
            ours.Camera.ShouldContain(model.Trim());
        }

        if (
            theirs.Number("GPSLatitude") is { } latitude
            && theirs.Number("GPSLongitude") is { } longitude
            && (latitude, longitude) != (0, 0)
        )
        {
            ours.Latitude!.Value.ShouldBe(latitude, 0.0001);
            ours.Longitude!.Value.ShouldBe(longitude, 0.0001);
        }
        else
        {
            (ours.Latitude, ours.Longitude).ShouldBe((null, null));
        }
    }

    private static Tags Exiftool(string path)
    {
        using var process = Process.Start(
            new ProcessStartInfo(
                "exiftool",
                [
                    "-json",
                    "-n",
                    "-DateTimeOriginal",
                    "-CreateDate",
                    "-SubSecDateTimeOriginal",
                    "-SubSecCreateDate",
                    "-Model",
                    "-GPSLatitude",
                    "-GPSLongitude",
                    "-ImageWidth",
                    "-ImageHeight",
                    "-Orientation",
                    path,
                ]
            )
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var json = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return new Tags(JsonDocument.Parse(json).RootElement[0]);
    }

    private sealed record Tags(JsonElement Element)
    {
        public string? Text(string name) => Element.TryGetProperty(name, out var value) ? value.ToString() : null;

        public double? Number(string name) =>
            double.TryParse(Text(name), CultureInfo.InvariantCulture, out var value) ? value : null;
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "ZestyPocket.slnx")))
        {
            folder = folder.Parent;
        }

        return folder.FullName;
    }
}
