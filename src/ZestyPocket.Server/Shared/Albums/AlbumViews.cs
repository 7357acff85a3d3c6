using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>A size in EMU with its words.</summary>
public sealed record SizeView(long Width, long Height, string Label)
{
    public static SizeView Of(Size size, MeasureSystem system) =>
        new(size.Width.Emu, size.Height.Emu, MeasureText.Show(size, system));
}

/// <summary>An album on the shelf.</summary>
/// <param name="Role">What the keeper may do with it.</param>
/// <param name="Owner">The name of whose album it is.</param>
/// <param name="CoverUnitId">The last week or day with something in its pockets; null for none.</param>
/// <param name="Problem">Why it cannot be opened, and what can be done; null for every other album.</param>
public sealed record AlbumSummary(
    Guid Id,
    string Name,
    AlbumKind Kind,
    LocalDate FirstDay,
    string Span,
    int Units,
    int Photos,
    string Body,
    bool IsDemo,
    AlbumRole Role,
    string Owner,
    Guid? CoverUnitId,
    string? Problem = null
);

/// <summary>An album with its tape.</summary>
/// <param name="Today">The day it is for the album: in its home zone, the small hours being the evening before.</param>
/// <param name="Role">What the keeper may do with it.</param>
public sealed record AlbumView(
    Guid Id,
    string Name,
    int Revision,
    AlbumKind Kind,
    LocalDate FirstDay,
    MeasureSystem Measures,
    SizeView Body,
    IReadOnlyList<ProtectorView> Protectors,
    IReadOnlyList<UnitSummary> Units,
    int PhotosWithoutUnit,
    bool CanGrowAtStart,
    bool CanGrowAtEnd,
    DateOrder DateOrder,
    HourClock Clock,
    PageSchool School,
    int FacesPerUnit,
    LocalDate Today,
    AlbumRole Role
);

/// <summary>A protector of the album with what was measured, exactly as it can be written back.</summary>
public sealed record ProtectorView(
    Guid Id,
    int Revision,
    string DesignKey,
    string DesignName,
    string Outer,
    string RingStrip,
    string Ease,
    IReadOnlyList<ClearSizeView> ClearSizes,
    int Pockets,
    int? OnHand,
    int InUse,
    bool Gone,
    LeafKind Kind,
    RingSide Rings,
    string Thickness,
    HolesView? Holes,
    string Body
);

/// <summary>How a leaf is punched, as it can be written back.</summary>
public sealed record HolesView(string Pattern, string FromEdge, string Diameter, IReadOnlyList<string> FromTop);

/// <summary>One pocket size of a protector: its clear size if measured, and what pieces for it are cut to.</summary>
public sealed record ClearSizeView(string Nominal, string? Clear, string Cut);

/// <summary>One tick of the tape.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Revision">For edits on the tape.</param>
/// <param name="Title">Such as <c>Week 19</c>, <c>Days 10–11</c>, <c>7 a.m.</c></param>
/// <param name="Mark">What stands on the tick.</param>
/// <param name="Label">The printed span.</param>
/// <param name="FirstDay">Its first day.</param>
/// <param name="LastDay">Its last day.</param>
/// <param name="Weight">How many weeks, days or hours were merged into it.</param>
/// <param name="LeftOut">Left out on purpose.</param>
/// <param name="Photos">Pictures gathered, up to <see cref="MostCounted"/>.</param>
/// <param name="CardsTold">Cards with words.</param>
/// <param name="PiecesPlaced">Pieces in pockets.</param>
/// <param name="Pockets">Pockets of its pages.</param>
/// <param name="PiecesPrinted">Pieces that were printed, as they are now or as they were.</param>
/// <param name="PiecesTucked">Pieces that are ticked off as tucked in.</param>
public sealed record UnitSummary(
    Guid Id,
    int Revision,
    string Title,
    string Mark,
    string Label,
    LocalDate FirstDay,
    LocalDate LastDay,
    int Weight,
    bool LeftOut,
    int Photos,
    int CardsTold,
    int PiecesPlaced,
    int Pockets,
    int PiecesPrinted,
    int PiecesTucked
)
{
    /// <summary>A tape has room for no more: this number of photos stands for itself and all above.</summary>
    public const int MostCounted = 200;
}

/// <summary>A new album.</summary>
/// <param name="Name">Of the album.</param>
/// <param name="Kind">Weekly, trip, documented day or countdown.</param>
/// <param name="FirstDay">Its first day; for a documented day, that day.</param>
/// <param name="Units">Weeks or days to begin with; a documented day has its waking hours instead.</param>
/// <param name="DesignKeys">Page designs the album uses.</param>
/// <param name="Measures">Inches or millimetres.</param>
/// <param name="Scheme">How weeks are counted.</param>
/// <param name="HomeZone">Zone of the tz database; UTC when not given.</param>
/// <param name="DateOrder">Day or month first.</param>
/// <param name="Clock">12 or 24 hours.</param>
/// <param name="FacesPerUnit">2: facing pages, 1: one page; by the kind of album when not given.</param>
/// <param name="School">Facing pages, or the two faces of one leaf.</param>
/// <param name="WakingFrom">First waking hour of a documented day.</param>
/// <param name="WakingUntil">Last waking hour; may lie after midnight.</param>
/// <param name="CardsOfAlbumId">An album whose card styles, hand and way to tell it takes over.</param>
public sealed record MakeAlbumRequest(
    string Name,
    LocalDate FirstDay,
    int Units,
    IReadOnlyList<string> DesignKeys,
    MeasureSystem Measures,
    AlbumKind Kind = AlbumKind.Weekly,
    WeekScheme Scheme = WeekScheme.Iso,
    string? HomeZone = null,
    DateOrder DateOrder = DateOrder.DayMonth,
    HourClock Clock = HourClock.TwentyFour,
    int? FacesPerUnit = null,
    LocalTime? WakingFrom = null,
    LocalTime? WakingUntil = null,
    PageSchool School = PageSchool.Spread,
    Guid? CardsOfAlbumId = null
);
