using System.Text;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>
/// What to write where: the words of a unit's handwritten cards with the codes of their pockets, to lie beside the pen.
/// </summary>
public static class CueSheet
{
    public static void MapCueSheet(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/units/{id:guid}/cue-sheet",
                async (
                    Guid id,
                    UnitOpener opener,
                    PieceFaces faces,
                    FontShelf fonts,
                    PiecePainter painter,
                    CancellationToken cancel
                ) =>
                {
                    var open = await opener.OpenAsync(id, cancel);
                    var cards = open.Content.Pieces.OfType<Card>().Where(c => c.Setting is { ByHand: true }).ToList();
                    if (cards.Count == 0)
                    {
                        throw new Core.RuleException(
                            "No card here is written by hand. Choose so on a card, then print the cue sheet."
                        );
                    }

                    var paper = open.Album.Measures == MeasureSystem.Millimetres ? Paper.A4.Size : Paper.Letter.Size;
                    var style = BuiltInCardStyles.Plain;
                    style = style with
                    {
                        Dress = CardDress.Plain,
                        Paper = Rgb.Hex("#ffffff"),
                        Margin = Length.FromMillimetres(18),
                        Type = style.Type with { SmallestPt = 11, LargestPt = 11 },
                    };
                    var text = Text(open, cards, faces);
                    var (pages, _) = StoryFlow.Needed(text, style, paper, 11, fonts);
                    var flow = StoryFlow.Over(text, style, [.. Enumerable.Repeat(paper, Math.Max(1, pages))], fonts);
                    var sheets = flow.Parts.Select(part => new PdfPage(
                        paper.Width.Points,
                        paper.Height.Points,
                        canvas =>
                            painter.Draw(
                                canvas,
                                new CardPieceFace(paper, CardComposer.Journaling(part.Of(text), style, paper, fonts)),
                                300
                            )
                    ));
                    return Results.File(
                        PdfFile.Bytes($"What to write where: {open.Title}", sheets),
                        "application/pdf",
                        "cue-sheet.pdf"
                    );
                }
            )
            .WithName("getCueSheet")
            .WithTags("Words")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();

    private static string Text(OpenUnit open, List<Card> cards, PieceFaces faces)
    {
        var text = new StringBuilder($"What to write where: {open.Title}, {open.Dates.Span(open.Calendar.Style)}\n");
        var order = open.Pockets.Select((p, i) => (p.Place, i)).ToDictionary(p => p.Place, p => p.i);
        foreach (
            var card in cards.OrderBy(c =>
                open.Content.PlacementOf(c.Id) is { } lies
                    ? order.GetValueOrDefault(lies.Place, int.MaxValue)
                    : int.MaxValue
            )
        )
        {
            var code = open.Content.PlacementOf(card.Id) is { } lies ? open.CodeOf(lies.Place) : null;
            var face = faces.CardFaceOf(open, card, open.RoomOf(card));
            text.Append(
                System.Globalization.CultureInfo.InvariantCulture,
                $"\n{code ?? "In the tray"}, {MeasureText.Show(open.CutSizeOf(card), open.Album.Measures)}, "
                    + $"{NumberWords.Counted(face.Fit!.LinesThatFit, "line")}:\n{faces.WordsOf(open, card)}\n"
            );
        }

        return text.ToString();
    }
}
