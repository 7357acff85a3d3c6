using System.Collections.Immutable;
using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>What a title asks of a sheet of letters.</summary>
/// <param name="Title">As it would be spelt.</param>
/// <param name="Missing">
/// Letters or signs the sheet has too few of, with how many are short, in the order of the title.
/// </param>
public sealed record Spelling(string Title, ImmutableArray<(string Letter, int Short)> Missing)
{
    public bool CanBeSpelt => Missing.IsEmpty;
}

/// <summary>
/// A sheet of letter stickers, or a set of stamps, which never run out. Letters are counted as readers see them
/// (Unicode grapheme clusters, UAX #29); capitals stand for both cases unless the sheet has small letters too.
/// </summary>
/// <param name="Counts">How many of each there are.</param>
/// <param name="Reusable">Stamps: having one is enough.</param>
public sealed record AlphaSheet(ImmutableDictionary<string, int> Counts, bool Reusable)
{
    /// <summary>What people use for a sign that a sheet lacks. Common practice.</summary>
    private static readonly (string Sign, string[] StandIns)[] Signs =
    [
        ("’", ["'", "‘", ","]),
        ("'", ["’", ","]),
        (",", ["'", "’"]),
        ("-", ["–", "—", "_", "I"]),
        ("–", ["-", "—"]),
        ("&", ["+", "AND"]),
        ("0", ["O"]),
        ("O", ["0"]),
        ("1", ["I", "L"]),
        ("I", ["1", "L"]),
        (".", ["·", "•"]),
        ("!", ["I", "1"]),
        ("“", ["\"", "''"]),
        ("”", ["\"", "''"]),
    ];

    /// <summary>
    /// Reads a sheet as people write it down: <c>A12 B4 '2 &amp;1</c>, or each letter as often as it is there.
    /// </summary>
    public static AlphaSheet Read(string text, bool reusable)
    {
        ArgumentNullException.ThrowIfNull(text);
        var counts = new Dictionary<string, int>();
        foreach (var part in text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
        {
            var letters = Letters(part).ToList();
            var digits = letters.Skip(1).TakeWhile(l => l.Length == 1 && char.IsAsciiDigit(l[0])).Count();
            if (
                letters.Count > 1
                && digits == letters.Count - 1
                && int.TryParse(
                    string.Concat(letters.Skip(1)),
                    NumberStyles.None,
                    CultureInfo.InvariantCulture,
                    out var many
                )
            )
            {
                counts[letters[0]] = Math.Min(10_000, counts.GetValueOrDefault(letters[0]) + many);
                continue;
            }

            foreach (var letter in letters)
            {
                counts[letter] = Math.Min(10_000, counts.GetValueOrDefault(letter) + 1);
            }
        }

        return counts.Count == 0
            ? throw new RuleException("A sheet has at least one letter. Write each with its count, such as A12 B4 '2.")
            : new AlphaSheet(counts.ToImmutableDictionary(), reusable);
    }

    /// <summary>Whether a title can be spelt and what is missing.</summary>
    public Spelling Try(string title)
    {
        var missing = ImmutableArray.CreateBuilder<(string, int)>();
        foreach (var group in Letters(Folded(title)).Where(l => !string.IsNullOrWhiteSpace(l)).GroupBy(l => l))
        {
            var have = Counts.GetValueOrDefault(group.Key);
            var need = Reusable ? Math.Min(1, group.Count()) : group.Count();
            if (have < need)
            {
                missing.Add((group.Key, need - have));
            }
        }

        return new Spelling(title, missing.ToImmutable());
    }

    /// <summary>
    /// The title with stand-ins for the signs the sheet lacks, when that makes it possible; else null.
    /// </summary>
    public Spelling? WithStandIns(string title)
    {
        var text = Folded(title);
        for (var round = 0; round < 12; round++)
        {
            var now = Try(text);
            if (now.CanBeSpelt)
            {
                return text == Folded(title) ? null : now;
            }

            var (sign, _) = now.Missing[0];
            var standIn = Signs
                .FirstOrDefault(s => s.Sign == sign)
                .StandIns?.FirstOrDefault(s =>
                    Try(ReplaceLast(text, sign, s)).Missing.Sum(m => m.Short) < now.Missing.Sum(m => m.Short)
                );
            if (standIn is not null)
            {
                text = ReplaceLast(text, sign, standIn);
            }
            else if (char.IsPunctuation(sign, 0))
            {
                // A sign without a stand-in is left away.
                text = ReplaceLast(text, sign, string.Empty).Trim();
            }
            else
            {
                return null;
            }
        }

        return null;
    }

    /// <summary>
    /// What is left after a title was spelt; stamps stay. Throws <see cref="RuleException"/> when it cannot be spelt.
    /// </summary>
    public AlphaSheet After(string title)
    {
        var spelling = Try(title);
        if (!spelling.CanBeSpelt)
        {
            throw new RuleException(
                $"The sheet lacks {string.Join(", ", spelling.Missing.Select(m => $"{m.Short} × {m.Letter}"))}. "
                    + "Nothing was used."
            );
        }

        return Reusable
            ? this
            : this with
            {
                Counts = Letters(Folded(title))
                    .Where(l => !string.IsNullOrWhiteSpace(l))
                    .Aggregate(Counts, (left, l) => left.SetItem(l, left[l] - 1)),
            };
    }

    /// <summary>As people write it down: <c>A12 B4 '2</c>, what there is none of left away.</summary>
    public override string ToString() =>
        string.Join(
            ' ',
            Counts
                .Where(c => c.Value > 0)
                .OrderBy(c => char.IsLetter(c.Key, 0) ? 0 : 1)
                .ThenBy(c => c.Key, StringComparer.Ordinal)
                .Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Key}{c.Value}"))
        );

    private static string ReplaceLast(string text, string sign, string standIn)
    {
        var at = text.LastIndexOf(sign, StringComparison.Ordinal);
        return at < 0 ? text : text[..at] + standIn + text[(at + sign.Length)..];
    }

    /// <summary>Sheets of capitals spell small letters too.</summary>
    private string Folded(string title) => Counts.Keys.Any(k => k.Any(char.IsLower)) ? title : title.ToUpperInvariant();

    private static IEnumerable<string> Letters(string text)
    {
        var elements = StringInfo.GetTextElementEnumerator(text.Normalize());
        while (elements.MoveNext())
        {
            yield return elements.GetTextElement();
        }
    }
}
