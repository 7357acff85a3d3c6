using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>Where a leaf is punched for the rings.</summary>
/// <param name="Name">What people call it.</param>
/// <param name="FromEdge">From the ring edge to the middle of the holes.</param>
/// <param name="Diameter">Of a hole.</param>
/// <param name="FromMiddle">The middle of each hole above (less than nothing) or below the middle of the edge.</param>
public sealed record HolePattern(string Name, Length FromEdge, Length Diameter, ImmutableArray<Length> FromMiddle)
{
    /// <summary>
    /// Two-hole filing: centres 80 mm apart, 12 mm from the edge, holes of 6 mm. Source: ISO 838, from memory.
    /// </summary>
    public static HolePattern TwoHoles { get; } =
        Even(
            "Two holes, 80 mm apart",
            Length.FromMillimetres(12),
            Length.FromMillimetres(6),
            2,
            Length.FromMillimetres(80)
        );

    /// <summary>
    /// Three rings 4 1/4 in apart, from memory; the distance from the edge and the hole are common practice.
    /// </summary>
    public static HolePattern ThreeRings { get; } =
        Even(
            "Three rings, 4 1/4 in apart",
            Length.FromInches(5, 16),
            Length.FromInches(1, 4),
            3,
            Length.FromInches(4.25m)
        );

    /// <summary>The patterns that can be taken without measuring.</summary>
    public static ImmutableArray<HolePattern> Known { get; } = [TwoHoles, ThreeRings];

    /// <summary>Holes at even distances around the middle of the edge.</summary>
    public static HolePattern Even(string name, Length fromEdge, Length diameter, int holes, Length apart) =>
        new(
            name,
            fromEdge,
            diameter,
            [.. Enumerable.Range(0, holes).Select(i => new Length(((2 * i) - (holes - 1)) * apart.Emu / 2))]
        );

    /// <summary>
    /// A pattern measured on one protector: each hole from the top of a leaf that is <paramref name="height"/> tall.
    /// </summary>
    public static HolePattern Measured(Length height, Length fromEdge, Length diameter, IEnumerable<Length> fromTop)
    {
        ArgumentNullException.ThrowIfNull(fromTop);
        return new("Measured", fromEdge, diameter, [.. fromTop.Order().Select(top => top - (height / 2))]);
    }

    /// <summary>Each hole from the top of a leaf that is <paramref name="height"/> tall.</summary>
    public ImmutableArray<Length> FromTop(Length height) => [.. FromMiddle.Select(m => m + (height / 2))];

    /// <summary>
    /// Refuses holes that a leaf cannot have: outside the ring strip or beyond its ends, or overlapping.
    /// </summary>
    public HolePattern CheckedOn(Length height, Length ringStrip)
    {
        var half = Diameter / 2;
        if (FromMiddle.Length is 0 or > 40 || Diameter <= Length.Zero)
        {
            throw new MeasureException("A leaf has 1 to 40 holes of some width. Nothing was changed.");
        }

        if (FromEdge < half || FromEdge + half > ringStrip)
        {
            throw new MeasureException(
                $"Holes {FromEdge} from the edge and {Diameter} wide do not lie within a ring strip of {ringStrip}. "
                    + "Nothing was changed: measure the strip or the holes again."
            );
        }

        if (FromTop(height).Any(top => top < half || top > height - half))
        {
            throw new MeasureException(
                $"A hole would lie beyond the end of a leaf that is {height} tall. Nothing was changed."
            );
        }

        return FromMiddle.Zip(FromMiddle.Skip(1)).Any(pair => pair.Second - pair.First < Diameter)
            ? throw new MeasureException(
                "Two holes overlap. Nothing was changed: measure from the top of the leaf to the middle of each hole."
            )
            : this;
    }
}
