using NodaTime;
using ZestyPocket.Server.Demo;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// The snapshots of the demo as the landed versions had them: with these their vaults can be made again, whatever the
/// demo paints today.
/// </summary>
internal static class LandedShots
{
    private const string Phone = "Kestrel P4";
    private const string CompactCamera = "Fennimore 35";

    private static readonly LocalDate TripFirstDay = new(2026, 6, 6);
    private static readonly LocalDate Saturday = new(2026, 5, 2);
    private static readonly LocalDate FirstPhotoWeek = new(2026, 3, 30);

    private static IReadOnlyList<int> PhotosOfWeek { get; } = [20, 19, 21, 18, 24, 47, 22, 7];

    private static readonly Scene[] HomeScenes =
    [
        Scene.TeaTable,
        Scene.Window,
        Scene.Flowers,
        Scene.Street,
        Scene.Market,
        Scene.Picnic,
        Scene.Cat,
        Scene.Desk,
        Scene.Kite,
        Scene.Baking,
        Scene.Hills,
        Scene.Woods,
        Scene.Harbour,
        Scene.Lantern,
    ];

    private static readonly Scene[] TripScenes =
    [
        Scene.Canal,
        Scene.Bridge,
        Scene.Hills,
        Scene.Woods,
        Scene.TeaTable,
        Scene.Canal,
        Scene.Street,
        Scene.Lantern,
        Scene.Harbour,
        Scene.Picnic,
    ];

    public static IEnumerable<DemoShot> All() =>
        WeeklyShots()
            .Concat(TripShots())
            .Concat(SaturdayShots())
            .Concat(OddFiles())
            .Select(s => s with { Handheld = false });

    /// <summary>The snapshots of the weekly album.</summary>
    private static IEnumerable<DemoShot> WeeklyShots()
    {
        var number = 4100;
        for (var week = 0; week < PhotosOfWeek.Count; week++)
        {
            var dice = new Random(900 + week);
            for (var i = 0; i < PhotosOfWeek[week]; i++)
            {
                // The party of the sixth week is its Saturday and Sunday.
                var day = week == 5 && i >= 12 ? 5 + (i % 2) : i % 7;
                var scene =
                    week == 5 && i >= 12
                        ? new[]
                        {
                            Scene.TeaTable,
                            Scene.Lantern,
                            Scene.Street,
                            Scene.Baking,
                            Scene.Picnic,
                            Scene.Flowers,
                            Scene.Lantern,
                        }[i % 7]
                        : HomeScenes[dice.Next(HomeScenes.Length)];
                var date = FirstPhotoWeek.PlusDays((7 * week) + day);
                yield return Shot(dice, scene, date, number++, 51.236, -2.318, offset: 60);
            }
        }
    }

    /// <summary>
    /// The snapshots of the trip, seven and more on each of nine days. The phone keeps the zone; the compact camera is
    /// still on the time of home, an hour behind, and meets the phone at two sights a day. Its dawn pictures lie before
    /// the late-night cut-off by its own clock.
    /// </summary>
    private static IEnumerable<DemoShot> TripShots()
    {
        var dice = new Random(4711);
        var number = 5200;
        for (var day = 0; day < 9; day++)
        {
            var date = TripFirstDay.PlusDays(day);
            var (latitude, longitude) = (47.1 + (0.02 * day), 2.9 + (0.03 * day));
            for (var i = 0; i < 5; i++)
            {
                var taken = date.At(new LocalTime((day == 0 ? 12 : 9) + (2 * i), dice.Next(60), dice.Next(60)));
                var scene = TripScenes[dice.Next(TripScenes.Length)];
                yield return At(taken, scene, number++, Phone, 120, latitude, longitude, dice);
                if (i is 1 or 3)
                {
                    var second = taken.PlusSeconds(dice.Next(20, 150));
                    yield return At(
                        second.PlusHours(-1),
                        scene,
                        number++,
                        CompactCamera,
                        null,
                        latitude,
                        longitude,
                        dice
                    );
                }
            }

            if (day is 3 or 6)
            {
                yield return At(
                    date.At(new LocalTime(4, 20, 7 * day)),
                    Scene.Canal,
                    number++,
                    CompactCamera,
                    null,
                    latitude,
                    longitude,
                    dice
                );
            }
        }
    }

    /// <summary>
    /// One Saturday, a snapshot or two for most waking hours; nobody thought of it at three and at eight.
    /// </summary>
    private static IEnumerable<DemoShot> SaturdayShots()
    {
        var dice = new Random(52);
        var number = 6100;
        foreach (var hour in Enumerable.Range(7, 16).Where(h => h is not (15 or 20)))
        {
            foreach (var minute in dice.Next(3) == 0 ? new[] { -14, 6 } : [dice.Next(-9, 10)])
            {
                var taken = Saturday.AtMidnight().PlusHours(hour).PlusMinutes(minute).PlusSeconds(dice.Next(60));
                var scene = hour switch
                {
                    < 9 => Scene.Window,
                    < 11 => Scene.Baking,
                    < 13 => Scene.Market,
                    < 17 => Scene.Kite,
                    < 19 => Scene.Picnic,
                    < 21 => Scene.TeaTable,
                    _ => Scene.Lantern,
                };
                yield return At(taken, scene, number++, Phone, 60, 51.236, -2.318, dice);
            }
        }
    }

    /// <summary>
    /// Files of the weekly album that are no plain snapshots: a burst of four with one sharp picture, a screenshot with
    /// its date in its name, and a scan that says nothing of itself.
    /// </summary>
    private static IEnumerable<DemoShot> OddFiles()
    {
        var kite = FirstPhotoWeek.PlusDays(16).At(new LocalTime(15, 4, 20));
        for (var i = 0; i < 4; i++)
        {
            var taken = kite.PlusSeconds(i);
            yield return new DemoShot(
                PhoneName(taken, 4990 + i),
                Scene.Kite,
                777,
                2016,
                1512,
                taken,
                Phone,
                60,
                51.236,
                -2.318,
                i == 2 ? 0 : 3 + i
            );
        }

        var weather = FirstPhotoWeek.PlusDays(9);
        yield return new DemoShot(
            $"Screenshot {weather:uuuu'-'MM'-'dd} at 07.41.00.jpg",
            Scene.Hills,
            31,
            900,
            1600,
            weather.AtMidnight(),
            null,
            null,
            0,
            0
        );
        yield return new DemoShot(
            "scan of the rhubarb card.jpg",
            Scene.Flowers,
            32,
            1500,
            1000,
            weather.AtMidnight(),
            null,
            null,
            0,
            0
        );
    }

    private static DemoShot At(
        LocalDateTime taken,
        Scene scene,
        int number,
        string camera,
        int? offset,
        double latitude,
        double longitude,
        Random dice
    )
    {
        var phone = camera == Phone;
        var (wide, tall) = phone ? (2016, 1512) : (2160, 1440);
        var (width, height) = dice.Next(5) < 2 ? (tall, wide) : (wide, tall);
        return new DemoShot(
            phone ? PhoneName(taken, number) : $"FEN{number:00000}.jpg",
            scene,
            number,
            width,
            height,
            taken,
            camera,
            offset,
            latitude,
            longitude
        );
    }

    private static string PhoneName(LocalDateTime taken, int number) =>
        $"snap_{taken.Year:0000}{taken.Month:00}{taken.Day:00}_"
        + $"{taken.Hour:00}{taken.Minute:00}{taken.Second:00}_{number}.jpg";

    private static DemoShot Shot(
        Random dice,
        Scene scene,
        LocalDate date,
        int number,
        double latitude,
        double longitude,
        int offset
    )
    {
        var phone = dice.Next(10) < 7;
        var hour = scene switch
        {
            Scene.Lantern => 21,
            Scene.Street => dice.Next(2) == 0 ? 19 : 10,
            _ => dice.Next(8, 20),
        };
        var taken = date.At(new LocalTime(hour, dice.Next(60), dice.Next(60)));
        var (wide, tall) = phone ? (2016, 1512) : (2160, 1440);
        var (width, height) = dice.Next(12) switch
        {
            0 => (1600, 1600),
            // A picture somebody sent along, too small for a large pocket.
            1 => (800, 600),
            <= 5 => (tall, wide),
            _ => (wide, tall),
        };
        var name = phone ? PhoneName(taken, number) : $"FEN{number:00000}.jpg";
        return new DemoShot(
            name,
            scene,
            number,
            width,
            height,
            taken,
            phone ? Phone : CompactCamera,
            phone ? offset : null,
            latitude,
            longitude
        );
    }
}
