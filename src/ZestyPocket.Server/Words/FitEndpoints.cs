using ZestyPocket.Core;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Placing;

namespace ZestyPocket.Server.Words;

/// <summary>Words that are being written, with the style and the piece they are for.</summary>
public sealed record FitRequest(string Words, string StyleKey, Guid UnitId, Guid PieceId);

/// <summary>The fit and a picture of the card as it would print, as a data URL.</summary>
public sealed record FitAnswer(FitView Fit, string Picture);

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
        var card = open.Content.Find(request.PieceId) ?? throw new MissingException("The card");
        var cut = open.CutSizeOf(card);
        var face = CardComposer.Journaling(
            request.Words.Replace("\r\n", "\n", StringComparison.Ordinal),
            BuiltInCardStyles.Find(request.StyleKey, CardKind.Journaling),
            cut,
            fonts);
        var png = Raster.Png(cut.Width.Points, cut.Height.Points, 120, canvas => painter.Draw(canvas, new CardPieceFace(cut, face), 120));
        return new FitAnswer(FitView.Of(face.Fit!), "data:image/png;base64," + Convert.ToBase64String(png));
    }).WithName("fitWords").WithTags("Words").WithProblems();
}
