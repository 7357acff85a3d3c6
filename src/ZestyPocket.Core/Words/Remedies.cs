using System.Collections.Immutable;
using System.Text.RegularExpressions;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>What people do, in this order, when words do not fit. Common practice.</summary>
public enum RemedyKind
{
    /// <summary>More than one blank line in a row, and blanks at line ends, go.</summary>
    DropBlankLines,

    /// <summary>Line ends inside a paragraph, as mail programs make them, go.</summary>
    JoinLines,

    /// <summary>Lines closer together.</summary>
    TightenLeading,

    /// <summary>Narrower margins.</summary>
    NarrowMargins,

    /// <summary>Type down to the smallest that can be read.</summary>
    SmallerType,
}

/// <summary>A measure with what the card would be after it.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Words">The words after it; changed by the first two only.</param>
/// <param name="Setting">The setting after it.</param>
/// <param name="After">How the words come out then.</param>
public sealed record Remedy(RemedyKind Kind, string Words, CardSetting Setting, FitOutcome After);

/// <summary>Offers the measures people take, each with what it gains alone.</summary>
public static partial class Remedies
{
    /// <summary>
    /// The measures that help: fewer words over, or a larger size. In the order in which people try them.
    /// </summary>
    public static ImmutableArray<Remedy> For(
        string words,
        CardStyle style,
        CardSetting setting,
        Size cut,
        ITextShaper shaper,
        bool heading = false
    )
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(setting);
        var now = CardComposer.Fit(words, setting.On(style), cut, shaper, heading);
        return
        [
            .. Candidates(words, style, setting)
                .Where(c => c.Words != words || c.Setting != setting)
                .Select(c => new Remedy(
                    c.Kind,
                    c.Words,
                    c.Setting,
                    CardComposer.Fit(c.Words, c.Setting.On(style), cut, shaper, heading)
                ))
                .Where(r => Helps(r.After, now)),
        ];
    }

    /// <summary>
    /// One measure after another until the words fit, so that no more is given up than is needed; null when all of
    /// them together are not enough.
    /// </summary>
    public static Remedy? UntilItFits(
        string words,
        CardStyle style,
        CardSetting setting,
        Size cut,
        ITextShaper shaper,
        bool heading = false
    )
    {
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(setting);
        var (text, made) = (words, setting);
        foreach (var kind in Enum.GetValues<RemedyKind>())
        {
            var next = Candidates(text, style, made).First(c => c.Kind == kind);
            (text, made) = (next.Words, next.Setting);
            var fit = CardComposer.Fit(text, made.On(style), cut, shaper, heading);
            if (fit.Fits)
            {
                return new Remedy(kind, text, made, fit);
            }
        }

        return null;
    }

    /// <summary>Blanks at line ends, and all but one of several blank lines in a row, taken away.</summary>
    public static string WithoutStrayBlanks(string words) =>
        StrayBlankLines().Replace(BlanksAtLineEnd().Replace(words.Trim(), string.Empty), "\n\n");

    /// <summary>
    /// Single line ends inside a paragraph turned into blanks; lists (lines that begin with a dash, a star or a number)
    /// stay.
    /// </summary>
    public static string WithLinesJoined(string words) => ForcedLineEnd().Replace(words, " ");

    private static IEnumerable<(RemedyKind Kind, string Words, CardSetting Setting)> Candidates(
        string words,
        CardStyle style,
        CardSetting setting
    )
    {
        var type = setting.On(style).Type;
        var margin = setting.On(style).Margin.Points;
        yield return (RemedyKind.DropBlankLines, WithoutStrayBlanks(words), setting);
        yield return (RemedyKind.JoinLines, WithLinesJoined(words), setting);
        yield return (
            RemedyKind.TightenLeading,
            words,
            type.Leading > CardSetting.TightestLeading
                ? setting with
                {
                    Leading = CardSetting.TightestLeading,
                }
                : setting
        );
        yield return (
            RemedyKind.NarrowMargins,
            words,
            margin > CardSetting.NarrowestMarginPt + 0.01
                ? setting with
                {
                    MarginPt = CardSetting.NarrowestMarginPt,
                }
                : setting
        );
        yield return (
            RemedyKind.SmallerType,
            words,
            type.SmallestPt > TypeRange.SmallestEverPt
                ? setting with
                {
                    SmallestPt = TypeRange.SmallestEverPt,
                }
                : setting
        );
    }

    private static bool Helps(FitOutcome after, FitOutcome now) =>
        after.WordsOver < now.WordsOver || (after.Fits && now.Fits && after.SizePt > now.SizePt);

    [GeneratedRegex(@"[ \t]+(?=\n)")]
    private static partial Regex BlanksAtLineEnd();

    [GeneratedRegex(@"\n{3,}")]
    private static partial Regex StrayBlankLines();

    [GeneratedRegex(@"(?<=[^\n])\n(?=[^\n\-*•\d])")]
    private static partial Regex ForcedLineEnd();
}
