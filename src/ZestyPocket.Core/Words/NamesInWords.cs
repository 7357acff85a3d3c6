using System.Text.RegularExpressions;

namespace ZestyPocket.Core.Words;

/// <summary>Names that stand in words, told from other words by their capital.</summary>
public static partial class NamesInWords
{
    private const int Shortest = 4;

    /// <summary>
    /// How often each name is written: words of four letters or more that are never written without a capital, and
    /// stand at least once where no sentence begins.
    /// </summary>
    public static IReadOnlyDictionary<string, int> Of(IEnumerable<string> texts)
    {
        ArgumentNullException.ThrowIfNull(texts);
        var (counts, inside, plain) = (
            new Dictionary<string, int>(StringComparer.Ordinal),
            new HashSet<string>(StringComparer.Ordinal),
            new HashSet<string>(StringComparer.OrdinalIgnoreCase)
        );
        foreach (var text in texts)
        {
            foreach (Match word in Words().Matches(text))
            {
                if (!char.IsUpper(word.Value[0]))
                {
                    plain.Add(word.Value);
                    continue;
                }

                counts[word.Value] = counts.GetValueOrDefault(word.Value) + 1;
                if (!BeginsSentence(text, word.Index))
                {
                    inside.Add(word.Value);
                }
            }
        }

        return counts
            .Where(c => c.Key.Length >= Shortest && inside.Contains(c.Key) && !plain.Contains(c.Key))
            .ToDictionary(c => c.Key, c => c.Value);
    }

    /// <summary>
    /// Pairs of names that differ by one letter, the usual one first; words the album knows are right as they are.
    /// </summary>
    public static IEnumerable<(string Usual, string Other)> SpeltTwoWays(
        IReadOnlyDictionary<string, int> names,
        IReadOnlyCollection<string> known
    )
    {
        ArgumentNullException.ThrowIfNull(names);
        ArgumentNullException.ThrowIfNull(known);
        var ordered = names.OrderByDescending(n => n.Value).ThenBy(n => n.Key, StringComparer.Ordinal).ToList();
        for (var i = 0; i < ordered.Count; i++)
        {
            for (var j = i + 1; j < ordered.Count; j++)
            {
                var (usual, other) = (ordered[i].Key, ordered[j].Key);
                if (
                    ordered[i].Value > ordered[j].Value
                    && usual[0] == other[0]
                    && !known.Contains(other, StringComparer.Ordinal)
                    && DifferByOne(usual, other)
                    // A name and its plural or genitive are no two spellings.
                    && usual + "s" != other
                    && other + "s" != usual
                )
                {
                    yield return (usual, other);
                }
            }
        }
    }

    /// <summary>One letter is another, missing or too many.</summary>
    private static bool DifferByOne(string a, string b)
    {
        if (Math.Abs(a.Length - b.Length) > 1)
        {
            return false;
        }

        var (head, most) = (0, Math.Min(a.Length, b.Length));
        while (head < most && a[head] == b[head])
        {
            head++;
        }

        var foot = 0;
        while (foot < most - head && a[^(foot + 1)] == b[^(foot + 1)])
        {
            foot++;
        }

        return Math.Max(a.Length, b.Length) - head - foot == 1;
    }

    private static bool BeginsSentence(string text, int at)
    {
        var before = text.AsSpan(0, at).TrimEnd(" \t\"“‘'(«„");
        return before.IsEmpty || before[^1] is '.' or '!' or '?' or ':' or '\n' or '…' or '–' or '—';
    }

    [GeneratedRegex(@"\p{L}[\p{L}\p{M}]*")]
    private static partial Regex Words();
}
