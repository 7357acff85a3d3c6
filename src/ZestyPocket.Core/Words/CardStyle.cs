using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>What a card is for.</summary>
public enum CardKind
{
    Journaling,
    WeekTitle,
    Filler,
}

/// <summary>How a card looks around its words.</summary>
public enum CardDress
{
    /// <summary>Nothing but paper.</summary>
    Plain,

    /// <summary>Ruled lines under the words, one per baseline.</summary>
    Ruled,

    /// <summary>A band of the accent colour along the left edge.</summary>
    EdgeBand,

    /// <summary>A band of the accent colour across the top.</summary>
    TopBand,

    /// <summary>A thin frame inside the margins.</summary>
    Frame,

    /// <summary>Rows of dots over the whole card.</summary>
    Dots,

    /// <summary>Slanting stripes over the whole card.</summary>
    Stripes,

    /// <summary>Orange-segment arcs over the whole card.</summary>
    Segments,
}

/// <summary>The look of one kind of card.</summary>
public sealed record CardStyle(
    string Key,
    string Name,
    CardKind Kind,
    TypeRange Type,
    Length Margin,
    Rgb Paper,
    Rgb Ink,
    Rgb Accent,
    CardDress Dress);

/// <summary>The card styles that ship with the program.</summary>
public static class BuiltInCardStyles
{
    private static readonly Rgb Cream = Rgb.Hex("#fbf6ea");
    private static readonly Rgb White = Rgb.Hex("#ffffff");
    private static readonly Rgb DarkInk = Rgb.Hex("#2b2622");
    private static readonly Rgb Slate = Rgb.Hex("#3f5566");
    private static readonly Rgb Peel = Rgb.Hex("#e4701e");
    private static readonly Rgb Leaf = Rgb.Hex("#56754f");

    private static readonly Length Margin = Length.FromMillimetres(5);

    public static ImmutableArray<CardStyle> All { get; } =
    [
        new("reading-serif", "Reading serif", CardKind.Journaling, new(Typeface.Serif, 7, 13, 1.32), Margin, Cream, DarkInk, Peel, CardDress.Plain),
        new("typewriter", "Typewriter, ruled", CardKind.Journaling, new(Typeface.Typewriter, 7, 11, 1.4), Margin, White, DarkInk, Rgb.Hex("#cfd8de"), CardDress.Ruled),
        new("note-hand", "Handwriting", CardKind.Journaling, new(Typeface.Handwriting, 9, 26, 1.15), Margin, White, Slate, Leaf, CardDress.EdgeBand),
        new("plain-sans", "Plain sans, framed", CardKind.Journaling, new(Typeface.Sans, 7, 12, 1.38), Length.FromMillimetres(7), Cream, DarkInk, Leaf, CardDress.Frame),
        new("title-peel", "Week title, peel band", CardKind.WeekTitle, new(Typeface.Display, 8, 140, 1), Margin, Cream, DarkInk, Peel, CardDress.TopBand),
        new("title-slate", "Week title, slate", CardKind.WeekTitle, new(Typeface.Display, 8, 140, 1), Margin, Slate, White, Rgb.Hex("#f6c9a2"), CardDress.Frame),
        new("filler-dots", "Dots", CardKind.Filler, new(Typeface.Sans, 7, 7, 1), Margin, Cream, DarkInk, Peel, CardDress.Dots),
        new("filler-stripes", "Stripes", CardKind.Filler, new(Typeface.Sans, 7, 7, 1), Margin, White, DarkInk, Rgb.Hex("#9db4c0"), CardDress.Stripes),
        new("filler-segments", "Segments", CardKind.Filler, new(Typeface.Sans, 7, 7, 1), Margin, Cream, DarkInk, Leaf, CardDress.Segments),
    ];

    /// <summary>Finds a style; the first of the kind when the key is unknown, so that a card is never lost.</summary>
    public static CardStyle Find(string key, CardKind kind) =>
        All.FirstOrDefault(s => s.Key == key && s.Kind == kind) ?? All.First(s => s.Kind == kind);
}
