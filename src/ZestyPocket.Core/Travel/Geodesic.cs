using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A way over the ground.</summary>
/// <param name="Metres">From 0.</param>
public readonly record struct Distance(double Metres) : IComparable<Distance>
{
    /// <summary>The international mile of 1959: 1,609.344 m exactly.</summary>
    private const double MetresInMile = 1609.344;

    public static Distance None { get; }

    public double Kilometres => Metres / 1000;

    public double Miles => Metres / MetresInMile;

    public static Distance FromKilometres(double kilometres) => new(kilometres * 1000);

    public static Distance FromMiles(double miles) => new(miles * MetresInMile);

    public static Distance operator +(Distance a, Distance b) => new(a.Metres + b.Metres);

    public static bool operator <(Distance a, Distance b) => a.Metres < b.Metres;

    public static bool operator >(Distance a, Distance b) => a.Metres > b.Metres;

    public static bool operator <=(Distance a, Distance b) => a.Metres <= b.Metres;

    public static bool operator >=(Distance a, Distance b) => a.Metres >= b.Metres;

    public static Distance Add(Distance a, Distance b) => a + b;

    public int CompareTo(Distance other) => Metres.CompareTo(other.Metres);
}

/// <summary>
/// Shortest ways on the WGS 84 ellipsoid. Source: T. Vincenty, "Direct and inverse solutions of geodesics on the
/// ellipsoid with application of nested equations", Survey Review 23 (1975).
/// </summary>
public static class Geodesic
{
    /// <summary>Half the long axis of WGS 84 in metres (NIMA TR8350.2).</summary>
    public const double Equatorial = 6_378_137;

    /// <summary>Flattening of WGS 84 (NIMA TR8350.2).</summary>
    public const double Flattening = 1 / 298.257223563;

    /// <summary>Mean radius of the Earth in metres, IUGG.</summary>
    public const double MeanRadius = 6_371_008.8;

    private const double Polar = Equatorial * (1 - Flattening);

    /// <summary>
    /// Length of the shortest way. Between nearly opposite points, for which the series does not converge, it is the
    /// shortest of the ways that are put together of two halves.
    /// </summary>
    public static Distance Between(GeoPoint from, GeoPoint to) => Converged(from, to) ?? InHalves(from, to);

    /// <summary>Null where the series does not converge.</summary>
    private static Distance? Converged(GeoPoint from, GeoPoint to)
    {
        var (u1, u2) = (Reduced(from.Latitude), Reduced(to.Latitude));
        var apart = Radians(Math.IEEERemainder(to.Longitude - from.Longitude, 360));
        var (sin1, cos1, sin2, cos2) = (Math.Sin(u1), Math.Cos(u1), Math.Sin(u2), Math.Cos(u2));
        var lambda = apart;
        for (var round = 0; round < 100; round++)
        {
            var (sinLambda, cosLambda) = Math.SinCos(lambda);
            var sinSigma = Math.Sqrt(
                Math.Pow(cos2 * sinLambda, 2) + Math.Pow((cos1 * sin2) - (sin1 * cos2 * cosLambda), 2)
            );
            var cosSigma = (sin1 * sin2) + (cos1 * cos2 * cosLambda);
            if (sinSigma < 1e-15)
            {
                // The same place, or the place exactly opposite.
                return cosSigma > 0 ? Distance.None : null;
            }

            var sigma = Math.Atan2(sinSigma, cosSigma);
            var sinAlpha = cos1 * cos2 * sinLambda / sinSigma;
            var cosSqAlpha = 1 - (sinAlpha * sinAlpha);
            // On the equator there is no nearest approach to a pole.
            var cos2Middle = cosSqAlpha < 1e-15 ? 0 : cosSigma - (2 * sin1 * sin2 / cosSqAlpha);
            var c = Flattening / 16 * cosSqAlpha * (4 + (Flattening * (4 - (3 * cosSqAlpha))));
            var before = lambda;
            lambda =
                apart
                + (
                    (1 - c)
                    * Flattening
                    * sinAlpha
                    * (sigma + (c * sinSigma * (cos2Middle + (c * cosSigma * (-1 + (2 * cos2Middle * cos2Middle))))))
                );
            if (Math.Abs(lambda) > Math.PI)
            {
                return null;
            }

            if (Math.Abs(lambda - before) < 1e-12)
            {
                return new Distance(Length(cosSqAlpha, sigma, sinSigma, cosSigma, cos2Middle));
            }
        }

        return null;
    }

    /// <summary>
    /// Every way to the far side crosses the circle of places a quarter of the globe away; the shortest way crosses it
    /// where the sum of both halves is least.
    /// </summary>
    private static Distance InHalves(GeoPoint from, GeoPoint to)
    {
        const int Directions = 24;
        const double Step = 2 * Math.PI / Directions;
        var best = Enumerable.Range(0, Directions).Select(i => i * Step).MinBy(Sum);
        var (low, high) = (best - Step, best + Step);
        // The sum has one lowest place between two neighbours of the best direction.
        for (var round = 0; round < 60; round++)
        {
            var (a, b) = (low + ((high - low) / 3), high - ((high - low) / 3));
            (low, high) = Sum(a) < Sum(b) ? (low, b) : (a, high);
        }

        return new Distance(Sum((low + high) / 2));

        double Sum(double direction)
        {
            var half = QuarterAway(from, direction);
            return (Converged(from, half) ?? OnSphere(from, half)).Metres
                + (Converged(half, to) ?? OnSphere(half, to)).Metres;
        }
    }

    /// <summary>The place a quarter of the globe away in a direction, in radians from north.</summary>
    private static GeoPoint QuarterAway(GeoPoint from, double direction)
    {
        var (sin, cos) = Math.SinCos(Radians(from.Latitude));
        var latitude = Math.Asin(Math.Clamp(cos * Math.Cos(direction), -1, 1));
        var east = Math.Atan2(Math.Sin(direction), -sin * Math.Cos(direction));
        return new GeoPoint(latitude * 180 / Math.PI, from.Longitude + (east * 180 / Math.PI));
    }

    /// <summary>Length of a way from point to point.</summary>
    public static Distance Along(IEnumerable<GeoPoint> points)
    {
        ArgumentNullException.ThrowIfNull(points);
        var (sum, last) = (Distance.None, (GeoPoint?)null);
        foreach (var point in points)
        {
            sum += last is { } before ? Between(before, point) : Distance.None;
            last = point;
        }

        return sum;
    }

    /// <summary>Great-circle distance by the haversine formula on the sphere of the mean radius.</summary>
    public static Distance OnSphere(GeoPoint a, GeoPoint b)
    {
        var (dLat, dLon) = (Radians(b.Latitude - a.Latitude), Radians(b.Longitude - a.Longitude));
        var h =
            Math.Pow(Math.Sin(dLat / 2), 2)
            + (Math.Cos(Radians(a.Latitude)) * Math.Cos(Radians(b.Latitude)) * Math.Pow(Math.Sin(dLon / 2), 2));
        return new Distance(2 * MeanRadius * Math.Asin(Math.Min(1, Math.Sqrt(h))));
    }

    internal static double Radians(double degrees) => degrees * Math.PI / 180;

    private static double Reduced(double latitude) => Math.Atan((1 - Flattening) * Math.Tan(Radians(latitude)));

    private static double Length(double cosSqAlpha, double sigma, double sinSigma, double cosSigma, double cos2Middle)
    {
        var uSq = cosSqAlpha * ((Equatorial * Equatorial) - (Polar * Polar)) / (Polar * Polar);
        var a = 1 + (uSq / 16384 * (4096 + (uSq * (-768 + (uSq * (320 - (175 * uSq)))))));
        var b = uSq / 1024 * (256 + (uSq * (-128 + (uSq * (74 - (47 * uSq))))));
        var square = cos2Middle * cos2Middle;
        var correction =
            b
            * sinSigma
            * (
                cos2Middle
                + (
                    b
                    / 4
                    * (
                        (cosSigma * (-1 + (2 * square)))
                        - (b / 6 * cos2Middle * (-3 + (4 * sinSigma * sinSigma)) * (-3 + (4 * square)))
                    )
                )
            );
        return Polar * a * (sigma - correction);
    }
}
