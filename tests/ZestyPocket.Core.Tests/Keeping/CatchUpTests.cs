using CsCheck;
using NodaTime;
using ZestyPocket.Core.Keeping;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>Working time from edits, and evenings until an album is caught up. Arithmetic.</summary>
public sealed class CatchUpTests
{
    /// <summary>A Monday.</summary>
    private static readonly LocalDate Today = new(2026, 5, 4);

    private static readonly Instant Evening = Instant.FromUtc(2026, 5, 4, 19, 0);

    private static Instant At(double minutes) => Evening + Duration.FromMinutes(minutes);

    private static OpenWork Week(int number, int minutes, int weeksAgo) =>
        new(new Guid(number, 0, 0, new byte[8]), $"Week {number}", Today.PlusWeeks(-weeksAgo), minutes);

    private static WorkingHabit Habit(int minutes, int lag, params IsoDayOfWeek[] days) => new([.. days], minutes, lag);

    private static List<string> Told(CatchUpPlan plan) =>
        [.. plan.Evenings.Select(e => $"{e.Day.DayOfWeek} {string.Join(", ", e.Parts.Select(Part))}")];

    private static string Part(EveningPart part) => $"{part.Title} {part.Minutes}{(part.Finishes ? "." : "")}";

    [Fact]
    public void Pauses_of_over_ten_minutes_are_no_work_and_each_sitting_has_begun_before_its_first_edit()
    {
        WorkingTime.Of([]).ShouldBe(Duration.Zero);
        WorkingTime.Of([At(0)]).ShouldBe(Duration.FromMinutes(2));
        // 2 + 5 + 10 in one sitting, then 2 + 3 in another.
        WorkingTime.Of([At(0), At(5), At(15), At(60), At(63)]).ShouldBe(Duration.FromMinutes(22));
        WorkingTime.Of([At(63), At(5), At(0), At(60), At(15)]).ShouldBe(Duration.FromMinutes(22));
        WorkingTime.Of([At(0), At(10.01)]).ShouldBe(Duration.FromMinutes(4));
    }

    [Fact]
    public void The_middle_of_several_times_is_one_of_them_and_of_none_there_is_none()
    {
        WorkingTime.Middle([]).ShouldBeNull();
        WorkingTime
            .Middle([Duration.FromMinutes(90), Duration.FromMinutes(30), Duration.FromMinutes(400)])
            .ShouldBe(Duration.FromMinutes(90));
    }

    [Fact]
    public void What_is_current_goes_first_or_what_is_oldest_or_both_in_turn()
    {
        List<OpenWork> open = [Week(16, 60, 3), Week(17, 60, 2), Week(18, 60, 1)];
        var habit = Habit(60, 0, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Sunday);
        Told(CatchUp.Plan(open, habit, CatchUpOrder.CurrentFirst, Today))
            .ShouldBe(["Tuesday Week 18 60.", "Sunday Week 17 60.", "Tuesday Week 16 60."]);
        Told(CatchUp.Plan(open, habit, CatchUpOrder.OldestFirst, Today))
            .ShouldBe(["Tuesday Week 16 60.", "Sunday Week 17 60.", "Tuesday Week 18 60."]);
        Told(CatchUp.Plan(open, habit, CatchUpOrder.Alternating, Today))
            .ShouldBe(["Tuesday Week 18 60.", "Sunday Week 16 60.", "Tuesday Week 17 60."]);
    }

    [Fact]
    public void What_was_begun_is_finished_before_another_is_taken_in_hand()
    {
        List<OpenWork> open = [Week(17, 50, 2), Week(18, 50, 1)];
        var plan = CatchUp.Plan(open, Habit(40, 0, IsoDayOfWeek.Monday), CatchUpOrder.CurrentFirst, Today);
        Told(plan).ShouldBe(["Monday Week 18 40", "Monday Week 18 10., Week 17 30", "Monday Week 17 20."]);
        plan.CaughtUpOn.ShouldBe(Today.PlusWeeks(2));
    }

    [Fact]
    public void Two_weeks_behind_is_caught_up_when_that_is_comfortable()
    {
        List<OpenWork> open = [Week(16, 60, 3), Week(17, 60, 1), Week(18, 60, 0)];
        var plan = CatchUp.Plan(open, Habit(60, 2, IsoDayOfWeek.Monday), CatchUpOrder.OldestFirst, Today);
        Told(plan).ShouldBe(["Monday Week 16 60."]);
        plan.CaughtUpOn.ShouldBe(Today);
        CatchUp
            .Plan([Week(18, 60, 0)], Habit(60, 2, IsoDayOfWeek.Monday), CatchUpOrder.OldestFirst, Today)
            .Evenings.ShouldBeEmpty();
    }

    [Fact]
    public void Weeks_that_are_still_to_come_join_when_they_are_over()
    {
        // A week takes two evenings of an hour, and each week another one is over: two evenings a week never catch up
        // with ten that are open, three do.
        List<OpenWork> open = [.. Enumerable.Range(0, 115).Select(i => Week(i, 120, 10 - i))];
        CatchUp
            .Plan(open, Habit(60, 1, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Sunday), CatchUpOrder.CurrentFirst, Today)
            .CaughtUpOn.ShouldBeNull();
        var three = Habit(60, 1, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Sunday);
        CatchUp.Plan(open, three, CatchUpOrder.CurrentFirst, Today).CaughtUpOn.ShouldNotBeNull();
    }

    [Fact]
    public void The_fewest_minutes_for_a_day_are_enough_and_five_less_are_not() =>
        Gen.Select(Gen.Int[10, 200].Array[1, 12], Gen.Int[10, 90])
            .Sample(
                (minutes, days) =>
                {
                    List<OpenWork> open = [.. minutes.Select((m, i) => Week(i + 1, m, i + 1))];
                    var habit = Habit(60, 0, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Friday);
                    var by = Today.PlusDays(days);
                    var fewest = CatchUp.MinutesFor(open, habit, CatchUpOrder.OldestFirst, Today, by);
                    bool Done(int each) =>
                        CatchUp
                            .Plan(open, habit with { MinutesAnEvening = each }, CatchUpOrder.OldestFirst, Today)
                            .CaughtUpOn <= by;
                    (
                        fewest is { } enough ? Done(enough) && (enough == 5 || !Done(enough - 5)) : !Done(600)
                    ).ShouldBeTrue();
                },
                iter: 100
            );

    [Theory]
    [InlineData(0, 60, 2)]
    [InlineData(1, 4, 2)]
    [InlineData(1, 601, 2)]
    [InlineData(1, 60, 53)]
    public void Evenings_nobody_can_keep_are_refused(int days, int minutes, int lag) =>
        Should.Throw<RuleException>(() =>
            new WorkingHabit([.. Enumerable.Range(1, days).Select(d => (IsoDayOfWeek)d)], minutes, lag).Checked()
        );
}
