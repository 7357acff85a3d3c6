using System.Text;

namespace ZestyPocket.Core.Words;

/// <summary>Words as they are kept, whoever wrote them.</summary>
public static class PlainWords
{
    /// <summary>
    /// Line ends are one sign; control signs and stray byte marks go; letters and their accents are one character where
    /// Unicode has it (source: UAX #15, form NFC), so that a face, a dictionary and a search find them.
    /// </summary>
    public static string Clean(string words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var text = words.ReplaceLineEndings("\n");
        if (text.Any(c => IsUnwanted(c) || char.IsSurrogate(c)))
        {
            var clean = new StringBuilder(text.Length);
            foreach (var rune in text.EnumerateRunes())
            {
                // Half a character comes out as U+FFFD, as everywhere in Unicode.
                if (!rune.IsBmp || !IsUnwanted((char)rune.Value))
                {
                    clean.Append(rune.ToString());
                }
            }

            text = clean.ToString();
        }

        return Composed(text);
    }

    /// <summary>
    /// A name of one line: without control signs, and with signs that turn the direction of what follows shown as
    /// marks, so that a name never reads as something else than it is (source: Unicode Technical Report #36, 2.5).
    /// </summary>
    public static string Name(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return string.Concat(
                Clean(name)
                    .Select(c =>
                        c is '\n' or '\t' ? ' '
                        : IsTurn(c) ? TurnMark
                        : c
                    )
            )
            .Trim();
    }

    /// <summary>
    /// Letters with their accents, as one character where there is one; text with half characters stays.
    /// </summary>
    public static string Composed(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        try
        {
            return text.IsNormalized(NormalizationForm.FormC) ? text : text.Normalize(NormalizationForm.FormC);
        }
        catch (ArgumentException)
        {
            return text;
        }
    }

    /// <summary>What stands for a sign that turns the direction.</summary>
    public const char TurnMark = '\u2423';

    private static bool IsUnwanted(char c) => (char.IsControl(c) && c is not ('\n' or '\t')) || c == '\uFEFF';

    private static bool IsTurn(char c) => c is (>= '\u202A' and <= '\u202E') or (>= '\u2066' and <= '\u2069');
}
