using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>A sheet size a home printer takes.</summary>
public sealed record Paper(string Key, string Name, Size Size)
{
    public static Paper Letter { get; } = new("letter", "Letter", Size.FromInches(8.5m, 11m));

    /// <summary>Source: ISO 216.</summary>
    public static Paper A4 { get; } = new("a4", "A4", Size.FromMillimetres(210, 297));

    /// <summary>Source: ISO 216.</summary>
    public static Paper A5 { get; } = new("a5", "A5", Size.FromMillimetres(148, 210));

    /// <summary>Sheets of paper, then photo paper in the sizes it is sold in. Common practice.</summary>
    public static ImmutableArray<Paper> All { get; } =
    [
        Letter,
        A4,
        A5,
        new("legal", "Legal", Size.FromInches(8.5m, 14m)),
        new("12x12", "12 × 12", Size.FromInches(12, 12)),
        new("8x10", "8 × 10 photo paper", Size.FromInches(8, 10)),
        new("5x7", "5 × 7 photo paper", Size.FromInches(5, 7)),
        new("4x6", "4 × 6 photo paper", Size.FromInches(4, 6)),
        new("13x18cm", "13 × 18 cm photo paper", Size.FromMillimetres(130, 180)),
        new("10x15cm", "10 × 15 cm photo paper", Size.FromMillimetres(100, 150)),
    ];

    private const string OwnKey = "own ";

    /// <summary>A paper by its key; an own size has its measures in it, such as <c>own 8x8 in</c>.</summary>
    public static Paper? Find(string key)
    {
        ArgumentNullException.ThrowIfNull(key);
        return key.StartsWith(OwnKey, StringComparison.Ordinal)
            ? Own(MeasureText.ParseSize(key[OwnKey.Length..]))
            : All.FirstOrDefault(p => p.Key == key);
    }

    /// <summary>A sheet of a size of one's own, 2 to 24 in each way.</summary>
    public static Paper Own(Size size)
    {
        var (least, most) = (Length.FromInches(2), Length.FromInches(24));
        return size.Width < least || size.Height < least || size.Width > most || size.Height > most
            ? throw new RuleException("A sheet is 2 to 24 in wide and high. Nothing was printed: measure it again.")
            : new Paper($"{OwnKey}{MeasureText.Exact(size, MeasureSystem.Millimetres)}", "Own size", size);
    }
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
