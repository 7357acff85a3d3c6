using ZestyPocket.Core;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Placing;

namespace ZestyPocket.Server.Words;

/// <summary>Words that are being written, with the style, the setting and the piece they are for.</summary>
public sealed record FitRequest(string Words, string StyleKey, Guid UnitId, Guid PieceId, CardSetting? Setting = null);

/// <summary>A measure that makes words fit better: what to write and set instead, and what it gains.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Label">What it does.</param>
/// <param name="Gain">What comes of it.</param>
/// <param name="Words">The words after it.</param>
/// <param name="Setting">The setting after it.</param>
public sealed record RemedyView(RemedyKind Kind, string Label, string Gain, string Words, CardSetting Setting)
{
    public static RemedyView Of(Remedy remedy)
    {
        ArgumentNullException.ThrowIfNull(remedy);
        var label = remedy.Kind switch
        {
            RemedyKind.DropBlankLines => "Drop stray blank lines",
            RemedyKind.JoinLines => "Join forced line ends",
            RemedyKind.TightenLeading => "Tighten the lines",
            RemedyKind.NarrowMargins => "Narrow the margins",
            _ => "Smaller type, down to 7 pt",
        };
        var size = remedy.After.SizePt.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture);
        return new RemedyView(
            remedy.Kind, label, remedy.After.Fits ? $"all words fit at {size} pt" : $"{remedy.After.WordsOver} words would still be over", remedy.Words, remedy.Setting);
    }
}

/// <summary>The fit, measures that would help, letters from another face, and a picture of the card as it would print, as a data URL.</summary>
public sealed record FitAnswer(FitView Fit, string Picture, IReadOnlyList<RemedyView> Remedies, string? OtherFaces);

/// <summary>Live fitting while somebody types; nothing is saved.</summary>
public static class FitEndpoints
{
    public static void MapFit(this IEndpointRouteBuilder api) => api.MapPost("/fit", async (
        FitRequest request, UnitOpener opener, FontShelf fonts, PiecePainter painter, CancellationToken cancel) =>
    {
        if (request.Words.Length > UnitContent.LongestWords)
        {
            throw new RuleException($"These words are longer than one card can ever take ({UnitContent.LongestWords:N0} characters): split them.");
        }

        var open = await opener.OpenAsync(request.UnitId, cancel);
        var card = open.Content.Find(request.PieceId) as Card ?? throw new MissingException("The card");
        var cut = open.CutSizeOf(card);
        var words = request.Words.Replace("\r\n", "\n", StringComparison.Ordinal);
        var setting = (request.Setting ?? card.Setting ?? CardSetting.AsTheStyle).Checked();
        var style = BuiltInCardStyles.Find(request.StyleKey, card.Kind);
        var face = setting.ByHand
            ? CardComposer.ByHand(words, setting.On(style), cut, HandCapacity.Usual, fonts, ComputedCards.Heading(card.Kind))
            : CardComposer.Journaling(words, setting.On(style), cut, fonts, ComputedCards.Heading(card.Kind));
        var png = Raster.Png(cut.Width.Points, cut.Height.Points, 120, canvas => painter.Draw(canvas, new CardPieceFace(cut, face), 120));
        var helps = face.Fit!.Fits || setting.ByHand ? [] : Core.Words.Remedies.For(words, style, setting, cut, fonts);
        return new FitAnswer(FitView.Of(face.Fit), "data:image/png;base64," + Convert.ToBase64String(png), [.. helps.Select(RemedyView.Of)], OtherFaces(fonts, style.Type.Face, words));
    }).WithName("fitWords").WithTags("Words").WithProblems();

    /// <summary>Which letters the style's face lacks, in words; null when it has all.</summary>
    private static string? OtherFaces(FontShelf fonts, Typeface face, string words)
    {
        var (borrowed, missing) = fonts.Lacks(face, words);
        return (borrowed.Count, missing.Count) switch
        {
            (0, 0) => null,
            (_, 0) => $"Not in this face, so set in another: {string.Join(' ', borrowed.Take(12))}",
            _ => $"In none of the faces, so printed as a box: {string.Join(' ', missing.Take(12))}",
        };
    }
}
