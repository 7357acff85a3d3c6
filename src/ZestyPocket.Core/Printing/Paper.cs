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
}
