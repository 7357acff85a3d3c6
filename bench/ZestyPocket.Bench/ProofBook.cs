using SkiaSharp;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// Every card style that ships, in three sizes and with few and many words, on one contact sheet a family: a PDF, and a
/// PNG of each page. To be looked at, page by page, when a style has changed.
/// </summary>
internal static class ProofBook
{
    private const float Gap = 14;
    private const float PageWidth = 1_500;

    private const string Long =
        "The rain stopped at ten and we took the long way round by the weir. Junie counted four herons and one "
        + "cardboard box that looked like a heron.\nWe had soup in the lock cottage and nobody spilt it. On the way "
        + "back the sun came out behind us, so our shadows got home first.";

    private const string Short = "The second batch knows what it is doing.";

    private static readonly UnitDates Week = new(UnitKind.Week, new(2026, 5, 4), new(2026, 5, 10), 2026, 19, 19);

    private static readonly Size[] Sizes = [Size.FromInches(3, 4), Size.FromInches(6, 4), Size.FromInches(2, 2)];

    public static void Write(string folder)
    {
        Directory.CreateDirectory(folder);
        using var fonts = new FontShelf();
        var painter = new PiecePainter(fonts, new NoCrops());
        using var document = SKDocument.CreatePdf(Path.Combine(folder, "proof-book.pdf"));
        foreach (var family in BuiltInCardStyles.All.GroupBy(s => s.Family))
        {
            var cards = family.SelectMany(s => Cards(s, fonts)).ToList();
            var places = Places(cards, out var height);
            using var bitmap = new SKBitmap((int)PageWidth, (int)height);
            using (var screen = new SKCanvas(bitmap))
            {
                Page(screen, cards, places, painter);
            }

            using (var file = File.Create(Path.Combine(folder, $"{family.Key}.png")))
            {
                bitmap.Encode(file, SKEncodedImageFormat.Png, 90);
            }

            Page(document.BeginPage(PageWidth, height), cards, places, painter);
            document.EndPage();
        }
    }

    private static void Page(SKCanvas canvas, List<CardFace> cards, List<SKPoint> places, PiecePainter painter)
    {
        canvas.Clear(new SKColor(0x5b, 0x74, 0x82));
        for (var i = 0; i < cards.Count; i++)
        {
            canvas.Save();
            canvas.Translate(places[i].X, places[i].Y);
            painter.Draw(
                canvas,
                new CardPieceFace(
                    new Size(Length.FromPoints((decimal)cards[i].Width), Length.FromPoints((decimal)cards[i].Height)),
                    cards[i]
                ),
                72
            );
            canvas.Restore();
        }
    }

    private static List<SKPoint> Places(List<CardFace> cards, out float height)
    {
        var (places, x, y, row) = (new List<SKPoint>(), Gap, Gap, 0f);
        foreach (var card in cards)
        {
            if (x + card.Width + Gap > PageWidth)
            {
                (x, y, row) = (Gap, y + row + Gap, 0);
            }

            places.Add(new SKPoint(x, y));
            x += (float)card.Width + Gap;
            row = Math.Max(row, (float)card.Height);
        }

        height = y + row + Gap;
        return places;
    }

    private static IEnumerable<CardFace> Cards(CardStyle style, FontShelf fonts)
    {
        var size = Sizes[0];
        return style.Role switch
        {
            StyleRole.Title => Sizes.Select(s => CardComposer.UnitTitle(Week, DateStyle.Default, style, s, fonts)),
            StyleRole.Filler => [CardComposer.Filler(style, size), CardComposer.Filler(style, size, 4)],
            StyleRole.Quote =>
            [
                CardComposer.Journaling(
                    "“If the river is always leaving, why is there still so much of it?” Junie, six, on the bridge",
                    style,
                    size,
                    fonts,
                    "Overheard"
                ),
                CardComposer.Journaling("“It is not lost, it is resting.” Otto", style, Sizes[1], fonts, "Overheard"),
            ],
            StyleRole.Rows =>
            [
                CardComposer.Journaling("Otto, 64\nAda, 38\nBen, 41\nJunie, 6", style, size, fonts, "Who was there"),
                CardComposer.Journaling("9 days\n3 people\n1,240 pictures", style, Sizes[1], fonts, "In numbers"),
                CardComposer.Journaling(
                    "5 days\n3 people\n4 places\n86 pictures\n612 words",
                    style,
                    size,
                    fonts,
                    "In numbers"
                ),
                CardComposer.Journaling("From Wickerby\nTo Ashlock", style, size, fonts, "From and to"),
                CardComposer.Journaling("From Wickerby\nTo Ashlock Bridge", style, Sizes[1], fonts, "From and to"),
                CardComposer.Journaling(
                    "reading The Lamplighter’s Almanac\nwearing two jumpers\nlistening to rain on the shed\n"
                        + "eating plum cake\nthinking of ",
                    style,
                    size,
                    fonts,
                    "Today I am"
                ),
                CardComposer.Journaling(
                    "High: the heron stood still for us\nLow: Ben’s boot",
                    style,
                    size,
                    fonts,
                    "Highs and lows"
                ),
                CardComposer.Journaling(
                    "Rain, 9 to 14 °C\nSun 05:12 to 20:45\n15 h 33 min of daylight",
                    style,
                    size,
                    fonts,
                    "The day"
                ),
            ],
            _ =>
            [
                CardComposer.Journaling(
                    Long,
                    style.WithoutPicture() with
                    {
                        Highlight = "four herons",
                    },
                    size,
                    fonts,
                    null,
                    "Wed 6 May"
                ),
                CardComposer.Journaling(Short, style.WithoutPicture(), size, fonts, null, "10:00"),
                Pictured(CardComposer.Journaling(Long, style, Sizes[1], fonts, null, "Wed 6 May")),
                Pictured(CardComposer.Journaling(Short, style, Sizes[1], fonts, null, "10:00")),
                CardComposer.Journaling(
                    "The lock gate stuck, and so did we.",
                    style.WithoutPicture(),
                    size,
                    fonts,
                    "What went wrong"
                ),
                CardComposer.Journaling(Long, style.WithoutPicture(), Sizes[2], fonts),
            ],
        };
    }

    /// <summary>A grey box where the picture would be.</summary>
    private static CardFace Pictured(CardFace face) =>
        face.Opening is { } o
            ? face with
            {
                Boxes = face.Boxes.Add(new InkBox(o.X, o.Y, o.Width, o.Height, Rgb.Hex("#9aa4a8"))),
            }
            : face;

    private sealed class NoCrops : IPrintCrops
    {
        public byte[] Jpeg(PhotoFace face, double pixelsPerInch) =>
            throw new NotSupportedException("Cards of the proof book carry no pictures.");
    }
}
