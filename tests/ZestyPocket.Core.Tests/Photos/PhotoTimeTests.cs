using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

public sealed class PhotoTimeTests
{
    private static readonly AlbumCalendar Home = new()
    {
        Kind = AlbumKind.Weekly,
        FirstDay = new LocalDate(2026, 1, 1),
        HomeZone = "Europe/London",
    };

    private static readonly AlbumCalendar Trip = new()
    {
        Kind = AlbumKind.Trip,
        FirstDay = new LocalDate(2026, 6, 10),
        HomeZone = "Europe/London",
        Stays = [new("Tokyo", "Asia/Tokyo", new(2026, 6, 10, 9, 0))],
    };

    [Fact]
    public void The_files_own_zone_comes_first_then_the_stay_then_home()
    {
        At(Trip, new(new(2026, 6, 12, 10, 0), 120, "Phone")).ShouldBe(Instant.FromUtc(2026, 6, 12, 8, 0));
        At(Trip, new(new(2026, 6, 12, 10, 0), null, "Camera")).ShouldBe(Instant.FromUtc(2026, 6, 12, 1, 0));
        At(Home, new(new(2026, 6, 12, 10, 0), null, "Camera")).ShouldBe(Instant.FromUtc(2026, 6, 12, 9, 0));
        new AlbumClock(Home).CaptureOf(new(null, null, "Camera")).ShouldBeNull();
    }

    [Fact]
    public void A_correction_is_added_to_every_picture_of_its_camera_and_to_no_other()
    {
        var corrected = Home with { Cameras = [new CameraClock("Camera", 3600, null)] };
        Local(corrected, new(new(2026, 6, 12, 23, 30), null, "Camera")).ShouldBe(new LocalDateTime(2026, 6, 13, 0, 30));
        Local(corrected, new(new(2026, 6, 12, 23, 30), null, "Other")).ShouldBe(new LocalDateTime(2026, 6, 12, 23, 30));
    }

    [Fact]
    public void A_camera_left_on_home_time_reads_as_the_clock_of_the_place()
    {
        // 02:00 in London in June is 10:00 in Tokyo.
        var left = Trip with
        {
            Cameras = [new CameraClock("Camera", 0, "Europe/London")],
        };
        Local(left, new(new(2026, 6, 12, 2, 0), null, "Camera")).ShouldBe(new LocalDateTime(2026, 6, 12, 10, 0));
    }

    [Fact]
    public void Two_pictures_of_one_moment_give_the_correction()
    {
        PhotoTime.CorrectionFromPair(new(2026, 6, 12, 9, 0, 5), new(2026, 6, 12, 10, 0, 0)).ShouldBe(3595);
        Should.Throw<RuleException>(() => PhotoTime.CorrectionFromPair(new(2020, 1, 1, 0, 0), new(2026, 6, 12, 10, 0)));
    }

    [Theory]
    [InlineData(-1, "slow")]
    [InlineData(2, "fast")]
    [InlineData(-7, "slow")]
    public void A_camera_that_is_whole_hours_off_is_found_and_the_correction_proposed(int hoursOff, string word)
    {
        var doubt = ClockSuspicion.Find(Holiday(hoursOff), Home).ShouldHaveSingleItem();
        doubt.Camera.ShouldBe("Camera");
        doubt.Proposed!.CorrectionSeconds.ShouldBe(-hoursOff * 3600L);
        doubt.Reason.ShouldContain(word);
        ClockSuspicion
            .Find(Holiday(hoursOff), Home with { Cameras = [doubt.Proposed] })
            .ShouldBeEmpty("with the correction all is well");
    }

    [Fact]
    public void A_camera_that_is_right_is_not_suspected() => ClockSuspicion.Find(Holiday(0), Home).ShouldBeEmpty();

    [Fact]
    public void Cameras_that_never_met_prove_nothing()
    {
        var dice = new Random(5);
        List<RecordedTime> pictures =
        [
            .. Enumerable
                .Range(0, 40)
                .Select(i => new RecordedTime(
                    new LocalDateTime(2026, 6, 1 + (i / 4), 9 + dice.Next(10), dice.Next(60)),
                    60,
                    "Phone"
                )),
            .. Enumerable
                .Range(0, 8)
                .Select(i => new RecordedTime(
                    new LocalDateTime(2026, 7, 1 + i, 9 + dice.Next(10), dice.Next(60)),
                    null,
                    "Camera"
                )),
        ];
        ClockSuspicion.Find(pictures, Home).ShouldBeEmpty();
    }

    [Fact]
    public void A_camera_left_on_home_time_abroad_is_found()
    {
        // Taken between 9 and 20 in Tokyo, recorded eight hours earlier.
        List<RecordedTime> pictures =
        [
            .. Holiday(-8).Select(p => p.Camera == "Phone" ? p with { OffsetMinutes = 540 } : p),
        ];
        var doubt = ClockSuspicion
            .Find(
                pictures,
                Trip with
                {
                    FirstDay = new(2026, 6, 1),
                    Stays = [new("Tokyo", "Asia/Tokyo", new(2026, 5, 31, 9, 0))],
                }
            )
            .ShouldHaveSingleItem();
        doubt.Proposed!.LeftOnZone.ShouldBe("Europe/London");
    }

    [Fact]
    public void A_lonely_camera_whose_pictures_fall_into_the_night_is_mentioned_without_a_guess()
    {
        List<RecordedTime> pictures =
        [
            .. Enumerable
                .Range(0, 12)
                .Select(i => new RecordedTime(new LocalDateTime(2026, 6, 3, i % 6, 20), null, "Camera")),
        ];
        var doubt = ClockSuspicion.Find(pictures, Home).ShouldHaveSingleItem();
        doubt.Proposed.ShouldBeNull();
        doubt.Reason.ShouldContain("10 of its 12 pictures");
    }

    /// <summary>Ten days with a phone and a camera, which met at every second sight.</summary>
    private static List<RecordedTime> Holiday(int hoursOff)
    {
        var dice = new Random(17);
        var pictures = new List<RecordedTime>();
        for (var i = 0; i < 60; i++)
        {
            var taken = new LocalDateTime(2026, 6, 1 + (i / 6), 9 + (2 * (i % 6)), dice.Next(60), dice.Next(60));
            pictures.Add(new RecordedTime(taken, 60, "Phone"));
            if (i % 2 == 0)
            {
                pictures.Add(
                    new RecordedTime(taken.PlusSeconds(dice.Next(-150, 150)).PlusHours(hoursOff), null, "Camera")
                );
            }
        }

        return pictures;
    }

    private static Instant At(AlbumCalendar calendar, RecordedTime recorded) =>
        new AlbumClock(calendar).CaptureOf(recorded)!.At;

    private static LocalDateTime Local(AlbumCalendar calendar, RecordedTime recorded) =>
        new AlbumClock(calendar).CaptureOf(recorded)!.Local;
}

public sealed class FileNameDateTests
{
    [Theory]
    [InlineData("snap_20260606_101530.jpg", "2026-06-06", "10:15:30")]
    [InlineData("20260606_101530.heic", "2026-06-06", "10:15:30")]
    [InlineData("20260606101530.jpg", "2026-06-06", "10:15:30")]
    [InlineData("2026-06-06 10.15.30.png", "2026-06-06", "10:15:30")]
    [InlineData("Screenshot 2026-06-06 at 10.15.30.png", "2026-06-06", "10:15:30")]
    [InlineData("Screenshot_20260606-101530_News.png", "2026-06-06", "10:15:30")]
    [InlineData("pic-20260606-101530123.jpg", "2026-06-06", "10:15:30")]
    [InlineData("scan 2026-06-06 10_15.tif", "2026-06-06", "10:15:00")]
    [InlineData("IMG-20260606-0003.jpg", "2026-06-06", null)]
    [InlineData("2026.06.06 ticket.pdf", "2026-06-06", null)]
    [InlineData("2024_02_29.jpg", "2024-02-29", null)]
    public void Common_names_tell_the_date(string name, string day, string? time)
    {
        var found = FileNameDate.Read(name)!;
        NodaTime.Text.LocalDatePattern.Iso.Format(found.Day).ShouldBe(day);
        found.Time?.ToString("HH:mm:ss", null).ShouldBe(time);
    }

    [Theory]
    [InlineData("FEN04123.jpg")]
    [InlineData("05062026.jpg")]
    [InlineData("20261306_101530.jpg")]
    [InlineData("2023_02_29.jpg")]
    [InlineData("1120260606.jpg")]
    [InlineData("20260606202.jpg")]
    [InlineData("ticket.pdf")]
    [InlineData("")]
    public void Names_that_can_be_read_otherwise_tell_nothing(string name) => FileNameDate.Read(name).ShouldBeNull();

    [Fact]
    public void No_name_however_strange_breaks_it() =>
        Gen.String[0, 300].Sample(name => FileNameDate.Read(name) is null or { Day.Year: >= 1900 and < 2100 });
}

/// <summary>Days that folders are named for.</summary>
public sealed class FolderDateTests
{
    [Theory]
    [InlineData("2026/05/04/IMG_1.jpg", 4)]
    [InlineData("Pictures/2026/05 May/04 Picnic/IMG_1.jpg", 4)]
    [InlineData("/2026-05-04 Picnic/small/IMG_1.jpg", 4)]
    [InlineData("C:\\Bilder\\2026.05.04\\a.jpg", 4)]
    [InlineData("2026-05-04/2026-05-05/a.jpg", 5)]
    public void The_innermost_folder_that_is_named_for_a_day_tells_it(string path, int day) =>
        FolderDate.Read(path).ShouldBe(new LocalDate(2026, 5, day));

    [Theory]
    [InlineData("2026-05-04.jpg")]
    [InlineData("2026/05/IMG_1.jpg")]
    [InlineData("2026/13/04/IMG_1.jpg")]
    [InlineData("2026/02/30/IMG_1.jpg")]
    [InlineData("100ABCDE/IMG_1.jpg")]
    [InlineData("")]
    public void Folders_without_a_whole_date_tell_nothing(string path) => FolderDate.Read(path).ShouldBeNull();

    [Fact]
    public void Any_path_is_read_or_left_alone() =>
        Gen.String[0, 300].Sample(path => FolderDate.Read(path) is null or { Year: >= 1900 and < 2100 });
}
