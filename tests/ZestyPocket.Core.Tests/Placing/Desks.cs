using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>A week on the desk, for tests of edits.</summary>
internal static class Desks
{
    public static readonly Guid Left = new("00000000-0000-7000-8000-0000000000a1");
    public static readonly Guid Right = new("00000000-0000-7000-8000-0000000000a2");
    public static readonly LocalDate Monday = new(2026, 5, 4);

    public static Guid Id(int n) => new($"00000000-0000-7000-8000-{n:000000000000}");

    public static EditTools Tools()
    {
        var next = 1_000;
        return new EditTools(() => Id(next++), EvenShaper.Only);
    }

    public static DeskPhoto Photo(int n, int width = 3000, int height = 2000) =>
        new(
            new LoosePhoto(Id(n), new PixelSize(width, height), Monday, Monday.AtMidnight().PlusHours(n)),
            $"{n}.jpg",
            Framing.Middle
        );

    /// <summary>Week 19 on facing pages of three rows of 6x4 and 3x4, with as many pictures.</summary>
    public static UnitDesk Week(int photos, params string[] stuck)
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-rows-6x4-3x4")!);
        var form = stuck.Aggregate(LeafAlterations.Plain, (done, key) => done.Stick(key, true));
        var calendar = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday };
        var dates = calendar.FirstUnits(4)[0];
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(
                dates,
                [
                    new UnitFace(Left, LeafSide.Back, protector, form),
                    new UnitFace(Right, LeafSide.Front, protector, LeafAlterations.Plain),
                ]
            ),
            dates,
            "Week 19",
            Enumerable.Range(1, photos).Select(n => Photo(n)).ToDictionary(p => p.Id),
            AlbumWords.Usual,
            protector.Design.Pockets.Select(p => p.Nominal).ToHashSet(),
            MeasureSystem.Inches
        );
    }

    /// <summary>A pocket of the week's left page, from 1.</summary>
    public static PocketPlace LeftPocket(UnitDesk desk, int number) => desk.Pages.Pockets[number - 1].Place;

    /// <summary>The desk after an edit.</summary>
    public static UnitDesk After(UnitDesk desk, ContentEdit edit, EditTools tools) =>
        desk with
        {
            Content = edit.Apply(desk, tools).Content,
        };
}
