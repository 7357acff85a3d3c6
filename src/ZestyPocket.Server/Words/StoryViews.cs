using NodaTime;

namespace ZestyPocket.Server.Words;

/// <summary>A story of an album.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Revision">For edits.</param>
/// <param name="Title">May be empty.</param>
/// <param name="Words">Plain text.</param>
/// <param name="Days">The days it tells of.</param>
/// <param name="Hour">The hour it tells of in an album by the hour; null for the day.</param>
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
    int? Hour,
    string? DayLabel,
    Guid? UnitId,
    string Theme,
    string Author,
    IReadOnlyList<string> People,
    int WordCount,
    int Cards,
    IReadOnlyList<Guid> Pictures
);

/// <summary>What was done with a story.</summary>
public sealed record StoryAnswer(string Done, Guid? EditId, Guid? StoryId, IReadOnlyList<string> Changes);

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
