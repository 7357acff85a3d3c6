using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Photos.Edits;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>What a keeper decides about pictures, on values alone. Common practice; no source.</summary>
public sealed class PhotoEditTests
{
    private static readonly Guid Series = new("00000000-0000-7000-8000-000000000001");

    private static readonly AlbumCalendar Calendar = new()
    {
        Kind = AlbumKind.Weekly,
        FirstDay = new LocalDate(2026, 5, 4),
        Series = [new PhotoSeries(Series, "The bean pot", LocalTime.Noon, 30, null)],
    };

    private static readonly PhotoDecisions Photo = new("boat.jpg", 3);

    private static PhotoDecisions After(params PhotoEdit[] edits) =>
        edits.Aggregate(Photo, (photo, edit) => edit.Apply(photo, Calendar));

    [Fact]
    public void A_day_given_by_hand_outranks_the_clock_until_the_clock_is_let_decide_again()
    {
        var day = new LocalDate(2026, 5, 6);
        var dated = After(new TakeDayAway(), new DatePhoto(day, 7));
        (dated.KeeperDay, dated.KeeperHour, dated.DayTakenAway).ShouldBe((day, 7, false));
        var away = After(new DatePhoto(day, 7), new TakeDayAway());
        (away.KeeperDay, away.KeeperHour, away.DayTakenAway).ShouldBe((null, null, true));
        After(new DatePhoto(day), new TakeDayAway(), new DateFromClock()).ShouldBe(Photo);
    }

    [Fact]
    public void People_are_tagged_once_each_and_untagged_by_name()
    {
        After(new TagPerson(" Ada "), new TagPerson("Ben"), new TagPerson("Ada")).People.ShouldBe(["Ada", "Ben"]);
        After(new TagPerson("Ada"), new UntagPerson("Ada")).People.ShouldBeEmpty();
        Should.Throw<RuleException>(() => After(new TagPerson("  "))).Message.ShouldContain("1 to 80 characters");
        Should
            .Throw<RuleException>(() => After([.. Enumerable.Range(0, 41).Select(i => new TagPerson($"Guest {i}"))]))
            .Message.ShouldContain("up to 40 people");
    }

    [Fact]
    public void Stars_go_from_none_to_three()
    {
        After(new StarPhoto(3)).Favourite.ShouldBe(3);
        After(new StarPhoto(3), new StarPhoto(0)).ShouldBe(Photo);
        Should.Throw<RuleException>(() => After(new StarPhoto(4))).Message.ShouldContain("0 to 3");
        Should.Throw<RuleException>(() => After(new StarPhoto(-1)));
    }

    [Fact]
    public void The_focus_lies_on_the_picture()
    {
        After(new MoveFocus(0, 1)).ShouldBe(Photo with { FocusX = 0, FocusY = 1, FocusByKeeper = true });
        foreach (var x in new[] { -0.01, 1.01, double.NaN })
        {
            Should.Throw<RuleException>(() => After(new MoveFocus(x, 0.5))).Message.ShouldContain("outside");
        }
    }

    [Fact]
    public void A_box_is_cut_to_the_picture_and_one_beside_it_is_refused()
    {
        var kept = After(new KeepInCrops([new DrawnBox(0.5, 0.5, 2, 2)])).KeepBoxes.Single();
        (kept.Right, kept.Bottom).ShouldBe((1, 1));
        After(new CoverPhoto([new DrawnBox(0, 0, 0.5, 0.5)]), new CoverPhoto([])).CoverBoxes.ShouldBeEmpty();
        Should.Throw<RuleException>(() => After(new KeepInCrops([new DrawnBox(2, 2, 1, 1)])));
        var many = Enumerable.Repeat(new DrawnBox(0, 0, 0.5, 0.5), PictureBox.MostBoxes + 1).ToList();
        Should.Throw<RuleException>(() => After(new CoverPhoto(many))).Message.ShouldContain("at most");
    }

    [Fact]
    public void A_PDF_turns_only_to_a_page_it_has()
    {
        After(new TurnToPage(3)).Page.ShouldBe(3);
        Should.Throw<RuleException>(() => After(new TurnToPage(4))).Message.ShouldContain("has 3 pages");
        Should.Throw<RuleException>(() => After(new TurnToPage(0)));
    }

    [Fact]
    public void A_picture_joins_a_series_of_its_album_only()
    {
        After(new JoinSeries(Series)).SeriesId.ShouldBe(Series);
        After(new JoinSeries(Series), new LeaveSeries()).ShouldBe(Photo);
        Should.Throw<RuleException>(() => After(new JoinSeries(Guid.Empty))).Message.ShouldContain("series");
    }

    [Fact]
    public void What_was_decided_is_told_in_words()
    {
        var one = PhotoEdit.What([Photo]);
        var many = PhotoEdit.What([.. Enumerable.Repeat(Photo, 1200)]);
        string Done(PhotoEdit edit, string what) => edit.Done(what, Calendar);
        Done(new JudgePhoto(Verdict.Leave), many).ShouldBe("Left 1,200 pictures out of the album");
        Done(new StarPhoto(1), one).ShouldBe("Gave boat.jpg 1 star");
        Done(new StarPhoto(0), one).ShouldBe("Removed the stars of boat.jpg");
        Done(new DatePhoto(new LocalDate(2026, 5, 6)), one).ShouldBe("Moved boat.jpg to Wed 6 May");
        Done(new JoinSeries(Series), one).ShouldBe("Added boat.jpg to the series The bean pot");
        Done(new CoverPhoto([new DrawnBox(0, 0, 1, 1)]), one).ShouldBe("Covered 1 place on boat.jpg");
    }
}
