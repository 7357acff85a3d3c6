using System.Collections.Frozen;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Small drawings beside the rows of a card: weather, ways to travel, what people do. Outlines of the Lucide set 0.468
/// under the ISC licence (<c>Pictograms-ISC.txt</c>), on a square of 24.
/// </summary>
public static class Pictograms
{
    /// <summary>Edge of the square they are drawn on.</summary>
    public const double Edge = 24;

    /// <summary>Thickness of their lines on that square.</summary>
    private const double LineThickness = 2;

    private static readonly FrozenDictionary<string, string> Paths = Read();

    /// <summary>
    /// Words a row may begin with or name, and the pictogram for each; the first that is found counts.
    /// </summary>
    private static readonly (string Word, string Name)[] Words =
    [
        ("thunder", "storm"),
        ("storm", "storm"),
        ("snow", "snow"),
        ("drizzle", "drizzle"),
        ("shower", "rain"),
        ("rain", "rain"),
        ("fog", "fog"),
        ("mist", "fog"),
        ("wind", "wind"),
        ("bright", "bright"),
        ("cloud", "cloud"),
        ("overcast", "cloud"),
        ("daylight", "daylight"),
        ("sun", "sun"),
        ("clear", "sun"),
        ("reading", "book"),
        ("wearing", "clothes"),
        ("listening", "music"),
        ("eating", "food"),
        ("drinking", "drink"),
        ("thinking", "thought"),
        ("watching", "screen"),
        ("making", "hands"),
        ("grateful", "heart"),
        ("looking forward", "forward"),
        ("high", "up"),
        ("low", "down"),
        ("from", "from"),
        ("to", "to"),
        ("at", "to"),
        ("day", "calendar"),
        ("people", "people"),
        ("person", "people"),
        ("picture", "picture"),
        ("word", "words"),
        ("place", "place"),
    ];

    /// <summary>What a word may end with and still be the same one: rainy, cloudy, showers, highs.</summary>
    private static readonly string[] Endings = ["", "s", "y", "ny", "gy", "ty", "ing"];

    public static IEnumerable<string> Names => Paths.Keys;

    /// <summary>The pictogram of a row by its name; null when there is none.</summary>
    public static string? For(string rowName)
    {
        ArgumentNullException.ThrowIfNull(rowName);
        var name = rowName.Trim();
        return Words
            .Where(w =>
                name.StartsWith(w.Word, StringComparison.OrdinalIgnoreCase)
                && Endings.Contains(name[w.Word.Length..].Split(' ')[0], StringComparer.OrdinalIgnoreCase)
            )
            .Select(w => w.Name)
            .FirstOrDefault();
    }

    /// <summary>A pictogram in a square of an edge in points, its top left corner at a place.</summary>
    public static InkShape At(string name, double x, double y, double edge, Rgb ink) =>
        new(Paths[name], x, y, edge / Edge, ink, LineThickness * edge / Edge) { RoundEnds = true };

    private static FrozenDictionary<string, string> Read()
    {
        using var stream = typeof(Pictograms).Assembly.GetManifestResourceStream("Pictograms.txt")!;
        using var reader = new StreamReader(stream);
        return reader
            .ReadToEnd()
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(l => l.Split('\t'))
            .ToFrozenDictionary(l => l[0], l => l[1].Trim(), StringComparer.Ordinal);
    }
}
