using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;

namespace ZestyPocket.Core.LookingOver;

/// <summary>What the slow look before printing looks for. Common practice; none of it blocks.</summary>
public enum FindingRule
{
    /// <summary>A pocket is empty and was not left so on purpose.</summary>
    EmptyPocket,

    /// <summary>A picture prints under 200 ppi.</summary>
    LowResolution,

    /// <summary>A crop cuts through what must stay.</summary>
    CutThrough,

    /// <summary>What matters lies on the hole strip or a fold.</summary>
    OnHolesOrFold,

    /// <summary>A card holds more words than it has room for.</summary>
    WordsCutOff,

    /// <summary>A card has nothing on it.</summary>
    CardEmpty,

    /// <summary>A story is on no card.</summary>
    StoryUntold,

    /// <summary>A date, a weekday or a name in the words disagrees with the album, or blanks are doubled.</summary>
    WordsWrong,

    /// <summary>Two pictures of one moment touch.</summary>
    LookalikesTouch,

    /// <summary>A card and the picture it is kept beside do not touch.</summary>
    PairApart,

    /// <summary>Three dark pictures or more lie in a clump.</summary>
    DarkClump,

    /// <summary>One page of a spread is heavier than the other.</summary>
    OneSideHeavier,

    /// <summary>A spread is more colourful than the album allows.</summary>
    TooColourful,

    /// <summary>Things stuck onto a spread are even in number where odd looks less stiff.</summary>
    OrnamentsEven,

    /// <summary>A day has photos, but neither a picture in a pocket nor words.</summary>
    DayWithNothing,

    /// <summary>The same picture lies in two pockets.</summary>
    PictureTwice,

    /// <summary>A week or day with photos has nothing placed, though later ones are done.</summary>
    UnitForgotten,

    /// <summary>A page is empty though the other side of its leaf is filled and later pages are done.</summary>
    EmptyBack,

    /// <summary>The card colours of two units that lie open together clash.</summary>
    ColoursClash,

    /// <summary>One name is spelt two ways.</summary>
    NameSpeltTwoWays,

    /// <summary>Fewer protectors of a design are owned than the album needs.</summary>
    StockShort,

    /// <summary>A series skips a week or day between two that have it.</summary>
    SeriesGap,

    /// <summary>Somebody of the album is never named.</summary>
    PersonNeverNamed,

    /// <summary>Thick things lie at the same spot of several leaves.</summary>
    BulkySpot,

    /// <summary>Pieces look otherwise now than they were printed.</summary>
    PrintedChanged,

    /// <summary>There is something to print, and nobody knows whether the printer prints true to size.</summary>
    PrinterNotMeasured,
}

/// <summary>Where the keeper goes to mend what no edit mends.</summary>
public enum FindingRoom
{
    /// <summary>The sheets of the unit.</summary>
    Sheets,

    /// <summary>The stories of the unit.</summary>
    Stories,

    /// <summary>The printers and their test sheets.</summary>
    Printers,
}

/// <summary>Something to look at, with what would mend it.</summary>
/// <param name="Key">The same for the same thing, so that it can be accepted once.</param>
/// <param name="UnitId">Null for the whole album.</param>
/// <param name="Place">The pocket, where it has one.</param>
/// <param name="Where">The place in words: a pocket's code, a unit's title, the album.</param>
/// <param name="Words">What is wrong, in a sentence.</param>
/// <param name="Weight">3 spoils a print, 2 is seen by everybody, 1 is a matter of taste.</param>
public sealed record Finding(
    FindingRule Rule,
    string Key,
    Guid? UnitId,
    PocketPlace? Place,
    string Where,
    string Words,
    int Weight
)
{
    /// <summary>The edit that mends it, its revision still open; null when only the keeper can.</summary>
    public ContentEdit? Mend { get; init; }

    /// <summary>Where it is mended instead; null when an edit does it, or only the keeper can.</summary>
    public FindingRoom? Opens { get; init; }

    /// <summary>What the button says.</summary>
    public string? MendLabel { get; init; }
}
