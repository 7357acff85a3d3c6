using NodaTime;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Words;

/// <summary>Words somebody wrote or brought along: about one or several days, or about a theme.</summary>
public sealed class Story : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public string Title { get; set; } = string.Empty;

    public string Words { get; set; } = string.Empty;

    /// <summary>The days it tells of, in order; empty when it has a theme or no place yet.</summary>
    public List<LocalDate> Days { get; set; } = [];

    /// <summary>The hour it tells of in an album by the hour; null when it tells of the day.</summary>
    public int? Hour { get; set; }

    /// <summary>Such as “the kitchen”; empty when it tells of days.</summary>
    public string Theme { get; set; } = string.Empty;

    public string Author { get; set; } = string.Empty;

    public List<string> People { get; set; } = [];

    /// <summary>Where it came from, so that the same post is not taken twice; null when it was written here.</summary>
    public string? Source { get; set; }

    /// <summary>File names of pictures it refers to, as it named them.</summary>
    public List<string> Pictures { get; set; } = [];

    /// <summary>Its place among the stories of its day or theme.</summary>
    public int Ordinal { get; set; }

    public Instant MadeAt { get; set; }

    /// <summary>Thrown away, which can be undone.</summary>
    public bool Gone { get; set; }

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    /// <summary>The story as a value.</summary>
    public AlbumStory Read() =>
        new(Id, Ordinal)
        {
            Title = Title,
            Words = Words,
            Days = [.. Days],
            Hour = Hour,
            Theme = Theme,
            Author = Author,
            People = [.. People],
            Pictures = [.. Pictures],
            Source = Source,
            Deleted = Gone,
        };

    /// <summary>Writes the story; its key stays.</summary>
    public void Write(AlbumStory story)
    {
        ArgumentNullException.ThrowIfNull(story);
        (Ordinal, Title, Words, Theme, Author) = (story.Ordinal, story.Title, story.Words, story.Theme, story.Author);
        (Days, People, Pictures) = ([.. story.Days], [.. story.People], [.. story.Pictures]);
        (Source, Hour, Gone) = (story.Source, story.Hour, story.Deleted);
    }
}
