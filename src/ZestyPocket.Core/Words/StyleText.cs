using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Words;

/// <summary>
/// A card style as it is written down: colours as <c>#rrggbb</c>, lengths in millimetres, type in points. See
/// <see cref="CardStyle"/> for what each part means.
/// </summary>
/// <param name="Key">Its lasting name; of a new one it is made.</param>
/// <param name="Plan">Key of the <see cref="CardPlan"/> that composes it; null for none.</param>
/// <param name="Pattern">Key of one of the <see cref="FillerPatterns"/>; null for what its dress draws.</param>
public sealed record StyleText(
    string Key,
    string Name,
    string Family,
    StyleRole Role,
    Typeface Face,
    double SmallestPt,
    double LargestPt,
    double Leading,
    double MarginMm,
    string Paper,
    string Ink,
    string Accent,
    CardDress Dress,
    int Columns,
    bool Ruled,
    double BorderPt,
    double CornerMm,
    BandPlace Band,
    double BandMm,
    bool BandPrinted,
    double IndentMm,
    PicturePlace Picture,
    double PictureShare,
    string? Plan = null,
    string? Pattern = null,
    Stock? PrintedOn = null
)
{
    public static StyleText Of(CardStyle style)
    {
        ArgumentNullException.ThrowIfNull(style);
        return new StyleText(
            style.Key,
            style.Name,
            style.Family,
            style.Role,
            style.Type.Face,
            style.Type.SmallestPt,
            style.Type.LargestPt,
            style.Type.Leading,
            Mm(style.Margin),
            style.Paper.ToString(),
            style.Ink.ToString(),
            style.Accent.ToString(),
            style.Dress,
            style.Columns,
            style.Ruled,
            style.BorderPt,
            Mm(style.Corner),
            style.Zones.Band,
            Mm(style.Zones.BandHeight),
            style.Zones.BandPrinted,
            Mm(style.Zones.Indent),
            style.Zones.Picture,
            style.Zones.PictureShare,
            style.PlanKey,
            style.PatternKey,
            style.PrintedOn
        );

        static double Mm(Length length) => (double)Math.Round(length.Millimetres, 2);
    }

    /// <summary>The style under another key. Throws <see cref="RuleException"/> when it makes no sense.</summary>
    public CardStyle ToStyle(string key) =>
        new CardStyle(
            key,
            Name,
            Family,
            Role,
            new TypeRange(Face, SmallestPt, LargestPt, Leading),
            Of(MarginMm),
            Rgb.Read(Paper),
            Rgb.Read(Ink),
            Rgb.Read(Accent),
            Dress
        )
        {
            Columns = Columns,
            Ruled = Ruled,
            BorderPt = BorderPt,
            Corner = Of(CornerMm),
            Zones = new CardZones(Band, Of(BandMm), BandPrinted, Of(IndentMm), Picture, PictureShare),
            PlanKey = Plan,
            PatternKey = Pattern,
            PrintedOn = PrintedOn,
        }.Checked();

    private static Length Of(double millimetres) =>
        millimetres is >= 0 and <= 1_000
            ? Length.FromMillimetres((decimal)millimetres)
            : throw new RuleException("A length on a card is 0 to 1,000 mm. Nothing was changed.");
}
