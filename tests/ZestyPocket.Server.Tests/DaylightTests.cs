using System.Globalization;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Server.Tests;

/// <summary>Daylight against another library and against almanac values.</summary>
public sealed class DaylightTests
{
    private static readonly (string Zone, double Latitude, double Longitude)[] Places =
    [
        ("Europe/London", 51.5, -0.1),
        ("Europe/Paris", 48.9, 2.3),
        ("America/New_York", 40.7, -74.0),
        ("Pacific/Auckland", -36.9, 174.8),
        ("Africa/Nairobi", -1.3, 36.8),
        ("Europe/Helsinki", 60.2, 24.9),
        ("Pacific/Apia", -13.8, -171.8),
        ("America/Punta_Arenas", -53.2, -70.9),
    ];

    /// <summary>
    /// The package suncalc, whose formulas are coarser: three minutes. Every tenth day of a year at eight places.
    /// </summary>
    [Fact]
    public async Task Sunrise_and_sunset_agree_with_another_library_all_over_the_year_and_the_world()
    {
        var asked = Places
            .SelectMany(p =>
                Enumerable
                    .Range(0, 36)
                    .Select(i => (p.Zone, p.Latitude, p.Longitude, Day: new LocalDate(2026, 1, 5).PlusDays(10 * i)))
            )
            .ToList();
        var lines = asked.Select(a =>
        {
            var noon = a.Day.At(new LocalTime(12, 0)).InZoneLeniently(DateTimeZoneProviders.Tzdb[a.Zone]).ToInstant();
            return string.Create(
                CultureInfo.InvariantCulture,
                $"{InstantPattern.General.Format(noon)},{a.Latitude},{a.Longitude}"
            );
        });
        var theirs = JsonSerializer.Deserialize<List<string?[]>>(
            await Node.RunAsync("ZestyPocket.Server.Tests/sun-times.mjs", string.Join('\n', lines))
        )!;
        theirs.Count.ShouldBe(asked.Count);
        foreach (var (a, times) in asked.Zip(theirs))
        {
            var ours = Daylight.On(a.Day, a.Latitude, a.Longitude, DateTimeZoneProviders.Tzdb[a.Zone]);
            Off(ours.Rise!.Value, times[0]!).ShouldBeLessThan(3, $"sunrise {a.Zone} {a.Day}");
            Off(ours.Set!.Value, times[1]!).ShouldBeLessThan(3, $"sunset {a.Zone} {a.Day}");
            ours.Rise.Value.InZone(DateTimeZoneProviders.Tzdb[a.Zone]).Date.ShouldBe(a.Day);
        }

        static double Off(Instant ours, string theirs) =>
            Math.Abs((ours - InstantPattern.ExtendedIso.Parse(theirs).Value).TotalMinutes);
    }

    /// <summary>
    /// Almanac values, to the minute as printed, from memory: London at midsummer 04:43 and 21:21, at midwinter 08:03
    /// and 15:53.
    /// </summary>
    [Theory]
    [InlineData(6, 21, "04:43", "21:21")]
    [InlineData(12, 21, "08:03", "15:53")]
    public void London_has_the_almanacs_longest_and_shortest_day(int month, int day, string rise, string set)
    {
        var zone = DateTimeZoneProviders.Tzdb["Europe/London"];
        var sun = Daylight.On(new LocalDate(2026, month, day), 51.507, -0.128, zone);
        Minutes(sun.Rise!.Value).ShouldBe(Printed(rise), 1.5);
        Minutes(sun.Set!.Value).ShouldBe(Printed(set), 1.5);

        double Minutes(Instant at) => at.InZone(zone).TimeOfDay.NanosecondOfDay / 60e9;

        static double Printed(string text) =>
            (int.Parse(text[..2], CultureInfo.InvariantCulture) * 60)
            + int.Parse(text[3..], CultureInfo.InvariantCulture);
    }

    [Fact]
    public void Beyond_the_polar_circle_the_sun_stays_up_or_down()
    {
        var zone = DateTimeZoneProviders.Tzdb["Europe/Oslo"];
        Daylight
            .On(new LocalDate(2026, 6, 21), 70, 20, zone)
            .ShouldBe(new SunTimes(null, null, Duration.FromHours(24)));
        Daylight.On(new LocalDate(2026, 12, 21), 70, 20, zone).ShouldBe(new SunTimes(null, null, Duration.Zero));
    }
}
