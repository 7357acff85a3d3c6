using NodaTime;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>Tells what the weather was; a real service would do the same.</summary>
public interface IWeatherAlmanac
{
    /// <summary>The weather of a day at a place in degrees north and east; null when it is not known.</summary>
    DayWeather? On(LocalDate day, double latitude, double longitude);
}

/// <summary>The almanac that ships with the program: made up, the same each time for a day and a place.</summary>
public sealed class MadeUpAlmanac : IWeatherAlmanac
{
    private static readonly string[] Skies =
    [
        "Sunny",
        "Fair",
        "Bright spells",
        "Cloudy",
        "Showers",
        "Rain",
        "Windy",
        "Mist, then sun",
    ];

    public DayWeather? On(LocalDate day, double latitude, double longitude)
    {
        // Places within half a degree share their weather.
        var (row, column) = ((int)Math.Round(latitude * 2), (int)Math.Round(longitude * 2));
        var seed = Mix(Mix(Mix((uint)(day.Year * 400) + (uint)day.DayOfYear, (uint)row), (uint)column), 0x5EED);
        var season = Math.Cos((day.DayOfYear - 200) * 2 * Math.PI / 365.25) * (latitude >= 0 ? 1 : -1);
        var mean = 27 - (Math.Abs(latitude) * 0.33) + (season * Math.Abs(latitude) * 0.18);
        var high = (int)Math.Round(mean + 4 + (seed % 7) - 3);
        return new DayWeather(high - 5 - (int)(seed / 7 % 6), high, Skies[seed / 64 % (uint)Skies.Length]);
    }

    private static uint Mix(uint a, uint b)
    {
        unchecked
        {
            var mixed = (a ^ (b * 0x9E3779B1)) * 0x85EBCA6B;
            return mixed ^ (mixed >> 15);
        }
    }
}
