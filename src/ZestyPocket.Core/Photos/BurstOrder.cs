using System.Globalization;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>
/// The order of pictures that a camera took within one second. Cameras count their files (DCF, JEITA CP-3461: four
/// digits behind four letters), so the number in the name says which came first; it is added to the place in time, far
/// below what any clock shows, so that there is one order everywhere.
/// </summary>
public static class BurstOrder
{
    private const int Digits = 6;

    /// <summary>
    /// What a picture is behind the beginning of its second, or of its millisecond when the camera said that; less than
    /// one of those. None for a name without a number.
    /// </summary>
    public static Duration Behind(string fileName, LocalDateTime? recorded)
    {
        ArgumentNullException.ThrowIfNull(fileName);
        var stem = Path.GetFileNameWithoutExtension(fileName);
        var end = stem.Length;
        while (end > 0 && !char.IsAsciiDigit(stem[end - 1]))
        {
            end--;
        }

        var start = end;
        while (start > 0 && end - start < Digits && char.IsAsciiDigit(stem[start - 1]))
        {
            start--;
        }

        if (start == end || recorded is not { } time)
        {
            return Duration.Zero;
        }

        var number = int.Parse(stem.AsSpan(start, end - start), CultureInfo.InvariantCulture);
        return Duration.FromTicks(
            (time.TickOfSecond == 0 ? number : number % 1_000) * NodaConstants.TicksPerMillisecond / 1_000
        );
    }
}
