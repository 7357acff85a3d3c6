using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Travel;

namespace ZestyPocket.Core.Words;

/// <summary>A place on the globe in degrees; north and east are positive.</summary>
public readonly record struct GeoPoint(double Latitude, double Longitude);

/// <summary>
/// The way of a day or a stretch of days as its pictures show it: points in their order, joined by straight lines,
/// north up. No coast, no road: nothing is claimed that no picture knows.
/// </summary>
public static class SketchMap
{
    /// <summary>Great-circle distance by the haversine formula.</summary>
    public static double Kilometres(GeoPoint a, GeoPoint b) => Geodesic.OnSphere(a, b).Kilometres;

    /// <summary>Length of the way from point to point: at least so far was gone.</summary>
    public static double Way(IReadOnlyList<GeoPoint> points)
    {
        ArgumentNullException.ThrowIfNull(points);
        return points.Zip(points.Skip(1)).Sum(p => Kilometres(p.First, p.Second));
    }

    /// <summary>The way in words; null when nobody moved more than a hundred metres.</summary>
    public static string? Words(IReadOnlyList<GeoPoint> points)
    {
        var way = Way(points);
        return way < 0.1
            ? null
            : string.Create(
                    CultureInfo.InvariantCulture,
                    $"At least {(way < 10 ? Math.Round(way, 1) : Math.Round(way)):N1} km"
                )
                .Replace(".0 km", " km", StringComparison.Ordinal);
    }

    /// <summary>
    /// The points inside a box, as large as they go with north up and east and north to one scale; a single point lies
    /// in its middle. Gives nothing for no points.
    /// </summary>
    public static ImmutableArray<(double X, double Y)> Fit(
        IReadOnlyList<GeoPoint> points,
        double x,
        double y,
        double width,
        double height
    )
    {
        ArgumentNullException.ThrowIfNull(points);
        if (points.Count == 0)
        {
            return [];
        }

        // A degree of longitude is shorter away from the equator; a way over the date line stays in one piece.
        var middle = points.Average(p => p.Latitude);
        var flat = points
            .Select(p => (X: Near(p.Longitude, points[0].Longitude) * Math.Cos(Radians(middle)), Y: -p.Latitude))
            .ToList();
        var (left, right, top, bottom) = (
            flat.Min(p => p.X),
            flat.Max(p => p.X),
            flat.Min(p => p.Y),
            flat.Max(p => p.Y)
        );
        var scale = Math.Min(Fraction(width, right - left), Fraction(height, bottom - top));
        scale = double.IsInfinity(scale) ? 0 : scale;
        return
        [
            .. flat.Select(p =>
                (
                    x + (width / 2) + ((p.X - ((left + right) / 2)) * scale),
                    y + (height / 2) + ((p.Y - ((top + bottom) / 2)) * scale)
                )
            ),
        ];

        // Nearer than a metre is one place: no receiver tells more, and a double at 180 degrees little more.
        static double Fraction(double room, double span) => span > 1e-5 ? room / span : double.PositiveInfinity;
    }

    /// <summary>A card with the way on it.</summary>
    public static CardFace Card(
        IReadOnlyList<GeoPoint> points,
        CardStyle style,
        Size cut,
        ITextShaper shaper,
        string heading,
        string? mark
    )
    {
        ArgumentNullException.ThrowIfNull(points);
        ArgumentNullException.ThrowIfNull(style);
        var words = points.Count == 0 ? "No picture says where it was taken." : Words(points) ?? "In one place";
        // The words keep to one line at the foot, so the type is small and the way has the room.
        var face = CardComposer.Journaling(string.Empty, style with { Ruled = false }, cut, shaper, heading, mark);
        var area = CardComposer.Areas(style, cut, heading: true)[0];
        var foot = Copyfit.Fit(
            words,
            area.Width,
            Math.Min(24, area.Height / 3),
            style.Type with
            {
                SmallestPt = TypeRange.SmallestEverPt,
                LargestPt = 10,
            },
            shaper
        );
        var high = (foot.Lines.Length * foot.LeadingPt) + 4;
        var placed = Fit(
            points,
            area.X + 8,
            area.Y + 8,
            Math.Max(1, area.Width - 16),
            Math.Max(1, area.Height - high - 16)
        );
        var ink = Rgb.Contrast(style.Accent, style.Paper) >= 1.5 ? style.Accent : style.Ink;
        return face with
        {
            Rules =
            [
                .. face.Rules,
                .. placed
                    .Zip(placed.Skip(1))
                    .Select(p => new InkLine(p.First.X, p.First.Y, p.Second.X, p.Second.Y, 1.25, ink)),
            ],
            Discs =
            [
                .. face.Discs,
                .. placed.Select(p => new InkDisc(p.X, p.Y, 2, 0, ink)),
                .. placed.Take(1).Select(p => new InkDisc(p.X, p.Y, 5, 1.5, style.Ink)),
                .. placed.Skip(1).TakeLast(1).Select(p => new InkDisc(p.X, p.Y, 4.5, 0, style.Ink)),
            ],
            Runs =
            [
                .. face.Runs,
                .. foot.Lines.Select(l =>
                    TypeRun.Of(l, style.Type.Face, foot.SizePt, style.Ink) with
                    {
                        X = area.X + l.X,
                        Baseline = area.Y + area.Height - high + 4 + l.Baseline,
                    }
                ),
            ],
            Fit = foot,
        };
    }

    private static double Near(double longitude, double to) => longitude - (360 * Math.Round((longitude - to) / 360));

    private static double Radians(double degrees) => degrees * Math.PI / 180;
}
