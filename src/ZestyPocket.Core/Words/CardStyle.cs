using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Words;

/// <summary>What a card is for.</summary>
public enum CardKind
{
    Journaling,

    /// <summary>Number and span of the unit, computed.</summary>
    WeekTitle,

    /// <summary>Weekday, number and month of one day, computed.</summary>
    DayTitle,
    Filler,

    /// <summary>Words somebody said, and who.</summary>
    Overheard,

    /// <summary>Beginnings to be finished: today I am reading, wearing, listening to.</summary>
    Prompts,

    /// <summary>The best and the worst of the day.</summary>
    HighsAndLows,

    /// <summary>Something that went wrong, told.</summary>
    Incident,

    /// <summary>Why this album is made.</summary>
    Why,

    /// <summary>Daylight and weather, computed.</summary>
    Facts,

    /// <summary>Where from and where to, computed from the stays.</summary>
    FromTo,

    /// <summary>The way as the pictures' places show it, computed.</summary>
    Map,

    /// <summary>Who was there, with ages on that date, computed.</summary>
    People,

    /// <summary>Days, people, pictures, words: computed.</summary>
    Numbers,

    /// <summary>Days until or since, computed.</summary>
    Countdown,

    /// <summary>The month or week as a grid, with the unit's days and notes, computed.</summary>
    Calendar,

    /// <summary>What goes before a day, on clear film: number, date, where from and where to, computed.</summary>
    Divider,

    /// <summary>The numbered pictures of the unit and a line for each, computed.</summary>
    Legend,
}

/// <summary>What a style can carry.</summary>
public enum StyleRole
{
    Words,
    Title,
    Quote,

    /// <summary>Short rows, such as facts, ages or numbers.</summary>
    Rows,
    Filler,
}

/// <summary>How a card looks around its words.</summary>
public enum CardDress
{
    /// <summary>Nothing but paper.</summary>
    Plain,

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

    /// <summary>A half disc of the accent colour rising from the lower edge; words go around it.</summary>
    RisingDisc,

    /// <summary>A ruled line at the head and one at the foot.</summary>
    HeadAndFoot,

    /// <summary>
    /// A tag of the accent colour in the upper left corner for an hour or a mark; words go around it.
    /// </summary>
    CornerTag,

    /// <summary>Small crosses over the whole card, as in squared paper.</summary>
    Crosses,
}

/// <summary>Where a card keeps a band free.</summary>
public enum BandPlace
{
    None,
    Head,
    Foot,
}

/// <summary>Where a card that carries a picture has it; words go around it.</summary>
public enum PicturePlace
{
    None,
    Left,
    Right,
    Top,
}

/// <summary>Parts of a card that are kept free of its words.</summary>
/// <param name="Band">A band at its head or foot, for the date or for a mark that is stamped or written.</param>
/// <param name="BandHeight">How high the band is.</param>
/// <param name="BandPrinted">The date or hour is printed in the band; else it stays empty.</param>
/// <param name="Indent">All lines begin this far in, past the date or hour that is printed beside the first.</param>
/// <param name="Picture">Where a picture lies, on cards that carry one.</param>
/// <param name="PictureShare">How much of the width and height inside the margins it takes, 0.2 to 0.7.</param>
public sealed record CardZones(
    BandPlace Band = BandPlace.None,
    Length BandHeight = default,
    bool BandPrinted = false,
    Length Indent = default,
    PicturePlace Picture = PicturePlace.None,
    double PictureShare = 0.45
)
{
    public static CardZones None { get; } = new();

    /// <summary>Whether a date or hour is printed in one of them.</summary>
    internal bool Marks => Indent > Length.Zero || (Band != BandPlace.None && BandPrinted);
}

/// <summary>The look of one kind of card.</summary>
/// <param name="Key">Its lasting name.</param>
/// <param name="Name">What people see.</param>
/// <param name="Family">Styles that look as if they belong in one album.</param>
/// <param name="Role">What it can carry.</param>
/// <param name="Type">Face, sizes, leading of the words.</param>
/// <param name="Margin">Around the words; on a small card at most an eighth of its shorter side.</param>
/// <param name="Paper">Ground.</param>
/// <param name="Ink">Of the words.</param>
/// <param name="Accent">Of what is around them.</param>
/// <param name="Dress">What is around them.</param>
public sealed record CardStyle(
    string Key,
    string Name,
    string Family,
    StyleRole Role,
    TypeRange Type,
    Length Margin,
    Rgb Paper,
    Rgb Ink,
    Rgb Accent,
    CardDress Dress
)
{
    /// <summary>Thickest border, in points.</summary>
    public const double ThickestBorderPt = 18;

    /// <summary>Columns on cards that are wide enough for them (each at least 2 in).</summary>
    public int Columns { get; init; } = 1;

    /// <summary>A line under every line of words.</summary>
    public bool Ruled { get; init; }

    /// <summary>A border along the cut, in points; margins are measured from the cut all the same.</summary>
    public double BorderPt { get; init; }

    /// <summary>Radius to which the corners are rounded; 0 leaves them square.</summary>
    public Length Corner { get; init; }

    /// <summary>What is kept free of words.</summary>
    public CardZones Zones { get; init; } = CardZones.None;

    /// <summary>
    /// Key of the <see cref="CardPlan"/> that composes its cards; null for words from the top, in one size of type, as
    /// the first styles have them.
    /// </summary>
    public string? PlanKey { get; init; }

    /// <summary>See <see cref="PlanKey"/>.</summary>
    public CardPlan? Plan => PlanKey is null ? null : CardPlan.Find(PlanKey);

    /// <summary>The pattern of a filler; null for what its dress draws.</summary>
    public string? PatternKey { get; init; }

    /// <summary>What its cards are usually printed on; null for what the album says.</summary>
    public Stock? PrintedOn { get; init; }

    /// <summary>Which kinds of card a style can carry.</summary>
    public bool Suits(CardKind kind) => RoleOf(kind) == Role;

    /// <summary>The style as a card without a picture has it.</summary>
    public CardStyle WithoutPicture() =>
        Zones.Picture == PicturePlace.None ? this : this with { Zones = Zones with { Picture = PicturePlace.None } };

    /// <summary>Words that are marked wherever they stand on the card; null for none.</summary>
    public string? Highlight { get; init; }

    public static StyleRole RoleOf(CardKind kind) =>
        kind switch
        {
            CardKind.WeekTitle or CardKind.DayTitle or CardKind.Countdown or CardKind.Divider => StyleRole.Title,
            CardKind.Filler => StyleRole.Filler,
            CardKind.Overheard => StyleRole.Quote,
            CardKind.Prompts
            or CardKind.HighsAndLows
            or CardKind.Facts
            or CardKind.FromTo
            or CardKind.Map
            or CardKind.People
            or CardKind.Numbers
            or CardKind.Calendar => StyleRole.Rows,
            _ => StyleRole.Words,
        };

    /// <summary>Throws <see cref="RuleException"/> when a keeper's own style makes no sense.</summary>
    public CardStyle Checked()
    {
        if (
            string.IsNullOrWhiteSpace(Name)
            || Name.Length > 60
            || string.IsNullOrWhiteSpace(Family)
            || Family.Length > 60
        )
        {
            throw new RuleException(
                "A card style needs a name and a family of at most 60 characters each. Nothing was changed."
            );
        }

        _ = Plan;
        if (PatternKey is not null && !FillerPatterns.Keys.Contains(PatternKey))
        {
            throw new RuleException($"There is no pattern “{PatternKey}”. Nothing was changed.");
        }

        if (
            Type.SmallestPt is not (>= TypeRange.SmallestEverPt and <= 200)
            || Type.LargestPt is not (<= 200)
            || Type.LargestPt < Type.SmallestPt
            || Type.Leading is not (>= 1 and <= 2)
        )
        {
            throw new RuleException(
                "Type is set from 7 to 200 pt, the largest size not under the smallest, lines 1 to 2 times their "
                    + "size apart. Nothing was changed."
            );
        }

        if (Margin.Points < CardSetting.NarrowestMarginPt || Margin > Length.FromMillimetres(30))
        {
            throw new RuleException(
                "Margins are 3 to 30 mm: nearer to the edge a cut that is a little off shows. Nothing was changed."
            );
        }

        if (
            Columns is < 1 or > 3
            || BorderPt is not (>= 0 and <= ThickestBorderPt)
            || Corner < Length.Zero
            || Corner > Length.FromMillimetres(12)
        )
        {
            throw new RuleException(
                "A card has 1 to 3 columns, a border of at most 18 pt and corners of at most 12 mm. Nothing was "
                    + "changed."
            );
        }

        return
            Zones.BandHeight < Length.Zero
            || Zones.BandHeight > Length.FromMillimetres(40)
            || Zones.Indent < Length.Zero
            || Zones.Indent > Length.FromMillimetres(40)
            || Zones.PictureShare is not (>= 0.2 and <= 0.7)
            ? throw new RuleException(
                "A band is at most 40 mm high, an indent at most 40 mm wide, and a picture takes 20 to 70 % of the "
                    + "card. Nothing was changed."
            )
            : this with
            {
                Name = Name.Trim(),
                Family = Family.Trim(),
            };
    }
}
