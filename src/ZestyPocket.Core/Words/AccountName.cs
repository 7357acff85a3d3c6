using System.Globalization;
using System.Text;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Names by which people of a household know each other: two of them must not look like one. Source: Unicode Technical
/// Standard #39, 4 (confusable detection); the letters that look alike are the common ones of its table, from memory.
/// </summary>
public static class AccountName
{
    /// <summary>Letters of other scripts, and digits, beside the Latin letters they look like.</summary>
    private const string Alike = "аaеeоoрpсcуyхxіiјjѕsһhԁdԛqԝwкkмmтtвbнhгr" + "αaοoρpνvιiυuκkτtχxγyηnεe" + "0o1l5s";

    private static readonly Dictionary<char, char> LatinFor = Pairs();

    /// <summary>
    /// The name as it is kept: compatibility forms as plain letters, one line. Throws <see cref="RuleException"/> when
    /// it holds signs that nobody sees, or nothing that anybody does.
    /// </summary>
    public static string Of(string typed)
    {
        ArgumentNullException.ThrowIfNull(typed);
        var name = PlainWords.Name(typed);
        try
        {
            name = name.Normalize(NormalizationForm.FormKC).Trim();
        }
        catch (ArgumentException)
        {
            throw Unreadable();
        }

        return name.EnumerateRunes().Any(IsUnseen) || !name.EnumerateRunes().Any(Rune.IsLetterOrDigit)
            ? throw Unreadable()
            : name;
    }

    /// <summary>What two names share that look alike: without case, accents, blanks and scripts.</summary>
    public static string Look(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var look = new StringBuilder();
        foreach (var c in name.Normalize(NormalizationForm.FormKD).ToLowerInvariant())
        {
            if (char.IsLetterOrDigit(c))
            {
                // A small l and a capital i are one line in most faces.
                var letter = LatinFor.GetValueOrDefault(c, c);
                look.Append(letter == 'i' ? 'l' : letter);
            }
        }

        return look.ToString();
    }

    private static bool IsUnseen(Rune rune) =>
        Rune.GetUnicodeCategory(rune)
            is UnicodeCategory.Format
                or UnicodeCategory.Control
                or UnicodeCategory.OtherNotAssigned
                or UnicodeCategory.PrivateUse
                or UnicodeCategory.Surrogate
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
        // Fillers of Hangul and Braille are letters or signs without ink; half a character comes as a replacement.
        || rune.Value is 0x115F or 0x1160 or 0x3164 or 0xFFA0 or 0x2800 or 0xFFFD;

    private static RuleException Unreadable() =>
        new("A name is written in letters that everybody sees. No account was made: type it again.");

    private static Dictionary<char, char> Pairs()
    {
        var pairs = new Dictionary<char, char>();
        for (var at = 0; at + 1 < Alike.Length; at += 2)
        {
            pairs[Alike[at]] = Alike[at + 1];
        }

        return pairs;
    }
}
