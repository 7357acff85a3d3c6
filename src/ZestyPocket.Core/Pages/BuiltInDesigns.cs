using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>
/// The page designs that ship with the program, common practice of the trade, named by what they hold.
/// </summary>
public static class BuiltInDesigns
{
    private const string Three3x3 = "3x3 | 3x3 | 3x3";
    private const string Three3x4 = "3x4 | 3x4 | 3x4";

    public static ImmutableArray<PageDesign> All { get; } =
    [
        PageDesign.FromNotation("9x12-nine-3x4", "Nine 3x4", $"{Three3x4} / {Three3x4} / {Three3x4}"),
        PageDesign.FromNotation("9x12-rows-6x4-3x4", "Three rows of 6x4 + 3x4", "6x4 | 3x4 / 6x4 | 3x4 / 6x4 | 3x4"),
        PageDesign.FromNotation("9x12-rows-3x4-6x4", "Three rows of 3x4 + 6x4", "3x4 | 6x4 / 3x4 | 6x4 / 3x4 | 6x4"),
        PageDesign.FromNotation("9x12-twelve-3x3", "Twelve 3x3", $"{Three3x3} / {Three3x3} / {Three3x3} / {Three3x3}"),
        PageDesign.FromNotation("9x12-6x8-five-3x4", "One 6x8 + five 3x4", $"6x8 | (3x4 / 3x4) / {Three3x4}"),
        PageDesign.FromNotation("9x12-6x12-three-3x4", "One 6x12 + three 3x4", "6x12 | (3x4 / 3x4 / 3x4)"),
        PageDesign.FromNotation("9x12-full", "One full 9x12", "9x12"),
        PageDesign.FromNotation("12x12-six-6x4", "Six 6x4", "6x4 | 6x4 / 6x4 | 6x4 / 6x4 | 6x4"),
        PageDesign.FromNotation(
            "12x12-rows-6x4-3x4-3x4",
            "Three rows of 6x4 + two 3x4",
            "6x4 | 3x4 | 3x4 / 6x4 | 3x4 | 3x4 / 6x4 | 3x4 | 3x4"
        ),
        PageDesign.FromNotation("12x12-six-4x6", "Six 4x6", "4x6 | 4x6 | 4x6 / 4x6 | 4x6 | 4x6"),
        PageDesign.FromNotation("12x12-nine-4x4", "Nine 4x4", "4x4 | 4x4 | 4x4 / 4x4 | 4x4 | 4x4 / 4x4 | 4x4 | 4x4"),
        PageDesign.FromNotation("12x12-full", "One full 12x12", "12x12"),
        PageDesign.FromNotation("6x8-two-6x4", "Two 6x4", "6x4 / 6x4"),
        PageDesign.FromNotation("6x8-four-3x4", "Four 3x4", "3x4 | 3x4 / 3x4 | 3x4"),
        PageDesign.FromNotation("6x8-6x4-two-3x4", "One 6x4 + two 3x4", "6x4 / 3x4 | 3x4"),
        PageDesign.FromNotation(
            "6x8-twelve-2x2",
            "Twelve 2x2",
            "2x2 | 2x2 | 2x2 / 2x2 | 2x2 | 2x2 / 2x2 | 2x2 | 2x2 / 2x2 | 2x2 | 2x2"
        ),
        PageDesign.FromNotation("6x8-two-3x8", "Two 3x8", "3x8 | 3x8"),
        PageDesign.FromNotation("6x8-two-3x6-two-3x2", "Two 3x6 over two 3x2", "3x6 | 3x6 / 3x2 | 3x2"),
        PageDesign.FromNotation("6x8-full", "One full 6x8", "6x8"),
        PageDesign.FromNotation("6x12-three-6x4", "Three 6x4", "6x4 / 6x4 / 6x4"),
        PageDesign.FromNotation("6x12-six-3x4", "Six 3x4", "3x4 | 3x4 / 3x4 | 3x4 / 3x4 | 3x4"),
        PageDesign.FromNotation("6x12-6x8-6x4", "One 6x8 + one 6x4", "6x8 / 6x4"),
        PageDesign.FromNotation("6x12-full", "One full 6x12", "6x12"),
        PageDesign.FromNotation("3x8-two-3x4", "Two 3x4", "3x4 / 3x4"),
        PageDesign.FromNotation("3x8-full", "One full 3x8", "3x8"),
        PageDesign.FromNotation("10x8-two-6x4-two-4x4", "Two 6x4 + two 4x4", "6x4 | 4x4 / 6x4 | 4x4"),
        PageDesign.FromNotation("10x8-full", "One full 10x8", "10x8"),
    ];

    /// <summary>The page bodies that have at least one built-in design, in the order people meet them.</summary>
    public static ImmutableArray<Size> Bodies { get; } = [.. All.Select(d => d.Body).Distinct()];

    /// <summary>Finds a design by its key; null when there is none of that name.</summary>
    public static PageDesign? Find(string key) => All.FirstOrDefault(d => d.Key == key);
}
