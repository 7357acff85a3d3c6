using System.Globalization;
using System.Text;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Travel.Edits;

namespace ZestyPocket.Server.Demo;

/// <summary>
/// The made-up way of the demo's boat trip: a track as a receiver writes it, what was paid, the weather.
/// </summary>
public static class DemoTrip
{
    private const double LockRiseMetres = 2.7;

    /// <summary>
    /// A GPX file of the whole trip: each morning the boat goes on along its winding canal, lies still in a lock for
    /// ten minutes, and on the fifth afternoon somebody rides a bicycle to the long view and back.
    /// </summary>
    public static byte[] Track()
    {
        var gpx = new StringBuilder(
            """
            <?xml version="1.0" encoding="UTF-8"?>
            <gpx version="1.1" creator="Made-up receiver" xmlns="http://www.topografix.com/GPX/1/1">

            """
        );
        gpx.Append("<trk><name>Plum Duff</name><type>boat</type>\n");
        for (var day = 0; day < 8; day++)
        {
            gpx.Append("<trkseg>\n");
            Morning(gpx, day);
            gpx.Append("</trkseg>\n");
        }

        gpx.Append("</trk>\n<trk><name>To the long view</name><type>cycling</type><trkseg>\n");
        Ride(gpx, 4);
        gpx.Append("</trkseg></trk>\n</gpx>\n");
        return Encoding.UTF8.GetBytes(gpx.ToString());
    }

    /// <summary>Legs that no receiver recorded.</summary>
    public static IReadOnlyList<WriteLeg> TypedLegs { get; } =
    [
        new(
            null,
            DemoHousehold.TripFirstDay,
            "Home",
            "The boatyard",
            TravelMode.Train,
            "06:40",
            "11:25",
            "412 km",
            ["the big station, twenty minutes of running"],
            new Money(148.50m, "EUR"),
            ["Ada", "Ben", "Junie"]
        )
        {
            Revision = 0,
        },
        new(
            null,
            DemoHousehold.TripFirstDay.PlusDays(8),
            "The last basin",
            "Home",
            TravelMode.Train,
            "13:05",
            "18:30",
            "437 km",
            [],
            new Money(151, "EUR"),
            ["Ada", "Ben", "Junie"]
        )
        {
            Revision = 0,
        },
    ];

    /// <summary>What the household calls its moorings, from the first morning to the last.</summary>
    public static IReadOnlyList<string> Moorings { get; } =
    [
        "The boatyard",
        "Lower Sallow",
        "Heron Bend",
        "Miller’s Lock",
        "Quiet Reach",
        "Otter Weir",
        "Ash Bridge",
        "Plum Basin",
        "The last basin",
    ];

    /// <summary>What was paid, by day from 0.</summary>
    public static IReadOnlyList<(int Day, ExpenseKind Kind, Money Amount, string Note)> Expenses { get; } =
    [
        (0, ExpenseKind.Lodging, new Money(960, "EUR"), "Plum Duff for nine days"),
        (0, ExpenseKind.Food, new Money(84.20m, "EUR"), "everything, and then the cheese"),
        (2, ExpenseKind.Food, new Money(31, "EUR"), "pancakes at the lock"),
        (3, ExpenseKind.Things, new Money(9.90m, "EUR"), "a second oar"),
        (4, ExpenseKind.Tickets, new Money(12, "EUR"), "bicycles for an afternoon"),
        (6, ExpenseKind.Food, new Money(40, "GBP"), "paid back to the boat next door"),
        (8, ExpenseKind.Other, new Money(15, "EUR"), "the lost oar"),
    ];

    /// <summary>The weather that somebody wrote down; the other days are the almanac's.</summary>
    public static IReadOnlyList<NotedWeather> Weather { get; } =
    [
        new(DemoHousehold.TripFirstDay, 12, 21, "Fair"),
        new(DemoHousehold.TripFirstDay.PlusDays(1), 11, 17, "Rain all morning"),
        new(DemoHousehold.TripFirstDay.PlusDays(4), 14, 27, "Sunny"),
    ];

    private static void Morning(StringBuilder gpx, int day)
    {
        const int Steps = 110;
        var begin = DemoHousehold.TripFirstDay.PlusDays(day).At(new LocalTime(day == 0 ? 13 : 9, 10));
        var at = begin.InUtc().ToInstant() - Duration.FromHours(2);
        for (var i = 0; i <= Steps; i++)
        {
            var part = (double)i / Steps;
            // The canal winds twice between two moorings, to one side and to the other.
            var aside = 0.006 * Math.Sin(2 * Math.PI * part) * (day % 2 == 0 ? 1 : -1);
            var place = (47.1 + (0.02 * (day + part)) + aside, 2.9 + (0.03 * (day + part)) - (0.7 * aside));
            var height = 158 + (LockRiseMetres * 4 * (day + (part > 0.5 ? 1 : 0)));
            Point(gpx, place, height, at);
            at += Duration.FromSeconds(30);
            if (i == Steps / 2)
            {
                // In the lock: the receiver goes on while nobody moves.
                for (var wait = 0; wait < 20; wait++)
                {
                    Point(gpx, place, height + (wait * 0.5), at);
                    at += Duration.FromSeconds(30);
                }
            }
        }
    }

    private static void Ride(StringBuilder gpx, int day)
    {
        var at =
            DemoHousehold.TripFirstDay.PlusDays(day).At(new LocalTime(15, 30)).InUtc().ToInstant()
            - Duration.FromHours(2);
        const int Steps = 160;
        for (var i = 0; i <= Steps; i++)
        {
            var there = 1 - Math.Abs((2.0 * i / Steps) - 1);
            var place = (
                47.1 + (0.02 * (day + 1)) + (0.045 * there),
                2.9 + (0.03 * (day + 1)) - (0.05 * there) + (0.004 * Math.Sin(9 * there))
            );
            Point(gpx, place, 210 + (130 * there), at);
            at += Duration.FromSeconds(20);
        }
    }

    private static void Point(
        StringBuilder gpx,
        (double Latitude, double Longitude) place,
        double height,
        Instant at
    ) =>
        gpx.Append(
            CultureInfo.InvariantCulture,
            $"<trkpt lat=\"{place.Latitude:0.000000}\" lon=\"{place.Longitude:0.000000}\"><ele>{height:0.0}</ele>"
                + $"<time>{InstantPattern.General.Format(at)}</time></trkpt>\n"
        );
}
