using System.Globalization;
using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Tests.Dates;

public sealed class DateWordsTests
{
    private static readonly LocalDate First = new(2025, 12, 29);
    private static readonly LocalDate Last = new(2027, 1, 3);

    private static LocalDate[] Read(string words, DateOrder order = DateOrder.DayMonth) =>
        [.. DateWords.Read(words, order, First, Last)];

    [Theory]
    [InlineData("14 May")]
    [InlineData("14th of May")]
    [InlineData("  14 MAY 2026 ")]
    [InlineData("May 14")]
    [InlineData("May 14, 2026")]
    [InlineData("may14")]
    [InlineData("14.5.")]
    [InlineData("14.5.2026")]
    [InlineData("14/5")]
    [InlineData("2026-05-14")]
    [InlineData("2026-5-14")]
    public void A_day_is_read_as_people_write_it(string words) => Read(words).ShouldBe([new LocalDate(2026, 5, 14)]);

    [Fact]
    public void Strokes_follow_the_album_and_dots_put_the_day_first_everywhere()
    {
        Read("5/4").ShouldBe([new LocalDate(2026, 4, 5)]);
        Read("5/4", DateOrder.MonthDay).ShouldBe([new LocalDate(2026, 5, 4)]);
        Read("5.4.", DateOrder.MonthDay).ShouldBe([new LocalDate(2026, 4, 5)]);
    }

    [Fact]
    public void A_day_without_a_year_may_be_one_of_each_year_of_the_album() =>
        Read("30 Dec").ShouldBe([new LocalDate(2025, 12, 30), new LocalDate(2026, 12, 30)]);

    [Theory]
    [InlineData("")]
    [InlineData("14")]
    [InlineData("May")]
    [InlineData("14 ma")]
    [InlineData("31 June")]
    [InlineData("29 February")]
    [InlineData("14 Mayonnaise")]
    [InlineData("14 May 1987")]
    [InlineData("13/13")]
    [InlineData("0 May")]
    [InlineData("१४ मई")]
    public void Other_words_are_no_day_of_the_album(string words) => Read(words).ShouldBeEmpty();

    [Fact]
    public void Every_day_of_an_album_is_found_by_what_is_printed_for_it() =>
        Gen.Int[0, Period.DaysBetween(First, Last)]
            .Select(n => First.PlusDays(n))
            .Sample(day =>
            {
                foreach (var pattern in new[] { "d MMMM uuuu", "d MMM uuuu", "MMMM d, uuuu", "uuuu-MM-dd", "d.M.uuuu" })
                {
                    Read(day.ToString(pattern, CultureInfo.InvariantCulture)).ShouldBe([day], pattern);
                }
            });
}
