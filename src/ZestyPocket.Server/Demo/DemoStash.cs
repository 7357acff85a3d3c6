using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Server.Demo;

/// <summary>What the made-up household has in its drawers.</summary>
public static class DemoStash
{
    private const string Drawer = "top drawer";
    private const string Box = "blue box";

    /// <summary>Two kits, odds and ends, and a sheet of letters, the oldest first.</summary>
    public static IReadOnlyList<StashEntry> Items { get; } =
    [
        Card("Oat stripes", 4, "3x4", "#d9c9a3, #8a7a52", "Hay meadow"),
        Card("Poppy corner", 3, "3x4", "#c8452f, #f3e6cf", "Hay meadow"),
        Card("Green gate", 2, "4x6", "#5d7f45, #e8e2c9", "Hay meadow"),
        Card("Wide sky", 5, "6x4", "#8fb4cc, #eef2f0", "Hay meadow"),
        Card("Lock keeper", 4, "3x4", "#24495e, #d8b45a", "Slow water"),
        Card("Ripples", 6, "3x4", "#4f8a94, #cfe0df", "Slow water"),
        Card("Brick bridge", 2, "4x6", "#9c5a3c, #e6d2bd", "Slow water"),
        new(StashKind.Paper, "Hedge, one-sided", 6, "garden", "Hay meadow", "paper tray", "12x12", "#6f8f4e, #f0ead6")
        {
            Price = Euro(0.85m),
        },
        new(StashKind.Paper, "Canal blue", 4, "water", "Slow water", "paper tray", "12x12", "#2f6c86")
        {
            Price = Euro(0.85m),
        },
        new(StashKind.Sticker, "Paper suns", 18, "summer", "", Drawer, "1x1", "#e8a33d") { Price = Euro(0.15m) },
        new(StashKind.Letters, "Tall capitals", 1, "", "", Drawer, "", "#2b2622")
        {
            Letters = "A6 B2 C3 D3 E8 F2 G2 H3 I5 K2 L4 M3 N5 O5 P2 R5 S5 T5 U3 V1 W2 Y2 &1 !2",
        },
        new(StashKind.Protector, "Nine 3x4", 5, "", "", "shelf") { Price = Euro(1.20m) },
        new(StashKind.Other, "Linen tape, metres", 9, "", "", Box, "", "#efe3cd"),
    ];

    /// <summary>Sheets in the drawer of papers, with what one costs.</summary>
    public static IReadOnlyList<(Stock Stock, string PaperKey, int Count, decimal Price)> Papers { get; } =
    [(Stock.PhotoPaper, "letter", 14, 0.55m), (Stock.WhiteCard, "letter", 60, 0.09m)];

    public static Money LeafPrice { get; } = Euro(1.20m);

    private static Money Euro(decimal amount) => new(amount, "EUR");

    private static StashEntry Card(string name, int count, string size, string colours, string kit) =>
        new(
            StashKind.Card,
            name,
            count,
            kit == "Slow water" ? "water" : "garden",
            kit,
            Box,
            size,
            colours,
            Euro(0.40m)
        );
}
