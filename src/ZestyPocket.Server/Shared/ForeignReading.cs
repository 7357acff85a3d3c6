using System.Diagnostics;
using ZestyPocket.Core;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// The gate for everything that others wrote: stories, feeds, calendars. It ends the work when the request ends or when
/// it takes too long, and its limits on size, depth and count are stated once, here and in <c>docs/formats.md</c>.
/// Pictures have theirs in <c>PictureIntake</c>, notations of page layouts in <c>DesignNotation</c>.
/// </summary>
public sealed class ForeignReading(string name, CancellationToken cancel)
{
    /// <summary>
    /// Longest time of the processor that one file may take to read, on the thread that reads it: an ordinary file is
    /// not refused because the machine is busy with something else.
    /// </summary>
    public static readonly TimeSpan LongestTime = TimeSpan.FromSeconds(4);

    /// <summary>Nobody waits longer than this, however busy the machine is.</summary>
    public static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(30);

    /// <summary>Largest file of stories, in bytes.</summary>
    public const int LargestStoryFile = 20 << 20;

    /// <summary>Largest calendar file, in bytes.</summary>
    public const int LargestCalendar = 5 << 20;

    /// <summary>Largest track or weather file, in bytes.</summary>
    public const int LargestTrack = 20 << 20;

    /// <summary>Most points of one track file.</summary>
    public const int MostTrackPoints = 200_000;

    /// <summary>Most posts of one file of stories.</summary>
    public const int MostStories = 2_000;

    /// <summary>Most events of one calendar file.</summary>
    public const int MostEvents = 5_000;

    /// <summary>Longest markup of one post, in characters.</summary>
    public const int LongestMarkup = 1_000_000;

    /// <summary>How deep elements, lists and quotes of one post may be nested.</summary>
    public const int DeepestMarkup = 100;

    /// <summary>Most signs of markup (brackets, stars, backquotes and so on) in one paragraph of Markdown.</summary>
    public const int MostMarksInParagraph = 5_000;

    /// <summary>Most elements of one post.</summary>
    public const int MostElements = 50_000;

    private readonly long _began = Stopwatch.GetTimestamp();
    private readonly TimeSpan _worked = ThreadTime.Now();
    private TimeSpan _nextLook = LongestTime;

    /// <summary>The file's name, as the keeper knows it.</summary>
    public string Name { get; } = name;

    /// <summary>
    /// Asked between parts of a file: ends the work when nobody waits any more or the time is used up.
    /// </summary>
    public void Check()
    {
        cancel.ThrowIfCancellationRequested();
        var waited = Stopwatch.GetElapsedTime(_began);
        if (waited < _nextLook)
        {
            return;
        }

        // A thread cannot have worked longer than the clock has run, so its own time is asked for only then.
        _nextLook = waited + TimeSpan.FromMilliseconds(50);
        if (ThreadTime.Now() - _worked > LongestTime || waited > LongestWait)
        {
            throw Refuse($"takes longer than {LongestTime.TotalSeconds:0} seconds to read");
        }
    }

    /// <summary>A refusal that names the limit; nothing was taken.</summary>
    public RuleException Refuse(string why) =>
        new($"{Name} {why}. Nothing was taken: split the file, or save it again in a simpler form.");
}
