using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// Sunrise and sunset of a day at a place, as instants; null when the sun does not rise or does not set.
/// </summary>
public sealed record SunTimes(Instant? Rise, Instant? Set, Duration Daylight);

/// <summary>
/// Daylight computed from date and place: the sun's centre 0.833° under the horizon (refraction and half the disc).
/// Source: the low-precision solar coordinates of the Astronomical Almanac (mean longitude, mean anomaly, equation of
/// centre), as published by the U.S. National Oceanic and Atmospheric Administration; good to about a minute between
/// 60° south and north.
/// </summary>
public static class Daylight
{
    private const double Horizon = -0.833;

    /// <summary>
    /// For a local date at a place: latitude −90 to 90 north, longitude −180 to 180 east, in degrees.
    /// </summary>
    public static SunTimes On(LocalDate date, double latitude, double longitude, DateTimeZone zone)
    {
        ArgumentNullException.ThrowIfNull(zone);
        if (latitude is < -90 or > 90 or double.NaN || longitude is < -180 or > 180 or double.NaN)
        {
            throw new RuleException("A place lies between 90° south and north, 180° west and east.");
        }

        // The sun's own noon of that local date, corrected once for the place.
        var noon = date.AtMidnight().PlusHours(12).InZoneLeniently(zone).ToInstant();
        var solarNoon = Transit(noon, longitude);
        var declination = Sun(solarNoon).Declination;
        var cosine =
            (Math.Sin(Rad(Horizon)) - (Math.Sin(Rad(latitude)) * Math.Sin(declination)))
            / (Math.Cos(Rad(latitude)) * Math.Cos(declination));
        if (cosine <= -1)
        {
            return new SunTimes(null, null, Duration.FromHours(24));
        }

        if (cosine >= 1)
        {
            return new SunTimes(null, null, Duration.Zero);
        }

        var (rise, set) = (Crossing(solarNoon, latitude, longitude, -1), Crossing(solarNoon, latitude, longitude, 1));
        return new SunTimes(rise, set, set - rise);
    }

    /// <summary>Rise (−1) or set (+1), worked out with where the sun is then rather than at noon.</summary>
    private static Instant Crossing(Instant solarNoon, double latitude, double longitude, int side)
    {
        var at = solarNoon;
        for (var i = 0; i < 3; i++)
        {
            var declination = Sun(at).Declination;
            var cosine =
                (Math.Sin(Rad(Horizon)) - (Math.Sin(Rad(latitude)) * Math.Sin(declination)))
                / (Math.Cos(Rad(latitude)) * Math.Cos(declination));
            var hours = Math.Acos(Math.Clamp(cosine, -1, 1)) * 12 / Math.PI;
            at = Transit(at, longitude, solarNoon) + Duration.FromHours(side * hours);
        }

        return at;
    }

    /// <summary>
    /// When the sun stands highest, nearest to an instant, with the equation of time of that instant.
    /// </summary>
    private static Instant Transit(Instant at, double longitude, Instant? near = null)
    {
        var day = (near ?? at).InUtc().Date.AtMidnight().InUtc().ToInstant();
        var noon = day + Duration.FromMinutes(720 - (4 * longitude) - Sun(at).EquationOfTimeMinutes);
        var off = noon - (near ?? at);
        return off > Duration.FromHours(12) ? noon - Duration.FromHours(24)
            : off < Duration.FromHours(-12) ? noon + Duration.FromHours(24)
            : noon;
    }

    private static (double Declination, double EquationOfTimeMinutes) Sun(Instant at)
    {
        var centuries = ((at.ToUnixTimeSeconds() / 86400.0) + 2440587.5 - 2451545.0) / 36525;
        var longitude = (280.46646 + (centuries * (36000.76983 + (centuries * 0.0003032)))) % 360;
        var anomaly = Rad(357.52911 + (centuries * (35999.05029 - (0.0001537 * centuries))));
        var eccentricity = 0.016708634 - (centuries * (0.000042037 + (0.0000001267 * centuries)));
        var centre =
            (Math.Sin(anomaly) * (1.914602 - (centuries * (0.004817 + (0.000014 * centuries)))))
            + (Math.Sin(2 * anomaly) * (0.019993 - (0.000101 * centuries)))
            + (Math.Sin(3 * anomaly) * 0.000289);
        var node = Rad(125.04 - (1934.136 * centuries));
        var apparent = Rad(longitude + centre - 0.00569 - (0.00478 * Math.Sin(node)));
        var obliquity = Rad(23.439291 - (centuries * 0.0130042) + (0.00256 * Math.Cos(node)));
        var declination = Math.Asin(Math.Sin(obliquity) * Math.Sin(apparent));
        var y = Math.Pow(Math.Tan(obliquity / 2), 2);
        var l = Rad(longitude);
        var equation =
            4
            * Deg(
                (y * Math.Sin(2 * l))
                    - (2 * eccentricity * Math.Sin(anomaly))
                    + (4 * eccentricity * y * Math.Sin(anomaly) * Math.Cos(2 * l))
                    - (0.5 * y * y * Math.Sin(4 * l))
                    - (1.25 * eccentricity * eccentricity * Math.Sin(2 * anomaly))
            );
        return (declination, equation);
    }

    private static double Rad(double degrees) => degrees * Math.PI / 180;

    private static double Deg(double radians) => radians * 180 / Math.PI;
}
