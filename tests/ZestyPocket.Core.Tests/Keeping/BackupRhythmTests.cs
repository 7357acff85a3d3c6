using NodaTime;
using ZestyPocket.Core.Keeping;

namespace ZestyPocket.Core.Tests.Keeping;

public sealed class BackupRhythmTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 5, 4, 12, 0);

    [Theory]
    [InlineData(7, null, true)]
    [InlineData(7, 7.0, true)]
    [InlineData(7, 6.9, false)]
    [InlineData(1, 1.0, true)]
    [InlineData(null, null, false)]
    [InlineData(null, 400.0, false)]
    public void A_backup_is_due_when_the_last_one_is_as_many_days_old(int? every, double? daysAgo, bool due) =>
        new BackupRhythm(every, 5).IsDue(daysAgo is { } days ? Now - Duration.FromDays(days) : null, Now).ShouldBe(due);

    [Fact]
    public void The_newest_are_kept_in_whatever_order_they_are_listed()
    {
        var all = Enumerable
            .Range(1, 6)
            .Select(i => (Id: new Guid(i, 0, 0, new byte[8]), MadeAt: Now + Duration.FromDays(i)))
            .ToList();
        var rhythm = new BackupRhythm(1, 4);
        rhythm.TooMany(all).ShouldBe([all[1].Id, all[0].Id]);
        all.Reverse();
        rhythm.TooMany(all).Count.ShouldBe(2);
        rhythm.TooMany(all.Take(4)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(0, 5)]
    [InlineData(91, 5)]
    [InlineData(7, 0)]
    [InlineData(7, 51)]
    public void Rhythms_that_make_no_sense_are_refused(int every, int kept) =>
        Should.Throw<RuleException>(() => new BackupRhythm(every, kept).Checked());
}
