using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Dates;

namespace ZestyPocket.Core.Words;

/// <summary>Words somebody wrote or brought along: about one or several days, or about a theme.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Ordinal">Its place among the stories of its day or theme.</param>
public sealed record AlbumStory(Guid Id, int Ordinal)
{
    /// <summary>The most characters a story has.</summary>
    public const int LongestWords = 200_000;

    /// <summary>The most days a story tells of.</summary>
    public const int MostDays = 400;

    /// <summary>The most people a story tells of.</summary>
    public const int MostPeople = 60;

    private const int FirstYear = 1800;
    private const int LastYear = 2200;

    public string Title { get; init; } = string.Empty;

    public string Words { get; init; } = string.Empty;

    /// <summary>The days it tells of, in order; empty when it has a theme or no place yet.</summary>
    public ImmutableArray<LocalDate> Days { get; init; } = [];

    /// <summary>
    /// The hour it tells of in an album of one day, 0 to 29 (24 is the midnight after); null when it tells of the day.
    /// </summary>
    public int? Hour { get; init; }

    /// <summary>Such as “the kitchen”; empty when it tells of days.</summary>
    public string Theme { get; init; } = string.Empty;

    public string Author { get; init; } = string.Empty;

    public ImmutableArray<string> People { get; init; } = [];

    /// <summary>File names of pictures it refers to, as it named them.</summary>
    public ImmutableArray<string> Pictures { get; init; } = [];

    /// <summary>Where it came from, so that the same post is not taken twice; null when it was written here.</summary>
    public string? Source { get; init; }

    /// <summary>Deleted, which can be undone.</summary>
    public bool Deleted { get; init; }

    /// <summary>
    /// Whether a story of some days, and of an hour, is told in a unit. In an album by the hour it is told in its own
    /// hour alone, one of the whole day in the first: one that stood at every hour was written over from another.
    /// </summary>
    /// <param name="waking">When the day of an album by the hour begins and ends.</param>
    public static bool IsToldIn(IEnumerable<LocalDate> days, int? hour, UnitDates unit, WakingWindow waking)
    {
        ArgumentNullException.ThrowIfNull(unit);
        return days.Any(d => d >= unit.First && d <= unit.Last)
            && (
                unit.Kind != UnitKind.Hour
                || ((hour ?? waking.Hours[0]) is var at && at >= unit.FirstNumber && at <= unit.LastNumber)
            );
    }

    /// <summary>The unit in which a story of some days, and of an hour, begins; null outside the album.</summary>
    public static Guid? UnitOf(
        IReadOnlyList<LocalDate> days,
        int? hour,
        IEnumerable<(Guid Id, UnitDates Dates)> units,
        WakingWindow waking
    )
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(units);
        return days.Count == 0
            ? null
            : units.Where(u => IsToldIn([days[0]], hour, u.Dates, waking)).Select(u => (Guid?)u.Id).FirstOrDefault();
    }

    /// <summary>The story at another hour. Throws <see cref="RuleException"/> for what is none.</summary>
    public AlbumStory At(int? hour) =>
        hour is null or (>= 0 and <= 29)
            ? this with
            {
                Hour = hour,
            }
            : throw new RuleException("An hour is 0 to 29: 24 is the midnight after the day. Nothing was changed.");

    /// <summary>Whether its cards must follow a change.</summary>
    public bool ChangesCards(AlbumStory before)
    {
        ArgumentNullException.ThrowIfNull(before);
        return Words != before.Words || Deleted != before.Deleted;
    }

    /// <summary>The story with other words. Throws <see cref="RuleException"/> when there are too many.</summary>
    public AlbumStory Saying(string words)
    {
        var clean = PlainWords.Clean(words);
        return clean.Length <= LongestWords
            ? this with
            {
                Words = clean,
            }
            : throw new RuleException(
                $"A story has {LongestWords:N0} characters at most; this one has {clean.Length:N0}. Nothing was "
                    + "changed: split it."
            );
    }

    /// <summary>
    /// The story with other days, put in order. Throws <see cref="RuleException"/> for too many or for far ones.
    /// </summary>
    public AlbumStory On(IReadOnlyCollection<LocalDate> days)
    {
        ArgumentNullException.ThrowIfNull(days);
        return days.Count <= MostDays && days.All(d => d.Year is >= FirstYear and <= LastYear)
            ? this with
            {
                Days = [.. days.Distinct().Order()],
            }
            : throw new RuleException(
                $"A story tells of {MostDays} days at most, between {FirstYear} and {LastYear}. Nothing was changed."
            );
    }

    /// <summary>
    /// The story called and signed another way. Throws <see cref="RuleException"/> when something is too long.
    /// </summary>
    public AlbumStory Described(string title, string theme, string author, IReadOnlyCollection<string> people)
    {
        ArgumentNullException.ThrowIfNull(people);
        // A list from outside may hold nothing where a name should be.
        var names = people.OfType<string>().ToList();
        return people.Count <= MostPeople
            ? this with
            {
                Title = Short(title, 200, "title"),
                Theme = Short(theme, 120, "theme"),
                Author = Short(author, 80, "author"),
                People = [.. names.Select(p => Short(p, 80, "name")).Where(p => p.Length > 0).Distinct()],
            }
            : throw new RuleException($"A story tells of {MostPeople} people at most. Nothing was changed.");
    }

    private static string Short(string text, int most, string what) =>
        PlainWords.Name(text) is { } trimmed && trimmed.Length <= most
            ? trimmed
            : throw new RuleException($"The {what} has {most} characters at most. Nothing was changed.");
}
