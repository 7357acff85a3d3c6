using System.Text.RegularExpressions;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Words;

/// <summary>What the words on a picture can be computed from.</summary>
/// <param name="Taken">When it was taken, on the album's clock; null when nothing says so.</param>
/// <param name="Day">The album's day it is on; null when it has none.</param>
/// <param name="DayNumber">Of a trip or a countdown; null elsewhere.</param>
/// <param name="Place">Where one stayed on that day; null when no stay says so.</param>
public sealed record CaptionFacts(LocalDateTime? Taken, LocalDate? Day, int? DayNumber, string? Place);

/// <summary>
/// Words on pictures that nobody types: <c>{time}</c>, <c>{date}</c>, <c>{weekday}</c>, <c>{day number}</c>,
/// <c>{place}</c> and <c>{age Junie}</c> become what is true of the picture, written as the album writes it. So a
/// series carries its time, and every print of it has its own.
/// </summary>
public static partial class CaptionFields
{
    public static bool HasFields(string words) => Field().IsMatch(words ?? string.Empty);

    /// <summary>
    /// The words with every field filled in; a field that nothing is known for is left away, one that does not exist
    /// stays as it is.
    /// </summary>
    public static string Fill(
        string words,
        CaptionFacts facts,
        DateStyle style,
        IReadOnlyCollection<AlbumPerson> people
    )
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(people);
        return HasFields(words)
            ? Blanks().Replace(Field().Replace(words, m => Value(m.Groups[1].Value.Trim()) ?? m.Value), " ").Trim()
            : words;

        string? Value(string field) =>
            field.ToLowerInvariant() switch
            {
                "time" => facts.Taken is { } at ? SpanLabel.Time(at.TimeOfDay, style.Clock) : string.Empty,
                "date" => facts.Day is { } day ? SpanLabel.Of(day, day, style.Order) : string.Empty,
                "weekday" => facts.Day?.DayOfWeek.ToString() ?? string.Empty,
                "day number" => facts.DayNumber?.ToString(System.Globalization.CultureInfo.InvariantCulture)
                    ?? string.Empty,
                "place" => facts.Place ?? string.Empty,
                var age when age.StartsWith("age ", StringComparison.Ordinal) => AgeOf(field[4..].Trim()),
                _ => null,
            };

        string? AgeOf(string name) =>
            people.FirstOrDefault(p =>
                p.Name.Equals(name, StringComparison.OrdinalIgnoreCase)
                || p.Name.StartsWith(name + " ", StringComparison.OrdinalIgnoreCase)
            )
                is { Born: { } born }
            && facts.Day is { } on
            && on >= born
                ? Age.On(born, on)
                : null;
    }

    [GeneratedRegex(@"\{([a-zA-Z][^{}]{0,60})\}")]
    private static partial Regex Field();

    [GeneratedRegex("[ ]{2,}")]
    private static partial Regex Blanks();
}
