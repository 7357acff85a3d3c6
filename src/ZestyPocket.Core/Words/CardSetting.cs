namespace ZestyPocket.Core.Words;

/// <summary>
/// What a keeper changed on one card to make its words fit; null leaves what the style says.
/// </summary>
/// <param name="LargestPt">No larger type than this: cards that carry one story are set in one size.</param>
/// <param name="SmallestPt">Type may go down to this, never under <see cref="TypeRange.SmallestEverPt"/>.</param>
/// <param name="Leading">Distance of baselines as a multiple of the size, 1 to 2.</param>
/// <param name="MarginPt">Margin in points, at least <see cref="NarrowestMarginPt"/>.</param>
/// <param name="OwnSize">Its size follows from its own words, not from the other cards of its unit.</param>
/// <param name="Seed">Which cutting of its pattern a filler shows, 1 to 9,999; null for the first.</param>
/// <param name="Highlight">Words that are marked wherever they stand on the card, at most 120 characters.</param>
/// <param name="OneWeek">A calendar shows the week, not the month.</param>
/// <param name="Outline">A map shows coast, rivers and places; else only the way, as a sketch.</param>
/// <param name="ByHand">Lines are printed instead of the words, which are written by hand.</param>
public sealed record CardSetting(
    double? LargestPt = null,
    double? SmallestPt = null,
    double? Leading = null,
    double? MarginPt = null,
    bool ByHand = false,
    bool OwnSize = false,
    int? Seed = null,
    string? Highlight = null,
    bool OneWeek = false,
    bool Outline = false
)
{
    /// <summary>3 mm: nearer to the edge a cut that is a little off shows. Common practice.</summary>
    public const double NarrowestMarginPt = 8.504;

    /// <summary>Lines closer than this touch. Common practice.</summary>
    public const double TightestLeading = 1.1;

    public const int LongestHighlight = 120;

    public static CardSetting AsTheStyle { get; } = new();

    /// <summary>Throws <see cref="RuleException"/> when a value makes no sense.</summary>
    public CardSetting Checked() =>
        SmallestPt is < TypeRange.SmallestEverPt or > 200 or double.NaN
        || LargestPt is < TypeRange.SmallestEverPt or > 200 or double.NaN
        || Leading is < 1 or > 2 or double.NaN
        || MarginPt is < NarrowestMarginPt or > 200 or double.NaN
        || Highlight is { Length: > LongestHighlight }
        || Seed is < 1 or > 9_999
            ? throw new RuleException(
                "Type is set from 7 to 200 pt, lines 1 to 2 times their size apart, margins at least 3 mm, and at "
                    + "most 120 characters are highlighted. Nothing was changed."
            )
            : this;

    /// <summary>A style with these changes.</summary>
    public CardStyle On(CardStyle style)
    {
        ArgumentNullException.ThrowIfNull(style);
        var smallest = SmallestPt ?? style.Type.SmallestPt;
        var largest = Math.Max(smallest, Math.Min(LargestPt ?? style.Type.LargestPt, style.Type.LargestPt));
        return style with
        {
            Type = style.Type with
            {
                SmallestPt = Math.Min(smallest, largest),
                LargestPt = largest,
                Leading = Leading ?? style.Type.Leading,
            },
            Margin = MarginPt is { } margin ? Measures.Length.FromPoints((decimal)margin) : style.Margin,
            Highlight = string.IsNullOrWhiteSpace(Highlight) ? style.Highlight : Highlight.Trim(),
        };
    }
}
