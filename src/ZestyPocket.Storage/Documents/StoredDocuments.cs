using System.Collections.Immutable;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Storage.Documents;

/// <summary>A pocket size and its measured clear size.</summary>
public sealed record ClearSize(Length NominalWidth, Length NominalHeight, Length ClearWidth, Length ClearHeight);

/// <summary>The measured clear sizes of a protector.</summary>
public sealed record ClearSizes(ImmutableArray<ClearSize> Sizes);

/// <summary>Boxes of a picture: what must stay, or what is covered.</summary>
public sealed record PictureBoxes(ImmutableArray<PictureBox> Boxes);

/// <summary>The ways to choose the pages of a stretch that a search found.</summary>
public sealed record PageChoices(ImmutableArray<PageChoice> All);

/// <summary>The main colours of a picture.</summary>
public sealed record Palette(ImmutableArray<PaletteColour> Colours);

/// <summary>An item of a stash before and after an edit.</summary>
/// <param name="Before">Null when the edit added it.</param>
/// <param name="PreviousStepId">The edit that was on top of the item before this one.</param>
public sealed record StashChange(StashItem? Before, StashItem After, Guid? PreviousStepId);

/// <summary>What an edit of a stash changed.</summary>
public sealed record StashChanges(ImmutableArray<StashChange> All);

/// <summary>
/// Everything that is stored as JSON. To change the shape of one: change the value and its names
/// (<see cref="DocumentNames"/>), and add an upcaster from the version before, which brings its JSON to the new shape.
/// Dumps of every landed version are opened in the tests.
/// </summary>
public static class StoredDocuments
{
    private const string SomethingOfTheAlbum = "Something of this album";

    public static StoredDocument<UnitContent> Content { get; } = new("This week or day", FromVersion1.Content);

    public static StoredDocument<AlbumCalendar> Calendar { get; } =
        new("How this album counts time", FromVersion1.Calendar);

    public static StoredDocument<AlbumWords> Words { get; } =
        new("What this album knows about its words", FromVersion1.Words);

    public static StoredDocument<AlbumFormulas> Formulas { get; } =
        new("The formulas of this album", FromVersion1.Formulas);

    public static StoredDocument<AlbumKeeping> Keeping { get; } = new("How this album is kept");

    public static StoredDocument<TripLog> Trip { get; } = new("The trip log of this album");

    public static StoredDocument<StashItem> StashItem { get; } = new("An item of the stash");

    public static StoredDocument<StashChanges> StashChanges { get; } = new("An edit of the stash");

    public static StoredDocument<LeafAlterations> LeafAlterations { get; } =
        new("A leaf of this album", FromVersion1.LeafAlterations);

    public static StoredDocument<ProtectorForm> ProtectorForm { get; } =
        new("A page protector of this album", FromVersion1.Unchanged);

    public static StoredDocument<ClearSizes> ClearSizes { get; } =
        new("The measures of a page protector", FromVersion1.ClearSizes);

    public static StoredDocument<PictureBoxes> Boxes { get; } = new("A picture of this album", FromVersion1.Boxes);

    public static StoredDocument<Palette> Palette { get; } = new("A picture of this album", FromVersion1.Palette);

    public static StoredDocument<StretchRules> StretchRules { get; } =
        new("The rules of a placing", FromVersion1.Unchanged);

    public static StoredDocument<PageChoices> PageChoices { get; } = new("A choice of pages", FromVersion1.Unchanged);

    internal static StoredDocument<UnitState> UnitState { get; } = new(SomethingOfTheAlbum, FromVersion1.UnitState);

    internal static StoredDocument<LeafState> LeafState { get; } = new(SomethingOfTheAlbum, FromVersion1.LeafState);

    internal static StoredDocument<AlbumState> AlbumState { get; } = new(SomethingOfTheAlbum, FromVersion1.AlbumState);

    internal static StoredDocument<ProtectorState> ProtectorState { get; } =
        new(SomethingOfTheAlbum, FromVersion1.ProtectorState);

    internal static StoredDocument<PhotoState> PhotoState { get; } = new(SomethingOfTheAlbum, FromVersion1.PhotoState);

    internal static StoredDocument<StoryState> StoryState { get; } = new(SomethingOfTheAlbum, FromVersion1.Unchanged);
}
