using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>What a week or day will be made of, planned before its pictures exist.</summary>
/// <param name="Kit">The kit it is made from; may be empty.</param>
/// <param name="Stories">How many stories are to be told, 0 to 20.</param>
/// <param name="Note">What to think of; may be empty.</param>
public sealed record SpreadPlan(Guid UnitId, string Kit, int Stories, string Note)
{
    private const int MostStories = 20;
    private const int LongestKit = 80;
    private const int LongestNote = 400;

    /// <summary>Throws <see cref="RuleException"/> for a plan that says nothing or too much.</summary>
    public SpreadPlan Checked()
    {
        var (kit, note) = (Kit?.Trim() ?? "", Note?.Trim() ?? "");
        if (Stories is < 0 or > MostStories || kit.Length > LongestKit || note.Length > LongestNote)
        {
            throw new RuleException(
                $"A plan has up to {MostStories} stories and a note of up to {LongestNote} characters. Nothing was "
                    + "changed."
            );
        }

        return kit.Length == 0 && note.Length == 0 && Stories == 0
            ? throw new RuleException("A plan names a kit, stories or a note. Nothing was changed.")
            : this with
            {
                Kit = kit,
                Note = note,
            };
    }

    /// <summary>What the pockets of its pages are for, in a sentence.</summary>
    /// <param name="pockets">Of its pages.</param>
    /// <param name="cards">Cards of the stash that are reserved for it.</param>
    public string PocketsInWords(int pockets, int cards)
    {
        var left = pockets - Stories - cards;
        var so =
            $"{NumberWords.Counted(pockets, "pocket")}: {NumberWords.Counted(Stories, "story", "stories")}, "
            + $"{NumberWords.Counted(cards, "card")} from the stash";
        return left >= 0
            ? $"{so}, {left} for pictures."
            : $"{so}: {NumberWords.Counted(-left, "pocket")} too few. Add a leaf or plan less.";
    }
}
