using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// A card seen by a pinhole camera at random poses, drawn point by point: squared up, its marks lie where they were
/// printed.
/// </summary>
public sealed class SquaringTests : IDisposable
{
    private const int PhotoWide = 600;
    private const int PhotoHigh = 450;

    /// <summary>In inches.</summary>
    private static readonly (double X, double Y)[] Marks =
    [
        (0.16, 0.16),
        (1.34, 0.2),
        (0.75, 1),
        (0.2, 1.84),
        (1.3, 1.8),
    ];

    private static readonly Size Card = Size.FromInches(1.5m, 2);

    private readonly string _path = Path.Combine(Path.GetTempPath(), $"zesty-card-{Guid.NewGuid():N}.png");

    public void Dispose() => File.Delete(_path);

    [Trait("Duration", "Long")]
    [Fact]
    public void At_random_poses_every_mark_is_within_half_a_millimetre()
    {
        for (var seed = 1; seed <= Thorough.Of(200, 60); seed++)
        {
            var project = Camera(seed);
            Photograph(project);
            var corners = CornersOf(project);
            // As the keeper would set them; every fourth also as the program finds them.
            Worst(corners).ShouldBeLessThan(0.5, $"pose {seed}, corners as set");
            if (seed % 4 == 0)
            {
                Worst(Squaring.Find(PictureIntake.Thumbnail(_path, Squaring.SmallSide)))
                    .ShouldBeLessThan(0.5, $"pose {seed}, corners as found");
            }
        }
    }

    [Fact]
    public void A_photo_of_nothing_but_a_table_has_no_card()
    {
        using (var bitmap = new SKBitmap(400, 300))
        {
            bitmap.Erase(new SKColor(90, 70, 60));
            using var file = File.Create(_path);
            bitmap.Encode(file, SKEncodedImageFormat.Png, 100);
        }

        Squaring.Find(PictureIntake.Thumbnail(_path, Squaring.SmallSide)).ShouldBe(CardCorners.Whole);
    }

    /// <summary>The farthest that a mark lies from where it was printed, in millimetres.</summary>
    private double Worst(CardCorners corners)
    {
        var whole = new Rect(Length.Zero, Length.Zero, Card);
        var face = new SquaredFace(
            Card,
            new PictureRef(TestPictures.KeyOf("0"), 1, ImmutableArray<PictureBox>.Empty),
            corners,
            Card,
            whole
        );
        using var squared = SKBitmap.Decode(
            Squaring.Jpeg(PictureIntake.Thumbnail(_path, Squaring.LongestSide), face, 300)
        );
        (squared.Width, squared.Height).ShouldBe((450, 600));
        var pixels = squared.Pixels;
        return Marks.Max(m =>
        {
            var (x, y) = Found(pixels, m.X * 300, m.Y * 300);
            return Math.Sqrt(Math.Pow(x - (m.X * 300), 2) + Math.Pow(y - (m.Y * 300), 2)) / 300 * 25.4;
        });
    }

    /// <summary>The middle of the dark pixels around a place.</summary>
    private static (double X, double Y) Found(SKColor[] pixels, double x, double y)
    {
        double sumX = 0,
            sumY = 0,
            count = 0;
        for (var row = (int)y - 45; row <= (int)y + 45; row++)
        {
            for (var column = (int)x - 45; column <= (int)x + 45; column++)
            {
                if (pixels[(row * 450) + column].Red < 128)
                {
                    (sumX, sumY, count) = (sumX + column + 0.5, sumY + row + 0.5, count + 1);
                }
            }
        }

        count.ShouldBeGreaterThan(100);
        return (sumX / count, sumY / count);
    }

    /// <summary>A camera that looks at the card, turned up to 30 degrees each way: inches to pixels.</summary>
    private static Func<double, double, (double X, double Y)> Camera(int seed)
    {
        var random = new Random(seed);
        var (tilt, pan, roll) = (Angle(30), Angle(30), Angle(25));
        var distance = 4.75 + random.NextDouble();
        var (moveX, moveY) = ((random.NextDouble() - 0.5) / 2, (random.NextDouble() - 0.5) / 2);
        return (x, y) =>
        {
            // Around the middle of the card, then turned about three axes, then away from the camera.
            var (px, py, pz) = (x - 0.75, y - 1, 0.0);
            (px, py) = ((px * Math.Cos(roll)) - (py * Math.Sin(roll)), (px * Math.Sin(roll)) + (py * Math.Cos(roll)));
            (py, pz) = ((py * Math.Cos(tilt)) - (pz * Math.Sin(tilt)), (py * Math.Sin(tilt)) + (pz * Math.Cos(tilt)));
            (px, pz) = ((px * Math.Cos(pan)) + (pz * Math.Sin(pan)), (pz * Math.Cos(pan)) - (px * Math.Sin(pan)));
            var depth = pz + distance;
            return ((PhotoWide / 2.0) + (600 * (px + moveX) / depth), (PhotoHigh / 2.0) + (600 * (py + moveY) / depth));
        };

        double Angle(double degrees) => ((random.NextDouble() * 2) - 1) * degrees * Math.PI / 180;
    }

    private static CardCorners CornersOf(Func<double, double, (double X, double Y)> project)
    {
        return new CardCorners(At(0, 0), At(1.5, 0), At(1.5, 2), At(0, 2));

        PicturePoint At(double x, double y)
        {
            var (u, v) = project(x, y);
            return new PicturePoint(u / PhotoWide, v / PhotoHigh);
        }
    }

    private void Photograph(Func<double, double, (double X, double Y)> project)
    {
        using var surface = SKSurface.Create(new SKImageInfo(PhotoWide, PhotoHigh));
        surface.Canvas.Clear(new SKColor(74, 58, 48));
        Fill([(0, 0), (1.5, 0), (1.5, 2), (0, 2)], new SKColor(238, 233, 222));
        foreach (var (x, y) in Marks)
        {
            Fill(
                [
                    .. Enumerable
                        .Range(0, 48)
                        .Select(i => 2 * Math.PI * i / 48)
                        .Select(a => (x + (0.05 * Math.Cos(a)), y + (0.05 * Math.Sin(a)))),
                ],
                new SKColor(30, 30, 40)
            );
        }

        using var image = surface.Snapshot();
        using var png = image.Encode(SKEncodedImageFormat.Jpeg, 95);
        File.WriteAllBytes(_path, png.ToArray());

        void Fill((double X, double Y)[] outline, SKColor colour)
        {
            var data = string.Join(
                ' ',
                outline.Select(
                    (p, i) =>
                    {
                        var (u, v) = project(p.X, p.Y);
                        return FormattableString.Invariant($"{(i == 0 ? 'M' : 'L')}{u:R} {v:R}");
                    }
                )
            );
            using var path = SKPath.ParseSvgPathData(data + " Z");
            using var paint = new SKPaint { Color = colour, IsAntialias = true };
            surface.Canvas.DrawPath(path, paint);
        }
    }
}
