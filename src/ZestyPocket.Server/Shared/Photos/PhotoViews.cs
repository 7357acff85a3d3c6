using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>A photo as lists show it.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Revision">Of the photo, for edits.</param>
/// <param name="FileName">As it came.</param>
/// <param name="Picture">Address of the picture; append the side wanted in pixels.</param>
/// <param name="Width">Pixels, upright.</param>
/// <param name="Height">Pixels, upright.</param>
/// <param name="Day">The album's day; null waits in the "no date" tray.</param>
/// <param name="DayLabel">The day in words.</param>
/// <param name="Time">Local time, corrected; null when only the day is known.</param>
/// <param name="Camera">Its camera.</param>
/// <param name="UnitId">The unit that holds it.</param>
/// <param name="Verdict">Keep, maybe, leave or not decided.</param>
/// <param name="Favourite">0 to 3.</param>
/// <param name="Kind">Photo, screenshot, scan, page.</param>
/// <param name="GuessedDay">Offered for a picture without a date, never used by itself.</param>
/// <param name="GroupId">Pictures of one moment share it.</param>
/// <param name="SuggestedBest">The program's proposal among them.</param>
/// <param name="FocusX">0 to 1.</param>
/// <param name="FocusY">0 to 1.</param>
public sealed record PhotoView(
    Guid Id,
    int Revision,
    string FileName,
    string Picture,
    int Width,
    int Height,
    LocalDate? Day,
    string? DayLabel,
    string? Time,
    string? Camera,
    Guid? UnitId,
    Verdict Verdict,
    int Favourite,
    PictureKind Kind,
    LocalDate? GuessedDay,
    Guid? GroupId,
    bool SuggestedBest,
    double FocusX,
    double FocusY
)
{
    public static PhotoView Of(Photo photo, DateStyle style)
    {
        ArgumentNullException.ThrowIfNull(photo);
        return new PhotoView(
            photo.Id,
            photo.Revision,
            photo.FileName,
            $"/api/photos/{photo.Id}/picture?v={PictureCache.Version(RefOf(photo))}&side=",
            photo.Width,
            photo.Height,
            photo.Day,
            photo.Day is { } day ? SpanLabel.Day(day, style.Order) : null,
            TimeOf(photo, style),
            photo.Camera,
            photo.UnitId,
            photo.Verdict,
            photo.Favourite,
            photo.Kind,
            photo.GuessedDay,
            photo.GroupId,
            photo.SuggestedBest,
            photo.FocusX,
            photo.FocusY
        );
    }

    /// <summary>The picture as it may leave the program: its page, and what is covered.</summary>
    public static PictureRef RefOf(Photo photo)
    {
        ArgumentNullException.ThrowIfNull(photo);
        return new PictureRef(photo.Sha256, photo.Page, Boxes.Read(photo.CoverBoxes));
    }

    private static string? TimeOf(Photo photo, DateStyle style) =>
        photo is { TimeSource: not TimeSource.NameDay, Taken: { } taken }
            ? SpanLabel.Time(taken.TimeOfDay, style.Clock)
            : null;
}

/// <summary>A box in fractions of the picture.</summary>
public sealed record BoxView(double X, double Y, double Width, double Height)
{
    public static BoxView Of(PictureBox box) => new(box.X, box.Y, box.Width, box.Height);

    public PictureBox ToBox() => new(X, Y, Width, Height);
}

/// <summary>A colour of the palette as <c>#rrggbb</c> with its share, 0 to 1.</summary>
public sealed record PaletteView(string Hex, double Share);

/// <summary>Everything about one photo.</summary>
public sealed record PhotoDetail(
    PhotoView Photo,
    string Format,
    long Bytes,
    string? Recorded,
    string TimeWords,
    int? OffsetMinutes,
    double? Latitude,
    double? Longitude,
    double Tone,
    IReadOnlyList<PaletteView> Palette,
    double Sharpness,
    string Proportion,
    string LargestPrint,
    bool Fills4x6,
    bool FocusByKeeper,
    IReadOnlyList<BoxView> KeepBoxes,
    IReadOnlyList<BoxView> CoverBoxes,
    int Page,
    int Pages,
    Guid? SeriesId,
    bool DaySetByKeeper,
    int? KeeperHour,
    IReadOnlyList<PhotoView> Lookalikes,
    IReadOnlyList<string> People
)
{
    /// <summary>How far down its horizon lies, 0 to 1; null when it has none.</summary>
    public double? Horizon { get; init; }

    public static PhotoDetail Of(Photo photo, IEnumerable<Photo> lookalikes, DateStyle style, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(photo);
        var time = photo.TimeSource switch
        {
            TimeSource.None => "The file has no date.",
            TimeSource.NameDay => "The date is in the name of the file or its folder; the hour is not known.",
            TimeSource.Name => "Date and time are in the file's name.",
            _ => photo.Taken == photo.Recorded
                ? "From the camera, as recorded."
                : $"The camera recorded {Written(photo.Recorded!.Value)}; its clock is corrected.",
        };
        return new PhotoDetail(
            PhotoView.Of(photo, style),
            photo.Format,
            photo.Bytes,
            photo.Recorded is { } recorded ? Written(recorded) : null,
            photo.KeeperDay is not null ? $"You gave it its day. {time}" : time,
            photo.OffsetMinutes,
            photo.Latitude,
            photo.Longitude,
            photo.Tone,
            [.. Boxes.ReadPalette(photo.Palette).Select(c => new PaletteView(c.Hex, c.Share))],
            photo.Sharpness,
            Proportions.Name(photo.Pixels),
            MeasureText.Show(PictureJudging.LargestPrint(photo.Pixels), measures),
            PictureJudging.Fills(photo.Pixels, Size.FromInches(6, 4)),
            photo.FocusByKeeper,
            [.. Boxes.Read(photo.KeepBoxes).Select(BoxView.Of)],
            [.. Boxes.Read(photo.CoverBoxes).Select(BoxView.Of)],
            photo.Page,
            photo.Pages,
            photo.SeriesId,
            photo.KeeperDay is not null,
            photo.KeeperHour,
            [.. lookalikes.Select(p => PhotoView.Of(p, style))],
            photo.People
        );
    }

    private static string Written(LocalDateTime time) =>
        time.ToString("uuuu-MM-dd HH:mm:ss", System.Globalization.CultureInfo.InvariantCulture);
}
