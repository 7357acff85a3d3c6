using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Binder;

/// <summary>
/// Merge, split, leave out, rename, grow, and other ways to count time, on values alone. How leaves carry units is
/// common practice: the left page of a spread is the back of one leaf, the right page the front of the next.
/// </summary>
public sealed class TapeEditTests
{
    private static Guid Unit(AlbumDesk desk, int at) => desk.Binder.Units[at].Id;

    private static MergeUnit Merge(AlbumDesk desk, int at) => new() { UnitId = Unit(desk, at), Revision = 1 };

    [Fact]
    public void Three_weeks_on_facing_pages_take_four_leaves_with_title_and_end_page()
    {
        var desk = Desks.Weeks(3);
        desk.Leaves().ShouldBe("·|19 19|20 20|21 21|·");
        desk.ShouldHold();
        var leafSchool = Desks.Weeks(3, PageSchool.Leaf);
        leafSchool.Leaves().ShouldBe("·|· 19|19 20|20 21|21");
        leafSchool.ShouldHold();
    }

    [Fact]
    public void Two_quiet_days_become_one_spread_and_what_follows_stays_on_its_pages()
    {
        var desk = Desks.Days(5).Filled(1, most: 4).Filled(2, most: 1).Filled(4, most: 2);
        var merged = Merge(desk, 1).Apply(desk, Desks.Tools());
        merged.Done.ShouldBe("Merged Day 2 and Day 3; 1 piece went to the tray");
        merged.UnitId.ShouldBe(Unit(desk, 1));
        merged.Desk.Titles().ShouldBe(["Day 1", "Days 2–3", "Day 4", "Day 5"]);
        merged.Desk.Leaves().ShouldBe("·|1 1|2–3 2–3|4 4|5 5|·");
        merged.Desk.Placed(1).ShouldBe(4);
        merged.Desk.Binder.Units[1].Content.Pieces.Length.ShouldBe(5, "nothing is lost");
        merged.Desk.Binder.FacesOf(Unit(desk, 4)).ShouldBe(desk.Binder.FacesOf(Unit(desk, 4)));
        merged.Desk.Binder.Units[3].ShouldBe(desk.Binder.Units[4]);
        merged.Desk.ShouldHold();
        desk.Refused(Merge(desk, 4)).ShouldContain("Nothing comes after");
    }

    [Fact]
    public void A_merged_unit_splits_into_its_days_and_notes_go_where_their_day_is()
    {
        var desk = Desks.Days(3);
        var note = new DayNote(Desks.NewId(), Desks.Monday.PlusDays(2), null, "Rain", null);
        desk = desk with
        {
            Binder = desk.Binder.With(desk.Binder.Units[2] with { Content = UnitContent.Empty.Note(note) }),
        };
        var merged = desk.Filled(1, most: 3).After(Merge(desk, 1));
        merged.Binder.Units[1].Content.Notes.ShouldBe([note]);
        var split = new SplitUnit { UnitId = Unit(desk, 1), Revision = 1 };
        var apart = split.Apply(merged, Desks.Tools());
        apart.Done.ShouldBe("Split Days 2–3");
        apart.Desk.Titles().ShouldBe(desk.Titles());
        apart.Desk.Leaves().ShouldBe(desk.Leaves());
        apart.Desk.Placed(1).ShouldBe(3);
        apart.Desk.Binder.Units[1].Content.Notes.ShouldBeEmpty();
        apart.Desk.Binder.Units[2].Content.Notes.ShouldBe([note]);
        apart.Desk.ShouldHold();
        apart.Desk.Refused(split).ShouldContain("nothing to split");
    }

    [Fact]
    public void A_day_left_out_keeps_its_number_and_a_name_of_ones_own_is_taken_back_by_an_empty_one()
    {
        var desk = Desks.Days(3);
        var out2 = desk.After(new LeaveUnitOut(true) { UnitId = Unit(desk, 1), Revision = 1 });
        (out2.Binder.Units[1].Dates.LeftOut, out2.Titles()[2]).ShouldBe((true, "Day 3"));
        var rename = new RenameUnit(" The flood ") { UnitId = Unit(desk, 1), Revision = 1 };
        var named = desk.After(rename);
        named.Titles()[1].ShouldBe("The flood");
        named.After(rename with { Name = " " }).Titles()[1].ShouldBe("Day 2");
        desk.Refused(rename with { Name = new string('x', UnitDates.LongestName + 1) }).ShouldContain("80 characters");
    }

    [Fact]
    public void An_album_grows_at_both_ends_and_its_pieces_stay_with_their_week()
    {
        var desk = Desks.Weeks(2).Filled(0);
        var before = desk.Binder.FacesOf(Unit(desk, 0));
        var grown = desk.After(
            new GrowAlbum(2, AtEnd: false) { Revision = 1 },
            new GrowAlbum(1, AtEnd: true) { Revision = 1 }
        );
        grown.Titles().ShouldBe(["Week 17", "Week 18", "Week 19", "Week 20", "Week 21"]);
        grown.Placed(2).ShouldBe(18);
        grown.ShouldHold();
        // All it changes for the filled week is the leaf of its left page, since two weeks lie before it now.
        grown.Binder.FacesOf(Unit(desk, 0))[1].ShouldBe(before[1]);
        desk.Refused(new GrowAlbum(0, AtEnd: true) { Revision = 1 }).ShouldContain("1 to 530");
        desk.Refused(new GrowAlbum(int.MaxValue, AtEnd: true) { Revision = 1 }).ShouldContain("1 to 530");
        Desks.Days(2).Refused(new GrowAlbum(1, AtEnd: false) { Revision = 1 }).ShouldContain("number 1");
    }

    [Fact]
    public void Counting_weeks_from_Sunday_keeps_content_with_its_week_and_moves_a_Sundays_note()
    {
        var desk = Desks.Weeks(2).Filled(0, most: 2);
        var sunday = new DayNote(Desks.NewId(), new LocalDate(2026, 5, 10), null, "Soup", null);
        desk = desk with
        {
            Binder = desk.Binder.With(
                desk.Binder.Units[0] with
                {
                    Content = desk.Binder.Units[0].Content.Note(sunday),
                }
            ),
        };
        var counted = new CountWeeks(WeekScheme.SundayFirst) { Revision = 1 }.Apply(desk, Desks.Tools());
        counted.Done.ShouldBe("Counted weeks from Sunday");
        counted.AlsoIn.Length.ShouldBe(2, "what holds for the album is undone from every week");
        counted.Desk.Placed(0).ShouldBe(2);
        counted.Desk.Binder.Units[0].Content.Notes.ShouldBeEmpty();
        counted.Desk.Binder.Units[1].Content.Notes.ShouldBe([sunday]);
    }

    [Fact]
    public void What_makes_no_sense_of_a_calendar_is_refused()
    {
        var desk = Desks.Days(3);
        desk.Refused(new SetCutOff("25:00") { Revision = 1 }).ShouldContain("Write it as 03:00");
        desk.Refused(new SetCutOff("07:00") { Revision = 1 }).ShouldContain("06:00 at the latest");
        desk.Refused(new MoveFirstDay(new LocalDate(1066, 10, 14)) { Revision = 1 }).ShouldContain("1900");
        var stay = new StayText("Base", "Moon/Base", "2026-05-04T08:00", null);
        desk.Refused(new SetStays([stay]) { Revision = 1 }).ShouldContain("Moon/Base");
        desk.Refused(new SetStays([stay with { Place = " " }]) { Revision = 1 }).ShouldContain("name of its place");
        desk.After(new SetStays([stay with { Zone = "Asia/Tokyo" }]) { Revision = 1 })
            .Calendar.Stays.Single()
            .Place.ShouldBe("Base");
    }

    [Fact]
    public void A_clock_is_set_by_two_pictures_of_one_moment_or_a_true_time()
    {
        var desk = Desks.Days(2);
        var noon = new LocalDateTime(2026, 5, 4, 12, 0);
        var (wrong, right, undated) = (Desks.NewId(), Desks.NewId(), Desks.NewId());
        var tools = Desks.Tools() with
        {
            Facts = AlbumFacts.None with
            {
                Pictures = new Dictionary<Guid, PictureTime>
                {
                    [wrong] = new("w.jpg", "Box", noon.PlusMinutes(61), noon.PlusMinutes(61)),
                    [right] = new("r.jpg", "Phone", noon, noon),
                    [undated] = new("u.jpg", "Box", null, null),
                },
            },
        };
        var match = new MatchPictures(wrong, right) { Camera = "Box", Revision = 1 };
        match.Asks(desk).Pictures.ShouldBe([wrong, right]);
        var set = match.Apply(desk, tools);
        set.Done.ShouldBe("Set the clock of Box: 1 hour 1 minute earlier");
        set.Desk.Calendar.ClockOf("Box").CorrectionSeconds.ShouldBe(-3660);
        new TellTrueTime(wrong, "2026-05-04T13:31") { Camera = "Box", Revision = 1 }
            .Apply(desk, tools)
            .Done.ShouldBe("Set the clock of Box: 30 minutes later");
        Should
            .Throw<RuleException>(() => (match with { RightPhotoId = undated }).Apply(desk, tools))
            .Message.ShouldContain("one camera");
        Should
            .Throw<RuleException>(() => (match with { WrongPhotoId = undated }).Apply(desk, tools))
            .Message.ShouldContain("no recorded time");
        var back = new ShiftCamera(0) { Camera = "Box", Revision = 1 }.Apply(set.Desk, tools);
        (back.Done, back.Desk.Calendar.Cameras.Length).ShouldBe(("Removed the clock correction of Box", 0));
        desk.Refused(new ShiftCamera(long.MinValue) { Camera = "Box", Revision = 1 }).ShouldContain("a year");
    }
}
