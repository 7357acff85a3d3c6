using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>What an album knows about its words: people, card styles, the keeper's hand, sheets of letters.</summary>
public static class AlbumWordsEndpoints
{
    /// <summary>Words that show what a style does.</summary>
    private const string Sample =
        "The rain stopped at ten and we took the long way round by the weir. Junie counted four herons and one "
        + "cardboard box that looked like a heron. We had soup in the lock cottage and nobody spilt it.";

    public static void MapAlbumWords(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{albumId:guid}/words").WithTags("Words");
        group
            .MapGet(
                "",
                (Guid albumId, AlbumWordsReader words, CancellationToken cancel) => words.ReadAsync(albumId, cancel)
            )
            .WithName("getAlbumWords")
            .WithProblems();
        group
            .MapPost(
                "/styles/try",
                async (
                    Guid albumId,
                    TryStyleRequest request,
                    AlbumReader albums,
                    FontShelf fonts,
                    PiecePainter painter,
                    PaintingBench bench,
                    CancellationToken cancel
                ) =>
                {
                    var album = await albums.RequireAsync(albumId, cancel);
                    var style = album.ReadCalendar().Style;
                    return await bench.RunAsync(() => Try(request, style, fonts, painter), cancel);
                }
            )
            .WithName("tryStyle")
            .WithProblems();

        group
            .MapGet(
                "/title",
                (
                    Guid albumId,
                    [FromQuery] string? title,
                    [FromQuery] Guid? unitId,
                    AlbumWordsReader words,
                    CancellationToken cancel
                ) => words.TryTitleAsync(albumId, title ?? "", unitId, cancel)
            )
            .WithName("tryTitle")
            .WithProblems();
    }

    private static StyleTry Try(TryStyleRequest request, DateStyle dates, FontShelf fonts, PiecePainter painter)
    {
        var cut = MeasureText.ParseSize(request.Size);
        if (
            !cut.IsPositive
            || cut.Width > Length.FromInches(13)
            || cut.Height > Length.FromInches(13)
            || request.Words.Length > 2_000
        )
        {
            throw new RuleException("A card is shown at up to 13 in each way and with 2,000 characters at most.");
        }

        var style = request.Style.ToStyle("tried");
        var shown = request.Photo == true ? style : style.WithoutPicture();
        var words = string.IsNullOrWhiteSpace(request.Words) ? Sample : request.Words;
        var day = new NodaTime.LocalDate(2026, 5, 6);
        var mark = SpanLabel.Day(day, dates.Order);
        var face = style.Role switch
        {
            StyleRole.Title => CardComposer.DayTitle(day, shown, cut, fonts),
            StyleRole.Filler => CardComposer.Filler(shown, cut),
            StyleRole.Rows => CardComposer.Journaling(
                "Otto, 64\nJunie, 6\nWren",
                shown,
                cut,
                fonts,
                "Who was there",
                mark
            ),
            StyleRole.Quote => CardComposer.Journaling(
                "“It is not lost, it is resting.”\nOtto, about the oar",
                shown,
                cut,
                fonts,
                "Overheard",
                mark
            ),
            _ => CardComposer.Journaling(words, shown, cut, fonts, null, mark),
        };
        if (face.Opening is { } opening)
        {
            // A grey card stands for the picture.
            face = face with
            {
                Boxes = face.Boxes.Add(
                    new InkBox(opening.X, opening.Y, opening.Width, opening.Height, Rgb.Hex("#b9c4c9"))
                ),
                Opening = null,
            };
        }

        var png = Raster.Png(
            cut.Width.Points,
            cut.Height.Points,
            144,
            canvas => painter.Draw(canvas, new CardPieceFace(cut, face), 144)
        );
        var verdict = style.Role is StyleRole.Words or StyleRole.Quote or StyleRole.Rows
            ? FitView.Of(face.Fit!).Verdict
            : string.Empty;
        return new StyleTry(
            "data:image/png;base64," + Convert.ToBase64String(png),
            verdict,
            cut.Width.Points / 72,
            cut.Height.Points / 72
        );
    }
}
