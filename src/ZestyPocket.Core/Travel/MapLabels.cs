using System.Collections.Immutable;

namespace ZestyPocket.Core.Travel;

/// <summary>A name that wants a place on a map.</summary>
/// <param name="At">The place it names, in points.</param>
/// <param name="Radius">Of the mark at that place, in points.</param>
/// <param name="Width">Of the set name, in points.</param>
/// <param name="Height">From ascent to descent, in points.</param>
/// <param name="Must">It belongs to the trip: it is placed before any other name.</param>
public sealed record WantedLabel(string Name, CardPoint At, double Radius, double Width, double Height, bool Must);

/// <summary>A name at its place.</summary>
/// <param name="Box">Where its letters lie.</param>
public sealed record PlacedLabel(WantedLabel Label, MapBox Box);

/// <summary>
/// Puts names beside their places so that none lies over another, over a mark or over the edge. Of eight positions the
/// first that is free is taken, to the right and above first (E. Imhof, "Positioning names on maps", The American
/// Cartographer 2, 1975); a name without a free one is left away. Names of the trip may lie over its way, others may
/// not.
/// </summary>
public static class MapLabels
{
    /// <summary>Between two names, so that they are not read as one.</summary>
    private const double Between = 1.5;

    /// <param name="wanted">The weightiest first.</param>
    /// <param name="taken">MapClip that nothing may lie over.</param>
    /// <param name="ways">Lines that only names of the trip may cross.</param>
    public static ImmutableArray<PlacedLabel> Place(
        IEnumerable<WantedLabel> wanted,
        IReadOnlyCollection<MapBox> taken,
        IReadOnlyCollection<ImmutableArray<CardPoint>> ways,
        MapBox inside,
        int most
    )
    {
        ArgumentNullException.ThrowIfNull(wanted);
        ArgumentNullException.ThrowIfNull(taken);
        ArgumentNullException.ThrowIfNull(ways);
        var placed = ImmutableArray.CreateBuilder<PlacedLabel>();
        var full = new List<MapBox>(taken);
        foreach (var label in wanted.OrderByDescending(w => w.Must))
        {
            if (placed.Count >= most)
            {
                break;
            }

            // A place that another name or mark covers is not named beside it.
            if (
                !inside.Holds(label.At.X, label.At.Y)
                || (!label.Must && full.Exists(b => b.Holds(label.At.X, label.At.Y)))
            )
            {
                continue;
            }

            var free = Positions(label)
                .Where(b => inside.Holds(b) && !full.Exists(o => o.Meets(b.Grown(Between))))
                .ToList();
            var clear = free.Where(b => !ways.Any(w => Crosses(w, b))).Cast<MapBox?>().FirstOrDefault();
            var box = clear ?? (label.Must ? free.Cast<MapBox?>().FirstOrDefault() : null);
            if (box is { } found)
            {
                placed.Add(new PlacedLabel(label, found));
                full.Add(found);
            }
        }

        return placed.ToImmutable();
    }

    /// <summary>Whether a line touches a box.</summary>
    public static bool Crosses(ImmutableArray<CardPoint> line, MapBox box)
    {
        for (var i = 1; i < line.Length; i++)
        {
            if (MapClip.Cut(box, line[i - 1], line[i]) is not null)
            {
                return true;
            }
        }

        return false;
    }

    private static IEnumerable<MapBox> Positions(WantedLabel label)
    {
        var (x, y, w, h) = (label.At.X, label.At.Y, label.Width, label.Height);
        // Beside its own mark, which is no less in the way than any other.
        var gap = label.Radius + Between + 0.5;
        yield return new MapBox(x + gap, y - gap - h, w, h);
        yield return new MapBox(x + gap, y - (h / 2), w, h);
        yield return new MapBox(x + gap, y + gap, w, h);
        yield return new MapBox(x - gap - w, y - gap - h, w, h);
        yield return new MapBox(x - gap - w, y + gap, w, h);
        yield return new MapBox(x - gap - w, y - (h / 2), w, h);
        yield return new MapBox(x - (w / 2), y - gap - h, w, h);
        yield return new MapBox(x - (w / 2), y + gap, w, h);
    }
}
