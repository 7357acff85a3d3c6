using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

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
            remedy.Kind,
            label,
            remedy.After.Fits ? $"all words fit at {size} pt" : $"{remedy.After.WordsOver} words would still be over",
            remedy.Words,
            remedy.Setting
        );
    }
}

/// <summary>Another written card whose words would fit on this one with its own.</summary>
public sealed record JoinView(Guid PieceId, string Title, string Gain);

/// <summary>
/// The fit, measures that would help, letters from another face, and a picture of the card as it would print, as a data
/// URL.
/// </summary>
/// <param name="Fit">How the words come out.</param>
/// <param name="Picture">The card.</param>
/// <param name="Remedies">Measures on this card alone.</param>
/// <param name="FlowsOn">What comes of letting the words flow on to other cards; null when that is no help.</param>
/// <param name="Joins">Cards that could be joined with this one, which frees a pocket.</param>
/// <param name="OtherFaces">Letters that the face lacks.</param>
public sealed record FitAnswer(
    FitView Fit,
    string Picture,
    IReadOnlyList<RemedyView> Remedies,
    string? FlowsOn,
    IReadOnlyList<JoinView> Joins,
    string? OtherFaces
);

/// <summary>Live fitting while somebody types; nothing is saved.</summary>
public static class FitEndpoints
{
    public static void MapFit(this IEndpointRouteBuilder api) =>
        api.MapPost(
                "/fit",
                async (
                    FitRequest request,
                    UnitOpener opener,
                    PieceFaces faces,
                    FontShelf fonts,
                    PiecePainter painter,
                    CancellationToken cancel
                ) =>
                {
                    if (request.Words.Length > UnitContent.LongestWords)
                    {
                        throw new RuleException(
                            $"These words are longer than one card can ever take ({UnitContent.LongestWords:N0} "
                                + "characters): split them."
                        );
                    }

                    var open = await opener.OpenAsync(request.UnitId, cancel);
                    var card = open.Content.Find(request.PieceId) as Card ?? throw new MissingException("The card");
                    var cut = open.RoomOf(card);
                    var setting = (request.Setting ?? card.Setting ?? CardSetting.AsTheStyle).Checked();
                    var written = card with
                    {
                        Words = request.Words.Replace("\r\n", "\n", StringComparison.Ordinal),
                        StyleKey = request.StyleKey,
                        Setting = setting,
                    };
                    var style = PieceFaces.StyleOf(open, written);
                    // The card as it will be among the others, which its words may make smaller or larger.
                    var among = open with
                    {
                        Content = open.Content with { Pieces = open.Content.Pieces.Replace(card, written) },
                    };
                    var face = faces.CardFaceOf(among, written, cut);
                    var png = Raster.Png(
                        cut.Width.Points,
                        cut.Height.Points,
                        120,
                        canvas =>
                            painter.Draw(
                                canvas,
                                PieceFaces.WithPicture(open, written, new CardPieceFace(cut, face)),
                                120
                            )
                    );
                    var plain = PieceFaces.StyleOf(open, written, request.StyleKey, null);
                    var heading = ComputedCards.Heading(card.Kind) is not null;
                    var helps =
                        face.Fit is { Fits: false } && !setting.ByHand
                            ? Core.Words.Remedies.For(written.Words, plain, setting, cut, fonts, heading)
                            : [];
                    return new FitAnswer(
                        FitView.Of(face.Fit!),
                        "data:image/png;base64," + Convert.ToBase64String(png),
                        [.. helps.Select(RemedyView.Of)],
                        FlowsOn(open, written, style, cut, face.Fit!, fonts),
                        [.. Joins(open, written, style, cut, heading, fonts)],
                        OtherFaces(fonts, style.Type.Face, written.Words)
                    );
                }
            )
            .WithName("fitWords")
            .WithTags("Words")
            .WithProblems();

    private static string? FlowsOn(OpenUnit open, Card card, CardStyle style, Size cut, FitOutcome fit, FontShelf fonts)
    {
        if (
            fit.Fits
            || card.StoryId is not null
            || card.Kind is not (CardKind.Journaling or CardKind.Incident or CardKind.Why)
        )
        {
            return null;
        }

        if (card.Setting is { ByHand: true })
        {
            var holds = CardComposer.HandRoom(style, cut, open.Words.Hand).Words;
            return holds == 0 ? null : $"{NumberWords.Of(Math.Max(2, (fit.Words + holds - 1) / holds))} cards by hand";
        }

        var (cards, size) = StoryFlow.Needed(card.Words, style, cut, style.Type.SmallestPt, fonts);
        return cards < 2
            ? null
            : $"{NumberWords.Of(cards)} cards at "
                + $"{size.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)} pt";
    }

    /// <summary>Written cards whose words fit on this one as well.</summary>
    private static IEnumerable<JoinView> Joins(
        OpenUnit open,
        Card card,
        CardStyle style,
        Size cut,
        bool heading,
        FontShelf fonts
    )
    {
        if (
            card.StoryId is not null
            || card.Kind != CardKind.Journaling
            || card.Setting is { ByHand: true }
            || string.IsNullOrWhiteSpace(card.Words)
        )
        {
            yield break;
        }

        foreach (
            var other in open
                .Content.Pieces.OfType<Card>()
                .Where(c =>
                    c.Id != card.Id
                    && c is { StoryId: null, Kind: CardKind.Journaling }
                    && !string.IsNullOrWhiteSpace(c.Words)
                )
        )
        {
            var fit = CardComposer.Fit($"{card.Words.TrimEnd()}\n\n{other.Words.Trim()}", style, cut, fonts, heading);
            if (fit.Fits)
            {
                yield return new JoinView(
                    other.Id,
                    open.Desk.Called(other),
                    $"both at {fit.SizePt.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)} pt, "
                        + "and a pocket is free"
                );
            }
        }
    }

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
