using System.Globalization;
using NetVips;
using NodaTime;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Server.Demo;

/// <summary>
/// One snapshot of the demo household, as its camera would have written it. A shot without a camera is a file that says
/// nothing of itself; blur is in pixels.
/// </summary>
public sealed record DemoShot(
    string FileName,
    Scene Scene,
    int Seed,
    int Width,
    int Height,
    LocalDateTime Taken,
    string? Camera,
    int? OffsetMinutes,
    double Latitude,
    double Longitude,
    double Blur = 0
)
{
    /// <summary>It is held by hand: a little tilted, nearer or further, in the light of its day.</summary>
    public bool Handheld { get; init; } = true;

    /// <summary>The same shot by a camera of fewer pixels.</summary>
    public DemoShot At(double share) => this with { Width = (int)(Width * share), Height = (int)(Height * share) };
}

/// <summary>Turns shots into JPEG files with EXIF time, zone, camera and position. All of it is made up.</summary>
public static class DemoPictures
{
    private const int GrainSide = 256;

    private static readonly Lazy<Image> Grain = new(() =>
    {
        var dice = new Random(7);
        var noise = new byte[GrainSide * GrainSide];
        for (var i = 0; i < noise.Length; i++)
        {
            noise[i] = (byte)(128 + dice.Next(-11, 12));
        }

        return Image.NewFromMemory(noise, GrainSide, GrainSide, 1, Enums.BandFormat.Uchar);
    });

    /// <summary>The JPEG of a shot; the same shot gives the same bytes.</summary>
    public static byte[] Jpeg(DemoShot shot)
    {
        ArgumentNullException.ThrowIfNull(shot);
        PhotoEngine.Start();
        var hour = shot.Taken.Hour + (shot.Taken.Minute / 60.0);
        var (width, height) = ((int)(shot.Width / DemoScenes.Smaller), (int)(shot.Height / DemoScenes.Smaller));
        using var bitmap = new DemoScenes(shot.Seed, shot.Scene, hour, shot.Handheld).Paint(width, height);
        using var rgba = Image.NewFromMemoryCopy(
            bitmap.GetPixels(),
            (ulong)bitmap.ByteCount,
            width,
            height,
            4,
            Enums.BandFormat.Uchar
        );
        using var rgb = rgba.ExtractBand(0, n: 3);
        using var large = rgb.Resize(
            (double)shot.Width / width,
            vscale: (double)shot.Height / height,
            kernel: Enums.Kernel.Linear
        );
        using var grain = Grain
            .Value.Replicate((shot.Width / GrainSide) + 1, (shot.Height / GrainSide) + 1)
            .Crop(0, 0, shot.Width, shot.Height);
        using var grainy = (large + grain - 128)
            .Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        using var seen = shot.Blur > 0 ? grainy.Gaussblur(shot.Blur) : grainy.Copy();
        using var tagged = seen.Mutate(image =>
        {
            if (shot.Camera is null)
            {
                return;
            }

            var taken = shot.Taken.ToString("uuuu':'MM':'dd HH':'mm':'ss", CultureInfo.InvariantCulture);
            var parts = shot.Camera.Split(' ', 2);
            Set("exif-ifd0-Make", parts[0]);
            Set("exif-ifd0-Model", parts[^1]);
            Set("exif-ifd2-DateTimeOriginal", taken);
            Set("exif-ifd2-DateTimeDigitized", taken);
            if (shot.OffsetMinutes is { } offset)
            {
                Set(
                    "exif-ifd2-OffsetTimeOriginal",
                    Offset.FromSeconds(offset * 60).ToString("+HH:mm", CultureInfo.InvariantCulture)
                );
                Set("exif-ifd3-GPSLatitudeRef", shot.Latitude >= 0 ? "N" : "S");
                Set("exif-ifd3-GPSLatitude", Degrees(shot.Latitude));
                Set("exif-ifd3-GPSLongitudeRef", shot.Longitude >= 0 ? "E" : "W");
                Set("exif-ifd3-GPSLongitude", Degrees(shot.Longitude));
            }

            void Set(string field, string value) => image.Set(GValue.GStrType, field, value);
        });
        return tagged.JpegsaveBuffer(q: 88);
    }

    private static string Degrees(double value)
    {
        var absolute = Math.Abs(value);
        var degrees = (int)absolute;
        var minutes = (int)((absolute - degrees) * 60);
        var seconds = (int)Math.Round((((absolute - degrees) * 60) - minutes) * 60 * 100);
        return string.Create(CultureInfo.InvariantCulture, $"{degrees}/1 {minutes}/1 {seconds}/100");
    }
}
