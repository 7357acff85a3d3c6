using ZestyPocket.Core;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Words;

/// <summary>Words somebody wants on a print; a large word or a caption, in a face, on a label or not.</summary>
public sealed record CaptionRequest(string Words, bool Large, Typeface Face, bool Label = false);

/// <summary>Where the words would lie.</summary>
/// <param name="Caption">To be sent back with the edit.</param>
/// <param name="Contrast">Of the ink against what is behind it.</param>
/// <param name="WantsLabel">Without a label they are hard to read.</param>
/// <param name="Says">In words.</param>
/// <param name="Picture">The print with them, as a data URL.</param>
public sealed record CaptionAnswer(
    WrittenCaption Caption,
    double Contrast,
    bool WantsLabel,
    string Says,
    string Picture
);

/// <summary>Words on photos: a quiet place is found and the ink chosen by measure; nothing is saved.</summary>
public static class CaptionEndpoints
{
    private static readonly double[] Captions = [16, 14, 12, 10.5, 9];
    private static readonly double[] LargeWords = [72, 60, 48, 40, 32, 26, 20];

    public static void MapCaptions(this IEndpointRouteBuilder api) =>
        api.MapPost(
                "/units/{id:guid}/pieces/{pieceId:guid}/caption",
                async (
                    Guid id,
                    Guid pieceId,
                    CaptionRequest request,
                    UnitOpener opener,
                    PieceFaces faces,
                    FontShelf fonts,
                    IPrintCrops crops,
                    PiecePainter painter,
                    CancellationToken cancel
                ) =>
                {
                    var words = request.Words.Trim();
                    if (words.Length is 0 or > PhotoCaption.LongestWords)
                    {
                        throw new RuleException(
                            $"Words on a picture are 1 to {PhotoCaption.LongestWords} characters long: a journaling "
                                + "card holds more."
                        );
                    }

                    var open = await opener.OpenAsync(id, cancel);
                    var print = open.Content.Find(pieceId) as PhotoPrint ?? throw new MissingException("The print");
                    var cut = open.RoomOf(print);
                    if (
                        faces.Of(open, print with { Caption = null }, cut) is not PhotoFace face
                        || open.PhotoOf(print.PhotoId) is not { } photo
                    )
                    {
                        throw new MissingException("The photo of this print");
                    }

                    var tones = PhotoTones.Of(crops, face);
                    var spot =
                        PhotoWords.Find(
                            PieceFaces.FilledIn(open, photo, words),
                            request.Face,
                            request.Large ? LargeWords : Captions,
                            cut,
                            tones,
                            Kept(photo, face.Crop),
                            fonts
                        )
                        ?? throw new RuleException(
                            "These words are too long for this print, even small. Shorten them, or put them on a card."
                        );
                    var shownWords = request.Label ? PhotoWords.OnLabel(spot.Caption) : spot.Caption;
                    var contrast = PhotoWords.Contrast(shownWords, cut, tones, fonts);
                    // Kept with its fields, so that another picture or another date style fills them anew.
                    var caption = shownWords with
                    {
                        Words = words,
                    };
                    var shown = (PhotoFace)faces.Of(open, print with { Caption = caption }, cut)!;
                    var png = Raster.Png(
                        cut.Width.Points,
                        cut.Height.Points,
                        120,
                        canvas => painter.Draw(canvas, shown, 120)
                    );
                    return new CaptionAnswer(
                        WrittenCaption.Of(caption),
                        Math.Round(contrast, 1),
                        contrast < PhotoWords.ReadableContrast,
                        Says(caption, contrast),
                        "data:image/png;base64," + Convert.ToBase64String(png)
                    );
                }
            )
            .WithName("findCaptionPlace")
            .WithTags("Words")
            .WithProblems();

    /// <summary>What must stay visible in the picture, as shares of the print.</summary>
    private static List<(double X, double Y, double Width, double Height)> Kept(Photo photo, Crop crop) =>
        [
            .. Boxes
                .Read(photo.KeepBoxes)
                .Select(b =>
                    (
                        ((b.X * photo.Width) - crop.Left) / crop.Width,
                        ((b.Y * photo.Height) - crop.Top) / crop.Height,
                        b.Width * photo.Width / crop.Width,
                        b.Height * photo.Height / crop.Height
                    )
                ),
        ];

    private static string Says(PhotoCaption caption, double contrast)
    {
        var size = caption.SizePt.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture);
        var ratio = contrast.ToString("0.0", System.Globalization.CultureInfo.InvariantCulture);
        return caption.Label is not null ? $"{size} pt on a label, {ratio} to 1."
            : contrast >= PhotoWords.ReadableContrast ? $"{size} pt, {ratio} to 1 against the picture: reads well."
            : $"{size} pt, only {ratio} to 1 against the picture: a label would help.";
    }
}
