using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>A file that was made and can be made again, such as the PDF of a print run.</summary>
public readonly record struct MadeFile(string Name, long Bytes, Instant At);

/// <summary>How long such files are kept, and how much of them.</summary>
/// <param name="MostDays">From 1; null for no end.</param>
/// <param name="MostBytes">From 0; null for no end.</param>
public sealed record FileLimits(int? MostDays, long? MostBytes)
{
    /// <summary>A file younger than this may be on its way to somebody: it stays, however much there is.</summary>
    public static Duration InUse { get; } = Duration.FromHours(1);

    /// <summary>
    /// The files that are one too many: those over their age, then the oldest until the rest is no more than the total.
    /// </summary>
    public IReadOnlyList<MadeFile> TooMany(IEnumerable<MadeFile> files, Instant now)
    {
        ArgumentNullException.ThrowIfNull(files);
        var (gone, left) = (new List<MadeFile>(), 0L);
        foreach (var file in files.OrderByDescending(f => f.At).ThenBy(f => f.Name, StringComparer.Ordinal))
        {
            var tooOld = MostDays is { } days && now - file.At > Duration.FromDays(days);
            var tooMuch = MostBytes is { } most && left + file.Bytes > most;
            if ((tooOld || tooMuch) && now - file.At > InUse)
            {
                gone.Add(file);
            }
            else
            {
                left += file.Bytes;
            }
        }

        return gone;
    }
}
