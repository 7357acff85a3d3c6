using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>The card styles that ship with the program, family by family.</summary>
public static partial class BuiltInCardStyles
{
    private static readonly Rgb Cream = Rgb.Hex("#fbf6ea");
    private static readonly Rgb White = Rgb.Hex("#ffffff");
    private static readonly Rgb Mist = Rgb.Hex("#eef2f3");
    private static readonly Rgb DarkInk = Rgb.Hex("#2b2622");
    private static readonly Rgb Slate = Rgb.Hex("#3f5566");
    private static readonly Rgb Pine = Rgb.Hex("#2f4a3a");
    private static readonly Rgb Peel = Rgb.Hex("#e4701e");
    private static readonly Rgb Leaf = Rgb.Hex("#56754f");
    private static readonly Rgb PaleLine = Rgb.Hex("#cfd8de");
    private static readonly Rgb Steel = Rgb.Hex("#9db4c0");
    private static readonly Rgb Blossom = Rgb.Hex("#f6c9a2");
    private static readonly Rgb Moss = Rgb.Hex("#c5d3b8");

    private static readonly Length Margin = Length.FromMillimetres(5);
    private static readonly Length Wide = Length.FromMillimetres(7);

    private static readonly TypeRange NoWords = new(Typeface.Sans, 7, 7, 1);
    private static readonly TypeRange Large = new(Typeface.Display, 8, 140, 1);

    /// <summary>The first styles, which older albums have.</summary>
    private static readonly ImmutableArray<CardStyle> First =
    [
        // Warm paper, peel and ink.
        new(
            "reading-serif",
            "Reading serif",
            "Peel",
            StyleRole.Words,
            new(Typeface.Serif, 7, 13, 1.32),
            Margin,
            Cream,
            DarkInk,
            Peel,
            CardDress.Plain
        )
        {
            Columns = 2,
        },
        new(
            "peel-hour",
            "Serif, corner tag",
            "Peel",
            StyleRole.Words,
            new(Typeface.Serif, 7, 12, 1.32),
            Margin,
            Cream,
            DarkInk,
            Peel,
            CardDress.CornerTag
        ),
        new(
            "peel-rise",
            "Serif, rising disc",
            "Peel",
            StyleRole.Words,
            new(Typeface.Serif, 7, 13, 1.34),
            Margin,
            White,
            DarkInk,
            Blossom,
            CardDress.RisingDisc
        ),
        new(
            "peel-picture",
            "Serif, around a picture",
            "Peel",
            StyleRole.Words,
            new(Typeface.Serif, 7, 12, 1.32),
            Margin,
            Cream,
            DarkInk,
            Peel,
            CardDress.Plain
        )
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        new(
            "title-peel",
            "Title, peel band",
            "Peel",
            StyleRole.Title,
            Large,
            Margin,
            Cream,
            DarkInk,
            Peel,
            CardDress.TopBand
        ),
        new(
            "peel-quote",
            "Quote, peel",
            "Peel",
            StyleRole.Quote,
            new(Typeface.Display, 8, 30, 1.15),
            Wide,
            Cream,
            DarkInk,
            Peel,
            CardDress.EdgeBand
        ),
        new(
            "peel-rows",
            "Rows, serif",
            "Peel",
            StyleRole.Rows,
            new(Typeface.Serif, 7, 14, 1.5),
            Margin,
            Cream,
            DarkInk,
            Peel,
            CardDress.HeadAndFoot
        ),
        new("filler-dots", "Dots", "Peel", StyleRole.Filler, NoWords, Margin, Cream, DarkInk, Peel, CardDress.Dots),
        new(
            "filler-segments",
            "Segments",
            "Peel",
            StyleRole.Filler,
            NoWords,
            Margin,
            Cream,
            DarkInk,
            Leaf,
            CardDress.Segments
        ),
        // Cool and plain.
        new(
            "typewriter",
            "Typewriter, ruled",
            "Slate",
            StyleRole.Words,
            new(Typeface.Typewriter, 7, 11, 1.4),
            Margin,
            White,
            DarkInk,
            PaleLine,
            CardDress.Plain
        )
        {
            Ruled = true,
        },
        new(
            "slate-sans",
            "Sans, head and foot",
            "Slate",
            StyleRole.Words,
            new(Typeface.Sans, 7, 12, 1.36),
            Margin,
            Mist,
            DarkInk,
            Slate,
            CardDress.HeadAndFoot
        )
        {
            Columns = 2,
        },
        new(
            "slate-hang",
            "Typewriter, past the hour",
            "Slate",
            StyleRole.Words,
            new(Typeface.Typewriter, 7, 11, 1.36),
            Margin,
            White,
            DarkInk,
            Slate,
            CardDress.Plain
        )
        {
            Zones = new(Indent: Length.FromMillimetres(17)),
        },
        new(
            "title-slate",
            "Title, slate",
            "Slate",
            StyleRole.Title,
            Large,
            Margin,
            Slate,
            White,
            Blossom,
            CardDress.Frame
        ),
        new(
            "slate-quote",
            "Quote, typewriter",
            "Slate",
            StyleRole.Quote,
            new(Typeface.Typewriter, 8, 20, 1.3),
            Wide,
            Mist,
            Slate,
            Slate,
            CardDress.HeadAndFoot
        ),
        new(
            "slate-rows",
            "Rows, sans",
            "Slate",
            StyleRole.Rows,
            new(Typeface.Sans, 7, 13, 1.5),
            Margin,
            White,
            DarkInk,
            Slate,
            CardDress.TopBand
        ),
        new(
            "filler-stripes",
            "Stripes",
            "Slate",
            StyleRole.Filler,
            NoWords,
            Margin,
            White,
            DarkInk,
            Steel,
            CardDress.Stripes
        ),
        new(
            "filler-crosses",
            "Crosses",
            "Slate",
            StyleRole.Filler,
            NoWords,
            Margin,
            Mist,
            DarkInk,
            Steel,
            CardDress.Crosses
        ),
        // By hand, in greens.
        new(
            "note-hand",
            "Handwriting",
            "Sprig",
            StyleRole.Words,
            new(Typeface.Handwriting, 9, 26, 1.15),
            Margin,
            White,
            Slate,
            Leaf,
            CardDress.EdgeBand
        ),
        new(
            "plain-sans",
            "Plain sans, framed",
            "Sprig",
            StyleRole.Words,
            new(Typeface.Sans, 7, 12, 1.38),
            Wide,
            Cream,
            DarkInk,
            Leaf,
            CardDress.Frame
        ),
        new(
            "sprig-band",
            "Handwriting, band for a mark",
            "Sprig",
            StyleRole.Words,
            new(Typeface.Handwriting, 9, 24, 1.15),
            Margin,
            White,
            Pine,
            Leaf,
            CardDress.Plain
        )
        {
            BorderPt = 3,
            Corner = Length.FromMillimetres(5),
            Zones = new(BandPlace.Head, Length.FromMillimetres(9), BandPrinted: true),
        },
        new(
            "title-sprig",
            "Title, by hand",
            "Sprig",
            StyleRole.Title,
            new(Typeface.Handwriting, 12, 150, 1),
            Margin,
            White,
            Pine,
            Leaf,
            CardDress.EdgeBand
        ),
        new(
            "sprig-quote",
            "Quote, by hand",
            "Sprig",
            StyleRole.Quote,
            new(Typeface.Handwriting, 10, 40, 1.1),
            Wide,
            Moss,
            Pine,
            Leaf,
            CardDress.Frame
        ),
        new(
            "sprig-rows",
            "Rows, by hand",
            "Sprig",
            StyleRole.Rows,
            new(Typeface.Handwriting, 9, 20, 1.3),
            Margin,
            White,
            Pine,
            Moss,
            CardDress.Plain
        )
        {
            Ruled = true,
        },
        new(
            "filler-sprig",
            "Dots, moss",
            "Sprig",
            StyleRole.Filler,
            NoWords,
            Margin,
            White,
            DarkInk,
            Moss,
            CardDress.Dots
        ),
    ];

    /// <summary>Every style that ships: the first ones, then the composed families.</summary>
    public static ImmutableArray<CardStyle> All => [.. First, .. Composed];

    /// <summary>Whether a family is one of the first, which older albums have.</summary>
    public static bool IsFirst(string family) => First.Any(s => s.Family == family);

    /// <summary>For lists and notes that are no cards of the album.</summary>
    public static CardStyle Plain => First.Single(s => s.Key == "plain-sans");

    /// <summary>A style that ships; <see cref="AlbumWords.Style"/> knows the keeper's own too.</summary>
    public static CardStyle Find(string key, CardKind kind) => AlbumWords.Usual.Style(key, kind);
}
