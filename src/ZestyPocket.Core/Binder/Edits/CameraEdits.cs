using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>Sets a camera's clock right; every picture of it moves with it.</summary>
public abstract record CameraEdit : CalendarEdit
{
    /// <summary>The camera's name; empty for files that name none.</summary>
    public required string Camera { get; init; }

    public override string Label() => "Set a camera's clock";

    protected sealed override (AlbumCalendar Calendar, string Done) Change(AlbumCalendar calendar, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var clock = Clock(calendar, tools);
        return (
            calendar with
            {
                Cameras =
                [
                    .. calendar.Cameras.Where(k => k.Camera != clock.Camera).Append(clock).Where(k => !k.IsPlain),
                ],
            },
            clock.IsPlain
                ? $"Removed the clock correction of {CameraName.Words(Camera)}"
                : $"Set the clock of {CameraName.Words(Camera)}: {clock.Words}"
        );
    }

    protected abstract CameraClock Clock(AlbumCalendar calendar, AlbumTools tools);
}

/// <summary>Does what the doubt about a camera's clock proposes.</summary>
public sealed record AcceptClockDoubt : CameraEdit
{
    public override AlbumQuestions Asks(AlbumDesk desk) => new() { EveryRecordedTime = true };

    protected override CameraClock Clock(AlbumCalendar calendar, AlbumTools tools) =>
        ClockSuspicion.Find(tools.Facts.RecordedTimes, calendar).FirstOrDefault(d => d.Camera == Camera)?.Proposed
        ?? throw new RuleException(
            $"The clock of {CameraName.Words(Camera)} is not doubted any more. Nothing was changed."
        );
}

/// <summary>Sets what is added to every recorded time of a camera.</summary>
public sealed record ShiftCamera(long Seconds) : CameraEdit
{
    protected override CameraClock Clock(AlbumCalendar calendar, AlbumTools tools) =>
        Seconds is >= -PhotoTime.LongestCorrection and <= PhotoTime.LongestCorrection
            ? calendar.ClockOf(Camera) with
            {
                CorrectionSeconds = Seconds,
            }
            : throw new RuleException("A correction lies between nothing and a year. Nothing was changed.");
}

/// <summary>Says that a camera's clock stayed on one zone; an empty zone that it did not.</summary>
public sealed record LeaveCameraOnZone(string Zone) : CameraEdit
{
    protected override CameraClock Clock(AlbumCalendar calendar, AlbumTools tools) =>
        calendar.ClockOf(Camera) with
        {
            LeftOnZone = Zone.Length == 0 ? null : Zones.Find(Zone).Id,
        };
}

/// <summary>Sets a camera's clock by two pictures of one moment, one of them taken with another camera.</summary>
public sealed record MatchPictures(Guid WrongPhotoId, Guid RightPhotoId) : CameraEdit
{
    public override AlbumQuestions Asks(AlbumDesk desk) => new() { Pictures = [WrongPhotoId, RightPhotoId] };

    protected override CameraClock Clock(AlbumCalendar calendar, AlbumTools tools)
    {
        var (wrong, right) = (tools.Facts.RequirePicture(WrongPhotoId), tools.Facts.RequirePicture(RightPhotoId));
        return wrong.Camera == right.Camera
            ? throw new RuleException(
                "Both pictures are of one camera: they cannot correct each other. Choose one of another camera. "
                    + "Nothing was changed."
            )
            : calendar.ClockOf(Camera) with
            {
                LeftOnZone = null,
                CorrectionSeconds = PhotoTime.CorrectionFromPair(
                    CameraPictures.Recorded(wrong),
                    right.Taken ?? CameraPictures.Recorded(right)
                ),
            };
    }
}

/// <summary>Sets a camera's clock by the true time of one of its pictures.</summary>
/// <param name="TrueTime">Such as <c>2026-06-06T14:30</c>, with or without seconds.</param>
public sealed record TellTrueTime(Guid PhotoId, string TrueTime) : CameraEdit
{
    public override AlbumQuestions Asks(AlbumDesk desk) => new() { Pictures = [PhotoId] };

    protected override CameraClock Clock(AlbumCalendar calendar, AlbumTools tools)
    {
        var truth = LocalDateTimePattern.ExtendedIso.Parse(TrueTime.Length == 16 ? TrueTime + ":00" : TrueTime)
            is { Success: true, Value: var moment }
            ? moment
            : throw new RuleException(
                $"“{TrueTime}” is not a date and time. Write it as 2026-06-06T14:30. Nothing was changed."
            );
        return calendar.ClockOf(Camera) with
        {
            LeftOnZone = null,
            CorrectionSeconds = PhotoTime.CorrectionFromPair(
                CameraPictures.Recorded(tools.Facts.RequirePicture(PhotoId)),
                truth
            ),
        };
    }
}

internal static class CameraPictures
{
    public static LocalDateTime Recorded(PictureTime picture) =>
        picture.Recorded
        ?? throw new RuleException(
            $"{picture.FileName} has no recorded time, so it cannot tell anything about a clock. Choose another "
                + "picture. Nothing was changed."
        );
}
