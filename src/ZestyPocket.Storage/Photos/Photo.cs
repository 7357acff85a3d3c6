using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Photos;

/// <summary>A photo of an album. The original lies in the vault under its hash.</summary>
public sealed class Photo : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    // ---- as it came --------------------------------------------------------------------------------------

    /// <summary>
    /// SHA-256 of the original, lower-case hex; with the album it is unique: the same file twice is one photo.
    /// </summary>
    public required ContentHash Sha256 { get; set; }

    public required string FileName { get; set; }

    public required string Format { get; set; }

    public long Bytes { get; set; }

    /// <summary>Pixels of the portrait photo.</summary>
    public int Width { get; set; }

    public int Height { get; set; }

    /// <summary>The camera's own local time as recorded, uncorrected.</summary>
    public LocalDateTime? Recorded { get; set; }

    public TimeSource TimeSource { get; set; }

    public int? OffsetMinutes { get; set; }

    public string? Camera { get; set; }

    public double? Latitude { get; set; }

    public double? Longitude { get; set; }

    /// <summary>A day that can only be guessed (the file's own date on disk): offered, never used by itself.</summary>
    public LocalDate? GuessedDay { get; set; }

    /// <summary>Pages of a PDF; 1 for everything else.</summary>
    public int Pages { get; set; } = 1;

    public Instant AddedAt { get; set; }

    // ---- measured ----------------------------------------------------------------------------------------

    /// <summary>Mean CIE L*.</summary>
    public double Tone { get; set; }

    public double Sharpness { get; set; }

    /// <summary>
    /// See <see cref="PictureJudging.Colourfulness(ReadOnlySpan{byte})"/>; null for a picture of an older version,
    /// whose palette stands for it.
    /// </summary>
    public double? Colourfulness { get; set; }

    /// <summary>64 bits, see <see cref="PictureJudging.Likeness"/>.</summary>
    public long Likeness { get; set; }

    /// <summary>A list of <see cref="PaletteColour"/> as JSON.</summary>
    public string Palette { get; set; } = "[]";

    /// <summary>Pictures of one moment share this.</summary>
    public Guid? GroupId { get; set; }

    public bool SuggestedBest { get; set; }

    // ---- what follows from the album's calendar ----------------------------------------------------------

    /// <summary>The unit that holds the photo; null when it has no day or none of the album's.</summary>
    public Guid? UnitId { get; set; }

    /// <summary>Local time when it was taken, corrected.</summary>
    public LocalDateTime? Taken { get; set; }

    /// <summary>The instant it was taken: puts pictures of several cameras in order.</summary>
    public Instant? TakenAt { get; set; }

    /// <summary>The album's day; null puts the photo into the "no date" tray.</summary>
    public LocalDate? Day { get; set; }

    /// <summary>1 for the second time of a date that was lived through twice.</summary>
    public int Occurrence { get; set; }

    /// <summary>Where it stands in the order of time; pictures without a day come last.</summary>
    public Instant SortAt { get; set; }

    // ---- decided by the keeper ---------------------------------------------------------------------------

    /// <summary>The day the keeper gave it, which outranks every clock.</summary>
    public LocalDate? KeeperDay { get; set; }

    /// <summary>The hour the keeper gave it on a documented day.</summary>
    public int? KeeperHour { get; set; }

    /// <summary>The keeper took its day away: it waits in the "no date" tray whatever its clock says.</summary>
    public bool DayTakenAway { get; set; }

    public Verdict Verdict { get; set; }

    /// <summary>0 to 3.</summary>
    public int Favourite { get; set; }

    /// <summary>Where the eye goes, 0 to 1 each way; found by the program until the keeper moves it.</summary>
    public double FocusX { get; set; } = 0.5;

    public double FocusY { get; set; } = 0.5;

    public bool FocusByKeeper { get; set; }

    /// <summary>What a crop must keep: a list of <see cref="PictureBox"/> as JSON.</summary>
    public string KeepBoxes { get; set; } = "[]";

    /// <summary>
    /// What is painted over wherever the picture leaves the program: a list of <see cref="PictureBox"/> as JSON.
    /// </summary>
    public string CoverBoxes { get; set; } = "[]";

    public PictureKind Kind { get; set; }

    /// <summary>The page of a PDF, from 1.</summary>
    public int Page { get; set; } = 1;

    public Guid? SeriesId { get; set; }

    /// <summary>Who is on it, as the keeper tagged it.</summary>
    public List<string> People { get; set; } = [];

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    public PixelSize Pixels => new(Width, Height);

    /// <summary>What the keeper decided about it.</summary>
    public PhotoDecisions Decisions() =>
        new(FileName, Pages)
        {
            Verdict = Verdict,
            Favourite = Favourite,
            FocusX = FocusX,
            FocusY = FocusY,
            FocusByKeeper = FocusByKeeper,
            KeepBoxes = Boxes.Read(KeepBoxes),
            CoverBoxes = Boxes.Read(CoverBoxes),
            Kind = Kind,
            Page = Page,
            SeriesId = SeriesId,
            KeeperDay = KeeperDay,
            KeeperHour = KeeperHour,
            DayTakenAway = DayTakenAway,
            People = [.. People],
        };

    /// <summary>Writes what the keeper decided.</summary>
    public void Write(PhotoDecisions decided)
    {
        ArgumentNullException.ThrowIfNull(decided);
        (Verdict, Favourite, Kind, Page) = (decided.Verdict, decided.Favourite, decided.Kind, decided.Page);
        (FocusX, FocusY, FocusByKeeper) = (decided.FocusX, decided.FocusY, decided.FocusByKeeper);
        (KeepBoxes, CoverBoxes) = (Boxes.Write(decided.KeepBoxes), Boxes.Write(decided.CoverBoxes));
        (KeeperDay, KeeperHour, DayTakenAway) = (decided.KeeperDay, decided.KeeperHour, decided.DayTakenAway);
        (SeriesId, People) = (decided.SeriesId, [.. decided.People]);
    }

    /// <summary>The recorded time as the calendar reads it.</summary>
    public RecordedTime RecordedTime => new(Recorded, OffsetMinutes, Camera) { FileName = FileName };
}
