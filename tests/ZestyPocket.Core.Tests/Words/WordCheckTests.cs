using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class WordCheckTests
{
    /// <summary>A Wednesday.</summary>
    private static readonly LocalDate Day = new(2026, 5, 6);

    private static IEnumerable<(WordFindingKind Kind, string Found, string? Mend)> Find(
        string words,
        params string[] names
    ) => WordChecks.Of(words, [Day], names).Select(f => (f.Kind, f.Found, f.Mend));

    [Theory]
    [InlineData("On Wednesday we planted beans.")]
    [InlineData("It rained on 6 May.")]
    [InlineData("Wednesday, May 6th, 2026 was warm.")]
    [InlineData("Next Monday is the fair; every Friday there is bread.")]
    [InlineData("May was warm, and March too.")]
    [InlineData("Junie’s beans and Junie came.")]
    public void Words_that_agree_with_their_day_raise_nothing(string words) =>
        Find(words, "Junie Harrow").ShouldBeEmpty();

    [Theory]
    [InlineData("biscuits", true)]
    [InlineData("Łódź", true)]
    [InlineData("שלום", false)]
    [InlineData("λόγος", false)]
    [InlineData("мельница", false)]
    public void Words_in_another_script_are_no_matter_for_an_English_dictionary(string word, bool latin) =>
        WordChecks.IsLatin(word).ShouldBe(latin);

    [Fact]
    public void A_weekday_that_is_not_the_pictures_is_found_and_mended()
    {
        Find("On Tuesday we planted beans.").ShouldBe([(WordFindingKind.WrongWeekday, "Tuesday", "Wednesday")]);
        var finding = WordChecks.Of("On Tuesday we planted beans.", [Day], [])[0];
        WordChecks.Mended("On Tuesday we planted beans.", finding).ShouldBe("On Wednesday we planted beans.");
        Should.Throw<RuleException>(() => WordChecks.Mended("On a Tuesday we planted beans.", finding));
    }

    [Fact]
    public void Dates_are_read_in_both_orders_and_against_the_calendar()
    {
        Find("It was 7 May.").ShouldBe([(WordFindingKind.WrongDate, "7 May", null)]);
        Find("It was May 7.").ShouldBe([(WordFindingKind.WrongDate, "May 7", null)]);
        Find("31 April never was.").ShouldBe([(WordFindingKind.WrongDate, "31 April", null)]);
        Find("Thursday 6 May").ShouldBe([(WordFindingKind.WeekdayOfDate, "Thursday", "Wednesday")]);
    }

    [Fact]
    public void Doubled_blanks_and_blank_lines_are_found()
    {
        Find("one  two\n\n\nthree")
            .ShouldBe([(WordFindingKind.DoubleSpace, "  ", " "), (WordFindingKind.BlankLines, "\n\n\n", "\n\n")]);
    }

    [Theory]
    [InlineData("Junei", "Junie")]
    [InlineData("Juniee", "Junie")]
    [InlineData("Jinie", "Junie")]
    public void A_name_a_letter_off_is_found(string found, string name) =>
        Find($"{found} came.", "Junie").ShouldBe([(WordFindingKind.NameSpeltTwoWays, found, name)]);

    [Fact]
    public void Ages_are_computed_over_leap_days()
    {
        var born = new LocalDate(2020, 2, 29);
        Age.Years(born, new LocalDate(2026, 2, 28)).ShouldBe(5);
        Age.Years(born, new LocalDate(2026, 3, 1)).ShouldBe(6);
        Age.Years(born, new LocalDate(2028, 2, 29)).ShouldBe(8);
        Age.On(born, born).ShouldBe("born today");
        Age.On(born, born.PlusDays(-1)).ShouldBeNull();
        Age.On(new LocalDate(2026, 1, 1), new LocalDate(2026, 1, 15)).ShouldBe("2 weeks");
        Age.On(new LocalDate(2025, 1, 31), new LocalDate(2026, 2, 28)).ShouldBe("12 months");
        ComputedCards
            .People(
                [
                    new("Otto", new LocalDate(1961, 5, 6)),
                    new("Junie", new LocalDate(2019, 5, 7)),
                    new("Wren", null),
                    new("Later", new LocalDate(2027, 1, 1)),
                ],
                Day
            )
            .ShouldBe("Otto, 65\nJunie, 6\nWren");
    }

    [Fact]
    public void Numbers_and_countdowns_agree_with_their_nouns()
    {
        ComputedCards.Numbers(new AlbumNumbers(9, 3, 1, 1240, 0)).ShouldBe("9 days\n3 people\n1 place\n1,240 pictures");
        ComputedCards.Countdown(Day, Day.PlusDays(1), "the fair", default).ShouldBe(("DAY UNTIL", "1", "the fair"));
        ComputedCards.Countdown(Day, Day.PlusDays(-40), "", default).ShouldBe(("DAYS SINCE", "40", "27 March 2026"));
    }

    [Fact]
    public void Where_from_and_where_to_follow_from_the_stays()
    {
        var calendar = new AlbumCalendar
        {
            Kind = AlbumKind.Trip,
            FirstDay = new LocalDate(2026, 6, 6),
            Stays =
            [
                new Stay("Sallow", "Europe/Paris", new LocalDateTime(2026, 6, 6, 11, 0), null),
                new Stay(
                    "Brindle",
                    "Europe/Paris",
                    new LocalDateTime(2026, 6, 9, 11, 0),
                    new LocalDateTime(2026, 6, 14, 9, 0)
                ),
            ],
        };
        ComputedCards.FromTo(calendar, new(2026, 6, 6), new(2026, 6, 6)).ShouldBe("From home\nTo Sallow");
        ComputedCards.FromTo(calendar, new(2026, 6, 7), new(2026, 6, 8)).ShouldBe("At Sallow");
        ComputedCards.FromTo(calendar, new(2026, 6, 9), new(2026, 6, 9)).ShouldBe("From Sallow\nTo Brindle");
        ComputedCards.FromTo(calendar, new(2026, 6, 14), new(2026, 6, 14)).ShouldBe("From Brindle\nTo home");
    }

    [Fact]
    public void A_hand_holds_what_its_sample_says()
    {
        // 3x4 with 5 mm margins: 2.606 in of line, 91.6 mm of height, 13 lines of 7 mm, 2.2 words an inch.
        var plain = BuiltInCardStyles.Find("reading-serif", CardKind.Journaling) with
        {
            Columns = 1,
            Margin = Length.FromMillimetres(5),
        };
        CardComposer.HandRoom(plain, Size.FromInches(3, 4), HandCapacity.Usual).ShouldBe((13, 74));
        HandCapacity.Measured(66, 10, Length.FromInches(3), Length.FromMillimetres(8)).WordsPerInch.ShouldBe(2.2, 1e-9);
        Should.Throw<RuleException>(() =>
            HandCapacity.Measured(0, 10, Length.FromInches(3), Length.FromMillimetres(8))
        );
    }

    [Fact]
    public void A_weekday_of_the_week_that_is_none_of_the_storys_own_days_is_found()
    {
        var (monday, sunday) = (Day.PlusDays(-2), Day.PlusDays(4));
        var week = WordChecks.DaysOf(null, [], monday, sunday);
        week.Count.ShouldBe(7);
        WordChecks.Of("On Thursday we planted beans.", week, []).ShouldBeEmpty();
        // A story of two days, on however many cards it flows.
        var own = WordChecks.DaysOf(null, [Day, monday], monday, sunday);
        own.ShouldBe([monday, Day]);
        WordChecks.Of("On Wednesday, after Monday's rain.", own, []).ShouldBeEmpty();
        WordChecks
            .Of("On Thursday we planted beans.", own, [])
            .Single()
            .Says.ShouldBe("Thursday is none of its days: Mon 4 May, Wed 6 May.");
        WordChecks.DaysOf(Day, [], monday, sunday).ShouldBe([Day]);
    }

    [Fact]
    public void Dates_are_named_in_the_albums_order() =>
        WordChecks
            .Of("It rained on 8 May.", [Day], [], ZestyPocket.Core.Dates.DateOrder.MonthDay)
            .Single()
            .Says.ShouldBe("May 8 is none of its days: Wed May 6.");
}
