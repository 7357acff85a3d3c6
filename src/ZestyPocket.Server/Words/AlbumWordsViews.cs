using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Server.Words;

/// <summary>Somebody the album is about; the birthday is null when it is nobody's business.</summary>
public sealed record PersonView(string Name, LocalDate? Born);

/// <summary>A card style as it can be written back; colours as <c>#rrggbb</c>, lengths in millimetres.</summary>
/// <param name="Key">Its lasting name; of a new one the server makes it.</param>
/// <param name="Name">What people see.</param>
/// <param name="Family">The family it belongs to.</param>
/// <param name="Role">What it can carry.</param>
/// <param name="Own">The keeper made it: it can be changed and thrown away.</param>
/// <param name="Offered">For something new; what has it already keeps it.</param>
/// <param name="Kinds">The kinds of card it suits.</param>
/// <param name="Face">Typeface of its words.</param>
/// <param name="SmallestPt">Smallest size.</param>
/// <param name="LargestPt">Largest size.</param>
/// <param name="Leading">Distance of lines as a multiple of the size.</param>
/// <param name="MarginMm">Around the words.</param>
/// <param name="Paper">Ground.</param>
/// <param name="Ink">Of the words.</param>
/// <param name="Accent">Of what is around them.</param>
/// <param name="Dress">What is around them.</param>
/// <param name="Columns">Columns on cards wide enough for them.</param>
/// <param name="Ruled">A line under every line of words.</param>
/// <param name="BorderPt">Border along the cut, in points.</param>
/// <param name="CornerMm">Radius of its corners.</param>
/// <param name="Band">Where a band is kept free.</param>
/// <param name="BandMm">How high that band is.</param>
/// <param name="BandPrinted">The date or hour is printed in it.</param>
/// <param name="IndentMm">How far in all lines begin, past the date or hour.</param>
/// <param name="Picture">Where a picture lies on cards that carry one.</param>
/// <param name="PictureShare">How much of the card it takes.</param>
/// <param name="PrintedOn">What its cards are usually printed on; null for what the album says.</param>
/// <param name="Contrast">Of its ink on its paper, 1 to 21.</param>
public sealed record StyleView(
    string Key,
    string Name,
    string Family,
    StyleRole Role,
    bool Own,
    bool Offered,
    IReadOnlyList<CardKind> Kinds,
    Typeface Face,
    double SmallestPt,
    double LargestPt,
    double Leading,
    double MarginMm,
    string Paper,
    string Ink,
    string Accent,
    CardDress Dress,
    int Columns,
    bool Ruled,
    double BorderPt,
    double CornerMm,
    BandPlace Band,
    double BandMm,
    bool BandPrinted,
    double IndentMm,
    PicturePlace Picture,
    double PictureShare,
    string? Plan,
    string? Pattern,
    Stock? PrintedOn,
    double Contrast
)
{
    public static StyleView Of(CardStyle s, bool own, bool offered)
    {
        ArgumentNullException.ThrowIfNull(s);
        return new StyleView(
            s.Key,
            s.Name,
            s.Family,
            s.Role,
            own,
            offered,
            [.. Enum.GetValues<CardKind>().Where(s.Suits)],
            s.Type.Face,
            s.Type.SmallestPt,
            s.Type.LargestPt,
            s.Type.Leading,
            Mm(s.Margin),
            s.Paper.ToString(),
            s.Ink.ToString(),
            s.Accent.ToString(),
            s.Dress,
            s.Columns,
            s.Ruled,
            s.BorderPt,
            Mm(s.Corner),
            s.Zones.Band,
            Mm(s.Zones.BandHeight),
            s.Zones.BandPrinted,
            Mm(s.Zones.Indent),
            s.Zones.Picture,
            s.Zones.PictureShare,
            s.PlanKey,
            s.PatternKey,
            s.PrintedOn,
            Math.Round(Rgb.Contrast(s.Ink, s.Paper), 1)
        );

        static double Mm(Length length) => (double)Math.Round(length.Millimetres, 2);
    }
}

/// <summary>How much a hand gets on a line.</summary>
public sealed record HandView(double WordsPerInch, double PitchMm)
{
    public static HandView Of(HandCapacity hand)
    {
        ArgumentNullException.ThrowIfNull(hand);
        return new HandView(Math.Round(hand.WordsPerInch, 2), (double)Math.Round(hand.LinePitch.Millimetres, 1));
    }
}

/// <summary>A title spelt from a sheet.</summary>
public sealed record SpeltView(Guid Id, string Title, LocalDate Day);

/// <summary>A sheet of letters: as it was new, and what is left; as <c>A12 B4</c>.</summary>
public sealed record SheetOfLettersView(
    Guid Id,
    string Name,
    bool Reusable,
    string Letters,
    string Left,
    IReadOnlyList<SpeltView> Spelt
);

/// <summary>
/// What an album knows about its words; card sizes are the cut sizes of its pockets, the most usual first.
/// </summary>
public sealed record AlbumWordsView(
    int Revision,
    IReadOnlyList<PersonView> People,
    IReadOnlyList<string> KnownWords,
    IReadOnlyList<string> PassedOver,
    StorySchool School,
    string Family,
    IReadOnlyList<StyleView> Styles,
    HandView Hand,
    IReadOnlyList<SheetOfLettersView> Sheets,
    IReadOnlyList<string> Themes,
    IReadOnlyList<string> CardSizes,
    Stock PicturesOn,
    Stock CardsOn,
    IReadOnlyList<KeptCompositionView> OwnCompositions,
    double? MostColourful,
    string? Spine,
    string? Cover
);

/// <summary>A composition that is kept to begin others with.</summary>
public sealed record KeptCompositionView(string Key, string Name);

/// <summary>How a style would look, on a card of a size as written.</summary>
public sealed record TryStyleRequest(StyleText Style, string Size, string Words, bool? Photo = null);

/// <summary>A picture of a card in a style, and how its sample words come out.</summary>
public sealed record StyleTry(string Picture, string Verdict, double Width, double Height);

/// <summary>Whether a sheet can spell a title.</summary>
/// <param name="SheetId">The sheet.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Can">It has every letter.</param>
/// <param name="Missing">What it lacks, as <c>2 × E</c>.</param>
/// <param name="WithStandIns">The title with stand-ins for signs it lacks, when that makes it possible.</param>
public sealed record SpellingView(
    Guid SheetId,
    string Name,
    bool Can,
    IReadOnlyList<string> Missing,
    string? WithStandIns
);

/// <summary>What the sheets of an album make of a title.</summary>
/// <param name="Sheets">Sheet by sheet.</param>
/// <param name="Others">Other titles for the same part of the album that some sheet can spell.</param>
public sealed record TitleTry(IReadOnlyList<SpellingView> Sheets, IReadOnlyList<string> Others);
