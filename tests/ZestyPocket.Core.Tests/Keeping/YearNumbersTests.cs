using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Tests.Binder;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Keeping;

public sealed class YearNumbersTests
{
    private static readonly AlbumWords Words = AlbumWords.Usual with
    {
        People = [new AlbumPerson("Ada Quillan", null), new AlbumPerson("Ben", null), new AlbumPerson("Nan", null)],
    };

    private static UnitNumbers Unit(int pictures, int words, string[] stories, params PaletteColour[] colours) =>
        new(pictures, words, [.. stories], [.. colours]);

    [Fact]
    public void A_year_is_counted_and_nobody_is_found_inside_another_word()
    {
        var year = YearNumbers.Of(
            [
                Unit(9, 40, ["Ada and Ben went out.", "A banana for Nan."]),
                Unit(3, 12, ["Benches everywhere, said Ada."]),
                Unit(0, 0, []),
            ],
            Words,
            TripLog.Empty
        );
        (year.Units, year.UnitsTold, year.Pictures, year.Words, year.Stories).ShouldBe((3, 2, 12, 52, 3));
        year.People.Select(p => (p.Name, p.Count)).ShouldBe([("Ada Quillan", 2), ("Ben", 1), ("Nan", 1)]);
        year.Lines("week", MeasureSystem.Millimetres)
            .ShouldBe(["2 of 3 weeks told", "12 pictures", "52 words", "3 stories", "Most told of: Ada, Ben, Nan"]);
    }

    /// <summary>By hand: two blues that nobody tells apart are one, 60 hundredths of all.</summary>
    [Fact]
    public void Near_colours_are_counted_as_one()
    {
        var year = YearNumbers.Of(
            [
                Unit(1, 0, [], new PaletteColour(30, 60, 160, 0.4), new PaletteColour(200, 40, 30, 0.4)),
                Unit(1, 0, [], new PaletteColour(33, 62, 158, 0.2)),
            ],
            AlbumWords.Usual,
            TripLog.Empty
        );
        year.Colours.Select(c => (c.Colour, Math.Round(c.Share, 2)))
            .ShouldBe([(new Rgb(30, 60, 160), 0.6), (new Rgb(200, 40, 30), 0.4)]);
    }

    [Fact]
    public void A_year_without_anything_has_no_lines() =>
        YearNumbers.Of([], AlbumWords.Usual, TripLog.Empty).Lines("week", MeasureSystem.Inches).ShouldBeEmpty();

    [Fact]
    public void The_next_album_goes_on_the_day_after_with_the_settings_and_without_what_happened()
    {
        var desk = Desks
            .Weeks(4)
            .Filled(0)
            .After(
                new SetRings(RingShape.D, "2 in", null) { Revision = 0 },
                new SetHabit([IsoDayOfWeek.Sunday], 45, 3) { Revision = 0 }
            );
        desk = desk.After(new SetVolumes([desk.Binder.Units[2].Id]) { Revision = 0 });
        var next = NextAlbum.After(desk, "Next", Guid.CreateVersion7);
        next.Binder.Units.Length.ShouldBe(4);
        next.Binder.Units[0].Dates.First.ShouldBe(desk.Binder.Units[^1].Dates.Last.PlusDays(1));
        next.Binder.Units.ShouldAllBe(u => u.Content.Pieces.IsEmpty);
        next.Binder.Body.ShouldBe(desk.Binder.Body);
        (next.Keeping.Rings, next.Keeping.Habit.MinutesAnEvening).ShouldBe((desk.Keeping.Rings, 45));
        next.Keeping.VolumeStarts.ShouldBeEmpty();
        next.Trip.Legs.ShouldBeEmpty();
        next.Binder.Units.Select(u => u.Id).Intersect(desk.Binder.Units.Select(u => u.Id)).ShouldBeEmpty();
        next.ShouldHold();
    }

    [Fact]
    public void A_timer_adds_up_and_the_longer_of_edits_and_timer_counts()
    {
        var desk = Desks.Weeks(2);
        var id = desk.Binder.Units[1].Id;
        desk = desk.After(new TimeWork(id, 25) { Revision = 0 }, new TimeWork(id, 30) { Revision = 0 });
        desk.Keeping.Timed.ShouldHaveSingleItem().ShouldBe(new TimedWork(id, 55));
        WorkingTime.With(Duration.FromMinutes(40), 55).ShouldBe(Duration.FromMinutes(55));
        WorkingTime.With(Duration.FromMinutes(70), 55).ShouldBe(Duration.FromMinutes(70));
        desk.Refused(new TimeWork(id, 0) { Revision = 0 }).ShouldContain("1 to 720");
    }

    [Theory]
    [InlineData("Our year 2026", "Our year 2027")]
    [InlineData("2026, week by week", "2027, week by week")]
    [InlineData("Weeks", "Weeks, continued")]
    [InlineData("Film 120263", "Film 120263, continued")]
    public void The_next_albums_name_counts_the_year_on(string name, string next) =>
        NextAlbum.NameAfter(name).ShouldBe(next);
}
