using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>A new seam across a pocket, made with a heat tool: one 6x4 becomes two 3x4.</summary>
/// <param name="PocketKey">The pocket it parts.</param>
/// <param name="Upright">A seam from top to bottom; else from side to side.</param>
/// <param name="At">From the pocket's left or top edge as the front shows it.</param>
public sealed record Fuse(string PocketKey, bool Upright, Length At);

/// <summary>What is kept of a page that is cut down.</summary>
public enum CutKeeps
{
    /// <summary>The columns beside the rings.</summary>
    Columns,

    /// <summary>The rows from the top.</summary>
    Rows,
}

/// <summary>A page cut down to some of its columns or rows.</summary>
/// <param name="Keeps">Which way.</param>
/// <param name="Size">How much of the page body stays.</param>
public sealed record PageCut(CutKeeps Keeps, Length Size);

/// <summary>A tab that sticks out of the outer edge.</summary>
/// <param name="Words">On it.</param>
/// <param name="Place">Which of <see cref="Places"/> along the edge, from 0 at the top.</param>
public sealed record IndexTab(string Words, int Place)
{
    public const int Places = 6;

    public const int LongestWords = 24;

    /// <summary>
    /// Throws <see cref="RuleException"/> for a tab that nobody could read or that is not on the edge.
    /// </summary>
    public IndexTab Checked() =>
        string.IsNullOrWhiteSpace(Words) || Words.Length > LongestWords || Place is < 0 or >= Places
            ? throw new RuleException(
                $"An index tab carries 1 to {LongestWords} characters at one of {Places} places along the edge. "
                    + "Nothing was changed."
            )
            : this with
            {
                Words = Words.Trim(),
            };
}

/// <summary>What was done to one leaf: its alterations, which pockets are stuck together, its tab.</summary>
public sealed record LeafAlterations
{
    /// <summary>More seams than this leave no pocket that holds anything.</summary>
    public const int MostFuses = 24;

    public static LeafAlterations Plain { get; } = new();

    public ImmutableArray<Fuse> Fuses { get; init; } = [];

    public PageCut? Cut { get; init; }

    /// <summary>Pockets whose front and back pieces are stuck back to back and move as one.</summary>
    public ImmutableArray<string> Stuck { get; init; } = [];

    public IndexTab? Tab { get; init; }

    public bool IsAltered => !Fuses.IsEmpty || Cut is not null;

    /// <summary>The same with a pocket parted. The halves are named after it with <c>a</c> and <c>b</c>.</summary>
    public LeafAlterations With(Fuse fuse)
    {
        ArgumentNullException.ThrowIfNull(fuse);
        return Fuses.Length >= MostFuses
            ? throw new RuleException($"A leaf takes at most {MostFuses} new seams. Nothing was changed.")
            : this with
            {
                Fuses = Fuses.Add(fuse),
                Stuck = Stuck.Remove(fuse.PocketKey),
            };
    }

    public LeafAlterations Stick(string pocketKey, bool together) =>
        this with
        {
            Stuck = together
                ? Stuck.Contains(pocketKey)
                    ? Stuck
                    : Stuck.Add(pocketKey)
                : Stuck.Remove(pocketKey),
        };
}
