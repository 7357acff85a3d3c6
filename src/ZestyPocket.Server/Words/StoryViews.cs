using NodaTime;

namespace ZestyPocket.Server.Words;

/// <summary>A story of an album.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Revision">For edits.</param>
/// <param name="Title">May be empty.</param>
/// <param name="Words">Plain text.</param>
/// <param name="Days">The days it tells of.</param>
/// <param name="DayLabel">Those days in words; null when it has none.</param>
/// <param name="UnitId">The unit of its first day; null when that lies outside the album.</param>
/// <param name="Theme">May be empty.</param>
/// <param name="Author">May be empty.</param>
/// <param name="People">Who it tells of.</param>
/// <param name="WordCount">How long it is.</param>
/// <param name="Cards">On how many cards it stands in the unit that was asked about.</param>
/// <param name="Pictures">Photos of the album that it names by their file names.</param>
public sealed record StoryView(
    Guid Id,
    int Revision,
    string Title,
    string Words,
    IReadOnlyList<LocalDate> Days,
    string? DayLabel,
    Guid? UnitId,
    string Theme,
    string Author,
    IReadOnlyList<string> People,
    int WordCount,
    int Cards,
    IReadOnlyList<Guid> Pictures
);

/// <summary>Room that a story needs, in one size of card or page.</summary>
/// <param name="Label">Such as <c>two 4x6 cards at 9 pt</c>.</param>
/// <param name="Size">The cut size as people write it.</param>
/// <param name="Cards">How many.</param>
/// <param name="SizePt">The type size on them.</param>
/// <param name="InAlbum">How many pockets of that size the unit has; 0 for whole pages.</param>
public sealed record RoomView(string Label, string Size, int Cards, double SizePt, int InAlbum);

/// <summary>What a story needs, typed and by hand.</summary>
public sealed record StoryRoom(
    int Words,
    string Summary,
    IReadOnlyList<RoomView> Typed,
    IReadOnlyList<RoomView> ByHand
);

/// <summary>A new story; it is about its days, else about its theme.</summary>
public sealed record NewStoryRequest(
    string Words,
    string Title = "",
    IReadOnlyList<LocalDate>? Days = null,
    string Theme = "",
    string Author = "",
    IReadOnlyList<string>? People = null
);

/// <summary>A change of a story, made on its revision; whatever is null stays.</summary>
public sealed record WriteStoryRequest(
    int Revision,
    string? Words = null,
    string? Title = null,
    IReadOnlyList<LocalDate>? Days = null,
    string? Theme = null,
    string? Author = null,
    IReadOnlyList<string>? People = null
);

/// <summary>Parts a story in two before the character at <paramref name="At"/>.</summary>
public sealed record SplitStoryRequest(int Revision, int At);

/// <summary>Joins another story to the end of this one.</summary>
public sealed record MergeStoryRequest(int Revision, Guid OtherId);

/// <summary>Changes places with another story of the album.</summary>
public sealed record SwapStoriesRequest(int Revision, Guid OtherId);

/// <summary>Puts a story on cards of a unit; the cards it has there already are used again.</summary>
/// <param name="Revision">Of the unit.</param>
/// <param name="Cards">How many cards, 1 to 40.</param>
/// <param name="StyleKey">The style of all of them; null keeps what they have or takes the album's.</param>
/// <param name="ByHand">They are written by hand: lines are printed; null keeps what they are.</param>
public sealed record SetStoryRequest(int Revision, int Cards, string? StyleKey = null, bool? ByHand = null);

/// <summary>What was done with a story.</summary>
public sealed record StoryAnswer(string Done, Guid? EditId, Guid? StoryId, IReadOnlyList<string> Moved);

/// <summary>What came of a file of stories.</summary>
/// <param name="Done">In one line.</param>
/// <param name="EditId">For the undo; null when nothing was new.</param>
/// <param name="Added">New stories.</param>
/// <param name="Known">Posts that were here already.</param>
/// <param name="WithoutDay">Of the new ones, those that say no day.</param>
/// <param name="PicturesFound">Pictures they name that are in the album.</param>
/// <param name="PicturesMissing">File names of pictures they name that are not.</param>
public sealed record StoriesArrived(
    string Done,
    Guid? EditId,
    int Added,
    int Known,
    int WithoutDay,
    int PicturesFound,
    IReadOnlyList<string> PicturesMissing
);
