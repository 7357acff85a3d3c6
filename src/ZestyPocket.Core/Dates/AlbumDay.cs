using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// The day a picture belongs to: the local calendar day where it was taken, except that the small hours before
/// the late-night cut-off belong to the evening before. Common practice.
/// </summary>
public static class AlbumDay
{
    public static readonly LocalTime DefaultCutOff = new(3, 0);

    /// <summary>A picture at 00:40 belongs to the evening before when the cut-off is 03:00.</summary>
    public static LocalDate Of(LocalDateTime taken, LocalTime cutOff) =>
        taken.TimeOfDay < cutOff ? taken.Date.PlusDays(-1) : taken.Date;
}

/// <summary>When something happened, as the album counts.</summary>
/// <param name="Day">The album's day.</param>
/// <param name="Occurrence">
/// 0; or 1 when the traveller lives through that date a second time after crossing the date line eastwards.
/// </param>
/// <param name="Minute">
/// Minutes since that day's midnight, 0 to 24·60 plus the cut-off (00:40 of the night is 1480); null when only the day
/// is known.
/// </param>
public readonly record struct AlbumMoment(LocalDate Day, int Occurrence, int? Minute)
{
    /// <summary>The moment of a local time, with the late-night cut-off applied.</summary>
    public static AlbumMoment Of(LocalDateTime taken, LocalTime cutOff, int occurrence = 0)
    {
        var day = AlbumDay.Of(taken, cutOff);
        var minute = (taken.Hour * 60) + taken.Minute + (day == taken.Date ? 0 : 24 * 60);
        return new AlbumMoment(day, occurrence, minute);
    }
}
