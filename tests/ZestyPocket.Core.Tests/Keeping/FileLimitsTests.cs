using CsCheck;
using NodaTime;
using ZestyPocket.Core.Keeping;

namespace ZestyPocket.Core.Tests.Keeping;

public sealed class FileLimitsTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 12, 2, 12, 0);

    private static MadeFile File(string name, long bytes, double daysOld) =>
        new(name, bytes, Now - Duration.FromDays(daysOld));

    [Fact]
    public void A_file_goes_after_its_days_and_the_oldest_go_when_there_is_too_much()
    {
        MadeFile[] files = [File("old", 1, 61), File("new", 50, 0.5), File("middle", 40, 10), File("older", 30, 20)];
        new FileLimits(60, null).TooMany(files, Now).Select(f => f.Name).ShouldBe(["old"]);
        new FileLimits(60, 100).TooMany(files, Now).Select(f => f.Name).ShouldBe(["older", "old"]);
        new FileLimits(null, null).TooMany(files, Now).ShouldBeEmpty();
    }

    [Fact]
    public void What_was_made_just_now_stays_however_much_there_is() =>
        new FileLimits(1, 10).TooMany([File("large", 500, 0.01)], Now).ShouldBeEmpty();

    [Fact]
    public void What_stays_is_never_more_than_the_total_and_none_of_it_is_too_old() =>
        Gen.Select(Gen.Long[1, 50], Gen.Double[0.1, 90])
            .Array[0, 30]
            .Sample(all =>
            {
                var files = all.Select((f, i) => File($"{i}", f.Item1, f.Item2)).ToList();
                var limits = new FileLimits(40, 200);
                var stays = files.Except(limits.TooMany(files, Now)).ToList();
                return stays.Sum(f => f.Bytes) <= 200 && stays.All(f => Now - f.At <= Duration.FromDays(40));
            });
}
