using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>The six families of composed styles.</summary>
public static partial class BuiltInCardStyles
{
    /// <summary>The family that new albums begin with.</summary>
    public const string NewAlbumFamily = "Almanac";

    private static readonly ImmutableArray<CardStyle> Composed =
    [
        Planned(
            "almanac-journal",
            "Journaling",
            "Almanac",
            StyleRole.Words,
            new(Typeface.BookSerif, 7, 64, TypeArea.UsualLeading),
            "#f7f1e1",
            "#31403b",
            "#a5512f",
            "almanac"
        ),
        Planned(
            "almanac-ruled",
            "Journaling, ruled",
            "Almanac",
            StyleRole.Words,
            new(Typeface.BookSerif, 7, 16, TypeArea.UsualLeading),
            "#f7f1e1",
            "#31403b",
            "#a5512f",
            "almanac"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "almanac-picture",
            "Beside a picture",
            "Almanac",
            StyleRole.Words,
            new(Typeface.BookSerif, 7, 64, TypeArea.UsualLeading),
            "#f7f1e1",
            "#31403b",
            "#a5512f",
            "almanac"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "almanac-title",
            "Title",
            "Almanac",
            StyleRole.Title,
            new(Typeface.OldStyleItalic, 12, 96, TypeArea.UsualLeading),
            "#f7f1e1",
            "#31403b",
            "#a5512f",
            "almanac"
        ),
        Planned(
            "almanac-title-dark",
            "Title, dark",
            "Almanac",
            StyleRole.Title,
            new(Typeface.OldStyleItalic, 12, 96, TypeArea.UsualLeading),
            "#31403b",
            "#f7f1e1",
            "#a5512f",
            "almanac"
        ),
        Planned(
            "almanac-quote",
            "Quote",
            "Almanac",
            StyleRole.Quote,
            new(Typeface.OldStyleItalic, 8, 84, TypeArea.UsualLeading),
            "#ece2c8",
            "#31403b",
            "#a5512f",
            "almanac-quote"
        ),
        Planned(
            "almanac-rows",
            "Rows",
            "Almanac",
            StyleRole.Rows,
            new(Typeface.BookSerif, 7, 24, TypeArea.UsualLeading),
            "#f7f1e1",
            "#31403b",
            "#a5512f",
            "almanac"
        ),
        Planned(
            "almanac-rows-tint",
            "Rows, tinted",
            "Almanac",
            StyleRole.Rows,
            new(Typeface.BookSerif, 7, 24, TypeArea.UsualLeading),
            "#ece2c8",
            "#31403b",
            "#a5512f",
            "almanac"
        ),
        Pattern("almanac-scales", "Scales", "Almanac", "#a5512f", "#31403b", "#f7f1e1", "scales"),
        Pattern("almanac-contours", "Contours", "Almanac", "#f7f1e1", "#31403b", "#a5512f", "contours"),
        Pattern("almanac-diamonds", "Diamonds", "Almanac", "#31403b", "#a5512f", "#ece2c8", "diamonds"),
        Pattern("almanac-seeds", "Seeds", "Almanac", "#ece2c8", "#31403b", "#31403b", "seeds"),
        Planned(
            "signal-journal",
            "Journaling",
            "Signal",
            StyleRole.Words,
            new(Typeface.Grotesque, 7, 64, TypeArea.UsualLeading),
            "#f7f4ec",
            "#20222a",
            "#f2b632",
            "signal"
        ),
        Planned(
            "signal-ruled",
            "Journaling, ruled",
            "Signal",
            StyleRole.Words,
            new(Typeface.Grotesque, 7, 16, TypeArea.UsualLeading),
            "#f7f4ec",
            "#20222a",
            "#f2b632",
            "signal"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "signal-picture",
            "Beside a picture",
            "Signal",
            StyleRole.Words,
            new(Typeface.Grotesque, 7, 64, TypeArea.UsualLeading),
            "#f7f4ec",
            "#20222a",
            "#f2b632",
            "signal"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "signal-title",
            "Title",
            "Signal",
            StyleRole.Title,
            new(Typeface.Poster, 12, 200, TypeArea.UsualLeading),
            "#f2b632",
            "#20222a",
            "#20222a",
            "signal"
        ),
        Planned(
            "signal-title-dark",
            "Title, dark",
            "Signal",
            StyleRole.Title,
            new(Typeface.Poster, 12, 200, TypeArea.UsualLeading),
            "#20222a",
            "#f7f4ec",
            "#f2b632",
            "signal"
        ),
        Planned(
            "signal-quote",
            "Quote",
            "Signal",
            StyleRole.Quote,
            new(Typeface.Poster, 8, 84, TypeArea.UsualLeading),
            "#20222a",
            "#f2b632",
            "#f7f4ec",
            "signal"
        ),
        Planned(
            "signal-rows",
            "Rows",
            "Signal",
            StyleRole.Rows,
            new(Typeface.Condensed, 7, 31, TypeArea.UsualLeading),
            "#f7f4ec",
            "#20222a",
            "#f2b632",
            "signal"
        ),
        Planned(
            "signal-rows-tint",
            "Rows, tinted",
            "Signal",
            StyleRole.Rows,
            new(Typeface.Condensed, 7, 31, TypeArea.UsualLeading),
            "#f2b632",
            "#20222a",
            "#20222a",
            "signal"
        ),
        Pattern("signal-stripes", "Stripes", "Signal", "#f2b632", "#20222a", "#f7f4ec", "stripes"),
        Pattern("signal-chevrons", "Chevrons", "Signal", "#f7f4ec", "#20222a", "#f2b632", "chevrons"),
        Pattern("signal-coins", "Coins", "Signal", "#20222a", "#f2b632", "#f2b632", "coins"),
        Pattern("signal-bricks", "Bricks", "Signal", "#f2b632", "#20222a", "#20222a", "bricks"),
        Planned(
            "paperboat-journal",
            "Journaling",
            "Paperboat",
            StyleRole.Words,
            new(Typeface.Sans, 7, 64, TypeArea.UsualLeading),
            "#fbf7ec",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ),
        Planned(
            "paperboat-ruled",
            "Journaling, ruled",
            "Paperboat",
            StyleRole.Words,
            new(Typeface.Sans, 7, 16, TypeArea.UsualLeading),
            "#fbf7ec",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "paperboat-picture",
            "Beside a picture",
            "Paperboat",
            StyleRole.Words,
            new(Typeface.Sans, 7, 64, TypeArea.UsualLeading),
            "#fbf7ec",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "paperboat-title",
            "Title",
            "Paperboat",
            StyleRole.Title,
            new(Typeface.Rounded, 12, 66, TypeArea.UsualLeading),
            "#dfe9e6",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ),
        Planned(
            "paperboat-title-dark",
            "Title, dark",
            "Paperboat",
            StyleRole.Title,
            new(Typeface.Rounded, 12, 66, TypeArea.UsualLeading),
            "#22424a",
            "#fbf7ec",
            "#f28a4b",
            "paperboat"
        ),
        Planned(
            "paperboat-quote",
            "Quote",
            "Paperboat",
            StyleRole.Quote,
            new(Typeface.Rounded, 8, 84, TypeArea.UsualLeading),
            "#dfe9e6",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ),
        Planned(
            "paperboat-rows",
            "Rows",
            "Paperboat",
            StyleRole.Rows,
            new(Typeface.Rounded, 7, 27, TypeArea.UsualLeading),
            "#fbf7ec",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ),
        Planned(
            "paperboat-rows-tint",
            "Rows, tinted",
            "Paperboat",
            StyleRole.Rows,
            new(Typeface.Rounded, 7, 27, TypeArea.UsualLeading),
            "#dfe9e6",
            "#22424a",
            "#f28a4b",
            "paperboat"
        ),
        Pattern("paperboat-arches", "Arches", "Paperboat", "#f28a4b", "#22424a", "#fbf7ec", "arches"),
        Pattern("paperboat-waves", "Waves", "Paperboat", "#fbf7ec", "#22424a", "#f28a4b", "waves"),
        Pattern("paperboat-half-moons", "Half moons", "Paperboat", "#22424a", "#f28a4b", "#dfe9e6", "half-moons"),
        Pattern("paperboat-triangles", "Triangles", "Paperboat", "#dfe9e6", "#22424a", "#22424a", "triangles"),
        Planned(
            "ledger-journal",
            "Journaling",
            "Ledger",
            StyleRole.Words,
            new(Typeface.Mono, 7, 64, TypeArea.UsualLeading),
            "#ffffff",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ),
        Planned(
            "ledger-ruled",
            "Journaling, ruled",
            "Ledger",
            StyleRole.Words,
            new(Typeface.Mono, 7, 16, TypeArea.UsualLeading),
            "#ffffff",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "ledger-picture",
            "Beside a picture",
            "Ledger",
            StyleRole.Words,
            new(Typeface.Mono, 7, 64, TypeArea.UsualLeading),
            "#ffffff",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "ledger-title",
            "Title",
            "Ledger",
            StyleRole.Title,
            new(Typeface.MonoStrong, 12, 180, TypeArea.UsualLeading),
            "#ffffff",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ),
        Planned(
            "ledger-title-dark",
            "Title, dark",
            "Ledger",
            StyleRole.Title,
            new(Typeface.MonoStrong, 12, 180, TypeArea.UsualLeading),
            "#1f3f5b",
            "#ffffff",
            "#c94f2c",
            "ledger"
        ),
        Planned(
            "ledger-quote",
            "Quote",
            "Ledger",
            StyleRole.Quote,
            new(Typeface.OldStyleItalic, 8, 84, TypeArea.UsualLeading),
            "#eef2f5",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ),
        Planned(
            "ledger-rows",
            "Rows",
            "Ledger",
            StyleRole.Rows,
            new(Typeface.Mono, 7, 22, TypeArea.UsualLeading),
            "#ffffff",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ),
        Planned(
            "ledger-rows-tint",
            "Rows, tinted",
            "Ledger",
            StyleRole.Rows,
            new(Typeface.Mono, 7, 22, TypeArea.UsualLeading),
            "#eef2f5",
            "#1f3f5b",
            "#c94f2c",
            "ledger"
        ),
        Pattern("ledger-squares", "Squares", "Ledger", "#c94f2c", "#1f3f5b", "#ffffff", "squares"),
        Pattern("ledger-crosses", "Crosses", "Ledger", "#ffffff", "#1f3f5b", "#c94f2c", "crosses"),
        Pattern("ledger-weave", "Weave", "Ledger", "#1f3f5b", "#c94f2c", "#eef2f5", "weave"),
        Pattern("ledger-ticks", "Ticks", "Ledger", "#eef2f5", "#1f3f5b", "#1f3f5b", "ticks"),
        Planned(
            "hedgerow-journal",
            "Journaling",
            "Hedgerow",
            StyleRole.Words,
            new(Typeface.Handwriting, 9, 64, TypeArea.UsualLeading),
            "#eef0df",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ),
        Planned(
            "hedgerow-ruled",
            "Journaling, ruled",
            "Hedgerow",
            StyleRole.Words,
            new(Typeface.Handwriting, 9, 24, TypeArea.UsualLeading),
            "#eef0df",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "hedgerow-picture",
            "Beside a picture",
            "Hedgerow",
            StyleRole.Words,
            new(Typeface.Handwriting, 9, 64, TypeArea.UsualLeading),
            "#eef0df",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "hedgerow-title",
            "Title",
            "Hedgerow",
            StyleRole.Title,
            new(Typeface.Handwriting, 12, 144, TypeArea.UsualLeading),
            "#eef0df",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ),
        Planned(
            "hedgerow-title-dark",
            "Title, dark",
            "Hedgerow",
            StyleRole.Title,
            new(Typeface.Handwriting, 12, 144, TypeArea.UsualLeading),
            "#2f4a35",
            "#eef0df",
            "#6f8a57",
            "sprig"
        ),
        Planned(
            "hedgerow-quote",
            "Quote",
            "Hedgerow",
            StyleRole.Quote,
            new(Typeface.Handwriting, 10, 84, TypeArea.UsualLeading),
            "#dfe6c8",
            "#2f4a35",
            "#6f8a57",
            "sprig-quote"
        ),
        Planned(
            "hedgerow-rows",
            "Rows",
            "Hedgerow",
            StyleRole.Rows,
            new(Typeface.Handwriting, 9, 33, TypeArea.UsualLeading),
            "#eef0df",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ),
        Planned(
            "hedgerow-rows-tint",
            "Rows, tinted",
            "Hedgerow",
            StyleRole.Rows,
            new(Typeface.Handwriting, 9, 33, TypeArea.UsualLeading),
            "#dfe6c8",
            "#2f4a35",
            "#6f8a57",
            "sprig"
        ),
        Pattern("hedgerow-leaves", "Leaves", "Hedgerow", "#6f8a57", "#2f4a35", "#eef0df", "leaves"),
        Pattern("hedgerow-terrazzo", "Terrazzo", "Hedgerow", "#eef0df", "#2f4a35", "#6f8a57", "terrazzo"),
        Pattern("hedgerow-honeycomb", "Honeycomb", "Hedgerow", "#2f4a35", "#6f8a57", "#dfe6c8", "honeycomb"),
        Pattern("hedgerow-stars", "Stars", "Hedgerow", "#dfe6c8", "#2f4a35", "#2f4a35", "stars"),
        Planned(
            "zest-journal",
            "Journaling",
            "Zest",
            StyleRole.Words,
            new(Typeface.Sans, 7, 64, TypeArea.UsualLeading),
            "#fbf3e6",
            "#2a2522",
            "#e4701e",
            "peel"
        ),
        Planned(
            "zest-ruled",
            "Journaling, ruled",
            "Zest",
            StyleRole.Words,
            new(Typeface.Sans, 7, 16, TypeArea.UsualLeading),
            "#fbf3e6",
            "#2a2522",
            "#e4701e",
            "peel"
        ) with
        {
            Ruled = true,
        },
        Planned(
            "zest-picture",
            "Beside a picture",
            "Zest",
            StyleRole.Words,
            new(Typeface.Sans, 7, 64, TypeArea.UsualLeading),
            "#fbf3e6",
            "#2a2522",
            "#e4701e",
            "peel"
        ) with
        {
            Zones = new(Picture: PicturePlace.Left),
        },
        Planned(
            "zest-title",
            "Title",
            "Zest",
            StyleRole.Title,
            new(Typeface.Display, 12, 200, TypeArea.UsualLeading),
            "#fbf3e6",
            "#2a2522",
            "#e4701e",
            "peel"
        ),
        Planned(
            "zest-title-dark",
            "Title, dark",
            "Zest",
            StyleRole.Title,
            new(Typeface.Display, 12, 200, TypeArea.UsualLeading),
            "#2a2522",
            "#fbf3e6",
            "#e4701e",
            "peel"
        ),
        Planned(
            "zest-quote",
            "Quote",
            "Zest",
            StyleRole.Quote,
            new(Typeface.Display, 8, 84, TypeArea.UsualLeading),
            "#f6e9e2",
            "#2a2522",
            "#e4701e",
            "peel"
        ),
        Planned(
            "zest-rows",
            "Rows",
            "Zest",
            StyleRole.Rows,
            new(Typeface.Sans, 7, 27, TypeArea.UsualLeading),
            "#fbf3e6",
            "#2a2522",
            "#e4701e",
            "peel"
        ),
        Planned(
            "zest-rows-tint",
            "Rows, tinted",
            "Zest",
            StyleRole.Rows,
            new(Typeface.Sans, 7, 27, TypeArea.UsualLeading),
            "#f6e9e2",
            "#2a2522",
            "#e4701e",
            "peel"
        ),
        Pattern("zest-slices", "Slices", "Zest", "#e4701e", "#2a2522", "#fbf3e6", "slices"),
        Pattern("zest-dots", "Dots", "Zest", "#fbf3e6", "#2a2522", "#e4701e", "dots"),
        Pattern("zest-confetti", "Confetti", "Zest", "#2a2522", "#e4701e", "#f6e9e2", "confetti"),
        Pattern("zest-pinstripes", "Pinstripes", "Zest", "#f6e9e2", "#2a2522", "#2a2522", "pinstripes"),
    ];

    private static CardStyle Planned(
        string key,
        string name,
        string family,
        StyleRole role,
        TypeRange type,
        string paper,
        string ink,
        string accent,
        string plan
    ) =>
        new(
            key,
            name,
            family,
            role,
            type,
            Length.FromMillimetres(6),
            Rgb.Hex(paper),
            Rgb.Hex(ink),
            Rgb.Hex(accent),
            CardDress.Plain
        )
        {
            PlanKey = plan,
        };

    private static CardStyle Pattern(
        string key,
        string name,
        string family,
        string paper,
        string ink,
        string accent,
        string pattern
    ) =>
        new(
            key,
            name,
            family,
            StyleRole.Filler,
            new(Typeface.Sans, 7, 7, 1),
            Length.FromMillimetres(6),
            Rgb.Hex(paper),
            Rgb.Hex(ink),
            Rgb.Hex(accent),
            CardDress.Plain
        )
        {
            PatternKey = pattern,
        };
}
