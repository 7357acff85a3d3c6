using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Words on pictures that follow from the picture.</summary>
public sealed class CaptionFieldsTests
{
    private static readonly AlbumPerson[] People = [new("Junie Quillan", new LocalDate(2017, 8, 19)), new("Ben", null)];

    private static readonly CaptionFacts Facts = new(
        new LocalDateTime(2026, 5, 4, 19, 30),
        new LocalDate(2026, 5, 4),
        3,
        "Tollard"
    );

    private static string Fill(string words, HourClock clock = HourClock.TwentyFour) =>
        CaptionFields.Fill(words, Facts, new DateStyle(DateOrder.DayMonth, clock), People);

    [Theory]
    [InlineData("{time}", "19:30")]
    [InlineData("{date}", "4 May 2026")]
    [InlineData("{weekday}, {place}", "Monday, Tollard")]
    [InlineData("Day {day number}", "Day 3")]
    [InlineData("Junie is {age Junie}", "Junie is 8")]
    [InlineData("no fields", "no fields")]
    [InlineData("{colour} stays", "{colour} stays")]
    [InlineData("{age Otto}", "{age Otto}")]
    [InlineData("{TIME}", "19:30")]
    [InlineData("a {} b", "a {} b")]
    public void A_field_becomes_what_is_true_of_the_picture(string words, string filled) =>
        Fill(words).ShouldBe(filled);

    [Fact]
    public void The_hour_follows_the_albums_clock() => Fill("{time}", HourClock.Twelve).ShouldBe("7:30 p.m.");

    [Fact]
    public void What_is_not_known_is_left_away() =>
        CaptionFields
            .Fill("{place} {time} by the river", new CaptionFacts(null, null, null, null), default, People)
            .ShouldBe("by the river");
}
