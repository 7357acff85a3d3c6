using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words.Edits;

/// <summary>A story of a file.</summary>
/// <param name="Title">May be empty.</param>
/// <param name="Words">Plain text.</param>
/// <param name="Day">Null when the file says none.</param>
/// <param name="Author">May be empty.</param>
/// <param name="Source">What makes it the same post when it comes again; null for plain files.</param>
/// <param name="Pictures">File names of pictures it refers to.</param>
public sealed record ArrivedStory(
    string Title,
    string Words,
    LocalDate? Day,
    string Author,
    string? Source,
    IReadOnlyList<string> Pictures
);

/// <summary>Takes the stories of a file in; what is here already is passed over.</summary>
/// <param name="Stories">New, or deleted before and brought again.</param>
/// <param name="Done">In words.</param>
/// <param name="Passed">How many were here already.</param>
/// <param name="WithoutDay">Of those taken in, how many say no day.</param>
/// <param name="Pictures">File names that those taken in refer to.</param>
public sealed record ArrivingStories(
    ImmutableArray<AlbumStory> Stories,
    string Done,
    int Passed,
    int WithoutDay,
    ImmutableArray<string> Pictures
)
{
    /// <summary>
    /// A post is known by its source, plain words by what they say and the day they tell of: the same words on another
    /// day are another story.
    /// </summary>
    /// <param name="here">All stories of the album, deleted ones too.</param>
    public static ArrivingStories Into(
        IReadOnlyCollection<AlbumStory> here,
        IEnumerable<ArrivedStory> arrived,
        Func<Guid> newId
    )
    {
        ArgumentNullException.ThrowIfNull(here);
        ArgumentNullException.ThrowIfNull(arrived);
        ArgumentNullException.ThrowIfNull(newId);
        var known = here.Where(s => s.Source is not null).ToDictionary(s => s.Source!);
        var plain = here.Where(s => s is { Source: null, Deleted: false }).SelectMany(ByDay).ToHashSet();
        var ordinal = here.Select(s => s.Ordinal).DefaultIfEmpty(0).Max();
        var taken = new List<AlbumStory>();
        var (passed, withoutDay) = (0, 0);
        var pictures = new List<string>();
        foreach (var one in arrived)
        {
            var before = one.Source is null ? null : known.GetValueOrDefault(one.Source);
            if (one.Source is null ? !plain.Add((one.Words, one.Day)) : before is { Deleted: false })
            {
                passed++;
                continue;
            }

            withoutDay += one.Day is null ? 1 : 0;
            pictures.AddRange(one.Pictures);
            var story = before is null ? New(one, newId(), ++ordinal) : before with { Deleted = false };
            taken.Add(story);
            if (one.Source is not null)
            {
                known[one.Source] = story;
            }
        }

        var done = $"Imported {NumberWords.Counted(taken.Count, "story", "stories")}";
        return new ArrivingStories([.. taken], done, passed, withoutDay, [.. pictures.Distinct()]);
    }

    /// <summary>What came of it in one line.</summary>
    public string InWords() =>
        Stories.IsEmpty
            ? "Nothing new: every post was here already"
            : Done + (Passed > 0 ? $"; {Passed} {(Passed == 1 ? "was" : "were")} here already" : string.Empty);

    private static AlbumStory New(ArrivedStory one, Guid id, int ordinal) =>
        new AlbumStory(id, ordinal).Saying(one.Words) with
        {
            Title = one.Title,
            Author = one.Author,
            Source = one.Source,
            Days = one.Day is { } day ? [day] : [],
            Pictures = [.. one.Pictures],
        };

    private static IEnumerable<(string Words, LocalDate? Day)> ByDay(AlbumStory story) =>
        story.Days.IsEmpty ? [(story.Words, null)] : story.Days.Select(d => (story.Words, (LocalDate?)d));
}
