using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Photos.Edits;

/// <summary>
/// One decision about one picture or many. Every kind is a record of its own with exactly the fields it needs; its name
/// on the wire is the record's. Each picture comes with the revision that the keeper saw.
/// </summary>
public abstract record PhotoEdit
{
    /// <summary>
    /// What is done, for the history and the keeper. Throws <see cref="RuleException"/> when it asks for something the
    /// album has not.
    /// </summary>
    /// <param name="what">The pictures, such as <c>7 pictures</c> or a file name.</param>
    public abstract string Done(string what, AlbumCalendar calendar);

    /// <summary>
    /// The picture after the decision. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public abstract PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar);

    /// <summary>Pictures in a sentence.</summary>
    public static string What(IReadOnlyList<PhotoDecisions> photos)
    {
        ArgumentNullException.ThrowIfNull(photos);
        return photos.Count == 1 ? photos[0].FileName : $"{photos.Count:N0} pictures";
    }
}

/// <summary>Keeps a picture, leaves it out, or neither.</summary>
public sealed record JudgePhoto(Verdict Verdict) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        Verdict switch
        {
            Verdict.Leave => $"Left {what} out of the album",
            Verdict.Keep => $"Kept {what}",
            Verdict.Maybe => $"Marked {what} as maybe",
            _ => $"Marked {what} as not decided",
        };

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            Verdict = Verdict,
        };
}

/// <summary>Gives a picture its stars.</summary>
/// <param name="Stars">0 to <see cref="PhotoDecisions.MostFavourite"/>.</param>
public sealed record StarPhoto(int Stars) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        Stars == 0 ? $"Removed the stars of {what}" : $"Gave {what} {NumberWords.Counted(Stars, "star")}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        Stars is >= 0 and <= PhotoDecisions.MostFavourite
            ? photo with
            {
                Favourite = Stars,
            }
            : throw new RuleException(
                $"A favourite has 0 to {PhotoDecisions.MostFavourite} stars. Nothing was changed."
            );
}

/// <summary>Moves the point that crops keep to.</summary>
/// <param name="X">0 left to 1 right.</param>
/// <param name="Y">0 top to 1 bottom.</param>
public sealed record MoveFocus(double X, double Y) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Moved the focus point of {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        X is >= 0 and <= 1 && Y is >= 0 and <= 1
            ? photo with
            {
                FocusX = X,
                FocusY = Y,
                FocusByKeeper = true,
            }
            : throw new RuleException("The focus point lies outside the picture. Nothing was changed.");
}

/// <summary>A box as drawn on a picture, in fractions of its width and height.</summary>
public sealed record DrawnBox(double X, double Y, double Width, double Height)
{
    /// <summary>
    /// The boxes cut to the picture. Throws <see cref="RuleException"/> for one outside it and for too many.
    /// </summary>
    public static ImmutableArray<PictureBox> Checked(IReadOnlyCollection<DrawnBox> boxes)
    {
        ArgumentNullException.ThrowIfNull(boxes);
        return boxes.Count <= PictureBox.MostBoxes
            ? [.. boxes.Select(b => new PictureBox(b.X, b.Y, b.Width, b.Height).Checked())]
            : throw new RuleException(
                $"A picture can have {PictureBox.MostBoxes} boxes of a kind at most. Nothing was changed."
            );
    }
}

/// <summary>Says what a crop must keep.</summary>
public sealed record KeepInCrops(IReadOnlyList<DrawnBox> Boxes) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Marked what must stay in {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            KeepBoxes = DrawnBox.Checked(Boxes),
        };
}

/// <summary>Says what is painted over wherever the picture leaves the program; no boxes uncover it.</summary>
public sealed record CoverPhoto(IReadOnlyList<DrawnBox> Boxes) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        Boxes.Count == 0 ? $"Uncovered {what}" : $"Covered {NumberWords.Counted(Boxes.Count, "place")} on {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            CoverBoxes = DrawnBox.Checked(Boxes),
        };
}

/// <summary>Shows another page of a PDF.</summary>
/// <param name="Page">From 1.</param>
public sealed record TurnToPage(int Page) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Turned {what} to page {Page}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(photo);
        return Page >= 1 && Page <= photo.Pages
            ? photo with
            {
                Page = Page,
            }
            : throw new RuleException(
                $"{photo.FileName} has {NumberWords.Counted(photo.Pages, "page")}; there is no page {Page}. Nothing "
                    + "was changed."
            );
    }
}

/// <summary>Puts a picture into one of the album's series.</summary>
public sealed record JoinSeries(Guid SeriesId) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        $"Added {what} to the series {Required(calendar).Name}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            SeriesId = Required(calendar).Id,
        };

    private PhotoSeries Required(AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        return calendar.Series.FirstOrDefault(s => s.Id == SeriesId)
            ?? throw new RuleException("That series is not here any more. Nothing was changed.");
    }
}

/// <summary>Takes a picture out of its series.</summary>
public sealed record LeaveSeries : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Removed {what} from its series";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            SeriesId = null,
        };
}

/// <summary>Gives a picture its day, which outranks every clock.</summary>
/// <param name="Hour">On a documented day, 0 to 29; null leaves the hour to the clock.</param>
public sealed record DatePhoto(LocalDate Day, int? Hour = null) : PhotoEdit
{
    private const int FirstYear = 1800;
    private const int LastYear = 2200;

    public override string Done(string what, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var day = $"Moved {what} to {SpanLabel.Day(Day, calendar.Style.Order)}";
        return Hour is { } hour ? $"{day}, {SpanLabel.Hour(hour, calendar.Style.Clock)}" : day;
    }

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        Day.Year is >= FirstYear and <= LastYear && Hour is not (< 0 or >= 30)
            ? photo with
            {
                KeeperDay = Day,
                KeeperHour = Hour,
                DayTakenAway = false,
            }
            : throw new RuleException("That day lies too far away for an album. Nothing was changed.");
}

/// <summary>Takes a picture's day away: it waits without a date.</summary>
public sealed record TakeDayAway : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Removed the day of {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            KeeperDay = null,
            KeeperHour = null,
            DayTakenAway = true,
        };
}

/// <summary>Lets the picture's clock say its day again.</summary>
public sealed record DateFromClock : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) => $"Let the clock say the day of {what} again";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            KeeperDay = null,
            KeeperHour = null,
            DayTakenAway = false,
        };
}

/// <summary>Says that somebody is on a picture.</summary>
/// <param name="Name">1 to 80 characters.</param>
public sealed record TagPerson(string Name) : PhotoEdit
{
    private const int MostPeople = 40;
    private const int LongestName = 80;

    public override string Done(string what, AlbumCalendar calendar) => $"Tagged {Checked(Name)} on {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(photo);
        var name = Checked(Name);
        return photo.People.Contains(name) ? photo
            : photo.People.Length < MostPeople ? photo with { People = photo.People.Add(name) }
            : throw new RuleException($"A picture has up to {MostPeople} people. Nothing was changed.");
    }

    internal static string Checked(string? name) =>
        name?.Trim() is { Length: > 0 and <= LongestName } trimmed
            ? trimmed
            : throw new RuleException($"A name has 1 to {LongestName} characters. Nothing was changed.");
}

/// <summary>Removes a person’s tag from a picture.</summary>
public sealed record UntagPerson(string Name) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        $"Removed the tag {TagPerson.Checked(Name)} from {what}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(photo);
        return photo with { People = photo.People.Remove(TagPerson.Checked(Name)) };
    }
}

/// <summary>Says what kind of picture it is.</summary>
public sealed record CallPhoto(PictureKind PictureKind) : PhotoEdit
{
    public override string Done(string what, AlbumCalendar calendar) =>
        $"Called {what} a {PictureKind.ToString().ToLowerInvariant()}";

    public override PhotoDecisions Apply(PhotoDecisions photo, AlbumCalendar calendar) =>
        photo with
        {
            Kind = PictureKind,
        };
}
