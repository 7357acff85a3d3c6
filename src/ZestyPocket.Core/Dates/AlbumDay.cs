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
