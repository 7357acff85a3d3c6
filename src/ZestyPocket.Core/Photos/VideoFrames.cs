using System.Globalization;
using System.Numerics;
using NodaTime;
using NodaTime.Text;

namespace ZestyPocket.Core.Photos;

/// <summary>A frame of a video that was looked at.</summary>
/// <param name="Milliseconds">From the beginning.</param>
/// <param name="Sharpness">See <see cref="PictureJudging"/>; larger is sharper.</param>
/// <param name="Likeness">64 bits, see <see cref="PictureJudging.Likeness"/>.</param>
public readonly record struct VideoFrame(long Milliseconds, double Sharpness, ulong Likeness);

/// <summary>When a video was begun: local time and its offset where the file says both.</summary>
public sealed record VideoStart(LocalDateTime? Local, int? OffsetMinutes, Instant? Instant);

/// <summary>Frames of a video as pictures: which are worth it, and when they were.</summary>
public static class VideoFrames
{
    /// <summary>Bits by which two frames must differ to be two pictures. A choice of this program.</summary>
    public const int LeastDifferenceBits = 10;

    /// <summary>
    /// The sharpest frames that differ from each other, in the order of time: at most <paramref name="most"/>, none
    /// much less sharp than the middle one of all.
    /// </summary>
    public static IReadOnlyList<VideoFrame> Propose(IReadOnlyCollection<VideoFrame> frames, int most)
    {
        ArgumentNullException.ThrowIfNull(frames);
        if (frames.Count == 0)
        {
            return [];
        }

        var middle = frames.Select(f => f.Sharpness).Order().ElementAt(frames.Count / 2);
        var chosen = new List<VideoFrame>();
        foreach (var frame in frames.OrderByDescending(f => f.Sharpness).ThenBy(f => f.Milliseconds))
        {
            if (
                chosen.Count < most
                && (frame.Sharpness >= middle / 2 || chosen.Count == 0)
                && chosen.TrueForAll(c => BitOperations.PopCount(c.Likeness ^ frame.Likeness) >= LeastDifferenceBits)
            )
            {
                chosen.Add(frame);
            }
        }

        return [.. chosen.OrderBy(f => f.Milliseconds)];
    }

    /// <summary>
    /// When a video began by what its file says. The creation time of MP4 and QuickTime files is counted in UTC, and 0
    /// is 1 January 1904, which many recorders leave there: that and the zero of other clocks say nothing. Source:
    /// ISO/IEC 14496-12, movie header box (from memory). The creation date of telephones has its own offset and is
    /// preferred.
    /// </summary>
    /// <param name="creationTime">Such as <c>2026-05-04T08:12:30.000000Z</c>; null when the file has none.</param>
    /// <param name="localDate">Such as <c>2026-05-04T10:12:30+0200</c>; null when the file has none.</param>
    public static VideoStart StartOf(string? creationTime, string? localDate)
    {
        if (localDate is not null && Offset(localDate) is { } own && IsReal(own.ToInstant()))
        {
            return new VideoStart(own.LocalDateTime, own.Offset.Seconds / 60, own.ToInstant());
        }

        if (creationTime is null)
        {
            return new VideoStart(null, null, null);
        }

        if (Offset(creationTime) is { } said)
        {
            return IsReal(said.ToInstant())
                ? new VideoStart(null, null, said.ToInstant())
                : new VideoStart(null, null, null);
        }

        // Without a zone it is the recorder's own local time, as cameras write into Matroska and AVI files.
        var local = LocalDateTimePattern
            .CreateWithInvariantCulture("uuuu'-'MM'-'dd HH':'mm':'ss")
            .Parse(creationTime.Replace('T', ' ')[..Math.Min(19, creationTime.Length)]);
        return local.Success && IsReal(local.Value.InUtc().ToInstant())
            ? new VideoStart(local.Value, null, null)
            : new VideoStart(null, null, null);
    }

    /// <summary>What a frame is called: the video's name and the position, such as <c>clip 0m12.4s.jpg</c>.</summary>
    public static string NameOf(string video, long milliseconds)
    {
        ArgumentNullException.ThrowIfNull(video);
        var at = Duration.FromMilliseconds(milliseconds);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{Path.GetFileNameWithoutExtension(video)} {(long)at.TotalMinutes}m{at.TotalSeconds % 60:00.0}s.jpg"
        );
    }

    private static OffsetDateTime? Offset(string text)
    {
        foreach (var pattern in Patterns)
        {
            if (pattern.Parse(text.Trim()) is { Success: true } read)
            {
                return read.Value;
            }
        }

        return null;
    }

    private static readonly OffsetDateTimePattern[] Patterns =
    [
        OffsetDateTimePattern.ExtendedIso,
        OffsetDateTimePattern.CreateWithInvariantCulture("uuuu'-'MM'-'dd'T'HH':'mm':'ss;FFFFFFFFFo<+HHmm>"),
    ];

    /// <summary>Nobody films before 1970 with a clock that runs: zeros of 1904 and 1970 are no times.</summary>
    private static bool IsReal(Instant at) => at > Instant.FromUtc(1970, 1, 2, 0, 0);
}
