using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Server.Demo;

/// <summary>
/// The made-up household of the demo: Ada, Ben and eight-year-old Junie Quillan, Nan Odette and the cat Biscuit, in the
/// made-up river town of Marrowick. Nothing here is anybody's.
/// </summary>
public static class DemoHousehold
{
    public const string WeeklyName = "Our year in Marrowick, 2026";
    public const string TripName = "Nine days on the Sallow Canal";
    public const string DayName = "A Saturday by the hour";
    public const string GardenName = "Nan’s allotment, a leaf a week";
    public const string HomeZone = "Europe/London";
    public static readonly LocalDate WeeklyFirstDay = new(2026, 1, 1);
    public static readonly LocalDate TripFirstDay = new(2026, 6, 6);
    public static readonly LocalDate Saturday = new(2026, 5, 2);
    public static readonly LocalDate GardenFirstDay = new(2026, 3, 2);

    /// <summary>The canal lies an hour east of home, and nobody told the compact camera.</summary>
    public static readonly Stay Canal = new("Sallow Canal", "Europe/Paris", new LocalDateTime(2026, 6, 6, 11, 0));

    private const string Phone = "Kestrel P4";
    private const string CompactCamera = "Fennimore 35";

    /// <summary>What a week at home may show; a spread shows none of them twice.</summary>
    private static readonly Scene[] HomeScenes =
    [
        .. Enum.GetValues<Scene>()
            .Except([Scene.Canal, Scene.LockGates, Scene.Rope, Scene.Map, Scene.TrainWindow, Scene.Cake, Scene.Window]),
    ];

    /// <summary>What each day afloat shows: five different sights.</summary>
    private static readonly Scene[][] TripScenes =
    [
        [Scene.TrainWindow, Scene.Canal, Scene.Rope, Scene.TeaTable, Scene.Cheek],
        [Scene.LockGates, Scene.Bridge, Scene.Picnic, Scene.Heron, Scene.Lantern],
        [Scene.Umbrellas, Scene.Boots, Scene.Breakfast, Scene.Ducks, Scene.WetNight],
        [Scene.Square, Scene.Market, Scene.Bicycle, Scene.Soup, Scene.Street],
        [Scene.Hills, Scene.Sheep, Scene.Map, Scene.Swimming, Scene.Silhouettes],
        [Scene.Fog, Scene.Canal, Scene.Portrait, Scene.Woods, Scene.Bonfire],
        [Scene.Harbour, Scene.LockGates, Scene.Letter, Scene.WashingLine, Scene.Lantern],
        [Scene.Bridge, Scene.Kite, Scene.Puddle, Scene.Flowers, Scene.TeaTable],
        [Scene.Breakfast, Scene.Canal, Scene.Cheek, Scene.Hills, Scene.TrainWindow],
    ];

    /// <summary>What the party shows.</summary>
    private static readonly Scene[] PartyScenes =
    [
        Scene.TeaTable,
        Scene.Cake,
        Scene.Street,
        Scene.Baking,
        Scene.Cheek,
        Scene.Lantern,
        Scene.Flowers,
        Scene.Portrait,
        Scene.Piano,
        Scene.Bonfire,
        Scene.Knitting,
    ];

    /// <summary>Each week of the allotment: what it shows, and what Nan wrote.</summary>
    public static IReadOnlyList<(Scene[] Scenes, string Words)> GardenWeeks { get; } =
    [
        (
            [Scene.Allotment, Scene.Boots, Scene.Fog, Scene.TeaTable],
            "Ground still cold. Turned the top bed, found last year’s trowel under the first forkful, and had my tea "
                + "out of the lid."
        ),
        (
            [Scene.Letter, Scene.Window, Scene.Puddle, Scene.Allotment],
            "Too wet to dig. Seeds came in the post. Junie sorted them by how funny the name is, which is as good a "
                + "way as any."
        ),
        (
            [Scene.Flowers, Scene.Bicycle, Scene.Woods, Scene.Portrait],
            "Broad beans up, all but four. Ben brought pea sticks from the wood on his bicycle, across the road, like "
                + "a tightrope walker."
        ),
        (
            [Scene.AppleTree, Scene.Ducks, Scene.WashingLine, Scene.Soup],
            "First leaves on the apple. The ducks have been in and had the lettuces. We had the soup without."
        ),
    ];

    /// <summary>What a waking hour of the Saturday shows.</summary>
    private static readonly Dictionary<int, Scene[]> HourScenes = new()
    {
        [7] = [Scene.Cat, Scene.Window],
        [8] = [Scene.Breakfast, Scene.Portrait],
        [9] = [Scene.Baking, Scene.Sink],
        [10] = [Scene.Workshop, Scene.Baking],
        [11] = [Scene.Market, Scene.Square],
        [12] = [Scene.Soup, Scene.Cheek],
        [13] = [Scene.Drawing, Scene.Knitting],
        [14] = [Scene.Boots, Scene.Stairs],
        [16] = [Scene.Kite, Scene.Hills],
        [17] = [Scene.AppleTree, Scene.Bicycle],
        [18] = [Scene.Harbour, Scene.Ducks],
        [19] = [Scene.Piano, Scene.TeaTable],
        [21] = [Scene.Lantern, Scene.Bonfire],
        [22] = [Scene.Library, Scene.Cat],
    };

    /// <summary>
    /// Photos in each of the eight weeks from 30 March 2026, besides those of the series; the sixth has far more than
    /// its pockets.
    /// </summary>
    public static IReadOnlyList<int> PhotosOfWeek { get; } = [17, 16, 18, 15, 24, 47, 22, 7];

    public static LocalDate FirstPhotoWeek { get; } = new(2026, 3, 30);

    /// <summary>What Ada wrote, by week of the eight; a week may have several cards.</summary>
    public static IReadOnlyList<AlbumPerson> People { get; } =
    [
        new("Ada Quillan", new LocalDate(1987, 9, 2)),
        new("Ben Quillan", new LocalDate(1985, 1, 30)),
        new("Junie Quillan", new LocalDate(2017, 8, 19)),
        new("Nan Odette", new LocalDate(1946, 5, 14)),
    ];

    /// <summary>What was written in the evenings of the trip, by day.</summary>
    public static IReadOnlyList<(int Day, string Title, string Author, string Words)> StoriesOfTrip { get; } =
    [
        (
            2,
            "Nine locks before lunch",
            "Ada",
            "Nobody had told us about the staircase. Nine locks one after another, each with two gates and a wheel "
                + "that squeaks, and a keeper who leaned on the rail and said nothing at all until the "
                + "seventh.\n\nJunie counted every gate aloud. By the ninth she had a crowd. Ben steered as if the "
                + "boat were made of eggs, and only once did we touch the wall, softly, the way one touches a "
                + "sleeping cat.\n\n"
                + "Lunch was cheese and the last of the bread, on the roof, with our feet over the water."
        ),
        (
            3,
            "Rain on the roof",
            "Junie",
            "It rained all morning. The roof sounds like a drum and also like frying. We played cards and I won "
                + "four times and Ben won none. Then the sun came out and there were ducks."
        ),
        (
            4,
            "The market at Tollard",
            "Ben",
            "We moored under the church and walked up for bread. Came back with bread, a kite, and a colander that "
                + "nobody will own up to having wanted."
        ),
    ];

    /// <summary>A week told by theme: each with the days it tells of, counted from Monday.</summary>
    public static IReadOnlyList<(string Theme, int[] Days, string Words)> ThemesOfWeek { get; } =
    [
        (
            "The pond",
            [0, 1, 3],
            "Monday there was spawn, a cupful. By Tuesday Junie had named the pond Lake Otto and put up a sign. On "
                + "Thursday the heron came to read it."
        ),
        (
            "The oven",
            [2, 5],
            "The oven door fell off on Wednesday with a loaf inside. Ben held it shut with the stepladder and the "
                + "bread came out square. On Saturday a man came, looked, whistled, and fixed it with a spoon."
        ),
        ("The pond", [6], "Sunday: four tadpoles have legs, or Junie says so."),
    ];

    /// <summary>A line for an hour of the Saturday; none for those that nobody thought of.</summary>
    public static IReadOnlyDictionary<int, string> LinesOfHours { get; } =
        new Dictionary<int, string>
        {
            [7] = "Biscuit first, then the light, then me.",
            [8] = "Junie reads the weather out as if it were news.",
            [9] = "Flour everywhere. It is only eight loaves.",
            [10] = "The second batch knows what it is doing.",
            [11] = "Two coins, one hour, no hurry.",
            [12] = "Soup for five, and then for seven.",
            [13] = "Nan beats us all at cards and is gracious about it.",
            [14] = "One boot each, and a search party for the rest.",
            [16] = "Up and up, until it was only a pull on the string.",
            [17] = "Nobody said we could not pick from the neighbour’s side.",
            [18] = "Tea on the wall, feet over the river.",
            [19] = "The tune has four bars now.",
            [21] = "Lanterns, because why not on a Saturday.",
            [22] = "Quiet. Somebody is purring.",
        };

    public const string AroundAPicture =
        "We carried the table out for the first time this year. It rocks on the flags, it has always rocked, and "
        + "everybody has a folded card they swear by.";

    /// <summary>
    /// What was written for each of the eight weeks: typed day by day, in one tint of the pictures, by hand, and so on.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<(CardKind Kind, string Style, string Words)>> StoriesOfWeek { get; } =
    [
        [
            (
                CardKind.Journaling,
                "almanac-journal",
                "The clocks went forward and nobody told Biscuit, who asked for breakfast at the old time all "
                    + "week.\n\nOn Thursday Nan Odette brought the first rhubarb. Ben made the pie with far too "
                    + "much ginger and we ate all of it standing up in the kitchen, with the back door open for the "
                    + "first time this year."
            ),
            (
                CardKind.Overheard,
                "almanac-quote",
                "“If the river is always leaving, why is there still so much of it?” Junie, on the bridge"
            ),
            (CardKind.Facts, "almanac-rows", ""),
        ],
        [
            (
                CardKind.Journaling,
                "paperboat-journal",
                "Market Saturday. Junie had two coins and one hour. She came back with a bag of blood oranges, half "
                    + "a sunflower, and a very old key that fits nothing we own."
            ),
            (
                CardKind.Journaling,
                "paperboat-journal",
                "Rain until Wednesday. We read aloud, all four of us, taking the voices in turn. Nan does the "
                    + "villain best, and knows it, and will not be asked twice."
            ),
            (CardKind.Prompts, "paperboat-rows", "reading the long one\nwearing two jumpers\neating blood oranges"),
        ],
        [
            (
                CardKind.Journaling,
                "hedgerow-ruled",
                "Kite weather at last. The red one went up and up until the string was a pencil line and then "
                    + "nothing. Ben says it is still up there. We walked home the long way past the boats."
            ),
            (CardKind.HighsAndLows, "hedgerow-rows", "High: the red kite\nLow: the string"),
            (CardKind.People, "hedgerow-rows", ""),
        ],
        [
            (
                CardKind.Journaling,
                "almanac-journal",
                "Seedlings on every sill. The tomatoes have names now, which will make August difficult."
            ),
        ],
        [],
        [
            (
                CardKind.Journaling,
                "almanac-journal",
                "Nan Odette turned eighty and the whole street came. Long tables from our gate to the pump, eleven "
                    + "cakes, one brass trombone, and Junie in charge of the lanterns from dusk until well past her "
                    + "bedtime."
            ),
        ],
        [
            (
                CardKind.Journaling,
                "signal-journal",
                "A quiet one after the party. We found bunting in the hedge, in the gutter and, on Friday, on the cat."
            ),
            (
                CardKind.Journaling,
                "signal-journal",
                "Friday and Saturday on the slow boat to Tollard and back: two days, one leaf of their own."
            ),
            (CardKind.Numbers, "signal-rows", ""),
            (CardKind.Overheard, "signal-quote", "“I am eighty and two days. It is much like seventy.” Nan"),
        ],
        [],
    ];

    /// <summary>The title card of a week; null for the album's own.</summary>
    public static IReadOnlyList<string?> TitlesOfWeek { get; } =
    [
        "almanac-title",
        "paperboat-title",
        "hedgerow-title",
        "almanac-title-dark",
        null,
        "almanac-title-dark",
        "signal-title",
        "almanac-title",
    ];

    /// <summary>Patterns that lie in a pocket of a finished week.</summary>
    public static IReadOnlyDictionary<int, string> FillersOfWeek { get; } =
        new Dictionary<int, string>
        {
            [0] = "almanac-scales",
            [1] = "paperboat-waves",
            [2] = "hedgerow-leaves",
            [6] = "signal-stripes",
        };

    /// <summary>The snapshots of the weekly album.</summary>
    public static IEnumerable<DemoShot> WeeklyShots()
    {
        var number = 4100;
        for (var week = 0; week < PhotosOfWeek.Count; week++)
        {
            var dice = new Random(900 + week);
            var shuffled = HomeScenes.ToArray();
            dice.Shuffle(shuffled);
            for (var i = 0; i < PhotosOfWeek[week]; i++)
            {
                // The party of the sixth week is its Saturday and Sunday.
                var day = week == 5 && i >= 12 ? 5 + (i % 2) : i % 7;
                var scene = week == 5 && i >= 12 ? PartyScenes[i % PartyScenes.Length] : shuffled[i % shuffled.Length];
                var date = FirstPhotoWeek.PlusDays((7 * week) + day);
                yield return Shot(dice, scene, date, number++, 51.236, -2.318, offset: 60);
            }

            // The same window on three mornings of every week: a series.
            foreach (var morning in week < 4 ? new[] { 0, 2, 4 } : [])
            {
                var taken = FirstPhotoWeek.PlusDays((7 * week) + morning).At(new LocalTime(8, dice.Next(22, 39), 5));
                yield return At(taken, Scene.Window, number++, Phone, 60, 51.236, -2.318, dice);
            }
        }
    }

    /// <summary>
    /// The snapshots of the trip, seven and more on each of nine days. The phone keeps the zone; the compact camera is
    /// still on the time of home, an hour behind, and meets the phone at two sights a day. Its dawn pictures lie before
    /// the late-night cut-off by its own clock.
    /// </summary>
    public static IEnumerable<DemoShot> TripShots()
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
                var scene = TripScenes[day][i];
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
    public static IEnumerable<DemoShot> SaturdayShots()
    {
        var dice = new Random(52);
        var number = 6100;
        foreach (var hour in Enumerable.Range(7, 16).Where(h => h is not (15 or 20)))
        {
            foreach (var minute in dice.Next(3) == 0 ? new[] { -14, 6 } : [dice.Next(-9, 10)])
            {
                var taken = Saturday.AtMidnight().PlusHours(hour).PlusMinutes(minute).PlusSeconds(dice.Next(60));
                var scene = HourScenes[hour][minute < 0 && minute > -12 ? 1 : 0];
                yield return At(taken, scene, number++, Phone, 60, 51.236, -2.318, dice);
            }
        }
    }

    /// <summary>The snapshots of the allotment: four a week, on the Tuesday and at the weekend.</summary>
    public static IEnumerable<DemoShot> GardenShots()
    {
        var dice = new Random(1946);
        var number = 7100;
        for (var week = 0; week < GardenWeeks.Count; week++)
        {
            foreach (var (scene, at) in GardenWeeks[week].Scenes.Select((s, at) => (s, at)))
            {
                // Two on the Tuesday, one each on Saturday and Sunday.
                var date = GardenFirstDay.PlusDays((7 * week) + (at < 2 ? 1 : 3 + at));
                var taken = date.At(new LocalTime(9 + (2 * at), dice.Next(60), dice.Next(60)));
                yield return At(taken, scene, number++, Phone, 0, 51.236, -2.318, dice);
            }
        }
    }

    /// <summary>
    /// Files of the weekly album that are no plain snapshots: a burst of four with one sharp picture, a screenshot with
    /// its date in its name, and a scan that says nothing of itself.
    /// </summary>
    public static IEnumerable<DemoShot> OddFiles()
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
            Scene.Lantern or Scene.Bonfire or Scene.WetNight => 21,
            Scene.Silhouettes => 20,
            Scene.Fog or Scene.Breakfast => 8,
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
