using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>
/// Moments, zones and places as cameras and programs write them. Exif 2.32 states the first form; the others are common
/// practice.
/// </summary>
public sealed class CaptureTextTests
{
    [Theory]
    [InlineData("2004:05:09 12:34:56", 2004, 5, 9, 12, 34, 56, null)]
    [InlineData("2004/05/09 12:34:56", 2004, 5, 9, 12, 34, 56, null)]
    [InlineData("2003-08-27:00:09:15", 2003, 8, 27, 0, 9, 15, null)]
    [InlineData("05.10.2009 08:15:00", 2009, 10, 5, 8, 15, 0, null)]
    [InlineData("2009-10-05T08:15:00+02:00", 2009, 10, 5, 8, 15, 0, 120)]
    [InlineData("2009:10:05 08:15", 2009, 10, 5, 8, 15, 0, null)]
    [InlineData("2009:10:05 08:15:00-0330\0\0", 2009, 10, 5, 8, 15, 0, -210)]
    public void A_time_is_read_in_each_form_that_files_have(
        string text,
        int year,
        int month,
        int day,
        int hour,
        int minute,
        int second,
        int? offset
    ) =>
        CaptureText
            .Time(text)
            .ShouldBe(new StatedTime(new LocalDateTime(year, month, day, hour, minute, second), offset));

    /// <summary>Exif 2.32, SubSecTime: digits behind the point, as many as the camera has.</summary>
    [Fact]
    public void Parts_of_a_second_are_read_to_the_millisecond()
    {
        var time = new LocalDateTime(2009, 10, 5, 8, 15, 0);
        CaptureText.Time("2009-10-05T08:15:00.25Z").ShouldBe(new StatedTime(time.PlusMilliseconds(250), 0));
        new[] { "7", "25", "1234567", "", null, "x1", "-1" }
            .Select(t => (time + CaptureText.Fraction(t)).Millisecond)
            .ShouldBe([700, 250, 123, 0, 0, 0, 0]);
    }

    [Theory]
    [InlineData("0000:00:00 00:00:00")]
    [InlineData("    :  :     :  :  ")]
    [InlineData("2009:02:30 08:15:00")]
    [InlineData("2009:10:05 25:00:00")]
    [InlineData("05/10/2009 08:15:00")]
    [InlineData("1200:10:05 08:15:00")]
    [InlineData("٢٠٠٩:10:05 08:15:00")]
    [InlineData("yesterday")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_no_time_or_could_be_two_is_none(string? text) => CaptureText.Time(text).ShouldBeNull();

    [Theory]
    [InlineData("+02:00", 120)]
    [InlineData("-0330", -210)]
    [InlineData("+14:00", 840)]
    [InlineData("Z", 0)]
    [InlineData("+15:00", null)]
    [InlineData("+99:99", null)]
    [InlineData("CEST", null)]
    public void A_zone_is_one_that_the_world_has(string text, int? minutes) =>
        CaptureText.Offset(text).ShouldBe(minutes);

    [Theory]
    [InlineData("48,12.5N", null, 48.208333)]
    [InlineData("48,12,30S", null, -48.208333)]
    [InlineData("48° 12' 30\" N", null, 48.208333)]
    [InlineData("48.208333", "S", -48.208333)]
    [InlineData("-0.5", null, -0.5)]
    [InlineData("91", null, null)]
    [InlineData("north", null, null)]
    public void A_position_written_as_text_is_read(string text, string? letter, double? degrees)
    {
        var read = CaptureText.Degrees(text, letter, 90);
        (read is null).ShouldBe(degrees is null);
        if (degrees is { } wanted)
        {
            read!.Value.ShouldBe(wanted, 0.000001);
        }
    }

    [Theory]
    [InlineData("Maker", "Maker One", "A123", "Maker One · A123")]
    [InlineData("Maker", "One", null, "Maker One")]
    [InlineData("Maker", "One", "0000000", "Maker One")]
    [InlineData(null, null, "A123", null)]
    public void Two_phones_of_one_model_are_told_apart_by_their_serial_number(
        string? make,
        string? model,
        string? serial,
        string? name
    )
    {
        CameraName.Of(make, model, serial).ShouldBe(name);
        if (name is not null)
        {
            CameraName.ModelOf(name).ShouldBe(CameraName.Of(make, model, null));
        }
    }
}
