using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Storage.Documents;

/// <summary>The undoable part of a unit: what it holds, what time it stands for, and whether it is there.</summary>
internal sealed record UnitState(UnitContent Content, UnitDates? Dates = null, int Ordinal = 0, bool Gone = false)
{
    public static UnitState Of(AlbumUnit unit) => new(unit.Read(), unit.ReadDates(), unit.Ordinal, unit.Gone);

    public void Into(AlbumUnit unit)
    {
        unit.Write(Content);
        if (Dates is not null)
        {
            unit.WriteDates(Dates);
            (unit.Ordinal, unit.Gone) = (Ordinal, Gone);
        }
    }
}

/// <summary>
/// The undoable part of a leaf. Without an ordinal (edits made before leaves could move) only the protector.
/// </summary>
internal sealed record LeafState(
    Guid ProtectorId,
    int? Ordinal = null,
    Guid? FrontUnitId = null,
    Guid? BackUnitId = null,
    bool Gone = false,
    LeafAlterations? Form = null
)
{
    public static LeafState Of(AlbumLeaf leaf) =>
        new(leaf.ProtectorId, leaf.Ordinal, leaf.FrontUnitId, leaf.BackUnitId, leaf.Gone, leaf.ReadAlterations());

    public void Into(AlbumLeaf leaf)
    {
        leaf.ProtectorId = ProtectorId;
        leaf.WriteAlterations(Form ?? LeafAlterations.Plain);
        if (Ordinal is { } ordinal)
        {
            (leaf.Ordinal, leaf.FrontUnitId, leaf.BackUnitId, leaf.Gone) = (ordinal, FrontUnitId, BackUnitId, Gone);
        }
    }
}

/// <summary>
/// The undoable part of an album: its name, how it counts time, what it knows about its words, its formulas, how it
/// is kept, its trips.
/// </summary>
internal sealed record AlbumState(
    string Name,
    AlbumCalendar? Calendar = null,
    AlbumWords? Words = null,
    AlbumFormulas? Formulas = null,
    PageSchool? School = null,
    AlbumKeeping? Keeping = null,
    TripLog? Trip = null
)
{
    public static AlbumState Of(Album album) =>
        new(
            album.Name,
            album.ReadCalendar(),
            album.ReadWords(),
            album.ReadFormulas(),
            album.School,
            album.ReadKeeping(),
            album.ReadTrip()
        );

    public void Into(Album album)
    {
        album.Name = Name;
        if (Calendar is not null)
        {
            album.WriteCalendar(Calendar);
        }

        album.School = School ?? album.School;
        if (Words is not null)
        {
            album.WriteWords(Words);
        }

        if (Formulas is not null)
        {
            album.WriteFormulas(Formulas);
        }

        if (Keeping is not null)
        {
            album.WriteKeeping(Keeping);
        }

        if (Trip is not null)
        {
            album.WriteTrip(Trip);
        }
    }
}

/// <summary>The measures of a protector.</summary>
internal sealed record ProtectorState(
    Length OuterWidth,
    Length OuterHeight,
    Length RingStrip,
    Length Ease,
    ImmutableArray<ClearSize> ClearSizes,
    int? OnHand = null,
    bool Gone = false,
    ProtectorForm? Form = null
)
{
    public static ProtectorState Of(AlbumProtector row)
    {
        // By way of the rules' own type, so that the database's own spelling of JSON never looks like a change.
        var plain = AlbumProtector.From(row.ToProtector(), row.Ordinal);
        return new ProtectorState(
            plain.OuterWidth,
            plain.OuterHeight,
            plain.RingStrip,
            plain.Ease,
            StoredDocuments.ClearSizes.Read(plain.ClearSizes).Sizes,
            row.OnHand,
            row.Gone,
            StoredDocuments.ProtectorForm.Read(plain.Form)
        );
    }

    public void Into(AlbumProtector row)
    {
        (row.OuterWidth, row.OuterHeight, row.RingStrip, row.Ease) = (OuterWidth, OuterHeight, RingStrip, Ease);
        row.ClearSizes = StoredDocuments.ClearSizes.Write(new ClearSizes(ClearSizes));
        (row.OnHand, row.Gone) = (OnHand, Gone);
        if (Form is not null)
        {
            row.Form = StoredDocuments.ProtectorForm.Write(Form);
        }
    }
}

/// <summary>
/// What a keeper decides about a photo. Where it lies follows from that and from the album's calendar, and is worked
/// out anew after an undo.
/// </summary>
internal sealed record PhotoState(
    LocalDate? KeeperDay,
    int? KeeperHour,
    bool DayTakenAway,
    Verdict Verdict,
    int Favourite,
    double FocusX,
    double FocusY,
    bool FocusByKeeper,
    ImmutableArray<PictureBox>? KeepBoxes,
    ImmutableArray<PictureBox>? CoverBoxes,
    PictureKind Kind,
    int Page,
    int Width,
    int Height,
    Guid? SeriesId,
    IReadOnlyList<string>? People
)
{
    public static PhotoState Of(Photo photo) =>
        new(
            photo.KeeperDay,
            photo.KeeperHour,
            photo.DayTakenAway,
            photo.Verdict,
            photo.Favourite,
            photo.FocusX,
            photo.FocusY,
            photo.FocusByKeeper,
            Boxes.Read(photo.KeepBoxes),
            Boxes.Read(photo.CoverBoxes),
            photo.Kind,
            photo.Page,
            photo.Width,
            photo.Height,
            photo.SeriesId,
            [.. photo.People]
        );

    public void Into(Photo photo)
    {
        if (KeepBoxes is not { } keep)
        {
            // Made before pictures were judged: the edit knew the day alone, and that is where it stays.
            return;
        }

        (photo.KeeperDay, photo.KeeperHour, photo.DayTakenAway) = (KeeperDay, KeeperHour, DayTakenAway);
        (photo.Verdict, photo.Favourite, photo.SeriesId) = (Verdict, Favourite, SeriesId);
        (photo.FocusX, photo.FocusY, photo.FocusByKeeper) = (FocusX, FocusY, FocusByKeeper);
        (photo.KeepBoxes, photo.CoverBoxes) = (Boxes.Write(keep), Boxes.Write(CoverBoxes ?? []));
        (photo.Kind, photo.Page, photo.Width, photo.Height) = (Kind, Page, Width, Height);
        photo.People = [.. People ?? []];
    }
}

/// <summary>A story with all it says of itself.</summary>
internal sealed record StoryState(
    string Title,
    string Words,
    IReadOnlyList<LocalDate> Days,
    string Theme,
    string Author,
    IReadOnlyList<string> People,
    int Ordinal,
    bool Gone,
    int? Hour = null
)
{
    public static StoryState Of(Story story) =>
        new(
            story.Title,
            story.Words,
            story.Days,
            story.Theme,
            story.Author,
            story.People,
            story.Ordinal,
            story.Gone,
            story.Hour
        );

    public void Into(Story story)
    {
        (story.Title, story.Words, story.Theme, story.Author) = (Title, Words, Theme, Author);
        (story.Days, story.People) = ([.. Days], [.. People]);
        (story.Ordinal, story.Gone, story.Hour) = (Ordinal, Gone, Hour);
    }
}
