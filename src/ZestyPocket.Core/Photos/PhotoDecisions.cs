using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>What kind of picture it is; all are treated as photos.</summary>
public enum PictureKind
{
    Photo,
    Screenshot,
    Scan,

    /// <summary>A page of a PDF.</summary>
    Page,
}

/// <summary>Whether a picture goes into the album.</summary>
public enum Verdict
{
    Undecided,
    Keep,
    Maybe,

    /// <summary>Left out of the album; it can be taken back.</summary>
    Leave,
}

/// <summary>What the keeper decided about a picture.</summary>
/// <param name="FileName">As it came, for sentences.</param>
/// <param name="Pages">Pages of a PDF; 1 for everything else.</param>
public sealed record PhotoDecisions(string FileName, int Pages)
{
    /// <summary>The most stars a picture can have.</summary>
    public const int MostFavourite = 3;

    public Verdict Verdict { get; init; }

    /// <summary>0 to <see cref="MostFavourite"/> stars.</summary>
    public int Favourite { get; init; }

    /// <summary>Where the eye goes, 0 left to 1 right.</summary>
    public double FocusX { get; init; } = 0.5;

    /// <summary>Where the eye goes, 0 top to 1 bottom.</summary>
    public double FocusY { get; init; } = 0.5;

    /// <summary>The keeper moved the focus point; else the program found it.</summary>
    public bool FocusByKeeper { get; init; }

    /// <summary>What a crop must keep.</summary>
    public ImmutableArray<PictureBox> KeepBoxes { get; init; } = [];

    /// <summary>What is painted over wherever the picture leaves the program.</summary>
    public ImmutableArray<PictureBox> CoverBoxes { get; init; } = [];

    public PictureKind Kind { get; init; }

    /// <summary>The page of a PDF, from 1.</summary>
    public int Page { get; init; } = 1;

    public Guid? SeriesId { get; init; }

    /// <summary>The day the keeper gave it, which outranks every clock.</summary>
    public LocalDate? KeeperDay { get; init; }

    /// <summary>The hour the keeper gave it on a documented day, 0 to 29.</summary>
    public int? KeeperHour { get; init; }

    /// <summary>It waits without a date whatever its clock says.</summary>
    public bool DayTakenAway { get; init; }

    /// <summary>Who is on it, as the keeper tagged it, in the order of the tagging.</summary>
    public ImmutableArray<string> People { get; init; } = [];
}
