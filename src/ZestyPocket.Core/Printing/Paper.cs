using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A sheet size a home printer takes.</summary>
public sealed record Paper(string Key, string Name, Size Size)
{
    public static Paper Letter { get; } = new("letter", "Letter", Size.FromInches(8.5m, 11m));

    /// <summary>Source: ISO 216.</summary>
    public static Paper A4 { get; } = new("a4", "A4", Size.FromMillimetres(210, 297));

    public static ImmutableArray<Paper> All { get; } = [Letter, A4];

    public static Paper? Find(string key) => All.FirstOrDefault(p => p.Key == key);
}

/// <summary>What a piece is printed on.</summary>
public enum Stock
{
    PhotoPaper,
    WhiteCard,
    PatternedPaper,
    Vellum,
    ClearFilm,
    Kraft,
    Label,
}

/// <summary>What is known of stocks.</summary>
public static class Stocks
{
    public static string Name(Stock stock) =>
        stock switch
        {
            Stock.PhotoPaper => "photo paper",
            Stock.PatternedPaper => "patterned paper",
            Stock.Vellum => "vellum",
            Stock.ClearFilm => "clear film",
            Stock.Kraft => "kraft card",
            Stock.Label => "label sheet",
            _ => "white card",
        };

    /// <summary>
    /// Its ground is not white, so the ground of a card is not printed on it: printers have no white. Common practice.
    /// </summary>
    public static bool HasOwnGround(Stock stock) =>
        stock is Stock.PatternedPaper or Stock.Vellum or Stock.ClearFilm or Stock.Kraft;

    /// <summary>
    /// What lies behind shows through, 0 not at all to 1 all of it. The values are choices of this program.
    /// </summary>
    public static double SeeThrough(Stock stock) =>
        stock switch
        {
            Stock.Vellum => 0.5,
            Stock.ClearFilm => 0.92,
            _ => 0,
        };
}
