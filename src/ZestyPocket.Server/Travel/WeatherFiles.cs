using System.Globalization;
using System.Text;
using System.Text.Json;
using CsvHelper;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Travel;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Travel;

/// <summary>The weather of days from a file, and the lines that could not be read.</summary>
public sealed record ReadWeather(IReadOnlyList<NotedWeather> Days, IReadOnlyList<string> Passed);

/// <summary>
/// Reads weather from CSV with a head line or from a JSON list, with the fields date, low, high and sky; temperatures
/// in °C, or in °F where the name of the field ends in <c>f</c>.
/// </summary>
public static class WeatherFiles
{
    private static readonly string[] Dates = ["date", "day"];
    private static readonly string[] Lows = ["low", "min", "tmin", "lowc", "lowf"];
    private static readonly string[] Highs = ["high", "max", "tmax", "highc", "highf"];
    private static readonly string[] Skies = ["sky", "weather", "conditions"];

    /// <summary>
    /// Throws <see cref="RuleException"/> when the whole file says nothing; single bad lines are passed over and named.
    /// </summary>
    public static ReadWeather Read(string name, byte[] bytes, CancellationToken cancel)
    {
        var reading = new ForeignReading(name, cancel);
        var text = Encoding.UTF8.GetString(bytes).Trim('\ufeff', ' ', '\n', '\r', '\t');
        List<Dictionary<string, string>> rows;
        try
        {
            rows = text.StartsWith('[') ? Json(text) : CsvTable.Read(text, reading);
        }
        catch (Exception e) when (e is JsonException or CsvFormatException or InvalidOperationException)
        {
            throw reading.Refuse("is neither CSV with a head line nor a JSON list");
        }

        var (days, passed) = (new List<NotedWeather>(), new List<string>());
        foreach (var (row, number) in rows.Select((r, i) => (r, i + 1)))
        {
            reading.Check();
            if (DayOf(row) is { } day && Degrees(row, Lows) is { } low && Degrees(row, Highs) is { } high)
            {
                try
                {
                    days.Add(new NotedWeather(day, low, high, Field(row, Skies) ?? "Unknown sky").Checked());
                    continue;
                }
                catch (RuleException)
                {
                    // Named below like every other line that says nothing.
                }
            }

            passed.Add(string.Create(CultureInfo.InvariantCulture, $"Day {number} of {name} was passed over."));
        }

        return days.Count > 0
            ? new ReadWeather(days, passed)
            : throw reading.Refuse("has no day with a date, a lowest and a highest temperature");
    }

    private static List<Dictionary<string, string>> Json(string text)
    {
        using var document = JsonDocument.Parse(text, new JsonDocumentOptions { MaxDepth = 8 });
        return
        [
            .. document
                .RootElement.EnumerateArray()
                .Where(e => e.ValueKind == JsonValueKind.Object)
                .Select(e =>
                    e.EnumerateObject()
                        .GroupBy(p => CsvTable.Plain(p.Name))
                        .ToDictionary(g => g.Key, g => g.First().Value.ToString())
                ),
        ];
    }

    private static string? Field(Dictionary<string, string> row, string[] names) =>
        names.Select(n => row.GetValueOrDefault(n)?.Trim()).FirstOrDefault(v => !string.IsNullOrEmpty(v)) is { } found
            ? found[..Math.Min(found.Length, NotedWeather.LongestSky)]
            : null;

    private static LocalDate? DayOf(Dictionary<string, string> row) =>
        Field(row, Dates) is { Length: >= 10 } text
        && LocalDatePattern.Iso.Parse(text[..10]) is { Success: true, Value: var day }
            ? day
            : null;

    private static int? Degrees(Dictionary<string, string> row, string[] names)
    {
        var name = names.FirstOrDefault(n => !string.IsNullOrWhiteSpace(row.GetValueOrDefault(n)));
        if (
            name is null
            || !double.TryParse(
                row[name].Trim().Replace('−', '-').Replace(',', '.'),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var degrees
            )
            || !double.IsFinite(degrees)
            || Math.Abs(degrees) > 1_000
        )
        {
            return null;
        }

        return (int)Math.Round(name.EndsWith('f') ? (degrees - 32) / 1.8 : degrees);
    }
}
