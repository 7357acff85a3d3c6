using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Keeping;

/// <summary>How often something is there.</summary>
public sealed record NamedCount(string Name, int Count);

/// <summary>A colour and its share of the pictures, 0 to 1.</summary>
public sealed record ColourShare(Rgb Colour, double Share);

/// <summary>What one unit brings into the numbers of a year.</summary>
/// <param name="Pictures">Pictures in its pockets, each once.</param>
/// <param name="Words">All words on its cards that somebody wrote.</param>
public sealed record UnitNumbers(
    int Pictures,
    int Words,
    ImmutableArray<string> Stories,
    ImmutableArray<PaletteColour> Colours
)
{
    /// <summary>Who is tagged on those pictures, once for each picture.</summary>
    public ImmutableArray<string> Seen { get; init; } = [];
}

/// <summary>What a year of an album came to. Everything is counted, nothing is typed.</summary>
/// <param name="UnitsTold">Units with words or pictures in them.</param>
/// <param name="People">How many stories name each person, most first.</param>
/// <param name="Colours">The main colours of the pictures in the pockets, most first.</param>
public sealed record YearNumbers(
    int Units,
    int UnitsTold,
    int Pictures,
    int Words,
    int Stories,
    Distance Length,
    ImmutableArray<NamedCount> People,
    ImmutableArray<ColourShare> Colours
)
{
    /// <summary>On how many pictures each person is tagged, most first.</summary>
    public ImmutableArray<NamedCount> Seen { get; init; } = [];

    private const int MostColours = 5;

    /// <summary>Colours nearer than this in CIEDE2000 are one colour to the eye of a card. Common practice.</summary>
    private const double SameColour = 14;

    public static YearNumbers Of(IReadOnlyCollection<UnitNumbers> units, AlbumWords words, TripLog trip)
    {
        ArgumentNullException.ThrowIfNull(units);
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(trip);
        var stories = units.SelectMany(u => u.Stories).Where(s => !string.IsNullOrWhiteSpace(s)).ToList();
        return new YearNumbers(
            units.Count,
            units.Count(u => u.Pictures > 0 || u.Words > 0),
            units.Sum(u => u.Pictures),
            units.Sum(u => u.Words),
            stories.Count,
            trip.Legs.Aggregate(Distance.None, (sum, l) => sum + (l.Length ?? Distance.None)),
            [
                .. words
                    .People.Select(p => new NamedCount(p.Name, stories.Count(s => Names(s, p.Name))))
                    .Where(p => p.Count > 0)
                    .OrderByDescending(p => p.Count)
                    .ThenBy(p => p.Name, StringComparer.Ordinal),
            ],
            ColoursOf(units.SelectMany(u => u.Colours))
        )
        {
            Seen =
            [
                .. units
                    .SelectMany(u => u.Seen)
                    .GroupBy(n => n)
                    .Select(g => new NamedCount(g.Key, g.Count()))
                    .OrderByDescending(p => p.Count)
                    .ThenBy(p => p.Name, StringComparer.Ordinal),
            ],
        };
    }

    /// <summary>Lines for a card; what is nought is left away.</summary>
    /// <param name="unit">What the album counts in, such as <c>week</c>.</param>
    public IEnumerable<string> Lines(string unit, MeasureSystem measures)
    {
        if (UnitsTold > 0)
        {
            yield return UnitsTold == Units
                ? $"All {Count(Units, unit)} told"
                : $"{UnitsTold} of {Count(Units, unit)} told";
        }

        foreach (var (count, what) in new[] { (Pictures, "picture"), (Words, "word"), (Stories, "story") })
        {
            if (count > 0)
            {
                yield return what == "story" && count > 1
                    ? string.Create(CultureInfo.InvariantCulture, $"{count:N0} stories")
                    : Count(count, what);
            }
        }

        if (Length > Distance.None)
        {
            yield return $"{DistanceText.Show(Length, measures)} on the way";
        }

        if (!Seen.IsEmpty)
        {
            yield return $"Most seen: {string.Join(", ", Seen.Take(3).Select(p => p.Name.Split(' ')[0]))}";
        }

        if (!People.IsEmpty)
        {
            yield return $"Most told of: {string.Join(", ", People.Take(3).Select(p => p.Name.Split(' ')[0]))}";
        }
    }

    /// <summary>A name is there by its first word or whole, as a word of its own.</summary>
    private static bool Names(string story, string name)
    {
        var first = name.Split(' ')[0];
        for (var at = story.IndexOf(first, StringComparison.Ordinal); at >= 0; )
        {
            var end = at + first.Length;
            if (
                (at == 0 || !char.IsLetterOrDigit(story[at - 1]))
                && (end == story.Length || !char.IsLetterOrDigit(story[end]))
            )
            {
                return true;
            }

            at = story.IndexOf(first, at + 1, StringComparison.Ordinal);
        }

        return false;
    }

    /// <summary>Near colours are counted together, under the weightiest of them.</summary>
    private static ImmutableArray<ColourShare> ColoursOf(IEnumerable<PaletteColour> all)
    {
        var groups = new List<(PaletteColour Colour, LabColour Lab, double Share)>();
        var total = 0.0;
        foreach (
            var colour in all.GroupBy(c => (c.Red, c.Green, c.Blue))
                .Select(g => g.First() with { Share = g.Sum(c => c.Share) })
                .OrderByDescending(c => c.Share)
        )
        {
            total += colour.Share;
            var lab = LabColour.OfSrgb(colour.Red, colour.Green, colour.Blue);
            var near = groups.FindIndex(g => g.Lab.DifferenceTo(lab) < SameColour);
            if (near < 0)
            {
                groups.Add((colour, lab, colour.Share));
            }
            else
            {
                groups[near] = groups[near] with { Share = groups[near].Share + colour.Share };
            }
        }

        return
        [
            .. groups
                .OrderByDescending(g => g.Share)
                .Take(MostColours)
                .Select(g => new ColourShare(
                    new Rgb(g.Colour.Red, g.Colour.Green, g.Colour.Blue),
                    total > 0 ? g.Share / total : 0
                )),
        ];
    }

    private static string Count(int count, string what) =>
        string.Create(CultureInfo.InvariantCulture, $"{count:N0} {what}{(count == 1 ? "" : "s")}");
}
