using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing.Choosing;

/// <summary>Made-up units for tests of placing: any designs, any pictures.</summary>
internal static class Spreads
{
    public static readonly LocalDate Monday = new(2026, 5, 4);

    private static readonly (int, int)[] Shapes =
    [
        (3000, 2000),
        (2000, 3000),
        (4000, 3000),
        (3000, 4000),
        (2400, 2400),
        (1800, 3200),
        (900, 600),
    ];

    public static Guid Id(int n) => Desks.Id(n);

    public static DeskPhoto Photo(int n, int width, int height, int day = 0, int hour = 9) =>
        new(
            new LoosePhoto(
                Id(n),
                new PixelSize(width, height),
                Monday.PlusDays(day),
                Monday.PlusDays(day).At(new LocalTime(hour % 24, n % 60))
            ),
            $"{n}.jpg",
            Framing.Middle
        );

    /// <summary>A week with a back and a front of page designs, and pictures.</summary>
    public static UnitDesk Desk(string left, string right, IEnumerable<DeskPhoto> photos)
    {
        var (one, two) = (
            Protector.Unmeasured(BuiltInDesigns.Find(left)!),
            Protector.Unmeasured(BuiltInDesigns.Find(right)!)
        );
        var calendar = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday };
        var dates = calendar.FirstUnits(1)[0];
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(
                dates,
                [
                    new UnitFace(Desks.Left, LeafSide.Back, one, LeafAlterations.Plain),
                    new UnitFace(Desks.Right, LeafSide.Front, two, LeafAlterations.Plain),
                ]
            ),
            dates,
            "Week 19",
            photos.ToDictionary(p => p.Id),
            AlbumWords.Usual,
            one.Design.Pockets.Select(p => p.Nominal).ToHashSet(),
            MeasureSystem.Inches
        );
    }

    /// <summary>A unit by chance: the same for the same seed.</summary>
    public static UnitDesk Random(int seed, string left, string right, int photos)
    {
        var dice = new Random(seed);
        return Desk(left, right, Enumerable.Range(1, photos).Select(One));

        DeskPhoto One(int n)
        {
            var (wide, high) = Shapes[dice.Next(Shapes.Length)];
            return Photo(n, wide, high, dice.Next(7), dice.Next(24)) with
            {
                Tone = dice.Next(15, 95),
                Favourite = dice.Next(6) == 0 ? dice.Next(1, 4) : 0,
                GroupId = dice.Next(3) == 0 ? Id(9000 + dice.Next(3)) : null,
                Likeness = (ulong)dice.NextInt64(),
                Keep = dice.Next(5) == 0 ? [new PictureBox(0.05, 0.1, 0.9, 0.5)] : [],
            };
        }
    }

    public static SpreadQuestion Ask(UnitDesk desk, PlacingWeights? weights = null) =>
        DeskQuestion.Of(desk, Words.EvenShaper.Only, weights);

    /// <summary>What lies where, by code: the number of a picture, or of a piece.</summary>
    public static Dictionary<string, Guid> Laid(UnitDesk desk, PlacingWeights? weights = null)
    {
        var question = Ask(desk, weights);
        var laid = LaidSpread.Of(question, SpreadSearch.Best(question));
        return laid.ToDictionary(l => desk.Pages.CodeOf(l.Place)!, l => l.Key);
    }
}
