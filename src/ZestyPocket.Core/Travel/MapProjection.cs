using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A place on the plane of a map: radii of the Earth east and north of its middle.</summary>
public readonly record struct MapPoint(double East, double North);

/// <summary>
/// The globe on a plane, true to area. A way that keeps within 45 degrees of its middle lies around its own middle,
/// so the poles and the date line are places like any other; a longer one lies on a map of the world. Web Mercator
/// is never used: it stretches without bound towards the poles.
/// </summary>
public abstract record MapProjection(GeoPoint Middle)
{
    /// <summary>Farther from the middle than this, in degrees, only a map of the world has room.</summary>
    private const double WidestRegion = 45;

    public abstract MapPoint Project(GeoPoint place);

    /// <summary>The projection for a way. Throws <see cref="RuleException"/> for no places at all.</summary>
    public static MapProjection For(IReadOnlyCollection<GeoPoint> places)
    {
        ArgumentNullException.ThrowIfNull(places);
        if (places.Count == 0)
        {
            throw new RuleException("A map needs a place. Nothing was drawn.");
        }

        var sum = places
            .Select(Vector)
            .Aggregate((X: 0.0, Y: 0.0, Z: 0.0), (a, b) => (a.X + b.X, a.Y + b.Y, a.Z + b.Z));
        var length = Math.Sqrt((sum.X * sum.X) + (sum.Y * sum.Y) + (sum.Z * sum.Z));
        var middle =
            length < 1e-9
                ? new GeoPoint(0, places.First().Longitude)
                : new GeoPoint(
                    Degrees(Math.Asin(Math.Clamp(sum.Z / length, -1, 1))),
                    Degrees(Math.Atan2(sum.Y, sum.X))
                );
        return places.All(p => DegreesBetween(middle, p) <= WidestRegion)
            ? new RegionProjection(middle)
            : new WorldProjection(middle.Longitude);
    }

    /// <summary>The angle between two places seen from the middle of the globe.</summary>
    public static double DegreesBetween(GeoPoint a, GeoPoint b) =>
        Degrees(Geodesic.OnSphere(a, b).Metres / Geodesic.MeanRadius);

    internal static (double X, double Y, double Z) Vector(GeoPoint p)
    {
        var (sinLat, cosLat) = Math.SinCos(Geodesic.Radians(p.Latitude));
        var (sinLon, cosLon) = Math.SinCos(Geodesic.Radians(p.Longitude));
        return (cosLat * cosLon, cosLat * sinLon, sinLat);
    }

    private static double Degrees(double radians) => radians * 180 / Math.PI;
}

/// <summary>
/// Lambert's azimuthal equal-area projection of the sphere around a place. Source: J. P. Snyder, Map Projections: A
/// Working Manual (USGS Professional Paper 1395, 1987), equations 24-2 and 22-4 to 22-5.
/// </summary>
public sealed record RegionProjection(GeoPoint Middle) : MapProjection(Middle)
{
    /// <summary>The whole globe lies within this circle; the place opposite the middle is the circle itself.</summary>
    public const double Edge = 2;

    private readonly (double Sin, double Cos) _middle = Math.SinCos(Geodesic.Radians(Middle.Latitude));

    public override MapPoint Project(GeoPoint place)
    {
        var (sin, cos) = Math.SinCos(Geodesic.Radians(place.Latitude));
        var (sinEast, cosEast) = Math.SinCos(Geodesic.Radians(place.Longitude - Middle.Longitude));
        var toMiddle = 1 + (_middle.Sin * sin) + (_middle.Cos * cos * cosEast);
        var (east, north) = (cos * sinEast, (_middle.Cos * sin) - (_middle.Sin * cos * cosEast));
        if (toMiddle > 1e-12)
        {
            var k = Math.Sqrt(2 / toMiddle);
            return new MapPoint(k * east, k * north);
        }

        // Opposite the middle: a point of the edge in the direction it was come to from.
        var length = Math.Sqrt((east * east) + (north * north));
        return length > 0 ? new MapPoint(Edge * east / length, Edge * north / length) : new MapPoint(0, -Edge);
    }
}

/// <summary>
/// The Equal Earth projection of the sphere. Source: B. Šavrič, T. Patterson and B. Jenny, "The Equal Earth map
/// projection", International Journal of Geographical Information Science 33 (2019), equations 5 to 8.
/// </summary>
public sealed record WorldProjection(double MiddleLongitude) : MapProjection(new GeoPoint(0, MiddleLongitude))
{
    private const double A1 = 1.340264;
    private const double A2 = -0.081106;
    private const double A3 = 0.000893;
    private const double A4 = 0.003796;

    private static readonly double HalfRoot3 = Math.Sqrt(3) / 2;

    public override MapPoint Project(GeoPoint place) =>
        At(place.Latitude, Math.IEEERemainder(place.Longitude - MiddleLongitude, 360));

    /// <summary>A place by its latitude and how far east of the middle it lies, −180 to 180 degrees.</summary>
    public static MapPoint At(double latitude, double east)
    {
        var t = Math.Asin(HalfRoot3 * Math.Sin(Geodesic.Radians(latitude)));
        var t2 = t * t;
        var t6 = t2 * t2 * t2;
        var across = 3 * (A1 + (3 * A2 * t2) + (t6 * ((7 * A3) + (9 * A4 * t2))));
        return new MapPoint(
            2 * Math.Sqrt(3) * Geodesic.Radians(east) * Math.Cos(t) / across,
            t * (A1 + (A2 * t2) + (t6 * (A3 + (A4 * t2))))
        );
    }
}
