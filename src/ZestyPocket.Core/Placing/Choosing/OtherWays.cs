namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>Clearly different spreads of the same things.</summary>
public static class OtherWays
{
    /// <summary>Two ways differ in at least this share of their pockets.</summary>
    private const double Differ = 1.0 / 3;

    /// <summary>
    /// The best spread first, then others that each differ from all before in a third of their pockets, cheapest
    /// first; fewer than asked for when there are no more.
    /// </summary>
    public static IReadOnlyList<SpreadAnswer> Of(SpreadQuestion question, int most)
    {
        ArgumentNullException.ThrowIfNull(question);
        var ways = new List<SpreadAnswer> { SpreadSearch.Best(question) };
        // Tried once more often than asked for, since one try may come too near to another.
        for (var tries = 0; ways.Count < most && tries <= most; tries++)
        {
            var other = SpreadSearch.Best(question, [.. Enumerable.Repeat(ways, tries + 1).SelectMany(w => w)]);
            if (ways.TrueForAll(w => IsOther(question, w, other)))
            {
                ways.Add(other);
            }
        }

        return [.. ways.OrderBy(w => w.Cost)];
    }

    /// <summary>Of the pockets that are filled, enough hold something else.</summary>
    private static bool IsOther(SpreadQuestion question, SpreadAnswer one, SpreadAnswer two)
    {
        var free = Enumerable.Range(0, question.Pockets.Length).Where(p => question.Pockets[p].Stays < 0).ToList();
        var differ = free.Count(p => one.Candidates[p] != two.Candidates[p]);
        return differ >= Math.Max(1, Differ * free.Count);
    }
}
